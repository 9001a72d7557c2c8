"""Small sums of what people make, each worked by hand: outlines of frames, rods of cups, wires of a frame, urns."""

import math
from dataclasses import replace

import pytest

from jolly_trellis.core.building import stacks
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.starting.resizing import resized
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.netting import pitch_along_m
from jolly_trellis.core.mechanics import own_frame
from jolly_trellis.core.plan.piece import Insert, Piece, Support
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.worn import Worn
from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.armatures import (
    canes_across,
    own_m,
    size_armature,
    tie_count,
    wire_ties,
    with_more_ties,
)
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.drops import drop_lengths_m, longest_drop_m, mean_drop_m
from jolly_trellis.core.rigging.hung_wind import outline_side_m2
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.refusals import MOST_PLACES, MOST_TIES
from jolly_trellis.core.rigging.rig import Armature, Attachment, Drop, HangPoint, Mount, Rig, RigLine
from jolly_trellis.core.stems.cups import cup_deep_m, cup_kg, rod_for_m
from tests import as_made
from tests.ordinary import conditions, vessels
from tests.ordinary import piece as bowl

STEEL = LineSpec(kind="steel rope", size_m=0.0015, fitting="grip")
HOOP = Mount(kind="frame", outline="hoop", width_m=1.2, height_m=1.95, x_m=0.3)
ARCH = Mount(kind="frame", outline="arch", width_m=1.4, height_m=2.2, x_m=0.3)
RAIL = Mount(kind="frame", outline="rail", width_m=2.0, height_m=1.5, x_m=0.3)
QUARTER = math.pi * 1.2 / 4


@pytest.mark.parametrize(
    ("mount", "long"), [(HOOP, math.pi * 1.2), (ARCH, 2 * 1.5 + math.pi * 0.7), (RAIL, 1.5 + 2.0 + 1.5)]
)
def test_an_outline_is_as_long_as_its_parts(mount: Mount, long: float) -> None:
    assert outlines.length_m(mount) == pytest.approx(long)


@pytest.mark.parametrize(
    ("mount", "along", "x", "z"),
    [
        (HOOP, 0.0, 0.3, 0.75),
        (HOOP, QUARTER, -0.3, 1.35),
        (HOOP, 2 * QUARTER, 0.3, 1.95),
        (HOOP, 3 * QUARTER, 0.9, 1.35),
        (ARCH, 0.4, -0.4, 0.4),
        (ARCH, 1.5, -0.4, 1.5),
        (ARCH, 1.5 + math.pi * 0.35, 0.3, 2.2),
        (ARCH, 1.5 + math.pi * 0.7, 1.0, 1.5),
        (ARCH, 1.5 + math.pi * 0.7 + 1.0, 1.0, 0.5),
        (RAIL, 0.6, -0.7, 0.6),
        (RAIL, 1.5, -0.7, 1.5),
        (RAIL, 1.5 + 0.5, -0.2, 1.5),
        (RAIL, 1.5 + 2.0, 1.3, 1.5),
        (RAIL, 1.5 + 2.0 + 0.9, 1.3, 0.6),
    ],
)
def test_a_place_along_an_outline_lies_where_a_tape_finds_it(mount: Mount, along: float, x: float, z: float) -> None:
    assert outlines.place_m(mount, along) == pytest.approx((x, 0.0, z), abs=1e-9)
    if along:
        assert outlines.along_m(mount, (x, 0.0, z)) == pytest.approx(along, abs=0.011)


def test_ties_lie_evenly_and_at_both_ends() -> None:
    places = outlines.ties_m(RAIL, begins_m=1.5, long_m=1.0, apart_m=0.24)
    assert [round(x, 3) for x, _, _ in places] == [-0.7, -0.5, -0.3, -0.1, 0.1, 0.3]
    assert len(outlines.ties_m(RAIL, begins_m=1.5, long_m=0.96, apart_m=0.24)) == 5
    assert 0.24 * 9 / 0.24 > 9  # in floating point; nine spans do for it all the same
    assert len(outlines.ties_m(RAIL, begins_m=1.0, long_m=0.24 * 9, apart_m=0.24)) == 10
    assert len(outlines.ties_m(RAIL, begins_m=1.5, long_m=0.1, apart_m=0.24)) == 3


