"""Hung work over the web: judged, settled, snipped, kept, undone; one clear sentence for what cannot be."""

import copy
import io
import json
import re
from typing import Any

import pdfplumber
import pytest
from fastapi.testclient import TestClient

from tests.wire import pieces, put, rigs


@pytest.fixture
def event(client: TestClient) -> dict[str, Any]:
    found: dict[str, Any] = client.get("/api/events/1").json()
    return found


def named(event: dict[str, Any], words: str) -> dict[str, Any]:
    found: dict[str, Any] = next(each for each in rigs(event) if words in each["part"]["name"])
    return found


def test_the_demo_hangs_and_mounts_six_pieces_and_says_why_two_are_not_cleared(event: dict[str, Any]) -> None:
    states = {each["part"]["name"]: each["report"]["verdict"]["state"] for each in rigs(event)}
    assert states == {
        "Run over the long table": "holds",
        "Ring of hanging stems, stair hall": "cannot say",
        "Panel over the cake table": "fails",
        "Door hoop in the garden": "tight",
        "Swag over the doorway": "holds",
        "Crawl up the hall column": "tight",
    }
    ring = named(event, "Ring")["report"]["verdict"]
    assert "eye east" in ring["reason"]["text"]


def test_the_headline_counts_what_hangs_over_people_and_is_not_cleared(
    client: TestClient, event: dict[str, Any]
) -> None:
    found = client.get("/api/events/1/standing").json()["headline"]
    assert found["not_cleared"] == 2
    assert found["not_worked_out"] == 0
    quantities = sum(each["part"]["quantity"] for each in pieces(event))
    assert found["pieces"] == quantities + len(rigs(event))
    heavy = [sum(part["heavy_kg"] for part in each["report"]["take_off"]["parts"]) for each in rigs(event)]
    assert found["overhead_kg"] == pytest.approx(sum(heavy))


def survey(client: TestClient) -> dict[str, Any]:
    found: dict[str, Any] = client.get("/api/events/1/survey").json()
    return found


def test_an_answer_in_the_survey_clears_what_hangs_there_and_is_put_back(
    client: TestClient, event: dict[str, Any]
) -> None:
    kept = survey(client)
    assert kept["place"] == event["brief"]["place"]
    points = kept["survey"]["points"]
    assert [points[at]["name"] for at, asked in enumerate(kept["open"]) if asked] == ["eye east"]
    for point in points:
        if point["name"] == "eye east":
            point |= {"rating_n": 350, "stated_by": "the works officer", "stated_on": "2027-05-01"}
    act = {"base_revision": kept["revision"], "points": points}
    saved = client.put("/api/events/1/survey", json=act)
    assert saved.status_code == 200
    assert not any(saved.json()["open"])
    judged = client.get("/api/events/1").json()
    assert named(judged, "Ring")["report"]["verdict"]["state"] in ("holds", "tight")
    assert client.put("/api/events/1/survey", json=act).status_code == 409
    back = client.post(f"/api/events/1/survey/put-back?base_revision={saved.json()['revision']}").json()
    assert sum(len(each) > 0 for each in back["open"]) == 1
    assert named(client.get("/api/events/1").json(), "Ring")["report"]["verdict"]["state"] == "cannot say"


def test_a_survey_serves_every_event_at_its_place_and_needs_one(client: TestClient, event: dict[str, Any]) -> None:
    elsewhere = client.post("/api/events", json=event["brief"] | {"name": "Another", "place": ""}).json()
    act = {"base_revision": 0, "points": []}
    refused = client.put(f"/api/events/{elsewhere['id']}/survey", json=act)
    assert refused.status_code == 422
    assert "no place yet" in refused.json()["message"]["text"]
    assert client.post(f"/api/events/{elsewhere['id']}/survey/put-back?base_revision=0").status_code == 404
    place = f"  {event['brief']['place']} "
    again = client.post("/api/events", json=event["brief"] | {"name": "Next year", "place": place}).json()
    found = client.get(f"/api/events/{again['id']}/survey").json()
    assert found["survey"] == survey(client)["survey"]


def test_two_points_of_one_name_in_a_survey_are_refused(client: TestClient) -> None:
    kept = survey(client)
    points = [kept["survey"]["points"][0]] * 2
    refused = client.put("/api/events/1/survey", json={"base_revision": kept["revision"], "points": points})
    assert refused.status_code == 422
    assert refused.json()["path"] == "points.1.name"
    assert survey(client) == kept


def own(rig: dict[str, Any]) -> dict[str, Any]:
    """A rig whose points carry ratings of their own, not the survey's."""
    rig = copy.deepcopy(rig)
    for point in rig["points"]:
        point |= {"surveyed": None, "rating_n": 2000, "stated_by": "the works officer", "stated_on": "2027-04-12"}
        point["rated_within_rad"] = 0.7
    return rig


