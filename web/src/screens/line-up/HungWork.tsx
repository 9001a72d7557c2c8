import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventOut, PartOut, Problem } from "../../api/types";
import { rigsOf } from "../../desk/change";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { useSettings } from "../../ui/settings";
import { useStarts } from "../../ui/useTrade";
import { textOf } from "../../units/text";
import { Beginning } from "./Beginning";

type ListProps = {
  event: EventOut;
  onCopy: (part: PartOut["part"]) => void;
  onRemove: (id: number) => void;
};

/** Hung and mounted pieces: what they weigh, how they stand, copying them and taking them out. */
export function RigList({ event, onCopy, onRemove }: ListProps) {
  const { system } = useSettings();
  const rigs = rigsOf(event);
  if (rigs.length === 0) return <p className="mt-1 mb-2 text-soft">Nothing hangs in this event.</p>;
  return (
    <ul className="mt-1 mb-3 list-none divide-y divide-line p-0">
      {rigs.map(({ id, part: rig, report }) => (
        <li key={id} className="flex flex-wrap items-center gap-x-2">
          <Link
            to={`/events/${event.id}/rigs/${id}`}
            className="flex min-h-12 min-w-45 flex-1 items-center gap-2 text-lg"
          >
            <span className="serif">{rig.name}</span>
          </Link>
          <span className="ml-auto text-soft">
            {report ? textOf({ kind: "pull", value: report.rest.load_n }, system) : "not worked out"}
          </span>
          <Button
            look="quiet"
            className="no-print"
            onClick={() => onCopy(rig)}
            aria-label={`Copy ${rig.name}`}
          >
            Copy
          </Button>
          <Button
            look="quiet"
            className="no-print"
            onClick={() => onRemove(id)}
            aria-label={`Remove ${rig.name}`}
          >
            Remove
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** A new hung or mounted piece: as one of those that are begun from, or nothing yet, to be drawn. */
export function NewRig({ event, onProblem }: { event: EventOut; onProblem: (problem: Problem) => void }) {
  const starts = useStarts("hung");
  const [start, setStart] = useState("garland");
  const [stems, setStems] = useState(true);
  const chosen = starts.find((each) => each.key === start);
  const go = useNavigate();
  const add = async () => {
    try {
      const { added } = await api.beginPart(event.id, event.revision, start, null, stems);
      void go(`/events/${event.id}/rigs/${added}`, { state: { measure: chosen?.measure } });
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      onProblem(reason.problem);
    }
  };
  return (
    <div className="no-print">
      <div className="flex items-end gap-2">
        <Choice
          label="New hung or mounted piece"
          value={start}
          options={starts.map((each) => [each.key, each.name] as const)}
          onCommit={setStart}
          className="min-w-0 flex-1"
        />
        <Button look="solid" disabled={starts.length === 0} onClick={() => void add()}>
          Hang it
        </Button>
      </div>
      {chosen && <Beginning start={chosen} stems={stems} onStems={setStems} />}
    </div>
  );
}
