"""A piece as a picture: what of it is drawn, where, and from where it is looked at. Source: geometry."""

import json
import math
from dataclasses import replace

import pytest

from jolly_trellis.core.drawing.picture import Stems
from jolly_trellis.core.drawing.primitives import (
    Turned,
)
from jolly_trellis.core.drawing.project import Flat, View, project
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.materials.vessels import inside_size_m
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.piece import Counterweight, Mechanic, Piece, Spill, Support
from jolly_trellis.core.plan.recipe import StemTube
from tests import drawn, ordinary

RIGHT = math.pi / 2


def points(*several: Flat) -> list[tuple[float, float]]:
    return [at for each in several for a_run in each.runs for at in a_run]


def level(flat: Flat) -> list[float]:
    return [each for at in flat.runs[0] for each in at]


def span(*several: Flat) -> tuple[float, float, float, float]:
    xs, ys = zip(*points(*several), strict=True)
    return min(xs), max(xs), min(ys), max(ys)


def report(piece: Piece) -> Report:
    return evaluate(piece, ordinary.conditions(), with_fixes=False)


@pytest.mark.parametrize("kind", [each.kind for each in ABOUT.values() if each.size is not None])
def test_every_mechanic_is_seen_in_its_vessel(kind: str) -> None:
    """Wire is wire wherever it runs; what is drawn lies inside the mouth, but for what is laid over the rim."""
    about = ABOUT[kind]
    frog = next((each.key for each in ordinary.frogs().values() if each.kind == about.frog), None)
    piece = replace(
        ordinary.stems(ordinary.piece(), 6),
        mechanic=Mechanic(kind=kind, netting="coated-25-09" if about.netting else None, frog=frog),
    )
    if kind == "cross_stick_roll":
        piece = replace(piece, vessel=ordinary.vessels()["trough-40"], water_level_m=0.07)
    found = report(piece)
    others = replace(piece, mechanic=Mechanic(kind="tape_grid"), moss_m=0.05)
    bare = {each.id for each in report(others).picture.primitives}
    own = tuple(each for each in found.picture.primitives if each.id not in bare or each.id == "tape")
    assert own
    vessel = piece.vessel
    room = vessel.mouth_width_m / 2 + vessel.wall_m + 0.03
    seen = project(replace(found.picture, primitives=own, hung=Stems()), (), View(raised_rad=RIGHT))
    assert all(math.hypot(x, y) <= room for x, y in points(*seen))
    cut = project(replace(found.picture, primitives=own, hung=Stems()), (), View(cut=True))
    low, high = span(*(each for each in cut if each.runs))[2:]
    assert low >= vessel.base_m - 0.001
    assert high <= vessel.rim_m + 0.07


def test_netting_is_as_wide_as_its_vessel_and_has_a_level_for_every_layer() -> None:
    piece = replace(ordinary.stems(ordinary.piece(), 6), mechanic=Mechanic(netting="coated-25-09", layers=3))
    found = report(piece)
    seen = {each.id: each for each in project(found.picture, (), View(cut=True))}
    for index, level in enumerate(found.mechanic.levels):
        edge = span(seen[f"wire-edge-{index}"])
        wide = inside_size_m(piece.vessel, level.height_m)[0]
        assert edge[1] - edge[0] == pytest.approx(wide, rel=1e-3)
        assert edge[2] == pytest.approx(piece.vessel.base_m + level.height_m, abs=1e-4)
        cells = seen[f"wire-{index}"].runs
        assert 1 <= len(cells) <= len(found.cells_m)
        assert span(seen[f"wire-{index}"])[1] <= edge[1]
    assert {"fold-0", "fold-1"} <= set(seen)
    assert "fold-2" not in seen


def test_what_stands_hangs_or_lies_beside_it_is_drawn() -> None:
    tubed = replace(ordinary.recipe(rose=(2, "focal"))[0], water="tube", tube=StemTube(length_m=0.07))
    piece = replace(
        ordinary.on_ledge(edge_radius_m=0.02),
        companions=(replace(ordinary.beside(tied=True), ballast_kg=0.3),),
        spill=Spill(drop_m=0.4, recipe=(*ordinary.recipe(ruscus=(4, "margin")), tubed)),
        counterweight=Counterweight(mass_kg=2.4, away_m=0.2, azimuth_rad=math.pi),
        ballast_kg=0.2,
        moss_m=0.05,
    )
    found = report(piece)
    seen = {each.id: each for each in project(found.picture, (), View(turn_rad=RIGHT, cut=True))}
    assert found.ledge is not None
    assert span(seen["ledge"]) == pytest.approx((found.ledge.front_m, found.ledge.back_m, -0.07, 0), abs=1e-3)
    assert span(seen["ledge-wall"])[0] == pytest.approx(found.ledge.back_m, abs=1e-4)
    assert span(seen["spill"])[2] == pytest.approx(-0.4)
    # 2.4 kg of concrete, 2400 kg/m³, is a litre: a cube of 10 cm, 20 cm behind the middle
    assert span(seen["weight"]) == pytest.approx((0.15, 0.25, 0, 0.1), abs=1e-4)
    assert span(seen["beside-0-vessel-wall"])[1] == pytest.approx(0.05 + 0.075 + 0.005, abs=2e-3)
    assert len([name for name in seen if name.startswith("stone-")]) == 4
    assert len([name for name in seen if name.startswith("beside-0-stone-")]) == 6
    tubes = [name for name in seen if name.startswith("hung-tube-")]
    assert len(tubes) == 2
    assert {seen[name].width_m for name in tubes} == {0.014}
    assert {each.tube_length_m for each in found.picture.hung} == {0.0, 0.07}
    assert span(seen["moss-round"])[1] == pytest.approx(0.1 + 0.006 + 0.05, abs=1e-3)
    assert len(found.picture.hung) == 6
    assert {each.form for each in found.picture.hung} == {"leaf", ordinary.varieties()["rose"].form}
    assert all(each.seat_z_m < 0 for each in found.picture.hung)
    assert found.picture.low_m <= -0.4


