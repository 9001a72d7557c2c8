"""What hung and mounted work looks like: where it hangs, what holds it, how its flowers lie. Source: geometry."""

import math
from dataclasses import replace

import pytest

from jolly_trellis.core.drawing.picture import Picture
from jolly_trellis.core.drawing.primitives import Dot, Shape, Turned
from jolly_trellis.core.drawing.project import Flat, View, project
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.drops import drop_lengths_m
from jolly_trellis.core.rigging.picture_stems import MOST_STEMS, fullness
from jolly_trellis.core.rigging.pictures import picture_of_rig
from jolly_trellis.core.rigging.resting import settle
from jolly_trellis.core.rigging.rig import Drop, Hazard, Mount, Rig
from jolly_trellis.core.rigging.snip import snip
from tests import rigs
from tests.ordinary import conditions

RIGHT = math.pi / 2


def pictured(rig: Rig) -> Picture:
    return settle(rig, conditions()).picture


def seen(picture: Picture, view: View | None = None) -> dict[str, Flat]:
    return {each.id: each for each in project(picture, (), view or View())}


def span(flat: Flat) -> tuple[float, float, float, float]:
    points = [at for each in flat.runs for at in each]
    return (
        min(x for x, _ in points),
        max(x for x, _ in points),
        min(y for _, y in points),
        max(y for _, y in points),
    )


def test_lines_run_from_their_points_to_where_they_meet_the_armature_as_it_hangs() -> None:
    rig = rigs.run()
    rest = settle(rig, conditions())
    flats = seen(rest.picture)
    for index, line in enumerate(rig.lines):
        point = rig.points[line.point or 0]
        (start, end) = flats[f"line-{index}"].runs[0]
        assert start == pytest.approx((point.x_m, point.z_m), abs=1e-4)
        x, _, z = rest.attachments_m[line.attachment]
        assert end == pytest.approx((x, z), abs=1e-4)
        assert flats[f"point-{index}"].dots[0][:2] == pytest.approx((point.x_m, point.z_m), abs=1e-4)
        assert flats[f"attachment-{index}"].dots[0][:2] == pytest.approx((x, z), abs=1e-4)
    assert flats["run"].width_m == rig.armature.diameter_m
    heights = [z for _, z in flats["run"].runs[0]]
    assert heights == pytest.approx([z for _, _, z in rest.at_m], abs=1e-4)


def test_the_picture_of_a_report_is_that_of_its_rest() -> None:
    assert assess(rigs.run(), conditions()).rest.picture == pictured(rigs.run())


def test_flowers_stand_all_round_a_run_as_far_out_as_it_is_said() -> None:
    """Their tips lie half the thickness and the projection from the axis; as many above it as below."""
    rig = rigs.run()
    rest = settle(rig, conditions())
    far = rig.armature.diameter_m / 2 + rig.armature.projection_m
    above = 0
    for stem in rest.picture.hung:
        near = min(math.dist((stem.tip_x_m, stem.tip_y_m, stem.tip_z_m), node) for node in rest.at_m)
        assert far - 1e-3 <= near <= far + 0.2
        above += stem.tip_z_m > stem.seat_z_m
    assert abs(above - len(rest.picture.hung) / 2) <= len(rest.picture.hung) / 10
    counted = sum(each.count for each in rig.recipe)
    assert len(rest.picture.hung) == pytest.approx(min(counted, MOST_STEMS), abs=len(rig.recipe))


def test_it_is_fuller_where_it_carries_more() -> None:
    assert [fullness((1.0, 3.0), share) for share in (0, 0.25, 0.5, 0.75, 1)] == [1, 1, 2, 3, 3]
    assert fullness((), 0.4) == 1
    rig = rigs.run()
    heavy = replace(rig, armature=replace(rig.armature, density=(1.0, 1.0, 4.0, 4.0)))
    xs = [stem.seat_x_m for stem in pictured(heavy).hung]
    middle = (min(xs) + max(xs)) / 2
    right = sum(x > middle for x in xs) / len(xs)
    assert right == pytest.approx(0.75, abs=0.07)


def test_stems_under_a_panel_are_as_long_as_they_are_cut_and_lie_inside_it() -> None:
    drop = Drop(shortest_m=0.2, longest_m=0.6, curve="dome")
    rig = rigs.panel()
    rig = replace(rig, armature=replace(rig.armature, drop=drop))
    rest = settle(rig, conditions())
    longs = [stem.seat_z_m - stem.tip_z_m for stem in rest.picture.hung]
    assert longs == pytest.approx(list(drop_lengths_m(len(longs), drop)), abs=0.011)
    edge = max(abs(x) for x, _, _ in rest.at_m)
    assert all(abs(stem.seat_x_m) <= edge + 1e-6 for stem in rest.picture.hung)
    even = settle(rigs.panel(), conditions()).picture.hung
    assert {round(each.seat_z_m - each.tip_z_m, 3) for each in even} == {round(rigs.panel().armature.stem_cut_m, 3)}


def test_a_line_that_is_cut_is_drawn_where_it_was_planned() -> None:
    rig = rigs.run()
    steps = snip(rig, conditions(), 1)
    flats = seen(steps[0].picture)
    planned = rig.attachments[rig.lines[1].attachment]
    assert flats["line-1"].runs[0][-1] == pytest.approx((planned.x_m, planned.z_m), abs=1e-4)
    assert len(steps[0].picture.hung) > 0


