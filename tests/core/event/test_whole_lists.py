"""Everything that is needed is on exactly one line to buy, and nothing else is; what is for the event as a whole."""

import math
from collections import Counter
from dataclasses import replace
from random import Random

import pytest

from jolly_trellis.core.event.buying.shopping import Shopping, shopping
from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.core.event.job import Hire, Made, Reused, recipe_of
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs, ThingNeed
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.returning.finished import does_for, not_for, offers
from jolly_trellis.core.event.returning.returns import returns_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.materials.finished import FinishedArmature
from jolly_trellis.core.materials.netting import pitch_across_m
from jolly_trellis.core.units import render
from tests.events import all_needs, demo_made, job, kept, larder, one_bowl, shelves
from tests.ordinary import conditions, nettings, varieties


def some_of(chance: Random) -> Made:
    """Some of the demo's pieces, as many of each as there may be, and some of its hung work."""
    made = demo_made()
    pieces = [
        replace(each, piece=replace(each.piece, quantity=chance.randint(1, 30)))
        for each in made.pieces
        if chance.random() < 0.5
    ]
    return Made(pieces=tuple(pieces), rigs=tuple(each for each in made.rigs if chance.random() < 0.5))


def listed(made: Made, needs: Needs) -> Shopping:
    rounds = water_rounds(job(), made, conditions())
    return shopping(
        job(), made, needs, cut_plan(needs, larder(), seconds=0.3), larder(), shelves(), varieties(), rounds
    )


@pytest.mark.parametrize("seed", range(12))
def test_what_is_needed_is_on_one_line_and_what_is_on_a_line_is_needed(seed: int) -> None:
    made = some_of(Random(seed))
    needs = all_needs(made)
    found = listed(made, needs)
    lines = Counter((each.group in ("frogs", "vessels", "finished"), each.key) for each in found.buys)
    assert set(lines.values()) <= {1}
    wanted = {(False, each.netting) for each in needs.sheets} | {(False, each.supply) for each in needs.supplies}
    wanted |= {(False, each.supply) for each in needs.lengths} | {(True, each.frog) for each in needs.frogs}
    wanted |= {(True, each.thing) for each in needs.things}
    assert set(lines) == wanted
    assert Counter(each.variety for each in found.stems) == Counter({each.variety for each in needs.stems})
    counts = Counter(line.variety for work in made.works for line in recipe_of(work))
    assert set(counts) == {each.variety for each in found.stems}
    for each in needs.things:
        total = sum(other.quantity for other in needs.things if other.thing == each.thing)
        assert next(line for line in found.buys if line.key == each.thing).needed.value == total
    keys = [each.key for each in found.packs]
    assert len(keys) == len(set(keys))


def test_what_is_for_the_whole_event_by_hand() -> None:
    """Three bowls of the demo's sort: four pads and a carton each, a bucket and a sachet for 25 stems of a kind."""
    made = one_bowl()
    needs, own = all_needs(made), needs_of(made)
    extra = {each.supply: each for each in needs.supplies if each not in own.supplies}
    assert (extra["felt-pad"].amount, extra["felt-pad"].piece_id, extra["felt-pad"].uses) == (12, 1, 5)
    assert ("box" in extra) == (made.pieces[0].piece.transport is not None)
    stems = [math.ceil(math.ceil(each.count * 1.1 - 1e-9) / 25) for each in own.stems]
    assert extra["bucket"].amount >= sum(stems)
    assert extra["flower-food"].amount == extra["bucket"].amount
    assert (extra["bucket"].piece_id, extra["bucket"].uses, extra["flower-food"].uses) == (FOR_ALL, 100, 1)
    litres = water_rounds(job(), made, conditions()).total_l
    assert extra["water-can"].amount == math.ceil(1.1 * litres / 10)
    (spare,) = (each for each in needs.sheets if each not in own.sheets)
    widest = max(each.sheet.width_m for each in own.sheets)
    assert (spare.sheet.width_m, spare.quantity, spare.piece_id) == (widest, 1, FOR_ALL)
    assert spare.sheet.length_m <= 1.0
    assert spare.sheet.mass_kg <= max(each.sheet.mass_kg for each in own.sheets)


