"""What is said of an event, with what the studio has."""

import sqlite3

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.starting.saying import SaidPart, say_all
from jolly_trellis.core.event.starting.starts import STARTS
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.say.say_it import Around
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.starting import begin, given
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief


def said(conn: sqlite3.Connection, brief: Brief, text: str, system: UnitSystem) -> tuple[SaidPart, ...]:
    """Each thing that a text speaks of, as its start begins it, with what was understood; nothing is saved."""
    around = Around(conditions=conditions_of(conn, brief), vessels=stock.vessels(conn), system=system)

    def begun(start: str, vessel: Vessel | None) -> Part:
        if vessel is None:
            return begin(conn, brief, start, None)[0]
        return STARTS[start].begin(given(conn, brief, vessel))

    with around.conditions.figures.open():
        return say_all(text, around, begun)
