"""Pictures of the studio's things: taken in clean, kept once, given out as they are kept."""

import sqlite3

from jolly_trellis.core.plan.pictures import Picture
from jolly_trellis.exchange.pictures import read_picture
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import pictures
from jolly_trellis.store.connection import transaction


def keep(conn: sqlite3.Connection, data: bytes) -> Picture:
    """Take a picture in. Raises InvalidMeasure: it is none."""
    picture = read_picture(data)
    with transaction(conn):
        pictures.put_picture(conn, picture)
    return picture


def picture_of(conn: sqlite3.Connection, key: str) -> Picture:
    """A picture by its key. Raises NotFound."""
    found = pictures.get_picture(conn, key)
    if found is None:
        raise NotFound(f"picture {key}")
    return found
