import { useMemo, useState } from "react";
import type { Piece, Problem, Report } from "../../api/types";
import { Drawing } from "../../drawing/Drawing";
import { buildPlanScene, planBounds } from "../../drawing/plan";
import type { Handle } from "../../drawing/scene";
import { buildSectionScene, rimHeight, sectionBounds } from "../../drawing/section";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { render, textOf } from "../../units/text";
import { HANDLE_ACTS, HANDLE_PATHS, planHandles, sectionHandles, setByHandle } from "./handles";
import type { PieceDesk } from "./usePieceDesk";

type Props = { desk: PieceDesk; piece: Piece; report: Report | null; problem: Problem | null };

const LEFT = new Set(["rim", "depth", "layer-gap"]);
const SECTION_MARGINS = { left: 104, right: 104, top: 26, bottom: 40 };
const PLAN_MARGINS = { left: 14, right: 14, top: 40, bottom: 34 };

/** The drawing sheet: section and plan, with every dimension a field where it is drawn. */
export function DrawingSheet({ desk, piece, report, problem }: Props) {
  const { system } = useSettings();
  const [withHeads, setWithHeads] = useState(true);
  const section = useMemo(() => buildSectionScene(piece, report), [piece, report]);
  const plan = useMemo(() => buildPlanScene(piece, report, withHeads), [piece, report, withHeads]);
  const handles = sectionHandles(piece, report);
  const deep = planHandles(piece);
  const failing = problem
    ? Object.entries(HANDLE_PATHS).find(([, path]) => problem.path.startsWith(path))
    : undefined;
  const preview = (id: string, value: number) => void desk.preview(setByHandle(piece, id, value));
  const commit = (id: string, value: number) =>
    void desk.commit(setByHandle(piece, id, value), HANDLE_ACTS[id] ?? "Change the piece");
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
  const rim = rimHeight(piece.vessel);
  const shown = { desk, preview, commit, onCancel: desk.cancel };
  return (
    <section
      aria-label="Drawing"
      className="relative grid min-h-0 grid-cols-[minmax(0,1.85fr)_minmax(0,1fr)] bg-sheet print:h-[105mm]"
    >
      <div className="relative min-h-0 border-r border-line">
        <h2 className="absolute top-1.5 left-3 z-10 text-[15px] text-soft">Section</h2>
        <Facts report={report} />
        <Drawing
          label="Section, to scale"
          scene={section}
          bounds={sectionBounds(piece, report)}
          margins={SECTION_MARGINS}
          handles={handles}
          problemHandle={failing?.[0] ?? null}
          onPreview={shown.preview}
          onCommit={shown.commit}
          onCancel={shown.onCancel}
          overlay={(project) => {
            const height = byId("envelope-height");
            const width = byId("envelope-width");
            const mouth = byId("rim");
            const depth = byId("depth");
            const water = byId("water");
            const gap = byId("layer-gap");
            const [, rimY] = project([0, rim]);
            const [, topY] = project([0, piece.envelope.height_m]);
            const [, floorY] = project([0, 0]);
            const column = (y: number) => ({ top: Math.max(2, y) });
            return (
              <>
                <div className="absolute left-2 flex flex-col gap-1.5" style={column(rimY - 98)}>
                  {mouth && dimension(mouth, "w-[88px]", "mouth ↔")}
                  {depth && dimension(depth, "w-[88px]", "depth ↕")}
                  {gap && dimension(gap, "w-[88px]", "layer gap")}
                </div>
                <div className="absolute right-2" style={column(topY - 10)}>
                  {height && dimension(height, "w-[88px]", "height ↕")}
                </div>
                <div className="absolute right-2" style={column(rimY - 72)}>
                  {width && dimension(width, "w-[88px]", "width ↔")}
                </div>
                <div className="absolute right-2" style={column(Math.min(rimY + 4, floorY - 46))}>
                  {water && dimension(water, "w-[88px]", "water ↕")}
                </div>
              </>
            );
          }}
        />
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
          scene={plan}
          bounds={planBounds(piece, report)}
          margins={PLAN_MARGINS}
          handles={deep}
          problemHandle={failing?.[0] ?? null}
          onPreview={shown.preview}
          onCommit={shown.commit}
          onCancel={shown.onCancel}
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
    </section>
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
    <p className="pointer-events-none absolute top-2 right-3 z-10 text-[13px] text-soft">
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
