"""Kinds of things that are each described in a file of their own, and known by being described."""

from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class OneOf:
    """Marks a text as one of the kinds that are known; `ranges` refuses any other."""

    what: str
    _known: list[str] = field(default_factory=list, compare=False)

    @property
    def known(self) -> tuple[str, ...]:
        """The kinds there are, in the order of their descriptions."""
        return tuple(self._known)

    def know(self, kinds: list[str]) -> None:
        """Make kinds known: all that there are, in order."""
        self._known[:] = kinds


MECHANICS = OneOf("mechanic")
FORMS = OneOf("form")
HANG_KINDS = OneOf("hang point")
LINE_KINDS = OneOf("line")
FITTINGS = OneOf("fitting")
PLAN_SHAPES = OneOf("shape")
