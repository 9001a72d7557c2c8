/** Sizes of a vessel at its heights. */
import type { Vessel } from "../api/types";

/** Half the inside width at a height above the inside floor, for drawing. */
export function halfWidthAt(vessel: Vessel, heightM: number): number {
  const points = vessel.profile;
  let low = points[0];
  for (const high of points) {
    if (low && heightM <= high.height_m) {
      const rise = high.height_m - low.height_m;
      const share = rise > 0 ? Math.max(0, heightM - low.height_m) / rise : 0;
      return (low.width_m + share * (high.width_m - low.width_m)) / 2;
    }
    low = high;
  }
  return (low?.width_m ?? 0) / 2;
}

/** Height of the rim over the underside of a vessel. */
export function rimHeight(vessel: Vessel): number {
  return vessel.base_m + (vessel.profile.at(-1)?.height_m ?? 0);
}
