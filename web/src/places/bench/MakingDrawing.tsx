import { useEffect, useMemo, useState } from "react";
import type { MakingReport, Moment, Piece, Report } from "../../api/types";
import { Drawing } from "../../drawing/Drawing";
import type { Point, Primitive } from "../../drawing/scene";
import {
  headLayer,
  markLayer,
  mechanicLayer,
  sectionBounds,
  stemLayer,
  vesselLayer,
} from "../../drawing/section";
import { turnPiece, turnReport, type View } from "../../drawing/turned";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";
import { ViewSwitch } from "./ViewSwitch";

type Props = { piece: Piece; report: Report; making: MakingReport; step: number };

const MARGINS = { left: 16, right: 16, top: 46, bottom: 30 };
const FALLEN_RAD = 0.38;
const FALL_MS = 650;

/** The drawing building up: the stems so far, the newest marked, the balance point where it is now. */
export function MakingDrawing({ piece, report, making, step }: Props) {
  const { system } = useSettings();
  const onLedge = piece.setting.where === "ledge";
  const [view, setView] = useState<View>(onLedge ? "side" : "front");
  const moment = momentAt(making, step);
  const lean = useFall((moment?.falls ?? false) && onLedge && !piece.making.propped);
  const side = view === "side";
  const shown = useMemo(() => (side ? turnPiece(piece) : piece), [side, piece]);
  const whole = useMemo(() => (side ? turnReport(report) : report), [side, report]);
  const now = useMemo(
    () => (side ? turnReport(stepped(report, making, step)) : stepped(report, making, step)),
    [side, report, making, step],
  );
  const newest = now.stems.at(-1);
  const layers = useMemo(() => {
    const ring: Primitive[] = newest
      ? [
          {
            kind: "circle",
            id: "newest",
            tone: "tone-newest",
            at: [newest.tip_x_m, newest.tip_z_m],
            r: newest.head_radius_m + 0.008,
          },
        ]
      : [];
    const all = [
      vesselLayer(shown, now, view),
      stemLayer(now),
      mechanicLayer(shown, now),
      headLayer(now),
      markLayer(shown, now),
      ring,
    ];
    const axis: Point = [side ? (report.ledge?.axis_m ?? 0) : 0, 0];
    return all.map((layer) =>
      lean > 0 && side
        ? layer.map((shape) => (STAYS.test(shape.id) ? shape : rotated(shape, axis, lean)))
        : layer,
    );
  }, [shown, now, view, newest, lean, side, report.ledge]);
  return (
    <div className="relative min-h-[220px] flex-1" data-fallen={lean > 0}>
      <div className="absolute top-1 right-2 left-3 z-10 flex items-center justify-between gap-3">
        <p className="m-0 text-[14px] leading-tight text-soft">
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
        <ViewSwitch view={view} onView={setView} />
      </div>
      <Drawing
        label={`Making, step ${step}, from the ${view === "side" ? "right side" : "front"}`}
        layers={layers}
        bounds={sectionBounds(shown, whole, view)}
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

/** The report with only the stems that are in, and the balance point they give. */
function stepped(report: Report, making: MakingReport, step: number): Report {
  const moment = momentAt(making, step);
  const stems = making.steps
    .slice(0, step)
    .map((each) => report.stems[each.row])
    .filter((each) => each !== undefined);
  if (!moment || making.margin === "wrist moment") return { ...report, stems, balance: null };
  const { x_m, y_m, height_m, mass_kg } = moment;
  const balance = report.balance && { ...report.balance, x_m, y_m, height_m, mass_kg };
  return { ...report, stems, balance };
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

function rotated(shape: Primitive, about: Point, angle: number): Primitive {
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const turn = ([x, y]: Point): Point => {
    const dx = x - about[0];
    const dy = y - about[1];
    return [about[0] + dx * cos - dy * sin, about[1] + dx * sin + dy * cos];
  };
  if (shape.kind === "path") return { ...shape, points: shape.points.map(turn) };
  if (shape.kind === "ellipse") return { ...shape, at: turn(shape.at), turn: shape.turn + angle };
  return { ...shape, at: turn(shape.at) };
}
