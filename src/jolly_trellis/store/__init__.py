"""SQLite by plain SQL: one file per aggregate, functions that take a connection and give frozen rows."""
