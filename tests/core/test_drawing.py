"""What things look like: primitives, and how they are seen. Source: geometry, where a check names no other."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.drawing.heads import HEADS
from jolly_trellis.core.drawing.picture import NOTHING_DRAWN, Picture, Stem
from jolly_trellis.core.drawing.primitives import (
    Aspect,
    Dot,
    Layer,
    Primitive,
    Shape,
    Turned,
    box,
    column,
    line,
    moved,
    run,
)
from jolly_trellis.core.drawing.project import Flat, View, project
from jolly_trellis.core.drawing.vessels import drawn_vessel, drawn_water
from jolly_trellis.core.materials.vessels import inside_size_m
from tests import ordinary

RIGHT = math.pi / 2
ROSE = Stem(
    colour="#aa3344",
    form="ball",
    branch=False,
    held=False,
    seat_x_m=0.0,
    seat_y_m=0.0,
    seat_z_m=0.05,
    tip_x_m=0.1,
    tip_y_m=-0.2,
    tip_z_m=0.35,
    droop_m=0.0,
    end_x_m=0.0,
    end_y_m=0.02,
    end_z_m=0.01,
    diameter_m=0.006,
    head_radius_m=0.03,
    head_height_m=0.05,
)


def picture(*primitives: Primitive, rim_m: float = 0.1) -> Picture:
    return replace(NOTHING_DRAWN, primitives=primitives, rims_m=(rim_m,), reach_m=0.3, deep_m=0.3)


def flats(*primitives: Primitive, view: View) -> dict[str, Flat]:
    return {each.id: each for each in project(picture(*primitives), (), view)}


def points(*several: Flat) -> list[tuple[float, float]]:
    return [at for each in several for a_run in each.runs for at in a_run]


def level(flat: Flat) -> list[float]:
    return [each for at in flat.runs[0] for each in at]


def span(*several: Flat) -> tuple[float, float, float, float]:
    xs, ys = zip(*points(*several), strict=True)
    return min(xs), max(xs), min(ys), max(ys)


@pytest.mark.parametrize(
    ("view", "where"),
    [
        (View(), (1, 3)),
        (View(turn_rad=RIGHT), (2, 3)),
        (View(turn_rad=math.pi), (-1, 3)),
        (View(turn_rad=3 * RIGHT), (-2, 3)),
        (View(raised_rad=RIGHT), (1, 2)),
        (View(turn_rad=RIGHT, raised_rad=RIGHT), (2, -1)),
        (View(raised_rad=-RIGHT), (1, -2)),
        (View(raised_rad=math.radians(30)), (1, 3 * math.cos(math.radians(30)) + 2 * 0.5)),
    ],
)
def test_a_place_is_seen_from_all_round(view: View, where: tuple[float, float]) -> None:
    """x right, y back, z up: what lies back is to the right from the right side, and higher up from above."""
    dot = flats(Dot(id="it", ink="seat", layer=Layer.MARKS, at=(1, 2, 3), r_m=0.5), view=view)["it"]
    assert dot.dots[0] == pytest.approx((*where, 0.5))


def test_what_is_nearer_is_drawn_later_from_wherever_it_is_seen() -> None:
    front = Dot(id="front", ink="seat", layer=Layer.OVER, at=(0, -0.1, 0), r_m=0.01)
    left = Dot(id="left", ink="seat", layer=Layer.UNDER, at=(-0.2, 0, 0), r_m=0.01)
    top = Dot(id="top", ink="seat", layer=Layer.UNDER, at=(0, 0, 0.3), r_m=0.01)

    def order(view: View) -> list[str]:
        return [each.id for each in project(picture(front, left, top), (), view)]

    assert order(View())[-1] == "front"
    assert order(View(turn_rad=RIGHT))[0] == "left"
    assert order(View(turn_rad=3 * RIGHT))[-1] == "left"
    assert order(View(raised_rad=RIGHT))[-1] == "top"
    assert order(View(raised_rad=-RIGHT))[0] == "top"
    assert order(View(cut=True)) == ["left", "top", "front"]


def test_the_place_lies_behind_all_and_over_all_from_below_and_marks_lie_over_it() -> None:
    table = box("table", "surface", Layer.PLACE, (-1, -1, -0.1), (1, 1, 0))
    bud = Dot(id="bud", ink="seat", layer=Layer.HEADS, at=(0, 0, 0.2), r_m=0.01)
    mark = Dot(id="mark", ink="balance", layer=Layer.MARKS, at=(0, 5, 0.2), r_m=0.01)
    seen = project(picture(mark, bud, table), (), View(raised_rad=0.3))
    assert [each.id for each in seen] == ["table", "bud", "mark"]
    under = project(picture(mark, bud, table), (), View(raised_rad=-0.3))
    assert [each.id for each in under] == ["bud", "table", "mark"]


def test_a_thing_is_there_in_its_aspects_only() -> None:
    def there(aspect: str) -> set[str]:
        edge = line("it", "rim", Layer.MARKS, run([(0, 0, 0), (1, 0, 0)]))
        return set(flats(*(replace(edge, id=name, seen=(name,)) for name in names), view=views[aspect]))

    names: tuple[Aspect, ...] = ("front", "side", "above", "cut", "whole")
    views = {
        "front": View(),
        "back": View(turn_rad=math.pi, cut=True),
        "side": View(turn_rad=RIGHT),
        "above": View(raised_rad=RIGHT),
        "between": View(turn_rad=0.3, raised_rad=0.2),
    }
    assert there("front") == {"front", "whole"}
    assert there("back") == {"front", "cut"}
    assert there("side") == {"side", "whole"}
    assert there("above") == {"above", "whole"}
    assert there("between") == {"whole"}


@given(st.floats(0, 6.28), st.floats(-1.57, 1.57))
def test_a_box_is_seen_as_the_outline_of_its_corners(turn: float, raised: float) -> None:
    """A box of 2 × 1 × 1: its outline holds every corner, turns one way, and has four to six corners."""
    solid = box("box", "stone", Layer.BESIDE, (-1, -0.5, 0), (1, 0.5, 1))
    view = View(turn_rad=turn, raised_rad=raised)
    outline = flats(solid, view=view)["box"].runs[0]
    corners = [Dot(id=str(n), ink="seat", layer=Layer.MARKS, at=at, r_m=0) for n, at in enumerate(solid.runs[0])]
    seen = [each.dots[0][:2] for each in project(picture(*corners), (), view)]
    assert 4 <= len(outline) <= 6
    for (ax, ay), (bx, by) in zip(outline, outline[1:] + outline[:1], strict=True):
        assert all((bx - ax) * (y - ay) - (by - ay) * (x - ax) >= -1e-9 for x, y in seen)


def test_a_column_is_as_wide_as_it_is_from_every_side_and_its_top_is_an_ellipse() -> None:
    """10 cm across, 30 cm tall, seen 30° from above: its top is 10 × 5 cm, at 0.3·cos 30° ± 0.05·sin 30°."""
    solid = column("it", "clay", Layer.SUPPORT, [(0, 0.05), (0.3, 0.05)])
    seen = flats(solid, view=View(turn_rad=1.234, raised_rad=math.radians(30)))
    assert set(seen) == {"it-near", "it-edge", "it-end"}
    high = 0.3 * math.cos(math.radians(30))
    assert span(seen["it-end"]) == pytest.approx((-0.05, 0.05, high - 0.025, high + 0.025), abs=2e-3)
    assert span(seen["it-near"]) == pytest.approx((-0.05, 0.05, -0.025, high), abs=2e-3)
    assert span(flats(solid, view=View(turn_rad=2, cut=True))["it"]) == pytest.approx((-0.05, 0.05, 0, 0.3), abs=6e-4)
    assert set(flats(solid, view=View(raised_rad=-0.5))) == {"it-near", "it-edge", "it-end"}
    assert span(flats(solid, view=View(raised_rad=-RIGHT))["it-end"])[2:] == pytest.approx((-0.05, 0.05), abs=6e-4)
    assert set(flats(replace(solid, open=True), view=View(raised_rad=0.5))) == {"it-near", "it-edge"}


def test_a_square_vessel_is_wider_over_its_corners() -> None:
    """14 cm square: 14 cm from the front, 14·√2 = 19.8 cm over its corners; outside, with its wall, 15 and 21.2 cm."""
    cube = ordinary.vessels()["cube-14"]
    for turn, wide in ((0.0, 0.14), (math.pi / 4, 0.14 * math.sqrt(2))):
        seen = flats(*drawn_vessel(cube), view=View(turn_rad=turn, cut=True))
        assert span(seen["vessel-inside"])[1] * 2 == pytest.approx(wide, abs=1e-4)
        assert span(seen["vessel-wall"])[1] * 2 == pytest.approx(wide * 0.15 / 0.14, abs=1e-4)


def test_a_bowl_shows_its_inside_from_above_and_its_outside_from_below() -> None:
    bowl = drawn_vessel(ordinary.vessels()["low-bowl-20"])
    above = flats(*bowl, view=View(raised_rad=RIGHT))
    assert "vessel-inside-far" in above
    assert "vessel-wall-near" not in above
    assert span(above["vessel-inside-far"]) == pytest.approx((-0.1, 0.1, -0.1, 0.1), abs=6e-4)
    below = flats(*bowl, view=View(raised_rad=-RIGHT))
    assert span(below["vessel-wall-near"], below["vessel-wall-far"]) == pytest.approx(
        (-0.106, 0.106, -0.106, 0.106), abs=6e-4
    )
    assert below["vessel-inside-far"].runs == ()
    assert span(below["vessel-wall-end"])[1] == pytest.approx(0.055, abs=6e-4)
    order = [each.id for each in project(picture(*bowl), (), View(raised_rad=0.4))]
    assert order.index("vessel-inside-far") < order.index("vessel-wall-near")


def test_water_is_drawn_as_high_as_it_stands_and_as_wide_as_the_vessel_there() -> None:
    bowl = ordinary.vessels()["low-bowl-20"]
    water, surface = drawn_water(bowl, 0.06, up_m=0.3)
    seen = flats(water, surface, view=View(cut=True))
    wide = inside_size_m(bowl, 0.06)[0] / 2
    floor = 0.3 + bowl.base_m
    assert span(seen["water"]) == pytest.approx((-wide, wide, floor, floor + 0.06), abs=2e-4)
    assert span(seen["water-line"]) == pytest.approx((-wide, wide, floor + 0.06, floor + 0.06), abs=2e-4)
    assert drawn_water(bowl, 0.0) == ()


def test_a_stem_comes_out_at_the_rim_and_ends_in_its_head() -> None:
    """From its seat at (0, 0, 0.05) to its tip at (0.1, -0.2, 0.35) it meets the rim, 0.1 high, a sixth of the way."""
    seen = {each.id: each for each in project(picture(rim_m=0.1), (ROSE,), View(turn_rad=0, raised_rad=0))}
    assert level(seen["stem-0-low"]) == pytest.approx([0, 0.01, 0, 0.05, 0.1 / 6, 0.1])
    assert level(seen["stem-0"]) == pytest.approx([0.1 / 6, 0.1, 0.1, 0.35])
    assert seen["stem-0"].width_m == pytest.approx(0.0042)
    cut = {each.id: each for each in project(picture(rim_m=0.1), (ROSE,), View(cut=True))}
    assert level(cut["stem-0"]) == pytest.approx([0, 0.01, 0, 0.05, 0.1 / 6, 0.1, 0.1, 0.35])
    x, y, r = cut["head-0-0"].dots[0]
    assert (x, y, r) == pytest.approx((0.1, 0.35, 0.03))
    assert cut["head-0-0"].colour == "#aa3344"
    # it stands 20 cm to the front of a picture that reaches 30 cm: a sixth of the way back
    assert cut["head-0-0"].far == pytest.approx(1 / 6)


def test_a_drooping_tip_a_branch_and_a_stem_held_by_hand_look_it() -> None:
    stem = replace(ROSE, droop_m=0.05, branch=True, held=True)
    seen = {each.id: each for each in project(picture(rim_m=0.1), (stem,), View())}
    assert seen["stem-0"].runs[0][-1] == pytest.approx((0.1, 0.30))
    assert seen["stem-0"].ink == "bark"
    # three lines of bark on each of its reaches, each a fifth as long as the reach
    bark = seen["stem-0-bark"].runs
    assert len(bark) == 9
    (low, high) = bark[6]
    top = seen["stem-0"].runs[0]
    assert math.dist(low, high) == pytest.approx(0.2 * math.dist(*top))
    assert low == pytest.approx([a + 0.1 * (b - a) for a, b in zip(*top, strict=True)])
    assert not any("bark" in each for each in flats(view=View()))
    assert seen["head-0-held"].dots[0][:2] == pytest.approx((0.1, 0.30))


def test_a_stem_in_a_tube_stands_in_it() -> None:
    """From the cut end on, as long as the tube is along the straight line to the tip; no longer than that line."""
    stem = replace(ROSE, tube_length_m=0.09, tube_width_m=0.014)
    end, tip = (0.0, 0.02, 0.01), (0.1, -0.2, 0.35)
    share = 0.09 / math.dist(end, tip)
    seen = {each.id: each for each in project(picture(rim_m=0.1), (stem,), View())}
    assert seen["tube-0"].width_m == 0.014
    low, high = seen["tube-0"].runs[0]
    assert low == pytest.approx((0.0, 0.01))
    assert high == pytest.approx((share * 0.1, 0.01 + share * 0.34))
    long = replace(stem, tube_length_m=2.0)
    seen = {each.id: each for each in project(picture(rim_m=0.1), (long,), View())}
    assert seen["tube-0"].runs[0][1] == pytest.approx((0.1, 0.35))
    seen = {each.id: each for each in project(picture(rim_m=0.1), (ROSE,), View())}
    assert "tube-0" not in seen


def test_a_rose_turned_away_hides_its_heart() -> None:
    def pales(view: View) -> list[float]:
        return [each.pale for each in project(picture(rim_m=0.1), (ROSE,), view) if each.ink == "head"]

    assert pales(View()) == sorted(pales(View()))
    assert pales(View(turn_rad=math.pi)) == sorted(pales(View()), reverse=True)


@pytest.mark.parametrize("form", list(HEADS))
def test_a_head_stays_by_its_tip_and_comes_off_no_lower_than_its_stem(form: str) -> None:
    """Within a radius and a half of the stem's end, along no more than the head's length."""
    stem = replace(ROSE, form=form, tip_x_m=0.0, tip_y_m=0.0, head_height_m=0.9)  # type: ignore[arg-type]
    seen = [each for each in project(picture(rim_m=0.1), (stem,), View()) if each.ink in ("head", "rib")]
    xs = [abs(x) for x, _ in points(*seen)] + [abs(x) + r for each in seen for x, _, r in each.dots]
    ys = [y for _, y in points(*seen)] + [y - r for each in seen for _, y, r in each.dots]
    assert max(xs) <= 1.5 * 0.03
    assert min(ys) >= 0.1 - 0.03
    assert max(ys) <= 0.35 + 0.03


def test_a_tassel_hangs_from_a_level_stem_and_a_spike_lies_along_it() -> None:
    level = replace(ROSE, tip_y_m=0.0, tip_x_m=0.3, tip_z_m=0.3, seat_z_m=0.3, head_height_m=0.2)

    def low(form: str) -> tuple[float, float]:
        stem = replace(level, form=form)  # type: ignore[arg-type]
        dots = [at for each in project(picture(rim_m=0.1), (stem,), View()) for at in each.dots]
        return min(x for x, _, _ in dots), min(y for _, y, _ in dots)

    assert low("tassel") == pytest.approx((0.3 - 0.55 * 0.03, 0.3 - 0.2 * 6.5 / 7), abs=5e-3)
    assert low("spike")[0] == pytest.approx(0.3 - 0.97 * 0.2, abs=5e-3)


def test_what_is_moved_is_the_same_under_another_name() -> None:
    parts: tuple[Primitive, ...] = (
        line("a", "wire", Layer.OVER, run([(0, 0, 0), (1, 1, 1)])),
        column("b", "clay", Layer.OVER, [(0, 1), (1, 1)]),
        Dot(id="c", ink="seat", layer=Layer.OVER, at=(0, 0, 0), r_m=1),
    )
    shape, turned, dot = (moved(each, (1, 2, 3), "x-") for each in parts)
    assert isinstance(shape, Shape)
    assert isinstance(turned, Turned)
    assert isinstance(dot, Dot)
    assert (shape.id, shape.runs) == ("x-a", (((1, 2, 3), (2, 3, 4)),))
    assert (turned.id, [ring.at for ring in turned.rings]) == ("x-b", [(1, 2, 3), (1, 2, 4)])
    assert (dot.id, dot.at) == ("x-c", (1, 2, 3))


def test_a_step_is_drawn_as_a_step() -> None:
    """5 cm of radius up to 10 cm, 10 cm from there: both sizes stand at 10 cm, inside and, with the wall, outside."""
    stepped = ordinary.round_vessel((0, 0.05), (0.1, 0.05), (0.1, 0.1), (0.2, 0.1))
    outside, inside = drawn_vessel(stepped)
    for body, wall in ((inside, 0.0), (outside, stepped.wall_m)):
        assert isinstance(body, Turned)
        there = [ring.half_width_m for ring in body.rings if ring.at[2] == pytest.approx(stepped.base_m + 0.1)]
        assert there == pytest.approx([0.05 + wall, 0.1 + wall])
    water = drawn_water(stepped, 0.15)[0]
    assert isinstance(water, Turned)
    assert [ring.half_width_m for ring in water.rings] == pytest.approx([0.05, 0.05, 0.1, 0.1])
