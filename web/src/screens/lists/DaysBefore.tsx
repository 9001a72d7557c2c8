import type { ListsOut } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import { clockOf, dateOf, dayWords } from "../day/times";

/** Buying, drinking and placing days of each variety, the first to buy first. */
export function DaysBefore({ days }: { days: ListsOut["days"] }) {
  const { system } = useSettings();
  if (days.length === 0) return <p className="mt-0 text-soft">No stems yet.</p>;
  return (
    <table className="w-full max-w-6xl border-collapse">
      <thead>
        <tr className="text-left text-xs text-soft">
          <th className="font-normal">variety</th>
          <th className="text-right font-normal">stems</th>
          <th className="pl-4 font-normal">buy on</th>
          <th className="font-normal">drinks from</th>
          <th className="font-normal">placed from</th>
          <th className="font-normal">what is done</th>
        </tr>
      </thead>
      <tbody>
        {days.map((row) => (
          <tr key={row.variety} className="border-t border-line align-top">
            <td className="py-1.5">
              <span
                aria-hidden="true"
                className="mr-2 inline-block h-3 w-3 rounded-full border border-ink"
                style={{ background: row.colour }}
              />
              {row.name}
            </td>
            <td className="py-1.5 text-right">{row.count}</td>
            <td className="py-1.5 pr-4 pl-4 whitespace-nowrap">
              {row.buy_on ? (
                <>
                  <strong>{dayWords(row.buy_on)}</strong>
                  {row.supplier && <span className="block text-sm text-soft">{row.supplier}</span>}
                </>
              ) : (
                <span className="text-soft">{row.place_from ? "here already" : "cannot say"}</span>
              )}
            </td>
            <td className="py-1.5 pr-4 whitespace-nowrap">{moment(row.drinks_by)}</td>
            <td className="py-1.5 pr-4 whitespace-nowrap">{moment(row.place_from)}</td>
            <td className="py-1.5 text-md">{row.notes.map((each) => render(each, system)).join("; ")}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function moment(at: string | null): string {
  return at ? `${dayWords(dateOf(at))}, ${clockOf(at)}` : "cannot say";
}
