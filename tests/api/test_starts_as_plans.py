"""One plan of every start, kept as an event file: read in again it weighs, cuts and says what it did when it was made.

What is expected is in `plans/expected.json`; `python -m tests.plans_made` writes plans and expectations anew.
"""

import json
import math
from typing import Any

import pytest
from fastapi.testclient import TestClient

from jolly_trellis.core.event.starting.starts import STARTS
from tests.plans_made import KEPT, ORDERED, found_in

EXPECTED = json.loads((KEPT / "expected.json").read_text(encoding="utf-8"))
ANSWERED = {"holds", "tight", "not needed"}
MASS = 0.002  # of a weight: the last digits of one machine's sums are not another's

# What grows with a piece: the rest (walls, tape, wires, lines, boxes, people) is as large for a large one.
GROWS = {
    "width_m", "height_m", "depth_m", "x_m", "y_m", "z_m", "length_m", "diameter_m", "water_level_m",
    "foot_width_m", "foot_depth_m", "joints_m", "rim_m",
}  # fmt: skip
STAYS = {"transport", "setting", "spec", "mechanic", "bond", "recipe", "companions"}

# By hand, from what each plan says of itself (m): a row of the 50 mm netting is 4.5 cm long, a cell 5.2 cm wide.
BY_HAND: dict[str, dict[str, tuple[int, tuple[float, ...]]]] = {
    # 1.3 turns round 11 cm; 80 cm of frame and a row at either end to close on.
    "arch_section": {"wrapped frame": (1, (1.3 * math.pi * 0.11, 0.80 + 2 * 0.045))},
    # 1.6 turns round 8 cm; 3.15 m of run, 7 % of it lost in the folds, a tail of 45 cm. Pegs 30 cm apart: 10.5.
    "garland": {
        "snake": (1, (1.6 * math.pi * 0.08, 3.15 * 1.07 + 0.45)),
        "dry twigs": (4, (0.08 + 0.08,)),
        "ties of wire": (11, (0.15,)),
    },
    # Against a wall: 2 m and the tail; a peg every 30 cm and a tie every 20 cm to close it, both ends among them.
    "wall_roll": {"tube": (1, (1.6 * math.pi * 0.11, 2.0 + 0.45)), "ties of wire": (7 + 11, (0.15,))},
    # Round a cane of 90 cm across.
    "ring": {
        "cane bent to the ring": (1, (math.pi * 0.9,)),
        "ring": (1, (1.6 * math.pi * 0.08, math.pi * 0.9 + 2 * 0.045)),
    },
    # A cell more at each side and a row at each end; canes reach 2 cm over it.
    "panel": {"panel": (1, (1.1 + 2 * 0.052, 1.1 + 2 * 0.045)), "canes along": (1, (1.1 + 2 * 0.02,))},
    # The bowl drops until it meets the edge of the 14 cm opening: putty goes round that. Moss goes round the outside
    # of its rim, 22 cm and a wall of 5 mm at either side.
    "tall_bowl": {
        "putty ring for the joint": (1, (math.pi * 0.14, 0.033)),
        "moss over the rim": (1, (math.pi * 0.23, 0.04)),
    },
    # Four walls of 14 cm, as tall as the glass.
    "cube": {"leaf lining strip": (1, (4 * 0.14, 0.14))},
    # 8 cm all round the cup.
    "cups": {"moss round it": (1, (0.08, 0.0121))},
}


def read_in(client: TestClient, key: str) -> dict[str, Any]:
    """The plan of a start as an event of its own, judged."""
    text = (KEPT / f"{key}.event.json").read_text(encoding="utf-8")
    made = client.post("/api/events/from-file", json={"text": text})
    assert made.status_code == 201, made.text
    event: dict[str, Any] = client.get(f"/api/events/{made.json()['event']['id']}").json()
    return event


def test_there_is_a_plan_of_every_start_that_people_order() -> None:
    beside = {"vessel", "empty", "wire_dome", "buttonhole", "corsage", "crown"}
    assert set(ORDERED) == STARTS.keys() - beside
    assert len(ORDERED) == 24


@pytest.mark.parametrize("key", ORDERED)
def test_a_plan_read_in_again_says_what_it_did(client: TestClient, key: str) -> None:
    found = found_in(read_in(client, key))
    assert len(found) == len(EXPECTED[key])
    for now, kept in zip(found, EXPECTED[key], strict=True):
        assert now["name"] == kept["name"]
        assert now["states"] == kept["states"]
        assert set(now["states"].values()) <= ANSWERED
        assert now["weighs_kg"] == pytest.approx(kept["weighs_kg"], rel=MASS)
        assert len(now["parts"]) == len(kept["parts"])
        for part, other in zip(now["parts"], kept["parts"], strict=True):
            assert part[:2] == other[:2]
            assert part[2:] == pytest.approx(other[2:], rel=MASS, abs=1e-4)


@pytest.mark.parametrize("key", BY_HAND)
def test_what_is_cut_is_what_a_hand_works_out(key: str) -> None:
    """Common practice, no source, for how much is added; the rest is geometry."""
    parts = EXPECTED[key][0]["parts"]
    for name, (quantity, sizes) in BY_HAND[key].items():
        first = next(part for part in parts if part[0] == name)
        assert first[1] == quantity
        assert first[2:] == pytest.approx(sizes, rel=MASS)


def grown(part: Any, times: float, key: str = "") -> Any:
    """A part so many times as large, of the same wire, on the same lines."""
    if key in STAYS:
        return part
    if isinstance(part, dict):
        return {name: grown(each, times, name) for name, each in part.items()}
    if isinstance(part, list):
        return [grown(each, times, key) for each in part]
    known = isinstance(part, int | float) and not isinstance(part, bool) and key in GROWS
    return part * times if known else part


def weighs(report: dict[str, Any]) -> float:
    if "take_off" in report:
        return float(sum(part["typical_kg"] for part in report["take_off"]["parts"]))
    return float(report["balance"]["mass_kg"])


@pytest.mark.parametrize("key", ORDERED)
def test_at_an_absurd_size_it_is_judged_or_refused_in_a_sentence(client: TestClient, key: str) -> None:
    event = read_in(client, key)
    placed = event["parts"][0]
    part = dict(placed["part"])
    if part.get("transport"):
        part["transport"] = {**part["transport"], "boxed": False}
    heavier, failing = {1.0: weighs(placed["report"])}, []
    for times in (0.02, 0.2, 3.0, 12.0):
        body = {"base_revision": event["revision"], "label": "Another size", "part": grown(part, times)}
        answer = client.put(f"/api/events/{event['id']}/parts/{placed['id']}", json=body)
        if answer.status_code != 200:
            assert answer.status_code == 422, answer.text
            problem = answer.json()
            assert problem["path"], "nowhere to show it"
            assert problem["message"]["text"].endswith("."), problem["message"]
            now = client.get(f"/api/events/{event['id']}").json()
            assert now["revision"] == event["revision"], "what is refused changes nothing"
            failing.append(times)
            continue
        event["revision"] = answer.json()["revision"]
        report = next(each["report"] for each in answer.json()["parts"] if each["id"] == placed["id"])
        assert report is not None
        heavier[times] = weighs(report)
        judged = [report["verdict"]] if "verdict" in report else report["verdicts"]
        if {each["state"] for each in judged} - ANSWERED:
            failing.append(times)
    ordered = [heavier[times] for times in sorted(heavier)]
    assert ordered == sorted(ordered), "what is larger of the same make does not weigh less"
    if key not in ("runner", "drift"):  # they lie on something
        assert 12.0 in failing, "twelve times as large passes"
