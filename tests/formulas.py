"""Formulas by themselves, whose figures ordinary work does not come by."""

import math
from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from functools import partial
from typing import get_args

import numpy as np

from jolly_trellis.core.books import bodies
from jolly_trellis.core.books.figures import open_book
from jolly_trellis.core.building import footing, stacks
from jolly_trellis.core.building.build import build
from jolly_trellis.core.building.spills import chain_strength_n
from jolly_trellis.core.checks import hold_bound, stand_ledge, stand_wind, travel
from jolly_trellis.core.checks.making_phases import phases_of
from jolly_trellis.core.checks.matching import match
from jolly_trellis.core.event.buying.shared_needs import cans_for
from jolly_trellis.core.event.cutting.roll import cut_plan, still_to_cut
from jolly_trellis.core.event.cutting.roll_problems import length_problems, netting_problems
from jolly_trellis.core.event.job import Hire, Made, PieceWork, Reused
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.wear import STAND_USES, VESSEL_USES, stem_uses
from jolly_trellis.core.event.recipes.budget import split_budget
from jolly_trellis.core.event.recipes.lasting_care import lasting_care
from jolly_trellis.core.event.recipes.recipes import lasting
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import with_seats
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.netting import Finish
from jolly_trellis.core.materials.stems import clump_diameter_m, shoot_of
from jolly_trellis.core.mechanics.fit import netting_uses, point_strength, seat_moment_n_m
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.placement.water_table import stone_most_kg
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.passage import Cooled, Handover, Passage
from jolly_trellis.core.plan.piece import Counterweight, Mechanic, MechanicKind, Piece, Support
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.plan.setting import People, Setting, TopUp, Transport
from jolly_trellis.core.plan.wish import HeadMark, Wish
from jolly_trellis.core.rigging import coverage, lines, states
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.clearances import clearances
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.rig import Hazard, Rig
from jolly_trellis.exchange import rig_card
from tests import as_made, events, ordinary, rigs


def by_themselves() -> dict[str, Callable[[], object]]:
    """Formulas whose figures ordinary work does not come by."""
    found: dict[str, Callable[[], object]] = {}
    for key, constant in footing.FOOT_FRICTION.items():
        found[f"friction {key}"] = lambda constant=constant: constant.value  # type: ignore[misc]
    for force in range(2, 8):
        found[f"Beaufort {force}"] = partial(stand_wind.design_speed_m_s, force)
    specs = (
        *(LineSpec(kind="steel rope", size_m=size) for size in lines.STEEL_BREAKING),
        *(LineSpec(kind="polyester cord", size_m=size, fitting="splice") for size in lines.CORD_BREAKING),
        *(LineSpec(kind="cable tie", size_m=size) for size in lines.TIE_STRENGTH),
        LineSpec(kind="strap", size_m=0.02, stated_n=100.0),
        LineSpec(kind="steel rope", size_m=0.002, stainless=True),
        LineSpec(kind="monofilament", stated_n=90.0, wet=True),
        LineSpec(kind="monofilament", stated_n=90.0, over_edge=True),
    )
    for spec in specs:
        found[f"line {spec}"] = lambda spec=spec: (  # type: ignore[misc]
            lines.breaking_n(spec) * lines.efficiency(spec),
            lines.stiffness_n(spec),
            lines.mass_kg_m(spec),
            [lines.pieces_of(spec, reach) for reach in (0.31, 0.4)],
        )
    for name in ("hydrangea", "gypsophila", "rose", "carnation", "spray-rose"):
        found[f"{name} covers"] = partial(coverage.stem_covers_m2, ordinary.varieties()[name])
    short = replace(ordinary.varieties()["ruscus"], key="galax", head_height_m=0.1)
    found["what is passed"] = _passed
    found["cooked"] = _cooked
    found["a leaf covers"] = partial(coverage.stem_covers_m2, short)
    found["seen of a runner"] = partial(coverage.needed_m2, 1.0, "runner")
    body = rigs.panel()
    for kind in ("detector", "exit sign", "flame in glass", "open flame", "sprinkler"):
        hazard = Hazard(kind=kind, x_m=0.0, y_m=0.0, z_m=2.2)
        near = replace(body, hazards=(hazard,), dried=kind == "open flame")
        found[f"near a {kind}"] = partial(_near, near)
    point = replace(body.points[0], kind="adhesive hook")
    found["hook that sticks"] = partial(states.rating_of, point)
    found["ridge"] = partial(stacks.offset_of, Support(name="s", height_m=0.4, top_width_m=0.2, ridge=True))
    found["stand"] = partial(bodies.support_centre_m, Support(name="s", height_m=0.4, top_width_m=0.2))
    found["lasting"] = partial(
        lasting,
        stems=40,
        fresh_stems_cost=Decimal(60),
        other_cost=Decimal(10),
        labour=Decimal(30),
    )
    for rough in (False, True):
        found[f"rough {rough}"] = partial(
            seat_moment_n_m, mouth_girth_m=0.6, mouth_size_m=0.2, squeeze=0.06, wire_m=0.001, rough=rough
        )
    found["thick wire"] = lambda: point_strength(0.001).value
    found["clump"] = partial(clump_diameter_m, 0.004, 5)
    found["heads"] = _heads
    found |= as_made.works(_around)
    fan = replace(ordinary.piece(), envelope=replace(ordinary.piece().envelope, form="fan"), dealt=None)
    found["fan"] = lambda: evaluate(fan, _around(), with_fixes=False)
    found["loose"] = _on_the_road
    found["runner"] = _runner
    found |= {name: partial(_evaluated, each) for name, each in _pieces().items()}
    found["stones"] = partial(stone_most_kg, ordinary.piece().vessel)
    found["thin wire"] = lambda: (
        point_strength(0.0007).value,
        chain_strength_n(replace(ordinary.nettings()["coated-25-09"], wire_m=0.0007), 0.4),
        seat_moment_n_m(mouth_girth_m=0.6, mouth_size_m=0.2, squeeze=0.06, wire_m=0.0007, rough=False),
    )
    found["behind"] = _behind
    found["cooled"] = _cooled
    found["anchors"] = lambda: phases_of(build(_on("three_layer_roll"), _around()))
    found["feather"] = _feather
    found["lengths"] = _lengths
    found["mouth"] = partial(_changed, 1.105, 1.0)
    found["envelope"] = partial(_changed, 1.0, 1.26)
    found["rolled"] = _rolled
    found["card"] = _card
    found["uses"] = lambda: (
        *(netting_uses(each) for each in get_args(Finish)),
        VESSEL_USES.value,
        STAND_USES.value,
        lines.STRAP_USES.value,
        *(stem_uses(ordinary.varieties()[key]) for key in ("wheat", "artificial-rose")),
    )
    found["side shoot"] = lambda: shoot_of(ordinary.varieties()["rose"])
    found["hired"] = _hired
    found["kept"] = _kept_for_months
    found["budget"] = _budget
    found["picture"] = _picture
    found["cut a little longer"] = _cut_longer
    found["used again"] = _used_again
    return found


