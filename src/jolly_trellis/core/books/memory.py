"""What a book has worked out is remembered by its inputs: one bounded memory a process, shared by whoever asks.

A function that is `remembered` gets nothing but its arguments, and all of them are its key: none can be forgotten. The
book of figures that is open and the language that is spoken are in it too. What comes out must not be changed by
anybody, so its arrays are locked.
"""

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import fields, is_dataclass
from functools import wraps
from typing import Any, Generic, ParamSpec, TypeVar

import numpy as np

from jolly_trellis.core.books.figures import open_book
from jolly_trellis.core.quantities import spoken_now

P = ParamSpec("P")
T = TypeVar("T")
MOST = 1000


class Same(Generic[T]):
    """This very thing and no other, as a key: for what cannot be told by its content, or not quickly."""

    __slots__ = ("thing",)

    def __init__(self, thing: T) -> None:
        self.thing = thing

    def __hash__(self) -> int:
        return id(self.thing)

    def __eq__(self, other: object) -> bool:
        return other.__class__ is Same and other.thing is self.thing


class Memory:
    """Results by what they came from, the least used of which are forgotten first; many threads may ask at once."""

    def __init__(self, most: int = MOST) -> None:
        self._most = most
        self._known: OrderedDict[tuple[Any, ...], Any] = OrderedDict()
        self._lock = threading.Lock()

    def __len__(self) -> int:
        return len(self._known)

    def find(self, key: tuple[Any, ...]) -> tuple[bool, Any]:
        """Whether something is known by a key, and what."""
        with self._lock:
            if key not in self._known:
                return False, None
            self._known.move_to_end(key)
            return True, self._known[key]

    def keep(self, key: tuple[Any, ...], value: Any) -> None:
        """Remember what was worked out."""
        with self._lock:
            self._known[key] = value
            while len(self._known) > self._most:
                self._known.popitem(last=False)

    def forget(self) -> None:
        """Forget everything."""
        with self._lock:
            self._known.clear()


MEMORY = Memory()
_BY_ITSELF: set[type] = set()
_PLAIN = frozenset((type(None), bool, int, float, str))


def by_itself(kind: type[T]) -> type[T]:
    """A kind of thing that is told from others by being this very one: what another remembered function gave.

    One that is never compared by its content says so itself (`eq=False`).
    """
    _BY_ITSELF.add(kind)
    return kind


def remembered(work: Callable[P, T]) -> Callable[P, T]:
    """A function whose results are remembered by all of its arguments, the open figures and the language spoken."""

    @wraps(work)
    def asked(*args: P.args, **named: P.kwargs) -> T:
        key = (
            work,
            Same(open_book()),
            Same(spoken_now()),
            *map(_key, args),
            *named,
            *map(_key, named.values()),
        )
        known, found = MEMORY.find(key)
        if not known:
            found = work(*args, **named)
            _lock_arrays(found)
            MEMORY.keep(key, found)
        return found

    return asked


def _key(value: Any) -> Any:
    """A thing as a key: by its content where it has a hash, and by itself where it has none."""
    kind = type(value)
    if kind in _PLAIN:
        return value
    if kind is np.ndarray:
        return value.shape, value.dtype.str, value.tobytes()
    if kind is tuple:
        plain = len(value) > 0 and isinstance(value[0], (float, tuple))
        return value if plain else tuple(_key(each) for each in value)
    if kind in _BY_ITSELF:
        return Same(value)
    try:
        hash(value)
    except TypeError:
        return Same(value)
    return value


def _lock_arrays(value: Any) -> None:
    """Nobody changes what is shared: arrays by themselves, in records, and in records within those."""
    if isinstance(value, np.ndarray):
        value.setflags(write=False)
    elif is_dataclass(value) and not isinstance(value, type):
        for each in fields(value):
            _lock_arrays(getattr(value, each.name))
