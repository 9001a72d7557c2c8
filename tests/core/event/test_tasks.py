"""The tasks of an event: what is made from which plan, how long it takes, what it follows, and between which times."""

from dataclasses import replace

import pytest

from jolly_trellis.core.books.time import Task
from jolly_trellis.core.event.cost.cost import minutes_of
from jolly_trellis.core.event.job import CrewMember, Job, Lock, Made
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.sheet.task import (
    CONDITION_MIN,
    FILL_MIN,
    GREEN_WITHIN,
    LINE_MIN,
    LONGEST_MIN,
    PROOF_MIN,
    RIG_MIN,
    TOP_UP_MIN,
    UNLOAD_MIN,
    back,
    parts_of,
    slots,
    span_of,
)
from jolly_trellis.core.event.tasks.old_keys import key_now
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.making.steps import MINUTES_PER_STEM
from jolly_trellis.core.plan.setting import TopUp
from tests.events import at, demo_made, job, one_bowl
from tests.ordinary import varieties


def tasks(asked: Job | None = None, made: Made | None = None) -> dict[str, Task]:
    return time_book(asked or job(), made or demo_made(), varieties()).by_key()


def test_every_task_follows_tasks_that_there_are_and_none_follows_itself() -> None:
    found = tasks()
    done: set[str] = set()
    left = dict(found)
    while left:
        ready = [key for key, each in left.items() if {wait.task for wait in each.after} <= done]
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
    """Greens and flowers at 0.6 min a stem, three bowls of it."""
    (work,) = one_bowl(3).pieces
    leaves = sum(each.count for each in work.piece.recipe if varieties()[each.variety].form == "leaf")
    stems = sum(each.count for each in work.piece.recipe)
    span = span_of(work, varieties())
    assert span.green == pytest.approx(3 * leaves * MINUTES_PER_STEM.value)
    assert span.flower == pytest.approx(3 * (stems - leaves) * MINUTES_PER_STEM.value)


def test_every_minute_of_the_book_is_in_the_price_of_some_part() -> None:
    """Fetching, loading, driving, filling and striking are shared out; nothing is lost by rounding."""
    book = time_book(job(), demo_made(), varieties())
    shared = minutes_of(demo_made(), book)
    assert sum(shared.values()) == book.person_minutes()
    own = {key: book.person_minutes(piece_id=key) for key in shared}
    assert all(shared[key] > own[key] for key in own)
    driven = sum(each.person_minutes for each in book.tasks if each.stage in ("drive", "return"))
    assert driven == 4 * 45 + 45 + slots(UNLOAD_MIN.value)


def test_stems_that_are_bought_are_conditioned_and_each_waits_as_long_as_its_own_need() -> None:
    book = time_book(job(), one_bowl(4), varieties())
    bought = buy_stems(needs_of(one_bowl(4)).stems, varieties(), waste=0.1, here={})
    stems = sum(each.bunches * each.bunch_size + each.singles for each in bought)
    assert stems > sum(each.in_recipes for each in bought)
    conditioned = book.of(("condition",))
    assert sum(each.minutes for each in conditioned) >= stems * CONDITION_MIN.value
    rests = {
        wait.minutes for each in book.of(("flower", "green")) for wait in each.after if ":condition:" in wait.task
    }
    assert rests == {60 * 6, 60 * 12} or len(rests) > 1


def test_keys_stay_while_quantities_change() -> None:
    few, many = (time_book(job(), one_bowl(number), varieties()).by_key() for number in (1, 9))
    assert few.keys() <= many.keys()
    assert len(many) > len(few)


def test_greens_go_in_two_days_before_at_most_and_mechanics_come_first() -> None:
    found = tasks(made=one_bowl())
    green = next(each for each in found.values() if each.stage == "green")
    filled = job().filled_at
    assert filled is not None
    assert green.soonest == back(filled, GREEN_WITHIN.value)
    assert any(found[wait.task].stage == "mechanics" for wait in green.after)


def test_hanging_takes_its_lines_and_its_proof_and_mounted_work_is_not_proved() -> None:
    found = tasks()
    by_name = {each.rig.name: each for each in demo_made().rigs}
    run, swag = by_name["Run over the long table"], by_name["Swag over the doorway"]
    hang = RIG_MIN.value + LINE_MIN.value * len(run.rig.lines) + PROOF_MIN.value
    assert found[f"{run.id}:install:1"].minutes == slots(hang)
    assert found[f"{run.id}:install:1"].name.startswith("Hang and prove")
    assert found[f"{swag.id}:install:1"].minutes == slots(RIG_MIN.value + LINE_MIN.value * len(swag.rig.lines))
    assert found[f"{run.id}:install:1"].hands == 2


def test_the_filling_begins_when_the_brief_says() -> None:
    found = tasks(made=one_bowl(4))["place:fill:1"]
    assert found.minutes == slots(4 * FILL_MIN.value)
    assert found.latest is not None
    assert (found.latest - at("2027-05-15T12:30")).total_seconds() == 60 * found.minutes


def test_a_top_up_is_at_its_own_time_and_takes_each_piece_its_minutes() -> None:
    work = one_bowl(4)
    bowl = replace(work.pieces[0].piece, top_ups=(TopUp(after_h=3.2, volume_l=0.3),))
    found = tasks(made=replace(work, pieces=(replace(work.pieces[0], piece=bowl),)))["place:top-up:1"]
    assert found.at == at("2027-05-15T15:40")
    assert found.minutes == slots(4 * TOP_UP_MIN.value)


