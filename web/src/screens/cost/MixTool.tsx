import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, Mix } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";

/** What decides, as far as it is known. */
type Asked = Record<
  "tables" | "stands" | "places_in_van" | "hands" | "minutes_each" | "hours",
  number | null
>;

const NAMES: Readonly<Record<keyof Asked, string>> = {
  tables: "Tables",
  stands: "Tall stands",
  places_in_van: "Tall in the van",
  hands: "Hands",
  minutes_each: "Minutes each",
  hours: "Time there is",
};

/** How many tables can have a tall piece: stands, the van and hands decide; the rest are low. */
export function MixTool({ event }: { event: EventOut }) {
  const { brief } = event;
  const between =
    brief.access_at && brief.starts_at
      ? (Date.parse(brief.starts_at) - Date.parse(brief.access_at)) / 3_600_000
      : null;
  const [asked, setAsked] = useState<Asked>({
    tables: brief.tables,
    stands: null,
    places_in_van: null,
    hands: brief.crew.length || null,
    minutes_each: null,
    hours: between,
  });
  const [mix, setMix] = useState<Mix | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const field = (key: Exclude<keyof Asked, "hours">) => (
    <QuantityField
      label={NAMES[key]}
      kind="count"
      optional
      placeholder="how many"
      value={asked[key]}
      onCommit={(value) => setAsked({ ...asked, [key]: value === null ? null : Math.round(value) })}
    />
  );
  const ask = async () => {
    const { tables, stands, places_in_van, hands, minutes_each, hours } = asked;
    if (
      tables === null ||
      stands === null ||
      places_in_van === null ||
      hands === null ||
      minutes_each === null ||
      hours === null
    ) {
      setMix(null);
      const lacking = Object.entries(NAMES).filter(([key]) => asked[key as keyof Asked] === null);
      setRefused(`Cannot say without: ${lacking.map(([, words]) => words.toLowerCase()).join(", ")}.`);
      return;
    }
    const known = { tables, stands, places_in_van, hands, minutes_each };
    try {
      setMix(await api.mix(event.id, { ...known, minutes_there_are: hours * 60 }));
      setRefused(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setRefused(`${reason.problem.message.text} ${reason.problem.limit.text}`);
    }
  };
  return (
    <section className="space-y-2">
      <h3 className="m-0 text-lg">Tall and low</h3>
      <div className="grid grid-cols-3 gap-2">
        {field("tables")}
        {field("stands")}
        {field("places_in_van")}
        {field("hands")}
        {field("minutes_each")}
        <QuantityField
          label={NAMES.hours}
          kind="duration"
          optional
          placeholder="how long"
          value={asked.hours}
          onCommit={(hours) => setAsked({ ...asked, hours })}
        />
      </div>
      <Button onClick={() => void ask()}>Work it out</Button>
      {refused && (
        <p role="alert" className="m-0 text-berry">
          {refused}
        </p>
      )}
      {mix && (
        <p className="m-0" role="status">
          <strong>
            {mix.tall} tall and {mix.low} low.
          </strong>{" "}
          What decides: {mix.limited_by}.
        </p>
      )}
    </section>
  );
}
