"""Every constant of the method with its provenance, gathered for the page that lists them.

Constants are found where they are declared: a new one takes no other file. A topic takes the modules whose path within
the core begins as it says, the longest beginning first; what none takes stands under `_FURTHER`.
"""

from collections import defaultdict
from collections.abc import Iterator, Mapping
from importlib import import_module
from pkgutil import walk_packages
from types import ModuleType

from jolly_trellis import core
from jolly_trellis.core.books.figures import Constant, FigureBook, book_of

_ROOT = f"{core.__name__}."
_FURTHER = "Further mechanics"
_TOPICS: Mapping[str, tuple[str, ...]] = {
    "Vessels, water and stacks": ("materials.vessels", "placement.water_table", "building.stacks", "building.extras"),
    "Netting and mechanics of netting": (
        "materials.netting",
        "mechanics.fit",
        "mechanics.wire",
        "mechanics.rolls",
        "mechanics.stacked_pair",
        "mechanics.string_ball",
        "mechanics.corner_pillow",
    ),
    "Frogs, rings, fills, lattices, blocks, cups": (
        "mechanics.pin_frog",
        "mechanics.frog_with_wire",
        "mechanics.rings",
        "mechanics.fills",
        "mechanics.lattices",
        "mechanics.blocks",
        "mechanics.raised_cups",
    ),
    "Stems and where they go": ("materials.stems", "placement", "stems"),
    "Making and choosing": (
        "making",
        "building.build",
        "judging.choose",
        "checks.making",
        "checks.sides",
    ),
    "Hold": ("checks.hold",),
    "Stand": ("building.footing", "books.bodies", "checks.stand"),
    "Drink": (
        "books.water",
        "books.waiting",
        "checks.drink",
        "stems.dry_life",
        "stems.tubes",
        "stems.cups",
        "materials.air",
    ),
    "Travel": ("checks.travel",),
    "Hang": ("checks.hang", "building.spills"),
    "Hide, See and match": ("checks.hide", "checks.see", "checks.sight", "checks.matching"),
    "Lift": ("checks.lift",),
    "Bouquets": (
        "mechanics.bouquet",
        "mechanics.handful",
        "mechanics.bound",
        "mechanics.worn",
        "checks.hide_carried",
        "checks.worn",
    ),
    "Armatures and what covers them": (
        "rigging.armatures",
        "rigging.drops",
        "rigging.coverage",
        "rigging.loads",
    ),
    "Hung work": ("rigging",),
    "Mounted work": ("rigging.mounts",),
    "The roll": ("event.cutting",),
    "The days and the day": ("event.tasks", "event.sheet", "event.day"),
    "Buying, packing, recipes, money": ("event",),
}
# They declare nothing, and loading them loads OR-Tools: half a second of every start.
_SEARCHES = ("event.searching", "event.sheet.solver", "event.cutting.cut_")


def all_constants() -> tuple[tuple[str, tuple[Constant, ...]], ...]:
    """(topic, constants) for every topic, in the order of modules and, within one, as declared."""
    found: dict[str, dict[str, Constant]] = defaultdict(dict)
    for module in _modules():
        found[_topic_of(module)] |= {each.key: each for each in _declared_in(module)}
    return tuple((topic, tuple(found[topic].values())) for topic in (*_TOPICS, _FURTHER) if found[topic])


def _modules() -> Iterator[ModuleType]:
    for each in walk_packages(core.__path__, _ROOT):
        if not each.name.removeprefix(_ROOT).startswith((*_SEARCHES, "method")):
            yield import_module(each.name)


def _topic_of(module: ModuleType) -> str:
    path = module.__name__.removeprefix(_ROOT)
    fitting = [(len(begin), topic) for topic, begins in _TOPICS.items() for begin in begins if path.startswith(begin)]
    return max(fitting)[1] if fitting else _FURTHER


def _declared_in(module: ModuleType) -> Iterator[Constant]:
    for value in vars(module).values():
        yield from (each for each in _flatten(value) if each.declared_in == module.__name__)


def _flatten(value: object) -> Iterator[Constant]:
    if isinstance(value, Constant):
        yield value
    elif isinstance(value, dict):
        for each in value.values():
            yield from _flatten(each)
    elif isinstance(value, tuple):
        for each in value:
            yield from _flatten(each)


CONSTANTS: Mapping[str, Constant] = {each.key: each for _, listed in all_constants() for each in listed}
PROGRAM: FigureBook = book_of(CONSTANTS, {})
