"""The order for one supplier."""

import sqlite3
from typing import Annotated

from fastapi import Query

from jolly_trellis.api.deps import Connection, CutsDone, Number
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.core.event.buying.orders import Order, orders_of
from jolly_trellis.core.event.keys import free_key
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange import order_papers
from jolly_trellis.exchange.page import Paper
from jolly_trellis.services import event_work, listing
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.stamps import stamp_of

Named = Annotated[str, Query(max_length=120)]


@paper("order.pdf", needs=[CutsDone])
def order_pdf(
    event_id: Number, conn: Connection, supplier: Named = "", paper: Paper = "A4", system: UnitSystem = "metric"
) -> Written:
    """The order for one supplier as a paper."""
    work, found = _orders(conn, event_id, supplier)
    page = order_papers.write_pdf(
        found, stamp=stamp_of(conn, event_id), currency=work.job.costing.currency, paper=paper, system=system
    )
    return Written(content=page, event=work.plan.brief.name, what=f"order-{free_key(supplier, set())}")


@paper("order.csv", needs=[CutsDone])
def order_csv(event_id: Number, conn: Connection, supplier: Named = "") -> Written:
    """The order for one supplier as CSV."""
    work, found = _orders(conn, event_id, supplier)
    text = order_papers.write_csv(found, currency=work.job.costing.currency)
    return Written(content=text, event=work.plan.brief.name, what=f"order-{free_key(supplier, set())}")


def _orders(conn: sqlite3.Connection, event_id: int, supplier: str) -> tuple[EventWork, tuple[Order, ...]]:
    work = event_work.work_of(conn, event_id)
    return work, listing.orders_for(orders_of(event_work.shopping_of(conn, work)), supplier)
