/** What the parts of the rig place hand to one another. */
import type { Edit, Problem, Rig, RigReport, SnipStep, Stock, SurveyOut } from "../../api/types";

/** What is chosen on the drawing: "point-0", "attachment-2", "line-1", or nothing. */
export type Chosen = string;

/** A line cut to see what happens: the settled states one after the other, and which is shown. */
export type Snipped = { readonly cut: number; readonly steps: readonly SnipStep[]; readonly at: number };

/** What the pointer does on the drawing: choose and drag, draw the path anew, or paint it fuller or thinner. */
export type Tool = "hand" | "path" | "fuller" | "thinner";

export type RigTabProps = {
  eventId: number;
  survey: SurveyOut | null;
  tool: Tool;
  onTool: (tool: Tool) => void;
  rig: Rig;
  report: RigReport | null;
  stock: Stock;
  problem: Problem | null;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  onCommit: (rig: Rig, label: string) => void;
  onEdit: (edit: Edit) => void;
};
