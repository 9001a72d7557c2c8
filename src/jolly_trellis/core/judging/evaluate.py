"""The one entry: a piece and its conditions in, a report out."""

from dataclasses import fields, replace
from itertools import chain
from typing import Any

import numpy as np

from jolly_trellis.core.acts.passed import passed
from jolly_trellis.core.books.bodies import level_m
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.books.needs import from_roll
from jolly_trellis.core.building.build import Build, build, cut_ends_m
from jolly_trellis.core.building.footing import ledge_edge_m
from jolly_trellis.core.checks import (
    balance,
    hold_swing,
    lift_hand,
    stand,
    together,
    travel,
)
from jolly_trellis.core.checks.fixing import (
    Check,
    judged_by_all,
    mending,
    one_of_each_family,
    outcomes,
    two_changes,
)
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.judging.pictures import picture_of
from jolly_trellis.core.judging.report import (
    BalanceReport,
    BouquetReport,
    CompanionReport,
    LedgeReport,
    Outline,
    PlacedStems,
    Report,
    SpillReport,
    WaterReport,
)
from jolly_trellis.core.judging.rungs import checks_for
from jolly_trellis.core.making.steps import MINUTES_PER_STEM, cut_list, notices, steps
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics import sizing
from jolly_trellis.core.mechanics.bouquet import handle_of
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.placement.aim import outline_m
from jolly_trellis.core.placement.dealing import dealt_as
from jolly_trellis.core.placement.place import Placement, colliding_pairs, fullness
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.kinds import is_carried, is_worn
from jolly_trellis.core.plan.piece import Dealt, Piece
from jolly_trellis.core.quantities import length
from jolly_trellis.core.stems.tubes import tube_size_m


def evaluate(piece: Piece, conditions: Conditions, *, with_fixes: bool = True) -> Report:
    """Work out a piece: sizes, placed stems, cut list, steps and every verdict.

    Args:
        piece: the plan.
        conditions: times, air, people and the studio's varieties and nettings.
        with_fixes: also try out fixes for verdicts that fail or are tight (slower by some builds).
    Raises:
        CoreError: the plan cannot be computed; `path` names the measure.
    """
    with conditions.figures.open():
        made = build(piece, conditions)
        verdicts = judge_all(made)
        if with_fixes:
            verdicts = tuple(_mended(made, verdict, verdicts) for verdict in verdicts)
        return _report(made, verdicts, with_fixes)


def judge_all(made: Build) -> tuple[Verdict, ...]:
    """Every verdict of a piece put together, with no fixes tried."""
    return tuple(check.judge(made) for check in checks_of(made))


def _mended(made: Build, verdict: Verdict, before: tuple[Verdict, ...]) -> Verdict:
    """A verdict that fails or is tight with the fixes that mend it, or with what was tried in vain."""
    if verdict.state not in ("fails", "tight"):
        return verdict
    checks = checks_of(made)
    own = next(each for each in checks if each.verb == verdict.verb)
    tried = list(outcomes(own.candidates(made, verdict), made, own.judge))
    mends = [each for each in mending(tried) if each.used < (verdict.utilisation or 0.0)]
    if not mends and verdict.state == "fails":
        mends = list(two_changes(tried, verdict, made, own))
    fixes = judged_by_all(mends, before, checks, verdict.verb)
    in_vain = () if fixes else tuple(each.candidate.say for each in one_of_each_family(tried))
    return replace(verdict, fixes=fixes, tried=in_vain)


def checks_of(made: Build) -> tuple[Check, ...]:
    """The checks of a piece: those of its kind; in a composition of several vessels, on each of them."""
    checks = checks_for(made.piece.sort)
    if not made.companions:
        return checks
    return tuple(each if each.whole else together.on_each(each) for each in checks)


def _report(made: Build, verdicts: tuple[Verdict, ...], fixes_tried: bool) -> Report:
    outline, cuts = _outline(made), cut_list(made)
    _, foot_width, foot_depth = balance.standing_foot_m(made)
    piece, rim = made.piece, made.rim_z_m
    report = Report(
        raised_m=made.raised_m,
        rim_m=rim,
        foot_width_m=foot_width,
        foot_depth_m=foot_depth or foot_width,
        mechanic=made.mechanic,
        stems=all_stems(made),
        cell_pitch_m=made.mechanic.seating.pitch_m,
        cells_m=cells_of(made),
        seat_pattern=made.mechanic.seating.pattern,
        envelope_front=outline_m(piece.envelope, from_m=rim, view="front"),
        envelope_side=outline_m(piece.envelope, from_m=rim, view="side"),
        envelope_above=outline_m(piece.envelope, from_m=rim, view="above"),
        extras=tuple(each.part for each in made.extras),
        price=made.mechanic.price,
        minutes=made.mechanic.minutes + MINUTES_PER_STEM.value * int(made.placement.stems.stems_in_row.sum()),
        outline=outline,
        water=_water(made),
        balance=_balance(made),
        cut_list=cuts,
        steps=steps(made),
        notices=notices(made, cuts, outline.fullness, outline.colliding_pairs),
        verdicts=verdicts,
        fixes_tried=fixes_tried,
        companions=_companions(made),
        spill=_spill(made),
        ledge=_ledge(made),
        bouquet=_bouquet(made),
        dealt=_dealt(made),
        acts=passed(made.acts, lambda level: level_m(made, level)),
    )
    return replace(report, picture=picture_of(piece, report, made.conditions.varieties))


