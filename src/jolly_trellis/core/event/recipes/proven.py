"""Proven recipes: stems that are known to do for a size, scaled to another by length, area, diameter or count."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Annotated

from jolly_trellis.core.event.recipes.recipes import ScaleBy, scale_factor, scaled
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.plan.recipe import Goes, RecipeLine, WaterSource
from jolly_trellis.core.ranges import Many, Range, Text


@dataclass(frozen=True, slots=True, kw_only=True)
class Proven:
    """A recipe with the size it is proven for: metres of a length or diameter, m² of an area, a number of pieces."""

    name: Annotated[str, Text(80, least=1)]
    by: ScaleBy
    size: Annotated[float, Range("ratio", 0, 1000, above=True)]
    recipe: Annotated[tuple[RecipeLine, ...], Many(40, least=1)]


def stems_for(proven: Proven, size: float, known: Collection[str] | None = None) -> tuple[RecipeLine, ...]:
    """The recipe for another size; varieties that the studio does not have are left out.

    Raises: InvalidMeasure: a size of nothing, or more stems of one line than a piece takes.
    """
    lines = tuple(line for line in proven.recipe if known is None or line.variety in known)
    return scaled(lines, scale_factor(proven.by, proven.size, size))


def _line(
    variety: str,
    count: int,
    role: Role,
    *,
    water: WaterSource = "vessel",
    clump: int = 1,
    goes: Goes | None = None,
    cut_m: float | None = None,
) -> RecipeLine:
    return RecipeLine(variety=variety, count=count, role=role, water=water, clump=clump, goes=goes, cut_m=cut_m)


def _dry(variety: str, count: int, role: Role, goes: Goes = "pushed in", cut_m: float | None = None) -> RecipeLine:
    return _line(variety, count, role, water="none", goes=goes, cut_m=cut_m)


def _shoot(variety: str, count: int, role: Role) -> RecipeLine:
    return RecipeLine(variety=variety, count=count, role=role, water="none", shoot=True)


def _proven(key: str, by: ScaleBy, size: float, *recipe: RecipeLine) -> tuple[str, Proven]:
    return key, Proven(name=key, by=by, size=size, recipe=recipe)


# What the program begins each start with, by its key; common practice, no source.
PROVEN: Mapping[str, Proven] = dict(
    (
        _proven(
            "low_bowl",
            "diameter",
            0.26,
            _line("salal", 14, "base"),
            _line("rose", 12, "focal"),
            _line("spray-rose", 9, "filler"),
            _line("waxflower", 5, "airy"),
        ),
        _proven(
            "dense_vase",
            "diameter",
            0.20,
            _line("pittosporum", 10, "base"),
            _line("rose", 20, "focal"),
            _line("spray-rose", 8, "filler"),
        ),
        _proven(
            "urn",
            "diameter",
            0.20,
            _line("salal", 14, "base"),
            _line("eucalyptus", 8, "margin"),
            _line("snapdragon", 8, "line"),
            _line("rose", 12, "focal"),
            _line("lisianthus", 8, "filler"),
        ),
        _proven(
            "tall_bowl",
            "diameter",
            0.22,
            _line("salal", 24, "base"),
            _line("rose", 14, "focal"),
            _line("lisianthus", 8, "filler"),
            _line("waxflower", 6, "airy"),
        ),
        _proven(
            "trough",
            "length",
            0.60,
            _line("salal", 28, "base"),
            _line("rose", 14, "focal"),
            _line("spray-rose", 10, "filler"),
            _line("veronica", 8, "line"),
        ),
        _proven(
            "cube",
            "diameter",
            0.14,
            _line("salal", 7, "base"),
            _line("rose", 9, "focal"),
            _line("spray-rose", 5, "filler"),
        ),
        _proven("cups", "count", 1, _line("ranunculus", 3, "focal"), _line("waxflower", 2, "airy")),
        _proven(
            "twig_bowl",
            "diameter",
            0.30,
            _line("salal", 8, "base"),
            _line("ranunculus", 14, "focal"),
            _line("narcissus-spray", 10, "filler"),
        ),
        _proven(
            "ledge",
            "length",
            0.40,
            _line("salal", 20, "base"),
            _line("rose", 8, "focal"),
            _line("spray-rose", 6, "filler"),
        ),
        _proven(
            "hand_spiral",
            "diameter",
            0.20,
            _line("ruscus", 6, "base"),
            _line("ranunculus", 13, "focal"),
            _line("waxflower", 5, "airy"),
        ),
        _proven(
            "star_lattice",
            "diameter",
            0.30,
            _line("salal", 12, "base"),
            _line("rose", 11, "focal"),
            _line("spray-rose", 8, "filler"),
            _line("astilbe", 5, "airy"),
        ),
        _proven(
            "one_sided",
            "diameter",
            0.30,
            _line("salal", 14, "base"),
            _line("rose", 9, "focal"),
            _line("spray-rose", 9, "filler"),
            _line("astilbe", 4, "airy"),
        ),
        _proven(
            "buttonhole",
            "count",
            1,
            _line("ranunculus", 1, "focal"),
            _shoot("waxflower", 1, "filler"),
            _shoot("pittosporum", 1, "base"),
        ),
        _proven(
            "corsage",
            "count",
            1,
            _shoot("spray-rose", 3, "focal"),
            _shoot("waxflower", 4, "filler"),
            _shoot("pittosporum", 3, "base"),
        ),
        _proven(
            "crown",
            "diameter",
            0.18,
            _shoot("spray-rose", 7, "focal"),
            _shoot("waxflower", 12, "filler"),
            _shoot("pittosporum", 10, "base"),
        ),
        _proven(
            "arch_section",
            "length",
            0.80,
            _dry("gypsophila", 50, "base", cut_m=0.23),
            _dry("carnation", 11, "filler", cut_m=0.2),
            _dry("rose", 8, "focal", cut_m=0.2),
        ),
        _proven(
            "garland", "length", 3.0, _dry("ivy", 60, "base", "woven", 0.4), _dry("ruscus", 34, "filler", "woven", 0.3)
        ),
        _proven(
            "runner",
            "length",
            2.0,
            _dry("ruscus", 36, "base", "woven", 0.3),
            _dry("eucalyptus", 16, "filler", "woven", 0.3),
            _dry("carnation", 12, "focal", cut_m=0.12),
        ),
        _proven(
            "drift",
            "length",
            1.2,
            _dry("leatherleaf", 56, "base", cut_m=0.2),
            _dry("gypsophila", 24, "filler", cut_m=0.35),
            _dry("carnation", 16, "focal", cut_m=0.3),
            _dry("solidago", 10, "line", cut_m=0.45),
        ),
        _proven(
            "panel",
            "area",
            1.21,
            _dry("gypsophila", 120, "base", cut_m=0.3),
            _dry("ruscus", 60, "filler", "woven", 0.3),
            _line("carnation", 40, "focal", water="none", goes="hung"),
        ),
        _proven(
            "ring",
            "diameter",
            0.9,
            _dry("ruscus", 80, "base", "woven", 0.3),
            _dry("gypsophila", 100, "filler", "hung"),
        ),
        _proven(
            "wall_roll",
            "length",
            2.0,
            _dry("ruscus", 48, "base", cut_m=0.23),
            _dry("eucalyptus", 20, "filler", cut_m=0.23),
            _dry("carnation", 24, "focal", cut_m=0.2),
        ),
        _proven(
            "column",
            "length",
            1.8,
            _dry("ivy", 40, "base", "woven", 0.4),
            _dry("ruscus", 52, "filler", cut_m=0.23),
            _dry("carnation", 20, "focal", cut_m=0.2),
        ),
        _proven("cloud", "area", 1.28, _line("gypsophila", 220, "filler", water="none", clump=3, goes="hung")),
        _proven(
            "cascade",
            "length",
            2.6,
            _dry("ruscus", 180, "base", cut_m=0.23),
            _line("rose", 30, "focal", water="wrap", clump=5, goes="pushed in", cut_m=0.25),
            _line("delphinium", 20, "line", water="wrap", clump=5, goes="pushed in", cut_m=0.4),
        ),
    )
)
