"""Snipping a line: where the rig comes to rest then, what passes its working limit, and what lets go."""

import math
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.drawing.picture import Picture
from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.quantities import Phrase, length, phrase
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.drops import as_made
from jolly_trellis.core.rigging.layout import LaidOut, lay_out
from jolly_trellis.core.rigging.loads import Load, take_off
from jolly_trellis.core.rigging.network import Settled, solve
from jolly_trellis.core.rigging.pictures import picture_of_rig
from jolly_trellis.core.rigging.resting import line_tensions, lowest_m, places
from jolly_trellis.core.rigging.rig import Rig, RigLine

SUDDEN = rule("Sudden transfer when a line goes, times the static tension", "ratio", 2.0, cautious="up")


@dataclass(frozen=True, slots=True, kw_only=True)
class SnipStep:
    """One settled state after a line is cut: what was cut or let go, where all came to rest, what passes its limit.

    `picture` is what it looks like then.
    """

    cut: tuple[int, ...]
    at_m: tuple[tuple[float, float, float], ...]
    lowest_m: float
    tension_n: tuple[float, ...]
    over_limit: tuple[int, ...]
    lets_go: tuple[int, ...]
    say: Phrase
    picture: Picture


def snip(rig: Rig, conditions: Conditions, cut: int) -> tuple[SnipStep, ...]:
    """Cut one line and follow what happens, step by settled step, until nothing more lets go or nothing holds it.

    A line lets go where twice its static tension reaches its breaking load at its knots: only that carries the
    sequence on.

    Raises: InvalidMeasure: no such line. CoreError: the rig cannot be.
    """
    with conditions.figures.open():
        return _snip(as_made(rig), conditions, cut)


def _snip(rig: Rig, conditions: Conditions, cut: int) -> tuple[SnipStep, ...]:
    if not 0 <= cut < len(rig.lines):
        raise InvalidMeasure(
            path="lines", message=phrase("There is no such line."), limit=phrase("Choose one of the rig's lines.")
        )
    weighed = take_off(rig, conditions)
    load = weighed.load(GRAVITY_M_S2)
    broken: list[int] = [cut]
    steps: list[SnipStep] = []
    while True:
        left = [index for index in range(len(rig.lines)) if index not in broken]
        if not left:
            return (*steps, _last(rig, load, tuple(broken), conditions))
        bare = replace(rig, lines=tuple(rig.lines[index] for index in left))
        try:
            made = lay_out(bare, load, as_if=None)
            settled = solve(made.net)
        except CoreError:
            return (*steps, _last(rig, load, tuple(broken), conditions))
        step = _snip_step(rig, tuple(broken), left, made, settled, conditions)
        steps.append(step)
        if not step.lets_go:
            return tuple(steps)
        broken += step.lets_go


def _snip_step(
    rig: Rig, broken: tuple[int, ...], left: list[int], made: LaidOut, settled: Settled, conditions: Conditions
) -> SnipStep:
    tension = line_tensions(made, settled)
    all_ = np.zeros(len(rig.lines))
    all_[left] = tension
    over, goes = [], []
    for place, index in enumerate(left):
        spec = rig.lines[index].spec
        counted = float(tension[place]) * CONTINGENCY.value * HANDLING.value
        if counted > line_rules.working_limit_n(spec, over_people=rig.over_people, one_gone=True):
            over.append(index)
        if SUDDEN.value * float(tension[place]) >= line_rules.breaking_n(spec) * line_rules.efficiency(spec):
            goes.append(index)
    nodes = settled.at_m[list(made.armature_nodes)]
    low = lowest_m(rig, nodes)
    rests = phrase("It comes down to the floor")
    if low > 0:
        rests = phrase("It comes to rest {low} over the floor", low=length(low))
    words = (
        "{rests}; {over} of the rest pass their working limit"
        if over
        else "{rests}; the rest stay inside their limits"
    )
    words += ", and {goes} let go." if goes else "."
    return SnipStep(
        cut=broken,
        at_m=places(nodes),
        lowest_m=max(low, 0.0),
        tension_n=tuple(all_.tolist()),
        over_limit=tuple(over),
        lets_go=tuple(goes),
        say=phrase(words, rests=rests, over=len(over), goes=len(goes)),
        picture=_picture(rig, broken, nodes, settled.at_m[list(made.attachment_node)], conditions),
    )


def _last(rig: Rig, load: Load, broken: tuple[int, ...], conditions: Conditions) -> SnipStep:
    """With no line left: on its second bond where it has one to a point of its own, else on the floor."""
    bond = rig.bond
    if bond is None or bond.point is None or any(line.point == bond.point for line in rig.lines):
        return _fallen(rig, broken, conditions)
    point = rig.points[bond.point]
    from_ = (point.x_m, point.y_m, point.z_m)
    near = min(
        range(len(rig.attachments)),
        key=lambda each: math.dist(from_, _place(rig, each)),
    )
    only = replace(rig, lines=(RigLine(point=bond.point, attachment=near, spec=bond.spec),))
    try:
        made = lay_out(only, load, as_if=None)
        settled = solve(made.net)
        nodes = settled.at_m[list(made.armature_nodes)]
    except CoreError:
        return _fallen(rig, broken, conditions)
    down = np.array([0.0, 0.0, bond.slack_m])
    nodes, held = nodes - down, settled.at_m[list(made.attachment_node)] - down
    low = max(lowest_m(rig, nodes), 0.0)
    return SnipStep(
        cut=broken,
        at_m=places(nodes),
        lowest_m=low,
        tension_n=tuple(0.0 for _ in rig.lines),
        over_limit=(),
        lets_go=(),
        say=phrase(
            "Only its second bond holds it, from {point}: it hangs {low} over the floor.",
            low=length(low),
            point=point.name,
        ),
        picture=_picture(rig, broken, nodes, held, conditions),
    )


def _picture(rig: Rig, broken: tuple[int, ...], nodes: Array, held: Array, conditions: Conditions) -> Picture:
    return picture_of_rig(rig, at_m=places(nodes), held_m=places(held), varieties=conditions.varieties, cut=broken)


def _place(rig: Rig, index: int) -> tuple[float, float, float]:
    held = rig.attachments[index]
    return held.x_m, held.y_m, held.z_m


def _fallen(rig: Rig, broken: tuple[int, ...], conditions: Conditions) -> SnipStep:
    return SnipStep(
        cut=broken,
        at_m=(),
        lowest_m=0.0,
        tension_n=tuple(0.0 for _ in rig.lines),
        over_limit=(),
        lets_go=(),
        say=phrase("Nothing holds it any more: it is on the floor."),
        picture=picture_of_rig(
            rig,
            at_m=(),
            held_m=tuple(_place(rig, each) for each in range(len(rig.attachments))),
            varieties=conditions.varieties,
            cut=tuple(range(len(rig.lines))),
        ),
    )
