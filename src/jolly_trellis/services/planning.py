"""Changing an event's plan: every change saved at once, stale writes refused, every step undone and redone."""

import sqlite3
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any, Literal

from jolly_trellis import __version__
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import lenders_keyed
from jolly_trellis.core.event.keys import keyed
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.services import figures, places
from jolly_trellis.services.gate import Based, Difference, Revisions, gate, settled
from jolly_trellis.services.things import hires_told, of_these_stores
from jolly_trellis.store import codec, events, history, plan_changes
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.difference import Way
from jolly_trellis.store.events import EventRow
from jolly_trellis.store.history import Change
from jolly_trellis.store.merging import leaves
from jolly_trellis.store.plan import MOST_PARTS, Brief, Plan, Planned

# What a write touches: a part by its number, or one of these.
Touching = int | Literal["brief", "all", "nothing"]
_BRIEF: Touching = "brief"
_ALL: Touching = "all"
_NOTHING: Touching = "nothing"


class NotFound(Exception):
    """No such event, part or fix."""


class NothingToDo(Exception):
    """There is nothing to undo or to redo."""


@dataclass(frozen=True, slots=True, kw_only=True)
class EventState:
    """An event as it stands, with what undo and redo would do, in words."""

    event: EventRow
    plan: Plan
    undo: str | None
    redo: str | None


def new_event(conn: sqlite3.Connection, brief: Brief, parts: tuple[Part, ...] = ()) -> EventState:
    """Start an event; its first step, which cannot be undone, is the plan it starts with."""
    planned = tuple(Planned(id=number, part=each) for number, each in enumerate(parts, start=1))
    return state(conn, begin(conn, Plan(brief=brief, parts=planned)).id)


