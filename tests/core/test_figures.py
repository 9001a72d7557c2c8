"""The book of figures: every constant as it was last agreed, read by something, and moving something."""

import ast
import contextvars
import math
import threading
from collections.abc import Callable, Iterator, Mapping
from contextvars import copy_context
from dataclasses import replace
from decimal import Decimal
from functools import cache, partial
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import jolly_trellis.core
from jolly_trellis.core import footing, stacks
from jolly_trellis.core.books import bodies
from jolly_trellis.core.books.figures import SPREAD, FigureBook, OwnFigure, book_of, open_book, read_book
from jolly_trellis.core.build import build
from jolly_trellis.core.checks import hold_bound, stand_ledge, stand_wind, travel
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.errors import CoreError, InvalidMeasure, UnknownName
from jolly_trellis.core.evaluate import evaluate
from jolly_trellis.core.event.needs import needs_of
from jolly_trellis.core.event.recipes import lasting
from jolly_trellis.core.event.roll import cut_plan
from jolly_trellis.core.event.roll_problems import length_problems, netting_problems
from jolly_trellis.core.making_phases import phases_of
from jolly_trellis.core.mechanics.fit import point_strength, seat_moment_n_m
from jolly_trellis.core.method import CONSTANTS, PROGRAM, all_constants
from jolly_trellis.core.piece import (
    Air,
    Conditions,
    Mechanic,
    MechanicKind,
    People,
    Piece,
    Setting,
    StemTube,
    Support,
    TopUp,
    Transport,
)
from jolly_trellis.core.report import with_seats
from jolly_trellis.core.rigging import coverage, lines, states
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.clearances import clearances
from jolly_trellis.core.rigging.findings import BOND_FACTOR
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.loads import PROOF
from jolly_trellis.core.rigging.rig import Hazard, Rig
from jolly_trellis.core.spills import chain_strength_n
from jolly_trellis.core.stems import clump_diameter_m
from jolly_trellis.core.water_table import stone_most_kg
from jolly_trellis.exchange import rig_card
from tests import events, figures_table, ordinary, rigs, worked

FIXED = {key for key, each in CONSTANTS.items() if each.sort == "standard"}


def test_every_constant_is_as_it_was_last_agreed() -> None:
    now, was = set(figures_table.rows()), set(figures_table.kept())
    moved = [f"- {','.join(each)}" for each in sorted(was - now)] + [
        f"+ {','.join(each)}" for each in sorted(now - was)
    ]
    assert not moved, "\n".join(moved)


def test_no_constant_is_left_out_of_the_book() -> None:
    """As many are declared in the source as are in the book, those declared in a loop counted by their rows."""
    declared = 0
    for file in Path(jolly_trellis.core.__file__).parent.rglob("*.py"):
        if file.name == "figures.py":
            continue
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                named = node.args and isinstance(node.args[0], (ast.Constant, ast.JoinedStr))
                declared += bool(named) and node.func.id in ("measure", "rule", "standard")
    in_loops = 2 * 6 - 2 + 6 - 1  # reach of six roles, least and most; six Beaufort forces
    assert declared + in_loops == len(CONSTANTS)
    assert len({each.label for _, listed in all_constants() for each in listed}) == len(CONSTANTS)


def test_measures_have_a_spread_and_rules_have_none() -> None:
    for each in CONSTANTS.values():
        assert (each.spread > 0) == (each.sort == "measure"), each.label
        assert each.provenance.kind in SPREAD
        if each.provenance.kind == "published":
            assert each.provenance.source, each.label
    assert CONSTANTS["friction-glass-on-wood-dry"].spread == 0.25
    assert CONSTANTS["knot-in-monofilament-keeps-of-its-strength"].spread == 0.15


def test_what_holds_over_people_may_only_be_made_more_careful() -> None:
    """Strengths and efficiencies of lines down, factors and clearances up; stiffness and mass of lines either way."""
    of_lines = [
        *lines.STEEL_BREAKING.values(),
        *lines.CORD_BREAKING.values(),
        *lines.TIE_STRENGTH.values(),
        lines.KNOT_MONOFILAMENT,
        lines.KNOT_CORD,
        lines.SPLICE,
        lines.FERRULE,
        lines.GRIP,
        lines.STAINLESS,
        lines.WET,
        lines.EDGE,
    ]
    assert {each.cautious for each in of_lines} == {"down"}
    factors = [lines.FACTOR_PEOPLE, lines.FACTOR_NOBODY, lines.FACTOR_GONE, CONTINGENCY, HANDLING, PROOF, BOND_FACTOR]
    assert {each.cautious for each in factors} == {"up"}
    assert {each.cautious for each in lines.STEEL_EA.values()} == {"either way"}