def finished_as(needs: Needs) -> FinishedArmature:
    need = needs.sheets[0]
    return FinishedArmature(
        key="again",
        name="again",
        made_as=need.name,
        netting=need.netting,
        width_m=need.sheet.width_m,
        length_m=need.sheet.length_m,
    )


def test_a_finished_armature_does_for_what_is_of_its_make_netting_and_size() -> None:
    needs = needs_of(one_bowl())
    need, net = needs.sheets[0], nettings()[needs.sheets[0].netting]
    again, cell = finished_as(needs), pitch_across_m(net)
    assert does_for(again, need, net)
    assert does_for(replace(again, width_m=again.width_m - 0.5 * cell, length_m=again.length_m + cell), need, net)
    assert not does_for(replace(again, width_m=again.width_m - 0.52 * cell), need, net)
    assert not does_for(replace(again, length_m=again.length_m + 1.02 * cell), need, net)
    assert not does_for(replace(again, made_as="tube"), need, net)
    assert not does_for(replace(again, netting="coated-13-07"), need, net)
    assert not does_for(replace(again, condition="cracked"), need, net)
    assert does_for(replace(again, condition="rust"), need, net)


def test_what_is_free_and_not_worn_is_offered_once_for_each_part() -> None:
    needs = all_needs(one_bowl())
    again = {"again": finished_as(needs)}

    def offered(here: int, used: int = 0, reused: tuple[Reused, ...] = ()) -> list[tuple[int, int, int]]:
        own = {"again": replace(kept("again", None, here), used=used)}
        return [(each.part, each.free, each.wanted) for each in offers(needs, again, own, nettings(), reused)]

    assert offered(2) == [(1, 2, 3)]
    assert offered(0) == []
    assert offered(2, used=80) == []
    twice = replace(needs, sheets=(*needs.sheets, replace(needs.sheets[0], name="lower piece")))
    own = {"again": kept("again", None, 2)}
    assert list(offers(twice, again, own, nettings(), ())) == []
    assert offered(2, reused=(Reused(part=9, armature="again", number=1),)) == [(1, 1, 3)]


