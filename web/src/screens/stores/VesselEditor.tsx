import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { api, Refused } from "../../api/client";
import type { FillCheck, Problem, Vessel } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { useShapes } from "../../ui/useTrade";
import { render, textOf } from "../../units/text";
import { VesselDrawing } from "./VesselDrawing";

type Props = {
  vessel: Vessel;
  onSave: (vessel: Vessel, began: Vessel) => Promise<boolean>;
  onClose: () => void;
  /** What is said of it beside its measures. */
  children?: ReactNode;
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

/** One vessel of the stores: its facts, its outline from a tape or a drawing, checked by what it holds. */
export function VesselEditor({ vessel: kept, onSave, onClose, children }: Props) {
  const { system } = useSettings();
  const shapes = useShapes();
  const [began] = useState(kept);
  const [vessel, setVessel] = useState(kept);
  const look = useQuery({
    queryKey: ["vessel drawing", vessel],
    queryFn: ({ signal }) => api.drawVessel(vessel, signal),
    placeholderData: (before) => before,
    retry: false,
  });
  const [problem, setProblem] = useState<Problem | null>(null);
  const [check, setCheck] = useState<FillCheck | null>(null);
  const [half, setHalf] = useState(true);
  const cm = (value: number) =>
    system === "metric"
      ? String(Math.round(value * 1000) / 10)
      : String(Math.round((value / 0.0254) * 100) / 100);
  const written = (profile: Vessel["profile"]) =>
    profile
      .map((point) => `${cm(point.height_m)}  ${cm(point.width_m)}${point.corner ? "  corner" : ""}`)
      .join("\n");
  const [outline, setOutline] = useState(written(vessel.profile));
  const put = (next: Partial<Vessel>) => setVessel((now) => ({ ...now, ...next, provenance: "measured" }));
  const attempt = async <T,>(work: () => Promise<T>, then: (answer: T) => void) => {
    try {
      then(await work());
      setProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
    }
  };
  const read = (text: string, written_as: "svg" | "table") =>
    attempt(
      () =>
        api.readOutline({
          text,
          written_as,
          inside_depth_m: vessel.profile.at(-1)?.height_m ?? null,
          half,
          system,
        }),
      ({ profile }) => {
        const round = shapes.even(vessel.plan_shape);
        put({ profile, plan_shape: round ? vessel.plan_shape : "round" });
        setOutline(written(profile));
      },
    );
  return (
    <section
      aria-label={`Edit ${kept.name}`}
      className="mb-4 grid grid-cols-[auto_minmax(0,1fr)_minmax(0,1fr)] gap-5 rounded border border-marigold bg-sheet p-3 max-lg:grid-cols-1"
    >
      <div className="self-end">
        <VesselDrawing drawn={look.data?.drawn ?? []} />
      </div>
      <div className="grid grid-cols-2 content-start gap-2">
        <TextField
          label="Name"
          value={vessel.name}
          path="vessel.name"
          problem={problem}
          onCommit={(name) => put({ name })}
          className="col-span-2"
        />
        <QuantityField
          label="Weight, empty"
          kind="mass"
          optional
          placeholder="not known"
          value={vessel.mass_kg}
          onCommit={(mass_kg) => put({ mass_kg })}
        />
        <QuantityField
          label="Foot, across"
          kind="length"
          optional
          placeholder="not known"
          value={vessel.foot_width_m}
          onCommit={(foot_width_m) => put({ foot_width_m, foot_depth_m: foot_width_m })}
        />
        <QuantityField
          label="Wall"
          kind="length"
          value={vessel.wall_m}
          onCommit={(wall_m) => wall_m !== null && put({ wall_m })}
        />
        <QuantityField
          label="Base, under the floor"
          kind="length"
          value={vessel.base_m}
          onCommit={(base_m) => base_m !== null && put({ base_m })}
        />
        <QuantityField
          label="Price of one"
          kind="ratio"
          optional
          placeholder="not known"
          value={vessel.price}
          onCommit={(price) => put({ price })}
        />
        <Choice
          label="Made of"
          value={vessel.material}
          options={MATERIALS}
          onCommit={(material) => put({ material })}
        />
        <Choice
          label="See-through"
          value={vessel.clear ? "yes" : "no"}
          options={CLEAR}
          onCommit={(clear) => put({ clear: clear === "yes" })}
        />
        <QuantityField
          label="Measured fill, to the rim"
          kind="volume"
          optional
          placeholder="pour and count"
          value={check?.poured_l ?? null}
          onCommit={(poured) =>
            poured !== null &&
            void attempt(
              () => api.checkFill(vessel, poured),
              (answer) => setCheck(answer),
            )
          }
        />
        {check && (
          <p role="status" className={`col-span-2 m-0 ${check.agrees ? "text-leaf" : "text-berry"}`}>
            {render(check.say, system)}{" "}
            {!check.agrees && (
              <Button
                onClick={() => {
                  put({ profile: check.mended.profile });
                  setCheck(null);
                }}
              >
                Scale the widths
              </Button>
            )}
          </p>
        )}
      </div>
      <div className="grid content-start gap-2">
        <label className="block text-xs text-soft">
          Inside, from the floor up: height and size ({system === "metric" ? "cm" : "in"}), a line each;
          “corner” where it bends
          <textarea
            className="mt-0.5 block h-29.5 w-full rounded border border-line bg-paper p-2 text-md text-ink"
            value={outline}
            onChange={(event) => setOutline(event.target.value)}
            onBlur={() => (outline !== written(vessel.profile) || problem) && void read(outline, "table")}
          />
        </label>
        <label className="flex items-center gap-2 text-md">
          Or from an SVG drawing:
          <input
            type="file"
            accept=".svg,image/svg+xml"
            className="min-w-0 flex-1"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void file.text().then((text) => read(text, "svg"));
            }}
          />
        </label>
        <label className="flex items-center gap-2 text-md">
          <input
            type="checkbox"
            className="h-4 w-4 accent-leaf"
            checked={half}
            onChange={(event) => setHalf(event.target.checked)}
          />
          the path draws one side only
        </label>
        {children}
        <p className="m-0 text-sm text-soft">
          Scaled to the inside depth,{" "}
          {textOf({ kind: "length", value: vessel.profile.at(-1)?.height_m ?? 0 }, system)}.
        </p>
        {problem && (
          <p role="alert" className="m-0 text-berry">
            {render(problem.message, system)} {render(problem.limit, system)}
          </p>
        )}
        <div className="flex gap-2">
          <Button
            look="solid"
            onClick={async () => {
              if (await onSave(vessel, began)) onClose();
            }}
          >
            Keep it
          </Button>
          <Button onClick={onClose}>Leave it as it was</Button>
        </div>
      </div>
    </section>
  );
}
