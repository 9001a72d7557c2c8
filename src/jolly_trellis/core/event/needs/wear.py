"""Things that return: what one use of them costs, and when they have had all they are good for."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.event.money import NOTHING
from jolly_trellis.core.materials.stems import Variety

VESSEL_USES = measure("Times a vessel is used", "count", 40)
STAND_USES = measure("Times a stand is used", "count", 60)
DRIED_USES = measure("Times a dried or preserved stem is used", "count", 2)
ARTIFICIAL_USES = measure("Times an artificial stem is used", "count", 12)


@dataclass(frozen=True, slots=True, kw_only=True)
class Kept:
    """Something the stores keep to be used again: how many, what one is bought and sold for, how often it is used.

    `price` None is not known. `lasts` is how often one is used, `used` how many uses all of them together have had.
    `key` is its key in the stores, of several of one name the first; empty for what they do not have.
    """

    name: str
    here: int
    price: Decimal | None
    lasts: int
    used: int = 0
    key: str = ""
    resale: Decimal = NOTHING

    @property
    def worn(self) -> bool:
        """Whether all of them together have had every use they are good for."""
        return self.here > 0 and self.used >= self.lasts * self.here

    def use_cost(self) -> Decimal | None:
        """What one use of one costs: (price − resale)/uses, not under nothing; None where no price is known."""
        if self.price is None:
            return None
        return max(self.price - self.resale, NOTHING) / self.lasts


def stem_uses(variety: Variety, own: int | None = None) -> int:
    """How often a stem is used: as the stores say, else once, or what is usual of what keeps."""
    if not variety.lasting:
        return 1
    usual = ARTIFICIAL_USES if variety.kind == "artificial" else DRIED_USES
    return own or round(usual.value)


def worn_out(kept: Mapping[str, Kept], wanted: Mapping[str, int]) -> Iterator[str]:
    """Names of what an event wants that is worn, to be looked over before it goes out again."""
    yield from (kept[name].name for name in wanted if name in kept and kept[name].worn)