def test_a_rating_that_is_stated_clears_what_could_not_be_said(client: TestClient, event: dict[str, Any]) -> None:
    kept = named(event, "Ring")
    act = put(own(kept["part"]), base=event["revision"], label="Rate eye east")
    saved = client.put(f"/api/events/1/parts/{kept['id']}", json=act).json()
    assert saved["parts"][0]["report"]["verdict"]["state"] in ("holds", "tight")
    assert saved["undo"] == "Rate eye east"
    undone = client.post("/api/events/1/undo", json={"base_revision": saved["revision"]}).json()
    assert named(undone, "Ring")["report"]["verdict"]["state"] == "cannot say"


def test_a_rating_without_who_stated_it_is_none(client: TestClient, event: dict[str, Any]) -> None:
    rig = own(named(event, "Run")["part"])
    assert client.post("/api/events/1/assess", json={"rig": rig}).json()["verdict"]["state"] == "holds"
    rig["points"][0]["stated_by"] = None
    report = client.post("/api/events/1/assess", json={"rig": rig}).json()
    assert report["verdict"]["state"] == "cannot say"


def test_a_piece_can_be_kept_while_it_is_drawn_and_says_what_it_lacks(
    client: TestClient, event: dict[str, Any]
) -> None:
    rig = own(named(event, "Run")["part"]) | {"points": [], "lines": [], "attachments": [], "bond": None}
    added = client.post("/api/events/1/parts", json=put(rig, base=event["revision"]))
    assert added.status_code == 201
    assert added.json()["parts"][0]["report"] is None
    assert added.json()["parts"][0]["problem"]["code"] == "unfinished"
    card = client.get(f"/api/events/1/parts/{added.json()['added']}/card.pdf")
    assert card.status_code == 422


def test_a_finished_size_is_turned_into_the_armature_to_cut(client: TestClient, event: dict[str, Any]) -> None:
    rig = named(event, "Run")["part"]
    off = 2 * rig["armature"]["projection_m"]
    sized = client.post("/api/events/1/rig-finished", json={"rig": rig, "thick_m": 0.4}).json()
    assert sized["diameter_m"] == pytest.approx(0.4 - off)
    refused = client.post("/api/events/1/rig-finished", json={"rig": rig, "thick_m": off})
    assert refused.status_code == 422
    assert refused.json()["path"] == "armature.finished"


def test_settling_gives_the_same_rest_as_judging(client: TestClient, event: dict[str, Any]) -> None:
    rig = named(event, "Run")["part"]
    rest = client.post("/api/events/1/settle", json={"rig": rig}).json()
    assert rest == named(event, "Run")["report"]["rest"]


def test_a_snip_tells_where_it_ends_up_and_what_passes_its_limit(client: TestClient, event: dict[str, Any]) -> None:
    rig = named(event, "Panel")["part"]
    steps = client.post("/api/events/1/snip", json={"rig": rig, "cut": 0}).json()
    assert steps[0]["cut"] == [0]
    assert steps[0]["tension_n"][0] == 0
    assert steps[0]["over_limit"]
    assert steps[0]["lowest_m"] < named(event, "Panel")["report"]["rest"]["lowest_m"]
    refused = client.post("/api/events/1/snip", json={"rig": rig, "cut": 9})
    assert refused.status_code == 422
    assert "no such line" in refused.json()["message"]["text"]


def test_a_piece_is_hung_taken_down_and_hung_again(client: TestClient, event: dict[str, Any]) -> None:
    rig = named(event, "Run")["part"] | {"name": "Another run"}
    added = client.post("/api/events/1/parts", json=put(rig, base=event["revision"]))
    assert added.status_code == 201
    number, revision = added.json()["added"], added.json()["revision"]
    assert number not in {each["id"] for each in (*pieces(event), *rigs(event))}
    gone = client.request("DELETE", f"/api/events/1/parts/{number}", json={"base_revision": revision}).json()
    assert number not in gone["order"]
    back = client.post("/api/events/1/undo", json={"base_revision": gone["revision"]}).json()
    assert number in back["order"]
    assert [each["id"] for each in back["parts"]] == [number]


def test_two_windows_do_not_write_over_one_another(client: TestClient, event: dict[str, Any]) -> None:
    kept = named(event, "Run")
    act = put(kept["part"] | {"name": "Mine"}, base=event["revision"])
    assert client.put(f"/api/events/1/parts/{kept['id']}", json=act).status_code == 200
    stale = client.put(f"/api/events/1/parts/{kept['id']}", json=act | {"part": kept["part"] | {"name": "Theirs"}})
    assert stale.status_code == 409
    assert stale.json()["code"] == "stale"


