"""Stacks and wind: inserts, raised bowls, joints, ballast water; outdoors at the wind that takes it down."""

import math
from dataclasses import replace

import pytest

from jolly_trellis.core.books import bodies
from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.build import build
from jolly_trellis.core.building.extras import lining_strip_m, wrap_length_m
from jolly_trellis.core.checks import balance, stand, stand_wind
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Insert, Mechanic, Piece, Support
from jolly_trellis.core.plan.setting import Setting
from tests.ordinary import conditions, lacks, piece, vessels

CYLINDER = Support(
    name="tall cylinder",
    height_m=0.50,
    top_width_m=0.15,
    opening_m=0.08,
    foot_width_m=0.15,
    mass_kg=3.0,
    column_width_m=0.15,
    clear=True,
    putty=True,
)


def raised(support: Support) -> Piece:
    return replace(
        piece(),
        vessel=vessels()["raised-bowl-22"],
        envelope=replace(piece().envelope, height_m=0.86, width_m=0.44, depth_m=0.44),
        water_level_m=0.075,
        support=support,
        setting=Setting(free_table_m=0.4),
    )


def stands(plan: Piece) -> Verdict:
    return next(each for each in evaluate(plan, conditions()).verdicts if each.verb == "stand")


def test_a_bowl_on_a_cylinder_with_six_litres_stands_and_dry_it_is_tight_or_fails() -> None:
    assert stands(raised(replace(CYLINDER, water_l=6.0))).state in ("holds", "tight")
    wet, dry = stands(raised(replace(CYLINDER, water_l=6.0))), stands(raised(CYLINDER))
    assert dry.state in ("tight", "fails")
    assert wet.utilisation is not None
    assert dry.utilisation is not None
    assert wet.utilisation < dry.utilisation


def test_a_bowl_with_no_bond_slides_off_at_the_first_jolt_and_the_fix_bonds_it() -> None:
    said = stands(raised(replace(CYLINDER, putty=False, water_l=6.0)))
    assert said.state == "fails"
    assert any(each.check == "bond" and each.utilisation > 1 for each in said.findings)
    assert any("bond" in fix.key for fix in said.fixes)
    for fix in said.fixes:
        assert fix.piece.support is not None
        assert stands(fix.piece).state in ("holds", "tight")


def test_a_ridge_bonds_as_well_and_locates_the_bowl() -> None:
    ridged = replace(CYLINDER, putty=False, ridge=True, water_l=6.0)
    assert not any(each.check == "bond" for each in stands(raised(ridged)).findings)
    assert stacks.offset_of(ridged) < stacks.offset_of(CYLINDER)


def test_a_foot_that_can_drop_into_the_opening_fails() -> None:
    said = stands(raised(replace(CYLINDER, opening_m=0.12, water_l=6.0)))
    dropped = next(each for each in said.findings if each.check == "drop in")
    assert dropped.utilisation > 1
    assert dropped.limit.value == pytest.approx(0.12 + 2 * (0.01 + 0.01))


@pytest.mark.parametrize(
    ("changed", "fact"), [({"foot_width_m": None}, "support's foot"), ({"mass_kg": None}, "weight of the support")]
)
def test_a_stand_nobody_has_measured_cannot_be_judged(changed: dict[str, None], fact: str) -> None:
    said = stands(raised(replace(CYLINDER, **changed)))  # type: ignore[arg-type]
    assert said.state == "cannot say"
    assert any(fact in each for each in lacks(said))


def test_the_edge_of_a_joint_is_the_lesser_radius_less_the_offset() -> None:
    assert stacks.joint_edge_m(bowl_foot_m=0.12, support_top_m=0.15, offset_m=0.01) == pytest.approx(0.05)
    assert stacks.off_centre_tolerance_m(bowl_foot_m=0.12, support_top_m=0.15, centre_m=0.02) == pytest.approx(0.04)


def test_everything_above_a_support_is_raised_by_it() -> None:
    high, low = build(raised(CYLINDER), conditions()), build(replace(raised(CYLINDER), support=None), conditions())
    assert high.raised_m == pytest.approx(0.50)
    assert low.raised_m == 0.0
    report = evaluate(raised(CYLINDER), conditions(), with_fixes=False)
    assert report.rim_m == pytest.approx(0.5 + vessels()["raised-bowl-22"].rim_m)
    assert min(report.stems.seat_z_m) > 0.5


def test_water_in_the_support_lowers_the_balance_point() -> None:
    heights = [
        balance.balance_of(build(raised(replace(CYLINDER, water_l=litres)), conditions()), "typical").height_m
        for litres in (0.0, 3.0, 6.0)
    ]
    assert heights == sorted(heights, reverse=True)


def test_water_fills_a_support_no_higher_than_it_is() -> None:
    assert bodies.support_water_height_m(replace(CYLINDER, water_l=100.0)) == CYLINDER.height_m
    litres = 1000 * math.pi / 4 * 0.15**2 * 0.3
    assert bodies.support_water_height_m(replace(CYLINDER, water_l=litres)) == pytest.approx(0.3)


