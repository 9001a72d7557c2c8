import { type ReactNode, useLayoutEffect, useRef, useState } from "react";
import type { Timed } from "../../api/types";
import { between, minutesOf } from "./times";

export const LANE_LEFT = 104;
const HEAD = 22;

/** The minutes after midnight that a day's sheet spans, whole hours. */
export type Axis = { readonly from: number; readonly to: number };

export function axisOf(today: readonly Timed[]): Axis {
  const starts = today.map((each) => minutesOf(each.starts_at));
  const ends = today.map((each) => minutesOf(each.starts_at) + between(each.starts_at, each.ends_at));
  const from = Math.floor(Math.min(...starts, 8 * 60) / 60) * 60;
  return { from, to: Math.ceil(Math.max(...ends, from + 360) / 60) * 60 };
}

type Props = {
  axis: Axis;
  height: number;
  label: string;
  children: (x: (minutes: number) => number, pxPerMin: number) => ReactNode;
};

/** A sheet with the hours over it, as wide as there is room, so that text keeps its size. */
export function Hours({ axis, height, label, children }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [wide, setWide] = useState(900);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () => setWide(Math.max(element.clientWidth, 640));
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const pxPerMin = (wide - LANE_LEFT - 6) / (axis.to - axis.from);
  const x = (minutes: number) => LANE_LEFT + (minutes - axis.from) * pxPerMin;
  const hours = Array.from({ length: (axis.to - axis.from) / 60 + 1 }, (_, nth) => axis.from + nth * 60);
  return (
    <div ref={box}>
      <svg width={wide} height={height + HEAD} className="drawing block" role="group" aria-label={label}>
        {hours.map((minutes) => (
          <g key={minutes}>
            <line x1={x(minutes)} x2={x(minutes)} y1={HEAD - 4} y2={height + HEAD} className="day-hour" />
            <text x={x(minutes)} y={HEAD - 8} fontSize={12} textAnchor="middle">
              {(minutes / 60) % 24}
            </text>
          </g>
        ))}
        <g transform={`translate(0 ${HEAD})`}>{children(x, pxPerMin)}</g>
      </svg>
    </div>
  );
}
