"""Names are for people: whatever is called otherwise, or all the same, nothing but the names changes."""

import sqlite3
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import pytest

from jolly_trellis.core.event.job import CrewMember, Hire, Supplier
from jolly_trellis.core.event.sheet.schedule import schedule
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.survey import SurveyBeam
from jolly_trellis.core.units import render
from jolly_trellis.demo.loading import demo_plan, demo_survey
from jolly_trellis.services import coming_home, event_work, planning, rigging, stores
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.gate import Based
from jolly_trellis.services.rigging import Where
from jolly_trellis.services.settling import to_settle
from jolly_trellis.store import codec, stock
from jolly_trellis.store.plan import Plan
from jolly_trellis.store.stock import Holding

NAMED = ("Long-table low bowl", "Head table trough", "Statement urn by the door")


def begun(conn: sqlite3.Connection) -> Plan:
    """Some of the demo, with people, suppliers and hires of more than one kind."""
    plan = demo_plan()
    raised = next(each for each in plan.pieces if each.part.support is not None)
    parts = [each.part for each in plan.parts if each.part.name in NAMED]
    parts += [raised.part, plan.rigs[0].part]
    days = {"comes": "2027-05-14", "goes_back": "2027-05-17"}
    brief = replace(
        plan.brief,
        crew=(CrewMember(name="Runa"), CrewMember(name="Ivo", skills=("drives",)), CrewMember(name="Mire")),
        suppliers=(Supplier(name="Quay market", sells=("garden-rose",)), Supplier(name="Dock growers")),
        hires=(
            Hire(name="low bowl, 20 cm", number=2, lender="Osterlay Hire", **days),  # type: ignore[arg-type]
            Hire(name=raised.part.support.name, lender="Tall Things", **days),  # type: ignore[arg-type, union-attr]
        ),
    )
    for kind, key, number in (
        ("vessel", "low-bowl-20", 14),
        ("vessel", "trough-60", 2),
        ("stand", "cylinder-stand-50", 1),
    ):
        stock.put_holding(conn, kind, key, Holding(on_hand=number))
    return planning.new_event(conn, brief, tuple(parts)).plan


def renamed(document: Any, call: Callable[[str], str]) -> Any:
    """Plain data with everything that people name called otherwise, but for hang points."""
    if isinstance(document, list):
        return [renamed(each, call) for each in document]
    if not isinstance(document, dict):
        return document
    point = "z_m" in document
    return {
        key: call(each) if key in ("name", "lender") and not point else renamed(each, call)
        for key, each in document.items()
    }


def known_of(conn: sqlite3.Connection, work: EventWork) -> dict[str, Any]:
    """Everything that an event comes to, without a name in it."""
    shopping = event_work.shopping_of(conn, work)
    cost = event_work.cost_of_event(work)
    tasks = event_work.book_of(work).tasks
    sheet = schedule(tasks, work.job, effort=0)
    return {
        "states": [
            [each.state for each in getattr(part.report, "verdicts", ())] or part.report.verdict.state  # type: ignore[union-attr]
            for part in work.made.works
        ],
        "tasks": {each.key: (each.minutes, each.after, each.windows) for each in tasks},
        "sheet": [(each.task.key, each.starts_at, each.crew) for each in sheet.timed],
        "buys": {(each.group, each.key): (each.needed, each.here, each.packs, each.price) for each in shopping.buys},
        "packs": {each.key: each.number for each in shopping.packs},
        "home": {each.key: each.number for each in coming_home.state_of(conn, work).lines},
        "cost": (cost.cost, cost.price, [(each.vessels, each.price) for each in cost.pieces]),
    }


@pytest.mark.parametrize("call", [lambda name: f"{name[:80]}, anew", lambda _: "One name"], ids=["other", "the same"])
def test_whatever_things_are_called_nothing_but_the_names_changes(
    studio: sqlite3.Connection, call: Callable[[str], str]
) -> None:
    plan = begun(studio)
    was = known_of(studio, event_work.work_of(studio, 1))
    assert {"vessel:low-bowl-20", "vessel:urn-24", "stand:cylinder-stand-50"} <= set(was["home"]) | {
        key for _, key in was["buys"]
    }
    for kind in ("vessel", "stand", "netting", "frog", "supply"):
        for key, thing in stock.things(studio, kind).items():
            stores.put(studio, kind, key, replace(thing, name=call(thing.name)))
    changed: Plan = codec.from_plain(renamed(codec.to_plain(plan), call), Plan)
    # a lender is told by what it is called: two that are called the same are one, whatever else is
    hires = zip(changed.brief.hires, plan.brief.hires, strict=True)
    changed = replace(
        changed,
        brief=replace(
            changed.brief,
            hires=tuple(replace(each, lender=f"{each.lender} {old.lender_key}") for each, old in hires),
        ),
    )
    revision = planning.event_row(studio, 1).revision
    planning.put_plan(studio, 1, changed, base_revision=revision, label="Other names")
    now = known_of(studio, event_work.work_of(studio, 1))
    assert was.keys() == now.keys()
    for key, known in was.items():
        assert now[key] == known, key


