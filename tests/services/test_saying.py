"""Several things said at once: each begun with what the studio has, added in one act and undone in one."""

import math
import sqlite3
from dataclasses import replace
from itertools import pairwise

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.starting.resizing import followed, resized, size_of
from jolly_trellis.core.event.starting.starts import STARTS, Given
from jolly_trellis.core.event.starting.starts_hung import wrapped
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.practice import Practice
from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.rig import Mount, Rig
from jolly_trellis.services import planning, saying
from tests.ordinary import nettings
from tests.services.test_coming_home import revision, supper

__all__ = ["supper"]
SAID = "12 low bowls 30 across 12 deep, 9 white roses; ring 1.8 m, 60 baby’s breath, magic; hoop 240 cm across"


def test_what_is_said_is_begun_with_what_the_studio_has_and_sized_to_its_vessel(supper: sqlite3.Connection) -> None:
    bowls, ring, hoop = saying.said(supper, planning.brief_of(supper, 1), SAID, "metric")
    assert isinstance(bowls.part, Piece)
    assert (bowls.part.name, bowls.part.quantity) == ("low bowl", 12)
    assert bowls.part.envelope.width_m == pytest.approx(0.54)
    assert bowls.part.envelope.height_m == pytest.approx(0.12 + 0.27, abs=0.011)
    assert [(each.variety, each.count, each.shades[0].name) for each in bowls.part.recipe] == [("rose", 9, "white")]
    assert isinstance(ring.part, Rig)
    assert (ring.part.armature.diameter_m, ring.part.recipe[0].count) == (1.8, 60)
    assert [each.words for each in ring.unheard] == ["magic"]
    assert SAID[ring.unheard[0].start : ring.unheard[0].end] == "magic"
    assert isinstance(hoop.part, Rig)
    assert hoop.part.mount is not None
    assert (hoop.part.mount.width_m, hoop.part.mount.height_m) == (2.4, 3.15)


def test_all_of_it_is_added_in_one_act_and_undone_in_one(supper: sqlite3.Connection) -> None:
    before = planning.state(supper, 1).plan.parts
    parts = [each.part for each in saying.said(supper, planning.brief_of(supper, 1), SAID, "metric")]
    state, first = planning.add_parts(supper, 1, parts, base_revision=revision(supper, 1))
    assert [each.part for each in state.plan.parts[-3:]] == parts
    assert state.plan.parts[-3].id == first
    planning.undo(supper, 1, base_revision=state.event.revision)
    assert planning.state(supper, 1).plan.parts == before
    with pytest.raises(InvalidMeasure, match="Nothing that can be made was understood"):
        planning.add_parts(supper, 1, [], base_revision=revision(supper, 1))


