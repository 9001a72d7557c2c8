"""The shopping list: everything that is bought, hired or taken from the stores."""

from jolly_trellis.api.deps import Connection, CutsDone, Number
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.page import Paper
from jolly_trellis.exchange.shopping_list import write_csv, write_pdf
from jolly_trellis.services import event_work
from jolly_trellis.services.stamps import stamp_of


@paper("shopping.csv", needs=[CutsDone])
def shopping_csv(event_id: Number, conn: Connection) -> Written:
    work = event_work.work_of(conn, event_id)
    return Written(content=write_csv(event_work.shopping_of(conn, work)), event=work.plan.brief.name, what="shopping")


@paper("shopping.pdf", title="Shopping list", needs=[CutsDone])
def shopping_pdf(event_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric") -> Written:
    work = event_work.work_of(conn, event_id)
    shopping, currency = event_work.shopping_of(conn, work), work.job.costing.currency
    page = write_pdf(shopping, stamp=stamp_of(conn, event_id), currency=currency, paper=paper, system=system)
    return Written(content=page, event=work.plan.brief.name, what="shopping")
