"""Acts: what follows from the choices, the worked table of a piece made in three ways, laws over random plans."""

from collections import Counter
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_trellis.core.acts.acts import Act, Acts, Lot, where
from jolly_trellis.core.acts.of_piece import acts_of, recipes_of
from jolly_trellis.core.acts.passed import passed
from jolly_trellis.core.acts.stances import (
    EVERY,
    Stance,
    after,
    lines_that_ride,
    rides_flowered,
    stances,
    while_flowered,
)
from jolly_trellis.core.books import bodies
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.plan.passage import Afterwards, Cooled, GoesIn, Handover, MadeIn, Passage
from jolly_trellis.core.plan.piece import Counterweight, Insert, Piece, Spill, Support
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.acts import acts_of_rig
from jolly_trellis.core.rigging.rig import Mount
from tests.ordinary import beside, bouquet, conditions, on_ledge, piece, recipe, varieties, vessels
from tests.rigs import run

STONE = Counterweight(mass_kg=1.5, away_m=0.14, azimuth_rad=3.1416, tied=False)


def kinds(acts: tuple[Act, ...]) -> list[str]:
    return [each.kind for each in acts]


def of(plan: Piece) -> Acts:
    return acts_of(plan, varieties())


def choosing(plan: Piece, **choices: object) -> Piece:
    return replace(plan, passage=replace(plan.passage, **choices))  # type: ignore[arg-type]


def going_in(plan: Piece, when: GoesIn) -> Piece:
    return replace(plan, recipe=tuple(replace(line, goes_in=when) for line in plan.recipe))


def test_a_bowl_made_in_the_workshop() -> None:
    assert kinds(of(piece())) == [
        "make", "water", "green", "flower", "load", "carry in", "fill", "take the stems out", "tip out", "bring home",
    ]  # fmt: skip


def test_a_bowl_made_where_it_stands_goes_dry_and_is_watered_greened_and_flowered_there() -> None:
    acts = of(choosing(piece(), made="its place"))
    assert kinds(acts) == [
        "make", "load", "carry in", "make there", "water", "green", "flower", "fill", "take the stems out", "tip out",
        "bring home",
    ]  # fmt: skip
    assert [each.place for each in acts][:7] == ["workshop", "van", "place", "place", "place", "place", "place"]
    loaded = next(each for each in acts if each.kind == "load")
    assert {spot.held for lot, spot in loaded.moves.items() if lot.what == "stems"} == {"in a bucket"}
    assert not rides_flowered(acts)
    assert lines_that_ride(acts) == frozenset()


def test_one_that_is_made_dry_is_filled_when_its_stems_are_in() -> None:
    dry = replace(piece(), making=replace(piece().making, water_last=True))
    assert kinds(of(dry))[:4] == ["make", "green", "flower", "water"]
    stance = while_flowered(of(dry))
    assert stance is not None
    assert stance.level is None


def test_the_overhang_comes_off_before_the_weight_and_the_water_goes_last() -> None:
    plan = replace(on_ledge(), counterweight=replace(STONE, tied=True))
    there = kinds(of(plan))
    assert there[2] == "water"
    assert there[1] == "lay the weight at the bench"
    assert there[there.index("carry in") + 1] == "lay the weight"
    assert there[-4:] == ["take the stems out", "take the weight off", "tip out", "bring home"]
    later = kinds(of(choosing(plan, weight="there")))
    assert "lay the weight at the bench" not in later


def test_what_it_stands_in_or_on_rides_as_somebody_chose() -> None:
    support = Support(name="stand", height_m=0.4, top_width_m=0.2, foot_width_m=0.2, mass_kg=2.0)
    urn = Insert(outer=vessels()["urn-24"])
    stood = replace(piece(), support=support, transport=Transport(apart=True))
    inside = replace(piece(), insert=urn, transport=Transport(lifted_out=False))

    def held(plan: Piece, what: str) -> list[str]:
        loaded = next(each for each in of(plan) if each.kind == "load")
        return [spot.held for lot, spot in loaded.moves.items() if lot.what == what]

    assert held(stood, "support") == ["apart"]
    assert held(replace(stood, transport=Transport(apart=False)), "support") == ["under it"]
    assert held(inside, "urn") == ["under it"]
    assert held(replace(inside, transport=Transport(lifted_out=True)), "urn") == ["apart"]
    assert held(choosing(inside, made="its place"), "urn") == ["apart"]
    stones = replace(piece(), ballast_kg=1.0)
    assert held(stones, "stone") == ["in it"]
    assert held(choosing(stones, made="its place"), "stone") == ["apart"]


