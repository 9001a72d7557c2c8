"""The strips worth cutting: by column generation, each new strip the best one at the prices the last plan set.

The linear programme chooses how often each known strip is cut so that every piece is covered with the least length;
its dual prices say what a piece is worth; a strip worth more than its length is added. Columns of a strip are the best
stacks of pieces by a knapsack over its length, strips the best row of columns by a knapsack over the roll's width.

Source: Gilmore and Gomory, "A linear programming approach to the cutting-stock problem", Operations Research 9 (1961)
and 13 (1965), for stages and the knapsack pricing.
"""

import numpy as np
from ortools.linear_solver import pywraplp

from jolly_trellis.core.event.cutting.cutting import STRIP_ROUNDS, Column, Item, Progress, Strip, lie

_Array = np.ndarray
Ways = list[tuple[int, int, int, bool]]
_WORTH = 1e-6
_MOST_BEHIND = 3
_MOST_LENGTHS = 160


def strips_for(
    items: tuple[Item, ...], across: int, longest: int, kerf: int, progress: Progress
) -> tuple[list[Strip], float]:
    """Strips for stock of one width, and the least length any plan of such strips can have, rows with the kerf.

    Args:
        items: pieces that fit this stock.
        across, longest: cells across, and the longest strip in rows.
        kerf: cells one cut eats.
    Returns: strips, each worth trying; the bound, which is only a bound on plans all on stock of this width.
    Raises: ValueError: no item at all.
    """
    ways = ways_of(items, across, longest, kerf)
    lengths = _strip_lengths({along for _, _, along, _ in ways}, longest + kerf)
    strips = [_alone(items, index, across, longest, kerf) for index in range(len(items))]
    solver = pywraplp.Solver.CreateSolver("GLOP")
    solver.SetNumThreads(1)
    objective = solver.Objective()
    rows = [solver.Constraint(float(item.count), solver.infinity()) for item in items]
    known: set[Strip] = set()

    def add(strip: Strip) -> bool:
        if strip in known:
            return False
        known.add(strip)
        variable = solver.NumVar(0.0, solver.infinity(), "")
        objective.SetCoefficient(variable, float(strip.along))
        for row, number in zip(rows, strip.counts(len(items)), strict=True):
            if number:
                row.SetCoefficient(variable, float(number))
        return True

    for strip in strips:
        add(strip)
    bound = 0.0
    for _ in range(STRIP_ROUNDS * 4):
        if solver.Solve() != pywraplp.Solver.OPTIMAL or progress.stop():
            break
        bound = objective.Value()
        prices = np.array([max(row.dual_value(), 0.0) for row in rows])
        found = _best_strips(items, ways, lengths, prices, across + kerf)
        fresh = [strip for strip, worth in found if worth > strip.along * (1 + _WORTH) and add(strip)]
        strips += fresh
        if not fresh:
            break
    return strips, bound


def _strip_lengths(pieces: set[int], longest: int) -> list[int]:
    """Lengths that strips are tried at: of one piece, then of two and of three one behind another, shortest first."""
    lengths, level = set(pieces), set(pieces)
    for _ in range(_MOST_BEHIND - 1):
        level = {long + each for long in level for each in pieces if long + each <= longest}
        lengths |= set(sorted(level)[: _MOST_LENGTHS - len(lengths)])
        if len(lengths) >= _MOST_LENGTHS:
            break
    return sorted(lengths)


def ways_of(items: tuple[Item, ...], across: int, longest: int, kerf: int) -> Ways:
    """(item, width, length, turned) of every way a piece may lie on this stock, kerf in, narrowest first."""
    found = []
    for index, item in enumerate(items):
        for turned in (False, True) if item.turned is not None else (False,):
            wide, long = lie(item, turned)
            if wide <= across and long <= longest:
                found.append((index, wide + kerf, long + kerf, turned))
    return sorted(found, key=lambda way: (way[1], way[2], way[0]))


