import type { EventOut } from "../../api/types";
import { BriefState } from "../line-up/BriefState";
import { useBrief } from "../line-up/useBrief";

/** Whether sheets may lie turned on the roll. */
export function TurningField({ event, onSaved }: { event: EventOut; onSaved: () => void }) {
  const desk = useBrief(event, onSaved);
  return (
    <>
      <BriefState desk={desk} />
      <label className="flex min-h-11 items-center gap-2 border-b border-line px-3">
        <input
          type="checkbox"
          className="h-4 w-4 accent-leaf"
          checked={desk.shown.brief.turning}
          onChange={(change) => void desk.put({ turning: change.target.checked })}
        />
        sheets may lie turned
      </label>
    </>
  );
}
