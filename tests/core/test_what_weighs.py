"""Whatever is drawn, listed or bought weighs: every mechanic, water, spill, armature and extra."""

from dataclasses import replace

import pytest

from jolly_trellis.catalog import loaders
from jolly_trellis.core.books import bodies
from jolly_trellis.core.books.bodies import Case
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks import balance, lift, lift_hand, travel
from jolly_trellis.core.event.job import Made, PieceWork, RigWork
from jolly_trellis.core.event.needs.needed import Needs
from jolly_trellis.core.event.needs.needs import needs_of, tube_supply
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.piece import Counterweight, Insert, Mechanic, MechanicKind, Piece, Spill, Support
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.rig import Armature, Drop, Rig
from jolly_trellis.core.stems.tubes import held_ml, line_water_kg
from tests import rigs
from tests.ordinary import BOUND, IN_VESSEL, beside, bound, conditions, on_ledge, piece, vessels

FROGS = {"pin": "pin-75", "cage": "cage-80", "loop": "loop-70", "holed": "holed-75", "cup": "cup-80"}
# Where each mechanic that an ordinary bowl does not take has its place.
PLACES: dict[MechanicKind, str] = {"cross_stick_roll": "trough-60", "cup_frog": "cup-8", "three_layer_roll": "dish-28"}


def held_by(kind: MechanicKind) -> Piece:
    """A piece on each kind of mechanic, with everything that may go with it: tape, putty, wet stems."""
    about = ABOUT[kind]
    vessel = vessels().get(PLACES.get(kind, "low-bowl-20"), vessels()["low-bowl-20"])
    frogs = [each for each in loaders.frogs() if each.kind == about.frog]
    floor = min(vessel.profile[0].width_m, vessel.profile[0].depth_m)
    frog = next((each.key for each in sorted(frogs, key=lambda f: f.width_m) if each.width_m + 0.002 <= floor), None)
    choice = Mechanic(
        kind=kind,
        netting="coated-25-09" if about.netting else None,
        frog=frog,
        tape_strips=2 if about.tapes else None,
        putty=True,
    )
    level = 0.6 * vessel.inside_depth_m
    return replace(piece(), vessel=vessel, mechanic=choice, water_level_m=level)


def mass_of(each: Piece, case: Case = "typical") -> float:
    return balance.balance_of(build(each, conditions()), case).mass_kg


def listed(made: Build) -> dict[str, float]:
    return {part.name: part.mass_kg for part in (*made.mechanic.parts, *(each.part for each in made.extras))}


@pytest.mark.parametrize("kind", IN_VESSEL)
def test_every_part_of_every_mechanic_weighs_and_is_in_the_balance(kind: MechanicKind) -> None:
    made = build(held_by(kind), conditions())
    parts = made.mechanic.parts
    assert parts
    known = {each.name: each.mass_kg for each in parts}
    for part in parts:
        assert part.mass_kg > 0 or known[part.made_of] > 0, part.name
    assert made.mechanic.mass_kg == pytest.approx(sum(each.mass_kg for each in parts))
    assert sum(each.sheet.mass_kg for each in made.mechanic.flat) <= made.mechanic.mass_kg
    assert made.mechanic.putty_kg <= made.mechanic.mass_kg
    total = balance.balance_of(made, "typical").mass_kg
    soaked = made.mechanic.absorbed_l if made.mechanic.flat else 0.0
    water = made.water.volume_at_l(made.piece.water_level_m) + made.mechanic.own_water_l * bool(made.mechanic.own_cups)
    vessel = made.piece.vessel.mass_kg or 0.0
    rows = float(made.rows.mass_kg.sum())
    assert total == pytest.approx(vessel + water + soaked + rows + made.mechanic.mass_kg)


