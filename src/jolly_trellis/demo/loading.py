"""Laying the demo event into an empty studio."""

import sqlite3
from importlib.resources import files

from jolly_trellis.catalog.rows import HeldKind
from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.services import planning, rigging
from jolly_trellis.services.gate import Based
from jolly_trellis.store import codec, events, stock
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.events import EventRow
from jolly_trellis.store.plan import Plan
from jolly_trellis.store.stock import Holding

ON_HAND: dict[HeldKind, dict[str, int]] = {
    "vessel": {
        "low-bowl-20": 14,
        "raised-bowl-22": 2,
        "insert-bowl-20": 1,
        "urn-24": 1,
        "trough-60": 1,
        "cube-14": 2,
        "cup-8": 9,
        "cylinder-12": 3,
    },
    "netting": {"coated-25-09": 2, "coated-40-09": 1, "galvanized-50-10": 1},
    "frog": {"pin-75": 3, "pin-100": 1, "cup-80": 9, "cage-80": 2},
    "mechanic": {"lattice_pad": 4, "strung_ring": 2},
}


def demo_plan() -> Plan:
    """The demo event as shipped."""
    text = (files("jolly_trellis.demo") / "ropewalk_supper.json").read_text(encoding="utf-8")
    return codec.loads(text, Plan)


def demo_survey() -> Survey:
    """The survey of the demo event's place as shipped."""
    text = (files("jolly_trellis.demo") / "ropewalk_survey.json").read_text(encoding="utf-8")
    return codec.loads(text, Survey)


def load_demo(conn: sqlite3.Connection) -> bool:
    """Add the demo event where there is no event yet, all of it or nothing; tells whether it did.

    A demo that an earlier start had left half laid out, without the survey of its place, is completed.
    """
    with transaction(conn):
        known = events.list_events(conn)
        if events.list_deleted(conn) or (known and not _half_laid_out(conn, known)):
            return False
        plan = demo_plan()
        if known:
            rigging.put_survey(conn, known[0].id, demo_survey(), Based(revision=0))
        else:
            started = planning.new_event(conn, plan.brief, tuple(each.part for each in plan.parts))
            rigging.put_survey(conn, started.event.id, demo_survey(), Based(revision=0))
        for kind, counts in ON_HAND.items():
            for key, number in counts.items():
                stock.put_holding(conn, kind, key, Holding(on_hand=number))
    return True


def add_demo(conn: sqlite3.Connection) -> int:
    """Add the demo event to a studio that may have events of its own, and leave its stores alone; its number."""
    event, _ = rigging.begin_with_survey(conn, demo_plan(), demo_survey())
    return event.id


def _half_laid_out(conn: sqlite3.Connection, known: tuple[EventRow, ...]) -> bool:
    """Whether all there is is the demo event as it was begun, with no survey of its place."""
    if len(known) != 1 or known[0].revision != 1 or known[0].name != demo_plan().brief.name:
        return False
    return rigging.survey_of(conn, known[0].id)[1].revision == 0
