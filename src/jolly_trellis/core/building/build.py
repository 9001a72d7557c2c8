"""A piece put together: sized mechanic, placed stems, water; what every check reads."""

import math
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from jolly_trellis.core import ranges
from jolly_trellis.core.acts.acts import Acts
from jolly_trellis.core.acts.of_piece import acts_of
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.books.waiting import Dry, Stage, stages_of, waiting
from jolly_trellis.core.books.water import STEM_END_COVER, Course, courses
from jolly_trellis.core.building import spills, stacks
from jolly_trellis.core.building.extras import Extra, extras_of
from jolly_trellis.core.building.piece_checks import check_envelope, check_piece
from jolly_trellis.core.building.spills import SizedSpill
from jolly_trellis.core.errors import CoreError, UnknownName
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import sizing
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.mechanics.tape import MAX_TAPE_STRIPS, tape_moment_n_m
from jolly_trellis.core.placement import bound
from jolly_trellis.core.placement.dealing import kept_seats_m
from jolly_trellis.core.placement.place import Layout, Placement, place
from jolly_trellis.core.placement.water_table import WaterTable, water_table
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.kinds import is_carried
from jolly_trellis.core.plan.piece import Companion, Making, Piece
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.stems.stem_set import StemSet, expand
from jolly_trellis.core.wanted import go_on

DEEP_FEET = rule(
    "Feet reach down to, share of the vessel's depth where the water is higher", "ratio", 1 / 3, COMMON_PRACTICE
)
TALL_WORK = rule("Frog work is tall, and stuck down, from this over the rim", "length", 0.35)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Rows:
    """Rows of stems in one load case, each as cut, with the tube or wet wrap it carries: what each weighs, kg, shape
    (n,), and its centre of mass, shape (n, 3), metres in the vessel's frame.
    """

    mass_kg: Array
    centre_m: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class Build:
    """A piece with everything worked out from it that the checks share.

    `raised_m` is the height of the vessel's underside above the surface; the placement is in the vessel's own frame.
    `courses` is how the water on show goes, typical, heavy and low; None where that cannot be said. `stages` are where
    it stands before that water goes in, `waits` what runs dry then; None where it does not wait. `rows`, `heavy_rows`
    are the rows of stems as they weigh, typical and heavy. `extras` is what goes with vessel and mechanic,
    `acts` what is done to it, in order.
    `netting` and `frog` are None where the mechanic uses none. `companions` are the other vessels of
    the composition, each built in its own frame; `spill` what hangs over the ledge, None for nothing. `memo` keeps
    what its books worked out from it, once; a changed copy starts with an empty one.
    """

    piece: Piece
    conditions: Conditions
    netting: Netting | None
    frog: Frog | None
    mechanic: SizedMechanic
    placement: Placement
    water: WaterTable
    courses: tuple[Course, Course, Course] | None
    stages: tuple[Stage, ...]
    waits: tuple[Dry, Dry, Dry] | None
    rows: Rows
    heavy_rows: Rows
    extras: tuple[Extra, ...]
    raised_m: float
    acts: Acts
    companions: tuple["Build", ...] = ()
    spill: SizedSpill | None = None
    memo: dict[tuple[Any, ...], Any] = field(init=False, default_factory=dict, compare=False, repr=False)

    @property
    def air(self) -> Air | None:
        """The air it stands in on show: its own where it has one, else the place's."""
        return self.piece.setting.air or self.conditions.air

    @property
    def rim_z_m(self) -> float:
        """Height of the rim above the surface, metres."""
        return self.raised_m + self.piece.vessel.rim_m


def build(piece: Piece, conditions: Conditions) -> Build:
    """Put a piece together.

    Raises:
        InvalidMeasure: a measure that makes no vessel, envelope, water level or mechanic.
        UnknownName: a variety, netting or frog the studio does not have.
        NobodyWaits: it is wanted no more.
    """
    go_on()
    check_piece(piece)
    if conditions.air is not None:
        ranges.check(conditions.air, "air")
    raised = stacks.raised_m(piece)
    check_envelope(piece, raised)
    about = sizing.ABOUT[piece.mechanic.kind]
    netting = _netting(piece, conditions) if about.netting else None
    frog = _frog(piece, conditions) if about.frog else None
    stems = expand(piece.recipe, conditions.varieties)
    if is_carried(piece):
        mechanic, placement = bound.bind(piece, stems, netting)
    else:
        fit = _fit(piece, netting, frog, stems, raised, conditions)
        mechanic, placement = _fitted(piece, fit, stems, raised, conditions)
    acts = acts_of(piece, conditions.varieties)
    stages = stages_of(piece, conditions, mechanic, acts)
    water = water_table(piece.vessel, placement=placement, mechanic=mechanic, ballast_kg=piece.ballast_kg)
    return Build(
        piece=piece,
        conditions=conditions,
        netting=netting,
        frog=frog,
        mechanic=mechanic,
        placement=placement,
        water=water,
        courses=courses(piece, conditions, mechanic, placement, water),
        stages=stages,
        waits=waiting(piece, stages, mechanic, placement, water),
        rows=rows_of(piece.vessel, placement),
        heavy_rows=rows_of(piece.vessel, placement, heavy=True),
        extras=extras_of(piece, netting, placement, raised),
        raised_m=raised,
        acts=acts,
        companions=_companions(piece, conditions),
        spill=spills.size(piece, conditions),
    )


