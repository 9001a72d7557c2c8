"""What would clear a rig: each act is done, worked out whole, and offered only where it is better for it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from jolly_trellis.core.checks.verdicts import State
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.quantities import Phrase, count, length, mass, phrase
from jolly_trellis.core.rigging import facts, mounts
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.armatures import strip_width_m
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.clearances import TABLE, WALKWAY
from jolly_trellis.core.rigging.findings import ANGLE_LEAST, BOND_FACTOR
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.more_lines import with_points
from jolly_trellis.core.rigging.rig import Bond, Mount, Rig
from jolly_trellis.core.rigging.stated import of_their_places
from jolly_trellis.core.stems.shades import with_count

_ORDER: tuple[State, ...] = ("fails", "cannot say", "tight", "holds")
_ROOM = 0.8
_OFF_PLUMB = (facts.POINT_OFF_PLUMB.key, facts.POINT_SWUNG.key)
_ROUNDS = 4
_RAISE_STEP_M = 0.05
_SHORTEST_STEM_M = 0.10
_STEM_STEP_M = 0.05
_MOST_MORE = 6
_BALLAST_STEP_KG = 0.5

Candidate = tuple[str, Phrase, Rig]


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
    with conditions.figures.open():
        return _fixes_of(rig, report, conditions)


def _fixes_of(rig: Rig, report: RigReport, conditions: Conditions) -> tuple[RigFix, ...]:
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


def _candidates(rig: Rig, report: RigReport, conditions: Conditions) -> Iterator[Candidate]:
    failing = {each.check for each in report.verdict.findings if each.utilisation > 1}
    stronger = stronger_line(rig, report) if failing & {"line", "only cable ties"} and not rig.is_tied else None
    mended = rig
    if stronger is not None:
        mended = replace(rig, lines=tuple(replace(line, spec=stronger) for line in rig.lines))
        yield "line", phrase("Hang it on steel rope of {d} throughout.", d=length(stronger.size_m or 0.0)), mended
    if failing & {"line", "hang point"}:
        yield from _less(rig, report, conditions)
        yield from _more_lines(rig, report, conditions)
    yield from _plumb(rig, report)
    bond = bond_for(report) if _lacks_bond(rig, failing) else None
    if bond is not None:
        planned = replace(rig.bond, spec=bond) if rig.bond is not None else Bond(spec=bond, point=_spare(rig))
        yield "bond", _bonded(rig, planned), replace(rig, bond=planned)
        if mended is not rig:
            yield "line and bond", phrase("Steel rope throughout, and a second bond."), replace(mended, bond=planned)
    if "bond's own point" in failing and rig.bond is not None and _spare(rig) is not None:
        at = _spare(rig)
        words = phrase("Lead the second bond to {points}.", points=rig.points[at or 0].name)
        yield "bond point", words, replace(rig, bond=replace(rig.bond, point=at))
    fitted = _fitted(rig)
    if fitted != rig:
        yield "made off", phrase("Make every line off with what belongs to its kind: steel rope with grips."), fitted
    if "slack of the bond" in failing and rig.bond is not None:
        yield (
            "bond slack",
            phrase("Take up its slack to {s}.", s=length(0.05)),
            replace(rig, bond=replace(rig.bond, slack_m=0.05)),
        )
    yield from _higher(rig, report, failing)
    yield from _carrier(rig, report, failing)
    yield from _ballast(rig, report, failing)


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


def _lacks_bond(rig: Rig, failing: set[str]) -> bool:
    asked = rig.bond is None and rig.over_people and not rig.lies and not rig.is_tied
    return asked or bool(failing & {"second bond", "bond of steel", "one line"})


def _spare(rig: Rig) -> int | None:
    """A rated hang point that no line leads to; the strongest."""
    used = {line.point for line in rig.lines}
    free = [at for at, point in enumerate(rig.points) if at not in used and point.rating_n and point.stated_by]
    return max(free, key=lambda at: rig.points[at].rating_n or 0.0, default=None)


def _less(rig: Rig, report: RigReport, conditions: Conditions) -> Iterator[Candidate]:
    """The same rig lighter: fewer stems, no tubes, shorter stems."""
    lighter = _light_enough(rig, report, conditions)
    if lighter is not None:
        left_out = sum(each.count for each in rig.recipe) - sum(each.count for each in lighter.recipe)
        yield (
            "lighter",
            phrase("Leave {left_out} stems out, of every variety in its share.", left_out=left_out),
            lighter,
        )
    tubes = sum(each.count for each in rig.recipe if each.water == "tube")
    if tubes:
        dry = tuple(replace(each, water="none") if each.water == "tube" else each for each in rig.recipe)
        saved = sum(each.heavy_kg for each in report.take_off.parts if each.name.startswith("stem tubes"))
        words = phrase(
            "Leave the {tubes} tubes out, {m} lighter: only what lasts without water.", m=mass(saved), tubes=tubes
        )
        yield "no tubes", words, replace(rig, recipe=dry)
    armature = rig.armature
    if armature.drop is None and armature.stem_cut_m > _SHORTEST_STEM_M:
        cut = armature.stem_cut_m
        while cut > _SHORTEST_STEM_M + 1e-9:
            cut = max(_SHORTEST_STEM_M, cut - _STEM_STEP_M)
            shorter = replace(rig, armature=replace(armature, stem_cut_m=cut))
            after = assess(shorter, conditions)
            if all(each.use <= 1 for each in after.lines) or cut <= _SHORTEST_STEM_M + 1e-9:
                lighter_by = report.take_off.heavy_kg - after.take_off.heavy_kg
                words = phrase("Cut the stems to {c}: {m} lighter.", c=length(cut), m=mass(lighter_by))
                yield "shorter stems", words, shorter
                return


def _more_lines(rig: Rig, report: RigReport, conditions: Conditions) -> Iterator[Candidate]:
    """How many more points, each with a line like the first, until every line bears its share."""
    if not rig.is_run or rig.mount is not None:
        return
    before = max(each.use for each in report.lines)
    for more in range(1, _MOST_MORE + 1):
        added = with_points(rig, more)
        try:
            after = assess(added, conditions)
        except CoreError:
            return
        if max(each.use for each in after.lines) <= 1 < before:
            words = "Hang it on {n} more lines, from points that somebody must rate."
            if more == 1:
                words = "Hang it on one more line, from a point that somebody must rate."
            yield "more lines", phrase(words, n=more), added
            return


def _bonded(rig: Rig, planned: Bond) -> Phrase:
    size = length(planned.spec.size_m or 0.0)
    if planned.point is None:
        return phrase("Plan a second bond: steel rope of {d}, ferruled.", d=size)
    words = "Plan a second bond: steel rope of {d}, ferruled to {point}."
    return phrase(words, d=size, point=rig.points[planned.point].name)


def _plumb(rig: Rig, report: RigReport) -> Iterator[Candidate]:
    """Where to move a hang point whose line runs flat, or that is pulled off its rated direction: over its place."""
    moves = {}
    for line, state in zip(rig.lines, report.lines, strict=True):
        if line.point is None:
            continue
        flat = state.angle_rad < ANGLE_LEAST.value
        asked = f"points.{line.point}.rated_within_rad"
        off = any(each.path == asked and each.key in _OFF_PLUMB for each in report.verdict.missing)
        alone = sum(each.point == line.point for each in rig.lines) == 1
        if (flat or off) and alone:
            moves[line.point] = line.attachment
    if not moves:
        return
    points = list(rig.points)
    for at, place in moves.items():
        held = rig.attachments[place]
        points[at] = replace(points[at], x_m=held.x_m, y_m=held.y_m)
    names = ", ".join(rig.points[at].name for at in moves)
    yield (
        "plumb",
        phrase("Move {names} straight over the place it holds; somebody must rate it there.", names=names),
        of_their_places(rig, replace(rig, points=tuple(points))),
    )


def _fitted(rig: Rig) -> Rig:
    """The rig with its kind's own fitting on every line whose fitting does not belong to it."""

    def own(spec: LineSpec) -> LineSpec:
        return spec if spec.fits else replace(spec, fitting=None)

    bond = None if rig.bond is None else replace(rig.bond, spec=own(rig.bond.spec))
    carrier = None if rig.armature.carrier is None else own(rig.armature.carrier)
    lines = tuple(replace(line, spec=own(line.spec)) for line in rig.lines)
    return replace(rig, lines=lines, bond=bond, armature=replace(rig.armature, carrier=carrier))


