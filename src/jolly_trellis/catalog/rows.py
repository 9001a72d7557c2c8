"""How a row of each table of the stores becomes a thing and back: by the fields of the thing, with units in the names.

The columns are those of the catalogue's own file; which field one is, and in which unit, is in its name. Ranges,
choices and defaults are the core's.
"""

import csv
from collections.abc import Callable, Mapping
from dataclasses import MISSING, dataclass
from functools import partial
from importlib.resources import files
from typing import TYPE_CHECKING, Any, Literal

from jolly_trellis.catalog import kinds
from jolly_trellis.catalog.about import STORES, About, Column
from jolly_trellis.catalog.cells import BadCell, Row, choice, flag, number, plain, whole
from jolly_trellis.core.materials.stems import VarietyProvenance
from jolly_trellis.core.plan.field_table import FieldOf
from jolly_trellis.core.ranges import label_of

__all__ = ["TABLES", "HeldKind", "StoreKind", "kinds"]

if TYPE_CHECKING:
    StoreKind = str
    HeldKind = str
else:
    # What reads and writes JSON is told of every kind there is; mechanics are held and counted too.
    StoreKind = Literal[tuple(STORES)]
    HeldKind = Literal[(*STORES, "mechanic")]

_NOTE = "provenance_note"
# The unit in a column's name, the one in the field's, and how many of this one it is.
_UNITS = (("_mm", "_m", 1e-3), ("_cm", "_m", 1e-2), ("_g", "_kg", 1e-3), ("_ml", "_l", 1e-3))


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """The columns of one kind, in order, and how a row becomes a thing and back."""

    columns: tuple[str, ...]
    optional: frozenset[str]
    read: Callable[[Row], Any]
    write: Callable[[str, Any], Row]


def _table(about: About) -> Table:
    header = _header(about)
    known = about.fields
    columns = [_column(name, known) for name in header if name not in ("key", _NOTE) and name not in about.apart]
    apart = {name: column for name, column in about.apart.items() if name in header}
    by_name = {each.name: each for each in columns} | apart
    must = {"key", *(name for name, each in by_name.items() if not each.optional)}

    def read(row: Row) -> Any:
        values: dict[str, Any] = {"key": row["key"]} if "key" in known else {}
        for name, column in by_name.items():
            field = _field_of(name, known)
            if field is not None and (value := column.read(row)) is not MISSING:
                values[field.name] = value
        about.whole(row, values)
        made = about.thing(**values)
        about.check(made)
        return made

    def write(key: str, thing: Any) -> Row:
        row = {"key": key, **{name: each.write(thing) for name, each in by_name.items()}}
        return {name: row[name] if name in row else _note_of(thing) for name in header}

    return Table(columns=header, optional=frozenset(header) - must, read=read, write=write)


def _field_of(column: str, known: Mapping[str, FieldOf]) -> FieldOf | None:
    """The field that a column holds; None for a provenance, which several of them make."""
    if column in known and known[column].kind in (str, float, int, bool):
        return known[column]
    for unit, si, _ in _UNITS:
        if column.endswith(unit) and column.removesuffix(unit) + si in known:
            return known[column.removesuffix(unit) + si]
    return known.get("profile") if column == "profile_cm" else None


def _column(name: str, known: Mapping[str, FieldOf]) -> Column:
    field = _field_of(name, known)
    if field is None:
        raise TypeError(f"the column {name} is no field")
    scale = 1.0 if name == field.name else next(each for unit, _, each in _UNITS if name.endswith(unit))
    return Column(
        name=name,
        optional=not field.must_be_given or (field.kind is bool and field.default is not MISSING),
        read=partial(_read_cell, name=name, field=field, scale=scale),
        write=partial(_write_cell, field=field, scale=scale),
    )


