"""What is needed of what, for which part, and all of it together."""

from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.materials.netting import NettingSheet

ThingKind = Literal["vessel", "stand", "frog", "armature"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetNeed:
    """So many sheets of one size for a piece: across the roll and along it, m; and how often one is used."""

    piece_id: int
    piece: str
    name: str
    netting: str
    sheet: NettingSheet
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
class ThingNeed:
    """So many of one thing that returns. `thing` tells it from all others: see `ThingIn`."""

    piece_id: int
    piece: str
    kind: ThingKind
    thing: str
    name: str
    quantity: int


@dataclass(frozen=True, slots=True, kw_only=True)
class StemNeed:
    """So many stems of one variety for a piece; how many of each shade by its name, those of none under an empty one;
    empty: it has no shades.
    """

    piece_id: int
    piece: str
    variety: str
    count: int
    shades: tuple[tuple[str, int], ...] = ()
    shoot: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Needs:
    """All that an event needs; `not_worked_out` names pieces that could not be, and are not in it.

    `reused` are sheets and lengths that are not cut anew, as they come from finished armatures.
    """

    sheets: tuple[SheetNeed, ...]
    lengths: tuple[LengthNeed, ...]
    supplies: tuple[SupplyNeed, ...]
    frogs: tuple[FrogNeed, ...]
    stems: tuple[StemNeed, ...]
    not_worked_out: tuple[str, ...]
    things: tuple[ThingNeed, ...] = ()
    reused: tuple[SheetNeed | LengthNeed, ...] = ()
    shoots: tuple[StemNeed, ...] = ()


Need = SheetNeed | LengthNeed | SupplyNeed | FrogNeed | StemNeed | ThingNeed
FOR_ALL = 0  # the part's number of what is for the whole event
