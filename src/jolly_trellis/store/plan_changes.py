"""What changed between two plans, by what it touches (`brief`, `order`, `part N`), and a plan after such a change."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from jolly_trellis.core.event.parts import Part
from jolly_trellis.store import codec, difference
from jolly_trellis.store.difference import Leaf, Way
from jolly_trellis.store.plan import Brief, Plan, Planned

BRIEF = "brief"
ORDER = "order"
Changes = Mapping[str, list[Leaf]]


def touching(part_id: int) -> str:
    """The name under which what touches a part is found."""
    return f"part {part_id}"


def between(before: Plan, after: Plan) -> Changes:
    """What changed from one plan to another; empty where nothing did."""
    found: dict[str, list[Leaf]] = {}
    if before.brief != after.brief:
        found[BRIEF] = difference.between(codec.to_plain(before.brief), codec.to_plain(after.brief))
    old, new = before.by_id(), after.by_id()
    for number in sorted(old.keys() | new.keys()):
        was, now = old.get(number), new.get(number)
        if was is not now and was != now:
            found[touching(number)] = _part_leaves(was, now)
    if list(old) != list(new):
        found[ORDER] = difference.between(list(old), list(new))
    return found


def moved(plan: Plan, changes: Changes, way: Way) -> Plan:
    """A plan after a change, or as it was before it."""
    brief = plan.brief
    if BRIEF in changes:
        brief = codec.from_plain(difference.moved(codec.to_plain(brief), changes[BRIEF], way), Brief)
    parts: dict[int, Part] = plan.by_id()
    order: list[int] = list(parts)
    if ORDER in changes:
        order = difference.moved(order, changes[ORDER], way)
    for head, leaves in changes.items():
        if head in (BRIEF, ORDER):
            continue
        number = int(head.removeprefix("part "))
        document = difference.moved(_document(parts.get(number)), leaves, way)
        if document is None:
            parts.pop(number, None)
        else:
            parts[number] = codec.part_from(document)
    return replace(plan, brief=brief, parts=tuple(Planned(id=each, part=parts[each]) for each in order))


def _document(part: Part | None) -> Any:
    return None if part is None else codec.to_plain(part)


def _part_leaves(was: Part | None, now: Part | None) -> list[Leaf]:
    before, after = _document(was), _document(now)
    if before is None or after is None or before["kind"] != after["kind"]:
        return [[[], [] if before is None else [before], [] if after is None else [after]]]
    return difference.between(before, after)