def test_a_column_is_drawn_with_its_water_and_a_stand_with_its_foot_and_plate() -> None:
    """A litre in a column 11.2 cm across inside stands 10.1 cm deep, of the 12 cm that make one and 4.2 mm wall."""
    piece = drawn.pieces()["raised"]
    seen = {each.id: each for each in project(report(piece).picture, (), View(cut=True))}
    assert span(seen["support"]) == pytest.approx((-0.06, 0.06, 0, 0.3), abs=1e-3)
    low, high = span(seen["support-water"])[2:]
    assert 0.07 < high - low < 0.12
    stand = Support(name="stand", height_m=0.3, top_width_m=0.12, foot_width_m=0.2, column_width_m=0.03)
    seen = {each.id: each for each in project(report(replace(piece, support=stand)).picture, (), View(cut=True))}
    assert span(seen["support"])[1] == pytest.approx(0.1, abs=1e-3)


def test_the_wanted_size_is_there_from_where_it_was_measured_and_the_tip_curve_from_above() -> None:
    found = report(ordinary.piece())
    front = {each.id: each for each in project(found.picture, found.stems, View())}
    assert span(front["envelope-front"])[3] == pytest.approx(0.30, abs=2e-3)
    assert "envelope-side" not in front
    above = {each.id: each for each in project(found.picture, found.stems, View(raised_rad=RIGHT))}
    assert {"tip-rose", "tip-limit", "foot", "rim", "envelope-above", "balance"} <= set(above)
    assert span(above["tip-limit"])[1] == pytest.approx(0.028, abs=1e-3)
    assert sum(name.startswith("seat-") for name in above) == len(found.stems)


@pytest.mark.parametrize("name", ["raised", "ledge"])
def test_everything_lies_within_the_reach_that_is_told(name: str) -> None:
    """From every 30° and eye, so that nothing leaves the sheet while it is turned."""
    found = report(drawn.pieces()[name])
    told = found.picture
    stems = (*found.stems, *told.hung)
    for eye in told.eyes:
        for step in range(12):
            view = View(turn_rad=step * math.pi / 6, raised_rad=eye.raised_rad)
            for flat in project(told, found.stems, view):
                if flat.id.startswith(("ledge", "surface", "envelope")):
                    continue
                assert all(abs(x) <= told.reach_m * 1.13 + 0.02 for x, _ in points(flat)), flat.id
    assert all(each.tip_z_m + each.head_radius_m <= told.top_m + 0.05 for each in stems)


def test_eyes_look_from_where_people_are() -> None:
    """At a table of 75 cm: standing 1.2 m away with the eye 1.6 m high; half of the piece, 30 cm tall, is 15 cm up."""
    eyes = {each.kind: each for each in report(ordinary.piece()).picture.eyes}
    assert list(eyes) == ["cut open", "standing", "seated", "low", "close", "from under", "from above"]
    top = report(ordinary.piece()).picture.top_m
    assert eyes["standing"].raised_rad == pytest.approx(math.atan2(1.60 - 0.75 - top / 2, 1.2), abs=1e-4)
    assert eyes["seated"].raised_rad == pytest.approx(math.atan2(1.215 - 0.75 - top / 2, 0.55), abs=1e-4)
    assert eyes["low"].raised_rad == eyes["cut open"].raised_rad == 0
    assert eyes["from under"].raised_rad < 0 < eyes["close"].raised_rad
    assert eyes["from above"].raised_rad == pytest.approx(RIGHT, abs=1e-6)


def test_screens_are_held_to_what_papers_show() -> None:
    """The web's own test projects the same pictures and is compared with what stands in this file."""
    kept = json.loads(drawn.FILE.read_text(encoding="utf-8"))
    assert kept == json.loads(drawn.written()), "write it anew with python -m tests.drawn"


def test_every_turned_body_rises_ring_by_ring() -> None:
    stand = Support(name="stand", height_m=0.3, top_width_m=0.12, foot_width_m=0.2, column_width_m=0.03)
    pieces = [*drawn.pieces().values(), replace(drawn.pieces()["raised"], support=stand), ordinary.bouquet()]
    for piece in pieces:
        for each in report(piece).picture.primitives:
            if isinstance(each, Turned):
                heights = [ring.at[2] for ring in each.rings]
                assert heights == sorted(heights), each.id


def test_raised_cups_hang_between_their_levels_and_stand_on_their_rods() -> None:
    piece = replace(ordinary.stems(ordinary.piece(), 6), mechanic=Mechanic(kind="raised_cups"))
    found = report(piece)
    top, low = found.mechanic.levels[0].height_m, found.mechanic.levels[-1].height_m
    floor = piece.vessel.base_m
    seen = {each.id: each for each in project(found.picture, (), View(cut=True))}
    assert span(seen["cup-0"])[2:] == pytest.approx((floor + low, floor + top), abs=1e-3)
    assert span(seen["rods"])[2:] == pytest.approx((floor, floor + low), abs=1e-3)