def test_two_vessels_of_one_name_are_counted_and_come_home_as_two(studio: sqlite3.Connection) -> None:
    vessel = stock.vessels(studio)["low-bowl-20"]
    stores.put(studio, "vessel", "low-bowl-26", replace(stock.vessels(studio)["low-bowl-26"], name=vessel.name))
    stock.put_holding(studio, "vessel", "low-bowl-20", Holding(on_hand=5))
    stock.put_holding(studio, "vessel", "low-bowl-26", Holding(on_hand=7))
    bowl = demo_plan().pieces[0].part
    both = stock.vessels(studio)
    parts = tuple(replace(bowl, quantity=n, vessel=both[key]) for key, n in (("low-bowl-20", 4), ("low-bowl-26", 2)))
    planning.new_event(studio, demo_plan().brief, parts)
    lines = [each for each in coming_home.state(studio, 1).lines if each.kind == "vessel"]
    assert [(each.key, each.said, each.number) for each in lines] == [
        ("vessel:low-bowl-20", vessel.name, 4),
        ("vessel:low-bowl-26", vessel.name, 2),
    ]
    coming_home.come_home(studio, 1, [coming_home.Back(line="vessel:low-bowl-26", back=1)])
    held = stock.holdings(studio)["vessel"]
    assert [(held[key].on_hand, held[key].used) for key in ("low-bowl-20", "low-bowl-26")] == [(5, 4), (6, 2)]


def test_hung_work_of_one_name_on_one_beam_is_two_and_none_of_it_is_itself(studio: sqlite3.Connection) -> None:
    rig = demo_plan().rigs[0].part
    rig = replace(rig, points=tuple(replace(each, beam="ridge") for each in rig.points))
    brief = planning.new_event(studio, demo_plan().brief, (rig, rig)).plan.brief
    renamed_meanwhile = replace(rig, name="Called otherwise, not saved yet")
    points = tuple(replace(each, beam="ridge") for each in demo_survey().points)
    beam = SurveyBeam(key="ridge", name="The long beam", rating_n=900.0)
    called = replace(demo_survey(), points=points, beams=(beam,))
    rigging.put_survey(studio, 1, called, Based(revision=0))
    for part, others in ((1, 1), (2, 1), (None, 2)):
        there = rigging.in_place(studio, Where(event=1, brief=brief, part=part), renamed_meanwhile)
        assert [len(each.others) + len(each.unknown) for each in there.beams] == [others]
        assert [each.name for each in there.beams] == ["The long beam"]


def begun_with_survey(conn: sqlite3.Connection) -> int:
    """The demo with the survey of its place; its number."""
    return rigging.begin_with_survey(conn, demo_plan(), demo_survey())[0].id


def hung_there(studio: sqlite3.Connection, event: int) -> Rig:
    """The first hung work of an event with what the survey of its place says of it."""
    plan = planning.state(studio, event).plan
    where = Where(event=event, brief=plan.brief, part=plan.rigs[0].id)
    return rigging.in_place(studio, where, plan.rigs[0].part)


def test_a_place_and_its_points_are_called_otherwise_and_nothing_else_changes(studio: sqlite3.Connection) -> None:
    event = begun_with_survey(studio)
    before = hung_there(studio, event)
    assert all(each.rating_n is not None for each in before.points)
    row = rigging.survey_of(studio, event)[1]
    beam = SurveyBeam(name="ridge", rating_n=9000.0, stated_by="the owner", stated_on="2027-05-01")
    points = tuple(replace(each, name=f"hook {at}") for at, each in enumerate(row.survey.points))
    rigging.put_survey(studio, event, replace(row.survey, points=points, beams=(beam,)), Based(revision=row.revision))
    brief = planning.state(studio, event).plan.brief
    renamed = replace(brief, place="Anywhere else")
    planning.put_brief(studio, event, renamed, base_revision=planning.state(studio, event).event.revision)
    assert replace(hung_there(studio, event), beams=before.beams) == before


