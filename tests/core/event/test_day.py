"""The day: sheets that keep every bound, conflicts named with remedies that work, locks, and clock changes."""

from dataclasses import replace
from datetime import timedelta

import pytest

from jolly_trellis.core.event.day import Day, day_of
from jolly_trellis.core.event.gates import gate_of
from jolly_trellis.core.event.job import CrewMember, Job, Lock, Made, PieceWork, RigWork
from jolly_trellis.core.event.schedule import solve
from jolly_trellis.core.event.task import FLOWER_WITHIN, GREEN_WITHIN, Task
from jolly_trellis.core.event.tasks import tasks_of
from jolly_trellis.core.event.tasks_there import in_rig_order
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Spill
from jolly_trellis.core.units import render
from tests import rigs
from tests.day_check import problems_of
from tests.events import at, demo_made, job, one_bowl
from tests.ordinary import conditions, on_ledge, recipe, varieties


def tasks(asked: Job | None = None, made: Made | None = None) -> tuple[Task, ...]:
    return tasks_of(asked or job(), made or one_bowl(), varieties())


def day(asked: Job | None = None, made: Made | None = None) -> Day:
    return day_of(asked or job(), made or one_bowl(), varieties())


def kept(asked: Job, made: Made) -> Day:
    """The day, with its sheet checked."""
    found = day(asked, made)
    let_off = frozenset(key for conflict in found.conflicts for key in conflict.tasks)
    assert problems_of(found.timed, tasks(asked, made), asked, let_off=let_off) == []
    return found


def mended(made: Made, found: Day) -> Made:
    """Every remedy of the kind "tubes" applied to the hung pieces."""
    offers = [each for conflict in found.conflicts for each in conflict.remedies if each.kind == "tubes"]

    def tubed(work: RigWork) -> RigWork:
        recipe = work.rig.recipe
        for offer in offers:
            if offer.piece_id == work.id:
                recipe = tuple(
                    replace(line, water="tube", tube=offer.tube) if line.variety == offer.variety else line
                    for line in recipe
                )
        return replace(work, rig=replace(work.rig, recipe=recipe))

    return replace(made, rigs=tuple(tubed(each) for each in made.rigs))


def test_the_whole_demo_is_scheduled_and_only_the_flower_that_cannot_last_is_out_of_bounds() -> None:
    found = kept(job(), demo_made())
    assert len(found.conflicts) == 1
    said = render(found.conflicts[0].say, "metric")
    assert "bellflower lasts" in said
    assert [each.task.key for each in found.timed if each.early_min] == list(found.conflicts[0].tasks)
    assert found.extra_hands == 0


def test_the_remedy_of_a_conflict_mends_it() -> None:
    again = mended(demo_made(), day(job(), demo_made()))
    assert again != demo_made()
    assert kept(job(), again).conflicts == ()


def test_a_small_event_keeps_every_bound_and_flowers_as_late_as_it_can() -> None:
    found = kept(job(), one_bowl())
    assert found.conflicts == ()
    filled = job().filled_at
    assert filled is not None
    by_stage = {each.task.stage: each for each in found.timed}
    assert by_stage["flower"].starts_at >= filled - timedelta(hours=FLOWER_WITHIN.value)
    assert by_stage["green"].starts_at >= filled - timedelta(hours=GREEN_WITHIN.value)
    assert by_stage["fill"].starts_at == filled
    drive = by_stage["drive"]
    assert by_stage["load"].ends_at <= drive.starts_at
    assert drive.ends_at <= by_stage["install"].starts_at


def test_a_task_set_by_hand_stays_and_the_rest_moves_round_it() -> None:
    key = next(each.key for each in tasks() if each.stage == "mechanics")
    locked = replace(job(), locks=(Lock(task=key, starts_at="2027-05-13T09:15"),))
    found = kept(locked, one_bowl())
    set_task = next(each for each in found.timed if each.task.key == key)
    assert set_task.locked
    assert set_task.starts_at == at("2027-05-13T09:15")
    assert found.conflicts == ()


def test_a_lock_that_cannot_be_is_named_and_letting_it_go_is_offered_and_works() -> None:
    key = next(each.key for each in tasks() if each.stage == "load")
    locked = replace(job(), locks=(Lock(task=key, starts_at="2027-05-11T13:00"),))
    found = day(locked, one_bowl())
    (conflict,) = found.conflicts
    assert next(each.kind for each in conflict.remedies) == "unlock"
    assert day(replace(locked, locks=()), one_bowl()).conflicts == ()


def test_too_few_hands_are_named_and_more_hands_or_hours_that_work_are_offered() -> None:
    alone = replace(job(), crew=(CrewMember(name="Wren"),))
    again = mended(demo_made(), day(job(), demo_made()))
    found = day(alone, again)
    assert found.conflicts
    said = render(found.conflicts[-1].say, "metric")
    assert said.startswith("There is more to do than the hands and hours allow")
    for remedy in found.conflicts[-1].remedies:
        assert remedy.kind in ("hands", "hours")


def test_nobody_named_is_one_pair_of_hands_and_said_to_be() -> None:
    found = kept(replace(job(), crew=()), one_bowl(1))
    assert "who works (one pair of hands is taken)" in found.missing
    assert {each.crew for each in found.timed} == {(0,)}


def test_without_a_filling_there_is_no_day_and_it_says_what_is_missing() -> None:
    found = day(Job(zone=job().zone))
    assert found.timed == ()
    assert "when the water goes in" in found.missing
    assert "how long the drive takes" in found.missing
    assert {"the air of the place", "the air of the workshop"} <= set(found.missing)


def test_an_event_with_nothing_in_it_has_no_tasks() -> None:
    assert day(job(), Made()).timed == ()


