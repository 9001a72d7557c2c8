import { api } from "../../api/client";
import type { HeldKind, Holding, Stock } from "../../api/types";
import { QuantityField } from "../../ui/QuantityField";
import type { Attempt } from "./attempt";

type Props = {
  kind: HeldKind;
  id: string;
  name: string;
  /** How often one is used unless somebody says otherwise, in words. */
  usual: string;
  stock: Stock;
  attempt: Attempt;
};

/** How a thing wears: how often one is used, the uses all of them have had, what one is sold for in the end. */
export function WearFields({ kind, id, name, usual, stock, attempt }: Props) {
  const held = stock.holdings[kind]?.[id] ?? {
    on_hand: 0,
    retired: false,
    lasts: null,
    used: 0,
    resale: null,
  };
  const put = (next: Partial<Holding>) =>
    void attempt((base, chosen, known) => {
      const was = known.holdings[kind]?.[id] ?? {
        on_hand: 0,
        retired: false,
        lasts: null,
        used: 0,
        resale: null,
      };
      return api.putHolding(base, kind, id, { ...was, ...next }, { was, chosen });
    });
  const whole = (value: number | null) => (value === null ? null : Math.round(value));
  return (
    <div role="group" aria-label={`Wear of ${name}`} className="flex flex-wrap items-end gap-2">
      <QuantityField
        label="Uses of one"
        kind="count"
        optional
        placeholder={usual}
        value={held.lasts}
        onCommit={(lasts) => put({ lasts: whole(lasts) })}
        className="w-24"
      />
      <QuantityField
        label="Had by all"
        kind="count"
        value={held.used}
        onCommit={(used) => used !== null && put({ used: Math.round(used) })}
        className="w-20"
      />
      <QuantityField
        label="Sold for"
        kind="ratio"
        optional
        placeholder="nothing"
        value={held.resale}
        onCommit={(resale) => put({ resale })}
        className="w-20"
      />
    </div>
  );
}
