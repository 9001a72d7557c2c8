"""Armatures sized both ways, what covers them, and stems hung to their own lengths."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.netting import pitch_along_m
from jolly_trellis.core.rigging.armatures import (
    cane_span_m,
    canes_across,
    finished_m,
    for_finished,
    own_m,
    size_armature,
    strip_length_m,
    tie_count,
    twig_count,
)
from jolly_trellis.core.rigging.coverage import COVERS, cover, line_covers_m2, needed_m2, outline_m2, stem_covers_m2
from jolly_trellis.core.rigging.drops import drop_lengths_m, drop_list, mean_drop_m
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.rig import Armature, ArmatureKind, Drop, DropCurve
from tests.ordinary import conditions, recipe
from tests.rigs import panel, run

NET = conditions().nettings["galvanized-50-10"]
TUBE = Armature(kind="tube", length_m=3.0)
CURVES: tuple[DropCurve, ...] = ("even", "dome", "bowl", "slope")


@given(st.floats(0.02, 20), st.floats(0, 1))
def test_finished_and_armature_sizes_are_each_other_s_inverse(own: float, projection: float) -> None:
    assert own_m(finished_m(own, projection), projection) == pytest.approx(own)


def test_what_was_sold_gives_what_is_cut() -> None:
    """Geometry: 35 cm finished with flowers 10 cm off it all round is a tube of 15 cm."""
    sized = for_finished(TUBE, thick_m=0.35, length_m=3.2)
    assert sized.diameter_m == pytest.approx(0.15)
    assert sized.length_m == pytest.approx(3.0)
    assert for_finished(TUBE) == TUBE


def test_a_finished_size_of_nothing_but_flowers_is_refused() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        for_finished(TUBE, thick_m=0.2)
    assert caught.value.path == "armature.finished"


def test_pieces_of_about_three_metres_with_a_tail_of_45_cm() -> None:
    """Common practice, no source: 45 cm is left past the first fixing; sections overlap by two rows."""
    assert strip_length_m(3.0, twisted=False) == pytest.approx(3.45)
    assert strip_length_m(3.0, twisted=False, joins=1, overlap_m=0.09) == pytest.approx(3.54)
    whole = size_armature(TUBE, NET, flowers_n=30)
    halves = size_armature(replace(TUBE, sections=2), NET, flowers_n=30)
    assert halves.sheet.length_m > whole.sheet.length_m
    assert 2 * halves.section_m == pytest.approx(halves.sheet.length_m, rel=0.01)


CLOSES = 2 * pitch_along_m(NET)


@pytest.mark.parametrize(
    ("kind", "tail"), [("wrapped frame", CLOSES), ("runner", 0.0), ("tube", 0.45), ("sleeve", 0.45)]
)
def test_what_does_not_hang_by_its_end_has_no_tail(kind: ArmatureKind, tail: float) -> None:
    """An arch section of 82 cm wrapped in netting is cut 82 cm and two rows to close it (common practice)."""
    sized = size_armature(Armature(kind=kind, length_m=0.82, netting=NET.key), NET, flowers_n=20.0)
    assert 0 <= sized.sheet.length_m - (0.82 + tail) < pitch_along_m(NET)
    assert sized.section_m == pytest.approx(0.82 + tail)


def test_twigs_ties_and_canes_by_their_spacing() -> None:
    """Worked by hand: 3 m of twigs 30 cm apart; ties of 2 m: three to close it, 8 spans, both ends twice."""
    assert twig_count(3.0) == 10
    assert twig_count(3.1) == 11
    assert twig_count(0.3) == twig_count(0.6) == 2
    assert tie_count(2.0) == 3 + 9 + 2
    assert canes_across(1.0, 0.6) == 1
    assert canes_across(1.0, 0.3) == 3


def test_canes_lie_closer_under_more_weight() -> None:
    """Parabola: a strip under q over s sags q·s²/(8·T); at 5 % of s that is s = 0.4·T/q."""
    pull = 8.0 / 0.052
    assert cane_span_m(50.0, NET) == pytest.approx(0.4 * pull / 50.0)
    assert cane_span_m(100.0, NET) == pytest.approx(cane_span_m(50.0, NET) / 2)
    light = {each.name: each.quantity for each in take_off(panel(), conditions()).sized.parts}
    rich = panel(recipe=recipe(hydrangea=(120, "focal")))
    laden = {each.name: each.quantity for each in take_off(rich, conditions()).sized.parts}
    assert laden["canes along"] > light["canes along"] >= 1


def test_a_panel_without_depth_is_refused() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        take_off(panel(armature=replace(panel().armature, width_m=0.0)), conditions())
    assert caught.value.path == "armature.width_m"


def test_an_arch_of_fifty_gypsophila_eleven_carnations_and_eight_roses() -> None:
    """Common practice, no source: they cover about 0.8 m of an arch 0.35 m thick."""
    arch = math.pi * 0.35 * 0.8
    covered = 50 * COVERS["gypsophila"].value + 11 * COVERS["carnation"].value + 8 * COVERS["rose"].value
    assert covered == pytest.approx(needed_m2(arch, "frame"), rel=0.06)


def test_bundles_cover_a_little_more_than_their_stems() -> None:
    line = recipe(gypsophila=(30, "filler"))[0]
    variety = conditions().varieties["gypsophila"]
    assert line_covers_m2(replace(line, clump=3), variety) == pytest.approx(1.15 * line_covers_m2(line, variety))


def test_what_is_still_bare_is_counted_in_stems_and_bundles() -> None:
    report = cover(run(), conditions())
    bare = report.needed_m2 - report.covered_m2
    assert bare > 0
    for line in report.lines:
        each = stem_covers_m2(conditions().varieties[line.variety])
        assert line.more == math.ceil(bare / each)
    full = replace(run(), recipe=recipe(gypsophila=(5000, "filler")))
    assert all(line.more == 0 for line in cover(full, conditions()).lines)


def test_outlines_are_those_of_their_solids() -> None:
    """Geometry: a cylinder 6.92 m long and 0.31 m thick; a torus of 0.9 m and 0.28 m."""
    assert outline_m2(run()) == pytest.approx(math.pi * 0.31 * 6.92)
    ring = panel(armature=Armature(kind="ring", length_m=0.9, diameter_m=0.9, netting=NET.key))
    assert outline_m2(ring) == pytest.approx(math.pi**2 * 0.9 * 0.28)


@given(st.integers(1, 300), st.floats(0.05, 1), st.floats(0, 1), st.sampled_from(CURVES))
def test_a_drop_list_has_every_stem_between_shortest_and_longest(
    count: int, shortest: float, more: float, curve: DropCurve
) -> None:
    drop = Drop(shortest_m=shortest, longest_m=shortest + more, curve=curve)
    hung = panel(armature=replace(panel().armature, drop=drop), recipe=recipe(gypsophila=(count, "filler")))
    rows = drop_list(hung, conditions().varieties)
    assert sum(each.count for each in rows) == count
    assert drop.shortest_m - 0.011 <= rows[-1].length_m <= rows[0].length_m <= drop.longest_m + 0.011
    assert mean_drop_m(hung) == pytest.approx(sum(drop_lengths_m(count, drop)) / count, abs=1e-6)


def test_a_dome_is_longest_in_its_middle_and_a_bowl_at_its_rim() -> None:
    dome = drop_lengths_m(50, Drop(shortest_m=0.2, longest_m=0.6, curve="dome"))
    bowl = drop_lengths_m(50, Drop(shortest_m=0.2, longest_m=0.6, curve="bowl"))
    assert list(dome) == sorted(dome, reverse=True)
    assert list(bowl) == sorted(bowl)


def test_a_longest_under_the_shortest_is_refused() -> None:
    with pytest.raises(InvalidMeasure, match="shorter than the shortest"):
        drop_lengths_m(5, Drop(shortest_m=0.5, longest_m=0.2))


def test_hung_stems_weigh_what_their_lengths_do() -> None:
    drop = Drop(shortest_m=0.2, longest_m=0.4)
    hung = panel(armature=replace(panel().armature, drop=drop))
    even = panel(armature=replace(panel().armature, stem_cut_m=0.3))
    hooks = sum(each.typical_kg for each in take_off(hung, conditions()).parts if each.name == "hooks of wire")
    assert take_off(hung, conditions()).typical_kg - hooks == pytest.approx(take_off(even, conditions()).typical_kg)
    assert hooks == pytest.approx(40 * 0.12 * 0.006 * 0.7**2)