@pytest.mark.parametrize(
    ("night", "hours"), [("2027-03-28", 23), ("2027-10-31", 25)], ids=["clocks go forward", "clocks go back"]
)
def test_a_clock_change_at_night_neither_adds_nor_loses_an_hour(night: str, hours: int) -> None:
    """European Union and United Kingdom rules, last Sundays of March and October, from the tz database."""
    changing = replace(
        job(),
        access_at=at(f"{night}T08:00"),
        filled_at=at(f"{night}T12:30"),
        starts_at=at(f"{night}T18:00"),
        ends_at=at(f"{night}T23:30"),
        clear_by=None,
    )
    found = kept(changing, one_bowl())
    flower = next(each for each in tasks(changing) if each.stage == "flower")
    assert flower.soonest is not None
    assert changing.filled_at is not None
    elapsed = (changing.filled_at.timestamp() - flower.soonest.timestamp()) / 3600
    assert elapsed == pytest.approx(24.0)
    assert flower.soonest.hour == (11 if hours == 23 else 13)
    assert found.conflicts == ()


def test_the_same_plan_gives_the_same_sheet() -> None:
    one, other = (solve(tasks(), job()) for _ in range(2))
    assert one == other


def test_hung_work_goes_up_highest_first_and_before_what_stands_under_it() -> None:
    order = [each.rig.name for each in in_rig_order(demo_made().rigs)]
    assert order.index("Ring of hanging stems, stair hall") < order.index("Run over the long table")
    found = {each.task.key: each for each in day(job(), demo_made()).timed}
    over_table = next(each for each in demo_made().rigs if each.rig.name == "Run over the long table")
    assert found[f"install-{over_table.id}"].ends_at <= found["install-1"].starts_at


def test_a_life_that_ends_too_soon_is_shown_to() -> None:
    lives = {(each.variety, each.water): each for each in day(job(), demo_made()).lives}
    hung = lives["campanula", "none"]
    assert hung.lasts_until is not None
    assert hung.needed_until == job().ends_at
    assert lives["ranunculus", "vessel"].lasts_until is None


def test_better_sheets_are_told_and_a_stop_keeps_the_best() -> None:
    told: list[Day] = []
    found = day_of(job(), one_bowl(), varieties(), tell=told.append, stop=lambda: True)
    assert told
    assert problems_of(found.timed, tasks(), job(), let_off=frozenset()) == []


def test_a_piece_whose_weight_is_not_known_is_named() -> None:
    work = one_bowl(1).pieces[0]
    assert kept(job(), one_bowl(1)).weight_unknown == ()
    assert kept(job(), Made(pieces=(replace(work, report=None),))).weight_unknown == (work.piece.name,)


def test_times_set_by_hand_that_cannot_be_met_never_empty_the_day() -> None:
    """Placed before the road, or years away: named with both times, and let go by a press."""
    asked = job()
    first = next(each.task.key for each in day(asked).timed if each.task.stage == "install")
    impossible = (Lock(task=first, starts_at="2027-05-13T03:00"), Lock(task="drive", starts_at="2027-05-15T09:00"))
    locked = replace(asked, locks=impossible)
    far = replace(asked, locks=(Lock(task="drive", starts_at="2031-01-01T09:00"),))
    for each in (locked, far):
        found = day(each)
        assert len(found.timed) == len(tasks(asked))
        unmet = [conflict for conflict in found.conflicts if "cannot be met" in render(conflict.say, "metric")]
        assert len(unmet) == 1
        said = render(unmet[0].say, "metric")
        assert "was set by hand to" in said
        assert "Here it starts at" in said
        assert [remedy.kind for remedy in unmet[0].remedies] == ["unlock"]
        free = replace(each, locks=tuple(lock for lock in each.locks if lock.task != unmet[0].remedies[0].task))
        assert not any("cannot be met" in render(conflict.say, "metric") for conflict in day(free).conflicts)


def test_hung_work_that_is_not_cleared_is_a_gate_and_the_rest_is_none() -> None:
    made = demo_made()
    states = {each.id: None if each.report is None else each.report.verdict.state for each in made.rigs}
    for task in tasks(job(), made):
        shut = task.stage == "install" and states.get(task.piece_id or 0, "holds") in ("fails", "cannot say", None)
        assert (task.gate is not None) == shut, task.key
        if task.gate is not None:
            assert render(task.gate, "metric").startswith("Not before it is cleared: ")
    assert {"fails", "cannot say"} & {each for each in states.values() if each}


def test_a_spill_that_is_not_cleared_gates_its_piece_and_a_runner_nothing() -> None:
    spill = Spill(drop_m=0.5, netting="coated-25-09", recipe=recipe(statice=(4, "filler")))
    ledge = replace(on_ledge(), spill=spill)
    report = evaluate(ledge, conditions(), with_fixes=False)
    gated = PieceWork(id=1, piece=ledge, report=report)
    gate = gate_of(gated)
    assert gate is not None
    assert "rated to carry" in gate.text
    assert gate_of(replace(gated, report=None)) is not None
    rated = replace(ledge, spill=replace(spill, hook_n=400.0, hook_stated_by="the warden"))
    assert gate_of(PieceWork(id=1, piece=rated, report=evaluate(rated, conditions(), with_fixes=False))) is None
    assert gate_of(PieceWork(id=1, piece=on_ledge(), report=None)) is None
    lying = replace(rigs.run(), armature=replace(rigs.run().armature, kind="runner"))
    assert gate_of(RigWork(id=2, rig=lying, report=None)) is None
    assert gate_of(RigWork(id=2, rig=rigs.run(), report=None)) is not None
