import { useMemo, useState } from "react";
import type { Picture, Rig } from "../../api/types";
import { Drawing, type Pen } from "../../drawing/Drawing";
import { boundsOf, type EyeKind, sideWords, turned, viewOf } from "../../drawing/look";
import { project } from "../../drawing/project";
import {
  attachmentPlaces,
  closeUp,
  inked,
  type LineLook,
  lookOf,
  type Place,
  roomier,
} from "../../drawing/rig";
import type { Handle } from "../../drawing/scene";
import { type Flat, seenAt } from "../../drawing/seeing";
import { frontWords, TurnRing } from "../../drawing/TurnRing";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { useSettings } from "../../ui/settings";
import { useKit, useTrade } from "../../ui/useTrade";
import { textOf } from "../../units/text";
import { worded } from "../../units/worded";
import { moved } from "./edits";
import { RigLabels } from "./RigLabels";
import type { Chosen, Snipped, Tool } from "./types";
import { usePen } from "./usePen";
import type { RigDesk } from "./useRigDesk";

type Plane = "front" | "plan";
/** What stands on the floor for measure. */
const UNDERFOOT = /^(?:floor|person)/;
type Props = {
  desk: RigDesk;
  rig: Rig;
  snipped: Snipped | null;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  tool: Tool;
  onTool: (tool: Tool) => void;
};

/** How far down the act in the corner of the first view reaches, px. */
const CORNER_PX = 92;
const AXES = { front: ["x_m", "z_m"], plan: ["x_m", "y_m"] } as const;
const WAYS = { x_m: "right", y_m: "back", z_m: "up" } as const;

/** The rig in two views that turn together, true to scale: level and from above to begin with. */
export function RigDrawing(props: Props) {
  const { pen, drawn } = usePen(props);
  const [close, setClose] = useState(false);
  const [turn, setTurnTo] = useState(0);
  const [eyes, setEyes] = useState<readonly [EyeKind, EyeKind]>(["level", "from above"]);
  const shared = { ...props, close, turn, onTurn: (rad: number) => setTurnTo(turned(rad)) };
  return (
    <>
      <div className="relative min-h-0 flex-[2.6]">
        <Button
          look="quiet"
          aria-pressed={close}
          className="no-print absolute top-0 right-1 z-10 text-sm max-md:top-11"
          onClick={() => setClose(!close)}
        >
          {close ? "Down to the floor" : "Look closer"}
        </Button>
        <RigView
          {...shared}
          first
          eye={eyes[0]}
          onEye={(eye) => setEyes([eye, eyes[1]])}
          pen={pen}
          drawn={drawn}
        />
      </div>
      <div className="relative min-h-0 flex-1 border-t border-line max-md:hidden print:block">
        <RigView {...shared} eye={eyes[1]} onEye={(eye) => setEyes([eyes[0], eye])} pen={null} drawn={[]} />
      </div>
    </>
  );
}

/** How far a handle is from what it moves, so that two of them lie side by side. */
const HANDLE_AWAY = 11;
/** A handle can be grasped so far round its middle, px. */
const GRASP_PX = 22;

function grasp([x, y]: readonly [number, number]) {
  return { left: x - GRASP_PX, top: y - GRASP_PX, wide: 2 * GRASP_PX, tall: 2 * GRASP_PX };
}

type ViewProps = Props & {
  first?: boolean;
  eye: EyeKind;
  onEye: (eye: EyeKind) => void;
  turn: number;
  onTurn: (rad: number) => void;
  pen: Pen | null;
  drawn: readonly Flat[];
  close: boolean;
};

