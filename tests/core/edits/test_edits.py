"""What is done to a part by one press: every line of it still leads somewhere, and what was stated is kept."""

import math
from dataclasses import replace

import pytest

from jolly_trellis.catalog import loaders
from jolly_trellis.core.edits.edit import Edit, Given, edited
from jolly_trellis.core.edits.pieces import (
    AddCompanion,
    AddCounterweight,
    ChooseMechanic,
    Shelf,
    StandOn,
    TakeStand,
)
from jolly_trellis.core.edits.rigs import (
    AddLine,
    AddPlace,
    AddPoint,
    BondPoint,
    DrawPath,
    HoldPlaces,
    Place,
    RemoveLine,
    RemovePlace,
    RemovePoint,
)
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.piece import Counterweight, Piece
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.rig import Attachment, Rig
from jolly_trellis.core.rigging.survey import Survey, SurveyPoint
from tests.core.rigging.test_mounts import railed
from tests.ordinary import bouquet, conditions, piece, vessels
from tests.rigs import panel, run

SURVEY = Survey(
    points=(SurveyPoint(key="ridge-two", name="ridge 2", kind="truss", x_m=0.7, y_m=0.1, z_m=3.9, rating_n=900),)
)
SHELF = Shelf(
    vessels=vessels(),
    stands={each.key: each for each in loaders.stands()},
    nettings={each.key: each for each in loaders.nettings()},
    frogs={each.key: each for each in loaders.frogs()},
)
GIVEN = Given(survey=SURVEY, shelf=SHELF)
PATH = DrawPath(places=(Place(x_m=0, y_m=0, z_m=3), Place(x_m=3, y_m=4, z_m=3)))


def after(part: Rig, edit: Edit) -> Rig:
    made, label = edited(part, edit, GIVEN)
    assert isinstance(made, Rig)
    assert label
    return made


def sound(rig: Rig) -> None:
    """Everything that a line or a bond names is there, and no two points have one name."""
    for line in rig.lines:
        assert line.attachment < len(rig.attachments)
        assert line.point is None or line.point < len(rig.points)
        assert line.tied_to is None or line.tied_to < len(rig.attachments)
    assert rig.bond is None or rig.bond.point is None or rig.bond.point < len(rig.points)
    names = [each.name for each in rig.points]
    assert len(names) == len(set(names))


@pytest.mark.parametrize("rig", [run(), panel(), railed()], ids=["run", "panel", "tied"])
@pytest.mark.parametrize(
    "edit",
    [
        AddPoint(),
        AddPoint(surveyed="ridge-two"),
        AddLine(),
        RemoveLine(line=0),
        RemovePoint(point=0),
        RemovePoint(point=3),
        RemovePlace(place=0),
        HoldPlaces(),
        BondPoint(),
        PATH,
    ],
    ids=lambda edit: edit.kind,
)
def test_every_line_leads_somewhere_after_any_edit(rig: Rig, edit: Edit) -> None:
    sound(after(rig, edit))


def test_a_new_point_hangs_in_the_widest_gap_and_its_place_lies_between_those_beside_it() -> None:
    five = run()
    apart = replace(five, points=tuple(replace(each, x_m=each.x_m + (at > 1)) for at, each in enumerate(five.points)))
    wide = after(apart, AddPoint())
    point, line = wide.points[-1], wide.lines[-1]
    assert point.x_m == pytest.approx((-1.5 + 1.0) / 2)
    assert (point.name, point.kind, point.rating_n, point.stated_by) == ("point 7", "beam loop", None, None)
    taken = replace(apart, points=(replace(apart.points[0], name="point 7"), *apart.points[1:]))
    assert after(taken, AddPoint()).points[-1].name == "point 8"
    assert (line.point, line.attachment, line.spec) == (6, 2, five.lines[0].spec)
    xs = [each.x_m for each in wide.attachments]
    assert xs == sorted(xs)
    assert [each.attachment for each in wide.lines] == [0, 1, 3, 4, 5, 2]
    assert {each.along_m for each in wide.attachments} == {None}
    assert all(each in wide.points for each in apart.points), "what was stated stays"
    assert assess(wide, conditions()).verdict.state == "cannot say"


