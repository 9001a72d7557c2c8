"""Long work in the background: one piece of work for each key, with its best so far, that can be stopped."""

import atexit
import threading
import time
from collections import OrderedDict
from collections.abc import Callable
from contextvars import copy_context
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.wanted import wanted_while

T = TypeVar("T")
_MOST_KEPT = 64
_LOOK_S = 0.02


@dataclass(slots=True)
class Running(Generic[T]):
    """One piece of work: its best result so far, whether it is done, and what kept it from being done."""

    best: T | None = None
    done: bool = False
    problem: CoreError | None = None
    _stop: threading.Event = field(default_factory=threading.Event)
    _thread: threading.Thread | None = None

    def tell(self, best: T) -> None:
        """Note a better result."""
        self.best = best

    def stop(self) -> None:
        """Ask for the end; what is best so far is kept."""
        self._stop.set()

    @property
    def stopping(self) -> bool:
        """Whether the end was asked for."""
        return self._stop.is_set()

    def wait_for_first(self, seconds: float) -> None:
        """Wait for any result, or the end, so long at most."""
        until = time.monotonic() + seconds
        while self.best is None and not self.done and time.monotonic() < until:
            time.sleep(_LOOK_S)

    def wait(self, seconds: float) -> None:
        """Wait for the end, so long at most."""
        if self._thread is not None:
            self._thread.join(seconds)


_running: OrderedDict[tuple[Any, ...], Running[Any]] = OrderedDict()
_lock = threading.Lock()


def start(key: tuple[Any, ...], work: Callable[[Running[T]], T]) -> Running[T]:
    """Begin a piece of work, or join the one of that key that is there already, running or done.

    Args:
        key: what it is for; work of another key for the same thing goes on beside it.
        work: given the running work, to tell better results and look whether to stop; returns the final one. It reads
            the book of figures that is open where it is begun.
    """
    with _lock:
        found = _running.get(key)
        if found is not None and found.problem is None and not (found.stopping and not found.done):
            _running.move_to_end(key)
            return found
        running: Running[T] = Running()
        _running[key] = running
        while len(_running) > _MOST_KEPT:
            _running.popitem(last=False)[1].stop()

    def go() -> None:
        try:
            with wanted_while(lambda: True):  # whoever began it may be gone long before it ends
                running.best = work(running)
        except CoreError as problem:
            running.problem = problem
        finally:
            running.done = True

    running._thread = threading.Thread(target=copy_context().run, args=(go,), daemon=True)
    running._thread.start()
    return running


def stop_all(wait_s: float = 5.0) -> None:
    """End everything that runs, before the program ends; what is done stays to be found."""
    with _lock:
        every = [each for each in _running.values() if not each.done]
        for key in [key for key, each in _running.items() if not each.done]:
            del _running[key]
    for each in every:
        each.stop()
    for each in every:
        each.wait(wait_s)


atexit.register(stop_all)


def find(key: tuple[Any, ...]) -> Running[Any] | None:
    """The work of a key, or None."""
    with _lock:
        return _running.get(key)


def forget(key: tuple[Any, ...]) -> None:
    """Stop the work of a key and forget it, so that it can be begun anew."""
    with _lock:
        found = _running.pop(key, None)
    if found is not None:
        found.stop()