def test_a_wrap_may_go_round_the_ends_of_its_frame_a_little_and_no_more() -> None:
    whole = outlines.length_m(ARCH)
    outlines.check_length(Armature(kind="wrapped frame", length_m=1.019 * whole), ARCH)
    with pytest.raises(InvalidMeasure, match="longer than its"):
        outlines.check_length(Armature(kind="wrapped frame", length_m=1.021 * whole), ARCH)
    outlines.check_length(Armature(kind="tube", length_m=3 * whole), ARCH)


def test_a_rod_makes_up_what_the_longest_stem_leaves() -> None:
    """10 cm at least, 60 cm at most unless somebody says; common practice, no source."""
    line = RecipeLine(variety="tulip", count=5, role="line", water="cup")
    assert rod_for_m(line, 0.75, 0.45) == pytest.approx(0.30)
    assert rod_for_m(line, 0.50, 0.45) == pytest.approx(0.10)
    assert rod_for_m(line, 2.0, 0.45) == pytest.approx(0.60)
    assert rod_for_m(replace(line, rod_m=0.8), 0.5, 0.45) == 0.8
    # 60 ml in a cup 28 mm across inside: 60 cm³ / 6.158 cm²
    assert cup_deep_m(line) == pytest.approx(0.0974, abs=1e-4)
    assert cup_deep_m(replace(line, cup_ml=30.0)) == pytest.approx(0.0487, abs=1e-4)
    # The cup 25 g, its water, and rod at 35 g a metre: 28 cm of it is cut from 30, 60 from 60.
    assert cup_kg(line, 0.28) == pytest.approx(0.025 + 0.0105 + 0.060)
    assert cup_kg(replace(line, cup_ml=30.0), 0.6) == pytest.approx(0.025 + 0.021 + 0.030)


def framed(side_m: float | None, wires: int | None, cell_m: float | None = None) -> Piece:
    own = replace(bowl().mechanic, kind="own_frame", own_m=side_m, own_wires=wires, cell_m=cell_m, own_wire_m=None)
    return replace(bowl(), mechanic=own)


@pytest.mark.parametrize(
    ("side", "wires", "cell", "pitch"),
    [(0.30, 12, None, 0.30 / 13), (0.30, None, None, 0.025), (0.30, None, 0.05, 0.05), (0.33, None, 0.05, 0.33 / 7)],
)
def test_a_frame_of_ones_own_has_the_wires_it_has(side: float, wires: int | None, cell: float, pitch: float) -> None:
    """Twelve wires make thirteen gaps; without a number, as many as the cell asks: 33 cm of 5 cm has seven gaps."""
    report = evaluate(framed(side, wires, cell), conditions(), with_fixes=False)
    assert report.cell_pitch_m == pytest.approx(pitch)
    part = next(each for each in report.mechanic.parts if each.name == "square frame")
    made = round(side / pitch) - 1
    steel = math.pi / 4 * (4 * side * 0.005**2 + 2 * made * side * 0.002**2) * 7850
    assert part.mass_kg == pytest.approx(steel, rel=0.01)


def test_a_frame_of_ones_own_weighs_seats_and_costs_as_its_sums_say() -> None:
    """30 cm of 5 mm rod and twelve 2 mm wires each way, in steel: 4 · 30 cm and 24 · 30 cm."""
    piece = replace(framed(0.30, 12), mechanic=replace(framed(0.30, 12).mechanic, tape_strips=0))
    made = evaluate(piece, conditions(), with_fixes=False).mechanic
    steel = math.pi / 4 * (4 * 0.30 * 0.005**2 + 24 * 0.30 * 0.002**2) * 7850
    assert made.mass_kg == pytest.approx(steel, rel=0.01)
    assert made.seat_moment_n_m == pytest.approx(made.mass_kg * 9.80665 * 0.15, rel=1e-6)
    assert made.levels[0].aperture_m == pytest.approx(0.30 / 13 - 0.002)
    assert made.price == pytest.approx(8.0)
    thick = replace(piece, mechanic=replace(piece.mechanic, own_wire_m=0.006))
    assert evaluate(thick, conditions(), with_fixes=False).mechanic.capacity < made.capacity
    strips = replace(piece, mechanic=replace(piece.mechanic, tape_strips=2))
    taped = evaluate(strips, conditions(), with_fixes=False).mechanic
    assert taped.price is not None
    assert taped.price > 8.0
    assert taped.seat_moment_n_m > made.seat_moment_n_m


