"""The book of figures: every constant as it was last agreed, opened and closed, own figures and their bounds."""

import ast
import contextvars
import math
import threading
from contextvars import copy_context
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import jolly_trellis.core
from jolly_trellis.core.books.figures import SPREAD, OwnFigure, book_of, read_book
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.method import CONSTANTS, PROGRAM, all_constants
from jolly_trellis.core.rigging import lines
from jolly_trellis.core.rigging.findings import BOND_FACTOR
from jolly_trellis.core.rigging.loads import PROOF
from tests import figures_table, ordinary

FIXED = {key for key, each in CONSTANTS.items() if each.sort == "standard"}


def test_every_constant_is_as_it_was_last_agreed() -> None:
    now, was = set(figures_table.rows()), set(figures_table.kept())
    moved = [f"- {','.join(each)}" for each in sorted(was - now)] + [
        f"+ {','.join(each)}" for each in sorted(now - was)
    ]
    assert not moved, "\n".join(moved)


def test_no_constant_is_left_out_of_the_book() -> None:
    """As many are declared in the source as are in the book, those declared in a loop counted by their rows."""
    declared = 0
    for file in Path(jolly_trellis.core.__file__).parent.rglob("*.py"):
        if file.name == "figures.py":
            continue
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                named = node.args and isinstance(node.args[0], (ast.Constant, ast.Call))
                declared += bool(named) and node.func.id in ("measure", "rule", "standard")
    in_loops = 2 * 6 - 2 + 6 - 1 + 6 - 1  # reach of six roles, least and most; six Beaufort forces; six of hardware
    assert declared + in_loops == len(CONSTANTS)
    assert len({each.label for _, listed in all_constants() for each in listed}) == len(CONSTANTS)


def test_measures_have_a_spread_and_rules_have_none() -> None:
    for each in CONSTANTS.values():
        assert (each.spread > 0) == (each.sort == "measure"), each.label
        assert each.provenance.kind in SPREAD
        if each.provenance.kind == "published":
            assert each.provenance.source, each.label
    assert CONSTANTS["friction-glass-on-wood-dry"].spread == 0.25
    assert CONSTANTS["knot-in-monofilament-keeps-of-its-strength"].spread == 0.15


def test_what_holds_over_people_may_only_be_made_more_careful() -> None:
    """Strengths and efficiencies of lines down, factors and clearances up; stiffness and mass of lines either way."""
    of_lines = [
        *lines.STEEL_BREAKING.values(),
        *lines.CORD_BREAKING.values(),
        *lines.TIE_STRENGTH.values(),
        lines.KNOT_MONOFILAMENT,
        lines.KNOT_CORD,
        lines.SPLICE,
        lines.FERRULE,
        lines.GRIP,
        lines.STAINLESS,
        lines.WET,
        lines.EDGE,
    ]
    assert {each.cautious for each in of_lines} == {"down"}
    factors = [lines.FACTOR_PEOPLE, lines.FACTOR_NOBODY, lines.FACTOR_GONE, CONTINGENCY, HANDLING, PROOF, BOND_FACTOR]
    assert {each.cautious for each in factors} == {"up"}
    assert {each.cautious for each in lines.STEEL_EA.values()} == {"either way"}


def test_no_number_without_an_open_book() -> None:
    constant = CONSTANTS["tip-angle-a-low-piece-needs"]
    with pytest.raises(LookupError):
        contextvars.Context().run(lambda: constant.value)


def test_a_book_that_was_opened_is_closed_again_and_another_thread_has_its_own() -> None:
    key = "friction-at-a-dry-joint"
    own = book_of(CONSTANTS, {key: OwnFigure(value=0.31, reason="pulled with a scale")})
    seen: list[float] = []
    with own.open():
        inside = CONSTANTS[key]
        assert (inside.value, inside.quantity.value) == (0.31, 0.31)
        assert inside.figure.provenance.source == "pulled with a scale"
        other = threading.Thread(target=copy_context().run, args=(lambda: seen.append(inside.value),))
        other.start()
        other.join()
        with PROGRAM.open():
            assert inside.value == 0.25
        assert inside.value == 0.31
    assert CONSTANTS[key].value == 0.25
    assert seen == [0.31]