def broken(rig: dict[str, Any], change: str) -> dict[str, Any]:
    rig = copy.deepcopy(rig)
    match change:
        case "a line to nothing":
            rig["lines"][0]["point"] = 30
        case "two points in one place":
            rig["points"][1] |= {axis: rig["points"][0][axis] for axis in ("x_m", "y_m", "z_m")}
        case "shorter than its span":
            rig["armature"]["length_m"] = 4.0
        case "a rating of nothing":
            rig["points"][0] |= {"rating_n": 0, "surveyed": None}
        case "never a hang point":
            rig["points"][0] |= {"kind": "ceiling grid", "surveyed": None}
        case "proof load below":
            rig["proof_kg"] = 0.5
        case "400 places":
            rig["attachments"] = [{"x_m": 0.1 * n, "y_m": 0, "z_m": 2} for n in range(400)]
        case "lines with no fixed point":
            rig["bond"] = None
            rig["lines"] = [
                {"attachment": at, "tied_to": (at + 1) % 5, "point": None, "spec": rig["lines"][0]["spec"]}
                for at in range(5)
            ]
        case "no netting":
            rig["armature"]["netting"] = None
    return rig


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        ("a line to nothing", "lines.0", "leads to nothing"),
        ("two points in one place", "points.1", "same place"),
        ("shorter than its span", "armature.length_m", "its lines lead over"),
        ("a rating of nothing", "points.0.rating_n", "holds nothing"),
        ("no netting", "armature.netting", "No netting"),
        ("never a hang point", "points.0.kind", "ceiling grid"),
        ("proof load below", "proof_kg", "proves nothing"),
        ("400 places", "attachments", "held at {n} places"),
        ("lines with no fixed point", "lines", "hangs on nothing"),
    ],
)
def test_what_cannot_be_is_refused_beside_its_place_and_nothing_is_lost(
    client: TestClient, event: dict[str, Any], change: str, path: str, words: str
) -> None:
    kept = named(event, "Run")
    act = put(broken(kept["part"], change), base=event["revision"])
    answer = client.put(f"/api/events/1/parts/{kept['id']}", json=act)
    assert answer.status_code == 422
    assert answer.json()["path"] == path
    assert words in answer.json()["message"]["text"]
    assert client.get("/api/events/1").json() == event


def test_four_hundred_points_are_refused_with_a_sentence(client: TestClient, event: dict[str, Any]) -> None:
    rig = named(event, "Run")["part"]
    point = rig["points"][0]
    many = [point | {"name": f"p{n}", "x_m": n / 10} for n in range(400)]
    answer = client.post("/api/events/1/assess", json={"rig": rig | {"points": many}})
    assert answer.status_code == 422
    assert answer.json()["path"] == "points"


@pytest.mark.parametrize("paper", ["A4", pytest.param("Letter", marks=pytest.mark.long)])
def test_the_rig_card_prints_not_cleared_and_its_cautions_on_its_first_page(
    client: TestClient, event: dict[str, Any], paper: str
) -> None:
    def words(name: str) -> str:
        answer = client.get(f"/api/events/1/parts/{named(event, name)['id']}/card.pdf?paper={paper}")
        assert answer.headers["content-type"] == "application/pdf"
        with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
            assert len(pdf.pages) <= 3
            assert "competent rigger" in pdf.pages[0].extract_text()
            return " ".join(" ".join(each.extract_text() for each in pdf.pages).split())

    assert "NOT CLEARED" in words("Panel")
    assert "NOT STATED" in words("Ring")
    run = words("Run")
    assert "NOT CLEARED" not in run
    heavy = sum(part["heavy_kg"] for part in named(event, "Run")["report"]["take_off"]["parts"])
    assert f"Prove it with {heavy * 1.25:.2f}".rstrip("0") in run
    assert "competent rigger" in run
    assert "safe" not in run.lower()


def test_the_card_of_mounted_work_has_its_ties_in_two_rows_and_its_ballast(
    client: TestClient, event: dict[str, Any]
) -> None:
    def words(name: str) -> str:
        answer = client.get(f"/api/events/1/parts/{named(event, name)['id']}/card.pdf")
        with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
            assert len(pdf.pages) <= 3
            return " ".join(" ".join(each.extract_text() for each in pdf.pages).split())

    hoop = words("Door hoop")
    assert hoop.count("8 alike") == 2
    assert "14 alike" in hoop
    assert "four feet: 5 kg; tied to the iron ring" in hoop
    assert "it is tied all along" in hoop
    swag = words("Swag")
    assert "180 N (18.4 kg)" in swag
    assert "down, 260 N" in swag
    assert "Drop list" in words("Ring")


