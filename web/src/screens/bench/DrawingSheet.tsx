import { useQuery } from "@tanstack/react-query";
import { RotateCcw, RotateCw } from "lucide-react";
import { type ReactNode, useMemo, useRef, useState } from "react";
import { api } from "../../api/client";
import type { Piece, PlacedStem, Problem, Report } from "../../api/types";
import {
  type EyeKind,
  raisedOf,
  rimHeight,
  sideWords,
  TURN_STEP_RAD,
  turned,
  viewOf,
} from "../../drawing/look";
import type { Handle } from "../../drawing/scene";
import type { Spot } from "../../drawing/seeing";
import { stemsOf } from "../../drawing/stems";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { useNarrow } from "../../ui/useNarrow";
import { useAbout } from "../../ui/useTrade";
import { render, textOf } from "../../units/text";
import { HANDLE_ACTS, HANDLE_PATHS, handlesOf, setByHandle, setStem } from "./handles";
import { PieceView } from "./PieceView";
import type { PieceDesk } from "./usePieceDesk";

type Props = {
  eventId: number;
  desk: PieceDesk;
  piece: Piece;
  report: Report | null;
  problem: Problem | null;
};

const LEFT = new Set(["rim", "depth", "layer-gap"]);
const MARGINS = [
  { left: 104, right: 104, top: 50, bottom: 76 },
  { left: 22, right: 22, top: 66, bottom: 44 },
] as const;
const NARROW = { left: 22, right: 22, top: 66, bottom: 80 } as const;
const RIGHT_ANGLE = Math.PI / 2;
/** Less than this is nothing, in whole per cent. */
const LEAST_SHOWN = 0.005;

