import { Fragment, useMemo } from "react";
import { useNavigate } from "react-router";
import type { EventOut, PieceOut } from "../../api/types";
import { piecesOf } from "../../desk/change";
import { Drawing } from "../../drawing/Drawing";
import { inRows } from "../../drawing/labels";
import { boundsOf, movedFlat } from "../../drawing/look";
import { project } from "../../drawing/project";
import type { Bounds } from "../../drawing/scene";
import { DOT, type Flat, type Kit, type View } from "../../drawing/seeing";
import { stemsOf } from "../../drawing/stems";
import { SEVERITY, STATE_COLOUR, type State, StateMark } from "../../ui/StateMark";
import { useKit } from "../../ui/useTrade";

const GAP_M = 0.12;
const TIER_PX = 56;
const TIERS = 2;
const TABLE_M = 0.75;
const LABEL_PX = 128;

const LEVEL: View = { turn_rad: 0, raised_rad: 0, cut: false };
const LEFT_OUT = new Set(["surface", "envelope-front", "ledge-wall"]);
const BARE: Bounds = { xMin: -0.15, xMax: 0.15, yMin: 0, yMax: 0.2 };

/** A piece in the line: what is drawn of it, where its middle is, and how far over the table line its ledge is. */
type Stood = {
  readonly piece: PieceOut;
  readonly flats: readonly Flat[];
  readonly bounds: Bounds;
  readonly x: number;
  readonly half: number;
  readonly up: number;
};

/** Every piece at one scale, side by side on the table line. */
export function TableLine({ event }: { event: EventOut }) {
  const go = useNavigate();
  const kit = useKit();
  const stood = useMemo(() => (kit ? standInLine(piecesOf(event), kit) : []), [event, kit]);
  const scene = useMemo(
    () =>
      stood.flatMap(({ piece, flats, x, up }) => flats.map((flat) => movedFlat(flat, x, up, `${piece.id}-`))),
    [stood],
  );
  const bounds = useMemo(() => boundsOfAll(stood), [stood]);
  if (piecesOf(event).length === 0) {
    return (
      <section className="flex h-50 items-center justify-center border-b border-line bg-sheet">
        <p className="serif text-xl text-soft">The table is bare. Add the first piece below.</p>
      </section>
    );
  }
  const table: Flat = {
    ...DOT,
    id: "table",
    ink: "surface",
    part: "edge",
    runs: [
      [
        [bounds.xMin - 0.5, 0],
        [bounds.xMax + 0.5, 0],
      ],
    ],
  };
  return (
    <section
      aria-label="Line-up"
      className="flex-none overflow-x-auto overflow-y-hidden border-b border-line bg-sheet"
    >
      <div
        className="h-95 print:w-full!"
        style={{ width: `max(100%, ${(1.3 * stood.length * (LABEL_PX + 4)) / TIERS}px)` }}
      >
        <Drawing
          label="Pieces at one scale on the table line"
          layers={[[table], scene]}
          bounds={bounds}
          margins={{ left: 66, right: 66, top: 20, bottom: 10 + TIERS * TIER_PX }}
          overlay={(project, sheet) => {
            const [, under] = project([0, bounds.yMin]);
            const places = inRows(
              stood.map(({ x }) => project([x, 0])[0]),
              { wide: LABEL_PX, tall: TIER_PX - 4 },
              TIERS,
              under + 4,
              sheet.wide,
            );
            return stood.map(({ piece, x, half, up }, index) => {
              const [left, ground] = project([x - half, up]);
              const [right, top] = project([x + half, bounds.yMax]);
              const middle = (left + right) / 2;
              const [labelLeft, labelTop] = places[index] ?? [0, 0];
              const worst = worstState(piece);
              const open = () => void go(`/events/${event.id}/pieces/${piece.id}`);
              return (
                <Fragment key={piece.id}>
                  <button
                    type="button"
                    tabIndex={-1}
                    aria-hidden="true"
                    onClick={open}
                    className="absolute rounded border border-transparent bg-transparent hover:border-marigold"
                    style={{
                      left,
                      width: right - left,
                      top: top - 8,
                      height: Math.max(ground - top + 14, 20),
                    }}
                  />
                  {labelTop > under + 10 && (
                    <span
                      aria-hidden="true"
                      className="absolute w-px bg-line"
                      style={{
                        left: Math.min(Math.max(middle, labelLeft + 4), labelLeft + LABEL_PX - 4),
                        top: under,
                        height: labelTop - under,
                      }}
                    />
                  )}
                  <button
                    type="button"
                    onClick={open}
                    className="absolute rounded border border-transparent bg-sheet/80 p-0 text-center hover:border-marigold"
                    style={{
                      left: labelLeft,
                      width: LABEL_PX,
                      top: labelTop,
                      height: TIER_PX - 4,
                    }}
                  >
                    <span className="serif line-clamp-2 text-sm leading-[1.1]">
                      {`${piece.part.name} ×\u00a0${piece.part.quantity}`}
                    </span>
                    <span
                      className={`flex items-center justify-center gap-1.5 text-md ${STATE_COLOUR[worst]}`}
                    >
                      <StateMark state={worst} size={14} />
                      {worst}
                    </span>
                  </button>
                </Fragment>
              );
            });
          }}
        />
      </div>
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

function standInLine(pieces: readonly PieceOut[], kit: Kit): Stood[] {
  let edge = 0;
  return pieces.map((piece) => {
    const { report } = piece;
    const every = report ? project(report.picture, stemsOf(report.stems), LEVEL, kit) : [];
    const flats = every.filter(({ id }) => !LEFT_OUT.has(id));
    const bounds = report ? boundsOf(flats.filter(({ id }) => id !== "ledge")) : BARE;
    const half = Math.max(-bounds.xMin, bounds.xMax);
    const x = edge + half;
    edge = x + half + GAP_M;
    return { piece, flats, bounds, x, half, up: ledgeOver(piece) };
  });
}

function boundsOfAll(stood: readonly Stood[]): Bounds {
  const last = stood.at(-1);
  const top = Math.max(0.2, ...stood.map(({ bounds, up }) => bounds.yMax + up));
  const bottom = Math.min(0, ...stood.map(({ bounds, up }) => bounds.yMin + up));
  return { xMin: 0, xMax: last ? last.x + last.half : 1, yMin: bottom, yMax: top };
}

/** A ledge stands over the table line by what it is higher than a table. */
function ledgeOver({ part: piece }: PieceOut): number {
  const { ledge, people } = piece.setting;
  if (piece.setting.where !== "ledge" || !ledge) return 0;
  return Math.max(ledge.height_m - (people?.table_height_m ?? TABLE_M), 0);
}