def test_ballast_water_of_a_support_is_poured_where_it_is_shown() -> None:
    column = Support(
        name="column", height_m=0.6, top_width_m=0.16, opening_m=0.12, foot_width_m=0.16, mass_kg=2.5, water_l=6.0
    )
    acts = of(replace(piece(), support=column))
    filled = next(each for each in acts if each.kind == "fill")
    assert Lot(what="ballast water") in filled.moves
    assert all(Lot(what="ballast water") not in each.moves for each in acts[: acts.index(filled)])
    assert acts[-2].moves[Lot(what="ballast water")].place == "drain"


def test_a_piece_that_moves_leaves_its_weight_and_gets_its_later_stems_there() -> None:
    plan = replace(on_ledge(), counterweight=STONE)
    plan = replace(plan, setting=replace(plan.setting, moves_to="table"))
    plan = replace(plan, recipe=(*plan.recipe[:-1], replace(plan.recipe[-1], goes_in="after the move")))
    acts = of(plan)
    moved = next(each for each in acts if each.kind == "move")
    assert Lot(what="weight") not in moved.moves
    assert kinds(acts).index("flower after the move") == kinds(acts).index("move") + 1
    at_last = after(acts, "flower after the move")
    assert at_last is not None
    assert (at_last.place, at_last.weight, at_last.level) == ("moved to", False, "show")
    assert "move" not in kinds(of(replace(plan, setting=replace(plan.setting, moves_to="ledge"))))


def test_what_is_carried_is_cooled_and_handed_over() -> None:
    plan = choosing(bouquet(), cooled=Cooled(days=2.0), handover=Handover(to="the bride"))
    assert kinds(of(plan))[-4:] == ["cool", "load", "carry in", "hand over"]
    assert where(of(plan), 99)[Lot(what="mechanic")].place == "others"
    vase = while_flowered(of(plan))
    assert vase is not None
    assert vase.level == "show"
    assert kinds(of(bouquet()))[-1] == "carry in"


@pytest.mark.parametrize("end", ["stays", "given"])
def test_what_stays_or_is_given_is_not_struck(end: Afterwards) -> None:
    acts = of(choosing(piece(), afterwards=end))
    assert kinds(acts)[-1] == "hand over"
    assert {spot.place for spot in where(acts, 99).values()} == {"others"}


def test_dried_stems_come_home_and_fresh_ones_go_to_compost() -> None:
    lasting = next(key for key, each in varieties().items() if each.lasting)
    plan = replace(piece(), recipe=(*recipe(rose=(3, "focal")), RecipeLine(variety=lasting, count=2, role="filler")))
    ends = {lot.line: spot.place for lot, spot in where(of(plan), 99).items() if lot.what == "stems"}
    assert ends == {0: "compost", 1: "home"}
    composted = where(of(choosing(plan, afterwards="compost")), 99)
    assert {spot.place for lot, spot in composted.items() if lot.what == "stems"} == {"compost"}


def test_hung_work_is_flowered_on_the_bench_or_when_it_is_up() -> None:
    rig = replace(run(5), recipe=recipe(ruscus=(20, "base"), rose=(10, "focal")))
    assert kinds(acts_of_rig(rig, varieties())) == [
        "make", "green", "flower", "load", "raise", "take down", "bring home",
    ]  # fmt: skip
    there = replace(rig, passage=Passage(made="its place"))
    assert kinds(acts_of_rig(there, varieties())) == [
        "make", "load", "raise", "make there", "green", "flower", "take down", "bring home",
    ]  # fmt: skip
    later = replace(rig, recipe=(rig.recipe[0], replace(rig.recipe[1], goes_in="on site", goes_in_n=4)))
    acts = acts_of_rig(later, varieties())
    put = next(each for each in acts if each.kind == "flower there")
    assert [lot.count for lot in put.moves] == [4]


