"""The acts of a piece that stands or is carried, from its choices: from the first wire to the last box home."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from jolly_trellis.core.acts.acts import ActKind, Acts, Held, Level, Lot, Place, Spot, What
from jolly_trellis.core.acts.passing import Line, Passing, lines_of
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine


@dataclass(frozen=True, slots=True, kw_only=True)
class Chosen:
    """All of a piece that its acts follow from.

    `vessels` are those it stands in: their numbers, whether stones lie in them and whether water is shown in them;
    `things` what it stands in or on, and what is laid or hung on it.
    """

    lines: tuple[tuple[Line, ...], ...]
    vessels: tuple[tuple[int, bool, bool], ...]
    things: tuple[What, ...]
    carried: bool
    passage: Passage
    water_last: bool
    tied: bool
    ballast: bool
    moves: bool
    together: bool
    lifted_out: bool

    @property
    def there(self) -> bool:
        """Whether its stems go in where it stands."""
        return self.passage.made == "its place"


def acts_of(piece: Piece, varieties: Mapping[str, Variety]) -> Acts:
    """Every act of a piece, in order. Source: the choices of the plan; else as the trade usually does it."""
    return _acts(chosen(piece, varieties))


def chosen(piece: Piece, varieties: Mapping[str, Variety]) -> Chosen:
    """What of a piece its acts follow from; it is the same while sizes and levels change."""
    going, weight, support = piece.transport, piece.counterweight, piece.support
    things: tuple[tuple[What, object], ...] = (
        ("urn", piece.insert),
        ("support", support),
        ("weight", weight),
        ("spill", piece.spill),
    )
    own = () if is_worn(piece) else ((0, piece.ballast_kg > 0, piece.water_level_m > 0),)
    return Chosen(
        lines=tuple(lines_of(recipe, varieties) for recipe in recipes_of(piece)),
        vessels=own
        + tuple((nth, each.ballast_kg > 0, each.water_level_m > 0) for nth, each in enumerate(piece.companions, 1)),
        things=tuple(what for what, thing in things if thing is not None),
        carried=piece.carried,
        passage=piece.passage,
        water_last=piece.making.water_last,
        tied=weight is not None and weight.tied,
        ballast=support is not None and support.water_l > 0,
        moves=piece.setting.moves_to not in (None, piece.setting.where),
        together=going is not None and not going.apart,
        lifted_out=going is not None and going.lifted_out,
    )


@lru_cache(maxsize=400)
def _acts(piece: Chosen) -> Acts:
    work = Passing(piece.lines, afterwards=piece.passage.afterwards)
    _made(work, piece)
    if not piece.there:
        _flowered(work, piece, "workshop")
        if piece.passage.cooled is not None:
            work.taken("cool", "cool room")
    _loaded(work, piece)
    _carried_in(work)
    if "weight" in piece.things:
        held: Held = "tied" if piece.tied else "laid"
        work.do("lay the weight", "place", {Lot(what="weight"): Spot(place="place", held=held)})
    if piece.there:
        inside = [lot for lot in work.now if lot.what in ("mechanic", "stone")]
        work.do("make there", "place", dict.fromkeys(inside, Spot(place="place")))
        _flowered(work, piece, "place")
    work.grouped("on site", "place")
    if piece.carried:
        if piece.passage.handover is not None:
            work.taken("hand over", "others")
        return Acts(work.acts)
    _filled(work, piece, "fill", "place", "show")
    shown: Place = "place"
    if piece.moves:
        shown = "moved to"
        work.taken("move", shown, but=("spill", "weight"))
    work.grouped("after the move", shown)
    work.grouped("last", shown)
    _struck(work, shown)
    return Acts(work.acts)


def recipes_of(piece: Piece) -> tuple[tuple[RecipeLine, ...], ...]:
    """The recipes of a piece by the vessels of its lots: its own, its companions'; last, of what hangs from it."""
    hangs = () if piece.spill is None else (piece.spill.recipe,)
    return (piece.recipe, *(each.recipe for each in piece.companions), *hangs)


def _made(work: Passing, piece: Chosen) -> None:
    """The dry vessel with its mechanic, fixings and stones in it; what goes with it waits beside."""
    here, beside = Spot(place="workshop"), Spot(place="workshop", held="apart")
    moves = {Lot(what="mechanic"): here}
    for nth, stones, _ in piece.vessels:
        moves |= {Lot(what="vessel", vessel=nth): here, Lot(what="mechanic", vessel=nth): here}
        if stones:
            moves[Lot(what="stone", vessel=nth)] = here
    moves |= {Lot(what=what): beside for what in piece.things}
    work.do("make", "workshop", moves)


def _flowered(work: Passing, piece: Chosen, place: Place) -> None:
    """Water, greens and flowers that go with the piece; the water last where it is made dry."""
    level: Level = "show" if piece.carried else "bench"
    if piece.passage.weight != "there" and place == "workshop" and "weight" in piece.things:
        laid = {Lot(what="weight"): Spot(place=place, held="laid")}
        work.do("lay the weight at the bench", place, laid)
    if not piece.water_last:
        _filled(work, piece, "water", place, level)
    greens, others = work.split()
    work.do("green", place, dict.fromkeys(greens, Spot(place=place)))
    work.do("flower", place, dict.fromkeys(others, Spot(place=place)))
    if piece.water_last:
        _filled(work, piece, "water", place, level)


def _filled(work: Passing, piece: Chosen, kind: ActKind, place: Place, level: Level) -> None:
    """Water to a level in every vessel that has any; on show the ballast water of its support too."""
    spot = Spot(place=place, level=level)
    moves = {Lot(what="water", vessel=nth): spot for nth, _, wet in piece.vessels if wet}
    if kind == "fill" and piece.ballast:
        moves[Lot(what="ballast water")] = spot
    work.do(kind, place, moves)


def _loaded(work: Passing, piece: Chosen) -> None:
    """All of it into the van: what goes in there in buckets, its water at the road's level, apart what rides so."""
    apart = {"weight", "spill"}
    if piece.there:
        apart |= {"stone", "support", "urn"}
    if not piece.together:
        apart.add("support")
    if piece.lifted_out:
        apart.add("urn")
    moves = {}
    for lot, spot in work.now.items():
        held: Held = "apart" if lot.what in apart else "under it" if lot.what in ("support", "urn") else spot.held
        moves[lot] = Spot(place="van", held=held, level="road" if lot.what == "water" else None)
    moves |= {lot: Spot(place="van", held="in a bucket") for lot in work.lots if lot not in work.now}
    work.do("load", "van", moves)


def _carried_in(work: Passing) -> None:
    """Set down where it is shown: on its dry joint; the weight, and what goes in there, wait beside it."""
    held: dict[str, Held] = {"urn": "under it", "support": "under it", "spill": "in it"}
    moves = {
        lot: Spot(place="place", held=held.get(lot.what, spot.held), level=spot.level)
        for lot, spot in work.now.items()
    }
    work.do("carry in", "place", moves)


def _struck(work: Passing, place: Place) -> None:
    """What hangs over comes off before the weight that holds it; the water that holds it is tipped out last."""
    if work.afterwards in ("stays", "given"):
        work.taken("hand over", "others")
        return
    off = Spot(place=place, held="apart")
    work.do("unhook", place, {lot: off for lot in work.now if lot.what == "spill"})
    work.stems_out("take the stems out", place)
    work.do("take the weight off", place, {lot: off for lot in work.now if lot.what == "weight"})
    work.do("tip out", place, dict.fromkeys(work.wet(), Spot(place="drain", held="apart")))
    work.home()
