CREATE TABLE frog (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('pin', 'cage', 'loop', 'holed', 'cup')),
    width_m REAL NOT NULL CHECK (width_m > 0),
    height_m REAL NOT NULL CHECK (height_m > 0),
    mass_kg REAL NOT NULL CHECK (mass_kg > 0),
    opening_m REAL NOT NULL CHECK (opening_m > 0),
    openings INTEGER NOT NULL CHECK (openings >= 0),
    volume_l REAL NOT NULL CHECK (volume_l >= 0),
    price REAL CHECK (price >= 0),
    provenance TEXT NOT NULL CHECK (json_valid(provenance))
) STRICT;

ALTER TABLE vessel ADD COLUMN provenance TEXT NOT NULL DEFAULT 'measured';

-- What the studio has of each thing in the stores, and what it no longer uses.
CREATE TABLE holding (
    kind TEXT NOT NULL CHECK (kind IN ('vessel', 'netting', 'frog', 'variety', 'mechanic')),
    key TEXT NOT NULL,
    on_hand INTEGER NOT NULL DEFAULT 0 CHECK (on_hand >= 0),
    retired INTEGER NOT NULL DEFAULT 0 CHECK (retired IN (0, 1)),
    PRIMARY KEY (kind, key)
) STRICT;

CREATE TRIGGER frog_insert AFTER INSERT ON frog BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER frog_update AFTER UPDATE ON frog BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_insert AFTER INSERT ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_update AFTER UPDATE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
