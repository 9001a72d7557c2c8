import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import type { EventOut, RigOut } from "../../api/types";
import { rigsOf } from "../../desk/change";
import { Drawing } from "../../drawing/Drawing";
import { armatureLayer } from "../../drawing/hung";
import { mountLayer } from "../../drawing/mounted";
import { attachmentPlaces, bondLayer, lineLayer, lookOf, pointLayer, rigBounds } from "../../drawing/rig";
import { type Bounds, moved, type Primitive } from "../../drawing/scene";
import { STATE_COLOUR, type State, StateMark } from "../../ui/StateMark";

const GAP_M = 1.5;
const LABEL_PX = 150;
const DOT_M = 0.045;

type Hung = { readonly rig: RigOut; readonly x: number; readonly bounds: Bounds };

/** Every hung piece at one scale, side by side, from its beam down to the floor. */
export function BeamLine({ event }: { event: EventOut }) {
  const go = useNavigate();
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const hung = useMemo(() => sideBySide(rigsOf(event)), [event]);
  const scene = useMemo(() => {
    const varieties = stock.data?.varieties ?? {};
    return hung.flatMap(({ rig: { id, part: rig, report }, x }): Primitive[] => {
      const held = attachmentPlaces(rig, report?.rest ?? null);
      const looks = rig.lines.map((_, index) => lookOf(report?.lines[index]?.use ?? 0));
      return [
        ...mountLayer(rig, "front"),
        ...bondLayer(rig, held, "front"),
        ...lineLayer(rig, held, looks, "front"),
        ...armatureLayer(rig, report?.rest.at_m ?? [], varieties, "front"),
        ...pointLayer(rig, held, "front", DOT_M, ""),
      ].map((shape) => moved(shape, x, `${id}-`));
    });
  }, [hung, stock.data]);
  const top = Math.max(...hung.map(({ bounds }) => bounds.yMax));
  const last = hung.at(-1);
  const wide = last ? last.x + last.bounds.xMax : 1;
  const floor: Primitive = {
    kind: "path",
    id: "floor",
    tone: "tone-surface",
    points: [
      [-30, 0],
      [wide + 30, 0],
    ],
  };
  return (
    <section
      aria-label="Hung work"
      className="flex-none overflow-x-auto overflow-y-hidden border-b border-line bg-sheet"
    >
      <div
        className="h-[270px] print:w-full!"
        style={{ width: `max(100%, ${1.15 * hung.length * LABEL_PX}px)` }}
      >
        <Drawing
          label="Hung pieces at one scale, from the beam to the floor"
          layers={[[floor], scene]}
          bounds={{ xMin: 0, xMax: wide, yMin: 0, yMax: top }}
          margins={{ left: 40, right: 40, top: 10, bottom: 58 }}
          overlay={(project) =>
            hung.map(({ rig, x, bounds }) => {
              const [middle, under] = project([x + (bounds.xMin + bounds.xMax) / 2, 0]);
              const state: State = rig.report?.verdict.state ?? "cannot say";
              return (
                <button
                  type="button"
                  key={rig.id}
                  onClick={() => void go(`/events/${event.id}/rigs/${rig.id}`)}
                  className="absolute rounded border border-transparent bg-sheet/80 p-0 text-center hover:border-marigold"
                  style={{ left: middle - LABEL_PX / 2, width: LABEL_PX, top: under + 4 }}
                >
                  <span className="serif line-clamp-2 text-[14px] leading-[1.1]">{rig.part.name}</span>
                  <span
                    className={`flex items-center justify-center gap-1.5 text-[14px] ${STATE_COLOUR[state]}`}
                  >
                    <StateMark state={state} size={14} />
                    {state === "holds" || state === "tight" ? state : "not cleared"}
                  </span>
                </button>
              );
            })
          }
        />
      </div>
    </section>
  );
}

function sideBySide(rigs: readonly RigOut[]): Hung[] {
  let edge = 0;
  return rigs.map((rig) => {
    const bounds = rigBounds(rig.part, rig.report, "front");
    const x = edge - bounds.xMin;
    edge = x + bounds.xMax + GAP_M;
    return { rig, x, bounds };
  });
}
