import type { Problem, RecipeLine } from "../../api/types";
import { QuantityField } from "../../ui/QuantityField";
import { useUsual } from "../../ui/useTrade";
import { TubeFields } from "../bench/TubeFields";

type Props = {
  name: string;
  line: RecipeLine;
  index: number;
  problem: Problem | null;
  onLine: (line: RecipeLine) => void;
};

/** The rest of one line of hung work: how long it is cut, how it stands or hangs, and its tubes. */
export function HungDetails({ name, line, index, problem, onLine }: Props) {
  const usual = useUsual();
  const tube = line.tube ?? usual?.hung_tube;
  return (
    <section
      aria-label={`More of ${name}`}
      className="mt-2 grid max-w-4xl grid-cols-6 gap-2 rounded border border-line p-2 max-lg:grid-cols-2"
    >
      <h3 className="col-span-full m-0 text-md">{name}</h3>
      <QuantityField
        label="Cut to"
        kind="length"
        optional
        placeholder="as the armature says"
        value={line.cut_m}
        path={`recipe.${index}.cut_m`}
        problem={problem}
        onCommit={(cut_m) => onLine({ ...line, cut_m })}
      />
      {line.goes === "pushed in" && (
        <QuantityField
          label="Stands out at"
          kind="angle"
          optional
          placeholder="square to it"
          value={line.out_rad}
          path={`recipe.${index}.out_rad`}
          problem={problem}
          onCommit={(out_rad) => onLine({ ...line, out_rad })}
        />
      )}
      {line.goes === "hung" && (
        <QuantityField
          label="Tips hang down"
          kind="length"
          optional
          placeholder="by the curve"
          value={line.drop_m}
          path={`recipe.${index}.drop_m`}
          problem={problem}
          onCommit={(drop_m) => onLine({ ...line, drop_m })}
        />
      )}
      {line.water === "tube" && tube && (
        <TubeFields
          tube={tube}
          path={`recipe.${index}.tube`}
          onTube={(next) => onLine({ ...line, tube: next })}
        />
      )}
    </section>
  );
}
