"""Who may come in, what goes out, and that whatever is sent in gets one sentence and no stack trace."""

import asyncio
import json
import re
import sqlite3
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from pathlib import Path

import anyio
import anyio.to_thread
import httpx2 as httpx
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from jolly_trellis.core.event.cutting.roll import CutPlan
from jolly_trellis.core.event.day.day import Day
from jolly_trellis.services import day as days
from jolly_trellis.services import event_work, long_work
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store import connection
from tests.wire import HERE, based, refusal


@pytest.mark.parametrize(
    "host", ["elsewhere.example", "elsewhere.example:8420", "127.0.0.1", "127.0.0.1:80", "localhost:9", ""]
)
def test_only_its_own_host_and_port_are_answered(doors: TestClient, host: str) -> None:
    for path in ("/", "/api/events", "/api/health"):
        answer = doors.get(path, headers={"Host": host})
        assert answer.status_code == 403
        assert answer.json()["code"] == "door"
    assert doors.get("/api/events", headers={"Host": "LOCALHOST:8420"}).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://elsewhere.example"},
        {"Origin": "null"},
        {"Origin": "http://127.0.0.1:9999"},
        {"Origin": f"https://{HERE}"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
        {"Origin": f"http://{HERE}", "Sec-Fetch-Site": "cross-site"},
    ],
)
@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("POST", "/api/events/1/copy", None),
        ("POST", "/api/events/1/cuts/stop", None),
        ("POST", "/api/events/1/survey/put-back", None),
        ("DELETE", "/api/events/1", None),
        ("DELETE", "/api/stock/vessel/cube-14", None),
        ("POST", "/api/data/copies/x/restore", None),
        ("POST", "/api/data/restore", b"SQLite format 3"),
        ("POST", "/api/events/1/undo", b'{"base_revision": 1}'),
        ("PUT", "/api/stock/vessel/cube-14/holding", b'{"on_hand": 1}'),
    ],
)
def test_a_page_of_anywhere_else_writes_nothing(
    doors: TestClient, tmp_path: Path, headers: dict[str, str], method: str, path: str, body: bytes | None
) -> None:
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME)) as conn:
        before = "\n".join(conn.iterdump())
    sent = headers | {"Content-Type": "text/plain"}
    assert doors.request(method, path, headers=sent, content=body).status_code == 403
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME)) as conn:
        assert "\n".join(conn.iterdump()) == before


def test_its_own_pages_write_and_others_do_not_even_read(doors: TestClient) -> None:
    own = {"Origin": f"http://{HERE}", "Sec-Fetch-Site": "same-origin"}
    assert doors.post("/api/events/1/copy", headers=own).status_code == 201
    assert doors.get("/api/events", headers={"Sec-Fetch-Site": "none"}).status_code == 200
    assert doors.get("/api/events", headers={"Sec-Fetch-Site": "cross-site"}).status_code == 403
    assert doors.get("/", headers={"Sec-Fetch-Site": "cross-site"}).status_code == 200


def test_every_answer_says_that_nothing_else_may_run_frame_or_keep_it(doors: TestClient) -> None:
    page = doors.get("/events/1").headers
    policy = dict(part.strip().partition(" ")[::2] for part in page["content-security-policy"].split(";"))
    assert policy["default-src"] == "'self'"
    assert "script-src" not in policy
    assert policy["frame-ancestors"] == policy["object-src"] == policy["base-uri"] == "'none'"
    for path in ("/api/events", "/api/nothing", "/api/events/1/cuts.pdf", "/api/tables/frog.csv", "/events/1"):
        found = doors.get(path).headers
        assert found["x-content-type-options"] == "nosniff"
        assert "frame-ancestors 'none'" in found["content-security-policy"]
        assert (found["cache-control"] == "no-store") == path.startswith("/api")
    refused = doors.get("/api/events", headers={"Host": "elsewhere.example"}).headers
    assert refused["cache-control"] == "no-store"


def test_the_venue_pack_is_a_download_whose_script_never_runs_as_a_page_of_the_application(doors: TestClient) -> None:
    pack = doors.get("/api/events/1/pack.html")
    assert pack.headers["content-disposition"].startswith("attachment")
    policy = [part.strip() for part in pack.headers["content-security-policy"].split(";")]
    assert "sandbox" in policy
    assert "default-src 'none'" in policy


