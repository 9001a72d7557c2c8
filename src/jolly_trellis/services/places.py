"""Which place a name is: the key under which its survey is kept, for every event there."""

import sqlite3

from jolly_trellis.core.event.keys import free_key
from jolly_trellis.store import events
from jolly_trellis.store.plan import Brief


def key_of(conn: sqlite3.Connection, name: str) -> str:
    """The key of the place that is called so in any event, the newest first; else a new one. Empty for no name."""
    called = _plain(name)
    if not called:
        return ""
    known = events.places(conn)
    own = next((key for key, other in known if _plain(other) == called), None)
    return own if own is not None else free_key(name, {key for key, _ in known})


def key_kept(conn: sqlite3.Connection, brief: Brief) -> str:
    """The key of the place of a brief: the one it has, also where the place is called otherwise now."""
    return brief.place_key if brief.place_key and brief.place.strip() else key_of(conn, brief.place)


def _plain(name: str) -> str:
    return " ".join(name.split()).casefold()
