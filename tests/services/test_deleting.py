"""Events and things of the stores are deleted and brought back; what was done in the stores is undone and redone."""

import sqlite3
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from jolly_trellis.catalog.rows import StoreKind
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import event_work, planning, rolling, stores
from jolly_trellis.services.gate import Stale
from jolly_trellis.services.opening import open_studio
from jolly_trellis.services.planning import NotFound, NothingToDo
from jolly_trellis.store import cuts, events, stock, stock_history
from jolly_trellis.store.stock import Holding

KINDS: list[tuple[StoreKind, str]] = [
    ("vessel", "low-bowl-20"),
    ("netting", "galvanized-13-07"),
    ("frog", "holed-70"),
    ("variety", "mint"),
    ("supply", "stem-tube-20"),
]


def everything(conn: sqlite3.Connection) -> dict[str, Any]:
    kinds: tuple[StoreKind, ...] = ("vessel", "netting", "frog", "variety", "supply")
    held = {
        kind: {key: each for key, each in found.items() if each != Holding()}
        for kind, found in stock.holdings(conn).items()
    }
    return {kind: stock.things(conn, kind) for kind in kinds} | {"held": held}


def back(conn: sqlite3.Connection) -> None:
    stores.travel(conn, back=True)


def forth(conn: sqlite3.Connection) -> None:
    stores.travel(conn, back=False)


def test_an_event_is_deleted_and_brought_back_as_it_was(studio: sqlite3.Connection) -> None:
    load_demo(studio)
    before = planning.state(studio, 1)
    planning.delete_event(studio, 1)
    assert events.list_events(studio) == ()
    assert [(row.id, row.name) for row, _ in events.list_deleted(studio)] == [(1, before.event.name)]
    for act in (planning.state, planning.brief_of, planning.delete_event, planning.copy_event):
        with pytest.raises(NotFound):
            act(studio, 1)
    with pytest.raises(NotFound):
        planning.undo(studio, 1, base_revision=before.event.revision)
    planning.bring_back_event(studio, 1)
    assert planning.state(studio, 1) == before
    with pytest.raises(NotFound):
        planning.bring_back_event(studio, 1)


def test_a_demo_that_was_deleted_is_not_laid_out_again(studio: sqlite3.Connection) -> None:
    load_demo(studio)
    planning.delete_event(studio, 1)
    assert load_demo(studio) is False
    assert events.list_events(studio) == ()


@pytest.mark.parametrize(("kind", "key"), KINDS)
def test_a_thing_is_deleted_brought_back_undone_and_redone(
    studio: sqlite3.Connection, kind: StoreKind, key: str
) -> None:
    stores.count(studio, kind, key, Holding(on_hand=4, retired=True))
    before = everything(studio)
    revision = stock.revision(studio)
    stores.delete(studio, kind, key)
    gone = everything(studio)
    assert key not in stock.things(studio, kind)
    assert key not in stock.holdings(studio)[kind]
    assert stock.revision(studio) > revision
    assert [(each.kind, each.key) for each in stock_history.deleted(studio)] == [(kind, key)]
    stores.bring_back(studio, kind, key)
    assert everything(studio) == before
    assert stock_history.deleted(studio) == ()
    assert list(stock.things(studio, kind)) == list(before[kind])
    back(studio)
    assert everything(studio) == gone
    back(studio)
    assert everything(studio) == before
    forth(studio)
    assert everything(studio) == gone
    with pytest.raises(NotFound):
        stores.delete(studio, kind, key)
    back(studio)
    with pytest.raises(NotFound):
        stores.bring_back(studio, kind, key)


def test_every_act_in_the_stores_is_undone_and_redone(studio: sqlite3.Connection) -> None:
    states = [everything(studio)]
    bowl = stock.vessels(studio)["low-bowl-20"]
    rose = stock.varieties(studio)["rose"]
    table = stores.export_table(studio, "frog").replace("pin frog", "kenzan")
    acts: list[Callable[[], object]] = [
        lambda: stores.add(studio, "vessel", replace(bowl, name="Kitchen bowl")),
        lambda: stores.copy(studio, "variety", "rose"),
        lambda: stores.put(studio, "variety", "rose", replace(rose, mass_kg=0.06)),
        lambda: stores.count(studio, "netting", "coated-25-09", Holding(on_hand=3)),
        lambda: stores.count(studio, "mechanic", "lattice_pad", Holding(on_hand=1, retired=True)),
        lambda: stores.import_table(studio, "frog", table, dry_run=False),
        lambda: stores.put(studio, "vessel", "low-bowl-20", replace(bowl, profile=bowl.profile[:2])),
    ]
    for act in acts:
        act()
        states.append(everything(studio))
        assert states[-1] != states[-2]
    for state in reversed(states[:-1]):
        back(studio)
        assert everything(studio) == state
    assert stock_history.place(studio).undo is None
    with pytest.raises(NothingToDo):
        back(studio)
    for state in states[1:]:
        forth(studio)
        assert everything(studio) == state
    with pytest.raises(NothingToDo):
        forth(studio)
    assert stock_history.place(studio).undo == "Change low bowl, 20 cm"