def _hired() -> object:
    hire = Hire(name="urn", lender="x", comes="2027-05-14", goes_back="2027-05-17")
    book = time_book(replace(events.job(), hires=(hire,)), events.one_bowl(), ordinary.varieties())
    return [each.minutes for each in book.tasks]


def _kept_for_months() -> object:
    """A panel of what keeps, whose ties are more, and a bowl that settles and is looked over for a year."""
    recipe = ordinary.recipe(wheat=(9, "line"))
    bowl = replace(events.one_bowl().pieces[0], piece=replace(ordinary.piece(), recipe=recipe))
    around = replace(events.job(), ends_at=events.at("2028-05-15T23:30"), clear_by=None)
    panel = take_off(replace(rigs.panel(), recipe=recipe), _around())
    return lasting_care(around, Made(pieces=(bowl,), rigs=()), ordinary.varieties()), panel


def _picture() -> object:
    """A picture a little higher than the plan, with a head of nearly its colour."""
    known, plan = ordinary.varieties(), replace(ordinary.piece(), recipe=ordinary.recipe(rose=(3, "focal")))
    found = []
    for more in (1.02, 1.11, 1.5):
        high = plan.envelope.height_m * more
        heads = tuple(
            HeadMark(x=0.5, y=0.5, colour=colour) for colour in ("#c8566b", "#c8667b", "#d890a0", "#e0b0b8", "#3050b8")
        )
        wish = Wish(picture="k", width_px=100, height_px=100, apart_m=high / 0.9 * 0.9, heads=heads)
        found.append(match(plan, wish, known, {"red": "#c8566b"}))
    return found


def _budget() -> object:
    recipe = ordinary.recipe(rose=(5, "focal"), ruscus=(5, "base"))
    return [
        split_budget(recipe, ordinary.varieties(), budget=Decimal(budget), premium=0.5, surface_m2=0.05)
        for budget in (3, 90)
    ]