def copy_event(conn: sqlite3.Connection, event_id: int) -> EventState:
    """A new event with the pieces, crew and ways of an old one; its times, what is hired, paid and accepted, and what
    was set by hand are left open.

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
        builds_from=None,
        builds_to=None,
        locks=(),
        hires=(),
        reused=(),
        quote=None,
        costing=replace(plan.brief.costing, paid=Decimal(0)),
        figures="",
    )
    return state(conn, begin(conn, replace(plan, brief=brief)).id)


def begin(conn: sqlite3.Connection, plan: Plan) -> EventRow:
    """Start an event from a whole plan; its pieces keep their numbers."""
    with transaction(conn):
        plan = _as_kept(conn, of_these_stores(conn, plan))
        event_id = events.add_event(conn, plan.brief)
        event = event_row(conn, event_id)
        changes = plan_changes.between(Plan(brief=plan.brief), plan)
        events.put_plan(conn, event, plan, changes, revision=1, step=0, version=__version__)
        history.add(conn, event_id, 1, Change(step=None, label="Start", changes={}))
        return event_row(conn, event_id)


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
    event = event_row(conn, event_id)
    return EventState(
        event=event,
        plan=events.get_plan(conn, event_id),
        undo=history.label(conn, event_id, event.step),
        redo=history.label(conn, event_id, event.step + 1),
    )


def brief_of(conn: sqlite3.Connection, event_id: int) -> Brief:
    """The brief of an event, without its pieces. Raises NotFound."""
    brief = events.get_brief(conn, event_id)
    if brief is None:
        raise NotFound(f"event {event_id}")
    return brief


def part_of(conn: sqlite3.Connection, event_id: int, part_id: int) -> tuple[Part, Brief]:
    """A part and the brief of its event. Raises NotFound."""
    brief = brief_of(conn, event_id)
    part = events.get_part(conn, event_id, part_id)
    if part is None:
        raise NotFound(f"part {part_id}")
    return part, brief


def piece_of(conn: sqlite3.Connection, event_id: int, part_id: int) -> tuple[Piece, Brief]:
    """A part that stands or is carried, and the brief of its event. Raises NotFound."""
    part, brief = part_of(conn, event_id, part_id)
    if not in_vessels(part):
        raise NotFound(f"piece {part_id}")
    return part, brief


def rig_of(conn: sqlite3.Connection, event_id: int, part_id: int) -> tuple[Rig, Brief]:
    """A part that hangs or is mounted, and the brief of its event. Raises NotFound."""
    part, brief = part_of(conn, event_id, part_id)
    if not hangs(part):
        raise NotFound(f"rig {part_id}")
    return part, brief


def settled_brief(conn: sqlite3.Connection, event_id: int, mine: Brief, based: Based[Brief]) -> tuple[Brief, int]:
    """A brief with what its window changed, and the revision it rests on. Raises NotFound; Stale: see `settled`."""
    event = event_row(conn, event_id)
    return settled(mine, brief_of(conn, event_id), based, _revisions_of(conn, event, _BRIEF), Brief)


def settled_part(
    conn: sqlite3.Connection, event_id: int, part_id: int, mine: Part, based: Based[Part]
) -> tuple[Part, int]:
    """A part with what its window changed, and the revision it rests on. Raises NotFound; Stale: see `settled`."""
    event = event_row(conn, event_id)
    now, _ = part_of(conn, event_id, part_id)
    part: tuple[Any, int] = settled(mine, now, based, _revisions_of(conn, event, part_id), type(now))
    return part


def put_brief(
    conn: sqlite3.Connection, event_id: int, brief: Brief, *, base_revision: int, label: str = "Change the brief"
) -> EventState:
    """Save the brief. Raises NotFound, Stale."""

    def change(plan: Plan) -> Plan:
        return replace(plan, brief=brief)

    return _change(conn, event_id, change, base_revision=base_revision, label=label, touching=_BRIEF)


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
        parts = tuple(
            replace(each, part=replace(each.part, recipe=change_recipe(each.part.recipe))) for each in plan.parts
        )
        return replace(plan, parts=parts)

    return _change(conn, event_id, change, base_revision=base_revision, label=label, touching=_ALL)


def put_plan(conn: sqlite3.Connection, event_id: int, plan: Plan, *, base_revision: int, label: str) -> EventState:
    """Put a whole plan in place of the one that it was made from, as one step.

    Raises: NotFound; Stale: anything changed since.
    """
    return _change(conn, event_id, lambda _: plan, base_revision=base_revision, label=label, touching=_ALL)


def add_part(conn: sqlite3.Connection, event_id: int, part: Part, *, base_revision: int) -> tuple[EventState, int]:
    """Add a part at the end of the line-up, with its number. Never stale: it touches nothing.

    Raises: NotFound; InvalidMeasure: the event has as many as it takes.
    """
    return add_parts(conn, event_id, [part], base_revision=base_revision)


def add_parts(
    conn: sqlite3.Connection, event_id: int, parts: Sequence[Part], *, base_revision: int
) -> tuple[EventState, int]:
    """Add parts at the end of the line-up in one act, with the number of the first. Never stale: it touches nothing.

    Raises: NotFound; InvalidMeasure: there is none to add, or the event has as many as it takes.
    """
    if not parts:
        raise InvalidMeasure(
            path="",
            message=phrase("Nothing that can be made was understood."),
            limit=phrase("Name a vessel, a ring, a bouquet or stems, such as: 3 bowls 20 across, 9 roses."),
        )
    with _gate(conn, event_id, base_revision, _NOTHING) as event:
        before = events.get_plan(conn, event_id)
        _room_for(before, len(parts))
        own = tuple(Planned(id=event.next_part + nth, part=part) for nth, part in enumerate(parts))
        label = f"Add {parts[0].name}" if len(parts) == 1 else f"Add {len(parts)} pieces"
        _write(conn, event, before, replace(before, parts=(*before.parts, *own)), label)
    return state(conn, event_id), event.next_part


def put_part(
    conn: sqlite3.Connection, event_id: int, part_id: int, part: Part, *, base_revision: int, label: str
) -> EventState:
    """Save a part. Raises NotFound: there is none of that number and kind; Stale."""

    def change(plan: Plan) -> Plan:
        if type(plan.by_id().get(part_id)) is not type(part):
            raise NotFound(f"part {part_id}")
        parts = tuple(replace(each, part=part) if each.id == part_id else each for each in plan.parts)
        return replace(plan, parts=parts)

    return _change(conn, event_id, change, base_revision=base_revision, label=label, touching=part_id)


def remove_part(conn: sqlite3.Connection, event_id: int, part_id: int, *, base_revision: int) -> EventState:
    """Take a part out; undo brings it back. Raises NotFound, Stale."""
    label = f"Remove {part_of(conn, event_id, part_id)[0].name}"

    def change(plan: Plan) -> Plan:
        return replace(plan, parts=tuple(each for each in plan.parts if each.id != part_id))

    return _change(conn, event_id, change, base_revision=base_revision, label=label, touching=part_id)


def undo(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Go back one step. Raises NotFound, Stale, NothingToDo."""
    return _travel(conn, event_id, "back", base_revision=base_revision)