def _higher(rig: Rig, report: RigReport, failing: set[str]) -> Iterator[Candidate]:
    if "clearance" not in failing:
        return
    short = (WALKWAY if rig.below == "walkway" else TABLE).value - report.rest.lowest_m
    by = math.ceil(short / _RAISE_STEP_M + 1e-6) * _RAISE_STEP_M
    raised = tuple(replace(each, z_m=each.z_m + by) for each in rig.attachments)
    yield "raise", phrase("Hang it {by} higher.", by=length(by)), replace(rig, attachments=raised)


def _carrier(rig: Rig, report: RigReport, failing: set[str]) -> Iterator[Candidate]:
    """A cord through a run whose netting is pulled too hard; or a wider strip of netting."""
    if "netting chain" not in failing:
        return
    for size in line_rules.CORD_BREAKING:
        spec = LineSpec(kind="polyester cord", size_m=size)
        corded = replace(rig, armature=replace(rig.armature, carrier=spec))
        pulled = next(each.value.value for each in report.verdict.findings if each.check == "netting chain")
        if line_rules.working_limit_n(spec, over_people=rig.over_people) >= pulled:
            yield "carrier", phrase("Run a polyester cord of {d} through it.", d=length(size)), corded
            break
    if rig.armature.carrier is None:
        turns = rig.armature.turns + 1
        wide = strip_width_m(rig.armature.diameter_m, turns)
        words = phrase("Roll it of a strip {w} wide.", w=length(wide))
        yield "wider strip", words, replace(rig, armature=replace(rig.armature, turns=turns))


