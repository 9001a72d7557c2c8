"""Fixes: each one offered is built, judged again and mends; for plans that fail in their own way."""

from dataclasses import replace

import pytest

from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks import drink, hide, hold, hold_fixes, lift, see, stand, travel
from jolly_trellis.core.checks.fixing import Candidate, Check, Inverse, Judge, Outcome, judged_by_all
from jolly_trellis.core.checks.verdicts import State, Verb, Verdict, Worse
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Mechanic, Piece, Support
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import People, Setting, Transport
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.units import render
from tests.ordinary import conditions, piece, recipe, stems, vessels

WAYS: dict[str, tuple[Judge, Inverse]] = {
    "hold": (hold.judge, hold_fixes.candidates),
    "stand": (stand.judge, stand.candidates),
    "drink": (drink.judge, drink.candidates),
    "travel": (travel.judge, travel.candidates),
    "hide": (hide.judge, hide.candidates),
    "see": (see.judge, see.candidates),
    "lift": (lift.judge, lift.candidates),
}


def keys(plan: Piece, verb: str) -> set[str]:
    judge, inverse = WAYS[verb]
    made = build(plan, conditions())
    return {each.key for each in inverse(made, judge(made))}


def verdict(plan: Piece, verb: str) -> Verdict:
    return next(each for each in evaluate(plan, conditions()).verdicts if each.verb == verb)


def on(plan: Piece, **changes: object) -> Piece:
    return replace(plan, mechanic=replace(plan.mechanic, **changes))  # type: ignore[arg-type]


LOOSE = on(piece(), netting="bare-50-10", layers=1)
ON_A_STAND = replace(
    piece(),
    envelope=replace(piece().envelope, height_m=0.9),
    support=Support(name="stand", height_m=0.6, top_width_m=0.12, foot_width_m=0.16, mass_kg=1.2),
    transport=Transport(box_wall_m=0.2, apart=False),
)
ACROSS_A_TABLE = replace(
    piece(),
    envelope=replace(piece().envelope, height_m=0.55, width_m=0.55, depth_m=0.55),
    setting=Setting(where="table", people=People()),
)
FAILING = {
    "loose netting": ("hold", LOOSE),
    "thirsty": ("drink", replace(stems(piece(), 45), water_level_m=0.04)),
    "low box": ("travel", replace(piece(), transport=Transport(box_wall_m=0.02))),
    "bare vessel": ("hide", replace(piece(), recipe=recipe(rose=(6, "focal")))),
}


@pytest.mark.parametrize("name", sorted(FAILING))
def test_every_fix_offered_mends_what_it_is_offered_for(name: str) -> None:
    verb, plan = FAILING[name]
    said = verdict(plan, verb)
    assert said.state in ("fails", "tight"), said.reason
    assert said.fixes
    for fix in said.fixes:
        again = verdict(fix.piece, verb)
        assert again.state == fix.state_after
        assert again.state != "fails"
        assert (again.utilisation or 0.0) == pytest.approx(fix.utilisation_after)
        assert fix.piece != plan
        assert render(fix.say, "inch")


def test_fixes_say_each_a_different_thing_and_a_step_up_is_no_worse() -> None:
    """Of a family of ever larger changes at most two are offered: the least that mends, the least that holds."""
    for verb, plan in FAILING.values():
        fixes = verdict(plan, verb).fixes
        assert len({render(each.say, "metric") for each in fixes}) == len(fixes)
        families = [each.key.rpartition("-")[0] or each.key for each in fixes]
        assert all(families.count(each) <= 2 for each in families)


class TestHold:
    def test_a_single_layer_may_be_folded_again(self) -> None:
        assert "one-more-layer" in keys(LOOSE, "hold")

    def test_at_most_layers_it_is_not_folded_again(self) -> None:
        assert "one-more-layer" not in keys(on(piece(), layers=4), "hold")

    def test_finer_netting_is_offered_only_where_the_thickest_stem_passes(self) -> None:
        offered = {each for each in keys(LOOSE, "hold") if each.startswith("netting-")}
        assert offered
        thick = replace(LOOSE, recipe=(*LOOSE.recipe, RecipeLine(variety="sunflower", count=2, role="focal")))
        assert {each for each in keys(thick, "hold") if each.startswith("netting-")} <= offered

    def test_a_grid_is_set_closer_and_a_moulded_lattice_cannot_be(self) -> None:
        assert "closer" in keys(replace(piece(), mechanic=Mechanic(kind="tape_grid", cell_m=0.04)), "hold")
        assert "closer" not in keys(replace(piece(), mechanic=Mechanic(kind="lattice_disc", cell_m=0.05)), "hold")

    def test_a_cushion_in_a_deep_vessel_may_be_set_wider_apart(self) -> None:
        deep = replace(piece(), vessel=vessels()["cube-14"], water_level_m=0.09)
        assert "wider-gap" in keys(on(deep, layer_gap_m=0.03), "hold")

    def test_a_single_level_has_no_gap_to_widen(self) -> None:
        assert "wider-gap" not in keys(LOOSE, "hold")

    def test_stems_without_a_seat_may_be_left_out_line_by_line(self) -> None:
        crowded = stems(piece(), 300)
        made = build(crowded, conditions())
        over = int(made.placement.stems.stems_in_row[made.placement.over_capacity].sum())
        assert over > 0
        fewer = next(each for each in hold_fixes.candidates(made, hold.judge(made)) if each.key == "fewer-stems")
        left = sum(line.count for line in fewer.piece.recipe)
        assert left == sum(line.count for line in crowded.recipe) - over

    def test_a_line_that_finds_no_seat_at_all_goes_whole(self) -> None:
        """Airy stems go in last: of fifty in a bowl that is full, none finds a seat."""
        crowded = stems(piece(), 300)
        last = replace(crowded, recipe=(*crowded.recipe, RecipeLine(variety="gypsophila", count=3, role="airy")))
        made = build(last, conditions())
        rows = [made.placement.stems.variety_of(row).key for row in range(len(made.placement.stems))]
        none = [key == "gypsophila" and over for key, over in zip(rows, made.placement.over_capacity, strict=True)]
        assert sum(none) == 3
        fewer = next(each for each in hold_fixes.candidates(made, hold.judge(made)) if each.key == "fewer-stems")
        assert "gypsophila" not in {line.variety for line in fewer.piece.recipe}
        assert all(line.count > 0 for line in fewer.piece.recipe)

    def test_a_failing_lattice_may_give_way_to_netting(self) -> None:
        lattice = replace(
            piece(), mechanic=Mechanic(kind="tape_grid", cell_m=0.08), recipe=recipe(hydrangea=(4, "focal"))
        )
        assert verdict(lattice, "hold").state == "fails"
        assert {"kind-stacked_pair", "kind-folded_cushion"} <= keys(lattice, "hold")


