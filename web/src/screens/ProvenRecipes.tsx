import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused } from "../api/client";
import type { Problem, Proven, RecipeLine, RecipesOut } from "../api/types";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { QuantityField } from "../ui/QuantityField";
import { useSettings } from "../ui/settings";
import { TextField } from "../ui/TextField";
import type { UnitSystem } from "../units/parse";
import { render, textOf } from "../units/text";
import { worded } from "../units/worded";

type By = Proven["by"];
type Props = {
  recipe: readonly RecipeLine[];
  /** The sizes of the piece: what a length, a diameter, an area and a number of it are. */
  sizes: Readonly<Record<By, number>>;
  /** How this kind of piece is usually scaled. */
  by: By;
  onTake: (recipe: RecipeLine[], label: string) => void;
};

const BY: readonly (readonly [By, string])[] = [
  ["diameter", "across"],
  ["length", "long"],
  ["area", "area"],
  ["count", "pieces"],
];
const WORDS = { diameter: "across", length: "long", count: "pieces" } as const;
/** How an area is written: its unit, and what one of it is in m². */
const AREA = { metric: ["m²", 1], inch: ["ft²", 0.3048 ** 2] } as const;

/** Recipes that are known to do for a size: put in at the size of this piece, or kept from it under a name. */
export function ProvenRecipes({ recipe, sizes, by, onTake }: Props) {
  const client = useQueryClient();
  const { system } = useSettings();
  const asked = useQuery({ queryKey: ["recipes"], queryFn: api.recipes });
  const [chosen, setChosen] = useState("");
  const [size, setSize] = useState<number | null>(null);
  const [name, setName] = useState("");
  const [keepBy, setKeepBy] = useState<By>(by);
  const [problem, setProblem] = useState<Problem | null>(null);
  if (!asked.data) return null;
  const { kept, usual, deleted } = asked.data;
  const every = new Map<string, Proven>([
    ...kept.map((each) => [`kept-${each.id}`, each.proven] as const),
    ...Object.entries(usual).map(([key, each]) => [`usual-${key}`, each] as const),
  ]);
  const taken = every.get(chosen);
  const shown = size ?? (taken ? sizes[taken.by] : null);
  const [areaUnit, areaOne] = AREA[system];
  const one = taken?.by === "area" ? areaOne : 1;
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
      setProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
    }
  };
  const keep = (next: RecipesOut) => client.setQueryData(["recipes"], next);
  const put = () =>
    attempt(async () => {
      if (!taken || shown === null) return;
      const at = chosen.slice(chosen.indexOf("-") + 1);
      const lines = chosen.startsWith("kept-")
        ? await api.scaleKept(Number(at), shown)
        : await api.scaleUsual(at, shown);
      onTake([...lines], `Put in ${taken.name}`);
    });
  const options = [
    ["", "choose one…"],
    ...[...every].map(
      ([key, each]) =>
        [key, `${each.name}: ${sizeText(each, system)}${key.startsWith("kept-") ? "" : " (usual)"}`] as const,
    ),
  ] as [string, string][];
  return (
    <details className="no-print mt-3 max-w-5xl">
      <summary className="serif min-h-11 cursor-pointer text-base">Proven recipes</summary>
      <div className="flex flex-wrap items-end gap-2">
        <Choice
          label="A proven recipe"
          value={chosen}
          options={options}
          onCommit={(key) => {
            setChosen(key);
            setSize(null);
          }}
          className="w-84 max-md:w-full"
        />
        {taken && (
          <QuantityField
            label={`for this, ${taken.by === "area" ? areaUnit : WORDS[taken.by]}`}
            kind={taken.by === "area" ? "ratio" : taken.by === "count" ? "count" : "length"}
            value={shown === null ? null : shown / one}
            path="size"
            problem={problem}
            onCommit={(value) => value !== null && setSize(value * one)}
            className="w-28"
          />
        )}
        <Button look="solid" disabled={!taken} onClick={() => void put()}>
          Put it in
        </Button>
        {chosen.startsWith("kept-") && (
          <Button
            look="quiet"
            onClick={() =>
              void attempt(async () => {
                keep(await api.deleteRecipe(Number(chosen.slice(5))));
                setChosen("");
              })
            }
          >
            Delete it
          </Button>
        )}
      </div>
      {taken && (
        <p className="mt-1 mb-0 text-sm text-soft">
          {taken.recipe.map((line) => `${line.count} ${line.variety.replaceAll("-", " ")}`).join(", ")} for{" "}
          {sizeText(taken, system)}. Putting it in replaces the stems there are; undo brings them back.
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <TextField
          label="Keep these stems as"
          value={name}
          path="recipe.name"
          problem={problem}
          onCommit={setName}
          className="w-60 max-md:w-full"
        />
        <Choice
          label="proven for its size"
          value={keepBy}
          options={BY}
          onCommit={setKeepBy}
          className="w-36"
        />
        <Button
          disabled={recipe.length === 0}
          onClick={() =>
            void attempt(async () => {
              keep(
                await api.keepRecipe({
                  name: name.trim(),
                  by: keepBy,
                  size: sizes[keepBy],
                  recipe: [...recipe],
                }),
              );
              setName("");
            })
          }
        >
          Keep it
        </Button>
        {deleted[0] && (
          <Button
            look="quiet"
            onClick={() =>
              void attempt(async () => {
                const last = deleted[0];
                if (last) keep(await api.bringBackRecipe(last.id));
              })
            }
          >
            Bring back {deleted[0].proven.name}
          </Button>
        )}
      </div>
      {problem && problem.path !== "size" && (
        <p role="alert" className="mt-1 mb-0 text-sm text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
    </details>
  );
}

function sizeText(proven: Proven, system: UnitSystem): string {
  if (proven.by === "area") return `${(proven.size / AREA[system][1]).toFixed(2)} ${AREA[system][0]}`;
  if (proven.by === "count") return worded("{n} {n|piece|pieces}", { n: proven.size });
  return `${textOf({ kind: "length", value: proven.size }, system)} ${WORDS[proven.by]}`;
}
