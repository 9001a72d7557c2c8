"""Where the tips of all stems are aimed: form, roles, colour arrangement, and what hands have placed."""

import colorsys
from typing import Literal

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.placement.forms import dome
from jolly_trellis.core.plan.piece import Arrangement, Envelope
from jolly_trellis.core.plan.recipe import HandPlaced
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.stems.stem_set import StemSet

BASE_OVER_RIM = rule("Base stems reach over the rim, share of the mouth", "ratio", 1.15, COMMON_PRACTICE)
_KEEPS_PLACE = ("margin", "base")


def aim_tips(
    stems: StemSet,
    envelope: Envelope,
    *,
    from_m: float,
    mouth_m: tuple[float, float],
    arrangement: Arrangement,
    hand_placed: tuple[HandPlaced, ...],
) -> tuple[Array, Flags]:
    """Tips of all rows, and which of them a hand has placed.

    Each recipe line is spread evenly by itself, then every stem but margins and base is moved to the nearest free
    place of one even spread over the form; colour arrangement changes where a line would like to be.

    Args:
        stems: the recipe laid out in order.
        envelope: total height from the vessel's underside, width, depth and form.
        from_m: height the form grows from, m: the rim.
        mouth_m: inside width and depth of the mouth, m; base stems reach over it, or they would cover no rim.
        arrangement: even, clusters, gradient, or repeated on the far side.
        hand_placed: kept where they are; the rest fills round them.
    Returns: tips, shape (n, 3), metres in the vessel's frame; flags, shape (n,).
    """
    number = len(stems)
    held = np.zeros(number, dtype=np.bool_)
    if number == 0:
        return np.zeros((0, 3)), held
    rule = FORM_RULES[envelope.form]
    half = np.array([envelope.width_m / 2, envelope.depth_m / 2, max(envelope.height_m - from_m, 1e-3)])
    wanted, reach = [], []
    for place, (line, _, _, rows) in enumerate(stems.lines):
        wanted.append(rule.directions(line.role, rows, place * 1.1))
        low, high = (each.value for each in dome.REACH[line.role])
        reach.append(low + (high - low) * ((np.arange(rows) * 0.618034) % 1.0))
    aimed = np.concatenate(wanted)
    if arrangement != "even":
        _arrange(aimed, stems, arrangement)
    placed = _rows_placed(stems, hand_placed)
    for row, place_ in placed.items():
        at = np.array([place_.tip_x_m, place_.tip_y_m, max(place_.tip_z_m - from_m, 0.0)]) / half
        aimed[row] = at / max(float(np.linalg.norm(at)), 1e-9)
        held[row] = True
    _spread_out(aimed, stems, rule.directions("filler", number, 0.0), held)
    sizes = half * np.concatenate(reach)[:, None]
    base = np.array([stems.role_of(row) == "base" for row in range(number)])
    over_rim = BASE_OVER_RIM.value * np.array([*mouth_m, 0.0]) / 2
    sizes[base] = np.maximum(sizes[base], over_rim)
    tips = aimed * rule.scale(aimed) * sizes
    tips[:, 2] = from_m + np.maximum(tips[:, 2], stems.head_radius_m / 3)
    for row, place_ in placed.items():
        tips[row] = (place_.tip_x_m, place_.tip_y_m, max(place_.tip_z_m, from_m + 0.005))
    return tips, held


View = Literal["front", "side", "above"]


@remembered
def outline_m(envelope: Envelope, *, from_m: float, view: View) -> tuple[tuple[float, float], ...]:
    """Outline of the envelope: (x, z) from the front, (y, z) from the right side, or (x, y) from above, metres."""
    rule = FORM_RULES[envelope.form]
    half = np.array([envelope.width_m / 2, envelope.depth_m / 2, max(envelope.height_m - from_m, 1e-3)])
    if view == "above":
        turn = np.linspace(0, 2 * np.pi, 61)
        rays = np.stack([np.cos(turn), np.sin(turn), np.zeros_like(turn)], axis=1)
        if rule.front_facing:
            rays[:, 1] = np.minimum(rays[:, 1], (1.0 if rule.back is None else rule.back.value))
    else:
        turn = np.linspace(0, np.pi, 41)
        flat = [np.cos(turn), np.zeros_like(turn)]
        rays = np.stack([*(flat if view == "front" else flat[::-1]), np.sin(turn)], axis=1)
        if view == "side" and rule.front_facing:
            back = 1.0 if rule.back is None else rule.back.value
            rays[:, 1] = np.where(rays[:, 1] > 0, rays[:, 1] * back, rays[:, 1])
    points = rays * rule.scale(rays) * half
    first = points[:, 1] if view == "side" else points[:, 0]
    second = points[:, 1] if view == "above" else from_m + points[:, 2]
    return tuple(zip(first.tolist(), second.tolist(), strict=True))


def _rows_placed(stems: StemSet, hand_placed: tuple[HandPlaced, ...]) -> dict[int, HandPlaced]:
    """The row each hand-placed stem takes: the first of its variety that is still free."""
    taken: dict[int, HandPlaced] = {}
    for each in hand_placed:
        for line, variety, first, rows in stems.lines:
            if line.variety != each.variety and variety.key != each.variety:
                continue
            free_rows = [row for row in range(first, first + rows) if row not in taken]
            if free_rows:
                taken[free_rows[0]] = each
                break
    return taken


def _arrange(aimed: Array, stems: StemSet, arrangement: Arrangement) -> None:
    """Turn the wishes of every line, but margins, towards its place by colour; in place."""
    lines = [index for index, (line, *_) in enumerate(stems.lines) if line.role not in _KEEPS_PLACE]
    if arrangement == "gradient":
        lines.sort(key=lambda index: _hue(stems.lines[index][1].colour))
    for order, index in enumerate(lines):
        _, _, first, rows = stems.lines[index]
        part = aimed[first : first + rows]
        up = np.maximum(part[:, 2], 0.35)
        flat = np.sqrt(1.0 - np.minimum(up, 0.99) ** 2)
        if arrangement == "gradient":
            share = -0.9 + 1.8 * (order + 0.5) / max(len(lines), 1)
            part[:, 0] = share
            part[:, 1] = np.where(np.arange(rows) % 2 == 0, -0.4, 0.4)
        else:
            centre = 2 * np.pi * order / max(len(lines), 1)
            far = np.pi * (np.arange(rows) % 2) if arrangement == "far_side" else np.zeros(rows)
            part[:, 0] = flat * np.sin(centre + far)
            part[:, 1] = -flat * np.cos(centre + far)
        part[:, 2] = up
        part /= np.linalg.norm(part, axis=1)[:, None]


def _hue(colour: str) -> float:
    red, green, blue = (int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5))
    return colorsys.rgb_to_hls(red, green, blue)[0]


def _spread_out(aimed: Array, stems: StemSet, free_places: Array, held: Flags) -> None:
    """Give each row the nearest free place of an even spread; margins, base and held rows stay; in place."""
    nearness = aimed @ free_places.T
    order = np.argsort(~held, kind="stable")
    for row in order.tolist():
        best = int(nearness[row].argmax())
        nearness[:, best] = -2.0
        if not held[row] and stems.role_of(row) not in _KEEPS_PLACE:
            aimed[row] = free_places[best]