def test_the_first_point_hangs_over_what_is_there_and_the_second_beside_it() -> None:
    none = replace(panel(), points=(), lines=(), bond=None, attachments=panel().attachments[:1])
    one = after(none, AddPoint())
    held = none.attachments[0]
    assert one.points[0].x_m == held.x_m
    assert one.points[0].z_m == pytest.approx(held.z_m + 0.9)
    two = after(one, AddPoint())
    assert two.points[1].x_m == pytest.approx(held.x_m + 0.5)
    nothing = after(replace(none, attachments=()), AddPoint())
    assert nothing.points[0].z_m == pytest.approx(3.5)
    assert nothing.attachments[0].z_m == pytest.approx(2.6)


def test_a_point_of_the_survey_is_where_the_survey_has_it_and_has_no_rating_of_its_own() -> None:
    point = after(run(), AddPoint(surveyed="ridge-two")).points[-1]
    assert (point.name, point.surveyed, point.x_m, point.y_m, point.z_m) == ("ridge 2", "ridge-two", 0.7, 0.1, 3.9)
    assert point.rating_n is None
    with pytest.raises(InvalidMeasure, match="already"):
        edited(after(run(), AddPoint(surveyed="ridge-two")), AddPoint(surveyed="ridge-two"), GIVEN)
    with pytest.raises(InvalidMeasure, match="no point “ridge 9”"):
        edited(run(), AddPoint(surveyed="ridge 9"), GIVEN)


def test_a_place_of_a_run_stays_when_its_line_goes_and_one_of_a_panel_goes_with_it() -> None:
    assert len(after(run(), RemoveLine(line=0)).attachments) == 5
    less = after(panel(), RemoveLine(line=0))
    assert (len(less.attachments), [each.attachment for each in less.lines]) == (3, [0, 1, 2])


def test_the_bond_is_let_go_with_its_point_and_stays_on_its_own_when_another_goes() -> None:
    gone, kept = after(run(), RemovePoint(point=5)), after(run(), RemovePoint(point=0))
    assert gone.bond is not None
    assert gone.bond.point is None
    assert kept.bond is not None
    assert (kept.bond.point, kept.points[4].name) == (4, "own")
    assert [each.point for each in kept.lines] == [0, 1, 2, 3]


def test_a_path_has_its_places_in_order_is_a_twentieth_longer_and_keeps_the_bonds_point() -> None:
    drawn = after(run(), PATH)
    assert drawn.armature.length_m == pytest.approx(5.25)
    assert [(each.x_m, each.y_m) for each in drawn.attachments] == [(0, 0), (3, 4)]
    assert (drawn.lines, [each.name for each in drawn.points]) == ((), ["own"])
    assert drawn.bond is not None
    assert drawn.bond.point == 0
    loose = after(replace(run(), bond=None), PATH)
    assert (loose.points, loose.bond) == ((), None)


def test_every_place_that_nothing_holds_is_held_from_over_it_or_tied_where_it_is() -> None:
    held = after(replace(run(), lines=()), HoldPlaces())
    assert [(each.point, each.attachment) for each in held.lines] == [(6 + at, at) for at in range(5)]
    assert {each.z_m for each in held.points[6:]} == {4.0}
    first = after(replace(run(), lines=(), points=(), bond=None), HoldPlaces())
    assert {round(each.z_m, 3) for each in first.points} == {2.6 + 0.9}
    tied = after(replace(railed(), lines=()), HoldPlaces())
    assert {round(each.z_m - 1.9, 3) for each in tied.points[9:]} == {0.03}
    assert {each.kind for each in tied.points[9:]} == {"frame member"}
    assert {each.spec.kind for each in tied.lines} == {"polyester cord"}
    assert after(run(), HoldPlaces()) == run()
    assert edited(railed(), HoldPlaces(), GIVEN)[1] == "Tie every place"
    assert edited(run(), HoldPlaces(), GIVEN)[1] == "Hang every place"


def test_a_bond_without_a_point_gets_one_of_its_own_that_nothing_hangs_on() -> None:
    bonded = after(replace(run(), bond=None), BondPoint())
    assert bonded.bond is not None
    at = bonded.bond.point
    assert at == 6
    sound(after(bonded, BondPoint()))
    assert all(line.point != at for line in bonded.lines)
    assert bonded.points[6].z_m == 4.0
    assert bonded.points[6].y_m == pytest.approx(round(0.2 / 6, 3) + 0.15)


def test_a_line_more_leads_from_the_last_point_as_the_last_line_is() -> None:
    more = after(run(), AddLine()).lines[-1]
    assert (more.point, more.attachment, more.spec) == (5, 0, run().lines[-1].spec)


