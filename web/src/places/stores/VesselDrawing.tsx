import type { Vessel } from "../../api/types";
import { rimHeight } from "../../drawing/vessel";

const PX_PER_M = 340;

/** A vessel's section at the shelf's scale. */
export function VesselDrawing({ vessel }: { vessel: Vessel }) {
  const half = Math.max(...vessel.profile.map((point) => point.width_m / 2)) + vessel.wall_m;
  const top = rimHeight(vessel);
  const side = (sign: number) =>
    vessel.profile
      .map(
        (point, at) =>
          `${at ? "L" : "M"}${(sign * point.width_m) / 2} ${top - vessel.base_m - point.height_m}`,
      )
      .join("");
  const foot = (vessel.foot_width_m ?? (vessel.profile[0]?.width_m ?? 0) * 0.9) / 2;
  return (
    <svg
      width={Math.max(2 * half * PX_PER_M, 20)}
      height={(top + 0.006) * PX_PER_M}
      viewBox={`${-half} -0.002 ${2 * half} ${top + 0.006}`}
      aria-hidden="true"
    >
      <path
        d={`${side(1)}M${vessel.profile[0]?.width_m ? vessel.profile[0].width_m / 2 : 0} ${top - vessel.base_m}L${foot} ${top}H${-foot}L${-(vessel.profile[0]?.width_m ?? 0) / 2} ${top - vessel.base_m}Z${side(-1)}`}
        fill={vessel.clear ? "color-mix(in oklab, var(--slate) 14%, transparent)" : "none"}
        stroke="var(--ink)"
        strokeWidth={Math.max(vessel.wall_m, 0.003)}
        strokeLinejoin="round"
      />
    </svg>
  );
}
