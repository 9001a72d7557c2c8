"""Each verdict seen to hold, be tight, fail and be mended, through the web interface."""

from collections.abc import Callable
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.wire import pieces, put

Plan = dict[str, Any]
GOOD = ("holds", "tight", "not needed")


def hold(plan: Plan, step: int) -> Plan:
    return plan | {"mechanic": plan["mechanic"] | {"netting": "coated-40-09", "layer_gap_m": 0.062 - 0.006 * step}}


def stand(plan: Plan, step: int) -> Plan:
    foot = 0.11 - 0.011 * step
    return plan | {"vessel": plan["vessel"] | {"foot_width_m": foot, "foot_depth_m": foot}}


def drink(plan: Plan, step: int) -> Plan:
    return plan | {"water_level_m": 0.063 - 0.0015 * step, "passage": {"made": "its place"}}


def travel(plan: Plan, step: int) -> Plan:
    road = {"box_wall_m": 0.3, "box_width_m": 0.40, "box_depth_m": 0.40, "water_level_m": 0.04 + 0.006 * step}
    return plan | {"transport": plan["transport"] | road}


def hide(plan: Plan, step: int) -> Plan:
    recipe = [line | ({"count": max(1, 15 - 2 * step)} if line["role"] == "base" else {}) for line in plan["recipe"]]
    return plan | {"recipe": recipe}


def see(plan: Plan, step: int) -> Plan:
    return plan | {"envelope": plan["envelope"] | {"height_m": 0.30 + 0.03 * step}}


def lift(plan: Plan, step: int) -> Plan:
    return plan | {"vessel": plan["vessel"] | {"mass_kg": 1.0 + 1.5 * step}}


@pytest.mark.parametrize("sweep", [hold, stand, drink, travel, hide, see, lift], ids=lambda each: each.__name__)
def test_a_verdict_holds_grows_tight_fails_and_is_mended(
    client: TestClient, sweep: Callable[[Plan, int], Plan]
) -> None:
    verb = sweep.__name__
    plan = pieces(client.get("/api/events/1").json())[0]["part"]
    plan["top_ups"] = [] if verb != "drink" else plan["top_ups"]
    brief = client.get("/api/events/1").json()["brief"] | {"starts_at": None, "ends_at": "2027-05-15T18:00"}
    client.put("/api/events/1/brief", json={"base_revision": 1, "brief": brief})

    def judged(each: Plan) -> dict[str, Any]:
        report = client.post("/api/events/1/evaluate", json={"piece": each, "with_fixes": True}).json()
        found: dict[str, Any] = next(verdict for verdict in report["verdicts"] if verdict["verb"] == verb)
        return found

    states, mended = set(), 0
    for step in range(9):
        tried = sweep(plan, step)
        verdict = judged(tried)
        states.add(verdict["state"])
        if verdict["state"] == "fails":
            for fix in verdict["fixes"]:
                assert judged(fix["piece"])["state"] in GOOD
                mended += 1
    assert {"holds", "tight", "fails"} <= states
    assert mended


def test_the_making_order_of_every_demo_piece_is_worked_out(client: TestClient) -> None:
    for each in pieces(client.get("/api/events/1").json()):
        making = client.post("/api/events/1/making", json={"piece": each["part"], "with_fixes": False}).json()
        assert len(making["curve"]) == len(making["steps"]) + 1
        assert [gate["before"] for gate in making["gates"]] == sorted(gate["before"] for gate in making["gates"])


def test_the_demo_ledge_tips_at_a_named_stem_and_one_act_mends_it(client: TestClient) -> None:
    event = client.get("/api/events/1").json()
    ledge = next(each for each in pieces(event) if each["part"]["setting"]["where"] == "ledge")
    making = client.post("/api/events/1/making", json={"piece": ledge["part"], "with_fixes": True}).json()
    assert "It is first past its limit at quince branch" in making["say"]["text"]
    fix = next(each for each in making["fixes"] if each["key"] != "prop")
    body = put(fix["piece"], base=event["revision"], label="One act")
    saved = client.put(f"/api/events/1/parts/{ledge['id']}", json=body).json()
    stand = next(each for each in saved["parts"][0]["report"]["verdicts"] if each["verb"] == "stand")
    assert stand["state"] in ("holds", "tight")
    assert saved["undo"] == "One act"


@pytest.mark.parametrize("paper", [pytest.param("A4", marks=pytest.mark.long), "Letter"])
def test_every_piece_has_its_card(client: TestClient, paper: str) -> None:
    for each in pieces(client.get("/api/events/1").json()):
        answer = client.get(f"/api/events/1/parts/{each['id']}/card.pdf?paper={paper}&system=inch")
        assert answer.status_code == 200
        assert answer.content.startswith(b"%PDF")
    assert client.get("/api/events/1/parts/99/card.pdf").status_code == 404
    assert client.get("/api/events/1/parts/1/card.pdf?paper=Foolscap").status_code == 422


def test_a_bouquet_is_not_made_on_what_sits_in_a_vessel(client: TestClient) -> None:
    told = client.get("/api/events/1").json()
    bouquet = next(each["part"] for each in pieces(told) if each["part"]["kind"] == "bouquet")
    bowl = pieces(told)[0]["part"]
    for piece in (bouquet | {"mechanic": bowl["mechanic"]}, bowl | {"mechanic": bouquet["mechanic"]}):
        answer = client.post("/api/events/1/making", json={"piece": piece, "with_fixes": False})
        assert answer.status_code == 422
        assert answer.json()["path"] == "mechanic.kind"
        assert answer.json()["limit"]["text"].startswith("Choose ")


def test_a_piece_of_no_kind_is_refused(client: TestClient) -> None:
    bowl = pieces(client.get("/api/events/1").json())[0]["part"]
    for change, words in (
        ({"kind": "hovering"}, "not one of the choices"),
        ({"kind": None}, "kind"),
        ({"carried_h": 2.0}, "not known here"),
    ):
        answer = client.post("/api/events/1/making", json={"piece": bowl | change, "with_fixes": False})
        assert answer.status_code == 422
        assert words in answer.json()["message"]["text"]


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"spill": {"drop_m": 0.5}}, "spill"),
        ({"setting": {"where": "ledge", "ledge": {"depth_m": 0.05, "height_m": 1}}}, "setting.ledge.depth_m"),
        ({"setting": {"where": "ledge"}}, "setting.ledge"),
        ({"counterweight": {"mass_kg": 0, "away_m": 0.1}}, "counterweight.mass_kg"),
        ({"making": {"order": [{"line": -1, "nth": 0}]}}, "making.order.0.line"),
    ],
)
def test_what_cannot_be_is_refused_beside_its_place(client: TestClient, change: dict[str, Any], path: str) -> None:
    piece = pieces(client.get("/api/events/1").json())[0]["part"] | change
    answer = client.post("/api/events/1/making", json={"piece": piece, "with_fixes": False})
    assert answer.status_code == 422
    assert answer.json()["path"] == path
    assert answer.json()["message"]["text"]
    assert answer.json()["limit"]["text"]
