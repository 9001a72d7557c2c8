"""What bears a standing piece: one foot or several tied together, cut off by the edge of a ledge."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from jolly_trellis.core.books.figures import Constant, measure
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.setting import FootMaterial, Surface
from jolly_trellis.core.plan_shapes import SHAPES, PlanShape, ray_to_outline_m
from jolly_trellis.core.quantities import length, phrase

# Friction of a foot on what it stands on, dry.
FOOT_FRICTION: dict[tuple[FootMaterial, Surface], Constant] = {
    ("glass", "wood"): measure("Friction, glass on wood, dry", "ratio", 0.25, spread=0.25),
    ("glazed", "cloth"): measure("Friction, glaze on cloth, dry", "ratio", 0.3, spread=0.25),
    ("felt", "wood"): measure("Friction, felt on wood, dry", "ratio", 0.25, spread=0.25),
    ("glass", "cloth"): measure("Friction, glass on cloth, dry", "ratio", 0.3, spread=0.25),
    ("glazed", "wood"): measure("Friction, glaze on wood, dry", "ratio", 0.25, spread=0.25),
    ("felt", "cloth"): measure("Friction, felt on cloth, dry", "ratio", 0.3, spread=0.25),
    ("rubber", "wood"): measure("Friction, rubber pad, dry", "ratio", 0.6, spread=0.25),
    ("rubber", "cloth"): measure("Friction, rubber pad on cloth, dry", "ratio", 0.6, spread=0.25),
    ("glass", "stone"): measure("Friction, glass on stone, dry", "ratio", 0.25, spread=0.25),
    ("glazed", "stone"): measure("Friction, glaze on stone, dry", "ratio", 0.25, spread=0.25),
    ("felt", "stone"): measure("Friction, felt on stone, dry", "ratio", 0.25, spread=0.25),
    ("rubber", "stone"): measure("Friction, rubber pad on stone, dry", "ratio", 0.6, spread=0.25),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline:
    """One foot: its plan shape, its middle and its overall width and depth, metres."""

    plan_shape: PlanShape
    x_m: float
    y_m: float
    width_m: float
    depth_m: float

    def points_m(self) -> Array:
        """Points on the outline, shape (n, 2): the corners of a rectangle, 96 points of an ellipse."""
        turns = SHAPES[self.plan_shape].outline
        return np.asarray(turns * [self.width_m / 2, self.depth_m / 2] + [self.x_m, self.y_m])


@dataclass(frozen=True, slots=True, kw_only=True)
class Footing:
    """Feet that stand or fall together. `front_m` is the y of a ledge's bearing edge, None where nothing ends.

    What bears is the convex hull of the feet behind that edge.
    """

    feet: tuple[Outline, ...]
    front_m: float | None = None

    @property
    def axis_m(self) -> float:
        """The y over which it tips to the front: the front of the feet, or the ledge's edge if that lies behind it."""
        front = min(each.y_m - each.depth_m / 2 for each in self.feet)
        return front if self.front_m is None else max(front, self.front_m)

    def edge_m(self, x_m: Array, y_m: Array, ray_x: Array, ray_y: Array) -> Array:
        """Distance from points along unit rays to the footing's edge, metres; negative for a point outside.

        Args:
            x_m, y_m: the points, any shape that broadcasts with the rays.
            ray_x, ray_y: unit directions.
        Source: ray against an ellipse or a rectangle for one foot; against the sides of the convex hull for several.
        """
        if len(self.feet) == 1:
            foot = self.feet[0]
            edge = ray_to_outline_m(
                foot.plan_shape,
                x_m - foot.x_m,
                y_m - foot.y_m,
                ray_x,
                ray_y,
                max(foot.width_m / 2, 1e-9),
                max(foot.depth_m / 2, 1e-9),
            )
        else:
            edge = self._to_hull_m(x_m, y_m, ray_x, ray_y)
        if self.front_m is None:
            return edge
        ahead = y_m - self.front_m
        towards = np.where(ray_y < -1e-9, ahead / np.maximum(-ray_y, 1e-9), np.inf)
        return np.where(ahead < 0, np.minimum(edge, ahead), np.minimum(edge, towards))

    def nearest_m(self, x_m: Array, y_m: Array, *, but_front: bool) -> Array:
        """Distance from points to the nearest side of the footing, metres; negative for a point outside.

        Args:
            x_m, y_m: the points, any shape.
            but_front: leave out the sides within 60° of the front, and a ledge's edge.
        Source: distance to the sides of the convex hull; within 0.1 % of the least of `edge_m` over all rays.
        """
        sides = _hull_of(self.feet)
        if but_front:
            sides = sides[sides[:, 1] > -0.5]
        out = x_m[..., None] * sides[:, 0] + y_m[..., None] * sides[:, 1] + sides[:, 2]
        gap = -out.max(axis=-1)
        if self.front_m is None or but_front:
            return np.asarray(gap)
        return np.asarray(np.minimum(gap, y_m - self.front_m))

    def _to_hull_m(self, x_m: Array, y_m: Array, ray_x: Array, ray_y: Array) -> Array:
        """The nearest side of the hull ahead of each ray; minus the distance outside it for a point outside."""
        normal_x, normal_y, offset = _hull_of(self.feet).T
        shape = np.broadcast_shapes(np.shape(x_m), np.shape(ray_x))
        column = (slice(None),) + (None,) * len(shape)
        gap = -(normal_x[column] * x_m + normal_y[column] * y_m + offset[column])
        speed = normal_x[column] * ray_x + normal_y[column] * ray_y
        ahead = np.where(speed > 1e-9, gap / np.maximum(speed, 1e-9), np.inf).min(axis=0)
        inside = gap.min(axis=0)
        return np.asarray(np.where(inside < 0, inside, ahead))


