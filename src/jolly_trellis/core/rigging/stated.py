"""What people have stated of hang points: it holds for the place it was said of, and goes no further."""

import math
from dataclasses import replace
from typing import Any

from jolly_trellis.core.rigging.rig import HangPoint, Rig, Statement

_SAME_M = 1e-6
_ASKED = ("rating_n", "pull_out_n", "rated_within_rad", "stated_by", "stated_on", "made_for", "surveyed")


def statement_of(point: HangPoint) -> Statement | None:
    """What is stated of a point, with the place it is said of; None where nothing is."""
    said = {name: getattr(point, name) for name in _ASKED}
    if all(each is None for each in said.values()):
        return None
    return Statement(kind=point.kind, x_m=point.x_m, y_m=point.y_m, z_m=point.z_m, **said)


def unstated(point: HangPoint) -> HangPoint:
    """A point of which nobody has stated anything, here or elsewhere: for one that is added."""
    bare: dict[str, Any] = dict.fromkeys(_ASKED)
    return replace(point, **bare, elsewhere=None)


def of_their_places(before: Rig, after: Rig) -> Rig:
    """A rig changed from another one, its points with nothing that was stated of other places.

    A point is the one of its name; one renamed where it is stays the same. What was stated of one that is elsewhere
    now, or of one that another was made from, stays to be read in `elsewhere`; moved back to just that place it is
    stated again. What is stated with the move itself is new, and holds.
    """
    said = [_words(each) for each in before.points]
    return replace(after, points=tuple(_of_its_place(before, after, each, said) for each in after.points))


def _of_its_place(before: Rig, after: Rig, point: HangPoint, said: list[tuple[object, ...]]) -> HangPoint:
    was = _before(before, after, point)
    if was is not None and _same_place(was, point):
        return point
    told = point.elsewhere if was is None else was.elsewhere
    statement = statement_of(point)
    if statement is None:
        back = told is not None and told.kind == point.kind and _same_place(told, point)
        return _stated_again(point, told) if back and told is not None else point
    if _words(point) not in said:
        return point
    bare = unstated(point)
    if was is None:
        return bare
    here = statement_of(was)
    return replace(bare, elsewhere=here if here is not None else told)


def _before(before: Rig, after: Rig, point: HangPoint) -> HangPoint | None:
    """What a point was before; None for one that is new."""
    own = [each for each in before.points if each.name == point.name]
    if own:
        return min(own, key=lambda each: math.dist(_place(each), _place(point)))
    names = {each.name for each in after.points}
    return next((each for each in before.points if each.name not in names and _same_place(each, point)), None)


def _stated_again(point: HangPoint, told: Statement) -> HangPoint:
    return replace(point, **{name: getattr(told, name) for name in _ASKED}, elsewhere=None)


def _words(point: HangPoint) -> tuple[object, ...]:
    return tuple(getattr(point, name) for name in _ASKED)


def _place(at: HangPoint | Statement) -> tuple[float, float, float]:
    return at.x_m, at.y_m, at.z_m


def _same_place(one: HangPoint | Statement, other: HangPoint | Statement) -> bool:
    return math.dist(_place(one), _place(other)) <= _SAME_M
