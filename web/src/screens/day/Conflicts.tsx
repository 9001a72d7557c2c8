import type { Conflict } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";

type Props = {
  conflicts: readonly Conflict[];
  onPick: (task: string) => void;
  onApply: (remedy: string) => void;
};

/** What cannot be done as it stands, and what would mend it, one press each. */
export function Conflicts({ conflicts, onPick, onApply }: Props) {
  const { system } = useSettings();
  if (conflicts.length === 0) return null;
  return (
    <section aria-label="Conflicts" className="mb-3 border border-berry bg-sheet p-3">
      <h2 className="m-0 text-lg text-berry">✕ Out of bounds as it stands</h2>
      <ul className="m-0 list-none p-0">
        {conflicts.map((each) => (
          <li key={each.tasks.join()} className="mt-1 flex flex-wrap items-center gap-2">
            <span className="min-w-0 flex-1 basis-80">{render(each.say, system)}</span>
            {each.remedies.map((remedy) => (
              <Button
                key={remedy.key}
                look={remedy.mends ? "solid" : "plain"}
                className="no-print max-w-96 flex-col items-start! gap-0! py-1 text-left max-md:max-w-full"
                onClick={() => onApply(remedy.key)}
              >
                <span>{render(remedy.say, system)}</span>
                <span className="text-sm">{render(remedy.after, system)}</span>
              </Button>
            ))}
            {each.remedies.length === 0 && (
              <span className="text-soft">
                {each.tried.length > 0 ? `Tried, and not enough: ${each.tried.join("; ")}. ` : ""}
                Choose other flowers, or other times.
              </span>
            )}
            {each.tasks[0] && (
              <Button look="quiet" className="no-print" onClick={() => onPick(each.tasks[0] ?? "")}>
                Show it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
