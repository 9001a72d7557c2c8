"""What an event needs: sheets, lengths to cut, supplies, frogs and stems, each with the piece that needs it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.job import Made, PieceWork, RigWork, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.extras import OUTSIDE
from jolly_trellis.core.mechanics.pin_frog import FROG_USES
from jolly_trellis.core.mechanics.sized import Part, SizedMechanic
from jolly_trellis.core.netting import Sheet
from jolly_trellis.core.piece import Mechanic, MechanicKind, RecipeLine, StemTube
from jolly_trellis.core.rigging.levelling import end_takes_m
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Rig

WIDE_TAPE = rule("Tape wider than this is cut from the wide roll", "length", 0.009)
LINING_LEAVES = rule("Length that one leaf of a lining covers", "length", 0.15)

How = Literal["cut", "in all", "pieces", "mass", "leaves"]
SUPPLY_OF: dict[str, tuple[str, How]] = {
    "tape strip": ("tape-6", "cut"),
    "tape, in all": ("tape-6", "in all"),
    "tape over the binding": ("stem-tape", "cut"),
    "ribbon for the bow": ("ribbon", "cut"),
    "streamer": ("ribbon", "cut"),
    "covered wire": ("covered-wire", "cut"),
    "vine, in all": ("vine", "in all"),
    "stick": ("stick", "cut"),
    "dowel": ("dowel", "cut"),
    "string": ("string", "in all"),
    "tie, in all": ("string", "in all"),
    "pliable bare stems, in all": ("pliable-stems", "in all"),
    "pliable twigs, in all": ("pliable-stems", "in all"),
    "soft wire, 2 mm": ("soft-wire", "in all"),
    "fine wood shavings": ("shavings", "mass"),
    "dry moss": ("moss", "mass"),
    "moss round it": ("moss", "mass"),
    "stone": ("stone", "mass"),
    "putty ring": ("putty", "mass"),
    "putty ring for the joint": ("putty", "mass"),
    "metal ring for the mouth": ("metal-ring", "pieces"),
    "metal ring for the bowl": ("metal-ring", "pieces"),
    "cup": ("cup", "pieces"),
    "rod": ("rod", "pieces"),
    "leaf lining strip": ("large-leaf", "leaves"),
    "leaf of the collar": ("large-leaf", "pieces"),
    "dry twigs": ("dry-twig", "cut"),
    "canes along": ("cane", "cut"),
    "canes across": ("cane", "cut"),
    "cane bent to the ring": ("cane", "cut"),
    "hooks of wire": ("hook-wire", "cut"),
    "ties to the frame": ("cable-tie-36", "pieces"),
    "ties to the canes": ("cable-tie-25", "pieces"),
}
# Stem tubes as they are sold: inner diameter and length up to which each does, m, and its key.
TUBES: tuple[tuple[float, float, str], ...] = ((0.017, 0.105, "stem-tube"), (0.1, 0.5, "stem-tube-20"))
READY_MADE: dict[MechanicKind, str] = {
    "lattice_pad": "lattice-pad",
    "lattice_disc": "lattice-pad",
    "fibre_pouch": "fibre-block",
    "mineral_block": "mineral-block",
}


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


def line_supply(spec: LineSpec) -> str:
    """The key of the supply that a line is cut from."""
    tenths = round((spec.size_m or 0) * 10_000)
    match spec.kind:
        case "steel rope":
            return f"steel-rope-{tenths}"
        case "polyester cord":
            return f"cord-{tenths}"
        case "cable tie":
            return f"cable-tie-{tenths}"
        case kind:
            return kind


def _stems(piece_id: int, name: str, recipe: tuple[RecipeLine, ...], quantity: int) -> Iterator[Need]:
    for line in recipe:
        yield StemNeed(piece_id=piece_id, piece=name, variety=line.variety, count=line.count * quantity)


def _of_piece(work: PieceWork) -> Iterator[Need]:
    report, piece = work.report, work.piece
    if report is None:
        return
    vessels = [(piece.mechanic, report.mechanic)]
    vessels += [(each.mechanic, made.mechanic) for each, made in zip(piece.companions, report.companions, strict=True)]
    for choice, sized in vessels:
        yield from _of_mechanic(work, choice, sized)
    for part in (*report.extras, *(part for each in report.companions for part in each.extras)):
        if part.name == OUTSIDE and piece.mechanic.netting:
            long, wide = (each.value for each in part.sizes[:2])
            sheet = Sheet(width_m=wide, length_m=long, cells_across=0, rows_along=0, mass_kg=0.0)
            yield _sheet(work, part.name, piece.mechanic.netting, sheet, report.mechanic.uses)
        else:
            yield from _of_part(work.id, piece.name, part, piece.mechanic, piece.quantity, 1)
    if report.spill is not None:
        key = (piece.spill.netting if piece.spill is not None else None) or piece.mechanic.netting or ""
        yield _sheet(work, "spill", key, report.spill.sheet, 1)
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


def _of_mechanic(work: PieceWork, choice: Mechanic, sized: SizedMechanic) -> Iterator[Need]:
    piece = work.piece
    for flat in sized.flat:
        if choice.netting:
            yield _sheet(work, flat.name, choice.netting, flat.sheet, sized.uses)
    if sized.frog_mass_kg and choice.frog:
        yield FrogNeed(
            piece_id=work.id,
            piece=piece.name,
            frog=choice.frog,
            quantity=piece.quantity,
            uses=round(FROG_USES.value),
        )
    ready = READY_MADE.get(sized.kind)
    if ready:
        yield SupplyNeed(
            piece_id=work.id, piece=piece.name, supply=ready, amount=float(piece.quantity), uses=sized.uses
        )
    for part in sized.parts:
        yield from _of_part(work.id, piece.name, part, choice, piece.quantity, sized.uses)


def _of_part(
    piece_id: int, piece: str, part: Part, choice: Mechanic, quantity: int, uses: int
) -> Iterator[LengthNeed | SupplyNeed]:
    """One part of a mechanic as the supply it is cut or taken from; a part that is no supply gives nothing."""
    known = SUPPLY_OF.get(part.name)
    if known is None:
        return
    key, how = known
    if key == "tape-6" and choice.tape_width_m > WIDE_TAPE.value:
        key = "tape-12"
    lasts = uses if key in ("stick", "dowel", "metal-ring", "soft-wire", "cup", "rod", "stone") else 1
    sizes = [each.value for each in part.sizes]
    number = part.quantity * quantity
    match how:
        case "cut":
            yield LengthNeed(
                piece_id=piece_id,
                piece=piece,
                name=part.name,
                supply=key,
                length_m=sizes[0],
                quantity=number,
                uses=lasts,
            )
            return
        case "in all":
            amount = sizes[0] * number
        case "mass":
            amount = next(each.value for each in part.sizes if each.kind == "mass") * number
        case "leaves":
            amount = float(-(-sizes[0] // LINING_LEAVES.value)) * number
        case "pieces":
            amount = float(number)
    yield SupplyNeed(piece_id=piece_id, piece=piece, supply=key, amount=amount, uses=lasts)


def _sheet(work: PieceWork, name: str, netting: str, sheet: Sheet, uses: int) -> SheetNeed:
    return SheetNeed(
        piece_id=work.id,
        piece=work.piece.name,
        name=name,
        netting=netting,
        sheet=sheet,
        quantity=work.piece.quantity,
        uses=uses,
    )


def _of_rig(hung: RigWork) -> Iterator[Need]:
    rig, report = hung.rig, hung.report
    if report is None:
        return
    sized = report.take_off.sized
    share = sized.section_m / sized.sheet.length_m
    section = Sheet(
        width_m=sized.sheet.width_m,
        length_m=sized.section_m,
        cells_across=sized.sheet.cells_across,
        rows_along=0,
        mass_kg=sized.sheet.mass_kg * share,
    )
    yield SheetNeed(
        piece_id=hung.id,
        piece=rig.name,
        name=rig.armature.kind,
        netting=sized.netting.key,
        sheet=section,
        quantity=sized.sections,
        uses=1,
        may_turn=not rig.is_run,
    )
    for part in sized.parts:
        key, how = SUPPLY_OF[part.name]
        if how == "cut" and part.length_m is not None:
            yield _length(hung, part.name, key, part.length_m, part.count)
        else:
            yield SupplyNeed(piece_id=hung.id, piece=rig.name, supply=key, amount=float(part.count))
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
    key = line_supply(spec)
    if spec.kind == "cable tie":
        return SupplyNeed(piece_id=hung.id, piece=hung.rig.name, supply=key, amount=1.0)
    return _length(hung, name, key, long, 1)


def _length(hung: RigWork, name: str, key: str, long: float, quantity: int) -> LengthNeed:
    return LengthNeed(piece_id=hung.id, piece=hung.rig.name, name=name, supply=key, length_m=long, quantity=quantity)
