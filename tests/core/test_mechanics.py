"""Every mechanic of the table: sized from its own geometry, drawn from its levels, refused where it does not fit."""

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.choices import MECHANICS
from jolly_trellis.core.errors import CoreError, InvalidMeasure, UnknownName
from jolly_trellis.core.judging.choose import choice_of
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.mechanics import (
    fills,
    lattices,
    pin_frog,
    raised_cups,
    rings,
    rolls,
    stacked_pair,
    string_ball,
)
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.mechanics.sizing import ABOUT, size
from jolly_trellis.core.plan.piece import Mechanic, MechanicKind, Piece
from jolly_trellis.core.units import render
from tests.generated import examples
from tests.ordinary import IN_VESSEL, conditions, frogs, nettings, piece, stems, vessels

HOME: dict[MechanicKind, str] = {"cross_stick_roll": "trough-60", "cup_frog": "cup-8"}


def plan(kind: MechanicKind) -> Piece:
    """An ordinary piece with a mechanic of a kind, in a vessel it is made for."""
    vessel = vessels()[HOME.get(kind, "low-bowl-26")]
    base = replace(
        piece(),
        vessel=vessel,
        water_level_m=round(0.85 * vessel.inside_depth_m, 3),
        envelope=replace(piece().envelope, height_m=vessel.rim_m + 0.2),
    )
    if kind == "cup_frog":
        base = stems(replace(base, recipe=base.recipe[2:5]), 8)
    return replace(base, mechanic=choice_of(base, conditions(), kind))


def fit(kind: MechanicKind, **changes: object) -> Fit:
    chosen = plan(kind)
    choice = chosen.mechanic
    made = Fit(
        choice=choice,
        vessel=chosen.vessel,
        netting=nettings()[choice.netting] if choice.netting else None,
        frog=frogs()[choice.frog] if choice.frog else None,
        stems=30,
        stem_diameter_m=0.006,
    )
    return replace(made, **changes)  # type: ignore[arg-type]


def with_choice(kind: MechanicKind, **changes: Any) -> Fit:
    return replace(fit(kind), choice=replace(fit(kind).choice, **changes))


def sized(kind: MechanicKind, **changes: object) -> SizedMechanic:
    return size(fit(kind, **changes))


def test_the_table_is_whole() -> None:
    assert tuple(ABOUT) == MECHANICS.known
    assert len(IN_VESSEL) == 26


@pytest.mark.parametrize("kind", IN_VESSEL)
def test_a_mechanic_yields_everything_every_mechanic_yields(kind: MechanicKind) -> None:
    made = sized(kind)
    assert made.kind == kind
    assert made.name
    assert made.parts
    assert made.capacity >= 1
    assert made.mass_kg > 0
    assert made.minutes > 0
    assert made.uses >= 1
    assert made.seat_moment_n_m > 0
    assert made.price is None or made.price > 0
    assert made.displaced_volume_l >= 0
    assert 0.5 <= made.slop_factor <= 1.3
    assert made.steps
    assert all(render(step.say, "metric") and "{" not in render(step.say, "inch") for step in made.steps)


@pytest.mark.parametrize("kind", IN_VESSEL)
def test_its_levels_lie_in_its_vessel_from_the_top_down(kind: MechanicKind) -> None:
    made, vessel = sized(kind), plan(kind).vessel
    heights = [level.height_m for level in made.levels]
    assert heights == sorted(heights, reverse=True)
    assert heights[-1] >= -1e-9
    # cups on rods stand on the floor of a shallow vessel and so higher than its rim
    room = max(vessel.inside_depth_m, made.layer_gap_m) if kind == "raised_cups" else vessel.inside_depth_m
    assert heights[0] <= room + 1e-9
    assert made.seating.height_m <= room + 1e-9


