"""What people may be asked: hours of work, the span of a day, breaks, rest; national law and agreements go before.

A working day runs from four in the morning, so that a strike after midnight belongs to the evening before it.
"""

from bisect import insort
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from itertools import pairwise

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.time import Skill
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


@dataclass(slots=True)
class Person:
    """One of the crew while a sheet is made: what they can do, when they are there, and what they do already.

    Times are slots. `shift` has a span for each working day, None for any time; `days` what is done on each, in order;
    `at` what is done elsewhere, by whether one is at the place of the event.
    """

    name: str
    skills: frozenset[Skill]
    shift: tuple[Interval, ...] | None
    paid: bool = True
    days: dict[int, list[Interval]] = field(default_factory=dict)
    at: dict[bool, list[tuple[int, int, bool]]] = field(default_factory=dict)

    def free(self, start: int, end: int, days: Iterable[int], *, there: bool | None = None, travel: int = 0) -> bool:
        """Whether nothing else is done then, and there is time to come from where it is done, or to go there.

        Args:
            there: whether it is done at the place of the event; None on the road, where nobody need travel beside.
            travel: slots of the way.
        """
        for day in days:
            if any(s < end and start < e for s, e in self.days.get(day, ())):
                return False
        if there is None or travel == 0:
            return True
        return not any(
            other is not there and s - travel < end and start < e + travel for s, e, other in self.at.get(there, ())
        )

    def take(self, day: int, start: int, end: int, *, there: bool | None = None) -> None:
        """Do something then."""
        insort(self.days.setdefault(day, []), (start, end))
        if there is not None:
            self.at.setdefault(not there, []).append((start, end, there))

    def over(self, day: int, start: int, end: int) -> int:
        """How many slots more would be over what may be asked, were something done then as well."""
        before = excess(self.days, day)
        now = {
            **{each: self.days[each] for each in (day - 1, day + 1) if each in self.days},
            day: sorted([*self.days.get(day, ()), (start, end)]),
        }
        return sum(excess(now, day)) - sum(before) + self.outside(start, end)

    def outside(self, start: int, end: int) -> int:
        """Slots of something that lie outside the hours they come for."""
        if self.shift is None:
            return 0
        inside = sum(max(0, min(end, goes) - max(start, comes)) for comes, goes in self.shift)
        return end - start - inside


def excess(days: dict[int, list[Interval]], day: int) -> tuple[int, int, int, int]:
    """Slots of a day over the most work, over the longest span, of breaks and of rest that are missing."""
    done = days.get(day)
    if not done:
        return 0, 0, 0, 0
    work = sum(end - start for start, end in done)
    first, last = done[0][0], max(end for _, end in done)
    rest = in_slots(REST_LEAST.value)
    lacks = 0
    if earlier := days.get(day - 1):
        lacks += max(0, rest - (first - max(end for _, end in earlier)))
    if later := days.get(day + 1):
        lacks += max(0, rest - (later[0][0] - last))
    return (
        max(0, work - in_slots(WORK_MOST.value)),
        max(0, last - first - in_slots(SPAN_MOST.value)),
        _unbroken(done),
        lacks,
    )


def _unbroken(done: list[Interval]) -> int:
    """Slots of work beyond the longest there may be without a break. Source: breaks are gaps of half an hour."""
    most, gap = in_slots(BREAK_BEFORE.value), round(BREAK_LEAST.value / SLOT_MIN)
    return sum(max(0, length - most) for length in _runs(done, gap))


def _runs(done: list[Interval], gap: int) -> Iterator[int]:
    """Slots of work between breaks."""
    length = done[0][1] - done[0][0]
    for (_, before), (start, end) in pairwise(done):
        if start - before >= gap:
            yield length
            length = 0
        length += end - start
    yield length
