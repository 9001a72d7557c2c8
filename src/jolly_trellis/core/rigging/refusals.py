"""What a rig may not be: hung from what never bears, with lines that lead to nothing, or with nothing to hold it."""

import math

from jolly_trellis.core.acts import refusals as passing
from jolly_trellis.core.errors import InvalidMeasure, Unfinished
from jolly_trellis.core.quantities import count, phrase
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.rig import Rig, RigLine

MOST_PLACES = 60
MOST_TIES = 120  # a run tied all along is not let down to rest: its ties share it span by span
_NEAR_M = 0.01


def check(rig: Rig) -> None:
    """Refuse a rig that cannot be: lines to nothing, points in one place, ratings of nothing, points never to use.

    Raises: InvalidMeasure, with the path of what is wrong.
    """
    passing.check_recipe(rig.recipe, path="recipe", moves=False)
    passing.check_passage(rig.passage)
    for index, point in enumerate(rig.points):
        if never := POINTS[point.kind].never:
            raise _wrong(f"points.{index}.kind", never, "Hang it from something the owner rates.")
        for field in ("rating_n", "pull_out_n"):
            stated: float | None = getattr(point, field)
            if stated is not None and not stated > 0:
                words = "A rating of nothing holds nothing."
                raise _wrong(f"points.{index}.{field}", words, "Give it, or leave it empty.")
        for other in rig.points[:index]:
            if math.dist((point.x_m, point.y_m, point.z_m), (other.x_m, other.y_m, other.z_m)) < _NEAR_M:
                raise InvalidMeasure(
                    path=f"points.{index}",
                    message=phrase("{point} is in the same place as {other}.", point=point.name, other=other.name),
                    limit=phrase("Move it by a hand's breadth, or lead both lines to one point."),
                )
    if rig.bond is not None and rig.bond.point is not None and not 0 <= rig.bond.point < len(rig.points):
        raise _wrong("bond.point", "The second bond leads to nothing.", "Lead it to one of the hang points.")
    for index, line in enumerate(rig.lines):
        _check_line(rig, index, line)
    outlines.check_length(rig.armature, rig.mount)
    most = MOST_TIES if rig.is_tied else MOST_PLACES
    if len(rig.points) > most:
        raise InvalidMeasure(
            path="points",
            message=phrase("The rig has {n} hang points.", n=count(len(rig.points))),
            limit=phrase("Take {most} at most: fewer points, or two pieces.", most=count(most)),
        )
    if len(rig.attachments) > most:
        raise InvalidMeasure(
            path="attachments",
            message=phrase("The armature is held at {n} places.", n=count(len(rig.attachments))),
            limit=phrase("Take {most} at most: fewer places, or two pieces.", most=count(most)),
        )
    if not rig.attachments:
        raise Unfinished(
            path="attachments",
            message=phrase("The armature has no place for a line yet."),
            limit=phrase("Draw its path, or add a hang point with its line."),
        )
    if not rig.lines:
        raise Unfinished(
            path="lines",
            message=phrase("Nothing holds the armature."),
            limit=phrase("Lead a line from a hang point to it."),
        )


def _check_line(rig: Rig, index: int, line: RigLine) -> None:
    places = len(rig.attachments)
    led = line.point is not None and line.tied_to is None and 0 <= line.point < len(rig.points)
    tied = line.point is None and line.tied_to is not None and 0 <= line.tied_to < places
    if not (led or tied) or not 0 <= line.attachment < places:
        raise _wrong(f"lines.{index}", "This line leads to nothing.", "Lead it from a hang point to the armature.")
    if line.tied_to == line.attachment:
        raise _wrong(f"lines.{index}", "This line leads from a place to itself.", "Lead it to another place.")
    try:
        line_rules.breaking_n(line.spec)
    except InvalidMeasure as problem:
        raise InvalidMeasure(
            path=f"lines.{index}.{problem.path}", message=problem.message, limit=problem.limit
        ) from problem


def _wrong(path: str, words: str, right: str) -> InvalidMeasure:
    return InvalidMeasure(path=path, message=phrase(words), limit=phrase(right))
