import { api } from "../../api/client";
import type { HeldKind, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";

type Props = {
  kind: HeldKind;
  id: string;
  name: string;
  stock: Stock;
  attempt: (act: () => Promise<unknown>) => Promise<boolean>;
};

/** How many there are, copy, retire and bring back. */
export function HoldingFields({ kind, id, name, stock, attempt }: Props) {
  const held = stock.holdings[kind]?.[id] ?? { on_hand: 0, retired: false };
  return (
    <div className="flex items-center gap-1">
      <QuantityField
        label={`On hand of ${name}`}
        hideLabel
        kind="count"
        value={held.on_hand}
        onCommit={(count) =>
          count !== null && void attempt(() => api.putHolding(kind, id, Math.round(count), held.retired))
        }
        className="w-14"
      />
      <span className="mr-1 text-[13px] text-soft">on hand</span>
      {kind !== "mechanic" && (
        <Button
          look="quiet"
          onClick={() => void attempt(() => api.copyThing(kind, id))}
          aria-label={`Copy ${name}`}
        >
          Copy
        </Button>
      )}
      <Button
        look="quiet"
        onClick={() => void attempt(() => api.putHolding(kind, id, held.on_hand, !held.retired))}
        aria-label={`${held.retired ? "Bring back" : "Retire"} ${name}`}
      >
        {held.retired ? "Bring back" : "Retire"}
      </Button>
    </div>
  );
}
