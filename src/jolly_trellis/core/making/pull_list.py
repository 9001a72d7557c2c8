"""The pull list: exactly the stems of the recipe, in order of use, cut and prepared, and what bunches leave over."""

import math
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.water import needed_hours
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.spills import lines_of
from jolly_trellis.core.checks.making_order import Order, Work
from jolly_trellis.core.making.steps import CUT_STEP
from jolly_trellis.core.materials.hazards import ABOUT, HANDS
from jolly_trellis.core.materials.stems import CARE, Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, duration, phrase
from jolly_trellis.core.stems.shades import shade_counts

FOLD_WITHIN = rule("Petals are folded back only for a show of up to", "duration", 6.0, COMMON_PRACTICE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """So many stems cut to one length, metres."""

    count: int
    cut_length_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PullLine:
    """One line of the recipe to fetch: how many, cut how long, what is done to each, what is saved and what is left.

    `shades` has how many of each, those of none under an empty name; empty: it has no shades. `first_step` is the step
    of the making order its first stem goes in at, None for a spill's. `bunches` are bought, `left_over` stems of them
    stay; `side_shoots` can be saved for small work.
    """

    vessel: int
    variety: str
    name: str
    colour: str
    count: int
    cuts: tuple[Cut, ...]
    preparation: tuple[Phrase, ...]
    side_shoots: int
    bunch_size: int
    bunches: int
    left_over: int
    first_step: int | None
    shades: tuple[tuple[str, int], ...] = ()


def pull_list(build: Build, work: Work, order: Order) -> tuple[PullLine, ...]:
    """Every recipe line of a composition in the order its first stem goes in; a spill's lines come last.

    Bunches are counted over all lines of a variety; what is left over stands with its first line.
    """
    first: dict[tuple[int, int], int] = {}
    for step, row in enumerate(order.tolist()):
        ref = work.refs[row]
        first.setdefault((ref.vessel, ref.line), step)
    lines = []
    needed = _needed(build)
    told: set[str] = set()
    for (vessel, line), step in sorted(first.items(), key=lambda each: each[1]):
        made = build if vessel == 0 else build.companions[vessel - 1]
        rows = [row for row, ref in enumerate(work.refs) if (ref.vessel, ref.line) == (vessel, line)]
        start = work.refs.index(next(ref for ref in work.refs if ref.vessel == vessel))
        own = np.array(rows) - start
        variety = made.placement.stems.variety_of(int(own[0]))
        lengths = np.ceil(made.placement.cut_length_m[own] / CUT_STEP.value - 1e-6) * CUT_STEP.value
        counts = made.placement.stems.stems_in_row[own]
        own_line = made.placement.stems.lines[made.placement.stems.line_index[int(own[0])]][0]
        pulled = _line(build, vessel, variety, lengths, counts, step, needed, told, shoot=own_line.shoot)
        lines.append(replace(pulled, shades=_shades(own_line)))
    if build.piece.spill is not None:
        for recipe_line, variety in lines_of(build.piece.spill, build.conditions):
            cut = np.array([build.piece.spill.cut_length_m])
            counts = np.array([float(recipe_line.count)])
            pulled = _line(build, 0, variety, cut, counts, None, needed, told, shoot=recipe_line.shoot)
            lines.append(replace(pulled, shades=_shades(recipe_line)))
    return tuple(lines)


def preparation_of(variety: Variety, *, shown_h: float | None, bound: bool) -> tuple[Phrase, ...]:
    """What is done to each stem before it goes in.

    Args:
        variety: what of it hurts hands, wood, dip and fold.
        shown_h: how long the piece is shown, h; None is not known.
        bound: for a bouquet, stripped below its binding point.
    Source: common practice, no source.
    """
    if variety.lasting:
        done = [phrase("cut to length, handle it little"), phrase("stand it clear of water, or seal its end")]
        if variety.kind == "artificial":
            done = [phrase("cut with wire cutters"), phrase("turn its wire end back")]
        hands = (each for each in variety.hazards if each in HANDS)
        return (
            *done,
            *(phrase("{words}: {do}", words=ABOUT[each].words, do=ABOUT[each].do) for each in hands),
        )
    done = [phrase("cut on the slant and split" if variety.stiffness == "woody" else "cut on the slant")]
    done.append(phrase("strip below the binding" if bound else "strip below the rim"))
    if variety.dip:
        done.append(phrase("dip or sear the cut end"))
    if variety.fold and shown_h is not None:
        short = shown_h <= FOLD_WITHIN.value
        words = "petals may be folded back: shown {h}" if short else "do not fold petals back: shown {h}"
        done.append(phrase(words, h=duration(shown_h)))
    done += [phrase(CARE[each]) for each in variety.care]
    for hazard in variety.hazards:
        if hazard in HANDS:
            done.append(phrase("{words}: {do}", words=ABOUT[hazard].words, do=ABOUT[hazard].do))
    return tuple(done)


def _line(
    build: Build,
    vessel: int,
    variety: Variety,
    lengths: np.ndarray,
    counts: np.ndarray,
    step: int | None,
    needed: dict[str, dict[str, int]],
    told: set[str],
    *,
    shoot: bool,
) -> PullLine:
    cuts: dict[float, int] = {}
    for cut, number in zip(lengths.tolist(), counts.tolist(), strict=True):
        cuts[round(cut, 3)] = cuts.get(round(cut, 3), 0) + int(number)
    total = sum(cuts.values())
    apart = {} if variety.key in told or shoot else needed[variety.key]
    bunches = sum(math.ceil(number / variety.bunch_size) for number in apart.values())
    left = bunches * variety.bunch_size - sum(apart.values())
    if not shoot:
        told.add(variety.key)
    bound = build.piece.carried
    hours = build.piece.carried_h if bound else needed_hours(build.conditions)
    return PullLine(
        vessel=vessel,
        variety=variety.key,
        name=variety.name,
        colour=variety.colour,
        count=total,
        cuts=tuple(Cut(count=number, cut_length_m=cut) for cut, number in sorted(cuts.items(), reverse=True)),
        preparation=preparation_of(variety, shown_h=hours, bound=bound),
        side_shoots=variety.side_shoots * total,
        bunch_size=variety.bunch_size,
        bunches=bunches,
        left_over=left,
        first_step=step,
    )


def _shades(line: RecipeLine) -> tuple[tuple[str, int], ...]:
    return tuple(shade_counts(line).items()) if line.shades else ()


def _needed(build: Build) -> dict[str, dict[str, int]]:
    """Stems of each variety that all of these pieces need together, by shade, as they come in bunches."""
    recipes = [build.piece.recipe, *(each.recipe for each in build.piece.companions)]
    if build.piece.spill is not None:
        recipes.append(build.piece.spill.recipe)
    needed: dict[str, dict[str, int]] = {}
    for recipe in recipes:
        for line in recipe:
            if line.shoot:
                continue
            own = needed.setdefault(line.variety, {})
            for shade, number in shade_counts(line).items():
                own[shade] = own.get(shade, 0) + number * build.piece.quantity
    return needed
