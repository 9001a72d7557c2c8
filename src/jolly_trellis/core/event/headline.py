"""The headline of an event: what all its pieces come to."""

from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.job import Made
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.gates import cleared
from jolly_trellis.core.event.tasks.water_rounds import first_fill


@dataclass(frozen=True, slots=True, kw_only=True)
class Headline:
    """What an event comes to, each piece by its quantity.

    `minutes` are of all hands, by the book of time; `cost` and `price` are None while something of them is not
    known, and
    `unpriced` says how many things that are. `water_l` is what all is filled with to be shown. `netting_m` is
    length along the roll of all sheets, `netting_m2` their area. `overhead_kg` is what hangs over people, heavy case,
    of which `not_cleared` pieces are not cleared. `failing` pieces in vessels have a verdict that fails;
    `not_worked_out` could not be worked out at all, and are in no sum. `price` is with tax; cost and price are the
    least that they can be where `at_least` says that nobody has said what something costs.
    """

    pieces: int
    stems: int
    minutes: float
    water_l: float
    netting_m: float
    netting_m2: float
    overhead_kg: float
    not_cleared: int
    failing: int
    not_worked_out: int
    currency: str
    cost: Decimal | None
    price: Decimal | None
    at_least: bool
    unpriced: int


def headline(made: Made, cost: EventCost) -> Headline:
    """Add an event up.

    Args:
        made: every piece and hung piece with its report. cost: what they cost.
    Source: sums of what each piece reports.
    """
    stood = [(work.piece, work.report) for work in made.pieces]
    hung = [(work.rig, work.report) for work in made.rigs]
    known = [(piece, report) for piece, report in stood if report is not None]
    worked = [(rig, report) for rig, report in hung if report is not None]
    needs = needs_of(made)
    over = [report for rig, report in worked if rig.over_people and not rig.lies]
    return Headline(
        pieces=sum(piece.quantity for piece, _ in stood) + len(hung),
        stems=sum(each.count for each in needs.stems),
        minutes=float(cost.minutes),
        water_l=sum(each.litres for each in first_fill(made)),
        netting_m=sum(each.sheet.length_m * each.quantity for each in needs.sheets),
        netting_m2=sum(each.sheet.length_m * each.sheet.width_m * each.quantity for each in needs.sheets),
        overhead_kg=sum(report.take_off.heavy_kg for report in over),
        not_cleared=sum(not cleared(report.verdict) for report in over)
        + sum(report is None for rig, report in hung if rig.over_people),
        failing=sum(any(each.state == "fails" for each in report.verdicts) for _, report in known),
        not_worked_out=sum(report is None for _, report in (*stood, *hung)),
        currency=cost.currency,
        cost=cost.cost,
        price=cost.asked,
        at_least=bool(cost.unsaid),
        unpriced=len(cost.missing) + len(cost.unsaid),
    )
