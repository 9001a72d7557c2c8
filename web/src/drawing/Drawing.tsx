import {
  type KeyboardEvent,
  memo,
  type PointerEvent,
  type ReactNode,
  useCallback,
  useEffect,
  useId,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { useSettings } from "../ui/settings";
import { textOf } from "../units/text";
import { type Interaction, interact, movedTo } from "./interaction";
import { type Bounds, type Handle, type Point, scaleBarM } from "./scene";
import type { Flat } from "./seeing";

/** The size of the sheet, and how large a metre is on it, px. */
type Sheet = { readonly wide: number; readonly tall: number; readonly pxPerM: number };
type Project = (point: Point) => readonly [number, number];
type Margins = {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
};
type Props = {
  label: string;
  /** Layers from back to front; each is drawn anew only when it is another array. */
  layers: readonly (readonly Flat[])[];
  bounds: Bounds;
  margins: Margins;
  handles?: readonly Handle[];
  problemHandle?: string | null;
  onPreview?: (id: string, value: number) => void;
  onCommit?: (id: string, value: number) => void;
  onCancel?: () => void;
  /** Called with the id of the shape pressed on. */
  onPick?: (id: string) => void;
  overlay?: (project: Project, sheet: Sheet) => ReactNode;
  /** Drawn over the shapes on the sheet itself, under the handles. */
  inside?: (project: Project, pxPerM: number) => ReactNode;
  /** With a pen, the pointer draws on the sheet: each call has the place in metres. Esc puts it down. */
  pen?: Pen | null;
};

export type Pen = {
  readonly label: string;
  readonly onDown: (at: Point) => void;
  readonly onMove?: (at: Point) => void;
  readonly onUp?: () => void;
};

/** One view of a scene: one transform does the scale and the flip of y; handles are sliders. */
export function Drawing(props: Props) {
  const {
    label,
    layers,
    margins,
    handles = [],
    problemHandle,
    onPreview,
    onCommit,
    onCancel,
    onPick,
    overlay,
    inside,
    pen,
  } = props;
  const { system } = useSettings();
  const sheet = useId();
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<readonly [number, number]>([0, 0]);
  const [state, setState] = useState<Interaction>({ phase: "idle" });
  const now = useRef<Interaction>(state);
  const held = useRef<Bounds | null>(null);
  const grip = useRef<{ readonly element: SVGGElement; readonly from: string } | null>(null);
  const bounds = held.current ?? props.bounds;

  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () => setSize([element.clientWidth, element.clientHeight]);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  /** What is moved is drawn with what is told of it: only a handle that is taken or let go is drawn by itself. */
  const step = useCallback((next: Interaction) => {
    const before = now.current;
    now.current = next;
    if (next.phase !== before.phase) setState(next);
  }, []);

  const cancel = useCallback(() => {
    if (now.current.phase === "idle") return;
    step({ phase: "idle" });
    held.current = null;
    grip.current?.element.setAttribute("transform", grip.current.from);
    onCancel?.();
  }, [onCancel, step]);

  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => event.key === "Escape" && cancel();
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [cancel]);

  const [width, height] = size;
  const spanX = Math.max(bounds.xMax - bounds.xMin, 0.01);
  const spanY = Math.max(bounds.yMax - bounds.yMin, 0.01);
  const roomX = Math.max(width - margins.left - margins.right, 20);
  const roomY = Math.max(height - margins.top - margins.bottom, 20);
  const scale = Math.min(roomX / spanX, roomY / spanY);
  const originX = margins.left + roomX / 2 - (scale * (bounds.xMin + bounds.xMax)) / 2;
  const originY = margins.top + roomY / 2 + (scale * (bounds.yMin + bounds.yMax)) / 2;
  const project: Project = ([x, y]) => [originX + x * scale, originY - y * scale];

  const press = (event: PointerEvent<SVGGElement>, handle: Handle) => {
    event.preventDefault();
    event.currentTarget.focus();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = props.bounds;
    grip.current = { element: event.currentTarget, from: placed(project(handle.at)) };
    const px = handle.axis === "x" ? event.clientX : -event.clientY;
    step(interact(now.current, { type: "press", handle, px, pxPerM: scale }));
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    const before = now.current;
    if (before.phase === "idle") return;
    const px = before.handle.axis === "x" ? event.clientX : -event.clientY;
    const next = interact(before, { type: "move", px });
    if (next === before) return;
    step(next);
    if (next.phase === "dragging" && !(before.phase === "dragging" && before.value === next.value)) {
      // the handle stays under the pointer, whatever is still being worked out
      event.currentTarget.setAttribute("transform", placed(project(movedTo(next.handle, next.value))));
      onPreview?.(next.handle.id, next.value);
    }
  };
  const release = () => {
    const before = now.current;
    step(interact(before, { type: "end" }));
    held.current = null;
    if (before.phase === "dragging") onCommit?.(before.handle.id, before.value);
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>, handle: Handle) => {
    const unit = system === "metric" ? 0.005 : 0.00635;
    const way = (
      { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 4, PageDown: -4 } as const
    )[event.key as "ArrowUp"];
    if (way === undefined) return;
    event.preventDefault();
    const value = Math.round((handle.value + way * unit * (event.shiftKey ? 4 : 1)) / 1e-5) * 1e-5;
    onCommit?.(handle.id, Math.min(Math.max(value, handle.min), handle.max));
  };

  const placeOf = (event: PointerEvent<SVGRectElement>): Point => {
    const at = event.currentTarget.getBoundingClientRect();
    return [(event.clientX - at.left - originX) / scale, (originY - (event.clientY - at.top)) / scale];
  };
  const bar = scaleBarM(spanX, system);
  return (
    <div ref={box} data-drawing className="relative h-full w-full overflow-hidden [contain:strict]">
      {width > 0 && (
        <svg
          className="drawing absolute inset-0"
          width={width}
          height={height}
          role="group"
          aria-label={label}
        >
          <g
            transform={`matrix(${scale} 0 0 ${-scale} ${originX} ${originY})`}
            onPointerDown={(event) => {
              const id = event.target instanceof SVGElement ? event.target.dataset.id : undefined;
              if (id) onPick?.(id);
            }}
          >
            {layers.map((layer, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a layer is known by its place
              <Shapes key={index} scene={layer} />
            ))}
          </g>
          <g transform={`translate(${12} ${height - 10})`} aria-hidden="true">
            <path
              d={`M0 0h${bar * scale}M0 -4v8M${bar * scale} -4v8M${(bar * scale) / 2} -2v4`}
              className="tone-dimension"
            />
            <text x={bar * scale + 6} y={4} fontSize="12">
              {textOf({ kind: "length", value: bar }, system)}
            </text>
          </g>
          {pen && (
            <rect
              width={width}
              height={height}
              fill="transparent"
              className="cursor-crosshair touch-none"
              aria-label={pen.label}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                pen.onDown(placeOf(event));
              }}
              onPointerMove={(event) => {
                if (event.buttons) pen.onMove?.(placeOf(event));
              }}
              onPointerUp={() => pen.onUp?.()}
            />
          )}
          {inside?.(project, scale)}
          {handles.map((handle) => {
            const [x, y] = project(handle.at);
            const active = state.phase !== "idle" && state.handle.id === handle.id;
            return (
              <g
                key={handle.id}
                id={`${sheet}-handle-${handle.id}`}
                data-handle={handle.id}
                className="handle touch-none"
                data-active={active}
                data-problem={problemHandle === handle.id}
                role="slider"
                tabIndex={0}
                aria-label={handle.label}
                aria-valuenow={Math.round(handle.value * 1e4) / 1e4}
                aria-valuemin={handle.min}
                aria-valuemax={handle.max}
                aria-valuetext={textOf({ kind: "length", value: handle.value }, system)}
                aria-orientation={handle.axis === "x" ? "horizontal" : "vertical"}
                transform={placed([x, y])}
                onPointerDown={(event) => press(event, handle)}
                onPointerMove={move}
                onPointerUp={release}
                onPointerCancel={cancel}
                onKeyDown={(event) => onKeyDown(event, handle)}
              >
                <title>{handle.label}</title>
                <circle r={22} fill="transparent" />
                <path
                  className="grip"
                  d={handle.axis === "x" ? "M-11 0 -4 -6H4L11 0 4 6H-4Z" : "M0 -11 6 -4V4L0 11 -6 4V-4Z"}
                />
              </g>
            );
          })}
        </svg>
      )}
      {width > 0 && overlay?.(project, { wide: width, tall: height, pxPerM: scale })}
    </div>
  );
}

