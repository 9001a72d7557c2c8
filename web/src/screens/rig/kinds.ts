/** The axes of a place, as they are asked for. */
export const AXES = [
  ["x_m", "Right"],
  ["y_m", "Back"],
  ["z_m", "Up"],
] as const;