/** The drawing sheet: two views that turn together, with every dimension a field where it is drawn. */
export function DrawingSheet({ eventId, desk, piece, report: found, problem }: Props) {
  const { system } = useSettings();
  const last = useRef(found);
  if (found) last.current = found;
  const report = found ?? last.current;
  const [withHeads, setWithHeads] = useState(true);
  const [turn, setTurnTo] = useState(piece.setting.where === "ledge" ? RIGHT_ANGLE : 0);
  const setTurn = (rad: number) => setTurnTo(turned(rad));
  const [eyes, setEyes] = useState<readonly [EyeKind, EyeKind]>(["cut open", "from above"]);
  const [picked, setPicked] = useState<PlacedStem | null>(null);
  const looking = useQuery({
    queryKey: ["looking", eventId, piece],
    queryFn: ({ signal }) => api.looking(eventId, piece, signal),
    enabled: !!found && !desk.trying,
    placeholderData: (before) => before,
    retry: false,
    gcTime: 0,
  }).data;
  const most = looking && looking.worst !== null ? looking.glances[looking.worst] : undefined;
  const worst = most && most.share >= LEAST_SHOWN ? most : undefined;
  const goToWorst = () => {
    if (!worst) return;
    setTurn(worst.turn_rad);
    setEyes([worst.eye, eyes[1]]);
  };
  const stem = picked && report ? sameStem(report, picked) : undefined;
  const gapped = useAbout(piece.mechanic.kind)?.reads.includes("layer_gap_m") ?? false;
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
    const index = Number(/^head-(\d+)/.exec(id)?.[1] ?? Number.NaN);
    const found = report && stemsOf(report.stems)[index];
    if (found && found.vessel === 0) setPicked(found);
    else if (id === "surface" || id.startsWith("envelope")) setPicked(null);
  };
  const dimension = (handle: Handle) => (
    <Dimension
      key={handle.id}
      handle={handle}
      words={WORDS[handle.id] ?? ""}
      className="w-22"
      problem={problem}
      cellM={report?.cell_pitch_m}
      onCommit={(value) => commit(handle.id, value)}
    />
  );
  const handles = useMemo(
    () =>
      eyes.map((eye) =>
        report ? handlesOf(viewOf(report.picture, eye, turn), piece, found, gapped, stem) : [],
      ),
    [eyes, turn, report, piece, found, gapped, stem],
  );
  const every = handles.flat();
  const failing = problem
    ? Object.entries(HANDLE_PATHS).find(
        ([id, path]) => problem.path.startsWith(path) && every.some((each) => each.id === id),
      )
    : undefined;
  const rim = raisedOf(piece, report) + rimHeight(piece.vessel);
  const place = (at: 0 | 1) => (eye: EyeKind) => setEyes(at === 0 ? [eye, eyes[1]] : [eyes[0], eye]);
  const narrow = useNarrow();
  const fields = (at: 0 | 1) => (project: (spot: Spot) => readonly [number, number]) =>
    dimensions(handles[at] ?? [], { project, rim, piece, dimension });
  return (
    <div className="relative flex h-full min-h-0 flex-col bg-sheet print:h-[105mm]">
      <Facts piece={piece} report={found} />
      <div className="relative grid min-h-0 flex-1 grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)] max-md:min-h-85 max-md:group-has-data-[sheet=open]/desk:min-h-55 max-md:grid-cols-1">
        {([0, 1] as const).map((at) => (
          <div key={at} className={`relative min-h-0 ${at === 0 ? "border-r border-line" : "max-md:hidden"}`}>
            {report && (
              <PieceView
                report={report}
                eye={eyes[at]}
                looking={looking}
                onEye={place(at)}
                turn={turn}
                onTurn={setTurn}
                withHeads={withHeads || eyes[at] !== "from above"}
                handles={handles[at] ?? []}
                problemHandle={failing?.[0] ?? null}
                onPreview={preview}
                onCommit={commit}
                onCancel={desk.cancel}
                onPick={pick}
                margins={narrow ? NARROW : MARGINS[at]}
                {...(!narrow && { overlay: fields(at) })}
              >
                {at === 0 && worst && (
                  <Button
                    look="quiet"
                    onClick={goToWorst}
                    title="Go to where most shows to guests"
                    className="max-w-75 px-1 text-left text-xs leading-tight"
                  >
                    worst: {Math.round(worst.share * 100)} % from {sideWords(worst.turn_rad)}, {worst.eye}
                  </Button>
                )}
                {eyes[at] === "from above" && (
                  <label className="no-print flex min-h-11 items-center gap-1.5 text-sm text-soft">
                    <input
                      type="checkbox"
                      className="h-4 w-4 accent-leaf"
                      checked={withHeads}
                      onChange={(event) => setWithHeads(event.target.checked)}
                    />
                    flowers
                  </label>
                )}
              </PieceView>
            )}
          </div>
        ))}
        <div className="no-print absolute right-[calc(38.46%+4px)] bottom-1 z-20 flex w-max items-center gap-1 rounded border border-line bg-sheet/95 px-1 text-sm max-md:right-1">
          <Button look="quiet" className="w-11 px-0" onClick={() => setTurn(turn - TURN_STEP_RAD)}>
            <RotateCcw size={18} aria-hidden="true" />
            <span className="sr-only">Turn 15° to the left</span>
          </Button>
          <QuantityField
            label="Turned to the right by"
            hideLabel
            kind="angle"
            value={turn}
            path="turn"
            problem={null}
            onCommit={(value) => value !== null && setTurn(value)}
            className="w-16"
            inputClass="h-9 text-center"
          />
          <Button look="quiet" className="w-11 px-0" onClick={() => setTurn(turn + TURN_STEP_RAD)}>
            <RotateCw size={18} aria-hidden="true" />
            <span className="sr-only">Turn 15° to the right</span>
          </Button>
          <span className="w-18.5 text-soft max-md:hidden" aria-live="polite">
            {sideWords(turn)}
          </span>
        </div>
      </div>
      {narrow && (
        <div className="flex flex-none flex-wrap gap-2 border-t border-line p-2">
          {(handles[0] ?? []).filter(({ id }) => WORDS[id]).map((handle) => dimension(handle))}
        </div>
      )}
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
      {problem && !failing && (
        <p
          role="alert"
          className="absolute inset-x-3 bottom-12 z-40 rounded border border-berry bg-sheet px-3 py-2 text-berry shadow"
        >
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
    </div>
  );
}

const WORDS: Readonly<Record<string, string>> = {
  rim: "mouth ↔",
  depth: "depth ↕",
  "layer-gap": "layer gap",
  "envelope-height": "height ↕",
  "envelope-width": "width ↔",
  "envelope-depth": "front–back",
  water: "water ↕",
};

type Laid = {
  project: (spot: Spot) => readonly [number, number];
  rim: number;
  piece: Piece;
  dimension: (handle: Handle) => ReactNode;
};

/** A dimension with its words, and where the first may stand, px. */
const [FIELD_PX, TOP_PX] = [64, 44];

/** The dimensions of a view as fields beside what they measure. */
function dimensions(handles: readonly Handle[], { project, rim, piece, dimension }: Laid) {
  const byId = (id: string) => handles.find((each) => each.id === id);
  const [height, width, across] = [byId("envelope-height"), byId("envelope-width"), byId("envelope-depth")];
  const [mouth, depth, water, gap] = [byId("rim"), byId("depth"), byId("water"), byId("layer-gap")];
  const [, rimY] = project([0, rim]);
  const [, topY] = project([0, piece.envelope.height_m]);
  const [, floorY] = project([0, 0]);
  const waterY = Math.min(rimY + 4, floorY - 46);
  const widthY = Math.min(rimY - 72, waterY - FIELD_PX);
  const heightY = Math.min(topY - 10, widthY - FIELD_PX);
  const column = (y: number) => ({ top: Math.max(2, y) });
  const size = across ?? width;
  if (!height) return size ? <div className="absolute top-0 right-2">{dimension(size)}</div> : null;
  return (
    <>
      {mouth && (
        <div
          className="absolute left-2 flex flex-col gap-1.5"
          style={{ top: Math.max(70, Math.min(rimY - 98, floorY - 150)) }}
        >
          {dimension(mouth)}
          {depth && dimension(depth)}
          {gap && dimension(gap)}
        </div>
      )}
      <div className="absolute right-2" style={column(Math.max(heightY, TOP_PX))}>
        {dimension(height)}
      </div>
      <div className="absolute right-2" style={column(Math.max(widthY, TOP_PX + FIELD_PX))}>
        {width && dimension(width)}
        {across && dimension(across)}
      </div>
      <div className="absolute right-2" style={column(Math.max(waterY, TOP_PX + 2 * FIELD_PX))}>
        {water && dimension(water)}
      </div>
    </>
  );
}

/** The stem of a new report that is the one picked before: of its variety, nearest to where it was. */
function sameStem(report: Report, picked: PlacedStem): PlacedStem | undefined {
  const away = (each: PlacedStem) =>
    Math.hypot(each.tip_x_m - picked.tip_x_m, each.tip_y_m - picked.tip_y_m, each.tip_z_m - picked.tip_z_m) +
    (each.held === picked.held ? 0 : 0.02);
  return stemsOf(report.stems)
    .filter((each) => each.variety === picked.variety)
    .toSorted((a, b) => away(a) - away(b))[0];
}

type PickedProps = { stem: PlacedStem; onDone: () => void; onFree: () => void };

function PickedStem({ stem, onDone, onFree }: PickedProps) {
  const { system } = useSettings();
  const cut = textOf({ kind: "length", value: stem.cut_length_m }, system);
  const lean = textOf({ kind: "angle", value: stem.lean_rad }, system);
  return (
    <div className="no-print absolute bottom-14 left-1/2 z-20 flex -translate-x-1/2 items-center gap-2 rounded border border-marigold bg-sheet px-3 text-sm whitespace-nowrap shadow">
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

function Facts({ piece, report }: { piece: Piece; report: Report | null }) {
  const { system } = useSettings();
  if (!report) return null;
  const facts = [
    report.balance &&
      `${piece.kind === "worn" ? "weighs" : "finished"} ${textOf({ kind: "mass", value: report.balance.mass_kg }, system)}`,
    piece.kind !== "worn" && `water ${textOf({ kind: "volume", value: report.water.on_show_l }, system)}`,
    `reaches ${piece.kind === "worn" ? "" : `${textOf({ kind: "length", value: report.outline.height_m }, system)} high, `}${textOf({ kind: "length", value: report.outline.width_m }, system)} wide`,
    `${Math.round(report.outline.fullness * 100)} % full`,
  ].filter(Boolean);
  return (
    <p className="flex-none px-3 pt-1 text-xs leading-tight text-soft max-md:group-has-data-[sheet=open]/desk:hidden">
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
      <span className="block text-xs leading-tight text-soft" aria-hidden="true">
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
