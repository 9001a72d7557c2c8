"""Stand while being made: the worst moment of the making order, at which stem, and what would keep it up."""

import math
from collections import Counter
from dataclasses import replace

import numpy as np

from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.build import build as build_again
from jolly_trellis.core.checks import making_order, making_search, stand_ledge
from jolly_trellis.core.checks.balance import DIRECTIONS, compass
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.making_order import TIP_MAKING, Margins, Order, Work
from jolly_trellis.core.checks.verdicts import Finding, Sense, finding
from jolly_trellis.core.plan.kinds import stands
from jolly_trellis.core.plan.piece import Counterweight
from jolly_trellis.core.quantities import Quantity, angle, joined, length, mass, phrase, ratio, volume, worded
from jolly_trellis.core.units import round_up

# Weights that keep it up are offered from the lightest; a second one leaves room to spare.
_ENOUGH = 2
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
    found = making_search.find_order(work)
    tried = []
    if found.worst < float(margins.use[worst]) - 1e-9:
        kept = tuple(work.refs[row] for row in found.order.tolist())
        words = "Make it in an order that keeps its balance."
        if found.crossed:
            words = "Make it in an order that keeps its balance, some stems before their usual turn."
        ordered = replace(piece, making=replace(piece.making, order=kept))
        tried.append(Candidate(key="order", say=phrase(words), piece=ordered))
    if piece.making.water_last:
        filled = replace(piece, making=replace(piece.making, water_last=False))
        say = phrase(
            "Put the water in first: {w} to steady it.", w=volume(build.water.volume_at_l(piece.water_level_m))
        )
        tried += _in_order(build, Candidate(key="water-first", say=say, piece=filled))
    tried += _weights(build, work, margins, order, worst)
    propped = replace(piece, making=replace(piece.making, propped=True))
    say = phrase("Prop it, or have it held, until the last stem is in.")
    tried.append(Candidate(key="prop", say=say, piece=propped))
    return tried


def _not_judged(build: Build) -> bool:
    """Nothing to tip: no stems, a prop until the last one, or a bouquet, which is made in the hand."""
    piece = build.piece
    stems = sum(len(each.placement.stems) for each in (build, *build.companions))
    return stems == 0 or piece.making.propped or piece.carried


def name_of(build: Build, work: Work, order: Order, step: int) -> tuple[str, int, int]:
    """The stem that goes in at a step, in words: its variety, the how-manieth of its line it is, and of how many.

    Args:
        step: 1 for the first stem.
    """
    ref = work.refs[order[step - 1]]
    made = build if ref.vessel == 0 else build.companions[ref.vessel - 1]
    variety = made.conditions.varieties[made.piece.recipe[ref.line].variety].name
    return variety, *counted(work, order)[step - 1]


def counted(work: Work, order: Order) -> list[tuple[int, int]]:
    """For each step, the how-manieth stem of its line goes in, and of how many."""
    of = Counter((each.vessel, each.line) for each in work.refs)
    so_far: Counter[tuple[int, int]] = Counter()
    found = []
    for row in order.tolist():
        line = work.refs[row].vessel, work.refs[row].line
        so_far[line] += 1
        found.append((so_far[line], of[line]))
    return found


def falls(margins: Margins, step: int) -> bool:
    """Whether it has gone over at a step: past its footing, or leaning out with more than holds it."""
    return bool(margins.tip_angle_rad[step] <= 0 or margins.ledge_ratio[step] < 1.0)


def first_over(margins: Margins) -> int | None:
    """The first step past its limit while being made, None where none is."""
    over = np.flatnonzero(margins.use > 1.0)
    return int(over[0]) if len(over) else None


def first_fall(margins: Margins) -> int | None:
    """The first step at which it has gone over, None where it never does."""
    return next((step for step in range(len(margins.use)) if falls(margins, step)), None)


def worst_step(margins: Margins) -> int:
    """The step that comes nearest to a fall, or is farthest past its limit; the first of several alike."""
    return int(margins.use.argmax())


def governed_by(margins: Margins, step: int) -> int:
    """Which margin is nearest its limit at a step: tip angle, ledge ratio, or the mechanic's moment."""
    by_angle = TIP_MAKING.value / max(float(margins.tip_angle_rad[step]), 1e-9)
    by_ledge = stand_ledge.MAKING_FACTOR.value / max(float(margins.ledge_ratio[step]), 1e-9)
    return int(np.argmax([by_angle, by_ledge, float(margins.seat_use[step])]))


