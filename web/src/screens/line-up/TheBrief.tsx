import type { EventOut, EventStanding } from "../../api/types";
import { Asks } from "./Asks";
import { BriefFields } from "./BriefFields";
import { BriefState } from "./BriefState";
import { JobFields } from "./JobFields";
import { PracticeFields } from "./PracticeFields";
import { useBrief } from "./useBrief";

/** All that is known of the job: times, air, crew, road, and how the studio works. */
export function TheBrief({ event, asks }: { event: EventOut; asks: EventStanding["asks"] }) {
  const desk = useBrief(event);
  return (
    <>
      <BriefState desk={desk} />
      <BriefFields event={desk.shown} desk={desk} />
      <JobFields event={desk.shown} desk={desk} />
      <Asks event={desk.shown} asks={asks} desk={desk} />
      <PracticeFields event={desk.shown} desk={desk} />
    </>
  );
}
