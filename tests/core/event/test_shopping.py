"""Shopping and packing: what is needed with spares, less what is here, by who sells it; and what goes along."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.buying.shopping import Buy, Shopping, shopping
from jolly_trellis.core.event.buying.shopping import _supply as bought_of
from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.job import Made, RigWork
from jolly_trellis.core.event.needs.needed import Needs
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.rig import Hardware, Mount
from jolly_trellis.core.units import render
from tests.core.rigging.test_mounts import FRAME, railed
from tests.events import all_needs, demo_made, job, kept, larder, one_bowl, shelves, supplies
from tests.ordinary import conditions, varieties


def of(made: Made, stores: Larder | None = None, counted: Shelves | None = None) -> Shopping:
    needs, stocked = all_needs(made), stores or larder()
    return shopping(
        job(),
        made,
        needs,
        cut_plan(needs, stocked, seconds=1.0),
        stocked,
        counted or shelves(),
        varieties(),
        water_rounds(job(), made, conditions()),
    )


def line(found: Shopping, key: str) -> Buy:
    return next(each for each in found.buys if each.key == key)


def test_tubes_are_bought_with_their_spare_in_whole_packs() -> None:
    found = line(of(demo_made()), "stem-tube")
    tubes = sum(row.count for rig in demo_made().rigs for row in rig.rig.recipe if row.water == "tube")
    assert found.needed.value == pytest.approx(-(-tubes * 1.1 // 1))
    assert found.packs == -(-found.needed.value // 100)


def test_what_is_here_is_not_bought_again() -> None:
    stocked = replace(larder(), packs={"stem-tube": 5, "ribbon": 1})
    found = of(demo_made(), stocked)
    assert line(found, "stem-tube").packs == 0
    assert line(found, "ribbon").packs == 0
    assert found.cost < of(demo_made()).cost


def test_frogs_and_vessels_that_are_counted_are_taken_off_and_the_rest_is_named() -> None:
    bowls = {"vessel:low-bowl-20": kept("low bowl, 20 cm", 14.0, 12)}
    found = of(demo_made(), counted=replace(shelves(), vessels=bowls))
    assert line(found, "pin-100").packs == 0
    assert line(found, "cup-80").packs == 9
    assert line(found, "vessel:low-bowl-20").packs == 0
    trough = line(found, "vessel:trough-60")
    assert (trough.packs, trough.price) == (1, None)
    assert "long trough, 60 cm" in found.unpriced


def test_a_supply_that_the_stores_do_not_have_is_still_on_the_list() -> None:
    bare = replace(larder(), supplies={key: each for key, each in supplies().items() if key != "stem-tube"})
    found = line(of(demo_made(), bare), "stem-tube")
    assert found.price is None
    assert "add it to the stores" in render(found.notes[0], "metric")


def test_the_cost_is_the_sum_of_what_has_a_price() -> None:
    found = of(demo_made())
    lines = [each.price for each in found.buys if each.packs and each.price is not None]
    stems = [each.cost for each in found.stems if each.cost is not None]
    assert found.cost == sum([*lines, *stems])


def test_gloves_for_thorns_and_sap_ladders_and_proof_loads_for_what_hangs() -> None:
    hung, plain = of(demo_made()), of(one_bowl())
    names = {each.name: each for each in hung.packs}
    assert "garden rose" in names["pair of gloves"].why.text
    assert "ladder, footed by a second person" in names
    assert "bags of water or sand to prove with" in names
    assert not any("ladder" in each.name for each in plain.packs)
    assert any(each.group == "emergency kit" for each in plain.packs)


def hung_on_a_frame() -> Made:
    """A rail on a frame with weights on its feet, a shackle and a sling on one line, a shackle on another."""
    rig = railed(replace(FRAME, ballast_kg=12.0, tied_to="two eyes"))
    shackle = Hardware(kind="shackle", wll_n=3000.0)
    first, second, *others = rig.lines
    first = replace(first, hardware=(shackle, Hardware(kind="sling", wll_n=9000.0)))
    rig = replace(rig, lines=(first, replace(second, hardware=(shackle,)), *others), extra_kg=1.5)
    rig = replace(rig, armature=replace(rig.armature, core_kg=2.0))
    return Made(rigs=(RigWork(id=1, rig=rig, report=assess(rig, conditions())),))


def test_marked_hardware_and_the_core_are_bought_once_and_used_often() -> None:
    """By hand: 2 kg of core are bedded on 2 · 0.3 · 9.81 / 10 000 m², a ring of 8 mm as long as that, at 75 g/m."""
    made = hung_on_a_frame()
    needs = {each.supply: each for each in needs_of(made).supplies}
    assert [(needs[each].amount, needs[each].uses) for each in ("shackle", "sling", "stone")] == [
        (2, 100),
        (1, 100),
        (2.0, 100),
    ]
    assert needs["putty"].amount == pytest.approx(2 * 0.3 * 9.80665 / 10_000 / 0.008 * 0.075)
    assert needs["putty"].uses == 1
    found = of(made)
    assert (line(found, "shackle").packs, line(found, "shackle").group) == (2, "rigging")
    assert "carabiner" not in {each.key for each in found.buys}


def test_frames_weights_cores_and_hardware_go_along() -> None:
    packs = {each.key: each for each in of(hung_on_a_frame()).packs}
    frame, feet = packs["mount-1"], packs["feet-1"]
    assert (frame.group, frame.name, frame.number, frame.home) == ("carried apart", "frame", 1, True)
    assert render(frame.why, "metric") == "of railed, 220 cm × 200 cm, 12 kg; with guys to two eyes"
    assert (feet.name, feet.number) == ("weight for a foot", 4)
    assert render(feet.why, "metric") == "12 kg each, on the feet of the frame of railed"
    assert render(packs["core-1"].why, "metric") == "2 kg, in the foot of railed"
    assert render(packs["extra-1"].why, "metric") == "1.5 kg, on railed"
    assert (packs["shackle"].number, packs["sling"].number) == (2, 1)
    wall = hung_on_a_frame().rigs[0]
    wall = replace(wall, rig=replace(wall.rig, mount=Mount(kind="wall"), extra_kg=0.0))
    there = {each.key for each in of(Made(rigs=(wall,))).packs}
    assert not {"mount-1", "feet-1", "extra-1"} & there
    bare = replace(wall, rig=replace(wall.rig, mount=replace(FRAME, mass_kg=None, ballast_kg=0.0)))
    packs = {each.key: each for each in of(Made(rigs=(bare,))).packs}
    assert render(packs["mount-1"].why, "metric") == "of railed, 220 cm × 200 cm; with guys to the porch post"
    assert "feet-1" not in packs


def test_water_is_packed_in_cans_that_hold_all_of_it() -> None:
    found = of(demo_made())
    cans = next(each for each in found.packs if each.key == "water-can")
    assert (cans.number - 1) * 10 < found.water_l <= cans.number * 10


def test_an_empty_event_buys_nothing() -> None:
    found = of(Made())
    assert found.stems == ()
    assert found.buys == ()
    assert found.cost == 0


def test_a_bond_a_carrier_and_every_line_of_a_rig_are_needed() -> None:
    """By hand: a run on five lines with a bond needs six lengths, each with what both its ends take."""
    needs: Needs = needs_of(replace(demo_made(), pieces=()))
    run = next(each for each in demo_made().rigs if each.rig.name == "Run over the long table")
    assert run.report is not None
    mine = [each for each in needs.lengths if each.piece_id == run.id]
    assert len(mine) == len(run.rig.lines) + 1
    assert mine[0].length_m == pytest.approx(run.report.lines[0].cut_length_m)
    assert mine[-1].name == "second bond"


def test_a_piece_that_could_not_be_worked_out_is_named_on_the_list() -> None:
    work = one_bowl(1).pieces[0]
    found = of(Made(pieces=(replace(work, report=None),)))
    assert [render(each, "metric").startswith(work.piece.name) for each in found.left_out] == [True]
    assert {each.variety for each in found.stems} == {line.variety for line in work.piece.recipe}
    assert of(one_bowl(1)).left_out == ()


def test_a_variety_that_the_stores_do_not_know_is_named_with_its_number() -> None:
    work = one_bowl(2).pieces[0]
    strange = (*work.piece.recipe, replace(work.piece.recipe[0], variety="moonbell", count=4))
    piece = replace(work.piece, recipe=strange, quantity=2)
    found = of(Made(pieces=(replace(work, piece=piece),)))
    assert [render(each, "metric") for each in found.left_out] == [
        "8 × moonbell: the stores do not know this variety. Add it to the stores."
    ]


def test_sticks_are_bought_by_what_is_cut_from_with_their_spare() -> None:
    """10 canes cut, 20 % spare, 5 in a bundle: 12 canes are 3 bundles, however short the pieces cut from them."""
    cane = replace(next(each for each in supplies().values() if each.measured_by == "stick"), pack=5, spare=0.2)
    assert bought_of(cane, 0.5, 10, 0, replace(larder(), packs={}, supply_remnants=())).packs == 3
    assert bought_of(cane, 0.5, 8, 0, replace(larder(), packs={}, supply_remnants=())).packs == 2


def test_a_pack_is_said_in_the_readers_own_units() -> None:
    found = of(demo_made())
    told = {each.key: (render(each.pack, "metric"), render(each.pack, "inch")) for each in found.buys}
    assert told["coated-25-09"] == ("roll of 10 m, 50 cm wide", "roll of 32 ft 10 in, 19 5/8 in wide")
    assert told["stem-tube"] == ("pack of 100", "pack of 100")
    assert told["putty"] == ("pack of 500 g", "pack of 1.1 lb")
    spools = {each for each in told.values() if each[0].startswith("spool")}
    assert spools
    assert all(" m" in metric and " ft" in inch for metric, inch in spools)
