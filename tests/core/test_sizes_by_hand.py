"""Sizes and sums worked by hand: what a florist could check with a rule, a scale and a sheet of paper."""

import math
from dataclasses import replace
from itertools import pairwise

import pytest

from jolly_trellis.core.books.water import along_drive_m, slop_m
from jolly_trellis.core.building import spills, stacks
from jolly_trellis.core.building.build import build, companion_piece
from jolly_trellis.core.building.extras import _of_insert, insert_sizes_m
from jolly_trellis.core.checks.making_order import lay_out
from jolly_trellis.core.checks.travel import SPILL_TRAY, journey_of
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.making import patterns
from jolly_trellis.core.making.steps import cut_list, notices
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.vessels import inside_size_m, level_for_volume_m, volume_below_l
from jolly_trellis.core.mechanics import fills, lattices, rings, rolls, stacked_pair
from jolly_trellis.core.mechanics.fit import Fit, cells_free
from jolly_trellis.core.mechanics.tape import taped_share
from jolly_trellis.core.plan.piece import Insert, Mechanic, Spill
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.units import american_gauge_m
from tests.ordinary import beside, conditions, nettings, on_ledge, piece, recipe, vessels

BOWL = vessels()["low-bowl-20"]
NET = nettings()["coated-25-09"]


def fit(kind: str, **changes: object) -> Fit:
    made = Fit(
        choice=Mechanic(kind=kind, netting=NET.key),
        vessel=BOWL,
        netting=NET,
        frog=None,
        stems=30,
    )
    return replace(made, **changes)  # type: ignore[arg-type]


def test_a_spills_netting_weighs_by_its_area_and_its_stems_by_their_number() -> None:
    """A drop of 60 cm at 15 cm rolled to 1.6 layers is 0.144 m² of netting."""
    spill = Spill(drop_m=0.6, width_m=0.15, recipe=recipe(ruscus=(8, "base")))
    sized = spills.size(replace(on_ledge(), spill=spill), conditions())
    twice = spills.size(replace(on_ledge(), spill=replace(spill, recipe=recipe(ruscus=(16, "base")))), conditions())
    assert sized is not None
    assert twice is not None
    stems = twice.hanging_kg - sized.hanging_kg
    assert sized.hanging_kg - stems == pytest.approx(0.15 * 1.6 * 0.6 * nets.mass_per_area_kg_m2(NET))
    heavy = twice.hanging_heavy_kg - sized.hanging_heavy_kg
    assert sized.hanging_heavy_kg - heavy == pytest.approx(
        0.15 * 1.6 * 0.6 * nets.mass_per_area_kg_m2(NET, heavy=True)
    )
    assert heavy > stems > 0


def test_tubes_on_a_spill_weigh_full_in_its_heavy_case() -> None:
    """Eight tubes of 14 × 90 mm: 5 g each, and 13.1 ml to 5 mm under the cap; only the stems are heavier then."""
    line = replace(recipe(ruscus=(8, "base"))[0], water="tube")
    wet, dry = (
        spills.size(replace(on_ledge(), spill=Spill(drop_m=0.6, width_m=0.15, recipe=(each,))), conditions())
        for each in (line, replace(line, water="none"))
    )
    assert wet is not None
    assert dry is not None
    assert wet.hanging_kg - dry.hanging_kg == pytest.approx(8 * 0.0181, abs=0.0005)
    assert wet.hanging_heavy_kg - dry.hanging_heavy_kg == pytest.approx(8 * 0.0181, abs=0.0005)


def test_a_companion_on_a_ledge_stands_as_far_back_as_its_own_foot_lets_it() -> None:
    """A foot of 8 cm whose middle is 5 cm behind that of one of 11 cm: 1 cm + 5 cm + 1.5 cm back from the edge."""
    ledge = on_ledge(set_back_m=0.01)
    both = replace(ledge, companions=(beside(tied=False, y_m=0.05),))
    alone = companion_piece(both, both.companions[0])
    assert alone.setting.ledge is not None
    assert alone.setting.ledge.set_back_m == pytest.approx(0.01 + 0.05 + 0.015)


def test_a_bowl_that_stands_on_the_floor_of_its_urn_has_no_block_under_it() -> None:
    urn = vessels()["urn-24"]
    flush = Insert(outer=urn, drop_m=urn.inside_depth_m - BOWL.rim_m)
    assert insert_sizes_m(flush, BOWL)[0] == 0.0
    assert "riser block" not in {each.part.name for each in _of_insert(flush, BOWL, 0.0)}
    raised = replace(flush, drop_m=flush.drop_m - 0.02)
    assert "riser block" in {each.part.name for each in _of_insert(raised, BOWL, 0.0)}


