"""Work of which something is not known, so that between them every fact there is is missed once."""

from collections.abc import Iterator
from dataclasses import replace
from zoneinfo import ZoneInfo

from jolly_trellis.core.event.cost.cost import cost_of
from jolly_trellis.core.event.cost.currencies import said_once
from jolly_trellis.core.event.day import day
from jolly_trellis.core.event.job import Hire, Job, Made
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Insert, Spill, Support
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import BeamLoad, Hardware, Mount, Rig
from tests.core.rigging.test_mounts import FRAME, railed, walled
from tests.events import larder, one_bowl
from tests.ordinary import beside, bouquet, conditions, on_ledge, piece, vessels
from tests.rigs import STEEL, THIN, run

BLANK = replace(
    conditions(), air=None, workshop=None, van=None, filled_at=None, ends_at=None, loaded_at=None, finished_at=None
)
FILLED = replace(BLANK, filled_at=conditions().filled_at)
KNOWN = conditions()


def _unmeasured(standing: Standing) -> Standing:
    return replace(standing, vessel=replace(standing.vessel, mass_kg=None, foot_width_m=None))


def _pieces() -> Iterator[tuple[str, Part, Conditions]]:
    bare = _unmeasured(piece())
    at_table = replace(bare.setting, where="table", free_table_m=None, people=None)
    yield "nothing but a bowl", replace(bare, recipe=(), transport=None, setting=at_table), BLANK
    yield "a bowl that nobody looks at", replace(piece(), setting=replace(piece().setting, people=None)), FILLED
    tubes = replace(
        piece(),
        recipe=(
            replace(piece().recipe[0], water="tube", tube=StemTube(tilt_rad=3.0)),
            replace(piece().recipe[1], water="tube", tube=StemTube(tilt_rad=1.2)),
        ),
        transport=Transport(boxed=True, box_wall_m=None, carriers=1),
    )
    yield "boxed, with tubes", tubes, FILLED
    yield "carried as it is", replace(bare, transport=Transport(boxed=False, carriers=1)), KNOWN
    raised = Support(name="post", height_m=0.4, top_width_m=0.14, column_width_m=0.1, mass_kg=None, foot_width_m=None)
    up = replace(bare.envelope, height_m=0.9)
    yield "raised", replace(bare, support=raised, envelope=up, transport=Transport(boxed=True, carriers=1)), KNOWN
    urn = replace(vessels()["urn-30"], mass_kg=None, foot_width_m=None)
    tall = replace(piece().envelope, height_m=0.8)
    yield "in an urn", replace(piece(), insert=Insert(outer=urn, drop_m=0.01), envelope=tall), KNOWN
    hung = Spill(drop_m=0.4, width_m=0.2, netting="coated-25-09", held_by="hook", hook_n=None, hook_stated_by=None)
    other = beside(tied=False)
    companion = replace(other, vessel=replace(other.vessel, mass_kg=None, foot_width_m=None))
    yield "on a ledge with another", replace(on_ledge(), spill=hung, companions=(companion,)), KNOWN
    yield "a bouquet", replace(bouquet(), carried_h=None), BLANK


