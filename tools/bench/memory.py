"""What the program holds in memory after all of its screens were open."""

from pathlib import Path

from jolly_trellis.demo.loading import demo_plan
from tools.running import Served, chromium

SCREENS = (
    "/",
    "/events/1",
    *(f"/events/1/pieces/1?view={view}" for view in ("drawing", "making", "flat", "compare", "match")),
    *(f"/events/1/{each}" for each in ("survey", "roll", "day", "lists", "cost")),
    "/stores",
    "/figures",
)


def memory(server: Served) -> dict[str, float]:
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