def _ballast(rig: Rig, report: RigReport, failing: set[str]) -> Iterator[Candidate]:
    mount, standing = rig.mount, report.standing
    if mount is None or standing is None:
        return
    if mounts.sliding(mount) in failing:
        yield from _grip(rig, mount, report)
    if not any("upright" in each for each in failing):
        return
    each = math.ceil(standing.ballast_kg / _ROOM / _BALLAST_STEP_KG) * _BALLAST_STEP_KG
    words = phrase("Put {b} on each of its four feet.", b=mass(each))
    yield "ballast", words, replace(rig, mount=replace(mount, ballast_kg=each))
    if rig.armature.kind == "sleeve":
        asked = mounts.core_needed_kg(
            mount, report.rest.at_m, report.take_off.typical_kg, report.take_off.sized.finished_thick_m
        )
        core = math.ceil(asked / _ROOM / _BALLAST_STEP_KG) * _BALLAST_STEP_KG
        words = phrase(
            "Put a core of {c} in its foot, bedded on {a} cm² of sealant.",
            c=mass(core),
            a=count(math.ceil(mounts.core_bed_m2(core) * 1e4)),
        )
        yield "core", words, replace(rig, armature=replace(rig.armature, core_kg=core))
    if mount.outdoors and mount.comes_down_above > 2:
        calmer = mount.comes_down_above - 1
        words = phrase("Take it down above Beaufort {calmer}.", calmer=calmer)
        yield "calmer", words, replace(rig, mount=replace(mount, comes_down_above=calmer))


def _grip(rig: Rig, mount: Mount, report: RigReport) -> Iterator[Candidate]:
    """What keeps a frame from sliding: rubber under its feet, or as much more ballast as its grip is short of."""
    if mount.foot_material != "rubber":
        padded = replace(mount, foot_material="rubber")
        yield "rubber", phrase("Put rubber pads under its feet."), replace(rig, mount=padded)
    slid = next(each for each in report.verdict.findings if each.check == mounts.sliding(mount))
    weight = (
        report.take_off.typical_kg + (mount.mass_kg or 0.0) + mounts.FEET * mount.ballast_kg + rig.armature.core_kg
    )
    more = weight * (slid.limit.value / slid.value.value - 1.0) / mounts.FEET
    each = math.ceil((mount.ballast_kg + more) / _ROOM / _BALLAST_STEP_KG) * _BALLAST_STEP_KG
    words = phrase("Put {b} on each of its four feet, so that they grip.", b=mass(each))
    yield "grip", words, replace(rig, mount=replace(mount, ballast_kg=each))


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
    fixed, whole = report.take_off.bare_kg, report.take_off.heavy_kg
    flowers = whole - fixed
    share = (whole / use * 0.97 - fixed) / flowers if flowers > 0 else 0.0
    if not 0.0 < share < 1.0:
        return None
    return replace(rig, recipe=tuple(with_count(each, max(1, int(each.count * share))) for each in rig.recipe))


def _badness(report: RigReport) -> tuple[int, int, float]:
    """The less, the better: the state, then how many facts are missing, then the utilisation."""
    verdict = report.verdict
    worst = max((each.utilisation for each in verdict.findings), default=0.0)
    return -_ORDER.index(verdict.state) if verdict.state in _ORDER else 0, len(verdict.missing), worst
