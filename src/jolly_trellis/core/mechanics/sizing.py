"""Every mechanic by its kind, as the files of this folder describe them: a new file is all that a new one takes."""

from importlib import import_module
from pkgutil import iter_modules
from types import ModuleType

from jolly_trellis.core import mechanics
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.mechanics.about import ABOUT
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.handful import Handful
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.quantities import phrase

__all__ = ["ABOUT", "MODULES", "bind", "size"]
MODULES: tuple[ModuleType, ...] = tuple(
    import_module(f"{mechanics.__name__}.{each.name}")
    for each in iter_modules(mechanics.__path__)
    if each.name != "sizing"
)


@remembered
def size(fit: Fit) -> SizedMechanic:
    """Size the chosen mechanic. Raises InvalidMeasure: the vessel, netting or frog does not allow it."""
    return ABOUT[fit.choice.kind].sized(fit)


def bind(handful: Handful) -> SizedMechanic:
    """Size what a bouquet is bound on. Raises InvalidMeasure: a mechanic that sits in a vessel."""
    about = ABOUT[handful.bouquet.mechanic.kind]
    if about.bind is None:
        names = [f"a {each.name.lower()}" for each in ABOUT.values() if each.bound]
        raise InvalidMeasure(
            path="mechanic.kind",
            message=phrase("This mechanic sits in a vessel; a bouquet is bound in the hand."),
            limit=phrase("Choose {names} or {names2}.", names=", ".join(names[:-1]), names2=names[-1]),
        )
    return about.bind(handful)
