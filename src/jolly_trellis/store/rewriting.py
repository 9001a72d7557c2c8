"""Plans that are kept, written anew for a migration that SQL cannot say: as they stand, and every step of theirs."""

import copy
import json
import sqlite3
from collections.abc import Callable
from functools import partial
from typing import Any

from jolly_trellis.core.event.keys import free_key
from jolly_trellis.store import difference

Document = dict[str, Any]
Documents = dict[str, Any]
OfNow = Callable[[str, Document], Document]
_WORN = ("buttonhole", "corsage", "crown")
_HELD_ONLY = ("hand_length_m", "spiral")
_WAYS: dict[difference.Way, str] = {
    "back": "SELECT id, changes FROM change WHERE event_id = :event AND step <= :step ORDER BY step DESC",
    "forth": "SELECT id, changes FROM change WHERE event_id = :event AND step > :step ORDER BY step",
}


def worn_and_places(conn: sqlite3.Connection) -> None:
    """Worn pieces become a kind of their own; places, points and beams are joined by key (migration 19)."""
    places = Places()
    surveys = conn.execute("SELECT place_key, design, previous, revision FROM survey").fetchall()
    conn.execute("DELETE FROM survey")  # the key of one place may be what another was called
    for place, design, previous, revision in surveys:
        new = [
            None if each is None else json.dumps(places.survey(place, json.loads(each))) for each in (design, previous)
        ]
        conn.execute(
            "INSERT INTO survey (place_key, design, previous, revision) VALUES (:key, :design, :previous, :revision)",
            {"key": places.key(place), "design": new[0], "previous": new[1], "revision": revision},
        )
    for (event_id,) in conn.execute("SELECT id FROM event").fetchall():
        place = json.loads(conn.execute("SELECT brief FROM event WHERE id = ?", (event_id,)).fetchone()[0]).get(
            "place", ""
        )
        rewrite(conn, event_id, partial(places.document, place))


class Places:
    """Keys of places, and of the points and beams of each, by the names they were joined by until now."""

    def __init__(self) -> None:
        self._keys: dict[str, str] = {}
        self._things: dict[tuple[str, str], dict[str, str]] = {}

    def key(self, place: str) -> str:
        """The key of a place; empty for none."""
        called = " ".join(place.split())
        if called and called not in self._keys:
            self._keys[called] = free_key(called, set(self._keys.values()))
        return self._keys.get(called, "")

    def of(self, what: str, place: str, name: str) -> str:
        """The key of a point or a beam of a place."""
        known = self._things.setdefault((what, self.key(place)), {})
        if name not in known:
            known[name] = free_key(name, set(known.values()))
        return known[name]

    def survey(self, place: str, survey: Document) -> Document:
        """A survey whose points and beams have keys."""
        beams = [{**each, "key": self.of("beam", place, each["name"])} for each in survey.get("beams", ())]
        points = [
            {**self._on_beam(each, place), "key": self.of("point", place, each["name"])}
            for each in survey.get("points", ())
        ]
        return {**survey, "points": points, "beams": beams}

    def document(self, place: str, head: str, document: Document) -> Document:
        """A brief or a part as it is now; `place` is that of its event, a brief has its own."""
        if head == "brief":
            return {**document, "place_key": self.key(document.get("place", ""))}
        return self.part(document, place)

    def part(self, part: Document, place: str) -> Document:
        """A part of an event of a place as it is now."""
        if part.get("kind") == "rig":
            return {**part, "points": [self._on_beam(self._surveyed(each, place), place) for each in part["points"]]}
        return worn_of_now(part)

    def _on_beam(self, point: Document, place: str) -> Document:
        beam = point.get("beam")
        return point if beam is None else {**point, "beam": self.of("beam", place, beam)}

    def _surveyed(self, point: Document, place: str) -> Document:
        found = dict(point)
        if found.get("surveyed") is not None:
            found["surveyed"] = self.of("point", place, found["surveyed"])
        if found.get("elsewhere") is not None:
            found["elsewhere"] = self._surveyed(found["elsewhere"], place)
        return found


def worn_of_now(part: Document) -> Document:
    """A piece as it is now: up to version 18 what is worn was a bouquet."""
    if part.get("kind") != "bouquet" or part["mechanic"]["kind"] not in _WORN:
        return part
    return {**{key: value for key, value in part.items() if key not in _HELD_ONLY}, "kind": "worn"}


