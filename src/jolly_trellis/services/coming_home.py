"""Coming home: everything that returns from an event into the stores, in one act that can be taken back in one."""

import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.keys import free_key, thing_id
from jolly_trellis.core.event.returning.returns import NEW, Return, returns_of
from jolly_trellis.core.materials.finished import Condition, FinishedArmature
from jolly_trellis.core.quantities import phrase
from jolly_trellis.services import event_work, planning, stores
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import homecoming, stock, stock_history
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.homecoming import Homecoming, HomeLine, Looked
from jolly_trellis.store.stock import Holding
from jolly_trellis.store.stock_history import Touched


@dataclass(frozen=True, slots=True, kw_only=True)
class Back:
    """How one line came home: how many can be used again, how they look, a note, a picture (empty: none)."""

    line: str
    back: int
    condition: Condition = "good"
    note: str = ""
    picture: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ReturnsState:
    """What comes home from an event, line by line, and how it did, None while it has not."""

    lines: tuple[Return, ...]
    home: Homecoming | None


def state(conn: sqlite3.Connection, event_id: int) -> ReturnsState:
    """What comes home from an event. Raises NotFound, CoreError."""
    return state_of(conn, event_work.work_of(conn, event_id))


def state_of(conn: sqlite3.Connection, work: EventWork) -> ReturnsState:
    """What comes home from an event that is gathered."""
    lines = returns_of(work.made, work.needs, work.job, work.shelves)
    return ReturnsState(lines=lines, home=homecoming.get_homecoming(conn, work.event_id))


def come_home(conn: sqlite3.Connection, event_id: int, backs: Iterable[Back]) -> None:
    """Take everything of an event back into the stores: a use more for what went, what was lost is counted off, what
    keeps its shape is there as finished armatures. A line that nothing is said of came back whole.

    Raises: NotFound; InvalidMeasure: it has come home already, a line that is none of the event's, or more came back
    than went out.
    """
    with transaction(conn):
        now = state(conn, event_id)
        if now.home is not None:
            raise InvalidMeasure(
                path="home",
                message=phrase("This event has come home already."),
                limit=phrase("Take that back first to count it again."),
            )
        event = planning.brief_of(conn, event_id).name
        by_line = {each.line: each for each in backs}
        if strange := set(by_line) - {each.key for each in now.lines}:
            raise NotFound(f"line {min(strange)}")
        plans = [
            _planned(conn, event, line, by_line.get(line.key) or Back(line=line.key, back=line.number))
            for line in now.lines
        ]
        touched: list[Touched] = [(each.kind, each.thing) for each in plans if each.thing]
        touched.append(("homecoming", str(event_id)))
        with stock_history.change(conn, f"Home from {event}", touched):
            for each in plans:
                _apply(conn, each)
            at = datetime.now(UTC).isoformat(timespec="seconds")
            homecoming.put_homecoming(conn, event_id, at, [_line(each) for each in plans if each.thing])


def take_back(conn: sqlite3.Connection, event_id: int) -> None:
    """Take a homecoming back: uses and counts stand as before, armatures that it brought are taken out again.

    Raises: NotFound: nothing came home.
    """
    with transaction(conn):
        done = homecoming.get_homecoming(conn, event_id)
        if done is None:
            raise NotFound(f"homecoming of {event_id}")
        touched: list[Touched] = [(_held(each.kind), each.thing) for each in done.lines]
        touched.append(("homecoming", str(event_id)))
        with stock_history.change(conn, "Not home after all", touched):
            held = stock.holdings(conn)
            for each in done.lines:
                kind = _held(each.kind)
                own = held[kind].get(each.thing, Holding())
                count = max(own.on_hand - each.added, 0)
                used = max(own.used - each.went, 0)
                if each.line.startswith(NEW) and not count:
                    stock.remove(conn, "armature", each.thing)
                    continue
                stock.put_holding(conn, kind, each.thing, replace(own, on_hand=count, used=used))
                _look_back(conn, each)
            homecoming.clear_homecoming(conn, event_id)


