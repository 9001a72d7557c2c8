"""Kinds of things of the stores, a file each: a new file, with a table for it, is all that a new one takes."""

from importlib import import_module
from pkgutil import iter_modules

for _each in iter_modules(__path__):
    import_module(f"{__name__}.{_each.name}")
