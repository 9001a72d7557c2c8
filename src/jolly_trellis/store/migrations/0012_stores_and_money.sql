-- What vessels and stands cost, stands as things of the stores, finished armatures that came home; how long things last.
ALTER TABLE vessel ADD COLUMN price REAL CHECK (price >= 0);
UPDATE vessel SET price = CASE key
    WHEN 'low-bowl-20' THEN 14.0
    WHEN 'low-bowl-26' THEN 21.0
    WHEN 'footed-bowl-18' THEN 19.0
    WHEN 'belly-vase-16' THEN 17.0
    WHEN 'cylinder-12' THEN 13.0
    WHEN 'cube-14' THEN 15.0
    WHEN 'trough-40' THEN 24.0
    WHEN 'oval-dish-30' THEN 22.0
    WHEN 'urn-24' THEN 46.0
    WHEN 'low-bowl-15' THEN 9.5
    WHEN 'low-bowl-30' THEN 29.0
    WHEN 'shallow-dish-28' THEN 18.0
    WHEN 'raised-bowl-22' THEN 16.0
    WHEN 'insert-bowl-20' THEN 6.5
    WHEN 'compote-16' THEN 17.5
    WHEN 'bud-cylinder-8' THEN 5.5
    WHEN 'cylinder-15' THEN 19.0
    WHEN 'belly-vase-20' THEN 26.0
    WHEN 'flared-vase-18' THEN 18.5
    WHEN 'trough-60' THEN 36.0
    WHEN 'metal-trough-80' THEN 44.0
    WHEN 'oval-bowl-24' THEN 20.0
    WHEN 'square-dish-20' THEN 16.5
    WHEN 'urn-30' THEN 72.0
    WHEN 'bucket-26' THEN 16.0
    WHEN 'cup-6' THEN 3.4
    WHEN 'cup-8' THEN 4.2
    WHEN 'jug-11' THEN 15.0
END;

CREATE TABLE stand (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    height_m REAL NOT NULL CHECK (height_m > 0),
    top_width_m REAL NOT NULL CHECK (top_width_m > 0),
    opening_m REAL NOT NULL DEFAULT 0 CHECK (opening_m >= 0),
    foot_width_m REAL CHECK (foot_width_m > 0),
    mass_kg REAL CHECK (mass_kg > 0),
    column_width_m REAL NOT NULL DEFAULT 0.12 CHECK (column_width_m > 0),
    clear INTEGER NOT NULL DEFAULT 0 CHECK (clear IN (0, 1)),
    ridge INTEGER NOT NULL DEFAULT 0 CHECK (ridge IN (0, 1)),
    price REAL CHECK (price >= 0),
    provenance TEXT NOT NULL CHECK (json_valid(provenance))
) STRICT;

-- What came home formed and can be used again: how it was made, the sheet cut for one, and how it looks.
CREATE TABLE armature (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    made_as TEXT NOT NULL,
    netting TEXT NOT NULL DEFAULT '',
    width_m REAL NOT NULL CHECK (width_m > 0),
    length_m REAL NOT NULL CHECK (length_m > 0),
    condition TEXT NOT NULL DEFAULT 'good'
    CHECK (condition IN ('good', 'rust', 'bent', 'coating worn', 'cracked', 'short')),
    note TEXT NOT NULL DEFAULT '',
    made_for TEXT NOT NULL DEFAULT '',
    picture TEXT NOT NULL DEFAULT '',
    provenance TEXT NOT NULL CHECK (json_valid(provenance))
) STRICT;

-- Counts of everything, with how often one lasts, how many uses all of them together have had, what one is sold for.
CREATE TABLE holding_that_wears (
    kind TEXT NOT NULL
    CHECK (kind IN ('vessel', 'stand', 'netting', 'frog', 'variety', 'mechanic', 'supply', 'armature')),
    key TEXT NOT NULL,
    on_hand INTEGER NOT NULL DEFAULT 0 CHECK (on_hand >= 0),
    retired INTEGER NOT NULL DEFAULT 0 CHECK (retired IN (0, 1)),
    lasts INTEGER CHECK (lasts BETWEEN 1 AND 10000),
    used INTEGER NOT NULL DEFAULT 0 CHECK (used >= 0),
    resale REAL CHECK (resale >= 0),
    PRIMARY KEY (kind, key)
) STRICT;
INSERT INTO holding_that_wears (kind, key, on_hand, retired) SELECT kind, key, on_hand, retired FROM holding;
DROP TABLE holding;
ALTER TABLE holding_that_wears RENAME TO holding;

CREATE TABLE deleted_thing_of_more_kinds (
    kind TEXT NOT NULL CHECK (kind IN ('vessel', 'stand', 'netting', 'frog', 'variety', 'supply', 'armature')),
    key TEXT NOT NULL,
    name TEXT NOT NULL,
    deleted_at TEXT NOT NULL,
    rows TEXT NOT NULL CHECK (json_valid(rows)),
    PRIMARY KEY (kind, key)
) STRICT;
INSERT INTO deleted_thing_of_more_kinds SELECT kind, key, name, deleted_at, rows FROM deleted_thing;
DROP TABLE deleted_thing;
ALTER TABLE deleted_thing_of_more_kinds RENAME TO deleted_thing;

