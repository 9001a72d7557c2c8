"""What an event needs: sheets, lengths to cut, supplies, frogs and stems, each with the piece that needs it."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from jolly_trellis.core.books.needs import FromFrogs, FromNetting, FromSupply
from jolly_trellis.core.event.job import Made, PieceWork, Reused, RigWork, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.keys import thing_id
from jolly_trellis.core.event.needs.needed import (
    FrogNeed,
    LengthNeed,
    Need,
    Needs,
    SheetNeed,
    StemNeed,
    SupplyNeed,
    ThingKind,
    ThingNeed,
)
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.pin_frog import FROG_USES
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.mechanics.tape import PUTTY_WIDTH, putty_ring_kg
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.rigging.lines import LINES, LineSpec, end_takes_m, pieces_of, supply_of
from jolly_trellis.core.rigging.loads import HARDWARE_USES
from jolly_trellis.core.rigging.mounts import core_bed_m2
from jolly_trellis.core.rigging.rig import HARDWARE_KINDS, HardwareKind, Rig
from jolly_trellis.core.stems.shades import shade_counts

# Stem tubes as they are sold: inner diameter and length up to which each does, m, and its key.
TUBES: tuple[tuple[float, float, str], ...] = (
    (0.012, 0.08, "stem-tube-10"),
    (0.017, 0.105, "stem-tube"),
    (0.1, 0.5, "stem-tube-20"),
)

# The marked hardware of lines, and the key of the supply each is bought as.
HARDWARE_SUPPLY: dict[HardwareKind, str] = {kind: kind.replace(" ", "-") for kind in HARDWARE_KINDS}


def needs_of(
    made: Made, *, turning: bool = True, reused: Iterable[Reused] = (), here: Mapping[str, int] | None = None
) -> Needs:
    """Gather what every piece needs, times its quantity.

    Args:
        turning: whether sheets may lie turned on the roll; those of runs never do.
        reused: how many of each part are made from finished armatures. here: how many of those there are by key; what
        is not here is made anew. None: all are.
    Source: sums of what each piece reports.
    """
    found: list[Need] = []
    again: list[SheetNeed | LengthNeed] = []
    asked = {work.id: [each for each in reused if each.part == work.id] for work in made.works}
    left = None if here is None else dict(here)
    missing = []
    for work in made.pieces:
        found += _stems(work.id, work.piece.name, recipe_of(work), work.piece.quantity)
        if work.report is None:
            missing.append(work.piece.name)
        else:
            mine, old = _split(_of_piece(work), work, _taken(asked[work.id], left))
            found += mine
            again += old
        found += _things(work)
        found += _armatures(work, asked[work.id])
    for hung in made.rigs:
        found += _stems(hung.id, hung.rig.name, recipe_of(hung), 1)
        if hung.report is None:
            missing.append(hung.rig.name)
        else:
            mine, old = _split(_of_rig(hung), hung, _taken(asked[hung.id], left))
            found += mine
            again += old
        found += _armatures(hung, asked[hung.id])
    return Needs(
        sheets=tuple(
            replace(each, may_turn=each.may_turn and turning) for each in found if isinstance(each, SheetNeed)
        ),
        lengths=tuple(each for each in found if isinstance(each, LengthNeed)),
        supplies=tuple(each for each in found if isinstance(each, SupplyNeed)),
        frogs=tuple(each for each in found if isinstance(each, FrogNeed)),
        stems=tuple(each for each in found if isinstance(each, StemNeed) and not each.shoot),
        shoots=tuple(each for each in found if isinstance(each, StemNeed) and each.shoot),
        not_worked_out=tuple(missing),
        things=tuple(each for each in found if isinstance(each, ThingNeed)),
        reused=tuple(again),
    )


def by_part(needs: Needs) -> dict[int, Needs]:
    """The needs of each part by its number, those of the whole event under `FOR_ALL`."""
    found: dict[int, dict[str, list[Any]]] = {}
    for field in ("sheets", "lengths", "supplies", "frogs", "stems", "things", "reused"):
        for each in getattr(needs, field):
            found.setdefault(each.piece_id, {}).setdefault(field, []).append(each)
    return {
        number: Needs(
            **{name: tuple(lists.get(name, ())) for name in ("sheets", "lengths", "supplies", "frogs", "stems")},
            things=tuple(lists.get("things", ())),
            reused=tuple(lists.get("reused", ())),
            not_worked_out=(),
        )
        for number, lists in found.items()
    }


@dataclass(frozen=True, slots=True, kw_only=True)
class ThingIn:
    """A thing that returns. `thing` tells it from all others: of a vessel or a stand as `thing_id` gives it, of a frog
    or a finished armature its key, which is its `name` too.
    """

    kind: ThingKind
    thing: str
    name: str


def things_in(piece: Piece) -> Iterator[ThingIn]:
    """What of a piece returns, for one of it."""
    stand = () if is_worn(piece) else (piece.vessel, *(other.vessel for other in piece.companions))
    outer = () if piece.insert is None else (piece.insert.outer,)
    for vessel in (*stand, *outer):
        yield ThingIn(kind="vessel", thing=vessel_id(vessel), name=vessel.name)
    if piece.support is not None:
        support = piece.support
        yield ThingIn(kind="stand", thing=thing_id("stand", support.key, support.name), name=support.name)
    for mechanic in (piece.mechanic, *(other.mechanic for other in piece.companions)):
        if mechanic.frog is not None:
            yield ThingIn(kind="frog", thing=mechanic.frog, name=mechanic.frog)


def vessel_id(vessel: Vessel) -> str:
    """What tells a vessel from all others."""
    return thing_id("vessel", vessel.key, vessel.name)


def _things(work: PieceWork) -> Iterator[Need]:
    """The vessels and the stand of a piece; its frogs are parts of its mechanics."""
    piece = work.piece
    for each in things_in(piece):
        if each.kind != "frog":
            yield ThingNeed(
                piece_id=work.id,
                piece=piece.name,
                kind=each.kind,
                thing=each.thing,
                name=each.name,
                quantity=piece.quantity,
            )


def _armatures(work: Work, reused: list[Reused]) -> Iterator[Need]:
    left = quantity_of(work)
    for each in reused:
        number = min(each.number, left)
        left -= number
        if number:
            yield ThingNeed(
                piece_id=work.id,
                piece=name_of(work),
                kind="armature",
                thing=each.armature,
                name=each.armature,
                quantity=number,
            )


def _taken(reused: list[Reused], left: dict[str, int] | None) -> int:
    """How many are made from finished armatures, of those that are left."""
    number = 0
    for each in reused:
        taken = each.number if left is None else min(each.number, left.get(each.armature, 0))
        if left is not None:
            left[each.armature] = left.get(each.armature, 0) - taken
        number += taken
    return number


def _split(needs: Iterator[Need], work: Work, reused: int) -> tuple[list[Need], list[SheetNeed | LengthNeed]]:
    """What of a part is made anew, and what comes with the finished armatures: of as many as there are, whatever holds
    the shape. What is used up is needed for each.
    """
    quantity = quantity_of(work)
    number = min(reused, quantity)
    anew: list[Need] = []
    again: list[SheetNeed | LengthNeed] = []
    for need in needs:
        if number and isinstance(need, SheetNeed | LengthNeed) and _of_its_shape(need, work):
            old = need.quantity * number // quantity
            again.append(replace(need, quantity=old))
            if need.quantity > old:
                anew.append(replace(need, quantity=need.quantity - old))
        else:
            anew.append(need)
    return anew, again


def _of_its_shape(need: SheetNeed | LengthNeed, work: Work) -> bool:
    """Whether it comes with a finished armature: what lasts of a mechanic; of hung work its netting and canes, not its
    lines.
    """
    if isinstance(work, PieceWork):
        return need.uses > 1
    if isinstance(need, SheetNeed):
        return True
    report = work.report
    own = {part.name for part in report.take_off.sized.parts} if report is not None else set()
    return need.name in own


def _stems(piece_id: int, name: str, recipe: tuple[RecipeLine, ...], quantity: int) -> Iterator[Need]:
    for line in recipe:
        counts = shade_counts(line) if line.shades else {}
        yield StemNeed(
            piece_id=piece_id,
            piece=name,
            variety=line.variety,
            count=line.count * quantity,
            shades=tuple((shade, number * quantity) for shade, number in counts.items()),
            shoot=line.shoot,
        )


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
    weight = work.piece.counterweight
    if weight is not None:
        kg, again = weight.mass_kg * work.piece.quantity, round(HARDWARE_USES.value)
        yield SupplyNeed(piece_id=work.id, piece=work.piece.name, supply="stone", amount=kg, uses=again)
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
    for part in (*sized.cuts, *sized.parts):
        yield from _of_part(whose, part, 1)
    for state, line in zip(report.lines, rig.lines, strict=False):
        yield _line(hung, state.name, line.spec, state.cut_length_m, state.pieces)
    for name, spec, long in _other_lines(rig):
        yield _line(hung, name, spec, long, pieces_of(spec, long))
    yield from _kept(hung)
    yield from _own_water(hung)


def _kept(hung: RigWork) -> Iterator[Need]:
    """Marked hardware in the lines, and the stone in the foot of a sleeve: what comes home and is used again."""
    uses = round(HARDWARE_USES.value)
    numbers = Counter(each.kind for line in hung.rig.lines for each in line.hardware)
    for kind, number in numbers.items():
        supply, amount = HARDWARE_SUPPLY[kind], float(number)
        yield SupplyNeed(piece_id=hung.id, piece=hung.rig.name, supply=supply, amount=amount, uses=uses)
    core_kg = hung.rig.armature.core_kg
    if core_kg:
        yield SupplyNeed(piece_id=hung.id, piece=hung.rig.name, supply="stone", amount=core_kg, uses=uses)
        bed_kg = putty_ring_kg(core_bed_m2(core_kg) / PUTTY_WIDTH.value)
        yield SupplyNeed(piece_id=hung.id, piece=hung.rig.name, supply="putty", amount=bed_kg)


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


def _line(hung: RigWork, name: str, spec: LineSpec, long: float, number: int | None) -> Need:
    key, about = supply_of(spec), LINES[spec.kind]
    if number is not None:
        uses = 1 if about.lasts is None else round(about.lasts.value)
        return SupplyNeed(piece_id=hung.id, piece=hung.rig.name, supply=key, amount=float(number), uses=uses)
    return _length(hung, name, key, long, 1)


def _length(hung: RigWork, name: str, key: str, long: float, quantity: int) -> LengthNeed:
    return LengthNeed(piece_id=hung.id, piece=hung.rig.name, name=name, supply=key, length_m=long, quantity=quantity)
