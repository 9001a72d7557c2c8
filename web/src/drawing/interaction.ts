/** Dragging a handle as a pure reducer: idle, pressed, dragging; each move is the initial value plus the total way. */
import type { Handle, Point } from "./scene";

export type Interaction =
  | { readonly phase: "idle" }
  | { readonly phase: "pressed"; readonly handle: Handle; readonly fromPx: number; readonly pxPerM: number }
  | {
      readonly phase: "dragging";
      readonly handle: Handle;
      readonly fromPx: number;
      readonly pxPerM: number;
      readonly value: number;
    };

export type Action =
  | { readonly type: "press"; readonly handle: Handle; readonly px: number; readonly pxPerM: number }
  | { readonly type: "move"; readonly px: number }
  | { readonly type: "end" };

const STEP_M = 0.001;
const SLACK_PX = 2;

export function interact(state: Interaction, action: Action): Interaction {
  switch (action.type) {
    case "press":
      return { phase: "pressed", handle: action.handle, fromPx: action.px, pxPerM: action.pxPerM };
    case "move": {
      if (state.phase === "idle") return state;
      const way = action.px - state.fromPx;
      if (state.phase === "pressed" && Math.abs(way) < SLACK_PX) return state;
      return { ...state, phase: "dragging", value: moved(state.handle, way / state.pxPerM) };
    }
    default:
      return { phase: "idle" };
  }
}

/** The handle's quantity after its grip has moved so many metres along its axis, to the millimetre. */
export function moved(handle: Handle, byM: number): number {
  const value = Math.round((handle.value + byM * handle.gain) / STEP_M) * STEP_M;
  return Math.min(Math.max(value, handle.min), handle.max);
}

/** Where the grip of a handle is once its quantity has a value. */
export function movedTo({ at: [x, y], axis, gain, value }: Handle, to: number): Point {
  const way = (to - value) / gain;
  return axis === "x" ? [x + way, y] : [x, y + way];
}
