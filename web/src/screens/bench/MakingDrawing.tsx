import { useCallback, useEffect, useMemo, useState } from "react";
import type { MakingReport, Moment, Piece, Report } from "../../api/types";
import { type EyeKind, tipped, turned, viewOf } from "../../drawing/look";
import { DOT, type Flat, type Spot, seenAt } from "../../drawing/seeing";
import { stemsOf } from "../../drawing/stems";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";
import { PieceView } from "./PieceView";

type Props = { piece: Piece; report: Report; making: MakingReport; step: number };

const MARGINS = { left: 20, right: 20, top: 56, bottom: 40 };
const FALLEN_RAD = 0.38;
const FALL_MS = 650;

/** The drawing building up: the stems so far, the newest marked, the balance point where it is now. */
export function MakingDrawing({ piece, report, making, step }: Props) {
  const { system } = useSettings();
  const onLedge = piece.setting.where === "ledge";
  const [turn, setTurnTo] = useState(onLedge ? Math.PI / 2 : 0);
  const [eye, setEye] = useState<EyeKind>("cut open");
  const moment = momentAt(making, step);
  const lean = useFall((moment?.falls ?? false) && onLedge && !piece.making.propped);
  const stems = useMemo(
    () => making.steps.slice(0, step).flatMap((each) => stemsOf(report.stems)[each.row] ?? []),
    [making, report, step],
  );
  const side = Math.sin(turn) > 0.99;
  const newest = stems.at(-1);
  const reshape = useCallback(
    (flats: readonly Flat[]) => {
      const view = viewOf(report.picture, eye, turn);
      const marked = flats.filter(({ id }) => id !== "balance");
      const mark = (id: string, ink: string, at: readonly number[], r: number) => {
        const [x, y] = seenAt(view, at);
        marked.push({ ...DOT, id, ink, dots: [[x, y, r]] });
      };
      if (newest) {
        const tip = [newest.tip_x_m, newest.tip_y_m, newest.tip_z_m - newest.droop_m];
        mark("newest", "newest", tip, newest.head_radius_m + 0.008);
      }
      if (moment && making.margin !== "wrist moment" && report.balance) {
        mark("balance", "balance", [moment.x_m, moment.y_m, moment.height_m], 0.006);
      }
      const axis: Spot = [report.ledge?.axis_m ?? 0, 0];
      return lean > 0 && side && view.raised_rad === 0
        ? marked.map((flat) => (STAYS.test(flat.id) ? flat : tipped(flat, axis, lean)))
        : marked;
    },
    [report, eye, turn, newest, moment, making.margin, lean, side],
  );
  return (
    <div className="relative min-h-55 flex-1" data-fallen={lean > 0}>
      <p className="absolute top-2 right-2 left-35 z-10 m-0 text-right text-sm leading-tight text-soft">
        {moment && (
          <>
            {textOf({ kind: "mass", value: moment.mass_kg }, system)} so far
            {moment.falls && onLedge ? (
              <strong className="text-berry"> · it falls off the ledge</strong>
            ) : (
              ` · ${marginWords(making, moment)}`
            )}
          </>
        )}
      </p>
      <PieceView
        report={report}
        stems={stems}
        eye={eye}
        onEye={setEye}
        turn={turn}
        onTurn={(rad) => setTurnTo(turned(rad))}
        reshape={reshape}
        margins={MARGINS}
      />
    </div>
  );
}

const STAYS = /^(?:ledge|surface|spill)/;

export function momentAt(making: MakingReport, step: number): Moment | null {
  return making.steps[step - 1]?.moment ?? making.start;
}

function marginWords(making: MakingReport, moment: Moment): string {
  if (making.margin === "ledge ratio") {
    return moment.ledge_ratio === null || moment.ledge_ratio > 9.9
      ? "nothing leans out"
      : `held ${moment.ledge_ratio.toFixed(2)} times`;
  }
  if (making.margin === "wrist moment") return "in the hand";
  return `tips ${moment.towards} at ${((moment.tip_angle_rad * 180) / Math.PI).toFixed(0)}°`;
}

/** From upright to fallen in a moment, or at once where motion is not wanted. */
function useFall(falls: boolean): number {
  const [lean, setLean] = useState(0);
  useEffect(() => {
    if (!falls) {
      setLean(0);
      return;
    }
    if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) {
      setLean(FALLEN_RAD);
      return;
    }
    let frame = 0;
    const start = performance.now();
    const tick = (time: number) => {
      const share = Math.min((time - start) / FALL_MS, 1);
      setLean(FALLEN_RAD * share * share);
      if (share < 1) frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [falls]);
  return lean;
}
