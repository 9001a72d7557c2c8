import type { ListsOut, Order, Tick, Ticking } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { FileButton } from "../../ui/FileButton";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import { dayWords } from "../day/times";

const STATES = [
  ["", "not in yet"],
  ["right", "✓ as ordered"],
  ["short", "✕ short"],
  ["late", "✕ late"],
  ["wrong", "✕ wrong"],
  ["poor", "✕ poor"],
] as const;

type Props = {
  eventId: number;
  orders: readonly Order[];
  ticks: ListsOut["ticks"];
  currency: string;
  paper: string;
  onTick: (tick: Ticking) => void;
  onRead: (text: string) => void;
  /** Keys of the table read last that are in no order. */
  strange: readonly string[];
};

/** What is ordered from whom, as a paper and as CSV, and how it came in. */
export function OrdersList({ eventId, orders, ticks, currency, paper, onTick, onRead, strange }: Props) {
  const { system } = useSettings();
  if (orders.length === 0)
    return (
      <p className="mt-0 text-soft">Nothing is ordered: add pieces first, or all of it is in the stores.</p>
    );
  const came = new Map<string, Tick>((ticks["goods in"] ?? []).map((each) => [each.line, each]));
  return (
    <div className="max-w-5xl">
      <p className="no-print mt-0 mb-3 flex flex-wrap items-center gap-3 text-soft">
        Goods in, line by line, or from an order’s CSV with what came written beside it, in a column “came”:
        <FileButton label="An order’s CSV with what came" accept=".csv,text/csv" onText={onRead}>
          Read what came
        </FileButton>
        {strange.length > 0 && (
          <span role="alert" className="text-berry">
            Not in these orders: {strange.join(", ")}
          </span>
        )}
      </p>
      {orders.map((order) => {
        const file = (kind: string) =>
          `/api/events/${eventId}/order.${kind}?supplier=${encodeURIComponent(order.supplier)}&paper=${paper}&system=${system}`;
        return (
          <section
            key={`${order.supplier} ${order.day}`}
            className="mb-5"
            aria-label={`Order: ${order.supplier}`}
          >
            <h2 className="m-0 flex flex-wrap items-baseline gap-x-3 text-xl">
              {order.supplier}
              {order.day && <span className="text-base text-soft">{dayWords(order.day)}</span>}
              <span className="text-base">
                {order.cost === null ? (
                  <span className="text-berry">a price is missing</span>
                ) : (
                  `${currency} ${order.cost}`
                )}
              </span>
              <a className="link-action no-print ml-auto text-base" href={file("pdf")}>
                Order as PDF
              </a>
              <a className="link-action no-print text-base" href={file("csv")}>
                CSV
              </a>
            </h2>
            <ul className="m-0 list-none p-0">
              {order.lines.map((line) => {
                const tick = came.get(line.key);
                const state = tick?.state ?? "";
                const put = (next: Partial<Tick>) => {
                  const ticked = {
                    number: tick?.number ?? line.number,
                    state,
                    note: tick?.note ?? "",
                    ...next,
                  };
                  onTick({ list: "goods in", line: line.key, tick: ticked.state === "" ? null : ticked });
                };
                return (
                  <li
                    key={line.key}
                    className="grid grid-cols-[minmax(0,1fr)_90px_88px_150px] items-center gap-x-3 border-t border-line py-1 max-md:grid-cols-2"
                  >
                    <span>
                      {line.number} × {render(line.pack, system)}: <strong>{line.name}</strong>
                    </span>
                    <span className="text-right">
                      {line.cost ?? <span className="text-berry">no price</span>}
                    </span>
                    <QuantityField
                      label={`Came of ${line.name}, ${render(line.pack, system)}`}
                      hideLabel
                      kind="count"
                      optional
                      placeholder="came"
                      value={tick ? tick.number : null}
                      onCommit={(number) =>
                        number !== null &&
                        put({ number: Math.round(number), state: number < line.number ? "short" : "right" })
                      }
                    />
                    <Choice
                      label={`How ${line.name}, ${render(line.pack, system)}, came in`}
                      hideLabel
                      value={state}
                      options={STATES}
                      onCommit={(next) => put({ state: next })}
                    />
                  </li>
                );
              })}
            </ul>
          </section>
        );
      })}
    </div>
  );
}