# --- The worked table: a vessel of 0.90 kg with 0.07 kg of wire, twenty stems of 30 g, 0.6 L on the road and 1.0 L on
# show, a stone of 1.5 kg laid there. What is drunk on the way is left out.


def worked(**choices: object) -> Build:
    vessel = replace(vessels()["low-bowl-20"], mass_kg=0.90)
    plan = replace(
        piece(), vessel=vessel, recipe=recipe(rose=(20, "focal")), counterweight=replace(STONE, tied=True), moss_m=0.0
    )
    plan = replace(plan, passage=replace(plan.passage, **choices))  # type: ignore[arg-type]
    made = build(plan, conditions())

    def level(litres: float) -> float:
        low, high = 0.0, vessel.inside_depth_m
        for _ in range(60):
            middle = (low + high) / 2
            low, high = (low, middle) if made.water.volume_at_l(middle) > litres else (middle, high)
        return low

    plan = replace(plan, water_level_m=level(1.0), transport=Transport(water_level_m=level(0.6)))
    made = build(plan, conditions())
    rows = replace(made.rows, mass_kg=made.rows.mass_kg * 0.0 + 0.6 / len(made.rows.mass_kg))
    mechanic = replace(made.mechanic, mass_kg=0.07)
    return replace(made, rows=rows, mechanic=mechanic, extras=())


def kg(made: Build, stance: Stance | None) -> float:
    assert stance is not None
    return sum(each.mass_kg for each in bodies.after(made, "typical", stance))


def on_site_only() -> Build:
    made = worked()
    plan = going_in(made.piece, "on site")
    again = build(plan, conditions())
    return replace(again, rows=made.rows, mechanic=made.mechanic, extras=())


def test_the_worked_table_of_a_piece_made_in_the_workshop() -> None:
    made = worked()
    assert kg(made, after(made.acts, "load")) == pytest.approx(2.17, abs=0.01)
    assert kg(made, after(made.acts, "carry in")) == pytest.approx(2.17, abs=0.01)
    assert kg(made, after(made.acts, "fill")) == pytest.approx(4.07, abs=0.01)


def test_the_worked_table_with_its_stems_on_site() -> None:
    made = on_site_only()
    assert kg(made, after(made.acts, "load")) == pytest.approx(1.57, abs=0.01)
    assert kg(made, after(made.acts, "carry in")) == pytest.approx(1.57, abs=0.01)
    flowered = after(made.acts, "flower there")
    assert flowered is not None
    assert kg(made, replace(flowered, weight=False)) == pytest.approx(2.17, abs=0.01)
    assert kg(made, after(made.acts, "fill")) == pytest.approx(4.07, abs=0.01)


def test_the_worked_table_of_one_made_where_it_stands() -> None:
    made = worked(made="its place")
    assert kg(made, after(made.acts, "load")) == pytest.approx(0.97, abs=0.01)
    assert kg(made, after(made.acts, "carry in")) == pytest.approx(0.97, abs=0.01)
    flowered = after(made.acts, "flower")
    assert flowered is not None
    assert kg(made, replace(flowered, weight=False)) == pytest.approx(2.17, abs=0.01)
    assert kg(made, after(made.acts, "fill")) == pytest.approx(4.07, abs=0.01)


def test_what_is_told_of_the_acts_is_how_it_stands_after_each() -> None:
    plan = going_in(piece(), "on site")
    told = passed(of(plan), lambda level: {None: 0.0, "bench": 0.01, "road": 0.02, "show": 0.03}[level])
    by_kind = {each.kind: (each.place, each.level_m, each.stems) for each in told}
    number = sum(line.count for line in plan.recipe)
    assert by_kind["make"] == ("workshop", 0.0, 0)
    assert by_kind["water"] == ("workshop", 0.01, 0)
    assert by_kind["load"] == ("van", 0.02, 0)
    assert by_kind["flower there"] == ("place", 0.02, number)
    assert by_kind["fill"] == ("place", 0.03, number)
    assert by_kind["tip out"] == ("place", 0.0, 0)


