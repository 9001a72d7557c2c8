import { Link } from "react-router";
import type { CostOut } from "../../api/types";
import { durationText } from "../../units/text";

/** What each piece costs, by kind, and the event in all, to the cent. */
export function CostTable({
  cost,
  eventId,
  rigs,
}: {
  cost: CostOut["cost"];
  eventId: number;
  rigs: ReadonlySet<number>;
}) {
  if (cost.pieces.length === 0) return <p className="text-soft">Nothing to reckon yet: add a piece first.</p>;
  const unknown = <span className="text-berry">cannot say</span>;
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr className="text-right text-xs text-soft">
              <th className="text-left font-normal">piece</th>
              <th className="font-normal">stems</th>
              <th className="font-normal">mechanics ÷ uses</th>
              <th className="font-normal">used up</th>
              <th className="font-normal">work</th>
              <th className="font-normal">labour</th>
              <th className="font-normal">cost</th>
              <th className="font-normal">to ask</th>
              <th className="font-normal">each</th>
            </tr>
          </thead>
          <tbody>
            {cost.pieces.map((row) => (
              <tr key={row.piece_id} className="border-t border-line text-right">
                <td className="py-1 text-left">
                  {row.quantity > 1 ? `${row.quantity} × ` : ""}
                  <Link
                    to={`/events/${eventId}/${rigs.has(row.piece_id) ? "rigs" : "pieces"}/${row.piece_id}`}
                  >
                    {row.name}
                  </Link>
                </td>
                <td>{row.stems}</td>
                <td>{row.mechanics}</td>
                <td>{row.consumables}</td>
                <td className="text-soft">{durationText(row.minutes / 60)}</td>
                <td>{row.labour ?? unknown}</td>
                <td>{row.cost ?? unknown}</td>
                <td>{row.price ? <strong>{row.price}</strong> : unknown}</td>
                <td className="text-soft">{row.quantity > 1 ? row.price_each : ""}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="border-t-2 border-ink text-right">
              <th className="py-1.5 text-left">The event, in {cost.currency}</th>
              <td>{cost.stems}</td>
              <td>{cost.mechanics}</td>
              <td>{cost.consumables}</td>
              <td className="text-soft">{durationText(cost.minutes / 60)}</td>
              <td>{cost.labour ?? unknown}</td>
              <td>{cost.cost ?? unknown}</td>
              <td className="text-lg">{cost.price ? <strong>{cost.price}</strong> : unknown}</td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
      {cost.missing.length > 0 && (
        <p className="text-berry">
          Not known: {cost.missing.join("; ")}. What is known comes to {cost.currency} {cost.known}.
        </p>
      )}
    </>
  );
}
