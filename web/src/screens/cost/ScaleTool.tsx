import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, PartOut, Problem, RecipeLine } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

type By = "length" | "area" | "diameter" | "count";
type Props = {
  event: EventOut;
  chosen: PartOut;
  problem: Problem | null;
  onChoose: (id: number) => void;
  onProblem: (problem: Problem | null) => void;
  onSaved: () => void;
};

/** How wide a piece is, or how long hung work is: what a size is begun from. */
function widthOf({ part }: PartOut): number {
  return part.kind === "rig" ? part.armature.length_m : part.envelope.width_m;
}

const BY = [
  ["diameter", "a diameter"],
  ["length", "a length"],
  ["area", "an area, m²"],
  ["count", "a number"],
] as const;

/** A proven recipe at another size: seen first, then kept. */
export function ScaleTool({ event, chosen, problem, onChoose, onProblem, onSaved }: Props) {
  const [by, setBy] = useState<By>("diameter");
  const [was, setWas] = useState<number>(widthOf(chosen));
  const [now, setNow] = useState<number>(widthOf(chosen));
  const [lines, setLines] = useState<readonly RecipeLine[] | null>(null);
  const kind = by === "area" ? "ratio" : by === "count" ? "count" : "length";
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
      onProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setLines(null);
      onProblem(reason.problem);
    }
  };
  const scale = { by, was_m: was, now_m: now };
  return (
    <section className="space-y-2">
      <h3 className="m-0 text-lg">Another size</h3>
      <Choice
        label="Recipe of"
        value={String(chosen.id)}
        options={event.parts.map((each) => [String(each.id), each.part.name] as const)}
        onCommit={(id) => onChoose(Number(id))}
      />
      <div className="grid grid-cols-3 gap-2">
        <Choice label="Scaled by" value={by} options={BY} onCommit={setBy} />
        <QuantityField
          label="It was"
          kind={kind}
          value={was}
          path="was_m"
          problem={problem}
          onCommit={(value) => value !== null && setWas(value)}
        />
        <QuantityField
          label="It shall be"
          kind={kind}
          value={now}
          path="now_m"
          problem={problem}
          side="right"
          onCommit={(value) => value !== null && setNow(value)}
        />
      </div>
      <div className="flex gap-2">
        <Button
          onClick={() =>
            void attempt(async () => setLines(await api.scaledRecipe(event.id, chosen.id, scale)))
          }
        >
          Show it
        </Button>
        <Button
          look="solid"
          disabled={!lines}
          onClick={() =>
            void attempt(async () => {
              await api.scaleRecipe(event.id, chosen.id, event.revision, scale);
              setLines(null);
              onSaved();
            })
          }
        >
          Keep it
        </Button>
      </div>
      {lines && (
        <ul className="m-0 list-none p-0" aria-label="The scaled recipe">
          {lines.map((line, index) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
              key={index}
              className="border-t border-line py-1"
            >
              {chosen.part.recipe[index]?.count} → <strong>{line.count}</strong>{" "}
              {line.variety.replaceAll("-", " ")}
            </li>
          ))}
          {lines.length === 0 && <li className="text-soft">This piece has no stems yet.</li>}
        </ul>
      )}
    </section>
  );
}
