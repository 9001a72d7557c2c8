-- Hung pieces of an event. Their numbers come from the same row of numbers as the pieces'.
CREATE TABLE rig (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    design TEXT NOT NULL CHECK (json_valid(design)),
    computed_by TEXT NOT NULL,
    revision INTEGER NOT NULL,
    PRIMARY KEY (event_id, id)
) STRICT;
