"""The book of time: one entry is one task, with what must come first, where, whose hands, how long, when and why.

The run sheet, the days before, the water rounds, the calendar, the pack, the price of labour and the headline read
it; none of them reckons minutes or days itself.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Literal, get_args

from jolly_trellis.core.quantities import Phrase

Stage = Literal[
    "collect",
    "hire",
    "condition",
    "mechanics",
    "green",
    "flower",
    "tubes",
    "load",
    "drive",
    "install",
    "fill",
    "on site",
    "top up",
    "strike",
    "return",
]
Where = Literal["supplier", "workshop", "road", "venue"]
Skill = Literal["drives", "ladders", "knots"]
SKILLS: tuple[Skill, ...] = get_args(Skill)
MAKING: tuple[Stage, ...] = ("mechanics", "green", "tubes", "flower", "on site")


@dataclass(frozen=True, slots=True, kw_only=True)
class Wait:
    """What must be done first, and how many minutes must pass after it, as stems that drink or open need them."""

    task: str
    minutes: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Task:
    """One thing to do.

    `key` is `<part or place>:<what>:<number>` and stays while quantities change. `soonest` and `latest` bound when it
    starts and ends, `after` is what it waits for. `at` is a fixed start: a top-up's, or one set by hand. `windows` are
    the only spans it may lie in, none for any. `skills` are what one of its hands must be able to; `people` are who
    it must be, by their place in the crew, `among` whom its hands are chosen from, None for anybody; `by` names who
    else does it, where nobody of the crew does. `why` says what bounds it; `variety` names the flower whose life
    does; `varieties` are those it is about. `gate` says what must be cleared before it may be done at all, None for
    nothing.
    """

    key: str
    stage: Stage
    name: str
    where: Where
    minutes: int
    hands: int = 1
    skills: tuple[Skill, ...] = ()
    people: tuple[int, ...] | None = None
    among: tuple[int, ...] | None = None
    by: str = ""
    soonest: datetime | None = None
    latest: datetime | None = None
    windows: tuple[tuple[datetime, datetime], ...] = ()
    after: tuple[Wait, ...] = ()
    at: datetime | None = None
    piece_id: int | None = None
    variety: str | None = None
    varieties: tuple[str, ...] = ()
    why: str = ""
    gate: Phrase | None = None

    @property
    def person_minutes(self) -> int:
        """Minutes of all hands together."""
        return self.minutes * self.hands


@dataclass(frozen=True, slots=True, kw_only=True)
class TimeBook:
    """Every task of an event, in the order of the work."""

    tasks: tuple[Task, ...]

    def by_key(self) -> dict[str, Task]:
        """The tasks by their keys."""
        return {each.key: each for each in self.tasks}

    def of(self, stages: Iterable[Stage]) -> tuple[Task, ...]:
        """The tasks of some stages."""
        wanted = frozenset(stages)
        return tuple(each for each in self.tasks if each.stage in wanted)

    def person_minutes(self, stages: Iterable[Stage] | None = None, *, piece_id: int | None = None) -> int:
        """Minutes of all hands in some stages, of one part where it is named."""
        among = self.tasks if stages is None else self.of(stages)
        return sum(each.person_minutes for each in among if piece_id is None or each.piece_id == piece_id)


def key_of(of: str | int, what: str, number: int = 1) -> str:
    """The key of a task: of a part by its number, or of a place or supplier by its name, small letters and dashes."""
    return f"{of}:{what.replace(' ', '-')}:{number}"
