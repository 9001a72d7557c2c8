"""What is done to a part by one press: one write, one undo step, refused where the part has changed."""

from typing import Any

from fastapi.testclient import TestClient

from tests.wire import pieces, rigs

EVENT = "/api/events/1"


def edit(client: TestClient, part: int, base: int, **what: Any) -> Any:
    return client.post(f"{EVENT}/parts/{part}/edit", json={"base_revision": base, "edit": what})


def test_an_edit_is_saved_judged_and_undone_as_one_step(client: TestClient) -> None:
    event = client.get(EVENT).json()
    rig = rigs(event)[0]
    done = edit(client, rig["id"], event["revision"], kind="add point", surveyed=None)
    assert done.status_code == 200, done.text
    now = next(each for each in done.json()["parts"] if each["id"] == rig["id"])
    assert len(now["part"]["points"]) == len(rig["part"]["points"]) + 1
    assert now["part"]["points"][-1]["rating_n"] is None
    assert now["report"]["verdict"]["state"] in ("cannot say", "fails")
    assert done.json()["undo"] == "Add a hang point"
    back = client.post(f"{EVENT}/undo", json={"base_revision": done.json()["revision"]}).json()
    assert next(each for each in back["parts"] if each["id"] == rig["id"])["part"] == rig["part"]


def test_another_vessel_is_taken_from_the_stores(client: TestClient) -> None:
    event = client.get(EVENT).json()
    bowl = pieces(event)[0]
    done = edit(client, bowl["id"], event["revision"], kind="add companion", vessel="low-bowl-15")
    now = next(each for each in done.json()["parts"] if each["id"] == bowl["id"])
    assert len(now["part"]["companions"]) == len(bowl["part"]["companions"]) + 1


def test_what_cannot_be_done_is_refused_in_a_sentence_and_nothing_is_saved(client: TestClient) -> None:
    event = client.get(EVENT).json()
    rig, bowl, base = rigs(event)[0]["id"], pieces(event)[0]["id"], event["revision"]
    for part, what, path in (
        (rig, {"kind": "remove line", "line": 399}, "line"),
        (rig, {"kind": "remove line", "line": -1}, "edit.line"),
        (rig, {"kind": "add point", "surveyed": "nowhere"}, "surveyed"),
        (rig, {"kind": "set fire to it"}, "edit"),
        (rig, {"kind": "draw path", "places": []}, "edit.places"),
        (bowl, {"kind": "add line"}, "edit"),
        (bowl, {"kind": "add companion", "vessel": "moon-bowl"}, "vessel"),
    ):
        refused = edit(client, part, base, **what)
        assert refused.status_code == 422, (what, refused.text)
        assert refused.json()["path"].startswith(path), (what, refused.json())
        assert refused.json()["message"]["text"]
    assert client.get(EVENT).json()["revision"] == base
    assert edit(client, 99, base, kind="add line").status_code == 404


def test_an_edit_of_a_plan_that_has_changed_is_refused(client: TestClient) -> None:
    event = client.get(EVENT).json()
    rig, base = rigs(event)[0]["id"], event["revision"]
    assert edit(client, rig, base, kind="add point", surveyed=None).status_code == 200
    late = edit(client, rig, base, kind="add line")
    assert (late.status_code, late.json()["code"]) == (409, "stale")
    assert edit(client, rig, base + 50, kind="add line").status_code == 409


def test_what_an_edit_would_make_is_shown_and_nothing_is_kept(client: TestClient) -> None:
    event = client.get(EVENT).json()
    rig = rigs(event)[0]
    asked = {"base_revision": event["revision"], "edit": {"kind": "add point", "surveyed": None}}
    seen = client.post(f"{EVENT}/parts/{rig['id']}/edit", json={**asked, "keep": False})
    assert seen.json()["label"] == "Add a hang point"
    assert client.get(EVENT).json()["revision"] == event["revision"]
    assert client.get(EVENT).json()["parts"] == event["parts"]
    client.post(f"{EVENT}/parts/{rig['id']}/edit", json=asked)
    made = next(each for each in client.get(EVENT).json()["parts"] if each["id"] == rig["id"])
    assert {**seen.json()["part"], "beams": []} == made["part"]
    none = {"base_revision": event["revision"], "edit": {"kind": "remove point", "point": 99}, "keep": False}
    assert client.post(f"{EVENT}/parts/{rig['id']}/edit", json=none).status_code == 422
