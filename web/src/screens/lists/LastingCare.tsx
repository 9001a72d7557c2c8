import type { ListsOut } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import { dayWords } from "../day/times";

/** What keeps for weeks and months: what is done to it, and when it is looked over. */
export function LastingCare({ care }: { care: ListsOut["lasting"] }) {
  const { system } = useSettings();
  if (care.length === 0) return null;
  return (
    <section aria-label="What keeps" className="mt-5 max-w-3xl">
      <h2 className="m-0 text-xl">What keeps</h2>
      {care.map((each) => (
        <div key={each.part} className="mt-2">
          <h3 className="m-0 text-lg">{each.piece}</h3>
          <ul className="m-0 list-none p-0 leading-snug">
            {each.say.map((say) => (
              <li key={say.text}>{render(say, system)}</li>
            ))}
            <li>
              {each.days.length > 0
                ? `Look it over on ${each.days.map(dayWords).join(", ")}.`
                : "It goes home before anything is to be looked over."}
            </li>
          </ul>
        </div>
      ))}
    </section>
  );
}
