"""The cut plan: every sheet on its roll."""

from jolly_trellis.api.deps import Connection, CutsDone, Number
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.cut_sheets import write_cut_sheets
from jolly_trellis.exchange.page import Paper
from jolly_trellis.services import event_work
from jolly_trellis.services.stamps import stamp_of


@paper("cuts.pdf", title="Cut plan", needs=[CutsDone])
def cuts_pdf(event_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric") -> Written:
    work = event_work.work_of(conn, event_id)
    page = write_cut_sheets(event_work.cuts_of(conn, work), stamp=stamp_of(conn, event_id), paper=paper, system=system)
    return Written(content=page, event=work.plan.brief.name, what="cut-plan")
