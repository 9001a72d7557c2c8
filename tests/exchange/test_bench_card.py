"""The bench card read back with a PDF library: one page on both papers, both units, gates, verdicts, cautions."""

import io
from dataclasses import replace

import pdfplumber
import pytest

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.looking import looking_at
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.plan.piece import Making, Piece, Spill
from jolly_trellis.core.quantities import length
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.bench_card import to_cut, write_card
from jolly_trellis.exchange.pattern_pdf import Paper
from tests.ordinary import beside, bouquet, conditions, on_ledge, piece, recipe, stems

SPILL = Spill(drop_m=0.5, recipe=recipe(ruscus=(8, "base")), hook_n=60.0, hook_stated_by="the warden")
PIECES = {
    "bowl": piece(),
    "full bowl": stems(piece(), 120),
    "ledge": replace(on_ledge(), spill=SPILL, companions=(beside(tied=True),)),
    "bouquet": bouquet(),
    "bare": replace(piece(), recipe=()),
}


def card(each: Piece, paper: Paper = "A4", system: UnitSystem = "metric") -> bytes:
    report = evaluate(each, conditions(), with_fixes=False)
    making = making_of(each, conditions(), with_fixes=False)
    with conditions().figures.open():
        looking = looking_at(build(each, conditions()), report.picture.eyes)
    return write_card(each, report, making, looking, event="Slipway lunch", paper=paper, system=system)


def words(page: bytes) -> str:
    with pdfplumber.open(io.BytesIO(page)) as pdf:
        assert len(pdf.pages) == 1
        return " ".join((pdf.pages[0].extract_text() or "").split())


@pytest.mark.parametrize("name", PIECES)
@pytest.mark.parametrize(("paper", "size"), [("A4", (595.3, 841.9)), ("Letter", (612.0, 792.0))])
def test_everything_fits_on_one_page(name: str, paper: Paper, size: tuple[float, float]) -> None:
    with pdfplumber.open(io.BytesIO(card(PIECES[name], paper))) as pdf:
        assert len(pdf.pages) == 1
        page = pdf.pages[0]
        assert (page.width, page.height) == pytest.approx(size, abs=0.1)
        inside = [each for each in page.chars if each["x0"] >= 0 and each["x1"] <= page.width and each["top"] >= 0]
        assert len(inside) == len(page.chars)


def test_sizes_to_cut_are_in_both_units_the_readers_first() -> None:
    assert to_cut(length(0.48), "metric") == "48 cm (19 in)"
    assert to_cut(length(0.48), "inch") == "19 in (48 cm)"
    sheet = evaluate(piece(), conditions(), with_fixes=False).mechanic.flat[0].sheet
    assert to_cut(length(sheet.length_m), "metric") in words(card(piece()))


def test_the_card_has_its_parts() -> None:
    said = words(card(piece()))
    for part in (
        "Cut and take",
        "Water above the inside floor",
        "Stems by cut length",
        "Making order",
        "Verdicts",
        "Cautions",
    ):
        assert part in said
    assert "Stand: HOLDS" in said
    assert "gloves, eye protection" in said
    assert "safe" not in said.lower()


def test_gates_are_boxes_that_keep_their_tick() -> None:
    assert "[x]" not in words(card(piece()))
    assert "[x]" in words(card(replace(piece(), making=Making(gates_passed=("tucked",)))))


def test_a_piece_that_falls_while_made_says_so_and_a_prop_is_written_down() -> None:
    falls = replace(on_ledge(), envelope=replace(on_ledge().envelope, depth_m=1.1), making=Making(water_last=True))
    assert "While being made, at" in words(card(falls))
    assert "Propped, or held by somebody" in words(card(replace(falls, making=Making(propped=True))))


def test_a_ledge_card_has_its_spill_its_other_vessel_and_its_cautions() -> None:
    said = words(card(PIECES["ledge"]))
    assert "for the spill" in said
    assert "second bowl" in said
    assert "Nobody stands under a ledge piece" in said
    assert "What hangs over people" in said


def test_a_bouquets_card_is_for_whoever_carries_it() -> None:
    said = words(card(bouquet()))
    assert "Carry card" in said
    assert "hold it below the binding" in said
    assert "handed over at" in said


def test_names_are_words_and_never_markup() -> None:
    odd = replace(piece(), name="<b>Bowl & <font size=90>sons</font>")
    assert "<b>Bowl & <font" in words(card(odd))
