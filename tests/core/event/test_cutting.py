"""Cut plans: each validated by geometry written apart from the planner, known optima met, a library matched."""

import inspect
import random
from typing import Any

import pytest
import rectpack
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.event.cutting.cut_plan import cut
from jolly_trellis.core.event.cutting.cutting import Cutting, Item, Progress, Stock
from tests.cutting_check import guillotine, problems_of
from tests.generated import examples


def items_of(*sizes: tuple[int, int, int], turn: bool = False) -> tuple[Item, ...]:
    return tuple(
        Item(key=key, across=across, along=along, count=count, turned=(along, across) if turn else None)
        for key, (across, along, count) in enumerate(sizes)
    )


def planned(items: tuple[Item, ...], sheets: tuple[Stock, ...], *, kerf: int = 0, seconds: float = 3.0) -> Cutting:
    plan = cut(items, sheets, kerf=kerf, seconds=seconds)
    assert problems_of(plan, items, sheets, kerf) == []
    return plan


@pytest.mark.parametrize(
    ("sizes", "across", "rows", "kerf"),
    [
        (((5, 10, 4),), 10, 20, 0),
        (((5, 10, 4),), 11, 22, 1),
        (((4, 6, 6), (12, 3, 1)), 12, 15, 0),
        (((6, 10, 1), (6, 5, 2), (3, 4, 1), (9, 4, 1)), 12, 14, 0),
        (((3, 5, 8), (4, 5, 3)), 12, 15, 0),
    ],
    ids=["four quarters", "four quarters and the lost cell", "rows of three", "a stack beside a piece", "mixed rows"],
)
def test_sheets_that_divide_without_waste_are_cut_without_waste(
    sizes: tuple[tuple[int, int, int], ...], across: int, rows: int, kerf: int
) -> None:
    """Known optima: each set of pieces tiles its stock, by construction."""
    plan = planned(items_of(*sizes), (Stock(key=0, across=across, along=500, count=1),), kerf=kerf)
    assert plan.used[0].rows == rows
    assert plan.unplaced == ()


@pytest.mark.parametrize(
    ("lengths", "stock", "optimum"),
    [
        # Gilmore and Gomory's small example as many textbooks print it: 97 × 45, 610 × 36, 395 × 31, 211 × 14 from 100
        (((45, 97), (36, 610), (31, 395), (14, 211)), 100, 453),
        (((22, 2), (25, 2), (27, 1), (29, 4)), 56, 5),
        (((3, 25), (5, 20), (6, 18)), 11, 27),
    ],
    ids=["textbook, from memory", "worked by hand", "worked from the bound"],
)
def test_lengths_are_cut_from_the_fewest_sticks(
    lengths: tuple[tuple[int, int], ...], stock: int, optimum: int
) -> None:
    items = tuple(Item(key=key, across=long, along=1, count=count) for key, (long, count) in enumerate(lengths))
    plan = planned(items, (Stock(key=0, across=stock, along=2000, count=1),), seconds=60.0)
    assert sum(used.rows for used in plan.used) == optimum


def test_the_bound_is_under_the_plan_and_over_the_area() -> None:
    items = items_of((7, 12, 9), (5, 9, 14), (8, 20, 5))
    plan = planned(items, (Stock(key=0, across=19, along=900, count=1),), kerf=1)
    assert plan.area_needed <= plan.bound <= plan.area_used + 19


def test_turning_helps_where_it_is_allowed_and_is_left_where_it_is_not() -> None:
    """Ten of 9 × 20 on a roll 20 wide: turned, each takes 9 rows; as they lie, two beside each other take 20."""
    upright = planned(items_of((9, 20, 10)), (Stock(key=0, across=20, along=900, count=1),))
    turned = planned(items_of((9, 20, 10), turn=True), (Stock(key=0, across=20, along=900, count=1),))
    assert upright.used[0].rows == 100
    assert turned.used[0].rows == 90
    assert not any(piece.turned for piece in upright.used[0].placed)
    assert all(piece.turned for piece in turned.used[0].placed)


def test_remnants_and_rolls_that_are_here_go_before_rolls_to_buy() -> None:
    stock = (
        Stock(key=0, across=10, along=40, count=1),
        Stock(key=1, across=20, along=60, count=1),
        Stock(key=2, across=20, along=60, count=3, cost=1900),
    )
    plan = planned(items_of((10, 20, 8)), stock)
    assert {used.sheet for used in plan.used} == {0, 1}
    more = planned(items_of((10, 20, 9)), stock)
    assert [used.sheet for used in more.used].count(2) == 1


