"""The headline of an event: what all its pieces come to."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.event.cost import EventCost
from jolly_trellis.core.event.gates import cleared
from jolly_trellis.core.event.job import Made
from jolly_trellis.core.netting import Sheet
from jolly_trellis.core.piece import Piece
from jolly_trellis.core.report import Report


@dataclass(frozen=True, slots=True, kw_only=True)
class Headline:
    """What an event comes to, each piece by its quantity.

    `minutes` are of making everything; `cost` and `price` are None while something of them is not known, and
    `unpriced` says how many things that are. `water_l` is at the display level. `netting_m` is
    length along the roll of all sheets, `netting_m2` their area. `overhead_kg` is what hangs over people, heavy case,
    of which `not_cleared` pieces are not cleared. `failing` pieces in vessels have a verdict that fails;
    `not_worked_out` could not be worked out at all, and are in no sum.
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
    sheets = [
        *((sheet, piece.quantity) for piece, report in known for sheet in sheets_of(report)),
        *((report.take_off.sized.sheet, 1) for _, report in worked),
    ]
    over = [report for rig, report in worked if rig.over_people and not rig.lies]
    return Headline(
        pieces=sum(piece.quantity for piece, _ in stood) + len(hung),
        stems=sum(_stems(piece) * piece.quantity for piece, _ in stood)
        + sum(line.count for rig, _ in hung for line in rig.recipe),
        minutes=float(cost.minutes),
        water_l=sum(report.water.display_l * piece.quantity for piece, report in known),
        netting_m=sum(sheet.length_m * number for sheet, number in sheets),
        netting_m2=sum(sheet.length_m * sheet.width_m * number for sheet, number in sheets),
        overhead_kg=sum(report.take_off.heavy_kg for report in over),
        not_cleared=sum(not cleared(report.verdict) for report in over)
        + sum(report is None for rig, report in hung if rig.over_people),
        failing=sum(any(each.state == "fails" for each in report.verdicts) for _, report in known),
        not_worked_out=sum(report is None for _, report in (*stood, *hung)),
        currency=cost.currency,
        cost=cost.cost,
        price=cost.price,
        unpriced=len(cost.missing),
    )


def sheets_of(report: Report) -> Iterator[Sheet]:
    """Every sheet of netting that one piece is cut from: its mechanic's, its companions', its spill's."""
    for mechanic in (report.mechanic, *(each.mechanic for each in report.companions)):
        for flat in mechanic.flat:
            yield flat.sheet
    if report.spill is not None:
        yield report.spill.sheet


def _stems(piece: Piece) -> int:
    lines = [
        *piece.recipe,
        *(line for each in piece.companions for line in each.recipe),
        *(piece.spill.recipe if piece.spill is not None else ()),
    ]
    return sum(line.count for line in lines)
