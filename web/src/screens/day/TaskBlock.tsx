import { type KeyboardEvent, type PointerEvent, useState } from "react";
import type { Timed } from "../../api/types";
import { between, clockOf, minutesOf } from "./times";

export const LANE = 50;
const STEP_MIN = 5;
const INSET = 4;
const NARROWEST = 64;
const CHARACTER = 7;

type Props = {
  timed: Timed;
  person: number;
  /** Whether it is the lane on which the keyboard finds it. */
  first: boolean;
  picked: boolean;
  x: (minutes: number) => number;
  pxPerMin: number;
  /** The minute at which the lane is taken again. */
  freeTo: number;
  onPick: () => void;
  /** Called with the minutes it was moved by. */
  onMoveBy: (minutes: number) => void;
};

/** One task on one lane: pressed to see it, dragged or moved with the arrow keys to set it. */
export function TaskBlock({ timed, person, first, picked, x, pxPerMin, freeTo, onPick, onMoveBy }: Props) {
  const { task } = timed;
  const [drag, setDrag] = useState<{ fromX: number; by: number } | null>(null);
  /** A top-up has its time from the bench. */
  const free = task.stage !== "top up";
  const left = x(minutesOf(timed.starts_at) + (drag?.by ?? 0));
  const wide = Math.max(between(timed.starts_at, timed.ends_at) * pxPerMin, 3);
  /** A short task is named beside itself, as far as the lane is free there. */
  const freePx = x(freeTo) - left - wide - 2;
  const beside = wide < NARROWEST && freePx > wide;
  const room = beside ? freePx : wide - 2;
  const moveBy = (minutes: number) => minutes !== 0 && onMoveBy(minutes);
  const onKeyDown = (event: KeyboardEvent) => {
    const way = event.key === "ArrowLeft" ? -1 : event.key === "ArrowRight" ? 1 : 0;
    if (event.key === "Enter" || event.key === " ") onPick();
    else if (event.key === "Escape") setDrag(null);
    else if (way !== 0 && free) moveBy(way * (event.shiftKey ? 30 : STEP_MIN));
    else return;
    event.preventDefault();
  };
  const onPointerDown = (event: PointerEvent<SVGRectElement>) => {
    onPick();
    if (!free) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ fromX: event.clientX, by: 0 });
  };
  const onPointerMove = (event: PointerEvent) => {
    if (!drag) return;
    const minutes = (event.clientX - drag.fromX) / pxPerMin;
    setDrag({ ...drag, by: Math.round(minutes / STEP_MIN) * STEP_MIN });
  };
  const look = [
    "day-block day-task",
    `day-${task.where}`,
    timed.out_min > 0 || task.gate ? "day-bad" : "",
    picked ? "day-picked" : "",
    free ? "cursor-grab" : "cursor-pointer",
  ].join(" ");
  return (
    <g>
      <rect
        x={left}
        y={person * LANE + INSET}
        width={wide}
        height={LANE - 2 * INSET}
        rx={3}
        className={look}
        role="button"
        tabIndex={first ? 0 : -1}
        aria-label={`${clockOf(timed.starts_at)} to ${clockOf(timed.ends_at)}, ${task.name}${task.gate ? ", not cleared" : ""}`}
        aria-pressed={picked}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={() => {
          if (drag) moveBy(drag.by);
          setDrag(null);
        }}
        onPointerCancel={() => setDrag(null)}
      >
        <title>{`${clockOf(timed.starts_at)}–${clockOf(timed.ends_at)} ${task.name}`}</title>
      </rect>
      <svg
        x={beside ? left + wide : left}
        y={person * LANE + INSET}
        width={Math.max(room, 0)}
        height={LANE - 2 * INSET}
        aria-hidden="true"
        pointerEvents="none"
      >
        <text x={4} y={17} fontSize={12.5} className="day-words">
          {fitted(
            `${timed.locked ? "⚓ " : ""}${timed.out_min > 0 || task.gate ? "✕ " : ""}${task.name}`,
            room,
          )}
        </text>
        <text x={4} y={34} fontSize={11.5}>
          {fitted(clockOf(timed.starts_at), room)}
        </text>
      </svg>
    </g>
  );
}

/** Words as far as there is room for them, px; nothing where not even a few letters go in. */
function fitted(words: string, room: number): string {
  const most = Math.floor((room - 6) / CHARACTER);
  if (words.length <= most) return words;
  return most < 4 ? "" : `${words.slice(0, most - 1)}…`;
}