@pytest.mark.parametrize("kind", BOUND)
def test_every_part_of_a_bouquet_is_in_the_hand(kind: MechanicKind) -> None:
    full = replace(bound(kind), collar=True, bow_loops=6, streamers=4)
    made = build(full, conditions())
    taped = "stem tape, in all" if made.mechanic.worn else "tape over the binding"
    assert {taped, "ribbon for the bow", "streamer", "leaf of the collar"} <= set(listed(made))
    assert all(kg > 0 for kg in listed(made).values())
    in_hand = lift_hand.carried(made, "typical")[0]
    assert in_hand == pytest.approx(float(made.rows.mass_kg.sum()) + sum(listed(made).values()))


COLUMN = Support(name="column", height_m=0.3, top_width_m=0.13, opening_m=0.1, column_width_m=0.12, foot_width_m=0.14,
                 mass_kg=1.0)  # fmt: skip
WITH: dict[str, Piece] = {
    "leaf lining strip": replace(piece(), lining=True),
    "netting round the outside": replace(piece(), wrap_height_m=0.09),
    "stone": replace(piece(), ballast_kg=0.4),
    "riser block": replace(
        piece(),
        vessel=vessels()["insert-bowl-20"],
        insert=Insert(outer=vessels()["urn-24"]),
        water_level_m=0.05,
        envelope=replace(piece().envelope, height_m=0.7),
    ),
    "putty ring for the joint": replace(
        piece(), support=replace(COLUMN, putty=True), envelope=replace(piece().envelope, height_m=0.7)
    ),
    "stem tube": replace(piece(), recipe=tuple(replace(line, water="tube") for line in piece().recipe)),
}


@pytest.mark.parametrize("name", WITH)
def test_every_extra_that_is_listed_weighs(name: str) -> None:
    made = build(WITH[name], conditions())
    extra = next(each for each in made.extras if each.part.name == name)
    assert extra.part.mass_kg > 0
    without = replace(made, extras=tuple(each for each in made.extras if each is not extra))
    if extra.height_m is not None:
        for case in ("typical", "heavy", "low"):
            more = balance.balance_of(made, case).mass_kg - balance.balance_of(without, case).mass_kg
            assert more == pytest.approx(extra.part.mass_kg, rel=0.11)


CHANGES: dict[str, Piece] = {
    "tubes": replace(piece(), recipe=tuple(replace(line, water="tube") for line in piece().recipe)),
    "wraps": replace(piece(), recipe=tuple(replace(line, water="wrap") for line in piece().recipe)),
    "support water": replace(
        piece(), support=replace(COLUMN, water_l=2.0), envelope=replace(piece().envelope, height_m=0.7)
    ),
    "a weight tied on": replace(piece(), counterweight=Counterweight(mass_kg=1.0, away_m=0.2)),
    "a second vessel": replace(piece(), companions=(beside(tied=True),)),
    "a third wire": replace(piece(), mechanic=replace(piece().mechanic, layers=3)),
    "putty": replace(piece(), mechanic=replace(piece().mechanic, putty=True)),
}


@pytest.mark.parametrize("name", CHANGES)
def test_whatever_is_added_makes_it_heavier(name: str) -> None:
    for case in ("typical", "heavy"):
        assert mass_of(CHANGES[name], case) > mass_of(piece(), case)


def test_twenty_tubes_weigh_what_they_hold_and_are_made_of() -> None:
    """By hand: 14 × 90 mm to 5 mm under the cap is π/4·1.4²·8.5 = 13.08 ml; with 5 g of tube, twenty are 0.36 kg."""
    line = RecipeLine(variety="rose", count=20, role="focal", water="tube")
    assert held_ml(StemTube()) == pytest.approx(13.08, abs=0.01)
    assert line_water_kg(line) == pytest.approx(0.362, abs=0.001)
    larger = replace(line, tube=StemTube(inner_diameter_m=0.02, length_m=0.12))
    assert line_water_kg(larger) == pytest.approx(20 * (0.005 * 20 * 120 / 14 / 90 + 0.0361), rel=0.001)
    half = replace(line, tube=StemTube(fill_share=0.5))
    assert line_water_kg(half) < line_water_kg(line) == pytest.approx(line_water_kg(half, heavy=True))


