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
from typing import Any

import anyio
import anyio.to_thread
import httpx2 as httpx
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from jolly_trellis.api.app import make_app, serve_from
from jolly_trellis.core.event.cutting.roll import CutPlan
from jolly_trellis.core.event.day.day import Day
from jolly_trellis.services import day as days
from jolly_trellis.services import event_work, long_work
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store import connection
from tests.wire import based

HERE = "127.0.0.1:8420"


@pytest.fixture(scope="module")
def behind_doors(tmp_path_factory: pytest.TempPathFactory) -> FastAPI:
    """An application at an address of its own, over a built screen of one page."""
    build = tmp_path_factory.mktemp("dist")
    (build / "assets").mkdir()
    (build / "index.html").write_text("<!doctype html><title>Jolly Trellis</title>")
    return make_app(build, web_build=build, hosts=(HERE, "localhost:8420"))


@pytest.fixture
def doors(behind_doors: FastAPI, demo_folder: Path, nothing_goes_on: None) -> TestClient:
    """A client that asks at that address."""
    serve_from(behind_doors, demo_folder)
    return TestClient(behind_doors, base_url=f"http://{HERE}", raise_server_exceptions=False)


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


def body_of(answer: httpx.Response) -> dict[str, Any]:
    body: dict[str, Any] = answer.json()
    assert {"code", "path", "message", "limit"} <= body.keys()
    assert set(body["message"]) == set(body["limit"]) == {"text", "quantities"}
    assert body["message"]["text"]
    return body


def test_every_error_has_one_shape(doors: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    assert body_of(doors.get("/api/nothing"))["code"] == "http_404"
    assert body_of(doors.patch("/api/events"))["code"] == "http_405"
    assert body_of(doors.get("/api/events/99"))["code"] == "not_found"
    assert body_of(doors.post("/api/events", content=b"[" * 100_000))["code"] in ("http_400", "measure")
    assert body_of(doors.post("/api/events", json={}))["path"] == "name"
    assert body_of(doors.post("/api/events/1/undo", json={"base_revision": 1}))["code"] == "nothing"
    assert body_of(doors.post(based(doors, "/api/tables/frog"), json={"text": "x"}))["code"] == "table"
    monkeypatch.setattr("jolly_trellis.store.events.list_events", lambda _: 1 / 0)
    assert body_of(doors.get("/api/events"))["code"] == "unforeseen"


def test_a_write_while_another_program_holds_the_data_is_told_so_and_kept_out(
    doors: TestClient, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(connection, "PATIENCE_S", 0.05)
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        answer = doors.post("/api/events/1/copy")
    assert answer.status_code == 503
    assert "held by another program" in body_of(answer)["message"]["text"]
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
        assert body_of(answer)["code"] == "stale"
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
            said = body_of(answer)
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
    assert "disk is full" in body_of(answers[-1])["message"]["text"]
    with closing(sqlite3.connect(tmp_path / DATABASE_NAME)) as conn:
        written = "\n".join(conn.iterdump())
    assert written.count('INSERT INTO "event"') == before.count('INSERT INTO "event"') + sum(
        each.status_code == 201 for each in answers
    )


def ics(uid: str, start: str) -> str:
    lines = ("BEGIN:VCALENDAR", "VERSION:2.0", "BEGIN:VEVENT", f"UID:{uid}", f"DTSTART{start}", "END:VEVENT")
    return "\r\n".join((*lines, "END:VCALENDAR", ""))


@pytest.mark.parametrize(
    "start",
    [
        ":hello",
        ";VALUE=DATE:hello",
        ":00010101T000000Z",
        ":99991231T235959Z",
        ";TZID=Etc/GMT+12:99991231T235959",
        ";TZID=Pacific/Kiritimati:00010101T000000",
        ";TZID=Nowhere/None:20270515T100000",
        ";TZID=../../etc:20270515T100000",
        ":20270515",
    ],
)
def test_a_calendar_with_no_time_that_can_be_is_refused(doors: TestClient, start: str) -> None:
    key = doors.get("/api/events/1/day?wait_s=60").json()["day"]["timed"][0]["task"]["key"]
    body = {"base_revision": 1, "text": ics(f"1.{key}@jolly-trellis", start)}
    answer = doors.post("/api/events/1/day/calendar", json=body)
    assert answer.status_code == 422
    assert "start of" in body_of(answer)["message"]["text"]


@pytest.mark.parametrize("at", ["tomorrow", "2027-05-15", "0001-01-01T00:00", "9999-12-31T23:59", "1999-12-31T23:59"])
@pytest.mark.parametrize("zone", ["Pacific/Kiritimati", "Etc/GMT+12", "UTC"])
def test_a_time_that_cannot_be_is_refused_in_every_zone(doors: TestClient, at: str, zone: str) -> None:
    answer = doors.post("/api/events", json={"name": "When?", "time_zone": zone, "filled_at": at})
    assert answer.status_code == 422
    assert body_of(answer)["path"] == "filled_at"


@pytest.mark.parametrize("zone", ["Nowhere/None", "../../etc/passwd", "Europe/\0", "", "x" * 61])
def test_a_zone_that_is_none_is_refused_even_where_no_time_is_given(doors: TestClient, zone: str) -> None:
    for brief in ({"name": "Where?", "time_zone": zone}, {"name": "W", "time_zone": zone, "filled_at": "tomorrow"}):
        answer = doors.post("/api/events", json=brief)
        assert answer.status_code == 422
        assert body_of(answer)["path"] == "time_zone"


def _set(path: str, value: Any) -> Callable[[dict[str, Any]], None]:
    def change(plain: dict[str, Any]) -> None:
        *parents, last = path.split(".")
        for each in parents:
            plain = plain[int(each)] if isinstance(plain, list) else plain[each]
        plain[last] = value

    return change


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (_set("brief.place", "\0hall"), "place"),
        (_set("brief.filled_at", "tomorrow"), "tomorrow"),
        (_set("brief.time_zone", "Nowhere/None"), "Nowhere/None"),
        (_set("version", True), "version"),
        (_set("version", 99), "reads up to 3"),
        (_set("parts.0.part.vessel.profile.0.height_m", -1), "height"),
        (_set("parts.0.part.recipe.0.count", 0), "number of stems"),
    ],
)
def test_a_file_that_is_wrong_in_one_place_is_refused_by_that_place(
    doors: TestClient, change: Callable[[dict[str, Any]], None], words: str
) -> None:
    plain = doors.get("/api/events/1/event.json").json()
    change(plain)
    answer = doors.post("/api/events/from-file", json={"text": json.dumps(plain)})
    assert answer.status_code == 422
    assert words in body_of(answer)["message"]["text"]
    assert len(doors.get("/api/events").json()) == 1


