"""An event as the core reckons with it: its job, what is made for it, what the stores have; what comes of it."""

import hashlib
import sqlite3
import threading
from collections import OrderedDict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from jolly_trellis import __version__
from jolly_trellis.core.books.figures import open_book
from jolly_trellis.core.books.time import TimeBook
from jolly_trellis.core.event.buying.shared_needs import with_shared
from jolly_trellis.core.event.buying.shopping import Shopping, shopping
from jolly_trellis.core.event.cost.cost import EventCost, cost_of
from jolly_trellis.core.event.cost.currencies import (
    larder_unpriced,
    priced_in,
    said_once,
    shelves_unpriced,
    varieties_unpriced,
)
from jolly_trellis.core.event.cutting.roll import CutPlan, cut_plan, keeping_cut, still_to_cut
from jolly_trellis.core.event.cutting.roll_problems import Larder, MaterialPlan
from jolly_trellis.core.event.job import Job, Made, PieceWork, RigWork
from jolly_trellis.core.event.keys import thing_id
from jolly_trellis.core.event.money import NOTHING, money
from jolly_trellis.core.event.needs.bunches import StemBuy, buy_stems
from jolly_trellis.core.event.needs.needed import Needs
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.needs.wear import STAND_USES, VESSEL_USES, Kept
from jolly_trellis.core.event.parts import hangs, in_vessels
from jolly_trellis.core.event.tasks.days_before import VarietyDays, days_before
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import WaterRounds, water_rounds
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.mechanics.fit import NETTING_USES
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.services import judging, long_work, planning, rigging
from jolly_trellis.services.conditions import conditions_of, job_of, mark_of, path_of
from jolly_trellis.services.long_work import Running
from jolly_trellis.store import codec, cuts, stock
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.events import revisions
from jolly_trellis.store.plan import Plan
from jolly_trellis.store.stock import Holding

_QUICK_S = 1.0
_MOST_GATHERED = 16
_gathered: OrderedDict[tuple[object, ...], "EventWork"] = OrderedDict()
_lock = threading.Lock()


@dataclass(frozen=True, slots=True, kw_only=True)
class EventWork:
    """One event with all that the core needs to reckon with it; `kept_in` is the file it is kept in.

    `varieties` are those of the stores, and `prices_in` is the currency of their prices; where it is not the event's,
    nothing of the stores has a price here. `made_for` tells whether a result is still of it: events that are the same
    in everything have the same.
    """

    event_id: int
    kept_in: str
    revision: int
    plan: Plan
    job: Job
    conditions: Conditions
    made: Made
    needs: Needs
    larder: Larder
    shelves: Shelves
    varieties: Mapping[str, Variety]
    prices_in: str
    made_for: str

    @property
    def foreign(self) -> bool:
        """Whether the prices of the stores are in another currency than the event's."""
        return self.prices_in != self.job.costing.currency


def work_of(conn: sqlite3.Connection, event_id: int) -> EventWork:
    """Gather an event, or take what was gathered of it as it stands. Raises NotFound; CoreError: the brief cannot be.

    How it stands is told by revisions: its own, those of other events and of surveys, whose work may hang on the same
    beams, that of the stores, and the edition of the figures.
    """
    mark = (event_id, *mark_of_all(conn))
    with _lock:
        known = _gathered.get(mark)
        if known is not None:
            _gathered.move_to_end(mark)
            return known
    state = planning.state(conn, event_id)
    work = work_with(conn, event_id, state.plan, revision=state.event.revision)
    if conn.in_transaction:  # what is not kept yet may be rolled back, and its revision be another state's
        return work
    with _lock:
        _gathered[mark] = work
        while len(_gathered) > _MOST_GATHERED:
            _gathered.popitem(last=False)
    return work


def mark_of_all(conn: sqlite3.Connection) -> tuple[object, ...]:
    """How everything of a studio stands that any event's work hangs on."""
    return (path_of(conn), revisions(conn), stock.revision(conn), open_book().edition)


