"""Ranges of everything that can be typed: each stands beside its field, in the core, and holds for every caller.

A field says its range in its own type: `height_m: Annotated[float, Range("length", 0, 5, above=True)]`. The web
interface, the files and the tables of the stores take their limits from there.
"""

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, fields, is_dataclass
from decimal import Decimal
from functools import cache
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, TypeVar, Union, get_args, get_origin, get_type_hints

from jolly_trellis.core.choices import OneOf
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import Phrase, Quantity, QuantityKind, phrase


@dataclass(frozen=True, slots=True)
class Range:
    """A number's kind and its bounds in that kind's unit; `above` leaves the lower bound itself out."""

    kind: QuantityKind
    low: float
    high: float
    above: bool = False


@dataclass(frozen=True, slots=True)
class Text:
    """How long a text may be; `lines` lets it have more than one line. No other control character is taken.

    `like` is a pattern that the whole of it follows, and `such` an example that does.
    """

    most: int
    least: int = 0
    lines: bool = False
    like: str = ""
    such: str = ""

    def problem(self, text: str) -> bool:
        """Whether a text is none of these."""
        return not self.least <= len(text) <= self.most or bool(self.like and not re.fullmatch(self.like, text))


@dataclass(frozen=True, slots=True)
class Many:
    """How many of something there may be."""

    most: int
    least: int = 0


Key = Annotated[str, Text(60, least=1, like="[A-Za-z0-9-]+", such="low-bowl-20")]
Found = Iterator[InvalidMeasure]
_Check = Callable[[Any, str], Found]
_SUFFIXES = ("_m_s", "_ml_h", "_per_h", "_m", "_kg", "_l", "_ml", "_h", "_n", "_rad", "_c")
_LABELS = {
    "mass_kg": "weight",
    "count": "number of stems",
    "clump": "number of stems in a clump",
    "layers": "number of layers",
    "layer_gap_m": "gap between layers",
    "tape_strips": "number of tape strips",
    "ballast_kg": "ballast",
    "free_table_m": "bare table",
    "foot_width_m": "width of the foot",
    "foot_depth_m": "depth of the foot",
    "after_h": "time of the top-up",
    "volume_l": "volume",
    "water_l": "water",
    "temperature_c": "temperature",
    "relative_humidity": "humidity",
    "core_kg": "core",
    "extra_kg": "weight of what else hangs on it",
    "rating_n": "rating",
    "hook_n": "hook's rating",
    "stated_n": "strength on the packet",
    "box_wall_m": "wall of the box",
    "opens": "opening time",
    "closes": "closing time",
    "travel_h": "drive",
    "topped_up_by": "name of who tops up",
    "rate_per_h": "rate of an hour",
    "each": "hire of one",
    "comes": "day it comes",
    "goes_back": "day it goes back",
    "paid": "sum that is paid",
    "made_as": "name of what it was made as",
}


# Control characters, and halves of a pair that no text can hold.
_CONTROL = re.compile("[\x00-\x1f\x7f-\x9f\ud800-\udfff]")


def check(value: object, path: str = "") -> None:
    """Refuse a value of the core that holds a number, a text or a list outside its range.

    Args:
        value: a dataclass of the core, whatever it is made of. path: where it stands, as in JSON.
    Raises: InvalidMeasure: NaN, an infinity, a number outside its range, a text too long, too many of something, a
    choice there is not; with the path of the field, and what would be right.
    """
    for problem in outside(value, path):
        raise problem


def outside(value: object, path: str = "") -> Found:
    """Everything in a value that lies outside its range, in the order of its fields."""
    kind: Any = type(value)
    for name, checks in _of_class(kind):
        part = getattr(value, name)
        for each in checks:
            yield from each(part, f"{path}.{name}" if path else name)


def new_outside(value: object, kept: object) -> tuple[InvalidMeasure, ...]:
    """What lies outside its range in a value and did not, in just that way, in the one that is kept."""
    known = {(each.path, each.message.text, *each.message.quantities.values()) for each in outside(kept)}
    return tuple(
        each
        for each in outside(value)
        if (each.path, each.message.text, *each.message.quantities.values()) not in known
    )


def label_of(path: str) -> str:
    """A field in words, from its path: "recipe.0.count" is the number of stems."""
    field = next((part for part in reversed(path.split(".")) if not part.isdigit()), path)
    if field in _LABELS:
        return _LABELS[field]
    suffix = next((each for each in _SUFFIXES if field.endswith(each)), "")
    return field.removesuffix(suffix).replace("_", " ")


@cache
def _of_class(kind: type) -> tuple[tuple[str, tuple[_Check, ...]], ...]:
    hints = get_type_hints(kind, include_extras=True)
    found = ((each.name, tuple(_checks(hints[each.name]))) for each in fields(kind))
    return tuple((name, checks) for name, checks in found if checks)


