import type { Timed } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import { clockOf, dateOf, dayWords } from "./times";

type Props = {
  timed: readonly Timed[];
  crew: readonly string[];
  picked: string | null;
  onPick: (key: string) => void;
};

/** The run sheet as a list: what a phone shows, and what is printed. */
export function TaskList({ timed, crew, picked, onPick }: Props) {
  const { system } = useSettings();
  if (timed.length === 0) return <section />;
  const dates = [...new Set(timed.map((each) => dateOf(each.starts_at)))];
  return (
    <section>
      <h2 className="m-0 text-xl">Run sheet</h2>
      {dates.map((date) => (
        <div key={date}>
          <h3 className="mt-3 mb-0 text-lg">{dayWords(date)}</h3>
          <ul className="m-0 list-none p-0">
            {timed
              .filter((each) => dateOf(each.starts_at) === date)
              .map((each) => (
                <li key={each.task.key} className="border-b border-line">
                  <button
                    type="button"
                    aria-pressed={each.task.key === picked}
                    onClick={() => onPick(each.task.key)}
                    className="grid min-h-11 w-full grid-cols-[104px_minmax(0,1fr)] gap-x-2 border-0 bg-transparent py-1.5 text-left aria-pressed:bg-sheet"
                  >
                    <span>
                      {clockOf(each.starts_at)}–{clockOf(each.ends_at)}
                    </span>
                    <span className="leading-snug">
                      {each.locked ? "⚓ " : ""}
                      {each.task.name}{" "}
                      <span className="text-soft">
                        {each.crew.map((person) => crew[person] ?? "somebody more").join(", ")}
                      </span>
                      {each.task.gate && (
                        <strong className="block text-berry">✕ {render(each.task.gate, system)}</strong>
                      )}
                      {each.out_min > 0 && <strong className="text-berry"> ✕ outside its bounds</strong>}
                    </span>
                  </button>
                </li>
              ))}
          </ul>
        </div>
      ))}
    </section>
  );
}
