"""Beginning a part: everything that is offered can be begun, is judged, and says what it still asks for."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from jolly_trellis.core.event.starting.starts import STARTS
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.rigging.lines import LINES, working_limit_n

# Common practice, no source: what the studio's usual bowl, bouquet, posy and hung work measure when they are begun.
BEGUN = {
    "star_lattice": (0.3, 0.3),
    "wire_dome": (0.3, 0.3),
    "hand_spiral": (0.2, 0.2),
}


def begin(client: TestClient, start: str, vessel: str | None = None) -> Any:
    head = client.get("/api/events/1").json()["revision"]
    act = {"base_revision": head, "start": start, "vessel": vessel}
    return client.post("/api/events/1/parts/begin", json=act)


@pytest.mark.parametrize("start", STARTS)
def test_everything_that_is_offered_can_be_begun_and_is_judged(client: TestClient, start: str) -> None:
    answer = begin(client, start)
    assert answer.status_code == 201, answer.text
    made = answer.json()
    placed = next(each for each in made["parts"] if each["id"] == made["added"])
    assert placed["part"]["kind"] == STARTS[start].kind
    part = placed["part"]
    if start in BEGUN:
        assert (part["envelope"]["width_m"], part["envelope"]["depth_m"]) == BEGUN[start]
        assert part["mechanic"]["kind"] == start
        assert part["kind"] == "bouquet"
    if STARTS[start].kind == "rig":
        # Nobody has stated what a point may carry: nothing passes that hangs on it.
        assert all(point["rating_n"] is None and not point["stated_by"] for point in part["points"])
        assert all(line["point"] < len(part["points"]) for line in part["lines"])
    if placed["report"] is None:
        assert placed["problem"]["message"], f"{start} is neither judged nor says what is missing"
    elif STARTS[start].kind == "rig":
        assert placed["report"]["verdict"]["state"] in ("cannot say", "not needed")
    else:
        # No stems yet; what holds, stands and brings water holds for them.
        assert "fails" not in [each["state"] for each in placed["report"]["verdicts"]], placed["report"]["headline"]


def test_a_bowl_of_the_stores_is_begun_with_the_usual_dome(client: TestClient) -> None:
    stock = client.get("/api/stock").json()
    vessel = stock["vessels"]["low-bowl-26"]
    made = begin(client, "vessel", "low-bowl-26").json()
    part = next(each["part"] for each in made["parts"] if each["id"] == made["added"])
    mouth = vessel["profile"][-1]["width_m"]
    assert part["vessel"] == vessel
    assert part["envelope"]["width_m"] == pytest.approx(1.8 * mouth, abs=0.0026)
    assert part["mechanic"]["netting"] == "coated-25-09"
    assert 0.005 <= part["water_level_m"] <= vessel["profile"][-1]["height_m"]
    assert part["recipe"] == []


def test_what_is_not_offered_is_refused(client: TestClient) -> None:
    for start, vessel in (("trapeze", None), ("vessel", "no-such-bowl")):
        answer = begin(client, start, vessel)
        assert answer.status_code == 404
        assert answer.json()["message"]
    assert client.get("/api/events/1").json()["revision"] == 1


def test_the_usual_hanger_and_bond_are_made_off_as_their_kind_is() -> None:
    for spec in (USUAL.hanger, USUAL.bond.spec):
        assert spec.kind == "steel rope"
        assert working_limit_n(spec, over_people=True) > 0
        assert spec.fitting in (None, *LINES["steel rope"].fittings)
    assert USUAL.bond.point is None
