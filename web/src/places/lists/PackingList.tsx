import type { Shopping } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";

const GROUPS = ["pieces", "tools and protection", "water", "emergency kit"] as const;

/** What goes along, in groups, with a box to tick on paper; the venue pack has boxes that keep their ticks. */
export function PackingList({ shopping }: { shopping: Shopping }) {
  const { system } = useSettings();
  return (
    <div className="max-w-4xl columns-2 gap-8 max-lg:columns-1">
      {GROUPS.map((group) => {
        const lines = shopping.packs.filter((each) => each.group === group);
        if (lines.length === 0) return null;
        return (
          <section key={group} className="mb-4 break-inside-avoid">
            <h2 className="m-0 text-xl first-letter:uppercase">{group}</h2>
            <ul className="m-0 list-none p-0">
              {lines.map((line) => (
                <li key={line.name} className="flex gap-2 border-t border-line py-1.5">
                  <span aria-hidden="true" className="mt-1 h-4 w-4 flex-none border border-ink" />
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
  );
}