function RigView(props: ViewProps) {
  const { desk, rig, snipped, chosen, onChoose, eye, onEye, turn, onTurn, pen, drawn, close, first } = props;
  const { system } = useSettings();
  const kit = useKit();
  const tightFrom = useTrade()?.tight_from;
  const { rest, report, trying } = desk;
  const step = snipped?.steps[snipped.at] ?? null;
  const picture = step?.picture ?? rest?.picture ?? desk.kept?.planned ?? null;
  const held = useMemo(
    () => attachmentPlaces(rig, step ? heldIn(step.picture) : rest?.attachments_m),
    [rig, step, rest],
  );
  const looks = useMemo<LineLook[]>(
    () =>
      rig.lines.map((_, index) => {
        if (step) {
          if (step.cut.includes(index)) return "cut";
          if (step.lets_go.includes(index)) return "fails";
          return step.over_limit.includes(index) ? "tight" : "holds";
        }
        return lookOf(report?.lines[index]?.use ?? 0, tightFrom);
      }),
    [rig.lines, step, report, tightFrom],
  );
  const view = useMemo(
    () => (picture ? viewOf(picture, eye, turn) : { turn_rad: turn, raised_rad: 0, cut: false }),
    [picture, eye, turn],
  );
  const above = eye === "from above";
  const flats = useMemo(() => {
    const every = kit && picture ? project(picture, [], view, kit) : [];
    return above ? every.filter(({ id }) => !UNDERFOOT.test(id)) : every;
  }, [kit, picture, view, above]);
  const bounds = useMemo(() => {
    if (close) return roomier(boundsOf(closeUp(flats)), 0.12);
    if (eye !== "level")
      return boundsOf(flats.filter(({ id }) => id !== "floor" && !id.startsWith("person")));
    const room = boundsOf(flats);
    return { ...room, yMax: Math.max(room.yMax, picture?.top_m ?? 0) };
  }, [flats, close, eye, picture]);
  const layers = useMemo(() => [inked(flats, looks, chosen), drawn], [flats, looks, chosen, drawn]);
  const straight = Math.abs(Math.sin(turn)) < 1e-6 && Math.cos(turn) > 0;
  const plane = !straight ? null : eye === "level" ? "front" : eye === "from above" ? "plan" : null;
  const unit = (bounds.xMax - bounds.xMin) * 0.006;
  const handles = snipped || !plane ? [] : handlesOf(rig, chosen, plane, unit * HANDLE_AWAY);
  const changed = (id: string, value: number): Rig => {
    const [what, index, axis] = id.split(":") as ["point" | "attachment", string, "x_m"];
    return moved(rig, what, Number(index), axis, value);
  };
  const ringed = picture !== null && !close && !above;
  const ringM = Math.max((picture?.deep_m ?? 0) + 0.5, 0.8);
  const options = (picture?.eyes ?? []).map(({ kind }) => [kind, kind] as const);
  return (
    <div className="relative h-full" data-eye={eye}>
      <div className="pointer-events-none absolute top-1 left-2 z-10 flex items-center gap-2">
        <Choice
          label="Look at it"
          hideLabel
          value={eye}
          options={options}
          onCommit={onEye}
          className="pointer-events-auto w-29.5"
        />
        <p className="pointer-events-none m-0 text-sm text-soft">
          from {sideWords(turn)}
          {first &&
            rest &&
            !step &&
            worded(" · lowest {h} over the floor", {
              h: textOf({ kind: "length", value: rest.lowest_m }, system),
            })}
          {first &&
            rest &&
            !step &&
            rest.tilt_rad > 0.009 &&
            worded(" · hangs {a} out of level", {
              a: textOf({ kind: "angle", value: rest.tilt_rad }, system),
            })}
          {first && trying && " · not judged yet"}
        </p>
      </div>
      <Drawing
        label={`Rig, ${eye}, from ${sideWords(turn)}, to scale`}
        layers={layers}
        pen={plane === "front" ? pen : null}
        bounds={bounds}
        margins={
          first ? { left: 12, right: 12, top: 84, bottom: 30 } : { left: 12, right: 12, top: 46, bottom: 22 }
        }
        handles={handles}
        onPreview={(id, value) => desk.preview(changed(id, value))}
        onCommit={(id, value) => desk.commit(changed(id, value), `Move ${nameOf(rig, id)}`)}
        onCancel={desk.cancel}
        onPick={(id) => onChoose(/^(?:point|attachment|line)-/.test(id) ? id : "")}
        inside={(project_, pxPerM) =>
          ringed && <TurnRing view={view} reachM={ringM} project={project_} pxPerM={pxPerM} onTurn={onTurn} />
        }
        overlay={(place, sheet) =>
          first && (
            <RigLabels
              {...{ rig, report, step, trying, held, looks, chosen, onChoose }}
              rest={rest ?? null}
              spot={(at) => place(seenAt(view, at))}
              sheet={{ left: 2, top: 48, wide: sheet.wide - 4, tall: sheet.tall - 72 }}
              taken={[
                { left: sheet.wide - 150, top: 0, wide: 150, tall: CORNER_PX },
                ...handles.map(({ at }) => grasp(place(at))),
                ...(ringed ? [frontWords(view, ringM, place, sheet.pxPerM)] : []),
              ]}
            />
          )
        }
      />
    </div>
  );
}

/** Where lines meet the armature in a picture. */
function heldIn(picture: Picture): readonly Place[] {
  return picture.primitives.flatMap((each) =>
    each.kind === "dot" && each.id.startsWith("attachment-") ? [each.at as Place] : [],
  );
}

function nameOf(rig: Rig, id: string): string {
  const [what, index] = id.replaceAll(":", "-").split("-");
  return what === "point"
    ? (rig.points[Number(index)]?.name ?? "a point")
    : worded("attachment {n}", { n: Number(index) + 1 });
}

/** Two grips for whatever is chosen: across, and up or back. They stand off it, so that both can be held. */
function handlesOf(rig: Rig, chosen: Chosen, plane: Plane, offM: number): Handle[] {
  const [what, place] = chosen.split("-");
  if (what !== "point" && what !== "attachment") return [];
  const index = Number(place);
  const held = what === "point" ? rig.points[index] : rig.attachments[index];
  if (!held) return [];
  const [x, y] = [held.x_m, plane === "front" ? held.z_m : held.y_m];
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
