import type { EventOut, Practice } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { useSettings } from "../../ui/settings";
import { useTrade } from "../../ui/useTrade";
import { render } from "../../units/text";
import type { BriefDesk } from "./useBrief";

type Props = { event: EventOut; desk: BriefDesk };

/** The questions on which the trade disagrees, with the default and its reason; and what the event rules out. */
export function PracticeFields({ event, desk }: Props) {
  const { system } = useSettings();
  const { put: save, problem } = desk;
  const trade = useTrade();
  const { practice } = event.brief;
  const put = (next: Partial<Practice>) => save((kept) => ({ practice: { ...kept.practice, ...next } }));
  return (
    <section className="mt-4">
      <h2 className="m-0 mb-1 text-xl">How you work</h2>
      <div className="grid gap-2">
        {(trade?.schools ?? []).map((school) => (
          <div
            key={school.field}
            className="grid grid-cols-[210px_minmax(0,1fr)] items-end gap-3 max-md:grid-cols-1"
          >
            <Choice
              label={school.question}
              value={String(practice[school.field as keyof Practice])}
              options={school.answers.map((answer) => [answer, answer] as const)}
              onCommit={(answer) => void put({ [school.field]: answer })}
            />
            <p className="m-0 pb-1 text-sm leading-snug text-soft">{school.why}</p>
          </div>
        ))}
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5 accent-leaf"
            checked={practice.no_single_use_plastic}
            onChange={(change) => void put({ no_single_use_plastic: change.target.checked })}
          />
          No single-use plastic at this event
        </label>
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5 accent-leaf"
            checked={practice.only_in_store}
            onChange={(change) => void put({ only_in_store: change.target.checked })}
          />
          Only what is on hand in the stores
        </label>
      </div>
      {problem?.path.startsWith("practice") && (
        <p role="alert" className="mt-1 mb-0 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
    </section>
  );
}