def test_a_piece_wider_than_any_roll_is_named_and_the_rest_is_cut() -> None:
    plan = planned(items_of((30, 5, 2), (10, 5, 4)), (Stock(key=0, across=20, along=90, count=1),))
    assert plan.unplaced == ((0, 2),)
    assert len(plan.used[0].placed) == 4


def test_what_there_is_no_stock_left_for_is_named() -> None:
    plan = planned(items_of((10, 30, 5)), (Stock(key=0, across=20, along=60, count=1),))
    assert plan.unplaced == ((0, 1),)


def test_no_items_make_an_empty_plan() -> None:
    assert planned((), (Stock(key=0, across=20, along=60, count=1),)).used == ()


def test_better_plans_are_told_and_a_stop_keeps_the_best() -> None:
    told: list[Cutting] = []
    drawn = random.Random(5)
    sizes = tuple((drawn.randint(4, 15), drawn.randint(5, 30), 1) for _ in range(60))
    sheets = (Stock(key=0, across=19, along=5000, count=1),)
    stopped = cut(
        items_of(*sizes), sheets, kerf=1, seconds=30.0, progress=Progress(tell=told.append, stop=lambda: bool(told))
    )
    assert problems_of(stopped, items_of(*sizes), sheets, 1) == []
    assert len(told) <= 2
    assert stopped.area_used == told[0].area_used


def test_eighty_pieces_are_never_worse_than_a_packing_library() -> None:
    """Against rectpack, every algorithm and order of its own, on the same random set: it may not even cut through."""
    drawn = random.Random(3)
    sizes = [(drawn.randint(4, 18), drawn.randint(5, 40)) for _ in range(8)]
    items = items_of(*((across, along, 10) for across, along in sizes), turn=True)
    sheets = (Stock(key=0, across=20, along=5000, count=1),)
    plan = planned(items, sheets, kerf=1, seconds=60.0)
    assert plan.used[0].rows <= library_rows(items, 20, 1)


def library_rows(items: tuple[Item, ...], across: int, kerf: int) -> int:
    """Rows that the best of rectpack's algorithms takes, the last cut counted."""
    algorithms = [
        each
        for name, each in vars(rectpack).items()
        if inspect.isclass(each) and name.startswith(("MaxRects", "Guillotine", "Skyline")) and len(name) > 10
    ]
    best = 10**9
    for algorithm in algorithms:
        packer: Any = rectpack.newPacker(mode=rectpack.PackingMode.Offline, pack_algo=algorithm, rotation=True)
        packer.add_bin(across + kerf, 10_000)
        for item in items:
            for _ in range(item.count):
                packer.add_rect(item.across + kerf, item.along + kerf)
        packer.pack()
        placed = packer.rect_list()
        if len(placed) == sum(item.count for item in items):
            best = min(best, max(y + long for _, _, y, _, long, _ in placed))
    return best


@st.composite
def sets(draw: st.DrawFn) -> tuple[tuple[Item, ...], tuple[Stock, ...], int]:
    kinds = draw(st.integers(1, 7))
    kerf = draw(st.integers(0, 2))
    items = items_of(
        *((draw(st.integers(1, 25)), draw(st.integers(1, 30)), draw(st.integers(1, 5))) for _ in range(kinds)),
        turn=draw(st.booleans()),
    )
    sheets = tuple(
        Stock(
            key=key,
            across=draw(st.integers(5, 22)),
            along=draw(st.integers(10, 90)),
            count=draw(st.integers(1, 2)),
            cost=draw(st.sampled_from([0, 0, 1500])),
        )
        for key in range(draw(st.integers(1, 3)))
    )
    return items, sheets, kerf


@examples(25)
@given(sets())
def test_every_plan_can_be_cut_as_it_stands(given_set: tuple[tuple[Item, ...], tuple[Stock, ...], int]) -> None:
    items, sheets, kerf = given_set
    planned(items, sheets, kerf=kerf, seconds=0.3)


def test_the_check_itself_knows_a_plan_that_cannot_be_cut_through() -> None:
    """The pinwheel: five boxes that no edge-to-edge cut divides (folklore of cutting and packing)."""
    pinwheel = [(0, 0, 2, 1), (2, 0, 1, 2), (1, 2, 2, 1), (0, 1, 1, 2), (1, 1, 1, 1)]
    assert not guillotine(pinwheel, 0)
    assert guillotine(pinwheel[:2], 0)
