import { api } from "../../api/client";
import type { FinishedArmature, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { PictureButton } from "../../ui/PictureButton";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useUsual } from "../../ui/useTrade";
import type { Attempt } from "./attempt";
import { HoldingFields } from "./HoldingFields";
import { WearFields } from "./WearFields";

type Props = {
  stock: Stock;
  retired: boolean;
  find: string;
  attempt: Attempt;
};

export const CONDITIONS = [
  ["good", "good"],
  ["rust", "rust"],
  ["bent", "bent"],
  ["coating worn", "coating worn"],
  ["cracked", "cracked"],
  ["short", "cut short"],
] as const;

/** Armatures and shaped netting that came home and are used again: how they look, and how often they went out. */
export function ArmatureShelf({ stock, retired, find, attempt }: Props) {
  const usual = useUsual();
  const shown = Object.entries(stock.armatures).filter(
    ([key, { name }]) =>
      (retired || !stock.holdings.armature?.[key]?.retired) &&
      name.toLowerCase().includes(find.toLowerCase()),
  );
  const put = (key: string, kept: FinishedArmature, next: Partial<FinishedArmature>) => {
    void attempt((base, chosen, known) => {
      const { key: _, ...was } = known.armatures[key] ?? kept;
      return api.putThing(base, "armature", key, { ...was, ...next }, { was, chosen });
    });
  };
  const nettings = [
    ["", "no netting"] as const,
    ...Object.values(stock.nettings).map((each) => [each.key, each.name] as const),
  ];
  return (
    <>
      {shown.length === 0 && (
        <p className="mt-0 max-w-xl text-soft">
          {find
            ? `Nothing here is called “${find}”.`
            : "Nothing has come home yet. When an event is over, its lists have “Coming home”: what keeps its shape is counted in here, and is offered to the next plan that it fits."}
        </p>
      )}
      <ul className="m-0 grid list-none gap-3 p-0">
        {shown.map(([key, each]) => (
          <li
            key={key}
            className="grid grid-cols-[120px_minmax(0,1fr)] gap-3 border-t border-line pt-3 max-md:grid-cols-1"
          >
            <div>
              {each.picture ? (
                <img
                  src={`/api/pictures/${each.picture}`}
                  alt={each.name}
                  className="max-h-28 max-w-full rounded border border-line"
                />
              ) : (
                <p className="m-0 text-sm text-soft">no picture</p>
              )}
              <PictureButton
                label={`Picture of ${each.name}`}
                onKept={(picture) => put(key, each, { picture })}
              >
                {each.picture ? "Another" : "Add a picture"}
              </PictureButton>
            </div>
            <div className="grid content-start gap-2">
              <div className="flex flex-wrap items-end gap-2">
                <TextField
                  label="Name"
                  value={each.name}
                  onCommit={(name) => put(key, each, { name })}
                  className="w-72"
                />
                <TextField
                  label="Made as"
                  value={each.made_as}
                  onCommit={(made_as) => put(key, each, { made_as })}
                  className="w-40"
                />
                <Choice
                  label="Netting"
                  value={each.netting}
                  options={nettings}
                  onCommit={(netting) => put(key, each, { netting })}
                  className="w-56"
                />
                <QuantityField
                  label="Sheet, wide"
                  kind="length"
                  value={each.width_m}
                  onCommit={(width_m) => width_m !== null && put(key, each, { width_m })}
                  className="w-24"
                />
                <QuantityField
                  label="Sheet, long"
                  kind="length"
                  value={each.length_m}
                  onCommit={(length_m) => length_m !== null && put(key, each, { length_m })}
                  className="w-24"
                />
              </div>
              <div className="flex flex-wrap items-end gap-2">
                <Choice
                  label="Condition"
                  value={each.condition}
                  options={CONDITIONS}
                  onCommit={(condition) => put(key, each, { condition })}
                  className="w-36"
                />
                <TextField
                  label="Note"
                  value={each.note}
                  onCommit={(note) => put(key, each, { note })}
                  className="w-72"
                />
                <WearFields
                  kind="armature"
                  id={key}
                  name={each.name}
                  usual="8, as a rule"
                  stock={stock}
                  attempt={attempt}
                />
                <HoldingFields kind="armature" id={key} name={each.name} stock={stock} attempt={attempt} />
              </div>
              {each.made_for && <p className="m-0 text-sm text-soft">Came home from “{each.made_for}”.</p>}
            </div>
          </li>
        ))}
      </ul>
      <Button
        className="mt-3"
        onClick={() => usual && void attempt((base) => api.addThing(base, "armature", usual.finished))}
      >
        Count one in by hand
      </Button>
    </>
  );
}
