"""The tasks of an event: what is made from which plan, how long it takes, what it follows, and between which times."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.cost import minutes_of
from jolly_trellis.core.event.job import CrewMember, Job, Lock, Made
from jolly_trellis.core.event.task import (
    CONDITION_MIN,
    FILL_MIN,
    GREEN_WITHIN,
    LINE_MIN,
    LONGEST_MIN,
    PROOF_MIN,
    RIG_MIN,
    TOP_UP_MIN,
    Task,
    back,
    parts_of,
    slots,
    span_of,
)
from jolly_trellis.core.event.tasks import tasks_of
from jolly_trellis.core.making.steps import MINUTES_PER_STEM
from jolly_trellis.core.plan.piece import TopUp
from tests.events import at, demo_made, job, one_bowl
from tests.ordinary import varieties


def tasks(asked: Job | None = None, made: Made | None = None) -> dict[str, Task]:
    return {each.key: each for each in tasks_of(asked or job(), made or demo_made(), varieties())}


def test_every_task_follows_tasks_that_there_are_and_none_follows_itself() -> None:
    found = tasks()
    done: set[str] = set()
    left = dict(found)
    while left:
        ready = [key for key, each in left.items() if set(each.after) <= done]
        assert ready, "tasks that wait for one another"
        done |= set(ready)
        left = {key: each for key, each in left.items() if key not in done}
    assert done == found.keys()


def test_no_part_is_longer_than_two_hours_and_each_is_whole_slots() -> None:
    assert parts_of(0) == []
    assert parts_of(250) == [85, 85, 85]
    assert [slots(each) for each in (0.2, 5, 5.1, 61)] == [5, 5, 10, 65]
    for each in tasks().values():
        assert each.minutes % 5 == 0
        if each.stage in ("condition", "mechanics", "green", "flower", "on site", "load", "strike"):
            assert each.minutes <= LONGEST_MIN.value, each.key


def test_the_minutes_of_a_bowl_by_hand() -> None:
    """Greens and flowers at 0.6 min a stem, three bowls of it; conditioning beside that."""
    (work,) = one_bowl(3).pieces
    leaves = sum(each.count for each in work.piece.recipe if varieties()[each.variety].form == "leaf")
    stems = sum(each.count for each in work.piece.recipe)
    span = span_of(work, varieties())
    assert span.green == pytest.approx(3 * leaves * MINUTES_PER_STEM.value)
    assert span.flower == pytest.approx(3 * (stems - leaves) * MINUTES_PER_STEM.value)
    conditioned = 3 * stems * CONDITION_MIN.value
    assert minutes_of(work, varieties()) == round(span.mechanics + span.green + span.flower + conditioned)


def test_stems_drink_as_long_as_the_thirstiest_before_any_is_used() -> None:
    found = tasks()
    conditioned = [each for each in found.values() if each.stage == "condition"]
    assert all(each.rest_min == 12 * 60 for each in conditioned)
    flower = next(each for each in found.values() if each.stage == "flower")
    assert {each.key for each in conditioned} <= set(flower.after)


def test_greens_go_in_two_days_before_at_most_and_mechanics_come_first() -> None:
    found = tasks(made=one_bowl())
    green = next(each for each in found.values() if each.stage == "green")
    filled = job().filled_at
    assert filled is not None
    assert green.soonest == back(filled, GREEN_WITHIN.value)
    assert any(found[key].stage == "mechanics" for key in green.after)


def test_hanging_takes_its_lines_and_its_proof_and_mounted_work_is_not_proved() -> None:
    found = tasks()
    by_name = {each.rig.name: each for each in demo_made().rigs}
    run, swag = by_name["Run over the long table"], by_name["Swag over the doorway"]
    hang = RIG_MIN.value + LINE_MIN.value * len(run.rig.lines) + PROOF_MIN.value
    assert found[f"install-{run.id}"].minutes == slots(hang)
    assert found[f"install-{run.id}"].name.startswith("Hang and prove")
    assert found[f"install-{swag.id}"].minutes == slots(RIG_MIN.value + LINE_MIN.value * len(swag.rig.lines))
    assert found[f"install-{run.id}"].hands == 2


def test_the_filling_begins_when_the_brief_says() -> None:
    found = tasks(made=one_bowl(4))["fill"]
    assert found.minutes == slots(4 * FILL_MIN.value)
    assert found.latest is not None
    assert (found.latest - at("2027-05-15T12:30")).total_seconds() == 60 * found.minutes


def test_a_top_up_is_at_its_own_time_and_takes_each_piece_its_minutes() -> None:
    work = one_bowl(4)
    bowl = replace(work.pieces[0].piece, top_ups=(TopUp(after_h=3.2, volume_l=0.3),))
    found = tasks(made=replace(work, pieces=(replace(work.pieces[0], piece=bowl),)))["top-up-1-1"]
    assert found.at == at("2027-05-15T15:40")
    assert found.minutes == slots(4 * TOP_UP_MIN.value)


def test_the_strike_is_between_the_end_and_the_hour_when_all_must_be_gone() -> None:
    strikes = [each for each in tasks().values() if each.stage == "strike"]
    assert {(each.soonest, each.latest) for each in strikes} == {(job().ends_at, job().clear_by)}


def test_no_road_no_drive_and_two_hands_only_where_there_are_two() -> None:
    near = tasks(replace(job(), travel_h=None, crew=(CrewMember(name="Wren"),)))
    assert not any(each.stage == "drive" for each in near.values())
    assert all(each.hands == 1 for each in near.values())


def test_on_site_greens_go_in_before_the_flowers_of_the_same_piece() -> None:
    found = tasks()
    run = next(each for each in demo_made().rigs if each.rig.name == "Run over the long table")
    greens = {key for key in found if key.startswith(f"on-site-{run.id}-ruscus")}
    flowers = [each for key, each in found.items() if key.startswith(f"on-site-{run.id}-") and key not in greens]
    assert greens
    assert all(greens <= set(each.after) for each in flowers)


def test_a_task_set_by_hand_has_its_time_and_a_lock_for_no_task_does_nothing() -> None:
    locks = (Lock(task="collect", starts_at="2027-05-12T07:10"), Lock(task="gone", starts_at="2027-05-12T07:10"))
    found = tasks(replace(job(), locks=locks))
    assert found["collect"].at == at("2027-05-12T07:10")
    assert found.keys() == tasks().keys()