def _checks(hint: Any) -> Iterator[_Check]:
    """What a field of some type is held to."""
    origin = get_origin(hint)
    if origin is Annotated:
        inner, *marks = get_args(hint)
        yield from _checks(inner)
        for mark in marks:
            yield from _marked(mark, inner)
    elif origin in (Union, UnionType):
        for arm in get_args(hint):
            for each in _checks(arm):
                yield _unless_none(each)
    elif origin is Literal:
        yield _one_of(get_args(hint))
    elif origin is tuple:
        inside = tuple(_checks(get_args(hint)[0]))
        if inside:
            yield _each(inside)
    elif is_dataclass(origin or hint) or isinstance(hint, TypeVar):
        yield outside


def _marked(mark: object, inner: Any) -> Iterator[_Check]:
    if isinstance(mark, Range):
        yield _within(mark, whole=int in (inner, *get_args(inner)), optional=NoneType in get_args(inner))
    if isinstance(mark, Text):
        yield _text(mark)
    if isinstance(mark, Many):
        yield _many(mark)
    if isinstance(mark, OneOf):
        yield _one_known(mark)


def _unless_none(check_: _Check) -> _Check:
    def run(value: Any, path: str) -> Found:
        if value is not None:
            yield from check_(value, path)

    return run


def _each(checks: tuple[_Check, ...]) -> _Check:
    def run(value: Any, path: str) -> Found:
        for index, part in enumerate(value):
            for each in checks:
                yield from each(part, f"{path}.{index}")

    return run


def _one_of(choices: tuple[Any, ...]) -> _Check:
    def run(value: Any, path: str) -> Found:
        if value not in choices:
            said = phrase("The {label} is not one of the choices.", label=label_of(path))
            yield _problem(path, said, phrase("Choose {choices}.", choices=", ".join(map(str, choices))))

    return run


def _one_known(kinds: OneOf) -> _Check:
    def run(value: Any, path: str) -> Found:
        if value not in kinds.known:
            said = phrase("“{value}” is no {what} that is known.", value=str(value), what=kinds.what)
            yield _problem(path, said, phrase("Choose one of these: {known}.", known=", ".join(kinds.known)))

    return run


def _within(limits: Range, *, whole: bool, optional: bool) -> _Check:
    low, high = (Quantity(kind=limits.kind, value=float(each)) for each in (limits.low, limits.high))
    words = "Give more than {low}, up to {high}." if limits.above else "Give {low} to {high}."
    right = phrase(words, low=low, high=high)

    def run(value: Any, path: str) -> Found:
        if value is None and optional:
            return
        if (
            isinstance(value, bool)
            or not isinstance(value, int if whole else (int, float, Decimal))
            or not _finite(value)
        ):
            yield _problem(path, phrase("The {label} is not a number that can be used.", label=label_of(path)), right)
        elif value < limits.low or (limits.above and value <= limits.low):
            has = Quantity(kind=limits.kind, value=float(value))
            yield _problem(path, phrase("The {label}, {has}, is too small.", has=has, label=label_of(path)), right)
        elif isinstance(value, Decimal) and round(value, 2) != value:
            yield _problem(
                path,
                phrase("The {label} goes beyond the cent.", label=label_of(path)),
                phrase("Give it to the cent, such as 24.50."),
            )
        elif value > limits.high:
            has = Quantity(kind=limits.kind, value=_shown(value))
            yield _problem(path, phrase("The {label}, {has}, is too large.", has=has, label=label_of(path)), right)

    return run


def _finite(value: float | Decimal) -> bool:
    return isinstance(value, int) or math.isfinite(value)


def _shown(value: Any) -> float:
    """A number as it can be written in a sentence: what is beyond a float is said as the largest one."""
    return float(value) if abs(value) < 1e300 else 1e300


def _text(limits: Text) -> _Check:
    def run(value: Any, path: str) -> Found:
        if value is None:
            return
        if not isinstance(value, str) or len(value) < limits.least:
            yield _problem(
                path, phrase("The {label} is empty.", label=label_of(path)), phrase("Type at least one character.")
            )
        elif len(value) > limits.most:
            right = phrase("Give at most {most} characters.", most=limits.most)
            yield _problem(path, phrase("The {label} is too long.", label=label_of(path)), right)
        elif _CONTROL.search(value.replace("\n", "") if limits.lines else value):
            said = phrase("The {label} holds a character that cannot be written.", label=label_of(path))
            yield _problem(path, said, phrase("Type letters, digits and signs only."))
        elif limits.like and not re.fullmatch(limits.like, value):
            said = phrase("“{value}” is no {label} that can be used.", value=str(value), label=label_of(path))
            yield _problem(path, said, phrase("Type one such as {such}.", such=limits.such))

    return run


def _many(limits: Many) -> _Check:
    def run(value: Any, path: str) -> Found:
        if len(value) > limits.most:
            said = phrase("There are {n} of “{label}”.", n=len(value), label=label_of(path))
            yield _problem(path, said, phrase("Give at most {most}.", most=limits.most))
        elif len(value) < limits.least:
            said = phrase("There are {n} of “{label}”.", n=len(value), label=label_of(path))
            yield _problem(path, said, phrase("Give at least {least}.", least=limits.least))

    return run


def _problem(path: str, message: Phrase, limit: Phrase) -> InvalidMeasure:
    return InvalidMeasure(path=path, message=message, limit=limit)