def test_every_error_has_one_shape(doors: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    assert refusal(doors.get("/api/nothing"))["code"] == "http_404"
    assert refusal(doors.patch("/api/events"))["code"] == "http_405"
    assert refusal(doors.get("/api/events/99"))["code"] == "not_found"
    assert refusal(doors.post("/api/events", content=b"[" * 100_000))["code"] in ("http_400", "measure")
    assert refusal(doors.post("/api/events", json={}))["path"] == "name"
    assert refusal(doors.post("/api/events/1/undo", json={"base_revision": 1}))["code"] == "nothing"
    assert refusal(doors.post(based(doors, "/api/tables/frog"), json={"text": "x"}))["code"] == "table"
    monkeypatch.setattr("jolly_trellis.store.events.list_events", lambda _: 1 / 0)
    assert refusal(doors.get("/api/events"))["code"] == "unforeseen"


def test_a_write_while_another_program_holds_the_data_is_told_so_and_kept_out(
    doors: TestClient, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(connection, "PATIENCE_S", 0.05)
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        answer = doors.post("/api/events/1/copy")
    assert answer.status_code == 503
    assert "held by another program" in refusal(answer)["message"]["text"]
    assert len(doors.get("/api/events").json()) == 1


def test_every_write_to_the_stores_or_a_survey_names_what_it_is_based_on(doors: TestClient) -> None:
    """Read from the description of the doors themselves, so that a new one cannot be forgotten."""
    described = doors.get("/openapi.json").json()
    found = {
        f"{method} {path}": act
        for path, methods in described["paths"].items()
        for method, act in methods.items()
        if method != "get" and re.search(r"^/api/(stock|tables|remnants)|/survey", path)
    }
    assert len(found) >= 19
    for name, act in found.items():
        named = [each["name"] for each in act.get("parameters", []) if each["required"]]
        body = act.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema", {})
        schema = described["components"]["schemas"].get(body.get("$ref", "").rpartition("/")[2], {})
        assert "base_revision" in [*named, *schema.get("required", [])], name


@pytest.mark.parametrize("ahead", [-1, 1, 50])
def test_a_write_to_the_stores_or_a_survey_that_is_stale_or_of_the_future_is_refused(
    doors: TestClient, ahead: int
) -> None:
    stores, survey = doors.get("/api/stock").json(), doors.get("/api/events/1/survey").json()
    body = survey["survey"] | {"base_revision": survey["revision"] + ahead}
    bowl = f"/api/stock/vessel/low-bowl-20?base_revision={stores['revision'] + ahead}"
    for answer in (doors.put("/api/events/1/survey", json=body | {"points": []}), doors.delete(bowl)):
        assert answer.status_code == 409
        assert refusal(answer)["code"] == "stale"
    assert doors.get("/api/stock").json() == stores
    assert doors.get("/api/events/1/survey").json() == survey


def test_reads_go_on_while_another_program_holds_the_data_and_a_write_waits_less_than_five_seconds(
    doors: TestClient, tmp_path: Path
) -> None:
    assert connection.PATIENCE_S <= 4.5
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME, isolation_level=None)) as other:
        other.execute("BEGIN EXCLUSIVE")
        for path in ("/api/health", "/api/stock", "/api/events/1", "/api/events/1/survey"):
            assert doors.get(path).status_code == 200, path