@lru_cache(maxsize=256)
def _hull_of(feet: tuple["Outline", ...]) -> Array:
    """Sides of the hull of some feet, worked out once."""
    return _sides(np.concatenate([each.points_m() for each in feet]))


def _sides(points_m: Array) -> Array:
    """Sides of the convex hull of points, as (outward normal x, normal y, offset), shape (sides, 3).

    A point p lies inside where normal · p + offset ≤ 0 for all sides.

    Source: monotone chain (Andrew 1979).
    """
    ordered = points_m[np.lexsort((points_m[:, 1], points_m[:, 0]))]
    chains = []
    for way in (ordered, ordered[::-1]):
        chain: list[tuple[float, float]] = []
        for x, y in way.tolist():
            while len(chain) > 1 and _turn(chain[-2], chain[-1], (x, y)) <= 1e-12:
                chain.pop()
            chain.append((x, y))
        chains += chain[:-1]
    corner = np.array(chains)
    along = np.roll(corner, -1, axis=0) - corner
    normal = np.stack([along[:, 1], -along[:, 0]], axis=1) / np.linalg.norm(along, axis=1)[:, None]
    return np.concatenate([normal, -(normal * corner).sum(axis=1)[:, None]], axis=1)


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    """Twice the area of a triangle: over 0 where c lies to the left of a → b."""
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def ledge_edge_m(piece: Piece) -> float | None:
    """The y of a ledge's bearing edge in the frame of the piece's own vessel; None where it stands on no ledge.

    The edge lies `set_back_m` before the front of the foot; a rounded one bears nothing within its radius.

    Raises:
        InvalidMeasure: no ledge is described, or it is narrower than the foot with its set-back.
    """
    if piece.setting.where != "ledge":
        return None
    ledge = piece.setting.ledge
    if ledge is None:
        raise InvalidMeasure(
            path="setting.ledge",
            message=phrase("Nobody has measured the ledge it stands on."),
            limit=phrase("Give its depth, front to back, and its height over the floor."),
        )
    standing = piece.insert.outer if piece.insert is not None else piece.vessel
    foot = piece.support.foot_width_m if piece.support is not None else standing.foot_depth_m or standing.foot_width_m
    if foot is None:
        foot = standing.profile[0].depth_m
    if ledge.set_back_m + foot > ledge.depth_m + 1e-9:
        raise InvalidMeasure(
            path="setting.ledge.depth_m",
            message=phrase(
                "The ledge is {deep} deep; the foot is {foot} and stands {back} back from its edge.",
                deep=length(ledge.depth_m),
                foot=length(foot),
                back=length(ledge.set_back_m),
            ),
            limit=phrase(
                "Take a ledge at least {needed} deep, or a smaller foot.", needed=length(ledge.set_back_m + foot)
            ),
        )
    return -foot / 2 - ledge.set_back_m + ledge.edge_radius_m