@pytest.mark.parametrize(("gauge", "millimetres"), [(18, 1.0237), (20, 0.8118), (22, 0.6438), (24, 0.5106)])
def test_american_wire_by_its_gauge(gauge: int, millimetres: float) -> None:
    """0.127·92^((36 − n)/39) mm, published."""
    assert 1000 * american_gauge_m(gauge) == pytest.approx(millimetres, abs=5e-5)


@pytest.mark.parametrize(("wire_m", "newtons"), [(0.0009, 24.0), (0.0007, 12.0), (0.00075, 12.0), (0.00076, 24.0)])
def test_thin_wire_bears_half(wire_m: float, newtons: float) -> None:
    """Three cells at 8 N each, half of it at 0.7 mm wire, told from 0.8 at 0.75. Estimate, no source."""
    net = replace(NET, wire_m=wire_m)
    assert spills.chain_strength_n(net, 3.1 * nets.pitch_across_m(net)) == pytest.approx(newtons)


def test_tape_across_a_mouth_takes_cells_away() -> None:
    """Six strips of 6 mm over a 20 cm mouth: 6·0.006·0.2 m² of π/4·0.2² m² is 0.229 of it."""
    bare, taped = fit("folded_cushion"), fit("folded_cushion", tape_strips=6)
    assert taped_share(bare) == 0
    assert taped_share(taped) == pytest.approx(6 * 0.006 * 0.2 / (math.pi / 4 * 0.2**2))
    area = math.pi / 4 * 0.2**2
    pitch = nets.pitch_across_m(NET)
    assert cells_free(bare, pitch) == int(area / nets.cell_area_m2(pitch))
    assert cells_free(taped, pitch) == int(area * (1 - 0.2291831) / nets.cell_area_m2(pitch))
    assert cells_free(fit("folded_cushion", tape_strips=60), pitch) == 1


@pytest.mark.parametrize(
    ("mouth", "spacing", "strips"), [(0.2, 0.03, 6), (0.21, 0.03, 6), (0.18, 0.03, 5), (0.02, 0.03, 1)]
)
def test_tape_strips_of_a_grid(mouth: float, spacing: float, strips: int) -> None:
    assert lattices.grid_strips(mouth, spacing) == strips
    length = 2 * strips * (math.pi / 4 * mouth + 2 * 0.03)
    assert lattices.grid_length_m(mouth, spacing, 0.03) == pytest.approx(length)


def test_twig_rings_are_plastic_only_where_they_are_taped() -> None:
    assert not rings.size_twigs(fit("twig_rings", netting=None)).single_use_plastic
    assert rings.size_twigs(fit("twig_rings", netting=None, tape_strips=2)).single_use_plastic


def test_moss_is_paid_by_its_weight() -> None:
    """0.25 kg/m² of dry moss over what the pair spans, on top of the pair."""
    pair = stacked_pair.size(fit("stacked_pair"))
    moss = stacked_pair.size_with_moss(fit("moss_sandwich"))
    dry = next(part.mass_kg for part in moss.parts if "moss" in part.name)
    assert moss.price is not None
    assert pair.price is not None
    assert moss.price - pair.price == pytest.approx(dry * stacked_pair.MOSS_PRICE_KG.value, abs=0.6)
    assert moss.displaced_volume_l > pair.displaced_volume_l


def test_levels_of_a_fill_lie_within_the_vessel() -> None:
    made = fills.size_tangle(fit("branch_tangle", netting=None))
    heights = sorted(level.height_m for level in made.levels)
    assert heights[0] > 0
    assert heights[-1] == pytest.approx(BOWL.inside_depth_m)


def test_cells_on_a_pattern_run_from_edge_to_edge_of_their_sheet() -> None:
    """Zigzags at half a cell, a row each pitch; the other rows are shifted by half a cell."""
    made = build(piece(), conditions())
    (flat,) = made.mechanic.flat
    (pattern,) = patterns.patterns_of(made)
    across, along = nets.pitch_across_m(NET), nets.pitch_along_m(NET)
    zigs = [line for line in pattern.lines if line.layer == "MARK" and len(line.points) > 3]
    assert int(flat.sheet.length_m / along) - 1 <= len(zigs) <= int(flat.sheet.length_m / along) + 1
    for line in zigs:
        xs = [x for x, _ in line.points]
        assert len(xs) >= 2 * int(flat.sheet.width_m / across) - 1
        assert max(xs) - min(xs) >= flat.sheet.width_m - across
        assert all(0 < after - before <= across / 2 + 1e-9 for before, after in pairwise(xs))


