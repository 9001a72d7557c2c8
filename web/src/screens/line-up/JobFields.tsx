import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { Air, EventOut } from "../../api/types";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useUsual } from "../../ui/useTrade";
import { CrewRows } from "./CrewRows";
import { SupplierRows } from "./SupplierRows";
import type { BriefDesk } from "./useBrief";

type Props = { event: EventOut; desk: BriefDesk };
type AirField = "workshop" | "van";

/** When the crew gets in and must be gone, who works, the road, the workshop and the van. */
export function JobFields({ event, desk }: Props) {
  const { brief } = event;
  const { put, problem } = desk;
  const usual = useUsual();
  const [half, setHalf] = useState<Record<AirField, Partial<Air>>>({ workshop: {}, van: {} });
  const putAir = (field: AirField, next: Partial<Air>) => {
    const now = { ...brief[field], ...half[field], ...next };
    setHalf({ ...half, [field]: now });
    const { temperature_c, relative_humidity } = now;
    if (!usual) return;
    if (temperature_c != null && relative_humidity != null)
      void put({ [field]: { ...usual.outside, ...now, temperature_c, relative_humidity } });
    else if (brief[field]) void put({ [field]: null });
  };
  const time = (
    field: "access_at" | "starts_at" | "clear_by" | "builds_from" | "builds_to",
    label: string,
  ) => (
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
  const number = (field: "tables" | "seats" | "buckets" | "cool_buckets", label: string) => (
    <QuantityField
      label={label}
      kind="count"
      optional
      placeholder="not known"
      value={brief[field]}
      path={field}
      problem={problem}
      onCommit={(many) => void put({ [field]: many === null ? null : Math.round(many) })}
    />
  );
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  return (
    <details className="mt-3" open>
      <summary className="flex min-h-11 cursor-pointer items-center text-lg">
        <span className="serif">Crew, road and hours</span>
      </summary>
      <div className="grid grid-cols-2 content-start gap-2 max-md:grid-cols-1">
        {time("access_at", "Place opens to the crew")}
        {time("builds_from", "Hung work may go up before, from")}
        {time("builds_to", "and until")}
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
        {number("tables", "Guest tables")}
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
        {number("seats", "Seats in the vehicle")}
        {number("buckets", "Buckets in the workshop")}
        {number("cool_buckets", "Buckets the cool room takes")}
        <label className="flex min-h-11 items-center gap-2 self-end">
          <input
            type="checkbox"
            className="h-5 w-5 accent-leaf"
            checked={brief.greens_sooner}
            onChange={(event) => void put({ greens_sooner: event.target.checked })}
          />
          Greens go in a day sooner
        </label>
        {air("workshop", "Workshop")}
        {air("van", "Van")}
      </div>
      <CrewRows brief={brief} problem={problem} onPut={put} />
      <SupplierRows brief={brief} stock={stock.data} problem={problem} onPut={put} />
    </details>
  );
}