class Noting(Mapping[str, float]):
    """Numbers of a book that notes which of them are read."""

    def __init__(self, values: Mapping[str, float]) -> None:
        self.values_, self.read = values, set[str]()

    def __getitem__(self, key: str) -> float:
        self.read.add(key)
        return self.values_[key]

    def __iter__(self) -> Iterator[str]:
        return iter(self.values_)

    def __len__(self) -> int:
        return len(self.values_)


def _by_themselves() -> dict[str, Callable[[], object]]:
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
        LineSpec(kind="steel rope", size_m=0.002, stainless=True),
        LineSpec(kind="monofilament", stated_n=90.0, wet=True),
        LineSpec(kind="monofilament", stated_n=90.0, over_edge=True),
    )
    for spec in specs:
        found[f"line {spec}"] = lambda spec=spec: (  # type: ignore[misc]
            lines.breaking_n(spec) * lines.efficiency(spec),
            lines.stiffness_n(spec),
        )
    for name in ("hydrangea", "gypsophila", "rose", "carnation", "spray-rose"):
        found[f"{name} covers"] = partial(coverage.stem_covers_m2, ordinary.varieties()[name])
    short = replace(ordinary.varieties()["ruscus"], key="galax", head_height_m=0.1)
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
    return found


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
    bouquet = replace(posy.bouquet, cooler_days=3.0) if posy.bouquet is not None else None
    riding = Transport(box_width_m=0.3, box_depth_m=0.3, box_wall_m=0.2)
    airs = Air(temperature_c=18.0, relative_humidity=0.6)
    filled = _around().filled_at
    around = replace(_around(), workshop=airs, van=airs, finished_at=filled, loaded_at=filled)
    return build(replace(posy, bouquet=bouquet, transport=riding, water_level_m=0.1), around).waits


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
    """A tangle nobody tied, which shifts."""
    riding = Transport(box_width_m=0.3, box_depth_m=0.3, box_wall_m=0.2)
    tangle = replace(ordinary.piece(), mechanic=Mechanic(kind="branch_tangle"), transport=riding)
    return travel.judge(build(tangle, _around()))


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
    return *netting_problems(many, bare), *length_problems(many, bare), cut_plan(few, bare, seconds=0.3)


def _card() -> object:
    """What a rig card says of filling both faces and of proving."""
    tilted = rigs.on_one_point()
    report = assess(tilted, _around())
    return rig_card.write_rig_card(tilted, report, [[] for _ in report.lines], event="e", paper="A4", system="metric")


@cache
def readers() -> dict[str, frozenset[str]]:
    """What each piece of ordinary work, and each formula by itself, reads."""
    noting = Noting(PROGRAM.values)
    book, found = FigureBook(values=noting), {}
    for name, work in _work().items():
        noting.read = set()
        _under(book, work)
        found[name] = frozenset(noting.read)
    return found


def _work() -> dict[str, Callable[[], object]]:
    return {**worked.worked(), **_by_themselves()}


def _under(book: FigureBook, work: Callable[[], object]) -> object:
    with book.open():
        try:
            return worked.summary_of(work())
        except CoreError as problem:
            return worked.summary_of((problem.path, problem.message, problem.limit))


def test_every_figure_is_read() -> None:
    read = frozenset().union(*readers().values())
    assert sorted(set(CONSTANTS) - read - FIXED) == []


def test_every_figure_moves_something() -> None:
    """Each is set a little higher, lower, then far: some piece of work that reads it comes out otherwise."""
    idle = [key for key in sorted(set(CONSTANTS) - FIXED) if not _moves(key)]
    assert idle == []


_LOOKED_AT_MOST = 40


@cache
def _usual(name: str) -> object:
    return _under(PROGRAM, _work()[name])


def _moves(key: str) -> bool:
    constant = CONSTANTS[key]
    low, high = replace(constant, cautious="either way").bounds
    near = [constant.built_in * 1.12, constant.built_in * 0.85, low + 0.02 * (high - low), high]
    looked_at = sorted((name for name, read in readers().items() if key in read), key=_cost)[:_LOOKED_AT_MOST]
    for value in near if constant.built_in else (1.0,):
        book = FigureBook(values=PROGRAM.values | {key: value})  # type: ignore[operator]
        if any(_under(book, _work()[name]) != _usual(name) for name in looked_at):
            return True
    return False


def _cost(name: str) -> tuple[bool, int]:
    """The quickest first: formulas by themselves, then what reads least."""
    return name in worked.worked(), len(readers()[name])


def test_no_number_without_an_open_book() -> None:
    constant = CONSTANTS["tip-angle-a-low-piece-needs"]
    with pytest.raises(LookupError):
        contextvars.Context().run(lambda: constant.value)