def _cut_longer() -> object:
    """Lengths that were cut from nothing over to a tenth of a metre over what is wanted: how many still serve."""
    whole = needs_of(replace(events.demo_made(), pieces=()))
    needs = replace(whole, sheets=(), lengths=whole.lengths[:1])
    plan = next(iter(length_problems(needs, events.larder()))).shell
    served = []
    for over in range(0, 100, 2):
        items = tuple(replace(item, length_m=item.length_m + over / 1000) for item in plan.items)
        served.append(len(still_to_cut(needs, [replace(plan, items=items)], events.larder()).needs.lengths))
    return served


def _used_again() -> object:
    """The tasks of bowls of which two come from finished armatures."""
    around = replace(events.job(), reused=(Reused(part=1, armature="again", number=30),))
    made = events.one_bowl(40)
    return [each.minutes for each in time_book(around, made, ordinary.varieties()).tasks if each.stage == "mechanics"]


def _evaluated(piece: Piece) -> object:
    return evaluate(piece, _around(), with_fixes=False)


def _on(kind: MechanicKind) -> Piece:
    return replace(ordinary.piece(), mechanic=replace(ordinary.piece().mechanic, kind=kind))


def _pieces() -> dict[str, Piece]:
    """Pieces near a threshold that ordinary work keeps clear of."""
    plain = ordinary.piece()
    tall = replace(plain, envelope=replace(plain.envelope, height_m=0.5), setting=Setting(people=People()))
    slim = Support(name="rod", height_m=0.62, top_width_m=0.13, column_width_m=0.085, foot_width_m=0.2, mass_kg=2.0)
    leaned = StemTube(tilt_rad=math.radians(48), cap_seals=False)
    few = ordinary.recipe(ruscus=(12, "base"))
    soft = tuple(replace(each, variety="sweet-pea") for each in few)
    frog = Mechanic(kind="pin_frog", frog="pin-75")
    shallow = ordinary.vessels()["shallow-dish-28"]
    return {
        "four layers": replace(plain, mechanic=replace(plain.mechanic, layers=4, layer_gap_m=0.02)),
        "three layers": replace(plain, mechanic=replace(plain.mechanic, layers=3, layer_gap_m=0.025)),
        "between guests": tall,
        "on a rod": replace(tall, support=slim, envelope=replace(tall.envelope, height_m=0.95), recipe=few[:1]),
        "taped": replace(plain, mechanic=replace(plain.mechanic, tape_strips=2)),
        "stuck frog": replace(
            plain, vessel=shallow, mechanic=replace(frog, putty=True), recipe=few, water_level_m=0.03
        ),
        "frog work, tall": replace(
            plain,
            vessel=shallow,
            mechanic=frog,
            recipe=few,
            water_level_m=0.03,
            envelope=replace(plain.envelope, height_m=shallow.rim_m + 0.33),
        ),
        "a tube leaned": replace(
            plain, recipe=(replace(plain.recipe[0], water="tube", tube=leaned), *plain.recipe[1:])
        ),
        "soft stems far out": replace(
            plain, recipe=soft, envelope=replace(plain.envelope, width_m=1.2, height_m=0.45)
        ),
        "poured to the brim": replace(plain, top_ups=(TopUp(after_h=3.0, volume_l=3.0),)),
    }


def _behind() -> object:
    """What is offered on a ledge with a wall: greens behind, and where they go."""
    made = build(ordinary.on_ledge(), _around())
    return [each.piece.hand_placed for each in stand_ledge.candidates(made, least_kg=1.0)]


def _cooled() -> object:
    """A posy in a little water that waits three days in the cooler."""
    posy = ordinary.bouquet("hand_spiral")
    riding = Transport(box_width_m=0.3, box_depth_m=0.3, box_wall_m=0.2)
    airs = Air(temperature_c=18.0, relative_humidity=0.6)
    filled = _around().filled_at
    around = replace(_around(), workshop=airs, van=airs, finished_at=filled, loaded_at=filled)
    return build(
        replace(posy, passage=Passage(cooled=Cooled(days=3.0)), transport=riding, water_level_m=0.1), around
    ).waits


def _feather() -> object:
    """A panel so light that its lines hardly pull."""
    small = replace(rigs.panel().armature, length_m=0.12, width_m=0.12)
    return assess(rigs.panel(armature=small, recipe=ordinary.recipe(gypsophila=(1, "filler"))), _around())


def _lengths() -> object:
    return tuple(length_problems(needs_of(events.demo_made()), events.larder()))


def _around() -> Conditions:
    return replace(ordinary.conditions(), figures=open_book())


