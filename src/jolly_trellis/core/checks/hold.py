"""Hold: whether every stem keeps its direction, and the mechanic its place in the vessel."""

from dataclasses import dataclass
from itertools import combinations

import numpy as np

from jolly_trellis.core import netting as nets
from jolly_trellis.core.books.water import STEM_END_COVER
from jolly_trellis.core.build import Build, demand_n_m
from jolly_trellis.core.geometry import Array, Flags, ray_to_outline_m
from jolly_trellis.core.mechanics.fit import point_strength
from jolly_trellis.core.mechanics.pin_frog import PIN_SOFT, PIN_WOODY
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.trace import SUPPORT_SPACING
from jolly_trellis.core.provenance import Figure, Provenance, constant
from jolly_trellis.core.quantities import count, force, length, mass, moment, phrase, ratio
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.vessels import floor_friction, inside_size_m

STAGGER_TWO = constant("Play left with two wire levels (leaves and bent cells take up the rest)", "ratio", 0.5)
STAGGER_THREE = constant("Play left with three wire levels", "ratio", 0.4)
STAGGER_MORE = constant("Play left with four or more wire levels", "ratio", 0.35)
STAGGER_ONE = constant("Play left with one wire level", "ratio", 1.0)
LOCK_MOST = constant("Most that crossing stems lock one another", "ratio", 0.6)
CROWD_CELLS = constant("Stems crowd one another at a lower level within, in cells", "ratio", 2.0)
SWAY_BASE = constant("Sway a head may have, whatever its height", "length", 0.03)
SWAY_SHARE = constant("Sway a head may have on top, share of visible length", "ratio", 0.10)


@dataclass(frozen=True, slots=True, kw_only=True)
class Play:
    """How each stem is held, one row each. `unheld` has no two supports far enough apart; no swing is given."""

    tan_swing: Array
    sway_m: Array
    sway_limit_m: Array
    support_drop_m: Array
    unheld: Flags


def play_m(aperture_m: float | Array, stem_diameter_m: Array, other_diameters_m: Array) -> Array:
    """Play of a stem in its cell: max(0, a − d − Σ others in that cell)/2, metres.

    Source: geometry.
    """
    return np.maximum(0.0, aperture_m - stem_diameter_m - other_diameters_m) / 2


def crowding_lock(total_diameter_m: float, inside_diameter_m: float) -> float:
    """How far stems that cross a level lock one another: min(0.6, Σd/(4·D)).

    Args:
        total_diameter_m: sum of the diameters of stems crossing the level, m.
        inside_diameter_m: inside diameter of the vessel there, m, > 0.
    Source: estimate.
    """
    return min(LOCK_MOST.value, total_diameter_m / (4 * inside_diameter_m))


def tan_swing(
    play_top_m: Array, play_low_m: Array, *, stagger: Array, lock: float, lean_rad: Array, layer_gap_m: Array
) -> Array:
    """Tangent of the angle a stem can swing through.

    (c1 + c2)·stagger·(1 − lock)·cos θ / gap, between its uppermost and lowest support.

    Args:
        play_top_m, play_low_m: play at the two supports, m; frog, wall and a floor that holds have none.
        stagger: share of the play that is left, 0.35-1.
        lock: from `crowding_lock`.
        lean_rad: lean from the vertical.
        layer_gap_m: vertical distance between the two supports, m, > 0.
    Source: geometry; stagger and lock are estimates.
    """
    return (play_top_m + play_low_m) * stagger * (1 - lock) * np.cos(lean_rad) / layer_gap_m


def netting_load_n(mass_kg: Array, centre_m: Array, lean_rad: Array, layer_gap_m: Array) -> Array:
    """Sideways force of a leaning stem on the netting: m·g·L·sin θ·cos θ/gap, newtons.

    Args:
        mass_kg: of the stem as cut.
        centre_m: along the stem from its lower support to its centre of mass, m.
        lean_rad: lean from the vertical.
        layer_gap_m: vertical distance between its supports, m, > 0.
    Source: moments about the lower support.
    """
    return mass_kg * GRAVITY_M_S2 * np.maximum(centre_m, 0.0) * np.sin(lean_rad) * np.cos(lean_rad) / layer_gap_m