@pytest.mark.parametrize("key", ["ring", "garland", "runner", "wall_roll", "panel", "cloud"])
@pytest.mark.parametrize("times", [0.1, 1.0, 20.0])
def test_hung_work_at_another_size_hangs_as_it_did(key: str, times: float) -> None:
    part = STARTS[key].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    found = resized(part, times * size_of(part))
    assert size_of(found) == pytest.approx(times * size_of(part))
    between = max(1, (len(found.attachments) - 1) // (len(part.attachments) - 1)) if key in _RUNS else 1
    assert [each.x_m for each in found.points[::between]] == pytest.approx(
        [times * each.x_m for each in part.points], abs=1e-4
    )
    for before, after in zip(part.attachments, found.attachments[::between], strict=True):
        assert after.x_m == pytest.approx(times * before.x_m, abs=1e-4)
        assert after.z_m == before.z_m
        if key in ("ring", "panel", "cloud"):
            assert after.y_m == pytest.approx(times * before.y_m, abs=1e-4)
    assert found.armature.length_m == pytest.approx(times * part.armature.length_m, abs=1e-3)
    # What is carried is no longer than a van takes, or than it was begun.
    assert found.armature.length_m / found.armature.sections <= max(3.5, part.armature.length_m) or key in _SHEETS


_SHEETS = ("ring", "panel", "cloud")
_RUNS = ("garland", "wall_roll", "cascade")


@pytest.mark.parametrize(
    ("key", "times", "places"),
    [("garland", 1.0, 3), ("garland", 1.3, 3), ("garland", 1.4, 5), ("garland", 20.0, 31), ("garland", 90.0, 59),
     ("wall_roll", 3.0, 13), ("cascade", 3.0, 10), ("cascade", 0.2, 4)],
)  # fmt: skip
def test_a_long_run_is_held_at_places_between_as_well(key: str, times: float, places: int) -> None:
    """By hand: a garland of 63 m has 15 spans for each of its two of 1.5 m, up to the sixty that one piece has."""
    part = STARTS[key].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    found = resized(part, times * size_of(part))
    assert len(found.points) == len(found.attachments) == len(found.lines) == places
    assert [(line.point, line.attachment) for line in found.lines] == [(at, at) for at in range(places)]
    word = part.points[0].name.split()[0]
    assert [each.name for each in found.points] == [f"{word} {at + 1}" for at in range(places)]
    assert all(point.x_m == held.x_m for point, held in zip(found.points, found.attachments, strict=True))
    if places < 59:
        spans = [math.dist((a.x_m, a.z_m), (b.x_m, b.z_m)) for a, b in pairwise(found.attachments)]
        usual = max(math.dist((a.x_m, a.z_m), (b.x_m, b.z_m)) for a, b in pairwise(part.attachments))
        assert max(spans) <= usual * 4 / 3 + 0.01
    if key == "wall_roll":  # it goes on as the parabola it is begun as
        for held in found.attachments:
            assert held.z_m == pytest.approx(2.32 + 0.16 * (held.x_m / 2.7) ** 2, abs=2e-3)


def test_a_run_with_lines_of_its_own_is_not_given_more() -> None:
    part = STARTS["garland"].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    twice = replace(part, lines=(*part.lines, part.lines[0]))
    assert len(resized(twice, 12.0).points) == 3


@pytest.mark.parametrize("key", ["hoop", "arch", "column"])
@pytest.mark.parametrize("times", [0.3, 1.0, 1.27, 3.0])
def test_what_is_tied_to_a_frame_or_a_column_is_tied_anew_at_another_size(key: str, times: float) -> None:
    """Ties at most 30 cm apart at any size (common practice, no source); the hoop keeps its height over the floor."""
    part = STARTS[key].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice(), stems=True))
    assert isinstance(part, Rig)
    found = resized(part, times * size_of(part))
    assert size_of(found) == pytest.approx(times * size_of(part))
    assert found.recipe == part.recipe
    places = [(each.x_m, each.z_m) for each in found.attachments]
    assert max(math.dist(one, other) for one, other in pairwise(places)) <= 0.3
    assert len(found.points) == len(places)
    assert {line.spec.kind for line in found.lines} == {"cable tie", "polyester cord"}
    assert found.mount is not None
    assert part.mount is not None
    if key == "hoop":
        assert found.mount.height_m == pytest.approx(0.75 + times * 1.2)
        assert found.mount.width_m == pytest.approx(times * 1.2)
        assert math.dist(places[0], places[-1]) == pytest.approx(times * 2 * 0.6 * math.sin(math.pi / 9), abs=0.01)
    if key != "column":
        assert found.mount.foot_width_m == pytest.approx(times * part.mount.foot_width_m, abs=1e-3)
        assert found.armature.length_m / found.armature.sections <= 1.0
    else:
        assert found.mount == part.mount
        assert places[0][1] == 0.5


@pytest.mark.parametrize("long", [0.4, 0.8, 1.9])
def test_a_section_grows_along_its_frame_from_where_it_begins(long: float) -> None:
    """By hand: a leg of 1.5 m, then a half circle of 0.7 m: the first tie stays, the last is so much farther along."""
    part = STARTS["arch_section"].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    found = resized(part, long)
    assert size_of(found) == found.armature.length_m == pytest.approx(long)
    first, last = found.attachments[0], found.attachments[-1]
    assert (first.x_m, first.z_m) == pytest.approx((-0.7, 1.5), abs=0.011)
    turn = math.pi - long / 0.7
    assert (last.x_m, last.z_m) == pytest.approx((0.7 * math.cos(turn), 1.5 + 0.7 * math.sin(turn)), abs=0.011)
    for line in found.lines:
        held, point = found.attachments[line.attachment], found.points[line.point or 0]
        assert point.x_m == pytest.approx(held.x_m, abs=2e-3)
    assert found.mount == part.mount


def test_a_section_longer_than_its_arch_is_refused() -> None:
    part = STARTS["arch_section"].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    with pytest.raises(InvalidMeasure, match="longer than its") as caught:
        resized(part, 6.0)
    assert caught.value.path == "armature.length_m"


def on_frame(rig: Rig, mount: Mount) -> float:
    """How far the tie that is farthest from its frame is off it, m."""
    return max(
        math.dist((x, y, z), outlines.place_m(mount, outlines.along_m(mount, (x, y, z))))
        for x, y, z in ((each.x_m, each.y_m, each.z_m) for each in rig.attachments)
    )


