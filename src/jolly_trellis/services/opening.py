"""Opening the studio's data: folder, database, migrations, and the catalogue on first use."""

import sqlite3
from pathlib import Path

from jolly_trellis.catalog import loaders
from jolly_trellis.store import stock
from jolly_trellis.store.connection import migrate, open_database, transaction

DATABASE_NAME = "jolly-trellis.sqlite"


def open_studio(folder: Path) -> sqlite3.Connection:
    """Open, or begin, a studio's data in a folder.

    Raises: StoreError: the data was written by a newer version.
    """
    folder.mkdir(parents=True, exist_ok=True)
    conn = open_database(folder / DATABASE_NAME)
    migrate(conn)
    with transaction(conn):
        stock.fill_if_empty(
            conn,
            vessels_=loaders.vessels(),
            nettings_=loaders.nettings(),
            frogs_=loaders.frogs(),
            varieties_=loaders.varieties(),
            supplies_=loaders.supplies(),
        )
    return conn
