"""The roll: everything an event cuts from netting, spools and sticks, as one cut plan for each material."""

import math
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import TypeVar

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.cutting.cutting import Cutting, Placed, Progress, Stock, Used
from jolly_trellis.core.event.cutting.roll_problems import (
    LENGTH_STEP,
    NARROWER,
    WIDER,
    CutItem,
    CutStock,
    Larder,
    MaterialPlan,
    Problem,
    left_out_of,
    length_problems,
    netting_problems,
)
from jolly_trellis.core.event.needs.needed import LengthNeed, Needs, SheetNeed
from jolly_trellis.core.materials.netting import pitch_across_m
from jolly_trellis.core.quantities import Phrase, length, phrase, worded

KEPT_LENGTH = rule("A remnant is worth keeping from a length of", "length", 0.25)

LENGTH_OVER = rule("A length that was cut serves where it is longer by no more than", "length", 0.05)

KEPT_CELLS = rule("A remnant of netting is worth keeping from, cells both ways", "count", 10)

SECONDS = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class CutPlan:
    """The cut plan of an event: one for each material, nettings first. `done` is how far a search had come, 0 to 1.

    `left_out` says what is cut for the event and is in no plan, and why.
    """

    materials: tuple[MaterialPlan, ...]
    done: float = 1.0
    left_out: tuple[Phrase, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class CutStep:
    """One cut, in order: on which stock, across it at a place or along a strip, and what falls off."""

    stock: int
    say: Phrase


def cut_plan(
    needs: Needs,
    larder: Larder,
    *,
    seconds: float = SECONDS,
    tell: Callable[[CutPlan], None] | None = None,
    stop: Callable[[], bool] | None = None,
) -> CutPlan:
    """Plan every cut of an event.

    Args:
        seconds: how long to look in all; small materials take little of it.
        tell: called with each better plan; stop: ends the search with the best so far.
    """
    problems = [*netting_problems(needs, larder), *length_problems(needs, larder)]
    left_out = left_out_of(needs, larder)
    done: list[MaterialPlan] = []
    halt = stop or (lambda: False)
    weight = {id(each): 1 + sum(item.count for item in each.items) for each in problems}
    total = sum(weight.values()) or 1
    passed = 0
    # as in schedule.py: OR-Tools is loaded by who searches
    from jolly_trellis.core.event.cutting.cut_plan import cut

    for problem in problems:
        share = passed / total

        def told(cutting: Cutting, problem: Problem = problem, share: float = share) -> None:
            if tell is not None:
                tell(CutPlan(materials=(*done, _plan_of(problem, cutting)), done=share, left_out=left_out))

        mine = seconds * weight[id(problem)] / total
        cutting = cut(
            problem.items,
            problem.sheets,
            kerf=problem.shell.lost,
            seconds=max(mine, 0.2),
            progress=Progress(tell=told, stop=halt),
        )
        done.append(_plan_of(problem, cutting))
        passed += weight[id(problem)]
    return CutPlan(materials=tuple(done), left_out=left_out)


@dataclass(frozen=True, slots=True, kw_only=True)
class StillToCut:
    """What is to be cut after what was cut: the needs that are left, and what was cut and is not needed any more."""

    needs: Needs
    spare: tuple[Phrase, ...]


def still_to_cut(needs: Needs, cut: Iterable[MaterialPlan], larder: Larder) -> StillToCut:
    """The needs less what was cut: a piece that was cut for the same serves first, then any of its size.

    A sheet serves from half a cell under the size to a cell over it, a length from its own to a little over.

    Args:
        cut: the plans by which materials were cut.
    Source: the tolerance of cutting.
    """
    there = [_Cut(plan=plan, item=item, left=item.quantity) for plan in cut for item in plan.items]
    sheets = [_less(each, there, _cell_m(larder, each.netting)) for each in needs.sheets]
    lengths = [_less(each, there, None) for each in needs.lengths]
    rest = replace(
        needs,
        sheets=tuple(each for each in sheets if each.quantity),
        lengths=tuple(each for each in lengths if each.quantity),
    )
    spare = (
        phrase("{n} × {label}: cut, and needed no more. Keep it as a remnant.", n=each.left, label=each.item.label)
        for each in there
        if each.left
    )
    return StillToCut(needs=rest, spare=tuple(spare))


@dataclass(slots=True, kw_only=True)
class _Cut:
    plan: MaterialPlan
    item: CutItem
    left: int


def _cell_m(larder: Larder, netting: str) -> float:
    net = larder.nettings.get(netting)
    return 0.0 if net is None else pitch_across_m(net)


_N = TypeVar("_N", SheetNeed, LengthNeed)


def _less(need: _N, there: list[_Cut], cell_m: float | None) -> _N:
    """A need less what of it was cut; who it was cut for first."""
    for mine in (True, False):
        for each in there:
            own = (each.item.piece_id == need.piece_id) is mine
            if each.left and need.quantity and own and _serves(each, need, cell_m):
                taken = min(each.left, need.quantity)
                each.left -= taken
                need = replace(need, quantity=need.quantity - taken)
    return need


def _serves(cut: _Cut, need: SheetNeed | LengthNeed, cell_m: float | None) -> bool:
    if isinstance(need, SheetNeed):
        if cut.plan.material != "netting" or cut.plan.key != need.netting or cell_m is None:
            return False
        pairs = ((cut.item.width_m, need.sheet.width_m), (cut.item.length_m, need.sheet.length_m))
        return all(
            -NARROWER.value * cell_m - 1e-6 <= has - asked <= WIDER.value * cell_m + 1e-6 for has, asked in pairs
        )
    if cut.plan.material != "supply" or cut.plan.key != need.supply:
        return False
    return -LENGTH_STEP.value / 2 <= cut.item.length_m - need.length_m <= LENGTH_OVER.value


def keeping_cut(plan: CutPlan, cut: Iterable[MaterialPlan], spare: tuple[Phrase, ...] = ()) -> CutPlan:
    """What was cut, as it was cut, then the plan of what is still to cut.

    Args:
        cut: the plans by which materials were cut, in that order. spare: what of it is not needed any more.
    """
    done = tuple(cut)
    times: dict[tuple[str, str], int] = {}
    for each in done:
        times[each.material, each.key] = max(times.get((each.material, each.key), 0), each.nth)
    new = (replace(each, nth=times.get((each.material, each.key), 0) + 1) for each in plan.materials)
    return replace(plan, materials=(*done, *new), left_out=(*plan.left_out, *spare))


def cut_steps_of(plan: MaterialPlan) -> tuple[CutStep, ...]:
    """The order of cuts at a bench: one strip at a time, counted from the fresh edge; then along it, then its columns,
    and what is trimmed off each piece.

    Source: how the plan is made. Across the roll netting is cut between two rows of twists, along it beside a twist.
    """
    steps: list[CutStep] = []
    for place, stock in enumerate(plan.stocks):
        if plan.row_m == 0:
            steps += _stick_steps(plan, place, stock)
            continue
        start = 0
        for end in stock.strips:
            inside = [each for each in stock.pieces if start <= each.y < end]
            steps += (CutStep(stock=place, say=say) for say in _strip_steps(plan, stock, inside, start, end))
            start = end
    return tuple(steps)


def _strip_steps(plan: MaterialPlan, stock: CutStock, inside: list[Placed], start: int, end: int) -> Iterator[Phrase]:
    rows = end - start
    at, names = length(rows * plan.row_m), _listed(plan, inside)
    if not plan.cell_m:
        yield phrase("{at} from the fresh end: {names}.", at=at, names=names)
        return
    yield phrase(
        "Count {rows} rows from the fresh edge, {at}, and cut across: {names}.", rows=rows, at=at, names=names
    )
    columns = {x: sorted((each for each in inside if each.x == x), key=lambda each: each.y) for x in _edges(inside)}
    wide = max(each.x + each.across for each in inside)
    last = math.floor((stock.width_m - plan.beside_m) / plan.cell_m + 1e-9)
    lines = [x for x in columns if x > 0] + ([wide] if wide < last else [])
    for x in lines:
        words = "Along that strip {where}, {at} from its side."
        if x == wide:
            words = "Along that strip {where}, {at} from its side: what lies beyond is left."
        yield phrase(words, where=_twist(plan, x), at=length(plan.at_m(x)))
    ends = [*(x - plan.lost for x in list(columns)[1:]), wide]
    for (x, column), until in zip(columns.items(), ends, strict=True):
        of = phrase("The part from {at}", at=length(plan.at_m(x))) if x else phrase("The part at the side")
        cuts = [each.y + each.along - start for each in column if each.y + each.along < end - plan.lost]
        if cuts:
            counted = ", ".join(str(each) for each in cuts)
            listed = _listed(plan, column)
            yield phrase("{of} across after its row {rows}: {listed}.", of=of, rows=counted, listed=listed)
        trims: dict[int, list[Placed]] = {}
        for each in column:
            trims.setdefault(until - each.x - each.across, []).append(each)
        for off, narrow in trims.items():
            if off > 0:
                words = "Trim {off} cell off the side of {names}."
                if off > plan.per_cell:
                    words = "Trim {off} cells off the side of {names}."
                yield phrase(words, off=f"{off / plan.per_cell:g}", names=_listed(plan, narrow))


def _edges(pieces: Iterable[Placed]) -> list[int]:
    return sorted({each.x for each in pieces})


def _twist(plan: MaterialPlan, x: int) -> str:
    """Where a cut along lies, by the twists that one counts; before there were half cells, by whole cells."""
    cells, half = divmod(x, plan.per_cell)
    if plan.per_cell == 1:
        return worded("after cell {n}", n=x)
    if half:
        return worded("a quarter before twist {n}", n=cells + 1)
    return worded("a quarter past twist {n}", n=cells)


def _stick_steps(plan: MaterialPlan, place: int, stock: CutStock) -> list[CutStep]:
    steps = []
    for row in sorted({each.y for each in stock.pieces}):
        inside = [each for each in stock.pieces if each.y == row]
        steps.append(
            CutStep(stock=place, say=phrase("Stick {row}: {listed}.", row=row + 1, listed=_listed(plan, inside)))
        )
    return steps


def _listed(plan: MaterialPlan, placed: Iterable[Placed]) -> str:
    counts: dict[str, int] = {}
    for each in placed:
        label = plan.items[each.item].label
        counts[label] = counts.get(label, 0) + 1
    return ", ".join(f"{number} × {label}" if number > 1 else label for label, number in counts.items())


def _plan_of(problem: Problem, cutting: Cutting) -> MaterialPlan:
    shell = problem.shell
    found = [_stock(problem, used) for used in cutting.used]
    stocks = [stock for stock, _ in found]
    bought = sum(each.count if shell.sticks else 1 for each in stocks if each.source == "to buy")
    used = cutting.area_used
    kept = sum(beside for _, beside in found) / used if used else 0.0
    lost = 1 - cutting.area_placed / used if used else 0.0
    bound_waste = None
    if cutting.bound >= cutting.area_needed > 0 and not cutting.unplaced:
        bound_waste = min(1 - cutting.area_needed / cutting.bound, lost)
    return replace(
        shell,
        stocks=tuple(stocks),
        missing=tuple(_missing(problem, item, count) for item, count in cutting.unplaced),
        waste=max(lost - kept, 0.0),
        kept=kept,
        bound_waste=bound_waste,
        to_buy=bought,
    )


def _stock(problem: Problem, used: Used) -> tuple[CutStock, int]:
    """One stock as it is cut, and how much of what is used is kept beside pieces, in half cells by rows."""
    shell, sheet = problem.shell, problem.sheets[used.sheet]
    source, number, wide, long = problem.sources[used.sheet]
    keep: list[tuple[float, float]] = []
    beside = 0
    if shell.sticks:
        for row in range(used.rows):
            ends = [each.x + each.across for each in used.placed if each.y == row]
            left = long - max(ends, default=0) * shell.cell_m
            if left >= KEPT_LENGTH.value:
                keep.append((0.0, left))
        used_m = used.rows * long
    else:
        used_m = min(used.rows * shell.row_m, long)
        least = KEPT_CELLS.value * shell.row_m if shell.material == "netting" else KEPT_LENGTH.value
        if long - used_m >= least - 1e-9:
            keep.append((wide, long - used_m))
        if shell.material == "netting":
            for across, rows in _offcuts(problem, used, sheet):
                keep.append((across * shell.cell_m, rows * shell.row_m))
                beside += across * rows
    stock = CutStock(
        source=source,
        remnant=number,
        width_m=wide,
        length_m=long,
        used_m=used_m,
        count=used.rows if shell.sticks else 1,
        strips=used.strips,
        pieces=used.placed,
        keep=tuple(keep),
    )
    return stock, beside


def _offcuts(problem: Problem, used: Used, sheet: Stock) -> Iterator[tuple[int, int]]:
    """What is left beside the last column of each strip, and behind each column, where it is worth keeping: half cells
    and rows.
    """
    shell, start = problem.shell, 0
    most, least = KEPT_CELLS.value * shell.per_cell, KEPT_CELLS.value
    for end in used.strips:
        inside = [each for each in used.placed if start <= each.y < end]
        edges = [*_edges(inside), max((each.x + each.across for each in inside), default=0)]
        for x, until in pairwise(edges):
            behind = end - max(each.y + each.along for each in inside if each.x == x)
            if until - x >= most and behind >= least:
                yield until - x, behind
        if sheet.across - edges[-1] >= most and end - start >= least:
            yield sheet.across - edges[-1], end - start
        start = end


def _missing(problem: Problem, item: int, count: int) -> Phrase:
    """Why a piece could not be cut, and what would be right."""
    what = problem.shell.items[item]
    number = f"{count} × " if count > 1 else ""
    if problem.shell.material == "netting":
        widest = max((wide for _, _, wide, _ in problem.sources), default=0.0)
        if what.width_m > widest + NARROWER.value * problem.shell.per_cell * problem.shell.cell_m:
            return phrase(
                "{number}{what}: {w} wide, and the widest roll is {r}. Sew it from two widths, or "
                "choose netting on a wider roll.",
                w=length(what.width_m),
                r=length(widest),
                number=number,
                what=what.label,
            )
    longest = max((long for _, _, _, long in problem.sources), default=0.0)
    if what.length_m > longest:
        return phrase(
            "{number}{what}: {w} long, and the longest is {r}. Join it from two, or get a longer one.",
            w=length(what.length_m),
            r=length(longest),
            number=number,
            what=what.label,
        )
    return phrase(
        "{number}{what}: nothing is left to cut it from. Count more into the stores, or buy more.",
        number=number,
        what=what.label,
    )
