"""The one gate: what two windows change of one thing is brought together, whoever was first."""

import sqlite3
from collections.abc import Callable, Iterable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolly_trellis.core.books.figures import OwnFigure
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.survey import Survey, SurveyPoint
from jolly_trellis.services import figures, listing, planning, rigging, stores
from jolly_trellis.services.gate import Based, Chosen, Stale
from jolly_trellis.services.opening import DATABASE_NAME, open_studio
from jolly_trellis.store import stock, ticks
from jolly_trellis.store.connection import open_database
from jolly_trellis.store.plan import Brief
from jolly_trellis.store.stock import Holding
from jolly_trellis.store.ticks import Tick
from tests.ordinary import piece

BRIEF = Brief(name="Quay lunch", time_zone="Europe/London", place="The quay hall")
WRITERS = 24


def begun(conn: sqlite3.Connection) -> planning.EventState:
    return planning.new_event(conn, BRIEF, (piece(),))


def put_brief(conn: sqlite3.Connection, mine: Brief, based: Based[Brief]) -> Brief:
    settled, base = planning.settled_brief(conn, 1, mine, based)
    return planning.put_brief(conn, 1, settled, base_revision=base).plan.brief


def test_what_one_window_changed_goes_over_what_another_did(studio: sqlite3.Connection) -> None:
    started = begun(studio)
    was, base = started.plan.brief, started.event.revision
    put_brief(studio, replace(was, travel_h=19.0), Based(revision=base, was=was))
    late = Based(revision=base, was=was)
    found = put_brief(studio, replace(was, place="The old dock"), late)
    assert (found.travel_h, found.place) == (19.0, "The old dock")
    with pytest.raises(Stale) as asked:
        put_brief(studio, replace(was, travel_h=24.0, place="Here"), late)
    assert {each.path: (each.mine, each.now) for each in asked.value.both} == {
        "travel_h": (24.0, 19.0),
        "place": ("Here", "The old dock"),
    }
    chosen = Chosen(revision=asked.value.revision, mine=("place",), theirs=("travel_h",))
    found = put_brief(studio, replace(was, travel_h=24.0, place="Here"), Based(revision=base, was=was, chosen=chosen))
    assert (found.travel_h, found.place) == (19.0, "Here")
    assert planning.undo(studio, 1, base_revision=planning.event_row(studio, 1).revision).plan.brief.place == (
        "The old dock"
    )


def test_what_was_chosen_counts_for_the_revision_it_was_chosen_of(studio: sqlite3.Connection) -> None:
    started = begun(studio)
    was, base = started.plan.brief, started.event.revision
    put_brief(studio, replace(was, travel_h=19.0), Based(revision=base, was=was))
    seen = planning.event_row(studio, 1).revision
    put_brief(studio, replace(was, travel_h=20.0), Based(revision=seen))
    chosen = Chosen(revision=seen, mine=("travel_h",))
    with pytest.raises(Stale) as asked:
        put_brief(studio, replace(was, travel_h=24.0), Based(revision=base, was=was, chosen=chosen))
    assert [(each.path, each.now) for each in asked.value.both] == [("travel_h", 20.0)]


def test_without_the_document_it_began_from_a_stale_write_is_refused(studio: sqlite3.Connection) -> None:
    started = begun(studio)
    was, base = started.plan.brief, started.event.revision
    put_brief(studio, replace(was, travel_h=19.0), Based(revision=base))
    for stale in (base, base + 9):
        with pytest.raises(Stale) as refused:
            put_brief(studio, replace(was, place="Here"), Based(revision=stale))
        assert refused.value.both == ()
    assert planning.brief_of(studio, 1).place == was.place


