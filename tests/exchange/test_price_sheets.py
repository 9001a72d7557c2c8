"""The price as papers and as CSV: the same numbers as the cost, and no costs on what the client sees."""

import csv
import io
from dataclasses import replace
from decimal import Decimal
from typing import get_args

import pdfplumber
import pytest

from jolly_trellis.core.event.cost.cost import EventCost, cost_of
from jolly_trellis.core.event.job import Costing
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.payment import Payment
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.exchange.price_sheets import Reader, write_csv, write_pdf
from tests.events import demo_made, job, larder, shelves
from tests.ordinary import STAMP, varieties

FULL = Costing(rate_per_h=Decimal("26.00"), per_day=Decimal("55.00"), overheads=0.1, breakage=0.02, tax=0.2)


def cost(costing: Costing = FULL) -> EventCost:
    made, known = demo_made(), varieties()
    needs = needs_of(made)
    bought = buy_stems(needs.stems, known, waste=costing.waste, here={})
    around = replace(job(), costing=costing)
    book = time_book(around, made, known, bought)
    return cost_of(made, needs, bought, larder(), shelves(), known, around, book)


def words_of(page: bytes) -> str:
    with pdfplumber.open(io.BytesIO(page)) as pdf:
        return "\n".join(each.extract_text() for each in pdf.pages)


@pytest.mark.parametrize("reader", ["client", "studio"])
def test_lines_add_up_to_the_sum_that_is_read_back(reader: Reader) -> None:
    found = cost()
    rows = list(csv.DictReader(io.StringIO(write_csv(found, reader))))
    lines = [row for row in rows if row["kind"] != "sum"]
    sums = {row["name"]: Decimal(row["price"]) for row in rows if row["kind"] == "sum"}
    assert len(lines) == len(found.pieces) + len(found.lines)
    for row in lines:
        assert int(row["count"]) * Decimal(row["price_each"]) == Decimal(row["price"])
    assert sum(Decimal(row["price"]) for row in lines) == sums["price"] == found.price
    assert sums["price"] + sums["tax"] == sums["asked"] == found.asked
    assert {row["currency"] for row in rows} == {found.currency}


def test_the_client_reads_no_costs_and_the_studio_all() -> None:
    found = cost()
    client, studio = (words_of(write_pdf(found, reader, stamp=STAMP, paper="A4")) for reader in ("client", "studio"))
    assert f"To ask: {found.currency} {found.asked}" in client
    assert f"To ask: {found.currency} {found.asked}" in studio
    for each in found.pieces:
        assert str(each.price) in client
        assert str(each.cost) in studio
        assert str(each.cost) not in client
        assert str(each.labour) not in client
    assert "cost" not in csv.DictReader(io.StringIO(write_csv(found, "client"))).fieldnames  # type: ignore[operator]


def test_what_is_not_known_is_said_and_not_asked() -> None:
    found = cost(Costing())
    client = words_of(write_pdf(found, "client", stamp=STAMP, paper="Letter"))
    assert "Price: cannot say" in client
    studio = words_of(write_pdf(found, "studio", stamp=STAMP, paper="Letter"))
    assert "what an hour of work costs" in studio
    assert "the vehicle" in studio
    least = words_of(write_pdf(cost(replace(FULL, per_day=None)), "client", stamp=STAMP, paper="A4"))
    assert "at least" in least


def test_a_deposit_and_what_is_paid_are_on_both_sheets() -> None:
    due = Payment(deposit=Decimal("40.00"), paid=Decimal("15.00"), deposit_due=Decimal("25.00"), due=Decimal("85.00"))
    for reader in get_args(Reader):
        rows = {row["name"]: row["price"] for row in csv.DictReader(io.StringIO(write_csv(cost(), reader, due)))}
        assert (rows["deposit"], rows["paid"], rows["due"]) == ("40.00", "15.00", "85.00")
        assert "Deposit: € 40.00" in words_of(write_pdf(cost(), reader, stamp=STAMP, paper="A4", payment=due))
    nothing = replace(due, deposit=Decimal("0.00"), paid=Decimal("0.00"))
    assert "deposit" not in write_csv(cost(), "client", nothing)
