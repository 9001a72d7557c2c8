import { useQueryClient } from "@tanstack/react-query";
import { Plus, X } from "lucide-react";
import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { Edit, Piece, Problem, ProfilePoint, Report, Stock, Vessel } from "../../api/types";
import { insideAt, raisedOf } from "../../drawing/look";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useShapes } from "../../ui/useTrade";
import { CoverFields } from "./CoverFields";
import { StackFields } from "./StackFields";

type Size = "height_m" | "width_m" | "depth_m";
type Props = {
  piece: Piece;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
  onEdit: (edit: Edit) => void;
};

const MATERIALS = [
  ["glazed", "glazed ceramic"],
  ["unglazed", "unglazed ceramic"],
  ["glass", "glass"],
  ["metal", "metal"],
  ["plastic", "plastic"],
  ["wood", "wood"],
] as const;
const CLEAR = [
  ["no", "not clear"],
  ["yes", "clear"],
] as const;

/** The vessel as measured with a tape: inside sizes at a few heights, wall, foot, weight. */
export function VesselTab({ piece, report, stock, problem, onCommit, onEdit }: Props) {
  const { vessel } = piece;
  const client = useQueryClient();
  const [kept, setKept] = useState<string | null>(null);
  const put = (next: Partial<Vessel>, label = "Change the vessel") => {
    const changed = { ...vessel, ...next };
    const rim = changed.profile.at(-1)?.height_m ?? 0;
    onCommit({ ...piece, vessel: changed, water_level_m: Math.min(piece.water_level_m, rim) }, label);
  };
  const shapes = useShapes();
  const alike = shapes.even(vessel.plan_shape);
  const putPoint = (index: number, next: Partial<ProfilePoint>) => {
    const merged = { ...next, ...(alike && next.width_m !== undefined ? { depth_m: next.width_m } : {}) };
    put({ profile: vessel.profile.map((point, at) => (at === index ? { ...point, ...merged } : point)) });
  };
  const addPoint = () => {
    const widest = vessel.profile.reduce(
      (best, point, index) => {
        const before = vessel.profile[index - 1];
        const rise = before ? point.height_m - before.height_m : 0;
        return rise > best.rise ? { rise, index } : best;
      },
      { rise: 0, index: 1 },
    ).index;
    const [low, high] = [vessel.profile[widest - 1], vessel.profile[widest]];
    if (!low || !high) return;
    const height = (low.height_m + high.height_m) / 2;
    // on the curve it has already, so that nothing moves until a tape says otherwise
    const now = insideAt(report?.picture, raisedOf(piece, report) + vessel.base_m + height);
    const middle: ProfilePoint = {
      height_m: height,
      width_m: now ? 2 * now.width_m : (low.width_m + high.width_m) / 2,
      depth_m: now ? 2 * now.depth_m : (low.depth_m + high.depth_m) / 2,
      corner: false,
    };
    put({ profile: vessel.profile.toSpliced(widest, 0, middle) }, "Measure one more height");
  };
  const stored = [
    ["", "take one from the stores…"],
    ...Object.entries(stock.vessels)
      .filter(([key]) => !stock.holdings.vessel?.[key]?.retired)
      .map(([key, each]) => [key, each.name]),
  ] as [string, string][];
  const keep = async () => {
    const added = (base: number) => api.addVessel(base, vessel);
    // it lies over nothing that another window may have changed: it goes into the stores as they are by now
    const answer = await added(stock.revision).catch((reason: unknown) => {
      if (reason instanceof Refused && reason.problem.code === "stale" && reason.problem.revision)
        return added(reason.problem.revision);
      throw reason;
    });
    await client.invalidateQueries({ queryKey: ["stock"] });
    setKept(`${vessel.name} (${answer.key})`);
    put({ key: answer.key }, `Keep ${vessel.name} in the stores`);
  };
  return (
    <>
      <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-6 p-3 max-lg:grid-cols-1">
        <section>
          <h2 className="m-0 mb-1 text-base">Inside, from the floor up</h2>
          <div className="overflow-x-auto">
            <table className="border-separate border-spacing-x-1.5 border-spacing-y-1">
              <thead>
                <tr className="text-left text-xs text-soft">
                  <th className="font-normal">height</th>
                  <th className="font-normal">{alike ? "inside size" : "side to side"}</th>
                  {!alike && <th className="font-normal">front to back</th>}
                  <th
                    className="font-normal"
                    title="Where the inside bends sharply; elsewhere it runs on smoothly"
                  >
                    corner
                  </th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {vessel.profile.map((point, index) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a measured height is known by its place
                  <tr key={index}>
                    {(["height_m", "width_m", ...(alike ? [] : ["depth_m"])] as Size[]).map((name) => (
                      <td key={name}>
                        <QuantityField
                          label={`${name === "height_m" ? "Height" : name === "width_m" ? "Inside size" : "Front to back"}, measure ${index + 1}`}
                          hideLabel
                          kind="length"
                          value={point[name]}
                          path={`vessel.profile.${index}.${name}`}
                          problem={problem}
                          onCommit={(value) => value !== null && putPoint(index, { [name]: value })}
                          className="w-28"
                        />
                      </td>
                    ))}
                    <td className="text-center">
                      {index > 0 && index < vessel.profile.length - 1 && (
                        <label className="flex h-11 w-11 items-center justify-center">
                          <input
                            type="checkbox"
                            className="h-5 w-5 accent-leaf"
                            aria-label={`A corner at measure ${index + 1}`}
                            checked={point.corner ?? false}
                            onChange={(event) => putPoint(index, { corner: event.target.checked })}
                          />
                        </label>
                      )}
                    </td>
                    <td>
                      {index > 0 && index < vessel.profile.length - 1 && (
                        <Button
                          look="quiet"
                          className="w-11 px-0"
                          onClick={() =>
                            put({ profile: vessel.profile.toSpliced(index, 1) }, "Take out a height")
                          }
                        >
                          <X size={18} aria-hidden="true" />
                          <span className="sr-only">Take out measure {index + 1}</span>
                        </Button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <Button className="mt-1" onClick={addPoint}>
            <Plus size={18} aria-hidden="true" /> Measure one more height
          </Button>
        </section>
        <section className="grid grid-cols-3 content-start gap-2">
          <Choice
            label="From the stores"
            value=""
            options={stored}
            onCommit={(key) => {
              const taken = stock.vessels[key];
              if (taken) put(taken, `Take ${taken.name}`);
            }}
            className="col-span-3"
          />
          <TextField
            label="Name"
            value={vessel.name}
            path="vessel.name"
            problem={problem}
            onCommit={(name) => put({ name, key: "" })}
            className="col-span-2"
          />
          <Choice
            label="Seen from above"
            value={vessel.plan_shape}
            options={shapes.options}
            onCommit={(plan_shape) => {
              const even = shapes.even(plan_shape);
              const profile = vessel.profile.map((point) =>
                even ? { ...point, depth_m: point.width_m } : point,
              );
              put({ plan_shape, profile });
            }}
          />
          <QuantityField
            label="Weight, empty"
            kind="mass"
            optional
            placeholder="not known"
            value={vessel.mass_kg}
            path="vessel.mass_kg"
            problem={problem}
            onCommit={(mass_kg) => put({ mass_kg })}
          />
          <QuantityField
            label="Foot, across"
            kind="length"
            optional
            placeholder="not known"
            value={vessel.foot_width_m}
            path="vessel.foot_width_m"
            problem={problem}
            onCommit={(foot_width_m) =>
              put(alike ? { foot_width_m, foot_depth_m: foot_width_m } : { foot_width_m })
            }
          />
          {alike ? (
            <Choice
              label="See-through"
              value={vessel.clear ? "yes" : "no"}
              options={CLEAR}
              onCommit={(clear) => put({ clear: clear === "yes" })}
            />
          ) : (
            <QuantityField
              label="Foot, front to back"
              kind="length"
              optional
              placeholder="not known"
              value={vessel.foot_depth_m}
              path="vessel.foot_depth_m"
              problem={problem}
              onCommit={(foot_depth_m) => put({ foot_depth_m })}
            />
          )}
          <QuantityField
            label="Wall"
            kind="length"
            value={vessel.wall_m}
            path="vessel.wall_m"
            problem={problem}
            onCommit={(wall_m) => wall_m !== null && put({ wall_m })}
          />
          <QuantityField
            label="Base, under the floor"
            kind="length"
            value={vessel.base_m}
            path="vessel.base_m"
            problem={problem}
            onCommit={(base_m) => base_m !== null && put({ base_m })}
          />
          <Choice
            label="Made of"
            value={vessel.material}
            options={MATERIALS}
            onCommit={(material) => put({ material })}
          />
          <div className="col-span-3 flex items-center gap-2">
            <Button onClick={() => void keep()}>Keep it in the stores</Button>
            {kept && <span role="status">{kept} is in the stores.</span>}
          </div>
        </section>
      </div>
      <StackFields piece={piece} stock={stock} problem={problem} onCommit={onCommit} onEdit={onEdit} />
      <CoverFields piece={piece} problem={problem} onCommit={onCommit} />
    </>
  );
}
