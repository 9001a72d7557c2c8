"""The phases of making, as the trade works: anchors, margins, greens, branches, large, line, small, airy, last."""

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.piece import RecipeLine
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
    if line.on_site or variety.bulb or variety.thirst == "thirsty":
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
    stems = build.placement.stems
    by_line = [phase_of(line, variety) for line, variety, _, _ in stems.lines]
    phases = (
        np.array(by_line, dtype=np.intp)[np.asarray(stems.line_index)] if len(stems) else np.zeros(0, dtype=np.intp)
    )
    if build.mechanic.anchored and len(phases):
        away = np.hypot(build.placement.seat_x_m, build.placement.seat_y_m)
        phases[np.lexsort((-away, phases))[: int(ANCHORS.value)]] = 0
    return phases


def usual_order(build: Build) -> npt.NDArray[np.intp]:
    """The order hands would take unasked: by phase; thorny, forked and heavy lines first; opposite sides in turn.

    Within a line the stems are taken by azimuth, each followed by the one across from it.
    """
    stems, placement = build.placement.stems, build.placement
    phases = phases_of(build)
    order: list[int] = []
    heft = [
        float(build.rows.mass_kg[first : first + rows].mean()) if rows else 0.0 for _, _, first, rows in stems.lines
    ]
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
