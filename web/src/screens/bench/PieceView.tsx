import { type ReactNode, useMemo } from "react";
import type { Looking, PlacedStem, Report } from "../../api/types";
import { Drawing } from "../../drawing/Drawing";
import { boundsFor, type EyeKind, glanceOf, hatched, sideWords, viewOf } from "../../drawing/look";
import { project } from "../../drawing/project";
import type { Handle } from "../../drawing/scene";
import type { Flat, Spot } from "../../drawing/seeing";
import { stemsOf } from "../../drawing/stems";
import { TurnRing } from "../../drawing/TurnRing";
import { Choice } from "../../ui/Choice";
import { useKit } from "../../ui/useTrade";

type Props = {
  report: Report;
  stems?: readonly PlacedStem[];
  eye: EyeKind;
  onEye: (eye: EyeKind) => void;
  turn: number;
  onTurn: (rad: number) => void;
  withHeads?: boolean;
  /** What shows from every side, to be hatched. */
  looking?: Looking | undefined;
  handles?: readonly Handle[];
  problemHandle?: string | null;
  onPreview?: (id: string, value: number) => void;
  onCommit?: (id: string, value: number) => void;
  onCancel?: () => void;
  onPick?: (id: string) => void;
  /** Changes what is drawn just before it is. */
  reshape?: (flats: readonly Flat[]) => readonly Flat[];
  margins?: { left: number; right: number; top: number; bottom: number };
  overlay?: (project: (at: Spot) => readonly [number, number]) => ReactNode;
  children?: ReactNode;
};

const ROOMY = { left: 24, right: 24, top: 52, bottom: 48 };
const HEAD = /^head-/;

/** One view of a piece, from an eye that goes round it. */
export function PieceView(props: Props) {
  const { report, eye, turn, onTurn, onEye, withHeads = true, reshape, overlay } = props;
  const every = stemsOf(report.stems);
  const stems = props.stems ?? every;
  const kit = useKit();
  const { picture } = report;
  const view = useMemo(() => viewOf(picture, eye, turn), [picture, eye, turn]);
  const seen = useMemo(() => (kit ? project(picture, stems, view, kit) : []), [picture, stems, view, kit]);
  const whole = useMemo(
    () => (kit && props.stems ? project(picture, every, view, kit) : seen),
    [kit, props.stems, picture, every, view, seen],
  );
  const bounds = useMemo(() => boundsFor(picture, whole, view), [picture, whole, view]);
  const layers = useMemo(() => {
    const kept = withHeads ? seen : seen.filter(({ id }) => !HEAD.test(id));
    return [reshape ? reshape(kept) : kept];
  }, [seen, withHeads, reshape]);
  const glance = glanceOf(props.looking, eye, turn);
  const marks = useMemo(() => hatched(props.looking, glance, view), [props.looking, glance, view]);
  const options = picture.eyes.map(({ kind }) => [kind, kind] as const);
  return (
    <div className="relative h-full min-h-0" data-eye={eye}>
      <div className="pointer-events-none absolute top-1 left-2 z-10 flex items-center gap-2 *:pointer-events-auto">
        <Choice
          label="Look at it"
          hideLabel
          value={eye}
          options={options}
          onCommit={onEye}
          className="w-29.5"
        />
        {props.children}
      </div>
      {glance && (
        <output className="pointer-events-none absolute top-12.5 left-3 z-10 max-w-[70%] text-xs leading-tight text-soft">
          {glance.share >= 0.005
            ? `${Math.round(glance.share * 100)} % of the ${glance.of} shows from here`
            : "nothing to be hidden shows from here"}
        </output>
      )}
      <Drawing
        label={
          eye === "cut open"
            ? `Cut open, from ${sideWords(turn)}, to scale`
            : `Seen ${eye}, from ${sideWords(turn)}, to scale`
        }
        layers={[...layers, marks]}
        bounds={bounds}
        margins={props.margins ?? ROOMY}
        handles={props.handles ?? []}
        problemHandle={props.problemHandle ?? null}
        {...(props.onPreview && { onPreview: props.onPreview })}
        {...(props.onCommit && { onCommit: props.onCommit })}
        {...(props.onCancel && { onCancel: props.onCancel })}
        {...(props.onPick && { onPick: props.onPick })}
        {...(overlay && { overlay })}
        inside={(place, pxPerM) => (
          <TurnRing view={view} reachM={picture.reach_m} project={place} pxPerM={pxPerM} onTurn={onTurn} />
        )}
      />
    </div>
  );
}
