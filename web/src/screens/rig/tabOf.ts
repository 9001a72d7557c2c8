import type { Missing } from "../../api/types";

/** Tabs of the rig's tray by how the paths of their fields begin. */
const TABS: Readonly<Record<string, string>> = {
  points: "points",
  lines: "lines",
  bond: "lines",
  armature: "armature",
  mount: "mount",
  recipe: "flowers",
  passage: "passage",
};

/** The tabs of missing facts in the order in which they are asked for. */
export const ORDER: readonly string[] = ["points", "lines", "mount", "armature", "flowers", "passage"];

/** Under which tab of the rig's tray a missing fact is typed; null for another screen. */
export function tabOf({ of, path }: Missing): string | null {
  return of === "part" ? (TABS[path.split(".")[0] ?? ""] ?? "") : null;
}
