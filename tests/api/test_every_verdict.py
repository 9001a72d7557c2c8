"""Each verdict seen to hold, be tight, fail and be mended, through the web interface."""

from collections.abc import Callable
from typing import Any

import pytest
from fastapi.testclient import TestClient

Plan = dict[str, Any]
GOOD = ("holds", "tight", "not needed")


def hold(plan: Plan, step: int) -> Plan:
    return plan | {"mechanic": plan["mechanic"] | {"netting": "coated-40-09", "layer_gap_m": 0.062 - 0.006 * step}}


def stand(plan: Plan, step: int) -> Plan:
    foot = 0.11 - 0.011 * step
    return plan | {"vessel": plan["vessel"] | {"foot_width_m": foot, "foot_depth_m": foot}}


def drink(plan: Plan, step: int) -> Plan:
    return plan | {"water_level_m": 0.09 - 0.006 * step}


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
    plan = client.get("/api/events/1").json()["pieces"][0]["piece"]
    plan["top_ups"] = [] if verb != "drink" else plan["top_ups"]
    brief = client.get("/api/events/1").json()["brief"] | {"ends_at": "2027-05-15T18:00"}
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
