import type { Note } from "../../api/types";
import { StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";

/** What the sheet asks for beside hands and hours: buckets, seats, water while pieces wait, people of other events. */
export function Notes({ notes }: { notes: readonly Note[] }) {
  const { system } = useSettings();
  if (notes.length === 0) return null;
  return (
    <section aria-label="What it asks for" className="mb-3">
      <h2 className="m-0 text-lg">What it asks for</h2>
      <ul className="m-0 list-none p-0">
        {notes.map((note, nth) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two may say the same
          <li key={nth} className="flex items-start gap-2 py-0.5">
            {note.state === "said" ? (
              <span aria-hidden="true" className="inline-block w-5 shrink-0 text-center">
                ·
              </span>
            ) : (
              <span className="mt-1 shrink-0">
                <StateMark state={note.state} size={16} />
              </span>
            )}
            {note.state !== "said" && <span className="sr-only">{note.state}:</span>}
            <span className={note.state === "fails" ? "text-berry" : ""}>{render(note.say, system)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
