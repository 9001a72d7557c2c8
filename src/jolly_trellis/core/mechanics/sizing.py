"""Every mechanic by its kind, as the files of this folder describe them: a new file is all that a new one takes."""

from importlib import import_module
from pkgutil import iter_modules
from types import ModuleType

from jolly_trellis.core import mechanics
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.mechanics.about import ABOUT
from jolly_trellis.core.mechanics.bouquet import Shape, bouquet_shape
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.handful import Handful
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.mechanics.worn import worn_shape
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.kinds import is_held, is_worn
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.stems.stem_set import StemSet

__all__ = ["ABOUT", "MODULES", "bind", "handful_of", "shape_of", "size"]
MODULES: tuple[ModuleType, ...] = tuple(
    import_module(f"{mechanics.__name__}.{each.name}")
    for each in iter_modules(mechanics.__path__)
    if each.name != "sizing"
)


# What is wrong with a mechanic that is for another kind of piece, by that kind.
_OTHERWISE = {
    "standing": "This mechanic sits in a vessel; a bouquet is bound in the hand.",
    "bouquet": "This mechanic is held in the hand; what is worn is wired and taped.",
    "worn": "This mechanic is worn; a bouquet is bound in the hand.",
}


def shape_of(piece: Bound) -> Shape:
    """The measures of what is bound. Raises InvalidMeasure: its flowers end too low over the binding."""
    if is_worn(piece):
        return worn_shape(piece)
    if is_held(piece):
        return bouquet_shape(piece)
    raise TypeError(f"no shape of a {piece.kind}")


def handful_of(piece: Bound, stems: StemSet, netting: Netting | None) -> Handful:
    """What a mechanic that is bound is sized from.

    Raises: InvalidMeasure: as `shape_of`, or the mechanic is one of another kind of piece.
    """
    _check_kind(piece)
    crosses = is_held(piece) and piece.spiral
    return Handful(piece=piece, shape=shape_of(piece), stems=stems, netting=netting, crosses=crosses)


@remembered
def size(fit: Fit) -> SizedMechanic:
    """Size the chosen mechanic. Raises InvalidMeasure: the vessel, netting or frog does not allow it."""
    return ABOUT[fit.choice.kind].sized(fit)


def bind(handful: Handful) -> SizedMechanic:
    """Size what a bouquet is bound on, or what is worn."""
    about = ABOUT[handful.piece.mechanic.kind]
    if about.bind is None:
        raise TypeError(f"a {about.name} is not bound")
    return about.bind(handful)


def _check_kind(piece: Bound) -> None:
    about = ABOUT[piece.mechanic.kind]
    if about.of == piece.sort:
        return
    names = [f"a {each.name.lower()}" for each in ABOUT.values() if each.of == piece.sort]
    raise InvalidMeasure(
        path="mechanic.kind",
        message=phrase(_OTHERWISE[about.of]),
        limit=phrase("Choose {names} or {names2}.", names=", ".join(names[:-1]), names2=names[-1]),
    )