def roses(number: int, water: str) -> tuple[RecipeLine, ...]:
    return (RecipeLine(variety="rose", count=number, role="focal", water=water),)  # type: ignore[arg-type]


def test_tubes_are_in_every_sum_of_a_bowl() -> None:
    """Twenty of them, 0.36 kg, at the ends of their stems: balance, ledge, hand, making order and what is lifted."""
    wet, dry = (replace(piece(), recipe=roses(20, water)) for water in ("tube", "none"))
    for case in ("typical", "heavy"):
        assert mass_of(wet, case) - mass_of(dry, case) == pytest.approx(0.362, abs=0.001)
    riding = Transport(box_width_m=0.3, box_depth_m=0.3, box_wall_m=0.2)
    kg = []
    for each in (wet, dry):
        made = build(replace(each, transport=riding), conditions())
        kg.append((lift.loads_of(made)[0].mass_kg, float(bodies.by_stem(made, "typical")[0].sum())))
        journey = travel.journey_of(made)
        assert journey is not None
        assert journey.heavy_kg == pytest.approx(lift.loads_of(made)[0].mass_kg)
    assert kg[0][0] - kg[1][0] == pytest.approx(0.362, abs=0.001)
    assert kg[0][1] - kg[1][1] == pytest.approx(0.362, abs=0.001)


def test_a_spill_of_twenty_roses_weighs_its_tubes() -> None:
    """By hand: dry, 20 roses of 28 cm and the netting; 0.36 kg more in tubes, heavy and typical."""

    def hanging(water: str) -> tuple[float, float]:
        spill = Spill(drop_m=0.5, netting="coated-25-09", recipe=roses(20, water), cut_length_m=0.25)
        made = build(replace(on_ledge(), spill=spill), conditions())
        assert made.spill is not None
        return made.spill.hanging_kg, made.spill.hanging_heavy_kg

    (dry, dry_heavy), (wet, wet_heavy) = hanging("none"), hanging("tube")
    assert wet - dry == pytest.approx(0.362, abs=0.001)
    assert wet_heavy - dry_heavy == pytest.approx(0.362, abs=0.001)


def in_cups(made: Build, case: Case) -> float:
    return sum(
        each.mass_kg for each in bodies.own(made, case, bodies.on_show(made, case)) if each.thing == "water in cups"
    )


def test_the_water_in_raised_cups_is_in_the_balance_until_it_is_drunk() -> None:
    raised = held_by("raised_cups")
    made = build(raised, conditions())
    assert made.mechanic.own_water_l > 0.3
    for case in ("typical", "heavy"):
        assert in_cups(made, case) == made.mechanic.own_water_l
    assert 0 <= in_cups(made, "low") < made.mechanic.own_water_l
    dry = replace(made, conditions=replace(conditions(), topped_up_by=None))
    assert in_cups(dry, "low") == 0


def needs(each: Piece | Rig) -> Needs:
    if isinstance(each, Rig):
        return needs_of(Made(rigs=(RigWork(id=1, rig=each, report=assess(each, conditions())),)))
    report = evaluate(each, conditions(), with_fixes=False)
    return needs_of(Made(pieces=(PieceWork(id=1, piece=each, report=report),)))


def bought(found: Needs) -> set[str]:
    return {each.supply for each in found.supplies} | {each.supply for each in found.lengths}


@pytest.mark.parametrize("kind", IN_VESSEL)
def test_every_supply_that_is_bought_for_a_mechanic_is_a_part_that_weighs(kind: MechanicKind) -> None:
    found = needs(held_by(kind))
    named = {each.name for each in found.lengths} | {each.name for each in found.sheets}
    weighing = build(held_by(kind), conditions()).mechanic
    sheets = {each.name for each in weighing.flat}
    assert named <= {each.name for each in weighing.parts if each.mass_kg > 0} | sheets
    if weighing.putty_kg:
        assert "putty" in bought(found)


