"""The cut plan of one material: which strips are cut how often from which stock, by a whole-number programme."""

import time
from collections.abc import Iterable
from dataclasses import dataclass

from ortools.sat.python import cp_model

from jolly_trellis.core.event.cutting.cut_fills import filled_strips
from jolly_trellis.core.event.cutting.cut_strips import strips_for
from jolly_trellis.core.event.cutting.cutting import (
    Column,
    Cutting,
    Item,
    Progress,
    Stock,
    Strip,
    Used,
    area_bound,
    fits,
    laid_out,
    lie,
)
from jolly_trellis.core.event.searching import Value, search

_LEFT_OVER = 10_000_000
_CENT = 1_000
_ROLL_CELL = 20
_REMNANT_CELL = 15
_OPENED = 2_000
_MOST_COPIES = 12
_WORKERS = 2
_FILLING = 0.25
_Cuts = list[tuple[Stock, int, list[Strip]]]


@dataclass(frozen=True, slots=True)
class _Choice:
    """A strip, as it may be cut from one copy of one stock."""

    stock: int
    nth: int
    strip: Strip


def cut(
    items: tuple[Item, ...], sheets: tuple[Stock, ...], *, kerf: int, seconds: float, progress: Progress | None = None
) -> Cutting:
    """Cut pieces from stock: as few left over as can be, then at least cost, then with the least material.

    Args:
        items, sheets: whole cells and rows; a sheet with a cost is bought.
        kerf: cells one cut eats, 0 for lengths.
        seconds: how long to look for better plans, > 0.
        progress: told each better plan; may end the search, which keeps the best.
    Returns: a plan; pieces that fit no stock, or that there is no stock left for, are named in it.
    """
    progress = _only_better(progress or Progress(), sheets)
    ends_at = time.monotonic() + seconds
    fitting = tuple(item for item in items if any(fits(item, sheet) for sheet in sheets))
    nowhere = [(item.key, item.count) for item in items if item not in fitting]
    if not fitting:
        return _cutting([], fitting, nowhere, kerf, 0)
    pools: dict[int, list[Strip]] = {}
    bound = 0.0
    for across in sorted({sheet.across for sheet in sheets}):
        own = [sheet for sheet in sheets if sheet.across == across]
        longest = max(sheet.along for sheet in own)
        index = [place for place, item in enumerate(fitting) if any(fits(item, sheet) for sheet in own)]
        if not index:
            continue
        strips, least = strips_for(tuple(fitting[each] for each in index), across, longest, kerf, progress)
        wanted = tuple(fitting[each] for each in index)
        until = min(time.monotonic() + seconds * _FILLING, ends_at)
        strips += filled_strips(wanted, across, longest, kerf, until=until, progress=progress)
        pools[across] = [_renumbered(strip, index) for strip in dict.fromkeys(strips)]
        bound = max(bound, least * across) if len({each.across for each in sheets}) == 1 else 0.0
    best = _greedy(fitting, sheets, pools, kerf)
    plan = _cutting(best, fitting, nowhere, kerf, round(bound))
    progress.tell(plan)
    left = ends_at - time.monotonic()
    if left > 0 and not progress.stop():
        better = _solve(fitting, sheets, pools, kerf, left, progress, (nowhere, round(bound), best))
        if better is not None:
            found = _cutting(better, fitting, nowhere, kerf, round(bound))
            plan = min(plan, found, key=lambda each: _rank(each, sheets))
    return plan


def _rank(plan: Cutting, sheets: tuple[Stock, ...]) -> tuple[int, int, int, int]:
    """What plans are compared by: pieces left over, cents paid, area used, how many rolls that is from."""
    return plan.cost[0], _paid(plan, sheets), plan.cost[1], len(plan.used)


def _only_better(progress: Progress, sheets: tuple[Stock, ...]) -> Progress:
    """Progress that passes on a plan only where it is better than the last."""
    best: list[tuple[int, int, int, int]] = []

    def tell(plan: Cutting) -> None:
        rank = _rank(plan, sheets)
        if not best or rank < best[0]:
            best[:] = [rank]
            progress.tell(plan)

    return Progress(tell=tell, stop=progress.stop)