def test_a_frame_nobody_measured_is_the_smallest_that_rests_to_the_half_centimetre() -> None:
    """(24 + 2)/√2 is 18.38 cm, so 18.5 cm; what is too small, and how many wires go in, is said with what would be."""
    mouth = bowl().vessel.mouth_width_m
    least = math.ceil((mouth + 0.02) / math.sqrt(2) * 200) / 200
    found = evaluate(framed(None, 5), conditions(), with_fixes=False)
    assert found.cell_pitch_m == pytest.approx(least / 6)
    own_frame.check_side((mouth + 0.02) / math.sqrt(2), mouth_m=mouth, square=False)
    with pytest.raises(InvalidMeasure, match="drops into a mouth") as small:
        own_frame.check_side(0.10, mouth_m=mouth, square=False)
    assert small.value.limit.quantities["least"].value == pytest.approx(least)
    with pytest.raises(InvalidMeasure) as refused:
        evaluate(framed(0.30, 60), conditions(), with_fixes=False)
    assert refused.value.limit.text == "Take 49 or fewer."  # 30 cm in gaps of 4 mm beside wires of 2 mm


def test_putty_holds_a_joint_by_its_area() -> None:
    """10 kPa on π · 14 cm · 8 mm is 35.2 N; at 7 cm from the axis 2.463 N·m; past the edge nothing."""
    assert stacks.putty_joint_moment_n_m(0.14, 0.07) == pytest.approx(2.463, abs=0.001)
    assert stacks.putty_joint_moment_n_m(0.14, -0.01) == 0.0


def test_a_column_holds_water_up_to_the_bowl_that_hangs_into_it() -> None:
    """π/4 · 15² · 80 cm³ is 14.14 l; a bowl that hangs 5 cm into it leaves 13.25 l; a closed top holds none."""
    column = Support(name="column", height_m=0.8, top_width_m=0.17, opening_m=0.15, column_width_m=0.15)
    assert stacks.support_holds_l(column) == pytest.approx(14.137, abs=0.001)
    assert stacks.support_holds_l(column, 0.05) == pytest.approx(13.254, abs=0.001)
    assert stacks.support_holds_l(column, 2.0) == 0.0
    assert stacks.support_holds_l(replace(column, opening_m=0.0)) == 0.0


def test_an_insert_stands_on_its_riser_over_the_floor_of_its_urn() -> None:
    urn, insert = vessels()["urn-30"], vessels()["insert-bowl-20"]
    piece = replace(bowl(), vessel=insert, insert=Insert(outer=urn))
    riser = urn.inside_depth_m - insert.rim_m - piece.insert.drop_m  # type: ignore[union-attr]
    assert riser > 0
    assert stacks.raised_m(piece) == pytest.approx(urn.base_m + riser)
    across = insert.mouth_width_m + 2 * insert.wall_m
    tall = replace(piece, insert=Insert(outer=urn, drop_m=urn.inside_depth_m - insert.rim_m + 0.01))
    with pytest.raises(InvalidMeasure) as stands_out:
        stacks.raised_m(tall)
    assert stands_out.value.limit.quantities["most"].value == pytest.approx(insert.rim_m - 0.01)
    just = replace(piece, insert=Insert(outer=urn, drop_m=urn.inside_depth_m - insert.rim_m))
    assert stacks.raised_m(just) == pytest.approx(urn.base_m)
    straight = tuple(replace(each, width_m=across, depth_m=across) for each in urn.profile)
    tight = replace(piece, insert=Insert(outer=replace(urn, profile=straight)))
    assert stacks.raised_m(tight) > 0  # as wide as its bowl takes it; a millimetre less does not
    narrow = tuple(replace(each, width_m=across - 0.001, depth_m=across - 0.001) for each in urn.profile)
    with pytest.raises(InvalidMeasure, match="across outside"):
        stacks.raised_m(replace(piece, insert=Insert(outer=replace(urn, profile=narrow))))


