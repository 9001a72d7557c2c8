"""The HTTP door: good requests, and one clear sentence for each bad one."""

import copy
import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.wire import based, pieces, put, rigs

PIECE = "/api/events/1/parts/1"


def verdict(report: dict[str, Any], verb: str) -> dict[str, Any]:
    found: dict[str, Any] = next(each for each in report["verdicts"] if each["verb"] == verb)
    return found


def sentence(answer: Any) -> str:
    body = answer.json()
    return f"{body['message']['text']} {body['limit']['text']}"


def looked_into(client: TestClient, piece: dict[str, Any]) -> dict[str, Any]:
    """The report of a piece with its fixes tried, as the bench asks for it."""
    report: dict[str, Any] = client.post("/api/events/1/evaluate", json={"piece": piece, "with_fixes": True}).json()
    return report


def test_the_demo_begins_with_one_bowl_twelve_times_and_a_verdict_to_settle(client: TestClient) -> None:
    event = client.get("/api/events/1").json()
    bowl = pieces(event)[0]
    assert bowl["part"]["quantity"] == 12
    assert bowl["problem"] is None
    states = {each["verb"]: each["state"] for each in bowl["report"]["verdicts"]}
    assert states["hold"] == states["stand"] == "holds"
    assert states["drink"] == "fails"
    assert verdict(looked_into(client, bowl["part"]), "drink")["fixes"]


def test_a_fix_is_applied_in_one_act_and_is_one_step(client: TestClient) -> None:
    event = client.get("/api/events/1").json()
    key = verdict(looked_into(client, pieces(event)[0]["part"]), "drink")["fixes"][0]["key"]
    act = {"base_revision": event["revision"], "verb": "drink", "key": key}
    saved = client.post(f"{PIECE}/fix", json=act).json()
    assert verdict(saved["parts"][0]["report"], "drink")["state"] in ("holds", "tight")
    assert saved["undo"] == "Drink: top up"
    undone = client.post("/api/events/1/undo", json={"base_revision": saved["revision"]}).json()
    assert verdict(pieces(undone)[0]["report"], "drink")["state"] == "fails"
    assert undone["redo"] == "Drink: top up"


def test_a_fix_that_is_not_offered_is_not_found(client: TestClient) -> None:
    answer = client.post(f"{PIECE}/fix", json={"base_revision": 1, "verb": "hold", "key": "magic"})
    assert answer.status_code == 404


def test_evaluating_saves_nothing(client: TestClient, bowl: dict[str, Any]) -> None:
    bowl["water_level_m"] = 0.05
    answer = client.post("/api/events/1/evaluate", json={"piece": bowl, "with_fixes": False})
    assert answer.status_code == 200
    assert answer.json()["fixes_tried"] is False
    assert client.get("/api/events/1").json()["revision"] == 1


def test_an_event_from_nothing_cannot_say_until_it_is_told(client: TestClient, bowl: dict[str, Any]) -> None:
    event = client.post("/api/events", json={"name": "Harbour tea", "time_zone": "Europe/London"}).json()
    bowl["vessel"] |= {"mass_kg": None, "foot_width_m": None}
    made = client.post(f"/api/events/{event['id']}/parts", json=put(bowl))
    assert made.status_code == 201
    report = made.json()["parts"][0]["report"]
    assert [(each["of"], each["path"]) for each in verdict(report, "drink")["missing"]] == [
        ("event", "air.temperature_c"),
        ("event", "filled_at"),
        ("event", "ends_at"),
        ("event", "workshop.temperature_c"),
    ]
    assert verdict(report, "stand")["missing"][0] == {
        "key": "vessel-weight",
        "of": "part",
        "path": "vessel.mass_kg",
        "say": {"text": "the weight of the empty vessel", "quantities": {}},
    }


