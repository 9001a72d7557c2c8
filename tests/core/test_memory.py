"""What is remembered is told by all it came from, stays as it was, and is forgotten when there is too much of it."""

from collections.abc import Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, fields, is_dataclass, replace
from pathlib import Path
from typing import get_args, get_type_hints

import numpy as np
import pytest

from jolly_trellis.core.books import memory
from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.books.memory import Memory, Same, remembered
from jolly_trellis.core.building.build import build
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Envelope, Mechanic, Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import Language
from tests import ordinary


@pytest.fixture(autouse=True)
def alone(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    monkeypatch.setattr(memory, "MEMORY", Memory())
    yield


def test_what_was_worked_out_is_not_worked_out_again_and_anything_else_is() -> None:
    asked: list[tuple[object, ...]] = []

    @remembered
    def total(numbers: tuple[float, ...], among: Mapping[str, float], *, times: float = 1.0) -> float:
        asked.append((numbers, times))
        return sum(numbers) * times

    some = {"a": 1.0}
    with PROGRAM.open():
        assert total((1.0, 2.0), some) == total((1.0, 2.0), some) == 3.0
        assert len(asked) == 1
        total((1.0, 2.5), some)
        total((1.0, 2.0), dict(some))  # alike, but another one, which may be changed
        total((1.0, 2.0), some, times=2.0)
        assert len(asked) == 4
    with FigureBook(values=PROGRAM.values).open():
        total((1.0, 2.0), some)
    assert len(asked) == 5, "another book of figures may give another answer"
    with PROGRAM.open(), Language(sentences={}).spoken():
        total((1.0, 2.0), some)
    assert len(asked) == 6, "another language may say it otherwise"


def test_nothing_else_than_figures_and_language_is_read_from_around() -> None:
    """Whatever a formula reads beside its arguments has to be in the key of what is remembered.

    Whether it is wanted any more changes no answer: it ends it.
    """
    core = Path(memory.__file__).parents[1]
    around = {
        each.relative_to(core).as_posix(): each.read_text(encoding="utf-8").count("ContextVar(")
        for each in core.rglob("*.py")
        if "ContextVar(" in each.read_text(encoding="utf-8")
    }
    assert around == {"books/figures.py": 1, "quantities.py": 1, "wanted.py": 1}


def test_arrays_are_told_by_their_numbers_and_what_comes_out_is_locked() -> None:
    calls = []

    @remembered
    def doubled(of: np.ndarray) -> np.ndarray:
        calls.append(1)
        return np.asarray(2 * of)

    with PROGRAM.open():
        first = doubled(np.array([1.0, 2.0]))
        assert doubled(np.array([1.0, 2.0])) is first
        doubled(np.array([1, 2]))
        doubled(np.array([[1.0], [2.0]]))
    assert len(calls) == 3
    with pytest.raises(ValueError, match="read-only"):
        first[0] = 3.0


def test_what_fails_is_not_remembered() -> None:
    calls = []

    @remembered
    def fails(number: float) -> float:
        calls.append(number)
        raise ArithmeticError

    with PROGRAM.open():
        for _ in range(2):
            with pytest.raises(ArithmeticError):
                fails(1.0)
    assert calls == [1.0, 1.0]


def test_the_least_used_is_forgotten_first() -> None:
    known = Memory(most=2)
    known.keep(("a",), 1)
    known.keep(("b",), 2)
    assert known.find(("a",)) == (True, 1)
    known.keep(("c",), 3)
    assert [known.find((key,))[0] for key in "abc"] == [True, False, True]
    known.forget()
    assert len(known) == 0


def test_this_very_thing_is_told_from_one_that_is_alike() -> None:
    one, other = [1], [1]
    assert Same(one) == Same(one)
    assert Same(one) != Same(other)
    assert len({Same(one), Same(one), Same(other)}) == 2


def parts_of(kind: type, seen: set[type]) -> set[type]:
    """A record and every record within it."""
    if kind in seen or not is_dataclass(kind):
        return seen
    seen.add(kind)
    for hint in get_type_hints(kind).values():
        stack = [hint]
        while stack:
            each = stack.pop()
            stack += get_args(each)
            if isinstance(each, type) and is_dataclass(each):
                parts_of(each, seen)
    return seen


@pytest.mark.parametrize("kind", [Vessel, Envelope, Mechanic, RecipeLine, Netting, Frog, Variety, Fit])
def test_every_field_of_what_books_are_told_by_is_in_the_key(kind: type) -> None:
    for each in parts_of(kind, set()):
        for part in fields(each):
            assert part.compare, f"{each.__name__}.{part.name} would be forgotten"
            assert part.hash is not False, f"{each.__name__}.{part.name} would be forgotten"


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """One thing done to a piece."""

    said: str
    piece: Piece


def changes() -> list[Change]:
    plain = ordinary.piece()
    line, *rest = plain.recipe
    point, *points = plain.vessel.profile
    return [
        Change(said="the water", piece=replace(plain, water_level_m=plain.water_level_m - 0.02)),
        Change(said="the size", piece=replace(plain, envelope=replace(plain.envelope, width_m=0.45))),
        Change(said="the form", piece=replace(plain, envelope=replace(plain.envelope, form="fan"))),
        Change(said="a count", piece=replace(plain, recipe=(replace(line, count=line.count + 2), *rest))),
        Change(said="a role", piece=replace(plain, recipe=(replace(line, role="airy"), *rest))),
        Change(said="a tube", piece=replace(plain, recipe=(replace(line, water="tube"), *rest))),
        Change(said="the wall", piece=replace(plain, vessel=replace(plain.vessel, wall_m=0.009))),
        Change(
            said="the profile",
            piece=replace(
                plain,
                vessel=replace(plain.vessel, profile=(replace(point, width_m=0.12, depth_m=0.12), *points)),
            ),
        ),
        Change(said="layers", piece=replace(plain, mechanic=replace(plain.mechanic, layers=1))),
        Change(said="tape", piece=replace(plain, mechanic=replace(plain.mechanic, tape_strips=5))),
        Change(said="colours", piece=replace(plain, arrangement="clusters")),
        Change(said="feet", piece=replace(plain, feet="to the water")),
        Change(said="stone", piece=replace(plain, ballast_kg=0.8)),
    ]


@pytest.mark.parametrize("change", changes(), ids=lambda each: each.said)
def test_a_change_is_answered_as_if_nothing_were_remembered(change: Change, conditions: Conditions) -> None:
    evaluate(ordinary.piece(), conditions, with_fixes=False)
    remembering = evaluate(change.piece, conditions, with_fixes=False)
    memory.MEMORY.forget()
    assert evaluate(change.piece, conditions, with_fixes=False) == remembering
    assert remembering != evaluate(ordinary.piece(), conditions, with_fixes=False)


def test_higher_water_takes_no_seats_and_draws_no_vessel(
    conditions: Conditions, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The water's level reaches the stems only by how deep their feet must go."""
    plain = replace(ordinary.piece(), water_level_m=0.075)
    first = build(plain, conditions)
    seats = []
    monkeypatch.setattr("jolly_trellis.core.placement.place.take_seats", lambda *_: seats.append(1))
    step = build(replace(plain, water_level_m=0.08), conditions)
    assert step.placement is first.placement
    assert step.mechanic is first.mechanic
    assert seats == []
    with pytest.raises(TypeError):
        build(replace(plain, feet="to the water", water_level_m=0.07), conditions)
    assert seats == [1], "stems that are cut to the water are placed anew"


def test_many_may_ask_at_once(conditions: Conditions) -> None:
    pieces = [replace(ordinary.piece(), water_level_m=0.05 + nth / 1000) for nth in range(8)]

    def asked(piece: Piece) -> object:
        return evaluate(piece, conditions, with_fixes=False)

    with ThreadPoolExecutor(4) as pool:
        together = list(pool.map(asked, pieces * 2))
    memory.MEMORY.forget()
    assert together == [asked(each) for each in pieces * 2]
