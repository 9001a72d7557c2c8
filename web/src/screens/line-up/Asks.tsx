import type { EventOut, EventStanding } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { render } from "../../units/text";
import type { BriefDesk } from "./useBrief";

type Props = { event: EventOut; asks: EventStanding["asks"]; desk: BriefDesk };

const NAMES: Readonly<Record<EventStanding["asks"][number]["question"], string>> = {
  fire: "Fire",
  foraging: "Foraging",
  food: "Food and cakes",
  animals: "Animals",
};

/** What must be asked of the place, an owner or the client before work goes on, and what they answered. */
export function Asks({ event, asks, desk }: Props) {
  const { system } = useSettings();
  if (asks.length === 0) return null;
  return (
    <section aria-label="To ask and write down" className="mt-4">
      <h3 className="m-0 text-lg">To ask and write down</h3>
      {asks.map(({ question, say }) => {
        const others = event.brief.answers.filter((each) => each.question !== question);
        const now = event.brief.answers.find((each) => each.question === question)?.words ?? "";
        return (
          <div key={question} className="mt-2">
            <p className="m-0 leading-snug">{render(say, system)}</p>
            <TextField
              label={`${NAMES[question]}: who said what`}
              value={now}
              path="answers"
              problem={desk.problem}
              onCommit={(typed) => {
                const words = typed.trim().slice(0, 300);
                void desk.put({ answers: words ? [...others, { question, words }] : others });
              }}
              className="mt-1"
            />
          </div>
        );
      })}
    </section>
  );
}
