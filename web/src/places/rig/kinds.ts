/** Kinds of hang points in words; the last ones are here so that the program can say why nothing hangs from them. */
import type { HangPoint } from "../../api/types";

export const HANG_KINDS: readonly (readonly [HangPoint["kind"], string])[] = [
  ["beam loop", "loop round a beam"],
  ["clamp", "clamp"],
  ["eye", "eye"],
  ["wall screw", "wall screw"],
  ["frame member", "frame"],
  ["adhesive hook", "adhesive hook"],
  ["suction hook", "suction hook"],
  ["handle", "handle"],
  ["truss", "truss"],
  ["sprinkler pipe", "sprinkler pipe – never"],
  ["gas pipe", "gas pipe – never"],
  ["electrical conduit", "conduit – never"],
  ["lamp", "lamp – never"],
  ["ceiling grid", "ceiling grid – never"],
  ["fire door", "fire door – never"],
  ["baluster", "baluster – never"],
  ["unknown pipe", "unknown pipe – never"],
];
export const AXES = [
  ["x_m", "Right"],
  ["y_m", "Back"],
  ["z_m", "Up"],
] as const;