def stems_play(build: Build, among: Flags | None = None) -> Play:
    """Follow every stem's supports and work out how far its head can sway.

    Supports from the top down: the rim a stem leans on, each level it crosses, its foot where the wall, the floor or
    pins hold it, or where it is left once it has slid over the floor on to the wall. A stem swings no farther than the
    pair of supports lets it that lets it least.

    Args:
        among: the rows that are in already, while the piece is being made; only they crowd and lock. None is all.
    """
    placement = build.placement
    number = len(placement.stems)
    crowds = placement.stems.diameter_m if among is None else placement.stems.diameter_m * among
    supports = _supports_of(build, crowds)
    wires = placement.found.crosses.sum(axis=-1)
    stagger = np.select(
        [wires <= 1, wires == 2, wires == 3],
        [STAGGER_ONE.value, STAGGER_TWO.value, STAGGER_THREE.value],
        default=STAGGER_MORE.value,
    )
    lock = _lock(build, crowds)
    swing = np.full(number, np.inf)
    for upper, lower in combinations(supports, 2):
        gap = lower.drop_m - upper.drop_m
        swings = tan_swing(
            upper.play_m,
            lower.play_m,
            stagger=np.ones(number) if placement.rigid else stagger,
            lock=lock,
            lean_rad=placement.lean_rad,
            layer_gap_m=np.maximum(gap, 1e-6),
        ) + lower.slide_m / np.maximum(gap, 1e-6)
        far = gap * placement.found.slant >= SUPPORT_SPACING.value - 1e-9
        swing = np.where(upper.there & lower.there & far, np.minimum(swing, swings), swing)
    pinned = placement.gripped & (wires <= 1)
    unheld = np.isinf(swing) & ~placement.gripped
    swing = np.where(np.isinf(swing) | pinned, 0.0, swing)
    return Play(
        tan_swing=swing,
        sway_m=placement.visible_m * swing,
        sway_limit_m=SWAY_BASE.value + SWAY_SHARE.value * placement.visible_m,
        support_drop_m=np.max([np.where(each.there, each.drop_m, 0.0) for each in supports], axis=0),
        unheld=unheld,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _Support:
    """One kind of support for every stem: whether it is there, how far under the seats, the play it leaves, and how
    far the foot slides before it is there, m."""

    there: Flags
    drop_m: Array
    play_m: Array
    slide_m: Array


def _supports_of(build: Build, crowds: Array) -> list[_Support]:
    """All supports of all stems, from the top down."""
    placement, found = build.placement, build.placement.found
    none, number = np.zeros(len(placement.stems)), len(placement.stems)
    over_seat = build.piece.vessel.inside_depth_m - placement.seat_height_m
    supports = [
        _Support(there=placement.on_rim, drop_m=np.full(number, -over_seat), play_m=none, slide_m=none),
    ]
    for level, (drop, aperture) in enumerate(
        zip(placement.level_drops_m.tolist(), placement.level_apertures_m.tolist(), strict=True)
    ):
        others = _crowding_at(build, drop, crowds) if level else _others_in_cell(placement.seat_cell, crowds)
        play = play_m(aperture, placement.stems.diameter_m, others)
        there = found.crosses[:, level]
        supports.append(_Support(there=there, drop_m=np.full(number, drop), play_m=play, slide_m=none))
    slides = ~found.at_wall & ~placement.floor_holds & ~placement.hangs
    foot = found.wall_holds | (~found.at_wall & placement.floor_holds) | slides
    slide = np.where(slides, _slide_to_wall_m(build), 0.0)
    supports.append(_Support(there=foot, drop_m=found.drop_m, play_m=none, slide_m=slide))
    return supports


def pin_moment_n_m(mass_kg: Array, centre_m: Array, lean_rad: Array) -> Array:
    """Moment of a leaning stem on the pins under it: m·g·L·sin θ, N·m.

    Args:
        mass_kg: of the stem as cut.
        centre_m: along the stem from its foot to its centre of mass, m.
        lean_rad: lean from the vertical.
    Source: statics; a stem with no other support.
    """
    return np.asarray(mass_kg * GRAVITY_M_S2 * centre_m * np.sin(lean_rad))


def judge(build: Build) -> Verdict:
    """Hold: sway, supports, crowding, mesh, load on the netting, and the mechanic's seat in its vessel."""
    if len(build.placement.stems) == 0:
        return conclude("hold", [], missing=["the recipe (add stems)"])
    play = stems_play(build)
    findings = [
        _sway(build, play),
        *_reach(build, play),
        *_supports(build, play),
        *_crowding(build),
        *_mesh(build),
        *_load(build, play),
        *_pins(build),
        _seat(build),
    ]
    return conclude("hold", findings, figures=_figures(build))


def _sway(build: Build, play: Play) -> Finding:
    used = play.sway_m / play.sway_limit_m
    worst = int(used.argmax())
    over = float((used > 1).mean())
    name = build.placement.stems.variety_of(worst).name
    words = f"The worst stem, a {name}, can sway {{sway}} at its head; {{limit}} is allowed."
    if over:
        words += f" {over:.0%} of the stems sway too far."
    sway, limit = length(play.sway_m[worst]), length(play.sway_limit_m[worst])
    reason = phrase(words, sway=sway, limit=limit)
    return finding(check="sway", case="typical", value=sway, limit=limit, sense="at most", reason=reason)


def needed_m(build: Build) -> Array:
    """How long each stem must be: its foot 2 cm under its seat, and where it drinks 2 cm under the water, m.

    Source: geometry.
    """
    placement, piece = build.placement, build.piece
    wet = placement.seat_height_m - max(piece.water_level_m - STEM_END_COVER.value, 0.0)
    under = np.where(placement.stems.from_vessel, max(wet, 0.0) * placement.found.slant, 0.0)
    return placement.visible_m + np.maximum(under, SUPPORT_SPACING.value)


def _reach(build: Build, play: Play) -> list[Finding]:
    """The stem whose place asks for most beyond the longest it is sold: for its water, or for what would hold it."""
    placement = build.placement
    if build.mechanic.own_cups or build.mechanic.grip is not None:
        needed = placement.cut_length_m
    else:
        needed = np.where(play.unheld & placement.hangs, placement.wanted_m, needed_m(build))
    over = needed / placement.stems.longest_m
    worst = int(over.argmax())
    if over[worst] <= 1.0 + 1e-9:
        return []
    number = int(placement.stems.stems_in_row[over > 1.0 + 1e-9].sum())
    value, limit = length(needed[worst]), length(placement.stems.longest_m[worst])
    reason = phrase(
        f"{{n}} stem{'s do' if number > 1 else ' does'} not reach: a {placement.stems.variety_of(worst).name} must be "
        "{value} long for its place; it is sold to {limit}.",
        n=count(number),
        value=value,
        limit=limit,
    )
    return [finding(check="reach", case="typical", value=value, limit=limit, sense="at most", reason=reason)]


def _supports(build: Build, play: Play) -> list[Finding]:
    """Stems that nothing holds twice, but for those that are not sold long enough, which `_reach` names."""
    placement = build.placement
    alone = play.unheld & ~(placement.hangs & (placement.wanted_m > placement.stems.longest_m))
    unheld = int(placement.stems.stems_in_row[alone].sum())
    if not unheld:
        return []
    first = int(alone.argmax())
    name = build.placement.stems.variety_of(first).name
    reason = phrase(
        f"{{n}} stem{'s have' if unheld > 1 else ' has'} only one support, first a {name}: "
        "nothing keeps its direction.",
        n=count(unheld),
    )
    return [
        Finding(
            check="supports",
            case="typical",
            value=count(1),
            limit=count(2),
            sense="at least",
            utilisation=2.0,
            reason=reason,
        )
    ]


def _crowding(build: Build) -> list[Finding]:
    placement = build.placement
    over = int(placement.stems.stems_in_row[placement.over_capacity].sum())
    if not over:
        return []
    total = int(placement.stems.stems_in_row.sum())
    first = placement.stems.variety_of(int(placement.over_capacity.argmax())).name
    name = ABOUT[build.mechanic.kind].name.lower()
    value, limit = count(total), count(max(total - over, 1))
    reason = phrase(
        f"{{total}} stems are too many for this {name}, which seats {{limit}} of them: {{over}} without a seat, "
        f"first a {first}.",
        total=value,
        limit=count(total - over),
        over=count(over),
    )
    return [finding(check="crowding", case="typical", value=value, limit=limit, sense="at most", reason=reason)]


def _mesh(build: Build) -> list[Finding]:
    placement = build.placement
    row = int(placement.stems.diameter_m.argmax())
    widest = float(placement.stems.diameter_m[row])
    if placement.cell_aperture_m == 0 or nets.passes(placement.cell_aperture_m, widest):
        return []
    needed = length(nets.PASSING_FACTOR.value * widest)
    reason = phrase(
        f"{placement.stems.variety_of(row).name} ({{d}}) does not pass a cell of {{a}}; it needs {{needed}}.",
        d=length(widest),
        a=length(placement.cell_aperture_m),
        needed=needed,
    )
    value = length(placement.cell_aperture_m)
    return [finding(check="mesh", case="typical", value=value, limit=needed, sense="at least", reason=reason)]


def _load(build: Build, play: Play) -> list[Finding]:
    placement = build.placement
    if build.mechanic.strength_n is None:
        return []
    cut = placement.cut_length_m
    below = placement.found.embedded_m - play.support_drop_m * placement.found.slant
    heavy = placement.stems.mass_kg(placement.cut_length_m) * placement.stems.heavy_factor
    centre = placement.stems.centre_from_foot_m(cut) - below
    loads = netting_load_n(heavy, centre, placement.lean_rad, np.maximum(play.support_drop_m, 1e-3))
    loads = np.where(play.unheld, 0.0, loads)
    worst = int(loads.argmax())
    strength = force(build.mechanic.strength_n)
    reason = phrase(
        f"A heavy {placement.stems.variety_of(worst).name} presses on one point with {{load}}; it bears {{strength}}.",
        load=force(loads[worst]),
        strength=strength,
    )
    return [
        finding(
            check="netting load",
            case="heavy",
            value=force(loads[worst]),
            limit=strength,
            sense="at most",
            reason=reason,
        )
    ]


def _pins(build: Build) -> list[Finding]:
    """Moment of the worst stem that pins alone hold."""
    placement, grip = build.placement, build.mechanic.grip
    alone = placement.gripped & (placement.found.crosses.sum(axis=-1) <= 1) & ~placement.on_rim
    if grip is None or not alone.any():
        return []
    heavy = placement.stems.mass_kg(placement.cut_length_m) * placement.stems.heavy_factor
    centre = placement.stems.centre_from_foot_m(placement.cut_length_m)
    loads = np.where(alone, pin_moment_n_m(heavy, centre, placement.lean_rad), 0.0)
    each = placement.stems.stems_in_row
    bears = np.where(placement.stems.woody, grip.woody_n_m, grip.soft_n_m) * each
    worst = int((loads / bears).argmax())
    value, limit = moment(loads[worst]), moment(bears[worst])
    reason = phrase(
        f"A heavy {placement.stems.variety_of(worst).name} turns on its pins with {{value}}; they take {{limit}}.",
        value=value,
        limit=limit,
    )
    return [finding(check="pins", case="heavy", value=value, limit=limit, sense="at most", reason=reason)]


def _seat(build: Build) -> Finding:
    mechanic = build.mechanic
    value = moment(demand_n_m(mechanic, build.piece, build.placement))
    limit = moment(max(mechanic.seat_moment_n_m, 1e-3))
    what = ABOUT[mechanic.kind].name.lower()
    verb = "tip" if mechanic.seat_arm_m or mechanic.netting_free else "pull round"
    reason = phrase(
        f"The stems {verb} the {what} with {{value}}; {mechanic.seated_by} may take {{limit}}.",
        value=value,
        limit=limit,
    )
    return finding(check="seat", case="heavy", value=value, limit=limit, sense="at most", reason=reason)


def _figures(build: Build) -> list[Figure]:
    levels = len(build.mechanic.levels)
    stagger = (STAGGER_ONE, STAGGER_TWO, STAGGER_THREE, STAGGER_MORE)[min(levels, 4) - 1]
    figures = [
        Figure(
            label="Gap between levels",
            quantity=length(build.mechanic.layer_gap_m),
            provenance=Provenance(kind="computed", source="from the vessel's depth"),
        ),
        STAGGER_ONE if build.mechanic.rigid else stagger,
        SWAY_BASE,
        SWAY_SHARE,
        LOCK_MOST,
        Figure(
            label="Friction of a stem end on this floor",
            quantity=ratio(floor_friction(build.piece.vessel)),
            provenance=Provenance(kind="estimate"),
        ),
    ]
    if build.netting is not None:
        stock = Provenance(kind=build.netting.provenance.kind, source=build.netting.name)
        width = Figure(
            label="Clear width of a cell", quantity=length(build.placement.cell_aperture_m), provenance=stock
        )
        figures += [width, point_strength(build.netting.wire_m)]
    if build.frog is not None:
        stock = Provenance(kind=build.frog.provenance.kind, source=build.frog.name)
        figures.append(Figure(label="Mass of the frog", quantity=mass(build.frog.mass_kg), provenance=stock))
    if build.mechanic.grip is not None:
        figures += [PIN_SOFT, PIN_WOODY]
    return figures


def _others_in_cell(cell: np.ndarray, diameter_m: Array) -> Array:
    """Sum of the other stems' diameters in each stem's cell; a stem that is not in has none."""
    total = np.bincount(cell, weights=diameter_m)
    return total[cell] - diameter_m


def _crowding_at(build: Build, drop_m: float, crowds: Array) -> Array:
    """Diameters of the other stems that crowd each at a lower level, where stems have crossed into other cells, m.

    As many as a cell holds where stems are as close as they are within two cells of it, the nearer counting for more,
    so that a stem that comes a little nearer crowds a little more.

    Source: a cone over two cells about the stem, of the weight of one cell; estimate.
    """
    placement = build.placement
    rise = np.maximum(placement.tip_m[:, 2] - build.piece.vessel.base_m - placement.seat_height_m, 1e-3)
    share = drop_m / rise
    x = placement.seat_x_m - (placement.tip_m[:, 0] - placement.seat_x_m) * share
    y = placement.seat_y_m - (placement.tip_m[:, 1] - placement.seat_y_m) * share
    away = np.hypot(x[:, None] - x, y[:, None] - y)
    pitch = max(build.mechanic.seating.pitch_m, 1e-6)
    reach = CROWD_CELLS.value * pitch
    weight = nets.cell_area_m2(pitch) / (np.pi * reach**2 / 3)
    near = weight * np.maximum(1.0 - away / reach, 0.0)
    np.fill_diagonal(near, 0.0)
    return np.asarray(near @ crowds)


def _lock(build: Build, crowds: Array) -> float:
    """How far the stems that cross the lowest level lock one another."""
    placement = build.placement
    if len(placement.stems) == 0:
        return 0.0
    across = inside_size_m(build.piece.vessel, placement.seat_height_m - float(placement.level_drops_m[-1]))
    return crowding_lock(float(crowds[placement.found.crosses[:, -1]].sum()), min(across))


def _slide_to_wall_m(build: Build) -> Array:
    """How far a foot that does not hold slides over the floor, away from the lean, before the wall stops it."""
    placement, vessel = build.placement, build.piece.vessel
    found = placement.found
    out_x, out_y = placement.tip_m[:, 0] - placement.seat_x_m, placement.tip_m[:, 1] - placement.seat_y_m
    flat = np.maximum(np.hypot(out_x, out_y), 1e-9)
    floor = vessel.profile[0]
    slide = ray_to_outline_m(
        vessel.plan_shape,
        found.end_x_m,
        found.end_y_m,
        -out_x / flat,
        -out_y / flat,
        floor.width_m / 2,
        floor.depth_m / 2,
    )
    return np.maximum(slide - placement.stems.diameter_m / 2, 0.0)
