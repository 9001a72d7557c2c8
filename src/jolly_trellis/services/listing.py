"""Lists as they are worked with: lines ticked, finished armatures taken, the order for one supplier."""

import sqlite3
from dataclasses import replace
from typing import get_args

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.buying.ledger import LedgerRow, ledger
from jolly_trellis.core.event.buying.orders import CameIn, Order, orders_of
from jolly_trellis.core.event.buying.shopping import Shopping
from jolly_trellis.core.event.job import Reused
from jolly_trellis.core.event.recipes.swapping import variety_uses
from jolly_trellis.core.event.returning.finished import not_for
from jolly_trellis.core.quantities import phrase
from jolly_trellis.exchange.order_papers import read_csv
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.gate import over
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.store import stock, ticks
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.ticks import GoodsState, Tick, TickedList


def tick(
    conn: sqlite3.Connection, event_id: int, of: TickedList, line: str, tick: Tick | None, was: Tick | None
) -> None:
    """Tick a line of a list over what its window knew of it, or (None) take the tick away. Raises NotFound, Stale."""
    with transaction(conn):
        planning.event_row(conn, event_id)
        now = next((each for each in ticks.ticks(conn, event_id, of) if each.line == line), None)
        settled = over(was, tick, now, Tick)
        if settled is None:
            ticks.clear_tick(conn, event_id, of, line)
        else:
            ticks.put_tick(conn, event_id, of, settled)


def came_in(conn: sqlite3.Connection, event_id: int, text: str) -> tuple[str, ...]:
    """Read what came in from an order's CSV; the keys that are in no order of the event.

    Raises: NotFound, CoreError; BadTable: it cannot be read.
    """
    orders = orders_of(event_work.shopping_of(conn, event_work.work_of(conn, event_id)))
    known = {line.key for order in orders for line in order.lines}
    rows = read_csv(text)
    with transaction(conn):
        for key, number, state in rows:
            if key in known:
                good = next(each for each in get_args(GoodsState) if each == state)
                ticks.put_tick(conn, event_id, "goods in", Tick(line=key, number=number, state=good))
    return tuple(key for key, _, _ in rows if key not in known)


def reuse(
    conn: sqlite3.Connection, event_id: int, part: int, armature: str, number: int, *, base_revision: int
) -> EventState:
    """Make so many of a part from finished armatures; none lets them go.

    Raises: NotFound, Stale; InvalidMeasure: it does not do for the part.
    """
    planning.part_of(conn, event_id, part)
    known = stock.armatures(conn)
    if armature not in known and number:
        raise NotFound(f"armature {armature}")
    if number:
        work = event_work.work_of(conn, event_id)
        why = not_for(known[armature], part, work.needs, work.larder.nettings)
        if why is not None:
            raise InvalidMeasure(path="armature", message=why[0], limit=why[1])
    brief = planning.brief_of(conn, event_id)
    others = tuple(each for each in brief.reused if (each.part, each.armature) != (part, armature))
    mine = (Reused(part=part, armature=armature, number=number),) if number else ()
    said = known[armature].name if armature in known else armature
    label = f"Use {said} again" if number else f"Make {said} anew"
    return planning.put_brief(
        conn, event_id, replace(brief, reused=(*others, *mine)), base_revision=base_revision, label=label
    )


def orders_for(orders: tuple[Order, ...], supplier: str) -> tuple[Order, ...]:
    """The orders for one supplier, day by day. Raises InvalidMeasure: nobody is named, or nothing is ordered there."""
    found = tuple(each for each in orders if each.supplier == supplier)
    if not found:
        names = ", ".join(dict.fromkeys(each.supplier for each in orders)) or "none yet"
        raise InvalidMeasure(
            path="supplier",
            message=phrase("Nothing is ordered from “{name}”.", name=supplier)
            if supplier
            else phrase("An order goes to somebody: no supplier is named."),
            limit=phrase("There are orders for: {names}.", names=names),
        )
    return found


def ledger_of(conn: sqlite3.Connection, work: EventWork, shopping: Shopping) -> tuple[LedgerRow, ...]:
    """Where the stems of an event are, by what was counted."""
    known = work.conditions.varieties

    def counted(of: TickedList) -> dict[str, float]:
        return {each.line: each.number for each in ticks.ticks(conn, work.event_id, of)}

    came = {
        each.line: CameIn(number=each.number, state=each.state)
        for each in ticks.ticks(conn, work.event_id, "goods in")
    }
    return ledger(
        variety_uses(work.made, known), shopping.stems, came, counted("prepared"), counted("placed"), counted("lost")
    )
