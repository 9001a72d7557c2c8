import { useQueryClient } from "@tanstack/react-query";
import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api } from "../../api/client";
import type { EventSummary } from "../../api/types";
import { Button } from "../../ui/Button";
import { openField } from "../../ui/openField";
import { TextField } from "../../ui/TextField";
import { useRefusal } from "../../ui/useRefusal";
import { worded } from "../../units/worded";
import { dayOf, daysTo } from "./when";

type Props = { event: EventSummary; next: boolean; onDelete: () => void };

/** One event of the list: where and when it is, how far off; opened, renamed, copied, deleted. */
export function EventRow({ event, next, onDelete }: Props) {
  const { name } = event.brief;
  const client = useQueryClient();
  const go = useNavigate();
  const { problem, attempt } = useRefusal();
  const [naming, setNaming] = useState(false);
  const rename = async (to: string) => {
    const done = await attempt(() =>
      api.putBrief(
        event.id,
        event.revision,
        { ...event.brief, name: to },
        { was: event.brief, chosen: null },
      ),
    );
    if (!done) return;
    setNaming(false);
    await client.invalidateQueries({ queryKey: ["events"] });
  };
  return (
    <li className="flex flex-wrap items-center gap-x-3" data-state={daysTo(event.brief) ?? "no day"}>
      {naming ? (
        <TextField
          label="New name"
          value={name}
          path="name"
          problem={problem}
          onCommit={(to) => void rename(to)}
          className="my-1 min-w-45 flex-1"
        />
      ) : (
        <Link
          to={`/events/${event.id}`}
          className="flex min-h-13 min-w-30 flex-1 basis-45 flex-col justify-center text-lg leading-tight [overflow-wrap:anywhere]"
        >
          {name}
          <span className="text-sm text-soft">{whenAndWhere(event, next)}</span>
        </Link>
      )}
      <Button
        look="quiet"
        aria-label={naming ? `Keep the name ${name}` : `Rename ${name}`}
        aria-pressed={naming}
        title={naming ? "Keep the name" : "Rename"}
        onClick={() => {
          setNaming(!naming);
          if (!naming) openField("name");
        }}
      >
        <Pencil size={16} aria-hidden="true" />
      </Button>
      <Button
        aria-label={`Copy ${name}`}
        onClick={async () => {
          const copy = await api.copyEvent(event.id);
          void go(`/events/${copy.id}`);
        }}
      >
        Copy
      </Button>
      <Button
        look="quiet"
        aria-label={`Delete ${name}`}
        title={`Delete ${name}; it can be brought back`}
        onClick={onDelete}
      >
        <Trash2 size={16} aria-hidden="true" />
      </Button>
    </li>
  );
}

/** "next, in 12 days: 14 May 2027, Osterlay Ropewalk Museum", as far as that is known. */
function whenAndWhere({ brief }: EventSummary, next: boolean): string {
  const day = dayOf(brief);
  const said = day
    ? new Date(`${day}T12:00`).toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" })
    : "no day yet";
  const off = [next && "next", offWords(daysTo(brief))].filter(Boolean).join(", ");
  return [off && `${off}: ${said}`, !off && said, brief.place].filter(Boolean).join(", ");
}

function offWords(days: number | null): string {
  if (days === null || days < 0) return "";
  if (days === 0) return "today";
  return days === 1 ? "tomorrow" : worded("in {n} days", { n: days });
}