@pytest.mark.parametrize("edit", [RemoveLine(line=5), RemovePoint(point=6), RemovePlace(place=5)])
def test_what_is_not_there_is_refused_in_a_sentence(edit: Edit) -> None:
    with pytest.raises(InvalidMeasure, match=r"There is no") as refused:
        edited(run(), edit, GIVEN)
    assert "of them" in refused.value.limit.text


def test_a_line_with_nothing_to_lead_to_is_refused() -> None:
    with pytest.raises(InvalidMeasure, match="not there yet"):
        edited(replace(run(), points=(), lines=(), bond=None), AddLine(), GIVEN)


def test_another_vessel_stands_free_of_what_is_there_and_can_be_judged() -> None:
    made: Standing = piece()
    for key in ("low-bowl-15", "low-bowl-30"):
        after_it, label = edited(made, AddCompanion(vessel=key), GIVEN)
        assert isinstance(after_it, Standing)
        made = after_it
        assert label == f"Add {vessels()[key].name} beside it"
    one, other = made.companions
    assert one.envelope.width_m == pytest.approx(0.15 * 1.6)
    assert one.envelope.height_m == pytest.approx(one.vessel.rim_m + 0.24 * 0.6, abs=5e-4)
    assert one.water_level_m == pytest.approx(0.8 * 0.07)
    assert one.x_m - one.vessel.mouth_width_m / 2 > (piece().vessel.foot_width_m or 0) / 2
    assert other.x_m - other.vessel.mouth_width_m / 2 > one.x_m + one.vessel.mouth_width_m / 2
    assert (one.recipe, one.tied) == ((), False)
    assert evaluate(made, conditions(), with_fixes=False).verdicts
    with pytest.raises(UnknownName, match="No vessel"):
        edited(piece(), AddCompanion(vessel="moon-bowl"), GIVEN)


def test_an_edit_of_another_kind_of_part_is_refused() -> None:
    for part, edit in (
        (bouquet(), AddCompanion(vessel="cup-6")),
        (piece(), AddPoint()),
        (run(), AddCompanion(vessel="cup-6")),
    ):
        with pytest.raises(InvalidMeasure, match="nothing that is done to such a part"):
            edited(part, edit, GIVEN)


def stood(part: Piece, edit: Edit) -> Standing:
    made, label = edited(part, edit, GIVEN)
    assert isinstance(made, Standing)
    assert label
    return made


def test_raised_on_something_and_set_down_again_its_flowers_are_as_high_over_it_as_before() -> None:
    """A bowl of 28 cm: 78 on the cylinder of 50, 88 on the stand of 60, in an urn 20 cm over that, 28 again."""
    bowl = piece()
    high = bowl.envelope.height_m
    up = stood(bowl, StandOn(on="cylinder"))
    assert up.support == USUAL.cylinder
    assert up.envelope.height_m == pytest.approx(high + 0.5)
    higher = stood(up, StandOn(on="stand"))
    assert higher.support == USUAL.stand
    assert higher.envelope.height_m == pytest.approx(high + 0.6)
    inside = stood(higher, StandOn(on="urn"))
    assert inside.support is None
    assert inside.insert is not None
    outer = inside.insert.outer
    assert outer.mouth_width_m > bowl.vessel.mouth_width_m
    assert outer.inside_depth_m > 0.25
    assert inside.insert.drop_m == 0.01
    assert inside.envelope.height_m == pytest.approx(max(high, outer.rim_m + 0.2))
    down = stood(up, StandOn(on="nothing"))
    assert (down.support, down.insert, down.envelope) == (None, None, bowl.envelope)


def test_only_what_is_wider_takes_a_vessel_in_and_a_deep_one_first() -> None:
    shallow = Given(shelf=replace(SHELF, vessels={"low-bowl-30": vessels()["low-bowl-30"]}))
    made, _ = edited(piece(), StandOn(on="urn"), shallow)
    assert isinstance(made, Standing)
    assert made.insert is not None
    assert made.insert.outer.key == "low-bowl-30"
    with pytest.raises(InvalidMeasure, match="No vessel of the stores is wider"):
        edited(piece(), StandOn(on="urn"), Given(shelf=replace(SHELF, vessels={"cup-6": vessels()["cup-6"]})))


