"""Ranges of everything that is typed: the core refuses what lies outside them, whoever calls it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Annotated, Any, get_args, get_origin, get_type_hints

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core import ranges
from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.piece import Mechanic, Piece, Support
from jolly_trellis.core.plan.setting import TopUp, Transport
from jolly_trellis.core.ranges import Range
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.resting import settle
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.snip import snip
from jolly_trellis.core.units import render
from tests import ordinary, rigs
from tests.ordinary import conditions, piece, vessels


def refusal(each: Piece) -> InvalidMeasure:
    with pytest.raises(InvalidMeasure) as caught:
        evaluate(each, conditions())
    return caught.value


BOWL = piece().vessel


@pytest.mark.parametrize(
    ("changed", "path"),
    [
        (replace(piece(), vessel=replace(BOWL, mass_kg=math.nan)), "vessel.mass_kg"),
        (replace(piece(), vessel=replace(BOWL, mass_kg=math.inf)), "vessel.mass_kg"),
        (replace(piece(), vessel=replace(BOWL, wall_m=-0.01)), "vessel.wall_m"),
        (replace(piece(), ballast_kg=-2.0), "ballast_kg"),
        (replace(piece(), mechanic=replace(piece().mechanic, squeeze=3.0)), "mechanic.squeeze"),
        (replace(piece(), mechanic=replace(piece().mechanic, layers=9)), "mechanic.layers"),
        (replace(piece(), mechanic=replace(piece().mechanic, tape_width_m=0.0)), "mechanic.tape_width_m"),
        (replace(piece(), name="a" * 121), "name"),
        (replace(piece(), name="bowl\x00"), "name"),
        (replace(piece(), top_ups=(TopUp(after_h=-1.0, volume_l=0.2),)), "top_ups.0.after_h"),
        (replace(piece(), recipe=(replace(piece().recipe[0], count=10**400),)), "recipe.0.count"),
        (replace(piece(), recipe=(replace(piece().recipe[0], role="hero"),)), "recipe.0.role"),  # type: ignore[arg-type]
        (replace(piece(), quantity=True), "quantity"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(changed: Piece, path: str) -> None:
    found = refusal(changed)
    assert found.path == path
    assert render(found.message, "metric").endswith(".")
    assert render(found.limit, "inch").endswith(".")


def test_what_the_stores_and_the_air_hold_is_refused_too() -> None:
    around = conditions()
    rose = replace(around.varieties["rose"], mass_kg=math.nan)
    broken = replace(around, varieties={**around.varieties, "rose": rose})
    net = replace(around.nettings["coated-25-09"], wire_m=0.5)
    wired = replace(around, nettings={**around.nettings, "coated-25-09": net})
    cold = replace(around, air=Air(temperature_c=-40, relative_humidity=0.5))
    for each, path in ((broken, "varieties.rose.mass_kg"), (wired, "nettings.coated-25-09.wire_m"),
                       (cold, "air.temperature_c")):  # fmt: skip
        with pytest.raises(InvalidMeasure) as caught:
            evaluate(piece(), each)
        assert caught.value.path == path


def test_every_way_into_the_core_refuses() -> None:
    bad = replace(piece(), ballast_kg=-2.0)
    for act in (evaluate, making_of, lambda each, around: choose(each, around, on_hand=None)):
        with pytest.raises(InvalidMeasure):
            act(bad, conditions())
    rig = rigs.run()
    heavy = replace(rig, armature=replace(rig.armature, core_kg=math.nan))
    for act_rig in (assess, settle, lambda each, around: snip(each, around, 0)):
        with pytest.raises(InvalidMeasure) as caught:
            act_rig(heavy, conditions())
        assert caught.value.path == "armature.core_kg"


def test_more_stone_than_the_vessel_holds_is_refused_with_its_capacity() -> None:
    """By hand: a straight 1.9 L vessel takes 0.6 × 1.9 L of stone of 2500 kg/m³, 2.85 kg."""
    radius = math.sqrt(0.0019 / math.pi / 0.15)
    small = replace(piece(), vessel=ordinary.round_vessel((0.0, radius), (0.15, radius)))
    assert refusal(replace(small, ballast_kg=2.86)).limit.quantities["most"].value == pytest.approx(2.85)
    evaluate(replace(small, ballast_kg=2.84), conditions())


def raised(**changes: Any) -> Piece:
    column = Support(name="column", height_m=0.40, top_width_m=0.13, opening_m=0.124, column_width_m=0.124,
                     foot_width_m=0.13, mass_kg=1.2)  # fmt: skip
    tall = replace(piece().envelope, height_m=0.75)
    return replace(piece(), vessel=vessels()["raised-bowl-22"], envelope=tall, support=replace(column, **changes))


def test_more_ballast_water_than_the_column_holds_is_refused_with_its_capacity() -> None:
    """By hand: a column 12.4 cm across and 40 cm deep holds 4.83 L."""
    found = refusal(raised(water_l=20.0))
    assert found.path == "support.water_l"
    assert found.limit.quantities["most"].value == pytest.approx(4.83, abs=0.005)
    assert refusal(raised(water_l=0.5, opening_m=0.0)).path == "support.water_l"


def test_no_fix_asks_for_more_than_there_is_room_for() -> None:
    for each in (raised(), replace(piece(), envelope=replace(piece().envelope, height_m=0.9))):
        for verdict in evaluate(each, conditions()).verdicts:
            for fix in verdict.fixes:
                evaluate(fix.piece, conditions(), with_fixes=False)


def test_a_box_narrower_than_its_vessel_is_refused() -> None:
    boxed = replace(piece(), transport=Transport(box_width_m=0.15, box_wall_m=0.2))
    assert refusal(boxed).path == "transport.box_width_m"


def hints_of(kind: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Every field of a plan, with its type."""
    hints = get_type_hints(kind, include_extras=True)
    for each in fields(kind):
        hint = hints[each.name]
        yield f"{path}.{each.name}", hint
        inner = get_args(hint)[0] if get_origin(hint) is Annotated else hint
        for arm in (inner, *get_args(inner)):
            if is_dataclass(arm) and isinstance(arm, type):
                yield from hints_of(arm, f"{path}.{each.name}")


