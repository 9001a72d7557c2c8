"""Searching with OR-Tools so that it can be stopped at any moment, not only at the next solution."""

import threading
from collections.abc import Callable
from contextvars import Context, copy_context

from ortools.sat.python import cp_model

_LOOK_S = 0.1
Value = Callable[[cp_model.IntVar], int]


class _Told(cp_model.CpSolverSolutionCallback):
    """Hands each better solution on, in the context of who began the search: it is told in a thread of OR-Tools."""

    def __init__(self, tell: Callable[[Value], bool], context: Context) -> None:
        super().__init__()
        self._tell, self._context = tell, context

    def on_solution_callback(self) -> None:
        if self._context.run(self._tell, self.value):
            self.stop_search()


def search(
    solver: cp_model.CpSolver,
    model: cp_model.CpModel,
    tell: Callable[[Value], bool],
    stop: Callable[[], bool],
) -> bool:
    """Solve a model; True where it has a solution.

    Args:
        tell: given the value of each variable at every better solution; True ends the search with it.
        stop: looked at every tenth of a second; the search ends soon after it says so, with the best so far.
    """
    done = threading.Event()

    def watch() -> None:
        while not done.wait(_LOOK_S):
            if stop():
                solver.stop_search()
                return

    watcher = threading.Thread(target=watch, daemon=True)
    watcher.start()
    try:
        return solver.solve(model, _Told(tell, copy_context())) in (cp_model.OPTIMAL, cp_model.FEASIBLE)
    finally:
        done.set()
        watcher.join()