def test_a_stand_of_the_stores_takes_the_place_of_the_support_with_its_water_and_putty() -> None:
    up = stood(piece(), StandOn(on="cylinder"))
    assert up.support is not None
    wet = replace(up, support=replace(up.support, water_l=4.0, putty=True))
    stand = SHELF.stands["cylinder-stand-50"]
    made = stood(wet, TakeStand(stand=stand.key))
    assert made.support is not None
    assert (made.support.key, made.support.name, made.support.mass_kg) == (stand.key, stand.name, stand.mass_kg)
    assert (made.support.water_l, made.support.putty, made.support.ridge) == (4.0, True, False)
    assert made.envelope.height_m == pytest.approx(up.envelope.height_m - 0.5 + stand.height_m)
    with pytest.raises(InvalidMeasure, match="stands by itself"):
        edited(piece(), TakeStand(stand=stand.key), GIVEN)
    with pytest.raises(UnknownName, match="No stand"):
        edited(wet, TakeStand(stand="moon"), GIVEN)


def test_a_counterweight_is_tied_on_just_behind_the_foot() -> None:
    """A foot of 11 cm: 5.5 and 4 behind it is 9.5 cm; half the mouth and 4 where the foot is not known."""
    weight = stood(piece(), AddCounterweight()).counterweight
    assert weight == Counterweight(mass_kg=0.5, away_m=0.095, azimuth_rad=math.pi, tied=True)
    bare = replace(piece().vessel, foot_width_m=None, foot_depth_m=None)
    weight = stood(replace(piece(), vessel=bare), AddCounterweight()).counterweight
    assert weight is not None
    assert weight.away_m == pytest.approx(0.14)


def test_another_mechanic_comes_with_netting_and_the_largest_frog_that_goes_in() -> None:
    """On a floor of 11 cm of frogs of 3 to 15 cm the one of 10, since it must lie 2 mm freer."""
    bare = replace(piece(), mechanic=replace(piece().mechanic, netting=None, layer_gap_m=0.05, tape_strips=3))
    frog = stood(bare, ChooseMechanic(mechanic="pin_frog")).mechanic
    floor = piece().vessel.profile[0].width_m
    assert frog.frog is not None
    lies = SHELF.frogs[frog.frog]
    assert lies.width_m <= floor - 0.002
    larger = [each for each in SHELF.frogs.values() if each.kind == lies.kind and each.width_m > lies.width_m]
    assert all(each.width_m > floor - 0.002 for each in larger)
    assert (frog.layer_gap_m, frog.tape_strips, frog.netting) == (None, None, None)
    for spare_m, goes in ((0.001, False), (0.003, True)):
        floor_m = lies.width_m + spare_m
        profile = (replace(bare.vessel.profile[0], width_m=floor_m, depth_m=floor_m), *bare.vessel.profile[1:])
        tried = replace(bare, vessel=replace(bare.vessel, profile=profile))
        assert (stood(tried, ChooseMechanic(mechanic="pin_frog")).mechanic.frog == frog.frog) == goes
    wire = stood(bare, ChooseMechanic(mechanic="folded_cushion")).mechanic
    assert wire.netting == next(iter(SHELF.nettings))
    own = stood(piece(), ChooseMechanic(mechanic="folded_cushion")).mechanic
    assert own.netting == piece().mechanic.netting
    none = Given(shelf=replace(SHELF, frogs={}))
    assert edited(bare, ChooseMechanic(mechanic="pin_frog"), none)[0].mechanic.frog is None  # type: ignore[union-attr]
    carried, label = edited(bouquet(), ChooseMechanic(mechanic="star_lattice"), GIVEN)
    assert isinstance(carried, Piece)
    assert (carried.mechanic.kind, label) == ("star_lattice", f"Use {ABOUT['star_lattice'].name.lower()}")
    with pytest.raises(InvalidMeasure, match="nothing that is done"):
        edited(bouquet(), ChooseMechanic(mechanic="pin_frog"), GIVEN)


def test_a_place_more_lies_to_the_right_of_the_last_and_a_run_is_shared_out_anew() -> None:
    for rig in (run(), panel()):
        made = after(rig, AddPlace())
        last, new = made.attachments[-2:]
        assert new.x_m - last.x_m == pytest.approx(0.5)
        assert (new.y_m, new.z_m) == (last.y_m, last.z_m)
        assert all(each.along_m is None for each in made.attachments) or not rig.is_run
    first = after(replace(run(), attachments=(), lines=(), points=(), bond=None), AddPlace()).attachments
    assert first == (Attachment(x_m=0.0, y_m=0.0, z_m=2.6),)
