/** Changes of a rig, each a new rig: what a hand does on the drawing or in the tray. */
import type { Attachment, Brush, HangPoint, Rig, SurveyPoint } from "../../api/types";
import { isRun } from "../../drawing/rig";

export const UNRATED = {
  rating_n: null,
  pull_out_n: null,
  rated_within_rad: null,
  stated_by: null,
  stated_on: null,
  made_for: null,
  surveyed: null,
  beam: null,
  elsewhere: null,
} as const;

/** A point is where the survey has it, and has no rating but the survey's. */
export function surveyedAt({ key, kind, x_m, y_m, z_m }: SurveyPoint): Omit<HangPoint, "name"> {
  return { ...UNRATED, kind, x_m, y_m, z_m, surveyed: key };
}

/** With one measure of a hang point or attachment changed. */
export function moved(
  rig: Rig,
  what: "point" | "attachment",
  index: number,
  axis: "x_m" | "y_m" | "z_m",
  value: number,
): Rig {
  if (what === "point") {
    return {
      ...rig,
      points: rig.points.map((each, at) => (at === index ? { ...each, [axis]: value } : each)),
    };
  }
  return {
    ...rig,
    attachments: rig.attachments
      .map((each, at) => (at === index ? { ...each, [axis]: value } : each))
      .map((each) => (isRun(rig) ? shared(each) : each)),
  };
}

/** A stroke of the brush at a share 0-1 of the way along: fuller or thinner there, less so beside it. */
export function painted(brush: Brush, density: readonly number[], share: number, fuller: boolean): number[] {
  const now = density.length === brush.stations ? density : evened(brush, density);
  return now.map((each, index) => {
    const far = Math.abs((index + 0.5) / brush.stations - share) * brush.stations;
    const by = brush.thicker ** Math.max(0, 1 - far / brush.reach);
    const next = fuller ? each * by : each / by;
    return Math.round(Math.min(Math.max(next, 1 / brush.most), brush.most) * 1000) / 1000;
  });
}

function evened(brush: Brush, density: readonly number[]): number[] {
  return Array.from({ length: brush.stations }, (_, index) => {
    const at = Math.min(Math.floor(((index + 0.5) / brush.stations) * density.length), density.length - 1);
    return density[at] ?? 1;
  });
}

/** Its place along the run is shared out anew. */
function shared(each: Attachment): Attachment {
  return { ...each, along_m: null };
}
