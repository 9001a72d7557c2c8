"""What migrations ask for that SQL cannot say."""

import json
import sqlite3
from collections.abc import Callable
from functools import partial
from typing import Any

from jolly_trellis.store import difference

# What a piece that is carried never had, though its plan named it.
_STANDS = ("companions", "spill", "counterweight", "feet", "dealt")


def provide(conn: sqlite3.Connection) -> None:
    """Give a connection the functions that the migrations call."""
    conn.create_function("plan_change", 2, _plan_change, deterministic=True)
    conn.create_function("piece_design", 1, partial(_design, piece_of_now), deterministic=True)
    conn.create_function("rig_design", 1, partial(_design, rig_of_now), deterministic=True)


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
    parts = {each["id"]: piece_of_now(each["piece"]) for each in plan.get("pieces", ())}
    parts |= {each["id"]: rig_of_now(each["rig"]) for each in plan.get("rigs", ())}
    documents = {f"part {number}": part for number, part in parts.items()}
    return {"brief": plan["brief"], "order": list(parts), **documents}


def _design(of_now: Callable[[dict[str, Any]], dict[str, Any]], design: str) -> str:
    return json.dumps(of_now(json.loads(design)), separators=(",", ":"), ensure_ascii=False)


def piece_of_now(piece: dict[str, Any]) -> dict[str, Any]:
    """A piece's plain data as its kind has it now; up to version 9 one that was carried had a `bouquet` in it."""
    rest = {key: value for key, value in piece.items() if key != "bouquet"}
    bouquet = piece.get("bouquet")
    if bouquet is None:
        return {"kind": "standing", **rest}
    return {"kind": "bouquet", **{key: value for key, value in rest.items() if key not in _STANDS}, **bouquet}


def rig_of_now(rig: dict[str, Any]) -> dict[str, Any]:
    """A rig's plain data as it is now; data of version 4 may still have the shape of before version 5."""
    rig = {"kind": "rig", **rig}
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
