"""The book of water on show: how a vessel is drunk down, which cut end runs dry first and when."""

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.acts.acts import Level
from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.air import COVER_UNDER_FLOWERS, COVER_UNDER_MOSS, draw_factor, evaporation_ml_h
from jolly_trellis.core.materials.vessels import BRIM_GAP, Vessel, inside_size_m
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.placement.water_table import WaterTable
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.setting import TopUp
from jolly_trellis.core.provenance import COMMON_PRACTICE

CAREFUL = rule("Careful driving, of gravity, for slopping water", "ratio", 0.3)
JUG_L = rule("Water carried in one jug", "volume", 2.0, COMMON_PRACTICE)
HEAVY_DRAW = measure("Draw of thirsty days against typical", "ratio", 1.3)
STEM_END_COVER = rule("Water over every cut end at the start", "length", 0.02)
HURRIED_FILL = rule("A hurried fill stops short of the mark by", "length", 0.01)
MOST_HOURS = 240.0
HURRIED_SHARE = rule("A hurried fill stops short of the mark by, at most, of the level", "ratio", 0.25)
_SAMPLES_PER_H = 2
CUP_LOW = rule("A cup of a mechanic's own counts in the low case as full to", "ratio", 0.9)


@dataclass(frozen=True, slots=True, kw_only=True)
class Course:
    """How the water goes: hours to the first dry cut end (None: not within ten days) and its row.

    `hours` and `levels_m` follow the level; `lowest_level_m` is the lowest before the event's end and
    `drawn_l` what is drunk and lost until then.
    """

    first_dry_h: float | None
    first_dry_row: int | None
    hours: tuple[float, ...]
    levels_m: tuple[float, ...]
    lowest_level_m: float
    drawn_l: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Fall:
    """Volumes the water passes on its way down, falling, and the hours at which it passes them."""

    volumes_l: Array
    hours: Array

    def volume_at(self, hour: Array) -> Array:
        return np.interp(hour, self.hours, self.volumes_l)

    def hour_at(self, volume_l: float) -> float:
        return float(np.interp(-volume_l, -self.volumes_l, self.hours, right=np.inf))


def run_down(
    water: WaterTable,
    *,
    level_m: float,
    end_levels_m: Array,
    draws_ml_h: Array,
    evaporation_ml_h_m2: float,
    needed_h: float,
    top_ups: tuple[TopUp, ...] = (),
) -> Course:
    """Let stems drink a vessel down; each stops as its own end runs dry.

    Between one top-up and the next the rate depends on the volume alone, so the hours follow from
    t = ∫ dV/rate(V), taken slab by slab of the water table and the cut ends.

    Args:
        water: the vessel's water by level.
        level_m: level at the start, m above the inside floor.
        end_levels_m: height of each cut end above the inside floor, m, shape (n,).
        draws_ml_h: draw of each stem in this air, ml/h, shape (n,).
        evaporation_ml_h_m2: loss of each m² of surface, ml/h.
        needed_h: hours until the end of the event, ≥ 0.
        top_ups: water poured in, in order of time; what does not fit under the brim is left out.
    Source: conservation of volume.
    """
    dry_at_l = np.interp(end_levels_m, water.level_m, water.volume_l)
    brim_l = max(water.volume_at_l(float(water.level_m[-1]) - BRIM_GAP.value), water.volume_at_l(level_m))
    highest = int(dry_at_l.argmax()) if len(dry_at_l) else None
    volume_l, now, poured = water.volume_at_l(level_m), 0.0, 0.0
    first: float | None = None
    hours = sampled_h(needed_h)
    volumes = np.zeros_like(hours)
    for until, pour_l in [*((each.after_h, each.volume_l) for each in top_ups), (MOST_HOURS, 0.0)]:
        fall = fall_from(water, volume_l, dry_at_l, draws_ml_h, evaporation_ml_h_m2)
        inside = (hours >= now - 1e-9) & (hours <= until + 1e-9)
        volumes[inside] = fall.volume_at(hours[inside] - now)
        if highest is not None and first is None:
            dry_after = 0.0 if volume_l <= dry_at_l[highest] else fall.hour_at(float(dry_at_l[highest]))
            first = now + dry_after if now + dry_after <= until else None
        left = float(fall.volume_at(np.array([until - now]))[0])
        volume_l = min(left + pour_l, brim_l)
        poured += volume_l - left if until <= needed_h else 0.0
        now = until
    before_end = hours <= needed_h + 1e-9
    levels = np.interp(volumes, water.volume_l, water.level_m)
    end_l = float(np.interp(needed_h, hours, volumes))
    return Course(
        first_dry_h=first,
        first_dry_row=None if first is None else highest,
        hours=tuple(hours.tolist()),
        levels_m=tuple(levels.tolist()),
        lowest_level_m=float(levels[before_end].min()),
        drawn_l=water.volume_at_l(level_m) + poured - end_l,
    )


