"""The roll as a person works with it: plan the cuts, stop with the best, mark a material as cut, take that back."""

import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

from jolly_trellis.catalog.rows import HeldKind
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.cutting.roll import CutPlan, cut_plan, keeping_cut, still_to_cut
from jolly_trellis.core.event.cutting.roll_problems import Material, MaterialPlan
from jolly_trellis.core.materials.netting import Netting, pitch_across_m
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.services import event_work, long_work
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import cuts, stock, stock_history
from jolly_trellis.store.connection import open_database, transaction
from jolly_trellis.store.cuts import CutRow
from jolly_trellis.store.stock import Holding


@dataclass(frozen=True, slots=True, kw_only=True)
class RollState:
    """Where the roll of an event stands: its plan, whether that is of now, whether one is sought, what is cut.

    `plan` is the best so far while a search runs.
    """

    plan: CutPlan | None
    fresh: bool
    running: bool
    cut: tuple[CutRow, ...]


def state(conn: sqlite3.Connection, event_id: int) -> RollState:
    """The roll of an event as it stands. Raises NotFound, CoreError."""
    work = event_work.work_of(conn, event_id)
    running: Running[CutPlan] | None = long_work.find(_key(work))
    kept = cuts.get_plan(conn, event_id)
    busy = running is not None and not running.done
    if busy and running is not None and running.best is not None:
        return RollState(plan=running.best, fresh=True, running=True, cut=cuts.cuts(conn, event_id))
    return RollState(
        plan=None if kept is None else kept[0],
        fresh=kept is not None and kept[1] == event_work.cut_mark(work),
        running=busy,
        cut=cuts.cuts(conn, event_id),
    )


def start(conn: sqlite3.Connection, event_id: int, *, seconds: float) -> None:
    """Begin to plan the cuts of an event anew; the best so far is kept when it ends or is stopped.

    Raises: NotFound, CoreError.
    """
    work = event_work.work_of(conn, event_id)
    path = Path(str(conn.execute("PRAGMA database_list").fetchone()["file"]))
    if not (found := long_work.find(_key(work))) or found.done:
        long_work.forget(_key(work))

    cut = event_work.materials_cut(conn, event_id)
    rest = still_to_cut(work.needs, cut, work.larder)

    def go(running: Running[CutPlan]) -> CutPlan:
        def told(better: CutPlan) -> None:
            running.tell(keeping_cut(better, cut, rest.spare))

        found = cut_plan(rest.needs, work.larder, seconds=seconds, tell=told, stop=lambda: running.stopping)
        plan = keeping_cut(found, cut, rest.spare)
        own = open_database(path)
        try:
            event_work.keep_cuts(own, work, plan)
        finally:
            own.close()
        return plan

    long_work.start(_key(work), go)


def stop(conn: sqlite3.Connection, event_id: int) -> None:
    """End the search for a better plan; the best so far is kept. Raises NotFound, CoreError."""
    running = long_work.find(_key(event_work.work_of(conn, event_id)))
    if running is not None:
        running.stop()
        running.wait(10.0)


def mark_cut(conn: sqlite3.Connection, event_id: int, material: Material, key: str, nth: int = 1) -> None:
    """Mark a material as cut: rolls and packs leave the stores, remnants worth keeping come into them.

    Raises: NotFound: no plan for it; InvalidMeasure: it is cut already, or the plan is of an earlier state.
    """
    with transaction(conn):
        plan = _plan_for(conn, event_id, material, key, nth)
        if any((row.material, row.key, row.nth) == (material, key, nth) for row in cuts.cuts(conn, event_id)):
            raise InvalidMeasure(
                path=key,
                message=phrase("{plan} is marked as cut already.", plan=plan.name),
                limit=phrase("Take that back first to cut it again."),
            )
        if not state(conn, event_id).fresh:
            raise InvalidMeasure(
                path=key,
                message=phrase("This plan is of an earlier state of the event."),
                limit=phrase("Plan the cuts again first."),
            )
        held = stock.holdings(conn)[_held(material)].get(key, Holding())
        taken = min(_taken(conn, plan), held.on_hand)
        stock.put_holding(conn, _held(material), key, Holding(on_hand=held.on_hand - taken, retired=held.retired))
        cut = cuts.add_cut(conn, event_id, plan, taken)
        for _ in range(_sticks_left(conn, plan, taken)):
            cuts.add_remnant(conn, material, key, 0.0, stock.supplies(conn)[key].stick_m or 0.0, cut)
        _keep_fresh(conn, event_id)


