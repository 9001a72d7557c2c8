"""Where the stems of an event are: what was bought or was here, prepared, placed, lost, and what is left."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from jolly_trellis.core.event.buying.orders import CameIn
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.recipes.swapping import VarietyUse
from jolly_trellis.core.quantities import Phrase, phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class PartLedger:
    """Stems of a variety for one piece, all of its quantity: planned, placed and lost so far."""

    part: int
    piece: str
    planned: int
    placed: int
    lost: int


@dataclass(frozen=True, slots=True, kw_only=True)
class LedgerRow:
    """One variety: planned in all; had (what came in, or is ordered where nobody has counted, and was here), counted
    in; prepared, placed, lost; left of what was had. `say` is what does not add up, None nothing.
    """

    variety: str
    name: str
    planned: int
    had: int
    counted: bool
    prepared: int
    placed: int
    lost: int
    left: int
    parts: tuple[PartLedger, ...]
    say: Phrase | None


def part_line(variety: str, part: int) -> str:
    """The line of a list that holds how many stems of a variety were placed in a piece, or lost there."""
    return f"{variety}:{part}"


def ledger(
    uses: Iterable[VarietyUse],
    bought: Iterable[StemBuy],
    came: Mapping[str, CameIn],
    prepared: Mapping[str, float],
    placed: Mapping[str, float],
    lost: Mapping[str, float],
) -> tuple[LedgerRow, ...]:
    """The ledger of every variety of an event, by name.

    Args:
        uses: what each piece takes. came: goods in by the key of their line. prepared: stems by variety.
        placed, lost: stems by `part_line`.
    Source: sums.
    """
    by_key = {each.variety: each for each in bought}
    rows = []
    for use in uses:
        buy = by_key.get(use.variety)
        had, counted = (0, False) if buy is None else _had(buy, came)
        parts = tuple(
            PartLedger(
                part=each.part,
                piece=each.piece,
                planned=each.stems,
                placed=round(placed.get(part_line(use.variety, each.part), 0)),
                lost=round(lost.get(part_line(use.variety, each.part), 0)),
            )
            for each in use.takes
        )
        put, gone = sum(each.placed for each in parts), sum(each.lost for each in parts)
        left = had - put - gone
        ready = round(prepared.get(use.variety, 0))
        rows.append(
            LedgerRow(
                variety=use.variety,
                name=use.name,
                planned=use.stems,
                had=had,
                counted=counted,
                prepared=ready,
                placed=put,
                lost=gone,
                left=left,
                parts=parts,
                say=_odd(use.name, had, ready, put, left),
            )
        )
    return tuple(rows)


def _had(buy: StemBuy, came: Mapping[str, CameIn]) -> tuple[int, bool]:
    """Stems that are there: what came in of the bunches and single stems, what is not counted in as it was ordered."""
    total, counted = buy.here, False
    lines = [(f"-{each.shade}" if each.shade else "", each.bunches, each.singles) for each in buy.shades]
    for shade, bunches, singles in lines or [("", buy.bunches, buy.singles)]:
        for word, number, size in (("bunches", bunches, buy.bunch_size), ("stems", singles, 1)):
            there = came.get(f"{word}-{buy.variety}{shade}")
            counted = counted or there is not None
            total += round((number if there is None else there.number) * size)
    return total, counted


def _odd(name: str, had: int, prepared: int, placed: int, left: int) -> Phrase | None:
    """What of a row does not add up, in words."""
    if left < 0:
        return phrase("{name}: {n} more {n|is|are} placed or lost than there were. Count again.", name=name, n=-left)
    if prepared > had:
        return phrase(
            "{name}: {n} more {n|is|are} prepared than there were. Count again.", name=name, n=prepared - had
        )
    if prepared and placed > prepared:
        return phrase("{name}: {n} more {n|is|are} placed than were prepared.", name=name, n=placed - prepared)
    return None
