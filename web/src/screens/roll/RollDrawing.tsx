import type { CutStock, MaterialPlan } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { longText, textOf } from "../../units/text";

type Props = { plan: MaterialPlan; lit: number | null; onLight: (item: number | null) => void };

const WIDE_PX = 860;
const SOURCE = {
  remnant: "a remnant in the stores",
  here: "a roll in the stores",
  "to buy": "a roll to buy",
};

/** Every roll to scale, lying with its free end to the left, and what is cut from it. */
export function RollDrawing({ plan, lit, onLight }: Props) {
  const longest = Math.max(...plan.stocks.map(shownOf), 0.1);
  return (
    <div className="mt-3 space-y-5">
      {plan.stocks.map((stock, index) => (
        <Roll
          // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
          key={index}
          plan={plan}
          stock={stock}
          pxPerM={Math.min(WIDE_PX / longest, 300 / stock.width_m)}
          lit={lit}
          onLight={onLight}
        />
      ))}
    </div>
  );
}

/** How much of a stock is drawn: what is used and a little more. */
function shownOf(stock: CutStock): number {
  return Math.min(stock.length_m, stock.used_m * 1.05 + 0.1);
}

function Roll({
  plan,
  stock,
  pxPerM,
  lit,
  onLight,
}: Omit<Props, never> & { stock: CutStock; pxPerM: number }) {
  const { system } = useSettings();
  const wide = shownOf(stock) * pxPerM;
  const tall = stock.width_m * pxPerM;
  const torn = stock.length_m > shownOf(stock);
  const say = (value: number) => textOf({ kind: "length", value }, system);
  return (
    <figure className="m-0">
      <figcaption className="mb-1 text-md text-soft">
        {SOURCE[stock.source]}, {say(stock.width_m)} wide and {longText(stock.length_m, system)} long;{" "}
        {longText(stock.used_m, system)} used
      </figcaption>
      <svg
        viewBox={`-2 -2 ${wide + 14} ${tall + 20}`}
        className="drawing block h-auto w-full"
        style={{ maxWidth: wide + 14 }}
        role="img"
        aria-label={`${stock.pieces.length} pieces on ${SOURCE[stock.source]}`}
      >
        <path
          d={
            torn
              ? `M${wide} 0H0V${tall}H${wide}l6 ${-tall / 6}l-6 ${-tall / 6}l6 ${-tall / 6}l-6 ${-tall / 6}l6 ${-tall / 6}z`
              : `M0 0H${wide}V${tall}H0z`
          }
          className="roll-sheet"
        />
        {stock.pieces.map((piece) => {
          const x = piece.y * plan.row_m * pxPerM;
          const y = piece.x * plan.cell_m * pxPerM;
          const across = piece.along * plan.row_m * pxPerM;
          const along = piece.across * plan.cell_m * pxPerM;
          const item = plan.items[piece.item];
          return (
            <g
              key={`${piece.x}-${piece.y}`}
              onPointerEnter={() => onLight(piece.item)}
              onPointerLeave={() => onLight(null)}
            >
              <title>
                {item ? `${item.label}: ${say(item.width_m)} × ${say(item.length_m)}` : ""}
                {piece.turned ? ", turned" : ""}
              </title>
              <rect
                x={x}
                y={y}
                width={across}
                height={along}
                className={lit === piece.item ? "roll-piece roll-piece-lit" : "roll-piece"}
              />
              {across > 16 && along > 14 && (
                <text x={x + across / 2} y={y + along / 2 + 4} textAnchor="middle" fontSize={13}>
                  {piece.item + 1}
                  {piece.turned ? " ⟳" : ""}
                </text>
              )}
            </g>
          );
        })}
        {stock.strips.map((end) => (
          <line
            key={end}
            x1={end * plan.row_m * pxPerM}
            x2={end * plan.row_m * pxPerM}
            y1={-2}
            y2={tall + 4}
            className="roll-cut"
          />
        ))}
        <ScaleBar pxPerM={pxPerM} y={tall + 12} />
      </svg>
    </figure>
  );
}

function ScaleBar({ pxPerM, y }: { pxPerM: number; y: number }) {
  const { system } = useSettings();
  const metres = system === "metric" ? 0.5 : 18 * 0.0254;
  return (
    <g>
      <line x1={0} x2={metres * pxPerM} y1={y} y2={y} className="roll-scale" />
      <text x={metres * pxPerM + 5} y={y + 4} fontSize={12}>
        {textOf({ kind: "length", value: metres }, system)}
      </text>
    </g>
  );
}
