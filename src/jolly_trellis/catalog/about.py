"""What a file about a kind of thing of the stores says of it: where it is kept, how it is read, checked and shown."""

from collections.abc import Callable, Mapping
from dataclasses import MISSING, dataclass, field
from typing import Any

from jolly_trellis.catalog.cells import Row
from jolly_trellis.core.plan.field_table import FieldOf, field_table
from jolly_trellis.core.ranges import label_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """A column of a CSV: how a cell of it is read from a row, and written for a thing; whether it may be left out."""

    name: str
    optional: bool
    read: Callable[[Row], Any]
    write: Callable[[Any], str]


@dataclass(frozen=True, slots=True)
class Shown:
    """A field in the table on the screen: its name, what it is called there (None: as everywhere), how it is typed."""

    name: str
    words: str | None = None
    typed: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class View:
    """Some fields of a kind that are shown together, under words; the words are empty where there is but one view."""

    words: str
    fields: tuple[Shown, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class About:
    """One kind of thing of the stores; its table in the database is called as it is.

    `place` is where it stands in lists, `title` and `plural` what many of them are called on the screen and in
    answers. `file` is the catalogue's own table of it, empty for none. `views` are what is shown of it as a table;
    none where it has a screen of its own. `apart` are columns that are no field, `whole` reads what they make. `check`
    refuses what no such thing can be, `follows` settles what goes with a change of it. `side` are tables of its
    parts, with the column that names it. One that is `named_by_plans` cannot be deleted while a piece is made with
    it; of one that is `added` singly there is one then. `figures` names the group of figures that a field belongs to,
    of a thing whose figures are in groups.
    """

    kind: str
    place: int
    title: str
    plural: str
    thing: type
    file: str = ""
    views: tuple[View, ...] = ()
    apart: Mapping[str, Column] = field(default_factory=dict)
    whole: Callable[[Row, dict[str, Any]], None] = lambda row, values: None
    check: Callable[[Any], None] = lambda thing: None
    follows: Callable[[Any, Any], Any] = lambda thing, kept: thing
    side: Mapping[str, str] = field(default_factory=dict)
    named_by_plans: bool = False
    added: bool = False
    figures: Mapping[str, str] = field(default_factory=dict)

    @property
    def fields(self) -> Mapping[str, FieldOf]:
        """Its fields by name."""
        return field_table(self.thing)


@dataclass(frozen=True, slots=True, kw_only=True)
class ShownColumn:
    """A column of the table on the screen: which field, what it is called, how it is typed, and what it can be."""

    field: str
    words: str
    typed: str
    optional: bool
    choices: tuple[str, ...]


STORES: dict[str, About] = {}


def declare(about: About) -> About:
    """Make a kind known, in its place; called once by the file that describes it."""
    every = sorted((*STORES.values(), about), key=lambda each: each.place)
    STORES.clear()
    STORES.update({each.kind: each for each in every})
    return about


def whence(name: str, of: Callable[[Any], str] = lambda thing: thing.provenance.kind) -> Column:
    """A column that says where figures come from; read together with the note."""
    return Column(name=name, optional=True, read=lambda _: MISSING, write=of)


def column_of(about: About, shown: Shown) -> ShownColumn:
    """How a field is shown: as it is described on the thing itself, where its kind's file does not say otherwise."""
    known = about.fields[shown.name]
    return ShownColumn(
        field=shown.name,
        words=shown.words if shown.words is not None else label_of(shown.name),
        typed=shown.typed if shown.typed is not None else _typed(known),
        optional=known.optional,
        choices=known.choices,
    )


def _typed(known: FieldOf) -> str:
    if known.choices and not known.many:
        return "choice"
    if known.kind is bool:
        return "flag"
    if known.kind is str:
        return "words" if known.many else "text"
    if known.many:
        return "whole numbers"
    return "ratio" if known.range is None or known.range.kind == "draw" else known.range.kind
