import type { Air, Piece, Problem } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

type Props = {
  piece: Piece;
  room: Air | null;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

const WHOSE = [
  ["room", "the room's"],
  ["own", "its own"],
] as const;
const SUN = [
  ["shade", "in shade"],
  ["sun", "in the sun"],
] as const;
const DRAUGHTS = [
  ["0.1", "still"],
  ["0.3", "people passing"],
  ["0.5", "an open door"],
  ["1.5", "a breeze"],
  ["4", "wind"],
] as const;
const OUTSIDE: Air = { temperature_c: 20, relative_humidity: 0.6, speed_m_s: 0.1, sun: false };

/** The air where this piece stands, where it is not the room's: outside, in the sun, by a door. */
export function OwnAir({ piece, room, problem, onCommit }: Props) {
  const { air } = piece.setting;
  const put = (next: Air | null) =>
    onCommit({ ...piece, setting: { ...piece.setting, air: next } }, "Change the air of this piece");
  const nearest = (speed: number) =>
    DRAUGHTS.reduce((best, each) =>
      Math.abs(Number(each[0]) - speed) < Math.abs(Number(best[0]) - speed) ? each : best,
    )[0];
  return (
    <section>
      <h2 className="m-0 text-base">Air of this piece</h2>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Choice
          label="Stands in air"
          value={air ? "own" : "room"}
          options={WHOSE}
          onCommit={(whose) => put(whose === "room" ? null : (room ?? OUTSIDE))}
        />
        {air && (
          <>
            <Choice
              label="Sun"
              value={air.sun ? "sun" : "shade"}
              options={SUN}
              onCommit={(sun) => put({ ...air, sun: sun === "sun" })}
            />
            <QuantityField
              label="Temperature there"
              kind="temperature"
              value={air.temperature_c}
              path="setting.air.temperature_c"
              problem={problem}
              onCommit={(temperature_c) => temperature_c !== null && put({ ...air, temperature_c })}
            />
            <QuantityField
              label="Humidity there"
              kind="percent"
              value={air.relative_humidity}
              path="setting.air.relative_humidity"
              problem={problem}
              onCommit={(relative_humidity) =>
                relative_humidity !== null && put({ ...air, relative_humidity })
              }
            />
            <Choice
              label="Draught"
              value={nearest(air.speed_m_s)}
              options={DRAUGHTS}
              onCommit={(speed) => put({ ...air, speed_m_s: Number(speed) })}
            />
          </>
        )}
      </div>
    </section>
  );
}
