import type { LineSpec, Problem } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useLines } from "../../ui/useTrade";

const EDGES = [
  ["no", "runs free"],
  ["yes", "over an edge"],
] as const;
type Props = {
  spec: LineSpec;
  path: string;
  /** Without its labels, under a row that has them. */
  bare: boolean;
  problem: Problem | null;
  onCommit: (spec: LineSpec) => void;
};

/** What a line is made of and how it is made off. */
export function SpecFields({ spec, path, bare, problem, onCommit }: Props) {
  const lines = useLines();
  const about = lines.find((each) => each.kind === spec.kind);
  const own = about?.fittings ?? [];
  const fitting = spec.fitting ?? own[0]?.fitting ?? "";
  const fittings = [
    ...own.map((each) => [each.fitting, each.done] as const),
    ...(own.some((each) => each.fitting === fitting)
      ? []
      : [[fitting, `${fitting}: not in ${spec.kind}`] as const]),
  ];
  const thin = about?.rated ?? false;
  const take = (kind: string) => {
    const other = lines.find((each) => each.kind === kind);
    if (other) onCommit({ ...spec, kind, size_m: other.usual_m, stated_n: other.usual_n, fitting: null });
  };
  return (
    <div className="grid grid-cols-5 items-end gap-1 max-lg:col-span-full max-md:grid-cols-2">
      <Choice
        label="Line"
        hideLabel={bare && "row"}
        value={spec.kind}
        options={lines.map((each) => [each.kind, each.kind] as const)}
        onCommit={take}
      />
      <QuantityField
        label="Thick"
        hideLabel={bare && "row"}
        kind="length"
        optional
        placeholder={thin ? "by its packet" : "not known"}
        value={spec.size_m}
        path={`${path}.size_m`}
        problem={problem}
        onCommit={(size_m) => onCommit({ ...spec, size_m })}
      />
      <QuantityField
        label="Packet says"
        hideLabel={bare && "row"}
        kind="force"
        optional
        placeholder={thin ? "needed" : "by its size"}
        value={spec.stated_n}
        path={`${path}.stated_n`}
        problem={problem}
        onCommit={(stated_n) => onCommit({ ...spec, stated_n })}
      />
      <Choice
        label="Its ends"
        path={`${path}.fitting`}
        hideLabel={bare && "row"}
        value={fitting}
        options={fittings}
        onCommit={(next) => onCommit({ ...spec, fitting: next })}
      />
      <Choice
        label="On its way"
        hideLabel={bare && "row"}
        value={spec.over_edge ? "yes" : "no"}
        options={EDGES}
        onCommit={(edge) => onCommit({ ...spec, over_edge: edge === "yes" })}
      />
    </div>
  );
}