def test_seats_are_never_asked_about(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    was = state.plan.pieces[0].part
    assert isinstance(was, Standing)
    planning.put_part(studio, 1, 1, replace(was, water_level_m=0.05), base_revision=1, label="Less")
    found, base = planning.settled_part(
        studio, 1, 1, replace(was, name="Mine"), Based(revision=1, was=replace(was, dealt=None))
    )
    assert (found.name, base) == ("Mine", 2)
    assert getattr(found, "water_level_m", None) == 0.05


def test_a_thing_of_the_stores_and_its_count_by_field(studio: sqlite3.Connection) -> None:
    was, base = stock.vessels(studio)["cube-14"], stock.revision(studio)
    stores.put(studio, "vessel", "cube-14", replace(was, name="Cube"))
    based = Based(revision=base, was=was)
    stores.put_over(studio, "vessel", "cube-14", replace(was, mass_kg=1.9), based)
    now = stock.vessels(studio)["cube-14"]
    assert (now.name, now.mass_kg) == ("Cube", 1.9)
    with pytest.raises(Stale) as asked:
        stores.put_over(studio, "vessel", "cube-14", replace(was, name="Box"), based)
    assert [each.path for each in asked.value.both] == ["name"]
    held = Holding(on_hand=3)
    stores.count(studio, "frog", "pin-75", replace(held, used=4))
    stores.count_over(studio, "frog", "pin-75", replace(held, on_hand=5), Based(revision=base, was=held))
    assert stock.holdings(studio)["frog"]["pin-75"] == Holding(on_hand=5, used=4)


def test_what_only_comes_to_the_stores_is_never_stale(studio: sqlite3.Connection) -> None:
    seen = stock.revision(studio)
    stores.count(studio, "frog", "pin-75", Holding(on_hand=1))
    with stores.based_on(studio, seen, touches=False):
        assert stores.copy(studio, "frog", "pin-75")
    with pytest.raises(Stale), stores.based_on(studio, seen):
        stores.delete(studio, "frog", "pin-75")
    with pytest.raises(Stale), stores.based_on(studio, seen + 99, touches=False):
        stores.copy(studio, "frog", "pin-75")


def test_a_tick_and_a_figure_go_over_what_their_window_knew(studio: sqlite3.Connection) -> None:
    begun(studio)
    one, two = Tick(line="x", number=1), Tick(line="x", number=2)
    listing.tick(studio, 1, "out", "x", one, None)
    with pytest.raises(Stale) as asked:
        listing.tick(studio, 1, "out", "x", two, None)
    assert [(each.path, each.mine, each.now) for each in asked.value.both] == [("number", 2, 1)]
    listing.tick(studio, 1, "out", "x", replace(one, note="in the van"), one)
    listing.tick(studio, 1, "out", "x", two, one)
    assert ticks.ticks(studio, 1, "out") == (replace(two, note="in the van"),)
    key = "evaporation-under-flowers-against-open-water"
    own = OwnFigure(value=0.5, reason="weighed")
    figures.set_own(studio, key, own, None)
    with pytest.raises(Stale):
        figures.set_own(studio, key, replace(own, value=0.6), None)
    with pytest.raises(Stale):
        figures.unset_own(studio, key, replace(own, value=0.7))
    figures.unset_own(studio, key, own)
    assert dict(figures.current(studio).own) == {}


FIELDS: dict[str, Iterable[object]] = {
    "travel_h": (0.5, 1.0, 1.5),
    "tables": (4, 5, 6),
    "place": ("quay", "dock", "mill"),
    "topped_up_by": ("Runa", "Ivo", "Mire"),
}
EDITS = st.lists(
    st.tuples(st.integers(0, 1), st.sampled_from(list(FIELDS)), st.integers(0, 2), st.booleans()), max_size=12
)


@settings(max_examples=40, suppress_health_check=[HealthCheck.function_scoped_fixture], deadline=None)
@given(EDITS)
def test_two_windows_with_random_edits_lose_nothing(
    studio: sqlite3.Connection, edits: list[tuple[int, str, int, bool]]
) -> None:
    """Each window writes over what it saw last, and looks anew now and then; whoever is asked keeps the own value."""
    event = planning.new_event(studio, BRIEF).event.id
    seen = [planning.brief_of(studio, event)] * 2
    last: dict[str, object] = {field: getattr(seen[0], field) for field in FIELDS}
    for window, field, nth, looks in edits:
        value = list(FIELDS[field])[nth]
        was = seen[window]
        mine: Brief = replace(was, **{field: value})  # type: ignore[arg-type]
        based = Based(revision=1, was=was)
        try:
            settled, base = planning.settled_brief(studio, event, mine, based)
        except Stale as asked:
            assert [each.path for each in asked.both] == [field]
            chosen = Chosen(revision=asked.revision, mine=(field,))
            settled, base = planning.settled_brief(studio, event, mine, replace(based, chosen=chosen))
        now = planning.put_brief(studio, event, settled, base_revision=base).plan.brief
        if value != getattr(was, field):
            last[field] = value
        assert {each: getattr(now, each) for each in FIELDS} == last
        seen[window] = now if looks else mine


def all_at_once(folder: Path, write: Callable[[sqlite3.Connection, int], None]) -> None:
    def one(number: int) -> None:
        conn = open_database(folder / DATABASE_NAME)
        try:
            for _ in range(WRITERS + 1):
                try:
                    return write(conn, number)
                except Stale as stale:
                    assert not stale.both
            raise AssertionError("never its turn")
        finally:
            conn.close()

    with ThreadPoolExecutor(WRITERS) as pool:
        list(pool.map(one, range(WRITERS)))


def test_24_writers_of_one_plan_one_survey_and_one_thing_of_the_stores(tmp_path: Path) -> None:
    """Each changes a field of its own, all from the same beginning: all of it is there in the end."""
    conn = open_studio(tmp_path)
    line = piece().recipe[0]
    many = replace(piece(), recipe=tuple(replace(line, count=1) for _ in range(WRITERS)))
    started = planning.new_event(conn, BRIEF, (many,))
    began = started.plan.pieces[0].part
    points = tuple(SurveyPoint(name=f"p{n}", kind="beam loop", x_m=float(n), y_m=0.0, z_m=3.0) for n in range(WRITERS))
    survey = Survey(points=points)
    rigging.put_survey(conn, 1, survey, Based(revision=0))
    vessel = stock.vessels(conn)["low-bowl-20"]
    top = vessel.profile[-1]
    profile = tuple(replace(top, height_m=0.01 * n, width_m=0.2, depth_m=0.2) for n in range(WRITERS))
    vessel = replace(vessel, profile=profile)
    stores.put(conn, "vessel", "low-bowl-20", vessel)

    def plan(conn: sqlite3.Connection, n: int) -> None:
        recipe = tuple(replace(each, count=2 + n) if at == n else each for at, each in enumerate(began.recipe))
        found, base = planning.settled_part(conn, 1, 1, replace(began, recipe=recipe), Based(revision=1, was=began))
        planning.put_part(conn, 1, 1, found, base_revision=base, label=f"Line {n}")

    def point(conn: sqlite3.Connection, n: int) -> None:
        mine = tuple(replace(each, note=f"seen by {n}") if at == n else each for at, each in enumerate(points))
        rigging.put_survey(conn, 1, replace(survey, points=mine), Based(revision=1, was=survey))

    def wall(conn: sqlite3.Connection, n: int) -> None:
        mine = tuple(
            replace(each, width_m=0.21 + 0.001 * n, depth_m=0.21 + 0.001 * n) if at == n else each
            for at, each in enumerate(profile)
        )
        stores.put_over(conn, "vessel", "low-bowl-20", replace(vessel, profile=mine), Based(revision=1, was=vessel))

    for write in (plan, point, wall):
        all_at_once(tmp_path, write)
    kept = planning.part_of(conn, 1, 1)[0]
    assert [each.count for each in kept.recipe] == [2 + n for n in range(WRITERS)]
    assert planning.event_row(conn, 1).revision == 1 + WRITERS
    notes = [each.note for each in rigging.survey_of(conn, 1)[1].survey.points]
    assert notes == [f"seen by {n}" for n in range(WRITERS)]
    widths = [each.width_m for each in stock.vessels(conn)["low-bowl-20"].profile]
    assert widths == pytest.approx([0.21 + 0.001 * n for n in range(WRITERS)])
    conn.close()
