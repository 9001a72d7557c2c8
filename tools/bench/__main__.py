"""./trellis bench: how fast the main things are, as JSON: medians, 95th percentiles, multiples of a calibration loop.

Names after it measure only what begins with one of them: `./trellis bench evaluate making`.
"""

import json
import os
import platform
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

from jolly_trellis.core.method import PROGRAM
from tools.bench.in_process import in_process
from tools.bench.memory import memory
from tools.bench.pointer import pointer
from tools.bench.served import lists_and_cost_of_60, opening, reservations, round_trips, second_start, three_hundred
from tools.bench.timing import spread
from tools.calibration import loop_ms
from tools.running import Served, served


def main() -> None:
    """Measure and print, by the program's own figures; only what begins with a name that is given, where one is."""
    with PROGRAM.open():
        print(json.dumps(measured(tuple(sys.argv[1:])), indent=1))


def measured(only: tuple[str, ...] = ()) -> dict[str, object]:
    """Every figure of speed by what it is of."""
    found: dict[str, object] = {
        "machine": {
            "processor": platform.processor() or platform.machine(),
            "cores": os.cpu_count(),
            "python": platform.python_version(),
            "load_1_min": round(os.getloadavg()[0], 2),
            "loop_ms": round(loop_ms(), 2),
        }
    }
    for name, work in in_process().items():
        if not only or name.startswith(only):
            found[name] = work()
    if not only or any(name.startswith(only) for name in _SERVED):
        with tempfile.TemporaryDirectory() as folder, served(Path(folder), demo=True) as server:
            for name, ask in _SERVED.items():
                if not only or name.startswith(only):
                    found |= ask(server) if name == "pointer" else {name: ask(server)}
    return found


_SERVED: dict[str, Callable[[Served], Any]] = {
    "api_evaluate_round_trip": lambda server: spread(round_trips(server, 80), aim_ms=15.0),
    "second_start": second_start,
    "pointer": pointer,
    "memory": memory,
    "open_an_event_of_60": opening,
    "lists_and_cost_of_60": lists_and_cost_of_60,
    "event_of_300": three_hundred,
    "reservations_of_200_events": reservations,
}


if __name__ == "__main__":
    main()
