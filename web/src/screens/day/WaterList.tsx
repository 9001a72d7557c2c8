import { Link } from "react-router";
import type { WaterRounds } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";
import { clockOf } from "./times";

/** The water rounds: when, which piece, how much, and who. */
export function WaterList({ water, eventId }: { water: WaterRounds; eventId: number }) {
  const { system } = useSettings();
  const litres = (value: number) => textOf({ kind: "volume", value }, system);
  return (
    <section aria-label="Water rounds">
      <h2 className="m-0 text-xl">Water rounds</h2>
      <p className="mt-1 mb-0">
        {litres(water.fill_l)} to fill
        {water.filled_at ? ` at ${clockOf(water.filled_at)}` : ""}, {litres(water.total_l)} in all.{" "}
        {water.who ? `Topped up by ${water.who}.` : "Nobody is named to top up."}
      </p>
      {water.dry.map((each) => (
        <p key={each.piece_id} className="mt-1 mb-0 text-berry">
          ✕ <Link to={`/events/${eventId}/pieces/${each.piece_id}`}>{each.piece}</Link> runs dry at{" "}
          {clockOf(each.at)} as it is planned.
        </p>
      ))}
      {water.not_worked_out.map((name) => (
        <p key={name} className="mt-1 mb-0 text-berry">
          ✕ {name} could not be worked out: its water is not in this sum.
        </p>
      ))}
      {water.rounds.length === 0 && <p className="mt-1 text-soft">No piece is topped up.</p>}
      <ul className="m-0 list-none p-0">
        {water.rounds.map((round) => (
          <li key={round.at} className="border-b border-line py-1.5">
            <strong>{clockOf(round.at)}</strong>, {litres(round.litres)}
            <ul className="m-0 list-none p-0">
              {round.pours.map((pour, index) => (
                <li
                  // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
                  key={index}
                >
                  {pour.quantity > 1 ? `${pour.quantity} × ` : ""}
                  {litres(pour.each_l)} {pour.piece}
                  {pour.vessel ? `, ${pour.vessel}` : ""}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </section>
  );
}
