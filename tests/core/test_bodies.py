"""The book of bodies: what bears what, what is tied together, what falls with the bowl, a copy with other water."""

import math
from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.books import bodies
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import balance
from jolly_trellis.core.materials.vessels import WATER_DENSITY
from jolly_trellis.core.plan.piece import Counterweight, Insert, Support
from tests.ordinary import beside, bouquet, conditions, on_ledge, piece, vessels

COLUMN = Support(
    name="column",
    height_m=0.4,
    top_width_m=0.16,
    opening_m=0.05,
    foot_width_m=0.16,
    mass_kg=2.5,
    column_width_m=0.16,
    water_l=4.0,
    putty=True,
)


def test_what_falls_with_the_bowl_is_all_but_support_ballast_and_joint() -> None:
    """The column, 2.5 kg, at half its height; 4 L in it stand 4/(π·0.8²) = 1.9894 dm deep, 1 cm over the floor."""
    tall = replace(piece().envelope, height_m=0.8)
    made = build(replace(piece(), support=COLUMN, envelope=tall), conditions())
    own = bodies.own(made, "typical", bodies.on_show(made, "typical"))
    left = {each.thing: each for each in own if not each.on_joint}
    assert set(left) == {"support", "ballast water", "part"}
    assert (left["support"].mass_kg, left["support"].height_m) == pytest.approx((2.5, 0.2))
    water = left["ballast water"]
    assert (water.mass_kg, water.height_m) == pytest.approx((4.0, 0.19894 / 2 + 0.01), abs=1e-5)
    assert left["part"].height_m == 0.4
    fallen = bodies.centre_of(tuple(each for each in own if each.on_joint))
    whole = bodies.centre_of(own)
    assert whole.mass_kg - fallen.mass_kg == pytest.approx(2.5 + 4.0 + left["part"].mass_kg)
    assert fallen.height_m > 0.4


def test_what_is_in_an_urn_stands_in_it_and_the_urn_on_the_surface() -> None:
    inner, urn = vessels()["insert-bowl-20"], vessels()["urn-24"]
    tall = replace(piece().envelope, height_m=0.6)
    held = replace(piece(), vessel=inner, insert=Insert(outer=urn, drop_m=0.01), envelope=tall, water_level_m=0.05)
    made = build(held, conditions())
    borne = {each.thing: each.borne_by for each in bodies.own(made, "typical", bodies.on_show(made, "typical"))}
    assert (borne["vessel"], borne["urn"], borne["water"], borne["stems"]) == ("urn", "surface", "vessel", "mechanic")


def test_one_tied_vessel_beside_is_moved_as_a_whole_and_one_that_is_not_tied_is_left_out() -> None:
    tied, loose = (build(replace(piece(), companions=(beside(tied=each),)), conditions()) for each in (True, False))
    alone = bodies.centre_of(bodies.together(loose, "typical"))
    both = bodies.centre_of(bodies.together(tied, "typical"))
    second = tied.companions[0]
    other = bodies.centre_of(bodies.own(second, "typical", bodies.on_show(second, "typical")))
    assert both.mass_kg == pytest.approx(alone.mass_kg + other.mass_kg)
    place = tied.piece.companions[0].x_m + other.x_m
    assert both.x_m == pytest.approx((alone.mass_kg * alone.x_m + other.mass_kg * place) / both.mass_kg)


@pytest.mark.parametrize(("azimuth", "x", "y"), [(0.0, 0.0, -0.2), (math.pi / 2, 0.2, 0.0), (math.pi, 0.0, 0.2)])
def test_a_weight_that_is_tied_on_counts_where_it_stands(azimuth: float, x: float, y: float) -> None:
    weight = Counterweight(mass_kg=1.5, away_m=0.2, azimuth_rad=azimuth)
    (body,) = bodies.tied_weights(build(replace(piece(), counterweight=weight), conditions()))
    assert (body.mass_kg, body.height_m) == (1.5, 0.03)
    assert (body.x_m, body.y_m) == pytest.approx((x, y), abs=1e-12)
    apart = replace(weight, tied=False)
    assert bodies.tied_weights(build(replace(piece(), counterweight=apart), conditions())) == ()


def test_every_row_of_stems_by_itself_is_the_same_whole() -> None:
    made = build(replace(on_ledge(), companions=(beside(tied=True),)), conditions())
    kg, at = bodies.by_stem(made, "heavy")
    whole = balance.balance_of(made, "heavy")
    assert float(kg.sum()) == pytest.approx(whole.mass_kg)
    assert (kg[:, None] * at).sum(axis=0) / kg.sum() == pytest.approx(np.array([whole.x_m, whole.y_m, whole.height_m]))


def test_a_copy_with_other_water_is_weighed_anew() -> None:
    """A straight cylinder 10 cm across inside: 10 cm less of water are 0.785 kg less."""
    cylinder = replace(piece(), vessel=vessels()["cylinder-12"], water_level_m=0.20)
    made = build(cylinder, conditions())
    first = balance.balance_of(made, "typical").mass_kg
    lower = replace(made, piece=replace(cylinder, water_level_m=0.10))
    wide = cylinder.vessel.profile[0].width_m
    less = math.pi / 4 * wide**2 * 0.10 * WATER_DENSITY.value
    assert first - balance.balance_of(lower, "typical").mass_kg == pytest.approx(less, rel=0.12)
    assert balance.balance_of(made, "typical").mass_kg == first


def test_a_hand_carries_a_bouquet_without_its_vase() -> None:
    made = build(bouquet(), conditions())
    assert {each.thing for each in bodies.in_hand(made, "typical")} == {"mechanic", "stems"}
    held = bodies.centre_of(bodies.in_hand(made, "typical"))
    assert held.mass_kg == pytest.approx(made.mechanic.mass_kg + float(made.rows.mass_kg.sum()))


def test_a_mechanic_in_two_levels_is_where_they_are_on_average_over_the_floor_of_its_vessel() -> None:
    """A floor 8 mm thick, levels at 8.2 and 2.6 cm over it: 0.8 + (8.2 + 2.6)/2 = 6.2 cm over the table."""
    made = build(replace(piece(), vessel=replace(piece().vessel, base_m=0.008)), conditions())
    upper, lower = made.mechanic.levels
    levels = (replace(upper, height_m=0.082), replace(lower, height_m=0.026))
    made = replace(made, mechanic=replace(made.mechanic, levels=levels))
    own = {each.thing: each for each in bodies.own(made, "typical", bodies.on_show(made, "typical"))}
    assert own["mechanic"].height_m == pytest.approx(0.062)


def test_nothing_weighs_nothing_and_is_nowhere() -> None:
    assert bodies.centre_of(()) == bodies.Centre(mass_kg=0.0, x_m=0.0, y_m=0.0, height_m=0.0)


def test_coated_netting_wrapped_outside_weighs_its_coating_in_the_heavy_case() -> None:
    """A tenth more than bare wire, as that inside; nothing else of what goes with the vessel does."""
    wrapped = replace(piece(), wrap_height_m=0.06, mechanic=replace(piece().mechanic, netting="coated-25-09"))
    made = build(replace(wrapped, ballast_kg=0.5), conditions())
    typical, heavy = (
        sorted(each.mass_kg for each in bodies.own(made, case, bodies.on_show(made, case)) if each.thing == "part")
        for case in ("typical", "heavy")
    )
    assert len(typical) == len(heavy) > 0
    grown = [after / before for before, after in zip(typical, heavy, strict=True)]
    assert max(grown) == pytest.approx(1.1)
    assert all(each == pytest.approx(1.1) or each == pytest.approx(1.0) for each in grown)
