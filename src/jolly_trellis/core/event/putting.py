"""Which stems of a part go in where, and at which act: what tasks, purchases, packing and lists ask."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from jolly_trellis.core.acts.acts import ActKind, Acts
from jolly_trellis.core.acts.of_piece import acts_of, recipes_of
from jolly_trellis.core.books.time import Stage
from jolly_trellis.core.event.job import RigWork, Work
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.rigging.acts import acts_of_rig

# The stage of the run sheet at which stems go in, by the act.
STAGE_OF: dict[ActKind, Stage] = {
    "green": "green",
    "flower": "flower",
    "flower there": "on site",
    "flower after the move": "on site",
    "flower last": "on site",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Put:
    """Stems of one line that go in at one act: `there` at the place, not in the workshop. Its `line` counts them."""

    act: ActKind
    there: bool
    line: RecipeLine


def acts_of_work(work: Work, varieties: Mapping[str, Variety]) -> Acts:
    """Every act of a part, in order."""
    return acts_of_rig(work.rig, varieties) if isinstance(work, RigWork) else acts_of(work.piece, varieties)


def puts_of(work: Work, varieties: Mapping[str, Variety]) -> tuple[Put, ...]:
    """Every stem of one of a part, by the act at which it goes in, in the order of the recipe."""
    recipes = (work.rig.recipe,) if isinstance(work, RigWork) else recipes_of(work.piece)
    found: list[tuple[int, int, Put]] = []
    seen = set()
    for act in acts_of_work(work, varieties):
        if act.kind not in STAGE_OF:
            continue
        for lot in act.moves:
            if lot.what != "stems" or lot.line is None or lot in seen:
                continue
            seen.add(lot)
            line = recipes[lot.vessel][lot.line]
            part = line if lot.count == line.count else replace(line, count=lot.count, shades=())
            found.append((lot.vessel, lot.line, Put(act=act.kind, there=act.place != "workshop", line=part)))
    return tuple(put for _, _, put in sorted(found, key=lambda each: each[:2]))
