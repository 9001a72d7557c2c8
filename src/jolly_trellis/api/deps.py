"""A connection for each request."""

import sqlite3
from collections.abc import Iterator
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request

from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store.connection import open_database


def _connection(request: Request) -> Iterator[sqlite3.Connection]:
    folder: Path = request.app.state.folder
    conn = open_database(folder / DATABASE_NAME)
    try:
        yield conn
    finally:
        conn.close()


Connection = Annotated[sqlite3.Connection, Depends(_connection)]
