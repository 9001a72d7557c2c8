"""Stems that hang under a panel or ring: evenly over it, and on a slope from the left to the right."""

import math
from dataclasses import replace
from itertools import pairwise
from typing import Any

import numpy as np
import pytest

from jolly_trellis.core.materials.stems import cut_mass_kg, heavy_factor
from jolly_trellis.core.rigging.drops import spread
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.rig import Drop, Rig
from tests.core.rigging.test_how_stems_go_in import judged, line
from tests.ordinary import conditions
from tests.rigs import on_one_point, panel


@pytest.mark.parametrize("round_", [True, False])
@pytest.mark.parametrize("count", [60, 400])
def test_stems_go_evenly_over_a_panel_to_its_corners_and_over_a_ring_to_its_rim(count: int, round_: bool) -> None:
    """Every quarter has its quarter of them; half of the area, whatever its shape, has half."""
    places = spread(count, round_=round_)
    far = np.linalg.norm(places, axis=1) if round_ else np.abs(places).max(axis=1)
    assert far.max() == pytest.approx(0.96, abs=0.01)
    assert int((far < 0.96 / math.sqrt(2)).sum()) == pytest.approx(count / 2, abs=1)
    for right, back in ((1, 1), (1, -1), (-1, 1), (-1, -1)):
        assert int(((places * [right, back]) > 0).all(axis=1).sum()) == pytest.approx(count / 4, rel=0.12)
    if not round_:
        corner = (np.abs(places) > 0.6).all(axis=1).sum()
        assert corner == pytest.approx(count * (0.36 / 0.96) ** 2, rel=0.35)


def sloped(kind: Any, **more: Any) -> Rig:
    drop = Drop(shortest_m=0.2, longest_m=0.6, curve="slope")
    base = panel(recipe=(line("ruscus", 80),))
    return replace(base, armature=replace(base.armature, kind=kind, diameter_m=1.0, drop=drop, **more))


@pytest.mark.parametrize("kind", ["panel", "ring"])
def test_a_slope_is_longer_to_the_right_is_drawn_so_and_pulls_there(kind: str) -> None:
    """Its right half hangs lower; what its right lines bear more is what the longer stems weigh there."""
    rig = sloped(kind)
    report = judged(rig)
    assert report.rest.picture is not None
    stems = sorted((each.seat_x_m, each.tip_z_m) for each in report.rest.picture.hung)
    tips = [tip for _, tip in stems]
    assert all(one >= other - 0.011 for one, other in pairwise(tips))
    assert tips[0] - tips[-1] == pytest.approx(0.4, abs=0.03)
    weighed = report.take_off
    ruscus = conditions().varieties["ruscus"]
    long, short = (cut_mass_kg(ruscus, each) * heavy_factor(ruscus) for each in (0.6, 0.2))
    # Evenly over a panel of one metre, x from -48 to 48 cm: the moment is 80 · (long - short) · 0.96 / 12.
    share = 0.96 / 12 if kind == "panel" else 0.96 / 12.9
    assert weighed.right_kg_m == pytest.approx(80 * (long - short) * share, rel=0.12)
    right = sum(
        each.tension_n * rig.points[line.point or 0].x_m for each, line in zip(report.lines, rig.lines, strict=True)
    )
    assert right == pytest.approx(weighed.right_kg_m * 9.80665 * weighed.design_factor, rel=0.02)
    level = judged(
        replace(rig, armature=replace(rig.armature, drop=Drop(shortest_m=0.2, longest_m=0.6, curve="dome")))
    )
    assert level.take_off.right_kg_m == 0
    assert level.lines[0].tension_n == pytest.approx(level.lines[2].tension_n, rel=1e-3)


def test_what_has_a_drop_of_its_own_hangs_by_that_on_a_slope_too() -> None:
    rig = replace(sloped("panel"), recipe=(line("ruscus", 40, drop_m=0.3), line("ruscus", 40, goes="pushed in")))
    assert take_off(rig, conditions()).right_kg_m == 0
    mixed = replace(sloped("panel"), recipe=(line("ruscus", 40), line("gypsophila", 40, drop_m=0.3)))
    picture = judged(mixed).rest.picture
    assert picture is not None
    own = [each for each in picture.hung if each.colour == conditions().varieties["gypsophila"].colour]
    assert {round(each.seat_z_m - each.tip_z_m, 2) for each in own} <= {0.18, 0.30}


def test_half_done_pulls_half_as_far_to_the_right() -> None:
    weighed = take_off(sloped("panel"), conditions())
    whole = weighed.load(10.0)
    assert whole.right_m == pytest.approx(weighed.right_kg_m / weighed.heavy_kg)
    half_kg = (weighed.bare_kg + weighed.heavy_kg) / 2
    assert weighed.load(10.0, half_kg).right_m == pytest.approx(weighed.right_kg_m / 2 / half_kg)
    assert weighed.load(10.0, weighed.bare_kg).right_m == 0


def test_a_slope_half_done_has_nothing_on_its_right() -> None:
    """Its left half alone pulls as that of stems of every length mixed does, which weigh as much."""
    slope = on_one_point(recipe=(line("ruscus", 80),))
    found = []
    for curve in ("slope", "even"):
        drop = Drop(shortest_m=0.2, longest_m=0.6, curve=curve)
        report = judged(replace(slope, armature=replace(slope.armature, drop=drop)))
        found.append({each.name: each.tilt_rad for each in report.states})
    assert found[0]["one face done"] == pytest.approx(found[1]["one face done"], rel=1e-6)
    assert found[0]["finished"] > found[1]["finished"] + 1e-3
