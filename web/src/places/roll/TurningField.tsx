import type { EventOut } from "../../api/types";
import { useBrief } from "../line-up/useBrief";

/** Whether sheets may lie turned on the roll. */
export function TurningField({ event, onSaved }: { event: EventOut; onSaved: () => void }) {
  const { put } = useBrief(event, onSaved);
  return (
    <label className="flex min-h-[44px] items-center gap-2 border-b border-line px-3">
      <input
        type="checkbox"
        className="h-4 w-4 accent-leaf"
        checked={event.brief.turning}
        onChange={(change) => void put({ turning: change.target.checked })}
      />
      sheets may lie turned
    </label>
  );
}
