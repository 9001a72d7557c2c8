"""A line of words while it is read: what is taken is blanked out, so that every word keeps its place."""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import Phrase, count, phrase
from jolly_trellis.core.say.words import SMALL

LONGEST = 4000
MOST_DIGITS = 12
_LONG_NUMBER = re.compile(rf"\d{{{MOST_DIGITS + 1}}}")
_STRAIGHT = str.maketrans({"’": "'", "‘": "'", "“": '"', "”": '"', " ": " ", "\t": " ", "–": "-", "—": ","})
_WORD = re.compile(r"[^\s,;.:()]+(?:\.\d+)?")


@dataclass(frozen=True, slots=True, kw_only=True)
class Words:
    """Some words and where they stand in the line, in characters."""

    words: str
    start: int
    end: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Heard:
    """Some words and where they begin, and what they were taken to mean."""

    words: str
    start: int
    meaning: Phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """Words that may mean several things, or are written like one: what to say instead, to choose from."""

    words: str
    start: int
    end: int
    choices: tuple[str, ...]


@dataclass(slots=True)
class Line:
    """What is left to read of some stretches of a line."""

    text: str
    left: list[str]
    heard: list[Heard] = field(default_factory=list)
    asked: list[Asked] = field(default_factory=list)

    @classmethod
    def of(cls, text: str) -> "Line":
        """A line as typed: small letters, straight quotes; every character stays where it was.

        Raises: InvalidMeasure: it is longer than anybody says, or has a number that counts no flowers; no pattern has
        looked at it before.
        """
        if len(text) > LONGEST:
            raise InvalidMeasure(
                path="text",
                message=phrase("This is {n} characters long.", n=count(len(text))),
                limit=phrase("Say up to {most} at a time: some pieces now, the rest after.", most=count(LONGEST)),
            )
        if run := _LONG_NUMBER.search(text):
            raise InvalidMeasure(
                path="text",
                message=phrase("“{digits}…” is no number that is counted or measured here.", digits=run[0]),
                limit=phrase("Numbers have up to {most} digits: take this one out.", most=count(MOST_DIGITS)),
            )
        shown = text.translate(_STRAIGHT)
        plain = "".join(low if len(low := each.lower()) == 1 else each for each in shown)
        return cls(text=text, left=list(plain))

    def rest(self, start: int, end: int) -> str:
        """What is left of a stretch, as long as the stretch."""
        return "".join(self.left[start:end])

    def take(self, start: int, end: int, meaning: Phrase | None = None) -> None:
        """Blank out what was read; with a meaning it is told as heard."""
        self.left[start:end] = " " * (end - start)
        if meaning is not None:
            self.hear(start, end, meaning)

    def hear(self, start: int, end: int, meaning: Phrase) -> None:
        """Tell what some words were taken to mean."""
        words = self.text[start:end].strip(" ,.")
        if words:
            self.heard.append(Heard(words=words, start=start, meaning=meaning))

    def heard_in(self, start: int, end: int) -> tuple[Heard, ...]:
        """What was heard in a stretch, in the order it was said."""
        return tuple(sorted((each for each in self.heard if start <= each.start < end), key=lambda each: each.start))

    def ask(self, start: int, end: int, choices: tuple[str, ...]) -> None:
        """Ask what some words mean, and read them no further."""
        trimmed = _trimmed(self.rest(start, end), start)
        self.asked.append(Asked(words=self.text[slice(*trimmed)], start=trimmed[0], end=trimmed[1], choices=choices))
        self.take(start, end)

    def unheard(self, start: int, end: int) -> Iterator[Words]:
        """What is left of a stretch that means something, words in a row together."""
        run: tuple[int, int] | None = None
        for found in _WORD.finditer(self.rest(start, end)):
            own = (start + found.start(), start + found.end())
            if found[0] in SMALL or not any(each.isalnum() for each in found[0]):
                continue
            if run is not None and _is_small(self.text[run[1] : own[0]]):
                run = (run[0], own[1])
                continue
            if run is not None:
                yield Words(words=self.text[slice(*run)], start=run[0], end=run[1])
            run = own
        if run is not None:
            yield Words(words=self.text[slice(*run)], start=run[0], end=run[1])


def _is_small(between: str) -> bool:
    """Whether nothing that means anything stands between two words of one stretch."""
    return "," not in between and all(word in SMALL for word in between.lower().split())


def _trimmed(words: str, start: int) -> tuple[int, int]:
    """Where words begin and end without the spaces and small words round them."""
    found = [each for each in _WORD.finditer(words) if each[0] not in SMALL]
    if not found:
        return start, start + len(words)
    return start + found[0].start(), start + found[-1].end()
