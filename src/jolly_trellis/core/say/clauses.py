"""A line in clauses, and clauses by what they speak of: one thing to make after another."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.quantities import count, phrase
from jolly_trellis.core.say.line import Line
from jolly_trellis.core.say.words import (
    ALSO_CALLED,
    BETWEEN,
    COUNT,
    EACH,
    HELD,
    HOLDERS,
    MANNERS,
    MATERIALS,
    NUMBER,
    PLAN_SHAPES,
    SHAPES,
    STARTS_SAID,
    TOGETHER,
    UNIT,
    VESSEL_STARTS_SAID,
    number_of,
)

MOST_PIECES = 500  # that one part of an event stands for
_NOUN = "|".join(sorted((*SHAPES, *ALSO_CALLED), key=len, reverse=True))
_BEFORE = "|".join((*MANNERS, *MATERIALS, *PLAN_SHAPES, "clear"))
_VESSEL = re.compile(rf"\b(?P<before>(?:(?:{_BEFORE}) +)*)(?P<noun>{_NOUN})(?P<many>e?s)?\b")
_COUNTED = re.compile(
    rf"(?<![\w.,/])(?P<n>{COUNT})(?: ?[x×])? +(?=(?:{NUMBER}[ -]?{UNIT}[ -]+)?(?:(?:{_BEFORE}) +)*(?:{_NOUN})e?s\b)"
    rf"|(?<![\w.,/])(?P<m>\d{{1,3}}) ?[x×] +(?=(?:{_BEFORE}| )*(?:{_NOUN})\b)"
)
_VESSEL_START = re.compile(rf"\b(?P<word>{'|'.join(VESSEL_STARTS_SAID)})\b")
_MANY_STARTS = re.compile(
    rf"(?<![\w.,/])(?P<n>{COUNT})(?: ?[x×])? +(?=(?:hand[- ]tied )?(?:{'|'.join(VESSEL_STARTS_SAID)}"
    rf"|(?:{'|'.join(word for word, key in STARTS_SAID.items() if key in HELD)})s?)\b)"
)
_START = re.compile(rf"\b(?:hand[- ]tied )?(?P<word>{'|'.join(STARTS_SAID)})s?\b")
_ALL_STARTS = {**VESSEL_STARTS_SAID, **STARTS_SAID}
_PARTS = re.compile(rf"[;\n]|,(?!\d)|\band\b(?= +(?:{COUNT})\b(?!-sided))")
_HARD = re.compile(r"[;\n]")
_HOLDS = re.compile(
    "|".join(
        (
            *TOGETHER,
            *HOLDERS,
            *(re.escape(each.name.lower()) for each in ABOUT.values() if each.of == "standing"),
            "twig rings?",
        )
    )
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Clause:
    """A stretch of a line between commas: the vessel of the stores it names, its vessel word, how many things.

    `each` is how many of every variety that it names, "3 each of rose, tulip and peony"; None: each has its own count.
    """

    start: int
    end: int
    stored: Vessel | None = None
    noun: str | None = None
    noun_at: tuple[int, int] = (0, 0)
    manners: tuple[str, ...] = ()
    number: int | None = None
    each: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Thing:
    """What a run of clauses speaks of: the key of a start, empty for a piece in a vessel, and the clauses."""

    start: str
    clauses: tuple[Clause, ...]


@dataclass(slots=True)
class _Run:
    start: str = ""
    begun: bool = False
    clauses: list[Clause] = field(default_factory=list)


def things_of(line: Line, vessels: Mapping[str, Vessel]) -> tuple[Thing, ...]:
    """The clauses of a line by the thing they speak of, in order.

    A vessel, a ring, a bouquet begins a thing where the one before has its own already; after a semicolon or a line
    end all clauses up to the next belong to the thing that is named among them.
    """
    stored = dict(_stored(line, vessels))
    lists = dict(_lists(line))
    runs = [_Run()]
    for start, end in _stretches(line.rest(0, len(line.text)), _HARD):
        clauses = [(each, _start_in(line, each)) for each in _clauses(line, start, end, stored, lists)]
        begins = any(_begins(each, word) for each, word in clauses)
        if begins and runs[-1].begun:
            runs.append(_Run())
        for clause, word in clauses:
            own = _begins(clause, word)
            if own and runs[-1].begun:
                runs.append(_Run())
            if own:
                runs[-1].begun = True
                runs[-1].start = word
            runs[-1].clauses.append(clause)
    return tuple(Thing(start=each.start, clauses=tuple(each.clauses)) for each in runs if each.clauses)


def _begins(clause: Clause, word: str) -> bool:
    return bool(word) or clause.noun is not None or clause.stored is not None


def _stretches(text: str, at: re.Pattern[str], offset: int = 0) -> Iterator[tuple[int, int]]:
    start = 0
    for found in at.finditer(text):
        yield offset + start, offset + found.start()
        start = found.end()
    yield offset + start, offset + len(text)


def _stored(line: Line, vessels: Mapping[str, Vessel]) -> Iterator[tuple[int, tuple[Vessel, int | None]]]:
    """Vessels of the stores that are named in full, by where: taken out of the line."""
    for vessel in sorted(vessels.values(), key=lambda each: -len(each.name)):
        base, _, rest = vessel.name.lower().partition(", ")
        name = rf"{re.escape(base)}s?,? +{re.escape(rest)}" if rest else rf"{re.escape(base)}s?"
        if not rest and len(base.split()) == 1:
            continue
        counted = rf"(?:(?<![\w.,/])(?P<n>{COUNT})(?: ?[x×])? +)?"
        pattern = rf"{counted}(?<!\w){name}(?![\w])(?! *(?:across|wide|deep|high|tall))"
        for found in re.finditer(pattern, line.rest(0, len(line.text))):
            number = number_of(found["n"]) if found["n"] else None
            start = found.start()
            if number is not None and number > MOST_PIECES:
                number, start = None, found.end("n")
            if number is not None:
                line.take(found.start("n"), found.end("n"), phrase("{n} of them", n=count(number)))
            line.take(start, found.end(), phrase("{vessel}, from the stores", vessel=vessel.name))
            yield found.start(), (vessel, number)


def _lists(line: Line) -> Iterator[tuple[int, int]]:
    """Where so many of each of a list are said, and how many: its commas part no clauses."""
    for found in EACH.finditer(line.rest(0, len(line.text))):
        line.take(found.start(), found.start("list"))
        for between in BETWEEN.finditer(found["list"]):
            at = found.start("list") + between.start()
            line.take(at, at + len(between[0]))
        yield found.start("list"), number_of(found["n"])


def _clauses(
    line: Line,
    start: int,
    end: int,
    stored: Mapping[int, tuple[Vessel, int | None]],
    lists: Mapping[int, int],
) -> Iterator[Clause]:
    for own in _stretches(line.rest(start, end), _PARTS, start):
        here = next((each for at, each in stored.items() if own[0] <= at < own[1]), None)
        if here is not None:
            yield Clause(start=own[0], end=own[1], stored=here[0], number=here[1])
            continue
        if not line.rest(*own).strip():
            continue
        number, each = None, next((n for at, n in lists.items() if own[0] <= at < own[1]), None)
        built = _VESSEL_START.search(line.rest(*own))
        many = _MANY_STARTS.search(line.rest(*own))
        counted = many or _COUNTED.search(line.rest(*own))
        said = "" if counted is None else next(each for each in counted.groups() if each)
        if counted and number_of(said) <= MOST_PIECES:
            number = number_of(said)
            line.take(own[0] + counted.start(), own[0] + counted.end(), phrase("{n} of them", n=count(number)))
        found = _VESSEL.search(_without_holders(line.rest(*own)))
        if found is None or built:
            yield Clause(start=own[0], end=own[1], number=number, each=each)
            continue
        before = found["before"].split()
        yield Clause(
            start=own[0],
            end=own[1],
            noun=ALSO_CALLED.get(found["noun"], found["noun"]),
            noun_at=(own[0] + found.start(), own[0] + found.end()),
            manners=tuple(each for each in before if each in MANNERS),
            number=number,
            each=each,
        )


def _start_in(line: Line, clause: Clause) -> str:
    """The key of the start that a clause names, taken out of the line; empty where it names none."""
    if clause.noun is not None or clause.stored is not None:
        return ""
    rest = line.rest(clause.start, clause.end)
    found = _VESSEL_START.search(rest) or _START.search(_without_holders(rest))
    if found is None:
        return ""
    word = found["word"]
    article = "an" if word[0] in "aeiou" else "a"
    line.take(
        clause.start + found.start(),
        clause.start + found.end(),
        phrase("{article} {word}", article=article, word=word),
    )
    return next(key for said, key in _ALL_STARTS.items() if re.fullmatch(said, word))


def _without_holders(rest: str) -> str:
    """What is left without the words of what holds stems, among which are cups, rings and wood."""
    return _HOLDS.sub(lambda found: " " * len(found[0]), rest)
