"""Every form by its kind, as the files of `forms` describe them."""

from importlib import import_module
from pkgutil import iter_modules
from types import ModuleType

from jolly_trellis.core.placement import forms
from jolly_trellis.core.placement.form import FORM_RULES

__all__ = ["FORM_RULES", "MODULES"]
MODULES: tuple[ModuleType, ...] = tuple(
    import_module(f"{forms.__name__}.{each.name}") for each in iter_modules(forms.__path__)
)
