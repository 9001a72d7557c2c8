import { useSettings } from "../../ui/settings";

/** The event as a file, and everything needed on site as one. */
export function EventFiles({ eventId }: { eventId: number }) {
  const { system } = useSettings();
  return (
    <section className="mt-4">
      <h2 className="m-0 text-xl">Take it along</h2>
      <p className="my-1 flex flex-wrap gap-x-5">
        <a className="link-action" href={`/api/events/${eventId}/pack.html?system=${system}`}>
          Venue pack, one page for a phone with no network
        </a>
        <a className="link-action" href={`/api/events/${eventId}/event.json`}>
          The whole event as a file
        </a>
      </p>
    </section>
  );
}
