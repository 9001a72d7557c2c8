"""The book of figures: every constant of the method, what it is, whose it is, and the open book they are read from.

A formula says `TIP_LOW.value`. The number comes from the book that is open: `evaluate` and `assess` open the one they
are handed with the piece; whoever calls other formulas opens one first. With no book open there is no number.
"""

import math
import re
import sys
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field, replace
from hashlib import sha256
from typing import Annotated, Literal

from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.provenance import ESTIMATE, MEASURED, Provenance, ProvenanceKind
from jolly_trellis.core.quantities import Phrase, Quantity, QuantityKind, phrase
from jolly_trellis.core.ranges import Text

Sort = Literal["measure", "rule", "standard"]
Cautious = Literal["either way", "down", "up"]
# Spread of a measure by where it comes from: the standard deviation of its natural logarithm, 0.1 about 10 %.
SPREAD: Mapping[ProvenanceKind, float] = {
    "published": 0.02,
    "common practice": 0.15,
    "from memory": 0.20,
    "estimate": 0.30,
    "measured": 0.10,
    "computed": 0.0,
}
# How far a studio's own figure may be from the program's before it is taken for a slip of the unit.
_OWN_WITHIN = 5.0
_LETTERS = re.compile(r"[^a-z0-9]+")


@dataclass(frozen=True, slots=True, kw_only=True)
class Figure:
    """A named number with its provenance, as it is shown beside a verdict that rests on it."""

    label: str
    quantity: Quantity
    provenance: Provenance

    @property
    def value(self) -> float:
        """The number itself, in the unit of its kind."""
        return self.quantity.value


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnFigure:
    """A studio's own number for a constant, in the unit of its kind, and why."""

    value: float
    reason: Annotated[str, Text(200)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Constant:
    """One constant of the method: what the program holds for it, and what kind of number it is.

    A *measure* of the world has a `spread` and can be measured; a *rule* (a limit, a factor, a convention) has none; a
    *standard* is fixed by definition and cannot be set. `cautious` is the only way a studio's own figure may go where
    work hangs over people; `most` is what nothing of its kind can exceed, 1 for a share. `declared_in` is the module
    that declares it.
    """

    key: str
    declared_in: str
    label: str
    kind: QuantityKind
    built_in: float
    provenance: Provenance
    sort: Sort
    spread: float = 0.0
    cautious: Cautious = "either way"
    most: float = math.inf

    @property
    def value(self) -> float:
        """The number in the book that is open, in the unit of its kind. Raises LookupError: no book is open."""
        return _open.get().values[self.key]

    @property
    def quantity(self) -> Quantity:
        """The number in the book that is open, with its kind. Raises LookupError: no book is open."""
        return Quantity(kind=self.kind, value=self.value)

    @property
    def figure(self) -> Figure:
        """As it is shown, in the book that is open. Raises LookupError: no book is open."""
        return Figure(label=self.label, quantity=self.quantity, provenance=_open.get().provenance_of(self))

    @property
    def bounds(self) -> tuple[float, float]:
        """Least and most that a studio's own figure may be, in the unit of its kind."""
        if self.built_in == 0:
            return 0.0, 1.0
        low, high = sorted((self.built_in / _OWN_WITHIN, self.built_in * _OWN_WITHIN))
        high = min(high, self.most)
        if self.cautious == "down":
            high = self.built_in
        if self.cautious == "up":
            low = self.built_in
        return low, high

    def check(self, own: OwnFigure) -> None:
        """Refuse a studio's own figure that cannot be. Raises InvalidMeasure."""
        low, high = self.bounds
        if self.sort == "standard":
            raise InvalidMeasure(
                path="value",
                message=phrase("{self} is fixed by definition.", self=self.label),
                limit=phrase("Leave it as it is."),
            )
        if not (math.isfinite(own.value) and low <= own.value <= high):
            raise InvalidMeasure(
                path="value",
                message=phrase("{value} cannot be taken here.", value=Quantity(kind=self.kind, value=own.value)),
                limit=self._limit(),
            )
        if not own.reason.strip():
            raise InvalidMeasure(
                path="reason",
                message=phrase("A figure of your own needs its reason."),
                limit=phrase("Say how you know it, as “weighed ten of them”."),
            )

    def _limit(self) -> Phrase:
        low, high = (Quantity(kind=self.kind, value=each) for each in self.bounds)
        if self.cautious == "down":
            return phrase("Over people it may only be lowered: give {low} to {high}.", low=low, high=high)
        if self.cautious == "up":
            return phrase("Over people it may only be raised: give {low} to {high}.", low=low, high=high)
        return phrase("Give {low} to {high}, in the unit shown.", low=low, high=high)


Shown = Figure | Constant


def measure(
    label: str,
    kind: QuantityKind,
    value: float,
    provenance: Provenance = ESTIMATE,
    *,
    spread: float | None = None,
    cautious: Cautious = "either way",
    most: float = math.inf,
) -> Constant:
    """Declare a measure of the world; its spread is the usual one of its provenance where none is given."""
    wide = SPREAD[provenance.kind] if spread is None else spread
    return _declare(label, kind, value, provenance, sort="measure", spread=wide, cautious=cautious, most=most)


def rule(
    label: str,
    kind: QuantityKind,
    value: float,
    provenance: Provenance = ESTIMATE,
    *,
    cautious: Cautious = "either way",
    most: float = math.inf,
) -> Constant:
    """Declare a rule: a limit, a factor of caution, a convention."""
    return _declare(label, kind, value, provenance, sort="rule", spread=0.0, cautious=cautious, most=most)


def standard(label: str, kind: QuantityKind, value: float, provenance: Provenance) -> Constant:
    """Declare a number that is fixed by definition."""
    return _declare(label, kind, value, provenance, sort="standard", spread=0.0, cautious="either way", most=math.inf)


def _declare(
    label: str,
    kind: QuantityKind,
    value: float,
    provenance: Provenance,
    *,
    sort: Sort,
    spread: float,
    cautious: Cautious,
    most: float,
) -> Constant:
    key = _LETTERS.sub("-", label.lower()).strip("-")
    return Constant(
        key=key,
        declared_in=sys._getframe(2).f_globals["__name__"],  # the caller of `measure`, `rule` or `standard`
        label=label,
        kind=kind,
        built_in=float(value),
        provenance=provenance,
        sort=sort,
        spread=spread,
        cautious=cautious,
        most=most,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureBook:
    """A number for every constant, and which of them are the studio's own; two of one `edition` hold the same."""

    values: Mapping[str, float]
    own: Mapping[str, OwnFigure] = field(default_factory=dict)
    edition: str = field(init=False)

    def __post_init__(self) -> None:
        """Mark the edition: what tells this book from any other."""
        lines = [f"{key}={self.values[key]!r}" for key in sorted(self.values)]
        lines += [f"{key}:{self.own[key].reason}" for key in sorted(self.own)]
        object.__setattr__(self, "edition", sha256("\n".join(lines).encode()).hexdigest()[:16])

    def provenance_of(self, constant: Constant) -> Provenance:
        """Where a constant's number comes from in this book: the studio's own reason, or the program's source."""
        own = self.own.get(constant.key)
        return constant.provenance if own is None else Provenance(kind=MEASURED.kind, source=own.reason)

    @contextmanager
    def open(self) -> Iterator[None]:
        """Have every formula read this book, in this thread or task, until the end of the block."""
        mark = _open.set(self)
        try:
            yield
        finally:
            _open.reset(mark)


def shown(figures: Sequence[Shown]) -> tuple[Figure, ...]:
    """Figures as they are shown, constants with their numbers of the open book. Raises LookupError: none is open."""
    return tuple(each.figure if isinstance(each, Constant) else each for each in figures)


_open: ContextVar[FigureBook] = ContextVar("the open book of figures")


def open_book() -> FigureBook:
    """The book that is open. Raises LookupError: none is."""
    return _open.get()


def read_book(
    constants: Mapping[str, Constant], values: Mapping[str, float], reasons: Mapping[str, str]
) -> FigureBook:
    """A book as it was written down elsewhere or before; what it says of unknown figures is left out.

    Args:
        constants: all of them by key; those that `values` has no number for get the program's.
        values: numbers by key. reasons: why, for those that were a studio's own.
    Raises: InvalidMeasure: a number that cannot be; `path` is its key.
    """
    known = {key: float(value) for key, value in values.items() if key in constants}
    for key, value in known.items():
        least, most = replace(constants[key], cautious="either way").bounds
        if not (math.isfinite(value) and least <= value <= most):
            low, high = (Quantity(kind=constants[key].kind, value=each) for each in (least, most))
            raise InvalidMeasure(
                path=key,
                message=phrase("“{key}” is out of range.", key=constants[key].label),
                limit=phrase("Give {low} to {high}.", low=low, high=high),
            )
    all_values = {key: each.built_in for key, each in constants.items()} | known
    own = {key: OwnFigure(value=all_values[key], reason=why) for key, why in reasons.items() if key in constants}
    return FigureBook(values=all_values, own=own)


def book_of(constants: Mapping[str, Constant], own: Mapping[str, OwnFigure]) -> FigureBook:
    """The program's numbers with a studio's own in their places.

    Args:
        constants: all of them by key.
        own: by key.
    Raises: UnknownName: no such constant. InvalidMeasure: an own figure that cannot be.
    """
    for key, each in own.items():
        if key not in constants:
            raise UnknownName(
                path="key",
                message=phrase("There is no figure “{key}”.", key=key),
                limit=phrase("Choose one from the list of figures."),
            )
        constants[key].check(each)
    values = {key: each.built_in for key, each in constants.items()}
    return FigureBook(values=values | {key: each.value for key, each in own.items()}, own=dict(own))
