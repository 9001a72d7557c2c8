import { Plus, X } from "lucide-react";
import type { Cover, Piece, Problem } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

type Props = {
  piece: Piece;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

const KINDS: readonly (readonly [Cover["kind"], string])[] = [
  ["moss", "moss"],
  ["cloth", "cloth or towel"],
  ["ribbon", "ribbon"],
  ["leaf", "leaves"],
];
const ON: readonly (readonly [Cover["on"], string])[] = [
  ["rim", "over the rim"],
  ["packing", "over the packing"],
  ["outside", "round the outside"],
  ["cups", "round the spike cups"],
];

/** What is laid over something so that it does not show. */
export function CoverFields({ piece, problem, onCommit }: Props) {
  const { covers } = piece;
  const put = (next: Cover[], label: string) => onCommit({ ...piece, covers: next }, label);
  const change = (at: number, next: Partial<Cover>) =>
    put(
      covers.map((each, index) => (index === at ? { ...each, ...next } : each)),
      "Change a cover",
    );
  return (
    <section aria-label="Covers" className="flex flex-wrap items-end gap-3 px-3 pb-3">
      {covers.map((cover, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a cover is known by its place
        <div key={at} className="flex items-end gap-1">
          <Choice
            label={`Cover ${at + 1}`}
            value={cover.kind}
            options={KINDS}
            onCommit={(kind) => change(at, { kind })}
            className="w-32"
          />
          <Choice
            label="laid"
            value={cover.on}
            options={ON}
            onCommit={(on) => change(at, { on })}
            className="w-40"
          />
          <QuantityField
            label="wide"
            kind="length"
            optional
            placeholder="usual"
            value={cover.width_m}
            path={`covers.${at}.width_m`}
            problem={problem}
            onCommit={(width_m) => change(at, { width_m })}
            className="w-24"
          />
          <Button
            look="quiet"
            title="Take the cover off"
            onClick={() =>
              put(
                covers.filter((_, index) => index !== at),
                "Take a cover off",
              )
            }
          >
            <X size={16} aria-hidden="true" />
            <span className="sr-only">Take cover {at + 1} off</span>
          </Button>
        </div>
      ))}
      <Button
        disabled={covers.length >= 8}
        onClick={() => put([...covers, { kind: "moss", on: "rim", width_m: null }], "Cover it")}
      >
        <Plus size={18} aria-hidden="true" /> Cover something
      </Button>
    </section>
  );
}
