"""What is missing has a key, a field and a sentence; between them the works of a table miss every fact there is."""

import pytest

from jolly_trellis.core.missing import FACTS, Missing, fact, listed, of_one_more, once
from jolly_trellis.core.plan import facts
from jolly_trellis.core.quantities import phrase
from tests.facts_missing import missed_of, missed_of_event, works

# Facts whose field says something, which is not enough: what it is of is not the one that is asked for.
FOR_WHAT_IS_THERE = {"line-ends", "bond-ends", "cord-ends", "caps-turned-down", "caps-leaned-over", "bond-leads-to"}


def missed_by() -> dict[str, set[str]]:
    """The keys that each of the works misses."""
    return {name: {each.key for each in missed_of(*work)} for name, work in works().items()} | {
        "the event": {each.key for each in missed_of_event()}
    }


def test_every_fact_is_missed_by_some_work() -> None:
    """A fact that is added is put into the table, and so walked to in a browser too."""
    missed: set[str] = set().union(*missed_by().values())
    assert sorted(set(FACTS) - missed) == []
    assert sorted(missed - set(FACTS)) == []


def test_the_field_of_a_fact_is_one_of_the_part_that_misses_it() -> None:
    """Its path leads to where there is nothing yet, or to what holds it."""
    for name, (part, around) in works().items():
        for each in missed_of(part, around):
            if each.of != "part":
                continue
            at: object = part
            for step in each.path.split("."):
                if at is None:
                    break
                at = at[int(step)] if isinstance(at, tuple) else getattr(at, step)
            empty = at is None or at == 0 or at == () or each.key in FOR_WHAT_IS_THERE
            assert empty, (name, each.path, at)


def test_two_facts_have_two_keys() -> None:
    assert len({each.ask for each in FACTS.values()}) >= len(FACTS) - 6
    with pytest.raises(ValueError, match="two facts"):
        fact("vessel-weight", "vessel.mass_kg", "its weight")


def test_a_fact_of_what_stands_beside_is_in_its_part_of_the_plan_and_one_of_the_event_is_not() -> None:
    own = of_one_more(facts.VESSEL_WEIGHT.missing(), under="companions.1", name="jar")
    assert (own.path, own.say.text) == ("companions.1.vessel.mass_kg", "the weight of the empty vessel (jar)")
    assert of_one_more(facts.ENDS_AT.missing(), under="companions.1", name="jar").path == "ends_at"


def test_facts_are_said_once_and_in_order() -> None:
    one, other = facts.VESSEL_WEIGHT.missing(), facts.ENDS_AT.missing()
    assert once([one, other, one]) == (one, other)
    assert listed((one, other)).text == "the weight of the empty vessel; when the event ends"
    assert listed((one, other), ", ").text == "the weight of the empty vessel, when the event ends"
    assert Missing(key="a", of="part", path="b", say=phrase("c")) != Missing(
        key="a", of="event", path="b", say=phrase("c")
    )


def test_of_two_measures_the_one_that_is_not_known_is_asked_for() -> None:
    paths = {name: {each.path for each in missed_of(*work)} for name, work in works().items()}
    assert "points.0.stated_by" in paths["rated by nobody"]
    assert "points.0.rating_n" in paths["nobody rated a point"]
    assert paths["leaning nobody knows how far"] == {"mount.bears_below_m"}
    assert {"mount.foot_depth_m", "mount.surface", "mount.load_on"} <= paths["on a frame half measured"]
    assert paths["filled, and without an end"] == {"ends_at"}
    assert paths["on monofilament"] == {"filled_at"}


def test_a_point_of_the_survey_is_asked_about_in_the_survey() -> None:
    asked = [each for each in missed_of(*works()["in a survey that rates none"]) if each.key == "point-rating"]
    assert {(each.of, each.path) for each in asked} == {("survey", f"points.ridge {at}.rating_n") for at in range(5)}
