"""What comes home from an event: vessels, stands, frogs, finished armatures; and what goes back to its lender."""

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_trellis.core.event.job import Job, Made, RigWork
from jolly_trellis.core.event.keys import line_key
from jolly_trellis.core.event.needs.hires import hired
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs, SheetNeed, ThingKind
from jolly_trellis.core.event.needs.shelves import Shelves

NEW = "made-"  # what the keys of lines begin with that are armatures made for this event


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetShape:
    """How a finished armature was made: as what, of which netting, and the sheet that was cut for one, m."""

    made_as: str
    netting: str
    width_m: float
    length_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Return:
    """One line that comes home: which kind of thing, what tells it from others, for which part (0: several), how many
    went out.

    `shape` is that of a finished armature that was made for this event, None of what was in the stores.
    """

    key: str
    kind: ThingKind
    thing: str
    said: str
    part: int
    number: int
    shape: SheetShape | None = None


def returns_of(made: Made, needs: Needs, job: Job, shelves: Shelves) -> tuple[Return, ...]:
    """Everything that comes home to stay. What is hired goes back to its lender and is in no line.

    Source: the needs; of a part with several sheets the largest tells one from another.
    """
    found = list(_things(needs, job, shelves))
    wanted: dict[str, int] = {}
    for each in needs.frogs:
        wanted[each.frog] = wanted.get(each.frog, 0) + each.quantity
    for key, number in wanted.items():
        said = shelves.frogs[key].name if key in shelves.frogs else key
        found.append(Return(key=f"frog-{key}", kind="frog", thing=key, said=said, part=FOR_ALL, number=number))
    hung = {work.id for work in made.works if isinstance(work, RigWork)}
    return (*found, *_made_now(needs, hung))


def _things(needs: Needs, job: Job, shelves: Shelves) -> Iterator[Return]:
    counts: dict[tuple[ThingKind, str], int] = {}
    names: dict[tuple[ThingKind, str], str] = {}
    for each in needs.things:
        counts[each.kind, each.thing] = counts.get((each.kind, each.thing), 0) + each.quantity
        names.setdefault((each.kind, each.thing), each.name)
    left = hired(job.hires)
    for (kind, thing), number in counts.items():
        by_hire = min(left.get(thing, 0), number)
        left[thing] = left.get(thing, 0) - by_hire
        known = shelves.armatures.get(thing) if kind == "armature" else None
        said = names[kind, thing] if known is None else known.name
        rest = number - by_hire
        if rest > 0:
            yield Return(key=line_key(kind, thing), kind=kind, thing=thing, said=said, part=FOR_ALL, number=rest)


def _made_now(needs: Needs, hung: set[int]) -> Iterator[Return]:
    """What was made anew and keeps its shape: sheets that last, and the netting of hung work."""
    largest: dict[int, SheetNeed] = {}
    for need in needs.sheets:
        if need.piece_id == FOR_ALL or (need.uses == 1 and need.piece_id not in hung):
            continue
        now = largest.get(need.piece_id)
        if now is None or _area(need) > _area(now):
            largest[need.piece_id] = need
    for need in largest.values():
        shape = SheetShape(
            made_as=need.name, netting=need.netting, width_m=need.sheet.width_m, length_m=need.sheet.length_m
        )
        yield Return(
            key=f"{NEW}{need.piece_id}",
            kind="armature",
            thing="",
            said=f"{need.name}, {need.piece}",
            part=need.piece_id,
            number=need.quantity,
            shape=shape,
        )


def _area(need: SheetNeed) -> float:
    return need.sheet.width_m * need.sheet.length_m