def _rigs() -> Iterator[tuple[str, Part, Conditions]]:
    plain = run()
    yield "nobody rated a point", run(rating=None, by=None), KNOWN
    yield "no bond", replace(plain, bond=None), KNOWN
    assert plain.bond is not None
    yield "a bond that leads nowhere", replace(plain, bond=replace(plain.bond, point=None)), KNOWN
    unrated = (*plain.points[:5], replace(plain.points[5], rating_n=None, stated_by=None))
    yield "a bond to a point nobody rated", replace(plain, points=unrated), KNOWN
    narrow = tuple(replace(each, rated_within_rad=None) for each in plain.points)
    yield "pulled aside", replace(plain, points=narrow), KNOWN
    yield "swung by wind", replace(plain, points=narrow, outdoors=True, comes_down_above=5), KNOWN
    wall = walled()
    aslant = tuple(
        replace(each, y_m=each.y_m + 1.2 * (at % 2), rated_within_rad=None) for at, each in enumerate(wall.points)
    )
    yield "on a wall, pulled aside", replace(wall, points=aslant), KNOWN
    screws = tuple(replace(each, rated_within_rad=None) for each in wall.points)
    yield "on screws, swung", replace(wall, points=screws, mount=None, outdoors=True, comes_down_above=6), KNOWN
    yield "on a wall that nobody measured", walled(pull_out=None, arm_m=0.0), KNOWN
    yield "on no wall", replace(wall, mount=None), KNOWN
    handles = tuple(replace(each, kind="handle", made_for=None) for each in plain.points[:5])
    yield "on door handles", replace(plain, points=(*handles, plain.points[5])), KNOWN
    knotted = replace(STEEL, fitting="knot")
    marked = replace(plain.lines[2], hardware=(Hardware(kind="sling"),))
    lines = (replace(plain.lines[0], spec=knotted), plain.lines[1], marked, *plain.lines[3:])
    cord = LineSpec(kind="polyester cord", size_m=0.003, fitting="ferrule")
    bond = replace(plain.bond, spec=replace(plain.bond.spec, fitting="knot"))
    ends = replace(plain, lines=lines, bond=bond, armature=replace(plain.armature, carrier=cord))
    yield "made off wrongly", ends, KNOWN
    yield "on monofilament", run(spec=THIN), BLANK
    beams = (BeamLoad(key="truss A", name="truss A", unknown=("the ring",)),)
    on_truss = tuple(replace(each, beam="truss A") for each in plain.points)
    yield "on a truss", replace(plain, points=on_truss, beams=beams), KNOWN
    unmeasured = Mount(kind="frame", height_m=2.0)
    nobody = tuple(replace(each, rating_n=None, stated_by=None) for each in railed().points)
    yield "on a frame nobody measured", replace(railed(mount=unmeasured), points=nobody), KNOWN
    loaded = replace(FRAME, load_kg=60.0, load_from="maker")
    yield "on a frame nobody signs for", replace(railed(mount=loaded), points=nobody), KNOWN


def _halves() -> Iterator[tuple[str, Part, Conditions]]:
    """Where one of two measures is known, the other is asked for."""
    yield "rated by nobody", run(by=None), KNOWN
    surveyed = run(rating=None, by=None)
    named = tuple(replace(each, surveyed=f"ridge {at}") for at, each in enumerate(surveyed.points))
    yield "in a survey that rates none", replace(surveyed, points=named, bond=None), KNOWN
    yield "leaning nobody knows how far", walled(bears_below_m=0.0), KNOWN
    half = replace(FRAME, foot_depth_m=0.0, tied_to=None, foot_material="rubber", load_kg=60.0, load_by="its maker")
    yield "on a frame half measured", railed(mount=half), KNOWN
    yield "filled, and without an end", run(spec=THIN), FILLED


def works() -> dict[str, tuple[Part, Conditions]]:
    """Parts by what is not known of them, with what is known of their event."""
    return {name: (part, around) for name, part, around in (*_pieces(), *_rigs(), *_halves())}


def missed_of(part: Part, around: Conditions) -> tuple[Missing, ...]:
    """All that is missing of a part."""
    if isinstance(part, Rig):
        return assess(part, around).verdict.missing
    report = evaluate(part, around, with_fixes=False)
    return tuple(fact for verdict in report.verdicts for fact in verdict.missing)


def missed_of_event() -> tuple[Missing, ...]:
    """All that is missing of an event of which nothing is said, and of its costs."""
    made = one_bowl()
    job = Job(
        zone=ZoneInfo("Europe/London"),
        hires=(Hire(name="urn", number=2, lender="Osterlay Hire", comes="2027-05-14", goes_back="2027-05-16"),),
    )
    first = made.pieces[0]
    made = Made(pieces=(replace(first, report=None), replace(first, id=2)))
    sheet = day.day_of(job, made, KNOWN.varieties)
    unpriced = {key: replace(each, bunch_price=None, stem_price=None) for key, each in KNOWN.varieties.items()}
    bought = buy_stems(needs_of(made).stems, unpriced, waste=0.1, here={})
    book = time_book(job, made, unpriced, bought)
    cost = cost_of(
        made,
        needs_of(made),
        bought,
        larder(),
        Shelves(frogs={}, vessels={}, stands={}, frogs_here={}, stems_here={}),
        unpriced,
        job,
        book,
    )
    return (*sheet.missing, *cost.missing, *said_once(cost, "$").missing)
