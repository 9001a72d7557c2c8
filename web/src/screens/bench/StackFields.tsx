import type { Edit, Piece, Problem, Stock, Support, Vessel } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useAbout } from "../../ui/useTrade";

type Props = {
  piece: Piece;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
  onEdit: (edit: Edit) => void;
};

const STACKS = [
  ["nothing", "stands by itself"],
  ["cylinder", "raised on a cylinder"],
  ["stand", "raised on a stand"],
  ["urn", "set into a larger urn"],
] as const;
const BOND = [
  ["none", "not bonded"],
  ["putty", "a ring of putty"],
  ["ridge", "a ridge locates it"],
] as const;
const CLEAR = [
  ["no", "not clear"],
  ["yes", "clear"],
] as const;
const YES = [
  ["no", "no"],
  ["yes", "yes"],
] as const;

/** What the vessel stands on or in, what lies on its floor, what hides its inside and outside. */
export function StackFields({ piece, stock, problem, onCommit, onEdit }: Props) {
  const about = useAbout(piece.mechanic.kind);
  const { support, insert } = piece;
  const kind = insert ? "urn" : !support ? "nothing" : support.opening_m > 0 ? "cylinder" : "stand";
  const stands = Object.entries(stock.stands).filter(([key]) => !stock.holdings.stand?.[key]?.retired);
  const urns = Object.entries(stock.vessels).filter(
    ([, each]) => (each.profile.at(-1)?.width_m ?? 0) > (piece.vessel.profile.at(-1)?.width_m ?? 0),
  );
  const put = (next: Partial<Support>) =>
    support && onCommit({ ...piece, support: { ...support, ...next } }, "Change the support");
  const putUrn = (next: Partial<Vessel>) =>
    insert &&
    onCommit({ ...piece, insert: { ...insert, outer: { ...insert.outer, ...next } } }, "Change the urn");
  const length = (label: string, name: keyof Support, optional = false) => (
    <QuantityField
      label={label}
      kind="length"
      optional={optional}
      placeholder="not known"
      value={support ? (support[name] as number | null) : null}
      path={`support.${name}`}
      problem={problem}
      onCommit={(value) => (value !== null || optional) && put({ [name]: value })}
    />
  );
  return (
    <section className="grid grid-cols-6 content-start gap-2 border-t border-line p-3 max-lg:grid-cols-2">
      <h2 className="col-span-6 m-0 text-base max-lg:col-span-2">On, in and around it</h2>
      <Choice
        label="Stacked"
        value={kind}
        options={STACKS}
        onCommit={(on) => onEdit({ kind: "stand on", on })}
        className="col-span-2"
      />
      {support && stands.length > 0 && (
        <Choice
          label="Support from the stores"
          value=""
          options={[["", support.name], ...stands.map(([key, each]) => [key, each.name] as const)]}
          onCommit={(stand) => stand && onEdit({ kind: "take stand", stand })}
          className="col-span-2"
        />
      )}
      {support && (
        <>
          {length("Support, high", "height_m")}
          {length("Its top, across", "top_width_m")}
          {support.opening_m > 0 && length("Opening in it", "opening_m")}
          {length("Its foot, across", "foot_width_m", true)}
          {length("Its column, across", "column_width_m")}
          <QuantityField
            label="Its weight, empty"
            kind="mass"
            optional
            placeholder="not known"
            value={support.mass_kg}
            path="support.mass_kg"
            problem={problem}
            onCommit={(mass_kg) => put({ mass_kg })}
          />
          {support.opening_m > 0 && (
            <QuantityField
              label="Water in it"
              kind="volume"
              value={support.water_l}
              path="support.water_l"
              problem={problem}
              onCommit={(water_l) => water_l !== null && put({ water_l })}
            />
          )}
          <Choice
            label="Joint"
            value={support.putty ? "putty" : support.ridge ? "ridge" : "none"}
            options={BOND}
            onCommit={(bond) => put({ putty: bond === "putty", ridge: bond === "ridge" })}
          />
          <Choice
            label="Support is"
            value={support.clear ? "yes" : "no"}
            options={CLEAR}
            onCommit={(clear) => put({ clear: clear === "yes" })}
          />
        </>
      )}
      {insert && (
        <>
          <Choice
            label="Urn"
            path="insert.outer"
            value=""
            options={[["", insert.outer.name], ...urns.map(([key, each]) => [key, each.name] as const)]}
            onCommit={(key) => {
              const outer = stock.vessels[key];
              if (outer) onCommit({ ...piece, insert: { ...insert, outer } }, `Take ${outer.name}`);
            }}
            className="col-span-2"
          />
          <QuantityField
            label="The urn weighs"
            kind="mass"
            optional
            placeholder="not weighed"
            value={insert.outer.mass_kg}
            path="insert.outer.mass_kg"
            problem={problem}
            onCommit={(mass_kg) => putUrn({ mass_kg })}
          />
          <QuantityField
            label="The urn's foot, across"
            kind="length"
            optional
            placeholder="not measured"
            value={insert.outer.foot_width_m}
            path="insert.outer.foot_width_m"
            problem={problem}
            onCommit={(foot_width_m) => putUrn({ foot_width_m })}
          />
          <QuantityField
            label="Rim drops by"
            kind="length"
            value={insert.drop_m}
            path="insert.drop_m"
            problem={problem}
            onCommit={(drop_m) =>
              drop_m !== null && onCommit({ ...piece, insert: { ...insert, drop_m } }, "Change the drop")
            }
          />
        </>
      )}
      <QuantityField
        label="Stone, pebbles or sand"
        kind="mass"
        value={piece.ballast_kg}
        path="ballast_kg"
        problem={problem}
        onCommit={(ballast_kg) =>
          ballast_kg !== null && onCommit({ ...piece, ballast_kg }, "Change the ballast")
        }
      />
      <Choice
        label="Leaf lining"
        value={piece.lining ? "yes" : "no"}
        options={YES}
        onCommit={(lining) => onCommit({ ...piece, lining: lining === "yes" }, "Change the lining")}
      />
      <QuantityField
        label="Wire round outside, high"
        kind="length"
        value={piece.wrap_height_m}
        path="wrap_height_m"
        problem={problem}
        onCommit={(wrap_height_m) =>
          wrap_height_m !== null && onCommit({ ...piece, wrap_height_m }, "Change the wrap")
        }
      />
      <QuantityField
        label="Moss round it"
        kind="length"
        value={piece.moss_m}
        path="moss_m"
        problem={problem}
        optional
        placeholder={about?.moss_round ? `as usual round a ${about.name.toLowerCase()}` : "none"}
        onCommit={(moss_m) => onCommit({ ...piece, moss_m }, "Change the moss")}
      />
      <Choice
        label="Must lift off"
        value={piece.must_lift_off ? "yes" : "no"}
        options={YES}
        onCommit={(lifts) => onCommit({ ...piece, must_lift_off: lifts === "yes" }, "Change what it must do")}
      />
    </section>
  );
}