CREATE TRIGGER holding_insert AFTER INSERT ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_update AFTER UPDATE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_delete AFTER DELETE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER stand_insert AFTER INSERT ON stand BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER stand_update AFTER UPDATE ON stand BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER stand_delete AFTER DELETE ON stand BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER armature_insert AFTER INSERT ON armature BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER armature_update AFTER UPDATE ON armature BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER armature_delete AFTER DELETE ON armature BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

-- A material of an event is cut as often as it has to be: after the first cut, what has been added since.
CREATE TABLE cut_again (
    id INTEGER PRIMARY KEY,
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    material TEXT NOT NULL,
    key TEXT NOT NULL,
    nth INTEGER NOT NULL DEFAULT 1 CHECK (nth >= 1),
    rolls INTEGER NOT NULL CHECK (rolls >= 0),
    UNIQUE (event_id, material, key, nth)
) STRICT;
INSERT INTO cut_again (id, event_id, material, key, rolls) SELECT id, event_id, material, key, rolls FROM cut;
CREATE TABLE remnant_of_cuts (
    id INTEGER PRIMARY KEY,
    material TEXT NOT NULL CHECK (material IN ('netting', 'supply')),
    key TEXT NOT NULL,
    width_m REAL NOT NULL CHECK (width_m >= 0),
    length_m REAL NOT NULL CHECK (length_m > 0),
    made_by INTEGER REFERENCES cut_again (id) ON DELETE SET NULL,
    used_by INTEGER REFERENCES cut_again (id) ON DELETE SET NULL
) STRICT;
INSERT INTO remnant_of_cuts SELECT id, material, key, width_m, length_m, made_by, used_by FROM remnant;
DROP TABLE remnant;
DROP TABLE cut;
ALTER TABLE cut_again RENAME TO cut;
ALTER TABLE remnant_of_cuts RENAME TO remnant;

-- Pictures, kept once by their content.
CREATE TABLE picture (
    key TEXT PRIMARY KEY CHECK (length(key) = 64),
    kind TEXT NOT NULL CHECK (kind IN ('image/png', 'image/jpeg')),
    width_px INTEGER NOT NULL CHECK (width_px > 0),
    height_px INTEGER NOT NULL CHECK (height_px > 0),
    bytes BLOB NOT NULL
) STRICT;

-- What is ticked on a list of an event: what left the studio and what came back, what of an order came in and how.
CREATE TABLE tick (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    list TEXT NOT NULL CHECK (list IN ('out', 'home', 'goods in')),
    line TEXT NOT NULL,
    number REAL NOT NULL CHECK (number >= 0),
    state TEXT NOT NULL DEFAULT '',
    note TEXT NOT NULL DEFAULT '',
    PRIMARY KEY (event_id, list, line)
) STRICT;

-- What came home from an event, as one act, so that it can be taken back.
CREATE TABLE homecoming (
    event_id INTEGER PRIMARY KEY REFERENCES event (id) ON DELETE CASCADE,
    at TEXT NOT NULL,
    lines TEXT NOT NULL CHECK (json_valid(lines))
) STRICT;

-- What the stores of a studio that was begun before did not have.
WITH new (key, name, height_m, top_width_m, opening_m, foot_width_m, mass_kg, column_width_m, clear, ridge, price, provenance) AS (
    VALUES
        ('stand-60', 'metal stand, 60 cm', 0.6, 0.2, 0.0, 0.22, 1.9000000000000001, 0.03, 0, 1, 34.0, '{"kind":"estimate","source":"trade size; mass and price are estimates"}'),
        ('stand-80', 'metal stand, 80 cm', 0.8, 0.22, 0.0, 0.26, 2.6, 0.03, 0, 1, 42.0, '{"kind":"estimate","source":"trade size; mass and price are estimates"}'),
        ('cylinder-stand-50', 'tall cylinder, 50 cm', 0.5, 0.15, 0.14, 0.158, 3.2, 0.15, 1, 0, 29.0, '{"kind":"estimate","source":"trade size; mass and price are estimates"}'),
        ('column-100', 'wooden column, 100 cm', 1.0, 0.28, 0.0, 0.32, 9.5, 0.24, 0, 0, 78.0, '{"kind":"estimate","source":"trade size; mass and price are estimates"}')
)
INSERT INTO stand (position, key, name, height_m, top_width_m, opening_m, foot_width_m, mass_kg, column_width_m, clear, ridge, price, provenance)
SELECT
    coalesce((SELECT max(position) FROM stand), 0) + row_number() OVER (),
    key, name, height_m, top_width_m, opening_m, foot_width_m, mass_kg, column_width_m, clear, ridge, price, provenance
FROM new
WHERE EXISTS (SELECT 1 FROM vessel) AND key NOT IN (SELECT key FROM stand);

