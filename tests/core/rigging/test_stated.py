"""What was stated of a hang point holds for its place: whatever moves or copies it leaves that behind, to be read."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.starting.resizing import followed, resized
from jolly_trellis.core.rigging.more_lines import with_points
from jolly_trellis.core.rigging.rig import HangPoint, Rig
from jolly_trellis.core.rigging.stated import of_their_places, statement_of, unstated
from jolly_trellis.core.rigging.survey import Survey, in_place
from tests.rigs import run

SAID = {
    "rating_n": 300.0,
    "pull_out_n": 120.0,
    "rated_within_rad": 0.5,
    "stated_by": "the engineer",
    "stated_on": "2026-05-01",
    "made_for": "a sign of 30 kg",
}


def rated() -> Rig:
    """A run of three points with everything stated of each, and nothing beside them."""
    bare = run(count=3)
    points = tuple(replace(unstated(each), **SAID) for each in bare.points[:3])  # type: ignore[arg-type]
    return replace(bare, points=points, bond=None)


def dragged(rig: Rig, at: int, **to: object) -> Rig:
    point = replace(rig.points[at], **to)  # type: ignore[arg-type]
    return of_their_places(rig, replace(rig, points=(*rig.points[:at], point, *rig.points[at + 1 :])))


def nothing_is_stated(point: HangPoint) -> bool:
    return all(getattr(point, name) is None for name in SAID) and point.surveyed is None


@pytest.mark.parametrize("to", [{"x_m": -2.9}, {"y_m": 0.01}, {"z_m": 3.5}])
def test_a_point_moved_by_hand_keeps_nothing_and_what_was_said_is_read_as_of_another_place(
    to: dict[str, float],
) -> None:
    before = rated()
    after = dragged(before, 0, **to)
    assert nothing_is_stated(after.points[0])
    assert after.points[0].elsewhere == statement_of(before.points[0])
    assert after.points[1:] == before.points[1:]
    again = dragged(after, 0, x_m=-2.5)
    assert again.points[0].elsewhere == statement_of(before.points[0]), "moved once more, it is still to be read"


def test_moved_back_to_just_that_place_it_is_stated_again() -> None:
    before = rated()
    after = dragged(dragged(before, 0, x_m=-2.5), 0, x_m=before.points[0].x_m)
    assert after == before
    other_kind = dragged(dragged(before, 0, x_m=-2.5, kind="eye"), 0, x_m=before.points[0].x_m)
    assert nothing_is_stated(other_kind.points[0]), "it was said of a loop round a beam"


def test_what_is_stated_with_the_move_or_without_one_holds() -> None:
    before = rated()
    told = dragged(before, 0, x_m=-2.5, rating_n=250.0)
    assert (told.points[0].rating_n, told.points[0].elsewhere) == (250.0, None)
    assert dragged(before, 0, rating_n=400.0).points[0].rating_n == 400.0
    assert dragged(before, 1, name="the middle").points[1].rating_n == 300.0, "renamed where it is"


def test_a_point_of_the_survey_that_is_moved_is_of_the_survey_no_more() -> None:
    before = rated()
    hooked = replace(unstated(before.points[0]), surveyed="hook 4")
    before = replace(before, points=(hooked, *before.points[1:]))
    after = dragged(before, 0, x_m=-2.0)
    assert nothing_is_stated(after.points[0])
    assert after.points[0].elsewhere is not None
    assert after.points[0].elsewhere.surveyed == "hook 4"
    gone = in_place(dragged(after, 0, surveyed="hook 5"), Survey()).points[0]
    assert (gone.surveyed, gone.rating_n, gone.elsewhere) == ("hook 5", None, after.points[0].elsewhere)


def test_a_point_copied_from_a_rated_one_is_unrated() -> None:
    before = rated()
    copied = replace(before.points[1], name="one more", x_m=1.5)
    after = of_their_places(before, replace(before, points=(*before.points, copied)))
    assert nothing_is_stated(after.points[-1])
    assert after.points[-1].elsewhere is None, "nobody said anything of it, here or elsewhere"
    assert after.points[:3] == before.points
    for more in with_points(before, 2).points[3:]:
        assert nothing_is_stated(more)


@pytest.mark.parametrize("size_m", [3.0, 10.0, 20.0])
def test_a_resize_carries_no_rating_along(size_m: float) -> None:
    """The middle one stays where it is; the others move, and more come between them."""
    before = rated()
    after = resized(before, size_m)
    assert after.points != before.points
    stayed = {(each.x_m, each.y_m, each.z_m): each for each in before.points}
    for point in after.points:
        here = stayed.get((point.x_m, point.y_m, point.z_m))
        if here is None or here.name != point.name:
            assert nothing_is_stated(point), point.name
        else:
            assert statement_of(point) == statement_of(here)
    assert sum(each.elsewhere is not None for each in after.points) == len(
        {each.name for each in after.points if nothing_is_stated(each)} & {each.name for each in before.points}
    )


def test_ties_that_follow_their_frame_are_rated_anew() -> None:
    before = rated()
    moved = replace(before, points=tuple(replace(each, z_m=each.z_m + 0.1) for each in before.points))
    assert all(nothing_is_stated(each) for each in followed(before, moved).points)
