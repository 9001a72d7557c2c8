"""Laying the demo event into an empty studio."""

import sqlite3
from importlib.resources import files

from jolly_trellis.services import planning
from jolly_trellis.store import codec, events
from jolly_trellis.store.plan import Plan


def demo_plan() -> Plan:
    """The demo event as shipped."""
    text = (files("jolly_trellis.demo") / "ropewalk_supper.json").read_text(encoding="utf-8")
    return codec.loads(text, Plan)


def load_demo(conn: sqlite3.Connection) -> bool:
    """Add the demo event where there is no event yet; tells whether it did."""
    if events.list_events(conn):
        return False
    plan = demo_plan()
    planning.new_event(conn, plan.brief, tuple(each.piece for each in plan.pieces))
    return True
