import { useMemo, useState } from "react";
import type { HangPoint, Rig, Stock } from "../../api/types";
import { Drawing, type Pen } from "../../drawing/Drawing";
import { armatureLayer } from "../../drawing/hung";
import { hazardLayer, mountLayer } from "../../drawing/mounted";
import { onSheet, type Place, type Plane } from "../../drawing/plane";
import {
  attachmentPlaces,
  bondLayer,
  isTied,
  type LineLook,
  lineLabels,
  lineLayer,
  lookOf,
  pointLayer,
  pointPlaces,
  rigBounds,
  roomLayer,
} from "../../drawing/rig";
import type { Handle, Primitive } from "../../drawing/scene";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";
import { moved } from "./edits";
import type { Chosen, Snipped, Tool } from "./types";
import { usePen } from "./usePen";
import type { RigDesk } from "./useRigDesk";

type Props = {
  desk: RigDesk;
  rig: Rig;
  stock: Stock;
  snipped: Snipped | null;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  tool: Tool;
  onTool: (tool: Tool) => void;
};

const AXES = { front: ["x_m", "z_m"], plan: ["x_m", "y_m"] } as const;
const WAYS = { x_m: "right", y_m: "back", z_m: "up" } as const;
/** A line that needs less than this of its tension is slack. */
const SLACK_N = 0.5;
/** Room the words of a line take, px. */
const LABEL_PX = [72, 36] as const;

/** The rig from the front and from above, both true to scale. */
export function RigDrawing(props: Props) {
  const { pen, drawn } = usePen(props);
  const [close, setClose] = useState(false);
  return (
    <>
      <div className="relative min-h-0 flex-[2.6]">
        <Button
          look="quiet"
          aria-pressed={close}
          className="no-print absolute top-0 right-1 z-10 text-[14px]"
          onClick={() => setClose(!close)}
        >
          {close ? "Down to the floor" : "Look closer"}
        </Button>
        <PlaneView {...props} plane="front" pen={pen} drawn={drawn} close={close} />
      </div>
      <div className="relative min-h-0 flex-1 border-t border-line">
        <PlaneView {...props} plane="plan" pen={null} drawn={[]} close={close} />
      </div>
    </>
  );
}

type PlaneProps = Props & { plane: Plane; pen: Pen | null; drawn: readonly Primitive[]; close: boolean };

function PlaneView({ desk, rig, stock, snipped, chosen, onChoose, plane, pen, drawn, close }: PlaneProps) {
  const { system } = useSettings();
  const { rest, report, trying } = desk;
  const step = snipped?.steps[snipped.at] ?? null;
  const whole = useMemo(() => attachmentPlaces(rig, rest), [rig, rest]);
  const at: readonly Place[] = step ? step.at_m : (rest?.at_m ?? []);
  const held = useMemo(
    () => (step ? nearest(step.at_m, whole, rest?.at_m ?? []) : whole),
    [step, whole, rest],
  );
  const looks = useMemo<LineLook[]>(
    () =>
      rig.lines.map((_, index) => {
        if (step) {
          if (step.cut.includes(index)) return "cut";
          if (step.lets_go.includes(index)) return "fails";
          return step.over_limit.includes(index) ? "tight" : "holds";
        }
        return lookOf(report?.lines[index]?.use ?? 0);
      }),
    [rig.lines, step, report],
  );
  const bounds = useMemo(() => rigBounds(rig, report, plane, close), [rig, report, plane, close]);
  const unit = (bounds.xMax - bounds.xMin) * 0.006;
  const layers = useMemo(
    () => [
      plane === "front" ? roomLayer(rig, bounds) : [],
      mountLayer(rig, plane),
      hazardLayer(rig, plane, unit),
      bondLayer(rig, held, plane),
      lineLayer(rig, held, looks, plane),
      armatureLayer(rig, at, stock.varieties, plane),
      pointLayer(rig, held, plane, unit, chosen),
    ],
    [rig, bounds, held, looks, at, stock.varieties, plane, unit, chosen],
  );
  const handles = snipped ? [] : handlesOf(rig, chosen, plane, unit * 5);
  const changed = (id: string, value: number): Rig => {
    const [what, index, axis] = id.split(":") as ["point" | "attachment", string, "x_m"];
    return moved(rig, what, Number(index), axis, value);
  };
  const front = plane === "front";
  const tied = isTied(rig);
  return (
    <>
      <p className="pointer-events-none absolute top-1 left-3 z-10 m-0 text-[14px] text-soft">
        {front ? "From the front" : "From above"}
        {front &&
          rest &&
          !step &&
          ` · lowest ${textOf({ kind: "length", value: rest.lowest_m }, system)} over the floor`}
        {front &&
          rest &&
          !step &&
          rest.tilt_rad > 0.009 &&
          ` · hangs ${textOf({ kind: "angle", value: rest.tilt_rad }, system)} out of level`}
        {front && trying && " · not judged yet"}
      </p>
      <Drawing
        label={front ? "Rig from the front" : "Rig from above"}
        layers={[...layers, drawn]}
        pen={pen}
        bounds={bounds}
        margins={
          front ? { left: 12, right: 12, top: 46, bottom: 26 } : { left: 12, right: 12, top: 20, bottom: 20 }
        }
        handles={handles}
        onPreview={(id, value) => desk.preview(changed(id, value))}
        onCommit={(id, value) => desk.commit(changed(id, value), `Move ${nameOf(rig, id)}`)}
        onCancel={desk.cancel}
        onPick={(id) => onChoose(/^(?:point|attachment|line)-/.test(id) ? id : "")}
        overlay={(project) =>
          front && (
            <>
              {!tied &&
                pointPlaces(rig, project).map(({ at: place, points }) => {
                  const [left, top] = project(place);
                  return (
                    <span
                      key={points.join("-")}
                      className="absolute flex -translate-x-1/2 -translate-y-full flex-col items-center text-[13px] leading-[1.15] whitespace-nowrap"
                      style={{ left, top: top - 7 }}
                    >
                      {points.map((index) => (
                        <PointName
                          key={index}
                          point={rig.points[index]}
                          rated={report?.points[index]?.use !== null}
                          onChoose={() => onChoose(`point-${index}`)}
                        />
                      ))}
                    </span>
                  );
                })}
              {lineLabels(rig, held).map((middle, index, all) => {
                const [left, top] = project(middle);
                const same = sharing(rig, index);
                if (tied && same[0] !== index && chosen !== `line-${index}` && !step) return null;
                const crowded =
                  tied || all.some((each, at) => at !== index && near(project(each), [left, top]));
                const tension = step ? step.tension_n[index] : (rest?.tension_n[index] ?? 0);
                const cut = step?.cut.includes(index);
                const goes = step?.lets_go.includes(index);
                const over = step?.over_limit.includes(index);
                const use = Math.max(...same.map((at) => report?.lines[at]?.use ?? 0));
                const look = looks[index] ?? "holds";
                const quiet = crowded && look === "holds" && chosen !== `line-${index}`;
                const colour = {
                  holds: "text-ink",
                  tight: "text-marigold",
                  fails: "text-berry",
                  cut: "text-soft",
                }[look];
                return (
                  <button
                    type="button"
                    // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place
                    key={index}
                    aria-pressed={chosen === `line-${index}`}
                    onClick={() => onChoose(`line-${index}`)}
                    className={`absolute -translate-y-1/2 rounded border bg-sheet/85 px-1 py-0.5 text-left text-[13px] leading-tight ${tied ? "-translate-x-1/2" : "ml-2"} ${colour} ${chosen === `line-${index}` ? "border-marigold" : "border-transparent"}`}
                    style={{ left, top }}
                    title={report?.lines[index]?.name}
                  >
                    {quiet
                      ? step
                        ? ""
                        : use.toFixed(2)
                      : cut
                        ? "✂ cut"
                        : (tension ?? 0) < SLACK_N
                          ? "slack"
                          : textOf({ kind: "force", value: tension ?? 0 }, system)}
                    {step && goes && <strong className="block">✕ lets go</strong>}
                    {step && over && !goes && <strong className="block">△ over its limit</strong>}
                    {!step && !trying && !quiet && (
                      <span className="block">use {use > 9.99 ? "over 9.99" : use.toFixed(2)}</span>
                    )}
                  </button>
                );
              })}
            </>
          )
        }
      />
    </>
  );
}

