"""What becomes of a part from the workshop to the end, as it is chosen: where it is made, cooled, handed over."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal

from jolly_trellis.core.ranges import Range, Text

MadeIn = Literal["the workshop", "its place", "sections"]
GoesIn = Literal["with the piece", "on site", "after the move", "last"]
WeightLaid = Literal["there", "at the bench and there"]
Afterwards = Literal["home", "stays", "given", "compost"]
GOES_IN: tuple[GoesIn, ...] = ("with the piece", "on site", "after the move", "last")


@dataclass(frozen=True, slots=True, kw_only=True)
class Cooled:
    """Days that a finished part waits in a cool room before the event, the air there, and the room's door, m.

    `temperature_c` None is the usual of a flower cooler; a door nobody measured is None.
    """

    days: Annotated[float, Range("ratio", 0, 7, above=True)]
    temperature_c: Annotated[float | None, Range("temperature", -5, 25)] = None
    door_height_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    door_width_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Handover:
    """To whom a part is handed, where, and when by the event's clock, ISO 8601 without a zone; None not known."""

    to: Annotated[str, Text(80, least=1)]
    where: Annotated[str, Text(120)] = ""
    at: Annotated[str | None, Text(19)] = None

    def local(self) -> datetime | None:
        """When, by the clock of the event's place; None where nobody said, or what was said is no day and time."""
        try:
            found = None if self.at is None else datetime.fromisoformat(self.at)
        except ValueError:
            return None
        whole = found is not None and found.tzinfo is None and len(self.at or "") >= len("2027-05-15T14:30")
        return found if whole else None


@dataclass(frozen=True, slots=True, kw_only=True)
class Passage:
    """The choices that a part's acts follow from.

    `made` tells where it is put together: in the workshop, where it stands, or in sections that are joined there.
    `greened_h` is how long before its flowers its greens go in. A weight that it counts on is laid `there`, or stands
    at the bench too, carried apart. `afterwards` is what becomes of it at strike.
    """

    made: MadeIn = "the workshop"
    greened_h: Annotated[float, Range("duration", 0, 96)] = 0.0
    cooled: Cooled | None = None
    weight: WeightLaid | None = None
    handover: Handover | None = None
    afterwards: Afterwards = "home"
