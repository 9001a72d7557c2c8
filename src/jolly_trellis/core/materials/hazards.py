"""What of a flower can hurt: each hazard by itself, in words, with what to do and who to ask.

No flag never means harmless: it means that nobody has said anything.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal, get_args

Hazard = Literal[
    "sap",
    "allergen",
    "light",
    "poison",
    "pets",
    "pollen",
    "thorns",
    "scent",
    "invasive",
]
HAZARDS: tuple[Hazard, ...] = get_args(Hazard)


@dataclass(frozen=True, slots=True, kw_only=True)
class About:
    """One hazard: what it is in words, and what to do about it. Source: from memory; a poisons authority decides."""

    hazard: Hazard
    words: str
    do: str


ABOUT: Mapping[Hazard, About] = {
    each.hazard: each
    for each in (
        About(hazard="sap", words="sap irritates skin", do="gloves and sleeves, wash it off"),
        About(hazard="allergen", words="skin allergen", do="gloves; whoever has reacted before leaves it to others"),
        About(
            hazard="light",
            words="sap makes skin burn in the sun",
            do="gloves and long sleeves, wash it off before going out",
        ),
        About(
            hazard="poison",
            words="poisonous if eaten",
            do="away from food, cakes and children; ask a poisons authority at once",
        ),
        About(
            hazard="pets",
            words="poisonous to cats or dogs",
            do="not where animals live or visit; ask the client, and a vet at once",
        ),
        About(hazard="pollen", words="pollen stains and sets off hay fever", do="take the anthers off as it opens"),
        About(hazard="thorns", words="thorns", do="gloves, take the thorns off"),
        About(hazard="scent", words="strong scent", do="not beside food; ask whoever minds it"),
        About(hazard="invasive", words="spreads where it is thrown", do="bin it: no compost, no ditch"),
    )
}
HANDS: frozenset[Hazard] = frozenset({"sap", "allergen", "light", "thorns"})
EATEN: frozenset[Hazard] = frozenset({"poison", "pets"})


def of_all(hazards: Iterable[tuple[str, tuple[Hazard, ...]]]) -> dict[Hazard, tuple[str, ...]]:
    """Names of varieties by hazard, in the order of the hazards; those that none has are not in it.

    Args:
        hazards: (name of a variety, its hazards).
    """
    named = tuple(hazards)
    found = {each: tuple(sorted({name for name, own in named if each in own})) for each in HAZARDS}
    return {each: names for each, names in found.items() if names}
