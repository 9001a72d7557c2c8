import { Plus, X } from "lucide-react";
import type { Hardware, Problem } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { worded } from "../../units/worded";

const KINDS: readonly (readonly [Hardware["kind"], string])[] = [
  ["shackle", "shackle"],
  ["sling", "sling"],
  ["eye bolt", "eye bolt"],
  ["carabiner", "carabiner"],
  ["swivel", "swivel"],
  ["turnbuckle", "turnbuckle"],
];

type Props = {
  line: number;
  hardware: readonly Hardware[];
  problem: Problem | null;
  onCommit: (hardware: Hardware[], label: string) => void;
};

/** What lies in the path of a line between its point and the work, each with the working load it is marked with. */
export function HardwareFields({ line, hardware, problem, onCommit }: Props) {
  const put = (at: number, next: Partial<Hardware>) =>
    onCommit(
      hardware.map((each, index) => (index === at ? { ...each, ...next } : each)),
      "Change what is in a line's path",
    );
  return (
    <div className="col-span-full flex flex-wrap items-end gap-2 pl-4">
      {hardware.map((each, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: hardware is known by its place in the path
        <div key={at} className="flex items-end gap-1">
          <Choice
            label={worded("In the path of line {n}", { n: line + 1 })}
            value={each.kind}
            options={KINDS}
            onCommit={(kind) => put(at, { kind })}
            className="w-30"
          />
          <QuantityField
            label="marked with"
            kind="force"
            optional
            placeholder="read it"
            value={each.wll_n}
            path={`lines.${line}.hardware.${at}.wll_n`}
            problem={problem}
            onCommit={(wll_n) => put(at, { wll_n })}
            className="w-28"
          />
          <Button
            look="quiet"
            title="Take it out of the path"
            onClick={() =>
              onCommit(
                hardware.filter((_, index) => index !== at),
                "Take hardware out of a line's path",
              )
            }
          >
            <X size={16} aria-hidden="true" />
            <span className="sr-only">
              Take the {each.kind} out of line {line + 1}
            </span>
          </Button>
        </div>
      ))}
      <Button
        look="quiet"
        className="text-sm"
        disabled={hardware.length >= 8}
        onClick={() =>
          onCommit([...hardware, { kind: "shackle", wll_n: null }], "Add hardware to a line's path")
        }
      >
        <Plus size={14} aria-hidden="true" /> hardware in the path
        <span className="sr-only"> of line {line + 1}</span>
      </Button>
    </div>
  );
}