def test_wind_meets_the_broad_side_of_a_panel_and_of_a_ring() -> None:
    """By hand: its longer side and what stands off both ends, by the longest drop, what stands up, and both faces."""
    panel = as_made.begun("panel")
    assert isinstance(panel, Rig)
    bare = replace(panel, recipe=(), armature=replace(panel.armature, length_m=1.1, width_m=1.4, projection_m=0.1))
    deep = longest_drop_m(bare) + 2 * 0.1
    assert outline_side_m2(bare, 0.2) == pytest.approx((1.4 + 0.2) * deep)
    ring = as_made.begun("ring")
    assert isinstance(ring, Rig)
    bare = replace(ring, recipe=(), armature=replace(ring.armature, diameter_m=0.9, projection_m=0.1))
    assert outline_side_m2(bare, 0.2) == pytest.approx((0.9 + 0.2) * (longest_drop_m(bare) + 0.2))


def test_all_drops_may_be_of_one_length() -> None:
    same = Drop(shortest_m=0.4, longest_m=0.4)
    assert drop_lengths_m(5, same) == pytest.approx([0.4] * 5)
    with pytest.raises(InvalidMeasure, match="shorter than the shortest"):
        drop_lengths_m(5, replace(same, longest_m=0.39))


def test_two_stems_are_put_in_one_after_the_other_and_a_single_one_by_itself() -> None:
    rig = as_made.begun("garland")
    assert isinstance(rig, Rig)
    for count, lots in ((1, [1]), (2, [1, 1]), (5, [3, 2])):
        one = replace(rig, recipe=(replace(rig.recipe[0], count=count),))
        assert [each.stems for each in assess(one, conditions()).making if each.line == 0] == lots


def test_joints_of_a_run_move_with_its_length() -> None:
    run = as_made.begun("runner")
    assert isinstance(run, Rig)
    jointed = replace(run, armature=replace(run.armature, joints_m=(0.5, 1.2)))
    assert resized(jointed, 3.0).armature.joints_m == pytest.approx((0.75, 1.8))


def test_wires_of_worn_heads_weigh_by_the_square_of_their_gauge() -> None:
    """By hand: 10 cm of 0.4 mm at 6.2 g a metre for 1 mm is 0.0992 g; of 0.55 mm 0.18755 g."""
    crown = as_made.begun("crown")
    assert isinstance(crown, Worn)
    parts = evaluate(crown, conditions(), with_fixes=False).mechanic.parts
    weighs = {each.name: each.mass_kg / each.quantity for each in parts if each.name.startswith("wire ")}
    assert weighs == {"wire 0.4 mm": pytest.approx(0.0000992), "wire 0.55 mm": pytest.approx(0.00018755)}


@pytest.mark.parametrize(
    ("strips", "ends"),
    [
        (1, [((-1, 0), (1, 0))]),
        (2, [((-1, 0), (1, 0)), ((0, -1), (0, 1))]),
        (4, [((-0.866, -0.5), (0.866, -0.5)), ((-0.866, 0.5), (0.866, 0.5))]),
    ],
)
def test_tape_is_drawn_as_it_is_said(strips: int, ends: list[tuple[tuple[float, float], tuple[float, float]]]) -> None:
    """One strip across the middle, two crossed there, four as two each way: half way out, a chord of 0.866."""
    taped = replace(bowl(), mechanic=replace(bowl().mechanic, tape_strips=strips))
    half = taped.vessel.mouth_width_m / 2
    picture = evaluate(taped, conditions(), with_fixes=False).picture
    tapes = next(each for each in picture.primitives if each.id == "tapes")
    runs = [[(at[0] / half, at[1] / half) for at in each] for each in tapes.runs]  # type: ignore[union-attr]
    assert len(runs) == strips
    for drawn, wanted in zip(runs, ends, strict=False):
        assert drawn[0] == pytest.approx(wanted[0], abs=0.001)
        assert drawn[1] == pytest.approx(wanted[1], abs=0.001)


