"""Flat patterns, read again by readers that are not ours: the same sizes, layers and units."""

import io
import math
import re
from dataclasses import replace
from pathlib import Path

import pdfplumber
import pytest
import trimesh
from svgelements import SVG
from svgelements import Path as SvgPath

from jolly_trellis.core.building.build import build
from jolly_trellis.core.making.patterns import Pattern, patterns_of, ring_pattern, strip_pattern
from jolly_trellis.core.plan.piece import Mechanic, Piece, Spill
from jolly_trellis.core.units import UnitSystem, render
from jolly_trellis.exchange.page import Paper
from jolly_trellis.exchange.pattern_dxf import write_dxf
from jolly_trellis.exchange.pattern_pdf import MARGIN_M, OVERLAP_M, tiles, write_pdf
from jolly_trellis.exchange.pattern_svg import GAP_M, write_svg
from tests.ordinary import STAMP, beside, conditions, on_ledge, piece, recipe, vessels

SYSTEMS: tuple[UnitSystem, ...] = ("metric", "inch")
PAIR = replace(piece(), mechanic=Mechanic(kind="stacked_pair", netting="coated-25-09"))
FROG = replace(
    piece(), vessel=vessels()["low-bowl-26"], mechanic=Mechanic(kind="pin_frog", frog="pin-100", putty=True)
)


def flat(plan: Piece) -> tuple[Pattern, ...]:
    return patterns_of(build(plan, conditions()))


def test_a_cushion_has_its_sheet_with_cells_folds_and_tucks() -> None:
    (sheet,) = flat(piece())
    layers = {line.layer for line in sheet.lines}
    assert layers == {"CUT", "FOLD", "MARK"}
    words = " ".join(label.text for label in sheet.labels)
    assert "cells across" in words
    assert "tuck" in words
    assert "cm (" in words
    assert "twists" in words


def test_folds_and_tuck_are_labelled_as_the_steps_say_them() -> None:
    made = build(piece(), conditions())
    said = " ".join(render(step.say, system) for step in made.mechanic.steps for system in SYSTEMS)
    labels = [label.text for label in flat(piece())[0].labels if label.text.startswith(("fold", "tuck"))]
    assert len(labels) == 3
    for label in labels:
        found = re.search(r"([\d.]+ cm) \((.+ in)\)", label)
        assert found, label
        assert found[1] in said
        assert found[2] in said


@pytest.mark.parametrize("plan", [piece(), PAIR, FROG])
def test_everything_lies_on_its_sheet(plan: Piece) -> None:
    for pattern in flat(plan):
        for line in pattern.lines:
            for x, y in line.points:
                assert -1e-9 <= x <= pattern.width_m + 1e-9
                assert -1e-9 <= y <= pattern.height_m + 1e-9


def test_a_pillow_is_folded_along_its_middles() -> None:
    (square,) = flat(replace(piece(), mechanic=Mechanic(kind="corner_pillow", netting="coated-25-09")))
    diamond = next(line for line in square.lines if line.layer == "FOLD")
    assert len(diamond.points) == 4
    side = math.dist(diamond.points[0], diamond.points[1])
    assert side == pytest.approx(square.width_m / math.sqrt(2))


def test_a_frog_comes_with_its_putty_ring() -> None:
    (frog,) = flat(FROG)
    assert frog.width_m == pytest.approx(0.10)
    assert any("putty" in label.text for label in frog.labels)


def test_lining_and_wrap_are_strips() -> None:
    glass = replace(piece(), vessel=vessels()["cylinder-12"], water_level_m=0.1, lining=True, wrap_height_m=0.08,
                    envelope=replace(piece().envelope, height_m=0.5))  # fmt: skip
    names = {each.name: each for each in flat(glass)}
    assert names["leaf lining strip"].width_m == pytest.approx(math.pi * 0.12)
    assert names["netting round the outside"].height_m == pytest.approx(0.08)


def test_nothing_flat_gives_nothing() -> None:
    assert flat(replace(piece(), mechanic=Mechanic(kind="branch_tangle"))) == ()


@pytest.mark.parametrize("plan", [piece(), PAIR, FROG])
def test_dxf_reopens_with_the_same_size_and_layers(plan: Piece, tmp_path: Path) -> None:
    """Read by trimesh's own DXF reader, which shares nothing with the writer."""
    patterns = flat(plan)
    file = tmp_path / "flat.dxf"
    file.write_text(write_dxf(patterns))
    with file.open() as stream:
        read = trimesh.load_path(stream, file_type="dxf")
    assert read.units in ("millimeters", "mm")
    wide = sum(each.width_m for each in patterns) + GAP_M * (len(patterns) - 1)
    tall = max(each.height_m for each in patterns)
    size = read.bounds[1] - read.bounds[0]
    assert size == pytest.approx([1000 * wide, 1000 * tall], abs=0.01)
    assert {str(layer) for layer in read.layers if layer is not None} >= {"CUT", "MARK"}


