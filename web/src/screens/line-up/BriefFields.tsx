import { useState } from "react";
import type { EventOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useUsual } from "../../ui/useTrade";
import type { BriefDesk } from "./useBrief";

type Props = { event: EventOut; desk: BriefDesk; short?: boolean };

/** What is known of the job. Air needs both temperature and humidity; half of it is kept here until then. */
export function BriefFields({ event, desk, short }: Props) {
  const { brief } = event;
  const { put, problem } = desk;
  const usual = useUsual();
  /** Which place it was before another name was typed. */
  const [before, setBefore] = useState("");
  const [half, setHalf] = useState<{ temperature_c: number | null; relative_humidity: number | null }>({
    temperature_c: null,
    relative_humidity: null,
  });
  const putAir = (next: Partial<typeof half>) => {
    const now = {
      temperature_c: brief.air?.temperature_c ?? half.temperature_c,
      relative_humidity: brief.air?.relative_humidity ?? half.relative_humidity,
      ...next,
    };
    setHalf(now);
    const { temperature_c, relative_humidity } = now;
    if (!usual) return;
    if (temperature_c !== null && relative_humidity !== null) {
      void put({ air: { ...usual.outside, ...brief.air, temperature_c, relative_humidity } });
    } else if (brief.air) void put({ air: null });
  };
  return (
    <div className="grid grid-cols-[1.3fr_1.3fr_1fr] content-start gap-2 max-md:grid-cols-1">
      {!short && (
        <>
          <TextField
            label="Event"
            value={brief.name}
            path="name"
            problem={problem}
            onCommit={(name) => put({ name })}
          />
          <TextField
            label="Place"
            value={brief.place}
            path="place"
            problem={problem}
            onCommit={(place) => {
              setBefore(brief.place_key);
              put({ place, place_key: "" });
            }}
            className="col-span-2 max-md:col-span-1"
          />
          {before && before !== brief.place_key && brief.place && (
            <p className="col-span-full m-0 flex flex-wrap items-center gap-2 text-sm" role="status">
              Taken for another place, with a survey of its own.
              <Button look="quiet" onClick={() => put({ place_key: before })}>
                It is the same place, called otherwise
              </Button>
            </p>
          )}
        </>
      )}
      <TextField
        label="Water goes in"
        type="datetime-local"
        value={brief.filled_at ?? ""}
        path="filled_at"
        problem={problem}
        onCommit={(at) => put({ filled_at: at || null })}
      />
      <TextField
        label="Event ends"
        type="datetime-local"
        value={brief.ends_at ?? ""}
        path="ends_at"
        problem={problem}
        onCommit={(at) => put({ ends_at: at || null })}
      />
      <TextField
        label="Time zone"
        value={brief.time_zone}
        path="time_zone"
        problem={problem}
        onCommit={(time_zone) => put({ time_zone })}
      />
      <QuantityField
        label="Room temperature"
        kind="temperature"
        optional
        placeholder="not known"
        value={brief.air?.temperature_c ?? half.temperature_c}
        path="air.temperature_c"
        problem={problem}
        onCommit={(temperature_c) => putAir({ temperature_c })}
      />
      <QuantityField
        label="Room humidity"
        kind="percent"
        optional
        placeholder="not known"
        value={brief.air?.relative_humidity ?? half.relative_humidity}
        path="air.relative_humidity"
        problem={problem}
        onCommit={(relative_humidity) => putAir({ relative_humidity })}
      />
      <TextField
        label="Who tops up"
        placeholder="nobody"
        value={brief.topped_up_by ?? ""}
        path="topped_up_by"
        problem={problem}
        onCommit={(who) => put({ topped_up_by: who.trim() || null })}
      />
    </div>
  );
}