def _finding(build: Build, work: Work, order: Order, margins: Margins) -> Finding:
    first = worst_step(margins)
    when = phrase("Before any stem is in")
    if first > 0:
        when = phrase("While being made, at {stem},", stem=_named(build, work, order, first))
    kind = governed_by(margins, first)
    value: Quantity
    if kind == _BY_ANGLE:
        value, limit = angle(max(float(margins.tip_angle_rad[first]), 0.0)), TIP_MAKING.quantity
        says = "it tips {towards} when tilted {v}; {limit} is needed."
    elif kind == _BY_LEDGE:
        value, limit = ratio(float(margins.ledge_ratio[first])), stand_ledge.MAKING_FACTOR.quantity
        says = "it is held {v} times against falling off the ledge; {limit} is needed."
    else:
        value, limit = ratio(float(margins.seat_use[first])), ratio(1.0)
        says = "the stems so far turn their mechanic with {v} of what it takes; {limit} is the most."
    reason = phrase(says, v=value, limit=limit, towards=compass(int(margins.towards[first])))
    if falls(margins, first):
        reason = phrase("it falls: {reason}", reason=reason)
    reason = phrase("{when} {reason}", when=when, reason=reason)
    began = first_over(margins)
    if began is not None and began < first:
        before = phrase("before any stem is in")
        if began:
            before = phrase("at {stem}", stem=_named(build, work, order, began))
        reason = joined((reason, phrase("It is first past its limit {before}.", before=before)))
    sense: Sense = "at most" if kind == _BY_SEAT else "at least"
    return finding(check="making", case="heavy", value=value, limit=limit, sense=sense, reason=reason)


def _named(build: Build, work: Work, order: Order, step: int) -> str:
    """A stem of the making order in words: "rose 3 of 7"."""
    variety, nth, rows = name_of(build, work, order, step)
    return worded("{variety} {nth} of {rows}", variety=variety, nth=nth, rows=rows)


def _in_order(build: Build, steadied: Candidate) -> list[Candidate]:
    """A change that keeps it up in the order as it is, else in an order found for it; nothing where neither does."""
    made = build_again(steadied.piece, build.conditions)
    work = making_order.lay_out(made)
    order, _ = making_order.kept_order(work, steadied.piece.making.order)
    uses = making_order.walk(work, order).use
    if float(uses.max()) <= 1.0:
        return [steadied]
    if float(uses[[0, -1]].max()) > 1.0:
        return []
    found = making_search.find_order(work)
    if found.worst > 1.0:
        return []
    making = replace(steadied.piece.making, order=tuple(work.refs[row] for row in found.order.tolist()))
    say = joined((steadied.say, phrase("Make it in an order that keeps its balance.")))
    return [replace(steadied, say=say, piece=replace(steadied.piece, making=making))]


def _weights(build: Build, work: Work, margins: Margins, order: Order, worst: int) -> list[Candidate]:
    """A weight tied on opposite the side it tips to, before the first stem that needs it."""
    piece = build.piece
    first = first_over(margins) or 0
    before = "before the first stem"
    if first > 0:
        variety, nth, _ = name_of(build, work, order, first)
        before = worded("before {variety} {nth} goes in", variety=variety, nth=nth)
    on_ledge = piece.setting.where == "ledge"
    away = stand_ledge.weight_place_m(piece)
    if away is None or not stands(piece):
        return []
    azimuth = (
        math.pi if on_ledge else (2 * math.pi * int(margins.towards[worst]) / DIRECTIONS + math.pi) % (2 * math.pi)
    )
    kept = piece.counterweight.mass_kg if piece.counterweight is not None and piece.counterweight.tied else 0.0
    tried: list[Candidate] = []
    for kg in (0.3, 0.6, 1.2, 2.4, 4.0):
        total = round(round_up(kept + kg, 0.02), 3)
        weight = Counterweight(mass_kg=total, away_m=away, azimuth_rad=round(azimuth, 4))
        side = "at the back" if on_ledge else "on the side it leans away from"
        words = "Tie on {m} {side}, {x} from the middle, {before}."
        say = phrase(words, m=mass(total), x=length(away), side=side, before=before)
        key = f"weight-{round(100 * total)}"
        tried += _in_order(build, Candidate(key=key, say=say, piece=replace(piece, counterweight=weight)))
        if len(tried) == _ENOUGH:
            break
    return tried
