"""Travel and Lift: the box, the slop, the door, the levels; the mass at each move."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.books import water
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import lift, travel
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.piece import Insert, Mechanic, Piece, Support
from jolly_trellis.core.plan.setting import Transport
from tests.generated import examples
from tests.ordinary import conditions, lacks, piece, vessels

BOXED = Transport(box_wall_m=0.2)


def going(transport: Transport | None, base: Piece | None = None) -> Piece:
    return replace(base or piece(), transport=transport)


def made_there(base: Piece | None = None) -> Piece:
    return replace(going(Transport(), base), passage=Passage(made="its place"))


def verdict(plan: Piece, verb: str) -> Verdict:
    return next(each for each in evaluate(plan, conditions()).verdicts if each.verb == verb)


def test_an_ordinary_bowl_travels_in_a_box() -> None:
    assert verdict(going(BOXED), "travel").state in ("holds", "tight")


def test_nothing_is_said_of_a_journey_nobody_has_described() -> None:
    said = verdict(going(None), "travel")
    assert said.state == "cannot say"
    assert "travels" in lacks(said)[0]


def test_what_is_made_where_it_stands_need_not_travel() -> None:
    assert verdict(made_there(), "travel").state == "not needed"


def test_a_box_of_unknown_height_cannot_be_judged() -> None:
    said = verdict(going(Transport()), "travel")
    assert said.state == "cannot say"
    assert any("walls" in fact for fact in lacks(said))


def test_an_unweighed_vessel_cannot_be_judged() -> None:
    said = verdict(going(BOXED, replace(piece(), vessel=replace(piece().vessel, mass_kg=None))), "travel")
    assert said.state == "cannot say"


def tall() -> Piece:
    vessel = vessels()["cylinder-15"]
    return replace(
        piece(),
        vessel=vessel,
        envelope=replace(piece().envelope, height_m=0.75, width_m=0.4, depth_m=0.4),
        water_level_m=0.2,
    )


def test_a_low_box_fails_and_the_fix_is_as_high_as_the_formula_asks() -> None:
    plan = going(Transport(box_wall_m=0.03, box_width_m=0.2, box_depth_m=0.2), tall())
    said = verdict(plan, "travel")
    assert said.state == "fails"
    assert said.fixes
    for fix in said.fixes:
        assert verdict(fix.piece, "travel").state in ("holds", "tight", "not needed")


def test_a_tall_vessel_bare_on_the_van_floor_tips_under_braking() -> None:
    said = verdict(going(Transport(boxed=False), tall()), "travel")
    assert said.state == "fails"
    assert any(each.check == "tips unboxed" and each.utilisation > 1 for each in said.findings)


def test_a_piece_wider_than_the_door_fails() -> None:
    said = verdict(going(replace(BOXED, door_width_m=0.3)), "travel")
    assert any(each.check == "door" and each.utilisation > 1 for each in said.findings)


def test_the_three_levels_are_three_numbers_in_their_order() -> None:
    made = build(going(BOXED), conditions())
    journey = travel.journey_of(made)
    assert journey is not None
    bench = travel.bench_level_m(made, journey.level_m)
    assert bench < journey.level_m < piece().water_level_m
    assert journey.carried_l == pytest.approx(
        made.water.volume_at_l(piece().water_level_m) - made.water.volume_at_l(journey.level_m)
    )


def test_water_never_slops_at_the_level_worked_out() -> None:
    made = build(going(BOXED), conditions())
    level = water.steady_level_m(made.piece, made.mechanic)
    climbs = water.slop_m(0.3, water.along_drive_m(made.piece.vessel, level), made.mechanic.slop_factor)
    assert level + climbs <= made.piece.vessel.inside_depth_m + 0.005


def test_moss_lets_a_bowl_travel_fuller_and_open_pins_emptier() -> None:
    def level(mechanic: Mechanic) -> float:
        plan = replace(going(BOXED), vessel=vessels()["low-bowl-26"], mechanic=mechanic, water_level_m=0.095)
        return water.steady_level_m(plan, build(plan, conditions()).mechanic)

    moss = level(Mechanic(kind="moss_sandwich", netting="coated-25-09"))
    wire = level(Mechanic(kind="stacked_pair", netting="coated-25-09"))
    pins = level(Mechanic(kind="pin_frog", frog="pin-100"))
    assert moss > wire > pins


def test_a_single_untied_level_is_said_to_shift() -> None:
    loose = replace(going(BOXED), mechanic=Mechanic(netting="coated-25-09", layers=1))
    assert any(each.check == "shifts" for each in verdict(loose, "travel").findings)


@examples(30)
@given(st.floats(0.05, 0.6), st.floats(0.03, 0.4), st.floats(0.1, 1.2))
def test_a_wider_box_never_needs_a_higher_wall(height: float, gap: float, accel: float) -> None:
    def wall(each: float) -> float:
        return travel.box_wall_m(vessel_height_m=0.1, centre_m=height, wall_gap_m=each, accel_ratio=accel)

    assert wall(gap) >= wall(gap * 1.2) - 1e-12
    assert wall(gap) >= 0.1 / 3 - 1e-12


def test_an_ordinary_bowl_is_lifted_by_one() -> None:
    assert verdict(going(BOXED), "lift").state == "holds"


def test_lifting_says_what_it_lacks() -> None:
    assert verdict(going(None), "lift").state == "cannot say"


def heavy() -> Piece:
    vessel = replace(vessels()["urn-30"], mass_kg=9.0)
    return replace(
        piece(),
        vessel=vessel,
        envelope=replace(piece().envelope, height_m=0.9, width_m=0.6, depth_m=0.6),
        water_level_m=0.3,
        mechanic=Mechanic(kind="stacked_pair", netting="coated-25-09"),
    )


def test_what_is_made_where_it_stands_is_lifted_dry_and_its_stems_in_a_bucket() -> None:
    """Its vessel of 9 kg with 0.12 kg of wire, its water a jug of 2 L at a time; never the 25 kg of the finished urn.

    A bucket: itself 0.6 kg, 3 L of water, and 25 of its 34 stems, which are 1.384 kg when heavy: 3.6 + 1.018.
    """
    made = build(made_there(replace(heavy(), ballast_kg=4.0)), conditions())
    assert {each.name: round(each.mass_kg, 2) for each in lift.loads_of(made)} == {
        "the dry vessel": 9.12,
        "its stones": 4.0,
        "a jug of water": 2.0,
        "a bucket of what goes in there": 4.62,
    }
    assert float(made.heavy_rows.mass_kg.sum()) == pytest.approx(1.384, abs=0.001)


def test_a_full_urn_is_too_heavy_for_one_and_the_fix_lightens_it() -> None:
    plan = going(Transport(boxed=False, water_level_m=0.3), heavy())
    said = verdict(plan, "lift")
    assert said.state == "fails"
    acts = {act for fix in said.fixes for act in fix.key.split("+")}
    assert acts
    assert acts <= {"fill-on-the-spot", "two", "crate", "two-dry"}


def test_two_people_lift_a_third_more_than_one() -> None:
    """Two thirds each: from memory."""
    one = build(going(BOXED), conditions())
    two = build(going(replace(BOXED, carriers=2)), conditions())
    limits = [lift.judge(each).findings[0].limit.value for each in (one, two)]
    assert limits[1] / limits[0] == pytest.approx(4 / 3)


def test_a_crate_with_handles_helps() -> None:
    bare, crate = (build(going(replace(BOXED, crate=each)), conditions()) for each in (False, True))
    assert lift.judge(crate).findings[0].limit.value > lift.judge(bare).findings[0].limit.value


def test_overhanging_flowers_keep_hands_farther_out() -> None:
    wide = build(going(BOXED), conditions())
    narrow = build(going(BOXED, replace(piece(), envelope=replace(piece().envelope, depth_m=0.2))), conditions())
    reaches = [lift.reach_of(lift.loads_of(each)[0]) for each in (wide, narrow)]
    assert reaches[0] == pytest.approx(reaches[1] + 0.10)


def test_a_load_out_of_reach_is_never_lifted() -> None:
    plan = going(replace(BOXED, box_depth_m=1.0))
    said = verdict(plan, "lift")
    assert said.state == "fails"
    assert said.governing is not None
    assert said.governing.check == "reach"


@pytest.mark.parametrize(
    ("fact", "said"), [("foot_width_m", "width of the support's foot"), ("mass_kg", "weight of the support")]
)
def test_a_support_carried_along_must_be_known(fact: str, said: str) -> None:
    """Nothing is supposed of a foot nobody has measured, nor of a stand nobody has weighed."""
    stand = Support(name="stand", height_m=0.4, top_width_m=0.12, foot_width_m=0.2, mass_kg=1.5)
    raised = replace(piece(), envelope=replace(piece().envelope, height_m=0.7), transport=replace(BOXED, apart=False))
    known = verdict(replace(raised, support=stand), "travel")
    assert any(each.check == "on its support" for each in known.findings)
    unknown = verdict(replace(raised, support=replace(stand, **{fact: None})), "travel")  # type: ignore[arg-type]
    assert unknown.state == "cannot say"
    assert any(said in each for each in lacks(unknown))


def test_a_bare_vessel_of_unknown_foot_cannot_be_said_to_stay_upright() -> None:
    footless = replace(piece().vessel, foot_width_m=None, foot_depth_m=None)
    unknown = verdict(going(Transport(boxed=False), replace(piece(), vessel=footless)), "travel")
    assert unknown.state == "cannot say"
    assert any("vessel's foot" in fact for fact in lacks(unknown))


def test_an_urn_nobody_weighed_is_not_lifted_as_nothing() -> None:
    urn = Insert(outer=replace(vessels()["urn-24"], mass_kg=None), drop_m=0.02)
    nested = replace(piece(), vessel=vessels()["insert-bowl-20"], insert=urn, water_level_m=0.1)
    nested = replace(nested, envelope=replace(nested.envelope, height_m=0.6))
    said = verdict(made_there(nested), "lift")
    assert said.state == "cannot say"
    assert lacks(said) == ("the weight of the urn",)


def test_a_support_carried_with_its_bowl_is_lifted_with_its_water() -> None:
    column = Support(
        name="column",
        height_m=0.4,
        top_width_m=0.15,
        opening_m=0.05,
        column_width_m=0.14,
        foot_width_m=0.2,
        mass_kg=2.0,
    )
    tall = replace(piece(), support=column, envelope=replace(piece().envelope, height_m=0.8))
    dry, wet = (
        lift.loads_of(build(going(replace(BOXED, apart=False), each), conditions()))[0].mass_kg
        for each in (tall, replace(tall, support=replace(column, water_l=3.0)))
    )
    assert wet - dry == pytest.approx(3.0, abs=0.01)


def test_water_over_the_rim_overnight_is_refused_and_what_stands_overnight_is_what_the_bench_is_filled_for() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(going(replace(BOXED, overnight_level_m=0.2)), conditions())
    assert caught.value.path == "transport.overnight_level_m"
    plain, full = (
        evaluate(going(replace(BOXED, overnight_level_m=level)), conditions(), with_fixes=False).water
        for level in (None, 0.083)
    )
    assert plain.travel_level_m == full.travel_level_m
    assert plain.bench_level_m is not None
    assert full.bench_level_m is not None
    assert plain.bench_level_m < full.bench_level_m < 0.083
