"""What is still to settle in an event beside its verdicts: facts of the brief, cuts, prices, the day."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.event import facts
from jolly_trellis.core.event.buying.orders import CameIn, not_as_ordered, orders_of
from jolly_trellis.core.event.buying.seasons import out_of_season
from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.cost.currencies import asked_in
from jolly_trellis.core.event.day.day import Day
from jolly_trellis.core.event.needs.hires import out_of_time
from jolly_trellis.core.event.needs.needed import ThingNeed
from jolly_trellis.core.event.recipes.recipes import side_shoots, too_few_shoots
from jolly_trellis.core.event.returning.reservations import Shortfall, away
from jolly_trellis.core.event.tasks.asked import asked_of
from jolly_trellis.core.event.tasks.payment import buying_gate
from jolly_trellis.core.missing import Fact, listed
from jolly_trellis.core.plan.facts import ENDS_AT
from jolly_trellis.core.quantities import Phrase, phrase
from jolly_trellis.services import event_work, long_work
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.quoting import standing_of
from jolly_trellis.services.reserving import shortfalls_of
from jolly_trellis.store import cuts, ticks

Screen = Literal["roll", "lists", "cost", "day", "brief"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ToSettle:
    """One thing to settle and the screen of the event that settles it."""

    screen: Screen
    say: Phrase


def to_settle(conn: sqlite3.Connection, work: EventWork, cost: EventCost) -> tuple[ToSettle, ...]:
    """What is known to be open, without working anything out anew: the kept cut plan, the last day, prices, the brief.

    Conflicts of a day come first, then what cannot be cut, then what has no price, then facts that are missing.
    """
    found: list[ToSettle] = []
    running: Running[Day] | None = long_work.find(("day", work.made_for))
    if running is not None and running.best is not None:
        found += [ToSettle(screen="day", say=each.say) for each in running.best.conflicts]
    kept = cuts.get_plan(conn, work.event_id)
    if kept is not None:
        found += [ToSettle(screen="roll", say=each) for plan in kept[0].materials for each in plan.missing]
        if kept[1] != event_work.cut_mark(work):
            found.append(ToSettle(screen="roll", say=phrase("The event has changed since its cuts were planned.")))
    found += [ToSettle(screen="lists", say=each) for each in _gone(work)]
    found += [ToSettle(screen="lists", say=_short(each)) for each in shortfalls_of(conn, work)]
    found += [ToSettle(screen="lists", say=each) for each in out_of_time(work.job.hires, away(work.job))]
    found += [ToSettle(screen="lists", say=each) for each in _came_in(conn, work)]
    found += [ToSettle(screen="lists", say=each) for each in out_of_season(work.job, work.needs.stems, work.varieties)]
    wanted = {each.variety for each in work.needs.stems}
    own = [each for key, each in work.conditions.varieties.items() if key in wanted]
    found += [ToSettle(screen="lists", say=each) for each in asked_in(own, work.job.costing.currency)]
    shoots = side_shoots(work.needs.stems, work.varieties, work.needs.shoots)
    found += [ToSettle(screen="lists", say=each) for each in too_few_shoots(shoots)]
    asks = asked_of(work.job, work.made, work.varieties)
    found += [ToSettle(screen="brief", say=each.say) for each in asks if each.answer is None]
    found += [ToSettle(screen="cost", say=each) for each in _quoted(work, cost)]
    if work.made.works and cost.missing:
        more = f" and {len(cost.missing) - 2} more" if len(cost.missing) > 2 else ""
        names = listed(cost.missing[:2])
        found.append(ToSettle(screen="cost", say=phrase("Not known: {names}{more}.", names=names, more=more)))
    if cost.unsaid:
        found.append(
            ToSettle(
                screen="cost", say=phrase("Nobody has said what it costs: {names}.", names="; ".join(cost.unsaid))
            )
        )
    missing = [fact.missing() for absent, fact in _facts(work) if absent]
    if work.made.works and missing:
        found.append(
            ToSettle(screen="brief", say=phrase("The brief does not say {names}.", names=listed(missing, ", ")))
        )
    return tuple(found)


def _gone(work: EventWork) -> Iterator[Phrase]:
    """What a plan takes from the stores and they do not have any more."""
    there = work.shelves.vessels.keys() | work.shelves.stands.keys()
    gone: dict[str, ThingNeed] = {}
    for need in work.needs.things:
        if need.thing.startswith(f"{need.kind}:") and need.thing not in there:
            gone.setdefault(need.thing, need)
    for need in gone.values():
        yield phrase(
            "{name} of “{piece}” is in the stores no longer: its measures are kept, and none of it is counted.",
            name=need.name,
            piece=need.piece,
        )


def _came_in(conn: sqlite3.Connection, work: EventWork) -> Iterator[Phrase]:
    """Goods that came in otherwise than they were ordered."""
    ticked = ticks.ticks(conn, work.event_id, "goods in")
    came = {each.line: CameIn(number=each.number, state=each.state) for each in ticked}
    if came:
        yield from not_as_ordered(orders_of(event_work.shopping_of(conn, work)), came)


def _quoted(work: EventWork, cost: EventCost) -> Iterator[Phrase]:
    """Today's price beside the one that was accepted, and a deposit that is waited for."""
    standing = standing_of(work, cost)
    if standing.held is not None and standing.held.more:
        more = standing.held.more
        words = "The plan asks {by} {currency} more than the client accepted."
        if more < 0:
            words = "The plan asks {by} {currency} less than the client accepted."
        yield phrase(words, by=f"{abs(more)}", currency=standing.held.currency)
    gate = buying_gate(work.job)
    if gate is not None:
        yield gate


def _short(found: Shortfall) -> Phrase:
    return phrase(
        "{name}: {wanted} are wanted at once on {day}, and there are {here}.",
        name=found.said or found.name,
        wanted=found.wanted,
        day=f"{found.since:%d %b}",
        here=found.here,
    )


def _facts(work: EventWork) -> tuple[tuple[bool, Fact], ...]:
    job = work.job
    return (
        (job.filled_at is None, facts.FILLED),
        (job.ends_at is None, ENDS_AT),
        (job.air is None, facts.PLACE_AIR),
        (not job.crew, facts.CREW),
    )
