"""Constructions on the bench: nests, spike cups, feet, frames of one's own, covers, what is carried apart."""

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.building.extras import cover_sizes_m
from jolly_trellis.core.checks import hide_carried, travel
from jolly_trellis.core.checks.lift import loads_of
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.vessels import inside_size_m
from jolly_trellis.core.mechanics import own_frame
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.form import growing_points
from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.piece import Cover, CoverKind, CoverOn, Insert, Piece, Support
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.plan.standing import Standing
from tests.generated import examples
from tests.ordinary import bouquet, conditions, recipe, vessels
from tests.ordinary import piece as bowl


def built(piece: Piece) -> Build:
    with conditions().figures.open():
        return build(piece, conditions())


def finding_of(piece: Piece, verb: str, check: str) -> Any:
    verdict = next(each for each in evaluate(piece, conditions()).verdicts if each.verb == verb)
    return next((each for each in verdict.findings if each.check == check), None)


COLUMN = Support(
    name="column", height_m=0.8, top_width_m=0.17, opening_m=0.15, foot_width_m=0.3, mass_kg=4.0, column_width_m=0.15
)


class TestNests:
    def test_a_bowl_with_a_small_foot_nests_where_its_outside_meets_the_edge(self) -> None:
        vessel = replace(vessels()["low-bowl-20"], foot_width_m=0.10)
        deep = stacks.nests_m(vessel, COLUMN)
        assert 0 < deep < vessel.rim_m
        width, _ = inside_size_m(vessel, deep - vessel.base_m)
        assert width + 2 * vessel.wall_m == pytest.approx(COLUMN.opening_m, abs=1e-6)
        piece = replace(bowl(), vessel=vessel, support=COLUMN, envelope=replace(bowl().envelope, height_m=1.2))
        assert built(piece).raised_m == pytest.approx(COLUMN.height_m - deep)
        # It cannot slide off, so nothing has to bond it, and nothing says that it may drop in.
        assert finding_of(piece, "stand", "drop in") is None
        assert finding_of(piece, "stand", "bond") is None
        edge = COLUMN.opening_m / 2 - 0.003
        joint = finding_of(piece, "stand", "joint")
        assert joint.value.value > 0
        assert stacks.joint_edge_m(
            bowl_foot_m=COLUMN.opening_m, support_top_m=COLUMN.opening_m, offset_m=stacks.offset_of(COLUMN, vessel)
        ) == pytest.approx(edge)

    def test_one_whose_foot_stands_on_the_rim_does_not_nest(self) -> None:
        vessel = replace(vessels()["low-bowl-20"], foot_width_m=0.16)
        assert stacks.nests_m(vessel, COLUMN) == 0
        assert stacks.nests_m(replace(vessel, foot_width_m=None), COLUMN) == 0
        assert (
            finding_of(
                replace(bowl(), vessel=vessel, support=COLUMN, envelope=replace(bowl().envelope, height_m=1.2)),
                "stand",
                "drop in",
            )
            is not None
        )

    def test_one_that_is_narrower_all_over_falls_through(self) -> None:
        wide = replace(COLUMN, opening_m=0.4, top_width_m=0.42, column_width_m=0.4)
        with pytest.raises(InvalidMeasure, match="falls through") as caught:
            built(replace(bowl(), support=wide, envelope=replace(bowl().envelope, height_m=1.2)))
        assert caught.value.path == "support.opening_m"

    def test_a_bowl_in_a_cylinder_leaves_less_room_for_water(self) -> None:
        assert stacks.support_holds_l(COLUMN, 0.05) == pytest.approx(stacks.support_holds_l(COLUMN) * 0.75 / 0.8)


def cups(**more: Any) -> Standing:
    lines = (
        *recipe(leatherleaf=(12, "base"), rose=(8, "focal")),
        RecipeLine(variety="tulip", count=5, role="line", water="cup", **more),
    )
    return replace(bowl(), recipe=lines, envelope=replace(bowl().envelope, height_m=0.75))


