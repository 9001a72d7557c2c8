-- A survey is kept by its place's key: its name is for people, and events say which place theirs is. The rows are
-- written anew with the keys of their points and beams, and so are plans and their steps (see `store/rewriting.py`).
CREATE TABLE survey_of_place (
    place_key TEXT PRIMARY KEY CHECK (length(place_key) BETWEEN 1 AND 200),
    design TEXT NOT NULL CHECK (json_valid(design)),
    previous TEXT CHECK (previous IS NULL OR json_valid(previous)),
    revision INTEGER NOT NULL CHECK (revision >= 1)
) STRICT;
INSERT INTO survey_of_place (place_key, design, previous, revision) SELECT place, design, previous, revision FROM survey;
DROP TABLE survey;
ALTER TABLE survey_of_place RENAME TO survey;

-- Which kinds of things there are is the program's to say: each declares itself.
CREATE TABLE holding_of_any_kind (
    kind TEXT NOT NULL,
    key TEXT NOT NULL,
    on_hand INTEGER NOT NULL DEFAULT 0 CHECK (on_hand >= 0),
    retired INTEGER NOT NULL DEFAULT 0 CHECK (retired IN (0, 1)),
    lasts INTEGER CHECK (lasts BETWEEN 1 AND 10000),
    used INTEGER NOT NULL DEFAULT 0 CHECK (used >= 0),
    resale REAL CHECK (resale >= 0),
    PRIMARY KEY (kind, key)
) STRICT;
INSERT INTO holding_of_any_kind (kind, key, on_hand, retired, lasts, used, resale)
SELECT kind, key, on_hand, retired, lasts, used, resale FROM holding;
DROP TABLE holding;
ALTER TABLE holding_of_any_kind RENAME TO holding;

CREATE TABLE deleted_thing_of_any_kind (
    kind TEXT NOT NULL,
    key TEXT NOT NULL,
    name TEXT NOT NULL,
    deleted_at TEXT NOT NULL,
    rows TEXT NOT NULL CHECK (json_valid(rows)),
    PRIMARY KEY (kind, key)
) STRICT;
INSERT INTO deleted_thing_of_any_kind SELECT kind, key, name, deleted_at, rows FROM deleted_thing;
DROP TABLE deleted_thing;
ALTER TABLE deleted_thing_of_any_kind RENAME TO deleted_thing;

CREATE TRIGGER holding_insert AFTER INSERT ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_update AFTER UPDATE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_delete AFTER DELETE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
