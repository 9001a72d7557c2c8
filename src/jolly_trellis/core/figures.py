"""Every constant of the method with its provenance, gathered for the page that lists them."""

from types import ModuleType

from jolly_trellis.core import air, build, choose, drinking, making, netting, sight, stacks, stems, vessels, water
from jolly_trellis.core.checks import (
    balance,
    drink,
    drink_own,
    hide,
    hold,
    lift,
    see,
    stand,
    stand_stack,
    stand_wind,
    travel,
)
from jolly_trellis.core.mechanics import (
    blocks,
    fills,
    fit,
    lattices,
    pin_frog,
    raised_cups,
    rings,
    rolls,
    stacked_pair,
    string_ball,
    wire,
)
from jolly_trellis.core.placement import (
    aim,
    choosing,
    dome,
    fan,
    garden,
    horizontal,
    place,
    seats,
    sweep,
    trace,
    turning,
)
from jolly_trellis.core.provenance import Figure

TOPICS: tuple[tuple[str, tuple[ModuleType, ...]], ...] = (
    ("Vessels, water and stacks", (vessels, water, stacks)),
    ("Netting and mechanics of netting", (netting, fit, wire, rolls, stacked_pair, string_ball)),
    ("Frogs, rings, fills, lattices, blocks, cups", (pin_frog, rings, fills, lattices, blocks, raised_cups)),
    (
        "Stems and where they go",
        (
            stems,
            dome,
            fan,
            sweep,
            horizontal,
            garden,
            aim,
            choosing,
            turning,
            place,
            seats,
            trace,
            making,
            build,
            choose,
        ),
    ),
    ("Making and choosing", (making, build, choose)),
    ("Hold", (hold,)),
    ("Stand", (stand, balance, stand_stack, stand_wind)),
    ("Drink", (drink, drinking, drink_own, air)),
    ("Travel", (travel,)),
    ("Hide and See", (sight, hide, see)),
    ("Lift", (lift,)),
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
