import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";

const KEY = "tray";
const [LEAST, MOST, USUAL, STEP] = [120, 620, 240, 40] as const;

/** How tall the tray under a drawing is, px: pulled by hand or keys, and remembered at this screen. */
export function useTrayHeight(): readonly [number, (next: number) => void] {
  const [height, setHeight] = useState(kept);
  const pull = (next: number) => {
    const now = Math.round(Math.min(Math.max(next, LEAST), Math.min(MOST, window.innerHeight - 300)));
    setHeight(now);
    try {
      localStorage.setItem(KEY, String(now));
    } catch {
      // A browser that keeps nothing begins as usual the next time.
    }
  };
  return [height, pull];
}

function kept(): number {
  try {
    const found = Number(localStorage.getItem(KEY));
    return found >= LEAST && found <= MOST ? found : USUAL;
  } catch {
    return USUAL;
  }
}

/** The upper edge of the tray, which pulls it taller. */
export function TrayEdge({ height, onPull }: { height: number; onPull: (next: number) => void }) {
  const from = useRef<{ y: number; height: number } | null>(null);
  const down = (event: PointerEvent<HTMLDivElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { y: event.clientY, height };
  };
  const key = (event: KeyboardEvent<HTMLDivElement>) => {
    const way = { ArrowUp: 1, ArrowDown: -1, PageUp: 4, PageDown: -4 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    onPull(height + way * STEP);
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-orientation="horizontal"
      aria-label="Height of the tray"
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      aria-valuenow={height}
      title="Pull the tray taller"
      className="no-print absolute inset-x-0 -top-1.5 z-20 flex h-3 cursor-row-resize touch-none justify-center max-lg:hidden"
      onPointerDown={down}
      onPointerMove={(event) => from.current && onPull(from.current.height + from.current.y - event.clientY)}
      onPointerUp={() => {
        from.current = null;
      }}
      onPointerCancel={() => {
        from.current = null;
      }}
      onKeyDown={key}
    >
      <span className="mt-1.25 h-0.75 w-12 rounded bg-line" aria-hidden="true" />
    </div>
  );
}
