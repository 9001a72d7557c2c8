import { Plus, X } from "lucide-react";
import type { Brief, Problem, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { TextField } from "../../ui/TextField";

type Put = (change: (kept: Brief) => Partial<Brief>) => Promise<unknown>;
type Supplier = Brief["suppliers"][number];
type Props = { brief: Brief; stock: Stock | undefined; problem: Problem | null; onPut: Put };

const DAYS = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"] as const;

/** Where stems are fetched: hours, days, and which varieties; who sells nothing in particular is asked for the rest. */
export function SupplierRows({ brief, stock, problem, onPut }: Props) {
  const set = (index: number, next: Partial<Supplier>) =>
    void onPut((kept) => ({
      suppliers: kept.suppliers.map((each, at) => (at === index ? { ...each, ...next } : each)),
    }));
  const add = () =>
    void onPut((kept) => ({
      suppliers: [
        ...kept.suppliers,
        {
          name: `Supplier ${kept.suppliers.length + 1}`,
          opens: "06:00",
          closes: "18:00",
          days: ["mon", "tue", "wed", "thu", "fri", "sat"],
          sells: [],
          key: "",
        },
      ],
    }));
  const names = new Map(Object.values(stock?.varieties ?? {}).map((each) => [each.name, each.key] as const));
  const named = (keys: readonly string[]) => keys.map((key) => stock?.varieties[key]?.name ?? key).join(", ");
  return (
    <section aria-label="Suppliers">
      <h3 className="mt-3 mb-1 text-md font-normal text-soft">
        Suppliers{brief.suppliers.length === 0 ? ": none named, stems are there on every day" : ""}
      </h3>
      <ul className="m-0 grid list-none gap-2 p-0">
        {brief.suppliers.map((each, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
            key={index}
            className="grid grid-cols-[minmax(0,1fr)_92px_92px_44px] items-end gap-2 rounded border border-line bg-sheet p-2 max-md:grid-cols-2"
          >
            <TextField
              label="Supplier"
              value={each.name}
              path={`suppliers.${index}.name`}
              problem={problem}
              onCommit={(name) => set(index, { name })}
            />
            <TextField
              label="Opens"
              type="time"
              value={each.opens}
              path={`suppliers.${index}.opens`}
              problem={problem}
              onCommit={(opens) => opens && set(index, { opens })}
            />
            <TextField
              label="Closes"
              type="time"
              value={each.closes}
              path={`suppliers.${index}.closes`}
              problem={problem}
              onCommit={(closes) => closes && set(index, { closes })}
            />
            <Button
              look="quiet"
              aria-label={`Take ${each.name} off`}
              onClick={() =>
                void onPut((kept) => ({ suppliers: kept.suppliers.filter((_, at) => at !== index) }))
              }
            >
              <X size={16} aria-hidden="true" />
            </Button>
            <div
              className="col-span-full flex flex-wrap gap-x-3"
              role="group"
              aria-label={`Days of ${each.name}`}
            >
              {DAYS.map((day) => (
                <label key={day} className="flex min-h-11 min-w-14 items-center gap-1 text-sm">
                  <input
                    type="checkbox"
                    className="h-5 w-5 accent-leaf"
                    checked={each.days.includes(day)}
                    onChange={(event) =>
                      set(index, {
                        days: DAYS.filter((one) =>
                          one === day ? event.target.checked : each.days.includes(one),
                        ),
                      })
                    }
                  />
                  {day}
                </label>
              ))}
            </div>
            <TextField
              label="Asked for (names, with commas; empty: all the rest)"
              className="col-span-full"
              value={named(each.sells)}
              path={`suppliers.${index}.sells`}
              problem={problem}
              onCommit={(text) =>
                set(index, {
                  sells: text
                    .split(",")
                    .map((one) => one.trim())
                    .filter(Boolean)
                    .map((one) => names.get(one) ?? one),
                })
              }
            />
          </li>
        ))}
      </ul>
      <Button className="mt-2" onClick={add}>
        <Plus size={16} aria-hidden="true" /> Add a supplier
      </Button>
    </section>
  );
}
