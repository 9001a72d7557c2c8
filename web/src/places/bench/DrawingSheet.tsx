import { useMemo, useState } from "react";
import type { Piece, PlacedStem, Problem, Report } from "../../api/types";
import { Drawing } from "../../drawing/Drawing";
import { aboveLayer, cellLayer, planBounds, rimLayer } from "../../drawing/plan";
import type { Handle } from "../../drawing/scene";
import {
  headLayer,
  markLayer,
  mechanicLayer,
  raisedOf,
  sectionBounds,
  stemLayer,
  vesselLayer,
} from "../../drawing/section";
import { turnPiece, turnReport, type View } from "../../drawing/turned";
import { rimHeight } from "../../drawing/vessel";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { useAbout } from "../../ui/useTrade";
import { render, textOf } from "../../units/text";
import {
  HANDLE_ACTS,
  HANDLE_PATHS,
  planHandles,
  sectionHandles,
  setByHandle,
  setStem,
  sideHandles,
  stemHandles,
} from "./handles";
import type { PieceDesk } from "./usePieceDesk";
import { ViewSwitch } from "./ViewSwitch";

type Props = { desk: PieceDesk; piece: Piece; report: Report | null; problem: Problem | null };

const LEFT = new Set(["rim", "depth", "layer-gap"]);
const SECTION_MARGINS = { left: 104, right: 104, top: 44, bottom: 40 };
const PLAN_MARGINS = { left: 14, right: 14, top: 40, bottom: 34 };

