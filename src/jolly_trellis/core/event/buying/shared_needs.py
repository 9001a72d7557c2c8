"""What an event needs beside its pieces: boxes, felt pads, buckets, flower food, cans, a spare sheet."""

import math
from collections.abc import Iterator
from dataclasses import replace

from jolly_trellis.core.acts.stances import rides_flowered
from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.water import JUG_L
from jolly_trellis.core.checks.travel import BUCKET_STEMS
from jolly_trellis.core.event.job import Job, Made, PieceWork
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs, SheetNeed, SupplyNeed
from jolly_trellis.core.event.putting import acts_of_work
from jolly_trellis.core.event.tasks.water_rounds import WaterRounds
from jolly_trellis.core.provenance import COMMON_PRACTICE

CAN_L = rule("Water carried in one can", "volume", 10.0, COMMON_PRACTICE)
PADS_EACH = rule("Felt pads under one piece", "count", 4, COMMON_PRACTICE)
SPARE_PATCH = rule("A spare sheet of netting is no longer than", "length", 1.0, COMMON_PRACTICE)
BOX_USES = measure("Times a carton is used", "count", 10)
PAD_USES = measure("Times a felt pad is used", "count", 5)
BUCKET_USES = measure("Times a bucket is used", "count", 100)
CANS_SPARE = rule("Water brought beyond what is poured, share", "ratio", 0.10)
CAN_USES = measure("Times a can or jug is used", "count", 200)
THE_EVENT = "the event"
SPARE_SHEET = "spare sheet"


def with_shared(needs: Needs, job: Job, made: Made, bought: tuple[StemBuy, ...], water: WaterRounds) -> Needs:
    """The needs with those of the event as a whole: their part's number is `FOR_ALL`.

    Source: common practice, no source; one carton for each piece that rides boxed, pads under what stands on other
    people's furniture, as many buckets as the stems take when each variety stands apart, a sachet of flower food each,
    cans for all the water, jugs for the largest round, one spare sheet of the widest netting.
    """
    supplies = (*needs.supplies, *_of_pieces(made), *_of_all(job, bought, water))
    return replace(needs, supplies=supplies, sheets=(*needs.sheets, *_spare(needs)))


def _of_pieces(made: Made) -> Iterator[SupplyNeed]:
    for work in made.pieces:
        going = work.piece.transport
        if not work.piece.carried:
            pads = float(round(PADS_EACH.value) * work.piece.quantity)
            yield _of(work, "felt-pad", pads, PAD_USES.value)
        if going is not None and going.boxed and rides_flowered(acts_of_work(work, {})):
            yield _of(work, "box", float(work.piece.quantity), BOX_USES.value)


def _of(work: PieceWork, supply: str, amount: float, uses: float) -> SupplyNeed:
    return SupplyNeed(piece_id=work.id, piece=work.piece.name, supply=supply, amount=amount, uses=round(uses))


def _of_all(job: Job, bought: tuple[StemBuy, ...], water: WaterRounds) -> Iterator[SupplyNeed]:
    buckets = sum(math.ceil(each.stems / BUCKET_STEMS.value - 1e-9) for each in bought if not each.keeps)
    numbers = [("bucket", buckets, BUCKET_USES.value), ("flower-food", buckets, 1.0)]
    if water.total_l > 0:
        most = max((each.litres for each in water.rounds), default=0.0)
        jugs = max(1, min(len(job.crew) or 1, math.ceil(most / JUG_L.value)))
        numbers += [
            ("water-can", cans_for(water.total_l), CAN_USES.value),
            ("jug", jugs, CAN_USES.value),
        ]
    for supply, number, uses in numbers:
        if number:
            yield SupplyNeed(piece_id=FOR_ALL, piece=THE_EVENT, supply=supply, amount=float(number), uses=round(uses))


def cans_for(poured_l: float) -> int:
    """Whole cans for what is poured at the place, and a share to spare. Source: estimate."""
    return math.ceil(poured_l * (1 + CANS_SPARE.value) / CAN_L.value - 1e-9)


def _spare(needs: Needs) -> Iterator[SheetNeed]:
    """One sheet to mend with: of the widest that is cut, no longer than is handy."""
    widest = max(needs.sheets, key=lambda each: (each.sheet.width_m, each.sheet.length_m), default=None)
    if widest is None:
        return
    sheet, most = widest.sheet, SPARE_PATCH.value
    share = min(1.0, most / sheet.length_m)
    rows = math.ceil(sheet.rows_along * share)
    patch = replace(sheet, length_m=min(sheet.length_m, most), rows_along=rows, mass_kg=sheet.mass_kg * share)
    yield replace(widest, piece_id=FOR_ALL, piece=THE_EVENT, name=SPARE_SHEET, sheet=patch, quantity=1, may_turn=True)
