-- What was written into calendars: to whom, how often it has changed since, and what was called off.
CREATE TABLE installation (
    id TEXT PRIMARY KEY CHECK (length(id) = 32)
) STRICT;
INSERT INTO installation (id) VALUES (lower(hex(randomblob(16))));

CREATE TABLE calendar_entry (
    event_id INTEGER NOT NULL REFERENCES event (id) ON DELETE CASCADE,
    person TEXT NOT NULL,
    task TEXT NOT NULL,
    content TEXT NOT NULL CHECK (json_valid(content)),
    sequence INTEGER NOT NULL CHECK (sequence >= 0),
    stamped_at TEXT NOT NULL,
    cancelled INTEGER NOT NULL DEFAULT 0 CHECK (cancelled IN (0, 1)),
    PRIMARY KEY (event_id, person, task)
) STRICT;
