import { useMemo } from "react";
import { useNavigate } from "react-router";
import type { EventOut, PieceOut } from "../../api/types";
import { Drawing } from "../../drawing/Drawing";
import type { Bounds, Primitive } from "../../drawing/scene";
import { buildSectionScene, moved, sectionBounds } from "../../drawing/section";
import { SEVERITY, STATE_COLOUR, type State, StateMark } from "../../ui/StateMark";

const GAP_M = 0.12;
const MARGINS = { left: 30, right: 30, top: 26, bottom: 84 };

type Stood = { readonly piece: PieceOut; readonly x: number; readonly half: number };

/** Every piece at one scale, side by side on the table line. */
export function TableLine({ event }: { event: EventOut }) {
  const go = useNavigate();
  const stood = useMemo(() => standInLine(event.pieces), [event.pieces]);
  const scene = useMemo(() => stood.flatMap(sceneOf), [stood]);
  const bounds = useMemo(() => boundsOf(stood), [stood]);
  if (stood.length === 0) {
    return (
      <section className="flex h-[200px] items-center justify-center border-b border-line bg-sheet">
        <p className="serif text-xl text-soft">The table is bare. Add the first piece below.</p>
      </section>
    );
  }
  const table: Primitive = {
    kind: "path",
    id: "table",
    tone: "tone-surface",
    points: [
      [bounds.xMin - 0.5, 0],
      [bounds.xMax + 0.5, 0],
    ],
  };
  return (
    <section aria-label="Line-up" className="h-[360px] flex-none border-b border-line bg-sheet">
      <Drawing
        label="Pieces at one scale on the table line"
        layers={[[table], scene]}
        bounds={bounds}
        margins={MARGINS}
        overlay={(project) =>
          stood.map(({ piece, x, half }) => {
            const [left, ground] = project([x - half, 0]);
            const [right, top] = project([x + half, bounds.yMax]);
            const worst = worstState(piece);
            return (
              <button
                key={piece.id}
                type="button"
                onClick={() => void go(`/events/${event.id}/pieces/${piece.id}`)}
                className="absolute flex flex-col rounded border border-transparent bg-transparent p-0 text-center hover:border-marigold"
                style={{
                  left,
                  width: Math.max(right - left, 130),
                  top: top - 8,
                  height: ground - top + 8 + 66,
                }}
              >
                <span className="block flex-none" style={{ height: ground - top + 12 }} aria-hidden="true" />
                <span className="serif block text-[15px] leading-tight">
                  {piece.piece.name} × {piece.piece.quantity}
                </span>
                <span className={`flex items-center justify-center gap-1.5 ${STATE_COLOUR[worst]}`}>
                  <StateMark state={worst} size={15} />
                  {worst}
                </span>
              </button>
            );
          })
        }
      />
    </section>
  );
}

/** The worst of its verdicts. */
export function worstState(piece: PieceOut): State {
  const judged = piece.report?.verdicts ?? [];
  return judged.reduce<State>(
    (worst, each) => (SEVERITY[each.state] > SEVERITY[worst] ? each.state : worst),
    judged.length ? "not needed" : "cannot say",
  );
}

function standInLine(pieces: readonly PieceOut[]): Stood[] {
  let edge = 0;
  return pieces.map((piece) => {
    const half = sectionBounds(piece.piece, piece.report).xMax;
    const x = edge + half;
    edge = x + half + GAP_M;
    return { piece, x, half };
  });
}

function boundsOf(stood: readonly Stood[]): Bounds {
  const last = stood.at(-1);
  const bounds = stood.map(({ piece }) => sectionBounds(piece.piece, piece.report));
  const top = Math.max(0.2, ...bounds.map((each) => each.yMax));
  const bottom = Math.min(0, ...bounds.map((each) => each.yMin));
  return { xMin: 0, xMax: last ? last.x + last.half : 1, yMin: bottom, yMax: top };
}

const LEFT_OUT = new Set([
  "surface",
  "envelope",
  "balance",
  "balance-a",
  "balance-b",
  "water-low",
  "water-travel",
]);

function sceneOf({ piece, x }: Stood): Primitive[] {
  return buildSectionScene(piece.piece, piece.report)
    .filter((shape) => !LEFT_OUT.has(shape.id))
    .map((shape) => moved(shape, x, `${piece.id}-`));
}
