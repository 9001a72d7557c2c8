"""The plan of a piece that stands: one vessel or a composition of several, and what hangs from it."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal, Self

from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Companion, Counterweight, Dealt, Mechanic, Piece, Spill
from jolly_trellis.core.plan.recipe import Feet, RecipeLine
from jolly_trellis.core.ranges import Many


@dataclass(frozen=True, slots=True, kw_only=True)
class Standing(Piece):
    """A piece that stands where it is shown; with `companions` it is a composition of several vessels.

    `feet` tells whether stems are cut to stand on the floor, or to end just under the water on show. `dealt` keeps
    the seats; None deals them afresh.
    """

    kind: Literal["standing"] = "standing"
    companions: Annotated[tuple[Companion, ...], Many(4)] = ()
    spill: Spill | None = None
    counterweight: Counterweight | None = None
    feet: Feet = "on the floor"
    dealt: Dealt | None = None

    def with_vessels(self, change: Callable[[Vessel], Vessel]) -> Self:
        """The piece with every vessel of it changed."""
        beside = tuple(replace(each, vessel=change(each.vessel)) for each in self.companions)
        return replace(Piece.with_vessels(self, change), companions=beside)

    def with_recipes(self, change: Callable[[tuple[RecipeLine, ...]], tuple[RecipeLine, ...]]) -> Self:
        """The piece with every recipe of it changed."""
        beside = tuple(replace(each, recipe=change(each.recipe)) for each in self.companions)
        spill = None if self.spill is None else replace(self.spill, recipe=change(self.spill.recipe))
        return replace(self, recipe=change(self.recipe), companions=beside, spill=spill)

    def with_mechanics(self, change: Callable[[Mechanic], Mechanic]) -> Self:
        """The piece with every mechanic of it changed."""
        beside = tuple(replace(each, mechanic=change(each.mechanic)) for each in self.companions)
        return replace(self, mechanic=change(self.mechanic), companions=beside)

    def cut_from(self, netting: str, other: str) -> Self:
        """The piece with one netting in the place of another, wherever it has that; both by key."""
        cut = Piece.cut_from(self, netting, other)
        hung = cut.spill
        return cut if hung is None or hung.netting != netting else replace(cut, spill=replace(hung, netting=other))

    def with_levels(self, change: Callable[[tuple[RecipeLine, ...], float, Vessel], float]) -> Self:
        """The piece with the water on show of every vessel as its recipe, its level and the vessel have it."""
        beside = tuple(
            replace(each, water_level_m=change(each.recipe, each.water_level_m, each.vessel))
            for each in self.companions
        )
        return replace(Piece.with_levels(self, change), companions=beside)

    def with_seats(self, dealt: Dealt | None, beside: Sequence[Dealt | None]) -> Self:
        """The piece with its seats, and those of its companions, kept in it."""
        others = tuple(replace(each, dealt=own) for each, own in zip(self.companions, beside, strict=True))
        return replace(self, dealt=dealt, companions=others)

    def dealt_afresh(self) -> Self:
        """The piece with no seats of its own kept, so that they are dealt anew."""
        return replace(self, dealt=None)

    def without_spill(self) -> Self:
        """The piece with nothing hanging from it."""
        return replace(self, spill=None)


def standing(piece: Piece) -> Standing:
    """A piece that is known to stand, because something hangs from it or stands beside it. Raises TypeError."""
    if not isinstance(piece, Standing):
        raise TypeError(f"a {piece.kind} does not stand")
    return piece
