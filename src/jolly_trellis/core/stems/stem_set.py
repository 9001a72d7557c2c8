"""The stems of a recipe as columns, in the order they are pushed in."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import numpy.typing as npt

from jolly_trellis.core import ranges
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.materials.stems import (
    BENDING_STIFFNESS,
    BRANCH_CENTRE,
    Role,
    Variety,
    clump_diameter_m,
    head_mass_kg,
    heavy_factor,
    linear_density_kg_m,
    shoot_of,
)
from jolly_trellis.core.plan.passage import GOES_IN, GoesIn
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import count, phrase
from jolly_trellis.core.stems.cups import ROD_MOST, ROD_THICK, rod_for_m
from jolly_trellis.core.stems.shades import check_shades, colours_at
from jolly_trellis.core.stems.tubes import own_water_kg

MOST_STEMS = 400
USUAL_DIAMETER_M = 0.006
ROLE_ORDER: tuple[Role, ...] = ("margin", "base", "focal", "line", "filler", "airy")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class StemSet:
    """One row for each stem or clump pushed in.

    `lines` holds (recipe line, variety, first row, rows); `flower` is 0 for foliage, whose head is loose
    leaves that give way; `from_vessel` tells stems that stand in the vessel rather than in a tube or a wrap, `drinks`
    those of them that drink there;
    `goes_in` when a row does, by its place in `passage.GOES_IN`; `longest_m` is the longest that a row is sold. Rows
    `in_cup` stand in a spike cup, whose rod is what goes into the mechanic.
    """

    lines: tuple[tuple[RecipeLine, Variety, int, int], ...]
    line_index: tuple[int, ...]
    stems_in_row: Array
    diameter_m: Array
    head_radius_m: Array
    flower: Array
    round_head: Array
    head_mass_kg: Array
    linear_density_kg_m: Array
    stem_centre_share: Array
    stiffness_n_m2: Array
    heavy_factor: Array
    uptake_ml_h: Array
    longest_m: Array
    woody: Flags
    from_vessel: Flags
    drinks: Flags
    goes_in: npt.NDArray[np.intp]
    in_cup: Flags

    def __len__(self) -> int:
        return len(self.diameter_m)

    def present(self, groups: frozenset[GoesIn]) -> Flags:
        """Which rows are there where some of the groups that go in together are, shape (n,)."""
        there = np.array([each in groups for each in GOES_IN], dtype=np.bool_)
        return np.asarray(there[self.goes_in], dtype=np.bool_)

    def colours(self, x_m: Array, y_m: Array) -> list[str]:
        """The colour of each row by where its head is seen from above, m: its shade, or its variety's own."""
        found = [""] * len(self)
        for line, variety, first, rows in self.lines:
            own = slice(first, first + rows)
            found[own] = colours_at(
                line, variety, x_m[own].tolist(), y_m[own].tolist(), self.stems_in_row[own].tolist()
            )
        return found

    @property
    def mean_diameter_m(self) -> float:
        """Mean diameter of a stem, as a clump of one, m; the usual one where there is none."""
        number = float(self.stems_in_row.sum())
        thick = np.array([self.lines[at][1].stem_diameter_m for at in self.line_index])
        return float((thick * self.stems_in_row).sum()) / number if number else USUAL_DIAMETER_M

    @property
    def round_reach_m(self) -> Array:
        """How far a head reaches past its tip: its radius where the tip is the middle of a round head."""
        return self.head_radius_m * self.round_head

    def variety_of(self, row: int) -> Variety:
        """The variety of a row."""
        return self.lines[self.line_index[row]][1]

    def role_of(self, row: int) -> Role:
        """The role of a row."""
        return self.lines[self.line_index[row]][0].role

    def mass_kg(self, cut_length_m: Array) -> Array:
        """Mass of each row at its cut length, kg."""
        return self.head_mass_kg + self.linear_density_kg_m * cut_length_m

    def own_water_kg(self, rods_m: Array, *, heavy: bool) -> Array:
        """What the tube, wet wrap or cup of each row weighs with its water, kg; 0 where it drinks from the vessel.

        Args:
            rods_m: under the cup of each row, m, shape (n,).
        """
        rows = zip(self.line_index, self.stems_in_row.tolist(), rods_m.tolist(), strict=True)
        return np.array(
            [own_water_kg(self.lines[at][0], int(stems), heavy=heavy, rod_m=rod) for at, stems, rod in rows]
        )

    @property
    def reach_m(self) -> Array:
        """How far each row reaches at the most, m: as long as it is sold, and the rod of its cup."""
        return self.longest_m + np.where(self.in_cup, [self._rod_m(at) for at in self.line_index], 0.0)

    def _rod_m(self, at: int) -> float:
        said = self.lines[at][0].rod_m
        return ROD_MOST.value if said is None else said

    def rods_m(self, whole_m: Array) -> Array:
        """The rod under each row's cup, m, 0 for a row in none.

        Args:
            whole_m: from the foot to the tip of each row, rod and all, m.
        """
        found = np.zeros(len(self))
        for row in np.flatnonzero(self.in_cup).tolist():
            line, sold = self.lines[self.line_index[row]][0], float(self.longest_m[row])
            found[row] = min(rod_for_m(line, float(whole_m[row]), sold), 0.95 * float(whole_m[row]))
        return found

    def centre_from_foot_m(self, cut_length_m: Array) -> Array:
        """Distance from the cut end to the centre of mass of each row, metres (`stems.centre_from_foot_m`)."""
        stem = self.linear_density_kg_m * cut_length_m
        total = self.head_mass_kg + stem
        return (self.head_mass_kg + stem * self.stem_centre_share) * cut_length_m / total


