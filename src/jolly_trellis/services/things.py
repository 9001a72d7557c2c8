"""Things of a plan that comes from elsewhere, told by the keys of these stores."""

import sqlite3
from collections.abc import Mapping
from dataclasses import replace

from jolly_trellis.core.event.job import Hire
from jolly_trellis.core.event.keys import thing_id
from jolly_trellis.core.event.needs.needs import things_in
from jolly_trellis.core.event.parts import in_vessels
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Plan

Known = Mapping[str, Vessel | Stand]


def of_these_stores(conn: sqlite3.Connection, plan: Plan) -> Plan:
    """A plan whose vessels, stands and hires name what these stores have; what they do not have is the plan's own.

    A thing without a key, as plans once had them, is the only one of the stores that is called so; its measures stay.
    """
    vessels, stands = stock.vessels(conn), stock.stands(conn)
    parts = []
    for each in plan.parts:
        part = each.part
        if in_vessels(part):
            part = _piece(part, vessels, stands)
        parts.append(replace(each, part=part))
    hires = tuple(_hire(each, {"vessel": vessels, "stand": stands}) for each in plan.brief.hires)
    return replace(plan, brief=replace(plan.brief, hires=hires), parts=tuple(parts))


def hires_told(plan: Plan) -> Plan:
    """A plan in which each hire that was only called something is the one thing of its pieces that is called so."""
    things: dict[str, set[str]] = {}
    for each in plan.pieces:
        for thing in things_in(each.part):
            things.setdefault(thing.name, set()).add(thing.thing)
    hires = tuple(
        replace(each, thing=next(iter(things[each.name])))
        if not each.thing and len(things.get(each.name, ())) == 1
        else each
        for each in plan.brief.hires
    )
    return plan if hires == plan.brief.hires else replace(plan, brief=replace(plan.brief, hires=hires))


def _piece(piece: Piece, vessels: Known, stands: Known) -> Piece:
    changed = piece.with_vessels(lambda each: replace(each, key=_known(each.key, each.name, vessels)))
    support = changed.support
    if support is None:
        return changed
    return replace(changed, support=replace(support, key=_known(support.key, support.name, stands)))


def _hire(hire: Hire, known: Mapping[str, Known]) -> Hire:
    kind, _, key = hire.thing.partition(":")
    if key:
        return hire if key in known.get(kind, {}) else replace(hire, thing="")
    for kind, things in known.items():
        if found := _known("", hire.name, things):
            return replace(hire, thing=thing_id(kind, found, ""))
    return hire


def _known(key: str, name: str, known: Known) -> str:
    if key:
        return key if key in known else ""
    called = [each for each, thing in known.items() if thing.name == name]
    return called[0] if len(called) == 1 else ""
