"""A piece as a picture: everything of it but its stems, which are drawn as they are placed."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.memory import Same, remembered
from jolly_trellis.core.building.extras import cover_sizes_m
from jolly_trellis.core.building.stacks import support_holds_l
from jolly_trellis.core.checks.hide import CLOSE_AWAY, EYE_SEATED, EYE_STANDING, STOOP, surface_height_m
from jolly_trellis.core.drawing.picture import NOTHING_DRAWN, Eye, EyeKind, Picture
from jolly_trellis.core.drawing.primitives import (
    Aspect,
    Dot,
    Layer,
    Primitive,
    Shape,
    Turned,
    column,
    line,
    place,
    run,
)
from jolly_trellis.core.drawing.vessels import drawn_vessel, drawn_water, level_line, outline_points
from jolly_trellis.core.judging.report import BalanceReport, PlacedStems, Report
from jolly_trellis.core.judging.surroundings import (
    SLAB_M,
    drawn_beside,
    drawn_place,
    dressed,
    hung_stems,
    moss_round,
    stones_in,
)
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.vessels import Vessel, inside_size_m
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.piece import Insert, Piece, Support
from jolly_trellis.core.plan.setting import People

_ROSE = 0.028
_Outline = tuple[tuple[float, float], ...]


def picture_of(piece: Piece, report: Report, varieties: Mapping[str, Variety]) -> Picture:
    """What is to be seen of a piece.

    Args:
        piece: the plan. report: the same worked out. varieties: the studio's, by key.
    """
    front = report.ledge.front_m if report.ledge is not None else 0.0
    hung = hung_stems(piece.spill if report.ledge is not None else None, front, varieties)
    up = report.raised_m
    reach = _reach(piece, report)
    parts: list[Primitive] = [
        *([] if is_worn(piece) else drawn_place(piece, report, reach)),
        *drawn_beside(piece, report),
        *_support(piece.support),
        *_insert(piece.insert, piece.vessel, up),
        *([] if is_worn(piece) else _vessel_of(piece, report)),
        *_levels(piece, report),
        *stones_in(piece, up),
        *moss_round(piece, up),
        *_wrap(piece, up),
        *_covers(piece, up),
        *_rods(report),
        *_binding(report),
        *(() if is_worn(piece) else _asked_for(report)),
        *_balance(report),
        *_from_above(piece, report),
    ]
    rims = (report.rim_m, *(each.rim_m for each in report.companions))
    top = max(piece.envelope.height_m, report.outline.height_m, *rims)
    low = min(hung.tip_z_m, default=0.0) - 0.03 if hung else -SLAB_M if report.ledge is not None else 0.0
    if is_worn(piece) and report.stems:
        low = min(*report.stems.end_z_m, *report.stems.tip_z_m) - 0.02
        top = report.outline.height_m
    low = min(low, -piece.spill.drop_m) if piece.spill is not None and report.ledge is not None else low
    return Picture(
        primitives=tuple(parts),
        hung=hung,
        rims_m=tuple(round(each, 4) for each in rims),
        reach_m=round(reach, 4),
        deep_m=round(reach, 4),
        low_m=round(low, 4),
        top_m=round(top, 4),
        eyes=eyes_of(piece, top_m=top, reach_m=reach),
    )


def _vessel_of(piece: Piece, report: Report) -> list[Primitive]:
    """The vessel with what is in it; what is worn waits in none."""
    up = report.raised_m
    return [
        *drawn_vessel(piece.vessel, up_m=up),
        *dressed(piece.vessel, report.mechanic, report.cells_m, up),
        *drawn_water(piece.vessel, piece.water_level_m, up_m=up),
    ]


def eyes_of(piece: Piece, *, top_m: float, reach_m: float) -> tuple[Eye, ...]:
    """Those that look at a piece: people where they are, and whoever turns it, stoops and comes close.

    Args:
        top_m: its highest point over the surface. reach_m: how far it goes out.
    """
    people = piece.setting.people or People()
    surface, middle = surface_height_m(piece), top_m / 2
    places: tuple[tuple[EyeKind, float, float], ...] = (
        ("standing", people.standing_distance_m, EYE_STANDING.value - surface),
        ("seated", people.seat_distance_m, EYE_SEATED.value - surface),
        ("low", people.standing_distance_m, middle),
        ("close", reach_m + CLOSE_AWAY.value, top_m + CLOSE_AWAY.value),
        ("from under", reach_m + CLOSE_AWAY.value, middle - STOOP.value),
    )
    found = [
        Eye(kind=kind, away_m=away, height_m=high, raised_rad=round(math.atan2(high - middle, away), 6))
        for kind, away, high in places
    ]
    above = Eye(kind="from above", away_m=0.0, height_m=top_m + 1.0, raised_rad=round(math.pi / 2, 6))
    cut = Eye(kind="cut open", away_m=people.standing_distance_m, height_m=middle, raised_rad=0.0)
    return (cut, *found, above)


def bare_picture(
    piece: Piece, mechanic: SizedMechanic, cells: tuple[tuple[float, float], ...], raised_m: float
) -> Picture:
    """Its vessel with what is under it and in it, and nothing else, to be set beside others.

    Args:
        mechanic: sized to the vessel. cells: its seats, (x, y), m. raised_m: of the vessel's underside.
    """
    vessel = piece.vessel
    parts = [
        *_support(piece.support),
        *_insert(piece.insert, vessel, raised_m),
        *drawn_vessel(vessel, up_m=raised_m),
        *dressed(vessel, mechanic, cells, raised_m),
        *drawn_water(vessel, piece.water_level_m, up_m=raised_m),
    ]
    rim = raised_m + vessel.rim_m
    half = max(max(point.width_m, point.depth_m) for point in vessel.profile) / 2
    return replace(
        NOTHING_DRAWN,
        primitives=tuple(parts),
        rims_m=(round(rim, 4),),
        reach_m=round(half, 4),
        deep_m=round(half, 4),
        top_m=round(rim, 4),
    )


def _reach(piece: Piece, report: Report) -> float:
    """How far anything of it goes from the middle, m."""
    sizes = [max(point.width_m, point.depth_m) / 2 + piece.vessel.wall_m for point in piece.vessel.profile]
    stems = report.stems
    heads = zip(stems.tip_x_m, stems.tip_y_m, stems.head_radius_m, strict=True)
    sizes += [math.hypot(x, y) + radius for x, y, radius in heads]
    sizes += [math.hypot(each.x_m, each.y_m) + 0.08 for each in report.companions]
    if piece.support is not None:
        sizes.append(max(piece.support.foot_width_m or 0.0, piece.support.column_width_m) / 2)
    if piece.insert is not None:
        sizes += [max(point.width_m, point.depth_m) / 2 for point in piece.insert.outer.profile]
    if not stems:
        sizes += [piece.envelope.width_m / 2, piece.envelope.depth_m / 2]
    return max(sizes)


def _support(support: Support | None) -> list[Primitive]:
    """A cylinder with its water, or a stand with foot, column and plate."""
    if support is None:
        return []
    ink = "glass" if support.clear else "clay"
    half, top, tall = support.column_width_m / 2, support.top_width_m / 2, support.height_m
    foot = (support.foot_width_m or support.column_width_m) / 2
    if support.opening_m <= 0:
        plate = min(0.008, tall / 4)
        rings = [(0, foot), (plate, foot), (plate, half), (tall - plate, half), (tall - plate, top), (tall, top)]
        return [column("support", ink, Layer.SUPPORT, rings)]
    inside = max(half - 0.004, 0.005)
    level = min(support.water_l / support_holds_l(support), 1.0) * (tall - 0.012) if support.water_l else 0.0
    found: list[Primitive] = [
        column("support", ink, Layer.SUPPORT, [(0, half), (tall, half)]),
        replace(column("support-inside", "inside", Layer.SUPPORT, [(0.01, inside), (tall, inside)]), inside=True),
    ]
    if level > 0:
        found.append(column("support-water", "water", Layer.SUPPORT, [(0.01, inside), (0.01 + level, inside)]))
    return found


def _insert(insert: Insert | None, vessel: Vessel, up: float) -> list[Primitive]:
    """The urn that an insert sits in, and the block under it."""
    if insert is None:
        return []
    outer = insert.outer
    found: list[Primitive] = list(drawn_vessel(outer, name="urn", layer=Layer.SUPPORT))
    if up > outer.base_m + 0.002:
        half = 0.8 * min(inside_size_m(outer, 0)[0], inside_size_m(vessel, 0)[0]) / 2
        found.append(column("riser", "stone", Layer.SUPPORT, [(outer.base_m, half), (up, half)]))
    return found


def _levels(piece: Piece, report: Report) -> list[Primitive]:
    """The lowest level that the water comes to, and the level it travels at, where they are others."""
    level, water = piece.water_level_m, report.water
    found = []
    if water.lowest_level_m is not None and water.lowest_level_m < level - 0.002:
        found.append(
            level_line("water-low", "water low", piece.vessel, max(water.lowest_level_m, 0.0), report.raised_m)
        )
    if water.travel_level_m is not None and abs(water.travel_level_m - level) > 0.002:
        found.append(level_line("water-travel", "water travel", piece.vessel, water.travel_level_m, report.raised_m))
    return _only(found, "cut")


def _wrap(piece: Piece, up: float) -> list[Primitive]:
    """Netting round the outside of the vessel, and the leaves that line clear glass."""
    vessel = piece.vessel
    found: list[Primitive] = []
    if piece.wrap_height_m > 0:
        top = min(piece.wrap_height_m, vessel.rim_m)
        runs = []
        for step in range(7):
            height = top * step / 6
            width, depth = inside_size_m(vessel, height - vessel.base_m)
            points = outline_points(
                vessel, width / 2 + vessel.wall_m + 0.002, depth / 2 + vessel.wall_m + 0.002, up + height
            )
            runs.append(run(points))
        found.append(line("wrap", "wire", Layer.OVER, *runs, closed=True))
    if piece.lining:
        lined = drawn_water(vessel, vessel.inside_depth_m, up_m=up, name="lining")[0]
        if isinstance(lined, Turned):
            found.append(
                Turned(
                    id="lining",
                    ink="lining",
                    layer=Layer.UNDER,
                    plan_shape=lined.plan_shape,
                    rings=lined.rings,
                    open=True,
                )
            )
    return found


_COVER_INKS = {"moss": "moss", "cloth": "clay", "ribbon": "string", "leaf": "lining"}


def _covers(piece: Piece, up: float) -> list[Primitive]:
    """What is laid over the rim or round the outside, as a band as wide as it is."""
    vessel, found = piece.vessel, list[Primitive]()
    for index, cover in enumerate(piece.covers):
        if cover.on not in ("rim", "outside"):
            continue
        _, wide = cover_sizes_m(cover, piece)
        top = up + vessel.rim_m + (0.012 if cover.on == "rim" else 0.0)
        half = vessel.mouth_width_m / 2 + vessel.wall_m + 0.006
        rings = [(max(top - wide, 0.0), half), (top, half)]
        found.append(column(f"cover-{index}", _COVER_INKS[cover.kind], Layer.OVER, rings))
    return found


def _rods(report: Report) -> list[Primitive]:
    """The rod under each spike cup, from the cup down to its foot; and the base wire of a crown."""
    found: list[Primitive] = []
    stems = report.stems
    for index, rod in enumerate(stems.rod_m):
        if rod <= 0:
            continue
        end = np.array([stems.end_x_m[index], stems.end_y_m[index], stems.end_z_m[index]])
        tip = np.array([stems.tip_x_m[index], stems.tip_y_m[index], stems.tip_z_m[index]])
        down = (end - tip) / max(float(np.linalg.norm(end - tip)), 1e-9)
        found.append(line(f"rod-{index}", "twig", Layer.UNDER, run(np.stack([end, end + rod * down])), width_m=0.005))
    if report.mechanic.worn == "head" and report.bouquet is not None and stems:
        radius = max(map(math.hypot, stems.tip_x_m, stems.tip_y_m))
        turns = np.linspace(0, 2 * math.pi, 49)[:-1]
        ring = np.column_stack([radius * np.cos(turns), radius * np.sin(turns), np.full(48, report.bouquet.under_m)])
        found.append(line("crown", "wire", Layer.UNDER, run(ring), closed=True))
    return found


def _binding(report: Report) -> list[Primitive]:
    """A bouquet's tape round its handle, and the plane under its flowers."""
    made = report.bouquet
    if made is None or made.handle_m <= 0 or report.mechanic.worn == "head":
        return []
    half = made.handle_m / 2 + 0.002
    turns = np.linspace(0, 2 * math.pi, 25)[:-1]
    under = np.column_stack([2.2 * half * np.cos(turns), 2.2 * half * np.sin(turns), np.full(24, made.under_m)])
    return [
        column("binding", "binding", Layer.OVER, [(made.binding_m - 0.02, half), (made.binding_m + 0.02, half)]),
        *_only([line("bouquet-under", "water low", Layer.MARKS, run(under), closed=True)], "cut"),
    ]


