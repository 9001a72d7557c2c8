import { useQuery } from "@tanstack/react-query";
import { api, Refused } from "../../api/client";
import type { Option, Piece } from "../../api/types";
import { rimHeight } from "../../drawing/vessel";
import { Button } from "../../ui/Button";
import { STATE_COLOUR, StateMark } from "../../ui/StateMark";
import { useSettings } from "../../ui/settings";
import { render, textOf } from "../../units/text";

type Props = {
  eventId: number;
  revision: number;
  piece: Piece;
  onUse: (piece: Piece, name: string) => void;
};

/** Every mechanic that can apply, sized and judged for this piece, the best first, each with its reason. */
export function SideBySide({ eventId, revision, piece, onUse }: Props) {
  const { system } = useSettings();
  const options = useQuery({
    queryKey: ["choose", eventId, revision, piece],
    queryFn: ({ signal }) => api.choose(eventId, piece, signal),
    placeholderData: (before) => before,
  });
  if (options.error) {
    const { error } = options;
    return (
      <p role="alert" className="p-4 text-berry">
        {error instanceof Refused
          ? `${render(error.problem.message, system)} ${render(error.problem.limit, system)}`
          : "The mechanics could not be compared. Change something and look again."}
      </p>
    );
  }
  if (!options.data) {
    return (
      <p className="p-4" role="status">
        Sizing and judging every mechanic for this piece…
      </p>
    );
  }
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
    <div className="h-full overflow-y-auto p-3" tabIndex={0}>
      <ol className="m-0 grid list-none grid-cols-3 gap-3 p-0 max-lg:grid-cols-1">
        {options.data.map((option, index) => (
          <Card
            key={option.kind}
            option={option}
            place={index + 1}
            piece={piece}
            onUse={() => onUse(option.piece, option.name)}
          />
        ))}
      </ol>
    </div>
  );
}

type CardProps = { option: Option; place: number; piece: Piece; onUse: () => void };

function Card({ option, place, piece, onUse }: CardProps) {
  const { system } = useSettings();
  const chosen = option.kind === piece.mechanic.kind;
  const made = option.mechanic;
  return (
    <li
      data-kind={option.kind}
      className={`flex flex-col rounded border p-2 ${chosen ? "border-marigold" : "border-line"} ${made ? "" : "opacity-75"}`}
    >
      <h3 className="m-0 flex items-baseline gap-2 text-[16px]">
        <span className="text-soft">{place}</span> {option.name}
        {chosen && (
          <span className="ml-auto font-sans text-[13px] font-normal text-marigold">on the bench</span>
        )}
      </h3>
      <p className="m-0 text-[13px] text-soft">{option.what}</p>
      <div className="flex gap-2">
        <Sketch option={option} piece={piece} />
        <ul className="m-0 grid list-none content-center gap-0.5 p-0 text-[13px]">
          {option.rungs.map((rung) => (
            <li key={rung.verb} className={`flex items-center gap-1 ${STATE_COLOUR[rung.state]}`}>
              <StateMark state={rung.state} size={12} />
              <span className="w-11 capitalize">{rung.verb}</span>
              <span className="text-ink">
                {rung.utilisation === null
                  ? ""
                  : rung.utilisation > 9.99
                    ? ">9.99"
                    : rung.utilisation.toFixed(2)}
              </span>
            </li>
          ))}
        </ul>
      </div>
      <p className="mt-1 mb-1 text-[14px] leading-snug">{render(option.why, system)}</p>
      {made && (
        <p className="mt-auto mb-1 text-[13px] text-soft">
          {made.capacity} stems · {textOf({ kind: "mass", value: made.mass_kg }, system)} ·{" "}
          {made.price === null ? "no price" : `${made.price.toFixed(2)}`} · {Math.round(made.minutes)} min ·
          used {made.uses}×{made.compostable ? " · compostable" : ""}
        </p>
      )}
      {made && !chosen && (
        <Button className="w-full justify-center" onClick={onUse}>
          Use this
        </Button>
      )}
    </li>
  );
}

/** A small section: vessel, levels, stems. */
function Sketch({ option, piece }: { option: Option; piece: Piece }) {
  const { vessel, envelope } = piece;
  const up = Math.max(
    0,
    (option.sketch[0]?.seat_z_m ?? 0) - vessel.base_m - (option.mechanic?.seating.height_m ?? 0),
  );
  const reach = (stem: Option["sketch"][number]) => Math.min(stem.head_radius_m, 0.05);
  const half =
    Math.max(
      envelope.width_m / 2,
      ...vessel.profile.map((point) => point.width_m / 2),
      ...option.sketch.map((stem) => Math.abs(stem.tip_x_m) + reach(stem)),
    ) * 1.03;
  const top =
    Math.max(
      envelope.height_m,
      up + rimHeight(vessel),
      ...option.sketch.map((stem) => stem.tip_z_m + reach(stem)),
    ) + 0.005;
  const bottom = Math.max(0, up - 0.02);
  const floor = up + vessel.base_m;
  const y = (z: number) => top - z;
  const wall = vessel.profile
    .map((point) => [point.width_m / 2, floor + point.height_m] as const)
    .flatMap(([x, z], index) => [`${index ? "L" : "M"}${x} ${y(z)}`])
    .join("");
  const left = vessel.profile
    .map((point, index) => `${index ? "L" : "M"}${-point.width_m / 2} ${y(floor + point.height_m)}`)
    .join("");
  return (
    <svg
      viewBox={`${-half} 0 ${2 * half} ${top - bottom}`}
      className="h-[118px] min-w-0 flex-1"
      role="img"
      aria-label={`Section with ${option.name.toLowerCase()}`}
    >
      <g fill="none" vectorEffect="non-scaling-stroke">
        {option.sketch.map((stem, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a sketch is drawn anew as a whole
          <g key={index}>
            <path
              d={`M${stem.end_x_m} ${y(stem.end_z_m)}L${stem.seat_x_m} ${y(stem.seat_z_m)}L${stem.tip_x_m} ${y(stem.tip_z_m)}`}
              stroke="var(--leaf)"
              strokeWidth={0.0025}
            />
            <circle
              cx={stem.tip_x_m}
              cy={y(stem.tip_z_m)}
              r={Math.min(stem.head_radius_m, 0.05)}
              fill={stem.colour}
              opacity={0.75}
            />
          </g>
        ))}
        {option.mechanic?.levels.map((level) => {
          const reach = option.mechanic?.frog_radius_m || halfAt(piece, level.height_m);
          const z = y(floor + level.height_m);
          return (
            <path
              key={level.height_m}
              d={`M${-reach} ${z}H${reach}`}
              stroke="var(--steel)"
              strokeWidth={0.004}
            />
          );
        })}
        <path d={wall} stroke="var(--ink)" strokeWidth={0.005} />
        <path d={left} stroke="var(--ink)" strokeWidth={0.005} />
        <path d={`M${-half} ${y(bottom)}H${half}`} stroke="var(--ink)" strokeWidth={0.004} />
      </g>
    </svg>
  );
}

function halfAt(piece: Piece, heightM: number): number {
  const { profile } = piece.vessel;
  const above = profile.find((point) => point.height_m >= heightM - 1e-9) ?? profile.at(-1);
  return (above?.width_m ?? 0) / 2;
}