class TestSpikeCups:
    def test_a_cup_lifts_what_is_not_sold_long_enough(self) -> None:
        plain = replace(cups(), recipe=tuple(replace(line, water="vessel") for line in cups().recipe))
        assert finding_of(plain, "hold", "reach") is not None
        assert finding_of(cups(), "hold", "reach") is None
        fixes = next(each for each in evaluate(plain, conditions()).verdicts if each.verb == "hold").fixes
        assert any("spike cups" in fix.say.text for fix in fixes)

    def test_stem_and_rod_make_up_the_whole(self) -> None:
        made = built(cups())
        placed, rows = made.placement, made.placement.stems.in_cup
        sold = max(conditions().varieties["tulip"].sold_lengths_m)
        whole = placed.visible_m + placed.found.embedded_m
        assert placed.cut_length_m[rows] + placed.rod_m[rows] == pytest.approx(whole[rows])
        assert (placed.cut_length_m[rows] <= sold + 1e-9).all()
        assert (placed.rod_m[rows] >= 0.1).all()
        assert (placed.rod_m[~rows] == 0).all()
        report = evaluate(cups(), conditions())
        for stem, rod, cut in zip(report.stems, report.stems.rod_m, report.stems.cut_length_m, strict=True):
            end, tip = (stem.end_x_m, stem.end_y_m, stem.end_z_m), (stem.tip_x_m, stem.tip_y_m, stem.tip_z_m)
            if rod:
                assert math.dist(end, tip) == pytest.approx(cut, abs=1e-6)

    def test_cups_weigh_are_listed_and_are_drunk_dry(self) -> None:
        """By hand: a cup of 25 g, 30 cm of rod at 35 g a metre, 60 g of water."""
        made = built(cups(cup_ml=60, rod_m=0.3))
        rows = made.placement.stems.in_cup
        wet = made.placement.stems.own_water_kg(made.placement.rod_m, heavy=False)[rows]
        assert wet == pytest.approx(0.025 + 0.3 * 0.035 + 0.060)
        parts = {each.part.name: each.part for each in made.extras}
        assert (parts["spike cup"].quantity, parts["rod of a spike cup"].quantity) == (5, 5)
        assert parts["rod of a spike cup"].sizes[0].value == pytest.approx(0.3)
        drink = next(each for each in evaluate(cups(cup_ml=60), conditions()).verdicts if each.verb == "drink")
        assert any("in a spike cup" in str(each.reason) for each in drink.findings)

    def test_feet_of_one_line_end_at_the_water(self) -> None:
        deep = replace(
            bowl(),
            vessel=vessels()["cylinder-15"],
            water_level_m=0.2,
            envelope=replace(bowl().envelope, height_m=0.45),
        )
        lines = (*recipe(rose=(6, "focal")), replace(recipe(ruscus=(6, "filler"))[0], feet="to the water"))
        placed = built(replace(deep, recipe=lines)).placement
        ends = placed.end_height_m
        own = [placed.stems.variety_of(row).key == "ruscus" for row in range(len(placed.stems))]
        assert ends[own] == pytest.approx([0.18] * 6, abs=1e-6)
        assert (ends[[not each for each in own]] < 0.1).all()


@given(st.integers(2, 24))
def test_growing_points_lie_evenly_round_the_mouth(number: int) -> None:
    points = growing_points(number)
    assert len(set(points)) == number
    assert all(math.hypot(x, y) == pytest.approx(0.45) for x, y in points)
    assert sum(x for x, _ in points) == pytest.approx(0, abs=1e-9)


def test_more_growing_points_than_stems_are_refused() -> None:
    few = replace(bowl(), recipe=recipe(rose=(3, "focal")), envelope=replace(bowl().envelope, points=4))
    with pytest.raises(InvalidMeasure, match="3 stems") as caught:
        built(few)
    assert caught.value.path == "envelope.points"
    assert built(replace(few, envelope=replace(few.envelope, points=3))).placement.takes >= 3


