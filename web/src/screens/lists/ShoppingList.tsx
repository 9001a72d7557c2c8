import type { Shopping } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { render, textOf } from "../../units/text";
import { worded } from "../../units/worded";
import { dayWords } from "../day/times";

const GROUPS = [
  ["market", "From the market, other"],
  ["sundries", "Floristry sundries"],
  ["hardware", "Hardware and netting"],
  ["rigging", "Rigging"],
  ["frogs", "Frogs"],
  ["vessels", "Vessels and stands"],
  ["finished", "Used again"],
] as const;

/** What to buy, by who sells it; what the stores have is taken off. */
export function ShoppingList({ shopping, currency }: { shopping: Shopping; currency: string }) {
  const { system } = useSettings();
  if (shopping.stems.length + shopping.buys.length + shopping.left_out.length === 0)
    return <p className="mt-0 text-soft">Nothing to buy yet: add a piece with stems on the line-up first.</p>;
  const fetched = new Set(shopping.trips.flatMap((trip) => trip.varieties));
  const here = shopping.stems.filter((stem) => !fetched.has(stem.variety));
  return (
    <div className="max-w-5xl">
      <p className="mt-0 mb-3">
        <strong>
          {currency} {shopping.cost}
        </strong>{" "}
        with a known price.
        {shopping.unpriced.length > 0 && (
          <span className="text-berry"> No price is known for: {shopping.unpriced.join(", ")}.</span>
        )}
      </p>
      {shopping.questions.map((each) => (
        <p key={render(each, system)} className="mt-0 mb-2">
          ? {render(each, system)}
        </p>
      ))}
      {shopping.left_out.map((each) => (
        <p key={render(each, system)} className="mt-0 mb-2 text-berry">
          ✕ {render(each, system)}
        </p>
      ))}
      {shopping.trips.map((trip) => (
        <StemTable
          key={`${trip.supplier} ${trip.day}`}
          words={`${trip.supplier}${trip.day ? `, ${dayWords(trip.day)}` : ""}`}
          cost={trip.cost === null ? "" : `${currency} ${trip.cost}`}
          stems={trip.varieties.flatMap((key) => shopping.stems.find((stem) => stem.variety === key) ?? [])}
        />
      ))}
      {here.length > 0 && <StemTable words="Stems that are here" cost="" stems={here} />}
      {GROUPS.map(([group, words]) => {
        const lines = shopping.buys.filter((each) => each.group === group);
        if (lines.length === 0) return null;
        return (
          <section key={group} className="mb-4">
            <h2 className="m-0 text-xl">{words}</h2>
            <ul className="m-0 list-none p-0">
              {lines.map((line) => (
                <li
                  key={line.key}
                  className="grid grid-cols-[minmax(0,1fr)_150px_minmax(0,1fr)_90px] gap-x-3 border-t border-line py-1 max-md:grid-cols-2"
                >
                  <span>{line.name}</span>
                  <span className="text-soft">
                    {textOf(line.needed, system)}
                    {line.here.value > 0 ? `, ${textOf(line.here, system)} here` : ""}
                  </span>
                  <span>
                    {line.packs > 0 ? (
                      `buy ${line.packs} × ${render(line.pack, system)}`
                    ) : line.here.value < line.needed.value ? (
                      <span className="text-berry">not all are here</span>
                    ) : (
                      <span className="text-leaf">
                        {line.hired === line.needed.value ? "✓ hired" : "✓ in the stores"}
                      </span>
                    )}
                    {line.notes.length > 0 && (
                      <span className="text-soft">
                        {" "}
                        {line.notes.map((each) => render(each, system)).join("; ")}
                      </span>
                    )}
                  </span>
                  <span className="text-right">
                    {line.packs === 0 ? "" : (line.price ?? <span className="text-berry">no price</span>)}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

/** Stems of one way to a supplier. */
function StemTable({ words, cost, stems }: { words: string; cost: string; stems: Shopping["stems"] }) {
  return (
    <table className="mb-5 w-full border-collapse">
      <caption className="text-left">
        <span className="serif text-xl">{words}</span> <span className="text-soft">{cost}</span>
      </caption>
      <thead>
        <tr className="text-left text-xs text-soft">
          <th className="font-normal">variety</th>
          <th className="text-right font-normal max-md:hidden md:w-20">in recipes</th>
          <th className="text-right font-normal md:w-20">with waste</th>
          <th className="text-right font-normal md:w-16">here</th>
          <th className="pl-4 font-normal md:w-60">buy</th>
          <th className="text-right font-normal max-md:hidden md:w-20">left over</th>
          <th className="text-right font-normal md:w-20">cost</th>
        </tr>
      </thead>
      <tbody>
        {stems.map((stem) => (
          <tr key={stem.variety} className="border-t border-line">
            <td className="py-1">
              <span
                aria-hidden="true"
                className="mr-2 inline-block h-3 w-3 rounded-full border border-ink"
                style={{ background: stem.colour }}
              />
              {stem.name}
            </td>
            <td className="text-right max-md:hidden">{stem.in_recipes}</td>
            <td className="text-right">{stem.with_waste}</td>
            <td className="text-right">{stem.here || ""}</td>
            <td className="pl-4">
              {bought(stem.bunches, stem.singles, stem.bunch_size)}
              {stem.shades.map((each) => (
                <span key={each.shade} className="block text-sm text-soft">
                  {each.shade || "its own colour"}: {bought(each.bunches, each.singles, stem.bunch_size)}
                </span>
              ))}
            </td>
            <td className="text-right text-soft max-md:hidden">{stem.left_over}</td>
            <td className="text-right">{stem.cost ?? <span className="text-berry">no price</span>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function bought(bunches: number, singles: number, size: number): string {
  if (bunches + singles === 0) return "nothing";
  const parts = [];
  if (bunches > 0) parts.push(worded("{n} {n|bunch|bunches} of {size}", { n: bunches, size }));
  if (singles > 0) parts.push(worded("{n} {n|stem|stems}", { n: singles }));
  return parts.join(" + ");
}
