"""How a studio works where the trade disagrees: each question, its schools, and why the default is the default."""

from dataclasses import dataclass
from typing import Literal

WireFinish = Literal["coated", "galvanized", "bare"]
FixingSchool = Literal["worked out", "tape", "putty", "none"]
FillSchool = Literal["worked out", "half", "full"]
PatternSchool = Literal["one point", "several points"]
FrogSchool = Literal["worked out", "always stuck"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Practice:
    """A studio's answers for one event, and the switches that rule mechanics out."""

    wire: WireFinish = "coated"
    fixing: FixingSchool = "worked out"
    fill: FillSchool = "worked out"
    pattern: PatternSchool = "one point"
    frog: FrogSchool = "worked out"
    no_single_use_plastic: bool = False
    only_in_store: bool = False

    @property
    def several_points(self) -> bool:
        """Whether stems seem to grow from several points."""
        return self.pattern == "several points"


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """One disagreement of the trade: the field of `Practice`, the question, its answers, and why the default."""

    field: str
    question: str
    answers: tuple[str, ...]
    why: str


SCHOOLS: tuple[School, ...] = (
    School(
        field="wire",
        question="Which wire goes in water",
        answers=("coated", "galvanized", "bare"),
        why="Coated is soft on hands and stems and does not rust; bare wire rusts and stains, and is warned about.",
    ),
    School(
        field="fixing",
        question="What fixes the mechanic to the vessel",
        answers=("worked out", "tape", "putty", "none"),
        why="The stems' net moment decides: the fewest strips that hold, and none where the wire's own spring does.",
    ),
    School(
        field="fill",
        question="How full the vessel is on show",
        answers=("worked out", "half", "full"),
        why="Bench, road and table want three different levels, so each is worked out.",
    ),
    School(
        field="pattern",
        question="Where stems seem to grow from",
        answers=("one point", "several points"),
        why="One point suits most vessels; several suit long or wide ones. The form of a piece can say otherwise.",
    ),
    School(
        field="frog",
        question="When a frog is stuck down",
        answers=("worked out", "always stuck"),
        why="Its weight against the stems' moment decides; tall work is stuck down in any case.",
    ),
)