def test_the_strike_is_between_the_end_and_the_hour_when_all_must_be_gone() -> None:
    strikes = [each for each in tasks().values() if each.stage == "strike"]
    assert {(each.soonest, each.latest) for each in strikes} == {(job().ends_at, job().clear_by)}


def test_no_road_no_drive_and_two_hands_only_where_there_are_two() -> None:
    near = tasks(replace(job(), travel_h=None, crew=(CrewMember(name="Wren"),)))
    assert not any(each.stage == "drive" for each in near.values())
    assert all(each.hands <= 1 for each in near.values())


def test_on_site_greens_go_in_before_the_flowers_of_the_same_piece() -> None:
    found = tasks()
    run = next(each for each in demo_made().rigs if each.rig.name == "Run over the long table")
    greens = {key for key in found if key.startswith(f"{run.id}:on-site-ruscus")}
    flowers = [each for key, each in found.items() if key.startswith(f"{run.id}:on-site") and key not in greens]
    assert greens
    assert all(greens <= {wait.task for wait in each.after} for each in flowers)


def test_a_task_set_by_hand_has_its_time_whichever_key_it_was_kept_by() -> None:
    locks = (Lock(task="green-1", starts_at="2027-05-14T07:10"), Lock(task="gone", starts_at="2027-05-12T07:10"))
    found = tasks(replace(job(), locks=locks))
    assert found["1:green:1"].at == at("2027-05-14T07:10")
    assert found.keys() == tasks().keys()


@pytest.mark.parametrize(
    ("before", "now"),
    [
        ("mechanics-3", "3:mechanics:1"),
        ("flower-3-2", "3:flower:2"),
        ("on-site-12-ruscus", "12:on-site-ruscus:1"),
        ("on-site-12-sea-lavender-2", "12:on-site-sea-lavender:2"),
        ("on-site-4", "4:on-site:1"),
        ("install-10", "10:install:1"),
        ("load-2", "van:load:2"),
        ("strike-1", "place:strike:1"),
        ("drive", "van:drive:1"),
        ("fill", "place:fill:1"),
        ("3:green:1", "3:green:1"),
        ("nothing known", "nothing known"),
    ],
)
def test_a_key_of_earlier_versions_is_that_of_the_same_task(before: str, now: str) -> None:
    assert key_now(before) == now


def test_what_goes_in_at_the_place_has_drunk_before_the_van_leaves() -> None:
    book = time_book(job(), demo_made(), varieties()).by_key()
    there = {key for each in book.values() if each.stage == "on site" for key in each.varieties}
    waited = {
        key for wait in book["van:load:1"].after if ":condition:" in wait.task for key in book[wait.task].varieties
    }
    assert there <= waited
    assert all(wait.minutes >= 60 for wait in book["van:load:1"].after if ":condition:" in wait.task)


def test_hung_work_goes_up_on_a_day_before_where_the_place_lets_it() -> None:
    asked = replace(job(), builds_from=at("2027-05-14T12:00"), builds_to=at("2027-05-14T18:00"))
    found = tasks(asked)
    for work in demo_made().rigs:
        task = found[f"{work.id}:install:1"]
        early = not work.rig.lies
        assert (task.latest == at("2027-05-14T18:00")) is early
        assert task.among == ((0, 1, 2, 3) if early else None)
    assert found["van-early:drive:1"].people == found["van-early:drive-back:1"].people == (0, 1, 2, 3)
    assert found["van:drive:1"].people == (0, 1, 2, 3)
    long = tasks(replace(asked, builds_from=at("2027-05-14T10:00"), builds_to=at("2027-05-14T19:00")))
    assert long["van-early:drive:1"].people == (0, 1)
    assert "van-early:drive-back:1" in {wait.task for wait in found["van:drive:1"].after}
    assert {wait.task for wait in found["van-early:drive-back:1"].after} == {
        f"{work.id}:install:1" for work in demo_made().rigs if not work.rig.lies
    }


def test_who_tops_up_does_it_whether_of_the_crew_or_of_the_house() -> None:
    work = one_bowl(4)
    bowl = replace(work.pieces[0].piece, top_ups=(TopUp(after_h=3.2, volume_l=0.3), TopUp(after_h=3.5, volume_l=0.1)))
    made = replace(work, pieces=(replace(work.pieces[0], piece=bowl),))
    house = tasks(made=made)["place:top-up:1"]
    assert (house.hands, house.by) == (0, "the evening crew")
    own = tasks(replace(job(), topped_up_by="sorrel"), made=made)["place:top-up:1"]
    assert (own.hands, own.people, own.by) == (1, (2,), "")
    assert "place:top-up:2" not in tasks(made=made)
    assert not any(each.stage == "top up" for each in tasks(replace(job(), topped_up_by=None), made=made).values())


def test_all_is_ready_three_quarters_of_an_hour_before_guests() -> None:
    for each in tasks().values():
        if each.stage == "on site" or (each.stage == "install" and each.latest != job().filled_at):
            assert each.latest == at("2027-05-15T17:15"), each.key
