"""Every constant of the method with its provenance, gathered for the page that lists them."""

from types import ModuleType

from jolly_trellis.core import air, drinking, making, netting, stems, vessels, water
from jolly_trellis.core.checks import drink, hold, stand
from jolly_trellis.core.mechanics import folded_cushion
from jolly_trellis.core.placement import dome, place, seats, trace
from jolly_trellis.core.provenance import Figure

TOPICS: tuple[tuple[str, tuple[ModuleType, ...]], ...] = (
    ("Vessels and water", (vessels, water)),
    ("Netting and the folded cushion", (netting, folded_cushion)),
    ("Stems and where they go", (stems, dome, place, seats, trace, making)),
    ("Hold", (hold,)),
    ("Stand", (stand,)),
    ("Drink", (drink, drinking, air)),
)


def all_figures() -> tuple[tuple[str, tuple[Figure, ...]], ...]:
    """(topic, figures) for every topic; a figure imported by another module is listed once, where first met."""
    seen: set[int] = set()
    topics = []
    for topic, modules in TOPICS:
        found = [figure for module in modules for figure in _figures_in(module) if id(figure) not in seen]
        unique = list({id(each): each for each in found}.values())
        seen |= {id(each) for each in unique}
        topics.append((topic, tuple(unique)))
    return tuple(topics)


def _figures_in(module: ModuleType) -> list[Figure]:
    return [figure for value in vars(module).values() for figure in _flatten(value)]


def _flatten(value: object) -> list[Figure]:
    if isinstance(value, Figure):
        return [value]
    if isinstance(value, dict):
        return [figure for each in value.values() for figure in _flatten(each)]
    if isinstance(value, tuple):
        return [figure for each in value for figure in _flatten(each)]
    return []