export const Shapes = memo(function Shapes({ scene }: { scene: readonly Flat[] }) {
  return (
    <g transform={`scale(${1 / PER_M})`}>
      {scene.map((flat) => (
        <FlatShape key={flat.id} flat={flat} />
      ))}
    </g>
  );
});

function placed([x, y]: readonly [number, number]): string {
  return `translate(${x} ${y})`;
}

/** Paths are written in tenths of a millimetre: whole numbers are quicker to write and to read. */
const PER_M = 1e4;

/** How much of its colour a thing keeps that is pale, or far back. */
const FAR_KEEPS = 0.62;
/** Nobody tells more shades apart, and a colour that stays need not be set again. */
const FAR_STEPS = 10;

const FlatShape = memo(function FlatShape({ flat }: { flat: Flat }) {
  const { far, pale, colour } = flat;
  const back = Math.round(far * FAR_STEPS) / FAR_STEPS;
  const keeps = Math.round(100 * (1 - pale) * (1 - (1 - FAR_KEEPS) * back));
  const fill = colour ? `color-mix(in oklab, ${colour} ${keeps}%, var(--sheet))` : undefined;
  const width = flat.width_m === null ? undefined : flat.width_m * PER_M;
  return (
    <path
      data-id={flat.id}
      className={`ink-${flat.ink.replace(" ", "-")} part-${flat.part}`}
      d={pathOf(flat)}
      style={{
        fill,
        strokeWidth: width,
        strokeOpacity: flat.part === "edge" && back > 0 ? 1 - 0.45 * back : undefined,
      }}
      strokeLinejoin="round"
      strokeLinecap="round"
      vectorEffect={width === undefined ? "non-scaling-stroke" : undefined}
    />
  );
});

const whole = (value: number) => Math.round(value * PER_M);

function pathOf({ runs, dots, closed }: Flat): string {
  let d = "";
  for (const run of runs) {
    let begun = false;
    for (const [x, y] of run) {
      d += `${begun ? "L" : "M"}${whole(x)} ${whole(y)}`;
      begun = true;
    }
    if (closed) d += "Z";
  }
  for (const [x, y, r] of dots) {
    const [left, wide, half] = [whole(x - r), whole(2 * r), whole(r)];
    d += `M${left} ${whole(y)}a${half} ${half} 0 1 0 ${wide} 0a${half} ${half} 0 1 0 ${-wide} 0Z`;
  }
  return d;
}