def test_another_place_of_another_name_has_no_survey_and_the_same_name_is_the_same_place(
    studio: sqlite3.Connection,
) -> None:
    event = begun_with_survey(studio)
    brief = planning.state(studio, event).plan.brief
    other = planning.new_event(studio, replace(brief, place="A barn", place_key="")).event.id
    again = planning.new_event(studio, replace(brief, place=f" {brief.place.upper()} ", place_key="")).event.id
    nowhere = planning.new_event(studio, replace(brief, place=" ", place_key="gone")).event.id
    keys = [rigging.survey_of(studio, each)[0] for each in (event, other, again, nowhere)]
    assert keys == [keys[0], "a-barn", keys[0], ""]
    assert rigging.survey_of(studio, other)[1].revision == 0
    planning.delete_event(studio, event)
    kept = planning.new_event(studio, replace(brief, place_key="")).event.id
    assert rigging.survey_of(studio, kept)[1].revision == 1


def test_a_plan_from_elsewhere_hangs_from_the_points_of_the_survey_that_is_kept(studio: sqlite3.Connection) -> None:
    """What is called the same is the same point, whatever its key is there; what is not called so is gone."""
    ours = begun_with_survey(studio)
    theirs = replace(
        demo_survey(), points=tuple(replace(each, key=f"p{at}") for at, each in enumerate(demo_survey().points))
    )
    keys = {each.key: f"p{at}" for at, each in enumerate(demo_survey().points)}
    plan = demo_plan()
    parts = tuple(
        replace(each, part=replace(each.part, points=tuple(
            replace(point, surveyed=point.surveyed and keys[point.surveyed]) for point in each.part.points
        )))
        if isinstance(each.part, Rig)
        else each
        for each in plan.parts
    )  # fmt: skip
    event, other = rigging.begin_with_survey(studio, replace(plan, parts=parts), theirs)
    assert not other
    assert hung_there(studio, event.id) == hung_there(studio, ours)
    poorer = replace(theirs, points=tuple(replace(each, rating_n=1.0) for each in theirs.points))
    assert rigging.begin_with_survey(studio, replace(plan, parts=parts), poorer)[1]


def test_what_the_stores_have_no_longer_is_named_and_keeps_its_measures(studio: sqlite3.Connection) -> None:
    was = begun(studio)
    for kind, key in (("vessel", "low-bowl-20"), ("stand", "cylinder-stand-50")):
        stores.delete(studio, kind, key)
    work = event_work.work_of(studio, 1)
    said = [render(each.say, "metric") for each in to_settle(studio, work, event_work.cost_of_event(work))]
    gone = [each for each in said if "in the stores no longer" in each]
    assert [each.split(" of “")[0] for each in gone] == ["low bowl, 20 cm", "tall cylinder, 50 cm"]
    assert planning.state(studio, 1).plan == was
    stores.bring_back(studio, "vessel", "low-bowl-20")
    again = to_settle(studio, event_work.work_of(studio, 1), event_work.cost_of_event(work))
    assert len([each for each in again if "in the stores no longer" in each.say.text]) == 1


def test_a_plan_from_elsewhere_is_told_by_the_keys_of_these_stores(studio: sqlite3.Connection) -> None:
    bowl = demo_plan().pieces[0].part
    here = stock.vessels(studio)
    stores.put(studio, "vessel", "cup-6", replace(here["cup-6"], name="twin"))
    stores.put(studio, "vessel", "cup-8", replace(here["cup-8"], name="twin"))
    given = {"cube-14": "any name", "of-another-studio": "jug", "": here["low-bowl-30"].name}
    parts = [replace(bowl, vessel=replace(bowl.vessel, key=key, name=name)) for key, name in given.items()]
    parts.append(replace(bowl, vessel=replace(bowl.vessel, key="", name="twin")))
    days = {"comes": "2027-05-14", "goes_back": "2027-05-17"}
    hires = (
        Hire(name="jug", lender="x", thing="vessel:of-another-studio", **days),  # type: ignore[arg-type]
        Hire(name="any name", lender="x", **days),  # type: ignore[arg-type]
        Hire(name="urn", lender="x", thing="vessel:urn-24", **days),  # type: ignore[arg-type]
        Hire(name="nothing of the kind", lender="x", **days),  # type: ignore[arg-type]
    )
    plan = planning.new_event(studio, replace(demo_plan().brief, hires=hires), tuple(parts)).plan
    assert [each.part.vessel.key for each in plan.pieces] == ["cube-14", "", "low-bowl-30", ""]
    assert [each.of for each in plan.brief.hires] == [
        "~jug",
        "vessel:cube-14",
        "vessel:urn-24",
        "~nothing of the kind",
    ]
    assert all(each.part.vessel.profile == bowl.vessel.profile for each in plan.pieces)
