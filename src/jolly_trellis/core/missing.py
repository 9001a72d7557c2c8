"""Facts that nobody has given: each has a key, where it is said, and what is asked, as a part of a sentence."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from jolly_trellis.core.quantities import Phrase, Quantity, joined, phrase

# Whose field it is: the part's own, the event's brief, the place's survey, the stores, the event's costs and hires.
Owner = Literal["part", "event", "survey", "stores", "cost", "hires", "line-up"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Missing:
    """A fact that is missing: `path` is the dotted path of its field in what it is `of`."""

    key: str
    of: Owner
    path: str
    say: Phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Fact:
    """A kind of fact that can be missing; slots of `path` and of `ask` are filled where it is."""

    key: str
    of: Owner
    path: str
    ask: str

    def missing(self, /, at: tuple[str | int, ...] = (), **slots: Quantity | Phrase | str | int) -> Missing:
        """This fact, missing.

        Args:
            at: what fills the slots of its path, in their order; slots: what fills those of its sentence.
        """
        return Missing(key=self.key, of=self.of, path=self.path.format(*at), say=phrase(self.ask, **slots))


FACTS: dict[str, Fact] = {}


def fact(key: str, path: str, ask: str, *, of: Owner = "part") -> Fact:
    """Declare a fact. Raises: ValueError: there is one of that key."""
    if key in FACTS:
        raise ValueError(f"two facts are called {key}")
    FACTS[key] = Fact(key=key, of=of, path=path, ask=ask)
    return FACTS[key]


def of_one_more(missing: Missing, *, under: str, name: str) -> Missing:
    """A fact of something that stands beside: in its part of the plan, with its name."""
    path = f"{under}.{missing.path}" if missing.of == "part" else missing.path
    return replace(missing, path=path, say=phrase("{fact} ({name})", fact=missing.say, name=name))


def once(missing: Iterable[Missing]) -> tuple[Missing, ...]:
    """Facts once each, in the order in which they were first missed."""
    return tuple({(each.of, each.path, each.say.text): each for each in missing}.values())


def listed(missing: Iterable[Missing], between: str = "; ") -> Phrase:
    """What is asked, one after the other."""
    return joined((each.say for each in missing), between)