def variety_of_line(varieties: Mapping[str, Variety], line: RecipeLine, *, path: str) -> Variety:
    """What a line is made of: its variety, or a side shoot of it. Raises UnknownName."""
    found = find_variety(varieties, line.variety, path=path)
    return shoot_of(found) if line.shoot else found


def find_variety(varieties: Mapping[str, Variety], key: str, *, path: str) -> Variety:
    """The studio's variety of a key.

    Raises: UnknownName: there is none; the sentence offers the nearest one.
    """
    found = varieties.get(key)
    if found is None:
        near = _nearest(key, list(varieties))
        raise UnknownName(
            path=path,
            message=phrase("No variety in the stores is called “{key}”.", key=key),
            limit=phrase("The nearest is “{near}”." if near else "Choose one from the stores.", near=near or ""),
        )
    _check(found)
    return found


@lru_cache(maxsize=1024)
def _check(variety: Variety) -> None:
    """Refuse a variety that is out of range; one that passed is not looked at again. Raises InvalidMeasure."""
    ranges.check(variety, f"varieties.{variety.key}")


@remembered
def expand(recipe: tuple[RecipeLine, ...], varieties: Mapping[str, Variety]) -> StemSet:
    """Lay a recipe out as rows, margins first, then by role in the order of making.

    Args:
        varieties: those of the studio, by key.
    Raises:
        InvalidMeasure: a count or clump under 1, or more than 400 stems in all.
        UnknownName: a variety the studio does not have.
    """
    for index, line in enumerate(recipe):
        for name, number in (("count", line.count), ("clump", line.clump)):
            if number < 1:
                raise InvalidMeasure(
                    path=f"recipe.{index}.{name}",
                    message=phrase("A {name} of {n} plans nothing.", name=name, n=count(number)),
                    limit=phrase("Give 1 or more, or take the line out."),
                )
        check_shades(line, f"recipe.{index}")
    total = sum(line.count for line in recipe)
    if total > MOST_STEMS:
        biggest = max(range(len(recipe)), key=lambda index: recipe[index].count)
        raise InvalidMeasure(
            path=f"recipe.{biggest}.count",
            message=phrase("The recipe has {n} stems.", n=count(total)),
            limit=phrase("One piece takes at most {most}.", most=count(MOST_STEMS)),
        )
    order = laid_out_lines(recipe)
    lines: list[tuple[RecipeLine, Variety, int, int]] = []
    row_lines: list[int] = []
    sizes: list[int] = []
    for place, index in enumerate(order):
        line = recipe[index]
        variety = variety_of_line(varieties, line, path=f"recipe.{index}.variety")
        full, rest = divmod(line.count, line.clump)
        rows = [line.clump] * full + ([rest] if rest else [])
        lines.append((line, variety, len(sizes), len(rows)))
        row_lines += [place] * len(rows)
        sizes += rows
    return _columns(tuple(lines), tuple(row_lines), np.array(sizes, dtype=np.float64))


