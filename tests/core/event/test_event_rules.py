"""What holds for any event, whatever is in it: nothing is poured, cut or bought twice, and nothing is lost."""

from collections import Counter
from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.event.cutting.roll import CutPlan, cut_plan
from jolly_trellis.core.event.job import Made
from jolly_trellis.core.event.needs.bunches import buy_stems, stems_with_waste
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.water_rounds import TOGETHER, water_rounds
from jolly_trellis.core.plan.setting import TopUp
from tests.events import demo_made, job, larder, one_bowl
from tests.generated import examples
from tests.ordinary import conditions, varieties

top_ups = st.lists(
    st.builds(TopUp, after_h=st.floats(0.25, 12).map(lambda x: round(x, 2)), volume_l=st.floats(0.01, 2)), max_size=6
)


@examples(60)
@given(pours=st.lists(top_ups, min_size=1, max_size=4), quantity=st.integers(1, 12))
def test_every_top_up_is_in_one_round_and_the_litres_add_up(pours: list[list[TopUp]], quantity: int) -> None:
    work = one_bowl(1).pieces[0]
    made = Made(
        pieces=tuple(
            replace(work, id=nth, piece=replace(work.piece, quantity=quantity, top_ups=tuple(each)))
            for nth, each in enumerate(pours, start=1)
        )
    )
    found = water_rounds(job(), made, conditions())
    poured = Counter(pour.piece_id for each in found.rounds for pour in each.pours)
    assert poured == Counter({nth: len(each) for nth, each in enumerate(pours, start=1) if each})
    litres = quantity * sum(each.volume_l for piece in pours for each in piece)
    assert sum(each.litres for each in found.rounds) == pytest.approx(litres)
    assert found.total_l == pytest.approx(found.fill_l + litres)
    times = [each.at for each in found.rounds]
    assert times == sorted(times)
    gap = timedelta(hours=TOGETHER.value)
    assert all(later - earlier > gap for earlier, later in pairwise(times))


def placed_and_missing(plan: CutPlan) -> tuple[Counter[str], Counter[str]]:
    """Pieces on a stock, and kinds of piece that could not be cut, by their label."""
    placed: Counter[str] = Counter()
    missing: Counter[str] = Counter()
    for material in plan.materials:
        for piece in (each for stock in material.stocks for each in stock.pieces):
            placed[material.items[piece.item].label] += 1
        for item in material.items:
            missing[item.label] += sum(item.label in each.text for each in material.missing)
    return placed, missing


@examples(8)
@given(chosen=st.lists(st.integers(0, 8), min_size=1, max_size=4, unique=True), quantity=st.integers(1, 5))
def test_every_piece_to_cut_is_on_a_stock_or_is_named_as_missing(chosen: list[int], quantity: int) -> None:
    known = demo_made().pieces
    works = [replace(known[at], piece=replace(known[at].piece, quantity=quantity)) for at in chosen]
    needs = needs_of(Made(pieces=tuple(works)))
    placed, missing = placed_and_missing(cut_plan(needs, larder(), seconds=0.3))
    wanted: Counter[str] = Counter()
    for sheet in needs.sheets:
        wanted[f"{sheet.name}, {sheet.piece}"] += sheet.quantity
    for cut in needs.lengths:
        wanted[f"{cut.name}, {cut.piece}"] += cut.quantity
    assert set(placed) <= set(wanted)
    for label, number in wanted.items():
        assert placed[label] == number or missing[label] > 0, label


@examples(80)
@given(
    counts=st.dictionaries(st.sampled_from(sorted(varieties())), st.integers(1, 200), min_size=1, max_size=6),
    waste=st.floats(0, 0.4),
    here=st.integers(0, 250),
)
def test_stems_bought_with_those_here_are_enough_and_never_a_bunch_too_many(
    counts: dict[str, int], waste: float, here: int
) -> None:
    stems = [StemNeed(piece_id=1, piece="a", variety=key, count=count) for key, count in counts.items()]
    shelf = dict.fromkeys(counts, here)
    rows = {each.variety: each for each in buy_stems(stems, varieties(), waste=waste, here=shelf)}
    assert set(rows) == set(counts)
    for key, row in rows.items():
        need = max(stems_with_waste(counts[key], waste) - here, 0)
        bought = row.bunches * row.bunch_size + row.singles
        assert bought >= need
        assert bought - need < row.bunch_size
        assert (bought == 0) == (need == 0)
        assert row.cost is None or row.cost >= Decimal("0.00")
        if here >= row.with_waste:
            assert row.cost == Decimal("0.00")


def test_one_order_for_many_pieces_costs_no_more_than_an_order_for_each() -> None:
    stems = needs_of(demo_made()).stems
    together = buy_stems(stems, varieties(), waste=0.0, here={})
    alone = [row for each in stems for row in buy_stems([each], varieties(), waste=0.0, here={})]
    for row in together:
        apart = sum((each.cost for each in alone if each.variety == row.variety and each.cost), Decimal("0.00"))
        assert row.cost is None or row.cost <= apart, row.variety
