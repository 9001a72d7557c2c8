import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventChange, LedgerRow, ListsOut, Problem, Swapped, Ticking } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { render, textOf } from "../../units/text";

type Props = {
  eventId: number;
  lists: ListsOut;
  /** Names of varieties to choose from. */
  names: readonly string[];
  onCount: (tick: Ticking) => void;
  onAct: (does: (id: number, revision: number) => Promise<EventChange>) => void;
};

/** Every variety across the event: what each piece takes, where its stems are, and another in its place. */
export function StemLedger({ eventId, lists, names, onCount, onAct }: Props) {
  const { system } = useSettings();
  const [open, setOpen] = useState<string | null>(null);
  if (lists.ledger.length === 0) return <p className="mt-0 text-soft">No stems yet.</p>;
  return (
    <div className="max-w-5xl">
      <datalist id="swap-names">
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div className="grid grid-cols-[minmax(0,1fr)_70px_70px_96px_70px_70px_70px_90px] gap-x-3 text-xs text-soft max-md:hidden">
        <span>variety</span>
        <span className="text-right">planned</span>
        <span className="text-right">there</span>
        <span className="text-right">prepared</span>
        <span className="text-right">placed</span>
        <span className="text-right">lost</span>
        <span className="text-right">left</span>
        <span />
      </div>
      <ul className="m-0 list-none p-0">
        {lists.ledger.map((row) => (
          <li key={row.variety} className="border-t border-line py-1">
            <div className="grid grid-cols-[minmax(0,1fr)_70px_70px_96px_70px_70px_70px_90px] items-center gap-x-3 max-md:grid-cols-3">
              <strong className="font-normal max-md:col-span-3">{row.name}</strong>
              <Cell label="planned" value={row.planned} />
              <Cell label={row.counted ? "counted in" : "ordered"} value={row.had} />
              <QuantityField
                label={`Prepared of ${row.name}`}
                hideLabel
                kind="count"
                optional
                placeholder="prepared"
                value={row.prepared || null}
                onCommit={(number) =>
                  onCount(counted("prepared", row.variety, number === null ? 0 : Math.round(number)))
                }
              />
              <Cell label="placed" value={row.placed} />
              <Cell label="lost" value={row.lost} />
              <Cell label="left" value={row.left} wrong={row.left < 0} />
              <Button
                aria-expanded={open === row.variety}
                onClick={() => setOpen(open === row.variety ? null : row.variety)}
              >
                {open === row.variety ? "Close" : "Open"}
                <span className="sr-only"> {row.name}</span>
              </Button>
            </div>
            {row.say && <p className="m-0 text-berry">✕ {render(row.say, system)}</p>}
            {open === row.variety && (
              <Opened row={row} eventId={eventId} currency={lists.currency} onCount={onCount} onAct={onAct} />
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Cell({ label, value, wrong }: { label: string; value: number; wrong?: boolean }) {
  return (
    <span className={`text-right ${wrong ? "text-berry" : ""}`}>
      <span className="text-xs text-soft md:hidden">{label} </span>
      {value}
    </span>
  );
}

type OpenProps = Pick<Props, "eventId" | "onCount" | "onAct"> & { row: LedgerRow; currency: string };

/** One variety piece by piece, and what another in its place would change. */
function Opened({ row, eventId, currency, onCount, onAct }: OpenProps) {
  const { system } = useSettings();
  const [said, setSaid] = useState("");
  const [tried, setTried] = useState<Swapped | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [trying, setTrying] = useState(false);
  const attempt = async (words: string) => {
    setSaid(words);
    setTried(null);
    setProblem(null);
    if (!words.trim()) return;
    setTrying(true);
    try {
      setTried(await api.trySwap(eventId, row.variety, words.trim()));
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
    } finally {
      setTrying(false);
    }
  };
  return (
    <section aria-label={`${row.name}, piece by piece`} className="my-1 rounded border border-line p-2">
      <ul className="m-0 list-none p-0">
        {row.parts.map((part) => (
          <li
            key={part.part}
            className="grid grid-cols-[minmax(0,1fr)_90px_110px_110px] items-center gap-x-3 py-0.5 max-md:grid-cols-2"
          >
            <span>{part.piece}</span>
            <span className="text-right text-soft">{part.planned} planned</span>
            {(["placed", "lost"] as const).map((list) => (
              <QuantityField
                key={list}
                label={`${list === "placed" ? "Placed" : "Lost"} of ${row.name} in ${part.piece}`}
                hideLabel
                kind="count"
                optional
                placeholder={list}
                value={part[list] || null}
                onCommit={(number) =>
                  onCount(
                    counted(list, `${row.variety}:${part.part}`, number === null ? 0 : Math.round(number)),
                  )
                }
              />
            ))}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-end gap-2 border-t border-line pt-2">
        <TextField
          label={`In the place of ${row.name}, in all of it`}
          list="swap-names"
          path="new"
          problem={problem}
          value={said}
          onCommit={(typed) => void attempt(typed)}
          className="w-70"
        />
        {trying && <span role="status">trying…</span>}
        {tried && (
          <Button
            look="solid"
            onClick={() => {
              onAct((id, revision) => api.swap(id, row.variety, tried.variety, revision));
            }}
          >
            Swap {tried.stems} stems for {tried.name}
          </Button>
        )}
      </div>
      {tried && (
        <ul className="mt-1 mb-0 list-none p-0 leading-snug">
          <li>
            Price: {price(tried.asked_now)} now, {price(tried.asked_then)} then.
          </li>
          <li>
            All of it weighs {mass(tried.mass_now_kg)} now, {mass(tried.mass_then_kg)} then.
          </li>
          <li>
            Without water at 22 °C: {hours(tried.dry_now_h)} now, {hours(tried.dry_then_h)} then.
          </li>
          {tried.worse.map((each) => (
            <li key={each} className="text-berry">
              ✕ {each}
            </li>
          ))}
          {tried.worse.length === 0 && <li>✓ No verdict is worse.</li>}
        </ul>
      )}
    </section>
  );

  function mass(value: number | null): string {
    return value === null ? "not known" : textOf({ kind: "mass", value }, system);
  }
  function price(value: string | null): string {
    return value === null ? "not known" : `${currency} ${value}`;
  }
  function hours(value: number | null): string {
    return value === null ? "needs none" : textOf({ kind: "duration", value }, system);
  }
}

function counted(list: Ticking["list"], line: string, number: number): Ticking {
  return { list, line, tick: number === 0 ? null : { number, state: "", note: "" } };
}