def _paid(plan: Cutting, sheets: tuple[Stock, ...]) -> int:
    cost = {sheet.key: sheet.cost for sheet in sheets}
    return sum(cost[used.sheet] for used in plan.used)


def _renumbered(strip: Strip, index: list[int]) -> Strip:
    return Strip(
        strip.along,
        tuple(
            Column(column.across, tuple((index[item], turned) for item, turned in column.pieces))
            for column in strip.columns
        ),
    )


def _greedy(items: tuple[Item, ...], sheets: tuple[Stock, ...], pools: dict[int, list[Strip]], kerf: int) -> _Cuts:
    """A first plan: stock here before stock to buy, and always the strip that wastes least of what is still wanted."""
    wanted = [item.count for item in items]
    cuts: _Cuts = []
    for sheet in sorted(sheets, key=lambda each: (each.cost, each.across * each.along)):
        for nth in range(sheet.count):
            room, strips = sheet.along + kerf, []
            while any(wanted):
                best = max(
                    (_wanted_part(strip, wanted, items, kerf) for strip in pools.get(sheet.across, [])),
                    key=lambda each: _filled(each, items) if each.columns and each.along <= room else -1.0,
                    default=Strip(0, ()),
                )
                if not best.columns or best.along > room:
                    break
                for item, number in enumerate(best.counts(len(items))):
                    wanted[item] -= number
                room -= best.along
                strips.append(best)
            if strips:
                cuts.append((sheet, nth, strips))
            if not strips or not any(wanted):
                break
    return cuts


def _filled(strip: Strip, items: tuple[Item, ...]) -> float:
    area = sum(items[item].across * items[item].along for column in strip.columns for item, _ in column.pieces)
    return area / strip.along


def _wanted_part(strip: Strip, wanted: list[int], items: tuple[Item, ...], kerf: int) -> Strip:
    """A strip less the pieces nobody wants any more, as short as what is left."""
    left = list(wanted)
    columns = []
    for column in strip.columns:
        pieces = []
        for item, turned in column.pieces:
            if left[item] > 0:
                left[item] -= 1
                pieces.append((item, turned))
        if pieces:
            wide = max(lie(items[item], turned)[0] for item, turned in pieces) + kerf
            columns.append(Column(wide, tuple(pieces)))
    long = max((_stack(column, items, kerf) for column in columns), default=0)
    return Strip(long, tuple(columns))


def _stack(column: Column, items: tuple[Item, ...], kerf: int) -> int:
    return sum(lie(items[item], turned)[1] + kerf for item, turned in column.pieces)


