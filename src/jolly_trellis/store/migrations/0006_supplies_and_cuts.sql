-- What stems cost, how long they drink before they are used, and how long a bud takes to open at 20 °C.
ALTER TABLE variety ADD COLUMN bunch_price REAL CHECK (bunch_price >= 0);
ALTER TABLE variety ADD COLUMN stem_price REAL CHECK (stem_price >= 0);
ALTER TABLE variety ADD COLUMN conditioning_h REAL NOT NULL DEFAULT 6 CHECK (conditioning_h >= 0);
ALTER TABLE variety ADD COLUMN opening_days REAL NOT NULL DEFAULT 0 CHECK (opening_days BETWEEN 0 AND 60);

WITH figure (key, bunch_price, stem_price, conditioning_h, opening_days) AS (
    VALUES
        ('rose', 26.00, 1.75, 6, 1),
        ('spray-rose', 12.00, 1.60, 6, 1),
        ('garden-rose', 29.00, 3.25, 6, 2),
        ('peony', 32.00, 4.30, 6, 3),
        ('ranunculus', 11.00, 1.50, 4, 1),
        ('tulip', 7.00, 0.95, 4, 1),
        ('anemone', 9.50, 1.30, 4, 0),
        ('daffodil', 6.00, 0.80, 4, 1),
        ('hyacinth', 12.00, 1.60, 4, 1),
        ('lisianthus', 8.50, 1.15, 6, 2),
        ('carnation', 12.00, 0.80, 6, 0),
        ('spray-carnation', 11.00, 0.75, 6, 0),
        ('chrysanthemum', 10.50, 1.40, 6, 0),
        ('spray-chrysanthemum', 5.00, 1.35, 6, 0),
        ('hydrangea', 18.00, 4.85, 12, 0),
        ('dahlia', 16.00, 2.15, 4, 0),
        ('zinnia', 6.50, 0.90, 6, 0),
        ('cosmos', 5.00, 0.70, 4, 0),
        ('scabious', 5.00, 0.70, 4, 0),
        ('sweet-pea', 12.50, 0.70, 4, 0),
        ('snapdragon', 9.00, 1.20, 6, 1),
        ('larkspur', 7.50, 1.00, 6, 1),
        ('delphinium', 9.00, 2.45, 6, 1),
        ('stock', 10.50, 1.40, 6, 0),
        ('foxglove', 5.50, 1.50, 6, 0),
        ('gladiolus', 5.00, 1.35, 6, 3),
        ('liatris', 8.50, 1.15, 6, 0),
        ('veronica', 6.00, 0.80, 6, 0),
        ('gypsophila', 9.50, 1.30, 6, 0),
        ('waxflower', 7.00, 0.95, 12, 0),
        ('statice', 8.00, 1.10, 6, 0),
        ('sea-lavender', 7.00, 0.95, 6, 0),
        ('astilbe', 5.50, 0.75, 4, 0),
        ('solidago', 7.00, 0.95, 6, 0),
        ('queen-annes-lace', 6.50, 0.90, 4, 0),
        ('feverfew', 6.50, 0.90, 6, 0),
        ('amaranthus', 6.00, 1.60, 6, 0),
        ('lily', 19.00, 2.55, 6, 4),
        ('alstroemeria', 8.00, 1.10, 6, 2),
        ('iris', 8.00, 1.10, 6, 2),
        ('nigella', 5.00, 0.70, 4, 0),
        ('globe-thistle', 7.00, 0.95, 12, 0),
        ('sea-holly', 8.50, 1.15, 12, 0),
        ('craspedia', 10.00, 0.70, 6, 0),
        ('ruscus', 8.50, 1.15, 12, 0),
        ('eucalyptus', 11.00, 1.50, 12, 0),
        ('salal', 7.00, 0.95, 12, 0),
        ('pittosporum', 7.50, 1.00, 12, 0),
        ('leatherleaf', 6.00, 0.40, 4, 0),
        ('asparagus-fern', 6.50, 0.90, 6, 0),
        ('ivy', 5.50, 0.75, 4, 0),
        ('spurge', 7.50, 1.00, 6, 0),
        ('quince-branch', 22.50, 6.10, 12, 3),
        ('beech-branch', 19.00, 5.15, 12, 0),
        ('blossom-branch', 24.00, 6.50, 12, 4),
        ('willow-stem', 8.50, 1.15, 12, 0),
        ('standard-rose', 36.00, 2.45, 6, 1),
        ('tree-peony', 26.00, 7.00, 12, 1),
        ('lilac', 13.00, 3.50, 12, 0),
        ('guelder-rose', 6.50, 1.75, 12, 0),
        ('hydrangea-panicle', 9.00, 2.45, 12, 0),
        ('helleborus', 16.00, 2.15, 4, 0),
        ('poppy', 5.50, 0.75, 4, 1),
        ('fritillary', 5.00, 0.70, 4, 0),
        ('grape-hyacinth', 4.50, 0.60, 4, 0),
        ('narcissus-spray', 5.50, 0.75, 4, 0),
        ('allium', 5.50, 1.50, 6, 0),
        ('agapanthus', 5.00, 1.35, 6, 2),
        ('eremurus', 14.50, 3.90, 6, 2),
        ('campanula', 9.00, 1.20, 6, 0),
        ('phlox', 8.50, 1.15, 6, 0),
        ('sunflower', 8.50, 2.30, 6, 1),
        ('rudbeckia', 6.50, 0.90, 6, 0),
        ('echinacea', 7.50, 1.00, 6, 0),
        ('aster', 7.50, 1.00, 6, 0),
        ('gerbera', 7.00, 0.95, 4, 0),
        ('freesia', 7.50, 1.00, 4, 1),
        ('nerine', 7.50, 1.00, 6, 1),
        ('amaryllis', 18.00, 4.85, 4, 4),
        ('calla', 19.00, 2.55, 4, 0),
        ('protea', 21.00, 5.65, 12, 0),
        ('pincushion', 24.00, 3.25, 12, 0),
        ('berzelia', 9.00, 1.20, 12, 0),
        ('hypericum', 7.50, 1.00, 12, 0),
        ('rosehip', 10.00, 1.35, 12, 0),
        ('snowberry', 9.00, 1.20, 12, 0),
        ('love-in-a-puff', 3.50, 0.95, 4, 0),
        ('bupleurum', 7.00, 0.95, 6, 0),
        ('dill', 6.50, 0.90, 4, 0),
        ('panic-grass', 5.00, 0.70, 4, 0),
        ('bracken', 6.50, 0.90, 4, 0),
        ('hosta', 6.00, 0.80, 4, 0),
        ('olive', 11.00, 2.95, 12, 0),
        ('hornbeam-branch', 19.00, 5.15, 12, 0),
        ('magnolia-branch', 27.50, 7.40, 12, 4),
        ('rosemary', 5.50, 0.75, 12, 0),
        ('mint', 5.50, 0.75, 4, 0),
        ('clematis', 3.00, 0.80, 12, 0)
)
UPDATE variety SET (bunch_price, stem_price, conditioning_h, opening_days) = (
    SELECT figure.bunch_price, figure.stem_price, figure.conditioning_h, figure.opening_days
    FROM figure WHERE figure.key = variety.key
)
WHERE key IN (SELECT key FROM figure);

