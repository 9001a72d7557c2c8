"""What an event needs: sheets, lengths to cut, supplies, frogs and stems, each with the piece that needs it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from jolly_trellis.core.books.needs import FromFrogs, FromNetting, FromSupply
from jolly_trellis.core.event.job import Made, PieceWork, RigWork, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.materials.netting import Sheet
from jolly_trellis.core.mechanics.pin_frog import FROG_USES
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.plan.piece import RecipeLine, StemTube
from jolly_trellis.core.rigging.lines import LINES, LineSpec, end_takes_m, supply_of
from jolly_trellis.core.rigging.rig import Rig

# Stem tubes as they are sold: inner diameter and length up to which each does, m, and its key.
TUBES: tuple[tuple[float, float, str], ...] = ((0.017, 0.105, "stem-tube"), (0.1, 0.5, "stem-tube-20"))


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetNeed:
    """So many sheets of one size for a piece: across the roll and along it, m; and how often one is used."""

    piece_id: int
    piece: str
    name: str
    netting: str
    sheet: Sheet
    quantity: int
    uses: int
    may_turn: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class LengthNeed:
    """So many lengths, m, to cut from a supply for a piece."""

    piece_id: int
    piece: str
    name: str
    supply: str
    length_m: float
    quantity: int
    uses: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class SupplyNeed:
    """So much of a supply for a piece, as it is measured: pieces, metres, kilograms."""

    piece_id: int
    piece: str
    supply: str
    amount: float
    uses: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class FrogNeed:
    """So many frogs of one key for a piece, and how often they are used."""

    piece_id: int
    piece: str
    frog: str
    quantity: int
    uses: int


@dataclass(frozen=True, slots=True, kw_only=True)
class StemNeed:
    """So many stems of one variety for a piece."""

    piece_id: int
    piece: str
    variety: str
    count: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Needs:
    """All that an event needs; `not_worked_out` names pieces that could not be, and are not in it."""

    sheets: tuple[SheetNeed, ...]
    lengths: tuple[LengthNeed, ...]
    supplies: tuple[SupplyNeed, ...]
    frogs: tuple[FrogNeed, ...]
    stems: tuple[StemNeed, ...]
    not_worked_out: tuple[str, ...]


Need = SheetNeed | LengthNeed | SupplyNeed | FrogNeed | StemNeed


def needs_of(made: Made, *, turning: bool = True) -> Needs:
    """Gather what every piece needs, times its quantity.

    Args:
        turning: whether sheets may lie turned on the roll; those of runs never do.
    Source: sums of what each piece reports.
    """
    found: list[Need] = []
    missing = []
    for work in made.pieces:
        found += _stems(work.id, work.piece.name, recipe_of(work), work.piece.quantity)
        if work.report is None:
            missing.append(work.piece.name)
        else:
            found += _of_piece(work)
    for hung in made.rigs:
        found += _stems(hung.id, hung.rig.name, recipe_of(hung), 1)
        if hung.report is None:
            missing.append(hung.rig.name)
        else:
            found += _of_rig(hung)
    return Needs(
        sheets=tuple(
            replace(each, may_turn=each.may_turn and turning) for each in found if isinstance(each, SheetNeed)
        ),
        lengths=tuple(each for each in found if isinstance(each, LengthNeed)),
        supplies=tuple(each for each in found if isinstance(each, SupplyNeed)),
        frogs=tuple(each for each in found if isinstance(each, FrogNeed)),
        stems=tuple(each for each in found if isinstance(each, StemNeed)),
        not_worked_out=tuple(missing),
    )


def _stems(piece_id: int, name: str, recipe: tuple[RecipeLine, ...], quantity: int) -> Iterator[Need]:
    for line in recipe:
        yield StemNeed(piece_id=piece_id, piece=name, variety=line.variety, count=line.count * quantity)


def _of_piece(work: PieceWork) -> Iterator[Need]:
    report = work.report
    if report is None:
        return
    mine = _Whose(id=work.id, name=work.piece.name, quantity=work.piece.quantity)
    for mechanic in (report.mechanic, *(each.mechanic for each in report.companions)):
        for part in mechanic.parts:
            yield from _of_part(mine, part, mechanic.uses)
    for part in (*report.extras, *(part for each in report.companions for part in each.extras)):
        yield from _of_part(mine, part, report.mechanic.uses)
    if report.spill is not None:
        yield from _of_part(mine, report.spill.part, 1)
    yield from _own_water(work)


def _own_water(work: Work) -> Iterator[Need]:
    """Stem tubes by their size, and wraps, of every recipe of a piece: its own, its companions', its spill's."""
    found: dict[str, int] = {}
    for line in recipe_of(work):
        if line.water == "tube":
            key = tube_supply(line.tube or StemTube())
            found[key] = found.get(key, 0) + line.count
        elif line.water == "wrap":
            found["wet-wrap"] = found.get("wet-wrap", 0) - (-line.count // line.clump)
    for key, number in found.items():
        amount = float(number * quantity_of(work))
        yield SupplyNeed(piece_id=work.id, piece=name_of(work), supply=key, amount=amount)


def tube_supply(tube: StemTube) -> str:
    """The key of the supply that a stem tube is bought as: the smallest sold that is as wide and as long."""
    fits = (key for wide, long, key in TUBES if tube.inner_diameter_m <= wide and tube.length_m <= long)
    return next(fits, TUBES[-1][2])


@dataclass(frozen=True, slots=True, kw_only=True)
class _Whose:
    id: int
    name: str
    quantity: int


def _of_part(whose: _Whose, part: Part, uses: int) -> Iterator[Need]:
    """What of the stores a part is taken from; one that is taken from nothing needs nothing."""
    number = part.quantity * whose.quantity
    match part.taken:
        case FromNetting(name=name, netting=netting, sheet=sheet, lasts=lasts, may_turn=may_turn):
            yield SheetNeed(
                piece_id=whose.id,
                piece=whose.name,
                name=name,
                netting=netting,
                sheet=sheet,
                quantity=number,
                uses=uses if lasts else 1,
                may_turn=may_turn,
            )
        case FromFrogs(frog=frog):
            lasting = round(FROG_USES.value)
            yield FrogNeed(piece_id=whose.id, piece=whose.name, frog=frog, quantity=number, uses=lasting)
        case FromSupply(supply=supply, how="each cut", lasts=lasts):
            yield LengthNeed(
                piece_id=whose.id,
                piece=whose.name,
                name=part.name,
                supply=supply,
                length_m=part.sizes[0].value,
                quantity=number,
                uses=uses if lasts else 1,
            )
        case FromSupply(supply=supply, lasts=lasts) as taken:
            amount = _amount(part, taken) * whose.quantity
            again = uses if lasts else 1
            yield SupplyNeed(piece_id=whose.id, piece=whose.name, supply=supply, amount=amount, uses=again)
        case None:
            return


def _amount(part: Part, taken: FromSupply) -> float:
    """How much of its supply a part takes: metres, kilograms, or a number."""
    match taken.how:
        case "in all":
            return part.sizes[0].value * part.quantity
        case "by mass":
            return part.mass_kg
        case _:
            return float(part.quantity if taken.number is None else taken.number * part.quantity)


def _of_rig(hung: RigWork) -> Iterator[Need]:
    rig, report = hung.rig, hung.report
    if report is None:
        return
    sized = report.take_off.sized
    whose = _Whose(id=hung.id, name=rig.name, quantity=1)
    for part in (sized.cut, *sized.parts):
        yield from _of_part(whose, part, 1)
    for state, line in zip(report.lines, rig.lines, strict=False):
        yield _line(hung, state.name, line.spec, state.cut_length_m)
    for name, spec, long in _other_lines(rig):
        yield _line(hung, name, spec, long)
    yield from _own_water(hung)


def _other_lines(rig: Rig) -> Iterator[tuple[str, LineSpec, float]]:
    """The cord through a run, and the second bond from its point to the nearest place of the armature."""
    if rig.armature.carrier is not None:
        ends = 2 * end_takes_m(rig.armature.carrier)
        yield "cord through it", rig.armature.carrier, rig.armature.length_m + ends
    if rig.bond is not None and rig.bond.point is not None and rig.attachments:
        point = rig.points[rig.bond.point]
        reach = min(
            ((point.x_m - each.x_m) ** 2 + (point.y_m - each.y_m) ** 2 + (point.z_m - each.z_m) ** 2) ** 0.5
            for each in rig.attachments
        )
        yield "second bond", rig.bond.spec, reach + rig.bond.slack_m + 2 * end_takes_m(rig.bond.spec)


def _line(hung: RigWork, name: str, spec: LineSpec, long: float) -> Need:
    key = supply_of(spec)
    if LINES[spec.kind].by_the_piece:
        return SupplyNeed(piece_id=hung.id, piece=hung.rig.name, supply=key, amount=1.0)
    return _length(hung, name, key, long, 1)


def _length(hung: RigWork, name: str, key: str, long: float, quantity: int) -> LengthNeed:
    return LengthNeed(piece_id=hung.id, piece=hung.rig.name, name=name, supply=key, length_m=long, quantity=quantity)
