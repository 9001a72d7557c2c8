import type { Missing } from "../../api/types";

/** Tabs of the bench in the order of the work, and how the paths of their fields begin. */
const TABS = [
  ["vessel", ["vessel", "insert", "support"]],
  ["stems", ["recipe"]],
  ["carried", ["carried_h"]],
  ["place", ["setting", "transport"]],
  ["passage", ["passage"]],
  ["beside", ["spill", "companions"]],
] as const;
/** The tabs of missing facts in the order in which they are asked for. */
export const ORDER: readonly string[] = [...TABS.map(([tab]) => tab), "room"];
/** What of the event is typed on the bench too. */
const ROOM = ["air", "filled_at", "ends_at"];

/** Under which tab of the bench a missing fact is typed; null for another screen. */
export function tabOf({ of, path }: Missing): string | null {
  const root = path.split(".")[0] ?? "";
  if (of === "event") return ROOM.includes(root) ? "room" : null;
  if (of !== "part") return null;
  return TABS.find(([, roots]) => (roots as readonly string[]).includes(root))?.[0] ?? "";
}
