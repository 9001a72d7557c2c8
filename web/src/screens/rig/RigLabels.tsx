import type { Rest, Rig, RigReport, SnipStep } from "../../api/types";
import { type Box, laid, type Px, type Room, roomOf, type Wanted } from "../../drawing/labels";
import { isTied, type LineLook, lineLabels, type Place } from "../../drawing/rig";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";
import type { Chosen } from "./types";

type Props = {
  rig: Rig;
  report: RigReport | null;
  rest: Rest | null;
  step: SnipStep | null;
  trying: boolean;
  held: readonly Place[];
  looks: readonly LineLook[];
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  /** Where a place of the room lies on the sheet. */
  spot: (at: Place) => Px;
  sheet: Box;
  taken: readonly Box[];
};

/** A line that needs less than this of its tension is slack. */
const SLACK_N = 0.5;
const RANK: Readonly<Record<LineLook, number>> = { cut: 1, fails: 1, tight: 2, holds: 4 };
const COLOUR: Readonly<Record<LineLook, string>> = {
  holds: "text-ink",
  tight: "text-marigold",
  fails: "text-berry",
  cut: "text-soft",
};

/** The names of hang points and what lines bear, each where there is room for it; the worst first. */
export function RigLabels(props: Props) {
  const { rig, report, chosen, onChoose, looks, spot, sheet, taken } = props;
  const { system } = useSettings();
  const words = rig.lines.map((_, index) =>
    lineWords(props, index, (newtons) => textOf({ kind: "force", value: newtons }, system)),
  );
  const lines = lineLabels(rig, props.held).map((places, index): Wanted => {
    const spots = places.map(spot);
    return {
      key: `line-${index}`,
      rank: chosen === `line-${index}` ? 0 : RANK[looks[index] ?? "holds"],
      sizes: (words[index] ?? []).map((each) => roomOf(each)),
      places: (room) => (isTied(rig) ? about(spots, room) : beside(spots, room)),
    };
  });
  const points = isTied(rig)
    ? []
    : rig.points.map((each, index): Wanted => {
        const at = spot([each.x_m, each.y_m, each.z_m]);
        const unrated = report?.points[index]?.use === null;
        return {
          key: `point-${index}`,
          rank: chosen === `point-${index}` ? 0 : unrated ? 1 : 3,
          sizes: [roomOf(pointWords(each.name, report, index))],
          places: (room) => over(at, room),
        };
      });
  const found = laid(
    [...points, ...lines.filter((_, index) => (words[index] ?? []).length > 0)],
    sheet,
    taken,
  );
  const look = (key: string) => COLOUR[looks[Number(key.slice(5))] ?? "holds"];
  return [...found].map(([key, { at, size }]) => {
    const index = Number(key.split("-")[1]);
    const line = key.startsWith("line");
    const said = line ? words[index]?.[size] : pointWords(rig.points[index]?.name ?? "", report, index);
    return (
      <button
        type="button"
        key={key}
        aria-pressed={chosen === key}
        onClick={() => onChoose(key as Chosen)}
        className={`absolute rounded border bg-sheet/85 px-1 py-0 text-left text-xs leading-6 whitespace-nowrap ${line ? look(key) : ""} ${chosen === key ? "border-marigold" : "border-transparent"}`}
        style={{ left: at[0], top: at[1] }}
        title={line ? report?.lines[index]?.name : undefined}
      >
        {said}
      </button>
    );
  });
}

function pointWords(name: string, report: RigReport | null, index: number): string {
  return report && report.points[index]?.use === null ? `${name} · not rated` : name;
}

/** What share of its limit a line uses and what it bears, long and short; of ties that share a place the first speaks. */
function lineWords(props: Props, index: number, force: (newtons: number) => string): string[] {
  const { rig, rest, step, report, chosen, trying } = props;
  const shared = sharing(rig, index);
  const picked = chosen === `line-${index}`;
  if (isTied(rig) && shared[0] !== index && !picked && !step) return [];
  if (step?.cut.includes(index)) return ["✂ cut"];
  const tension = step ? step.tension_n[index] : rest?.tension_n[index];
  const use = Math.max(...shared.map((at) => report?.lines[at]?.use ?? 0));
  const used = use > 9.99 ? "over 9.99" : use.toFixed(2);
  const bears = (tension ?? 0) < SLACK_N ? "slack" : force(tension ?? 0);
  if (step?.lets_go.includes(index)) return [`✕ lets go · ${bears}`, "✕ lets go"];
  if (step?.over_limit.includes(index)) return [`△ over its limit · ${bears}`, "△ over its limit"];
  if (step || trying || !report) return [bears];
  return isTied(rig) && !picked ? [used] : [`${used} · ${bears}`, used];
}

/** Lines to the same place as one, with itself. */
function sharing(rig: Rig, index: number): readonly number[] {
  if (!isTied(rig)) return [index];
  const { attachment } = rig.lines[index] ?? {};
  return rig.lines.flatMap((line, at) => (line.attachment === attachment ? [at] : []));
}

function beside(spots: readonly Px[], { wide, tall }: Room): Px[] {
  return spots.flatMap(([x, y]): Px[] => [
    [x + 6, y - tall / 2],
    [x - 6 - wide, y - tall / 2],
  ]);
}

function about(spots: readonly Px[], { wide, tall }: Room): Px[] {
  return spots.flatMap(([x, y]): Px[] => [
    [x - wide / 2, y - tall / 2],
    [x, y - tall / 2],
    [x - wide, y - tall / 2],
    [x - wide / 2, y],
    [x - wide / 2, y - tall],
  ]);
}

function over([x, y]: Px, { wide, tall }: Room): Px[] {
  const rows = [0, 1, 2, 3].map((row): Px => [x - wide / 2, y - 7 - tall - row * (tall + 3)]);
  return [...rows, [x - wide / 2, y + 9], [x + 8, y - tall / 2], [x - 8 - wide, y - tall / 2]];
}
