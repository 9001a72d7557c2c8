"""./trellis bench: how fast the main things are, as JSON: medians, 95th percentiles, multiples of a calibration loop.

Names after it measure only what begins with one of them: `./trellis bench evaluate making`.
"""

import gzip
import itertools
import json
import os
import platform
import random
import statistics
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import replace
from datetime import date, timedelta
from functools import partial
from pathlib import Path
from typing import Any

import httpx2
from playwright.sync_api import Page

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
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.network import solve
from jolly_trellis.core.rigging.resting import settle
from jolly_trellis.demo.loading import demo_plan
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.opening import open_studio
from jolly_trellis.services.reserving import shortfalls_of
from jolly_trellis.store import codec
from jolly_trellis.store.plan import Plan, Planned
from tests import ordinary
from tests.core.event.test_cutting import items_of, library_rows
from tests.events import demo_made, job
from tests.published.test_rigs_against_a_structural_library import by_the_library, hung
from tests.rigs import run
from tools.calibration import loop_ms
from tools.running import ROOT, Served, chromium, served

# The loop on the machine on which the aims were set, in its quicker hours.
LOOP_WHEN_SET_MS = 14.3
# In the page: from a pointer's move to the paint that shows what was told of it.
WATCH = """
(() => {
  let moved = 0, due = 0;
  window.__repaints = [];
  addEventListener('pointermove', () => { moved = performance.now(); }, true);
  const fetched = window.fetch;
  window.fetch = async (...asked) => {
    const begun = moved;
    const answer = await fetched(...asked);
    if (/(evaluate.changed|settle)$/.test(String(asked[0]))) due = begun;
    return answer;
  };
  addEventListener('DOMContentLoaded', () => {
    new MutationObserver(() => {
      if (!due) return;
      const begun = due;
      due = 0;
      requestAnimationFrame(() => {
        const painted = new MessageChannel();
        painted.port1.onmessage = () => window.__repaints.push(performance.now() - begun);
        painted.port2.postMessage(0);
      });
    }).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
  });
})();
"""
# A handle that nothing else lies over.
FREE = """
[...document.querySelectorAll("[data-handle]")].find((each) => {
  const { x, y, width, height } = each.getBoundingClientRect();
  return document.elementFromPoint(x + width / 2, y + height / 2)?.closest("[data-handle]") === each;
}).dataset.handle
"""
DRAG = """
async ([handle, x, y, steps]) => {
  const held = document.querySelector(`[data-handle="${handle}"]`);
  const upright = held.getAttribute("aria-orientation") === "vertical";
  const before = window.__repaints.length;
  for (let step = 0; step < steps; step += 1) {
    await new Promise((go) => requestAnimationFrame(() => setTimeout(go, 0)));
    const by = 4 + 3 * (step % 4);
    held.dispatchEvent(new PointerEvent("pointermove", {
      bubbles: true, pointerId: 1, buttons: 1, clientX: upright ? x : x + by, clientY: upright ? y + by : y,
    }));
    const given_up = performance.now() + 10000;
    while (window.__repaints.length <= before + step) {
      if (performance.now() > given_up) throw new Error(`nothing was drawn for step ${step} of ${handle}`);
      await new Promise((go) => setTimeout(go, 2));
    }
  }
  return window.__repaints.slice(before + 3);
}
"""


def spread(times_ms: list[float], aim_ms: float) -> dict[str, float]:
    """Median, 95th percentile and what is aimed at, each also as a multiple of the calibration loop taken beside it.

    The aim is met where the percentile is no more loops than the aim was when it was set.
    """
    ordered, loop = sorted(times_ms), loop_ms()
    high = ordered[min(len(ordered) - 1, int(0.95 * len(ordered)))]
    return {
        "median_ms": round(statistics.median(ordered), 2),
        "p95_ms": round(high, 2),
        "aim_ms": aim_ms,
        "p95_over_aim": round(high / aim_ms, 2),
        "loop_ms": round(loop, 2),
        "median_loops": round(statistics.median(ordered) / loop, 3),
        "p95_loops": round(high / loop, 3),
        "aim_loops": round(aim_ms / LOOP_WHEN_SET_MS, 3),
        "met": float(high / loop <= aim_ms / LOOP_WHEN_SET_MS),
        "runs": len(ordered),
    }


