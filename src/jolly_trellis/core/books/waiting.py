"""The book of water before the show: on the bench, in the cooler and on the road, and what runs dry there first."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from jolly_trellis.core.acts.acts import Acts
from jolly_trellis.core.acts.stances import WITH_IT, rides_flowered
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.water import CUP_LOW, HEAVY_DRAW, fall_from, hurried_m, level_of_m
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.air import COVER_UNDER_FLOWERS, COVER_UNDER_MOSS, Air, draw_factor, evaporation_ml_h
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.placement.water_table import WaterTable
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.passage import Cooled
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.provenance import COMMON_PRACTICE

COOLER_C = rule("Temperature of a flower cooler", "temperature", 4.0, COMMON_PRACTICE)
COOLER_HUMIDITY = rule("Humidity of a flower cooler", "ratio", 0.85, COMMON_PRACTICE, most=1.0)


Place = Literal["bench", "cooler", "road"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """A time that a finished piece stands somewhere before its water on show goes in: hours, the level it is brought
    to when it begins, m above the inside floor, and the air there."""

    place: Place
    hours: float
    level_m: float
    air: Air


@dataclass(frozen=True, slots=True, kw_only=True)
class Dry:
    """The first cut end that runs dry while a piece waits: hours after it was finished, its row; None for none."""

    after_h: float | None
    row: int | None


def stages_of(piece: Piece, conditions: Conditions, mechanic: SizedMechanic, acts: Acts) -> tuple[Stage, ...]:
    """Where a piece stands with its stems between its making and its water on show; nothing where it is made there.

    On the bench at the level it is left overnight at, which is its travelling level where nobody said another; then
    from loading to filling at its travelling level, in the air of the van, the place's where that is not known. A
    bouquet stands at the level of its vase until it is loaded, and its days in the cooler come first. Empty too where
    a time or an air is not known (`waits_unknown` says which).
    """
    going, filled = piece.transport, conditions.filled_at
    if going is None or not rides_flowered(acts) or waits_unknown(piece, conditions, acts):
        return ()
    finished, loaded, workshop = conditions.finished_at, conditions.loaded_at, conditions.workshop
    road = conditions.van or piece.setting.air or conditions.air
    if filled is None or finished is None or loaded is None or workshop is None or road is None:
        return ()
    level, overnight = level_of_m(piece, mechanic, "road"), level_of_m(piece, mechanic, "bench")
    if piece.carried and going.overnight_level_m is None:
        overnight = max(piece.water_level_m, level)
    bench_h = (loaded.timestamp() - finished.timestamp()) / 3600
    road_h = (filled.timestamp() - loaded.timestamp()) / 3600
    cooled = piece.passage.cooled
    cooler = (
        ()
        if cooled is None
        else (Stage(place="cooler", hours=24 * cooled.days, level_m=overnight, air=cold_air(cooled)),)
    )
    return (
        *cooler,
        Stage(place="bench", hours=max(bench_h, 0.0), level_m=overnight, air=workshop),
        Stage(place="road", hours=max(road_h, 0.0), level_m=level, air=road),
    )


def cold_air(cooled: Cooled) -> Air:
    """The air of a cool room: as cold as somebody said, else as a flower cooler."""
    cold = COOLER_C.value if cooled.temperature_c is None else cooled.temperature_c
    return Air(temperature_c=cold, relative_humidity=COOLER_HUMIDITY.value)


def waits_unknown(piece: Piece, conditions: Conditions, acts: Acts) -> list[Missing]:
    """Facts that are missing to say how a piece stands with its stems until its water on show goes in."""
    if piece.transport is None or not rides_flowered(acts):
        return []
    asked = (
        (conditions.loaded_at is None and conditions.filled_at is not None, facts.LOADED_AT),
        (conditions.workshop is None, facts.WORKSHOP_AIR),
    )
    return [fact.missing() for absent, fact in asked if absent]


def first_dry(
    water: WaterTable, stages: tuple[Stage, ...], *, end_levels_m: Array, draws_ml_h: Array, cover: float
) -> Dry:
    """The first cut end that runs dry while a piece waits.

    At every stage's beginning the water is poured off to its level; it is not poured up.

    Args:
        end_levels_m: height of each cut end above the inside floor, m, shape (n,).
        draws_ml_h: draw of each stem at 20 °C and 60 %, ml/h, shape (n,). cover: share of evaporation let through.
    Source: conservation of volume, stage by stage.
    """
    if not stages or len(end_levels_m) == 0:
        return Dry(after_h=None, row=None)
    dry_at_l = np.interp(end_levels_m, water.level_m, water.volume_l)
    highest = int(dry_at_l.argmax())
    volume_l, now = water.volume_at_l(stages[0].level_m), 0.0
    for stage in stages:
        volume_l = min(volume_l, water.volume_at_l(stage.level_m))
        fall = fall_from(
            water,
            volume_l,
            dry_at_l,
            draws_ml_h * draw_factor(stage.air),
            evaporation_ml_h(1.0, stage.air, cover),
        )
        dry_after = 0.0 if volume_l <= dry_at_l[highest] else fall.hour_at(float(dry_at_l[highest]))
        if dry_after < stage.hours:
            return Dry(after_h=now + dry_after, row=highest)
        volume_l = float(fall.volume_at(np.array([stage.hours]))[0])
        now += stage.hours
    return Dry(after_h=None, row=None)


def waiting(
    piece: Piece, stages: tuple[Stage, ...], mechanic: SizedMechanic, placement: Placement, water: WaterTable
) -> tuple[Dry, Dry, Dry] | None:
    """The first dry end while it waits, typical, heavy and low; None where it does not wait.

    Stems put in only where it is shown do not wait. Cups of a mechanic's own and a soaked block are full when it is
    finished, and nobody fills them up until it is shown.
    """
    stems = placement.stems
    here = stems.drinks & stems.present(WITH_IT)
    if not stages or not here.any():
        return None
    rows = np.flatnonzero(here)
    ends, draws = placement.end_height_m[rows], stems.uptake_ml_h[rows]
    if mechanic.own_cups:
        cup = np.bincount(placement.seat_cell[rows], weights=draws)
        worst = int(cup.argmax())
        row = int(rows[(placement.seat_cell[rows] == worst).argmax()])
        each_l = mechanic.own_water_l / mechanic.own_cups
        return _own_store(stages, each_l, each_l * CUP_LOW.value, float(cup[worst]), row)
    if mechanic.absorbed_l and not mechanic.flat:
        litres = mechanic.absorbed_l * mechanic.deliverable_share
        return _own_store(stages, litres, litres, float(draws.sum()), int(rows[draws.argmax()]))
    cover = (COVER_UNDER_MOSS if mechanic.mossed else COVER_UNDER_FLOWERS).value
    short = tuple(replace(each, level_m=each.level_m - hurried_m(each.level_m)) for each in stages)

    def run(steps: tuple[Stage, ...], factor: float) -> Dry:
        found = first_dry(water, steps, end_levels_m=ends, draws_ml_h=draws * factor, cover=cover)
        return found if found.row is None else replace(found, row=int(rows[found.row]))

    return run(stages, 1.0), run(stages, HEAVY_DRAW.value), run(short, 1.0)


def _own_store(
    stages: tuple[Stage, ...], full_l: float, low_l: float, draw_ml_h: float, row: int
) -> tuple[Dry, Dry, Dry]:
    """When a store of its own is drunk empty, typical, heavy and low."""
    return (
        _store_dry(stages, full_l, draw_ml_h, row),
        _store_dry(stages, full_l, draw_ml_h * HEAVY_DRAW.value, row),
        _store_dry(stages, low_l, draw_ml_h, row),
    )


def _store_dry(stages: tuple[Stage, ...], litres: float, draw_ml_h: float, row: int) -> Dry:
    """When a store is drunk empty: in each air at that air's draw. Source: conservation of volume."""
    left_ml, now = 1000 * litres, 0.0
    for stage in stages:
        rate = max(draw_ml_h * draw_factor(stage.air), 1e-9)
        if left_ml < rate * stage.hours:
            return Dry(after_h=now + left_ml / rate, row=row)
        left_ml -= rate * stage.hours
        now += stage.hours
    return Dry(after_h=None, row=None)
