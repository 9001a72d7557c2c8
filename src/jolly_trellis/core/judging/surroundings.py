"""What a piece stands on and before, and what stands or hangs beside it, as they look."""

import math
from collections.abc import Mapping

import numpy as np

from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.building.build import companion_piece
from jolly_trellis.core.building.extras import moss_round_m
from jolly_trellis.core.drawing.picture import Stem, Stems
from jolly_trellis.core.drawing.primitives import (
    Dot,
    Layer,
    Primitive,
    Ring,
    Shape,
    Turned,
    box,
    line,
    moved,
    place,
    run,
)
from jolly_trellis.core.drawing.vessels import drawn_vessel, drawn_water
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.vessels import Vessel, inside_size_m
from jolly_trellis.core.mechanics.drawn import Bed
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.piece import Counterweight, Piece, Spill
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Ledge
from jolly_trellis.core.stems.shades import colours_at
from jolly_trellis.core.stems.tubes import tube_size_m

SLAB_M = 0.07
_CONCRETE = 2400
_ROOM = 1.13
_STONE_KG = 0.05


def drawn_place(piece: Piece, report: Report, reach: float) -> list[Primitive]:
    """The surface it stands on; a ledge with its edge and its wall."""
    ledge, where = piece.setting.ledge, report.ledge
    if piece.setting.where != "ledge" or ledge is None or where is None:
        turns = np.linspace(0, 2 * math.pi, 49)[:-1]
        out = _ROOM * reach
        disc = np.column_stack([out * np.cos(turns), out * np.sin(turns), np.zeros(48)])
        return [Shape(kind="face", id="surface", ink="surface", layer=Layer.PLACE, runs=(run(disc),), closed=True)]
    wide, deep = _ROOM * reach, min(SLAB_M, ledge.height_m)
    found: list[Primitive] = [_slab(ledge, where.front_m, where.back_m, wide, deep)]
    if ledge.wall:
        top = max(piece.envelope.height_m, report.outline.height_m, 0.2)
        low, high = place(-wide, where.back_m, -deep), place(wide, where.back_m + 0.015, top)
        found.append(box("ledge-wall", "wall", Layer.PLACE, low, high))
    axis = run([(0, where.axis_m, 0), (0, where.axis_m - 0.012, -0.022), (0, where.axis_m + 0.012, -0.022)])
    found.append(
        Shape(kind="face", id="ledge-axis", ink="axis", layer=Layer.PLACE, runs=(axis,), closed=True, seen=("side",))
    )
    return found


def _slab(ledge: Ledge, front: float, back: float, wide: float, deep: float) -> Shape:
    radius = min(ledge.edge_radius_m, deep)
    turns = np.linspace(0, math.pi / 2, 7) if radius > 0 else np.zeros(1)
    edge = [(front + radius - radius * math.sin(a), -radius + radius * math.cos(a)) for a in turns.tolist()]
    section = [(back, 0.0), *edge, (front, -deep), (back, -deep)]
    corners = run([(x, y, z) for x in (-wide, wide) for y, z in section])
    return Shape(kind="solid", id="ledge", ink="ledge", layer=Layer.PLACE, runs=(corners,), closed=True)


def drawn_beside(piece: Piece, report: Report) -> list[Primitive]:
    """What stands or hangs beside its own vessel."""
    found: list[Primitive] = []
    for index, (each, made) in enumerate(zip(piece.companions, report.companions, strict=True)):
        own_piece = companion_piece(piece, each)
        own = [
            *drawn_vessel(each.vessel),
            *dressed(each.vessel, made.mechanic, made.cells_m, 0.0),
            *drawn_water(each.vessel, each.water_level_m),
            *stones_in(own_piece, 0.0),
            *moss_round(own_piece, 0.0),
        ]
        found += [moved(part, place(each.x_m, each.y_m, 0.0), f"beside-{index}-") for part in own]
    if piece.spill is not None and report.ledge is not None:
        found += _spill(piece.spill, report.ledge.front_m)
    if piece.counterweight is not None:
        found += _weight(piece.counterweight, piece.vessel)
    return found


def _spill(spill: Spill, front: float) -> list[Primitive]:
    """The strip of netting over the edge, and what holds it."""
    half, out = spill.width_m / 2, front - 0.004
    corners = [(-half, out, 0.004), (half, out, 0.004), (half, out, -spill.drop_m), (-half, out, -spill.drop_m)]
    strip = Shape(kind="face", id="spill", ink="spill", layer=Layer.BESIDE, runs=(run(corners),), closed=True)
    ink = "hook" if spill.held_by == "hook" else "seat"
    at = place(0, front + 0.03, 0.012)
    return [strip, Dot(id="spill-hook", ink=ink, layer=Layer.BESIDE, at=at, r_m=0.008)]


