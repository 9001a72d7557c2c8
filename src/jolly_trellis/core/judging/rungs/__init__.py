"""What is judged of a piece, a file a verdict: a new file, and its word among the verbs, are what a new one takes."""

from importlib import import_module
from pkgutil import iter_modules

from jolly_trellis.core.judging.rung import RUNGS, checks_for

__all__ = ["RUNGS", "checks_for"]

for _each in iter_modules(__path__):
    import_module(f"{__name__}.{_each.name}")
