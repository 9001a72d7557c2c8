"""Whole events as files: the largest is read back as it was; what was begun is begun whole or not at all."""

import json
import sqlite3
from dataclasses import replace
from typing import Any

import pytest
from fastapi.testclient import TestClient

from jolly_trellis.api.event_file import write_file
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.demo.loading import demo_plan, demo_survey, load_demo
from jolly_trellis.services import rigging, rolling
from jolly_trellis.store import events, surveys
from jolly_trellis.store.plan import MOST_PARTS, Plan, Planned
from tests.wire import based


def largest() -> Plan:
    """As many parts of every kind as an event takes, each with a name of its own."""
    plan = demo_plan()
    parts = [plan.parts[at % len(plan.parts)].part for at in range(MOST_PARTS)]
    named = (replace(each, name=f"{each.name} {at}") for at, each in enumerate(parts, 1))
    return replace(plan, parts=tuple(Planned(id=at, part=each) for at, each in enumerate(named, 1)))


def test_an_event_of_700_parts_is_read_back_from_its_own_file(client: TestClient) -> None:
    plan = largest()
    text = write_file(plan, demo_survey())
    read = client.post("/api/events/from-file", json={"text": text})
    assert read.status_code == 201, read.text
    event = read.json()["event"]
    again = client.get(f"/api/events/{event['id']}/event.json")
    plain = json.loads(again.text)
    assert plain.pop("figures")["values"] == PROGRAM.values
    assert plain["brief"].pop("figures") == PROGRAM.edition
    sent = json.loads(text)
    assert sent["brief"].pop("figures") == ""
    for rows in ("crew", "suppliers"):
        keys = [each.pop("key") for each in plain["brief"][rows]]
        assert all(keys) and len(set(keys)) == len(keys)
        assert not any(each.pop("key") for each in sent["brief"][rows])
    assert plain == sent
    assert len(again.content) > 1_000_000


def test_one_part_more_than_an_event_takes_is_refused(client: TestClient) -> None:
    plain = json.loads(write_file(largest(), demo_survey()))
    plain["parts"].append(plain["parts"][0] | {"id": 900})
    refused = client.post("/api/events/from-file", json={"text": json.dumps(plain)})
    assert refused.status_code == 422
    assert "parts" in refused.json()["message"]["text"]


def broken(*_: Any, **__: Any) -> None:
    raise sqlite3.OperationalError("database or disk is full")


def test_an_event_is_begun_with_its_survey_or_not_at_all(
    studio: sqlite3.Connection, monkeypatch: pytest.MonkeyPatch
) -> None:
    with monkeypatch.context() as patched:
        patched.setattr(surveys, "put_survey", broken)
        with pytest.raises(sqlite3.OperationalError):
            rigging.begin_with_survey(studio, demo_plan(), demo_survey())
        with pytest.raises(sqlite3.OperationalError):
            load_demo(studio)
    assert events.list_events(studio) == ()
    assert studio.execute("SELECT count(*) FROM change").fetchone()[0] == 0
    assert load_demo(studio)
    assert rigging.survey_of(studio, 1)[1].survey == demo_survey()


def test_a_demo_that_was_left_without_its_survey_is_completed_by_the_next_start(studio: sqlite3.Connection) -> None:
    load_demo(studio)
    studio.execute("DELETE FROM survey")
    studio.execute("DELETE FROM holding")
    assert load_demo(studio)
    assert rigging.survey_of(studio, 1)[1].survey == demo_survey()
    assert studio.execute("SELECT count(*) FROM holding").fetchone()[0] > 5
    assert len(events.list_events(studio)) == 1
    assert load_demo(studio) is False


def test_a_material_is_marked_as_cut_whole_or_not_at_all(
    studio: sqlite3.Connection, monkeypatch: pytest.MonkeyPatch
) -> None:
    load_demo(studio)
    rolling.start(studio, 1, seconds=0.5)
    for _ in range(600):
        state = rolling.state(studio, 1)
        if not state.running and state.plan is not None:
            break
        rolling.stop(studio, 1)
    assert state.plan is not None
    plan = next(each for each in state.plan.materials if each.material == "netting" and each.stocks)
    tables = ("holding", "remnant", "cut", "cut_plan")
    before = [studio.execute(f"SELECT * FROM {table}").fetchall() for table in tables]
    with monkeypatch.context() as patched:
        patched.setattr("jolly_trellis.store.cuts.put_plan", broken)
        with pytest.raises(sqlite3.OperationalError):
            rolling.mark_cut(studio, 1, plan.material, plan.key)
    assert [studio.execute(f"SELECT * FROM {table}").fetchall() for table in tables] == before
    rolling.mark_cut(studio, 1, plan.material, plan.key)
    assert [row.key for row in rolling.state(studio, 1).cut] == [plan.key]


def test_a_copy_of_everything_goes_out_and_comes_back_over_the_web(client: TestClient) -> None:
    saved = client.get("/api/data/backup.sqlite")
    assert saved.headers["content-disposition"].startswith("attachment")
    assert client.delete("/api/events/1").status_code == 204
    assert [each["name"] for each in client.get("/api/events/deleted").json()] == ["Reopening supper"]
    put = client.post("/api/data/restore", content=saved.content)
    assert put.status_code == 200, put.text
    assert len(client.get("/api/events").json()) == 1
    copies = client.get("/api/data").json()["copies"]
    assert [each["name"] for each in copies if each["replaced"]] == [put.json()["replaced"]]
    back = client.post(f"/api/data/copies/{put.json()['replaced']}/restore")
    assert back.status_code == 200
    assert client.get("/api/events").json() == []
    assert client.post("/api/events/1/bring-back").json()["brief"]["name"] == "Reopening supper"
    for wrong in (b"", b"no copy", saved.content[:5000]):
        refused = client.post("/api/data/restore", content=wrong)
        assert refused.status_code == 422
        assert refused.json()["message"]["text"]
    assert client.post("/api/data/copies/..%2Fjolly-trellis.sqlite/restore").status_code == 404
    assert len(client.get("/api/events").json()) == 1


def test_the_stores_are_undone_and_things_deleted_over_the_web(client: TestClient) -> None:
    before = client.get("/api/stock").json()
    assert before["undo"] is None
    gone = client.delete(based(client, "/api/stock/supply/stem-tube")).json()
    assert "stem-tube" not in gone["supplies"]
    assert gone["undo"].startswith("Delete stem tube")
    shopping = client.get("/api/events/1/lists")
    assert shopping.status_code == 200
    assert client.get("/api/events/1/cost").status_code == 200
    back = client.post(based(client, "/api/stock/supply/stem-tube/bring-back")).json()
    assert back["supplies"] == before["supplies"]
    undone = client.post(based(client, "/api/stock/undo")).json()
    assert undone["supplies"] == gone["supplies"]
    stale = f"/api/stock/redo?base_revision={back['revision']}"
    assert client.post(stale).status_code == 409
    redone = client.post(based(client, "/api/stock/redo")).json()
    assert redone["supplies"] == before["supplies"]
    refused = client.delete(based(client, "/api/stock/variety/rose"))
    assert refused.status_code == 422
    assert "Retire" in refused.json()["limit"]["text"]
