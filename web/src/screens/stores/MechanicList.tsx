import type { Stock } from "../../api/types";
import { useTrade } from "../../ui/useTrade";
import type { Attempt } from "./attempt";
import { HoldingFields } from "./HoldingFields";

type Props = {
  stock: Stock;
  retired: boolean;
  attempt: Attempt;
};

/** Every mechanic by name: what it is, what it is made of, how many ready-made ones there are, and which are not used here. */
export function MechanicList({ stock, retired, attempt }: Props) {
  const trade = useTrade();
  const shown = (trade?.mechanics ?? []).filter(
    (each) => retired || !stock.holdings.mechanic?.[each.kind]?.retired,
  );
  return (
    <>
      <p className="mt-0 max-w-3xl text-soft">
        A retired mechanic is ruled out where mechanics are compared. With “only what is on hand” the
        ready-made ones must be counted here; the others are made of netting, frogs and what grows.
      </p>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-xs text-soft">
            <th className="font-normal">name</th>
            <th className="font-normal">what it is</th>
            <th className="font-normal">made of</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {shown.map((each) => (
            <tr
              key={each.kind}
              className={`border-t border-line ${stock.holdings.mechanic?.[each.kind]?.retired ? "opacity-60" : ""}`}
            >
              <th scope="row" className="serif py-2 pr-3 text-left text-base">
                {each.name}
              </th>
              <td className="py-2 pr-3">{each.what}</td>
              <td className="py-2 pr-3 text-soft">
                {[each.netting && "netting", each.frog && `a ${each.frog} frog`, each.bought && "ready made"]
                  .filter(Boolean)
                  .join(", ") || "what grows, tape or string"}
              </td>
              <td className="py-1">
                <HoldingFields
                  kind="mechanic"
                  id={each.kind}
                  name={each.name}
                  stock={stock}
                  attempt={attempt}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