def companion_piece(piece: Piece, companion: Companion) -> Standing:
    """A companion as a piece of its own: on the same surface, for the same people, by the same road.

    On a ledge its set-back follows from where it stands beside the piece's own vessel.
    """
    setting, ledge = piece.setting, piece.setting.ledge
    if ledge is not None:
        own, foot = (each.foot_depth_m or each.foot_width_m or 0.0 for each in (piece.vessel, companion.vessel))
        back = ledge.set_back_m + companion.y_m + (own - foot) / 2
        setting = replace(setting, ledge=replace(ledge, set_back_m=back))
    going, depth = piece.transport, companion.vessel.inside_depth_m
    if going is not None:
        overnight, driven = (
            None if each is None else min(each, depth) for each in (going.overnight_level_m, going.water_level_m)
        )
        going = replace(going, overnight_level_m=overnight, water_level_m=driven)
    return Standing(
        name=companion.name,
        vessel=companion.vessel,
        envelope=companion.envelope,
        mechanic=companion.mechanic,
        water_level_m=companion.water_level_m,
        recipe=companion.recipe,
        setting=setting,
        ballast_kg=companion.ballast_kg,
        top_ups=companion.top_ups,
        feet=companion.feet,
        dealt=companion.dealt,
        look=companion.look,
        covers=tuple(each for each in piece.covers if each.on in ("rim", "outside")),
        transport=going,
        passage=piece.passage,
        making=Making(water_last=piece.making.water_last),
    )


def _companions(piece: Piece, conditions: Conditions) -> tuple[Build, ...]:
    """Every companion built. Raises CoreError, with the companion in the path."""
    made = []
    for index, each in enumerate(piece.companions):
        try:
            made.append(build(companion_piece(piece, each), conditions))
        except CoreError as problem:
            path = f"companions.{index}.{problem.path}"
            raise type(problem)(path=path, message=problem.message, limit=problem.limit) from None
    return tuple(made)


def cut_ends_m(vessel: vessels.Vessel, placement: Placement) -> Array:
    """Where the cut end of each row is, shape (n, 3), metres in the vessel's frame: at the foot, or at the top of the
    rod of its cup, which lies on the way from the foot to the tip.
    """
    found, rod = placement.found, placement.rod_m
    foot = np.stack([found.end_x_m, found.end_y_m, vessel.base_m + placement.end_height_m], axis=1)
    whole = np.maximum(placement.cut_length_m + rod, 1e-9)
    return np.asarray(foot + (rod / whole)[:, None] * (placement.tip_m - foot))


@remembered
def rows_of(vessel: vessels.Vessel, placement: Placement, *, heavy: bool = False) -> Rows:
    """Every row of stems as it weighs: as cut, and with the tube or wrap at its cut end.

    Source: first moments; heavy stems by their own factor, tubes filled to their air gap.
    """
    stems, cut = placement.stems, placement.cut_length_m
    share = (stems.centre_from_foot_m(cut) / np.maximum(cut, 1e-9))[:, None]
    end = cut_ends_m(vessel, placement)
    centre = end + share * (placement.tip_m - end)
    kg = stems.mass_kg(cut) * (stems.heavy_factor if heavy else 1.0)
    wet = stems.own_water_kg(placement.rod_m, heavy=heavy)
    if not wet.any():
        return Rows(mass_kg=kg, centre_m=centre)
    both = kg + wet
    return Rows(mass_kg=both, centre_m=(kg[:, None] * centre + wet[:, None] * end) / both[:, None])


def demand_n_m(mechanic: SizedMechanic, piece: Piece, placement: Placement) -> float:
    """Moment of all heavy stems that would rock the mechanic, N·m, 0 or more.

    Taken about the middle of the mouth for what is sprung or tied in; about its edge for what stands or rests there,
    where the stems' own weight inside the edge helps: |Σ m·g·x| − Σ m·g·r.

    Source: statics; as if the mechanic carried every stem, which overstates it.
    """
    return _demand_n_m(mechanic, piece.vessel, placement)


@remembered
def _demand_n_m(mechanic: SizedMechanic, vessel: vessels.Vessel, placement: Placement) -> float:
    rows = rows_of(vessel, placement, heavy=True)
    first = (rows.mass_kg[:, None] * rows.centre_m[:, :2]).sum(axis=0)
    about_middle = float(GRAVITY_M_S2 * np.hypot(first[0], first[1]))
    alone = mechanic.frog_radius_m if mechanic.netting_free else 0.0
    arm = max(mechanic.seat_arm_m, alone)
    return max(0.0, about_middle - float(rows.mass_kg.sum()) * GRAVITY_M_S2 * arm)


