"""How a row of each table of the stores becomes a thing and back: by the fields of the thing, with units in the names.

The columns are those of the catalogue's own file; which field one is, and in which unit, is in its name. Ranges,
choices and defaults are the core's.
"""

import csv
import math
from collections.abc import Callable, Mapping
from dataclasses import MISSING, dataclass
from functools import partial
from importlib.resources import files
from typing import Any, Literal

from jolly_trellis.catalog.cells import BadCell, Row, choice, flag, number, provenance, whole
from jolly_trellis.core.materials.finished import FinishedArmature
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting, pitch_across_m
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.materials.stems import Variety, VarietyProvenance, check_kind
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.materials.vessels import Vessel, check_vessel
from jolly_trellis.core.plan.field_table import FieldOf, field_table
from jolly_trellis.core.plan_shapes import SHAPES
from jolly_trellis.core.ranges import label_of

StoreKind = Literal["vessel", "stand", "netting", "frog", "variety", "supply", "armature"]
KINDS: Mapping[StoreKind, type] = {
    "vessel": Vessel,
    "stand": Stand,
    "netting": Netting,
    "frog": Frog,
    "variety": Variety,
    "supply": Supply,
    "armature": FinishedArmature,
}
FILES: Mapping[StoreKind, str] = {
    "vessel": "vessels.csv",
    "stand": "stands.csv",
    "netting": "netting.csv",
    "frog": "frogs.csv",
    "variety": "varieties.csv",
    "supply": "supplies.csv",
    "armature": "armatures.csv",
}
_NOTE = "provenance_note"
# The unit in a column's name, the one in the field's, and how many of this one it is.
_UNITS = (("_mm", "_m", 1e-3), ("_cm", "_m", 1e-2), ("_g", "_kg", 1e-3), ("_ml", "_l", 1e-3))


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """One column: how a cell of it is read from a row, and written for a thing; whether it may be left out."""

    name: str
    optional: bool
    read: Callable[[Row], Any]
    write: Callable[[Any], str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """The columns of one kind, in order, and how a row becomes a thing and back."""

    columns: tuple[str, ...]
    optional: frozenset[str]
    read: Callable[[Row], Any]
    write: Callable[[str, Any], Row]


def _table(kind: StoreKind) -> Table:
    thing = KINDS[kind]
    header = _header(FILES[kind])
    known = field_table(thing)
    columns = [_column(name, known) for name in header if name not in ("key", _NOTE) and name not in _APART[kind]]
    apart = {name: column for name, column in _APART[kind].items() if name in header}
    by_name = {each.name: each for each in columns} | apart
    must = {"key", *(name for name, each in by_name.items() if not each.optional)}

    def read(row: Row) -> Any:
        values: dict[str, Any] = {"key": row["key"]} if "key" in known else {}
        for name, column in by_name.items():
            field = _field_of(name, known)
            if field is not None and (value := column.read(row)) is not MISSING:
                values[field.name] = value
        return _whole(kind, row, thing, values)

    def write(key: str, thing: Any) -> Row:
        row = {"key": key, **{name: each.write(thing) for name, each in by_name.items()}}
        return {name: row[name] if name in row else _note_of(thing) for name in header}

    return Table(columns=header, optional=frozenset(header) - must, read=read, write=write)


def _whole(kind: StoreKind, row: Row, thing: type, values: dict[str, Any]) -> Any:
    """The thing of a row, and what its kind asks of more than one cell. Raises BadCell, CoreError."""
    match kind:
        case "variety":
            groups = field_table(VarietyProvenance)
            values["provenance"] = VarietyProvenance(
                **{each: provenance(row, f"{each}_provenance") for each in groups}
            )
        case "netting":
            values["provenance"] = provenance(row, "size_provenance")
        case "frog" | "supply" | "stand" | "armature":
            values["provenance"] = provenance(row, "provenance")
        case "vessel":
            pass
    if kind == "supply" and values["measured_by"] == "stick" and values.get("stick_m") is None:
        raise BadCell("stick_m", "A stick has no length here. Give how long one is, in metres, such as 0.9.")
    made = thing(**values)
    if isinstance(made, Vessel):
        check_vessel(made)
    if isinstance(made, Variety):
        check_kind(made)
    if isinstance(made, Netting):
        pitch_across_m(made)
    return made


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
        return "; ".join(value) if field.kind is str else " ".join(_plain(each, scale) for each in value)
    if field.kind is bool:
        return str(int(value))
    return str(value) if field.kind is str else _plain(value, scale)


def _plain(value: float | None, scale: float) -> str:
    return "" if value is None else f"{round(value / scale, 4):.10g}"


def _header(name: str) -> tuple[str, ...]:
    text = (files("jolly_trellis.catalog") / name).read_text(encoding="utf-8")
    return tuple(next(csv.reader(text.splitlines())))


def _note_of(thing: Any) -> str:
    known = thing.provenance
    return str((known.size if isinstance(known, VarietyProvenance) else known).source)


CORNER = "^"  # after a point of a profile at which the outline bends sharply


def _read_profile(row: Row) -> tuple[ProfilePoint, ...]:
    points = []
    for text in row["profile_cm"].split():
        height, _, size = text.removesuffix(CORNER).partition(":")
        width, _, depth = size.partition("x")
        try:
            values = [float(each) / 100 for each in (height, width, depth or width)]
        except ValueError:
            raise BadCell("profile_cm", f"“{text[:30]}” is no measure. Type height:size, such as 9.5:20.") from None
        if not all(math.isfinite(each) and 0 <= each <= 5 for each in values):
            raise BadCell("profile_cm", f"“{text[:30]}” is out of range. Give centimetres, up to 500.")
        corner = text.endswith(CORNER)
        points.append(ProfilePoint(height_m=values[0], width_m=values[1], depth_m=values[2], corner=corner))
    return tuple(points)


def _write_profile(vessel: Vessel) -> str:
    alike = SHAPES[vessel.plan_shape].even
    return " ".join(
        f"{_plain(p.height_m, 1e-2)}:{_plain(p.width_m, 1e-2)}"
        + ("" if alike else f"x{_plain(p.depth_m, 1e-2)}")
        + (CORNER if p.corner else "")
        for p in vessel.profile
    )


def _kind_of(group: str, variety: Variety) -> str:
    return str(getattr(variety.provenance, group).kind)


def as_before(kind: StoreKind, raw: Mapping[str, str | None], row: Row) -> None:
    """Fill in what a table of an earlier version said in other columns: two flags, before hazards had names."""
    if kind == "variety" and not row.get("hazards") and ("toxic" in raw or "thorny" in raw):
        flags = (("toxic", "poison"), ("thorny", "thorns"))
        row["hazards"] = "; ".join(hazard for flag, hazard in flags if (raw.get(flag) or "").strip() == "1")


def _whence(name: str, of: Callable[[Any], str]) -> Column:
    """A column that says where figures come from; read together with the note."""
    return Column(name=name, optional=True, read=lambda _: MISSING, write=of)


# Columns that are no field of their own: a profile in one cell, and what figures are from.
_APART: Mapping[StoreKind, Mapping[str, Column]] = {
    "vessel": {
        "profile_cm": Column(name="profile_cm", optional=False, read=_read_profile, write=_write_profile),
    },
    "netting": {"size_provenance": _whence("size_provenance", lambda each: each.provenance.kind)},
    "frog": {"provenance": _whence("provenance", lambda each: each.provenance.kind)},
    "supply": {"provenance": _whence("provenance", lambda each: each.provenance.kind)},
    "stand": {"provenance": _whence("provenance", lambda each: each.provenance.kind)},
    "armature": {"provenance": _whence("provenance", lambda each: each.provenance.kind)},
    "variety": {
        f"{group}_provenance": _whence(f"{group}_provenance", partial(_kind_of, group))
        for group in field_table(VarietyProvenance)
    },
}
TABLES: dict[StoreKind, Table] = {kind: _table(kind) for kind in KINDS}
