"""What people may be asked: hours of work, the span of a day, breaks, rest; national law and agreements go before.

A working day runs from four in the morning, so that a strike after midnight belongs to the evening before it.
"""

from bisect import insort
from collections.abc import Iterable
from dataclasses import dataclass, field

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.time import Skill, Stage
from jolly_trellis.core.provenance import ESTIMATE, Provenance

SLOT_MIN = 5
DAY_BEGINS_H = 4

_LAW = Provenance(kind="published", source="Directive 2003/88/EC, Article 3: 11 hours of rest in every 24")
_BREAK = Provenance(kind="published", source="Directive 2003/88/EC, Article 4: a break where a day is over 6 hours")
WORK_MOST = rule("Work of one person on a day, at most", "duration", 10.0, ESTIMATE)
SPAN_MOST = rule("From the first to the last task of one person on a day, at most", "duration", 12.0, ESTIMATE)
REST_LEAST = rule("Rest between two days of one person, at least", "duration", 11.0, _LAW)
BREAK_BEFORE = rule("A break comes before so much work", "duration", 6.0, _BREAK)
BREAK_LEAST = rule("A break is at least", "minutes", 30, ESTIMATE)

Interval = tuple[int, int]


def in_slots(hours: float) -> int:
    """Hours as slots of five minutes."""
    return round(hours * 60 / SLOT_MIN)


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """What may be asked of one person, in slots: work and span of a day, work without a pause, pause, rest."""

    work: int
    span: int
    unbroken: int
    pause: int
    rest: int


def limits() -> Limits:
    """What may be asked, by the figures that are open."""
    return Limits(
        work=in_slots(WORK_MOST.value),
        span=in_slots(SPAN_MOST.value),
        unbroken=in_slots(BREAK_BEFORE.value),
        pause=round(BREAK_LEAST.value / SLOT_MIN),
        rest=in_slots(REST_LEAST.value),
    )


@dataclass(slots=True)
class Person:
    """One of the crew while a sheet is made: what they can do, when they are there, and what they do already.

    Times are slots, from 0. `shift` has a span for each working day, None for any time; `days` what is done on each,
    in order. `shuns` are the stages of work that are not theirs; `travel` slots of the way to the place of the event.
    `busy` has a bit for each slot that is taken; `coming` and `going` for those of the way after what ends and before
    what begins, by whether that is at the place of the event; `overs` what a day is over already.
    """

    name: str
    skills: frozenset[Skill]
    shift: tuple[Interval, ...] | None
    paid: bool = True
    shuns: frozenset[Stage] = frozenset()
    days: dict[int, list[Interval]] = field(default_factory=dict)
    limits: Limits = field(default_factory=limits)
    travel: int = 0
    busy: int = 0
    coming: dict[bool, int] = field(default_factory=lambda: {True: 0, False: 0})
    going: dict[bool, int] = field(default_factory=lambda: {True: 0, False: 0})
    overs: dict[int, int] = field(default_factory=dict)

    def free(self, start: int, end: int, begins: bool, ends: bool) -> bool:
        """Whether nothing else is done then, and there is time to come to where it begins and go from where it ends.

        Args:
            begins, ends: whether it begins and ends at the place of the event; the way there only ends there.
        """
        return not (self.busy | self.coming[not begins] | self.going[not ends]) & _bits(start, end)

    def blocked(self, size: int, begins: bool, ends: bool) -> int:
        """A bit for each start at which `free` says no for something that long."""
        return spread(self.busy | self.coming[not begins] | self.going[not ends], size)

    def take(self, day: int, start: int, end: int, begins: bool, ends: bool) -> None:
        """Do something then."""
        insort(self.days.setdefault(day, []), (start, end))
        self.busy |= _bits(start, end)
        self.coming[ends] |= _bits(end, end + self.travel)
        self.going[begins] |= _bits(max(0, start - self.travel), start)
        for each in (day - 1, day, day + 1):
            self.overs.pop(each, None)

    def over(self, day: int, start: int, end: int) -> int:
        """How many slots more would be over what may be asked, were something done then as well."""
        before = self.overs.get(day)
        if before is None:
            before = self.overs[day] = sum(excess(self.days, day, self.limits))
        own = self.days.get(day, [])
        now = {day: sorted([*own, (start, end)])}
        for each in (day - 1, day + 1):
            if each in self.days:
                now[each] = self.days[each]
        return sum(excess(now, day, self.limits)) - before + self.outside(start, end)

    def outside(self, start: int, end: int) -> int:
        """Slots of something that lie outside the hours they come for."""
        if self.shift is None:
            return 0
        inside = sum(max(0, min(end, goes) - max(start, comes)) for comes, goes in self.shift)
        return end - start - inside


def excess(days: dict[int, list[Interval]], day: int, most: Limits) -> tuple[int, int, int, int]:
    """Slots of a day over the most work, over the longest span, of breaks and of rest that are missing.

    Source: `Limits`; a break is a gap as long as a pause.
    """
    done = days.get(day)
    if not done:
        return 0, 0, 0, 0
    first = last = before = done[0][0]
    work = run = unbroken = 0
    for start, end in done:
        if start - before >= most.pause:
            if run > most.unbroken:
                unbroken += run - most.unbroken
            run = 0
        work += end - start
        run += end - start
        before = end
        if end > last:
            last = end
    if run > most.unbroken:
        unbroken += run - most.unbroken
    lacks = 0
    if earlier := days.get(day - 1):
        lacks += max(0, most.rest - (first - max(end for _, end in earlier)))
    if later := days.get(day + 1):
        lacks += max(0, most.rest - (later[0][0] - last))
    return max(0, work - most.work), max(0, last - first - most.span), unbroken, lacks


def _bits(start: int, end: int) -> int:
    """A bit for each slot from a start to an end."""
    return ((1 << (end - start)) - 1) << start


def spread(bits: int, size: int) -> int:
    """A bit for each start from which so many slots hold at least one of some bits."""
    have = 1
    while have < size:
        step = min(have, size - have)
        bits |= bits >> step
        have += step
    return bits


def bits_of(spans: Iterable[Interval]) -> int:
    """A bit for each slot of some spans."""
    found = 0
    for start, end in spans:
        if end > start:
            found |= _bits(max(0, start), end)
    return found
