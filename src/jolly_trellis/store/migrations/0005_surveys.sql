-- What is known of the places that pieces are hung in: kept by the place's name, for every event there.
-- `previous` is the survey before its last change, so that this can be put back.
CREATE TABLE survey (
    place TEXT PRIMARY KEY CHECK (length(place) BETWEEN 1 AND 200),
    design TEXT NOT NULL CHECK (json_valid(design)),
    previous TEXT CHECK (previous IS NULL OR json_valid(previous)),
    revision INTEGER NOT NULL CHECK (revision >= 1)
) STRICT;
