"""What it costs: for the studio, and for the client, whose has no costs."""

from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.core.event.tasks.payment import payment_of
from jolly_trellis.exchange import price_sheets
from jolly_trellis.exchange.page import Paper
from jolly_trellis.exchange.price_sheets import Reader
from jolly_trellis.services import event_work
from jolly_trellis.services.stamps import stamp_of


@paper("cost.csv")
def cost_csv(event_id: Number, conn: Connection, reader: Reader = "studio") -> Written:
    """What it costs as CSV; the client's has no costs."""
    work = event_work.work_of(conn, event_id)
    cost = event_work.cost_of_event(work)
    text = price_sheets.write_csv(cost, reader, payment_of(work.job, cost.asked))
    return Written(content=text, event=work.plan.brief.name, what=f"price-{reader}")


@paper("cost.pdf")
def cost_pdf(event_id: Number, conn: Connection, reader: Reader = "studio", paper: Paper = "A4") -> Written:
    """What it costs as a paper; the client's has no costs."""
    work = event_work.work_of(conn, event_id)
    cost = event_work.cost_of_event(work)
    payment = payment_of(work.job, cost.asked)
    page = price_sheets.write_pdf(cost, reader, stamp=stamp_of(conn, event_id), paper=paper, payment=payment)
    return Written(content=page, event=work.plan.brief.name, what=f"price-{reader}")
