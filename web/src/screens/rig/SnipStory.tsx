import type { Rig } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import type { Snipped } from "./types";

type Props = { rig: Rig; snipped: Snipped; onShow: (at: number) => void; onBack: () => void };

/** What happens after a line is cut, one settled state after the other. */
export function SnipStory({ rig, snipped, onShow, onBack }: Props) {
  const { system } = useSettings();
  const nameOf = (index: number) => {
    const line = rig.lines[index];
    if (!line) return "a line";
    if (line.tied_to !== null) return `the line from place ${line.tied_to + 1}`;
    return `the line at ${rig.points[line.point ?? -1]?.name ?? "a point"}`;
  };
  return (
    <section aria-label="After the snip" className="border-b-2 border-marigold bg-sheet p-3">
      <h2 className="m-0 text-lg">With {nameOf(snipped.cut)} cut</h2>
      <ol className="mt-1 mb-2 list-none space-y-1 p-0">
        {snipped.steps.map((step, index) => (
          <li key={step.cut.join("-")}>
            <button
              type="button"
              aria-current={index === snipped.at ? "step" : undefined}
              onClick={() => onShow(index)}
              className={`min-h-11 w-full rounded border bg-transparent p-2 text-left leading-snug ${index === snipped.at ? "border-marigold" : "border-line"}`}
            >
              {index > 0 && (
                <strong>
                  Then {step.cut.length - (snipped.steps[index - 1]?.cut.length ?? 0)} more gone.{" "}
                </strong>
              )}
              {render(step.say, system)}
              {step.over_limit.length > 0 && (
                <span className="block text-sm text-marigold">
                  △ over its limit: {step.over_limit.map(nameOf).join(", ")}
                </span>
              )}
              {step.lets_go.length > 0 && (
                <span className="block text-sm text-berry">
                  ✕ lets go: {step.lets_go.map(nameOf).join(", ")}
                </span>
              )}
            </button>
          </li>
        ))}
      </ol>
      <p className="mt-0 mb-2 text-sm text-soft">
        Each state is settled; the swing between them is not. A line lets go where twice its load at rest
        reaches what its knots keep.
      </p>
      <Button look="solid" onClick={onBack}>
        Put it back <kbd className="ml-1 rounded border border-current px-1 text-xs">Esc</kbd>
      </Button>
    </section>
  );
}
