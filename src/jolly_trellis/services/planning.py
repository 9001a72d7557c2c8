"""Changing an event's plan: every change saved at once, stale writes refused, every step undone and redone."""

import sqlite3
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any

from jolly_trellis import __version__
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.piece import Piece, RecipeLine
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.services import figures
from jolly_trellis.store import codec, events, history
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.events import EventRow
from jolly_trellis.store.plan import MOST_PIECES, MOST_RIGS, Brief, Plan, PlannedPiece, PlannedRig

_SEATS = "dealt"


class NotFound(Exception):
    """No such event, piece or fix."""


class NothingToDo(Exception):
    """There is nothing to undo or to redo."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """One quantity that changed since a revision: dotted path, what it was, what it is now."""

    path: str
    was: Any
    now: Any


class Stale(Exception):
    """The write was based on a revision that is no longer the newest; `differences` says what changed."""

    def __init__(self, *, revision: int, differences: tuple[Difference, ...]) -> None:
        super().__init__("somebody else changed this plan meanwhile")
        self.revision = revision
        self.differences = differences


@dataclass(frozen=True, slots=True, kw_only=True)
class EventState:
    """An event as it stands, with what undo and redo would do, in words."""

    event: EventRow
    plan: Plan
    undo: str | None
    redo: str | None


def new_event(
    conn: sqlite3.Connection, brief: Brief, pieces: tuple[Piece, ...] = (), rigs: tuple[Rig, ...] = ()
) -> EventState:
    """Start an event; its first step, which cannot be undone, is the plan it starts with."""
    plan = Plan(
        brief=brief,
        pieces=tuple(PlannedPiece(id=index, piece=each) for index, each in enumerate(pieces, start=1)),
        rigs=tuple(PlannedRig(id=index, rig=each) for index, each in enumerate(rigs, start=len(pieces) + 1)),
    )
    return state(conn, begin(conn, plan).id)


def copy_event(conn: sqlite3.Connection, event_id: int) -> EventState:
    """A new event with the pieces, crew and ways of an old one; its times and what was set by hand are left open.

    Raises: NotFound.
    """
    plan = state(conn, event_id).plan
    brief = replace(
        plan.brief,
        name=f"{plan.brief.name[:112]}, copy",
        access_at=None,
        filled_at=None,
        starts_at=None,
        ends_at=None,
        clear_by=None,
        locks=(),
        figures="",
    )
    return state(conn, begin(conn, replace(plan, brief=brief)).id)


def begin(conn: sqlite3.Connection, plan: Plan) -> EventRow:
    """Start an event from a whole plan; its pieces keep their numbers."""
    with transaction(conn):
        plan = _pinned(conn, plan)
        event_id = events.add_event(conn, plan.brief)
        event = _event(conn, event_id)
        empty = Plan(brief=plan.brief)
        events.put_plan(conn, event, empty, plan, revision=1, step=0, version=__version__)
        history.add_step(conn, event_id, 0, "Start", plan)
        history.add_revision(conn, event_id, 1, plan)
        return _event(conn, event_id)


def delete_event(conn: sqlite3.Connection, event_id: int) -> None:
    """Delete an event; it can be brought back as it is. Raises NotFound."""
    with transaction(conn):
        if not events.set_deleted(conn, event_id, datetime.now(UTC).isoformat(timespec="seconds")):
            raise NotFound(f"event {event_id}")


def bring_back_event(conn: sqlite3.Connection, event_id: int) -> None:
    """Bring a deleted event back. Raises NotFound."""
    with transaction(conn):
        if not events.set_deleted(conn, event_id, None):
            raise NotFound(f"deleted event {event_id}")


def state(conn: sqlite3.Connection, event_id: int) -> EventState:
    """An event as it stands. Raises NotFound."""
    event = _event(conn, event_id)
    undo = None
    if event.step > 0 and history.step_plan(conn, event_id, event.step - 1) is not None:
        undo = history.step_label(conn, event_id, event.step)
    return EventState(
        event=event,
        plan=events.get_plan(conn, event_id),
        undo=undo,
        redo=history.step_label(conn, event_id, event.step + 1),
    )


def brief_of(conn: sqlite3.Connection, event_id: int) -> Brief:
    """The brief of an event, without its pieces. Raises NotFound."""
    brief = events.get_brief(conn, event_id)
    if brief is None:
        raise NotFound(f"event {event_id}")
    return brief


def piece_of(conn: sqlite3.Connection, event_id: int, piece_id: int) -> tuple[Piece, Brief]:
    """A piece and the brief of its event. Raises NotFound."""
    plan = state(conn, event_id).plan
    if piece_id not in plan.by_id():
        raise NotFound(f"piece {piece_id}")
    return plan.by_id()[piece_id], plan.brief


def put_brief(
    conn: sqlite3.Connection, event_id: int, brief: Brief, *, base_revision: int, label: str = "Change the brief"
) -> EventState:
    """Save the brief. Raises NotFound, Stale."""

    def change(plan: Plan) -> Plan:
        return replace(plan, brief=brief)

    return _change(conn, event_id, change, base_revision=base_revision, label=label, piece_id=None)


def put_recipes(
    conn: sqlite3.Connection,
    event_id: int,
    change_recipe: Callable[[tuple[RecipeLine, ...]], tuple[RecipeLine, ...]],
    *,
    base_revision: int,
    label: str,
) -> EventState:
    """Change the recipe of every piece and hung piece as one step. Raises NotFound; Stale: anything changed since."""

    def change(plan: Plan) -> Plan:
        if (now := _event(conn, event_id).revision) > base_revision:
            raise Stale(revision=now, differences=())
        return replace(
            plan,
            pieces=tuple(
                replace(each, piece=replace(each.piece, recipe=change_recipe(each.piece.recipe)))
                for each in plan.pieces
            ),
            rigs=tuple(
                replace(each, rig=replace(each.rig, recipe=change_recipe(each.rig.recipe))) for each in plan.rigs
            ),
        )

    return _change(conn, event_id, change, base_revision=base_revision, label=label, piece_id=None)


def add_piece(conn: sqlite3.Connection, event_id: int, piece: Piece, *, base_revision: int) -> tuple[EventState, int]:
    """Add a piece at the end of the line-up, with its number. Never stale: it touches nothing.

    Raises: NotFound; InvalidMeasure: the event has as many as it takes.
    """

    def add(plan: Plan, number: int) -> Plan:
        _room_for(len(plan.pieces), MOST_PIECES, "pieces")
        return replace(plan, pieces=(*plan.pieces, PlannedPiece(id=number, piece=piece)))

    return _add(conn, event_id, add, base_revision=base_revision, label=f"Add {piece.name}")


def put_piece(
    conn: sqlite3.Connection, event_id: int, piece_id: int, piece: Piece, *, base_revision: int, label: str
) -> EventState:
    """Save a piece. Raises NotFound, Stale."""

    def change(plan: Plan) -> Plan:
        if piece_id not in plan.by_id():
            raise NotFound(f"piece {piece_id}")
        pieces = tuple(replace(each, piece=piece) if each.id == piece_id else each for each in plan.pieces)
        return replace(plan, pieces=pieces)

    return _change(conn, event_id, change, base_revision=base_revision, label=label, piece_id=piece_id)


def remove_piece(conn: sqlite3.Connection, event_id: int, piece_id: int, *, base_revision: int) -> EventState:
    """Take a piece out; undo brings it back. Raises NotFound, Stale."""
    label = f"Remove {piece_of(conn, event_id, piece_id)[0].name}"

    def change(plan: Plan) -> Plan:
        return replace(plan, pieces=tuple(each for each in plan.pieces if each.id != piece_id))

    return _change(conn, event_id, change, base_revision=base_revision, label=label, piece_id=piece_id)


def rig_of(conn: sqlite3.Connection, event_id: int, rig_id: int) -> tuple[Rig, Brief]:
    """A hung piece and the brief of its event. Raises NotFound."""
    plan = state(conn, event_id).plan
    if rig_id not in plan.rigs_by_id():
        raise NotFound(f"rig {rig_id}")
    return plan.rigs_by_id()[rig_id], plan.brief


def add_rig(conn: sqlite3.Connection, event_id: int, rig: Rig, *, base_revision: int) -> tuple[EventState, int]:
    """Add a hung piece at the end of the line-up, with its number. Never stale: it touches nothing.

    Raises: NotFound; InvalidMeasure: the event has as many as it takes.
    """

    def add(plan: Plan, number: int) -> Plan:
        _room_for(len(plan.rigs), MOST_RIGS, "hung pieces")
        return replace(plan, rigs=(*plan.rigs, PlannedRig(id=number, rig=rig)))

    return _add(conn, event_id, add, base_revision=base_revision, label=f"Add {rig.name}")


def put_rig(
    conn: sqlite3.Connection, event_id: int, rig_id: int, rig: Rig, *, base_revision: int, label: str
) -> EventState:
    """Save a hung piece. Raises NotFound, Stale."""

    def change(plan: Plan) -> Plan:
        if rig_id not in plan.rigs_by_id():
            raise NotFound(f"rig {rig_id}")
        rigs = tuple(replace(each, rig=rig) if each.id == rig_id else each for each in plan.rigs)
        return replace(plan, rigs=rigs)

    return _change(conn, event_id, change, base_revision=base_revision, label=label, piece_id=rig_id)


def remove_rig(conn: sqlite3.Connection, event_id: int, rig_id: int, *, base_revision: int) -> EventState:
    """Take a hung piece out; undo brings it back. Raises NotFound, Stale."""
    label = f"Remove {rig_of(conn, event_id, rig_id)[0].name}"

    def change(plan: Plan) -> Plan:
        return replace(plan, rigs=tuple(each for each in plan.rigs if each.id != rig_id))

    return _change(conn, event_id, change, base_revision=base_revision, label=label, piece_id=rig_id)


def undo(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Go back one step. Raises NotFound, Stale, NothingToDo."""
    return _travel(conn, event_id, -1, base_revision=base_revision)


