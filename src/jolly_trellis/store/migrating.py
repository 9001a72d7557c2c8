"""What migrations ask for that SQL cannot say."""

import json
import sqlite3
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any

from jolly_trellis.core.event.keys import free_key, slug
from jolly_trellis.store import difference

# What a piece that is carried never had, though its plan named it.
_STANDS = ("companions", "spill", "counterweight", "feet", "dealt")


def provide(conn: sqlite3.Connection) -> None:
    """Give a connection the functions that the migrations call."""
    conn.create_function("plan_change", 2, _plan_change, deterministic=True)
    conn.create_function("piece_design", 1, partial(_design, piece_of_now), deterministic=True)
    conn.create_function("rig_design", 1, partial(_design, rig_of_now), deterministic=True)
    conn.create_function("slug", 1, slug, deterministic=True)
    conn.create_function("with_keys", 3, _with_keys, deterministic=True)


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


def _with_keys(text: str, vessels: str, stands: str) -> str:
    """A part, a brief, a change or lines that came home, with the keys of the things in it (migration 18)."""
    known: dict[str, dict[str, str]] = {"vessel": json.loads(vessels), "stand": json.loads(stands)}
    document = json.loads(text)
    things_keyed(document, known)
    return json.dumps(document, separators=(",", ":"), ensure_ascii=False)


def things_keyed(document: Any, known: dict[str, dict[str, str]]) -> None:
    """Write into plain data which vessel or stand of the stores each thing in it is: the one that is called so.

    Args:
        known: keys of the stores by name, by kind.
    """
    if isinstance(document, dict):
        _key_of_thing(document, known)
        for each in document.values():
            things_keyed(each, known)
    if isinstance(document, list):
        _keys_of_rows(document)
        document += list(_key_leaves(document, known))
        for each in document:
            things_keyed(each, known)


def _key_of_thing(thing: dict[str, Any], known: dict[str, dict[str, str]]) -> None:
    name = str(thing.get("name", ""))
    if "plan_shape" in thing and "profile" in thing:
        thing.setdefault("key", known["vessel"].get(name, ""))
    elif "top_width_m" in thing and "ridge" in thing:
        thing.setdefault("key", known["stand"].get(name, ""))
    elif "lender" in thing and "goes_back" in thing:
        kind = next((kind for kind in known if name in known[kind]), None)
        thing.setdefault("thing", "" if kind is None else f"{kind}:{known[kind][name]}")
    elif "went" in thing and thing.get("kind") in known and thing.get("thing"):
        thing["line"] = f"{thing['kind']}:{thing['thing']}"


def _keys_of_rows(rows: list[Any]) -> None:
    """Keys of a brief's people, suppliers and lenders, as those made of their names were until now."""
    taken: set[str] = set()
    for each in rows:
        if not isinstance(each, dict):
            continue
        if "skills" in each or ("sells" in each and "closes" in each):
            taken.add(each.setdefault("key", free_key(str(each["name"]), taken)))
        if "lender" in each and "goes_back" in each:
            each.setdefault("lender_key", slug(str(each["lender"])))


def _key_leaves(leaves: list[Any], known: dict[str, dict[str, str]]) -> Iterator[Any]:
    """Beside each changed name of a thing, the change of its key."""
    for leaf in leaves:
        if not (isinstance(leaf, list) and len(leaf) == 3 and isinstance(leaf[0], list) and leaf[0][-1:] == ["name"]):
            continue
        kind = {"vessel": "vessel", "outer": "vessel", "support": "stand"}.get(str((leaf[0] or [""])[-2:][0]))
        if kind is not None:
            keys = [[known[kind].get(each, "") for each in side] for side in leaf[1:]]
            yield [[*leaf[0][:-1], "key"], *keys]