def change(piece: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    """A copy of a piece with one leaf set."""
    changed = copy.deepcopy(piece)
    *parents, leaf = path.split(".")
    target: Any = changed
    for part in parents:
        target = target[int(part)] if part.isdigit() else target[part]
    target[leaf] = value
    return changed


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        ("envelope.height_m", 0, "The height, {has}, is too small. Give more than {low}, up to {high}."),
        ("envelope.height_m", -0.2, "The height, {has}, is too small. Give more than {low}, up to {high}."),
        ("envelope.height_m", 0.05, "The flowers end at {value}, which is too small. Give at least {least}."),
        ("envelope.width_m", "wide", "The width is not a number that can be used. Type a number, such as 24."),
        ("envelope.width_m", 50, "The width, {has}, is too large. Give more than {low}, up to {high}."),
        (
            "vessel.profile.1.height_m",
            0.09,
            "The profile folds back at {h}. No height lies under the one before it, {h}.",
        ),
        ("water_level_m", 0.2, "A level of {level} is outside the vessel. It lies from 0 to {rim}, the rim."),
        ("recipe.0.variety", "ruskus", "No variety in the stores is called “ruskus”. The nearest is “ruscus”."),
        ("recipe.0.count", 10_000, "The number of stems, {has}, is too large. Give {low} to {high}."),
        ("recipe.0.count", 2.5, "The number of stems is not a number that can be used. Type a number, such as 24."),
        ("recipe.0.role", "hero", "“role” is not one of the choices. Choose 'margin', 'line', 'focal', 'filler', "),
        ("mechanic.layers", 9, "The number of layers, {has}, is too large. Give {low} to {high}."),
        ("mechanic.layer_gap_m", 0.3, "2 layers {gap} apart do not fit in {depth}. A gap lies from {least} to"),
        ("vessel.mass_kg", -1, "The weight, {has}, is too small. Give more than {low}, up to {high}."),
        ("name", "", "The name is empty. Type at least one character."),
        ("colour", "red", "“colour” is not known here. Take it out."),
    ],
)
def test_bad_input_gets_a_sentence_at_its_place_and_nothing_is_lost(
    client: TestClient, bowl: dict[str, Any], path: str, value: Any, words: str
) -> None:
    answer = client.put(PIECE, json=put(change(bowl, path, value)))
    assert answer.status_code == 422
    assert sentence(answer).startswith(words)
    asked = answer.json()["path"]
    assert asked == path or (path == "vessel.profile.1.height_m" and asked == "vessel.profile.2.height_m")
    now = client.get("/api/events/1").json()
    assert (now["revision"], pieces(now)[0]["part"]) == (1, bowl)


