"""The headline of an event: what all its pieces come to."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from jolly_trellis.core.netting import Sheet
from jolly_trellis.core.piece import Piece
from jolly_trellis.core.report import Report
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import Rig


@dataclass(frozen=True, slots=True, kw_only=True)
class Headline:
    """What an event comes to, each piece by its quantity.

    `minutes` is the making of mechanics, as far as it is known; `water_l` is at the display level. `netting_m` is
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


def headline(pieces: Iterable[tuple[Piece, Report | None]], rigs: Iterable[tuple[Rig, RigReport | None]]) -> Headline:
    """Add an event up.

    Args:
        pieces, rigs: every piece and hung piece with its report; None for one that could not be worked out.
    Source: sums of what each piece reports.
    """
    stood, hung = list(pieces), list(rigs)
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
        minutes=sum(report.minutes * piece.quantity for piece, report in known),
        water_l=sum(report.water.display_l * piece.quantity for piece, report in known),
        netting_m=sum(sheet.length_m * number for sheet, number in sheets),
        netting_m2=sum(sheet.length_m * sheet.width_m * number for sheet, number in sheets),
        overhead_kg=sum(report.take_off.heavy_kg for report in over),
        not_cleared=sum(report.verdict.state in ("fails", "cannot say") for report in over)
        + sum(report is None for rig, report in hung if rig.over_people),
        failing=sum(any(each.state == "fails" for each in report.verdicts) for _, report in known),
        not_worked_out=sum(report is None for _, report in (*stood, *hung)),
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
