"""What is said of an event in one breath: each thing of it begun as its start begins it, sized and filled."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from jolly_trellis.core.event.parts import AnyPart, Part, hangs, in_vessels
from jolly_trellis.core.event.starting.resizing import resized
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.say.clauses import Thing, things_of
from jolly_trellis.core.say.line import Asked, Heard, Line, Words
from jolly_trellis.core.say.say_it import Around, read_piece
from jolly_trellis.core.say.stems_said import merged, take_stems
from jolly_trellis.core.say.words import SIZE, SIZE_ALONE
from jolly_trellis.core.units import parse_length

Begin = Callable[[str, Vessel | None], Part]
_MOST = 40


@dataclass(frozen=True, slots=True, kw_only=True)
class SaidPart:
    """One thing that was said: what it is begun as, what was heard, what was not, what is asked before it is read."""

    part: AnyPart
    heard: tuple[Heard, ...]
    unheard: tuple[Words, ...]
    asked: tuple[Asked, ...]


def say_all(text: str, around: Around, begin: Begin) -> tuple[SaidPart, ...]:
    """Read "12 low bowls 20 across, 9 roses; ring 90 cm, 60 baby's breath": several things, one after another.

    Args:
        text: as typed, at most a few thousand characters; at most forty things of it are read.
        begin: what a start begins as, by its key, in a vessel; None is one nobody has measured.
    Returns: each thing with what was understood of it; nothing is saved.
    """
    line = Line.of(text)
    return tuple(_said(line, thing, around, begin) for thing in things_of(line, around.vessels)[:_MOST])


def _said(line: Line, thing: Thing, around: Around, begin: Begin) -> SaidPart:
    start, end = thing.clauses[0].start, thing.clauses[-1].end
    part = begin(thing.start or "vessel", None)
    if in_vessels(part):
        read = read_piece(line, thing, part, around)
        part = read if thing.start else _to_its_vessel(part, read, begin)
    elif hangs(part):
        part = _rig(line, thing, around, part)
    return SaidPart(
        part=part,
        heard=line.heard_in(start, end),
        unheard=tuple(line.unheard(start, end)),
        asked=tuple(each for each in line.asked if start <= each.start < end),
    )


def _to_its_vessel(blank: Piece, read: Piece, begin: Begin) -> Piece:
    """A piece named after its vessel; its sizes that were not said are the usual ones over that vessel."""
    usual = begin("vessel", read.vessel)
    if not in_vessels(usual):
        return read
    sizes = {
        name: getattr(usual.envelope, name)
        for name in ("height_m", "width_m", "depth_m")
        if getattr(read.envelope, name) == getattr(blank.envelope, name)
    }
    return replace(read, name=read.vessel.name, envelope=replace(read.envelope, **sizes))


def _rig(line: Line, thing: Thing, around: Around, rig: Rig) -> Rig:
    """Hung or lying work with the first size that is said of it, and its stems."""
    sized, said = False, list[RecipeLine]()
    for clause in thing.clauses:
        found = SIZE.search(line.rest(clause.start, clause.end)) or SIZE_ALONE.search(
            line.rest(clause.start, clause.end)
        )
        size = parse_length(found["size"], system=around.system) if found else None
        if found and size and size > 0 and not sized:
            sized, rig = True, resized(rig, size)
            at = clause.start + found.start()
            line.take(at, at + len(found[0]), phrase("size {size}", size=length(size)))
        for sure in (True, False):
            said += take_stems(line, clause, around.conditions.varieties, sure=sure)
    return replace(rig, recipe=merged((), said))
