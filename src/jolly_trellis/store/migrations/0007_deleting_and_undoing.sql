-- Events and things of the stores are deleted so that they can be brought back.
ALTER TABLE event ADD COLUMN deleted_at TEXT;

-- A thing taken out of the stores: the rows it had, by table.
CREATE TABLE deleted_thing (
    kind TEXT NOT NULL CHECK (kind IN ('vessel', 'netting', 'frog', 'variety', 'supply')),
    key TEXT NOT NULL,
    name TEXT NOT NULL,
    deleted_at TEXT NOT NULL,
    rows TEXT NOT NULL CHECK (json_valid(rows)),
    PRIMARY KEY (kind, key)
) STRICT;

-- What was done in the stores: every thing touched, as it stood before and after; `step` is the place in it.
CREATE TABLE stock_history (
    step INTEGER PRIMARY KEY,
    label TEXT NOT NULL,
    changes TEXT NOT NULL CHECK (json_valid(changes))
) STRICT;
ALTER TABLE stock_revision ADD COLUMN step INTEGER NOT NULL DEFAULT 0 CHECK (step >= 0);

CREATE TRIGGER frog_delete AFTER DELETE ON frog BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER supply_delete AFTER DELETE ON supply BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_delete AFTER DELETE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

-- The larger stem tube is bought as what it is; stores that were filled before it was known lack it.
INSERT INTO supply (key, position, name, measured_by, pack, stick_m, price, spare, supplier, provenance)
SELECT
    'stem-tube-20',
    (SELECT max(position) + 1 FROM supply),
    'stem tube, 20 mm × 120 mm',
    'piece',
    50,
    NULL,
    14.0,
    0.1,
    'sundries',
    '{"kind":"estimate","source":"trade pack; price is an estimate"}'
WHERE
    EXISTS (SELECT 1 FROM supply)
    AND NOT EXISTS (SELECT 1 FROM supply WHERE key = 'stem-tube-20');
