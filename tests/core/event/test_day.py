"""The day: sheets that keep every bound, conflicts named with remedies that work, locks, and clock changes."""

from dataclasses import replace
from datetime import time, timedelta
from functools import cache, partial

import pytest

from jolly_trellis.core.books.time import Task
from jolly_trellis.core.event.day.day import Day, day_of
from jolly_trellis.core.event.day.remedies import TRIAL, in_tubes, with_recipes
from jolly_trellis.core.event.job import CrewMember, Job, Lock, Made, PieceWork, RigWork
from jolly_trellis.core.event.sheet.schedule import schedule
from jolly_trellis.core.event.sheet.task import FLOWER_WITHIN, GREEN_WITHIN
from jolly_trellis.core.event.tasks.gates import gate_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.tasks_there import in_rig_order
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Spill
from jolly_trellis.core.units import render
from tests import rigs
from tests.day_check import problems_of
from tests.events import at, demo_made, job, one_bowl
from tests.ordinary import conditions, lacks, on_ledge, recipe, varieties


def tasks(asked: Job | None = None, made: Made | None = None) -> tuple[Task, ...]:
    return time_book(asked or job(), made or one_bowl(), varieties()).tasks


@cache
def demo_day() -> Day:
    """The day of the whole demo, worked out once."""
    return day_of(job(), demo_made(), varieties(), effort=0.1)


def day(asked: Job | None = None, made: Made | None = None, effort: float = 0.1) -> Day:
    return day_of(asked or job(), made or one_bowl(), varieties(), effort=effort)


def named(found: Day) -> set[tuple[str, str]]:
    """What a day says that it breaks, as the independent check says it."""
    of_people = {"work", "span", "break", "rest"}
    return {(each.kind, each.person if each.kind in of_people else each.tasks[0]) for each in found.breaches}


def kept(asked: Job, made: Made) -> Day:
    """The day, with its sheet checked: what it breaks is what it says, no more and no less."""
    found = day(asked, made)
    assert problems_of(found.timed, tasks(asked, made), asked) == named(found)
    return found


def mended(made: Made, found: Day) -> Made:
    """Every remedy of the kind "tubes" applied to the hung pieces."""
    offers = [each for conflict in found.conflicts for each in conflict.remedies if each.kind == "tubes"]
    for offer in offers:
        made = with_recipes(made, partial(in_tubes, variety=offer.variety, tube=offer.tube), only=offer.piece_id)
    return made


def test_the_whole_demo_has_a_sheet_and_what_it_breaks_is_named() -> None:
    found = demo_day()
    assert problems_of(found.timed, tasks(job(), demo_made()), job()) == named(found)
    said = [render(each.say, "metric") for each in found.conflicts]
    assert any("bellflower lasts" in each for each in said)
    assert {each.kind for each in found.breaches} <= {"access", "early", "late", "span", "work", "break", "rest"}
    assert found.extra_hands == 0


def test_the_remedy_of_a_conflict_mends_it() -> None:
    found = demo_day()
    again = mended(demo_made(), found)
    assert again != demo_made()
    assert not any("bellflower lasts" in render(each.say, "metric") for each in kept(job(), again).conflicts)


def test_a_small_event_keeps_every_bound_and_flowers_as_late_as_it_can() -> None:
    short = replace(job(), ends_at=at("2027-05-15T20:00"), clear_by=at("2027-05-15T21:00"))
    found = kept(short, one_bowl())
    assert found.conflicts == ()
    assert found.breaches == ()
    filled = short.filled_at
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


def test_a_lock_that_pushes_others_out_is_kept_and_letting_it_go_is_offered_with_what_is_left() -> None:
    key = next(each.key for each in tasks() if each.stage == "load")
    locked = replace(job(), locks=(Lock(task=key, starts_at="2027-05-13T13:00"),))
    found = kept(locked, one_bowl())
    loaded = next(each for each in found.timed if each.task.key == key)
    assert loaded.starts_at == at("2027-05-13T13:00")
    assert {each.kind for each in found.breaches} & {"early"}
    offers = [each for conflict in found.conflicts for each in conflict.remedies if each.kind == "unlock"]
    assert len(offers) == 1
    free = day(replace(locked, locks=()), one_bowl())
    assert len(free.breaches) < len(found.breaches)