class TestTravel:
    def test_a_bowl_left_on_its_stand_is_told_to_ride_apart(self) -> None:
        said = verdict(ON_A_STAND, "travel")
        assert any(each.check == "on its support" for each in said.findings)
        assert said.state == "fails"
        assert "apart" in {each.key for each in said.fixes}

    def test_riding_apart_the_stand_says_nothing_of_the_road(self) -> None:
        apart = replace(ON_A_STAND, transport=Transport(box_wall_m=0.2, apart=True))
        assert not any(each.check == "on its support" for each in verdict(apart, "travel").findings)

    def test_the_water_it_rides_with_may_be_lowered(self) -> None:
        full = replace(piece(), transport=Transport(box_wall_m=0.2, water_level_m=0.083))
        assert "lower-water" in keys(full, "travel")

    def test_making_it_on_site_always_mends_the_journey(self) -> None:
        low = replace(piece(), transport=Transport(box_wall_m=0.02))
        (on_site,) = (each for each in verdict(low, "travel").fixes if each.key == "on-site")
        assert on_site.state_after == "not needed"


class TestOthers:
    def test_an_unpadded_foot_by_an_edge_is_offered_rubber(self) -> None:
        by_edge = replace(piece(), setting=replace(piece().setting, where="table", free_table_m=0.05))
        assert "rubber" in keys(by_edge, "stand")

    def test_a_vessel_on_a_wide_foot_may_be_bonded_to_a_wider_one(self) -> None:
        assert any(each.startswith("base-") for each in keys(piece(), "stand"))

    def test_flowers_in_the_way_of_guests_may_come_down_or_go_up(self) -> None:
        said = verdict(ACROSS_A_TABLE, "see")
        assert said.state == "fails"
        assert said.fixes
        assert all(verdict(each.piece, "see").state != "fails" for each in said.fixes)

    def test_without_a_leaf_in_the_recipe_the_stores_give_one_that_lasts(self) -> None:
        covers = [each for each in verdict(FAILING["bare vessel"][1], "hide").fixes if each.key.startswith("cover-")]
        assert covers
        leaf = conditions().varieties[covers[0].piece.recipe[-1].variety]
        assert leaf.form == "leaf"
        assert not leaf.branch
        assert not leaf.toxic

    def test_with_leaves_in_the_recipe_more_of_the_same_are_added_to_their_line(self) -> None:
        bare = replace(piece(), recipe=recipe(rose=(6, "focal"), pittosporum=(2, "base")))
        for fix in verdict(bare, "hide").fixes:
            if fix.key.startswith("cover-"):
                assert [each.variety for each in fix.piece.recipe] == ["rose", "pittosporum"]
                assert fix.piece.recipe[1].count > 2


def said(verb: Verb, state: State) -> Verdict:
    return Verdict(verb=verb, state=state, reason=phrase("as it is"))


def test_a_fix_names_what_it_makes_worse_not_what_stays_and_one_that_makes_nothing_worse_comes_first() -> None:
    """Hold failed; after the first Stand is tight, Drink as it was, Lift well again; the second harms none."""
    with conditions().figures.open():
        made = build(piece(), conditions())
    other = replace(made, piece=replace(made.piece, name="other"))
    after: dict[tuple[str, Verb], State] = {("other", "stand"): "holds"}

    def judging(verb: Verb, state: State) -> Check:
        def judge(of: Build) -> Verdict:
            return said(verb, after.get((of.piece.name, verb), state))

        return Check(verb=verb, judge=judge, candidates=lambda *_: [])

    before = [said("hold", "fails"), said("stand", "holds"), said("drink", "tight"), said("lift", "fails")]
    checks = [judging("hold", "fails"), judging("stand", "tight"), judging("drink", "tight"), judging("lift", "holds")]
    mends = [
        Outcome(
            candidate=Candidate(key=key, say=phrase("do it"), piece=each.piece),
            build=each,
            verdict=said("hold", "holds"),
        )
        for key, each in (("harms", made), ("helps", other))
    ]
    fixes = judged_by_all(mends, before, checks, "hold")
    assert [(each.key, each.worse) for each in fixes] == [
        ("helps", ()),
        ("harms", (Worse(verb="stand", before="holds", after="tight"),)),
    ]
