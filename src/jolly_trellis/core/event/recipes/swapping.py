"""One variety in the place of another in everything of an event; how many of each every piece takes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from jolly_trellis.core.event.job import Made, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine

_FILLED = 0.8


@dataclass(frozen=True, slots=True, kw_only=True)
class Takes:
    """How many stems of a variety one piece takes, all of its quantity."""

    part: int
    piece: str
    stems: int


@dataclass(frozen=True, slots=True, kw_only=True)
class VarietyUse:
    """One variety across an event: stems of it in all, and in each piece that has any."""

    variety: str
    name: str
    stems: int
    takes: tuple[Takes, ...]


def variety_uses(made: Made, varieties: Mapping[str, Variety]) -> tuple[VarietyUse, ...]:
    """Every variety of an event with what each piece takes of it, by name."""
    found: dict[str, dict[int, Takes]] = {}
    for work in made.works:
        for line in recipe_of(work):
            if line.shoot:
                continue
            own = found.setdefault(line.variety, {})
            before = own[work.id].stems if work.id in own else 0
            stems = before + line.count * quantity_of(work)
            own[work.id] = Takes(part=work.id, piece=name_of(work), stems=stems)
    uses = [
        VarietyUse(
            variety=key,
            name=varieties[key].name if key in varieties else key,
            stems=sum(each.stems for each in own.values()),
            takes=tuple(own.values()),
        )
        for key, own in found.items()
    ]
    return tuple(sorted(uses, key=lambda each: each.name))


def swapped(part: Part, old: str, new: str, varieties: Mapping[str, Variety]) -> Part:
    """A part with another variety in the place of one, wherever that is in it: beside it and in its spill too.

    Where nothing of it drinks any more its water is left out, and comes back where something does again.

    Args:
        varieties: by key; both are in it.
    """
    dry = new in varieties and varieties[new].lasting
    if hangs(part):
        return replace(part, recipe=_in(part.recipe, old, new, dry=dry))
    if not in_vessels(part):
        return part
    changed = part.with_recipes(lambda recipe: _in(recipe, old, new, dry=dry))
    hands = tuple(replace(each, variety=new) if each.variety == old else each for each in changed.hand_placed)
    changed = replace(changed, hand_placed=hands)
    return changed if changed == part else _watered(changed, varieties)


def _in(recipe: Sequence[RecipeLine], old: str, new: str, *, dry: bool) -> tuple[RecipeLine, ...]:
    """The recipe with the other variety; what keeps is let off its tubes and wraps."""
    found = []
    for line in recipe:
        if line.variety == old:
            found.append(replace(line, variety=new))
            if dry and line.water in ("tube", "wrap"):
                found[-1] = replace(found[-1], water="none", tube=None, wrap_ml=None)
        else:
            found.append(line)
    return tuple(found)


def _watered(piece: Piece, varieties: Mapping[str, Variety]) -> Piece:
    """A piece whose vessels have no water where all in them keeps, and have it where something drinks."""
    filled = piece.with_levels(lambda recipe, level_m, vessel: _level_m(recipe, level_m, vessel, varieties))
    return replace(filled, top_ups=filled.top_ups if filled.water_level_m else ())


def _level_m(recipe: Sequence[RecipeLine], level_m: float, vessel: Vessel, varieties: Mapping[str, Variety]) -> float:
    if recipe and all(line.variety in varieties and varieties[line.variety].lasting for line in recipe):
        return 0.0
    return round(_FILLED * vessel.inside_depth_m, 3) if recipe and level_m == 0 else level_m