def hung_stems(spill: Spill | None, front: float, varieties: Mapping[str, Variety]) -> Stems:
    """The stems of a spill, mixed all the way down, each out and down from the strip as it hangs."""
    if spill is None:
        return Stems()
    every = _mixed(spill)
    half, out = spill.width_m / 2, front - 0.004
    colours = _colours(every, varieties)
    found = []
    for index, held in enumerate(every):
        variety = varieties[held.variety]
        tube_length, tube_width = tube_size_m(held)
        down = -(index + 0.3) / max(len(every), 1) * max(spill.drop_m - 0.3 * spill.cut_length_m, 0.02)
        side = half * (((index * 0.618) % 1.0) * 2 - 1) * 0.9
        long = spill.cut_length_m * (0.45 + 0.1 * (index % 3))
        away = 0.35 + 0.3 * ((index * 7) % 3) / 2
        found.append(
            Stem(
                colour=colours[index],
                form=variety.form,
                branch=variety.branch,
                held=False,
                seat_x_m=round(side, 4),
                seat_y_m=round(out, 4),
                seat_z_m=round(down, 4),
                tip_x_m=round(side * 1.5, 4),
                tip_y_m=round(out - away * long, 4),
                tip_z_m=round(down - long * math.sqrt(1 - away * away), 4),
                droop_m=0.0,
                end_x_m=round(side, 4),
                end_y_m=round(out, 4),
                end_z_m=round(down, 4),
                diameter_m=variety.stem_diameter_m,
                head_radius_m=variety.head_diameter_m / 2,
                head_height_m=variety.head_height_m,
                tube_length_m=tube_length,
                tube_width_m=tube_width,
            )
        )
    return Stems.of(found)


def _mixed(spill: Spill) -> list[RecipeLine]:
    """Every stem of a spill by its line, each variety spread evenly."""
    places = [((nth + 0.5) / each.count, each.variety, each) for each in spill.recipe for nth in range(each.count)]
    return [line for _, _, line in sorted(places, key=lambda each: each[:2])]


def _colours(every: list[RecipeLine], varieties: Mapping[str, Variety]) -> list[str]:
    """The colour of each stem of a spill: its shades from the top down."""
    found = [""] * len(every)
    for held in dict.fromkeys(every):
        own = [index for index, each in enumerate(every) if each == held]
        down = [float(index) for index in own]
        for index, colour in zip(own, colours_at(held, varieties[held.variety], down, down), strict=True):
            found[index] = colour
    return found


def _weight(weight: Counterweight, vessel: Vessel) -> list[Primitive]:
    """A weight beside the vessel, tied on or not."""
    size = (weight.mass_kg / _CONCRETE) ** (1 / 3)
    x, y = weight.away_m * math.sin(weight.azimuth_rad), -weight.away_m * math.cos(weight.azimuth_rad)
    half = size / 2
    found: list[Primitive] = [
        box("weight", "stone", Layer.BESIDE, place(x - half, y - half, 0), place(x + half, y + half, size))
    ]
    if weight.tied:
        tie = run([(x, y, half), (0, 0, vessel.base_m + 0.02)])
        found.append(line("weight-tie", "tie", Layer.BESIDE, tie))
    return found


def stones_in(piece: Piece, up: float) -> list[Primitive]:
    """Ballast on the floor of a vessel, whose underside is `up` over the surface, m."""
    if piece.ballast_kg <= 0:
        return []
    count = min(18, max(3, round(piece.ballast_kg / _STONE_KG)))
    width, depth = inside_size_m(piece.vessel, 0)
    size = min(width, depth) / 2 / math.sqrt(count) * 0.7
    found: list[Primitive] = []
    for index in range(count):
        out, turn = 0.82 * math.sqrt((index + 0.5) / count), index * 2.4
        at = place(out * width / 2 * math.cos(turn), out * depth / 2 * math.sin(turn), up + piece.vessel.base_m + size)
        found.append(Dot(id=f"stone-{index}", ink="stone", layer=Layer.UNDER, at=at, r_m=round(size, 4)))
    return found


def moss_round(piece: Piece, up: float) -> list[Primitive]:
    """Moss nestled all round, from the rim down to nothing."""
    wide = moss_round_m(piece)
    if wide <= 0:
        return []
    vessel = piece.vessel
    half_width, half_depth = (size / 2 + vessel.wall_m for size in (vessel.mouth_width_m, vessel.mouth_depth_m))
    rings = tuple(
        Ring(
            at=place(0, 0, up + vessel.rim_m * high),
            half_width_m=round(half_width + wide * out, 5),
            half_depth_m=round(half_depth + wide * out, 5),
        )
        for high, out in ((0.0, 1.0), (0.35, 0.86), (0.7, 0.5), (1.0, 0.0))
    )
    return [
        Turned(id="moss-round", ink="moss", layer=Layer.BESIDE, plan_shape=vessel.plan_shape, rings=rings, open=True)
    ]


@remembered
def dressed(
    vessel: Vessel, mechanic: SizedMechanic, cells: tuple[tuple[float, float], ...], up: float
) -> tuple[Primitive, ...]:
    """What a mechanic looks like in its vessel, whose underside is `up` over the surface, m."""
    draw = ABOUT[mechanic.kind].draw
    if draw is None:
        return ()
    drawn = draw(Bed(vessel=vessel, mechanic=mechanic, floor_m=up + vessel.base_m, cells_m=cells))
    return tuple(each for each in drawn if not isinstance(each, Shape) or each.runs)