def test_what_hangs_nowhere_is_drawn_as_planned_and_bare() -> None:
    rig = rigs.run()
    held = tuple((each.x_m, each.y_m, each.z_m) for each in rig.attachments)
    with conditions().figures.open():
        picture = picture_of_rig(rig, at_m=(), held_m=held, varieties={})
    assert len(picture.hung) == 0
    flats = seen(picture)
    assert "run" not in flats
    assert {"line-0", "point-0", "attachment-0", "floor", "person"} <= {name.removesuffix("-near") for name in flats}


@pytest.mark.parametrize(
    ("mount", "box"),
    [
        (Mount(kind="stand", height_m=2.0, foot_width_m=0.6, foot_depth_m=0.4), (0, 0, 0, 2)),
        (Mount(kind="frame", outline="rail", width_m=1.6, height_m=2.0, foot_width_m=1.6), (-0.8, 0.8, 0, 2)),
        (Mount(kind="frame", outline="arch", width_m=1.6, height_m=2.0, foot_width_m=1.6), (-0.8, 0.8, 0, 2)),
        (Mount(kind="frame", outline="hoop", width_m=1.6, height_m=2.0, foot_width_m=0.6), (-0.8, 0.8, 0, 2)),
    ],
)
def test_what_it_is_mounted_on_has_its_size(mount: Mount, box: tuple[float, float, float, float]) -> None:
    with conditions().figures.open():
        picture = picture_of_rig(replace(rigs.run(), mount=mount), at_m=(), held_m=(), varieties={})
    assert span(seen(picture)["mount"]) == pytest.approx(box, abs=2e-3)
    feet = span(seen(picture, View(raised_rad=RIGHT))["mount-feet"])
    assert feet[1] - feet[0] == pytest.approx(mount.foot_width_m, abs=1e-3)
    assert feet[3] - feet[2] == pytest.approx(mount.foot_depth_m, abs=1e-3)


def test_a_column_is_round_and_a_wall_stands_behind() -> None:
    rig = rigs.run()
    with conditions().figures.open():
        column = picture_of_rig(
            replace(rig, mount=Mount(kind="column", width_m=0.4, height_m=3.0, x_m=0.5)),
            at_m=(),
            held_m=(),
            varieties={},
        )
        nodes = tuple((each.x_m, each.y_m, each.z_m) for each in rig.attachments)
        mounted = replace(rig, mount=Mount(kind="wall"), recipe=())
        wall = picture_of_rig(mounted, at_m=nodes, held_m=nodes, varieties={})
    body = next(each for each in column.primitives if each.id == "mount")
    assert isinstance(body, Turned)
    assert [(ring.at, ring.half_width_m) for ring in body.rings] == [((0.5, 0, 0), 0.2), ((0.5, 0, 3.0), 0.2)]
    back = next(each for each in wall.primitives if each.id == "mount-wall")
    assert isinstance(back, Shape)
    assert min(y for _, y, _ in back.runs[0]) > max(y for _, y, _ in nodes)


def test_hazards_the_walkway_and_a_person_are_there_for_measure() -> None:
    rig = replace(
        rigs.run(),
        below="walkway",
        hazards=(
            Hazard(kind="sprinkler", x_m=1.0, y_m=0.5, z_m=3.0),
            Hazard(kind="open flame", x_m=0.0, y_m=0.0, z_m=1.0),
            Hazard(kind="exit sign", x_m=2.0, y_m=0.0, z_m=2.2),
        ),
    )
    picture = pictured(rig)
    inks = {each.id: each.ink for each in picture.primitives}
    assert [inks[f"hazard-{index}"] for index in range(3)] == ["hazard water", "hazard flame", "hazard"]
    assert span(seen(picture)["walkway"])[2] == pytest.approx(2.2)
    assert "walkway" not in seen(picture, View(raised_rad=0.3))
    head = next(each for each in picture.primitives if each.id == "person-head")
    assert isinstance(head, Dot)
    assert head.at[2] + head.r_m == pytest.approx(1.7)
    assert "walkway" not in seen(pictured(replace(rig, below="table")))


def test_eyes_look_up_at_what_hangs_overhead_and_level_at_what_does_not() -> None:
    eyes = {each.kind: each for each in pictured(rigs.run()).eyes}
    assert list(eyes) == ["level", "standing", "from under", "from above"]
    assert eyes["level"].raised_rad == 0
    assert eyes["from under"].raised_rad < eyes["standing"].raised_rad < 0
    assert eyes["standing"].height_m == pytest.approx(1.6)
    assert eyes["from above"].raised_rad == pytest.approx(RIGHT, abs=1e-5)


def test_everything_lies_inside_what_the_picture_tells() -> None:
    for rig in (rigs.run(), rigs.panel()):
        picture = pictured(rig)
        for stem in picture.hung:
            assert abs(stem.tip_x_m) <= picture.reach_m + 1e-3
            assert abs(stem.tip_y_m) <= picture.deep_m + 1e-3
            assert stem.tip_z_m <= picture.top_m


def test_a_run_between_two_places_is_drawn_with_its_flowers() -> None:
    rig = rigs.run()
    ends = ((-1.0, 0.0, 3.0), (1.0, 0.0, 3.0))
    around = conditions()
    with around.figures.open():
        picture = picture_of_rig(rig, at_m=ends, held_m=ends, varieties=around.varieties)
    assert span(seen(picture)["run"]) == pytest.approx((-1, 1, 3, 3))
    xs = [each.seat_x_m for each in picture.hung]
    assert -1 <= min(xs) < -0.9
    assert 0.9 < max(xs) <= 1
