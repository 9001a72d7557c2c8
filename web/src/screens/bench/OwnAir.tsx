import type { Air, Piece, Problem } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useUsual } from "../../ui/useTrade";

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

/** The air where this piece stands, where it is not the room's: outside, in the sun, by a door. */
export function OwnAir({ piece, room, problem, onCommit }: Props) {
  const { air } = piece.setting;
  const usual = useUsual();
  const put = (next: Air | null) =>
    onCommit({ ...piece, setting: { ...piece.setting, air: next } }, "Change the air of this piece");
  const draughts = usual?.draughts ?? [];
  const nearest = (speed: number) =>
    draughts.toSorted((a, b) => Math.abs(a.speed_m_s - speed) - Math.abs(b.speed_m_s - speed))[0]?.speed_m_s;
  return (
    <section>
      <h2 className="m-0 text-base">Air of this piece</h2>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Choice
          label="Stands in air"
          value={air ? "own" : "room"}
          options={WHOSE}
          onCommit={(whose) => put(whose === "room" ? null : (room ?? usual?.outside ?? null))}
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
              value={String(nearest(air.speed_m_s) ?? "")}
              options={draughts.map((each) => [String(each.speed_m_s), each.words] as const)}
              onCommit={(speed) => put({ ...air, speed_m_s: Number(speed) })}
            />
          </>
        )}
      </div>
    </section>
  );
}
