"""Whatever is sent in that cannot be is refused by one sentence that says where."""

import json
import re
from collections.abc import Callable
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.wire import based, refusal


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
    assert "start of" in refusal(answer)["message"]["text"]


@pytest.mark.parametrize("at", ["tomorrow", "2027-05-15", "0001-01-01T00:00", "9999-12-31T23:59", "1999-12-31T23:59"])
@pytest.mark.parametrize("zone", ["Pacific/Kiritimati", "Etc/GMT+12", "UTC"])
def test_a_time_that_cannot_be_is_refused_in_every_zone(doors: TestClient, at: str, zone: str) -> None:
    answer = doors.post("/api/events", json={"name": "When?", "time_zone": zone, "filled_at": at})
    assert answer.status_code == 422
    assert refusal(answer)["path"] == "filled_at"


@pytest.mark.parametrize("zone", ["Nowhere/None", "../../etc/passwd", "Europe/\0", "", "x" * 61])
def test_a_zone_that_is_none_is_refused_even_where_no_time_is_given(doors: TestClient, zone: str) -> None:
    for brief in ({"name": "Where?", "time_zone": zone}, {"name": "W", "time_zone": zone, "filled_at": "tomorrow"}):
        answer = doors.post("/api/events", json=brief)
        assert answer.status_code == 422
        assert refusal(answer)["path"] == "time_zone"


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
        (_set("version", 99), "reads up to 4"),
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
    assert words in refusal(answer)["message"]["text"]
    assert len(doors.get("/api/events").json()) == 1


@pytest.mark.parametrize("digits", [400, 5000])
@pytest.mark.parametrize("field", ["quantity", "height_m", "version"])
def test_a_number_of_many_digits_is_refused(doors: TestClient, digits: int, field: str) -> None:
    text = doors.get("/api/events/1/event.json").text
    long, found = re.subn(rf'"{field}": ?[\d.]+', f'"{field}": {"9" * digits}', text, count=1)
    assert found == 1
    answer = doors.post("/api/events/from-file", json={"text": long})
    assert answer.status_code == 422
    refusal(answer)


@pytest.mark.parametrize("kind", ["vessel", "netting", "frog", "variety", "supply"])
def test_a_table_with_an_endless_cell_or_a_wrong_key_is_refused(doors: TestClient, kind: str) -> None:
    header, first, *_ = doors.get(f"/api/tables/{kind}.csv").text.splitlines()
    endless = doors.post(based(doors, f"/api/tables/{kind}"), json={"text": f"{header}\n{'x' * 140_000},{first}"})
    assert "longer than any table has" in refusal(endless)["message"]["text"]
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
    assert refusal(answer)["path"] == "key"


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
    assert refusal(answer)["message"]["text"].startswith("Line ")
