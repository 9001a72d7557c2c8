-- A survey is kept by its place's key: its name is for people, and events say which place theirs is. The rows are
-- written anew with the keys of their points and beams, and so are plans and their steps (see `store/rewriting.py`).
CREATE TABLE survey_of_place (
    place_key TEXT PRIMARY KEY CHECK (length(place_key) BETWEEN 1 AND 200),
    design TEXT NOT NULL CHECK (json_valid(design)),
    previous TEXT CHECK (previous IS NULL OR json_valid(previous)),
    revision INTEGER NOT NULL CHECK (revision >= 1)
) STRICT;
INSERT INTO survey_of_place (place_key, design, previous, revision) SELECT place, design, previous, revision FROM survey;
DROP TABLE survey;
ALTER TABLE survey_of_place RENAME TO survey;
