"""The book of figures over the wire: listed, set, taken back; events keep theirs until they take newer ones."""

import json
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from jolly_trellis.core.method import CONSTANTS, PROGRAM
from jolly_trellis.services import figures, planning
from jolly_trellis.services.opening import open_studio
from jolly_trellis.store.plan import Brief
from tests.wire import pieces

KEY = "evaporation-under-flowers-against-open-water"
TILT = "tip-angle-a-low-piece-needs"


def book(client: TestClient) -> dict[str, Any]:
    found: dict[str, Any] = client.get("/api/figures").json()
    return found


def figure(client: TestClient, key: str) -> dict[str, Any]:
    return next(each for topic in book(client)["topics"] for each in topic["figures"] if each["key"] == key)


def put(client: TestClient, key: str, value: float, reason: str = "weighed a bowl overnight") -> Any:
    return client.put(f"/api/figures/{key}", json={"value": value, "reason": reason})


def event(client: TestClient) -> dict[str, Any]:
    found: dict[str, Any] = client.get("/api/events/1").json()
    return found


def limits(found: dict[str, Any]) -> set[float]:
    return {
        each["limit"]["value"]
        for piece in pieces(found)
        for verdict in piece["report"]["verdicts"]
        for each in verdict["findings"]
        if each["check"] == "tilt"
    }


def test_every_figure_is_listed_by_topic_with_its_owner_and_provenance(client: TestClient) -> None:
    listed = [each for topic in book(client)["topics"] for each in topic["figures"]]
    assert {each["key"] for each in listed} == set(CONSTANTS)
    assert all(each["owner"] == "program" and each["provenance"] for each in listed)
    assert book(client)["edition"] == PROGRAM.edition


def test_a_figure_of_ones_own_takes_the_place_and_goes_back(client: TestClient) -> None:
    assert put(client, KEY, 0.8).status_code == 200
    own = figure(client, KEY)
    assert (own["owner"], own["reason"], own["provenance"]) == ("studio", "weighed a bowl overnight", "measured")
    assert (own["quantity"]["value"], own["built_in"]["value"]) == (0.8, 0.4)
    was = {"value": 0.8, "reason": "weighed a bowl overnight"}
    late = client.request("DELETE", f"/api/figures/{KEY}", json={"was": was | {"value": 0.7}})
    assert late.status_code == 409
    back = client.request("DELETE", f"/api/figures/{KEY}", json={"was": was})
    assert back.status_code == 200
    assert back.json()["edition"] == PROGRAM.edition
    assert figure(client, KEY)["reason"] is None
    assert client.request("DELETE", f"/api/figures/{KEY}", json={}).status_code == 404


@pytest.mark.parametrize(
    ("key", "value", "reason", "status", "said"),
    [
        (KEY, 9.0, "why not", 422, "9 cannot be taken here. Give 0.08 to 2, in the unit shown."),
        (KEY, 0.5, " ", 422, "A figure of your own needs its reason."),
        ("standard-gravity", 9.7, "moon", 422, "Standard gravity is fixed by definition."),
        ("no-such-figure", 1.0, "why not", 404, "There is no such figure."),
    ],
)
def test_what_cannot_be_set_gets_one_sentence_and_changes_nothing(
    client: TestClient, key: str, value: float, reason: str, status: int, said: str
) -> None:
    answer = put(client, key, value, reason)
    assert answer.status_code == status
    problem = answer.json()
    words = problem["message"]["text"] + " " + problem["limit"]["text"]
    for name, quantity in {**problem["message"]["quantities"], **problem["limit"]["quantities"]}.items():
        words = words.replace("{" + name + "}", f"{quantity['value']:g}")
    assert words.startswith(said)
    assert book(client)["edition"] == PROGRAM.edition


def test_of_two_windows_the_second_is_told_of_the_same_figure_and_not_of_another(client: TestClient) -> None:
    assert put(client, KEY, 0.8).status_code == 200
    late = put(client, KEY, 0.7, "weighed two")
    assert late.status_code == 409
    assert late.json()["code"] == "stale"
    asked = {each["path"]: (each["mine"], each["now"]) for each in late.json()["both"]}
    assert asked == {"value": (0.7, 0.8), "reason": ("weighed two", "weighed a bowl overnight")}
    assert figure(client, KEY)["quantity"]["value"] == 0.8
    assert put(client, TILT, 0.15, "a wedding").status_code == 200
    assert figure(client, TILT)["owner"] == "studio"


