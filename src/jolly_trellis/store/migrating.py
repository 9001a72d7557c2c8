"""What migrations ask for that SQL cannot say."""

import json
import sqlite3
from typing import Any

from jolly_trellis.store import difference


def provide(conn: sqlite3.Connection) -> None:
    """Give a connection the functions that the migrations call."""
    conn.create_function("plan_change", 2, _plan_change, deterministic=True)
    conn.create_function("rig_design", 1, _rig_design, deterministic=True)


def _plan_change(before: str, after: str) -> str:
    """The difference between two whole plans as they were kept before there were differences (migration 10)."""
    was, now = (_documents(json.loads(text)) for text in (before, after))
    found = {
        head: difference.between(was.get(head), now.get(head))
        for head in sorted(was.keys() | now.keys())
        if was.get(head) != now.get(head)
    }
    for head in found:
        if was.get(head) is None or now.get(head) is None:
            found[head] = [[[], [was[head]] if head in was else [], [now[head]] if head in now else []]]
    return json.dumps(found, separators=(",", ":"), ensure_ascii=False)


def _documents(plan: dict[str, Any]) -> dict[str, Any]:
    parts = [(each["id"], "piece", each["piece"]) for each in plan.get("pieces", ())]
    parts += [(each["id"], "rig", _rig_of_now(each["rig"])) for each in plan.get("rigs", ())]
    documents = {f"part {number}": {"kind": kind, "part": part} for number, kind, part in parts}
    return {"brief": plan["brief"], "order": [number for number, _, _ in parts], **documents}


def _rig_design(design: str) -> str:
    """A rig's JSON in the shape that version 5 gave it; data of version 4 may still have another."""
    return json.dumps(_rig_of_now(json.loads(design)), separators=(",", ":"), ensure_ascii=False)


def _rig_of_now(rig: dict[str, Any]) -> dict[str, Any]:
    if "over_people" not in rig:
        return rig
    rest = {key: value for key, value in rig.items() if key not in ("over_people", "walkway", "bond", "armature")}
    armature = {key: value for key, value in rig["armature"].items() if key != "fuller_first"}
    fuller = rig["armature"].get("fuller_first", 1.0)
    bond = rig.get("bond")
    return {
        **rest,
        "armature": armature | ({} if fuller == 1.0 else {"density": [fuller, 1.0]}),
        "below": "nobody" if not rig["over_people"] else "walkway" if rig.get("walkway") else "table",
        "bond": None if bond is None else {"spec": bond},
    }
