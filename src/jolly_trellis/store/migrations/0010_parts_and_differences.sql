ALTER TABLE event RENAME COLUMN next_piece TO next_part;

-- One table for whatever an event is made of, standing or hung, in one order.
CREATE TABLE part (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    design TEXT NOT NULL CHECK (json_valid(design)),
    computed_by TEXT NOT NULL,
    revision INTEGER NOT NULL,
    PRIMARY KEY (event_id, id)
) STRICT;
INSERT INTO part (event_id, id, position, design, computed_by, revision)
SELECT
    event_id,
    id,
    row_number() OVER (PARTITION BY event_id ORDER BY hung, position) - 1,
    design,
    computed_by,
    revision
FROM (
    SELECT event_id, id, position, 0 AS hung, piece_design(design) AS design, computed_by, revision FROM piece
    UNION ALL
    SELECT event_id, id, position, 1 AS hung, rig_design(design), computed_by, revision FROM rig
);
DROP TABLE piece;
DROP TABLE rig;

-- What each revision changed, both ways, and which of those are steps to go back and forth over.
-- Steps of before this was kept so have no revision. `plan_change` tells two whole plans apart.
CREATE TABLE change (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    id INTEGER NOT NULL,
    revision INTEGER,
    step INTEGER,
    label TEXT NOT NULL,
    changes TEXT NOT NULL CHECK (json_valid(changes)),
    PRIMARY KEY (event_id, id)
) STRICT;
CREATE UNIQUE INDEX change_step ON change (event_id, step) WHERE step IS NOT NULL;
INSERT INTO change (event_id, id, revision, step, label, changes)
SELECT
    after.event_id,
    row_number() OVER (PARTITION BY after.event_id ORDER BY after.step),
    NULL,
    after.step,
    after.label,
    plan_change(before.plan, after.plan)
FROM history AS after
JOIN history AS before ON before.event_id = after.event_id AND before.step = after.step - 1;
DROP TABLE history;
DROP TABLE revision;

-- A point of a profile may be a corner, and two sizes at one height are a step: points keep the order they were put in.
CREATE TABLE outline_point (
    vessel_key TEXT NOT NULL REFERENCES vessel (key) ON DELETE CASCADE,
    height_m REAL NOT NULL CHECK (height_m >= 0),
    width_m REAL NOT NULL CHECK (width_m > 0),
    depth_m REAL NOT NULL CHECK (depth_m > 0),
    corner INTEGER NOT NULL DEFAULT 0 CHECK (corner IN (0, 1))
) STRICT;
INSERT INTO outline_point (vessel_key, height_m, width_m, depth_m)
SELECT vessel_key, height_m, width_m, depth_m FROM vessel_profile ORDER BY vessel_key, height_m;
DROP TABLE vessel_profile;
ALTER TABLE outline_point RENAME TO vessel_profile;
CREATE INDEX vessel_profile_of ON vessel_profile (vessel_key);
