import { useState } from "react";
import { api } from "../../api/client";
import type { Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { useUsual } from "../../ui/useTrade";
import { textOf } from "../../units/text";
import type { Attempt } from "./attempt";
import { HoldingFields } from "./HoldingFields";
import { VesselDrawing } from "./VesselDrawing";
import { VesselEditor } from "./VesselEditor";
import { WearFields } from "./WearFields";

type Props = {
  stock: Stock;
  retired: boolean;
  /** A part of the name of those that are shown. */
  find: string;
  attempt: Attempt;
};

/** Vessels drawn in section, all at one scale. */
export function VesselShelf({ stock, retired, find, attempt }: Props) {
  const usual = useUsual();
  const { system } = useSettings();
  const [open, setOpen] = useState<string | null>(null);
  const shown = Object.entries(stock.vessels).filter(
    ([key, { name }]) =>
      (retired || !stock.holdings.vessel?.[key]?.retired) && name.toLowerCase().includes(find.toLowerCase()),
  );
  const chosen = open ? stock.vessels[open] : undefined;
  return (
    <>
      {open && chosen && (
        <VesselEditor
          key={open}
          vessel={chosen}
          onClose={() => setOpen(null)}
          onSave={(vessel, was) =>
            attempt((base, chosen) => api.putThing(base, "vessel", open, vessel, { was, chosen }))
          }
        >
          <WearFields
            kind="vessel"
            id={open}
            name={chosen.name}
            usual="40, as a rule"
            stock={stock}
            attempt={attempt}
          />
        </VesselEditor>
      )}
      {shown.length === 0 && <p className="mt-0 text-soft">Nothing here is called “{find}”.</p>}
      <ul className="m-0 flex list-none flex-wrap items-end gap-x-6 gap-y-4 p-0">
        {shown.map(([key, vessel]) => (
          <li
            key={key}
            data-path={`vessel.${key}`}
            className={`flex flex-col ${stock.holdings.vessel?.[key]?.retired ? "opacity-60" : ""}`}
          >
            <button
              type="button"
              className="flex flex-col items-center rounded border border-transparent bg-transparent p-1 hover:border-marigold"
              onClick={() => setOpen(key)}
            >
              <VesselDrawing drawn={stock.drawn[key] ?? []} />
              <span className="serif mt-1 text-base">{vessel.name}</span>
              <span className="text-xs text-soft">
                {textOf({ kind: "length", value: vessel.profile.at(-1)?.width_m ?? 0 }, system)} across,{" "}
                {textOf({ kind: "length", value: vessel.profile.at(-1)?.height_m ?? 0 }, system)} deep
                {vessel.mass_kg === null
                  ? ""
                  : `, ${textOf({ kind: "mass", value: vessel.mass_kg }, system)}`}{" "}
                · {vessel.provenance}
              </span>
            </button>
            <HoldingFields kind="vessel" id={key} name={vessel.name} stock={stock} attempt={attempt} />
          </li>
        ))}
      </ul>
      <Button
        data-path="vessel"
        className="mt-3"
        disabled={!usual}
        onClick={() =>
          void attempt(async (base) => {
            if (!usual) return;
            const made = await api.addVessel(base, usual.vessel);
            setOpen(made.key);
          })
        }
      >
        Measure a new vessel
      </Button>
    </>
  );
}