def _alone(items: tuple[Item, ...], index: int, across: int, longest: int, kerf: int) -> Strip:
    """A strip with as many of one item side by side as fit, lying the way that wastes less."""
    ways = ways_of(items[index : index + 1], across, longest, kerf)
    best = max(ways, key=lambda way: ((across + kerf) // way[1]) / way[2])
    number = min((across + kerf) // best[1], items[index].count)
    return Strip(best[2], tuple(Column(best[1], ((index, best[3]),)) for _ in range(number)))


def _best_strips(
    items: tuple[Item, ...], ways: Ways, lengths: list[int], prices: _Array, width: int
) -> list[tuple[Strip, float]]:
    """The strip of the greatest worth for each length, at these prices."""
    stacks = stacks_of(items, ways, lengths[-1], prices)
    found = []
    for long in lengths:
        options = []
        best_so_far = 0.0
        for wide, values, choices in stacks:
            if values[long] > best_so_far + _WORTH:
                best_so_far = float(values[long])
                options.append((wide, best_so_far, choices))
        if not options:
            continue
        worth, picked = _row(options, width)
        columns = []
        for index in picked:
            wide, _, choices = options[index]
            pieces = unstack(choices, ways, long)
            columns.append(Column(wide, tuple(pieces)))
        found.append((Strip(long, tuple(sorted(columns, key=lambda each: (-each.across, each.pieces)))), worth))
    return found


def stacks_of(
    items: tuple[Item, ...], ways: Ways, longest: int, prices: _Array
) -> list[tuple[int, _Array, list[tuple[int, _Array]]]]:
    """For each column width, narrowest first: the best worth of a stack up to each length, and the choices so far.

    Each way of a piece is taken up to its count by a bounded knapsack; a choice is (way, how often at each length).
    """
    values = np.zeros(longest + 1)
    choices: list[tuple[int, _Array]] = []
    found = []
    for place, (index, wide, long, _) in enumerate(ways):
        if prices[index] > 0:
            most = min(items[index].count, longest // long)
            best, taken = values.copy(), np.zeros(longest + 1, dtype=int)
            for number in range(1, most + 1):
                shifted = np.full(longest + 1, -1.0)
                shifted[number * long :] = values[: longest + 1 - number * long] + number * prices[index]
                better = shifted > best + _WORTH
                best[better], taken[better] = shifted[better], number
            values = best
            choices = [*choices, (place, taken)]
        if place + 1 == len(ways) or ways[place + 1][1] != wide:
            found.append((wide, values, choices))
    return found


def unstack(choices: list[tuple[int, _Array]], ways: Ways, long: int) -> list[tuple[int, bool]]:
    """The pieces of the best stack of a length, read back from the choices."""
    left, pieces = long, []
    for place, taken in reversed(choices):
        number = int(taken[left])
        index, _, along, turned = ways[place]
        pieces += [(index, turned)] * number
        left -= number * along
    return pieces


def _row(options: list[tuple[int, float, list[tuple[int, _Array]]]], width: int) -> tuple[float, list[int]]:
    """The best row of columns in a width: its worth, and which options, each as often as it is taken."""
    wides = np.array([wide for wide, _, _ in options])
    worths = np.array([worth for _, worth, _ in options])
    best = np.zeros(width + 1)
    last = np.full(width + 1, -1)
    for room in range(int(wides.min()), width + 1):
        fit = int(np.searchsorted(wides, room, side="right"))
        gains = best[room - wides[:fit]] + worths[:fit]
        index = int(gains.argmax())
        best[room] = best[room - 1]
        if gains[index] > best[room] + _WORTH:
            best[room], last[room] = gains[index], index
    picked, room = [], width
    while room > 0:
        if last[room] < 0:
            room -= 1
            continue
        picked.append(int(last[room]))
        room -= int(wides[picked[-1]])
    return float(best[width]), picked
