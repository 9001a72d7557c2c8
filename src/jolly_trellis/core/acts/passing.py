"""The acts of one part as they are put one behind the other, and where everything is meanwhile."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from jolly_trellis.core.acts.acts import Act, ActKind, Lot, Place, Spot
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.passage import GOES_IN, Afterwards, GoesIn
from jolly_trellis.core.plan.recipe import RecipeLine

_THERE: dict[GoesIn, ActKind] = {
    "on site": "flower there",
    "after the move": "flower after the move",
    "last": "flower last",
}
_IN_IT = ("in it", "under it", "laid", "tied")
_DRUNK = ("water", "ballast water")


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """A line of a recipe as acts see it: how many of its stems go in when, whether they are greens, and keep."""

    counts: tuple[int, ...]
    green: bool
    keeps: bool


def lines_of(recipe: tuple[RecipeLine, ...], varieties: Mapping[str, Variety]) -> tuple[Line, ...]:
    """The lines of a recipe as acts see them; a variety the stores do not know is no green, and does not keep."""
    found = []
    for line in recipe:
        variety = varieties.get(line.variety)
        counts = tuple(line.going_in(goes) for goes in GOES_IN)
        green = variety is not None and variety.form == "leaf"
        found.append(Line(counts=counts, green=green, keeps=variety is not None and variety.lasting))
    return tuple(found)


class Passing:
    """A list of acts that grows, with the fold over it.

    Args:
        lines: of every vessel, the part's own first; then of what hangs from it.
    """

    def __init__(self, lines: tuple[tuple[Line, ...], ...], *, afterwards: Afterwards) -> None:
        self.lines, self.afterwards = lines, afterwards
        self.acts: list[Act] = []
        self.now: dict[Lot, Spot] = {}
        self.lots = tuple(_stems(lines))

    def do(self, kind: ActKind, place: Place, moves: Mapping[Lot, Spot]) -> None:
        """One more act, where it moves anything."""
        if moves:
            self.acts.append(Act(kind=kind, place=place, moves=moves))
            self.now.update(moves)

    def of(self, goes_in: GoesIn) -> list[Lot]:
        """The stems that go in at one time."""
        return [lot for lot in self.lots if lot.goes_in == goes_in]

    def split(self) -> tuple[list[Lot], list[Lot]]:
        """The stems that go with the part: greens, and all others."""
        greens = [lot for lot in self.of("with the piece") if self._line(lot).green]
        return greens, [lot for lot in self.of("with the piece") if lot not in greens]

    def grouped(self, goes_in: GoesIn, place: Place) -> None:
        """Stems that go in later, at the place."""
        self.do(_THERE[goes_in], place, dict.fromkeys(self.of(goes_in), Spot(place=place)))

    def taken(self, kind: ActKind, place: Place, *, but: tuple[str, ...] = ()) -> None:
        """All that is in it, under it or on it, elsewhere; what is named stays behind."""
        moves = {
            lot: Spot(place=place, held=spot.held, level=spot.level)
            for lot, spot in self.now.items()
            if spot.held in _IN_IT and lot.what not in but
        }
        self.do(kind, place, moves)

    def stems_out(self, kind: ActKind, place: Place) -> None:
        """Stems come out, for compost; what lasts is kept where the part comes home."""
        moves = {
            lot: Spot(place="home" if self._keeps(lot) else "compost", held="apart")
            for lot in self.now
            if lot.what == "stems"
        }
        self.do(kind, place, moves)

    def home(self) -> None:
        """Whatever is left goes home."""
        gone = ("compost", "drain", "others", "home")
        left = [lot for lot, spot in self.now.items() if spot.place not in gone]
        self.do("bring home", "home", dict.fromkeys(left, Spot(place="home", held="apart")))

    def wet(self) -> list[Lot]:
        """All water there is."""
        return [lot for lot in self.now if lot.what in _DRUNK]

    def _keeps(self, lot: Lot) -> bool:
        return self._line(lot).keeps and self.afterwards == "home"

    def _line(self, lot: Lot) -> Line:
        return self.lines[lot.vessel][lot.line or 0]


def _stems(lines: tuple[tuple[Line, ...], ...]) -> Iterator[Lot]:
    for nth, own in enumerate(lines):
        for index, line in enumerate(own):
            for goes_in, count in zip(GOES_IN, line.counts, strict=True):
                if count:
                    yield Lot(what="stems", vessel=nth, line=index, goes_in=goes_in, count=count)