def test_an_act_after_going_back_forgets_what_was_undone_and_one_that_changes_nothing_is_none(
    studio: sqlite3.Connection,
) -> None:
    stores.count(studio, "frog", "pin-75", Holding(on_hand=1))
    stores.count(studio, "frog", "pin-75", Holding(on_hand=1))
    assert stock_history.place(studio).step == 1
    back(studio)
    stores.count(studio, "frog", "pin-100", Holding(on_hand=2))
    place = stock_history.place(studio)
    assert (place.step, place.redo) == (1, None)


def test_a_write_names_the_revision_of_the_stores_exactly(studio: sqlite3.Connection) -> None:
    """Undone and done otherwise, the history is as long as before; the revision is not what it was."""
    seen = stock.revision(studio)
    stores.count(studio, "frog", "pin-75", Holding(on_hand=1))
    back(studio)
    stores.count(studio, "frog", "pin-100", Holding(on_hand=2))
    now = stock.revision(studio)
    for base in (seen, now - 1, now + 1, now + 50):
        with pytest.raises(Stale) as problem, stores.based_on(studio, base):
            stores.count(studio, "frog", "pin-75", Holding(on_hand=9))
        assert problem.value.revision == now
    assert stock.revision(studio) == now
    with stores.based_on(studio, now):
        stores.count(studio, "frog", "pin-75", Holding(on_hand=9))
    assert stock.revision(studio) > now


def test_whatever_changes_in_the_stores_counts(studio: sqlite3.Connection) -> None:
    vessel = stock.vessels(studio)["low-bowl-20"]
    acts: list[Callable[[], object]] = [
        lambda: stores.put(studio, "vessel", "low-bowl-20", replace(vessel, mass_kg=0.7)),
        lambda: stores.delete(studio, "vessel", "cube-14"),
        lambda: stores.bring_back(studio, "vessel", "cube-14"),
        lambda: stores.put_currency(studio, "EUR"),
        lambda: rolling.add_remnant(studio, "netting", "coated-25-09", width_m=0.3, length_m=0.8),
        lambda: rolling.remove_remnant(studio, 1),
        lambda: back(studio),
    ]
    for number, act in enumerate(acts):
        before = stock.revision(studio)
        act()
        assert stock.revision(studio) > before, number


def test_undoing_a_count_leaves_what_a_cut_took_taken(studio: sqlite3.Connection) -> None:
    stores.count(studio, "netting", "coated-25-09", Holding(on_hand=5))
    stock.put_holding(studio, "netting", "coated-25-09", Holding(on_hand=3))
    stores.count(studio, "netting", "coated-25-09", Holding(on_hand=7))
    stock.put_holding(studio, "netting", "coated-25-09", Holding(on_hand=6))
    back(studio)
    assert stock.holdings(studio)["netting"]["coated-25-09"].on_hand == 2
    back(studio)
    assert stock.holdings(studio)["netting"].get("coated-25-09", Holding()).on_hand == 0


def test_a_remnant_counted_in_and_taken_out_is_undone_unless_something_was_cut_from_it(
    studio: sqlite3.Connection,
) -> None:
    rolling.add_remnant(studio, "netting", "coated-25-09", width_m=0.3, length_m=0.6)
    (there,) = cuts.remnants(studio, "netting")
    rolling.remove_remnant(studio, there.id)
    assert cuts.remnants(studio, "netting") == ()
    back(studio)
    assert cuts.remnants(studio, "netting") == (there,)
    load_demo(studio)
    studio.execute("INSERT INTO cut VALUES (1, 1, 'netting', 'coated-25-09', 1, 1)")
    studio.execute("UPDATE remnant SET used_by = 1")
    with pytest.raises(InvalidMeasure) as refused:
        back(studio)
    assert "cut from this remnant" in refused.value.message.text
    studio.execute("UPDATE remnant SET used_by = NULL")
    back(studio)
    assert cuts.remnants(studio, "netting") == ()


@pytest.mark.parametrize(("kind", "key"), [("variety", "rose"), ("netting", "coated-25-09"), ("frog", "cup-80")])
def test_what_a_piece_is_made_with_is_retired_not_deleted(
    studio: sqlite3.Connection, kind: StoreKind, key: str
) -> None:
    load_demo(studio)
    with pytest.raises(InvalidMeasure) as refused:
        stores.delete(studio, kind, key)
    assert " of Reopening supper" in refused.value.message.text
    assert "Retire" in refused.value.limit.text
    planning.delete_event(studio, 1)
    stores.delete(studio, kind, key)
    planning.bring_back_event(studio, 1)
    event_work.work_of(studio, 1)


def test_a_key_that_was_deleted_is_not_given_away(studio: sqlite3.Connection) -> None:
    bowl = stock.vessels(studio)["low-bowl-20"]
    first = stores.add(studio, "vessel", replace(bowl, name="Mine"))
    stores.delete(studio, "vessel", first)
    assert stores.add(studio, "vessel", replace(bowl, name="Mine")) == "mine-2"
    stores.bring_back(studio, "vessel", first)
    assert {"mine", "mine-2"} <= stock.vessels(studio).keys()


def test_stores_that_were_emptied_stay_empty(tmp_path: Path) -> None:

    conn = open_studio(tmp_path)
    for key in stock.frogs(conn):
        stores.delete(conn, "frog", key)
    conn.close()
    conn = open_studio(tmp_path)
    assert stock.frogs(conn) == {}
    assert len(stock_history.deleted(conn)) > 3
    conn.close()