@pytest.mark.parametrize("plan", [piece(), PAIR])
def test_svg_reopens_with_the_same_size_and_layers(plan: Piece) -> None:
    """Read by svgelements, which is used nowhere in the writer; 96 user units to the inch."""
    patterns = flat(plan)
    text = write_svg(patterns)
    for layer in ("CUT", "FOLD", "MARK"):
        assert f'<g id="{layer}"' in text
    read = SVG.parse(io.StringIO(text), reify=True, ppi=25.4)
    boxes = [each.bbox() for each in read.elements() if isinstance(each, SvgPath) and len(each)]
    sizes = [(box[2] - box[0], box[3] - box[1]) for box in boxes]
    for pattern in patterns:
        wanted = (1000 * pattern.width_m, 1000 * pattern.height_m)
        assert any(size == pytest.approx(wanted, abs=0.01) for size in sizes)


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_pdf_reopens_at_true_size_on_both_papers(paper: Paper) -> None:
    """Read by pdfplumber: the rectangle that is cut has the sheet's size in points."""
    (sheet,) = flat(piece())
    with pdfplumber.open(io.BytesIO(write_pdf((sheet,), paper=paper, title="Low bowl", stamp=STAMP))) as read:
        columns, rows = tiles(sheet, paper)
        assert len(read.pages) == columns * rows > 1
        width, height = read.pages[0].width, read.pages[0].height
        assert (width, height) == pytest.approx((595.28, 841.89) if paper == "A4" else (612, 792), abs=0.01)
        sizes = {(round(r["width"], 1), round(r["height"], 1)) for page in read.pages for r in page.rects}
        wanted = (round(sheet.width_m / 0.0254 * 72, 1), round(sheet.height_m / 0.0254 * 72, 1))
        assert any(size == pytest.approx(wanted, abs=0.15) for size in sizes)
        bars = [line for line in read.pages[0].lines if abs(line["width"] - 50 / 25.4 * 72) < 0.05]
        assert bars
        assert "50 mm" in read.pages[0].extract_text()
        assert "row 1 of" in read.pages[0].extract_text()


@pytest.mark.parametrize(
    ("wide", "tall", "pages"), [(0.10, 0.10, 1), (0.30, 0.10, 2), (0.10, 0.60, 3), (0.60, 0.80, 16)]
)
def test_as_many_pages_as_it_takes_with_their_overlap(wide: float, tall: float, pages: int) -> None:
    columns, rows = tiles(strip_pattern("strip", wide, tall), "A4")
    assert columns * rows == pages
    assert columns * (0.210 - 2 * MARGIN_M - OVERLAP_M) + OVERLAP_M >= wide - 1e-9


def test_nothing_to_cut_prints_a_page_that_says_so() -> None:
    with pdfplumber.open(io.BytesIO(write_pdf((), paper="A4", title="x", stamp=STAMP))) as read:
        assert "Nothing in this piece" in read.pages[0].extract_text()


def test_the_same_piece_always_prints_the_same_bytes() -> None:
    assert write_pdf(flat(piece()), paper="A4", title="x", stamp=STAMP) == write_pdf(
        flat(piece()), paper="A4", title="x", stamp=STAMP
    )


def test_a_putty_ring_is_two_circles() -> None:
    ring = ring_pattern("ring", 0.12)
    circles = [line for line in ring.lines if line.closed]
    assert len(circles) == 2
    assert "38 cm" in ring.labels[0].text


def test_a_ledge_piece_has_a_pattern_for_every_sheet_that_is_cut() -> None:
    """Its own sheet, the spill's, and the second vessel's, under their names; a DXF with lines for each."""
    spill = Spill(drop_m=0.4, netting="coated-25-09", recipe=recipe(ruscus=(4, "margin")))
    ledge = replace(on_ledge(), companions=(beside(tied=True),), spill=spill)
    made = build(ledge, conditions())
    found = patterns_of(made)
    assert [each.name for each in found] == ["sheet", "spill", "second bowl, sheet"]
    assert made.spill is not None
    sheets = (made.mechanic.flat[0].sheet, made.spill.sheet, made.companions[0].mechanic.flat[0].sheet)
    assert [(each.width_m, each.height_m) for each in found] == [(each.width_m, each.length_m) for each in sheets]
    assert [each.labels[0].text.split(":")[0] for each in found] == ["sheet", "spill", "second bowl, sheet"]
    bare = replace(ledge, mechanic=Mechanic(kind="tape_grid"), companions=())
    assert [each.name for each in patterns_of(build(bare, conditions()))] == ["spill"]
    assert write_dxf(patterns_of(build(bare, conditions()))).count("LWPOLYLINE") > 0


def test_nothing_to_cut_says_so_as_svg_too() -> None:
    assert "Nothing in this piece is cut from the flat." in write_svg(())
