"""A place to hang in: what a beam bears of all that hangs there, how large its room is; recipes and parts apart."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.plans_made import BRIEF, begin

ROSES = [{"variety": "rose", "count": 12, "role": "focal"}]


def placed(client: TestClient, number: int) -> tuple[dict[str, Any], dict[str, Any]]:
    event: dict[str, Any] = client.get(f"/api/events/{number}").json()
    return event, event["parts"][0]


def put(client: TestClient, number: int, part: dict[str, Any]) -> Any:
    event, each = placed(client, number)
    body = {"base_revision": event["revision"], "label": "Change it", "part": part}
    return client.put(f"/api/events/{number}/parts/{each['id']}", json=body)


def survey(client: TestClient, number: int, **more: Any) -> Any:
    kept = client.get(f"/api/events/{number}/survey").json()
    body = {"base_revision": kept["revision"], **kept["survey"], **more}
    return client.put(f"/api/events/{number}/survey", json=body)


def on_beam(client: TestClient, number: int, beam: str) -> None:
    _, each = placed(client, number)
    part = each["part"]
    part["points"] = [{**point, "beam": beam} for point in part["points"][:-1]] + part["points"][-1:]
    assert put(client, number, part).status_code == 200


def on_the_beam(client: TestClient, number: int) -> list[dict[str, Any]]:
    verdict = placed(client, number)[1]["report"]["verdict"]
    return [each for each in verdict["findings"] if each["check"].startswith("beam")]


def pulls(client: TestClient, number: int) -> float:
    """What a rig pulls its points with, all but that of its second bond, at their worst, N."""
    points = placed(client, number)[1]["report"]["points"]
    return float(sum(point["force_n"] for point in points[:-1]))


def test_a_beam_bears_what_hangs_on_it_in_every_event_of_the_day(client: TestClient) -> None:
    one, other = begin(client, "garland"), begin(client, "ring")
    for number in (one, other):
        on_beam(client, number, "ridge")
    missing = placed(client, one)[1]["report"]["verdict"]["missing"]
    assert any(each["path"] == "beams.ridge.rating_n" for each in missing), missing
    beam = {"name": "ridge", "rating_n": 2000.0, "stated_by": "the owner", "stated_on": "2027-05-01"}
    assert survey(client, one, beams=[beam]).status_code == 200
    (first,), (second,) = on_the_beam(client, one), on_the_beam(client, other)
    assert first["value"]["value"] == pytest.approx(second["value"]["value"], rel=1e-6)
    assert first["limit"]["value"] == 2000.0
    alone = first["value"]["value"]
    # The next day nothing else hangs there.
    event, _ = placed(client, other)
    later = {
        name: each.replace("06-12", "06-13") if isinstance(each, str) else each
        for name, each in event["brief"].items()
    }
    moved = client.put(f"/api/events/{other}/brief", json={"base_revision": event["revision"], "brief": later})
    assert moved.status_code == 200, moved.text
    (now,) = on_the_beam(client, one)
    assert now["value"]["value"] < alone
    assert now["value"]["value"] + on_the_beam(client, other)[0]["value"]["value"] == pytest.approx(alone, rel=1e-6)


def test_a_weak_beam_fails_whatever_hangs_on_it(client: TestClient) -> None:
    number = begin(client, "panel")
    on_beam(client, number, "tie-beam")
    beam = {"name": "tie beam", "rating_n": 20.0, "stated_by": "the owner", "stated_on": "2027-05-01"}
    assert survey(client, number, beams=[beam]).status_code == 200
    assert placed(client, number)[1]["report"]["verdict"]["state"] == "fails"
    twice = survey(client, number, beams=[beam, beam])
    assert twice.status_code == 422
    assert twice.json()["path"] == "beams.1.name"


def test_a_frame_larger_than_its_room_is_refused_and_the_room_goes_with_the_file(client: TestClient) -> None:
    number = begin(client, "arch")
    room = {"room_width_m": 5.0, "room_depth_m": 4.0, "room_height_m": 2.6}
    assert survey(client, number, **room, beams=[{"name": "ridge"}]).status_code == 200
    event, each = placed(client, number)
    part = {**each["part"], "mount": {**each["part"]["mount"], "height_m": 3.1}}
    part["points"] = [{**point, "z_m": point["z_m"] * 1.3} for point in part["points"]]
    part["attachments"] = [{**place, "z_m": place["z_m"] * 1.3} for place in part["attachments"]]
    answer = put(client, number, part)
    now, kept = placed(client, number)
    problem = kept["problem"] if answer.status_code == 200 else answer.json()
    assert "2.6" in str(problem["message"]["quantities"]) or "room" in problem["message"]["text"]
    assert now["revision"] >= event["revision"]
    text = client.get(f"/api/events/{number}/event.json").text
    client.put(f"/api/events/{number}/survey", json={"base_revision": 1, "points": []})
    moved = text.replace(BRIEF["place"], "Ropery yard")  # type: ignore[arg-type]
    read = client.post("/api/events/from-file", json={"text": moved}).json()
    found = client.get(f"/api/events/{read['event']['id']}/survey").json()["survey"]
    assert {name: found[name] for name in room} == room
    assert [beam["name"] for beam in found["beams"]] == ["ridge"]


def keep(client: TestClient, name: str, recipe: list[dict[str, Any]], by: str = "length", size: float = 0.8) -> Any:
    return client.post("/api/recipes", json={"recipe": {"name": name, "by": by, "size": size, "recipe": recipe}})


def test_a_proven_recipe_is_kept_by_name_scaled_deleted_and_brought_back(client: TestClient) -> None:
    made = keep(client, "arch, dense", ROSES)
    assert made.status_code == 201, made.text
    (kept,) = made.json()["kept"]
    again = keep(client, "arch, dense", ROSES)
    assert again.status_code == 422
    assert again.json()["message"]["text"].endswith(".")
    number = kept["id"]
    scaled = client.post(f"/api/recipes/{number}/scaled", json={"size": 2.4}).json()
    assert [line["count"] for line in scaled] == [36]  # three times as long
    usual = client.post("/api/recipes/usual/arch_section/scaled", json={"size": 1.6}).json()
    assert {line["variety"]: line["count"] for line in usual} == {"gypsophila": 100, "carnation": 22, "rose": 16}
    for size in (0, -1, 1001):
        assert client.post(f"/api/recipes/{number}/scaled", json={"size": size}).status_code == 422
    assert client.post("/api/recipes/usual/trapeze/scaled", json={"size": 1}).status_code == 404
    gone = client.delete(f"/api/recipes/{number}").json()
    assert gone["kept"] == []
    assert [each["id"] for each in gone["deleted"]] == [number]
    back = client.post(f"/api/recipes/{number}/bring-back").json()
    assert [each["proven"]["name"] for each in back["kept"]] == ["arch, dense"]


@pytest.mark.parametrize(("by", "times"), [("area", 2), ("diameter", 4), ("count", 2), ("length", 2)])
def test_a_recipe_grows_with_what_it_is_proven_by(client: TestClient, by: str, times: int) -> None:
    """Stems go with a length, an area or a number, and with the square of a diameter: geometry."""
    number = keep(client, f"by {by}", ROSES, by, 1.5).json()["kept"][0]["id"]
    (line,) = client.post(f"/api/recipes/{number}/scaled", json={"size": 3.0}).json()
    assert line["count"] == 12 * times


def test_a_start_is_begun_with_its_stems_or_without(client: TestClient) -> None:
    for stems in (True, False):
        event = client.post("/api/events", json={**BRIEF, "name": f"With stems {stems}"}).json()
        act = {"base_revision": event["revision"], "start": "cascade", "stems": stems}
        made = client.post(f"/api/events/{event['id']}/parts/begin", json=act).json()
        assert [each["part"]["name"] for each in made["parts"]] == ["Cascade", "Bucket at the foot of the cascade"]
        assert [bool(each["part"]["recipe"]) for each in made["parts"]] == [stems, stems]
        undone = client.post(f"/api/events/{event['id']}/undo", json={"base_revision": made["revision"]}).json()
        assert undone["parts"] == []


def test_an_insert_carried_without_its_urn_is_packed_apart_and_lifts_lighter(client: TestClient) -> None:
    number = begin(client, "urn")
    _, each = placed(client, number)

    def lifted(out: bool) -> tuple[float, list[str]]:
        part = {**each["part"], "passage": {}, "transport": {**each["part"]["transport"], "lifted_out": out}}
        assert put(client, number, part).status_code == 200
        report = placed(client, number)[1]["report"]
        lift = next(verdict for verdict in report["verdicts"] if verdict["verb"] == "lift")
        packing = client.get(f"/api/events/{number}/lists").json()["shopping"]["packs"]
        apart = [pack["name"] for pack in packing if pack["group"] == "carried apart"]
        return max(found["value"]["value"] for found in lift["findings"]), apart

    whole, with_urn = lifted(False)
    parted, apart = lifted(True)
    urn = each["part"]["insert"]["outer"]
    assert parted == pytest.approx(whole - urn["mass_kg"], abs=2.0)
    assert parted < whole
    assert urn["name"] in apart
    assert urn["name"] not in with_urn
