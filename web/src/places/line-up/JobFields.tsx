import { X } from "lucide-react";
import { useState } from "react";
import type { Air, EventOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import type { BriefDesk } from "./useBrief";

type Props = { event: EventOut; desk: BriefDesk };
type AirField = "workshop" | "van";

/** When the crew gets in and must be gone, who works, the road, the workshop and the van. */
export function JobFields({ event, desk }: Props) {
  const { brief } = event;
  const { put, problem } = desk;
  const [half, setHalf] = useState<Record<AirField, Partial<Air>>>({ workshop: {}, van: {} });
  const [name, setName] = useState("");
  const putAir = (field: AirField, next: Partial<Air>) => {
    const now = { ...brief[field], ...half[field], ...next };
    setHalf({ ...half, [field]: now });
    const { temperature_c, relative_humidity } = now;
    if (temperature_c != null && relative_humidity != null)
      void put({ [field]: { speed_m_s: 0.1, sun: false, ...now, temperature_c, relative_humidity } });
    else if (brief[field]) void put({ [field]: null });
  };
  const time = (field: "access_at" | "starts_at" | "clear_by", label: string) => (
    <TextField
      label={label}
      type="datetime-local"
      value={brief[field] ?? ""}
      path={field}
      problem={problem}
      onCommit={(at) => void put({ [field]: at || null })}
    />
  );
  const air = (field: AirField, words: string) => (
    <>
      <QuantityField
        label={`${words}, temperature`}
        kind="temperature"
        optional
        placeholder="not known"
        value={brief[field]?.temperature_c ?? half[field].temperature_c ?? null}
        path={`${field}.temperature_c`}
        problem={problem}
        onCommit={(temperature_c) => putAir(field, { temperature_c } as Partial<Air>)}
      />
      <QuantityField
        label={`${words}, humidity`}
        kind="percent"
        optional
        placeholder="not known"
        value={brief[field]?.relative_humidity ?? half[field].relative_humidity ?? null}
        path={`${field}.relative_humidity`}
        problem={problem}
        onCommit={(relative_humidity) => putAir(field, { relative_humidity } as Partial<Air>)}
      />
    </>
  );
  const add = () => {
    if (!name.trim()) return;
    const added = name.trim();
    void put((kept) => ({ crew: [...kept.crew, { name: added }] }));
    setName("");
  };
  return (
    <details className="mt-3" open>
      <summary className="flex min-h-11 cursor-pointer items-center text-lg">
        <span className="serif">Crew, road and hours</span>
      </summary>
      <div className="grid grid-cols-2 content-start gap-2 max-md:grid-cols-1">
        {time("access_at", "Place opens to the crew")}
        {time("starts_at", "Guests come")}
        {time("clear_by", "All gone by")}
        <QuantityField
          label="Drive, one way"
          kind="duration"
          optional
          placeholder="not known"
          value={brief.travel_h}
          path="travel_h"
          problem={problem}
          onCommit={(travel_h) => void put({ travel_h })}
        />
        <TextField
          label="Vehicle"
          value={brief.vehicle}
          path="vehicle"
          problem={problem}
          onCommit={(vehicle) => void put({ vehicle })}
        />
        <QuantityField
          label="Guest tables"
          kind="count"
          optional
          placeholder="not known"
          value={brief.tables}
          path="tables"
          problem={problem}
          onCommit={(tables) => void put({ tables: tables === null ? null : Math.round(tables) })}
        />
        <TextField
          label="Workshop opens"
          type="time"
          value={brief.opens}
          path="opens"
          problem={problem}
          onCommit={(opens) => opens && void put({ opens })}
        />
        <TextField
          label="Workshop closes"
          type="time"
          value={brief.closes}
          path="closes"
          problem={problem}
          onCommit={(closes) => closes && void put({ closes })}
        />
        {air("workshop", "Workshop")}
        {air("van", "Van")}
      </div>
      <h3 className="mt-3 mb-1 text-md font-normal text-soft">
        Crew{brief.crew.length === 0 ? ": nobody yet, one pair of hands is taken" : ""}
      </h3>
      <ul className="m-0 flex list-none flex-wrap gap-2 p-0">
        {brief.crew.map((member, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
            key={index}
            className="flex items-center rounded border border-line bg-sheet pl-3"
          >
            {member.name}
            <Button
              look="quiet"
              aria-label={`Take ${member.name} out of the crew`}
              onClick={() => void put((kept) => ({ crew: kept.crew.filter((_, at) => at !== index) }))}
            >
              <X size={16} aria-hidden="true" />
            </Button>
          </li>
        ))}
        <li className="flex gap-2">
          <input
            aria-label="Name of one more of the crew"
            placeholder="name"
            className="h-11 w-32 rounded border border-line bg-sheet px-2"
            value={name}
            maxLength={40}
            onChange={(change) => setName(change.target.value)}
            onKeyDown={(key) => key.key === "Enter" && add()}
          />
          <Button onClick={add}>Add</Button>
        </li>
      </ul>
    </details>
  );
}