def test_a_cut_as_long_as_what_is_sold_is_sold_and_one_longer_is_not() -> None:
    made = build(piece(), conditions())
    cuts = cut_list(made)
    longest = max(cuts, key=lambda each: each.cut_length_m)
    sold = replace(conditions().varieties[longest.variety], sold_lengths_m=(longest.cut_length_m,))
    short = replace(sold, sold_lengths_m=(0.05,))
    for variety, is_sold in ((sold, True), (short, False)):
        around = replace(conditions(), varieties={**conditions().varieties, variety.key: variety})
        again = build(piece(), around)
        found = [each for each in cut_list(again) if each.variety == variety.key]
        assert all(each.sold for each in found) == is_sold
        assert any(variety.name in each.say.text for each in notices(again, tuple(found), 0.5, 0)) != is_sold


@pytest.mark.parametrize(("fullness", "words"), [(0.34, "Airy"), (0.36, None), (1.09, None), (1.11, "Crushed")])
def test_a_piece_is_airy_under_35_and_crushed_over_110_in_100(fullness: float, words: str | None) -> None:
    said = [each.say.text for each in notices(build(piece(), conditions()), (), fullness, 3)]
    assert any("Airy" in each for each in said) == (words == "Airy")
    assert any("Crushed" in each for each in said) == (words == "Crushed")


def test_a_bowl_that_just_fits_its_urn_by_its_outside_fits() -> None:
    """The walls count on both sides: 20 cm of mouth and 2 · 6 mm of wall is 21.2 cm outside."""
    outer = vessels()["urn-24"]
    bowl = replace(BOWL, wall_m=0.006)
    across = bowl.mouth_width_m + 2 * bowl.wall_m
    for room, fits in ((across + 0.001, True), (across - 0.001, False)):
        profile = tuple(replace(each, width_m=room, depth_m=room) for each in outer.profile)
        plan = replace(piece(), vessel=bowl, insert=Insert(outer=replace(outer, profile=profile), drop_m=0.02))
        if fits:
            stacks.raised_m(plan)
        else:
            with pytest.raises(InvalidMeasure):
                stacks.raised_m(plan)


def test_a_vessel_beside_tips_over_feet_where_it_stands() -> None:
    """A vessel of its own, 30 cm to the right and 4 cm to the back: so do its feet."""
    there = beside(tied=False, x_m=0.3, y_m=0.04)
    bodies = lay_out(build(replace(on_ledge(), companions=(there,)), conditions())).bodies
    small = next(each for each in bodies if each.name == there.name)
    feet = small.footing.feet
    assert sum(foot.x_m for foot in feet) / len(feet) == pytest.approx(0.3, abs=0.01)
    assert sum(foot.y_m for foot in feet) / len(feet) == pytest.approx(0.04, abs=0.01)


@pytest.mark.parametrize("litres", [0.2, 0.7, 1.3])
def test_a_level_is_found_to_a_hair(litres: float) -> None:
    level = level_for_volume_m(BOWL, litres)
    assert volume_below_l(BOWL, level) == pytest.approx(litres, rel=2e-4)


def test_more_than_a_vessel_holds_has_no_level() -> None:
    full = volume_below_l(BOWL, BOWL.inside_depth_m)
    assert level_for_volume_m(BOWL, full) == pytest.approx(BOWL.inside_depth_m, abs=1e-5)
    with pytest.raises(InvalidMeasure):
        level_for_volume_m(BOWL, full * 1.001)
    with pytest.raises(InvalidMeasure):
        level_for_volume_m(BOWL, -0.001)


def test_a_tray_under_a_piece_takes_a_quarter_of_the_wedge_that_slops_over() -> None:
    """Filled to the rim nothing of a hard brake stays in: a quarter of surface times how high it climbs."""
    made = build(replace(piece(), water_level_m=0.09, transport=Transport()), conditions())
    there = journey_of(made)
    assert there is not None
    room = BOWL.inside_depth_m - there.level_m
    climbs = slop_m(SPILL_TRAY.value, along_drive_m(made.piece.vessel, there.level_m), made.mechanic.slop_factor)
    area_m2 = math.pi / 4 * inside_size_m(BOWL, there.level_m)[0] ** 2
    assert climbs > room
    assert there.tray_l == pytest.approx(1000 * area_m2 * (climbs - room) / 4, rel=0.1)


def test_a_pressed_roll_keeps_its_layers_close_in_a_flat_dish() -> None:
    flat = tuple(replace(each, height_m=each.height_m * 0.32) for each in BOWL.profile)
    dish = replace(BOWL, profile=flat)
    made = rolls.size_pressed(fit("three_layer_roll", vessel=dish))
    heights = sorted(level.height_m for level in made.levels)
    assert heights[1] - heights[0] == pytest.approx(min(rolls.PRESSED_GAP.value, (dish.inside_depth_m - 0.005) / 2))
    assert heights[0] >= 0
    with pytest.raises(InvalidMeasure) as refused:
        rolls.size_on_sticks(fit("cross_stick_roll"))
    said = refused.value.limit.quantities["long"].value
    assert said == pytest.approx(rolls.TROUGH_RATIO * BOWL.mouth_width_m)
