"""What all hung work of a place loads a beam or truss with on a day, against what it may carry."""

from collections.abc import Iterable

import numpy as np

from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.quantities import phrase, pull
from jolly_trellis.core.rigging import facts
from jolly_trellis.core.rigging.rig import BeamLoad, Rig
from jolly_trellis.core.rigging.states import PointState


def beams_of(rig: Rig) -> tuple[str, ...]:
    """Keys of the beams and trusses that a rig's points are on, each once, in their order."""
    return tuple(dict.fromkeys(each.beam for each in rig.points if each.beam is not None))


def pull_on_n(rig: Rig, points: Iterable[PointState], beam: str) -> float:
    """What a rig pulls a beam with in the worst of all cases, N: the sum of its points there, as vectors.

    Source: statics.
    """
    here = [np.array(state.pulls_n) for point, state in zip(rig.points, points, strict=True) if point.beam == beam]
    if not here:
        return 0.0
    return float(np.linalg.norm(np.sum(here, axis=0), axis=1).max())


def beam_findings(rig: Rig, points: tuple[PointState, ...]) -> tuple[list[Finding], list[Missing]]:
    """Every beam against its rating, with what else hangs on it that day; what is missing."""
    known = {each.key: each for each in rig.beams}
    found, missing = [], []
    for key in beams_of(rig):
        load = known.get(key, BeamLoad(key=key, name=key))
        name = load.name
        if load.unknown:
            missing.append(facts.BEAM_OTHERS.missing(others=", ".join(load.unknown), beam=name))
        if load.rating_n is None:
            missing.append(facts.BEAM_RATING.missing((key,), beam=name))
            continue
        own = pull_on_n(rig, points, key)
        value, limit = pull(own + load.others_n), pull(load.rating_n)
        words = "{beam} bears {v} in all, {own} of it from this; it may carry {limit}."
        if load.others:
            words = "{beam} bears {v} in all, {own} from this and the rest from {others}; it may carry {limit}."
        reason = phrase(words, beam=name, v=value, own=pull(own), others=", ".join(load.others), limit=limit)
        found.append(finding(check="beam", case="heavy", value=value, limit=limit, sense="at most", reason=reason))
    return found, missing
