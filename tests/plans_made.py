"""Makes the plan of every start anew through the interface's own routes: `python -m tests.plans_made`."""

import json
import tempfile
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from jolly_trellis.api.app import make_app
from jolly_trellis.core.event.starting.starts import STARTS
from jolly_trellis.services.opening import open_studio

KEPT = Path(__file__).parent / "api" / "plans"
ORDERED = (
    "low_bowl", "dense_vase", "urn", "tall_bowl", "trough", "cube", "cups", "twig_bowl", "ledge",
    "hand_spiral", "star_lattice", "one_sided",
    "arch_section", "arch", "hoop", "garland", "runner", "drift", "panel", "ring", "wall_roll", "column", "cloud",
    "cascade",
)  # fmt: skip
BRIEF = {
    "name": "Kiln loft supper",
    "place": "Kiln loft",
    "time_zone": "UTC",
    "filled_at": "2027-06-12T10:00",
    "starts_at": "2027-06-12T16:00",
    "ends_at": "2027-06-12T23:00",
    "air": {"temperature_c": 20, "relative_humidity": 0.6},
    "workshop": {"temperature_c": 16, "relative_humidity": 0.6},
    "van": {"temperature_c": 18, "relative_humidity": 0.6},
    "travel_h": 0.0,
    "topped_up_by": "Wren",
}
TWO_CARRY = ("Dense vase", "Trough")
STEEL = {"kind": "steel rope", "size_m": 0.003, "fitting": "ferrule"}


def answered(part: dict[str, Any]) -> dict[str, Any]:
    """A part with every fact given that is asked for, as an owner, a maker and whoever drives would give it."""
    if part["kind"] != "rig":
        wide = max(0.5, 0.06 + max(point["width_m"] for point in part["vessel"]["profile"]))
        part["transport"] = {**(part["transport"] or {}), "box_wall_m": 0.5, "box_width_m": wide, "box_depth_m": 0.5}
        if part["envelope"]["height_m"] > 0.75 or part["name"].startswith("Bucket"):
            part["passage"] = {**(part.get("passage") or {}), "made": "its place"}
        if part["kind"] in ("bouquet", "worn"):
            part["carried_h"] = 2.5
        part["transport"] |= {"carriers": 2 if part["name"] in TWO_CARRY else 1}
        if part.get("spill"):
            part["spill"] |= {"hook_n": 200.0, "hook_stated_by": "the owner"}
        return part
    for point in part["points"]:
        point |= {"rating_n": 600.0, "pull_out_n": 300.0, "stated_by": "the owner", "stated_on": "2027-05-01"}
        point |= {"rated_within_rad": 1.3}
    mount = part["mount"]
    if mount and mount["kind"] == "frame":
        mount |= {
            "mass_kg": 24.0,
            "ballast_kg": 12.0,
            "foot_material": "rubber",
            "surface": "stone",
            "outdoors": False,
        }
        mount |= {"tied_to": "two eyes in the wall", "load_kg": 60.0, "load_by": "its maker", "load_on": "2027-04-01"}
        mount |= {"signed_by": "the rigger"}
    if mount and mount["kind"] == "wall":
        eye = {"kind": "eye", "name": "eye", "x_m": 0.0, "y_m": 0.0, "z_m": 2.4, "rating_n": 4000.0}
        part["points"].append({**eye, "stated_by": "the owner", "stated_on": "2027-05-01", "rated_within_rad": 1.3})
        part["bond"] = {"spec": STEEL, "point": len(part["points"]) - 1, "slack_m": 0.05}
    if mount is None and part["points"]:
        first = part["points"][0]
        own = {**first, "name": "own", "y_m": first["y_m"] + 0.3, "z_m": first["z_m"] + 0.2, "rating_n": 4000.0}
        part["points"].append(own)
        part["bond"] = {"spec": STEEL, "point": len(part["points"]) - 1, "slack_m": 0.05}
    return part


def begin(client: TestClient, key: str) -> int:
    """An event of its own with one start in it, every fact answered; its number."""
    event = client.post("/api/events", json={**BRIEF, "name": f"{BRIEF['name']}: {STARTS[key].name}"}).json()
    number = int(event["id"])
    act = {"base_revision": event["revision"], "start": key}
    made = client.post(f"/api/events/{number}/parts/begin", json=act)
    assert made.status_code == 201, made.text
    revision = made.json()["revision"]
    for each in made.json()["parts"]:
        body = {"base_revision": revision, "label": "Answer what is asked", "part": answered(each["part"])}
        put = client.put(f"/api/events/{number}/parts/{each['id']}", json=body)
        assert put.status_code == 200, (key, put.text)
        revision = put.json()["revision"]
    return number


def found_in(event: dict[str, Any]) -> list[dict[str, Any]]:
    """What is expected of a plan: of each part its verdicts, what is cut and how much, what it weighs."""
    found = []
    for each in event["parts"]:
        report = each["report"]
        if each["part"]["kind"] == "rig":
            sized = report["take_off"]["sized"]
            parts, states = [*sized["cuts"], *sized["parts"]], {"hang": report["verdict"]["state"]}
            weighs = sum(part["typical_kg"] for part in report["take_off"]["parts"])
        else:
            parts = [*report["mechanic"]["parts"], *report["extras"]]
            states = {verdict["verb"]: verdict["state"] for verdict in report["verdicts"]}
            weighs = report["balance"]["mass_kg"] if report["balance"] else 0.0
        cut = [
            [part["name"], part["quantity"], *(round(size["value"], 4) for size in part["sizes"])] for part in parts
        ]
        found.append({"name": each["part"]["name"], "states": states, "parts": cut, "weighs_kg": round(weighs, 4)})
    return found


def write() -> None:
    """Write every plan as an event file, and what is expected of each."""
    KEPT.mkdir(exist_ok=True)
    expected: dict[str, Any] = {}
    with tempfile.TemporaryDirectory() as folder:
        open_studio(Path(folder)).close()
        with TestClient(make_app(Path(folder), web_build=Path(folder) / "none", hosts=("testserver",))) as client:
            for key in ORDERED:
                number = begin(client, key)
                file = client.get(f"/api/events/{number}/event.json")
                plain = {name: each for name, each in file.json().items() if name != "figures"}
                (KEPT / f"{key}.event.json").write_text(json.dumps(plain, indent=1) + "\n", encoding="utf-8")
                expected[key] = found_in(client.get(f"/api/events/{number}").json())
    (KEPT / "expected.json").write_text(json.dumps(expected, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    write()