def _solve(
    items: tuple[Item, ...],
    sheets: tuple[Stock, ...],
    pools: dict[int, list[Strip]],
    kerf: int,
    seconds: float,
    progress: Progress,
    start: tuple[list[tuple[int, int]], int, _Cuts],
) -> _Cuts | None:
    """How often each strip is cut from each stock, by CP-SAT; None where it finds nothing in time."""
    nowhere, bound, first = start
    model = cp_model.CpModel()
    choices: list[tuple[_Choice, cp_model.IntVar]] = []
    terms: list[cp_model.LinearExprT] = []
    for place, sheet in enumerate(sheets):
        opened_before: cp_model.IntVar | None = None
        for nth in range(min(sheet.count, _copies(items, sheet, kerf))):
            opened = model.new_bool_var("")
            if opened_before is not None:
                model.add_implication(opened, opened_before)
            opened_before = opened
            terms.append((sheet.cost * _CENT + _OPENED) * opened)
            own = []
            for strip in pools.get(sheet.across, []):
                most = (sheet.along + kerf) // strip.along
                if most:
                    often = model.new_int_var(0, min(most, max(item.count for item in items)), "")
                    own.append((strip, often))
                    choices.append((_Choice(place, nth, strip), often))
                    cell = _ROLL_CELL if sheet.count > 1 or sheet.cost else _REMNANT_CELL
                    terms.append(strip.along * sheet.across * cell * often)
            model.add(sum(strip.along * often for strip, often in own) <= (sheet.along + kerf) * opened)
    made: list[list[cp_model.LinearExprT]] = [[] for _ in items]
    for choice, often in choices:
        for item, number in enumerate(choice.strip.counts(len(items))):
            if number:
                made[item].append(number * often)
    for wanted, covers in zip(items, made, strict=True):
        over = model.new_int_var(0, wanted.count, "")
        terms.append(_LEFT_OVER * over)
        model.add(cp_model.LinearExpr.sum([*covers, over]) >= wanted.count)
    model.minimize(sum(terms))
    _hint(model, choices, first, sheets)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = _WORKERS
    solver.parameters.random_seed = 1

    def tell(value: Value) -> bool:
        cuts = _cuts_of(((choice, value(often)) for choice, often in choices), items, sheets, kerf)
        found = _cutting(cuts, items, nowhere, kerf, bound)
        progress.tell(found)
        return progress.stop() or (found.cost[0] == len(nowhere) == 0 and 0 < found.area_used <= bound)

    if not search(solver, model, tell, progress.stop):
        return None
    return _cuts_of(((choice, solver.value(often)) for choice, often in choices), items, sheets, kerf)


def _hint(
    model: cp_model.CpModel,
    choices: list[tuple[_Choice, cp_model.IntVar]],
    first: _Cuts,
    sheets: tuple[Stock, ...],
) -> None:
    """Start the search from the first plan, as far as its strips are among the known ones."""
    often: dict[tuple[int, int, Strip], int] = {}
    for sheet, nth, strips in first:
        for strip in strips:
            key = (sheets.index(sheet), nth, strip)
            often[key] = often.get(key, 0) + 1
    for choice, variable in choices:
        model.add_hint(variable, often.get((choice.stock, choice.nth, choice.strip), 0))


def _copies(items: tuple[Item, ...], sheet: Stock, kerf: int) -> int:
    """How many of a stock could be wanted at the very most."""
    area = sum((item.across + kerf) * (item.along + kerf) * item.count for item in items)
    return min(sheet.count, -(-2 * area // (sheet.across * sheet.along)) + 1, _MOST_COPIES)


def _cuts_of(
    values: Iterable[tuple[_Choice, int]], items: tuple[Item, ...], sheets: tuple[Stock, ...], kerf: int
) -> _Cuts:
    """A solution as strips on stocks; pieces beyond what is wanted are left out, strips drawn in to what is left."""
    wanted = [item.count for item in items]
    by_stock: dict[tuple[int, int], list[Strip]] = {}
    for choice, often in values:
        for _ in range(often):
            strip = _wanted_part(choice.strip, wanted, items, kerf)
            for item, number in enumerate(strip.counts(len(items))):
                wanted[item] -= number
            if strip.columns:
                by_stock.setdefault((choice.stock, choice.nth), []).append(strip)
    return [(sheets[place], nth, strips) for (place, nth), strips in sorted(by_stock.items())]


def _cutting(cuts: _Cuts, items: tuple[Item, ...], nowhere: list[tuple[int, int]], kerf: int, bound: int) -> Cutting:
    used = laid_out(cuts, items, kerf)
    placed: dict[int, int] = {}
    for each in used:
        for piece in each.placed:
            placed[piece.item] = placed.get(piece.item, 0) + 1
    left = [(item.key, item.count - placed.get(item.key, 0)) for item in items if placed.get(item.key, 0) < item.count]
    across = {(sheet.key): sheet.across for sheet, _, _ in cuts}
    return Cutting(
        used=used,
        unplaced=(*nowhere, *left),
        area_used=sum(each.rows * across[each.sheet] for each in used),
        area_needed=area_bound(items),
        bound=bound,
    )


__all__ = ["Cutting", "Used", "cut"]
