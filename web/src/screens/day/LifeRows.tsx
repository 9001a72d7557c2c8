import type { Life, Timed } from "../../api/types";
import { axisOf, Hours } from "./Hours";
import { between, clockOf, dateOf, dayWords } from "./times";

const ROW = 22;
const WATER: Readonly<Record<string, string>> = {
  vessel: "in the vessel",
  tube: "in a tube",
  wrap: "in a wrap",
  none: "no water",
};

/** What lasts least comes first; what drinks from a vessel last. */
function lastsTo(life: Life): number {
  return life.lasts_until ? Date.parse(life.lasts_until) : Number.MAX_SAFE_INTEGER;
}

type Props = { date: string; lives: readonly Life[]; timed: readonly Timed[] };

/** The life of each variety across the day: from when it is used to when it is needed, and how long it lasts. */
export function LifeRows({ date, lives, timed }: Props) {
  const today = timed.filter((each) => dateOf(each.starts_at) === date);
  const shown = lives
    .filter((each) => dateOf(each.used_from) <= date)
    .toSorted((a, b) => lastsTo(a) - lastsTo(b));
  if (shown.length === 0) return null;
  const axis = axisOf(today);
  const midnight = today[0]?.starts_at
    ? `${date}T00:00:00${today[0].starts_at.slice(19)}`
    : `${date}T00:00:00Z`;
  const at = (time: string) => Math.min(Math.max(between(midnight, time), axis.from), axis.to);
  return (
    <section className="mt-3">
      <h2 className="m-0 text-lg">The life of each variety</h2>
      <Hours axis={axis} height={shown.length * ROW} label="The life of each variety">
        {(x) =>
          shown.map((each, row) => {
            const from = x(at(each.used_from));
            const needed = x(at(each.needed_until ?? each.used_from));
            const lasts = each.lasts_until === null ? needed : x(at(each.lasts_until));
            const short =
              each.lasts_until !== null && each.needed_until !== null && each.lasts_until < each.needed_until;
            const y = row * ROW;
            const words = each.lasts_until
              ? `${short ? "✕ " : ""}${WATER[each.water] ?? each.water}, lasts to ${clockOf(each.lasts_until)}`
              : (WATER[each.water] ?? each.water);
            return (
              <g key={`${each.variety}-${each.water}-${each.used_from}`}>
                <title>{`${each.name}: used from ${dayWords(dateOf(each.used_from))} ${clockOf(each.used_from)}, ${words}`}</title>
                <text x={2} y={y + 15} fontSize={12.5}>
                  {each.name.length > 16 ? `${each.name.slice(0, 15)}…` : each.name}
                </text>
                <rect
                  x={from}
                  y={y + 4}
                  width={Math.max(Math.min(lasts, needed) - from, 2)}
                  height={ROW - 8}
                  style={{ fill: each.colour }}
                  className="life-bar"
                />
                {short && (
                  <line x1={lasts} x2={needed} y1={y + ROW / 2} y2={y + ROW / 2} className="life-short" />
                )}
                <text x={Math.max(from, x(axis.from)) + 5} y={y + 15} fontSize={11.5} className="life-words">
                  {words}
                </text>
              </g>
            );
          })
        }
      </Hours>
    </section>
  );
}
