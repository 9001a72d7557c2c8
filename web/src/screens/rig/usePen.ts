import { useCallback, useEffect, useState } from "react";
import type { Rig } from "../../api/types";
import type { Pen } from "../../drawing/Drawing";
import { isRun } from "../../drawing/rig";
import type { Point } from "../../drawing/scene";
import { DOT, type Flat } from "../../drawing/seeing";
import { useUsual } from "../../ui/useTrade";
import { painted } from "./edits";
import type { Tool } from "./types";
import type { RigDesk } from "./useRigDesk";

type Props = { desk: RigDesk; rig: Rig; tool: Tool; onTool: (tool: Tool) => void };

const DOT_M = 0.03;
const REACH_M = 0.4;

/** The pen on the front view: it draws the path anew, place by place, or paints the armature fuller or thinner. */
export function usePen({ desk, rig, tool, onTool }: Props): {
  readonly pen: Pen | null;
  readonly drawn: readonly Flat[];
} {
  const [path, setPath] = useState<readonly Point[]>([]);
  const [stroked, setStroked] = useState<Rig | null>(null);
  const deep = rig.attachments[0]?.y_m ?? 0;
  const usual = useUsual();

  const finish = useCallback(() => {
    if (path.length > 0) {
      desk.edit({ kind: "draw path", places: path.map(([x_m, z_m]) => ({ x_m, y_m: deep, z_m })) });
    }
    setPath([]);
    onTool("hand");
  }, [path, deep, desk, onTool]);

  useEffect(() => {
    if (tool === "hand") {
      if (path.length > 0) finish();
      return;
    }
    const onKey = (key: KeyboardEvent) => {
      if (key.key === "Enter" && tool === "path") {
        key.preventDefault();
        finish();
      }
      if (key.key === "Escape") {
        setPath([]);
        setStroked(null);
        desk.cancel();
        onTool("hand");
      }
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [tool, path, finish, desk, onTool]);

  if (tool === "path") {
    return {
      pen: { label: "Draw the path", onDown: ([x, z]) => setPath([...path, [round(x), round(z)]]) },
      drawn: [
        { ...DOT, id: "drawn", ink: "newest", part: "edge", runs: [path] },
        { ...DOT, id: "drawn-places", ink: "attachment", dots: path.map(([x, z]) => [x, z, DOT_M] as const) },
      ],
    };
  }
  if (tool === "hand") return { pen: null, drawn: [] };
  const stroke = (at: Point, from: Rig) => {
    const nodes = desk.rest?.at_m ?? [];
    const share = isRun(from) ? shareAt(nodes, at) : shareAcross(nodes, at);
    if (share === null || !usual) return;
    const density = painted(usual.brush, from.armature.density, share, tool === "fuller");
    const next = { ...from, armature: { ...from.armature, density } };
    setStroked(next);
    desk.preview(next);
  };
  return {
    pen: {
      label: `Paint it ${tool}`,
      onDown: (at) => stroke(at, rig),
      onMove: (at) => stroke(at, stroked ?? rig),
      onUp: () => {
        if (stroked) desk.commit(stroked, `Paint it ${tool}`);
        setStroked(null);
      },
    },
    drawn: [],
  };
}

/** How far along the armature the nearest of its nodes to a place of the front view is, 0-1; null where none is near. */
function shareAt(nodes: readonly (readonly [number, number, number])[], [x, z]: Point): number | null {
  let best: number | null = null;
  let least = REACH_M;
  let along = 0;
  const at: number[] = [];
  for (const [index, node] of nodes.entries()) {
    const before = nodes[index - 1];
    if (before) along += Math.hypot(node[0] - before[0], node[1] - before[1], node[2] - before[2]);
    at.push(along);
  }
  for (const [index, node] of nodes.entries()) {
    const far = Math.hypot(node[0] - x, node[2] - z);
    if (far < least) {
      least = far;
      best = along > 0 ? (at[index] ?? 0) / along : 0.5;
    }
  }
  return best;
}

/** How far across a panel or ring a place of the front view is, from its left, 0-1; null where it is beside it. */
function shareAcross(nodes: readonly (readonly [number, number, number])[], [x]: Point): number | null {
  const xs = nodes.map((each) => each[0]);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  if (x < left - REACH_M || x > right + REACH_M) return null;
  return Math.min(Math.max((x - left) / Math.max(right - left, 1e-9), 0), 1);
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}