def test_too_few_hands_still_have_a_sheet_and_every_remedy_helps_as_it_says() -> None:
    """Each change is made in the open and the day worked out again: it breaks less, as was said."""
    alone = replace(job(), crew=(CrewMember(name="Wren"),))
    made = mended(demo_made(), demo_day())
    found = kept(alone, made)
    assert len(found.timed) == len(tasks(alone, made))
    crowd = found.conflicts[-1]
    assert render(crowd.say, "metric").startswith("There is more to do than the hands and hours allow")
    assert crowd.remedies
    for remedy in crowd.remedies:
        match remedy.kind:
            case "hands":
                more = tuple(CrewMember(name=f"one more {nth + 1}") for nth in range(remedy.hands))
                changed = replace(alone, crew=alone.crew + more)
            case "greens":
                changed = replace(alone, greens_sooner=True)
            case _:
                changed = replace(alone, hours=replace(alone.hours, opens=time.fromisoformat(remedy.opens)))
        again = day(changed, made, effort=TRIAL)
        assert len(again.breaches) < len(found.breaches)
        assert (again.breaches == ()) == remedy.mends
        assert render(remedy.after, "metric").startswith("Then ")


def test_three_on_a_job_of_fifty_five_vessels_have_a_sheet() -> None:
    """A busy day is placed where it hurts least; every lane is somebody's, and all of it is named."""
    three = replace(job(), crew=tuple(CrewMember(name=each) for each in ("Wren", "Alder", "Sorrel")))
    found = kept(three, one_bowl(55))
    assert {each.task.stage for each in found.timed} >= {"collect", "condition", "flower", "fill", "strike"}
    assert len(found.timed) == len(tasks(three, one_bowl(55)))


def test_a_bouquet_alone_is_at_the_place_when_it_is_wanted() -> None:
    """Nothing is placed or filled where all is carried: the van is there by the hour that the brief says."""
    posy = next(each for each in demo_made().pieces if each.piece.carried)
    for travel_h in (0.75, None):
        asked = replace(job(), travel_h=travel_h)
        found = kept(asked, Made(pieces=(posy,)))
        assert found.timed
        assert max(each.ends_at for each in found.timed) <= at("2027-05-15T12:30")


def test_far_too_much_for_three_asks_for_no_crowd_and_nobody_comes_back_before_they_leave() -> None:
    made = demo_made()
    many = Made(
        pieces=tuple(replace(made.pieces[each % len(made.pieces)], id=each) for each in range(1, 35)),
        rigs=tuple(replace(made.rigs[each % len(made.rigs)], id=each) for each in range(35, 41)),
    )
    three = tuple(CrewMember(name=each) for each in ("Wren", "Alder", "Sorrel"))
    asked = replace(job(), crew=three, builds_from=at("2027-05-14T10:00"))
    sheet = schedule(tasks(asked, many), asked, effort=0)
    assert len(sheet.timed) == len(tasks(asked, many))
    assert sheet.extra_hands <= 12
    assert not any(each.kind in ("order", "place") for each in sheet.breaches)


def test_without_an_end_of_the_event_nobody_says_when_it_is_struck() -> None:
    found = day(replace(job(), ends_at=None, clear_by=None))
    assert found.timed
    assert not {each.task.stage for each in found.timed} & {"strike", "return"}
    assert "when the event ends" in lacks(found)
    assert {"strike", "return"} <= {each.stage for each in tasks(replace(job(), ends_at=None))}


def test_of_two_times_set_by_hand_only_the_one_that_cannot_be_met_is_given_up() -> None:
    """A drive years away, which cannot be; a mechanic made on a morning, which can."""
    locks = (
        Lock(task="van:drive:1", starts_at="2031-01-01T09:00"),
        Lock(task="1:mechanics:1", starts_at="2027-05-13T09:15"),
    )
    found = day(replace(job(), locks=locks))
    unmet = [each for each in found.conflicts if "cannot be met" in render(each.say, "metric")]
    assert [each.tasks for each in unmet] == [("van:drive:1",)]
    assert next(each for each in found.timed if each.task.key == "1:mechanics:1").starts_at == at("2027-05-13T09:15")


def test_nobody_who_drives_is_said_and_the_day_still_has_a_sheet() -> None:
    walkers = tuple(CrewMember(name=each, skills=("ladders", "knots")) for each in ("Wren", "Alder"))
    found = kept(replace(job(), crew=walkers), one_bowl())
    said = " ".join(render(each.say, "metric") for each in found.conflicts)
    assert "Nobody who does “Drive there” drives" in said


def test_hours_of_a_person_are_kept_and_what_lies_outside_them_is_said() -> None:
    late = CrewMember(name="Rush", comes="17:00", goes="02:00")
    crew = (CrewMember(name="Wren", comes="07:00", goes="18:00"), late)
    found = kept(replace(job(), crew=crew), one_bowl())
    mine = [each for each in found.timed if 1 in each.crew and each.task.stage == "strike"]
    assert mine
    wren = [each for each in found.timed if each.crew == (0,)]
    assert wren
    assert not any(each.kind == "shift" for each in found.breaches)


