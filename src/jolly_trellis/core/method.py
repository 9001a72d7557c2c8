"""Every constant of the method with its provenance, gathered for the page that lists them."""

from collections.abc import Mapping
from types import ModuleType

from jolly_trellis.core.books import bodies, waiting, water
from jolly_trellis.core.books.figures import Constant, FigureBook, book_of
from jolly_trellis.core.building import build, extras, footing, spills, stacks
from jolly_trellis.core.checks import (
    drink,
    drink_carried,
    drink_own,
    hang,
    hide,
    hide_carried,
    hold,
    hold_bound,
    hold_swing,
    lift,
    lift_hand,
    making_order,
    making_phases,
    matching,
    see,
    sides,
    sight,
    stand,
    stand_ledge,
    stand_stack,
    stand_wind,
    travel,
    worn,
)
from jolly_trellis.core.event import (
    breaches,
    buckets,
    cost,
    job,
    lasting_care,
    packing,
    people,
    purchases,
    recipes,
    reservations,
    roll,
    roll_problems,
    shared_needs,
    task,
    tasks_before,
    tasks_hires,
    tasks_there,
    water_rounds,
    wear,
)
from jolly_trellis.core.judging import choose
from jolly_trellis.core.making import pull_list
from jolly_trellis.core.making import steps as making
from jolly_trellis.core.materials import air, netting, stems, vessels
from jolly_trellis.core.mechanics import (
    blocks,
    bound,
    bouquet,
    corner_pillow,
    fills,
    fit,
    frog_with_wire,
    handful,
    lattices,
    pin_frog,
    raised_cups,
    rings,
    rolls,
    sizing,
    stacked_pair,
    string_ball,
    wire,
)
from jolly_trellis.core.mechanics import worn as wired
from jolly_trellis.core.placement import (
    aim,
    choosing,
    dealing,
    form_table,
    place,
    seats,
    trace,
    turning,
    water_table,
)
from jolly_trellis.core.rigging import (
    armatures,
    assess,
    clearances,
    coverage,
    drops,
    findings,
    layout,
    lines,
    loads,
    mounts,
    raising,
    resting,
    snip,
    states,
)
from jolly_trellis.core.rigging import pictures as rig_pictures
from jolly_trellis.core.stems import cups, dry_life, tubes

_NAMED: tuple[tuple[str, tuple[ModuleType, ...]], ...] = (
    ("Vessels, water and stacks", (vessels, water_table, stacks, extras)),
    ("Netting and mechanics of netting", (netting, fit, wire, rolls, stacked_pair, string_ball, corner_pillow)),
    (
        "Frogs, rings, fills, lattices, blocks, cups",
        (pin_frog, frog_with_wire, rings, fills, lattices, blocks, raised_cups),
    ),
    (
        "Stems and where they go",
        (
            stems,
            *form_table.MODULES,
            aim,
            choosing,
            dealing,
            turning,
            place,
            seats,
            trace,
            making,
            build,
            choose,
        ),
    ),
    ("Making and choosing", (making, build, choose, making_order, making_phases, pull_list, sides)),
    ("Hold", (hold_swing, hold, hold_bound)),
    ("Stand", (footing, stand, bodies, stand_stack, stand_ledge, stand_wind)),
    ("Drink", (drink, water, waiting, drink_own, drink_carried, dry_life, tubes, cups, air)),
    ("Travel", (travel,)),
    ("Hang", (hang, spills)),
    ("Hide, See and match", (sight, hide, see, matching)),
    ("Lift", (lift, lift_hand)),
    ("Bouquets", (bouquet, handful, bound, hide_carried, wired, worn)),
    ("Armatures and what covers them", (armatures, drops, coverage, loads)),
    (
        "Hung work",
        (lines, layout, rig_pictures, resting, states, findings, assess, snip, clearances, raising),
    ),
    ("Mounted work", (mounts,)),
    ("The roll", (roll_problems, roll)),
    (
        "The days and the day",
        (purchases, task, tasks_before, tasks_hires, tasks_there, people, breaches, buckets, water_rounds),
    ),
    ("Buying, packing, recipes, money", (job, packing, shared_needs, recipes, lasting_care, reservations, wear, cost)),
)

_FURTHER = tuple(each for each in sizing.MODULES if not any(each in modules for _, modules in _NAMED))
TOPICS = (*_NAMED, ("Further mechanics", _FURTHER))


def all_constants() -> tuple[tuple[str, tuple[Constant, ...]], ...]:
    """(topic, constants) for every topic; one imported by another module is listed once, where first met."""
    seen: set[str] = set()
    topics = []
    for topic, modules in TOPICS:
        found = {each.key: each for module in modules for each in _constants_in(module) if each.key not in seen}
        seen |= found.keys()
        if found:
            topics.append((topic, tuple(found.values())))
    return tuple(topics)


def _constants_in(module: ModuleType) -> list[Constant]:
    return [constant for value in vars(module).values() for constant in _flatten(value)]


def _flatten(value: object) -> list[Constant]:
    if isinstance(value, Constant):
        return [value]
    if isinstance(value, dict):
        return [constant for each in value.values() for constant in _flatten(each)]
    if isinstance(value, tuple):
        return [constant for each in value for constant in _flatten(each)]
    return []


CONSTANTS: Mapping[str, Constant] = {each.key: each for _, listed in all_constants() for each in listed}
PROGRAM: FigureBook = book_of(CONSTANTS, {})
