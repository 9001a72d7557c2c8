"""Cut plan, shopping list and venue pack as files: complete, in either unit system, and nothing in them runs away."""

import csv
import io
import re
from dataclasses import replace
from datetime import date
from decimal import Decimal
from html import unescape
from html.parser import HTMLParser

import pdfplumber
import pytest
from reportlab.lib.colors import HexColor

from jolly_trellis.core.event.buying.shopping import Shopping, shopping
from jolly_trellis.core.event.cutting.roll import CutPlan, cut_plan
from jolly_trellis.core.event.day.day import day_of
from jolly_trellis.core.event.job import Made
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.cut_sheets import write_cut_sheets
from jolly_trellis.exchange.shopping_list import COLUMNS, heading_of, write_csv, write_pdf
from jolly_trellis.exchange.svg_page import SvgPage
from jolly_trellis.exchange.venue_pack import Pack, write_pack
from tests.events import demo_made, job, larder, one_bowl, shelves
from tests.ordinary import STAMP, conditions, varieties


def cuts() -> CutPlan:
    return cut_plan(needs_of(demo_made()), larder(), seconds=1.0)


def bought() -> Shopping:
    made = demo_made()
    water = water_rounds(job(), made, conditions())
    return shopping(job(), made, needs_of(made), cuts(), larder(), shelves(), varieties(), water)


def words_of(page: bytes) -> str:
    with pdfplumber.open(io.BytesIO(page)) as pdf:
        return "\n".join(each.extract_text() for each in pdf.pages)


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_the_cut_plan_has_a_page_for_each_roll_and_every_piece_on_it(system: UnitSystem) -> None:
    needs = needs_of(demo_made())
    too_wide = replace(
        needs.sheets[0], name="curtain", sheet=replace(needs.sheets[0].sheet, width_m=1.9, length_m=2.0)
    )
    plan = cut_plan(replace(needs, sheets=(*needs.sheets, too_wide)), larder(), seconds=1.0)
    page = write_cut_sheets(plan, stamp=STAMP, paper="A4", system=system)
    text = words_of(page)
    rolls = sum(len(each.stocks) for each in plan.materials if each.material == "netting")
    with pdfplumber.open(io.BytesIO(page)) as pdf:
        begun = [each for each in pdf.pages if "continued" not in (each.extract_text() or "")]
        assert len(begun) == rolls + 1
    for material in plan.materials:
        assert material.name in text
    assert "Order of cuts" in text
    assert "Cannot be cut" in text
    assert "gloves, eye protection" in text


def test_an_empty_cut_plan_says_so() -> None:
    page = write_cut_sheets(CutPlan(materials=()), stamp=STAMP, paper="Letter", system="inch")
    assert "Nothing in this event is cut" in words_of(page)


def test_the_shopping_list_as_csv_opens_in_a_reader_of_csv_and_says_what_the_list_says() -> None:
    """Read back with nothing but a reader of CSV: numbers are numbers, one unit a column, every line is there once."""
    found = bought()
    rows = list(csv.DictReader(io.StringIO(write_csv(found))))
    assert tuple(rows[0]) == COLUMNS
    stems = {row["key"]: row for row in rows if row["group"] == "flowers"}
    assert len(stems) == len(found.stems)
    for each in found.stems:
        row = stems[each.variety]
        packs, singles, here = (int(row[name]) for name in ("buy_packs", "buy_singles", "here_count"))
        assert packs * each.bunch_size + singles + here >= each.with_waste
        assert (Decimal(row["price"]), int(row["left_over_count"])) == (each.cost, each.left_over)
        trip = next(trip for trip in found.trips if each.variety in trip.varieties)
        assert (row["supplier"], date.fromisoformat(row["buy_on"])) == (trip.supplier, trip.day)
    for buy in found.buys:
        row = next(row for row in rows if row["key"] == buy.key and row["group"] == buy.group)
        units = [name for name in ("needed_count", "needed_m", "needed_kg") if row[name]]
        assert len(units) == 1
        assert float(row[units[0]]) == pytest.approx(buy.needed.value, rel=1e-5)
        assert int(row["buy_packs"]) == buy.packs
    total = sum(Decimal(row["price"]) for row in rows if row["price"])
    assert total == found.cost


def test_trips_are_the_lots_of_the_book_of_time_and_cost_what_their_stems_do() -> None:
    found = bought()
    fetched = sorted(key for trip in found.trips for key in trip.varieties)
    assert fetched == sorted(each.variety for each in found.stems)
    for trip in found.trips:
        assert trip.cost == sum(each.cost or 0 for each in found.stems if each.variety in trip.varieties)
    words = words_of(write_pdf(found, stamp=STAMP, currency="EUR", paper="A4", system="metric"))
    for trip in found.trips:
        assert heading_of(trip) in words
    first = replace(found, trips=found.trips[:1])
    assert "Stems that are here" in words_of(
        write_pdf(first, stamp=STAMP, currency="EUR", paper="A4", system="metric")
    )