-- What is used up or taken along beside netting, frogs and vessels: tape, ties, tubes, lines, canes.
CREATE TABLE supply (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    measured_by TEXT NOT NULL CHECK (measured_by IN ('piece', 'length', 'stick', 'mass')),
    pack REAL NOT NULL CHECK (pack > 0),
    stick_m REAL CHECK (stick_m > 0),
    price REAL CHECK (price >= 0),
    spare REAL NOT NULL DEFAULT 0 CHECK (spare BETWEEN 0 AND 2),
    supplier TEXT NOT NULL CHECK (supplier IN ('market', 'sundries', 'hardware', 'rigging')),
    provenance TEXT NOT NULL CHECK (json_valid(provenance))
) STRICT;

-- Supplies are counted too, in packs.
CREATE TABLE holding_with_supplies (
    kind TEXT NOT NULL CHECK (kind IN ('vessel', 'netting', 'frog', 'variety', 'mechanic', 'supply')),
    key TEXT NOT NULL,
    on_hand INTEGER NOT NULL DEFAULT 0 CHECK (on_hand >= 0),
    retired INTEGER NOT NULL DEFAULT 0 CHECK (retired IN (0, 1)),
    PRIMARY KEY (kind, key)
) STRICT;
INSERT INTO holding_with_supplies SELECT kind, key, on_hand, retired FROM holding;
DROP TABLE holding;
ALTER TABLE holding_with_supplies RENAME TO holding;

CREATE TRIGGER holding_insert AFTER INSERT ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER holding_update AFTER UPDATE ON holding BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER supply_insert AFTER INSERT ON supply BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER supply_update AFTER UPDATE ON supply BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

-- The cut plan of an event as it was last worked out, and what it was worked out for.
CREATE TABLE cut_plan (
    event_id INTEGER PRIMARY KEY REFERENCES event (id) ON DELETE CASCADE,
    design TEXT NOT NULL CHECK (json_valid(design)),
    made_for TEXT NOT NULL,
    computed_by TEXT NOT NULL
) STRICT;

-- A material of an event marked as cut: what was taken for it and what was left, so that it can be taken back.
CREATE TABLE cut (
    id INTEGER PRIMARY KEY,
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    material TEXT NOT NULL,
    key TEXT NOT NULL,
    rolls INTEGER NOT NULL CHECK (rolls >= 0),
    UNIQUE (event_id, material, key)
) STRICT;

-- What is left of rolls, sheets and lines. `made_by` is the cut that left it, `used_by` the cut that took it.
CREATE TABLE remnant (
    id INTEGER PRIMARY KEY,
    material TEXT NOT NULL CHECK (material IN ('netting', 'supply')),
    key TEXT NOT NULL,
    width_m REAL NOT NULL CHECK (width_m >= 0),
    length_m REAL NOT NULL CHECK (length_m > 0),
    made_by INTEGER REFERENCES cut (id) ON DELETE SET NULL,
    used_by INTEGER REFERENCES cut (id) ON DELETE SET NULL
) STRICT;
