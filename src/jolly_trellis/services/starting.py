"""Beginning a part from what the stores have."""

import sqlite3

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.starting.starts import STARTS, Given
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.services.conditions import stock_of
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief

# A narrow vase for a bouquet to wait in, where none is chosen.
_VASE = "bud-cylinder-8"


def begin(
    conn: sqlite3.Connection, brief: Brief, start: str, vessel: str | None, *, stems: bool = False
) -> tuple[Part, ...]:
    """What a part starts as, and the parts that are begun beside it.

    Args:
        vessel: key of a vessel of the stores; None for the start's own, a usual vase, or one nobody has measured yet.
        stems: whether it is begun with its proven recipe.
    Raises: NotFound: there is no such start or vessel.
    """
    chosen = STARTS.get(start)
    vessels = stock.vessels(conn)
    if chosen is None or (vessel is not None and vessel not in vessels):
        raise NotFound(f"start {start} in {vessel}")
    key = vessel or chosen.vessel or (_VASE if chosen.asks == "a vase" else "")
    have = given(conn, brief, vessels.get(key, USUAL.vessel), stems=stems)
    beside = () if chosen.beside is None else chosen.beside(have)
    return (chosen.begin(have), *beside)


def given(conn: sqlite3.Connection, brief: Brief, vessel: Vessel, *, stems: bool = False) -> Given:
    """What a part is begun from, in a vessel: what the stores have, as the event works."""
    have = stock_of(conn)
    nettings = {key: each for key, each in have.nettings.items() if key not in have.retired}
    return Given(
        vessel=vessel,
        nettings=nettings,
        practice=brief.practice,
        vessels=stock.vessels(conn),
        stands=stock.stands(conn),
        frogs=[key for key in have.frogs if key not in have.retired],
        known=[key for key in have.varieties if key not in have.retired],
        stems=stems,
    )