@pytest.mark.parametrize("key", ["arch_section", "arch", "hoop"])
@pytest.mark.parametrize("wide", [1.0, 1.38, 2.4])
def test_what_is_wrapped_on_a_frame_follows_it_to_another_size(key: str, wide: float) -> None:
    part = STARTS[key].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice(), stems=True))
    assert isinstance(part, Rig)
    assert part.mount is not None
    own = replace(part.points[0], name="own", z_m=3.0, rating_n=900.0)
    part = replace(part, points=(*part.points, own), bond=replace(USUAL.bond, point=len(part.points)))
    assert part.mount is not None
    was, mount = part.mount, replace(part.mount, width_m=wide)
    found = followed(part, replace(part, mount=mount))
    if key == "hoop":  # its lowest point stays where it is
        mount = replace(mount, height_m=part.mount.height_m + wide - 1.2)
    assert found.mount is not None
    assert (found.mount.width_m, found.mount.height_m) == pytest.approx((wide, mount.height_m))
    assert on_frame(found, mount) < 0.01
    places = [(each.x_m, each.z_m) for each in found.attachments]
    assert max(math.dist(one, other) for one, other in pairwise(places)) <= 0.3
    assert {line.point for line in found.lines} == set(range(len(places)))
    assert found.bond is not None
    assert found.bond.point is not None
    assert found.points[found.bond.point] == own
    assert found.recipe == part.recipe
    as_long = 1.0 if key == "arch_section" else outlines.length_m(mount) / outlines.length_m(was)
    assert found.armature.length_m == pytest.approx(as_long * part.armature.length_m, abs=1e-4)
    # What somebody has placed otherwise stays where it is.
    moved = replace(part, attachments=(replace(part.attachments[0], y_m=0.4), *part.attachments[1:]))
    assert followed(moved, replace(moved, mount=mount)).attachments == moved.attachments
    assert followed(part, replace(moved, mount=mount)).attachments == moved.attachments
    assert followed(part, replace(part, mount=None)).attachments == part.attachments
    # A frame that nobody has measured, before or after, moves nothing.
    for unmeasured in (replace(part.mount, width_m=0.0), replace(part.mount, height_m=0.0)):
        bare = replace(part, mount=unmeasured)
        assert followed(bare, part) == part
        assert followed(part, bare) == bare


def test_ties_that_stay_as_many_stay_what_they_are_and_are_rated_anew_where_they_are_now() -> None:
    part = STARTS["arch_section"].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    assert part.mount is not None
    rated = replace(part, points=tuple(replace(each, rating_n=80.0, stated_by="its maker") for each in part.points))
    found = followed(rated, replace(rated, mount=replace(part.mount, width_m=1.5)))
    moved = [each for was, each in zip(part.points, found.points, strict=True) if was.x_m != each.x_m]
    assert len(moved) > len(part.points) / 2
    assert {each.rating_n for each in moved} == {None}
    assert {each.elsewhere.rating_n for each in moved if each.elsewhere} == {80.0}
    assert [each.name for each in found.points] == [each.name for each in part.points]
    assert found.lines == part.lines
    assert found.attachments != part.attachments


def test_a_crawl_stays_on_the_face_of_its_column() -> None:
    part = STARTS["column"].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    assert part.mount is not None
    found = followed(part, replace(part, mount=replace(part.mount, width_m=0.5)))
    assert {each.x_m for each in found.attachments} == {0.25}
    assert {each.x_m for each in found.points} == {0.25}
    assert [each.z_m for each in found.points] == [each.z_m for each in part.points]


def test_a_section_at_the_end_of_its_frame_stays_on_it() -> None:
    """By hand: the last 80 cm of the right leg of an arch; of a lower one, the wrap ends at its foot again."""
    part = STARTS["arch_section"].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))
    assert isinstance(part, Rig)
    assert part.mount is not None
    end = outlines.length_m(part.mount) - 0.8
    low = wrapped(part.name, part.armature, part.mount, end)
    assert [each.z_m for each in low.attachments] == pytest.approx([0.8, 0.6, 0.4, 0.2, 0.0], abs=0.001)
    found = followed(low, replace(low, mount=replace(part.mount, height_m=1.9)))
    assert [each.z_m for each in found.attachments] == pytest.approx([0.8, 0.6, 0.4, 0.2, 0.0], abs=0.011)
    assert {each.x_m for each in found.attachments} == {0.7}
    longer = resized(low, 1.0)
    assert longer.attachments[0].z_m == pytest.approx(1.0, abs=0.011)
    assert longer.attachments[-1].z_m == pytest.approx(0.0, abs=0.011)
