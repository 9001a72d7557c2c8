"""The stores as people keep them: take in, copy, count, retire, tables in and out."""

import sqlite3
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import date
from typing import Any, Literal

from jolly_trellis.catalog.about import STORES, About
from jolly_trellis.catalog.columns import Refused, rows_of, write_table
from jolly_trellis.catalog.rows import HeldKind, StoreKind
from jolly_trellis.core import ranges
from jolly_trellis.core.choices import MECHANICS
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.keys import free_key
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.provenance import MEASURED
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.ranges import Key
from jolly_trellis.services.gate import Based, Revisions, gate, settled
from jolly_trellis.services.planning import NotFound, NothingToDo
from jolly_trellis.store import codec, events, stock, stock_history
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.stock import Holding
from jolly_trellis.store.stock_history import Moved

CountedKind = Literal["vessel", "stand", "frog", "armature"]
_PRICES = ("price", "bunch_price", "stem_price")
_NAMING = frozenset(kind for kind, about in STORES.items() if about.named_by_plans)
# What is typed anew and is no measure of the thing.
_NOT_MEASURED = ("key", "name", "price", "bunch_size", "provenance")


@dataclass(frozen=True, slots=True, kw_only=True)
class Imported:
    """What a table changes: keys new and changed, how many are unchanged, rows refused; and whether it is written."""

    added: tuple[str, ...]
    changed: tuple[str, ...]
    unchanged: int
    refused: tuple[Refused, ...]
    written: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Keyed:
    """What a thing of the stores is kept under."""

    key: Key


def add(conn: sqlite3.Connection, kind: StoreKind, thing: Any) -> str:
    """Keep a thing under a key made of its name, one of it; the key. Raises CoreError."""
    with transaction(conn):
        key = free_key(thing.name, _taken(conn, kind))
        thing = replace(thing, key=key)
        ranges.check(thing)
        STORES[kind].check(thing)
        with stock_history.change(conn, f"Add {thing.name}", [(kind, key)]):
            stock.put(conn, kind, key, thing)
            stock.put_holding(conn, kind, key, Holding(on_hand=1))
    return key


def put(conn: sqlite3.Connection, kind: StoreKind, key: str, thing: Any) -> None:
    """Keep a thing under its key. Raises CoreError: it is no vessel or no net, no key, or newly costs nothing."""
    ranges.check(Keyed(key=key))
    ranges.check(thing)
    about = STORES[kind]
    kept = stock.things(conn, kind).get(key)
    thing = about.follows(_measured(about, thing, kept), kept)
    about.check(thing)
    if isinstance(thing, Variety):
        _refuse_a_name_of_another(thing, stock.varieties(conn))
        thing = _dated(conn, thing, kept)
    _refuse_a_price_of_nothing(thing, kept)
    with stock_history.change(conn, f"Change {thing.name}", [(kind, key)]):
        stock.put(conn, kind, key, thing)


def _measured(about: About, thing: Any, kept: Any) -> Any:
    """A thing whose figures that were typed anew are the studio's own from then on, unless it says whence they are."""
    if not about.views or kept is None or thing.provenance != kept.provenance:
        return thing
    groups = {
        about.figures.get(name, "") or ("" if about.figures else "provenance")
        for name in about.fields
        if name not in _NOT_MEASURED and getattr(thing, name) != getattr(kept, name)
    } - {""}
    if not groups:
        return thing
    own = MEASURED if not about.figures else replace(thing.provenance, **dict.fromkeys(groups, MEASURED))
    return replace(thing, provenance=own)


def _refuse_a_name_of_another(variety: Variety, known: Mapping[str, Variety]) -> None:
    own = variety.name.strip().casefold()
    for each in known.values():
        if each.key != variety.key and each.name.strip().casefold() == own:
            raise InvalidMeasure(
                path="name",
                message=phrase("There is a variety called “{name}” already.", name=each.name),
                limit=phrase("Give it a name that tells it from the other, such as “{name}, tall”.", name=each.name),
            )