/** The drawing sheet: section and plan, with every dimension a field where it is drawn. */
export function DrawingSheet({ desk, piece, report, problem }: Props) {
  const { system } = useSettings();
  const [withHeads, setWithHeads] = useState(true);
  const [view, setView] = useState<View>(piece.setting.where === "ledge" ? "side" : "front");
  const [picked, setPicked] = useState<PlacedStem | null>(null);
  const side = view === "side";
  const shown = useMemo(() => (side ? turnPiece(piece) : piece), [side, piece]);
  const seen = useMemo(() => (side && report ? turnReport(report) : report), [side, report]);
  const stems = useMemo(() => stemLayer(seen), [seen]);
  const heads = useMemo(() => headLayer(seen), [seen]);
  const cells = useMemo(() => cellLayer(report), [report]);
  const above = useMemo(() => aboveLayer(report, withHeads), [report, withHeads]);
  const section = [
    vesselLayer(shown, seen, view),
    stems,
    mechanicLayer(shown, seen),
    heads,
    markLayer(shown, seen),
  ];
  const plan = [cells, rimLayer(piece, report), above];
  const stem = picked && report ? sameStem(report, picked) : undefined;
  const ofStem = stemHandles(stem);
  const gapped = useAbout(piece.mechanic.kind)?.reads.includes("layer_gap_m") ?? false;
  const handles = side
    ? [...sideHandles(piece, report), ...ofStem.side]
    : [...sectionHandles(piece, report, gapped), ...ofStem.section];
  const deep = planHandles(piece, report);
  const failing = problem
    ? Object.entries(HANDLE_PATHS).find(([, path]) => problem.path.startsWith(path))
    : undefined;
  const moved = (id: string, value: number): Piece =>
    id.startsWith("stem-") ? (stem ? setStem(piece, stem, id, value) : piece) : setByHandle(piece, id, value);
  const follow = (id: string, value: number) => {
    if (!stem || !id.startsWith("stem-")) return;
    const field = id === "stem-x" ? "tip_x_m" : id === "stem-y" ? "tip_y_m" : "tip_z_m";
    setPicked({ ...stem, [field]: value, held: true });
  };
  const preview = (id: string, value: number) => {
    const next = moved(id, value);
    follow(id, value);
    void desk.preview(next);
  };
  const commit = (id: string, value: number) => {
    const next = moved(id, value);
    follow(id, value);
    void desk.commit(next, HANDLE_ACTS[id] ?? "Change the piece");
  };
  const pick = (id: string) => {
    const index = Number(/^(?:head|above)-(\d+)/.exec(id)?.[1] ?? Number.NaN);
    const found = report?.stems[index];
    if (found && found.vessel === 0) setPicked(found);
    else if (id === "surface" || id.startsWith("envelope")) setPicked(null);
  };
  const dimension = (handle: Handle, className: string, words: string) => (
    <Dimension
      key={handle.id}
      handle={handle}
      words={words}
      className={className}
      problem={problem}
      cellM={report?.cell_pitch_m}
      onCommit={(value) => commit(handle.id, value)}
    />
  );
  const byId = (id: string) => handles.find((each) => each.id === id);
  const rim = raisedOf(piece, report) + rimHeight(piece.vessel);
  const shared = {
    problemHandle: failing?.[0] ?? null,
    onPreview: preview,
    onCommit: commit,
    onCancel: desk.cancel,
    onPick: pick,
  };
  return (
    <div className="relative grid h-full min-h-0 grid-cols-[minmax(0,1.85fr)_minmax(0,1fr)] bg-sheet print:h-[105mm]">
      <div className="relative min-h-0 border-r border-line">
        <Facts report={report} />
        <div className="absolute top-1.5 left-2 z-10">
          <ViewSwitch view={view} onView={setView} />
        </div>
        <Drawing
          label={side ? "Section from the right side, to scale" : "Section, to scale"}
          layers={section}
          bounds={sectionBounds(shown, seen, view)}
          margins={SECTION_MARGINS}
          handles={handles}
          {...shared}
          overlay={(project) => {
            const height = byId("envelope-height");
            const width = byId(side ? "envelope-depth" : "envelope-width");
            const mouth = byId("rim");
            const depth = byId("depth");
            const water = byId("water");
            const gap = byId("layer-gap");
            const [, rimY] = project([0, rim]);
            const [, topY] = project([0, piece.envelope.height_m]);
            const [, floorY] = project([0, 0]);
            const waterY = Math.min(rimY + 4, floorY - 46);
            const widthY = Math.min(rimY - 72, waterY - 58);
            const heightY = Math.min(topY - 10, widthY - 58);
            const column = (y: number) => ({ top: Math.max(2, y) });
            return (
              <>
                <div
                  className="absolute left-2 flex flex-col gap-1.5"
                  style={column(Math.min(rimY - 98, floorY - 150))}
                >
                  {mouth && dimension(mouth, "w-[88px]", "mouth ↔")}
                  {depth && dimension(depth, "w-[88px]", "depth ↕")}
                  {gap && dimension(gap, "w-[88px]", "layer gap")}
                </div>
                <div className="absolute right-2" style={column(Math.max(heightY, 44))}>
                  {height && dimension(height, "w-[88px]", "height ↕")}
                </div>
                <div className="absolute right-2" style={column(Math.max(widthY, 102))}>
                  {width && dimension(width, "w-[88px]", side ? "front–back" : "width ↔")}
                </div>
                <div className="absolute right-2" style={column(Math.max(waterY, 160))}>
                  {water && dimension(water, "w-[88px]", "water ↕")}
                </div>
              </>
            );
          }}
        />
        {stem && (
          <PickedStem
            stem={stem}
            onDone={() => setPicked(null)}
            onFree={() => {
              setPicked(null);
              const rest = piece.hand_placed.filter(
                (each) =>
                  each.variety !== stem.variety ||
                  Math.hypot(each.tip_x_m - stem.tip_x_m, each.tip_z_m - stem.tip_z_m) > 0.002,
              );
              void desk.commit({ ...piece, hand_placed: rest }, "Let a stem go");
            }}
          />
        )}
      </div>
      <div className="relative min-h-0">
        <div className="absolute top-1.5 left-3 z-10 flex w-[calc(100%-20px)] items-center justify-between">
          <h2 className="text-[15px] text-soft">Plan, front below</h2>
          <label className="no-print flex items-center gap-1.5 text-sm text-soft">
            <input
              type="checkbox"
              className="h-4 w-4 accent-leaf"
              checked={withHeads}
              onChange={(event) => setWithHeads(event.target.checked)}
            />
            flowers
          </label>
        </div>
        <Drawing
          label="Plan, to scale"
          layers={plan}
          bounds={planBounds(piece, report)}
          margins={PLAN_MARGINS}
          handles={[...deep, ...ofStem.plan]}
          {...shared}
          overlay={() => (
            <>
              <div className="absolute right-2 bottom-1.5">
                {deep[0] && dimension(deep[0], "w-[88px]", "front–back")}
              </div>
              <p className="pointer-events-none absolute top-8 left-3 text-[12px] leading-tight text-soft">
                curve: angle it tips at · dashed ring: limit
              </p>
            </>
          )}
        />
      </div>
      {problem && !failing && (
        <p
          role="alert"
          className="absolute inset-x-3 bottom-9 z-40 rounded border border-berry bg-sheet px-3 py-2 text-berry shadow"
        >
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
    </div>
  );
}

/** The stem of a new report that is the one picked before: of its variety, nearest to where it was. */
function sameStem(report: Report, picked: PlacedStem): PlacedStem | undefined {
  const away = (each: PlacedStem) =>
    Math.hypot(each.tip_x_m - picked.tip_x_m, each.tip_y_m - picked.tip_y_m, each.tip_z_m - picked.tip_z_m) +
    (each.held === picked.held ? 0 : 0.02);
  return report.stems
    .filter((each) => each.variety === picked.variety)
    .toSorted((a, b) => away(a) - away(b))[0];
}

type PickedProps = { stem: PlacedStem; onDone: () => void; onFree: () => void };

function PickedStem({ stem, onDone, onFree }: PickedProps) {
  const { system } = useSettings();
  const cut = textOf({ kind: "length", value: stem.cut_length_m }, system);
  const lean = textOf({ kind: "angle", value: stem.lean_rad }, system);
  return (
    <div className="no-print absolute bottom-8 left-1/2 z-20 flex -translate-x-1/2 items-center gap-2 rounded border border-marigold bg-sheet px-3 text-sm whitespace-nowrap shadow">
      <span>
        <strong>{stem.name}</strong> ({stem.role}): cut {cut}, leans {lean}
        {stem.held ? ", placed by hand" : ": drag it to place it by hand"}
      </span>
      {stem.held && (
        <Button look="quiet" onClick={onFree}>
          Let it go
        </Button>
      )}
      <Button look="quiet" onClick={onDone}>
        Done
      </Button>
    </div>
  );
}

function Facts({ report }: { report: Report | null }) {
  const { system } = useSettings();
  if (!report) return null;
  const facts = [
    report.balance && `finished ${textOf({ kind: "mass", value: report.balance.mass_kg }, system)}`,
    `water ${textOf({ kind: "volume", value: report.water.display_l }, system)}`,
    `reaches ${textOf({ kind: "length", value: report.outline.height_m }, system)} high, ${textOf({ kind: "length", value: report.outline.width_m }, system)} wide`,
    `${Math.round(report.outline.fullness * 100)} % full`,
  ].filter(Boolean);
  return (
    <p className="pointer-events-none absolute top-2 right-3 left-[150px] z-10 truncate text-right text-[13px] text-soft">
      {facts.join(" · ")}
    </p>
  );
}

type DimensionProps = {
  handle: Handle;
  words: string;
  className: string;
  problem: Problem | null;
  cellM: number | undefined;
  onCommit: (value: number) => void;
};

/** A dimension as written on a drawing, which is also the field that sets it. */
function Dimension({ handle, words, className, problem, cellM, onCommit }: DimensionProps) {
  const path = HANDLE_PATHS[handle.id] ?? "";
  return (
    <div className={className}>
      <span className="block text-[12px] leading-tight text-soft" aria-hidden="true">
        {words}
      </span>
      <QuantityField
        label={handle.label}
        hideLabel
        kind="length"
        value={handle.value}
        path={path}
        problem={problem?.path.startsWith(path) ? { ...problem, path } : null}
        cellM={cellM}
        onCommit={(value) => value !== null && onCommit(value)}
        side={LEFT.has(handle.id) ? "left" : "right"}
        inputClass="h-9 font-semibold"
      />
    </div>
  );
}
