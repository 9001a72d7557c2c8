"""What parts are taken from: the one way by which anything reaches the cutting, the shopping and the cost.

Whoever makes a part says what of the stores it is; nothing is known by its name.
"""

from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.materials.netting import Netting, NettingSheet

How = Literal["each cut", "in all", "by number", "by mass"]


@dataclass(frozen=True, slots=True, kw_only=True)
class FromSupply:
    """Taken from a supply of the stores, by its key.

    `how` says what of the part is counted: its first size, cut to length each or of one length in all, its number, its
    mass. `lasts` tells what is used again as often as what it is part of. `number` is how many of it, where
    that is not the part's own number.
    """

    supply: str
    how: How = "by number"
    lasts: bool = False
    number: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FromNetting:
    """Cut as a sheet from a roll of netting, by its key; `lasts` as above. `may_turn` lets it lie across the roll."""

    name: str
    netting: str
    sheet: NettingSheet
    lasts: bool = True
    may_turn: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class FromFrogs:
    """A frog of the stores, by its key."""

    frog: str


Taken = FromSupply | FromNetting | FromFrogs


def from_roll(
    name: str, netting: Netting, sheet: NettingSheet, *, lasts: bool = True, may_turn: bool = True
) -> FromNetting:
    """A sheet of a netting."""
    return FromNetting(name=name, netting=netting.key, sheet=sheet, lasts=lasts, may_turn=may_turn)
