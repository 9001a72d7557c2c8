"""Putting up and levelling: how much slack each line keeps, and in which order lines are tightened."""

from dataclasses import dataclass

from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Rig


@dataclass(frozen=True, slots=True, kw_only=True)
class Tighten:
    """One step of levelling: which line, by its place in the list, and how slack it is until its turn, m."""

    line: int
    slack_m: float


def cut_length_m(spec: LineSpec, reach_m: float, levelling_m: float) -> float:
    """Length to cut of a line: what it reaches, both ends, and what is let out while it is levelled, m.

    Source: common practice.
    """
    return reach_m + 2 * line_rules.end_takes_m(spec) + levelling_m


def stretch_m(spec: LineSpec, reach_m: float, tension_n: float) -> float:
    """How much longer a line is under its load: T·L/EA, m. Source: Hooke's law; EA are estimates."""
    return tension_n * reach_m / line_rules.stiffness_n(spec)


def tightening(rig: Rig, reach_m: tuple[float, ...], tension_n: tuple[float, ...]) -> tuple[Tighten, ...]:
    """Lines in the order they are tightened: the two outermost first, then inwards on either side by turns.

    Each stays slack by the levelling range and what it will stretch until its turn, so that nothing is pulled fast
    before it hangs level.

    Source: common practice, no source.
    """
    middle = sum(each.x_m for each in rig.attachments) / len(rig.attachments)
    aside = [rig.attachments[line.attachment].x_m - middle for line in rig.lines]
    left = sorted((each for each in range(len(aside)) if aside[each] < 0), key=lambda each: aside[each])
    right = sorted((each for each in range(len(aside)) if aside[each] >= 0), key=lambda each: -aside[each])
    order: list[int] = []
    while left or right:
        order += [side.pop(0) for side in (left, right) if side]
    return tuple(
        Tighten(line=each, slack_m=rig.levelling_m + stretch_m(rig.lines[each].spec, reach_m[each], tension_n[each]))
        for each in order
    )
