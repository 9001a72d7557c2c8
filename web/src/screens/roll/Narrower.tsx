import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { EventOut } from "../../api/types";
import { useEvent } from "../../desk/useEvent";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { useWrites } from "../../ui/useWrites";
import { render } from "../../units/text";

/** What a cell less to tuck in would save of the roll: each piece is tried, with its verdicts, when it is asked for. */
export function Narrower({
  event,
  netting,
  onTaken,
}: {
  event: EventOut;
  netting: string;
  onTaken: () => void;
}) {
  const { system } = useSettings();
  const { lay, current } = useEvent(event.id);
  const { send, problem, conflict } = useWrites();
  const [asked, setAsked] = useState(false);
  const bends = useQuery({
    queryKey: ["bends", event.id, event.revision],
    queryFn: () => api.bends(event.id),
    enabled: asked,
    refetchInterval: (query) => (query.state.data?.running ? 500 : false),
  });
  const found = bends.data?.bends?.found.filter((each) => each.netting === netting) ?? [];
  const take = (key: string) =>
    void send(async (again) => {
      await lay(
        await api.takeBend(event.id, again?.revision ?? (await current())?.revision ?? event.revision, key),
        again,
      );
      onTaken();
    }, "once");
  return (
    <section aria-label="To save netting" className="no-print mt-4 max-w-2xl">
      <h3 className="m-0 text-lg">To save netting</h3>
      {!asked && (
        <p className="mt-1 mb-0">
          <Button onClick={() => setAsked(true)}>Try what would save some</Button>{" "}
          <span className="text-soft">
            half a cell less to tuck in on each side, and rolls of other widths; verdicts are tried too
          </span>
        </p>
      )}
      {asked && (!bends.data || bends.data.running) && (
        <p role="status" className="mt-1 mb-0 text-soft">
          Trying… <progress max={1} value={bends.data?.bends?.done ?? 0} aria-label="How far" />
        </p>
      )}
      {bends.data && !bends.data.running && found.length === 0 && (
        <p className="mt-1 mb-0 text-soft">
          Nothing worth it: no piece saves 10 cm of the roll, and no other roll costs less.
        </p>
      )}
      <ul className="m-0 list-none p-0">
        {found.map((each) => (
          <li key={each.key} className="flex flex-wrap items-center gap-2 border-t border-line py-1">
            <span>{render(each.say, system)}</span>
            <span className={each.worse.length > 0 ? "text-berry" : "text-leaf"}>
              {each.worse.length > 0 ? `✕ ${each.worse.join("; ")}` : "✓ every verdict stays"}
            </span>
            <Button onClick={() => take(each.key)}>Cut it so</Button>
          </li>
        ))}
      </ul>
      {(problem ?? conflict?.problem) && (
        <p role="alert" className="m-0 text-berry">
          {render((problem ?? conflict?.problem)?.message ?? { text: "", quantities: {} }, system)}
        </p>
      )}
    </section>
  );
}
