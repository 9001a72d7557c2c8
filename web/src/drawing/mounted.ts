/** What work is mounted on and what must be kept clear, as shapes. */
import type { Hazard, Mount, Rig } from "../api/types";
import { onSheet, type Place, type Plane } from "./plane";
import type { Point, Primitive } from "./scene";

/** The corners of what it is mounted on, for the bounds. */
export function mountCorners(mount: Mount | null): Place[] {
  if (!mount || mount.kind === "wall") return [];
  const wide = Math.max(mount.width_m, mount.foot_width_m) / 2;
  const deep = mount.foot_depth_m / 2;
  return [
    [mount.x_m - wide, -deep, 0],
    [mount.x_m + wide, deep, mount.height_m],
  ];
}

/** What it is mounted on: a frame on its feet, a stand, a column, a wall. */
export function mountLayer(rig: Rig, plane: Plane): Primitive[] {
  const { mount } = rig;
  if (!mount) return [];
  const { x_m: x, width_m: wide, height_m: high } = mount;
  const path = (id: string, tone: string, points: Point[], closed = false): Primitive => ({
    kind: "path",
    id: `mount-${id}`,
    tone,
    points,
    closed,
  });
  const box = (id: string, tone: string, halfX: number, from: number, to: number) =>
    path(
      id,
      tone,
      [
        [x - halfX, from],
        [x + halfX, from],
        [x + halfX, to],
        [x - halfX, to],
      ],
      true,
    );
  if (plane === "plan") {
    if (mount.kind === "column") {
      return [{ kind: "circle", id: "mount-column", tone: "tone-column", at: [x, 0], r: wide / 2 }];
    }
    if (mount.kind === "wall") return [];
    return [
      box("feet", "tone-frame", mount.foot_width_m / 2, -mount.foot_depth_m / 2, mount.foot_depth_m / 2),
    ];
  }
  switch (mount.kind) {
    case "wall":
      return [];
    case "column":
      return [box("column", "tone-column", wide / 2, 0, high)];
    case "stand":
      return [
        path("stand", "tone-frame", [
          [x, 0],
          [x, high],
        ]),
        path("feet", "tone-frame", feet(mount)),
      ];
    case "frame":
      return [path("frame", "tone-frame", outlineOf(mount)), path("feet", "tone-frame", feet(mount))];
  }
}

function feet(mount: Mount): Point[] {
  return [
    [mount.x_m - mount.foot_width_m / 2, 0],
    [mount.x_m + mount.foot_width_m / 2, 0],
  ];
}

function outlineOf({ x_m: x, width_m: wide, height_m: high, outline }: Mount): Point[] {
  const half = wide / 2;
  if (outline === "rail") {
    return [
      [x - half, 0],
      [x - half, high],
      [x + half, high],
      [x + half, 0],
    ];
  }
  const turn = (from: number, to: number, middle: number): Point[] =>
    Array.from({ length: 49 }, (_, index) => {
      const angle = from + ((to - from) * index) / 48;
      return [x + half * Math.cos(angle), middle + half * Math.sin(angle)];
    });
  if (outline === "arch") return [[x - half, 0], ...turn(Math.PI, 0, high - half), [x + half, 0]];
  const low = high - wide;
  return [[x, 0], [x, low], ...turn(-Math.PI / 2, 1.5 * Math.PI, high - half)];
}

const HAZARD_TONE: Record<Hazard["kind"], string> = {
  sprinkler: "tone-water-line",
  detector: "tone-dimension",
  "exit sign": "tone-dimension",
  "open flame": "tone-flame",
  "flame in glass": "tone-flame",
  "LED candle": "tone-dimension",
};

/** What must be kept clear, each where it is. */
export function hazardLayer(rig: Rig, plane: Plane, unitM: number): Primitive[] {
  return rig.hazards.map((each, index): Primitive => {
    const [x, y] = onSheet([each.x_m, each.y_m, each.z_m], plane);
    const r = unitM * 1.6;
    return {
      kind: "path",
      id: `hazard-${index}`,
      tone: HAZARD_TONE[each.kind],
      points: [
        [x - r, y - r],
        [x, y + r],
        [x + r, y - r],
      ],
      closed: true,
    };
  });
}