def _asked_for(report: Report) -> tuple[Primitive, ...]:
    """The size that was wanted, from the front, the side and above."""
    return _outlines(report.envelope_front, report.envelope_side, report.envelope_above)


@remembered
def _outlines(from_front: _Outline, from_side: _Outline, from_above: _Outline) -> tuple[Primitive, ...]:
    front = run([(x, 0, z) for x, z in from_front])
    side = run([(0, y, z) for y, z in from_side])
    above = run([(x, y, 0) for x, y in from_above])
    return (
        *_only([line("envelope-front", "envelope", Layer.MARKS, front)], "front"),
        *_only([line("envelope-side", "envelope", Layer.MARKS, side)], "side"),
        *_only([line("envelope-above", "envelope", Layer.MARKS, above, closed=True)], "above"),
    )


def _balance(report: Report) -> list[Primitive]:
    if report.balance is None or report.bouquet is not None:
        return []
    at = place(report.balance.x_m, report.balance.y_m, report.balance.height_m)
    return _only([Dot(id="balance", ink="balance", layer=Layer.MARKS, at=at, r_m=0.006)], "cut", "above")


def _from_above(piece: Piece, report: Report) -> list[Primitive]:
    """Rim and foot, tape, seats, and the curve of the angles it tips at."""
    seats = _seats(Same(report.stems))
    if is_worn(piece):
        return list(seats)
    vessel, floor = piece.vessel, 0.0
    found: list[Primitive] = []
    half = vessel.mouth_width_m / 2, vessel.mouth_depth_m / 2
    for name, ink, add in (("rim", "rim", 0.0), ("rim-outside", "rim", vessel.wall_m)):
        points = outline_points(vessel, half[0] + add, half[1] + add, floor, 2)
        found.append(line(name, ink, Layer.MARKS, run(points), closed=True))
    if report.foot_width_m and report.foot_depth_m:
        foot = outline_points(vessel, report.foot_width_m / 2, report.foot_depth_m / 2, floor, 2)
        found.append(line("foot", "foot", Layer.MARKS, run(foot), closed=True))
    found += _tapes(piece, report, half)
    rose = [] if report.balance is None else _rose(report, report.balance)
    return [*_only(found, "above"), *seats, *_only(rose, "above")]


