import { Link } from "react-router";
import type { Ledge, People, Piece, Problem, Report, Setting, Transport } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { useUsual } from "../../ui/useTrade";
import { textOf } from "../../units/text";

type Props = {
  piece: Piece;
  report: Report | null;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

const WHERE = [
  ["table", "a table"],
  ["bar", "a bar or counter"],
  ["floor", "the floor"],
  ["ledge", "a ledge"],
] as const;
const MOVES = [
  ["stays", "stays there"],
  ["table", "a table later"],
  ["floor", "the floor later"],
  ["bar", "a bar later"],
] as const;
const BEHIND = [
  ["weights", "greens and weights"],
  ["greens", "greens only"],
  ["nothing", "nothing"],
] as const;
const WALL = [
  ["yes", "a wall"],
  ["no", "open"],
] as const;
const SURFACES = [
  ["cloth", "cloth"],
  ["wood", "bare wood"],
  ["stone", "stone"],
] as const;
const FEET = [
  ["glazed", "glazed"],
  ["glass", "glass"],
  ["felt", "felt pads"],
  ["rubber", "rubber pads"],
] as const;
const OUT = [
  ["in", "indoors"],
  ...[2, 3, 4, 5, 6, 7].map((force) => [String(force), `outdoors, down above Beaufort ${force}`] as const),
] as const;
const LOOK = [
  ["both", "guests on both sides"],
  ["one", "guests on one side"],
  ["standing", "people standing only"],
  ["unknown", "not known"],
] as const;
const SEEN = [
  ["nothing", "no part of the mechanic"],
  ["mechanic", "the mechanic"],
  ["rim", "what is at the rim"],
  ["both", "mechanic and rim"],
  ["underside", "the underside"],
] as const;
const SHOW = [
  ["no", "nothing may show"],
  ["yes", "a little may show"],
] as const;
const HOW = [
  ["unknown", "not known"],
  ["box", "in a box"],
  ["bare", "bare on the van floor"],
] as const;
const HANDS = [
  ["1", "one person"],
  ["2", "two people"],
] as const;
const CRATE = [
  ["no", "no handles"],
  ["yes", "a crate with handles"],
] as const;

/** Where the piece stands and who looks at it; how it gets there and who carries it. */
export function PlaceTab({ piece, report, problem, onCommit }: Props) {
  const { system } = useSettings();
  const { setting, transport } = piece;
  const usual = useUsual();
  const rest = (next: Partial<Ledge>) =>
    usual && stand({ ledge: { ...(setting.ledge ?? usual.ledge), ...next } });
  const stand = (next: Partial<Setting>) =>
    onCommit({ ...piece, setting: { ...setting, ...next } }, "Change the setting");
  const look = (next: Partial<People>) =>
    usual && stand({ people: { ...(setting.people ?? usual.people), ...next } });
  const road = (next: Partial<Transport>) =>
    usual && onCommit({ ...piece, transport: { ...(transport ?? usual.road), ...next } }, "Change the road");
  const how = !transport ? "unknown" : transport.boxed ? "box" : "bare";
  const there = piece.passage.made === "its place";
  const { people } = setting;
  const looks = !people ? "unknown" : !people.seated ? "standing" : people.both_sides ? "both" : "one";
  const water = report?.water;
  const level = (value: number | null | undefined, kind: "level_most" | "level_least" = "level_most") =>
    value == null ? "not known" : textOf({ kind, value }, system);
  return (
    <div className="grid grid-cols-2 gap-6 p-3 max-lg:grid-cols-1">
      <section className="grid grid-cols-3 content-start gap-2">
        <h2 className="col-span-3 m-0 text-base">Where it stands</h2>
        <Choice
          label="Stands on"
          value={setting.where}
          options={WHERE}
          onCommit={(where) =>
            stand(where === "ledge" ? { where, ledge: setting.ledge ?? usual?.ledge ?? null } : { where })
          }
        />
        <Choice
          label="Surface"
          value={setting.surface}
          options={SURFACES}
          onCommit={(surface) => stand({ surface })}
        />
        <Choice
          label="Foot"
          value={setting.foot_material}
          options={FEET}
          onCommit={(foot_material) => stand({ foot_material })}
        />
        {setting.where === "ledge" && setting.ledge && (
          <LedgeFields ledge={setting.ledge} problem={problem} onRest={rest} />
        )}
        {setting.where === "ledge" && (
          <Choice
            label="Moved during the day to"
            value={setting.moves_to ?? "stays"}
            options={MOVES}
            onCommit={(to) => stand({ moves_to: to === "stays" ? null : to })}
          />
        )}
        {(setting.where === "table" || setting.moves_to === "table") && (
          <QuantityField
            label="Bare table all round"
            kind="length"
            optional
            placeholder="not known"
            value={setting.free_table_m}
            path="setting.free_table_m"
            problem={problem}
            onCommit={(free_table_m) => stand({ free_table_m })}
          />
        )}
        <Choice
          label="In or out"
          value={setting.outdoors ? String(setting.comes_down_above) : "in"}
          options={OUT}
          onCommit={(out) =>
            stand(out === "in" ? { outdoors: false } : { outdoors: true, comes_down_above: Number(out) })
          }
          className="col-span-2"
        />
        <Choice
          label="Who looks"
          path="setting.people"
          value={looks}
          options={LOOK}
          onCommit={(who) =>
            who === "unknown"
              ? stand({ people: null })
              : look({ seated: who !== "standing", both_sides: who === "both", standing: true })
          }
        />
        <QuantityField
          label="Seated eyes away by"
          kind="length"
          value={people?.seat_distance_m ?? usual?.people.seat_distance_m ?? null}
          path="setting.people.seat_distance_m"
          problem={problem}
          onCommit={(seat_distance_m) => seat_distance_m !== null && look({ seat_distance_m })}
        />
        <Choice
          label="Meant to be seen"
          value={
            piece.look.length === 0
              ? "nothing"
              : piece.look.length > 1
                ? "both"
                : (piece.look[0] ?? "nothing")
          }
          options={SEEN}
          onCommit={(seen) =>
            onCommit(
              {
                ...piece,
                look: seen === "nothing" ? [] : seen === "both" ? ["mechanic", "rim"] : [seen],
              },
              "Change what is meant to be seen",
            )
          }
        />
        <Choice
          label="Wire and rim"
          value={people?.a_little_may_show ? "yes" : "no"}
          options={SHOW}
          onCommit={(show) => look({ a_little_may_show: show === "yes" })}
        />
        <p className="no-print col-span-3 m-0 text-sm text-soft">
          A low piece ends under your own forearm, elbow to fist:{" "}
          <Link to="/figures?find=elbow" className="text-ink underline">
            measure yours
          </Link>
          .
        </p>
      </section>
      <section className="grid grid-cols-3 content-start gap-2">
        <h2 className="col-span-3 m-0 text-base">How it gets there</h2>
        <Choice
          label="Travels"
          path="transport"
          value={how}
          options={HOW}
          onCommit={(next) =>
            next === "unknown"
              ? onCommit({ ...piece, transport: null }, "Change the road")
              : road({ boxed: next === "box" })
          }
        />
        <Choice
          label="Lifted by"
          value={String(transport?.carriers ?? "")}
          options={HANDS}
          onCommit={(carriers) => road({ carriers: Number(carriers) })}
        />
        <Choice
          label="Carried in"
          value={transport?.crate ? "yes" : "no"}
          options={CRATE}
          onCommit={(crate) => road({ crate: crate === "yes" })}
        />
        {(piece.insert !== null || report?.mechanic.lifts_off) && !there && (
          <Choice
            label={piece.insert ? "Bowl and urn" : "Pad and vessel"}
            value={transport?.lifted_out ? "yes" : "no"}
            options={[
              ["no", "carried as one"],
              ["yes", piece.insert ? "carried apart" : "apart, pad on a bucket"],
            ]}
            onCommit={(apart) => road({ lifted_out: apart === "yes" })}
          />
        )}
        {transport && !there && (
          <>
            <QuantityField
              label="Box wall, high"
              kind="length"
              optional
              placeholder="not known"
              value={transport.box_wall_m}
              path="transport.box_wall_m"
              problem={problem}
              onCommit={(box_wall_m) => road({ box_wall_m })}
            />
            <QuantityField
              label="Box, wide"
              kind="length"
              optional
              placeholder="snug"
              value={transport.box_width_m}
              path="transport.box_width_m"
              problem={problem}
              onCommit={(box_width_m) => road({ box_width_m })}
            />
            <QuantityField
              label="Box, along the van"
              kind="length"
              optional
              placeholder="snug"
              value={transport.box_depth_m}
              path="transport.box_depth_m"
              problem={problem}
              onCommit={(box_depth_m) => road({ box_depth_m })}
            />
            <QuantityField
              label="Water on the road"
              kind="length"
              optional
              placeholder="worked out"
              value={transport.water_level_m}
              path="transport.water_level_m"
              problem={problem}
              onCommit={(water_level_m) => road({ water_level_m })}
            />
            <QuantityField
              label="Water overnight, before"
              kind="length"
              optional
              placeholder="as on the road"
              value={transport.overnight_level_m}
              path="transport.overnight_level_m"
              problem={problem}
              onCommit={(overnight_level_m) => road({ overnight_level_m })}
            />
            <QuantityField
              label="Door, high"
              kind="length"
              value={transport.door_height_m}
              path="transport.door_height_m"
              problem={problem}
              onCommit={(door_height_m) => door_height_m !== null && road({ door_height_m })}
            />
            <QuantityField
              label="Door, wide"
              kind="length"
              value={transport.door_width_m}
              path="transport.door_width_m"
              problem={problem}
              onCommit={(door_width_m) => door_width_m !== null && road({ door_width_m })}
            />
          </>
        )}
        <p className="no-print col-span-3 m-0 text-sm text-soft">
          {there ? "It is made where it stands: what travels is its dry vessel, and stems in buckets. " : ""}
          Where it is made, cooled, weighed down and handed over is chosen under “To the end”.
        </p>
        {water && (
          <p className="col-span-3 m-0 text-md">
            Three levels: on the bench <strong>{level(water.bench_level_m)}</strong>, on the road{" "}
            <strong>{level(water.travel_level_m)}</strong>, on show{" "}
            <strong>{level(piece.water_level_m, "level_least")}</strong>
            {water.carried_l != null && water.carried_l > 0.005
              ? `; carry ${textOf({ kind: "volume", value: water.carried_l }, system)} apart.`
              : "."}
          </p>
        )}
      </section>
    </div>
  );
}

type LedgeProps = { ledge: Ledge; problem: Problem | null; onRest: (next: Partial<Ledge>) => void };

/** A ledge as measured: front to back, over the floor, how far back the foot stands, its edge, what may stand behind. */
function LedgeFields({ ledge, problem, onRest }: LedgeProps) {
  const sizes = [
    ["depth_m", "Ledge, front to back"],
    ["height_m", "Ledge over the floor"],
    ["set_back_m", "Foot back from its edge"],
    ["edge_radius_m", "Edge rounded by"],
  ] as const;
  return (
    <>
      {sizes.map(([field, label]) => (
        <QuantityField
          key={field}
          label={label}
          kind="length"
          value={ledge[field]}
          path={`setting.ledge.${field}`}
          problem={problem}
          onCommit={(value) => value !== null && onRest({ [field]: value })}
        />
      ))}
      <Choice
        label="May stand behind"
        value={ledge.behind}
        options={BEHIND}
        onCommit={(behind) => onRest({ behind })}
      />
      <Choice
        label="At its back"
        value={ledge.wall ? "yes" : "no"}
        options={WALL}
        onCommit={(wall) => onRest({ wall: wall === "yes" })}
      />
    </>
  );
}
