import { useSettings } from "../../ui/settings";
import { useTrade } from "../../ui/useTrade";

/** Papers of the whole event, to be taken along. */
export function EventFiles({ eventId }: { eventId: number }) {
  const { system } = useSettings();
  const said: Readonly<Record<string, string>> = { system, paper: system === "inch" ? "Letter" : "A4" };
  const papers = (useTrade()?.papers ?? []).filter(({ title }) => title);
  return (
    <section className="mt-4">
      <h2 className="m-0 text-xl">Take it along</h2>
      <p className="my-1 flex flex-wrap gap-x-5">
        {papers.map(({ name, title, asks }) => (
          <a
            key={name}
            className="link-action"
            href={`/api/events/${eventId}/${name}${asks.length ? "?" : ""}${asks.map((each) => `${each}=${said[each]}`).join("&")}`}
          >
            {title}
          </a>
        ))}
      </p>
    </section>
  );
}
