"""Requests while something long goes on: the best so far is the answer, and nobody's wait keeps others waiting."""

import asyncio
import json
import threading
import time
from collections.abc import Iterator
from typing import Any

import httpx2
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from jolly_trellis.api import deps
from jolly_trellis.core.building.build import build
from jolly_trellis.core.event.day.day import day_of
from jolly_trellis.core.judging import choose
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.wanted import NobodyWaits, go_on, wanted_while
from jolly_trellis.services import day as days
from jolly_trellis.services import long_work
from jolly_trellis.services.long_work import Running

MANY = 45  # more than there are workers


@pytest.fixture
def endless(monkeypatch: pytest.MonkeyPatch) -> Iterator[threading.Event]:
    """A day whose search finds nothing better, and goes on until it is told to stop."""
    ended = threading.Event()

    def searching(*args: Any, tell: Any, stop: Any, **named: Any) -> Any:
        day = day_of(*args, **named, effort=0.0, stop=lambda: True)
        tell(day)
        while not (stop() or ended.wait(0.01)):
            pass
        return day

    monkeypatch.setattr(days, "day_of", searching)
    monkeypatch.setattr(long_work, "_running", type(long_work._running)())
    yield ended
    ended.set()


def test_a_calendar_and_a_pack_tell_the_best_sheet_so_far(
    client: TestClient, endless: threading.Event, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(deps, "LONGEST_S", 0.3)
    told = client.get("/api/events/1/day.ics")
    assert told.status_code == 200
    assert told.text.count("BEGIN:VEVENT") > 40
    assert "STATUS:CANCELLED" not in told.text
    assert client.get("/api/events/1/pack.html").status_code == 200
    assert client.get("/api/events/1/day").json()["running"]
    remedy = client.post("/api/events/1/day/remedy", json={"base_revision": 1, "key": "hands-1"})
    assert remedy.status_code == 404


def test_who_waits_for_the_search_keeps_no_worker(
    client: TestClient, application: FastAPI, endless: threading.Event, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(deps, "LONGEST_S", 600.0)
    address = str(client.base_url)

    async def go() -> int:
        asked = httpx2.ASGITransport(app=application)
        async with httpx2.AsyncClient(transport=asked, base_url=address, timeout=None) as many:
            waiting = [asyncio.create_task(many.get("/api/events/1/day.ics")) for _ in range(MANY)]
            while not any(isinstance(each, Running) and each.best for each in long_work._running.values()):
                await asyncio.sleep(0.01)
            health = await many.get("/api/health")  # never comes where all workers wait
            assert not any(each.done() for each in waiting)
            endless.set()
            told = await asyncio.gather(*waiting)
            assert 200 in {each.status_code for each in told} <= {200, 503}  # so many at once may not all be kept
            return int(health.status_code)

    assert asyncio.run(go()) == 200


def test_another_event_that_shares_its_people_is_planned_by_list_only(
    client: TestClient, endless: threading.Event
) -> None:
    """Its search is not begun by one who only asks whom it needs; its people are named all the same."""
    other = client.post("/api/events/1/copy").json()["id"]
    brief = client.get("/api/events/1").json()["brief"]
    times = {key: brief[key] for key in ("access_at", "filled_at", "starts_at", "ends_at", "clear_by")}
    copied = client.get(f"/api/events/{other}").json()
    changed = {**copied["brief"], **times, "name": "Elsewhere"}
    client.put(f"/api/events/{other}/brief", json={"base_revision": copied["revision"], "brief": changed})
    client.get("/api/events/1/day?wait_s=0.1")
    endless.set()
    day = client.get("/api/events/1/day?wait_s=30").json()
    for _ in range(200):
        if not day["running"]:
            break
        endless.wait(0.01)
        day = client.get("/api/events/1/day?wait_s=1").json()
    begun = [key for key in long_work._running if key[0] == "day"]
    assert len(begun) == 1
    assert any("Elsewhere" in note["say"]["text"] for note in day["day"]["notes"])


def test_what_nobody_waits_for_any_more_is_ended(
    client: TestClient, application: FastAPI, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A window is closed while every mechanic is being tried: hardly one more is put together."""
    built: list[str] = []
    enough = threading.Event()

    def counting(piece: Any, conditions: Any) -> Any:
        made = build(piece, conditions)
        built.append(piece.mechanic.kind)
        if len(built) == 3:
            enough.set()
            time.sleep(0.3)  # the one who asked is gone by now, and that has been looked for
        return made

    monkeypatch.setattr(choose, "build", counting)
    bowl = client.get("/api/events/1").json()["parts"][0]["part"]
    body = json.dumps({"piece": bowl}).encode()
    given: list[bool] = []

    async def receive() -> dict[str, Any]:
        if not given:
            given.append(True)
            return {"type": "http.request", "body": body, "more_body": False}
        while not enough.is_set():
            await asyncio.sleep(0.005)
        return {"type": "http.disconnect"}

    sent: list[Any] = []

    async def send(message: Any) -> None:
        sent.append(message)

    host = client.base_url.netloc
    headers = [(b"host", host), (b"content-type", b"application/json"), (b"content-length", str(len(body)).encode())]
    scope = {
        "type": "http",
        "asgi": {"version": "3.0"},
        "http_version": "1.1",
        "method": "POST",
        "scheme": "http",
        "path": "/api/events/1/choose",
        "raw_path": b"/api/events/1/choose",
        "query_string": b"",
        "root_path": "",
        "headers": headers,
        "client": ("somebody", 1),
        "server": ("here", 80),
    }
    asyncio.run(application(scope, receive, send))
    assert sent[0]["status"] == 499
    assert 3 <= len(built) <= 5
    assert len(ABOUT) > 20


def test_what_is_begun_in_the_background_goes_on_when_the_one_who_began_it_is_gone() -> None:
    def going(_: Running[str]) -> str:
        go_on()
        return "to its end"

    with wanted_while(lambda: False):
        running = long_work.start(("goes on", object()), going)
    running.wait(30.0)
    assert running.best == "to its end"
    with pytest.raises(NobodyWaits), wanted_while(lambda: False):
        go_on()
