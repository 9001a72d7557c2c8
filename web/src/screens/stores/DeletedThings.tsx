import { api } from "../../api/client";
import type { Stock, StoreKind } from "../../api/types";
import { Button } from "../../ui/Button";
import type { Attempt } from "./attempt";

type Props = {
  kind: StoreKind;
  stock: Stock;
  attempt: Attempt;
};

/** What was deleted of one kind, to be brought back with its count. */
export function DeletedThings({ kind, stock, attempt }: Props) {
  const gone = stock.deleted.filter((each) => each.kind === kind);
  if (gone.length === 0) return null;
  return (
    <section className="no-print mt-5 max-w-3xl border-t border-line pt-3" aria-label="Deleted">
      <h2 className="m-0 mb-1 text-lead">Deleted</h2>
      <ul className="m-0 list-none p-0">
        {gone.map((each) => (
          <li key={each.key} className="flex items-center gap-3">
            <span className="flex-1">{each.name}</span>
            <span className="text-soft">{new Date(each.deleted_at).toLocaleDateString()}</span>
            <Button
              look="quiet"
              aria-label={`Bring back ${each.name}`}
              onClick={() => void attempt((base) => api.bringBackThing(base, kind, each.key))}
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
