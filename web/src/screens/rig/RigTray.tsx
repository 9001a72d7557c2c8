import { Tabs } from "radix-ui";
import { type ReactNode, useState } from "react";
import { TrayFrame } from "../../ui/TrayFrame";
import { VerdictStrip } from "../../ui/VerdictStrip";
import { RecipeRows } from "../bench/RecipeRows";
import { Passage } from "../Passage";
import { ProvenRecipes } from "../ProvenRecipes";
import { ArmatureTab } from "./ArmatureTab";
import { ClearTab } from "./ClearTab";
import { HungDetails } from "./HungDetails";
import { HungLine } from "./HungLine";
import { LinesTab } from "./LinesTab";
import { MountTab } from "./MountTab";
import { PathTab } from "./PathTab";
import { PointsTab } from "./PointsTab";
import type { RigTabProps } from "./types";

const TABS = [
  ["points", "Hang points"],
  ["lines", "Lines"],
  ["path", "Path"],
  ["armature", "Armature"],
  ["flowers", "Flowers"],
  ["mount", "Mounted on"],
  ["clear", "Keep clear"],
  ["passage", "To the end"],
] as const;

type Props = RigTabProps & { edge: ReactNode; verdicts: ReactNode };

/** Under the rig: hang points and who rates them, lines, the armature and what is on it, its mount, what is near. */
export function RigTray({ edge, verdicts, ...props }: Props) {
  const { rig, report, stock, problem, onCommit } = props;
  const [open, setOpen] = useState<number | null>(null);
  const opened = open === null ? undefined : rig.recipe[open];
  const counts = {
    points: rig.points.length,
    lines: rig.lines.length,
    path: rig.attachments.length,
    armature: null,
    mount: null,
    clear: rig.hazards.length,
    passage: null,
    flowers: rig.recipe.reduce((sum, line) => sum + line.count, 0),
  };
  return (
    <TrayFrame
      label="Rig tray"
      tabs={TABS.map(
        ([key, words]) => [key, counts[key] === null ? words : `${words} (${counts[key]})`] as const,
      )}
      edge={edge}
      verdicts={verdicts}
      strip={(open) => report && <VerdictStrip states={[["hang", report.verdict.state]]} onOpen={open} />}
      className="no-print"
    >
      <Tabs.Content value="points">
        <PointsTab {...props} />
      </Tabs.Content>
      <Tabs.Content value="lines">
        <LinesTab {...props} />
      </Tabs.Content>
      <Tabs.Content value="path">
        <PathTab {...props} />
      </Tabs.Content>
      <Tabs.Content value="mount">
        <MountTab {...props} />
      </Tabs.Content>
      <Tabs.Content value="passage">
        <Passage
          passage={rig.passage}
          acts={report?.acts ?? []}
          hung
          carried={false}
          weighted={false}
          problem={problem}
          onCommit={(passage, label) => onCommit({ ...rig, passage }, label)}
        />
      </Tabs.Content>
      <Tabs.Content value="clear">
        <ClearTab {...props} />
      </Tabs.Content>
      <Tabs.Content value="armature">
        <ArmatureTab {...props} />
      </Tabs.Content>
      <Tabs.Content value="flowers" className="p-3">
        {rig.recipe.length === 0 && <p className="mt-0 mb-2">Nothing but the armature hangs yet.</p>}
        <RecipeRows
          recipe={rig.recipe}
          path="recipe"
          stock={stock}
          problem={problem}
          onCommit={(recipe, label) => onCommit({ ...rig, recipe }, label)}
          className="max-w-5xl grid-cols-1"
          open={open}
          onOpen={setOpen}
          more={(line, onLine) => (
            <HungLine
              rig={rig}
              name={stock.varieties[line.variety]?.name ?? line.variety}
              line={line}
              onLine={onLine}
            />
          )}
        />
        <ProvenRecipes
          recipe={rig.recipe}
          sizes={{
            length: rig.armature.length_m,
            diameter: rig.armature.diameter_m,
            area: rig.armature.length_m * Math.max(rig.armature.width_m, rig.armature.diameter_m),
            count: 1,
          }}
          by={rig.armature.kind === "panel" ? "area" : rig.armature.kind === "ring" ? "diameter" : "length"}
          onTake={(recipe, label) => onCommit({ ...rig, recipe }, label)}
        />
        {open !== null && opened && (
          <HungDetails
            name={stock.varieties[opened.variety]?.name ?? opened.variety}
            line={opened}
            index={open}
            problem={problem}
            onLine={(line) =>
              onCommit(
                { ...rig, recipe: rig.recipe.map((each, at) => (at === open ? line : each)) },
                `Change ${stock.varieties[line.variety]?.name ?? line.variety}`,
              )
            }
          />
        )}
      </Tabs.Content>
    </TrayFrame>
  );
}