def _read_cell(row: Row, *, name: str, field: FieldOf, scale: float) -> Any:
    """One cell; `MISSING` where it is empty and the field's own default stands in."""
    text = row[name]
    if not text and field.default is not MISSING:
        return MISSING
    if not text and field.optional:
        return None
    if field.many and field.kind is str:
        return _words(row, name, field)
    if field.many:
        return _lengths(row, name, field, scale)
    if field.choices:
        return choice(row, name, field.choices)
    if field.kind is bool:
        return flag(row, name)
    if field.kind is str:
        return _text(row, name, field)
    return _number(row, name, field, scale)


def _number(row: Row, name: str, field: FieldOf, scale: float) -> float | int:
    limits = field.range
    if limits is None:
        raise TypeError(f"{field.name} has no range")
    low, high = limits.low / scale, limits.high / scale
    if field.kind is int:
        return whole(row, name, least=int(limits.low), most=int(limits.high))
    return number(row, name, scale=scale, least=low, most=high, above=limits.above)


def _lengths(row: Row, name: str, field: FieldOf, scale: float) -> tuple[float | int, ...]:
    found = tuple(_number({name: text}, name, field, scale) for text in row[name].split())
    if not found:
        raise BadCell(name, "No length is given. Type one or more, such as 40 50 60.")
    return found


def _words(row: Row, name: str, field: FieldOf) -> tuple[str, ...]:
    """Several words or names in one cell, with semicolons between."""
    found = tuple(each.strip() for each in row[name].split(";") if each.strip())
    for each in found:
        if field.choices:
            choice({name: each}, name, field.choices)
        elif field.text is not None and field.text.problem(each):
            raise BadCell(name, f"“{each[:20]}” is no {label_of(field.name)}. Write names with semicolons between.")
    return found


def _text(row: Row, name: str, field: FieldOf) -> str:
    text = row[name].lower() if field.text and field.text.like.startswith("#") else row[name]
    if field.text is not None and field.text.problem(text):
        such = f" Type one such as {field.text.such}." if field.text.such else ""
        raise BadCell(name, f"“{row[name][:20]}” is no {label_of(field.name)}.{such}")
    return text


def _write_cell(thing: Any, *, field: FieldOf, scale: float) -> str:
    value = getattr(thing, field.name)
    if field.many:
        return "; ".join(value) if field.kind is str else " ".join(plain(each, scale) for each in value)
    if field.kind is bool:
        return str(int(value))
    return str(value) if field.kind is str else plain(value, scale)


def _header(about: About) -> tuple[str, ...]:
    """The columns of the catalogue's own file, and whatever plain fields the thing has gained since."""
    named: tuple[str, ...] = ("key",)
    if about.file:
        text = (files("jolly_trellis.catalog") / about.file).read_text(encoding="utf-8")
        named = tuple(next(csv.reader(text.splitlines())))
    held = {field.name for name in named if (field := _field_of(name, about.fields)) is not None}
    more = (name for name, each in about.fields.items() if each.kind in (str, float, int, bool) and name not in held)
    noted = "provenance" in about.fields and about.fields["provenance"].kind is not str
    apart = (*about.apart, *((_NOTE,) if noted else ()))
    return tuple(dict.fromkeys((*named, *(name for name in more if name not in named), *apart)))


def _note_of(thing: Any) -> str:
    known = thing.provenance
    return str((known.size if isinstance(known, VarietyProvenance) else known).source)


def as_before(kind: StoreKind, raw: Mapping[str, str | None], row: Row) -> None:
    """Fill in what a table of an earlier version said in other columns: two flags, before hazards had names."""
    if kind == "variety" and not row.get("hazards") and ("toxic" in raw or "thorny" in raw):
        flags = (("toxic", "poison"), ("thorny", "thorns"))
        row["hazards"] = "; ".join(hazard for flag, hazard in flags if (raw.get(flag) or "").strip() == "1")


TABLES: dict[StoreKind, Table] = {kind: _table(about) for kind, about in STORES.items()}
