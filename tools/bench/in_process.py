"""The computation core by itself: judging, choosing, the making, rigs, cutting, a day."""

import gzip
import itertools
import random
import statistics
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.making_order import lay_out
from jolly_trellis.core.checks.making_search import find_order
from jolly_trellis.core.event.cutting.cut_plan import cut
from jolly_trellis.core.event.cutting.cutting import Stock
from jolly_trellis.core.event.day.day import day_of
from jolly_trellis.core.event.job import CrewMember, Made
from jolly_trellis.core.event.sheet.schedule import schedule
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.network import solve
from jolly_trellis.core.rigging.resting import settle
from tests import ordinary
from tests.core.event.test_cutting import items_of, library_rows
from tests.events import demo_made, job
from tests.published.test_rigs_against_a_structural_library import by_the_library, hung
from tests.rigs import run
from tools.bench.timing import spread, timed
from tools.running import ROOT


def script_kb(which: str) -> float:
    """Compressed kB of some of the scripts: all of them, or what the line-up needs first."""
    built = ROOT / "web" / "dist" / "assets"
    return sum(len(gzip.compress(each.read_bytes(), 9)) for each in built.glob(which)) / 1000


def against_the_library() -> dict[str, float]:
    """Our solver and the structural library on the same small net, medians and their ratio."""
    net = hung(1, 4)
    ours = statistics.median(timed(lambda: solve(net), 20))
    theirs = statistics.median(timed(lambda: by_the_library(net), 20))
    return {"median_ms": round(ours, 2), "library_ms": round(theirs, 2), "ratio": round(ours / theirs, 3)}


def cuts_against_the_library() -> dict[str, float]:
    """Rows of roll that our plan of 80 pieces takes over those of the best of a packing library, over five sets.

    A ratio of 1 or less is no worse; ours can be cut through from edge to edge, theirs need not be.
    """
    ratios, over_bound, seconds = [], [], []
    for seed in range(5):
        drawn = random.Random(seed)
        kinds = (8, 20, 80)[seed % 3]
        sizes = [(drawn.randint(4, 18), drawn.randint(5, 40)) for _ in range(kinds)]
        counts = [80 // kinds] * kinds
        items = items_of(*((*size, count) for size, count in zip(sizes, counts, strict=True)), turn=True)
        begun = time.perf_counter()
        plan = cut(items, (Stock(key=0, across=20, along=5000, count=1),), kerf=1, seconds=10.0)
        seconds.append(time.perf_counter() - begun)
        rows = plan.used[0].rows
        ratios.append(rows / library_rows(items, 20, 1))
        over_bound.append(rows * 20 / plan.bound)
    return {
        "worst_ratio_to_library": round(max(ratios), 3),
        "median_ratio_to_library": round(statistics.median(ratios), 3),
        "worst_ratio_to_bound": round(max(over_bound), 3),
        "median_s": round(statistics.median(seconds), 1),
        "sets": len(ratios),
    }


def day_of_the_demo() -> dict[str, float]:
    """Seconds to work out the demo's day, with its conflict and remedy."""
    made, around = demo_made(), job()
    times = timed(lambda: day_of(around, made, ordinary.varieties()), 3)
    return {"median_s": round(statistics.median(times) / 1000, 2), "runs": len(times)}


def first_sheet() -> dict[str, dict[str, float]]:
    """Milliseconds to the first run sheet: of the demo and four people, of sixty parts and eight."""
    made = demo_made()
    ids = range(1, 61)
    many = Made(
        pieces=tuple(replace(made.pieces[each % len(made.pieces)], id=each) for each in ids if each <= 50),
        rigs=tuple(replace(made.rigs[each % len(made.rigs)], id=each) for each in ids if each > 50),
    )
    eight = replace(job(), crew=tuple(CrewMember(name=f"hand {nth}") for nth in range(8)))
    found = {}
    for name, around, parts, aim_ms in (
        ("demo, 4 people", job(), made, 500.0),
        ("60 parts, 8 people", eight, many, 3000.0),
    ):
        book = time_book(around, parts, ordinary.varieties())
        found[name] = spread(timed(partial(schedule, book.tasks, around, effort=0), 20), aim_ms=aim_ms)
    return found


def in_process() -> dict[str, Callable[[], object]]:
    bowl, conditions = ordinary.stems(ordinary.piece(), 60), ordinary.conditions()
    full_bowl = ordinary.stems(ordinary.piece(), 120)
    levels = (0.06 + nth % 200 / 10_000 for nth in itertools.count())

    wider = itertools.count(1)

    def size_step() -> object:
        size = replace(bowl.envelope, width_m=bowl.envelope.width_m + next(wider) / 10_000)
        return evaluate(replace(bowl, envelope=size), conditions, with_fixes=False)

    def water_step() -> object:
        return evaluate(replace(bowl, water_level_m=next(levels)), conditions, with_fixes=False)

    return {
        "evaluate_60_stem_bowl": lambda: spread(
            timed(lambda: evaluate(bowl, conditions, with_fixes=False), 80), aim_ms=8.0
        ),
        "size_step_60_stem_bowl": lambda: spread(timed(size_step, 80), aim_ms=8.0),
        "water_step_60_stem_bowl": lambda: spread(timed(water_step, 80), aim_ms=5.0),
        "choose_all_mechanics_60_stems": lambda: spread(
            timed(lambda: choose(bowl, conditions, on_hand=None), 20), aim_ms=250.0
        ),
        "making_order_120_stems": lambda: spread(
            timed(lambda: making_of(full_bowl, conditions, with_fixes=False), 10), aim_ms=60.0
        ),
        "search_for_an_order_120_stems": lambda: spread(
            timed(lambda: find_order(lay_out(build(full_bowl, conditions))), 10), aim_ms=400.0
        ),
        "settle_a_run_on_8_lines": lambda: spread(timed(lambda: settle(run(8), conditions), 20), aim_ms=20.0),
        "assess_a_run_on_8_lines": lambda: spread(timed(lambda: assess(run(8), conditions), 8), aim_ms=200.0),
        "small_net_against_a_structural_library": against_the_library,
        "cut_80_pieces": cuts_against_the_library,
        "day_of_the_demo": day_of_the_demo,
        "first_sheet": first_sheet,
        "script_compressed": lambda: {
            "kb": round(script_kb("*.js"), 1),
            "aim_kb": 220.0,
            "first_kb": round(script_kb("index-*.js") + script_kb("EventScreen-*.js"), 1),
            "first_aim_kb": 140.0,
        },
    }