def _near(rig: Rig) -> object:
    return clearances(rig, np.array([[0.0, 0.0, 2.5]]), 0.2, 2.4)


def _heads() -> object:
    """A bouquet's fill with all of its heads of one form, of each."""
    made = build(ordinary.bouquet(), _around())
    stems, found = made.placement.stems, []
    for form in hold_bound.SOLID:
        of_form = tuple((line, replace(variety, form=form), *rows) for line, variety, *rows in stems.lines)
        placement = replace(made.placement, stems=replace(stems, lines=of_form))  # type: ignore[arg-type]
        found.append(hold_bound.heads_fill(replace(made, placement=placement)))
    return found


def _on_the_road() -> object:
    """Twig rings nobody tied, which shift."""
    riding = Transport(box_width_m=0.3, box_depth_m=0.3, box_wall_m=0.2)
    rings = replace(ordinary.piece(), mechanic=Mechanic(kind="twig_rings", tape_strips=0), transport=riding)
    return travel.judge(build(rings, _around()))


def _runner() -> object:
    runner = replace(rigs.run().armature, kind="runner")
    return assess(replace(rigs.run(), armature=runner, lines=(), points=(), bond=None, attachments=()), _around())


def _changed(mouth: float, envelope: float) -> object:
    """A piece whose seats were dealt for another mouth or envelope."""
    plain = ordinary.piece()
    with PROGRAM.open():
        seated = with_seats(plain, evaluate(plain, _around(), with_fixes=False))
    profile = tuple(
        replace(each, width_m=each.width_m * mouth, depth_m=each.depth_m * mouth) for each in plain.vessel.profile
    )
    wider = replace(seated.envelope, width_m=seated.envelope.width_m * envelope)
    moved = replace(seated, vessel=replace(plain.vessel, profile=profile), envelope=wider)
    return build(moved, _around()).placement.seat_x_m


def _rolled() -> object:
    """Sheets of two sizes from a short roll: what is lost, kept and bought."""
    bare = replace(events.larder(), rolls={}, netting_remnants=(), packs={})
    few, many = needs_of(events.one_bowl(2)), needs_of(events.one_bowl(60))
    (of_bowl,) = few.sheets
    narrow = replace(of_bowl, quantity=1, may_turn=False, sheet=replace(of_bowl.sheet, width_m=0.17, length_m=0.6))
    few = replace(few, sheets=(narrow,), lengths=needs_of(events.demo_made()).lengths)
    return *netting_problems(many, bare), *length_problems(many, bare), cut_plan(few, bare, seconds=0.3)


def _card() -> object:
    """What a rig card says of filling both faces and of proving."""
    tilted = rigs.on_one_point()
    report = assess(tilted, _around())
    return rig_card.write_rig_card(
        tilted, report, [[] for _ in report.lines], stamp=ordinary.STAMP, paper="A4", system="metric"
    )


def _passed() -> object:
    """Tasks of a bouquet that is cooled and handed over, of a raised bowl that is bonded, weighted, filled last."""
    around = events.job()
    over = Passage(cooled=Cooled(days=1.0), handover=Handover(to="somebody"))
    posy = replace(ordinary.bouquet(), passage=over)
    weight = Counterweight(mass_kg=0.6, away_m=0.14, azimuth_rad=math.pi)
    column = Support(name="column", height_m=0.2, top_width_m=0.16, foot_width_m=0.16, mass_kg=2.0, putty=True)
    bowl = replace(ordinary.piece(), support=column, counterweight=weight, quantity=4)
    last = tuple(replace(line, goes_in="last") for line in bowl.recipe)
    bowl = replace(bowl, recipe=last, envelope=replace(bowl.envelope, height_m=0.6))
    made = Made(
        pieces=tuple(PieceWork(id=nth, piece=each, report=None) for nth, each in enumerate((posy, bowl), 1)), rigs=()
    )
    return time_book(around, made, ordinary.varieties()), [cans_for(litres) for litres in (9.2, 9.0, 27.5)]


def _cooked() -> object:
    """A bowl that rides for half an hour and three minutes through air of 36 °C."""
    filled = _around().filled_at
    if filled is None:
        raise LookupError("there is a time of filling")
    hot = Air(temperature_c=36.0, relative_humidity=0.4)
    loaded = filled - timedelta(hours=0.55)
    around = replace(_around(), workshop=Air(temperature_c=20.0, relative_humidity=0.6), van=hot)
    around = replace(around, finished_at=loaded - timedelta(hours=1), loaded_at=loaded)
    return evaluate(replace(ordinary.piece(), transport=Transport()), around, with_fixes=False)
