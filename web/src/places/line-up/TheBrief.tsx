import type { EventOut } from "../../api/types";
import { BriefFields } from "./BriefFields";
import { BriefState } from "./BriefState";
import { JobFields } from "./JobFields";
import { PracticeFields } from "./PracticeFields";
import { useBrief } from "./useBrief";

/** All that is known of the job: times, air, crew, road, and how the studio works. */
export function TheBrief({ event }: { event: EventOut }) {
  const desk = useBrief(event);
  return (
    <>
      <BriefState desk={desk} />
      <BriefFields event={desk.shown} desk={desk} />
      <JobFields event={desk.shown} desk={desk} />
      <PracticeFields event={desk.shown} desk={desk} />
    </>
  );
}
