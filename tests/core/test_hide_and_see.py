"""Hide and See: lines of sight through heads and leaves, from every side, over the table, through glass."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import hide, see
from jolly_trellis.core.checks.sight import Mass, seen_along, seen_share
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Mechanic, Piece, Support
from jolly_trellis.core.plan.setting import People, Setting
from tests.ordinary import conditions, piece, recipe, vessels


def verdict(plan: Piece, verb: str) -> Verdict:
    return next(each for each in evaluate(plan, conditions()).verdicts if each.verb == verb)


def ball(x: float, y: float, z: float, radius: float, opacity: float = 1.0) -> Mass:
    return Mass(centre_m=np.array([[x, y, z]]), radius_m=np.array([radius]), opacity=np.array([opacity]))


EYE, POINT = np.array([[0.0, -1.0, 0.0]]), np.array([[0.0, 1.0, 0.0]])


class TestLinesOfSight:
    def test_nothing_in_the_way_hides_nothing(self) -> None:
        assert seen_share(ball(0.5, 0.0, 0.0, 0.1), EYE, POINT)[0, 0] == pytest.approx(1.0)

    def test_a_ball_on_the_line_hides_what_lies_behind_it(self) -> None:
        assert seen_share(ball(0.0, 0.0, 0.0, 0.1), EYE, POINT)[0, 0] < 0.01

    @pytest.mark.parametrize("y", [-1.5, 1.5])
    def test_a_ball_behind_the_eye_or_beyond_the_point_hides_nothing(self, y: float) -> None:
        assert seen_share(ball(0.0, y, 0.0, 0.1), EYE, POINT)[0, 0] == pytest.approx(1.0)

    def test_a_ball_touches_exactly_at_its_radius(self) -> None:
        inside, outside = (seen_share(ball(x, 0.0, 0.0, 0.1), EYE, POINT)[0, 0] for x in (0.0999, 0.1001))
        assert inside < 0.01 < outside

    def test_two_thin_leaves_let_through_the_product(self) -> None:
        two = Mass(
            centre_m=np.array([[0.0, 0.0, 0.0], [0.0, 0.3, 0.0]]),
            radius_m=np.array([0.1, 0.1]),
            opacity=np.array([0.7, 0.25]),
        )
        assert seen_share(two, EYE, POINT)[0, 0] == pytest.approx(0.3 * 0.75, rel=1e-3)

    def test_without_flowers_everything_is_seen(self) -> None:
        none = Mass(centre_m=np.zeros((0, 3)), radius_m=np.zeros(0), opacity=np.zeros(0))
        assert seen_along(none, EYE, POINT - EYE)[0] == 1.0

    @given(st.floats(-0.3, 0.3), st.floats(-0.9, 0.9), st.floats(0.02, 0.3), st.floats(0.0, 0.99))
    def test_no_ball_ever_shows_more(self, x: float, y: float, radius: float, opacity: float) -> None:
        seen = float(seen_share(ball(x, y, 0.0, radius, opacity), EYE, POINT)[0, 0])
        assert 0.0 <= seen <= 1.0 + 1e-6


def leafy(number: int) -> Piece:
    return replace(
        piece(),
        recipe=recipe(ruscus=(6, "margin"), pittosporum=(number, "base"), rose=(8, "focal"), scabious=(4, "airy")),
    )


def test_more_leaves_round_the_rim_show_less_of_it() -> None:
    shares = []
    for number in (2, 8, 16, 26):
        said = hide.judge(build(leafy(number), conditions()))
        shares.append(max(each.value.value for each in said.findings if each.check == "rim band"))
    assert shares == sorted(shares, reverse=True)
    assert shares[-1] < 0.03 < shares[0]


def test_a_bare_rim_fails_and_leaves_mend_it() -> None:
    said = verdict(leafy(3), "hide")
    assert said.state == "fails"
    assert any(fix.key.startswith("cover") for fix in said.fixes)
    for fix in said.fixes:
        assert verdict(fix.piece, "hide").state in ("holds", "tight")


def test_under_three_per_cent_holds_and_up_to_eight_is_tight() -> None:
    assert hide.SHOWS_GOOD.value == 0.03
    assert hide.SHOWS_LIMIT.value == 0.08
    tight = hide.shows("rim band", 0.05, hide.SHOWS_LIMIT, "the rim", "from the front, seated")
    good = hide.shows("rim band", 0.02, hide.SHOWS_LIMIT, "the rim", "from the front, seated")
    assert (good.state, tight.state) == ("holds", "tight")


def test_an_event_may_let_a_little_show() -> None:
    plan = leafy(8)
    strict = verdict(plan, "hide")
    lax = verdict(replace(plan, setting=replace(plan.setting, people=People(a_little_may_show=True))), "hide")
    assert strict.governing is not None
    assert lax.governing is not None
    assert lax.governing.utilisation < strict.governing.utilisation


def test_nobody_said_who_looks() -> None:
    unknown = replace(piece(), setting=replace(piece().setting, people=None))
    assert verdict(unknown, "hide").state == verdict(unknown, "see").state == "cannot say"


def test_nobody_looking_needs_nothing_hidden() -> None:
    alone = replace(piece(), setting=replace(piece().setting, people=People(seated=False, standing=False)))
    assert verdict(alone, "hide").state == "not needed"


def cube(lining: bool, mechanic: Mechanic | None = None) -> Piece:
    return replace(
        leafy(26),
        vessel=vessels()["cube-14"],
        water_level_m=0.11,
        lining=lining,
        mechanic=mechanic or piece().mechanic,
    )


def test_wire_shows_through_clear_glass_until_it_is_lined() -> None:
    bare = verdict(cube(False), "hide")
    assert bare.state == "fails"
    assert bare.governing is not None
    assert bare.governing.check == "through the glass"
    assert "lining" in {fix.key for fix in bare.fixes}
    assert not any(each.check == "through the glass" for each in verdict(cube(True), "hide").findings)


def test_a_handsome_tangle_may_show_through_glass() -> None:
    tangle = verdict(cube(False, Mechanic(kind="branch_tangle")), "hide")
    assert not any(each.check == "through the glass" for each in tangle.findings)


def test_the_underside_of_a_raised_bowl_is_looked_at_from_below() -> None:
    raised = replace(
        leafy(8),
        support=Support(name="stand", height_m=0.6, top_width_m=0.14, foot_width_m=0.25, mass_kg=3.0),
        envelope=replace(piece().envelope, height_m=0.9),
    )
    assert any(each.check == "underside" for each in verdict(raised, "hide").findings)
    assert not any(each.check == "underside" for each in verdict(leafy(8), "hide").findings)


def test_a_front_facing_fan_is_not_looked_at_from_behind() -> None:
    all_round = hide.eyes_m(People(), raised_floor_m=0.75, front_facing=False)
    front = hide.eyes_m(People(), raised_floor_m=0.75, front_facing=True)
    assert len(front) < len(all_round) == 24
    assert front[:, 1].max() < 0.02


def test_a_low_bowl_lets_guests_see_one_another() -> None:
    assert verdict(piece(), "see").state == "holds"


def high(top: float, width: float = 0.5) -> Piece:
    return replace(leafy(10), envelope=replace(piece().envelope, height_m=top, width_m=width, depth_m=width))


def test_flowers_at_eye_height_fail_and_lower_ones_mend_it() -> None:
    said = verdict(high(0.6), "see")
    assert said.state == "fails"
    assert said.fixes
    for fix in said.fixes:
        assert verdict(fix.piece, "see").state in ("holds", "tight")


def test_what_is_wholly_above_the_eyes_on_a_slim_stand_lets_guests_see() -> None:
    support = Support(name="stand", height_m=0.75, top_width_m=0.14, foot_width_m=0.3, mass_kg=4, column_width_m=0.02)
    raised = replace(high(1.15), support=support)
    assert verdict(raised, "see").state in ("holds", "tight")
    thick = replace(raised, support=replace(support, column_width_m=0.3))
    assert verdict(thick, "see").state == "fails"
    assert verdict(replace(thick, support=replace(support, column_width_m=0.3, clear=True)), "see").state != "fails"


@pytest.mark.parametrize(
    "setting",
    [
        Setting(where="floor"),
        Setting(where="bar"),
        Setting(people=People(seated=False)),
        Setting(people=People(both_sides=False)),
    ],
)
def test_where_nobody_sits_across_nothing_need_be_seen(setting: Setting) -> None:
    assert verdict(replace(piece(), setting=setting), "see").state == "not needed"


def test_pairs_of_eyes_are_every_seat_and_height_on_both_sides() -> None:
    near, far = see.pairs_m(0.75, 0.55)
    assert near.shape == far.shape == (81, 3)
    assert set(np.round(near[:, 1], 3)) == {-0.55}
    assert near[:, 2].mean() == pytest.approx(1.215 - 0.75)
    assert {round(float(z), 3) for z in near[:, 2]} == {0.42, 0.465, 0.51}


def test_a_ball_between_all_eyes_blocks_every_view_across_it() -> None:
    near, far = see.pairs_m(0.75, 0.55)
    straight = (near[:, 0] == 0) & (far[:, 0] == 0)
    wall = Mass(centre_m=np.array([[0.0, 0.0, 0.465]]), radius_m=np.array([0.2]), opacity=np.array([1.0]))
    assert see.clear_share(wall, near[straight], far[straight]) == 0.0
    assert see.clear_share(ball(0.0, 0.0, 0.1, 0.1), near, far) == 1.0


def test_a_thin_stem_of_flowers_blocks_less_than_a_sixth_of_the_disc() -> None:
    near, far = see.pairs_m(0.75, 0.55)
    twig = ball(0.0, 0.0, 0.465, 0.004)
    assert see.clear_share(twig, near, far) > 0.5
    assert math.isclose(see.clear_share(ball(0.0, 0.0, 0.465, 0.03, 0.1), near, far), 1.0)