def test_each_group_of_the_list_stands_together() -> None:
    groups = [row["group"] for row in csv.DictReader(io.StringIO(write_csv(bought())))]
    runs = [group for place, group in enumerate(groups) if place == 0 or groups[place - 1] != group]
    assert len(runs) == len(set(runs))
    assert runs[0] == "flowers"


def test_the_shopping_list_as_pdf_has_every_line() -> None:
    found = bought()
    text = words_of(write_pdf(found, stamp=STAMP, currency="€", paper="A4", system="metric"))
    for stem in found.stems:
        assert stem.name in text
    assert f"With a known price: € {found.cost}" in text
    assert "Emergency kit" in text


class Links(HTMLParser):
    """Every address that a page refers to, and every id it has."""

    def __init__(self) -> None:
        super().__init__()
        self.out: list[str] = []
        self.ids: set[str] = set()
        self.ticks: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        for name, value in attrs:
            if name in ("href", "src", "srcset", "action", "data", "poster") and value and not value.startswith("#"):
                self.out.append(value)
            if name == "id" and value:
                self.ids.add(value)
            if name == "data-tick" and value:
                self.ticks.append(value)


def pack(name: str = "Slipway lunch") -> Pack:
    made = demo_made()
    return Pack(
        event_id=7,
        name=name,
        place="the slipway",
        job=job(),
        made=made,
        day=day_of(job(), made, varieties()),
        water=water_rounds(job(), made, conditions()),
        shopping=bought(),
        made_for="0" * 64,
    )


def test_the_venue_pack_is_one_file_with_no_outside_reference_under_two_megabytes() -> None:
    html = write_pack(pack(), system="metric")
    links = Links()
    links.feed(html)
    assert links.out == []
    assert not re.search(r"url\(|@import|https?://(?!www\.w3\.org/2000/svg)", html)
    assert len(html.encode()) < 2_000_000
    assert {"day", "water", "line-up", "rigs", "bench", "lists"} <= links.ids
    assert len(links.ticks) == len(set(links.ticks))


@pytest.mark.parametrize("system", ["inch", pytest.param("metric", marks=pytest.mark.long)])
def test_the_venue_pack_has_every_task_rig_piece_and_round(system: UnitSystem) -> None:
    asked = pack()
    html = write_pack(asked, system=system)
    for timed in asked.day.timed:
        assert timed.task.name in unescape(html)
        assert (f'data-tick="day {timed.task.key}"' in html) == (timed.task.gate is None)
    assert any(timed.task.gate is not None for timed in asked.day.timed)
    for rig in asked.made.rigs:
        assert rig.rig.name in html
    assert html.count("<svg") == len(asked.made.pieces) + sum(each.report is not None for each in asked.made.rigs)
    assert "NOT CLEARED" in html
    assert "bellflower lasts 3 h 3 min" in html
    assert ("43.38 L" in html or "in all. Who" in html) if system == "metric" else "fl oz in all" in html


def test_a_name_that_would_run_is_only_text() -> None:
    html = write_pack(pack("<script>alert(1)</script>"), system="metric")
    assert "<script>alert" not in html
    assert "&lt;script&gt;alert(1)&lt;/script&gt;" in html


def test_a_drawing_page_writes_balanced_groups_and_plain_shapes() -> None:
    page = SvgPage(100, 50)
    page.setStrokeColor(HexColor("#102030"))
    page.saveState()
    page.translate(10, 5)
    page.scale(2, 2)
    path = page.beginPath()
    path.moveTo(0, 0)
    path.lineTo(1, 1)
    path.close()
    page.drawPath(path)
    page.restoreState()
    page.circle(1, 2, 3)
    svg = page.svg('a "drawing"')
    assert svg.count("<g") == svg.count("</g>")
    assert 'd="M0 0L1 1Z"' in svg
    assert 'stroke="#102030"' in svg
    assert "a &quot;drawing&quot;" in svg


def test_what_could_not_be_worked_out_stands_on_every_paper() -> None:
    work = one_bowl(1).pieces[0]
    name, made = work.piece.name, Made(pieces=(replace(work, report=None),))
    needs, around = needs_of(made), conditions()
    plan, water = cut_plan(needs, larder(), seconds=0.2), water_rounds(job(), made, around)
    found = shopping(job(), made, needs, plan, larder(), shelves(), varieties(), water)
    assert f"{name} could not be worked out" in words_of(
        write_cut_sheets(plan, stamp=STAMP, paper="A4", system="metric")
    )
    assert f"{name} could not be worked out" in words_of(
        write_pdf(found, stamp=STAMP, currency="EUR", paper="A4", system="metric")
    )
    assert f"left out,,{name} could not be worked out" in write_csv(found)
    asked = replace(pack(), made=made, water=water, shopping=found)
    text = write_pack(asked, system="metric")
    assert f"{name} could not be worked out: its water is not in this sum." in text
    assert "there is no drawing, no figure and no step for it" in text