@remembered
def sampled_h(needed_h: float) -> Array:
    """The hours at which a course is told, the event's end among them, rising."""
    hours = np.arange(0.0, min(max(needed_h * 1.5, 12.0), MOST_HOURS), 1 / _SAMPLES_PER_H)
    return np.union1d(hours, [needed_h])


@remembered
def _stops_l(water: WaterTable, dry_at_l: Array) -> tuple[Array, npt.NDArray[np.intp]]:
    """Every volume, rising, at which the rate of a fall changes; and the cut ends from the lowest."""
    stops = np.unique(np.concatenate([water.volume_l, dry_at_l, [0.0]]))
    return stops, np.argsort(dry_at_l)


def fall_from(
    water: WaterTable, start_l: float, dry_at_l: Array, draws_ml_h: Array, evaporation_ml_h_m2: float
) -> Fall:
    """The fall from a volume with nothing poured in."""
    stops, order = _stops_l(water, dry_at_l)
    volumes = np.append(stops[: np.searchsorted(stops, start_l)], start_l)[::-1]
    if len(volumes) < 2:
        return Fall(volumes_l=np.zeros(2), hours=np.array([0.0, MOST_HOURS]))
    middle = (volumes[1:] + volumes[:-1]) / 2
    total = np.concatenate([[0.0], np.cumsum(draws_ml_h[order])])
    drawing = total[np.searchsorted(dry_at_l[order], middle)]
    area = np.interp(middle, water.volume_l, water.area_m2)
    rate_l_h = np.maximum((drawing + evaporation_ml_h_m2 * area) / 1000, 1e-9)
    return Fall(volumes_l=volumes, hours=np.concatenate([[0.0], np.cumsum(-np.diff(volumes) / rate_l_h)]))


def hurried_m(level_m: float) -> float:
    """How far short of a level a hurried fill stops: 1 cm, but no more than a quarter of it, m. Source: estimate."""
    return min(HURRIED_FILL.value, HURRIED_SHARE.value * level_m)


def needed_hours(conditions: Conditions) -> float | None:
    """Hours from the first filling to the end of the event; None where either time is not known.

    Counted as elapsed time, so that a clock change at night does not add or lose an hour.
    """
    start, end = conditions.filled_at, conditions.ends_at
    return None if start is None or end is None else (end.timestamp() - start.timestamp()) / 3600


def slop_m(accel_ratio: float, radius_m: float, factor: float = 1.0) -> float:
    """How far water climbs the wall: a·R·factor, metres.

    Args:
        accel_ratio: acceleration over gravity.
        radius_m: half the length of the surface along the drive, m.
        factor: 1.3 open water, 1.0 under wire, 0.7 with moss.
    Valid for: a level at least that deep.
    Source: level surface in an accelerated frame (hydrostatics); factors are estimates.
    """
    return accel_ratio * radius_m * factor


def along_drive_m(vessel: Vessel, level_m: float) -> float:
    """Half the water surface along the drive: troughs ride across, so the shorter side of long vessels, metres."""
    width, depth = inside_size_m(vessel, level_m)
    return min(width, depth) / 2


def steady_level_m(piece: Piece, mechanic: SizedMechanic) -> float:
    """Highest level that careful driving keeps in, metres: the rim less a·R·factor, never above the level on show.

    Where that depth is more than the level itself the vessel travels dry or nearly so.

    Source: `slop_m` at 0.3 g, fixed point in at most 20 rounds; rounded down to 1 mm.
    """
    depth = piece.vessel.inside_depth_m
    level = min(piece.water_level_m, depth)
    for _ in range(20):
        climbs = slop_m(CAREFUL.value, along_drive_m(piece.vessel, level), mechanic.slop_factor)
        lower = min(level, max(depth - climbs, 0.0))
        if abs(lower - level) < 1e-5:
            break
        level = lower
    return math.floor(level * 1000 + 1e-6) / 1000


def level_of_m(piece: Piece, mechanic: SizedMechanic, level: Level | None) -> float:
    """Height of the water at a level of an act, metres above the inside floor; None is dry.

    On show as planned; for the road as somebody said, else what careful driving keeps in; on the bench as it is left
    overnight, which is the road's level where nobody said another. Nobody said how it travels: as on show.
    """
    going = piece.transport
    if level is None:
        return 0.0
    if level == "show" or going is None:
        return piece.water_level_m
    if level == "bench" and going.overnight_level_m is not None:
        return going.overnight_level_m
    return steady_level_m(piece, mechanic) if going.water_level_m is None else going.water_level_m


