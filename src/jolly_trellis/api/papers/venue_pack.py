"""The venue pack: everything needed on site as one page."""

from jolly_trellis.api.deps import Connection, CutsDone, DayDone, Number
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.venue_pack import Pack, write_pack
from jolly_trellis.services import day as days
from jolly_trellis.services import event_work


@paper("pack.html", title="Venue pack, one page for a phone with no network", needs=[DayDone, CutsDone])
def venue_pack(event_id: Number, conn: Connection, system: UnitSystem = "metric") -> Written:
    """Everything needed on site as one file that opens with no network."""
    work, day = days.sheet_of(conn, event_id)
    brief = work.plan.brief
    pack = Pack(
        event_id=event_id,
        name=brief.name,
        place=brief.place,
        job=work.job,
        made=work.made,
        day=day,
        water=event_work.water_of(work),
        shopping=event_work.shopping_of(conn, work),
        made_for=work.made_for,
    )
    return Written(content=write_pack(pack, system=system), event=brief.name, what="venue-pack")
