"""What would save netting: sheets a cell narrower, rolls of the same netting in another width; verdicts tried too."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass, replace
from decimal import Decimal

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.cutting.roll import cut_plan, still_to_cut
from jolly_trellis.core.event.money import NOTHING, money
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs
from jolly_trellis.core.event.parts import in_vessels
from jolly_trellis.core.materials.netting import Netting, pitch_across_m
from jolly_trellis.core.mechanics.fit import TUCK_CELLS
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.quantities import Phrase, length, phrase
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.services.trying import states_of, with_part, worse_of
from jolly_trellis.store.plan import Plan

_SECONDS = 0.6
_MOST = 8
_WORTH_M = 0.1
_SAME = 1e-4


@dataclass(frozen=True, slots=True, kw_only=True)
class Bend:
    """One change that saves netting: of which netting, in words, how much of the roll, m, and how much to pay less;
    and what would be worse. `saves` is None where a roll has no price.
    """

    key: str
    netting: str
    say: Phrase
    saves_m: float
    saves: Decimal | None
    worse: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Bends:
    """What was tried so far, what makes nothing worse first, the most saved first."""

    found: tuple[Bend, ...]
    done: float = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class _Try:
    """A change: what it is known by, the netting it is of and the one it is cut from then, whose, and the plan."""

    key: str
    netting: str
    then: str
    name: str
    plan: Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class _Takes:
    """What a netting takes: metres of roll, rolls to buy, and what they cost; None no price."""

    used_m: float
    rolls: int
    cost: Decimal | None


def search(conn: sqlite3.Connection, work: EventWork, running: Running[Bends]) -> Bends:
    """Try every piece that is cut from netting and not cut yet, the largest first, then rolls of other widths."""
    cut = event_work.materials_cut(conn, work.event_id)
    rest = still_to_cut(work.needs, cut, work.larder).needs
    found: list[Bend] = []
    tries = [*_narrower(work, rest), *_other_rolls(work, rest)]
    before: dict[str, _Takes] = {}
    for place, each in enumerate(tries):
        if running.stopping:
            break
        if each.netting not in before:
            before[each.netting] = _takes(work, rest, each.netting)
        try:
            there = event_work.work_with(conn, work.event_id, each.plan, revision=work.revision)
        except CoreError:
            continue
        then = _takes(work, still_to_cut(there.needs, cut, work.larder).needs, each.then)
        saving = _saving(work, each, before[each.netting], then)
        if saving is not None:
            worse = tuple(worse_of(states_of(work), states_of(there)))
            found.append(replace(saving, worse=worse))
        running.tell(Bends(found=_ranked(found), done=(place + 1) / len(tries)))
    return Bends(found=_ranked(found))


def apply(conn: sqlite3.Connection, event_id: int, key: str, *, base_revision: int) -> EventState:
    """Make a change that saves netting. Raises NotFound: it is not to be had; Stale."""
    work = event_work.work_of(conn, event_id)
    for each in (*_narrower(work, work.needs), *_other_rolls(work, work.needs)):
        if each.key == key:
            label = f"{each.name}: another roll" if each.then != each.netting else f"{each.name}: a cell narrower"
            return planning.put_plan(conn, event_id, each.plan, base_revision=base_revision, label=label)
    raise NotFound(f"saving {key}")


def _saving(work: EventWork, tried: _Try, now: _Takes, then: _Takes) -> Bend | None:
    """What a change saves, where it is worth it: 10 cm of the same roll, or any money on another."""
    saves = None if now.cost is None or then.cost is None else now.cost - then.cost
    saves_m = now.used_m - then.used_m
    if tried.then == tried.netting:
        if saves_m < _WORTH_M:
            return None
        say = phrase("{name}: its sheets one cell narrower saves {l}.", name=tried.name, l=length(saves_m))
    else:
        if saves is None or saves <= 0:
            return None
        net = work.larder.nettings[tried.then]
        say = phrase(
            "From rolls {w} wide, {name}: {rolls} to buy for {cost} instead of {now} for {before}.",
            w=length(net.roll_width_m),
            name=net.name,
            rolls=then.rolls,
            cost=f"{then.cost}",
            now=now.rolls,
            before=f"{now.cost}",
        )
    return Bend(key=tried.key, netting=tried.netting, say=say, saves_m=max(saves_m, 0.0), saves=saves, worse=())


def _ranked(found: list[Bend]) -> tuple[Bend, ...]:
    return tuple(sorted(found, key=lambda each: (len(each.worse), -(each.saves or NOTHING), -each.saves_m)))


def _narrower(work: EventWork, needs: Needs) -> Iterator[_Try]:
    """Each piece with half a cell less to tuck in on each side."""
    areas: dict[int, float] = {}
    nettings: dict[int, str] = {}
    for each in needs.sheets:
        if each.piece_id != FOR_ALL:
            area = each.sheet.width_m * each.sheet.length_m * each.quantity
            areas[each.piece_id] = areas.get(each.piece_id, 0.0) + area
            nettings[each.piece_id] = each.netting
    parts = work.plan.by_id()
    for part_id in sorted(areas, key=lambda each: -areas[each])[:_MOST]:
        part, net = parts[part_id], work.larder.nettings.get(nettings[part_id])
        if not in_vessels(part) or net is None:
            continue
        given = part.mechanic.tuck_m
        tuck = (TUCK_CELLS.value * pitch_across_m(net) if given is None else given) - pitch_across_m(net) / 2
        if tuck < -1e-9 or (given is None and "tuck_m" not in ABOUT[part.mechanic.kind].reads):
            continue
        changed = replace(part, mechanic=replace(part.mechanic, tuck_m=max(round(tuck, 4), 0.0)))
        plan = with_part(work.plan, part_id, changed)
        yield _Try(key=f"narrower-{part_id}", netting=net.key, then=net.key, name=part.name, plan=plan)


def _other_rolls(work: EventWork, needs: Needs) -> Iterator[_Try]:
    """All that is cut from a netting cut from another of the same cell, wire and finish, in another width."""
    for key in dict.fromkeys(each.netting for each in needs.sheets):
        net = work.larder.nettings.get(key)
        if net is None:
            continue
        for other in work.larder.nettings.values():
            if other.key != key and _same_net(net, other) and other.roll_width_m != net.roll_width_m:
                parts = tuple(replace(each, part=each.part.cut_from(key, other.key)) for each in work.plan.parts)
                plan = replace(work.plan, parts=parts)
                yield _Try(key=f"roll-{key}-{other.key}", netting=key, then=other.key, name=other.name, plan=plan)


def _same_net(one: Netting, other: Netting) -> bool:
    alike = abs(one.aperture_m - other.aperture_m) < _SAME and abs(one.wire_m - other.wire_m) < _SAME
    return alike and one.finish == other.finish


def _takes(work: EventWork, needs: Needs, netting: str) -> _Takes:
    """What a netting takes by a plan that is made quickly."""
    only = replace(
        needs, sheets=tuple(each for each in needs.sheets if each.netting == netting), lengths=(), not_worked_out=()
    )
    plan = cut_plan(only, work.larder, seconds=_SECONDS)
    rolls = sum(each.to_buy for each in plan.materials)
    price = work.larder.nettings[netting].price
    cost = NOTHING if not rolls else None if price is None else rolls * money(price)
    return _Takes(used_m=sum(stock.used_m for each in plan.materials for stock in each.stocks), rolls=rolls, cost=cost)