WITH new (key, name, aperture_m, wire_m, finish, roll_width_m, roll_length_m, price, provenance) AS (
    VALUES
        ('galvanized-1in-20g-12in', '1 in, galvanized, 20 gauge, 12 in wide', 0.0254, 0.000884, 'galvanized', 0.3048, 7.62, 9.5, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-20g-18in', '1 in, galvanized, 20 gauge, 18 in wide', 0.0254, 0.000884, 'galvanized', 0.4572, 7.62, 13.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-20g-20in', '1 in, galvanized, 20 gauge, 20 in wide', 0.0254, 0.000884, 'galvanized', 0.508, 7.62, 14.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-20g-24in', '1 in, galvanized, 20 gauge, 24 in wide', 0.0254, 0.000884, 'galvanized', 0.6096, 7.62, 16.5, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-20g-36in', '1 in, galvanized, 20 gauge, 36 in wide', 0.0254, 0.000884, 'galvanized', 0.9144, 7.62, 23.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-20g-48in', '1 in, galvanized, 20 gauge, 48 in wide', 0.0254, 0.000884, 'galvanized', 1.2192, 7.62, 29.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-22g-24in', '1 in, galvanized, 22 gauge, 24 in wide', 0.0254, 0.000726, 'galvanized', 0.6096, 7.62, 12.5, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-1in-22g-36in', '1 in, galvanized, 22 gauge, 36 in wide', 0.0254, 0.000726, 'galvanized', 0.9144, 7.62, 18.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-2in-20g-12in', '2 in, galvanized, 20 gauge, 12 in wide', 0.0508, 0.000884, 'galvanized', 0.3048, 15.24, 9.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-2in-20g-18in', '2 in, galvanized, 20 gauge, 18 in wide', 0.0508, 0.000884, 'galvanized', 0.4572, 15.24, 12.5, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-2in-20g-24in', '2 in, galvanized, 20 gauge, 24 in wide', 0.0508, 0.000884, 'galvanized', 0.6096, 15.24, 15.5, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-2in-20g-36in', '2 in, galvanized, 20 gauge, 36 in wide', 0.0508, 0.000884, 'galvanized', 0.9144, 15.24, 21.5, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-2in-20g-48in', '2 in, galvanized, 20 gauge, 48 in wide', 0.0508, 0.000884, 'galvanized', 1.2192, 15.24, 27.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-2in-18g-48in', '2 in, galvanized, 18 gauge, 48 in wide', 0.0508, 0.0012070000000000002, 'galvanized', 1.2192, 15.24, 38.0, '{"kind":"common practice","source":"trade size; gauge by the steel wire gauge, from memory; price is an estimate"}'),
        ('galvanized-50-10-120', '50 mm, galvanized, 1.0 mm wire, 1.2 m wide', 0.05, 0.001, 'galvanized', 1.2, 10.0, 21.5, '{"kind":"common practice","source":"trade size; price is an estimate"}'),
        ('galvanized-50-10-150', '50 mm, galvanized, 1.0 mm wire, 1.5 m wide', 0.05, 0.001, 'galvanized', 1.5, 10.0, 26.5, '{"kind":"common practice","source":"trade size; price is an estimate"}'),
        ('coated-50-10-120', '50 mm, coated, 1.0 mm wire, 1.2 m wide', 0.05, 0.001, 'coated', 1.2, 10.0, 28.5, '{"kind":"common practice","source":"trade size; price is an estimate"}')
)
INSERT INTO netting (position, key, name, aperture_m, wire_m, finish, roll_width_m, roll_length_m, price, provenance)
SELECT
    coalesce((SELECT max(position) FROM netting), 0) + row_number() OVER (),
    key, name, aperture_m, wire_m, finish, roll_width_m, roll_length_m, price, provenance
FROM new
WHERE EXISTS (SELECT 1 FROM vessel) AND key NOT IN (SELECT key FROM netting);

WITH new (key, name, measured_by, pack, price, spare, supplier, provenance) AS (
    VALUES
        ('flower-food', 'flower food, for 5 L', 'piece', 50.0, 9.5, 0.1, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('bucket', 'bucket, 10 L', 'piece', 1.0, 4.2, 0.0, 'hardware', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('strap', 'strap, hook and loop, 30 cm', 'piece', 10.0, 8.4, 0.1, 'hardware', '{"kind":"estimate","source":"trade pack; price is an estimate"}')
)
INSERT INTO supply (position, key, name, measured_by, pack, price, spare, supplier, provenance)
SELECT
    coalesce((SELECT max(position) FROM supply), 0) + row_number() OVER (),
    key, name, measured_by, pack, price, spare, supplier, provenance
FROM new
WHERE EXISTS (SELECT 1 FROM vessel) AND key NOT IN (SELECT key FROM supply);

-- What holds for the whole studio: the currency that prices of the stores are in.
CREATE TABLE studio (
    key TEXT PRIMARY KEY CHECK (key IN ('currency')),
    value TEXT NOT NULL
) STRICT;
INSERT INTO studio (key, value)
SELECT 'currency', coalesce((SELECT brief ->> '$.costing.currency' FROM event ORDER BY id DESC LIMIT 1), '€');
CREATE TRIGGER studio_update AFTER UPDATE ON studio BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
