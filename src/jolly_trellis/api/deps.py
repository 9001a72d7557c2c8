"""What every route takes: a connection for each request, and the number of an event or piece."""

import sqlite3
from collections.abc import Iterator
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request
from fastapi import Path as PathParameter

from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store.connection import open_database


def _connection(request: Request) -> Iterator[sqlite3.Connection]:
    folder: Path = request.app.state.folder
    conn = open_database(folder / DATABASE_NAME)
    try:
        yield conn
    finally:
        conn.close()


Number = Annotated[int, PathParameter(ge=1, le=2**53)]
Connection = Annotated[sqlite3.Connection, Depends(_connection)]