def _look_back(conn: sqlite3.Connection, line: HomeLine) -> None:
    """A finished armature as it was seen before it went; what somebody has said of it since then stays."""
    kept = stock.armatures(conn).get(line.thing) if line.kind == "armature" else None
    if kept is None or line.was is None or line.became is None:
        return
    back = {
        name: getattr(line.was, name)
        for name in ("condition", "note", "picture")
        if getattr(kept, name) == getattr(line.became, name)
    }
    stock.put(conn, "armature", kept.key, replace(kept, **back))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Planned:
    """What becomes of one line: the thing it is, how its count and uses change, the armature that is new."""

    line: Return
    kind: stores.CountedKind
    thing: str
    back: Back
    added: int
    new: FinishedArmature | None = None
    was: Looked | None = None
    became: Looked | None = None


def _planned(conn: sqlite3.Connection, event: str, line: Return, back: Back) -> _Planned:
    if not 0 <= back.back <= line.number:
        raise InvalidMeasure(
            path=f"{line.key}.back",
            message=phrase(
                "{n} of {said} cannot come back: {went} went out.", n=back.back, said=line.said, went=line.number
            ),
            limit=phrase("Give a number from 0 to {went}.", went=line.number),
        )
    kind = _held(line.kind)
    if line.shape is not None:
        known = stock.armatures(conn)
        new = FinishedArmature(
            key="new",
            name=line.said[:120],
            made_as=line.shape.made_as,
            netting=line.shape.netting,
            width_m=line.shape.width_m,
            length_m=line.shape.length_m,
            condition=back.condition,
            note=back.note,
            made_for=event[:120],
            picture=back.picture,
        )
        key = free_key(line.said, set(known) | {each.key for each in stock_history.deleted(conn)})
        return _Planned(
            line=line, kind=kind, thing=key if back.back else "", back=back, added=back.back, new=replace(new, key=key)
        )
    thing = line.thing if line.kind in ("frog", "armature") else _in_the_stores(conn, line)
    held = stock.holdings(conn)[kind].get(thing, Holding())
    lost = min(line.number - back.back, held.on_hand)
    was = became = None
    if kind == "armature" and (before := stock.armatures(conn).get(thing)) is not None:
        was = Looked(condition=before.condition, note=before.note, picture=before.picture)
        became = Looked(
            condition=back.condition, note=back.note or before.note, picture=back.picture or before.picture
        )
    return _Planned(line=line, kind=kind, thing=thing, back=back, added=-lost, was=was, became=became)


def _in_the_stores(conn: sqlite3.Connection, line: Return) -> str:
    """The key of a vessel or stand of the stores; empty for one of the plan's own, or one that is there no longer."""
    things: Mapping[str, object] = stock.vessels(conn) if line.kind == "vessel" else stock.stands(conn)
    return next((key for key in things if thing_id(line.kind, key, "") == line.thing), "")


def _apply(conn: sqlite3.Connection, planned: _Planned) -> None:
    if not planned.thing:
        return
    if planned.new is not None:
        stock.put(conn, "armature", planned.new.key, planned.new)
        holding = Holding(on_hand=planned.back.back, used=planned.line.number)
        stock.put_holding(conn, "armature", planned.thing, holding)
        return
    held = stock.holdings(conn)[planned.kind].get(planned.thing, Holding())
    changed = replace(held, on_hand=max(held.on_hand + planned.added, 0), used=held.used + planned.line.number)
    stock.put_holding(conn, planned.kind, planned.thing, changed)
    seen = planned.became
    if seen is not None:
        before = stock.armatures(conn)[planned.thing]
        looked = replace(before, condition=planned.back.condition, note=seen.note, picture=seen.picture)
        stock.put(conn, "armature", planned.thing, looked)


def _line(planned: _Planned) -> HomeLine:
    return HomeLine(
        line=planned.line.key,
        kind=planned.kind,
        thing=planned.thing,
        went=planned.line.number,
        back=planned.back.back,
        added=planned.added,
        condition=planned.back.condition,
        note=planned.back.note,
        was=planned.was,
        became=planned.became,
    )


def _held(kind: str) -> stores.CountedKind:
    counted: dict[str, stores.CountedKind] = {
        "vessel": "vessel",
        "stand": "stand",
        "frog": "frog",
        "armature": "armature",
    }
    return counted[kind]
