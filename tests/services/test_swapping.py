"""A variety swapped for another in a whole event, and where its stems are, as they are counted."""

import sqlite3
from dataclasses import replace

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.buying.ledger import LedgerRow
from jolly_trellis.core.event.recipes.swapping import swapped, variety_uses
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import HandPlaced, StemTube
from jolly_trellis.core.units import render
from jolly_trellis.services import event_work, listing, planning, recipes, swapping
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import ticks
from jolly_trellis.store.ticks import Tick, TickedList
from tests.ordinary import piece, recipe, varieties
from tests.services.test_coming_home import revision, supper

__all__ = ["supper"]


def test_a_swap_is_told_before_it_is_done_done_in_all_and_undone_in_one(supper: sqlite3.Connection) -> None:
    work = event_work.work_of(supper, 1)
    stems = {each.variety: each for each in variety_uses(work.made, work.varieties)}
    told = swapping.try_swap(supper, 1, "garden-rose", "silk rose")
    assert (told.variety, told.stems) == ("artificial-rose", stems["garden-rose"].stems)
    assert told.pieces == len(stems["garden-rose"].takes)
    assert told.asked_now is not None
    assert told.asked_then is not None
    assert told.asked_then != told.asked_now
    assert (told.dry_now_h, told.dry_then_h) == (varieties()["garden-rose"].dry_hold_h, None)
    assert planning.state(supper, 1).plan == work.plan
    state = swapping.swap(supper, 1, "garden-rose", "artificial rose", base_revision=revision(supper))
    after = event_work.work_of(supper, 1)
    now = {each.variety: each.stems for each in variety_uses(after.made, after.varieties)}
    assert "garden-rose" not in now
    assert now["artificial-rose"] == stems["garden-rose"].stems
    assert told.asked_then == event_work.cost_of_event(after).asked
    planning.undo(supper, 1, base_revision=state.event.revision)
    assert planning.state(supper, 1).plan == work.plan


@pytest.mark.parametrize(
    ("said", "sentence", "right"),
    [
        ("orchid", "Several varieties are called “orchid”.", "phalaenopsis"),
        ("ranunkulus", "No variety in the stores is called “ranunkulus”.", "ranunculus"),
        ("garden roses", "That is garden rose already.", "another variety"),
    ],
)
def test_a_name_that_is_none_or_several_is_a_sentence(
    supper: sqlite3.Connection, said: str, sentence: str, right: str
) -> None:
    with pytest.raises(InvalidMeasure) as told:
        swapping.try_swap(supper, 1, "garden-rose", said)
    assert render(told.value.message, "metric") == sentence
    assert right in render(told.value.limit, "metric")
    with pytest.raises(NotFound):
        swapping.try_swap(supper, 1, "wheat", "rose")


def test_a_piece_in_which_nothing_drinks_has_no_water_until_something_does() -> None:
    hand = HandPlaced(variety="rose", tip_x_m=0.0, tip_y_m=0.0, tip_z_m=0.3)
    fresh = replace(piece(), recipe=recipe(rose=(5, "focal"), wheat=(9, "line")), hand_placed=(hand,))

    def swap(plan: Piece, old: str, new: str) -> Piece:
        found = swapped(plan, old, new, varieties())
        assert isinstance(found, Piece)
        return found

    dry = swap(fresh, "rose", "preserved-rose")
    assert (dry.recipe[0].variety, dry.hand_placed[0].variety) == ("preserved-rose", "preserved-rose")
    assert (dry.water_level_m, dry.top_ups) == (0.0, ())
    wet = swap(dry, "preserved-rose", "tulip")
    assert wet.water_level_m == pytest.approx(0.8 * fresh.vessel.inside_depth_m, abs=6e-4)
    assert swap(fresh, "tulip", "rose") == fresh
    tubed = replace(fresh, recipe=(replace(fresh.recipe[0], water="tube", tube=StemTube()), fresh.recipe[1]))
    off = swap(tubed, "rose", "preserved-rose").recipe[0]
    assert (off.water, off.tube) == ("none", None)
    assert swap(tubed, "rose", "peony").recipe[0].water == "tube"
    half = swap(fresh, "wheat", "lunaria")
    assert half.water_level_m == fresh.water_level_m


def test_the_ledger_says_what_is_left_and_what_does_not_add_up(supper: sqlite3.Connection) -> None:
    def row() -> LedgerRow:
        work = event_work.work_of(supper, 1)
        rows = listing.ledger_of(supper, work, event_work.shopping_of(supper, work))
        return next(each for each in rows if each.variety == "garden-rose")

    def tick(of: TickedList, line: str, number: float) -> None:
        was = next((each for each in ticks.ticks(supper, 1, of) if each.line == line), None)
        listing.tick(supper, 1, of, line, Tick(line=line, number=number), was)

    before = row()
    work = event_work.work_of(supper, 1)
    (rose,) = (each for each in event_work.shopping_of(supper, work).stems if each.variety == "garden-rose")
    assert (before.had, before.counted) == (rose.bunches * rose.bunch_size + rose.singles + rose.here, False)
    assert (before.placed, before.lost, before.left, before.say) == (0, 0, before.had, None)
    tick("goods in", "bunches-garden-rose", rose.bunches - 1)
    tick("prepared", "garden-rose", 40)
    first, second = before.parts[0], before.parts[1]
    tick("placed", f"garden-rose:{first.part}", 30)
    tick("placed", f"garden-rose:{second.part}", 4)
    tick("lost", f"garden-rose:{first.part}", 2)
    now = row()
    assert (now.had, now.counted) == (before.had - rose.bunch_size, True)
    assert (now.prepared, now.placed, now.lost, now.left) == (40, 34, 2, now.had - 36)
    assert [(each.placed, each.lost) for each in now.parts[:2]] == [(30, 2), (4, 0)]
    assert now.say is None
    tick("placed", f"garden-rose:{second.part}", 11)
    said = row().say
    assert said is not None
    assert render(said, "metric") == "garden rose: 1 more is placed than were prepared."
    tick("prepared", "garden-rose", 1000)
    said = row().say
    assert said is not None
    assert render(said, "metric").startswith(f"garden rose: {1000 - now.had} more are prepared than there were")
    tick("prepared", "garden-rose", 0)
    tick("placed", f"garden-rose:{second.part}", now.had - 32)
    assert (row().left, row().say) == (0, None)
    tick("lost", f"garden-rose:{first.part}", 1000)
    odd = row()
    assert odd.left < 0
    assert odd.say is not None
    assert render(odd.say, "metric").startswith(f"garden rose: {-odd.left} more are placed or lost")


def test_what_keeps_already_is_not_held_against_fresh(supper: sqlite3.Connection) -> None:
    work = event_work.work_of(supper, 1)
    recipes.refuse_what_keeps(work, 1)
    for key in {need.variety for need in work.needs.stems if need.piece_id == 1}:
        swapping.swap(supper, 1, key, "preserved rose", base_revision=revision(supper))
    with pytest.raises(InvalidMeasure, match="already"):
        recipes.refuse_what_keeps(event_work.work_of(supper, 1), 1)
