import { useMemo } from "react";
import { useNavigate } from "react-router";
import type { EventOut, RigOut } from "../../api/types";
import { rigsOf } from "../../desk/change";
import { Drawing } from "../../drawing/Drawing";
import { inRows } from "../../drawing/labels";
import { boundsOf, movedFlat } from "../../drawing/look";
import { project } from "../../drawing/project";
import { inked, lookOf } from "../../drawing/rig";
import type { Bounds } from "../../drawing/scene";
import { DOT, type Flat, type Kit, type View } from "../../drawing/seeing";
import { STATE_COLOUR, type State, StateMark } from "../../ui/StateMark";
import { useKit, useTrade } from "../../ui/useTrade";

const GAP_M = 2;
const LABEL_PX = 150;
const LEVEL: View = { turn_rad: 0, raised_rad: 0, cut: false };
const LEFT_OUT = /^(?:floor|person|walkway|hazard)/;

type Hung = {
  readonly rig: RigOut;
  readonly flats: readonly Flat[];
  readonly x: number;
  readonly bounds: Bounds;
};

/** Every hung piece at one scale, side by side, from its beam down to the floor. */
export function BeamLine({ event }: { event: EventOut }) {
  const go = useNavigate();
  const kit = useKit();
  const tightFrom = useTrade()?.tight_from;
  const hung = useMemo(() => (kit ? sideBySide(rigsOf(event), kit, tightFrom) : []), [event, kit, tightFrom]);
  const scene = useMemo(
    () => hung.flatMap(({ rig, flats, x }) => flats.map((flat) => movedFlat(flat, x, 0, `${rig.id}-`))),
    [hung],
  );
  const top = Math.max(2, ...hung.map(({ bounds }) => bounds.yMax));
  const last = hung.at(-1);
  const wide = last ? last.x + last.bounds.xMax : 1;
  const floor: Flat = {
    ...DOT,
    id: "floor",
    ink: "surface",
    part: "edge",
    runs: [
      [
        [-30, 0],
        [wide + 30, 0],
      ],
    ],
  };
  return (
    <section
      aria-label="Hung work"
      className="flex-none overflow-x-auto overflow-y-hidden border-b border-line bg-sheet"
    >
      <div
        className="h-67.5 print:[zoom:0.55]"
        style={{ width: `max(100%, ${1.02 * hung.length * LABEL_PX}px)` }}
      >
        <Drawing
          label="Hung pieces at one scale, from the beam to the floor"
          layers={[[floor], scene]}
          bounds={{ xMin: 0, xMax: wide, yMin: 0, yMax: top }}
          margins={{ left: 40, right: 40, top: 10, bottom: 58 }}
          overlay={(project, sheet) => {
            const [, under] = project([0, 0]);
            const middles = hung.map(({ x, bounds }) => project([x + (bounds.xMin + bounds.xMax) / 2, 0])[0]);
            const room = { wide: LABEL_PX, tall: sheet.tall - under - 6 };
            const places = inRows(middles, room, 1, under + 3, sheet.wide);
            return hung.map(({ rig }, index) => {
              const [left, top] = places[index] ?? [0, 0];
              const state: State = rig.report?.verdict.state ?? "cannot say";
              return (
                <button
                  type="button"
                  key={rig.id}
                  onClick={() => void go(`/events/${event.id}/rigs/${rig.id}`)}
                  className="absolute rounded border border-transparent bg-sheet/80 p-0 text-center hover:border-marigold"
                  style={{ left, width: LABEL_PX, top }}
                >
                  <span className="serif line-clamp-2 text-sm leading-[1.1]">{rig.part.name}</span>
                  <span className={`flex items-center justify-center gap-1.5 text-sm ${STATE_COLOUR[state]}`}>
                    <StateMark state={state} size={14} />
                    {state === "holds" || state === "tight" ? state : "not cleared"}
                  </span>
                </button>
              );
            });
          }}
        />
      </div>
    </section>
  );
}

function sideBySide(rigs: readonly RigOut[], kit: Kit, tightFrom: number | undefined): Hung[] {
  let edge = 0;
  return rigs.map((rig) => {
    const picture = rig.report?.rest.picture ?? rig.planned;
    const looks = rig.part.lines.map((_, index) => lookOf(rig.report?.lines[index]?.use ?? 0, tightFrom));
    const every = picture ? project(picture, [], LEVEL, kit) : [];
    const flats = inked(
      every.filter(({ id }) => !LEFT_OUT.test(id)),
      looks,
      "",
    );
    const bounds = boundsOf(flats);
    const x = edge - bounds.xMin;
    edge = x + bounds.xMax + GAP_M;
    return { rig, flats, x, bounds };
  });
}