def _dated(conn: sqlite3.Connection, variety: Variety, kept: Variety | None) -> Variety:
    """A variety with the day and the currency of a price that was changed now, where nobody gave another day."""
    before = None if kept is None else (kept.bunch_price, kept.stem_price, kept.priced_on)
    now = (variety.bunch_price, variety.stem_price, variety.priced_on)
    if kept is None or before == now or now[:2] == (None, None) or variety.priced_on != kept.priced_on:
        return variety
    return replace(
        variety,
        priced_on=date.today().isoformat(),
        currency=variety.currency or stock.currency(conn),
        provenance=replace(variety.provenance, price=MEASURED),
    )


def _refuse_a_price_of_nothing(thing: Any, kept: Any) -> None:
    for field in _PRICES:
        if getattr(thing, field, None) == 0 and getattr(kept, field, None) != 0:
            raise InvalidMeasure(
                path=field,
                message=phrase("A price of nothing would make everything of it free."),
                limit=phrase("Leave it empty where it is not known."),
            )


def copy(conn: sqlite3.Connection, kind: StoreKind, key: str) -> str:
    """Copy a thing under a new key and name; the new key. Raises NotFound."""
    with transaction(conn):
        known = stock.things(conn, kind)
        if key not in known:
            raise NotFound(f"{kind} {key}")
        thing = replace(known[key], name=f"{known[key].name}, copy")
        new = free_key(thing.name, _taken(conn, kind))
        thing = replace(thing, key=new)
        with stock_history.change(conn, f"Copy {known[key].name}", [(kind, new)]):
            stock.put(conn, kind, new, thing)
    return new


def put_currency(conn: sqlite3.Connection, currency: str) -> None:
    """Say which currency the prices of the stores are in. Raises InvalidMeasure: none is named."""
    if not currency.strip():
        raise InvalidMeasure(
            path="currency",
            message=phrase("The prices of the stores are in some currency."),
            limit=phrase("Give its sign or its letters, such as € or EUR."),
        )
    with transaction(conn):
        stock.put_currency(conn, currency.strip())


def count(conn: sqlite3.Connection, kind: HeldKind, key: str, holding: Holding) -> None:
    """Say how many there are, retire or bring back. Raises NotFound."""
    with transaction(conn):
        if kind == "mechanic":
            names: dict[str, str] = {each: each.replace("_", " ") for each in MECHANICS.known}
        else:
            names = {each: thing.name for each, thing in stock.things(conn, kind).items()}
        if key not in names:
            raise NotFound(f"{kind} {key}")
        with stock_history.change(conn, f"Count {names[key]}", [(kind, key)]):
            stock.put_holding(conn, kind, key, holding)


def delete(conn: sqlite3.Connection, kind: StoreKind, key: str) -> None:
    """Take a thing out of the stores; it can be brought back.

    Raises: NotFound; InvalidMeasure: a piece of an event is made with it.
    """
    with transaction(conn):
        known = stock.things(conn, kind)
        if key not in known:
            raise NotFound(f"{kind} {key}")
        used = _made_with(conn, key) if STORES[kind].named_by_plans else []
        if used:
            more = f" and {len(used) - 1} more" if len(used) > 1 else ""
            raise InvalidMeasure(
                path=key,
                message=phrase("{key} is in {used}{more}.", key=known[key].name, used=used[0], more=more),
                limit=phrase("Retire it instead: it is offered no longer, and what is planned with it stays."),
            )
        with stock_history.change(conn, f"Delete {known[key].name}", [(kind, key)]):
            stock_history.delete(conn, kind, key, known[key].name)


def bring_back(conn: sqlite3.Connection, kind: StoreKind, key: str) -> None:
    """Bring back what was deleted, with its count. Raises NotFound."""
    with transaction(conn):
        names = {(each.kind, each.key): each.name for each in stock_history.deleted(conn)}
        if (kind, key) not in names:
            raise NotFound(f"deleted {kind} {key}")
        with stock_history.change(conn, f"Bring back {names[kind, key]}", [(kind, key)]):
            stock_history.bring_back(conn, kind, key)


@contextmanager
def based_on(conn: sqlite3.Connection, base_revision: int, *, touches: bool = True) -> Iterator[None]:
    """One write to the stores as they stood for whoever makes it, all or nothing.

    Args:
        touches: False for what only comes to them: they may have changed since.
    Raises: Stale: they stand otherwise by now, or never stood so.
    """
    with gate(conn, lambda: _revisions_of(conn, touches=touches), base_revision):
        yield