@pytest.mark.parametrize("kind", IN_VESSEL)
def test_a_piece_with_it_is_evaluated_whole(kind: MechanicKind) -> None:
    report = evaluate(plan(kind), conditions(), with_fixes=False)
    assert len(report.verdicts) == 8
    assert report.mechanic.kind == kind
    assert sum(report.stems.stems) == sum(line.count for line in plan(kind).recipe)
    for verdict in report.verdicts:
        assert "{" not in render(verdict.reason, "metric")


@pytest.mark.parametrize("kind", [kind for kind in IN_VESSEL if ABOUT[kind].netting])
def test_what_is_made_of_netting_asks_for_it(kind: MechanicKind) -> None:
    with pytest.raises(UnknownName) as caught:
        build(replace(plan(kind), mechanic=replace(plan(kind).mechanic, netting=None)), conditions())
    assert caught.value.path == "mechanic.netting"


@pytest.mark.parametrize("kind", [kind for kind in IN_VESSEL if ABOUT[kind].frog])
def test_what_needs_a_frog_asks_for_it(kind: MechanicKind) -> None:
    with pytest.raises(UnknownName) as caught:
        build(replace(plan(kind), mechanic=replace(plan(kind).mechanic, frog="gone")), conditions())
    assert caught.value.path == "mechanic.frog"


@pytest.mark.parametrize("kind", [kind for kind in IN_VESSEL if ABOUT[kind].frog])
def test_a_frog_of_another_kind_is_refused(kind: MechanicKind) -> None:
    other = next(each for each in frogs().values() if each.kind != ABOUT[kind].frog)
    with pytest.raises(InvalidMeasure) as caught:
        sized(kind, frog=other)
    assert "frog" in caught.value.message.text


def test_a_vessel_smaller_than_its_frog_is_refused_with_the_size_that_fits() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        sized("pin_frog", frog=frogs()["pin-150"])
    assert caught.value.path == "mechanic.frog"
    assert caught.value.limit.quantities["most"].value == pytest.approx(0.138)


def test_a_frog_taller_than_the_vessel_is_refused() -> None:
    with pytest.raises(InvalidMeasure, match="stands out"):
        sized("cage_frog", vessel=vessels()["shallow-dish-28"], frog=replace(frogs()["cage-80"], height_m=0.06))


@pytest.mark.parametrize("kind", [kind for kind in IN_VESSEL if ABOUT[kind].netting])
def test_a_mouth_narrower_than_one_cell_is_refused(kind: MechanicKind) -> None:
    vessel = plan(kind).vessel
    narrow = replace(
        vessel, profile=tuple(replace(each, width_m=0.02, depth_m=0.02) for each in vessel.profile), plan_shape="round"
    )
    with pytest.raises(InvalidMeasure, match="narrower than one cell"):
        sized(kind, vessel=narrow)


