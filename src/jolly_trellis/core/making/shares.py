"""How a piece is balanced to the eye: mass and visual mass by side, depth to width, openness, varieties by share."""

from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.sides import Sides, sides_of
from jolly_trellis.core.checks.sight import Mass, flower_mass
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.placement.form_table import FORM_RULES

_POINTS = 1500


@dataclass(frozen=True, slots=True, kw_only=True)
class VarietyShare:
    """One variety's share of the stems and of the visual mass, 0-1."""

    variety: str
    name: str
    colour: str
    stems: int
    of_stems: float
    of_sight: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Shares:
    """Read-outs of balance and form. `openness` is the share of the envelope that is air; None without stems."""

    mass: Sides
    sight: Sides
    depth_to_width: float
    openness: float
    varieties: tuple[VarietyShare, ...]


def shares_of(build: Build) -> Shares | None:
    """The read-outs of a piece's own vessel; None where it has no stems.

    Source: first moments and counts; openness by 1 500 evenly spread points of the envelope (estimate of the
    opacities).
    """
    stems, placement = build.placement.stems, build.placement
    if len(stems) == 0:
        return None
    seen = flower_mass(build)
    radius = stems.round_reach_m
    wide = float((placement.tip_m[:, 0] + radius).max() - (placement.tip_m[:, 0] - radius).min())
    deep = float((placement.tip_m[:, 1] + radius).max() - (placement.tip_m[:, 1] - radius).min())
    return Shares(
        mass=sides_of(build.rows.mass_kg, build.rows.centre_m),
        sight=sides_of(_visual(seen), seen.centre_m),
        depth_to_width=deep / max(wide, 1e-6),
        openness=openness(build, seen),
        varieties=_varieties(build),
    )


def openness(build: Build, mass: Mass) -> float:
    """Share of the envelope that is air, 0-1: what balls of heads and leaves leave of evenly spread points.

    Source: quasi-random points of equal volume (Fibonacci directions, cube-root radii); opacities are estimates.
    """
    envelope, rule = build.piece.envelope, FORM_RULES[build.piece.envelope.form]
    index = np.arange(_POINTS)
    up = 1.0 - (index + 0.5) / _POINTS
    turn = index * GOLDEN_ANGLE_RAD
    flat = np.sqrt(1.0 - up * up)
    rays = np.stack([flat * np.sin(turn), -flat * np.cos(turn), up], axis=1)
    half = np.array([envelope.width_m / 2, envelope.depth_m / 2, max(envelope.height_m - build.rim_z_m, 1e-3)])
    out = np.cbrt((index * 0.7548776662466927) % 1.0)[:, None]
    points = rays * rule.scale(rays) * half * out + [0.0, 0.0, build.rim_z_m]
    right, back, up_m = (points[:, axis, None] - mass.centre_m[:, axis] for axis in range(3))
    inside = right * right + back * back + up_m * up_m < mass.radius_m**2
    return float(np.prod(1.0 - inside * np.minimum(mass.opacity, 1.0), axis=1).mean())


def _visual(mass: Mass) -> Array:
    """Visual mass of each ball: its disc times its opacity, m². Source: projection of a ball."""
    return np.asarray(np.pi * mass.radius_m**2 * mass.opacity)


def _varieties(build: Build) -> tuple[VarietyShare, ...]:
    stems = build.placement.stems
    disc = np.pi * stems.head_radius_m**2
    number, seen = float(stems.stems_in_row.sum()), float(disc.sum())
    merged: dict[str, VarietyShare] = {}
    for _, variety, first, rows in stems.lines:
        part = slice(first, first + rows)
        count, area = int(stems.stems_in_row[part].sum()), float(disc[part].sum())
        before = merged.get(variety.key)
        merged[variety.key] = VarietyShare(
            variety=variety.key,
            name=variety.name,
            colour=variety.colour,
            stems=count + (before.stems if before else 0),
            of_stems=count / number + (before.of_stems if before else 0.0),
            of_sight=area / seen + (before.of_sight if before else 0.0),
        )
    return tuple(sorted(merged.values(), key=lambda each: -each.of_sight))