def choices_to_passages(conn: sqlite3.Connection) -> None:
    """Where a part is made, how long it is cooled, when its stems go in: choices of its passage (migration 20)."""
    for (event_id,) in conn.execute("SELECT id FROM event").fetchall():
        rewrite(conn, event_id, lambda head, document: document if head == "brief" else with_passage(document))
    for number, body in conn.execute("SELECT id, body FROM proven_recipe").fetchall():
        proven = json.loads(body)
        text = json.dumps({**proven, "recipe": _lines_of_now(proven["recipe"])}, ensure_ascii=False)
        conn.execute("UPDATE proven_recipe SET body = :body WHERE id = :id", {"body": text, "id": number})


def with_passage(part: Document) -> Document:
    """A part as it is now: up to version 19 its transport told that it was made where it stands."""
    found = _recipes_of_now(part)
    found["companions"] = [_recipes_of_now(each) for each in part["companions"]] if "companions" in part else None
    found["spill"] = _recipes_of_now(part["spill"]) if part.get("spill") else part.get("spill")
    going, days = found.get("transport"), found.pop("cooler_days", 0.0)
    passage: Document = {}
    if going is not None:
        found["transport"] = {key: value for key, value in going.items() if key != "made_on_site"}
        if going.get("made_on_site"):
            passage["made"] = "its place"
    if days:
        passage["cooled"] = {"days": days}
    if passage:
        found["passage"] = passage
    return {key: value for key, value in found.items() if key in part or key == "passage"}


def _recipes_of_now(holder: Document) -> Document:
    return {**holder, "recipe": _lines_of_now(holder["recipe"])} if "recipe" in holder else dict(holder)


def _lines_of_now(lines: list[Document]) -> list[Document]:
    found = []
    for line in lines:
        rest = {key: value for key, value in line.items() if key != "on_site"}
        found.append({**rest, "goes_in": "on site"} if line.get("on_site") else rest)
    return found


def rewrite(conn: sqlite3.Connection, event_id: int, of_now: OfNow) -> None:
    """Write an event's plan and its steps anew; what only went back or forth stays as it was told."""
    kept = _documents(conn, event_id)
    for head, document in kept.items():
        _keep(conn, event_id, head, of_now(head, document))
    step = conn.execute("SELECT step FROM event WHERE id = ?", (event_id,)).fetchone()[0]
    for way, sql in _WAYS.items():
        documents = dict(kept)
        steps = conn.execute(sql, {"event": event_id, "step": step}).fetchall()
        for number, text in steps:
            changes = json.loads(text)
            new = {}
            for head, leaves in changes.items():
                here = documents.get(head)
                there = difference.moved(copy.deepcopy(here), leaves, way)
                pair = (there, here) if way == "back" else (here, there)
                new[head] = leaves if head == "order" else _between(*(_now(of_now, head, each) for each in pair))
                documents[head] = there
            conn.execute(
                "UPDATE change SET changes = :changes WHERE event_id = :event AND id = :id",
                {
                    "changes": json.dumps(new, separators=(",", ":"), ensure_ascii=False),
                    "event": event_id,
                    "id": number,
                },
            )


def _now(of_now: OfNow, head: str, document: Document | None) -> Document | None:
    return None if document is None else of_now(head, document)


def _between(was: Document | None, now: Document | None) -> list[difference.Leaf]:
    if was is None or now is None or was.get("kind") != now.get("kind"):
        return [[[], [] if was is None else [was], [] if now is None else [now]]]
    return difference.between(was, now)


def _documents(conn: sqlite3.Connection, event_id: int) -> Documents:
    brief = conn.execute("SELECT brief FROM event WHERE id = ?", (event_id,)).fetchone()[0]
    parts = conn.execute("SELECT id, design FROM part WHERE event_id = ? ORDER BY position", (event_id,)).fetchall()
    return {"brief": json.loads(brief), **{f"part {number}": json.loads(design) for number, design in parts}}


def _keep(conn: sqlite3.Connection, event_id: int, head: str, document: Document) -> None:
    text = json.dumps(document, allow_nan=False, separators=(",", ":"), ensure_ascii=False)
    if head == "brief":
        conn.execute("UPDATE event SET brief = :text WHERE id = :event", {"text": text, "event": event_id})
        return
    number = int(head.removeprefix("part "))
    conn.execute(
        "UPDATE part SET design = :text WHERE event_id = :event AND id = :id",
        {"text": text, "event": event_id, "id": number},
    )


# What a migration does after its SQL.
AFTER: dict[int, Callable[[sqlite3.Connection], None]] = {19: worn_and_places, 20: choices_to_passages}