def put_over(conn: sqlite3.Connection, kind: StoreKind, key: str, thing: Any, based: Based[Any]) -> None:
    """Keep a thing under its key with what its window changed of it. Raises Stale, CoreError: as `put` does."""
    with transaction(conn):
        now = stock.things(conn, kind).get(key)
        base = based.revision
        if now is not None:
            thing, base = settled(thing, now, based, _revisions_of(conn), type(now))
        with based_on(conn, base):
            put(conn, kind, key, thing)


def count_over(conn: sqlite3.Connection, kind: HeldKind, key: str, holding: Holding, based: Based[Holding]) -> None:
    """Say how many there are, with what its window changed of that. Raises Stale, NotFound."""
    with transaction(conn):
        now = stock.holdings(conn).get(kind, {}).get(key, Holding())
        holding, base = settled(holding, now, based, _revisions_of(conn), Holding)
        with based_on(conn, base):
            count(conn, kind, key, holding)


def _revisions_of(conn: sqlite3.Connection, *, touches: bool = True) -> Revisions:
    newest = stock.revision(conn)
    return Revisions(newest=newest, touched=newest if touches else 0)


def travel(conn: sqlite3.Connection, *, back: bool) -> None:
    """Undo or redo one act in the stores.

    Raises: NothingToDo; InvalidMeasure: what it would undo has been used since.
    """
    with transaction(conn):
        try:
            went = stock_history.travel(conn, back=back)
        except Moved as problem:
            raise InvalidMeasure(
                path="", message=phrase("{problem}", problem=str(problem)), limit=phrase("Nothing was changed.")
            ) from None
        if not went:
            raise NothingToDo("There is nothing to undo." if back else "There is nothing to redo.")


def export_table(conn: sqlite3.Connection, kind: StoreKind) -> str:
    """Everything of one kind as CSV."""
    return write_table(kind, stock.things(conn, kind))


def import_table(conn: sqlite3.Connection, kind: StoreKind, text: str, *, dry_run: bool) -> Imported:
    """Read a CSV into the stores, or only say what it would change; rows that cannot be read are left out and named.

    Raises: BadTable: the text is no such table at all.
    """
    with transaction(conn):
        return _import(conn, kind, text, dry_run=dry_run)


def _import(conn: sqlite3.Connection, kind: StoreKind, text: str, *, dry_run: bool) -> Imported:
    known = stock.things(conn, kind)
    added: list[str] = []
    changed: list[str] = []
    refused: list[Refused] = []
    taken: dict[str, Any] = {}
    unchanged = 0
    for line, found, refusal in rows_of(kind, text):
        if refusal is not None:
            refused.append(refusal)
            continue
        key, thing = found
        if key in taken:
            refused.append(Refused(line=line, column="key", why=f"“{key}” stands in the table twice. Keep one."))
            continue
        taken[key] = thing
        if key not in known:
            added.append(key)
        elif known[key] != thing:
            changed.append(key)
        else:
            unchanged += 1
    if not dry_run:
        with stock_history.change(conn, f"Read a table of {kind}s", [(kind, key) for key in (*added, *changed)]):
            for key in (*added, *changed):
                stock.put(conn, kind, key, taken[key])
    return Imported(
        added=tuple(added),
        changed=tuple(changed),
        unchanged=unchanged,
        refused=tuple(refused),
        written=not dry_run,
    )


def _taken(conn: sqlite3.Connection, kind: StoreKind) -> set[str]:
    """Keys that are in use or were, so that what was deleted can come back."""
    return set(stock.things(conn, kind)) | {each.key for each in stock_history.deleted(conn) if each.kind == kind}


def _made_with(conn: sqlite3.Connection, key: str) -> list[str]:
    """Every piece, with its event, whose plan names a netting, frog or variety by this key."""
    found = []
    for event in events.list_events(conn):
        plan = events.get_plan(conn, event.id)
        works = [each.part for each in plan.parts]
        found += [f"“{work.name}” of {event.name}" for work in works if _names(codec.to_plain(work), key)]
    return found


def _names(plain: Any, key: str) -> bool:
    if isinstance(plain, dict):
        return any(value == key if field in _NAMING else _names(value, key) for field, value in plain.items())
    return isinstance(plain, (list, tuple)) and any(_names(each, key) for each in plain)
