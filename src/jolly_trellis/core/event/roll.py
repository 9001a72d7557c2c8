"""The roll: everything an event cuts from netting, spools and sticks, as one cut plan for each material."""

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from jolly_trellis.core import netting as nets
from jolly_trellis.core.event.cut_plan import cut
from jolly_trellis.core.event.cutting import Cutting, Item, Placed, Progress, Sheet, Used
from jolly_trellis.core.event.needs import LengthNeed, Needs, SheetNeed
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.provenance import COMMON_PRACTICE, constant
from jolly_trellis.core.quantities import Phrase, length, phrase
from jolly_trellis.core.supplies import Supply

LOST_CELLS = constant("Cells of netting lost at a cut", "count", 1, COMMON_PRACTICE)
KEPT_LENGTH = constant("A remnant is worth keeping from a length of", "length", 0.25)
KEPT_WIDTH = constant("A remnant is worth keeping from a width of", "length", 0.12)
LENGTH_STEP = constant("Lengths are cut to the next", "length", 0.005)
BOUGHT = constant("Rolls that a plan may buy of one netting, at most", "count", 6)
UNPRICED_CENTS = 100_000
SECONDS = 10.0

Material = Literal["netting", "supply"]
Source = Literal["remnant", "here", "to buy"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Remnant:
    """What is left of a roll, spool or stick: its number in the stores, and its size; width 0 for lengths."""

    id: int
    key: str
    width_m: float
    length_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Larder:
    """What there is to cut from: nettings and supplies by key, how many rolls or packs are here, and remnants."""

    nettings: Mapping[str, Netting]
    supplies: Mapping[str, Supply]
    rolls: Mapping[str, int] = field(default_factory=dict)
    packs: Mapping[str, int] = field(default_factory=dict)
    netting_remnants: tuple[Remnant, ...] = ()
    supply_remnants: tuple[Remnant, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class CutItem:
    """One kind of piece of a cut plan: what it is and for whom, how many, its size, m; width 0 for lengths."""

    key: int
    label: str
    piece_id: int
    quantity: int
    width_m: float
    length_m: float
    may_turn: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class CutStock:
    """One roll, remnant or bundle that is cut: where it is from, its size, m, what is used and what is worth keeping.

    `pieces` lie on it in cells and rows, `strips` are the rows at which it is cut across, in order. `keep` are
    remnants, (width, length) in m; `count` is how many sticks a bundle gives.
    """

    source: Source
    remnant: int | None
    width_m: float
    length_m: float
    used_m: float
    count: int
    strips: tuple[int, ...]
    pieces: tuple[Placed, ...]
    keep: tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class MaterialPlan:
    """The cut plan of one material: cells of `cell_m` by `row_m`, and what it comes to.

    `waste` is the share of what is used that becomes no piece, 0 to 1; `bound_waste` what no plan of such strips gets
    under, None not known. `to_buy` counts rolls, spools or sticks; `missing` says what could not be cut, and why.
    """

    material: Material
    key: str
    name: str
    sticks: bool
    cell_m: float
    row_m: float
    lost: int
    items: tuple[CutItem, ...]
    stocks: tuple[CutStock, ...]
    missing: tuple[Phrase, ...]
    waste: float
    bound_waste: float | None
    to_buy: int


@dataclass(frozen=True, slots=True, kw_only=True)
class CutPlan:
    """The cut plan of an event: one for each material, nettings first. `done` is how far a search had come, 0 to 1."""

    materials: tuple[MaterialPlan, ...]
    done: float = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class CutAct:
    """One cut, in order: on which stock, across it at a place or along a strip, and what falls off."""

    stock: int
    say: Phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class _Problem:
    """One material to be cut: what the solver is given, and what its numbers mean."""

    shell: MaterialPlan
    items: tuple[Item, ...]
    sheets: tuple[Sheet, ...]
    sources: tuple[tuple[Source, int | None, float, float], ...]


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
    problems = [*_netting_problems(needs, larder), *_length_problems(needs, larder)]
    done: list[MaterialPlan] = []
    halt = stop or (lambda: False)
    weight = {id(each): 1 + sum(item.count for item in each.items) for each in problems}
    total = sum(weight.values()) or 1
    passed = 0
    for problem in problems:
        share = passed / total

        def told(cutting: Cutting, problem: _Problem = problem, share: float = share) -> None:
            if tell is not None:
                tell(CutPlan(materials=(*done, _plan_of(problem, cutting)), done=share))

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
    return CutPlan(materials=tuple(done))


def acts_of(plan: MaterialPlan) -> tuple[CutAct, ...]:
    """The order of cuts: across each stock strip by strip, then along the strip, then across its columns.

    Source: how the plan is made; each strip's far edge is cut first so that the rest of the roll stays whole.
    """
    acts: list[CutAct] = []
    for place, stock in enumerate(plan.stocks):
        if plan.row_m == 0:
            acts += _stick_acts(plan, place, stock)
            continue
        start = 0
        for end in stock.strips:
            inside = [each for each in stock.pieces if start <= each.y < end]
            names = _listed(plan, inside)
            say = phrase(f"Across at {{at}}, row {end}: {names}.", at=length(end * plan.row_m))
            acts.append(CutAct(stock=place, say=say))
            edges = sorted({each.x for each in inside if each.x > 0})
            if edges and plan.cell_m:
                cells = ", ".join(str(each) for each in edges)
                acts.append(CutAct(stock=place, say=phrase(f"Along that strip after cell {cells}.")))
            for x in sorted({each.x for each in inside}):
                column = sorted((each for each in inside if each.x == x), key=lambda each: each.y)
                if len(column) > 1:
                    rows = ", ".join(str(each.y + each.along - start) for each in column[:-1])
                    say = phrase(f"The part from cell {x + 1} across after its row {rows}: {_listed(plan, column)}.")
                    acts.append(CutAct(stock=place, say=say))
            start = end
    return tuple(acts)


def _stick_acts(plan: MaterialPlan, place: int, stock: CutStock) -> list[CutAct]:
    acts = []
    for row in sorted({each.y for each in stock.pieces}):
        inside = [each for each in stock.pieces if each.y == row]
        acts.append(CutAct(stock=place, say=phrase(f"Stick {row + 1}: {_listed(plan, inside)}.")))
    return acts


def _listed(plan: MaterialPlan, placed: Iterable[Placed]) -> str:
    counts: dict[str, int] = {}
    for each in placed:
        label = plan.items[each.item].label
        counts[label] = counts.get(label, 0) + 1
    return ", ".join(f"{number} × {label}" if number > 1 else label for label, number in counts.items())


def _netting_problems(needs: Needs, larder: Larder) -> Iterable[_Problem]:
    for key in dict.fromkeys(each.netting for each in needs.sheets):
        net = larder.nettings.get(key)
        if net is not None:
            yield _netting_problem([each for each in needs.sheets if each.netting == key], net, larder)


def _netting_problem(sheets: list[SheetNeed], net: Netting, larder: Larder) -> _Problem:
    across_m, along_m = nets.pitch_across_m(net), nets.pitch_along_m(net)
    items, cut_items = [], []
    for key, need in enumerate(sheets):
        wide, long = need.sheet.width_m, need.sheet.length_m
        turned = (nets.whole_cells(long, across_m), nets.whole_cells(wide, along_m)) if need.may_turn else None
        items.append(
            Item(
                key=key,
                across=nets.whole_cells(wide, across_m),
                along=nets.whole_cells(long, along_m),
                count=need.quantity,
                turned=turned,
            )
        )
        cut_items.append(
            CutItem(
                key=key,
                label=f"{need.name}, {need.piece}",
                piece_id=need.piece_id,
                quantity=need.quantity,
                width_m=wide,
                length_m=long,
                may_turn=need.may_turn,
            )
        )
    stock: list[tuple[Source, int | None, float, float, int, int]] = [
        ("remnant", each.id, each.width_m, each.length_m, 1, 0)
        for each in larder.netting_remnants
        if each.key == net.key
    ]
    here = larder.rolls.get(net.key, 0)
    price = UNPRICED_CENTS if net.price is None else round(net.price * 100)
    roll = (net.roll_width_m, net.roll_length_m)
    stock += [("here", None, *roll, here, 0)] if here else []
    stock.append(("to buy", None, *roll, int(BOUGHT.value), max(price, 1)))
    shell = _shell("netting", net.key, net.name, across_m, along_m, int(LOST_CELLS.value), tuple(cut_items))
    stocks = [
        (
            source,
            number,
            wide,
            long,
            math.floor(wide / across_m + 1e-9),
            math.floor(long / along_m + 1e-9),
            count,
            cost,
        )
        for source, number, wide, long, count, cost in stock
    ]
    return _problem(shell, items, stocks)


def _length_problems(needs: Needs, larder: Larder) -> Iterable[_Problem]:
    for key in dict.fromkeys(each.supply for each in needs.lengths):
        supply = larder.supplies.get(key)
        if supply is not None and supply.measured_by in ("length", "stick"):
            yield _length_problem([each for each in needs.lengths if each.supply == key], supply, larder)


def _length_problem(lengths: list[LengthNeed], supply: Supply, larder: Larder) -> _Problem:
    step = LENGTH_STEP.value
    sticks = supply.measured_by == "stick"
    items, cut_items = [], []
    for key, need in enumerate(lengths):
        units = math.ceil(need.length_m / step - 1e-6)
        items.append(Item(key=key, across=units if sticks else 1, along=1 if sticks else units, count=need.quantity))
        cut_items.append(
            CutItem(
                key=key,
                label=f"{need.name}, {need.piece}",
                piece_id=need.piece_id,
                quantity=need.quantity,
                width_m=0.0,
                length_m=need.length_m,
                may_turn=False,
            )
        )
    remnants = [each for each in larder.supply_remnants if each.key == supply.key]
    here = larder.packs.get(supply.key, 0)
    one = supply.stick_m if sticks and supply.stick_m else supply.pack
    price = UNPRICED_CENTS if supply.price is None else round(supply.price * 100)
    most = sum(each.count for each in items)

    def units_of(long: float) -> int:
        return math.floor(long / step + 1e-9)

    stocks: list[tuple[Source, int | None, float, float, int, int, int, int]] = []
    if sticks:
        stocks += [("remnant", each.id, 0.0, each.length_m, units_of(each.length_m), 1, 1, 0) for each in remnants]
        number = round(here * supply.pack)
        stocks += [("here", None, 0.0, one, units_of(one), min(number, most), 1, 0)] if number else []
        stocks.append(("to buy", None, 0.0, one, units_of(one), most, 1, max(price, 1)))
    else:
        stocks += [("remnant", each.id, 0.0, each.length_m, 1, units_of(each.length_m), 1, 0) for each in remnants]
        stocks += [("here", None, 0.0, one, 1, units_of(one), here, 0)] if here else []
        total = sum(each.along * each.count for each in items)
        spools = -(-2 * total // max(units_of(one), 1)) + 1
        stocks.append(("to buy", None, 0.0, one, 1, units_of(one), spools, max(price, 1)))
    cell, row = (step, 0.0) if sticks else (0.0, step)
    shell = _shell("supply", supply.key, supply.name, cell, row, 0, tuple(cut_items))
    return _problem(replace(shell, sticks=sticks), items, stocks)


def _shell(
    material: Material, key: str, name: str, cell: float, row: float, lost: int, items: tuple[CutItem, ...]
) -> MaterialPlan:
    return MaterialPlan(
        material=material,
        key=key,
        name=name,
        sticks=False,
        cell_m=cell,
        row_m=row,
        lost=lost,
        items=items,
        stocks=(),
        missing=(),
        waste=0.0,
        bound_waste=None,
        to_buy=0,
    )


def _problem(
    shell: MaterialPlan,
    items: list[Item],
    stocks: list[tuple[Source, int | None, float, float, int, int, int, int]],
) -> _Problem:
    sheets: list[Sheet] = []
    sources: list[tuple[Source, int | None, float, float]] = []
    for source, number, wide, long, across, along, count, cost in stocks:
        if across > 0 and along > 0 and count > 0:
            sheets.append(Sheet(key=len(sheets), across=across, along=along, count=count, cost=cost))
            sources.append((source, number, wide, long))
    return _Problem(shell=shell, items=tuple(items), sheets=tuple(sheets), sources=tuple(sources))


def _plan_of(problem: _Problem, cutting: Cutting) -> MaterialPlan:
    shell = problem.shell
    stocks = [_stock(problem, used) for used in cutting.used]
    bought = sum(each.count if shell.sticks else 1 for each in stocks if each.source == "to buy")
    waste = 1 - cutting.area_placed / cutting.area_used if cutting.area_used else 0.0
    least = cutting.bound
    bound_waste = None
    if least >= cutting.area_needed > 0 and not cutting.unplaced:
        bound_waste = min(1 - cutting.area_needed / least, waste)
    return replace(
        shell,
        stocks=tuple(stocks),
        missing=tuple(_missing(problem, item, count) for item, count in cutting.unplaced),
        waste=waste,
        bound_waste=bound_waste,
        to_buy=bought,
    )


def _stock(problem: _Problem, used: Used) -> CutStock:
    shell, sheet = problem.shell, problem.sheets[used.sheet]
    source, number, wide, long = problem.sources[used.sheet]
    keep: list[tuple[float, float]] = []
    if shell.sticks:
        for row in range(used.rows):
            ends = [each.x + each.across for each in used.placed if each.y == row]
            left = long - max(ends, default=0) * shell.cell_m
            if left >= KEPT_LENGTH.value:
                keep.append((0.0, left))
        used_m = used.rows * long
    else:
        used_m = min(used.rows * shell.row_m, long)
        if long - used_m >= KEPT_LENGTH.value:
            keep.append((wide, long - used_m))
        if shell.material == "netting":
            keep += _offcuts(problem, used, sheet, wide)
    return CutStock(
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


def _offcuts(problem: _Problem, used: Used, sheet: Sheet, wide: float) -> list[tuple[float, float]]:
    """What is left beside the last column of each strip, where it is worth keeping; whole cells, the lost one off."""
    shell, start, found = problem.shell, 0, []
    for end in used.strips:
        inside = [each for each in used.placed if start <= each.y < end]
        taken = max((each.x + each.across for each in inside), default=0)
        cells, rows = sheet.across - taken - shell.lost, end - start - shell.lost
        size = (min(cells * shell.cell_m, wide), rows * shell.row_m)
        if size[0] >= KEPT_WIDTH.value and size[1] >= KEPT_LENGTH.value:
            found.append(size)
        start = end
    return found


def _missing(problem: _Problem, item: int, count: int) -> Phrase:
    """Why a piece could not be cut, and what would be right."""
    what = problem.shell.items[item]
    number = f"{count} × " if count > 1 else ""
    if problem.shell.material == "netting":
        widest = max((wide for _, _, wide, _ in problem.sources), default=0.0)
        if what.width_m > widest:
            return phrase(
                f"{number}{what.label}: {{w}} wide, and the widest roll is {{r}}. Sew it from two widths, or choose "
                "netting on a wider roll.",
                w=length(what.width_m),
                r=length(widest),
            )
    longest = max((long for _, _, _, long in problem.sources), default=0.0)
    if what.length_m > longest:
        return phrase(
            f"{number}{what.label}: {{w}} long, and the longest is {{r}}. Join it from two, or get a longer one.",
            w=length(what.length_m),
            r=length(longest),
        )
    return phrase(f"{number}{what.label}: nothing is left to cut it from. Count more into the stores, or buy more.")
