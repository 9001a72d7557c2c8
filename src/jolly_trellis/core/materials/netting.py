"""Hexagonal wire netting: cells, pitch, mass, and sizes given in length and in whole cells."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.provenance import ESTIMATE, Provenance
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.ranges import Key, Range, Text

Finish = Literal["coated", "galvanized", "bare"]

STEEL_DENSITY = measure(
    "Density of steel", "density", 7850.0, Provenance(kind="published", source="EN 10088-1 and any handbook")
)
COATING_FACTOR = measure("Coated netting against bare, typical", "ratio", 1.1)
COATING_FACTOR_HEAVY = measure("Coated netting, heavy case, on top", "ratio", 1.1)
TWIST_FACTOR = measure("Wire used up by a twist", "ratio", 1.1)
ROW_SHARE = math.sqrt(3) / 2


@dataclass(frozen=True, slots=True, kw_only=True)
class Netting:
    """A netting as sold, or as counted: `counted_cells` over `counted_length_m` overrides the label.

    `aperture_m` is the width between the two twisted sides; the twists run along the roll.
    """

    key: Key
    name: Annotated[str, Text(120, least=1)]
    aperture_m: Annotated[float, Range("length", 0.005, 0.1)]
    wire_m: Annotated[float, Range("length", 0.0004, 0.002)]
    finish: Finish
    roll_width_m: Annotated[float, Range("length", 0.05, 5)]
    roll_length_m: Annotated[float, Range("length", 0.1, 200)]
    price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    counted_cells: Annotated[int | None, Range("count", 1, 500)] = None
    counted_length_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    provenance: Provenance = ESTIMATE


@dataclass(frozen=True, slots=True, kw_only=True)
class NettingSheet:
    """A rectangle of netting to cut: its size, and the whole cells that give at least that size."""

    width_m: float
    length_m: float
    cells_across: int
    rows_along: int
    mass_kg: float


def pitch_across_m(netting: Netting) -> float:
    """Spacing of cells across the roll, from twist to twist, metres.

    Returns: the counted length per cell where cells were counted, else aperture plus two wires.
    Raises: InvalidMeasure: cells counted but not over a length, or the wire fills the cell.
    Source: geometry of the net; label and wire as sold.
    """
    if netting.counted_cells is None and netting.counted_length_m is None:
        return netting.aperture_m + 2 * netting.wire_m
    cells, counted_m = netting.counted_cells, netting.counted_length_m
    if not cells or not counted_m or cells < 1 or counted_m <= 0 or counted_m / cells <= 2 * netting.wire_m:
        raise InvalidMeasure(
            path="counted_cells",
            message=phrase("The counted cells do not make a net."),
            limit=phrase(
                "Give a whole number of cells and the length they cover; each is wider than {wires}.",
                wires=length(2 * netting.wire_m),
            ),
        )
    return counted_m / cells


def pitch_along_m(netting: Netting) -> float:
    """Spacing of rows along the roll, metres: √3/2 of the pitch across (regular hexagon)."""
    return ROW_SHARE * pitch_across_m(netting)


def aperture_m(netting: Netting) -> float:
    """Clear width of a cell: the pitch across less two wires, metres."""
    return pitch_across_m(netting) - 2 * netting.wire_m


def cell_area_m2(aperture: float) -> float:
    """Area of a regular hexagon `aperture` metres across flats: √3/2·a², m². Source: geometry."""
    return ROW_SHARE * aperture**2


def mass_per_area_kg_m2(netting: Netting, *, heavy: bool = False) -> float:
    """Mass of a square metre of netting.

    A regular hexagonal net has 2/a metres of edge per square metre; one edge in three is a twist of two
    wires, each a tenth longer for the twisting.

    Args:
        netting: aperture 5-100 mm, wire 0.4-2 mm.
        heavy: the heavy load case, which takes thicker coating.
    Returns: kg/m².
    Source: geometry of the hexagonal net; steel density from handbooks; coating and twist are estimates.
    """
    wire_length_per_area = 2 / aperture_m(netting) * (2 / 3 + 1 / 3 * 2 * TWIST_FACTOR.value)
    bare = wire_length_per_area * math.pi / 4 * netting.wire_m**2 * STEEL_DENSITY.value
    if netting.finish != "coated":
        return bare
    return bare * COATING_FACTOR.value * (COATING_FACTOR_HEAVY.value if heavy else 1.0)


def whole_cells(length_m: float, pitch_m: float) -> int:
    """Whole cells that give at least a length, never fewer than one. Source: definition."""
    return max(1, math.ceil(length_m / pitch_m - 1e-6))


def sheet(netting: Netting, *, width_m: float, length_m: float) -> NettingSheet:
    """A sheet to cut, its width across the roll and its length along the twists.

    Args:
        netting: what it is cut from.
        width_m: needed across the roll, m, > 0.
        length_m: needed along the roll, m, > 0.
    """
    return NettingSheet(
        width_m=width_m,
        length_m=length_m,
        cells_across=whole_cells(width_m, pitch_across_m(netting)),
        rows_along=whole_cells(length_m, pitch_along_m(netting)),
        mass_kg=width_m * length_m * mass_per_area_kg_m2(netting),
    )


def cell_capacity(aperture: float, stem_diameter_m: float) -> int:
    """Stems of one diameter that a cell takes: max(1, ⌊0.30·(a/d)²⌋).

    Args:
        aperture: clear width of the cell, m.
        stem_diameter_m: diameter of a stem, or of a clump taken as one stem, m, > 0.
    Source: estimate.
    """
    return max(1, math.floor(CELL_FILL.value * (aperture / stem_diameter_m) ** 2))


def passes(aperture: float, stem_diameter_m: float) -> bool:
    """Whether a stem can be pushed through a cell: a ≥ 1.1·d. Source: common practice, no source."""
    return aperture >= PASSING_FACTOR.value * stem_diameter_m


CELL_FILL = measure("Share of a cell that stems may fill", "ratio", 0.30, most=1.0)
PASSING_FACTOR = rule("Cell against the thickest stem it must pass", "ratio", 1.1)
