"""Reading and writing quantities; the screen is held to the same table in tests/web."""

import json
import math
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.quantities import Quantity, length, mass, phrase
from jolly_trellis.core.units import cut_length_text, parse_length, render, round_up, text_of

CASES: dict[str, Any] = json.loads((Path(__file__).parents[1] / "units_cases.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("case", CASES["parse_length"])
def test_a_typed_length_is_read(case: list[Any]) -> None:
    text, system, cell_m, expected, *bare = case
    read = parse_length(text, system=system, cell_m=cell_m, bare=bare[0] if bare else None)
    assert read == (None if expected is None else pytest.approx(expected, abs=1e-9))


@pytest.mark.parametrize(("kind", "value", "system", "expected"), CASES["text_of"])
def test_a_quantity_is_written_as_people_read_it(kind: Any, value: float, system: Any, expected: str) -> None:
    assert text_of(Quantity(kind=kind, value=value), system) == expected


@pytest.mark.parametrize(("length_m", "system", "expected"), CASES["cut_length"])
def test_a_length_to_cut_is_never_shorter(length_m: float, system: Any, expected: str) -> None:
    assert cut_length_text(length_m, system) == expected


def test_a_sentence_reads_in_either_system() -> None:
    sentence = phrase("Add {m} at {d} {not_a_slot}.", m=mass(0.38), d=length(0.16))
    assert render(sentence, "metric") == "Add 380 g at 16 cm {not_a_slot}."
    assert render(sentence, "inch") == "Add 13.4 oz at 6 1/4 in {not_a_slot}."


@given(st.floats(min_value=0, max_value=10), st.sampled_from([0.005, 0.00635, 0.02]))
def test_rounding_up_gives_whole_steps_and_never_less(value: float, step: float) -> None:
    rounded = round_up(value, step)
    assert rounded >= value - step * 2e-6
    assert rounded - value < step * (1 + 1e-6)
    assert math.isclose(rounded / step, round(rounded / step), abs_tol=1e-6)


@given(st.floats(min_value=0.02, max_value=3))
def test_what_is_written_in_inches_reads_back_to_an_eighth(length_m: float) -> None:
    read = parse_length(text_of(length(length_m), "inch"))
    assert read == pytest.approx(length_m, abs=0.0254 / 16 + 1e-9)