/** Lines to the same place as one, with itself. */
function sharing(rig: Rig, index: number): readonly number[] {
  if (!isTied(rig)) return [index];
  const { attachment } = rig.lines[index] ?? {};
  return rig.lines.flatMap((line, at) => (line.attachment === attachment ? [at] : []));
}

/** Whether two labels would cover one another, px. */
function near(one: readonly [number, number], other: readonly [number, number]): boolean {
  return Math.abs(one[0] - other[0]) < LABEL_PX[0] && Math.abs(one[1] - other[1]) < LABEL_PX[1];
}

function PointName({
  point,
  rated,
  onChoose,
}: {
  point: HangPoint | undefined;
  rated: boolean;
  onChoose: () => void;
}) {
  if (!point) return null;
  return (
    <button type="button" onClick={onChoose} className="border-0 bg-sheet/80 px-1 py-0 leading-[1.15]">
      {point.name}
      {!rated && <span className="text-berry"> · not rated</span>}
    </button>
  );
}

/** Where attachments are in a state after a cut: the nodes nearest along the armature to where they were. */
function nearest(now: readonly Place[], held: readonly Place[], before: readonly Place[]): readonly Place[] {
  if (now.length === 0 || now.length !== before.length) return held;
  return held.map((place) => {
    let best = 0;
    let least = Number.POSITIVE_INFINITY;
    for (const [index, node] of before.entries()) {
      const far = Math.hypot(node[0] - place[0], node[1] - place[1], node[2] - place[2]);
      if (far < least) [best, least] = [index, far];
    }
    return now[best] ?? place;
  });
}

function nameOf(rig: Rig, id: string): string {
  const [what, index] = id.replaceAll(":", "-").split("-");
  return what === "point"
    ? (rig.points[Number(index)]?.name ?? "a point")
    : `attachment ${Number(index) + 1}`;
}

/** Two grips for whatever is chosen: across, and up or back. They stand off it, so that both can be held. */
function handlesOf(rig: Rig, chosen: Chosen, plane: Plane, offM: number): Handle[] {
  const [what, place] = chosen.split("-");
  if (what !== "point" && what !== "attachment") return [];
  const index = Number(place);
  const held = what === "point" ? rig.points[index] : rig.attachments[index];
  if (!held) return [];
  const [x, y] = onSheet([held.x_m, held.y_m, held.z_m], plane);
  return AXES[plane].map((axis, which): Handle => {
    const upright = which === 1;
    return {
      id: `${what}:${index}:${axis}`,
      label: `${nameOf(rig, chosen)}, ${WAYS[axis]}`,
      at: upright ? [x, y - offM] : [x + offM, y],
      axis: upright ? "y" : "x",
      gain: 1,
      value: held[axis],
      min: axis === "z_m" ? 0.1 : -30,
      max: 30,
    };
  });
}