# --- Laws, by a reader that shares no code with the fold: it follows each stem and thing through the acts by hand.


@st.composite
def plans(draw: st.DrawFn) -> Standing:
    """A piece with random choices: how it is made, what goes in when, what it stands on, where it moves, its end."""
    times: list[GoesIn] = ["with the piece", "on site", "last"]
    base = draw(st.sampled_from([piece(), on_ledge()]))
    if base.setting.where == "ledge" and draw(st.booleans()):
        base = replace(base, setting=replace(base.setting, moves_to="table"))
        times.append("after the move")
    lines = []
    for line in base.recipe:
        when = draw(st.sampled_from(times))
        some = draw(st.none() | st.integers(1, line.count)) if when != "with the piece" else None
        lines.append(replace(line, goes_in=when, goes_in_n=some))
    made: MadeIn = draw(st.sampled_from(["the workshop", "its place"]))
    end: Afterwards = draw(st.sampled_from(["home", "stays", "given", "compost"]))
    cooled = draw(st.none() | st.just(Cooled(days=1.0)))
    weight = draw(st.none() | st.just(replace(STONE, tied=draw(st.booleans()))))
    with_it = (beside(tied=draw(st.booleans())),) if draw(st.booleans()) else ()
    return replace(
        base,
        recipe=tuple(lines),
        passage=Passage(made=made, afterwards=end, cooled=cooled),
        counterweight=weight,
        companions=with_it,
        making=replace(base.making, water_last=draw(st.booleans())),
    )


@given(plans())
@settings(max_examples=150, deadline=None)
def test_every_stem_and_thing_is_in_one_place_after_every_act_and_ends_somewhere(plan: Standing) -> None:
    acts = of(plan)
    wanted = Counter[tuple[int, int | None]]()
    for nth, lines in enumerate(recipes_of(plan)):
        wanted.update({(nth, at): line.count for at, line in enumerate(lines)})
    loaded = kinds(acts).index("load")
    for done in range(len(acts) + 1):
        now = where(acts, done)
        assert len({lot.key for lot in now}) == len(now)
        stems = Counter[tuple[int, int | None]]()
        for lot in now:
            if lot.what == "stems":
                stems[lot.vessel, lot.line] += lot.count
        assert all(stems[key] <= wanted[key] for key in stems)
        if done > loaded:
            assert stems == wanted
    ends = {spot.place for spot in where(acts, len(acts)).values()}
    assert ends <= {"home", "compost", "drain", "others"}


@given(plans())
@settings(max_examples=150, deadline=None)
def test_every_stem_is_in_its_vessel_for_the_guests_and_the_weight_is_there_from_first_to_last(plan: Standing) -> None:
    acts = of(plan)
    shown = [stance for act, stance in stances(acts) if act.kind in ("flower last", "fill", "move")][-1]
    known = {line.goes_in for line in plan.recipe if line.going_in(line.goes_in)}
    known |= {"with the piece" for line in plan.recipe if line.going_in("with the piece")}
    if kinds(acts)[-1] == "hand over" or "take the stems out" in kinds(acts):
        last = next(
            stance
            for (act, stance), follows in zip(stances(acts), [*kinds(acts)[1:], ""], strict=True)
            if follows in ("hand over", "unhook", "take the stems out")
        )
        assert last.stems == known <= EVERY
    assert shown.level == "show"
    if plan.counterweight is not None:
        laid = False
        for act, stance in stances(acts):
            laid = laid or act.kind == "lay the weight"
            gone = act.kind in ("take the weight off", "tip out", "bring home", "hand over", "move")
            if laid and not gone and stance.place == "place":
                assert stance.weight
            if gone:
                break