@pytest.mark.parametrize("word", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_not_a_number_is_refused(client: TestClient, bowl: dict[str, Any], word: str) -> None:
    text = json.dumps(put(change(bowl, "envelope.height_m", "HERE")))
    headers = {"Content-Type": "application/json"}
    answer = client.put(PIECE, content=text.replace('"HERE"', word), headers=headers)
    assert answer.status_code == 422
    assert answer.json()["path"] == "envelope.height_m"


def test_ten_thousand_stems_over_many_lines_are_refused(client: TestClient, bowl: dict[str, Any]) -> None:
    bowl["recipe"] = [{"variety": "rose", "count": 400, "role": "focal", "clump": 1}] * 25
    answer = client.put(PIECE, json=put(bowl))
    assert answer.status_code == 422
    assert sentence(answer) == "The recipe has {n} stems. One piece takes at most {most}."


def test_a_five_megabyte_body_is_refused(client: TestClient) -> None:
    answer = client.put(PIECE, content=b"x" * 5_000_000)
    assert answer.status_code == 413
    assert "more than the program takes in at once" in sentence(answer)


def test_a_long_body_without_a_stated_length_is_refused(client: TestClient) -> None:
    answer = client.put(PIECE, content=(b"x" * 100_000 for _ in range(50)))
    assert answer.status_code == 413


def test_a_body_that_is_no_json_is_refused(client: TestClient) -> None:
    answer = client.put(PIECE, content=b"{broken", headers={"Content-Type": "application/json"})
    assert answer.status_code == 422


def test_two_windows_never_overwrite_each_other_silently(client: TestClient, bowl: dict[str, Any]) -> None:
    mine, theirs = change(bowl, "water_level_m", 0.06), change(bowl, "water_level_m", 0.07)
    assert client.put(PIECE, json=put(theirs)).status_code == 200
    refused = client.put(PIECE, json=put(mine))
    assert refused.status_code == 409
    body = refused.json()
    assert (body["code"], body["revision"]) == ("stale", 2)
    assert body["differences"] == [{"path": "water_level_m", "was": bowl["water_level_m"], "now": 0.07}]
    again = client.put(PIECE, json=put(mine, base=body["revision"]))
    assert again.json()["parts"][0]["part"]["water_level_m"] == 0.06


@pytest.mark.parametrize(
    ("changed", "path", "words"),
    [
        ({"time_zone": "Marsh/Nowhere"}, "time_zone", "There is no time zone"),
        ({"ends_at": "2027-05-15T09:00"}, "ends_at", "Here the event ends before the guests come."),
        ({"filled_at": "2027-05-15T07:00"}, "filled_at", "Here the water goes in before the place opens to the crew."),
        ({"clear_by": "2027-05-15T23:00"}, "clear_by", "Here all must be gone before the event ends."),
        ({"closes": "07:30"}, "closes", "The workshop closes before it opens."),
        ({"opens": "25:00"}, "opens", "“25:00” is no opening time that can be used."),
        ({"filled_at": "2027-03-28T01:30", "access_at": None}, "filled_at", "There is no 01:30 on 28 Mar 2027"),
        ({"travel_h": -1}, "travel_h", "The drive, {has}, is too small."),
        ({"costing": {"margin": 1.0}}, "costing.margin", "The margin, {has}, is too large."),
        ({"costing": {"rate_per_h": "12.345"}}, "costing.rate_per_h", "The rate of an hour goes beyond the cent."),
        ({"locks": [{"task": "fill", "starts_at": "noon"}]}, "locks.fill", "“noon” is no date and time."),
        ({"filled_at": "noonish"}, "filled_at", "“noonish” is no date and time."),
        (
            {"air": {"temperature_c": 90, "relative_humidity": 0.5}},
            "air.temperature_c",
            "The temperature, {has}, is too large.",
        ),
        ({"topped_up_by": ""}, "topped_up_by", "The name of who tops up is empty."),
    ],
)
def test_a_brief_that_cannot_be_is_refused(client: TestClient, changed: dict[str, Any], path: str, words: str) -> None:
    brief = client.get("/api/events/1").json()["brief"] | changed
    answer = client.put("/api/events/1/brief", json={"base_revision": 1, "brief": brief})
    assert answer.status_code == 422
    assert answer.json()["path"] == path
    assert sentence(answer).startswith(words)


def test_a_cooler_room_lets_flowers_drink_less(client: TestClient) -> None:
    event = client.get("/api/events/1").json()
    brief = event["brief"] | {"air": {"temperature_c": 15, "relative_humidity": 0.7}}
    cooler = client.put("/api/events/1/brief", json={"base_revision": 1, "brief": brief}).json()
    used = [verdict(pieces(each)[0]["report"], "drink")["governing"]["utilisation"] for each in (event, cooler)]
    assert used[1] < used[0]


def test_a_measured_vessel_goes_into_the_stores_under_a_free_key(client: TestClient, bowl: dict[str, Any]) -> None:
    vessel = bowl["vessel"] | {"name": "Low bowl, 20 cm"}
    keys = [client.post(based(client, "/api/stock/vessel"), json={"vessel": vessel}).json()["key"] for _ in range(2)]
    assert keys == ["low-bowl-20-cm", "low-bowl-20-cm-2"]
    assert set(keys) < set(client.get("/api/stock").json()["vessels"])


def test_removing_and_undoing(client: TestClient) -> None:
    gone = client.request("DELETE", PIECE, json={"base_revision": 1}).json()
    assert 1 not in gone["order"]
    assert gone["undo"] == "Remove Long-table low bowl"
    back = client.post("/api/events/1/undo", json={"base_revision": gone["revision"]}).json()
    assert back["order"][0] == back["parts"][0]["id"] == 1
    assert client.post("/api/events/1/undo", json={"base_revision": back["revision"]}).status_code == 409


@pytest.mark.parametrize("path", ["/api/events/99", "/api/nowhere"])
def test_what_is_not_there_is_not_found(client: TestClient, path: str) -> None:
    assert client.get(path).status_code == 404


def test_a_write_tells_of_what_another_window_has_done_meanwhile(client: TestClient) -> None:
    """A window at revision 1 writes piece 1; another has changed piece 2 and taken piece 3 out since."""
    event = client.get("/api/events/1").json()
    first, second, third = pieces(event)[:3]
    theirs = put(second["part"] | {"name": "Theirs"})
    assert client.put(f"/api/events/1/parts/{second['id']}", json=theirs).status_code == 200
    gone = client.request("DELETE", f"/api/events/1/parts/{third['id']}", json={"base_revision": 2})
    assert gone.status_code == 200
    mine = client.put(PIECE, json=put(first["part"] | {"name": "Mine"})).json()
    assert [(each["id"], each["part"]["name"]) for each in mine["parts"]] == [(1, "Mine"), (second["id"], "Theirs")]
    assert mine["order"] == [each["id"] for each in event["parts"] if each["id"] != third["id"]]
    assert mine["revision"] == 4
    again = client.put(PIECE, json=put(first["part"] | {"name": "Mine too"}, base=4)).json()
    assert [each["id"] for each in again["parts"]] == [1]


def test_a_change_of_the_brief_judges_every_part_anew_and_one_of_a_part_only_that(client: TestClient) -> None:
    event = client.get("/api/events/1").json()
    warmer = event["brief"] | {"air": {"temperature_c": 27, "relative_humidity": 0.4}}
    changed = client.put("/api/events/1/brief", json={"base_revision": 1, "brief": warmer}).json()
    assert [each["id"] for each in changed["parts"]] == changed["order"]
    assert all(each["problem"] or each["report"] for each in changed["parts"])
    back = client.post("/api/events/1/undo", json={"base_revision": 2}).json()
    assert [each["id"] for each in back["parts"]] == back["order"]
    assert back["parts"] == event["parts"]


def test_what_a_write_answers_is_what_opening_anew_shows(client: TestClient, bowl: dict[str, Any]) -> None:
    changed = client.put(PIECE, json=put(bowl | {"water_level_m": 0.05})).json()
    opened = client.get("/api/events/1").json()
    assert changed["parts"] == [each for each in opened["parts"] if each["id"] == 1]
    assert {key: changed[key] for key in ("revision", "undo", "redo", "brief")} == {
        key: opened[key] for key in ("revision", "undo", "redo", "brief")
    }


def test_a_part_is_not_saved_as_one_of_another_kind(client: TestClient) -> None:
    hung = rigs(client.get("/api/events/1").json())[0]["part"]
    assert client.put(PIECE, json=put(hung)).status_code == 404
    odd = client.put(PIECE, json=put(hung | {"kind": "table"}))
    assert odd.status_code == 422
    assert sentence(odd).startswith("The “kind” is not one of the choices. Choose 'standing', 'bouquet',")


def test_nobody_waits_for_an_event_that_is_judged(client: TestClient) -> None:
    assert client.get("/api/events/1/judging").json() == {"done": 0, "of": 0}


def test_the_standing_is_of_the_event_as_it_stands(client: TestClient, bowl: dict[str, Any]) -> None:
    before = client.get("/api/events/1/standing").json()
    client.put(PIECE, json=put(bowl | {"quantity": bowl["quantity"] + 1}))
    after = client.get("/api/events/1/standing").json()
    assert after["revision"] == before["revision"] + 1
    assert after["headline"]["pieces"] == before["headline"]["pieces"] + 1
