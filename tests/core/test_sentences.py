"""Sentences are templates: their words stand in one piece, what fills them has a name, another language is a table."""

import ast
import re
from collections.abc import Iterator, Mapping
from dataclasses import fields, is_dataclass
from pathlib import Path
from typing import Any

import pytest

from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.quantities import Language, Phrase, count, joined, length, mass, phrase
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.units import render
from jolly_trellis.demo.loading import demo_plan
from tests.ordinary import conditions, on_ledge, piece

SOURCE = Path(__file__).parents[2] / "src" / "jolly_trellis"


class Marked(Mapping[str, str]):
    """A language in which every sentence is the English one in marks."""

    def __getitem__(self, key: str) -> str:
        return f"«{key}»"

    def __iter__(self) -> Iterator[str]:
        return iter(())

    def __len__(self) -> int:
        return 0


def sentences(value: Any) -> Iterator[Phrase]:
    """Every sentence in what the core answers."""
    if isinstance(value, Phrase):
        yield value
    elif is_dataclass(value):
        for field in fields(value):
            if field.name != "piece":
                yield from sentences(getattr(value, field.name))
    elif isinstance(value, (tuple, list)):
        for each in value:
            yield from sentences(each)


def said() -> list[Phrase]:
    """What is said of a bowl, a ledge, a bouquet and hung work."""
    bouquet = next(each.part for each in demo_plan().pieces if each.part.carried)
    answers: list[Any] = [assess(each.part, conditions()) for each in demo_plan().rigs]
    for plan in (piece(), on_ledge(), bouquet):
        answers += [evaluate(plan, conditions()), making_of(plan, conditions())]
    answers.append(choose(piece(), conditions(), on_hand=None, retired=frozenset()))
    return [each for answer in answers for each in sentences(answer) if each.text]


def test_a_language_has_every_sentence_and_nothing_hangs_on_english() -> None:
    english = said()
    with Language(sentences=Marked()).spoken():
        marked = said()
    assert len(english) == len(marked) > 200
    for one, other in zip(english, marked, strict=True):
        assert "«" in other.text
        plain = other.text.replace("«", "").replace("»", "")
        assert plain.casefold() == one.text.casefold()
        assert other.quantities == one.quantities


def _written(call: ast.Call) -> ast.expr | None:
    """The words a call makes a sentence of."""
    name = call.func.id if isinstance(call.func, ast.Name) else ""
    if name in ("phrase", "worded"):
        return call.args[0]
    if name == "Phrase":
        return next((each.value for each in call.keywords if each.arg == "text"), None)
    return None


@pytest.mark.parametrize("path", sorted(SOURCE.rglob("*.py")), ids=lambda path: path.stem)
def test_no_sentence_is_put_together_from_pieces_of_text(path: Path) -> None:
    if path.name == "quantities.py":
        return
    tree = ast.parse(path.read_text(encoding="utf-8"))
    for function in (each for each in ast.walk(tree) if isinstance(each, ast.FunctionDef)):
        spliced = {
            target.id
            for each in ast.walk(function)
            if isinstance(each, ast.Assign) and isinstance(each.value, ast.JoinedStr)
            for target in each.targets
            if isinstance(target, ast.Name)
        }
        for call in (each for each in ast.walk(function) if isinstance(each, ast.Call)):
            words = _written(call)
            where = f"line {call.lineno}: name what is filled in, as in phrase('a {{name}}', name=…)"
            assert not isinstance(words, (ast.JoinedStr, ast.BinOp)), where
            assert not (isinstance(words, ast.Name) and words.id in spliced), where


# Keys, those of findings and steps among them; patterns of the line that reads words; how units are written.
KEYS = {"check", "key", "kind"}
WRITES_OTHERWISE = {"units.py", "clauses.py", "words.py", "say_it.py"}
WORDS = re.compile(r"[A-Za-z]{2,}'?s? | [A-Za-z]{2,}")


@pytest.mark.parametrize("path", sorted((SOURCE / "core").rglob("*.py")), ids=lambda path: path.stem)
def test_words_are_never_put_together_in_a_string_of_the_core(path: Path) -> None:
    """But in keys, and in what only a wrong call of the program's own raises."""
    if path.name in WRITES_OTHERWISE:
        return
    every = list(ast.walk(ast.parse(path.read_text(encoding="utf-8"))))
    raised = [each for raising in every if isinstance(raising, ast.Raise) for each in ast.walk(raising)]
    keys = {id(each) for each in raised} | {
        id(each.value) for each in every if isinstance(each, ast.keyword) and each.arg in KEYS
    }
    for each in every:
        if isinstance(each, ast.JoinedStr) and id(each) not in keys:
            text = "".join(str(part.value) if isinstance(part, ast.Constant) else "{}" for part in each.values)
            assert not WORDS.search(text), f"line {each.lineno}: worded(…) or phrase(…), not {text!r}"


@pytest.mark.parametrize(("number", "said"), [(0, "0 stems"), (1, "1 stem"), (2, "2 stems")])
def test_a_plural_takes_the_form_of_its_number(number: int, said: str) -> None:
    for given in (number, count(number)):
        assert render(phrase("{n} {n|stem|stems}", n=given), "metric") == said


def test_a_language_has_plurals_of_its_own() -> None:
    """Three forms, as some languages have them: one, a few, many."""
    few = Language(
        sentences={"{n} {n|stem|stems}": "{n|a|b|c} {n}"},
        form=lambda number: 0 if number == 1 else 1 if number < 5 else 2,
    )
    with few.spoken():
        texts = [phrase("{n} {n|stem|stems}", n=number).text for number in (1, 3, 7)]
    assert texts == ["a 1", "b 3", "c 7"]
    assert phrase("{n} {n|stem|stems}", n=1).text == "1 stem"


def test_a_name_with_braces_in_it_is_no_slot() -> None:
    named = phrase("{name} weighs {m}.", name="urn {m} {odd}", m=mass(2.0))
    assert render(named, "metric") == "urn (m) {odd} weighs 2 kg."


def test_a_sentence_in_a_sentence_keeps_its_own_quantities() -> None:
    inner = phrase("it is {l} high", l=length(0.3))
    outer = phrase("{name}: {said}; the door is {l}.", name="Urn", said=inner, l=length(1.2))
    assert render(outer, "metric") == "Urn: it is 30 cm high; the door is 120 cm."
    both = joined([inner, phrase("and {l} wide", l=length(0.2)), phrase("and {l} deep", l=length(0.3))])
    assert render(both, "metric") == "it is 30 cm high and 20 cm wide and 30 cm deep"
    assert (
        render(joined([phrase("{l}", l=length(0.1)), phrase("{l}", l=length(0.2))], ", "), "metric") == "10 cm, 20 cm"
    )
