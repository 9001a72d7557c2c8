"""What an event cuts and what there is to cut from, in metres and in whole cells: one problem for each material."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from jolly_trellis.core.books.figures import rule, standard
from jolly_trellis.core.event.cutting.cutting import Item, Placed, Stock
from jolly_trellis.core.event.needs.needed import LengthNeed, Needs, SheetNeed
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, phrase

NARROWER = rule("A sheet of netting may be narrower than asked by, cells", "ratio", 0.5, COMMON_PRACTICE, most=0.5)

WIDER = rule("A sheet of netting may be wider than asked by, cells", "ratio", 1.0, COMMON_PRACTICE)

BESIDE = standard("Along the roll netting is cut beside a twist, cells", "ratio", 0.25, COMMON_PRACTICE)

LENGTH_STEP = rule("Lengths are cut to the next", "length", 0.005)

BOUGHT = rule("Rolls that a plan may buy of one netting, at most", "count", 6)

UNPRICED_CENTS = 100_000

_PER_CELL = 2
_Stock = tuple["Source", int | None, float, float, int, int, int, int]

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
    """The cut plan of one material: counted in `cell_m` by `row_m`, and what it comes to.

    Netting is counted in half cells across, `per_cell` to a cell: along the roll it is cut beside the twists, each
    line `beside_m` past where a whole number of half cells ends. `kept` is the share of what is used that is kept as
    remnants, 0 to 1, `waste` the share that becomes neither piece nor remnant; `bound_waste` what no plan of such
    strips gets under in both, None not known. `to_buy` counts rolls, spools or sticks; `missing` says what could not
    be cut, and why. `nth` is 1 for the first cutting of a material; what is added after it was cut is cut in the next.
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
    per_cell: int = 1
    beside_m: float = 0.0
    kept: float = 0.0
    nth: int = 1

    def at_m(self, across: int) -> float:
        """Where a cut along lies, m from the near side."""
        return across * self.cell_m + (self.beside_m if across > 0 else 0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Problem:
    """One material to be cut: what the solver is given, and what its numbers mean."""

    shell: MaterialPlan
    items: tuple[Item, ...]
    sheets: tuple[Stock, ...]
    sources: tuple[tuple[Source, int | None, float, float], ...]


def left_out_of(needs: Needs, larder: Larder) -> tuple[Phrase, ...]:
    """What no problem is made for, and why: material the stores cannot cut, pieces that could not be worked out."""
    absent: list[tuple[str, SheetNeed | LengthNeed]] = [
        (each.netting, each) for each in needs.sheets if each.netting not in larder.nettings
    ]
    absent += [(each.supply, each) for each in needs.lengths if _cuttable(larder, each.supply) is None]
    found = [
        phrase(
            "{quantity} × {need}, {piece}: the stores have no {key} that is cut by the metre or from "
            "sticks. Add it to the stores.",
            quantity=need.quantity,
            need=need.name,
            piece=need.piece,
            key=key,
        )
        for key, need in absent
    ]
    found += [
        phrase("{name} could not be worked out: nothing but its stems is counted. Settle it first.", name=name)
        for name in needs.not_worked_out
    ]
    return tuple(found)


def _cuttable(larder: Larder, key: str) -> Supply | None:
    supply = larder.supplies.get(key)
    return supply if supply is not None and supply.measured_by in ("length", "stick") else None


def netting_problems(needs: Needs, larder: Larder) -> Iterable[Problem]:
    for key in dict.fromkeys(each.netting for each in needs.sheets):
        if (net := larder.nettings.get(key)) is not None:
            yield _netting_problem([each for each in needs.sheets if each.netting == key], net, larder)


def _netting_problem(sheets: list[SheetNeed], net: Netting, larder: Larder) -> Problem:
    across_m, along_m = nets.pitch_across_m(net), nets.pitch_along_m(net)
    half_m = across_m / _PER_CELL
    items, cut_items = [], []
    for key, need in enumerate(sheets):
        wide, long = need.sheet.width_m, need.sheet.length_m
        items.append(
            Item(
                key=key,
                across=_halves(wide - NARROWER.value * across_m, half_m),
                along=nets.whole_cells(long, along_m),
                count=need.quantity,
                turned=(_halves(long - NARROWER.value * across_m, half_m), nets.whole_cells(wide, along_m))
                if need.may_turn
                else None,
                room=_halves(wide, half_m),
                room_turned=_halves(long, half_m),
                spare=round(WIDER.value * _PER_CELL),
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
    beside_m = BESIDE.value * across_m
    stocks = [
        (
            source,
            number,
            wide,
            long,
            math.floor((wide - beside_m) / half_m + 1e-9),
            math.floor(long / along_m + 1e-9),
            count,
            cost,
        )
        for source, number, wide, long, count, cost in stock
    ]
    items = [
        _full_width(item, need, stocks, NARROWER.value * across_m) for item, need in zip(items, sheets, strict=True)
    ]
    shell = _shell("netting", net.key, net.name, half_m, along_m, tuple(cut_items))
    shell = replace(shell, per_cell=_PER_CELL, beside_m=beside_m)
    return _problem(shell, items, stocks)


def _full_width(item: Item, need: SheetNeed, stocks: list[_Stock], narrower_m: float) -> Item:
    """An item that takes the whole width of the widest stock takes it as it is: no cut lies beside it."""
    _, _, wide_m, _, most, *_ = max(stocks, key=lambda each: each[2])

    def across(least: int, size_m: float) -> int:
        return min(least, most) if size_m - narrower_m <= wide_m + 1e-9 else least

    turned = None if item.turned is None else (across(item.turned[0], need.sheet.length_m), item.turned[1])
    return replace(item, across=across(item.across, need.sheet.width_m), turned=turned)


def _halves(wide_m: float, half_m: float) -> int:
    """Half cells that are at least so wide."""
    return max(1, math.ceil(wide_m / half_m - 1e-6))


def length_problems(needs: Needs, larder: Larder) -> Iterable[Problem]:
    for key in dict.fromkeys(each.supply for each in needs.lengths):
        if (supply := _cuttable(larder, key)) is not None:
            yield _length_problem([each for each in needs.lengths if each.supply == key], supply, larder)


def _length_problem(lengths: list[LengthNeed], supply: Supply, larder: Larder) -> Problem:
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

    stocks: list[_Stock] = []
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
    shell = _shell("supply", supply.key, supply.name, cell, row, tuple(cut_items))
    return _problem(replace(shell, sticks=sticks), items, stocks)


def _shell(
    material: Material, key: str, name: str, cell: float, row: float, items: tuple[CutItem, ...]
) -> MaterialPlan:
    return MaterialPlan(
        material=material,
        key=key,
        name=name,
        sticks=False,
        cell_m=cell,
        row_m=row,
        lost=0,
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
    stocks: list[_Stock],
) -> Problem:
    sheets: list[Stock] = []
    sources: list[tuple[Source, int | None, float, float]] = []
    for source, number, wide, long, across, along, count, cost in stocks:
        if across > 0 and along > 0 and count > 0:
            sheets.append(Stock(key=len(sheets), across=across, along=along, count=count, cost=cost))
            sources.append((source, number, wide, long))
    return Problem(shell=shell, items=tuple(items), sheets=tuple(sheets), sources=tuple(sources))