@remembered
def _seats(placed: Same[PlacedStems]) -> tuple[Primitive, ...]:
    """Where stems go in, from above."""
    stems = placed.thing
    rows = zip(stems.seat_x_m, stems.seat_y_m, stems.diameter_m, strict=True)
    return tuple(
        Dot(
            id=f"seat-{index}",
            ink="seat",
            layer=Layer.MARKS,
            at=place(x, y, 0),
            r_m=round(max(diameter / 2, 0.0022), 4),
            seen=("above",),
        )
        for index, (x, y, diameter) in enumerate(rows)
    )


def _tapes(piece: Piece, report: Report, half: tuple[float, float]) -> list[Primitive]:
    """Strips of tape over the mouth: one across the middle, two crossed there, more so many each way."""
    strips = report.mechanic.tape_strips if report.seat_pattern == "hexagonal" else 0
    cornered = piece.vessel.plan_shape in ("square", "rectangular")
    if strips == 1 and piece.mechanic.kind == "moss_sandwich" and cornered:
        return [line("tapes", "tape", Layer.MARKS, run([(-half[0], -half[1], 0), (half[0], half[1], 0)]))]
    runs = []
    for way, number in enumerate((math.ceil(strips / 2), strips // 2)):
        for nth in range(number):
            share = (2 * nth + 1) / number - 1
            reach = 1.0 if cornered else math.sqrt(1 - share**2)
            ends = [(sign * reach * half[way], share * half[1 - way]) for sign in (-1, 1)]
            runs.append(run([(x, y, 0) if way == 0 else (y, x, 0) for x, y in ends]))
    return [line("tapes", "tape", Layer.MARKS, *runs)] if runs else []


def _rose(report: Report, balance: BalanceReport) -> list[Primitive]:
    """The angle it tips at in every direction as a curve; the ring is the limit."""
    stand = next((each for each in report.verdicts if each.verb == "stand"), None)
    tilt = next((each for each in (stand.findings if stand else ()) if each.check == "tilt"), None)
    if tilt is None or tilt.limit.value <= 0:
        return []
    angles = np.maximum(np.array(balance.tip_angles_rad), 0.0)
    turns = np.arange(len(angles)) * (2 * math.pi / len(angles))
    out = _ROSE * angles / tilt.limit.value
    curve = np.column_stack([out * np.sin(turns), -out * np.cos(turns), np.zeros(len(angles))])
    ring = np.column_stack([_ROSE * np.sin(turns), -_ROSE * np.cos(turns), np.zeros(len(angles))])
    rose = Shape(kind="face", id="tip-rose", ink="rose", layer=Layer.MARKS, runs=(run(curve),), closed=True)
    return [rose, line("tip-limit", "rose limit", Layer.MARKS, run(ring), closed=True)]


def _only(parts: Sequence[Primitive], *aspects: Aspect) -> list[Primitive]:
    """Parts that are there in some aspects only."""
    return [replace(each, seen=aspects) for each in parts]