def test_ties_and_canes_are_counted_as_a_hand_counts_them() -> None:
    """A tube of 2 m: seven pegs, eleven ties that close it. 96 cm of frame: 3 + 4 + 1 + 2. Canes reach 4 cm over."""
    tube = Armature(kind="tube", length_m=2.0)
    assert wire_ties(tube) == 7 + 11
    assert wire_ties(replace(tube, sections=3)) == 7 + 11 + 2 * 3
    assert wire_ties(replace(tube, kind="snake")) == 7
    assert tie_count(0.96) == 3 + 4 + 1 + 2
    assert tie_count(1.0) == 10
    assert canes_across(1.2, 0.4) == 2
    assert canes_across(1.21, 0.4) == 3
    assert canes_across(0.3, 0.4) == 1
    panel = Armature(kind="panel", length_m=1.41, width_m=0.56, netting="galvanized-50-10")
    sized = size_armature(panel, conditions().nettings["galvanized-50-10"], flowers_n=1.0)
    parts = {each.name: each for each in sized.parts}
    assert parts["canes along"].sizes[0].value == pytest.approx(1.45)
    assert parts["canes across"].sizes[0].value == pytest.approx(0.60)
    along, across = parts["canes along"].quantity, parts["canes across"].quantity
    assert parts["ties to the canes"].quantity == along * 10 + across * 4  # 145 and 60 cm, one every 15
    months = {each.name: each for each in with_more_ties(sized).parts}
    assert months["ties to the canes"].quantity == math.ceil(1.5 * parts["ties to the canes"].quantity)
    assert months["canes along"] == parts["canes along"]
    each_kg = parts["ties to the canes"].mass_kg / parts["ties to the canes"].quantity
    assert months["ties to the canes"].mass_kg == pytest.approx(each_kg * months["ties to the canes"].quantity)
    even = replace(sized, parts=(replace(parts["ties to the canes"], quantity=14),))
    assert with_more_ties(even).parts[0].quantity == 21


def test_sections_of_a_run_share_tail_overlap_and_what_closes_it() -> None:
    """Two sections of a frame of 2 m, by hand: half of 2 m, of two rows that close it and of two that overlap."""
    net = conditions().nettings["galvanized-50-10"]
    frame = Armature(kind="wrapped frame", length_m=2.0, netting=net.key, sections=2)
    rows = 2 * pitch_along_m(net)
    sized = size_armature(frame, net, flowers_n=1.0)
    assert sized.section_m == pytest.approx(1.0 + (rows + rows) / 2)
    assert sized.sheet.length_m == pytest.approx(2 * sized.section_m, rel=0.02)


def test_a_finished_size_leaves_room_for_an_armature() -> None:
    assert own_m(0.5, 0.1) == pytest.approx(0.3)
    with pytest.raises(InvalidMeasure) as refused:
        own_m(0.2, 0.1)
    assert refused.value.message.quantities["f"].value == pytest.approx(0.2)


def test_stems_nobody_has_chosen_yet_hang_half_way_between_the_shortest_and_the_longest() -> None:
    ring = as_made.begun("ring")
    assert isinstance(ring, Rig)
    hung = replace(ring, recipe=(), armature=replace(ring.armature, drop=Drop(shortest_m=0.2, longest_m=0.5)))
    assert mean_drop_m(hung) == pytest.approx(0.35)