def _dealt(made: Build) -> Dealt | None:
    """The seats its stems have taken, to be kept; a bouquet has none, and no stems take none."""
    placement = made.placement
    if made.piece.carried or len(placement.stems) == 0:
        return None
    several = made.conditions.practice.several_points
    return dealt_as(made.piece, several_points=several, seats_m=placement.cells_m[placement.seat_cell])


def cells_of(made: Build) -> tuple[tuple[float, float], ...]:
    """The middles of the seats stems can take, (x, y) in its own vessel's frame, m."""
    return _cells(made.placement)


@remembered
def _cells(placement: Placement) -> tuple[tuple[float, float], ...]:
    return tuple((float(x), float(y)) for x, y in placement.cells_m.tolist())


def all_stems(made: Build) -> PlacedStems:
    """Every stem of the composition, the piece's own first, then each companion's, in the rows of the making order."""
    if not made.companions:
        return _stems(made)
    several = [_stems(made)]
    for index, (beside, each) in enumerate(zip(made.companions, made.piece.companions, strict=True), start=1):
        several.append(_beside(_stems(beside), index, each.x_m, each.y_m))
    columns = (each.name for each in fields(PlacedStems))
    return PlacedStems(**{name: tuple(chain(*(getattr(each, name) for each in several))) for name in columns})


def _beside(stems: PlacedStems, vessel: int, x: float, y: float) -> PlacedStems:
    def moved(column: tuple[float, ...], by: float) -> tuple[float, ...]:
        return tuple(each + by for each in column)

    return replace(
        stems,
        vessel=(vessel,) * len(stems),
        seat_x_m=moved(stems.seat_x_m, x),
        tip_x_m=moved(stems.tip_x_m, x),
        end_x_m=moved(stems.end_x_m, x),
        seat_y_m=moved(stems.seat_y_m, y),
        tip_y_m=moved(stems.tip_y_m, y),
        end_y_m=moved(stems.end_y_m, y),
    )


def _companions(made: Build) -> tuple[CompanionReport, ...]:
    return tuple(
        CompanionReport(
            name=each.name,
            x_m=each.x_m,
            y_m=each.y_m,
            rim_m=beside.rim_z_m,
            mechanic=beside.mechanic,
            cells_m=cells_of(beside),
            extras=tuple(part.part for part in beside.extras),
            cut_list=cut_list(beside),
            steps=steps(beside),
            on_show_l=beside.water.volume_at_l(beside.piece.water_level_m),
            poured_l=_poured_l(beside),
            dealt=_dealt(beside),
        )
        for beside, each in zip(made.companions, made.piece.companions, strict=True)
    )


def _ledge(made: Build) -> LedgeReport | None:
    ledge, edge = made.piece.setting.ledge, ledge_edge_m(made.piece)
    if ledge is None or edge is None:
        return None
    front = edge - ledge.edge_radius_m
    return LedgeReport(front_m=front, back_m=front + ledge.depth_m, axis_m=balance.footing_of(made).axis_m)


def _bouquet(made: Build) -> BouquetReport | None:
    if not is_carried(made.piece):
        return None
    shape = sizing.shape_of(made.piece)
    up = made.raised_m
    return BouquetReport(
        end_m=up + shape.end_m,
        binding_m=up + shape.binding_m,
        under_m=up + shape.under_m,
        hand_m=shape.hand_m,
        neck_m=shape.neck_m,
        dome_m=shape.dome_m,
        handle_m=handle_of(made.placement.stems, made.mechanic.crosses),
        carried_kg=lift_hand.carried(made, "typical")[0],
        overall_m=shape.top_m - shape.end_m,
    )


def _spill(made: Build) -> SpillReport | None:
    if made.spill is None:
        return None
    sheet, netting = made.spill.sheet, made.spill.netting
    taken = from_roll("spill", netting, sheet, lasts=False)
    sizes = (length(sheet.width_m), length(sheet.length_m))
    return SpillReport(
        part=Part(name="spill", quantity=1, sizes=sizes, mass_kg=sheet.mass_kg, taken=taken),
        sheet=sheet,
        netting=made.spill.netting.name,
        hanging_kg=made.spill.hanging_kg,
        hanging_heavy_kg=made.spill.hanging_heavy_kg,
        strength_n=made.spill.strength_n,
    )


def _stems(made: Build) -> PlacedStems:
    return _placed_stems(made.piece.vessel, made.placement, made.mechanic.seating.pitch_m, made.raised_m)


