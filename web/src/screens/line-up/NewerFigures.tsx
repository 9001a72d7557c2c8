import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api } from "../../api/client";
import type { EventOut, Quantity } from "../../api/types";
import { Button } from "../../ui/Button";
import { STATE_COLOUR } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";

/** Says that an event keeps older figures than the studio's, what newer ones would change, and takes them. */
export function NewerFigures({ event, onTake }: { event: EventOut; onTake: () => void }) {
  const { system } = useSettings();
  const [open, setOpen] = useState(false);
  const newer = useQuery({
    queryKey: ["event", event.id, "newer figures", event.revision],
    queryFn: () => api.newerFigures(event.id),
    enabled: open,
  });
  const found = newer.data;
  return (
    <section aria-label="Newer figures" className="border-b border-line bg-sheet px-4 py-2">
      <div className="flex flex-wrap items-center gap-3">
        <span>This event keeps the figures it was planned with. The book has newer ones.</span>
        <Button onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Put that away" : "See what they change"}
        </Button>
      </div>
      {open && newer.isPending && <p role="status">Judging every piece by both…</p>}
      {open && newer.isError && <p role="alert">That could not be worked out. Try again.</p>}
      {open && found && (
        <div className="mt-2 grid grid-cols-2 gap-6 max-md:grid-cols-1">
          <div>
            <h3 className="m-0 text-md">Verdicts that change</h3>
            {found.verdicts.length === 0 && <p className="m-0">None.</p>}
            <ul className="m-0 list-none p-0">
              {found.verdicts.map((each) => (
                <li key={`${each.piece_id}-${each.verb}`}>
                  {each.name}: <span className="capitalize">{each.verb}</span>{" "}
                  <span className="text-soft">{each.was ?? "not worked out"}</span> →{" "}
                  <strong className={each.now ? STATE_COLOUR[each.now] : ""}>
                    {each.now ?? "not worked out"}
                  </strong>
                </li>
              ))}
            </ul>
          </div>
          <div>
            <h3 className="m-0 text-md">Figures</h3>
            <ul className="m-0 list-none p-0">
              {found.figures.map((each) => (
                <li key={each.key}>
                  {each.label}: {textOf(each.was as Quantity, system)} →{" "}
                  {textOf(each.now as Quantity, system)}
                </li>
              ))}
            </ul>
            {found.kept_at && (
              <p className="m-0 text-sm text-soft">
                Its own are of {found.kept_at.slice(0, 10)}. <Link to="/figures">The book of figures</Link>
              </p>
            )}
          </div>
          <div>
            <Button look="solid" onClick={onTake}>
              Take the newer figures
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}
