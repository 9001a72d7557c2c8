import { Trash2 } from "lucide-react";
import { api } from "../../api/client";
import type { HeldKind, Holding, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import type { Attempt } from "./attempt";

type Props = {
  kind: HeldKind;
  id: string;
  name: string;
  stock: Stock;
  attempt: Attempt;
};

const NONE: Holding = { on_hand: 0, retired: false, lasts: null, used: 0, resale: null };

/** How many there are; copy, retire, delete. */
export function HoldingFields({ kind, id, name, stock, attempt }: Props) {
  const held = stock.holdings[kind]?.[id] ?? NONE;
  const put = (next: Partial<Holding>) =>
    void attempt((base, chosen, known) => {
      const was = known.holdings[kind]?.[id] ?? NONE;
      return api.putHolding(base, kind, id, { ...was, ...next }, { was, chosen });
    });
  return (
    <div className="flex items-center gap-1">
      <QuantityField
        label={`On hand of ${name}`}
        hideLabel
        kind="count"
        value={held.on_hand}
        onCommit={(count) => count !== null && put({ on_hand: Math.round(count) })}
        className="w-14"
      />
      <span className="on-hand mr-1 text-xs text-soft">on hand</span>
      {kind !== "mechanic" && (
        <Button
          look="quiet"
          className="no-print"
          onClick={() => void attempt((base) => api.copyThing(base, kind, id))}
          aria-label={`Copy ${name}`}
        >
          Copy
        </Button>
      )}
      <Button
        look="quiet"
        className="no-print"
        onClick={() => put({ retired: !held.retired })}
        aria-label={`${held.retired ? "Use again" : "Retire"} ${name}`}
      >
        {held.retired ? "Use again" : "Retire"}
      </Button>
      {kind !== "mechanic" && (
        <Button
          look="quiet"
          className="no-print"
          onClick={() => void attempt((base) => api.deleteThing(base, kind, id))}
          aria-label={`Delete ${name}`}
          title={`Delete ${name}; it can be brought back`}
        >
          <Trash2 size={16} aria-hidden="true" />
        </Button>
      )}
    </div>
  );
}