@remembered
def _placed_stems(vessel: Vessel, placement: Placement, pitch_m: float, up: float) -> PlacedStems:
    floor = vessel.base_m + up
    stems, rows = placement.stems, len(placement.stems)
    if rows == 0:
        return PlacedStems()
    play, end = hold_swing.play_of(vessel, placement, pitch_m), cut_ends_m(vessel, placement)
    varieties = [stems.variety_of(row) for row in range(rows)]
    tubes = [tube_size_m(line) for line, *_ in stems.lines]
    return PlacedStems(
        variety=tuple(each.key for each in varieties),
        name=tuple(each.name for each in varieties),
        colour=tuple(stems.colours(placement.tip_m[:, 0], placement.tip_m[:, 1])),
        form=tuple(each.form for each in varieties),
        role=tuple(stems.role_of(row) for row in range(rows)),
        stems=_column(stems.stems_in_row.astype(np.int64)),
        head_height_m=tuple(each.head_height_m for each in varieties),
        branch=tuple(each.branch for each in varieties),
        over_capacity=_column(placement.over_capacity),
        held=_column(placement.held),
        vessel=(0,) * rows,
        tube_length_m=tuple(tubes[at][0] for at in stems.line_index),
        tube_width_m=tuple(tubes[at][1] for at in stems.line_index),
        seat_x_m=_column(placement.seat_x_m),
        seat_y_m=_column(placement.seat_y_m),
        seat_z_m=(floor + placement.seat_height_m,) * rows,
        tip_x_m=_column(placement.tip_m[:, 0]),
        tip_y_m=_column(placement.tip_m[:, 1]),
        tip_z_m=_column(placement.tip_m[:, 2] + up),
        droop_m=_column(placement.tip_m[:, 2] - placement.head_z_m),
        end_x_m=_column(end[:, 0]),
        end_y_m=_column(end[:, 1]),
        end_z_m=_column(end[:, 2] + up),
        rod_m=_column(placement.rod_m),
        diameter_m=_column(stems.diameter_m),
        head_radius_m=_column(stems.head_radius_m),
        lean_rad=_column(placement.lean_rad),
        cut_length_m=_column(placement.cut_length_m),
        sway_m=_column(play.sway_m),
        sway_limit_m=_column(play.sway_limit_m),
    )


def _column(values: np.ndarray[Any, Any]) -> tuple[Any, ...]:
    return tuple(values.tolist())


def _outline(made: Build) -> Outline:
    placement, piece = made.placement, made.piece
    if len(placement.stems) == 0:
        mouth = piece.vessel.mouth_width_m
        rim = made.rim_z_m
        return Outline(height_m=rim, width_m=mouth, depth_m=mouth, widest_at_m=rim, fullness=0.0, colliding_pairs=0)
    radius = placement.stems.round_reach_m
    x, y = placement.tip_m[:, 0], placement.tip_m[:, 1]
    return Outline(
        height_m=made.raised_m + float((placement.head_z_m + radius).max()),
        width_m=float((x + radius).max() - (x - radius).min()),
        depth_m=float((y + radius).max() - (y - radius).min()),
        widest_at_m=stand.widest_reach_height_m(made),
        fullness=fullness(placement, piece.envelope, made.rim_z_m),
        colliding_pairs=colliding_pairs(placement),
    )


def _water(made: Build) -> WaterReport:
    going = None if made.courses is None else made.courses[1]
    level = made.piece.water_level_m
    journey = travel.journey_of(made)
    going_level = None if journey is None else journey.level_m
    transport = made.piece.transport
    left_at = None if transport is None else transport.overnight_level_m
    overnight = going_level if left_at is None else left_at
    return WaterReport(
        bench_level_m=None if overnight is None or going_level is None else travel.bench_level_m(made, overnight),
        travel_level_m=going_level,
        carried_l=None if journey is None else journey.carried_l,
        on_show_l=made.water.volume_at_l(level),
        poured_l=_poured_l(made),
        full_l=made.water.volume_at_l(made.piece.vessel.inside_depth_m),
        area_m2=float(np.interp(level, made.water.level_m, made.water.area_m2)),
        first_dry_h=None if going is None else going.first_dry_h,
        lowest_level_m=None if going is None else going.lowest_level_m,
        course_hours=() if going is None else going.hours,
        course_levels_m=() if going is None else going.levels_m,
    )


def _poured_l(made: Build) -> float:
    """Water on show less what it comes with, L; all of it where nobody said how it comes. What is drunk on the way is
    left out.
    """
    comes = 0.0 if made.piece.transport is None else made.water.volume_at_l(travel.loaded(made).level_m)
    return max(made.water.volume_at_l(made.piece.water_level_m) - comes, 0.0)


def _balance(made: Build) -> BalanceReport | None:
    _, foot, _ = balance.standing_foot_m(made)
    if not is_worn(made.piece) and (made.piece.vessel.mass_kg is None or foot is None):
        return None
    found = balance.balance_of(made, "typical")
    return BalanceReport(
        mass_kg=found.mass_kg,
        x_m=found.x_m,
        y_m=found.y_m,
        height_m=found.height_m,
        tip_angles_rad=tuple(stand.tip_angles_rad(made, found).tolist()),
    )
