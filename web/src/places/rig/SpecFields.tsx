import type { LineSpec, Problem } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

const KINDS: readonly (readonly [LineSpec["kind"], string])[] = [
  ["steel rope", "steel rope"],
  ["monofilament", "monofilament"],
  ["braid", "braid"],
  ["polyester cord", "polyester cord"],
  ["cable tie", "cable tie"],
];
type Fitting = NonNullable<LineSpec["fitting"]>;
const FITTINGS: Record<Fitting, string> = {
  knot: "knotted",
  splice: "spliced",
  ferrule: "ferrule",
  grip: "grip",
  head: "its own head",
};
/** What each kind can be made off with, its own first. */
const OF_KIND: Record<LineSpec["kind"], readonly Fitting[]> = {
  "steel rope": ["grip", "ferrule"],
  monofilament: ["knot"],
  braid: ["knot", "splice"],
  "polyester cord": ["knot", "splice"],
  "cable tie": ["head"],
};
const EDGES = [
  ["no", "runs free"],
  ["yes", "over an edge"],
] as const;
/** What a kind is unless it is said: steel and cord go by their size, thin line by its packet. */
const USUAL: Record<LineSpec["kind"], Partial<LineSpec>> = {
  "steel rope": { size_m: 0.0015, stated_n: null, fitting: null },
  monofilament: { size_m: null, stated_n: 89, fitting: null },
  braid: { size_m: null, stated_n: 200, fitting: null },
  "polyester cord": { size_m: 0.003, stated_n: null, fitting: null },
  "cable tie": { size_m: 0.0048, stated_n: null, fitting: null },
};

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
  const own = OF_KIND[spec.kind];
  const fitting = spec.fitting ?? own[0] ?? "knot";
  const fittings = [
    ...own.map((each) => [each, FITTINGS[each]] as const),
    ...(own.includes(fitting) ? [] : [[fitting, `${FITTINGS[fitting]}: not in ${spec.kind}`] as const]),
  ];
  const thin = spec.kind === "monofilament" || spec.kind === "braid";
  return (
    <div className="grid grid-cols-5 items-end gap-1">
      <Choice
        label="Line"
        hideLabel={bare}
        value={spec.kind}
        options={KINDS}
        onCommit={(kind) => onCommit({ ...spec, kind, ...USUAL[kind] })}
      />
      <QuantityField
        label="Thick"
        hideLabel={bare}
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
        hideLabel={bare}
        kind="force"
        optional
        placeholder={thin ? "needed" : "by its size"}
        value={spec.stated_n}
        path={`${path}.stated_n`}
        problem={problem}
        onCommit={(stated_n) => onCommit({ ...spec, stated_n })}
      />
      <Choice
        label="Made off"
        hideLabel={bare}
        value={fitting}
        options={fittings}
        onCommit={(next) => onCommit({ ...spec, fitting: next })}
      />
      <Choice
        label="On its way"
        hideLabel={bare}
        value={spec.over_edge ? "yes" : "no"}
        options={EDGES}
        onCommit={(edge) => onCommit({ ...spec, over_edge: edge === "yes" })}
      />
    </div>
  );
}
