import { useState } from "react";
import type { Timed } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import { clockOf, dateOf, dayWords } from "./times";
import type { Before } from "./useBefore";

type Props = {
  timed: readonly Timed[];
  crew: readonly string[];
  /** Names of the event's parts by their numbers. */
  parts: Readonly<Record<string, string>>;
  picked: string | null;
  onPick: (key: string) => void;
  /** When tasks started before the last change. */
  before: Before;
};

const PLACES = [
  ["supplier", "at the suppliers"],
  ["workshop", "in the workshop"],
  ["road", "on the road"],
  ["venue", "at the place"],
] as const;

/** All of it, what one person does, what is done at one place, what is done to one piece. */
function choices(
  timed: readonly Timed[],
  crew: readonly string[],
  parts: Readonly<Record<string, string>>,
): readonly (readonly [string, string])[] {
  const worked = [...new Set(timed.map(({ task }) => task.piece_id))].filter((id) => id !== null);
  return [
    ["all", "everything"],
    ...crew.map((name, place) => [`person:${place}`, name] as const),
    ...PLACES.map(([where, words]) => [`where:${where}`, words] as const),
    ...worked.map((id) => [`piece:${id}`, parts[id] ?? ""] as const),
  ];
}

/** What the last change did to a task: "was 14:05", "was Thu 13 May, 14:05", "new"; nothing where it stays. */
function movedWords({ task, starts_at }: Timed, before: Before): string {
  if (!before) return "";
  const was = before.get(task.key);
  if (was === undefined) return "new";
  if (was === starts_at) return "";
  const day = dateOf(was) === dateOf(starts_at) ? "" : `${dayWords(dateOf(was))}, `;
  return `was ${day}${clockOf(was)}`;
}

function fits(each: Timed, show: string, crew: readonly string[]): boolean {
  const [what, which] = show.split(":");
  if (what === "person") return each.crew.includes(Number(which)) && Number(which) < crew.length;
  if (what === "where") return each.task.where === which;
  if (what === "piece") return String(each.task.piece_id) === which;
  return true;
}

/** The run sheet as a list: what a phone shows, and what is printed. */
export function TaskList({ timed, crew, parts, picked, onPick, before }: Props) {
  const { system } = useSettings();
  const [show, setShow] = useState("all");
  if (timed.length === 0) return <section />;
  const shown = timed.filter((each) => fits(each, show, crew));
  const dates = [...new Set(shown.map((each) => dateOf(each.starts_at)))];
  return (
    <section>
      <div className="flex flex-wrap items-end justify-between gap-2">
        <h2 className="m-0 text-xl">
          Run sheet
          {show !== "all" && (
            <span className="text-soft">
              , {choices(timed, crew, parts).find(([key]) => key === show)?.[1]}
            </span>
          )}
        </h2>
        <Choice
          label="Show"
          value={show}
          options={choices(timed, crew, parts)}
          onCommit={setShow}
          className="no-print w-60 max-w-full"
        />
      </div>
      {dates.map((date) => (
        <div key={date}>
          <h3 className="mt-3 mb-0 text-lg">{dayWords(date)}</h3>
          <ul className="m-0 list-none p-0">
            {shown
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
                      {movedWords(each, before) && (
                        <span className="text-marigold">{movedWords(each, before)} </span>
                      )}
                      <span className="text-soft">
                        {each.task.by ||
                          each.crew.map((person) => crew[person] ?? "somebody more").join(", ")}
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
