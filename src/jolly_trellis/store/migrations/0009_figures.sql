-- Figures of the method that a studio has set itself, and the editions of the book that events are pinned to.
CREATE TABLE own_figure (
    key TEXT PRIMARY KEY NOT NULL CHECK (length(key) BETWEEN 1 AND 200),
    value REAL NOT NULL,
    reason TEXT NOT NULL CHECK (length(reason) BETWEEN 1 AND 200)
) STRICT;

CREATE TABLE figure_edition (
    edition TEXT PRIMARY KEY NOT NULL CHECK (length(edition) = 16),
    kept_at TEXT NOT NULL,
    book TEXT NOT NULL CHECK (json_valid(book))
) STRICT;
