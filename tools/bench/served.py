"""The served program: round trips, large events, what two hundred events want of the same things."""

import itertools
import tempfile
import time
from collections.abc import Iterator
from contextlib import closing
from dataclasses import replace
from datetime import date, timedelta
from pathlib import Path

import httpx2

from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.demo.loading import demo_plan
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.opening import open_studio
from jolly_trellis.services.reserving import shortfalls_of
from jolly_trellis.store import codec
from jolly_trellis.store.plan import Plan, Planned
from tests import ordinary
from tools.bench.timing import once, spread, timed
from tools.running import Served, served


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


def opening(server: Served) -> dict[str, float]:
    return spread(sixty_pieces(server, 20), aim_ms=300.0)


def lists_and_cost_of_60(server: Served) -> dict[str, dict[str, float]]:
    sixty_pieces(server, 1)
    return lists_and_cost(server, 20)


def three_hundred(_: Served) -> dict[str, object]:
    with tempfile.TemporaryDirectory() as other:
        return event_of_300(Path(other))


def reservations(_: Served) -> dict[str, float]:
    with tempfile.TemporaryDirectory() as other:
        return spread(reservations_of_200(Path(other)), aim_ms=100.0)


def second_start(_: Served) -> dict[str, float]:
    """From the command to the first answer, over data that are there and a program that ran before."""
    with tempfile.TemporaryDirectory() as other:
        server = Served(Path(other), demo=True)

        taken = []
        for _nth in range(10):
            taken.append(1000 * once(server.start))
            server.stop()
        return spread(taken[1:], aim_ms=2000.0)
