"""Beginning a part from what the stores have."""

import sqlite3

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.starts import STARTS, Given
from jolly_trellis.core.event.usual import USUAL
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.services.conditions import stock_of
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief

# A narrow vase for a bouquet to wait in, where none is chosen.
_VASE = "bud-cylinder-8"


def begin(conn: sqlite3.Connection, brief: Brief, start: str, vessel: str | None) -> Part:
    """What a part starts as.

    Args:
        vessel: key of a vessel of the stores; None for one nobody has measured yet, or a usual vase.
    Raises: NotFound: there is no such start or vessel.
    """
    chosen = STARTS.get(start)
    vessels = stock.vessels(conn)
    if chosen is None or (vessel is not None and vessel not in vessels):
        raise NotFound(f"start {start} in {vessel}")
    key = vessel if vessel is not None or chosen.asks != "a vase" else _VASE
    return chosen.begin(given(conn, brief, vessels.get(key or "", USUAL.vessel)))


def given(conn: sqlite3.Connection, brief: Brief, vessel: Vessel) -> Given:
    """What a part is begun from, in a vessel: what the stores have, as the event works."""
    have = stock_of(conn)
    nettings = {key: each for key, each in have.nettings.items() if key not in have.retired}
    return Given(vessel=vessel, nettings=nettings, practice=brief.practice)
