"""What would clear a rig: each act is done, worked out whole, and offered only where it is better for it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.piece import Conditions
from jolly_trellis.core.quantities import Phrase, length, mass, phrase
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.findings import BOND_FACTOR, WALKWAY
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.verdicts import State

_ORDER: tuple[State, ...] = ("fails", "cannot say", "tight", "holds")
_ROOM = 0.8
_ROUNDS = 4
_RAISE_STEP_M = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class RigFix:
    """One act that was tried on the rig and worked out again: `rig` is the rig after it."""

    key: str
    say: Phrase
    rig: Rig
    state_after: State
    utilisation_after: float | None


def fixes_of(rig: Rig, report: RigReport, conditions: Conditions) -> tuple[RigFix, ...]:
    """Acts that make a rig's verdict better, best first; none where it holds.

    Raises: CoreError: the rig cannot be.
    """
    if report.verdict.state == "holds":
        return ()
    found = []
    for key, say, changed in _candidates(rig, report, conditions):
        try:
            after = assess(changed, conditions)
        except CoreError:
            continue
        if _badness(after) < _badness(report):
            verdict = after.verdict
            fix = RigFix(
                key=key, say=say, rig=changed, state_after=verdict.state, utilisation_after=verdict.utilisation
            )
            found.append((_badness(after), fix))
    return tuple(fix for _, fix in sorted(found, key=lambda each: each[0]))


def _candidates(rig: Rig, report: RigReport, conditions: Conditions) -> Iterator[tuple[str, Phrase, Rig]]:
    failing = {each.check for each in report.verdict.findings if each.utilisation > 1}
    mended = rig
    if "line" in failing:
        stronger = stronger_line(rig, report)
        if stronger is not None:
            mended = replace(rig, lines=tuple(replace(line, spec=stronger) for line in rig.lines))
            words = phrase("Hang it on steel rope of {d} throughout.", d=length(stronger.size_m or 0.0))
            yield "line", words, mended
        lighter = _light_enough(rig, report, conditions)
        if lighter is not None:
            left_out = sum(each.count for each in rig.recipe) - sum(each.count for each in lighter.recipe)
            yield "lighter", phrase(f"Leave {left_out} stems out, of every variety in its share."), lighter
    if rig.over_people and ("second bond" in failing or "bond of steel" in failing or rig.bond is None):
        bond = bond_for(report)
        if bond is not None:
            words = phrase(
                "Plan a second bond: steel rope of {d}, ferruled, to a point of its own.", d=length(bond.size_m or 0.0)
            )
            yield "bond", words, replace(rig, bond=bond)
            if mended is not rig:
                yield "line and bond", phrase("Steel rope throughout, and a second bond."), replace(mended, bond=bond)
    if "clearance" in failing:
        short = WALKWAY.value - report.rest.lowest_m
        by = math.ceil(short / _RAISE_STEP_M + 1e-6) * _RAISE_STEP_M
        raised = tuple(replace(each, z_m=each.z_m + by) for each in rig.attachments)
        yield "raise", phrase("Hang it {by} higher.", by=length(by)), replace(rig, attachments=raised)
    if "netting chain" in failing:
        spared = mass(report.take_off.heavy_kg)
        words = phrase("Run a core through it, so that the netting does not bear its {m} alone.", m=spared)
        yield "core", words, replace(rig, armature=replace(rig.armature, stiffness="cored"))


def stronger_line(rig: Rig, report: RigReport) -> LineSpec | None:
    """The thinnest steel rope in grips that bears every line's worst pull with room to spare; None where none does."""
    for size in line_rules.STEEL_BREAKING:
        spec = LineSpec(kind="steel rope", size_m=size, fitting="grip")
        if all(
            each.design_n
            <= _ROOM
            * line_rules.working_limit_n(spec, over_people=rig.over_people, one_gone=each.governs == "one gone")
            for each in report.lines
        ):
            return spec
    return None


def bond_for(report: RigReport) -> LineSpec | None:
    """The thinnest steel rope of 1.5 mm or more that keeps ten times the weight in ferrules; None where none does."""
    needed = BOND_FACTOR.value * report.take_off.heavy_kg * GRAVITY_M_S2
    for size in line_rules.STEEL_BREAKING:
        spec = LineSpec(kind="steel rope", size_m=size, fitting="ferrule")
        if size >= 0.0015 and line_rules.breaking_n(spec) * line_rules.efficiency(spec) >= needed:
            return spec
    return None


def _light_enough(rig: Rig, report: RigReport, conditions: Conditions) -> Rig | None:
    """Stems left out until the lines bear what is left; None where leaving stems out does not do it."""
    left, now = rig, report
    for _ in range(_ROUNDS):
        lighter = _lighter(left, now)
        if lighter is None:
            return None
        left, now = lighter, assess(lighter, conditions)
        if all(each.use <= 1 for each in now.lines):
            return left
    return None


def _lighter(rig: Rig, report: RigReport) -> Rig | None:
    """With so many stems left out, of each variety in its share, as the most used line asks."""
    use = max(each.use for each in report.lines)
    names = {part.name for part in report.take_off.parts if part.name in ("netting", "canes")}
    fixed = sum(part.heavy_kg for part in report.take_off.parts if part.name in names) + rig.extra_kg
    whole = report.take_off.heavy_kg
    flowers = whole - fixed
    share = (whole / use * 0.97 - fixed) / flowers if flowers > 0 else 0.0
    if not 0.0 < share < 1.0:
        return None
    return replace(rig, recipe=tuple(replace(each, count=max(1, int(each.count * share))) for each in rig.recipe))


def _badness(report: RigReport) -> tuple[int, int, float]:
    """The less, the better: the state, then how many facts are missing, then the utilisation."""
    verdict = report.verdict
    worst = max((each.utilisation for each in verdict.findings), default=0.0)
    return -_ORDER.index(verdict.state) if verdict.state in _ORDER else 0, len(verdict.missing), worst
