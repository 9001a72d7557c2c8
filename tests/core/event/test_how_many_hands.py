"""How many more pairs of hands are tried: a crew has its limit."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.day.remedies import MOST_MORE_HANDS, hands_most
from jolly_trellis.core.event.job import CREW_MOST, CrewMember
from tests.events import job


@pytest.mark.parametrize(
    ("crew", "more"), [(0, MOST_MORE_HANDS), (1, MOST_MORE_HANDS), (CREW_MOST - 3, 3), (CREW_MOST, 0)]
)
def test_no_more_are_tried_than_a_crew_takes(crew: int, more: int) -> None:
    people = tuple(CrewMember(name=f"hand {nth}") for nth in range(crew))
    assert hands_most(replace(job(), crew=people)) == more