def timed(work: Callable[[], object], runs: int) -> list[float]:
    """Milliseconds of each run, after a tenth as many, at least ten, that warm up."""
    for _ in range(max(10, runs // 10)):
        work()
    times = []
    for _ in range(runs):
        begun = time.perf_counter()
        work()
        times.append(1000 * (time.perf_counter() - begun))
    return times


def script_kb(which: str) -> float:
    """Compressed kB of some of the scripts: all of them, or what the line-up needs first."""
    built = ROOT / "web" / "dist" / "assets"
    return sum(len(gzip.compress(each.read_bytes(), 9)) for each in built.glob(which)) / 1000


def round_trips(server: Served, runs: int) -> list[float]:
    piece = ordinary.stems(demo_plan().pieces[0].part, 60)
    levels = itertools.cycle([piece.water_level_m - nth / 1000 for nth in range(7)])
    have: dict[str, str] = {}
    with httpx2.Client(base_url=server.url) as client:

        def ask() -> None:
            nonlocal have
            body = {"piece": codec.to_plain(replace(piece, water_level_m=next(levels))), "have": have}
            answer = client.post("/api/events/1/evaluate/changed", json=body).raise_for_status()
            have = answer.json()["marks"]

        return timed(ask, runs)


def drags(page: Page, handle: str, runs: int) -> list[float]:
    """Pointer move to the paint that shows what is told of it, each step of one drag, which is then given up."""
    page.wait_for_timeout(1500)
    grip = page.locator(f'[data-handle="{handle}"]').first
    grip.wait_for()
    box = grip.bounding_box()
    if box is None:
        raise RuntimeError(f"the handle {handle} is not on the screen")
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    times = page.evaluate(DRAG, [handle, x, y, runs + 3])
    page.keyboard.press("Escape")
    page.mouse.up()
    return [float(each) for each in times]


TURN = """
async (steps) => {
  const ring = document.querySelector(".turn-ring");
  const times = [];
  for (let step = 0; step < steps; step += 1) {
    const begun = performance.now();
    ring.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }));
    await new Promise((go) => requestAnimationFrame(() => setTimeout(go, 0)));
    times.push(performance.now() - begun);
  }
  return times;
}
"""


def turns(page: Page, steps: int) -> list[float]:
    """One step of the turn to the paint of both views, standing and close, on the page that the drags left open."""
    looks = page.get_by_role("combobox", name="Look at it")
    looks.first.select_option("standing")
    looks.nth(1).select_option("close")
    return [float(each) for each in page.evaluate(TURN, steps)][2:]


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


def sixty_pieces(server: Served, runs: int) -> list[float]:
    """Opening the line-up of 60 pieces that were judged before."""
    plan = demo_plan()
    with httpx2.Client(base_url=server.url, timeout=60.0) as client:
        started = client.post("/api/events", json=codec.to_plain(plan.brief)).raise_for_status().json()
        path = f"/api/events/{started['id']}"
        for number in range(60):
            piece = codec.to_plain(plan.pieces[number % len(plan.pieces)].part) | {"name": f"piece {number}"}
            body = {"base_revision": 1, "part": piece}
            client.post(f"{path}/parts", json=body).raise_for_status()
        return timed(lambda: client.get(path).raise_for_status(), runs)


def lists_and_cost(server: Served, runs: int) -> dict[str, dict[str, float]]:
    """Lists and cost of the event of 60 pieces that was opened last."""
    with httpx2.Client(base_url=server.url, timeout=60.0) as client:
        path = f"/api/events/{max(each['id'] for each in client.get('/api/events').json())}"
        return {
            what: spread(timed(lambda what=what: client.get(f"{path}/{what}").raise_for_status(), runs), aim_ms=150.0)  # type: ignore[misc]
            for what in ("lists", "cost")
        }


def reservations_of_200(folder: Path) -> list[float]:
    """What the demo and 199 copies of it over a year want of the same things, seen from one of them."""
    plan = demo_plan()
    with closing(open_studio(folder)) as conn:
        for nth in range(200):
            day = date(2027, 1, 1) + timedelta(days=round(nth * 1.8))
            times = {"access_at": "08:00", "filled_at": "12:30", "starts_at": "18:00", "ends_at": "23:30"}
            at = {field: f"{day.isoformat()}T{clock}" for field, clock in times.items()}
            brief = replace(plan.brief, **at, clear_by=None, builds_from=None, builds_to=None, locks=())  # type: ignore[arg-type]
            planning.begin(conn, replace(plan, brief=replace(brief, name=f"event {nth}")))
        work = event_work.work_of(conn, 100)
        return timed(lambda: shortfalls_of(conn, work), 20)


def event_of_300(folder: Path) -> dict[str, object]:
    """An event of 300 pieces: opened for the first time, again, and after a restart; edited and undone; its size."""
    plan = demo_plan()
    parts = [replace(each.part, name=f"piece {at}") for at, each in enumerate(itertools.islice(_round(plan), 300))]
    edits = 100
    with closing(open_studio(folder)) as conn:
        planned = tuple(Planned(id=at, part=each) for at, each in enumerate(parts, 1))
        planning.begin(conn, Plan(brief=plan.brief, parts=planned))
    path, first = "/api/events/1", codec.to_plain(parts[0])
    with served(folder, demo=False) as server, httpx2.Client(base_url=server.url, timeout=120.0) as client:
        cold = once(lambda: client.get(path).raise_for_status())
        warm = timed(lambda: client.get(path).raise_for_status(), 10)
        changes, undone, revision = [], [], 1
        for nth in range(edits):
            body = {"base_revision": revision, "part": first | {"water_level_m": 0.05 + nth / 10_000}}
            begun = time.perf_counter()
            revision = client.put(f"{path}/parts/1", json=body).raise_for_status().json()["revision"]
            changes.append(1000 * (time.perf_counter() - begun))
        for _ in range(edits // 2):
            begun = time.perf_counter()
            answer = client.post(f"{path}/undo", json={"base_revision": revision}).raise_for_status()
            undone.append(1000 * (time.perf_counter() - begun))
            revision = answer.json()["revision"]
        ratios = {"edit": spread(changes, aim_ms=80.0), "undo": spread(undone, aim_ms=150.0)}
    with served(folder, demo=False) as server, httpx2.Client(base_url=server.url, timeout=120.0) as client:
        again = once(lambda: client.get(path).raise_for_status())
    data = sum(each.stat().st_size for each in folder.glob("*.sqlite*")) / 1e6
    return {
        **ratios,
        "open_warm": spread(warm, aim_ms=400.0),
        "open_cold_s": {"s": round(cold, 2), "aim_s": 2.5, "over_aim": round(cold / 2.5, 2)},
        "open_after_a_restart_s": {"s": round(again, 2)},
        "data_after_150_revisions": {"mb": round(data, 1), "aim_mb": 6.0},
    }


def _round(plan: Plan) -> Iterator[Planned[Piece]]:
    return itertools.cycle(plan.pieces)


def once(work: Callable[[], object]) -> float:
    """Seconds that something takes the first time."""
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun


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
    for name, work in _in_process().items():
        if not only or name.startswith(only):
            found[name] = work()
    if not only or any(name.startswith(only) for name in _SERVED):
        with tempfile.TemporaryDirectory() as folder, served(Path(folder), demo=True) as server:
            for name, ask in _SERVED.items():
                if not only or name.startswith(only):
                    found |= ask(server) if name == "pointer" else {name: ask(server)}
    return found


def _in_process() -> dict[str, Callable[[], object]]:
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


def _opening(server: Served) -> dict[str, float]:
    return spread(sixty_pieces(server, 20), aim_ms=300.0)


def _lists_and_cost(server: Served) -> dict[str, dict[str, float]]:
    sixty_pieces(server, 1)
    return lists_and_cost(server, 20)


def _three_hundred(_: Served) -> dict[str, object]:
    with tempfile.TemporaryDirectory() as other:
        return event_of_300(Path(other))


def _reservations(_: Served) -> dict[str, float]:
    with tempfile.TemporaryDirectory() as other:
        return spread(reservations_of_200(Path(other)), aim_ms=100.0)


def _pointer(server: Served) -> dict[str, object]:
    """On the demo's bowl with 60 stems, on its largest piece, on the rig with most lines."""
    piece = codec.to_plain(ordinary.stems(demo_plan().pieces[0].part, 60))
    saved = httpx2.post(f"{server.url}/api/events/1/parts", json={"base_revision": 1, "part": piece}).json()["added"]
    largest = max(demo_plan().pieces, key=lambda each: sum(line.count for line in each.part.recipe)).id
    rig = max(demo_plan().rigs, key=lambda each: len(each.part.lines))
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script(WATCH)
        found: dict[str, object] = {}
        for name, part in (("60_stems", saved), ("largest", largest)):
            page.goto(f"{server.url}/events/1/pieces/{part}")
            for handle in ("water", "rim", "envelope-width"):
                found[f"pointer_to_repaint_{handle}_{name}"] = spread(drags(page, handle, 60), aim_ms=60.0)
            found[f"turn_to_repaint_{name}"] = spread(turns(page, 40), aim_ms=50.0)
        page.goto(f"{server.url}/events/1/rigs/{rig.id}")
        page.locator('[data-id="point-0"]').first.click()
        page.locator("[data-handle]").first.wait_for()
        point = str(page.evaluate(FREE))
        return found | {"pointer_to_repaint_point_of_a_rig": spread(drags(page, point, 60), aim_ms=60.0)}


SCREENS = (
    "/",
    "/events/1",
    *(f"/events/1/pieces/1?view={view}" for view in ("drawing", "making", "flat", "compare", "match")),
    *(f"/events/1/{each}" for each in ("survey", "roll", "day", "lists", "cost")),
    "/stores",
    "/figures",
)


def _memory(server: Served) -> dict[str, float]:
    """Resident and proportional MB of the server and what it has begun, after all screens of the demo were open."""
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        plan = demo_plan()
        parts = [f"/events/1/pieces/{each.id}" for each in plan.pieces] + [
            f"/events/1/rigs/{each.id}" for each in plan.rigs
        ]
        for screen in (*SCREENS, *parts):
            page.goto(f"{server.url}{screen}")
            page.wait_for_load_state("networkidle")
    if server.process is None:
        raise RuntimeError("the server is gone")
    every = [server.process.pid, *_begun_by(server.process.pid)]
    sums = [_in_memory_mb(each) for each in every]
    return {
        "server_mb": round(sums[0]["Rss"], 1),
        "server_aim_mb": 350.0,
        "all_proportional_mb": round(sum(each["Pss"] for each in sums), 1),
        "all_aim_mb": 700.0,
        "processes": len(every),
    }


def _begun_by(process: int) -> list[int]:
    """The processes that one has begun, and those that they have."""
    own = Path(f"/proc/{process}/task").glob("*/children")
    found = [int(each) for file in own for each in file.read_text().split()]
    return [*found, *(far for each in found for far in _begun_by(each))]


def _in_memory_mb(process: int) -> dict[str, float]:
    rows = (line.split() for line in Path(f"/proc/{process}/smaps_rollup").read_text().splitlines()[1:])
    return {row[0].rstrip(":"): int(row[1]) / 1024 for row in rows}


_SERVED: dict[str, Callable[[Served], Any]] = {
    "api_evaluate_round_trip": lambda server: spread(round_trips(server, 80), aim_ms=15.0),
    "pointer": _pointer,
    "memory": _memory,
    "open_an_event_of_60": _opening,
    "lists_and_cost_of_60": _lists_and_cost,
    "event_of_300": _three_hundred,
    "reservations_of_200_events": _reservations,
}


if __name__ == "__main__":
    main()
