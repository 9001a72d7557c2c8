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
from jolly_trellis.exchange.page import Paper
from tests.ordinary import STAMP, beside, bouquet, conditions, on_ledge, piece, recipe, stems

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
    return write_card(each, report, making, looking, stamp=STAMP, paper=paper, system=system)


def words(page: bytes) -> str:
    with pdfplumber.open(io.BytesIO(page)) as pdf:
        return " ".join(" ".join(each.extract_text() or "" for each in pdf.pages).split())


@pytest.mark.parametrize("name", PIECES)
@pytest.mark.parametrize(("paper", "size"), [("A4", (595.3, 841.9)), ("Letter", (612.0, 792.0))])
def test_everything_is_on_its_pages_large_enough_to_read(name: str, paper: Paper, size: tuple[float, float]) -> None:
    """8 pt and up, inside the page; an ordinary piece on one page, a full one goes on; each says what it is of."""
    with pdfplumber.open(io.BytesIO(card(PIECES[name], paper))) as pdf:
        assert len(pdf.pages) <= (3 if name in ("full bowl", "ledge") else 1) + (paper == "Letter")
        for number, page in enumerate(pdf.pages, start=1):
            assert (page.width, page.height) == pytest.approx(size, abs=0.1)
            assert all(each["x0"] >= 0 and each["x1"] <= page.width and each["top"] >= 0 for each in page.chars)
            assert all(each["bottom"] <= page.height for each in page.chars)
            assert min(each["size"] for each in page.chars) >= 8 - 1e-6
            said = " ".join((page.extract_text() or "").split())
            assert f"12 May 2027 · revision 7 · page {number} of {len(pdf.pages)}" in said
            assert f"Slipway lunch · {PIECES[name].name}" in said


@pytest.mark.parametrize("name", PIECES)
def test_no_words_lie_over_other_words(name: str) -> None:
    """Lines of one paper by their boxes: none covers another, nor leaves its column."""
    with pdfplumber.open(io.BytesIO(card(PIECES[name]))) as pdf:
        for page in pdf.pages:
            lines = page.extract_words(keep_blank_chars=False, use_text_flow=False)
            boxes = [(each["x0"], each["x1"], each["top"] + 1.5, each["bottom"] - 1.5) for each in lines]
            for at, (left, right, top, bottom) in enumerate(boxes):
                for other_left, other_right, other_top, other_bottom in boxes[at + 1 :]:
                    over = min(right, other_right) - max(left, other_left)
                    down = min(bottom, other_bottom) - max(top, other_top)
                    assert over <= 0.5 or down <= 0.5


def test_faces_are_embedded_and_letters_of_other_scripts_are_kept() -> None:
    """Greek and Cyrillic in a face of ours, what none of ours has in the reader's own; read back as typed."""
    name = "Ανθός <b> Ласточка 花束 Łódź"
    page = card(replace(piece(), name=name))
    said = words(page)
    for word in ("Ανθός", "Ласточка", "花束", "Łódź", "<b>"):
        assert word in said
    with pdfplumber.open(io.BytesIO(page)) as pdf:
        faces = {each["fontname"].split("+")[-1] for each in pdf.pages[0].chars}
        assert pdf.doc.catalog["Lang"] == b"en-GB"
        assert "Low bowl" not in (pdf.metadata.get("Title") or "")
        assert "Ανθός" in pdf.metadata["Title"]
    assert any("Atkinson" in each for each in faces)
    assert any("Fraunces" in each for each in faces)
    assert not any("Helvetica" in each for each in faces)


def test_the_longest_name_is_cut_short_in_the_head_and_foot() -> None:
    with pdfplumber.open(
        io.BytesIO(card(replace(piece(), name=("long table low bowl of early summer " * 5)[:120])))
    ) as pdf:
        page = pdf.pages[0]
        assert max(each["x1"] for each in page.chars) <= page.width - 25
        assert "…" in (page.extract_text() or "")


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