def redo(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Go forward one step again. Raises NotFound, Stale, NothingToDo."""
    return _travel(conn, event_id, "forth", base_revision=base_revision)


def _room_for(plan: Plan, more: int) -> None:
    if len(plan.parts) + more > MOST_PARTS:
        raise InvalidMeasure(
            path="",
            message=phrase("This event has {n} {n|piece|pieces} already.", n=len(plan.parts)),
            limit=phrase(
                "An event takes {most_parts} pieces: plan the rest as an event of its own.", most_parts=MOST_PARTS
            ),
        )


def _write(conn: sqlite3.Connection, event: EventRow, before: Plan, after: Plan, label: str) -> None:
    """Keep a changed plan as the next step, inside a transaction."""
    if not after.brief.figures and before.brief.figures:
        after = replace(after, brief=replace(after.brief, figures=before.brief.figures))
    if not plan_changes.between(before, after):
        return
    after = _as_kept(conn, after)
    changes = plan_changes.between(before, after)
    revision, step = event.revision + 1, event.step + 1
    events.put_plan(conn, event, after, changes, revision=revision, step=step, version=__version__)
    history.add(conn, event.id, revision, Change(step=step, label=label, changes=changes))


def _as_kept(conn: sqlite3.Connection, plan: Plan) -> Plan:
    """A plan as it is kept, from its first change on: rows of the brief keyed, the edition of its figures named."""
    plan = hires_told(plan)
    brief = replace(
        plan.brief,
        crew=keyed(plan.brief.crew),
        suppliers=keyed(plan.brief.suppliers),
        hires=lenders_keyed(plan.brief.hires),
        place_key=places.key_kept(conn, plan.brief),
        figures=figures.pin(conn, plan.brief.figures),
    )
    return replace(plan, brief=brief)


def _revisions_of(conn: sqlite3.Connection, event: EventRow, touching: Touching) -> Revisions:
    """Where the revisions of an event stand for a write that touches one part of it, the brief, all or nothing."""
    match touching:
        case "brief":
            touched = event.brief_revision
        case "all":
            touched = event.revision
        case "nothing":
            touched = 0
        case part_id:
            touched = events.part_revisions(conn, event.id).get(part_id, 0)
    return Revisions(newest=event.revision, touched=touched)


@contextmanager
def _gate(conn: sqlite3.Connection, event_id: int, base_revision: int, touching: Touching) -> Iterator[EventRow]:
    """The event inside the transaction of one write. Raises NotFound, Stale."""

    def since() -> tuple[Difference, ...]:
        part_id = touching if isinstance(touching, int) else None
        return _differences(conn, event_id, base_revision, events.get_plan(conn, event_id), part_id)

    with gate(conn, lambda: _revisions_of(conn, event_row(conn, event_id), touching), base_revision, since):
        yield event_row(conn, event_id)


def _change(
    conn: sqlite3.Connection,
    event_id: int,
    change: Callable[[Plan], Plan],
    *,
    base_revision: int,
    label: str,
    touching: Touching,
) -> EventState:
    """Apply a change to what it touches."""
    with _gate(conn, event_id, base_revision, touching) as event:
        before = events.get_plan(conn, event_id)
        _write(conn, event, before, change(before), label)
    return state(conn, event_id)


def _travel(conn: sqlite3.Connection, event_id: int, way: Way, *, base_revision: int) -> EventState:
    with _gate(conn, event_id, base_revision, _ALL) as event:
        before = events.get_plan(conn, event_id)
        found = history.step(conn, event_id, event.step + (way == "forth"))
        if found is None:
            raise NothingToDo("There is nothing to undo." if way == "back" else "There is nothing to redo.")
        after = plan_changes.moved(before, found.changes, way)
        changes = plan_changes.between(before, after)
        revision, step = event.revision + 1, event.step + (1 if way == "forth" else -1)
        events.put_plan(conn, event, after, changes, revision=revision, step=step, version=__version__)
        history.add(conn, event_id, revision, Change(step=None, label="", changes=changes))
    return state(conn, event_id)


def event_row(conn: sqlite3.Connection, event_id: int) -> EventRow:
    event = events.get_event(conn, event_id)
    if event is None:
        raise NotFound(f"event {event_id}")
    return event


def _differences(
    conn: sqlite3.Connection, event_id: int, base_revision: int, now: Plan, part_id: int | None
) -> tuple[Difference, ...]:
    """What changed since a revision, in one part or in the whole plan; nothing where that is not known any more."""
    changed = history.since(conn, event_id, base_revision)
    if changed is None:
        return ()
    then = now
    for each in changed:
        then = plan_changes.moved(then, each.changes, "back")
    was, is_now = (dict(leaves(_part(plan, part_id))) for plan in (then, now))
    return tuple(
        Difference(path=path, was=was.get(path), now=is_now.get(path))
        for path in sorted(was.keys() | is_now.keys())
        if was.get(path) != is_now.get(path)
    )


def _part(plan: Plan, part_id: int | None) -> Any:
    if part_id is not None:
        part = plan.by_id().get(part_id)
        return {} if part is None else codec.to_plain(part)
    return {"brief": codec.to_plain(plan.brief), "pieces": {each.id: each.part.name for each in plan.parts}}
