/** The same piece seen from its right side: what lay to the back is now to the right. Drawings need no second way. */
import type { Companion, Piece, PlacedStem, Report, Vessel } from "../api/types";

export type View = "front" | "side";

function turnVessel(vessel: Vessel): Vessel {
  return {
    ...vessel,
    profile: vessel.profile.map((point) => ({ ...point, width_m: point.depth_m, depth_m: point.width_m })),
    foot_width_m: vessel.foot_depth_m ?? vessel.foot_width_m,
    foot_depth_m: vessel.foot_width_m,
  };
}

function turnCompanion(each: Companion): Companion {
  return { ...each, vessel: turnVessel(each.vessel), x_m: each.y_m, y_m: -each.x_m };
}

export function turnPiece(piece: Piece): Piece {
  const { envelope, insert } = piece;
  const turned: Piece = {
    ...piece,
    vessel: turnVessel(piece.vessel),
    envelope: { ...envelope, width_m: envelope.depth_m, depth_m: envelope.width_m },
    insert: insert && { ...insert, outer: turnVessel(insert.outer) },
  };
  if (turned.kind !== "standing") return turned;
  const weight = turned.counterweight;
  return {
    ...turned,
    companions: turned.companions.map(turnCompanion),
    counterweight: weight && { ...weight, azimuth_rad: weight.azimuth_rad - Math.PI / 2 },
  };
}

function turnStem(stem: PlacedStem): PlacedStem {
  return {
    ...stem,
    seat_x_m: stem.seat_y_m,
    seat_y_m: -stem.seat_x_m,
    tip_x_m: stem.tip_y_m,
    tip_y_m: -stem.tip_x_m,
    end_x_m: stem.end_y_m,
    end_y_m: -stem.end_x_m,
  };
}

export function turnReport(report: Report): Report {
  const { balance, outline } = report;
  return {
    ...report,
    foot_width_m: report.foot_depth_m,
    foot_depth_m: report.foot_width_m,
    stems: report.stems.map(turnStem),
    envelope_front: report.envelope_side,
    outline: { ...outline, width_m: outline.depth_m, depth_m: outline.width_m },
    balance: balance && { ...balance, x_m: balance.y_m, y_m: -balance.x_m },
    companions: report.companions.map((each) => ({ ...each, x_m: each.y_m, y_m: -each.x_m })),
  };
}