def test_an_evaluation_reads_the_book_it_is_handed_whatever_is_open() -> None:
    """The tip angle a low piece needs, 12° in the program, 16° in this studio: limit and shown figure both."""
    wary = book_of(CONSTANTS, {"tip-angle-a-low-piece-needs": OwnFigure(value=math.radians(16), reason="a wedding")})
    plain, other = (
        evaluate(ordinary.piece(), replace(ordinary.conditions(), figures=book), with_fixes=False)
        for book in (PROGRAM, wary)
    )
    (was, now) = (
        next(found for v in report.verdicts if v.verb == "stand" for found in v.findings if found.check == "tilt")
        for report in (plain, other)
    )
    assert math.degrees(was.limit.value) == pytest.approx(12)
    assert math.degrees(now.limit.value) == pytest.approx(16)
    assert now.utilisation == pytest.approx(was.utilisation * 16 / 12)
    shown = next(v for v in other.verdicts if v.verb == "stand").figures
    assert any(each.provenance.source == "a wedding" for each in shown)


@pytest.mark.parametrize(
    ("key", "value", "limit"),
    [
        ("friction-glass-on-wood-dry", 1.3, "Give {low} to {high}, in the unit shown."),
        ("friction-glass-on-wood-dry", 0.04, "Give {low} to {high}, in the unit shown."),
        ("friction-glass-on-wood-dry", math.nan, "Give {low} to {high}, in the unit shown."),
        ("share-of-a-cell-that-stems-may-fill", 1.01, "Give {low} to {high}, in the unit shown."),
        ("breaking-load-polyester-cord-2-mm", 601.0, "Over people it may only be lowered: give {low} to {high}."),
        ("clearance-over-a-walkway", 2.1, "Over people it may only be raised: give {low} to {high}."),
        ("standard-gravity", 9.81, "Leave it as it is."),
    ],
)
def test_an_own_figure_that_cannot_be_says_what_would_be_right(key: str, value: float, limit: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        book_of(CONSTANTS, {key: OwnFigure(value=value, reason="measured")})
    assert caught.value.path == "value"
    assert caught.value.limit.text == limit


def test_an_own_figure_needs_its_reason_and_a_figure_that_is_there() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        book_of(CONSTANTS, {"friction-at-a-dry-joint": OwnFigure(value=0.3, reason="  ")})
    assert caught.value.path == "reason"
    with pytest.raises(UnknownName):
        book_of(CONSTANTS, {"friction-at-a-wet-joint": OwnFigure(value=0.3, reason="measured")})


@given(st.sampled_from(sorted(set(CONSTANTS) - FIXED)), st.floats(0.0, 1.0))
def test_what_is_inside_its_bounds_is_taken_and_read_back_as_the_same_edition(key: str, share: float) -> None:
    low, high = CONSTANTS[key].bounds
    value = low + share * (high - low)
    book = book_of(CONSTANTS, {key: OwnFigure(value=value, reason="measured")})
    again = read_book(CONSTANTS, book.values, {key: "measured"})
    assert again.edition == book.edition
    assert (book.edition == PROGRAM.edition) is False
    assert again.provenance_of(CONSTANTS[key]).kind == "measured"


def test_a_book_from_elsewhere_leaves_out_what_is_unknown_and_fills_in_what_it_lacks() -> None:
    read = read_book(CONSTANTS, {"friction-at-a-dry-joint": 0.2, "colour-of-the-van": 7.0}, {"colour-of-the-van": "x"})
    assert read.values == PROGRAM.values | {"friction-at-a-dry-joint": 0.2}  # type: ignore[operator]
    assert read.own == {}
    with pytest.raises(InvalidMeasure) as caught:
        read_book(CONSTANTS, {"friction-at-a-dry-joint": 40.0}, {})
    assert caught.value.path == "friction-at-a-dry-joint"
