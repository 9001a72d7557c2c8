import type { MaterialPlan } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { longText } from "../../units/text";

const SOURCE = { remnant: "remnant", here: "in the stores", "to buy": "to buy" };

/** Spools and sticks to scale, one bar each, with what is cut from them. */
export function LengthList({ plan }: { plan: MaterialPlan }) {
  const { system } = useSettings();
  const bars = plan.stocks.flatMap((stock, at) =>
    plan.sticks
      ? Array.from({ length: stock.count }, (_, row) => ({
          key: `${at}-${row}`,
          source: stock.source,
          whole: stock.length_m,
          cuts: stock.pieces
            .filter((piece) => piece.y === row)
            .map((piece) => ({
              at: piece.x * plan.cell_m,
              long: piece.across * plan.cell_m,
              item: piece.item,
            })),
        }))
      : [
          {
            key: `${at}`,
            source: stock.source,
            whole: stock.length_m,
            cuts: stock.pieces.map((piece) => ({
              at: piece.y * plan.row_m,
              long: piece.along * plan.row_m,
              item: piece.item,
            })),
          },
        ],
  );
  return (
    <ul className="mt-3 mb-0 list-none space-y-2 p-0">
      {bars.slice(0, 60).map((bar) => (
        <li key={bar.key} className="flex items-center gap-3">
          <span className="w-37.5 flex-none text-sm text-soft">
            {longText(bar.whole, system)}, {SOURCE[bar.source]}
          </span>
          <svg
            viewBox="0 0 1000 26"
            preserveAspectRatio="none"
            className="h-6.5 min-w-0 flex-1"
            aria-hidden="true"
          >
            <rect x={0} y={3} width={1000} height={20} className="roll-sheet" />
            {bar.cuts.map((cut) => (
              <rect
                key={cut.at}
                x={(cut.at / bar.whole) * 1000}
                y={3}
                width={(cut.long / bar.whole) * 1000}
                height={20}
                className="roll-piece"
              />
            ))}
          </svg>
        </li>
      ))}
    </ul>
  );
}