def laid_out_lines(recipe: tuple[RecipeLine, ...]) -> list[int]:
    """Which line of a recipe comes where among the rows: by role in the order of making, then as written."""
    return sorted(range(len(recipe)), key=lambda index: ROLE_ORDER.index(recipe[index].role))


def _columns(
    lines: tuple[tuple[RecipeLine, Variety, int, int], ...], row_lines: tuple[int, ...], sizes: Array
) -> StemSet:
    varieties = [lines[index][1] for index in row_lines]
    in_cup = np.array([lines[index][0].water == "cup" for index in row_lines], dtype=np.bool_)

    def column(values: list[float]) -> Array:
        return np.array(values, dtype=np.float64)

    return StemSet(
        lines=lines,
        line_index=row_lines,
        stems_in_row=sizes,
        diameter_m=np.where(
            in_cup,
            ROD_THICK.value,
            column([clump_diameter_m(v.stem_diameter_m, int(n)) for v, n in zip(varieties, sizes, strict=True)]),
        ),
        head_radius_m=column([v.head_diameter_m / 2 * math.sqrt(v.heads) for v in varieties]) * np.sqrt(sizes),
        flower=column([float(v.form != "leaf") for v in varieties]),
        round_head=column([float(v.form in ("disc", "ball", "spray")) for v in varieties]),
        head_mass_kg=column([head_mass_kg(v) for v in varieties]) * sizes,
        linear_density_kg_m=column([linear_density_kg_m(v) for v in varieties]) * sizes,
        stem_centre_share=column([BRANCH_CENTRE.value if v.branch else 0.5 for v in varieties]),
        stiffness_n_m2=column([BENDING_STIFFNESS[v.stiffness].value for v in varieties]) * sizes,
        heavy_factor=column([heavy_factor(v) for v in varieties]),
        uptake_ml_h=column([v.uptake_ml_h for v in varieties]) * sizes,
        longest_m=column([max(v.sold_lengths_m) for v in varieties]),
        woody=np.array([v.stiffness == "woody" for v in varieties], dtype=np.bool_),
        from_vessel=np.array([lines[index][0].water == "vessel" for index in row_lines], dtype=np.bool_),
        drinks=np.array(
            [lines[index][0].water == "vessel" and not lines[index][1].lasting for index in row_lines], dtype=np.bool_
        ),
        goes_in=_goes_in(lines),
        in_cup=in_cup,
    )


def _goes_in(lines: Sequence[tuple[RecipeLine, Variety, int, int]]) -> npt.NDArray[np.intp]:
    """When each row goes in, by its place in `GOES_IN`; of a line that is shared out, its last rows go in later."""
    found = []
    for line, _, _, rows in lines:
        later = -(-line.going_in(line.goes_in) // line.clump)
        when = GOES_IN.index(line.goes_in)
        found.append(np.where(np.arange(rows) < rows - later, 0, when))
    return np.concatenate(found).astype(np.intp) if found else np.zeros(0, dtype=np.intp)


def _nearest(word: str, known: list[str]) -> str | None:
    """The known word nearest to a misspelt one, if any is near at all."""
    from difflib import get_close_matches

    found = get_close_matches(word.lower(), known, n=1, cutoff=0.5)
    return found[0] if found else None
