"""The phases of making, as the trade works: anchors, margins, greens, branches, large, line, small, airy, last."""

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.building.build import Build, Rows
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE

PHASES = ("anchors", "margins", "greens", "branches", "large", "line", "small", "airy", "last")
LAST_PHASE = PHASES.index("last")
ANCHORS = rule("Anchor stems at the edge before a pressed roll sits still", "count", 3, COMMON_PRACTICE)
_BY_ROLE = {"margin": 1, "base": 2, "focal": 4, "line": 5, "filler": 6, "airy": 7}


def phase_of(line: RecipeLine, variety: Variety) -> int:
    """The phase of a recipe line, as an index of `PHASES`.

    By role; foliage with the greens and forked branches after them, before they catch in flowers; bulbs, which grow
    on, thirsty stems, and what goes in on site last.

    Source: common practice, no source.
    """
    if line.goes_in != "with the piece" or variety.bulb or variety.thirst == "thirsty":
        return LAST_PHASE
    if line.role == "margin":
        return _BY_ROLE["margin"]
    if variety.forked and variety.branch:
        return PHASES.index("branches")
    if variety.form == "leaf":
        return _BY_ROLE["base"]
    return _BY_ROLE[line.role]


def phases_of(build: Build) -> npt.NDArray[np.intp]:
    """The phase of every row of a piece's stems."""
    return _phases(build.placement, build.mechanic.anchored)


@remembered
def _phases(placement: Placement, anchored: bool) -> npt.NDArray[np.intp]:  # all of them are the key
    stems = placement.stems
    by_line = [phase_of(line, variety) for line, variety, _, _ in stems.lines]
    phases = (
        np.array(by_line, dtype=np.intp)[np.asarray(stems.line_index)] if len(stems) else np.zeros(0, dtype=np.intp)
    )
    if anchored and len(phases):
        away = np.hypot(placement.seat_x_m, placement.seat_y_m)
        phases[np.lexsort((-away, phases))[: int(ANCHORS.value)]] = 0
    return phases


def usual_order(build: Build) -> npt.NDArray[np.intp]:
    """The order hands would take unasked: by phase; thorny, forked and heavy lines first; opposite sides in turn.

    Within a line the stems are taken by azimuth, each followed by the one across from it.
    """
    return _usual_order(build.placement, build.rows, build.mechanic.anchored)


@remembered
def _usual_order(placement: Placement, weigh: Rows, anchored: bool) -> npt.NDArray[np.intp]:
    stems, phases = placement.stems, _phases(placement, anchored)
    order: list[int] = []
    heft = [float(weigh.mass_kg[first : first + rows].mean()) if rows else 0.0 for _, _, first, rows in stems.lines]
    catches = [variety.thorny or variety.forked for _, variety, _, _ in stems.lines]
    lines = sorted(range(len(stems.lines)), key=lambda index: (not catches[index], -heft[index]))
    azimuth = np.arctan2(placement.tip_m[:, 0], -placement.tip_m[:, 1])
    for phase in sorted(set(phases.tolist())):
        for index in lines:
            _, _, first, rows = stems.lines[index]
            here = first + np.flatnonzero(phases[first : first + rows] == phase)
            round_ = here[np.argsort(azimuth[here], kind="stable")].tolist()
            half = (len(round_) + 1) // 2
            for left, right in zip(round_[:half], [*round_[half:], None], strict=False):
                order += [left] if right is None else [left, right]
    return np.array(order, dtype=np.intp)