@pytest.mark.parametrize("kind", [Piece, Rig])
def test_every_number_of_a_plan_has_a_range(kind: Any) -> None:
    def numbers(hint: Any) -> bool:
        return any(arm in (int, float) or numbers(arm) for arm in (hint, *get_args(hint)) if arm is not hint or
                   arm in (int, float))  # fmt: skip

    def ranged(hint: Any) -> bool:
        return any(isinstance(mark, Range) for mark in get_args(hint)) or any(ranged(arm) for arm in get_args(hint))

    bare = [path for path, hint in hints_of(kind) if not is_dataclass(hint) and numbers(hint) and not ranged(hint)
            and not any(is_dataclass(arm) for arm in (*get_args(hint), *(a for each in get_args(hint) for a in get_args(each))))]  # fmt: skip  # noqa: E501
    assert bare == []


@dataclass(frozen=True, slots=True, kw_only=True)
class Sample:
    share: Annotated[float, Range("ratio", 0.25, 4.0)]
    over: Annotated[float, Range("length", 0, 1, above=True)] = 0.5
    many: Annotated[int | None, Range("count", 1, 9)] = None


@given(st.floats(allow_nan=True, allow_infinity=True))
def test_a_number_is_taken_exactly_inside_its_bounds(value: float) -> None:
    inside = 0.25 <= value <= 4.0
    assert (not list(ranges.outside(Sample(share=value)))) == inside


@pytest.mark.parametrize(
    ("sample", "path"),
    [
        (Sample(share=1.0, over=0.0), "over"),
        (Sample(share=1.0, over=1.0000001), "over"),
        (Sample(share=1.0, many=0), "many"),
        (Sample(share=1.0, many=10), "many"),
        (Sample(share=1.0, many=2.5), "many"),  # type: ignore[arg-type]
    ],
)
def test_bounds_are_held_to_the_last_digit(sample: Sample, path: str) -> None:
    assert [each.path for each in ranges.outside(sample, "here")] == [f"here.{path}"]
    assert list(ranges.outside(Sample(share=0.25, over=1e-12, many=9))) == []


def test_only_what_is_new_is_named_beside_a_plan_that_was_outside_before() -> None:
    kept = Sample(share=9.0)
    assert ranges.new_outside(replace(kept, over=0.7), kept) == ()
    assert [each.path for each in ranges.new_outside(replace(kept, share=8.0), kept)] == ["share"]
    assert [each.path for each in ranges.new_outside(replace(kept, over=2.0), kept)] == ["over"]


def test_top_ups_are_poured_in_order_of_their_time_however_they_were_typed() -> None:
    early, late = TopUp(after_h=2.0, volume_l=0.3), TopUp(after_h=5.0, volume_l=0.2)
    pairs = ((early, late), (late, early))
    one, other = (evaluate(replace(piece(), top_ups=each), conditions(), with_fixes=False) for each in pairs)
    assert one.water == other.water
    assert one.verdicts == other.verdicts


def test_the_names_of_fields_read_as_words() -> None:
    assert ranges.label_of("mechanic.tape_width_m") == "tape width"
    assert ranges.label_of("recipe.0.count") == "number of stems"
    assert ranges.label_of("support.water_l") == "water"


def test_an_unknown_kind_of_mechanic_says_so_and_does_not_end_in_a_trace() -> None:
    odd = replace(piece(), mechanic=Mechanic(kind="magic", netting="coated-25-09"))
    with pytest.raises(CoreError) as caught:
        evaluate(odd, conditions())
    assert caught.value.path == "mechanic.kind"
