"""One variety in the place of another in everything of an event; how many of each every piece takes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from jolly_trellis.core.event.job import Made, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.piece import Piece, RecipeLine
from jolly_trellis.core.plan.standing import Standing

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
    changed = replace(part, recipe=_in(part.recipe, old, new))
    if not isinstance(changed, Piece):
        return changed
    hands = tuple(replace(each, variety=new) if each.variety == old else each for each in changed.hand_placed)
    changed = replace(changed, hand_placed=hands)
    if isinstance(changed, Standing):
        beside = tuple(replace(each, recipe=_in(each.recipe, old, new)) for each in changed.companions)
        spill = changed.spill
        changed = replace(
            changed,
            companions=beside,
            spill=None if spill is None else replace(spill, recipe=_in(spill.recipe, old, new)),
        )
    return changed if changed == part else _watered(changed, varieties)


def _in(recipe: Sequence[RecipeLine], old: str, new: str) -> tuple[RecipeLine, ...]:
    return tuple(replace(line, variety=new) if line.variety == old else line for line in recipe)


def _watered(piece: Piece, varieties: Mapping[str, Variety]) -> Piece:
    """A piece without water where all in it keeps, and with it where something drinks and there is none."""
    recipes = (piece.recipe, *(each.recipe for each in piece.companions))
    keys = {line.variety for recipe in recipes for line in recipe}
    drinks = any(key not in varieties or not varieties[key].lasting for key in keys)
    if not drinks:
        return replace(piece, water_level_m=0.0, top_ups=())
    if piece.water_level_m == 0:
        return replace(piece, water_level_m=round(_FILLED * piece.vessel.inside_depth_m, 3))
    return piece