def test_a_fix_that_is_offered_clears_it_when_it_is_kept(client: TestClient, event: dict[str, Any]) -> None:
    kept = named(event, "Panel")
    fixes = client.post("/api/events/1/rig-fixes", json={"rig": kept["part"]}).json()
    assert fixes[0]["state_after"] in ("holds", "tight")
    act = put(fixes[0]["rig"], base=event["revision"], label="Steel")
    saved = client.put(f"/api/events/1/parts/{kept['id']}", json=act).json()
    assert saved["parts"][0]["report"]["verdict"]["state"] in ("holds", "tight")


def test_a_knot_in_steel_rope_is_refused_where_it_is_chosen_and_one_that_is_kept_is_mended(
    client: TestClient, event: dict[str, Any]
) -> None:
    kept = named(event, "Run")
    act = put(copy.deepcopy(kept["part"]), base=event["revision"], label="Tie it")
    act["part"]["lines"][1]["spec"]["fitting"] = "knot"
    refused = client.put(f"/api/events/1/parts/{kept['id']}", json=act)
    assert refused.status_code == 422
    assert refused.json()["path"] == "lines.1.spec.fitting"
    assert "knot does not hold in steel rope" in refused.json()["message"]["text"]
    assert "grip" in refused.json()["limit"]["text"]
    assert client.post("/api/events/1/parts", json=act | {"label": "x"}).status_code == 422

    file = client.get("/api/events/1/event.json").json()
    named(file, "Run")["part"]["lines"][1]["spec"]["fitting"] = "knot"
    read = client.post("/api/events/from-file", json={"text": json.dumps(file)}).json()["event"]
    opened = named(client.get(f"/api/events/{read['id']}").json(), "Run")
    assert opened["report"]["verdict"]["state"] == "cannot say"
    assert any("take a grip or a ferrule" in each["say"]["text"] for each in opened["report"]["verdict"]["missing"])
    renamed = opened["part"] | {"name": "Run, still tied"}
    base = {"base_revision": read["revision"], "label": "Rename"}
    again = client.put(f"/api/events/{read['id']}/parts/{opened['id']}", json=base | {"part": renamed})
    assert again.status_code == 200
    renamed["lines"][1]["spec"]["fitting"] = "grip"
    mended = client.put(
        f"/api/events/{read['id']}/parts/{opened['id']}",
        json=put(renamed, base=again.json()["revision"], label="Grip"),
    )
    assert mended.json()["parts"][0]["report"]["verdict"]["state"] == "holds"


@pytest.mark.parametrize(
    ("change", "path"),
    [
        (lambda rig: rig["points"][0].update(kind="moon", surveyed=None), "points.0.kind"),
        (lambda rig: rig["lines"][0]["spec"].update(kind="moon"), "lines.0.spec.kind"),
        (lambda rig: rig["lines"][0]["spec"].update(fitting="moon"), "lines.0.spec.fitting"),
        (lambda rig: rig["bond"]["spec"].update(kind="moon"), "bond.spec.kind"),
    ],
)
def test_a_kind_that_is_not_known_is_refused_at_its_place_in_every_question(
    client: TestClient, event: dict[str, Any], change: Any, path: str
) -> None:
    kept = named(event, "Run")
    rig = copy.deepcopy(kept["part"])
    change(rig)
    for question in ("assess", "settle", "rig-fixes"):
        answer = client.post(f"/api/events/1/{question}", json={"rig": rig})
        assert (answer.status_code, answer.json()["path"]) == (422, path), question
    answer = client.put(f"/api/events/1/parts/{kept['id']}", json=put(rig, base=event["revision"]))
    assert (answer.status_code, answer.json()["path"]) == (422, path)
    assert "moon" in answer.json()["message"]["text"]


def test_a_kind_that_is_not_known_in_a_survey_is_refused(client: TestClient) -> None:
    kept = survey(client)
    points = kept["survey"]["points"]
    points[0]["kind"] = "moon"
    answer = client.put("/api/events/1/survey", json={"base_revision": kept["revision"], "points": points})
    assert (answer.status_code, answer.json()["path"]) == (422, "points.0.kind")


@pytest.mark.parametrize("number", range(10, 16))
def test_the_netting_of_hung_work_has_its_pattern_as_the_roll_cuts_it(client: TestClient, number: int) -> None:
    lists = client.get("/api/events/1/lists").json()
    shape = next(each["shape"] for each in lists["returns"]["lines"] if each["key"] == f"made-{number}")
    svg = client.get(f"/api/events/1/parts/{number}/patterns.svg")
    assert svg.status_code == 200
    assert "CUT" in svg.text
    tall = float(re.search(r'height="([0-9.]+)mm"', svg.text)[1])  # type: ignore[index]
    assert tall >= 1000 * shape["length_m"] - 1e-3
    assert client.get(f"/api/events/1/parts/{number}/patterns.dxf").status_code == 200