@pytest.mark.parametrize("digits", [400, 5000])
@pytest.mark.parametrize("field", ["quantity", "height_m", "version"])
def test_a_number_of_many_digits_is_refused(doors: TestClient, digits: int, field: str) -> None:
    text = doors.get("/api/events/1/event.json").text
    long, found = re.subn(rf'"{field}": ?[\d.]+', f'"{field}": {"9" * digits}', text, count=1)
    assert found == 1
    answer = doors.post("/api/events/from-file", json={"text": long})
    assert answer.status_code == 422
    body_of(answer)


@pytest.mark.parametrize("kind", ["vessel", "netting", "frog", "variety", "supply"])
def test_a_table_with_an_endless_cell_or_a_wrong_key_is_refused(doors: TestClient, kind: str) -> None:
    header, first, *_ = doors.get(f"/api/tables/{kind}.csv").text.splitlines()
    endless = doors.post(based(doors, f"/api/tables/{kind}"), json={"text": f"{header}\n{'x' * 140_000},{first}"})
    assert "longer than any table has" in body_of(endless)["message"]["text"]
    key = first.partition(",")[0]
    for bad in ("..", "a\rb", "x" * 61, "a/b", "a b"):
        text = f"{header}\n" + first.replace(key, f'"{bad}"', 1)
        answer = doors.post(based(doors, f"/api/tables/{kind}"), json={"text": text, "dry_run": False}).json()
        assert (answer["added"], answer["changed"], len(answer["refused"])) == ([], [], 1)


@pytest.mark.parametrize("key", ["%2e%2e", "a%00b", "a%0db", "x" * 5000, "a b", "ü"])
@pytest.mark.parametrize("kind", ["netting", "frog", "variety", "supply", "vessel"])
def test_a_key_that_is_none_is_refused(doors: TestClient, key: str, kind: str) -> None:
    things = {
        "vessel": "vessels",
        "netting": "nettings",
        "frog": "frogs",
        "variety": "varieties",
        "supply": "supplies",
    }
    thing = next(iter(doors.get("/api/stock").json()[things[kind]].values()))
    thing.pop("key", None)
    answer = doors.put(based(doors, f"/api/stock/{kind}/{key}"), json={kind: thing})
    assert answer.status_code == 422
    assert body_of(answer)["path"] == "key"


@pytest.mark.parametrize(
    "text",
    [
        f"0,{'9' * 400}/3\n10,20",
        f"0,1/{'9' * 400}\n10,20",
        "0,-9999 awg\n10,20",
        "0,1/0\n10,20",
        "0,9999999999/3\n10,20",
        "0 10\n5 9\n3 8",
        "0 10\n0 9",
        "0 0\n5 9",
        "-2 8\n5 9",
        f"0 {'9' * 400}\n10 20",
    ],
)
@pytest.mark.parametrize("system", ["metric", "inch"])
def test_an_outline_that_no_vessel_has_is_refused(doors: TestClient, text: str, system: str) -> None:
    answer = doors.post("/api/outline", json={"text": text, "written_as": "table", "system": system})
    assert answer.status_code == 422
    assert body_of(answer)["message"]["text"].startswith("Line ")


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