@pytest.mark.parametrize(
    ("kind", "key"),
    [
        ("stacked_pair", "shallow-dish-28"),
        ("string_ball", "shallow-dish-28"),
        ("twig_rings", "shallow-dish-28"),
        ("frog_with_wire", "low-bowl-15"),
        ("cross_stick_roll", "low-bowl-26"),
    ],
)
def test_a_vessel_too_shallow_or_of_another_shape_is_refused_in_words(kind: MechanicKind, key: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        sized(kind, vessel=vessels()[key], frog=frogs()["pin-50"])
    assert caught.value.message.text
    assert caught.value.limit.text


class TestStackedPair:
    def test_the_lower_piece_is_smaller_in_a_flared_bowl(self) -> None:
        upper, lower = sized("stacked_pair").flat
        assert lower.sheet.width_m < upper.sheet.width_m

    def test_its_levels_are_farther_apart_than_a_cushions(self) -> None:
        assert sized("stacked_pair").layer_gap_m > sized("folded_cushion").layer_gap_m

    def test_a_disc_is_cut_square(self) -> None:
        assert stacked_pair.disc_side_m(0.20, 0.05, 0.0125) == pytest.approx(0.235)

    def test_moss_takes_up_twelve_times_its_dry_mass(self) -> None:
        """From memory."""
        assert stacked_pair.moss_water_l(0.01) == pytest.approx(0.12)
        made = sized("moss_sandwich")
        assert made.absorbed_l == pytest.approx(12 * 0.25 * fit("moss_sandwich").mouth_area_m2)
        assert made.slop_factor < sized("stacked_pair").slop_factor

    def test_a_moss_sandwich_has_a_strip_of_tape_at_least(self) -> None:
        assert build(plan("moss_sandwich"), conditions()).mechanic.tape_strips >= 1


class TestRolls:
    @pytest.mark.parametrize(("long", "number"), [(0.25, 1), (0.30, 1), (0.31, 2), (0.60, 2), (0.95, 4)])
    def test_one_stick_for_every_thirty_centimetres(self, long: float, number: int) -> None:
        assert rolls.sticks(long) == number

    def test_sticks_reach_three_centimetres_past_the_outside(self) -> None:
        made, trough = sized("cross_stick_roll"), vessels()["trough-60"]
        stick = next(part for part in made.parts if part.name == "stick")
        assert stick.quantity == 2
        assert stick.sizes[0].value == pytest.approx(trough.mouth_depth_m + 2 * (trough.wall_m + 0.03))

    def test_the_roll_is_a_twentieth_wider_than_its_trough(self) -> None:
        assert rolls.roll_diameter_m(0.12) == pytest.approx(0.126)

    def test_a_roll_has_three_levels_or_more(self) -> None:
        assert len(sized("cross_stick_roll").levels) == 3
        assert len(sized("three_layer_roll").levels) == 3

    def test_the_pressed_roll_is_three_mouths_long(self) -> None:
        made = sized("three_layer_roll")
        assert made.sheet is not None
        tuck = made.flat[0].tuck_m
        assert (made.sheet.length_m - 2 * tuck) / (made.sheet.width_m - 2 * tuck) == pytest.approx(3.0)


class TestFrogs:
    def test_a_frog_holds_by_its_weight_under_water(self) -> None:
        """m·(1 − ρw/ρ)·g·r, worked by hand for 1.35 kg of iron, 5 cm."""
        held = pin_frog.holding_moment_n_m(mass_kg=1.35, radius_m=0.05, putty_ring_m=0.0)
        assert held == pytest.approx(1.35 * (1 - 1000 / 7800) * 9.80665 * 0.05)

    def test_putty_adds_its_pull_over_its_ring(self) -> None:
        bare = pin_frog.holding_moment_n_m(mass_kg=0.7, radius_m=0.04, putty_ring_m=0.0)
        stuck = pin_frog.holding_moment_n_m(mass_kg=0.7, radius_m=0.04, putty_ring_m=0.25)
        assert stuck - bare == pytest.approx(10_000 * 0.25 * 0.008 * 0.04)

    def test_stems_on_pins_stand_firm_and_start_at_the_frog(self) -> None:
        made = build(plan("pin_frog"), conditions())
        assert made.placement.gripped.all()
        assert made.placement.seat_height_m == pytest.approx(frogs()[plan("pin_frog").mechanic.frog or ""].height_m)

    def test_tall_work_on_a_frog_is_stuck_down(self) -> None:
        low = plan("pin_frog")
        tall = replace(low, envelope=replace(low.envelope, height_m=low.vessel.rim_m + 0.5))
        assert build(low, conditions()).mechanic.putty_kg == 0
        assert build(tall, conditions()).mechanic.putty_kg > 0

    def test_a_studio_that_always_sticks_its_frogs_gets_putty(self) -> None:
        always = replace(conditions(), practice=replace(conditions().practice, frog="always stuck"))
        assert build(plan("pin_frog"), always).mechanic.putty_kg > 0

    @pytest.mark.parametrize("kind", ["cage_frog", "loop_frog", "holed_frog"])
    def test_openings_are_rigid_and_counted(self, kind: MechanicKind) -> None:
        made = sized(kind)
        assert made.rigid
        assert len(made.levels) == 2
        frog = fit(kind).frog
        assert frog is not None
        assert made.capacity >= frog.openings

    def test_wire_over_a_frog_gives_both(self) -> None:
        made = sized("frog_with_wire")
        assert made.grip is not None
        assert len(made.levels) == 2
        assert made.mass_kg > sized("pin_frog").mass_kg


class TestFills:
    def test_length_of_stem_for_a_tangle(self) -> None:
        """3 L filled to a tenth with 5 mm stems: 0.3 L over 19.63 mm²."""
        assert fills.tangle_stem_length_m(3.0, 0.10, 0.005) == pytest.approx(0.0003 / 1.9635e-5, rel=1e-4)

    def test_a_denser_tangle_has_narrower_gaps(self) -> None:
        gaps = [fills.tangle_gap_m(share, 0.005) for share in (0.08, 0.10, 0.12)]
        assert gaps == sorted(gaps, reverse=True)

    @pytest.mark.parametrize("kind", ["branch_tangle", "wood_shavings"])
    def test_a_loose_fill_brings_its_grid(self, kind: MechanicKind) -> None:
        """By hand: strips 3 cm apart on this mouth, both ways; the chords of a circle are π/4 of it on the average."""
        made = sized(kind)
        mouth = fit(kind).mouth_m
        each_way = math.ceil(mouth / 0.03 - 1e-9) - 1
        tape = next(each for each in made.parts if each.name == "tape of the grid")
        ends = 2 * (fit(kind).vessel.wall_m + 0.025)
        assert tape.quantity == made.tape_strips == 2 * each_way
        assert tape.sizes[0].value == pytest.approx(math.pi / 4 * mouth + ends)
        assert not made.loose
        wide = size(with_choice(kind, cell_m=0.09))
        assert wide.tape_strips == 2 * (math.ceil(mouth / 0.04 - 1e-9) - 1), "never farther apart than 4 cm"
        assert made.single_use_plastic
        for plastic_free in (size(with_choice(kind, tape_strips=0)), size(replace(fit(kind), plastic_free=True))):
            assert plastic_free.tape_strips == 0
            assert not plastic_free.single_use_plastic
            assert any(each.name == "string of the grid" for each in plastic_free.parts)

    def test_shavings_are_filled_higher_than_they_settle(self) -> None:
        made = sized("wood_shavings")
        assert made.parts[0].sizes[0].value > 1.1 * 3.0
        assert made.compostable


class TestLattices:
    @pytest.mark.parametrize(("mouth", "spacing", "strips"), [(0.12, 0.03, 3), (0.12, 0.04, 2), (0.05, 0.06, 1)])
    def test_strips_of_a_grid(self, mouth: float, spacing: float, strips: int) -> None:
        assert lattices.grid_strips(mouth, spacing) == strips

    def test_a_closer_grid_takes_more_tape(self) -> None:
        lengths = [lattices.grid_length_m(0.2, spacing, 0.03) for spacing in (0.04, 0.03, 0.02)]
        assert lengths == sorted(lengths)

    def test_a_grid_has_one_level_and_takes_plastic(self) -> None:
        made = sized("tape_grid")
        assert len(made.levels) == 1
        assert made.single_use_plastic
        assert 0 < made.tape_share_of_mouth < 0.6

    @pytest.mark.parametrize("kind", ["lattice_pad", "lattice_disc"])
    def test_a_moulded_lattice_lifts_off_and_is_used_again(self, kind: MechanicKind) -> None:
        made = sized(kind)
        assert made.lifts_off
        assert made.uses > 20
        assert not made.single_use_plastic

    def test_a_pad_reaches_two_centimetres_past_the_mouth(self) -> None:
        assert sized("lattice_pad").parts[0].sizes[0].value == pytest.approx(0.26 + 0.02)

    def test_dowels_are_longer_than_the_mouth(self) -> None:
        dowel = next(part for part in sized("lattice_disc").parts if part.name == "dowel")
        assert dowel.sizes[0].value > 0.26


class TestRingsBallsAndCups:
    def test_wire_of_a_strung_ring_by_the_mean_chord(self) -> None:
        """Seven wires each way in a 20 cm ring at 25 mm: 14 · (π/4 · 0.2 + 0.06)."""
        assert rings.strung_wire_length_m(0.2, 0.025) == pytest.approx(14 * (math.pi / 4 * 0.2 + 0.06))

    def test_a_ring_is_two_centimetres_wider_than_the_mouth(self) -> None:
        assert sized("strung_ring").parts[0].sizes[0].value == pytest.approx(0.28)
        assert sized("twig_rings").parts[1].sizes[0].value == pytest.approx(0.28)

    def test_string_goes_twice_round_like_a_parcel(self) -> None:
        assert string_ball.string_length_m(0.2, 0.1) == pytest.approx(2 * (0.4 + 0.2) + 0.2)

    def test_cups_are_as_many_as_the_stems_need(self) -> None:
        assert sized("raised_cups", stems=3).own_cups < sized("raised_cups", stems=30).own_cups
        assert sized("raised_cups").capacity >= 30

    def test_a_cup_is_as_deep_as_its_water(self) -> None:
        deep = raised_cups.cup_depth_m(60.0, 0.024)
        assert math.pi / 4 * 0.024**2 * deep == pytest.approx(60e-6)


@pytest.mark.parametrize("kind", ["fibre_pouch", "mineral_block"])
def test_a_soaked_block_weighs_nine_tenths_of_a_kilogram_per_litre(kind: MechanicKind) -> None:
    made = sized(kind)
    across, along, high = (each.value for each in made.parts[0].sizes)
    assert made.mass_kg == pytest.approx(0.9 * 1000 * across * along * high)
    assert made.absorbed_l < made.mass_kg
    assert made.compostable, "as their makers state"
    assert made.uses == 1


@examples(40)
@given(
    st.sampled_from(IN_VESSEL),
    st.sampled_from(sorted(vessels())),
    st.integers(5, 60),
    st.floats(0.05, 0.5),
)
def test_whatever_is_asked_is_sized_or_refused_in_words(
    kind: MechanicKind, key: str, number: int, above: float
) -> None:
    vessel = vessels()[key]
    asked = replace(
        piece(),
        vessel=vessel,
        water_level_m=0.7 * vessel.inside_depth_m,
        envelope=replace(piece().envelope, height_m=vessel.rim_m + above),
        recipe=tuple(replace(line, count=max(1, number // 6)) for line in piece().recipe),
    )
    tried = replace(asked, mechanic=choice_of(asked, conditions(), kind))
    try:
        report = evaluate(tried, conditions(), with_fixes=False)
    except CoreError as problem:
        assert problem.message.text
        assert problem.limit.text
        return
    for verdict in report.verdicts:
        assert verdict.utilisation is None or 0 <= verdict.utilisation <= 10
    assert all(math.isfinite(each) and each > 0 for each in report.stems.cut_length_m)


def test_a_studio_without_plastic_gets_no_tape() -> None:
    free = replace(conditions(), practice=replace(conditions().practice, no_single_use_plastic=True))
    leaning = replace(piece(), mechanic=Mechanic(netting="coated-13-07", layers=1, squeeze=0.01))
    assert build(leaning, free).mechanic.tape_strips == 0


def test_a_studio_that_uses_putty_gets_dabs_instead_of_tape() -> None:
    putty = replace(conditions(), practice=replace(conditions().practice, fixing="putty"))
    made = build(piece(), putty).mechanic
    assert made.tape_strips == 0
    assert made.putty_kg > 0
    assert "putty" in made.seated_by


@pytest.mark.parametrize("cup_ml", [20.0, 60.0, 120.0])
def test_cups_stand_over_the_floor_however_deep_they_are(cup_ml: float) -> None:
    cups = replace(piece(), mechanic=Mechanic(kind="raised_cups", cup_ml=cup_ml))
    made = build(cups, conditions())
    assert min(level.height_m for level in made.mechanic.levels) >= -1e-9
    assert (made.placement.end_height_m >= -1e-9).all()