def test_what_a_second_vessel_needs_is_bought_too() -> None:
    both = replace(piece(), companions=(replace(beside(tied=True), ballast_kg=0.3),))
    stone = next(each for each in needs(both).supplies if each.supply == "stone")
    assert stone.amount == pytest.approx(0.3)


def test_tubes_are_bought_by_their_size_for_pieces_spills_and_hung_work_alike() -> None:
    large = StemTube(inner_diameter_m=0.02, length_m=0.12, stem_in_m=0.09)
    small, big = roses(4, "tube")[0], replace(roses(6, "tube")[0], tube=large)
    spill = Spill(drop_m=0.5, netting="coated-25-09", recipe=(replace(big, count=3),))
    amounts = {n.supply: n.amount for n in needs(replace(on_ledge(), recipe=(small, big), spill=spill)).supplies}
    assert (amounts["stem-tube"], amounts["stem-tube-20"]) == (4, 9)
    hung = {n.supply: n.amount for n in needs(replace(rigs.run(), recipe=(small, big))).supplies}
    assert (hung["stem-tube"], hung["stem-tube-20"]) == (4, 6)
    assert tube_supply(StemTube()) == "stem-tube"
    assert tube_supply(StemTube(inner_diameter_m=0.010, length_m=0.07, stem_in_m=0.05)) == "stem-tube-10"
    assert tube_supply(StemTube(inner_diameter_m=0.010)) == "stem-tube"
    known = {each.key for each in loaders.supplies()}
    assert {"stem-tube", "stem-tube-20"} <= known


ARMATURES: dict[str, Rig] = {
    "snake": rigs.run(),
    "corded": replace(
        rigs.run(),
        armature=replace(rigs.run().armature, carrier=LineSpec(kind="polyester cord", size_m=0.003)),
    ),
    "cored": replace(rigs.run(), armature=replace(rigs.run().armature, kind="sleeve", core_kg=2.0)),
    "panel": rigs.panel(),
    "dropped": rigs.panel(
        armature=replace(rigs.panel().armature, drop=Drop(shortest_m=0.2, longest_m=0.5)),
    ),
    "ring": rigs.panel(armature=Armature(kind="ring", length_m=1.0, diameter_m=1.0, netting="galvanized-50-10")),
    "frame": replace(rigs.run(), armature=replace(rigs.run().armature, kind="wrapped frame")),
}


@pytest.mark.parametrize("name", ARMATURES)
def test_every_part_of_an_armature_hangs_on_its_lines(name: str) -> None:
    rig = ARMATURES[name]
    weighed = take_off(rig, conditions())
    by_name = {each.name: each.typical_kg for each in weighed.parts}
    assert all(kg > 0 for kg in by_name.values())
    assert {each.name for each in weighed.sized.parts} <= set(by_name)
    assert ("cord through it" in by_name) == (rig.armature.carrier is not None)
    assert by_name.get("core", 0.0) == rig.armature.core_kg
    assert by_name["lines, with their ends"] > 0
    assert assess(rig, conditions()).rest.load_n == pytest.approx(weighed.heavy_kg * 9.80665 * 1.1 * 1.25)


def test_a_cable_tie_and_a_rope_weigh_what_the_trade_says() -> None:
    """Worked from the formulas: 3 mm rope 36 g/m, 2 mm cord 3 g/m; lines of 5 m drawn with their ends."""
    rig = rigs.run()
    by_name = {each.name: each.typical_kg for each in take_off(rig, conditions()).parts}
    rope = 0.004 * 1.5**2
    five = 5 * (1.0 + 2 * 0.10 + 0.03) * rope
    bonded = (min(((0.4 - x) ** 2 + 0.2**2 + 1.4**2) ** 0.5 for x in (-3, -1.5, 0, 1.5, 3)) + 0.05 + 0.24) * rope
    assert by_name["lines, with their ends"] == pytest.approx(five + bonded)
