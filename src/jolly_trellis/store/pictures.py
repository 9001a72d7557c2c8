"""Pictures, kept once by their content: SQL text and functions."""

import sqlite3

from jolly_trellis.core.plan.pictures import Picture


def get_picture(conn: sqlite3.Connection, key: str) -> Picture | None:
    """A picture by its key, or None."""
    row = conn.execute("SELECT * FROM picture WHERE key = :key", {"key": key}).fetchone()
    if row is None:
        return None
    return Picture(
        key=row["key"], kind=row["kind"], width_px=row["width_px"], height_px=row["height_px"], data=row["bytes"]
    )


def put_picture(conn: sqlite3.Connection, picture: Picture) -> None:
    """Keep a picture; one of the same content is there already."""
    conn.execute(
        "INSERT INTO picture VALUES (:key, :kind, :width, :height, :data) ON CONFLICT (key) DO NOTHING",
        {
            "key": picture.key,
            "kind": picture.kind,
            "width": picture.width_px,
            "height": picture.height_px,
            "data": picture.data,
        },
    )