def test_no_database_is_opened_or_asked_where_everybody_is_answered(
    doors: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A connection that waits for a lock there would keep all others waiting."""
    opened = []

    def watched(path: Path, real: Callable[[Path], sqlite3.Connection] = connection.open_database) -> object:
        opened.append(path)
        with pytest.raises(RuntimeError):
            asyncio.get_running_loop()
        return real(path)

    monkeypatch.setattr(connection, "open_database", watched)
    for path in ("/api/stock", "/api/events/1", "/api/events/1/day", "/api/events/1/cuts.pdf", "/api/figures"):
        assert doors.get(path).status_code == 200, path
    assert 0 < len(opened) <= 2, "a request has one that is there already, and one more while it waits for long work"


def test_a_connection_comes_back_with_nothing_half_done_on_it(tmp_path: Path) -> None:
    kept = connection.Connections(tmp_path / "some.sqlite")
    with kept.lent() as conn:
        conn.execute("CREATE TABLE thing (key TEXT)")
        conn.execute("BEGIN IMMEDIATE")
        conn.execute("INSERT INTO thing VALUES ('half')")
    with kept.lent() as again, kept.lent() as other:
        assert again is conn
        assert other is not conn
        assert other.execute("SELECT count(*) FROM thing").fetchone()[0] == 0
    many = [kept.take() for _ in range(connection.MOST_IDLE + 2)]
    for each in many:
        kept.give_back(each)
    kept.close()
    for each in many:
        with pytest.raises(sqlite3.ProgrammingError):
            each.execute("SELECT 1")
    assert kept.opened == connection.MOST_IDLE + 2


def test_a_line_that_nobody_says_is_refused_before_it_is_read(doors: TestClient) -> None:
    for text, words in (("9 roses, " * 500, "4500"), ("rose " + "7" * 3000, "7777777777777…")):
        for path, more in (("/api/events/1/parts/say", {}), ("/api/events/1/parts/said", {"base_revision": 1})):
            answer = doors.post(path, json={"text": text, **more})
            assert answer.status_code == 422
            said = refusal(answer)
            assert said["path"] == "text"
            assert words in json.dumps(said["message"], ensure_ascii=False)


def test_a_write_on_a_full_disk_is_told_so_and_nothing_is_half_written(
    doors: TestClient, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    real = connection.open_database

    def small(path: Path) -> sqlite3.Connection:
        conn = real(path)
        conn.execute("PRAGMA max_page_count = 1")
        return conn

    with closing(sqlite3.connect(tmp_path / DATABASE_NAME)) as conn:
        before = "\n".join(conn.iterdump())
    monkeypatch.setattr("jolly_trellis.store.connection.open_database", small)
    answers = [doors.post("/api/events/1/copy") for _ in range(8)]
    assert answers[-1].status_code == 503
    assert "disk is full" in refusal(answers[-1])["message"]["text"]
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME)) as conn:
        written = "\n".join(conn.iterdump())
    assert written.count('INSERT INTO "event"') == before.count('INSERT INTO "event"') + sum(
        each.status_code == 201 for each in answers
    )


def test_many_who_wait_for_a_day_keep_nobody_from_being_answered(
    client: TestClient, application: FastAPI, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Nine wait, of four workers, and none of them is done before somebody else was answered."""
    over = threading.Event()

    def endless(work: EventWork) -> Running[Day]:
        def go(_: Running[Day]) -> Day:
            over.wait(60)
            return Day(timed=(), conflicts=(), lives=(), missing=())

        return long_work.start(("endless", work.made_for), go)

    def endless_cuts(*_: object, **__: object) -> CutPlan:
        over.wait(60)
        return CutPlan(materials=())

    monkeypatch.setattr(days, "_running", endless)
    monkeypatch.setattr(event_work, "cut_plan", endless_cuts)
    # Cuts are made for needs, not for a folder: the demo's may be done already, from a test before this one.
    monkeypatch.setattr(long_work, "_running", OrderedDict())
    waiting: list[int] = []

    async def ask() -> list[int]:
        anyio.to_thread.current_default_thread_limiter().total_tokens = 4
        transport = httpx.ASGITransport(app=application)
        async with httpx.AsyncClient(transport=transport, base_url="http://testserver") as asking:

            async def wait(path: str) -> None:
                waiting.append((await asking.get(path, timeout=None)).status_code)

            async with anyio.create_task_group() as everyone:
                for nth in range(9):
                    path = ("day?wait_s=60", "day.ics", "cuts.pdf")[nth % 3]
                    everyone.start_soon(wait, f"/api/events/1/{path}")
                await anyio.sleep(0.5)
                with anyio.fail_after(50):
                    answer = await asking.get("/api/events/1/survey", timeout=None)
                before = list(waiting)
                over.set()
            assert answer.status_code == 200
            return before

    try:
        # In a thread of its own: a browser that another test has open in this one keeps its loop running here.
        with ThreadPoolExecutor(1) as alone:
            assert alone.submit(anyio.run, ask).result() == []
    finally:
        over.set()
    assert waiting == [200] * 9
