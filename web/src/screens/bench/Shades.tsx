import { Plus, X } from "lucide-react";
import { useId } from "react";
import type { Problem, RecipeLine, Shade } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { useTrade } from "../../ui/useTrade";
import { render } from "../../units/text";

type Props = {
  name: string;
  line: RecipeLine;
  /** Dotted path of the shades, as problems name it. */
  path: string;
  problem: Problem | null;
  onLine: (line: RecipeLine) => void;
  className?: string;
};

const SHADING = [
  ["mixed", "mixed"],
  ["clusters", "side by side"],
  ["along", "from left to right"],
  ["far side", "each on both sides"],
] as const;

/** The shades of one line: name, colour, how many; how they lie; and how many are left in the variety's own colour. */
export function Shades({ name, line, path, problem, onLine, className }: Props) {
  const { system } = useSettings();
  const colours = useTrade()?.colours ?? [];
  const known = useId();
  const left = line.count - line.shades.reduce((sum, each) => sum + each.count, 0);
  const put = (at: number, next: Partial<Shade>) =>
    onLine({ ...line, shades: line.shades.map((each, nth) => (nth === at ? { ...each, ...next } : each)) });
  const own = problem && problem.path === path ? problem : null;
  const add = () => {
    const names = new Set(line.shades.map((each) => each.name));
    let nth = line.shades.length + 1;
    while (names.has(`shade ${nth}`)) nth += 1;
    const shade = { name: `shade ${nth}`, colour: "#e39bb0", count: Math.max(1, Math.min(5, left)) };
    onLine({ ...line, shades: [...line.shades, shade] });
  };
  return (
    <section aria-label={`Shades of ${name}`} className={className}>
      <datalist id={known}>
        {colours.map((each) => (
          <option key={each.name} value={each.name} />
        ))}
      </datalist>
      <div className="flex flex-wrap items-end gap-2">
        {line.shades.map((shade, at) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: its place is what a problem names it by
            key={at}
            className="flex items-end gap-1 rounded border border-line p-1"
          >
            <QuantityField
              label={`How many ${shade.name}`}
              hideLabel
              kind="count"
              value={shade.count}
              path={`${path}.${at}.count`}
              problem={problem}
              onCommit={(count) => count !== null && put(at, { count })}
              className="w-14"
            />
            <TextField
              label="Shade"
              hideLabel
              value={shade.name}
              path={`${path}.${at}.name`}
              problem={problem}
              list={known}
              onCommit={(typed) => {
                const called = typed.trim().slice(0, 40) || shade.name;
                const colour = colours.find((each) => each.name === called.toLowerCase())?.colour;
                put(at, { name: called, colour: colour ?? shade.colour });
              }}
              className="w-30"
            />
            <input
              type="color"
              key={shade.colour}
              aria-label={`Colour of ${shade.name}`}
              className="h-11 w-11 flex-none cursor-pointer rounded border border-line bg-sheet p-1"
              defaultValue={shade.colour}
              onBlur={(event) =>
                event.target.value !== shade.colour && put(at, { colour: event.target.value })
              }
            />
            <Button
              look="quiet"
              className="w-11 px-0"
              onClick={() => onLine({ ...line, shades: line.shades.filter((_, nth) => nth !== at) })}
            >
              <X size={18} aria-hidden="true" />
              <span className="sr-only">Take out {shade.name}</span>
            </Button>
          </span>
        ))}
        <Button disabled={left < 1 || line.shades.length >= 24} onClick={add}>
          <Plus size={18} aria-hidden="true" /> {line.shades.length ? "Another shade" : "Shades"}
        </Button>
        {line.shades.length > 0 && (
          <Choice
            label="Shades lie"
            value={line.shading}
            options={SHADING}
            onCommit={(shading) => onLine({ ...line, shading })}
          />
        )}
        {line.shades.length > 0 && left > 0 && (
          <span className="self-center text-soft">{left} in its own colour</span>
        )}
      </div>
      {own && (
        <p role="alert" className="mt-1 mb-0 text-sm text-berry">
          {render(own.message, system)} {render(own.limit, system)}
        </p>
      )}
    </section>
  );
}
