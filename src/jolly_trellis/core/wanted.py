"""Whether anybody still waits for what is being worked out: asked before each piece that is put together or judged."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar


class NobodyWaits(Exception):
    """What is being worked out is wanted by nobody any more."""


_still: ContextVar[Callable[[], bool] | None] = ContextVar("whether anybody still waits", default=None)


@contextmanager
def wanted_while(still: Callable[[], bool]) -> Iterator[None]:
    """What is worked out in here ends, by NobodyWaits, soon after it is wanted no more."""
    token = _still.set(still)
    try:
        yield
    finally:
        _still.reset(token)


def go_on() -> None:
    """Go on where it is wanted, as everything is of which nobody has said otherwise. Raises NobodyWaits."""
    still = _still.get()
    if still is not None and not still():
        raise NobodyWaits