def work_with(conn: sqlite3.Connection, event_id: int, plan: Plan, *, revision: int) -> EventWork:
    """Gather an event as a plan has it, kept or tried. Raises CoreError: the brief cannot be."""
    job, conditions = job_of(plan.brief), conditions_of(conn, plan.brief)
    made = made_of(conn, event_id, plan, conditions)
    larder, shelves, varieties = larder_of(conn), shelves_of(conn), conditions.varieties
    prices_in = stock.currency(conn)
    if prices_in != job.costing.currency:
        larder, shelves = larder_unpriced(larder), shelves_unpriced(shelves)
        varieties = varieties_unpriced(varieties)
    else:
        varieties = priced_in(varieties, job.costing.currency)
    armatures = {key: 0 if each.worn else each.here for key, each in shelves.armatures_kept.items()}
    own = needs_of(made, turning=plan.brief.turning, reused=job.reused, here=armatures)
    bought = buy_stems(own.stems, conditions.varieties, waste=job.costing.waste, here=shelves.stems_here)
    needs = with_shared(own, job, made, bought, water_rounds(job, made, conditions))
    survey = rigging.survey_of(conn, event_id)[1].survey
    mark = hashlib.sha256(f"{mark_of(conditions)}|{conditions.figures.edition}|".encode())
    for each in (plan, needs, larder, shelves, survey, prices_in):
        mark.update(codec.dumps(each).encode())
    return EventWork(
        event_id=event_id,
        kept_in=path_of(conn),
        revision=revision,
        plan=plan,
        job=job,
        conditions=conditions,
        made=made,
        needs=needs,
        larder=larder,
        shelves=shelves,
        varieties=varieties,
        prices_in=prices_in,
        made_for=mark.hexdigest(),
    )


def made_of(conn: sqlite3.Connection, event_id: int, plan: Plan, conditions: Conditions) -> Made:
    """Everything of a plan, judged; what cannot be worked out has no report."""
    pieces, rigs = [], []
    judged = judging.judge_all(conn, event_id, plan.brief, plan.parts, conditions)
    for each in plan.parts:
        report = judged[each.id].report
        part = each.part
        if hangs(part):
            rigs.append(RigWork(id=each.id, rig=part, report=report if isinstance(report, RigReport) else None))
        elif in_vessels(part):
            found = report if isinstance(report, Report) else None
            pieces.append(PieceWork(id=each.id, piece=part, report=found))
    return Made(pieces=tuple(pieces), rigs=tuple(rigs))


def larder_of(conn: sqlite3.Connection) -> Larder:
    """What the stores have to cut from."""
    held = stock.holdings(conn)
    return Larder(
        nettings=stock.nettings(conn),
        supplies=stock.supplies(conn),
        rolls={key: each.on_hand for key, each in held["netting"].items()},
        packs={key: each.on_hand for key, each in held["supply"].items()},
        netting_remnants=cuts.remnants(conn, "netting"),
        supply_remnants=cuts.remnants(conn, "supply"),
    )


def shelves_of(conn: sqlite3.Connection) -> Shelves:
    """What the stores have that is counted."""
    held, armatures = stock.holdings(conn), stock.armatures(conn)
    vessels = [(key, each.name, each.price) for key, each in stock.vessels(conn).items()]
    stands = [(key, each.name, each.price) for key, each in stock.stands(conn).items()]
    return Shelves(
        frogs=stock.frogs(conn),
        frogs_here={key: each.on_hand for key, each in held["frog"].items()},
        vessels=_by_thing("vessel", vessels, held["vessel"], round(VESSEL_USES.value)),
        stands=_by_thing("stand", stands, held["stand"], round(STAND_USES.value)),
        armatures=armatures,
        armatures_kept={
            key: _kept(key, each.name, None, held["armature"].get(key, Holding()), round(NETTING_USES.value))
            for key, each in armatures.items()
        },
        stems_here={key: each.on_hand for key, each in held["variety"].items()},
        stems_last={key: each.lasts for key, each in held["variety"].items() if each.lasts is not None},
    )


def _by_thing(
    kind: str, things: Iterable[tuple[str, str, float | None]], held: Mapping[str, Holding], uses: int
) -> dict[str, Kept]:
    """What is kept of things, by what tells each from all others."""
    return {
        thing_id(kind, key, name): _kept(key, name, price, held.get(key, Holding()), uses)
        for key, name, price in things
    }


def _kept(key: str, name: str, price: float | None, holding: Holding, uses: int) -> Kept:
    return Kept(
        key=key,
        name=name,
        here=holding.on_hand,
        price=None if price is None else money(price),
        lasts=uses if holding.lasts is None else holding.lasts,
        used=holding.used,
        resale=NOTHING if holding.resale is None else money(holding.resale),
    )


