import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Box } from "./labels";
import { sideWords, TURN_STEP_RAD, TURNTABLE } from "./look";
import type { Spot, View } from "./seeing";

type Props = {
  view: View;
  reachM: number;
  project: (at: Spot) => readonly [number, number];
  pxPerM: number;
  onTurn: (rad: number) => void;
};

/** A ring on the floor under the piece: dragged, or stepped with the arrow keys, it turns the piece. */
export function TurnRing({ view, reachM, project, pxPerM, onTurn }: Props) {
  const from = useRef<{ px: number; turn: number } | null>(null);
  const { x, y, rx, ry, front } = ringOf(view, reachM, project, pxPerM);
  const down = (event: PointerEvent<SVGGElement>) => {
    event.preventDefault();
    event.currentTarget.focus();
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { px: event.clientX, turn: view.turn_rad };
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    if (!from.current) return;
    onTurn(from.current.turn - (event.clientX - from.current.px) / rx);
  };
  const up = () => {
    from.current = null;
  };
  const key = (event: KeyboardEvent<SVGGElement>) => {
    const way = { ArrowRight: 1, ArrowLeft: -1, ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === "Escape" && from.current) {
      onTurn(from.current.turn);
      from.current = null;
    }
    if (way === undefined && event.key !== "Home") return;
    event.preventDefault();
    onTurn(way === undefined ? 0 : view.turn_rad + way * TURN_STEP_RAD);
  };
  const degrees = Math.round((view.turn_rad * 180) / Math.PI);
  return (
    <g
      className="turn-ring touch-none"
      role="slider"
      tabIndex={0}
      aria-label="Turn it"
      aria-valuemin={0}
      aria-valuemax={359}
      aria-valuenow={degrees}
      aria-valuetext={`${degrees}°, seen from ${sideWords(view.turn_rad)}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={key}
    >
      <title>Turn it: drag the ring, or use the arrow keys</title>
      <ellipse cx={x} cy={y} rx={rx} ry={ry} fill="none" stroke="transparent" strokeWidth={26} />
      <ellipse className="ring" cx={x} cy={y} rx={rx} ry={ry} />
      <circle className="front" cx={front[0]} cy={front[1]} r={5} />
      <text x={front[0]} y={front[1] + 17} textAnchor="middle" fontSize="12">
        front
      </text>
    </g>
  );
}

/** The ring as it lies on the sheet, px; the front of the piece is its nearest place when nothing is turned. */
function ringOf(view: View, reachM: number, project: Props["project"], pxPerM: number) {
  const [x, y] = project([0, 0]);
  const rx = reachM * TURNTABLE * pxPerM;
  const ry = Math.max(rx * Math.abs(Math.sin(view.raised_rad)), 5);
  const front = [x - rx * Math.sin(view.turn_rad), y + ry * Math.cos(view.turn_rad)] as const;
  return { x, y, rx, ry, front };
}

/** The box of the word at the ring's front, px. */
export function frontWords(view: View, reachM: number, project: Props["project"], pxPerM: number): Box {
  const { front } = ringOf(view, reachM, project, pxPerM);
  return { left: front[0] - 17, top: front[1] + 4, wide: 34, tall: 18 };
}
