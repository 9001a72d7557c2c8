import type { EventOut } from "../../api/types";
import { BriefFields } from "./BriefFields";
import { JobFields } from "./JobFields";
import { PracticeFields } from "./PracticeFields";
import { useBrief } from "./useBrief";

/** All that is known of the job: times, air, crew, road, and how the studio works. */
export function TheBrief({ event, onSaved }: { event: EventOut; onSaved: (event: EventOut) => void }) {
  const desk = useBrief(event, onSaved);
  return (
    <>
      <BriefFields event={event} desk={desk} />
      <JobFields event={event} desk={desk} />
      <PracticeFields event={event} desk={desk} />
    </>
  );
}
