"""Stand while being made: the worst moment of the making order, at which stem, and what would keep it up."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core import making_order
from jolly_trellis.core.build import Build
from jolly_trellis.core.checks import stand_ledge
from jolly_trellis.core.checks.balance import DIRECTIONS
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.making_order import TIP_MAKING, Margins, Order, Work
from jolly_trellis.core.piece import Counterweight, StemRef
from jolly_trellis.core.quantities import Quantity, angle, length, mass, phrase, ratio
from jolly_trellis.core.units import round_up
from jolly_trellis.core.verdicts import Finding, Sense, finding

_BY_ANGLE, _BY_LEDGE, _BY_SEAT = range(3)


def judge_making(build: Build) -> list[Finding]:
    """The step of the making order that comes nearest to a fall, in the order kept or the usual one.

    A prop that somebody has entered holds it until the last stem; then only the finished piece counts.
    """
    if _not_judged(build):
        return []
    work = making_order.lay_out(build)
    order, _ = making_order.kept_order(work, build.piece.making.order)
    margins = making_order.walk(work, order)
    return [_finding(build, work, order, margins)]


def candidates(build: Build) -> list[Candidate]:
    """Another order; a weight tied on before the stem that tips it; a prop until the last stem."""
    piece = build.piece
    if _not_judged(build):
        return []
    work = making_order.lay_out(build)
    order, _ = making_order.kept_order(work, piece.making.order)
    margins = making_order.walk(work, order)
    worst = int(margins.use.argmax())
    if margins.use[worst] <= 1.0:
        return []
    found = making_order.find_order(work)
    tried = []
    if found.worst < float(margins.use[worst]) - 1e-9:
        kept = tuple(work.refs[row] for row in found.order.tolist())
        words = "Make it in an order that keeps its balance"
        words += ", some stems before their usual turn." if found.crossed else "."
        ordered = replace(piece, making=replace(piece.making, order=kept))
        tried.append(Candidate(key="order", say=phrase(words), piece=ordered))
    tried += _weights(build, work, margins, order, worst)
    propped = replace(piece, making=replace(piece.making, propped=True))
    say = phrase("Prop it, or have it held, until the last stem is in.")
    tried.append(Candidate(key="prop", say=say, piece=propped))
    return tried


def _not_judged(build: Build) -> bool:
    """Nothing to tip: no stems, a prop until the last one, or a bouquet, which is made in the hand."""
    piece = build.piece
    return len(build.placement.stems) == 0 or piece.making.propped or piece.bouquet is not None


def name_of(build: Build, ref: StemRef) -> tuple[str, int, int]:
    """A stem in words: its variety, which of that line's rows it is from 1, and how many rows the line has."""
    made = build if ref.vessel == 0 else build.companions[ref.vessel - 1]
    variety = made.conditions.varieties[made.piece.recipe[ref.line].variety].name
    rows = [each for each in making_order.refs_of(made, ref.vessel) if each.line == ref.line]
    return variety, ref.nth + 1, len(rows)


def falls(margins: Margins, step: int) -> bool:
    """Whether it has gone over at a step: past its footing, or leaning out with more than holds it."""
    return bool(margins.tip_angle_rad[step] <= 0 or margins.ledge_ratio[step] < 1.0)


def governed_by(margins: Margins, step: int) -> int:
    """Which margin is nearest its limit at a step: tip angle, ledge ratio, or the mechanic's moment."""
    by_angle = TIP_MAKING.value / max(float(margins.tip_angle_rad[step]), 1e-9)
    by_ledge = stand_ledge.MAKING_FACTOR.value / max(float(margins.ledge_ratio[step]), 1e-9)
    return int(np.argmax([by_angle, by_ledge, float(margins.seat_use[step])]))


def towards(index: int) -> str:
    """A compass index in words: to the front, right, back or left."""
    names = ("to the front", "to the right", "to the back", "to the left")
    return names[round(index / DIRECTIONS * 4) % 4]


def _finding(build: Build, work: Work, order: Order, margins: Margins) -> Finding:
    step = int(margins.use.argmax())
    over = np.flatnonzero(margins.use > 1.0)
    first = int(over[0]) if len(over) else step
    when = "Before any stem is in"
    if first > 0:
        variety, nth, rows = name_of(build, work.refs[order[first - 1]])
        when = f"While being made, at {variety} {nth} of {rows},"
    kind = governed_by(margins, first)
    value: Quantity
    if kind == _BY_ANGLE:
        value, limit = angle(max(float(margins.tip_angle_rad[first]), 0.0)), TIP_MAKING.quantity
        says = f"it tips {towards(int(margins.towards[first]))} when tilted {{v}}; {{limit}} is needed."
    elif kind == _BY_LEDGE:
        value, limit = ratio(float(margins.ledge_ratio[first])), stand_ledge.MAKING_FACTOR.quantity
        says = "it is held {v} times against falling off the ledge; {limit} is needed."
    else:
        value, limit = ratio(float(margins.seat_use[first])), ratio(1.0)
        says = "the stems so far turn their mechanic with {v} of what it takes; {limit} is the most."
    if falls(margins, first):
        says = "it falls: " + says
    sense: Sense = "at most" if kind == _BY_SEAT else "at least"
    reason = phrase(f"{when} {says}", v=value, limit=limit)
    return finding(check="making", case="heavy", value=value, limit=limit, sense=sense, reason=reason)


def _weights(build: Build, work: Work, margins: Margins, order: Order, worst: int) -> list[Candidate]:
    """A weight tied on opposite the side it tips to, before the first stem that needs it."""
    piece = build.piece
    first = int(np.flatnonzero(margins.use > 1.0)[0])
    before = "before the first stem"
    if first > 0:
        variety, nth, _ = name_of(build, work.refs[order[first - 1]])
        before = f"before {variety} {nth} goes in"
    on_ledge = piece.setting.where == "ledge"
    away = stand_ledge.weight_place_m(piece)
    if away is None:
        return []
    azimuth = (
        math.pi if on_ledge else (2 * math.pi * int(margins.towards[worst]) / DIRECTIONS + math.pi) % (2 * math.pi)
    )
    kept = piece.counterweight.mass_kg if piece.counterweight is not None and piece.counterweight.tied else 0.0
    tried = []
    for kg in (0.2, 0.4, 0.7, 1.1, 1.6, 2.4, 3.5, 5.0):
        total = round(round_up(kept + kg, 0.02), 3)
        weight = Counterweight(mass_kg=total, away_m=away, azimuth_rad=round(azimuth, 4))
        side = "at the back" if on_ledge else "on the side it leans away from"
        say = phrase(
            f"Tie {{m}} to the vessel {side}, {{x}} from its middle, {before}.", m=mass(total), x=length(away)
        )
        key = f"weight-{round(100 * total)}"
        tried.append(Candidate(key=key, say=say, piece=replace(piece, counterweight=weight)))
    return tried
