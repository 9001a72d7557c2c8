/** What the parts of the rig place hand to one another. */
import type { Problem, Rig, RigReport, SnipStep, Stock } from "../../api/types";

/** What is chosen on the drawing: "point-0", "attachment-2", "line-1", or nothing. */
export type Chosen = string;

/** A line cut to see what happens: the settled states one after the other, and which is shown. */
export type Snipped = { readonly cut: number; readonly steps: readonly SnipStep[]; readonly at: number };

export type RigTabProps = {
  rig: Rig;
  report: RigReport | null;
  stock: Stock;
  problem: Problem | null;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  onCommit: (rig: Rig, label: string) => void;
};
