"""What a narrower sheet saves on the roll: each piece of netting tried with less to tuck in, its verdicts too."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass, replace

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.needs import FOR_ALL, Needs
from jolly_trellis.core.event.roll import cut_plan, still_to_cut
from jolly_trellis.core.materials.netting import pitch_across_m
from jolly_trellis.core.mechanics.fit import TUCK_CELLS
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.piece import Piece
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Bend:
    """One piece whose sheets are cut a cell narrower: what it saves of the roll, m, and what would be worse."""

    key: str
    netting: str
    say: Phrase
    saves_m: float
    worse: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Bends:
    """What was tried so far, the most saved first."""

    found: tuple[Bend, ...]
    done: float = 1.0


def search(conn: sqlite3.Connection, work: EventWork, running: Running[Bends]) -> Bends:
    """Try every piece that is cut from netting and not cut yet, the largest first."""
    cut = event_work.materials_cut(conn, work.event_id)
    rest = still_to_cut(work.needs, cut, work.larder).needs
    found: list[Bend] = []
    narrower = list(_narrower(work, rest))
    before: dict[str, float] = {}
    for place, (key, netting, name, plan) in enumerate(narrower):
        if running.stopping:
            break
        if netting not in before:
            before[netting] = _used_m(work, rest, netting)
        try:
            there = event_work.work_with(conn, work.event_id, plan, revision=work.revision)
        except CoreError:
            continue
        saves = before[netting] - _used_m(work, still_to_cut(there.needs, cut, work.larder).needs, netting)
        if saves >= _WORTH_M:
            say = phrase("{name}: its sheets one cell narrower saves {l}.", name=name, l=length(saves))
            worse = tuple(worse_of(states_of(work), states_of(there)))
            found.append(Bend(key=key, netting=netting, say=say, saves_m=saves, worse=worse))
        running.tell(Bends(found=_ranked(found), done=(place + 1) / len(narrower)))
    return Bends(found=_ranked(found))


def apply(conn: sqlite3.Connection, event_id: int, key: str, *, base_revision: int) -> EventState:
    """Cut the sheets of a piece a cell narrower. Raises NotFound: it is not to be had; Stale."""
    work = event_work.work_of(conn, event_id)
    for known, _, name, plan in _narrower(work, work.needs):
        if known == key:
            label = f"{name}: sheets a cell narrower"
            return planning.put_plan(conn, event_id, plan, base_revision=base_revision, label=label)
    raise NotFound(f"narrower sheets {key}")


def _ranked(found: list[Bend]) -> tuple[Bend, ...]:
    return tuple(sorted(found, key=lambda each: (len(each.worse), -each.saves_m)))


def _narrower(work: EventWork, needs: Needs) -> Iterator[tuple[str, str, str, Plan]]:
    """Each piece with half a cell less to tuck in on each side: its key, its netting, its name, the plan with it."""
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
        if not isinstance(part, Piece) or net is None:
            continue
        given = part.mechanic.tuck_m
        tuck = (TUCK_CELLS.value * pitch_across_m(net) if given is None else given) - pitch_across_m(net) / 2
        if tuck < -1e-9 or (given is None and "tuck_m" not in ABOUT[part.mechanic.kind].reads):
            continue
        changed = replace(part, mechanic=replace(part.mechanic, tuck_m=max(round(tuck, 4), 0.0)))
        yield f"narrower-{part_id}", net.key, part.name, with_part(work.plan, part_id, changed)


def _used_m(work: EventWork, needs: Needs, netting: str) -> float:
    """Metres of roll that a netting takes."""
    only = replace(
        needs, sheets=tuple(each for each in needs.sheets if each.netting == netting), lengths=(), not_worked_out=()
    )
    plan = cut_plan(only, work.larder, seconds=_SECONDS)
    return sum(stock.used_m for each in plan.materials for stock in each.stocks)