def test_the_base_of_a_crown_is_two_wires_with_loops() -> None:
    """π · 18 cm and 8 cm for loops, twice, of 0.9 mm: 2 · 64.55 cm · 6.2 g · 0.81."""
    crown = as_made.begun("crown")
    assert isinstance(crown, Worn)
    parts = evaluate(crown, conditions(), with_fixes=False).mechanic.parts
    base = next(each for each in parts if each.name.startswith("base wire"))
    assert base.quantity == 2
    assert base.sizes[0].value == pytest.approx(math.pi * 0.18 + 0.08)
    assert base.mass_kg == pytest.approx(0.006483, abs=1e-6)


def test_what_hangs_on_two_lines_goes_up_in_one_stage_and_what_is_tied_in_none() -> None:
    panel = as_made.begun("panel")
    assert isinstance(panel, Rig)
    four = assess(panel, conditions()).raising
    assert four is not None
    assert [len(each.lines) for each in four.stages] == [2, 2]
    arch = as_made.begun("arch")
    assert isinstance(arch, Rig)
    assert assess(arch, conditions()).raising is None


def test_a_panel_grows_both_ways_about_its_middle() -> None:
    panel = as_made.begun("panel")
    assert isinstance(panel, Rig)
    twice = resized(panel, 2.2)
    assert [(each.x_m, each.y_m) for each in twice.points] == [(2 * each.x_m, 2 * each.y_m) for each in panel.points]


def level_tube(length_m: float, places: int = 9) -> Rig:
    """A tube under level lines, 4 m from the first to the last, a quarter of a metre over it."""
    xs = [-2.0 + 4.0 * at / (places - 1) for at in range(places)]
    return Rig(
        name="tube",
        points=tuple(HangPoint(name=f"p{at}", kind="beam loop", x_m=x, y_m=0, z_m=2.75) for at, x in enumerate(xs)),
        attachments=tuple(Attachment(x_m=x, y_m=0, z_m=2.5) for x in xs),
        lines=tuple(RigLine(point=at, attachment=at, spec=STEEL) for at in range(places)),
        armature=Armature(kind="tube", length_m=length_m, netting="galvanized-50-10"),
        recipe=(RecipeLine(variety="ruscus", count=60, role="base"),),
    )


@pytest.mark.parametrize("longer", [1.0, 1.05, 1.2])
def test_what_is_longer_than_its_lines_are_apart_is_gathered_and_pushes_none_of_them(longer: float) -> None:
    """By hand: level lines bear the weight together, and a sixth more where each is at its worst."""
    report = assess(level_tube(4.0 * longer), conditions())
    pulls = [each.tension_n for each in report.lines]
    assert report.rest.load_n <= sum(pulls) <= report.rest.load_n * 7 / 6 * longer
    assert max(pulls) <= report.rest.load_n / 8 * 1.3


def test_places_are_kept_to_the_millimetre_and_no_run_is_short_by_that() -> None:
    """Eight spans that each measure a third of a millimetre more than the run has there are no reason to refuse it."""
    assert len(assess(level_tube(4.0 - 8 * 0.0003), conditions()).lines) == 9
    with pytest.raises(InvalidMeasure, match="its lines lead over"):
        assess(level_tube(4.0 - 0.006), conditions())


def test_what_is_tied_all_along_may_have_more_ties_than_a_hung_run_has_lines() -> None:
    frame = Mount(kind="frame", outline="rail", width_m=9.0, height_m=2.5)
    for ties in (MOST_PLACES + 2, MOST_TIES):
        tied = replace(level_tube(4.0, ties), mount=frame)
        assert len(assess(tied, conditions()).lines) == ties
    with pytest.raises(InvalidMeasure, match="hang points") as caught:
        assess(replace(level_tube(4.0, MOST_TIES + 1), mount=frame), conditions())
    assert caught.value.limit.quantities["most"].value == MOST_TIES
    with pytest.raises(InvalidMeasure, match="hang points") as caught:
        assess(level_tube(4.0, MOST_PLACES + 1), conditions())
    assert caught.value.limit.quantities["most"].value == MOST_PLACES
