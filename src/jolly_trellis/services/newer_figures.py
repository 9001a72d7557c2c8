"""Newer figures for an event that is pinned to older ones: what they change, and taking them in one act."""

import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass, replace

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.checks.verdicts import State, Verb
from jolly_trellis.core.method import CONSTANTS
from jolly_trellis.core.quantities import Quantity
from jolly_trellis.services import figures, judging, planning
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.planning import EventState
from jolly_trellis.store.plan import Plan

_WORSE: tuple[State, ...] = ("not needed", "holds", "tight", "cannot say", "fails")


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureChange:
    """A figure whose number is another one in the current book."""

    key: str
    label: str
    was: Quantity
    now: Quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class VerdictChange:
    """A verdict that the current book judges otherwise; None where a piece cannot be worked out."""

    piece_id: int
    name: str
    verb: Verb
    was: State | None
    now: State | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Newer:
    """What the current book would change in an event: figures, and verdicts, those that get worse first."""

    figures: tuple[FigureChange, ...]
    verdicts: tuple[VerdictChange, ...]


def newer(conn: sqlite3.Connection, event_id: int) -> Newer:
    """What taking the current figures would change. Raises NotFound."""
    plan = planning.state(conn, event_id).plan
    old, new = figures.of_event(conn, event_id), figures.current(conn)
    if old.edition == new.edition:
        return Newer(figures=(), verdicts=())
    changed = tuple(
        FigureChange(
            key=key,
            label=CONSTANTS[key].label,
            was=Quantity(kind=CONSTANTS[key].kind, value=old.values[key]),
            now=Quantity(kind=CONSTANTS[key].kind, value=value),
        )
        for key, value in new.values.items()
        if old.values[key] != value
    )
    before, after = _states(conn, event_id, plan, old), _states(conn, event_id, plan, new)
    names = {each.id: each.part.name for each in plan.parts}
    verdicts = [
        VerdictChange(piece_id=number, name=names[number], verb=verb, was=before.get((number, verb)), now=now)
        for (number, verb), now in after.items()
        if before.get((number, verb)) != now
    ]
    return Newer(figures=changed, verdicts=tuple(sorted(verdicts, key=_worse_first)))


def planned_since(conn: sqlite3.Connection, event_id: int) -> str | None:
    """When the edition an event is planned with was first used, ISO 8601 in UTC; None where it is pinned to none."""
    return figures.kept_at(conn, planning.brief_of(conn, event_id).figures)


def take(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Plan an event with the current figures from now on; undo goes back. Raises NotFound, Stale."""
    edition = figures.keep(conn, figures.current(conn))
    brief = replace(planning.brief_of(conn, event_id), figures=edition)
    return planning.put_brief(conn, event_id, brief, base_revision=base_revision, label="Take the newer figures")


def _states(
    conn: sqlite3.Connection, event_id: int, plan: Plan, book: FigureBook
) -> Mapping[tuple[int, Verb], State | None]:
    with book.open():
        judged = judging.judge_all(conn, event_id, plan.brief, plan.parts, conditions_of(conn, plan.brief))
    return {(number, each.verb): each.state for number, found in judged.items() for each in found.verdicts}


def _worse_first(change: VerdictChange) -> tuple[int, int]:
    now, was = (-1 if each is None else _WORSE.index(each) for each in (change.now, change.was))
    return was - now, change.piece_id