def test_an_event_keeps_its_figures_until_it_takes_the_newer_and_undo_goes_back(client: TestClient) -> None:
    before = event(client)
    assert before["newest_figures"]
    assert put(client, TILT, 0.9, "a drunken wedding").status_code == 200
    kept = event(client)
    assert not kept["newest_figures"]
    assert limits(kept) == limits(before)
    newer = client.get("/api/events/1/newer-figures").json()
    assert [each["key"] for each in newer["figures"]] == [TILT]
    assert newer["figures"][0]["now"]["value"] == 0.9
    assert newer["kept_at"]
    changed = newer["verdicts"]
    assert changed
    assert all(each["verb"] == "stand" for each in changed)
    assert changed[0]["now"] == "fails"
    taken = client.post("/api/events/1/newer-figures", json={"base_revision": kept["revision"]}).json()
    assert taken["newest_figures"]
    assert max(limits(taken)) == pytest.approx(0.9)
    states = {
        (each["id"], verdict["verb"]): verdict["state"]
        for each in pieces(taken)
        for verdict in each["report"]["verdicts"]
    }
    assert all(states[each["piece_id"], each["verb"]] == each["now"] for each in changed)
    assert taken["undo"] == "Take the newer figures"
    undone = client.post("/api/events/1/undo", json={"base_revision": taken["revision"]}).json()
    assert not undone["newest_figures"]
    assert limits(undone) == limits(before)


def test_every_place_of_an_event_reads_the_events_own_book(client: TestClient) -> None:
    """The bench, asked for the same piece, gives the limit that the line-up gives, whatever the studio's book says."""
    limit = limits(event(client))
    assert put(client, TILT, 0.9).status_code == 200
    piece = pieces(event(client))[0]["part"]
    report = client.post("/api/events/1/evaluate", json={"piece": piece, "with_fixes": False}).json()
    tilt = [f["limit"]["value"] for v in report["verdicts"] for f in v["findings"] if f["check"] == "tilt"]
    assert set(tilt) <= limit
    new = client.post("/api/events", json={"name": "Tea"}).json()
    answer = client.post(f"/api/events/{new['id']}/evaluate", json={"piece": piece, "with_fixes": False}).json()
    assert 0.9 in [f["limit"]["value"] for v in answer["verdicts"] for f in v["findings"] if f["check"] == "tilt"]


def test_an_event_file_carries_the_figures_it_was_planned_with(client: TestClient) -> None:
    text = client.get("/api/events/1/event.json").text
    assert json.loads(text)["figures"]["values"][TILT] == CONSTANTS[TILT].built_in
    assert put(client, TILT, 0.9).status_code == 200
    read = client.post("/api/events/from-file", json={"text": text}).json()["event"]["id"]
    assert client.get(f"/api/events/{read}/event.json").text == text
    assert not client.get(f"/api/events/{read}").json()["newest_figures"]
    copy = client.post("/api/events/1/copy").json()
    assert copy["newest_figures"]


@pytest.mark.parametrize(("key", "value", "status"), [(TILT, 40.0, 422), ("colour-of-the-van", 40.0, 201)])
def test_figures_of_a_file_are_held_to_their_range(client: TestClient, key: str, value: float, status: int) -> None:
    plain = client.get("/api/events/1/event.json").json()
    plain["figures"]["values"][key] = value
    answer = client.post("/api/events/from-file", json={"text": json.dumps(plain)})
    assert answer.status_code == status
    if status == 422:
        assert answer.json()["message"]["text"].startswith("“Tip angle a low piece needs” is out of range.")


def test_an_event_of_before_the_editions_is_pinned_at_its_first_change(client: TestClient, tmp_path: Path) -> None:
    conn = open_studio(tmp_path)
    conn.execute("UPDATE event SET brief = json_remove(brief, '$.figures') WHERE id = 1")
    assert event(client)["newest_figures"]
    brief = planning.brief_of(conn, 1)
    assert brief.figures == ""
    state = planning.put_brief(conn, 1, Brief(name="Supper", tables=4), base_revision=event(client)["revision"])
    assert state.plan.brief.figures == PROGRAM.edition
    conn.close()


def test_an_own_figure_that_this_version_does_not_read_is_kept_and_shown(client: TestClient, tmp_path: Path) -> None:
    conn = open_studio(tmp_path)
    conn.execute("INSERT INTO own_figure VALUES ('grip-of-a-glove', 3.0, 'pulled it')")
    conn.execute("INSERT INTO own_figure VALUES (?, 77.0, 'of another version')", (KEY,))
    assert figures.current(conn).edition == PROGRAM.edition
    conn.close()
    assert book(client)["unused"] == {"grip-of-a-glove": "pulled it", KEY: "of another version"}