class TestFrames:
    """By hand: a square rests by its corners where its side × √2 reaches 2 cm past the mouth."""

    @pytest.mark.parametrize(("mouth", "least"), [(0.20, 0.1556), (0.30, 0.2263), (0.10, 0.0849)])
    def test_the_least_square(self, mouth: float, least: float) -> None:
        assert own_frame.least_side_m(mouth) == pytest.approx(least, abs=1e-4)
        own_frame.check_side(least + 1e-4, mouth_m=mouth, square=False)
        with pytest.raises(InvalidMeasure, match="drops into"):
            own_frame.check_side(least - 1e-3, mouth_m=mouth, square=False)

    def test_on_a_square_mouth_it_must_not_cover_it_whole(self) -> None:
        own_frame.check_side(0.2, mouth_m=0.15, square=True)
        own_frame.check_side(0.3, mouth_m=0.15, square=False)
        with pytest.raises(InvalidMeasure, match="covers a square mouth"):
            own_frame.check_side(0.22, mouth_m=0.15, square=True)

    def test_wires_of_ones_own_are_counted_not_worked_out(self) -> None:
        for kind in ("own_frame", "strung_ring"):
            choice = replace(bowl().mechanic, kind=kind, own_m=0.24, own_wires=12, own_wire_m=0.0015)
            made = built(replace(bowl(), mechanic=choice)).mechanic
            assert made.levels[0].aperture_m == pytest.approx(0.24 / 13 - 0.0015)
            with pytest.raises(InvalidMeasure) as caught:
                built(replace(bowl(), mechanic=replace(choice, own_wires=80)))
            assert caught.value.path == "mechanic.own_wires"
        with pytest.raises(InvalidMeasure, match="drops into"):
            built(replace(bowl(), mechanic=replace(bowl().mechanic, kind="strung_ring", own_m=0.1)))

    @pytest.mark.parametrize("kind", ["cane_loops", "thorny_holders"])
    def test_a_trough_takes_cane_or_thorns(self, kind: str) -> None:
        trough = vessels()["trough-60"]
        piece = replace(bowl(), vessel=trough, mechanic=replace(bowl().mechanic, kind=kind), water_level_m=0.05,
                        envelope=replace(bowl().envelope, width_m=0.8, height_m=0.4))  # fmt: skip
        made = built(piece).mechanic
        apart = 0.03 if kind == "cane_loops" else 0.025
        rows = math.ceil(trough.mouth_width_m / apart)
        assert made.parts[0].quantity == (rows if kind == "cane_loops" else 2 * rows)
        assert made.compostable
        assert not ABOUT[kind].netting


@pytest.mark.parametrize(
    ("kind", "on", "supply"),
    [
        ("moss", "rim", "moss"),
        ("cloth", "outside", "cloth"),
        ("ribbon", "rim", "ribbon"),
        ("leaf", "outside", "large-leaf"),
    ],
)
def test_what_covers_has_its_size_and_is_bought(kind: CoverKind, on: CoverOn, supply: str) -> None:
    piece = replace(bowl(), covers=(Cover(kind=kind, on=on),))
    part = next(each.part for each in built(piece).extras if each.part.name.startswith(f"{kind} over"))
    assert part.taken is not None
    assert getattr(part.taken, "supply", None) == supply
    long, wide = part.sizes[0].value, part.sizes[1].value
    outside = piece.vessel.mouth_width_m + 2 * piece.vessel.wall_m
    assert long == pytest.approx(math.pi * outside + (0.02 if on == "outside" else 0.0), rel=0.01)
    assert wide == pytest.approx(0.04 if on == "rim" else piece.vessel.rim_m)
    assert part.mass_kg > 0


def test_moss_over_a_rim_hides_it_and_nothing_there_cannot_be_covered() -> None:
    bare = replace(bowl(), recipe=recipe(rose=(5, "focal")))
    assert finding_of(bare, "hide", "rim band") is not None
    assert finding_of(replace(bare, covers=(Cover(kind="moss", on="rim"),)), "hide", "rim band") is None
    for on in ("packing", "cups"):
        with pytest.raises(InvalidMeasure) as caught:
            built(replace(bare, covers=(Cover(kind="moss", on=on),)))
        assert caught.value.path == "covers"
    in_cups = cups()
    assert cover_sizes_m(Cover(kind="moss", on="cups"), in_cups)[0] == pytest.approx(5 * math.pi * 0.028)