def test_a_book_that_was_opened_is_closed_again_and_another_thread_has_its_own() -> None:
    key = "friction-at-a-dry-joint"
    own = book_of(CONSTANTS, {key: OwnFigure(value=0.31, reason="pulled with a scale")})
    seen: list[float] = []
    with own.open():
        inside = CONSTANTS[key]
        assert (inside.value, inside.quantity.value) == (0.31, 0.31)
        assert inside.figure.provenance.source == "pulled with a scale"
        other = threading.Thread(target=copy_context().run, args=(lambda: seen.append(inside.value),))
        other.start()
        other.join()
        with PROGRAM.open():
            assert inside.value == 0.25
        assert inside.value == 0.31
    assert CONSTANTS[key].value == 0.25
    assert seen == [0.31]


def test_an_evaluation_reads_the_book_it_is_handed_whatever_is_open() -> None:
    """The tip angle a low piece needs, 12° in the program, 16° in this studio: limit and shown figure both."""
    wary = book_of(CONSTANTS, {"tip-angle-a-low-piece-needs": OwnFigure(value=math.radians(16), reason="a wedding")})
    plain, other = (
        evaluate(ordinary.piece(), replace(ordinary.conditions(), figures=book), with_fixes=False)
        for book in (PROGRAM, wary)
    )
    (was, now) = (
        next(found for v in report.verdicts if v.verb == "stand" for found in v.findings if found.check == "tilt")
        for report in (plain, other)
    )
    assert math.degrees(was.limit.value) == pytest.approx(12)
    assert math.degrees(now.limit.value) == pytest.approx(16)
    assert now.utilisation == pytest.approx(was.utilisation * 16 / 12)
    shown = next(v for v in other.verdicts if v.verb == "stand").figures
    assert any(each.provenance.source == "a wedding" for each in shown)


@pytest.mark.parametrize(
    ("key", "value", "limit"),
    [
        ("friction-glass-on-wood-dry", 1.3, "Give {low} to {high}, in the unit shown."),
        ("friction-glass-on-wood-dry", 0.04, "Give {low} to {high}, in the unit shown."),
        ("friction-glass-on-wood-dry", math.nan, "Give {low} to {high}, in the unit shown."),
        ("share-of-a-cell-that-stems-may-fill", 1.01, "Give {low} to {high}, in the unit shown."),
        ("breaking-load-polyester-cord-2-mm", 601.0, "Over people it may only be lowered: give {low} to {high}."),
        ("clearance-over-a-walkway", 2.1, "Over people it may only be raised: give {low} to {high}."),
        ("standard-gravity", 9.81, "Leave it as it is."),
    ],
)
def test_an_own_figure_that_cannot_be_says_what_would_be_right(key: str, value: float, limit: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        book_of(CONSTANTS, {key: OwnFigure(value=value, reason="measured")})
    assert caught.value.path == "value"
    assert caught.value.limit.text == limit


def test_an_own_figure_needs_its_reason_and_a_figure_that_is_there() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        book_of(CONSTANTS, {"friction-at-a-dry-joint": OwnFigure(value=0.3, reason="  ")})
    assert caught.value.path == "reason"
    with pytest.raises(UnknownName):
        book_of(CONSTANTS, {"friction-at-a-wet-joint": OwnFigure(value=0.3, reason="measured")})


@given(st.sampled_from(sorted(set(CONSTANTS) - FIXED)), st.floats(0.0, 1.0))
def test_what_is_inside_its_bounds_is_taken_and_read_back_as_the_same_edition(key: str, share: float) -> None:
    low, high = CONSTANTS[key].bounds
    value = low + share * (high - low)
    book = book_of(CONSTANTS, {key: OwnFigure(value=value, reason="measured")})
    again = read_book(CONSTANTS, book.values, {key: "measured"})
    assert again.edition == book.edition
    assert (book.edition == PROGRAM.edition) is False
    assert again.provenance_of(CONSTANTS[key]).kind == "measured"


def test_a_book_from_elsewhere_leaves_out_what_is_unknown_and_fills_in_what_it_lacks() -> None:
    read = read_book(CONSTANTS, {"friction-at-a-dry-joint": 0.2, "colour-of-the-van": 7.0}, {"colour-of-the-van": "x"})
    assert read.values == PROGRAM.values | {"friction-at-a-dry-joint": 0.2}  # type: ignore[operator]
    assert read.own == {}
    with pytest.raises(InvalidMeasure) as caught:
        read_book(CONSTANTS, {"friction-at-a-dry-joint": 40.0}, {})
    assert caught.value.path == "friction-at-a-dry-joint"