def test_nobody_named_is_one_pair_of_hands_and_said_to_be() -> None:
    found = kept(replace(job(), crew=()), one_bowl(1))
    assert "who works (one pair of hands is taken)" in lacks(found)
    assert {each.crew for each in found.timed if each.crew} == {(0,)}


def test_without_a_filling_there_is_no_day_and_it_says_what_is_missing() -> None:
    found = day(Job(zone=job().zone))
    assert found.timed == ()
    assert "when the water goes in" in lacks(found)
    assert "how long the drive takes" in lacks(found)
    assert {"the air of the place", "the air of the workshop"} <= set(lacks(found))


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
        crew=tuple(CrewMember(name=f"hand {nth}") for nth in range(6)),
    )
    found = kept(changing, one_bowl())
    flower = next(each for each in tasks(changing) if each.stage == "flower")
    assert flower.soonest is not None
    assert changing.filled_at is not None
    elapsed = (changing.filled_at.timestamp() - flower.soonest.timestamp()) / 3600
    assert elapsed == pytest.approx(24.0)
    assert flower.soonest.hour == (11 if hours == 23 else 13)
    assert not {each.kind for each in found.breaches} & {"early", "late", "order", "shut"}


def test_the_same_plan_gives_the_same_sheet() -> None:
    one, other = (schedule(tasks(), job(), effort=0.1) for _ in range(2))
    assert one == other


def test_hung_work_goes_up_highest_first_and_before_what_stands_under_it() -> None:
    order = [each.rig.name for each in in_rig_order(demo_made().rigs)]
    assert order.index("Ring of hanging stems, stair hall") < order.index("Run over the long table")
    found = {each.task.key: each for each in demo_day().timed}
    over_table = next(each for each in demo_made().rigs if each.rig.name == "Run over the long table")
    assert found[f"{over_table.id}:install:1"].ends_at <= found["1:install:1"].starts_at


def test_a_life_that_ends_too_soon_is_shown_to() -> None:
    lives = {(each.variety, each.water): each for each in demo_day().lives}
    hung = lives["campanula", "none"]
    assert hung.lasts_until is not None
    assert hung.needed_until == job().ends_at
    assert lives["ranunculus", "vessel"].lasts_until is None


def test_better_sheets_are_told_and_a_stop_keeps_the_best() -> None:
    told: list[Day] = []
    found = day_of(job(), one_bowl(), varieties(), tell=told.append, stop=lambda: True)
    assert told[0].timed == found.timed
    assert problems_of(found.timed, tasks(), job()) == named(found)


def test_a_piece_whose_weight_is_not_known_is_named() -> None:
    work = one_bowl(1).pieces[0]
    assert day(job(), one_bowl(1)).weight_unknown == ()
    assert day(job(), Made(pieces=(replace(work, report=None),))).weight_unknown == (work.piece.name,)


def test_times_set_by_hand_that_cannot_be_met_never_empty_the_day() -> None:
    """Placed before the road, or years away: broken last, named with both times, and let go by a press."""
    asked = job()
    first = next(each.task.key for each in day(asked).timed if each.task.stage == "install")
    impossible = (
        Lock(task=first, starts_at="2027-05-13T03:00"),
        Lock(task="van:drive:1", starts_at="2027-05-15T09:00"),
    )
    far = (Lock(task="van:drive:1", starts_at="2031-01-01T09:00"),)
    for locks in (impossible, far):
        found = day(replace(asked, locks=locks))
        assert len(found.timed) == len(tasks(asked))
        unmet = [conflict for conflict in found.conflicts if "cannot be met" in render(conflict.say, "metric")]
        assert len(unmet) == 1
        said = render(unmet[0].say, "metric")
        assert "was set by hand to" in said
        assert "Here it starts at" in said
        assert [remedy.kind for remedy in unmet[0].remedies] == ["unlock"]
        free = tuple(lock for lock in locks if lock.task != unmet[0].remedies[0].task)
        again = day(replace(asked, locks=free))
        assert not any("cannot be met" in render(conflict.say, "metric") for conflict in again.conflicts)


def test_a_lock_of_a_task_that_there_is_no_more_is_named_and_let_go() -> None:
    found = day(replace(job(), locks=(Lock(task="99:green:1", starts_at="2027-05-14T09:00"),)))
    (conflict,) = [
        each for each in found.conflicts if "is no task of this plan any more" in render(each.say, "metric")
    ]
    assert conflict.remedies[0].task == "99:green:1"


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