def pooled(
    *, volume_l: float, level_m: float, draw_ml_h: float, needed_h: float, top_ups: tuple[TopUp, ...], row: int
) -> Course:
    """Stems that share one store of water to its last drop: a soaked block, the fullest of several cups.

    Args:
        volume_l: water that stems can drink, L, ≥ 0.
        level_m: level it stands at when full, for the drawing; it falls in proportion.
        draw_ml_h: of all that drink from it, evaporation included, ml/h.
        top_ups: water poured in; what does not fit is left out.
        row: the stem to name.
    Source: conservation of volume.
    """
    rate = max(draw_ml_h / 1000, 1e-9)
    left, now, first, poured = volume_l, 0.0, None, 0.0
    hours = sampled_h(needed_h)
    volumes = np.zeros_like(hours)
    for until, pour_l in [*((each.after_h, each.volume_l) for each in top_ups), (MOST_HOURS, 0.0)]:
        inside = (hours >= now - 1e-9) & (hours <= until + 1e-9)
        volumes[inside] = np.maximum(left - rate * (hours[inside] - now), 0.0)
        if first is None and now + left / rate <= until:
            first = now + left / rate
        left = max(left - rate * (until - now), 0.0)
        room = min(pour_l, volume_l - left)
        poured += room if until <= needed_h else 0.0
        left, now = left + room, until
    levels = level_m * volumes / max(volume_l, 1e-9)
    before_end = hours <= needed_h + 1e-9
    return Course(
        first_dry_h=first,
        first_dry_row=None if first is None else row,
        hours=tuple(hours.tolist()),
        levels_m=tuple(levels.tolist()),
        lowest_level_m=float(levels[before_end].min()),
        drawn_l=volume_l + poured - float(np.interp(needed_h, hours, volumes)),
    )


def courses(
    piece: Piece, conditions: Conditions, mechanic: SizedMechanic, placement: Placement, water: WaterTable
) -> tuple[Course, Course, Course] | None:
    """How the water goes in the typical, heavy and low case; None where times, air or stems are not known.

    Heavy drinks 1.3 times as much; low starts 1 cm short. Top-ups count only where somebody is named. Stems in tubes
    or wraps of their own draw nothing from the vessel.
    """
    needed = needed_hours(conditions)
    drinks = placement.stems.drinks
    air = piece.setting.air or conditions.air
    if air is None or needed is None or not drinks.any():
        return None
    top_ups = tuple(sorted(piece.top_ups, key=lambda each: each.after_h)) if conditions.topped_up_by else ()
    draws = placement.stems.uptake_ml_h * draw_factor(air) * drinks
    level = piece.water_level_m
    short = level - hurried_m(level)
    cover = COVER_UNDER_MOSS if mechanic.mossed else COVER_UNDER_FLOWERS
    evaporates = evaporation_ml_h(1.0, air, cover.value)
    needed = max(needed, 0.0)
    if mechanic.own_cups:
        cup = np.bincount(placement.seat_cell, weights=draws)
        worst = int(cup.argmax())
        row = int((placement.seat_cell == worst).argmax())
        each_l = mechanic.own_water_l / mechanic.own_cups

        def cups(factor: float, share: float) -> Course:
            return pooled(
                volume_l=each_l * share,
                level_m=level,
                draw_ml_h=float(cup[worst]) * factor,
                needed_h=needed,
                top_ups=(),
                row=row,
            )

        return cups(1.0, 1.0), cups(HEAVY_DRAW.value, 1.0), cups(1.0, CUP_LOW.value)
    if mechanic.absorbed_l and not mechanic.flat:
        thirstiest = int(draws.argmax())
        lost = evaporates * float(np.interp(level, water.level_m, water.area_m2))

        def block(level_m: float, factor: float) -> Course:
            free = water.volume_at_l(level_m)
            return pooled(
                volume_l=mechanic.absorbed_l * mechanic.deliverable_share + free,
                level_m=level_m,
                draw_ml_h=float(draws.sum()) * factor + lost,
                needed_h=needed,
                top_ups=top_ups,
                row=thirstiest,
            )

        return block(level, 1.0), block(level, HEAVY_DRAW.value), block(short, 1.0)
    ends = np.where(drinks, placement.end_height_m, -1.0)

    def run(level_m: float, draws_ml_h: Array) -> Course:
        return run_down(
            water,
            level_m=level_m,
            end_levels_m=ends,
            draws_ml_h=draws_ml_h,
            evaporation_ml_h_m2=evaporates,
            needed_h=needed,
            top_ups=top_ups,
        )

    return run(level, draws), run(level, draws * HEAVY_DRAW.value), run(short, draws)
