"""Hold: whether every stem keeps its direction, and the mechanic its place in the vessel."""

import numpy as np

from jolly_trellis.core.books.figures import Figure, Shown
from jolly_trellis.core.books.water import STEM_END_COVER
from jolly_trellis.core.building.build import Build, demand_n_m
from jolly_trellis.core.checks.hold_swing import (
    LOCK_MOST,
    STAGGER_MORE,
    STAGGER_ONE,
    STAGGER_THREE,
    STAGGER_TWO,
    SWAY_BASE,
    SWAY_SHARE,
    Play,
    stems_play,
)
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.materials.vessels import floor_friction
from jolly_trellis.core.mechanics.fit import point_strength
from jolly_trellis.core.mechanics.pin_frog import PIN_SOFT, PIN_WOODY
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.trace import SUPPORT_SPACING
from jolly_trellis.core.plan import facts
from jolly_trellis.core.provenance import Provenance
from jolly_trellis.core.quantities import count, force, joined, length, mass, moment, phrase, ratio


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
        return conclude("hold", [], missing=[facts.RECIPE.missing()])
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
    sway, limit = length(play.sway_m[worst]), length(play.sway_limit_m[worst])
    words = "The worst stem, a {name}, can sway {sway} at its head; {limit} is allowed."
    reason = phrase(words, name=name, sway=sway, limit=limit)
    if over:
        reason = joined((reason, phrase("{share} of the stems sway too far.", share=f"{over:.0%}")))
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
        needed = np.where(play.unheld & placement.hangs, placement.wanted_m, needed_m(build)) - placement.rod_m
    over = needed / placement.stems.longest_m
    worst = int(over.argmax())
    if over[worst] <= 1.0 + 1e-9:
        return []
    number = int(placement.stems.stems_in_row[over > 1.0 + 1e-9].sum())
    value, limit = length(needed[worst]), length(placement.stems.longest_m[worst])
    reason = phrase(
        "{n} {n|stem does|stems do} not reach: a {variety} must be {value} long for its place; it is sold to {limit}.",
        n=count(number),
        variety=placement.stems.variety_of(worst).name,
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
        "{n} {n|stem has|stems have} only one support, first a {name}: nothing keeps its direction.",
        n=count(unheld),
        name=name,
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
        "{total} stems are too many for this {name}, which seats {limit} of them: {over} without a "
        "seat, first a {first}.",
        total=value,
        limit=count(total - over),
        over=count(over),
        name=name,
        first=first,
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
        "{variety} ({d}) does not pass a cell of {a}; it needs {needed}.",
        d=length(widest),
        a=length(placement.cell_aperture_m),
        needed=needed,
        variety=placement.stems.variety_of(row).name,
    )
    value = length(placement.cell_aperture_m)
    return [finding(check="mesh", case="typical", value=value, limit=needed, sense="at least", reason=reason)]


def _load(build: Build, play: Play) -> list[Finding]:
    placement = build.placement
    if build.mechanic.strength_n is None:
        return []
    below = placement.found.embedded_m - play.support_drop_m * placement.found.slant
    heavy = placement.stems.mass_kg(placement.cut_length_m) * placement.stems.heavy_factor
    centre = placement.centre_from_foot_m - below
    loads = netting_load_n(heavy, centre, placement.lean_rad, np.maximum(play.support_drop_m, 1e-3))
    loads = np.where(play.unheld, 0.0, loads)
    worst = int(loads.argmax())
    strength = force(build.mechanic.strength_n)
    reason = phrase(
        "A heavy {variety} presses on one point with {load}; it bears {strength}.",
        load=force(loads[worst]),
        strength=strength,
        variety=placement.stems.variety_of(worst).name,
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
    centre = placement.centre_from_foot_m
    loads = np.where(alone, pin_moment_n_m(heavy, centre, placement.lean_rad), 0.0)
    each = placement.stems.stems_in_row
    bears = np.where(placement.stems.woody, grip.woody_n_m, grip.soft_n_m) * each
    worst = int((loads / bears).argmax())
    value, limit = moment(loads[worst]), moment(bears[worst])
    reason = phrase(
        "A heavy {variety} turns on its pins with {value}; they take {limit}.",
        value=value,
        limit=limit,
        variety=placement.stems.variety_of(worst).name,
    )
    return [finding(check="pins", case="heavy", value=value, limit=limit, sense="at most", reason=reason)]


def _seat(build: Build) -> Finding:
    mechanic = build.mechanic
    value = moment(demand_n_m(mechanic, build.piece, build.placement))
    limit = moment(max(mechanic.seat_moment_n_m, 1e-3))
    what = ABOUT[mechanic.kind].name.lower()
    verb = "tip" if mechanic.seat_arm_m or mechanic.netting_free else "pull round"
    reason = phrase(
        "The stems {verb} the {what} with {value}; {seated_by} may take {limit}.",
        value=value,
        limit=limit,
        verb=verb,
        what=what,
        seated_by=mechanic.seated_by,
    )
    return finding(check="seat", case="heavy", value=value, limit=limit, sense="at most", reason=reason)


def _figures(build: Build) -> list[Shown]:
    levels = len(build.mechanic.levels)
    stagger = (STAGGER_ONE, STAGGER_TWO, STAGGER_THREE, STAGGER_MORE)[min(levels, 4) - 1]
    figures: list[Shown] = [
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