def inserted(**changes: object) -> Piece:
    plan = replace(
        piece(),
        vessel=vessels()["insert-bowl-20"],
        insert=Insert(outer=vessels()["urn-24"], drop_m=0.01),
        envelope=replace(piece().envelope, height_m=0.8, width_m=0.6, depth_m=0.6),
        water_level_m=0.1,
        mechanic=Mechanic(kind="stacked_pair", netting="coated-25-09"),
    )
    return replace(plan, **changes)  # type: ignore[arg-type]


def test_block_and_ring_of_an_insert() -> None:
    """Urn depth − bowl height − drop; half the difference of the sizes."""
    assert stacks.riser_m(0.30, 0.125, 0.01) == pytest.approx(0.165)
    assert stacks.packing_ring_m(0.24, 0.208) == pytest.approx(0.016)
    report = evaluate(inserted(), conditions(), with_fixes=False)
    names = {part.name: part.sizes[0].value for part in report.extras}
    assert names["riser block"] == pytest.approx(0.165)
    assert names["packing ring, wide"] > 0.01


def test_an_inserts_rim_lies_a_drop_below_the_urns() -> None:
    made = build(inserted(), conditions())
    assert made.rim_z_m == pytest.approx(vessels()["urn-24"].rim_m - 0.01)


def test_the_urn_carries_the_foot_and_its_weight() -> None:
    made = build(inserted(), conditions())
    assert balance.standing_foot_m(made)[1] == vessels()["urn-24"].foot_width_m
    assert balance.balance_of(made, "typical").mass_kg > 4.2


def test_a_bowl_too_tall_or_too_wide_for_its_urn_is_refused_with_what_fits() -> None:
    with pytest.raises(InvalidMeasure) as tall:
        build(inserted(vessel=vessels()["cylinder-15"]), conditions())
    assert tall.value.path == "insert.drop_m"
    with pytest.raises(InvalidMeasure) as wide:
        build(inserted(vessel=vessels()["low-bowl-30"]), conditions())
    assert wide.value.path == "insert.outer"


def test_water_above_an_inserts_rim_is_refused() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(inserted(water_level_m=0.2), conditions())
    assert caught.value.path == "water_level_m"


def test_flowers_must_end_above_a_raised_rim() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(replace(raised(CYLINDER), envelope=replace(piece().envelope, height_m=0.5)), conditions())
    assert caught.value.path == "envelope.height_m"
    assert caught.value.limit.quantities["least"].value > 0.6


def test_a_leaf_lining_is_as_long_as_the_inside() -> None:
    lined = build(replace(piece(), vessel=vessels()["cylinder-12"], water_level_m=0.1, lining=True,
                          envelope=replace(piece().envelope, height_m=0.5)), conditions())  # fmt: skip
    tall, around = lining_strip_m(lined.piece.vessel)
    assert tall == pytest.approx(0.25)
    assert around == pytest.approx(math.pi * 0.12)
    assert wrap_length_m(lined.piece.vessel) == pytest.approx(math.pi * 0.128 + 0.02)
    assert around < wrap_length_m(lined.piece.vessel) - 0.02


def outdoors(force: int) -> Piece:
    return replace(
        piece(),
        envelope=replace(piece().envelope, height_m=0.5, width_m=0.6, depth_m=0.6),
        setting=replace(piece().setting, outdoors=True, comes_down_above=force),
    )


def test_indoors_no_wind_blows() -> None:
    assert not any(each.check.startswith("wind") for each in stands(piece()).findings)


def test_stronger_wind_uses_more_and_the_fix_takes_it_down_earlier() -> None:
    used = [stands(outdoors(force)).utilisation or 0 for force in (2, 4, 6)]
    assert used == sorted(used)
    assert used[-1] > used[0]
    windy = stands(outdoors(6))
    assert windy.state == "fails"
    assert any(fix.key.startswith("down") for fix in windy.fixes)


def test_ballast_against_wind_brings_the_moment_to_its_factor() -> None:
    kg = stand_wind.ballast_needed_kg(wind_moment_n_m=6.0, weight_n=30.0, edge_m=0.1, ballast_edge_m=0.1)
    assert (30.0 + kg * 9.80665) * 0.1 == pytest.approx(1.5 * 6.0)
    assert stand_wind.ballast_needed_kg(wind_moment_n_m=1.0, weight_n=90.0, edge_m=0.1, ballast_edge_m=0.1) == 0.0


def test_a_bar_is_bumped_harder_than_the_middle_of_a_table() -> None:
    bar = build(replace(piece(), setting=Setting(where="bar")), conditions())
    assert stand.stands_exposed(bar)
    assert not stand.stands_exposed(build(piece(), conditions()))


def test_a_slim_vessel_is_mended_by_a_wider_base() -> None:
    slim = replace(piece(), vessel=replace(piece().vessel, foot_width_m=0.035, foot_depth_m=0.035),
                   envelope=replace(piece().envelope, height_m=0.5))  # fmt: skip
    said = stands(slim)
    assert said.state == "fails"
    assert any(fix.key.startswith("base") for fix in said.fixes)
