"""Searching with OR-Tools so that it can be stopped at any moment, not only at the next solution."""

import threading
from collections.abc import Callable

from ortools.sat.python import cp_model

_LOOK_S = 0.1


def search(
    solver: cp_model.CpSolver,
    model: cp_model.CpModel,
    callback: cp_model.CpSolverSolutionCallback,
    stop: Callable[[], bool],
) -> bool:
    """Solve a model; True where it has a solution.

    Args:
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
        return solver.solve(model, callback) in (cp_model.OPTIMAL, cp_model.FEASIBLE)
    finally:
        done.set()
        watcher.join()