@given(plans(), st.randoms(use_true_random=False))
@settings(max_examples=100, deadline=None)
def test_sharing_a_line_out_or_shuffling_lines_changes_no_act(plan: Standing, chance: object) -> None:
    """Two lines of one variety that go in at different times are one line of which some go in later."""
    split = []
    for line in plan.recipe:
        later = line.going_in(line.goes_in) if line.goes_in != "with the piece" else 0
        if 0 < later < line.count:
            split.append(replace(line, count=later, goes_in_n=None))
            split.append(replace(line, count=line.count - later, goes_in="with the piece", goes_in_n=None))
        else:
            split.append(replace(line, goes_in_n=None))
    chance.shuffle(split)  # type: ignore[attr-defined]
    apart = of(replace(plan, recipe=tuple(split)))
    whole = of(plan)
    assert kinds(apart) == kinds(whole)
    assert [stance for _, stance in stances(apart)] == [stance for _, stance in stances(whole)]

    def count(acts: tuple[Act, ...]) -> list[int]:
        return [sum(lot.count for lot in act.moves if lot.what == "stems") for act in acts]

    assert count(apart) == count(whole)
    assert kinds(of(replace(plan, name="called otherwise"))) == kinds(whole)


def test_after_so_many_acts_only_what_they_moved_is_anywhere() -> None:
    acts = of(piece())
    assert where(acts, 0) == {}
    assert set(where(acts, 1)) == set(acts[0].moves)
    assert set(where(acts, 3)) == {lot for act in acts[:3] for lot in act.moves}


def test_a_spill_hangs_from_when_it_is_carried_in_until_it_is_unhooked_first_of_all() -> None:
    spilled = replace(on_ledge(), spill=Spill(drop_m=0.4, netting="coated-25-09", recipe=recipe(ivy=(4, "line"))))
    acts = of(spilled)
    hangs = {act.kind: stance.spill for act, stance in stances(acts)}
    assert (hangs["make"], hangs["load"], hangs["carry in"], hangs["fill"]) == (False, False, True, True)
    assert kinds(acts)[kinds(acts).index("fill") + 1] == "unhook"
    assert hangs["unhook"] is False


def test_what_goes_into_another_vessel_is_not_in_this_one() -> None:
    other = beside(tied=True)
    other = replace(other, recipe=tuple(replace(line, goes_in="last") for line in other.recipe))
    plan = replace(piece(), companions=(other,))
    own, second = (after(of(plan), "flower last", vessel) for vessel in (0, 1))
    assert own is not None
    assert second is not None
    assert own.stems == {"with the piece"}
    assert second.stems == {"last"}


def test_what_hung_work_is_mounted_on_and_weighed_with_comes_with_it() -> None:
    frame = Mount(kind="frame", width_m=2.0, height_m=2.2, ballast_kg=10.0)
    rig = replace(run(5), recipe=recipe(rose=(6, "focal")), mount=frame, extra_kg=1.5)
    rig = replace(
        rig, armature=replace(rig.armature, core_kg=2.0), recipe=(replace(rig.recipe[0], goes_in="on site"),)
    )
    acts = acts_of_rig(rig, varieties())
    assert {lot.what for lot in acts[0].moves} == {"frame", "mount", "foot weights", "core", "extra"}
    carried = next(each for each in acts if each.kind == "carry in")
    held = {lot.what: spot.held for lot, spot in carried.moves.items()}
    assert (held["mount"], held["frame"], held["stems"]) == ("under it", "in it", "in a bucket")
    bare = replace(run(5), recipe=recipe(rose=(6, "focal")))
    assert {lot.what for lot in acts_of_rig(bare, varieties())[0].moves} == {"frame"}
    wall = replace(bare, mount=Mount(kind="wall", arm_m=0.12, bears_below_m=0.25))
    assert {lot.what for lot in acts_of_rig(wall, varieties())[0].moves} == {"frame"}
    assert "carry in" in kinds(acts_of_rig(wall, varieties()))
    runner = replace(bare, armature=replace(bare.armature, kind="runner"))
    assert "carry in" in kinds(acts_of_rig(runner, varieties()))
