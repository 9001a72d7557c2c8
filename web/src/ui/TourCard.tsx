import { useNavigate } from "react-router";
import { Button } from "./Button";
import { setTour, useTour } from "./tour";

/** Steps of the tour: where it goes, and what is to be seen there. */
const STEPS: readonly (readonly [string, string, string])[] = [
  [
    "",
    "The line-up",
    "All pieces of a job at one scale. On the right is what to settle next, worst first; each line leads there.",
  ],
  [
    "/pieces/1",
    "A piece on the bench",
    "Drag a white grip, or type a measure in any unit. The eight verdicts follow: 1.00 is all it can bear.",
  ],
  [
    "/pieces/1",
    "What fails, and what mends it",
    "Open Drink on the right. It says why it fails; press what would mend it, and take it back with Undo.",
  ],
  [
    "/pieces/7",
    "Walk round it",
    "Drag the ring under the piece, or choose who looks. Press “worst” to see where most shows, hatched.",
  ],
  [
    "/rigs/10",
    "Over people's heads",
    "Press a line, then S: it is cut, and the rest shows whether it bears what is left. Esc puts it back.",
  ],
  [
    "/day",
    "Cutting, shopping, the day",
    "Roll, Lists, Cost and Day are worked out from the pieces. Now begin your own: Events, then Start the event.",
  ],
];

/** A card that goes along: two minutes through the demo job, left at any step. */
export function TourCard() {
  const tour = useTour();
  const go = useNavigate();
  if (!tour) return null;
  const step = STEPS[tour.step];
  if (!step) return null;
  const [, title, words] = step;
  const to = (next: number) => {
    setTour({ ...tour, step: next });
    const path = STEPS[next]?.[0];
    if (path !== undefined) void go(`/events/${tour.eventId}${path}`);
  };
  const last = tour.step === STEPS.length - 1;
  return (
    <section
      aria-label="Tour"
      className="no-print fixed bottom-3 left-3 z-40 w-85 max-w-[calc(100vw-24px)] rounded border border-marigold bg-sheet p-3 shadow-lg"
    >
      <h2 className="m-0 text-lg">
        {title} <span className="text-sm text-soft">{`${tour.step + 1} of ${STEPS.length}`}</span>
      </h2>
      <p className="mt-1 mb-2 leading-snug">{words}</p>
      <div className="flex flex-wrap gap-2">
        {tour.step > 0 && <Button onClick={() => to(tour.step - 1)}>Back</Button>}
        <Button
          look="solid"
          onClick={() => {
            if (!last) return to(tour.step + 1);
            setTour(null);
            void go("/?all");
          }}
        >
          {last ? "Begin my own" : "Next"}
        </Button>
        <Button look="quiet" onClick={() => setTour(null)}>
          Leave the tour
        </Button>
      </div>
    </section>
  );
}
