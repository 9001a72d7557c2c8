"""Papers of an event, a file each: a new file, with what writes it, is all that a new one takes."""

from importlib import import_module
from pkgutil import iter_modules

from jolly_trellis.api.paper import PAPERS, router

__all__ = ["PAPERS", "router"]

for _each in iter_modules(__path__):
    import_module(f"{__name__}.{_each.name}")
