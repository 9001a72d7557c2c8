"""Surveys of places: SQL text and functions."""

import sqlite3
from dataclasses import dataclass

from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.store import codec

_GET = "SELECT design, previous, revision FROM survey WHERE place_key = :place_key"
_PUT = """
INSERT INTO survey (place_key, design, previous, revision) VALUES (:place_key, :design, NULL, 1)
ON CONFLICT (place_key) DO UPDATE SET previous = survey.design, design = :design, revision = survey.revision + 1
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class SurveyRow:
    """A survey as it is kept; `previous` is the one before its last change, None at first; revision 0: none yet."""

    survey: Survey
    previous: Survey | None
    revision: int


def get_survey(conn: sqlite3.Connection, place_key: str) -> SurveyRow:
    """The survey of a place by its key; an empty one where there is none."""
    row = conn.execute(_GET, {"place_key": place_key}).fetchone()
    if row is None:
        return SurveyRow(survey=Survey(), previous=None, revision=0)
    previous = row["previous"]
    return SurveyRow(
        survey=codec.loads(row["design"], Survey),
        previous=None if previous is None else codec.loads(previous, Survey),
        revision=row["revision"],
    )


def put_survey(conn: sqlite3.Connection, place_key: str, survey: Survey) -> None:
    """Keep a survey; the one before it is kept too, to be put back."""
    conn.execute(_PUT, {"place_key": place_key, "design": codec.dumps(survey)})