class TestCarriedApart:
    def test_an_insert_rides_without_its_urn(self) -> None:
        urn = replace(vessels()["urn-30"], mass_kg=6.0)
        piece = replace(
            bowl(), vessel=vessels()["insert-bowl-20"], insert=Insert(outer=urn), transport=Transport(box_wall_m=0.2)
        )
        piece = replace(piece, envelope=replace(piece.envelope, height_m=built(piece_high(piece)).raised_m + 0.45))
        whole, apart = (
            built(replace(piece, transport=replace(Transport(box_wall_m=0.2), lifted_out=lifted)))
            for lifted in (False, True)
        )
        with conditions().figures.open():
            both = [travel.journey_of(each) for each in (whole, apart)]
            loads = {each.name: each.mass_kg for each in loads_of(apart)}
        assert both[0] is not None
        assert both[1] is not None
        packed = sum(each.part.mass_kg for each in apart.extras if each.borne_by == "urn")
        assert both[0].mass_kg - both[1].mass_kg == pytest.approx(6.0 + packed)
        assert both[1].height_m == pytest.approx(both[0].height_m - apart.raised_m)
        assert loads["the urn, carried apart"] == 6.0

    def test_a_pad_rides_on_a_bucket_without_its_vessel(self) -> None:
        pad = replace(
            bowl(),
            mechanic=replace(bowl().mechanic, kind="lattice_pad"),
            transport=Transport(lifted_out=True, box_wall_m=0.3),
        )
        made = built(pad)
        with conditions().figures.open():
            journey = travel.journey_of(made)
            loads = {each.name: each for each in loads_of(made)}
        assert journey is not None
        stems = float(made.rows.mass_kg.sum())
        assert journey.mass_kg == pytest.approx(stems + made.mechanic.mass_kg + 0.6 + 3.0)
        assert journey.level_m == 0
        assert loads["the vessel, carried apart"].mass_kg == pad.vessel.mass_kg
        assert loads["the pad with its stems, on a bucket"].deep_m == 0.24


def piece_high(piece: Standing) -> Standing:
    return replace(piece, envelope=replace(piece.envelope, height_m=1.2))


def one_sided() -> Bouquet:
    return replace(bouquet(), envelope=replace(bouquet().envelope, form="fan"))


def test_a_one_sided_bouquet_is_covered_at_its_back() -> None:
    bare = finding_of(one_sided(), "hide", "back")
    leaves = finding_of(replace(one_sided(), back="leaves"), "hide", "back")
    disc = finding_of(replace(one_sided(), back="disc"), "hide", "back")
    assert leaves.value.value == pytest.approx(0.05 * bare.value.value)
    assert disc.value.value == 0
    names = [each.name for each in evaluate(replace(one_sided(), back="disc"), conditions()).mechanic.parts]
    assert "disc of covered card" in names
    with conditions().figures.open():
        made = build(one_sided(), conditions())
        keys = [each.key for each in hide_carried.candidates(made, hide_carried.judge(made))]
        kept = [each.key for each in hide_carried.candidates(build(bouquet(), conditions()), hide_carried.judge(made))]
    assert {"back-leaves", "back-disc", "back-leaves-collar"} <= set(keys)
    assert not any(key.startswith("back") for key in kept)


def test_stems_may_spiral_through_an_armature_too() -> None:
    star = replace(bouquet(), mechanic=replace(bouquet().mechanic, kind="star_lattice"))
    crossed = built(replace(star, spiral=True))
    straight = built(star)
    assert crossed.mechanic.crosses
    assert not straight.mechanic.crosses
    # It is still held by its armature: openings and sway are judged.
    checks = {
        each.check
        for each in next(v for v in evaluate(crossed.piece, conditions()).verdicts if v.verb == "hold").findings
    }
    assert {"openings", "sway", "mesh", "spiral"} <= checks


@examples(10)
@given(st.integers(0, 8), st.integers(0, 20))
def test_vine_and_berries_are_worked_in(rounds: int, berries: int) -> None:
    star = replace(
        bouquet(), mechanic=replace(bouquet().mechanic, kind="star_lattice", vine_rounds=rounds, berries=berries)
    )
    made = built(star).mechanic
    parts = {each.name: each for each in made.parts}
    assert ("vine, in all" in parts) == (rounds > 0)
    assert ("sprig of berries" in parts) == (berries > 0)
    usual = built(replace(star, mechanic=replace(star.mechanic, vine_rounds=2))).mechanic
    assert (made.capacity >= usual.capacity) == (rounds >= 2 or made.capacity == usual.capacity)
    if berries:
        assert parts["sprig of berries"].quantity == berries