def test_what_is_used_again_is_not_cut_and_takes_less_time_and_is_paid_for_by_the_use() -> None:
    made, plain = one_bowl(), needs_of(one_bowl())
    two = (Reused(part=1, armature="again", number=2),)
    found = needs_of(made, reused=two)
    assert [each.quantity for each in found.sheets] == [each.quantity // 3 for each in plain.sheets]
    assert sum(each.quantity for each in found.reused) == 2 * sum(each.quantity for each in plain.sheets) // 3
    assert [(each.kind, each.name, each.quantity) for each in found.things if each.kind == "armature"] == [
        ("armature", "again", 2)
    ]
    one_here = needs_of(made, reused=two, here={"again": 1})
    assert [each.quantity for each in one_here.sheets] == [2 * each.quantity // 3 for each in plain.sheets]
    assert needs_of(made, reused=two, here={}).sheets == plain.sheets
    every = needs_of(made, reused=(replace(two[0], number=9),))
    assert every.sheets == ()
    assert next(each.quantity for each in every.things if each.kind == "armature") == 3
    anew, again = (
        sum(each.minutes for each in time_book(own, made, varieties()).tasks if each.stage == "mechanics")
        for own in (job(), replace(job(), reused=two))
    )
    assert again <= anew


def test_netting_of_hung_work_comes_back_its_lines_do_not() -> None:
    made = replace(demo_made(), pieces=())
    run = made.rigs[0]
    plain = needs_of(made)
    found = needs_of(made, reused=(Reused(part=run.id, armature="again", number=1),))
    assert not [each for each in found.sheets if each.piece_id == run.id]
    lines = [each for each in plain.lengths if each.piece_id == run.id and each.supply.startswith(("steel", "cord"))]
    assert lines
    assert set(lines) <= set(found.lengths)


def test_what_comes_home_is_every_thing_that_went_and_each_shape_that_was_made() -> None:
    made = demo_made()
    needs = all_needs(made)
    found = returns_of(made, needs, job(), shelves())
    things = Counter[str]()
    for each in needs.things:
        things[each.thing] += each.quantity
    assert {each.thing: each.number for each in found if each.kind in ("vessel", "stand")} == things
    shaped = [each for each in found if each.shape is not None]
    assert {each.part for each in shaped} >= {each.id for each in made.rigs}
    low = next(each for each in shaped if each.part == 1)
    assert low.number == 12
    assert not [each for each in shaped if each.part == FOR_ALL]


def test_what_is_hired_goes_back_and_only_the_rest_comes_home() -> None:
    made = one_bowl()
    name = made.pieces[0].piece.vessel.name
    bowls = Hire(name=name, number=2, lender="x", comes="2027-05-14", goes_back="2027-05-17")
    around = replace(job(), hires=(replace(bowls, thing="vessel:low-bowl-20"),))
    home = {each.said: each.number for each in returns_of(made, all_needs(made), around, shelves())}
    assert home[name] == 1
    every = replace(around, hires=(replace(around.hires[0], number=3),))
    assert name not in {each.said for each in returns_of(made, all_needs(made), every, shelves())}
    stand = ThingNeed(piece_id=1, piece="bowl", kind="stand", thing="vessel:low-bowl-20", name=name, quantity=2)
    needs = all_needs(made)
    both = returns_of(made, replace(needs, things=(*needs.things, stand)), around, shelves())
    assert [(each.kind, each.number) for each in both if each.said == name] == [("vessel", 1), ("stand", 2)]


def test_why_a_finished_armature_is_not_for_a_part_is_said_with_what_would_be() -> None:
    needs, nets = all_needs(one_bowl()), nettings()
    again = finished_as(needs)
    assert not_for(again, 1, needs, nets) is None
    assert not_for(again, 1, needs_of(one_bowl(), reused=(Reused(part=1, armature="again", number=3),)), nets) is None
    sheet = needs.sheets[0]
    twice = replace(needs, sheets=(sheet, replace(sheet, name="lower piece")))
    said = [
        tuple(render(each, "metric") for each in why or ())
        for why in (
            not_for(again, 2, needs, nets),
            not_for(again, 1, twice, nets),
            not_for(replace(again, condition="cracked"), 1, needs, nets),
        )
    ]
    size = f"{100 * sheet.sheet.width_m:.1f} cm × {100 * sheet.sheet.length_m:.1f} cm"
    assert said == [
        ("No sheet of netting is cut for it.", "A part that is made of one sheet."),
        ("It is made of 2 sheets, and a finished armature is one.", "A part that is made of one sheet."),
        (
            f"{again.name} is of another make, netting or size, or broken.",
            f"Its sheet is {sheet.name} of {nets[sheet.netting].name}, {size}.",
        ),
    ]


def test_a_vessel_and_a_stand_of_one_name_are_two_lines_with_keys_of_their_own() -> None:
    made = one_bowl()
    needs = all_needs(made)
    name = next(each.name for each in needs.things if each.kind == "vessel")
    stand = ThingNeed(piece_id=1, piece="bowl", kind="stand", thing=f"~{name}", name=name, quantity=2)
    both = listed(made, replace(needs, things=(*needs.things, stand)))
    assert [(each.key, each.needed.value) for each in both.buys if each.name == name] == [
        ("vessel:low-bowl-20", 3),
        (f"stand-~{name}", 2),
    ]
