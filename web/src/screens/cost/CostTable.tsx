import { Fragment, useState } from "react";
import { Link } from "react-router";
import type { CostOut, Missing } from "../../api/types";
import { FactLinks } from "../../ui/FactLinks";
import { useSettings } from "../../ui/settings";
import { durationText, render } from "../../units/text";
import { worded } from "../../units/worded";

const KINDS = [
  ["stems", "stems"],
  ["mechanics", "mechanics ÷ uses"],
  ["vessels", "vessels ÷ uses"],
  ["consumables", "used up"],
] as const;

/** What is typed on the costs themselves stays on this screen. */
const here = ({ of }: Missing) => (of === "cost" ? "" : null);

/** What each piece costs, by kind, what is beside the pieces, and the event in all, to the cent. */
export function CostTable({
  cost,
  eventId,
  rigs,
}: {
  cost: CostOut["cost"];
  eventId: number;
  rigs: ReadonlySet<number>;
}) {
  const { system } = useSettings();
  const [open, setOpen] = useState<number | null>(null);
  if (cost.pieces.length === 0) return <p className="text-soft">Nothing to reckon yet: add a piece first.</p>;
  const unknown = <span className="text-berry">cannot say</span>;
  const least = cost.unsaid.length > 0 ? "at least " : "";
  /** Shares that the studio reckons with; a share of nothing has no column. */
  const shares = (["breakage", "overheads"] as const).filter((each) => Number(cost[each]) > 0);
  const before = KINDS.length + 2 + shares.length; // columns between the name and the cost
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr className="text-right text-xs text-soft">
              <th className="text-left font-normal">piece</th>
              {KINDS.map(([field, words]) => (
                <th key={field} className="font-normal">
                  {words}
                </th>
              ))}
              <th className="font-normal">work</th>
              <th className="font-normal">labour</th>
              {shares.map((field) => (
                <th key={field} className="font-normal">
                  {field}
                </th>
              ))}
              <th className="font-normal">cost</th>
              <th className="font-normal">each</th>
              <th className="font-normal">kept</th>
              <th className="font-normal">to ask</th>
            </tr>
          </thead>
          <tbody>
            {cost.pieces.map((row) => (
              <Fragment key={row.piece_id}>
                <tr className="border-t border-line text-right">
                  <td className="py-1 text-left">
                    <button
                      type="button"
                      aria-expanded={open === row.piece_id}
                      aria-label={`What ${row.name} is made up of`}
                      className="no-print mr-1 min-h-11 min-w-11 border-0 bg-transparent p-0"
                      onClick={() => setOpen(open === row.piece_id ? null : row.piece_id)}
                    >
                      {open === row.piece_id ? "▾" : "▸"}
                    </button>
                    {row.quantity > 1 ? `${row.quantity} × ` : ""}
                    <Link
                      to={`/events/${eventId}/${rigs.has(row.piece_id) ? "rigs" : "pieces"}/${row.piece_id}`}
                    >
                      {row.name}
                    </Link>
                  </td>
                  {KINDS.map(([field]) => (
                    <td key={field}>{row[field]}</td>
                  ))}
                  <td className="text-soft">{durationText(row.minutes / 60)}</td>
                  <td>{row.labour ?? unknown}</td>
                  {shares.map((field) => (
                    <td key={field}>{row[field]}</td>
                  ))}
                  <td>{row.cost ?? unknown}</td>
                  <td className="text-soft">{row.quantity > 1 ? row.price_each : ""}</td>
                  <td className="text-soft">{row.margin ?? ""}</td>
                  <td>{row.price ? <strong>{row.price}</strong> : unknown}</td>
                </tr>
                {open === row.piece_id && (
                  <tr>
                    <td colSpan={before + 5} className="bg-sheet px-8 pb-2">
                      <ul className="m-0 list-none p-0" aria-label={`Lines of ${row.name}`}>
                        {row.parts.map((part) => (
                          <li
                            key={`${part.kind} ${part.name}`}
                            className="grid grid-cols-[110px_minmax(0,1fr)_minmax(0,2fr)_80px] gap-x-3 border-t border-line py-0.5 max-md:grid-cols-2"
                          >
                            <span className="text-soft">
                              {part.kind === "consumables" ? "used up" : part.kind}
                            </span>
                            <span>{part.name}</span>
                            <span className="text-soft">{render(part.of, system)}</span>
                            <span className="text-right">{part.amount}</span>
                          </li>
                        ))}
                      </ul>
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
            {cost.lines.map((line) => (
              <tr key={line.name} className="border-t border-line text-right">
                <td className="py-1 text-left" colSpan={before + 1}>
                  {line.name} <span className="text-soft">{render(line.of, system)}</span>
                </td>
                <td>{line.cost}</td>
                <td />
                <td />
                <td>
                  <strong>{line.price}</strong>
                </td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="border-t-2 border-ink text-right">
              <th className="py-1.5 text-left">The event, in {cost.currency}</th>
              {KINDS.map(([field]) => (
                <td key={field}>{cost[field]}</td>
              ))}
              <td className="text-soft">{durationText(cost.minutes / 60)}</td>
              <td>{cost.labour ?? unknown}</td>
              {shares.map((field) => (
                <td key={field}>{cost[field]}</td>
              ))}
              <td>{cost.cost ? `${least}${cost.cost}` : unknown}</td>
              <td />
              <td />
              <td className="text-lg">
                {cost.price ? (
                  <strong>
                    {least}
                    {cost.price}
                  </strong>
                ) : (
                  unknown
                )}
              </td>
            </tr>
            {cost.tax && Number(cost.tax) > 0 && (
              <>
                <tr className="text-right">
                  <th className="py-1 text-left font-normal" colSpan={before + 4}>
                    Tax
                  </th>
                  <td>{cost.tax}</td>
                </tr>
                <tr className="text-right">
                  <th className="py-1.5 text-left" colSpan={before + 4}>
                    To ask with tax
                  </th>
                  <td className="text-lg">
                    <strong>
                      {least}
                      {cost.asked}
                    </strong>
                  </td>
                </tr>
              </>
            )}
          </tfoot>
        </table>
      </div>
      {cost.bands.length > 0 && (
        <p className="mt-2 mb-0">
          In bands, tax in:{" "}
          {cost.bands
            .map((each) =>
              worded("{share} % of the stems {currency} {asked}", {
                share: Math.round(each.stems * 100),
                currency: cost.currency,
                asked: each.asked,
              }),
            )
            .join(" · ")}
        </p>
      )}
      {cost.unsaid.length > 0 && (
        <p className="text-berry">Not in it, as nobody has said what it costs: {cost.unsaid.join("; ")}.</p>
      )}
      {cost.missing.length > 0 && (
        <p className="text-berry">
          Not known: <FactLinks facts={cost.missing} tabOf={here} />. What is known comes to at least{" "}
          {cost.currency} {cost.known}.
        </p>
      )}
    </>
  );
}