def water_of(work: EventWork) -> WaterRounds:
    """The water rounds of an event."""
    return water_rounds(work.job, work.made, work.conditions)


def days_of(work: EventWork) -> tuple[VarietyDays, ...]:
    """The days before an event."""
    return days_before(work.job, work.made, work.needs.stems, work.conditions.varieties, bought_of(work))


def bought_of(work: EventWork) -> tuple[StemBuy, ...]:
    """How the stems of an event are bought; what the stores have is not bought again."""
    waste = work.job.costing.waste
    return buy_stems(work.needs.stems, work.varieties, waste=waste, here=work.shelves.stems_here)


def book_of(work: EventWork) -> TimeBook:
    """Every task of an event."""
    return time_book(work.job, work.made, work.conditions.varieties, bought_of(work))


def shopping_of(conn: sqlite3.Connection, work: EventWork) -> Shopping:
    """What an event buys and packs, by its cut plan where it has one of now, else by one made quickly."""
    found = shopping(
        work.job,
        work.made,
        work.needs,
        cuts_of(conn, work),
        work.larder,
        work.shelves,
        work.varieties,
        water_of(work),
        materials_cut(conn, work.event_id),
    )
    if work.foreign and found.unpriced:
        found = replace(found, unpriced=(f"what the stores have, as prices there are in {work.prices_in}",))
    return found


def cost_of_event(work: EventWork) -> EventCost:
    """What an event costs."""
    cost = cost_of(
        work.made,
        work.needs,
        bought_of(work),
        work.larder,
        work.shelves,
        work.varieties,
        work.job,
        book_of(work),
    )
    return said_once(cost, work.prices_in) if work.foreign else cost


def cuts_of(conn: sqlite3.Connection, work: EventWork) -> CutPlan:
    """The cut plan of an event: the kept one where it is still of this event, else one made quickly."""
    running = begin_quick_cuts(conn, work)
    if running is None:
        kept = cuts.get_plan(conn, work.event_id)
        return CutPlan(materials=()) if kept is None else kept[0]
    running.wait(60.0)
    return keeping_cut(running.best or CutPlan(materials=()), *_cut_and_spare(conn, work))


def begin_quick_cuts(conn: sqlite3.Connection, work: EventWork) -> Running[CutPlan] | None:
    """The work on a cut plan that is made quickly, begun or joined; None where the kept one is of now."""
    kept = cuts.get_plan(conn, work.event_id)
    if kept is not None and kept[1] == cut_mark(work):
        return None
    rest = still_to_cut(work.needs, materials_cut(conn, work.event_id), work.larder)
    return long_work.start(
        ("quick cuts", work.kept_in, work.event_id, cut_mark(work)),
        lambda _: cut_plan(rest.needs, work.larder, seconds=_QUICK_S),
    )


def _cut_and_spare(conn: sqlite3.Connection, work: EventWork) -> tuple[tuple[MaterialPlan, ...], tuple[Phrase, ...]]:
    cut = materials_cut(conn, work.event_id)
    return cut, still_to_cut(work.needs, cut, work.larder).spare


def materials_cut(conn: sqlite3.Connection, event_id: int) -> tuple[MaterialPlan, ...]:
    """The plans by which materials of an event were cut."""
    kept = cuts.get_plan(conn, event_id)
    marked = {(row.material, row.key, row.nth) for row in cuts.cuts(conn, event_id)}
    plans = kept[0].materials if kept else ()
    return tuple(each for each in plans if (each.material, each.key, each.nth) in marked)


def cut_mark(work: EventWork) -> str:
    """What a cut plan is made for: the needs and what there is to cut from, whatever else changes."""
    mark = hashlib.sha256(codec.dumps(work.needs.sheets).encode() + codec.dumps(work.needs.lengths).encode())
    mark.update(codec.dumps(work.needs.not_worked_out).encode())
    mark.update(codec.dumps(work.larder).encode())
    if (edition := work.conditions.figures.edition) != PROGRAM.edition:
        mark.update(edition.encode())
    return mark.hexdigest()


def keep_cuts(conn: sqlite3.Connection, work: EventWork, plan: CutPlan) -> None:
    """Keep the cut plan of an event."""
    with transaction(conn):
        cuts.put_plan(conn, work.event_id, plan, made_for=cut_mark(work), version=__version__)
