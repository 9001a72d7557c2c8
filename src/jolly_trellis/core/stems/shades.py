"""Shades of one variety: which stem has which colour, by where it stands."""

import math
from collections.abc import Sequence
from dataclasses import replace

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine, Shading
from jolly_trellis.core.quantities import count, phrase


def check_shades(line: RecipeLine, path: str) -> None:
    """Refuse shades that the line has not the stems for, or two of one name. Raises InvalidMeasure."""
    total = sum(each.count for each in line.shades)
    if total > line.count:
        raise InvalidMeasure(
            path=f"{path}.shades",
            message=phrase("Its shades are {n} stems, and the line has {all}.", n=count(total), all=count(line.count)),
            limit=phrase("Make the line {n}, or take some from a shade.", n=count(total)),
        )
    names = [each.name.strip().casefold() for each in line.shades]
    for index, name in enumerate(names):
        if name in names[:index]:
            raise InvalidMeasure(
                path=f"{path}.shades.{index}.name",
                message=phrase("“{name}” is there twice.", name=line.shades[index].name),
                limit=phrase("Name each shade once, with all its stems."),
            )


def shade_counts(line: RecipeLine) -> dict[str, int]:
    """Stems of each shade of a line by its name; those of none under an empty name, where there are any."""
    found = {each.name: each.count for each in line.shades}
    plain = line.count - sum(found.values())
    return found | ({"": plain} if plain > 0 else {})


def with_count(line: RecipeLine, number: int) -> RecipeLine:
    """A line with another number of stems, its shades with it as nearly as whole stems let them: largest remainder;
    and the same share of it that goes in later.

    Args:
        number: of stems, ≥ 1.
    """
    exact = [each.count * number / line.count for each in line.shades]
    wanted = round(sum(exact))
    counts = [int(each) for each in exact]
    order = sorted(range(len(exact)), key=lambda at: (counts[at] - exact[at], at))
    for at in order[: wanted - sum(counts)]:
        counts[at] += 1
    shades = tuple(replace(each, count=own) for each, own in zip(line.shades, counts, strict=True) if own)
    later = None if line.goes_in_n is None else min(max(round(line.goes_in_n * number / line.count), 1), number)
    return replace(line, count=number, shades=shades, goes_in_n=later)


def colours_at(
    line: RecipeLine, variety: Variety, x: Sequence[float], y: Sequence[float], stems: Sequence[float] | None = None
) -> list[str]:
    """The colour of each of some stems of a line, by where they are seen from above.

    Clusters lie side by side round the middle, a run of shades goes from left to right, on the far side each comes
    again; else they are mixed as evenly as they go. What has no shade has the variety's colour.

    Args:
        x, y: where each stem's head is, m. stems: how many each of them stands for; None: one.
    Source: by share of the stems, largest lack first.
    """
    if not line.shades:
        return [variety.colour] * len(x)
    weights = [1.0] * len(x) if stems is None else [float(each) for each in stems]
    shares = [(each.colour, each.count / line.count) for each in line.shades]
    plain = 1.0 - sum(share for _, share in shares)
    if plain > 1e-9:
        shares.append((variety.colour, plain))
    order = sorted(range(len(x)), key=lambda at: (_place(line.shading, x[at], y[at]), at))
    total, gone = sum(weights) or 1.0, 0.0
    given = [0.0] * len(shares)
    found = [variety.colour] * len(x)
    for at in order:
        gone += weights[at]
        if line.shading == "mixed":
            which = max(range(len(shares)), key=lambda each: (shares[each][1] * gone - given[each], -each))
        else:
            which = _reached(shares, (gone - weights[at] / 2) / total)
        given[which] += weights[at]
        found[at] = shares[which][0]
    return found


def _place(shading: Shading, x: float, y: float) -> float:
    """Where a stem comes in the order in which shades are given out."""
    if shading == "along":
        return round(x, 6)
    turn = round(math.atan2(y, x), 6)
    return turn % math.pi if shading == "far side" else turn


def _reached(shares: Sequence[tuple[str, float]], share: float) -> int:
    """The shade that holds a share of the way."""
    before = 0.0
    for which, (_, own) in enumerate(shares):
        before += own
        if share < before + 1e-9:
            return which
    return len(shares) - 1