def unmark_cut(conn: sqlite3.Connection, event_id: int, material: Material, key: str, nth: int = 1) -> None:
    """Take a cut back: the stores stand as before it.

    Raises: NotFound: it is not marked; InvalidMeasure: something was cut from its remnants, or more of it, since.
    """
    with transaction(conn):
        own = [row for row in cuts.cuts(conn, event_id) if (row.material, row.key) == (material, key)]
        rows = [row for row in own if row.nth == nth]
        if not rows:
            raise NotFound(f"cut of {key}")
        if any(row.nth > nth for row in own):
            raise InvalidMeasure(
                path=key,
                message=phrase("More of it was cut since."),
                limit=phrase("Take the later cut back first."),
            )
        now = state(conn, event_id)
        if not cuts.take_back(conn, rows[0].id):
            raise InvalidMeasure(
                path=key,
                message=phrase("Something was cut from its remnants since."),
                limit=phrase("Take that cut back first."),
            )
        held = stock.holdings(conn)[_held(material)].get(key, Holding())
        back = held.on_hand + rows[0].rolls
        stock.put_holding(conn, _held(material), key, Holding(on_hand=back, retired=held.retired))
        if now.fresh and now.plan is not None and not now.plan.left_out:
            _keep_fresh(conn, event_id)


def _keep_fresh(conn: sqlite3.Connection, event_id: int) -> None:
    """What is cut is cut: the plan stays the event's, though the stores have changed by it."""
    kept = cuts.get_plan(conn, event_id)
    if kept is not None:
        work = event_work.work_of(conn, event_id)
        cuts.put_plan(conn, event_id, kept[0], made_for=event_work.cut_mark(work), version="as cut")


def _plan_for(conn: sqlite3.Connection, event_id: int, material: Material, key: str, nth: int) -> MaterialPlan:
    kept = cuts.get_plan(conn, event_id)
    for plan in () if kept is None else kept[0].materials:
        if (plan.material, plan.key, plan.nth) == (material, key, nth):
            return plan
    raise NotFound(f"cut plan of {key}")


def _taken(conn: sqlite3.Connection, plan: MaterialPlan) -> int:
    """Rolls or packs that leave the stores: those here, and those bought for it if they were counted in."""
    whole = [each for each in plan.stocks if each.source != "remnant"]
    if not plan.sticks:
        return len(whole)
    supply = stock.supplies(conn)[plan.key]
    return -(-sum(each.count for each in whole) // max(round(supply.pack), 1))


def _sticks_left(conn: sqlite3.Connection, plan: MaterialPlan, taken: int) -> int:
    """Whole sticks that are left of the bundles that were opened for a cut."""
    if not plan.sticks or not taken:
        return 0
    used = sum(each.count for each in plan.stocks if each.source != "remnant")
    return max(taken * round(stock.supplies(conn)[plan.key].pack) - used, 0)


def _held(material: Material) -> HeldKind:
    return "netting" if material == "netting" else "supply"


def _key(work: EventWork) -> tuple[str, str, int, str]:
    return ("cuts", work.kept_in, work.event_id, work.made_for)


def add_remnant(conn: sqlite3.Connection, material: Material, key: str, *, width_m: float, length_m: float) -> None:
    """Count a remnant into the stores by hand.

    Raises: NotFound: no such netting or supply; InvalidMeasure: netting of no width, or of less than two cells.
    """
    names = {each.key: each.name for each in _things(conn, material)}
    if key not in names:
        raise NotFound(f"{material} {key}")
    if material == "netting" and not width_m > 0:
        raise InvalidMeasure(
            path="width_m",
            message=phrase("A remnant of netting has a width."),
            limit=phrase("Give it, such as 30 cm."),
        )
    if material == "netting" and min(width_m, length_m) < (least := 2 * pitch_across_m(stock.nettings(conn)[key])):
        raise InvalidMeasure(
            path="width_m" if width_m <= length_m else "length_m",
            message=phrase("A strip of less than two cells holds nothing."),
            limit=phrase("Give {least} or more each way.", least=length(least)),
        )
    with transaction(conn):
        number = cuts.add_remnant(conn, material, key, width_m if material == "netting" else 0.0, length_m, None)
        stock_history.note_new(conn, f"Count in a remnant of {names[key]}", ("remnant", str(number)))


def _things(conn: sqlite3.Connection, material: Material) -> Iterable[Netting | Supply]:
    return (stock.nettings(conn) if material == "netting" else stock.supplies(conn)).values()


def remove_remnant(conn: sqlite3.Connection, remnant: int) -> None:
    """Take a remnant out of the stores. Raises NotFound: it is not there, or something was cut from it."""
    with stock_history.change(conn, "Take a remnant out", [("remnant", str(remnant))]):
        if not cuts.remove_remnant(conn, remnant):
            raise NotFound(f"remnant {remnant}")
