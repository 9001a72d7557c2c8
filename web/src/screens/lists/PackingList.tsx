import type { ListsOut, Shopping, Ticking } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";

const GROUPS = [
  "pieces",
  "carried apart",
  "put in at the place",
  "tools and protection",
  "water",
  "emergency kit",
] as const;

type Props = { shopping: Shopping; ticks: ListsOut["ticks"]; onTick: (tick: Ticking) => void };

/** What leaves the studio, by what it rides in: ticked as it goes out and as it comes home. */
export function PackingList({ shopping, ticks, onTick }: Props) {
  const { system } = useSettings();
  const out = new Set((ticks.out ?? []).map((each) => each.line));
  const home = new Set((ticks.home ?? []).map((each) => each.line));
  const back = shopping.packs.filter((each) => each.home);
  if (shopping.packs.length === 0)
    return <p className="mt-0 text-soft">Nothing leaves the studio yet: add a piece on the line-up first.</p>;
  return (
    <>
      <p role="status" className="mt-0 mb-2">
        {shopping.packs.filter((each) => out.has(each.key)).length} of {shopping.packs.length} lines are out,{" "}
        {back.filter((each) => home.has(each.key)).length} of {back.length} home.
      </p>
      <div className="max-w-5xl columns-2 gap-8 max-lg:columns-1">
        {GROUPS.map((group) => {
          const lines = shopping.packs.filter((each) => each.group === group);
          if (lines.length === 0) return null;
          return (
            <section key={group} className="mb-4 break-inside-avoid">
              <h2 className="m-0 text-xl first-letter:uppercase">{group}</h2>
              <ul className="m-0 list-none p-0">
                {lines.map((line) => (
                  <li key={line.key} className="flex items-center gap-2 border-t border-line">
                    <Box
                      words={`${line.name} is out`}
                      said="out"
                      ticked={out.has(line.key)}
                      onTick={(on) =>
                        onTick({
                          list: "out",
                          line: line.key,
                          tick: on ? { number: line.number, state: "", note: "" } : null,
                        })
                      }
                    />
                    {line.home ? (
                      <Box
                        words={`${line.name} is home`}
                        said="home"
                        ticked={home.has(line.key)}
                        onTick={(on) =>
                          onTick({
                            list: "home",
                            line: line.key,
                            tick: on ? { number: line.number, state: "", note: "" } : null,
                          })
                        }
                      />
                    ) : (
                      <span className="w-15 flex-none" />
                    )}
                    <span>
                      {line.number > 1 ? `${line.number} × ` : ""}
                      {line.name} <span className="text-soft">{render(line.why, system)}</span>
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
      </div>
    </>
  );
}

function Box({
  words,
  said,
  ticked,
  onTick,
}: {
  words: string;
  said: string;
  ticked: boolean;
  onTick: (on: boolean) => void;
}) {
  return (
    <label className="flex min-h-11 w-15 flex-none items-center gap-1 text-xs text-soft">
      <input
        type="checkbox"
        className="h-5 w-5 accent-leaf"
        checked={ticked}
        aria-label={words}
        onChange={(event) => onTick(event.target.checked)}
      />
      <span aria-hidden="true">{said}</span>
    </label>
  );
}
