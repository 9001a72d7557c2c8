CREATE TABLE event (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
    brief TEXT NOT NULL CHECK (json_valid(brief)),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    brief_revision INTEGER NOT NULL DEFAULT 1,
    step INTEGER NOT NULL DEFAULT 0 CHECK (step >= 0),
    next_piece INTEGER NOT NULL DEFAULT 1
) STRICT;

CREATE TABLE piece (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    design TEXT NOT NULL CHECK (json_valid(design)),
    computed_by TEXT NOT NULL,
    revision INTEGER NOT NULL,
    PRIMARY KEY (event_id, id)
) STRICT;

-- One row for each step of an event's plan: the whole plan after that step.
CREATE TABLE history (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    step INTEGER NOT NULL,
    label TEXT NOT NULL,
    plan TEXT NOT NULL CHECK (json_valid(plan)),
    PRIMARY KEY (event_id, step)
) STRICT;

-- Which plan each revision saw, so that a stale write can be told what changed since.
CREATE TABLE revision (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    plan TEXT NOT NULL CHECK (json_valid(plan)),
    PRIMARY KEY (event_id, revision)
) STRICT;

CREATE TABLE vessel (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    plan_shape TEXT NOT NULL CHECK (plan_shape IN ('round', 'oval', 'square', 'rectangular')),
    wall_m REAL NOT NULL CHECK (wall_m >= 0),
    base_m REAL NOT NULL CHECK (base_m >= 0),
    foot_width_m REAL CHECK (foot_width_m > 0),
    foot_depth_m REAL CHECK (foot_depth_m > 0),
    mass_kg REAL CHECK (mass_kg > 0),
    material TEXT NOT NULL,
    clear INTEGER NOT NULL CHECK (clear IN (0, 1))
) STRICT;

CREATE TABLE vessel_profile (
    vessel_key TEXT NOT NULL REFERENCES vessel (key) ON DELETE CASCADE,
    height_m REAL NOT NULL CHECK (height_m >= 0),
    width_m REAL NOT NULL CHECK (width_m > 0),
    depth_m REAL NOT NULL CHECK (depth_m > 0),
    PRIMARY KEY (vessel_key, height_m)
) STRICT;

CREATE TABLE netting (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    aperture_m REAL NOT NULL CHECK (aperture_m > 0),
    wire_m REAL NOT NULL CHECK (wire_m > 0),
    finish TEXT NOT NULL CHECK (finish IN ('coated', 'galvanized', 'bare')),
    roll_width_m REAL NOT NULL CHECK (roll_width_m > 0),
    roll_length_m REAL NOT NULL CHECK (roll_length_m > 0),
    price REAL CHECK (price >= 0),
    counted_cells INTEGER CHECK (counted_cells >= 1),
    counted_length_m REAL CHECK (counted_length_m > 0),
    provenance TEXT NOT NULL CHECK (json_valid(provenance))
) STRICT;

CREATE TABLE variety (
    key TEXT PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    colour TEXT NOT NULL,
    form TEXT NOT NULL,
    head_diameter_m REAL NOT NULL CHECK (head_diameter_m > 0),
    head_height_m REAL NOT NULL CHECK (head_height_m > 0),
    stem_diameter_m REAL NOT NULL CHECK (stem_diameter_m > 0),
    mass_kg REAL NOT NULL CHECK (mass_kg > 0),
    mass_length_m REAL NOT NULL CHECK (mass_length_m > 0),
    head_fraction REAL NOT NULL CHECK (head_fraction BETWEEN 0 AND 1),
    heavy_mass_kg REAL CHECK (heavy_mass_kg > 0),
    stiffness TEXT NOT NULL CHECK (stiffness IN ('soft', 'medium', 'woody')),
    branch INTEGER NOT NULL CHECK (branch IN (0, 1)),
    uptake_ml_h REAL NOT NULL CHECK (uptake_ml_h >= 0),
    dry_hold_h REAL NOT NULL CHECK (dry_hold_h >= 0),
    thirst TEXT NOT NULL CHECK (thirst IN ('low', 'usual', 'thirsty')),
    bunch_size INTEGER NOT NULL CHECK (bunch_size >= 1),
    sold_lengths_m TEXT NOT NULL CHECK (json_valid(sold_lengths_m)),
    toxic INTEGER NOT NULL CHECK (toxic IN (0, 1)),
    thorny INTEGER NOT NULL CHECK (thorny IN (0, 1)),
    provenance TEXT NOT NULL CHECK (json_valid(provenance))
) STRICT;

-- Counts up whenever varieties or nettings change, so that whoever keeps them in memory knows to look again.
CREATE TABLE stock_revision (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    revision INTEGER NOT NULL
) STRICT;
INSERT INTO stock_revision VALUES (1, 1);

CREATE TRIGGER variety_insert AFTER INSERT ON variety BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER variety_update AFTER UPDATE ON variety BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER variety_delete AFTER DELETE ON variety BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER netting_insert AFTER INSERT ON netting BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER netting_update AFTER UPDATE ON netting BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;

CREATE TRIGGER netting_delete AFTER DELETE ON netting BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
