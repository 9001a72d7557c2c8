"""Finished armatures: what of an event comes home as one, and which of those that are here would do for what."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from jolly_trellis.core.event.cutting.roll_problems import NARROWER, WIDER
from jolly_trellis.core.event.job import Reused
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs, SheetNeed
from jolly_trellis.core.event.needs.wear import Kept
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.finished import FinishedArmature
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.quantities import Phrase, count, length, phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """Finished armatures that would do for a part: which, how many are free, how many the part is made of."""

    part: int
    piece: str
    armature: str
    name: str
    free: int
    wanted: int


def does_for(armature: FinishedArmature, need: SheetNeed, netting: Netting) -> bool:
    """Whether a finished armature takes the place of a sheet: made as the same, of the same netting, not broken, and
    each way no more than half a cell under its size and no more than a cell over it.

    Source: the tolerance of cutting.
    """
    if armature.condition in ("cracked", "short") or armature.made_as != need.name or armature.netting != netting.key:
        return False
    cell = nets.pitch_across_m(netting)
    pairs = ((armature.width_m, need.sheet.width_m), (armature.length_m, need.sheet.length_m))
    return all(-NARROWER.value * cell - 1e-9 <= own - asked <= WIDER.value * cell + 1e-9 for own, asked in pairs)


def offers(
    needs: Needs,
    armatures: Mapping[str, FinishedArmature],
    kept: Mapping[str, Kept],
    nettings: Mapping[str, Netting],
    reused: Iterable[Reused],
) -> Iterator[Offer]:
    """What of the stores would do for a part that is made anew, the first part first; what is worn is not offered.

    Only for parts of one sheet: an armature in the place of one of several would leave the others uncut.
    """
    taken: dict[str, int] = {}
    for each in reused:
        taken[each.armature] = taken.get(each.armature, 0) + each.number
    sheets = Counter(each.piece_id for each in needs.sheets)
    for need in needs.sheets:
        netting = nettings.get(need.netting)
        if netting is None or need.piece_id == FOR_ALL or sheets[need.piece_id] > 1:
            continue
        for key, armature in armatures.items():
            own = kept.get(key)
            free = 0 if own is None or own.worn else own.here - taken.get(key, 0)
            if free > 0 and does_for(armature, need, netting):
                yield Offer(
                    part=need.piece_id,
                    piece=need.piece,
                    armature=key,
                    name=armature.name,
                    free=free,
                    wanted=need.quantity,
                )


def not_for(
    armature: FinishedArmature, part: int, needs: Needs, nettings: Mapping[str, Netting]
) -> tuple[Phrase, Phrase] | None:
    """Why a finished armature cannot take the place of a part's sheet, and what could, in words; None where it can.

    Args:
        needs: of the event, with what is used again already.
    """
    own = [each for each in (*needs.sheets, *needs.reused) if each.piece_id == part and isinstance(each, SheetNeed)]
    sizes = {(each.name, each.netting, each.sheet.width_m, each.sheet.length_m): each for each in own}
    if not sizes:
        return phrase("No sheet of netting is cut for it."), phrase("A part that is made of one sheet.")
    if len(sizes) > 1:
        return phrase("It is made of {n} sheets, and a finished armature is one.", n=count(len(sizes))), phrase(
            "A part that is made of one sheet."
        )
    (need,) = sizes.values()
    netting = nettings.get(need.netting)
    if netting is None or not does_for(armature, need, netting):
        return phrase("{name} is of another make, netting or size, or broken.", name=armature.name), phrase(
            "Its sheet is {sheet} of {netting}, {width} × {length}.",
            sheet=need.name,
            netting=need.netting if netting is None else netting.name,
            width=length(need.sheet.width_m),
            length=length(need.sheet.length_m),
        )
    return None