def redo(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Go forward one step again. Raises NotFound, Stale, NothingToDo."""
    return _travel(conn, event_id, 1, base_revision=base_revision)


def _room_for(have: int, most: int, what: str) -> None:
    if have >= most:
        raise InvalidMeasure(
            path="",
            message=phrase(f"This event has {have} {what} already."),
            limit=phrase(f"An event takes {most} {what}: plan the rest as an event of its own."),
        )


def _add(
    conn: sqlite3.Connection, event_id: int, add: Callable[[Plan, int], Plan], *, base_revision: int, label: str
) -> tuple[EventState, int]:
    """Add a part under the next number, which is read in the transaction that takes it."""
    with transaction(conn):
        event = _event(conn, event_id)
        _not_ahead(event, base_revision)
        before = events.get_plan(conn, event_id)
        _write(conn, event, before, add(before, event.next_piece), label)
    return state(conn, event_id), event.next_piece


def _not_ahead(event: EventRow, base_revision: int) -> None:
    """A write based on a revision that is not there yet, as after an older copy was put back, is stale too."""
    if base_revision > event.revision:
        raise Stale(revision=event.revision, differences=())


def _write(conn: sqlite3.Connection, event: EventRow, before: Plan, after: Plan, label: str) -> None:
    """Keep a changed plan as the next step, inside a transaction."""
    if not after.brief.figures and before.brief.figures:
        after = replace(after, brief=replace(after.brief, figures=before.brief.figures))
    if after == before:
        return
    after = _pinned(conn, after)
    revision, step = event.revision + 1, event.step + 1
    events.put_plan(conn, event, before, after, revision=revision, step=step, version=__version__)
    history.add_step(conn, event.id, step, label, after)
    history.add_revision(conn, event.id, revision, after)


def _pinned(conn: sqlite3.Connection, plan: Plan) -> Plan:
    """A plan that names the edition of the figures it is planned with, from its first change on."""
    return replace(plan, brief=replace(plan.brief, figures=figures.pin(conn, plan.brief.figures)))


def _change(
    conn: sqlite3.Connection,
    event_id: int,
    change: Callable[[Plan], Plan],
    *,
    base_revision: int,
    label: str,
    piece_id: int | None,
) -> EventState:
    """Apply a change to what it touches: one piece or rig, or the brief where `piece_id` is None."""
    with transaction(conn):
        event = _event(conn, event_id)
        _not_ahead(event, base_revision)
        touched = event.brief_revision
        if piece_id is not None:
            touched = events.part_revisions(conn, event_id).get(piece_id, 0)
        before = events.get_plan(conn, event_id)
        if touched > base_revision:
            raise Stale(
                revision=event.revision,
                differences=_differences(conn, event_id, base_revision, before, piece_id),
            )
        _write(conn, event, before, change(before), label)
    return state(conn, event_id)


def _travel(conn: sqlite3.Connection, event_id: int, by: int, *, base_revision: int) -> EventState:
    with transaction(conn):
        event = _event(conn, event_id)
        _not_ahead(event, base_revision)
        before = events.get_plan(conn, event_id)
        if event.revision > base_revision:
            raise Stale(
                revision=event.revision,
                differences=_differences(conn, event_id, base_revision, before, None),
            )
        step = event.step + by
        after = history.step_plan(conn, event_id, step)
        if after is None:
            raise NothingToDo("There is nothing to undo." if by < 0 else "There is nothing to redo.")
        revision = event.revision + 1
        events.put_plan(conn, event, before, after, revision=revision, step=step, version=__version__)
        history.add_revision(conn, event_id, revision, after)
    return state(conn, event_id)


def _event(conn: sqlite3.Connection, event_id: int) -> EventRow:
    event = events.get_event(conn, event_id)
    if event is None:
        raise NotFound(f"event {event_id}")
    return event


def _differences(
    conn: sqlite3.Connection, event_id: int, base_revision: int, now: Plan, piece_id: int | None
) -> tuple[Difference, ...]:
    """What changed since a revision, in one piece or in the whole plan."""
    then = history.revision_plan(conn, event_id, base_revision)
    if then is None:
        return ()
    was, is_now = (_flat(_part(plan, piece_id)) for plan in (then, now))
    return tuple(
        Difference(path=path, was=was.get(path), now=is_now.get(path))
        for path in sorted(was.keys() | is_now.keys())
        if was.get(path) != is_now.get(path)
    )


def _part(plan: Plan, piece_id: int | None) -> Any:
    if piece_id is not None:
        part = plan.by_id().get(piece_id) or plan.rigs_by_id().get(piece_id)
        return {} if part is None else codec.to_plain(part)
    names = {each: part.name for each, part in (plan.by_id() | plan.rigs_by_id()).items()}
    return {"brief": codec.to_plain(plan.brief), "pieces": names}


def _flat(value: Any, path: str = "") -> dict[str, Any]:
    """Leaves of nested plain data by dotted path; seats follow from the rest, and nobody changes them by hand."""
    if isinstance(value, dict):
        items = list(value.items())
    elif isinstance(value, (list, tuple)):
        items = list(enumerate(value))
    else:
        return {path: value}
    flat: dict[str, Any] = {}
    for key, each in items:
        if key == _SEATS:
            continue
        flat |= _flat(each, f"{path}.{key}" if path else str(key))
    return flat