def fewest_strips(fit: Fit, mechanic: SizedMechanic, moment_n_m: float) -> int:
    """Fewest tape strips that hold the mechanic in its vessel, 0 to 6; 0 for kinds that take none."""
    if not sizing.ABOUT[mechanic.kind].tapes:
        return 0
    per_strip = tape_moment_n_m(strips=1, tape_width_m=fit.choice.tape_width_m, mouth_size_m=fit.mouth_m)
    short = moment_n_m - mechanic.seat_moment_n_m
    return max(0, min(MAX_TAPE_STRIPS, math.ceil(short / per_strip)))


def _netting(piece: Piece, conditions: Conditions) -> Netting:
    key = piece.mechanic.netting
    found = conditions.nettings.get(key) if key else None
    if found is None:
        said = (
            phrase("No netting in the stores is called “{key}”.", key=key) if key else phrase("No netting is chosen.")
        )
        raise UnknownName(path="mechanic.netting", message=said, limit=phrase("Choose one from the stores."))
    ranges.check(found, f"nettings.{key}")
    return found


def _frog(piece: Piece, conditions: Conditions) -> Frog:
    key = piece.mechanic.frog
    found = conditions.frogs.get(key) if key else None
    if found is None:
        said = phrase("No frog in the stores is called “{key}”.", key=key) if key else phrase("No frog is chosen.")
        raise UnknownName(path="mechanic.frog", message=said, limit=phrase("Choose one from the stores."))
    ranges.check(found, f"frogs.{key}")
    return found


def _fit(
    piece: Piece, netting: Netting | None, frog: Frog | None, stems: StemSet, raised: float, conditions: Conditions
) -> Fit:
    tall = piece.envelope.height_m - raised - piece.vessel.rim_m >= TALL_WORK.value
    putty = piece.mechanic.putty
    if putty is None:
        school = conditions.practice
        putty = frog is not None and (tall or school.frog == "always stuck" or school.fixing == "putty")
        putty = putty or (netting is not None and frog is None and school.fixing == "putty")
    return Fit(
        choice=piece.mechanic,
        vessel=piece.vessel,
        netting=netting,
        frog=frog,
        putty=putty,
        stems=int(stems.stems_in_row.sum()),
        stem_diameter_m=stems.mean_diameter_m,
        plastic_free=conditions.practice.no_single_use_plastic,
    )


def _strips_asked(piece: Piece, conditions: Conditions) -> int | None:
    if not sizing.ABOUT[piece.mechanic.kind].tapes:
        return 0
    if piece.mechanic.tape_strips is not None:
        return piece.mechanic.tape_strips
    plastic_free = conditions.practice.no_single_use_plastic
    return 0 if plastic_free or conditions.practice.fixing in ("none", "putty") else None


def _fitted(
    piece: Piece, fit: Fit, stems: StemSet, raised: float, conditions: Conditions
) -> tuple[SizedMechanic, Placement]:
    """The mechanic in its vessel, with its stems; the fewest tape strips that hold it where nobody said how many."""
    strips = _strips_asked(piece, conditions)
    mechanic, placement = _assemble(piece, fit, stems, strips or 0, raised, conditions)
    if strips is None:
        least = sizing.ABOUT[piece.mechanic.kind].least_strips
        fewest = max(least, fewest_strips(fit, mechanic, demand_n_m(mechanic, piece, placement)))
        if fewest:
            mechanic, placement = _assemble(piece, fit, stems, fewest, raised, conditions)
    return mechanic, placement


def _assemble(
    piece: Piece, fit: Fit, stems: StemSet, strips: int, raised: float, conditions: Conditions
) -> tuple[SizedMechanic, Placement]:
    mechanic = sizing.size(replace(fit, tape_strips=strips))
    covered = max(piece.water_level_m - STEM_END_COVER.value, 0.0)
    several = conditions.practice.several_points
    hands = tuple(replace(each, tip_z_m=each.tip_z_m - raised) for each in piece.hand_placed)
    placement = place(
        stems,
        vessel=piece.vessel,
        envelope=replace(piece.envelope, height_m=piece.envelope.height_m - raised),
        mechanic=mechanic,
        tape_width_m=piece.mechanic.tape_width_m,
        layout=Layout(
            arrangement=piece.arrangement,
            hand_placed=hands,
            several_points=several,
            feet_under_m=max(min(covered, DEEP_FEET.value * piece.vessel.inside_depth_m), 0.0),
            water_feet_m=covered,
            to_water=piece.feet == "to the water",
            points=piece.envelope.points,
            kept_m=kept_seats_m(piece, several_points=several, rows=len(stems)),
        ),
    )
    return _taking(mechanic, placement.takes), placement


@remembered
def _taking(mechanic: SizedMechanic, stems: int) -> SizedMechanic:
    """A mechanic with how many stems find a seat in it."""
    return replace(mechanic, capacity=stems)
