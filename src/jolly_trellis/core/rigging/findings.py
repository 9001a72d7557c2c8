"""What is found of a rig: lines, hang points, the netting itself, the second bond, mounts, clearances."""

import math
from dataclasses import dataclass, replace

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.building.spills import chain_strength_n
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.missing import Fact, Missing
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import Phrase, angle, count, duration, length, mass, phrase, pull
from jolly_trellis.core.rigging import facts, mount_ties, mounts
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.beams import beam_findings
from jolly_trellis.core.rigging.clearances import clearances
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.hung_wind import HungWind, wind_findings
from jolly_trellis.core.rigging.lines import LINES, LineSpec
from jolly_trellis.core.rigging.loads import TakeOff
from jolly_trellis.core.rigging.rig import HangPoint, Rig
from jolly_trellis.core.rigging.states import LineState, PointState, name_of, rating_of
from jolly_trellis.core.stems.tubes import caps_asked

ANGLE_LEAST = rule("Angle of a line to the horizontal, least", "angle", math.radians(30), FROM_MEMORY, cautious="up")
OFF_RATING = rule("A pull this far off the stated direction has no rating", "angle", math.radians(15), cautious="down")
BOND_FACTOR = rule("Second bond keeps, times the weight", "ratio", 10.0, FROM_MEMORY, cautious="up")
BOND_LEAST = rule("Second bond, least thickness of its steel rope", "length", 0.0015, FROM_MEMORY, cautious="up")
BOND_SLACK = rule("Second bond, slack at most", "length", 0.10, FROM_MEMORY, cautious="down")
BOND_POINT = rule("Hang point of a second bond is rated, times the weight", "ratio", 5.0, cautious="up")
CREEPS_AFTER = rule(
    "Nothing stays on monofilament, which creeps, longer than", "duration", 24.0, FROM_MEMORY, cautious="down"
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """A rig worked out, before it is judged.

    `along_m` is how far along a run its attachments lie, empty for a panel or ring; `body_m`, shape (n, 3), are places
    all over the finished work; `chain_n` the greatest pull in the netting of a run; `thick_m` and `wide_m` the
    finished work front to back and across.
    """

    weighed: TakeOff
    load_n: float
    lines: tuple[LineState, ...]
    points: tuple[PointState, ...]
    at_m: tuple[tuple[float, float, float], ...]
    body_m: Array
    lowest_m: float
    along_m: tuple[float, ...]
    chain_n: float
    thick_m: float
    wide_m: float
    wind: HungWind | None = None


def findings_of(rig: Rig, worked: Worked, conditions: Conditions) -> tuple[list[Finding], list[Missing]]:
    """Everything that is found, and the facts that are missing."""
    findings = [each for line in worked.lines for each in _line_findings(line)]
    missing: list[Missing] = []
    for at, state in enumerate(worked.points):
        found, lacks = _point(rig, at, state, 0.0 if worked.wind is None else worked.wind.swing_rad)
        findings += found
        missing += lacks
    for found, lacks in (_bond(rig, worked.weighed), _creep(rig, conditions)):
        findings += found
        missing += lacks
    findings += _only(rig)
    missing += _unfit(rig)
    known = (conditions.varieties.get(line.variety) for line in rig.recipe)
    dry = any(each is not None and each.lasting for each in known)
    findings += clearances(rig, worked.body_m, worked.thick_m, worked.lowest_m, dry=dry)
    findings += mount_ties.ties(rig, list(worked.along_m), worked.load_n)
    findings += _hooks(worked.weighed)
    findings += [] if worked.wind is None else wind_findings(rig, worked.wind, worked.lines)
    found, lacks = mounts.own_load(rig, worked.load_n)
    findings += found
    missing += lacks + _unmarked(rig)
    found, lacks = beam_findings(rig, worked.points)
    findings += found
    missing += lacks
    findings += mounts.stands(rig, worked.at_m, worked.weighed.typical_kg, worked.thick_m, worked.wide_m)
    missing += mounts.missing(rig) + mount_ties.untied(rig)
    missing += caps_asked(rig.recipe, conditions.varieties, path="recipe")
    if worked.chain_n > 0:
        findings.append(_chain(rig, worked))
    return findings, missing


def _point(rig: Rig, at: int, state: PointState, swing_rad: float) -> tuple[list[Finding], list[Missing]]:
    """A hang point against what was stated of it, pulled as far off as wind swings the work."""
    point = rig.points[at]
    if state.pull_n <= 0:
        return [], []
    if rig.over_people and POINTS[point.kind].stuck:
        return [_never(point)], []
    if POINTS[point.kind].part and not point.made_for:
        return [], [_asked(rig, at, "made_for", facts.POINT_MADE_FOR.missing((at,), point=point.name))]
    rating = rating_of(point)
    if rating is None and mounts.answers_for_its_points(rig):
        return [], []
    if rating is None:
        return [], [_unrated(rig, at, facts.POINT_RATING)]
    lacks = []
    within = OFF_RATING.value if point.rated_within_rad is None else point.rated_within_rad
    off_rad = max(state.off_rad, swing_rad)
    if off_rad > within + 1e-9:
        swung, in_wall = swing_rad >= off_rad, POINTS[point.kind].in_wall
        asked = facts.POINT_OFF_WALL if in_wall else facts.POINT_OFF_PLUMB
        if swung:
            asked = facts.POINT_SWUNG_WALL if in_wall else facts.POINT_SWUNG
        fact = asked.missing((at,), point=point.name, off=f"{math.degrees(off_rad):.0f}°")
        lacks.append(_asked(rig, at, "rated_within_rad", fact))
    found = [_point_finding(point, state, rating)]
    if POINTS[point.kind].in_wall:
        if rig.mount is None or rig.mount.kind != "wall":
            lacks.append(facts.STANDS_OUT.missing(point=point.name))
        elif not point.pull_out_n:
            lacks.append(_asked(rig, at, "pull_out_n", facts.POINT_PULL_OUT.missing((at,), point=point.name)))
        else:
            both = mount_ties.screw(point, rig.mount, state.pulls_n)
            found += [both] if both is not None else []
    return found, lacks


def _unrated(rig: Rig, at: int, fact: Fact) -> Missing:
    """The rating of a point, or who states it, where that alone is not known."""
    point = rig.points[at]
    field = "rating_n" if point.rating_n is None else "stated_by"
    return _asked(rig, at, field, fact.missing((at, field), point=point.name))


def _asked(rig: Rig, at: int, field: str, fact: Missing) -> Missing:
    """A fact of a point; of one that the survey has it is asked for there."""
    key = rig.points[at].surveyed
    return fact if key is None else replace(fact, of="survey", path=f"points.{key}.{field}")


def _line_findings(line: LineState) -> list[Finding]:
    cases = {"whole": "as hung", "uneven": "with one line a little long", "one gone": "with one line gone"}
    value, limit = pull(line.design_n), pull(line.limit_n)
    words = "{line} bears {t} {cases}; it may carry {limit}."
    if line.weakest:
        words = "{line} bears {t} {cases}; its {weakest}, the weakest in its path, is marked with {limit}."
    reason = phrase(words, t=value, limit=limit, line=line.name, cases=cases[line.governs], weakest=line.weakest)
    found = [finding(check="line", case="heavy", value=value, limit=limit, sense="at most", reason=reason)]
    flat = phrase(
        "{line} runs at {a} to the horizontal, at least {limit}: flatter, the pull grows without measure.",
        a=angle(line.angle_rad),
        limit=ANGLE_LEAST.quantity,
        line=line.name,
    )
    found.append(
        finding(
            check="line angle",
            case="heavy",
            value=angle(line.angle_rad),
            limit=ANGLE_LEAST.quantity,
            sense="at least",
            reason=flat,
        )
    )
    return found


def _point_finding(point: HangPoint, state: PointState, rating: float) -> Finding:
    value, limit = pull(state.pull_n), pull(rating)
    words = "{point} is pulled with {v}; {stated_by} rates it at {limit}."
    if POINTS[point.kind].stuck:
        words = "{point} is pulled with {v}; half its label is {limit}."
    reason = phrase(words, point=point.name, stated_by=point.stated_by or "", v=value, limit=limit)
    return finding(check="hang point", case="heavy", value=value, limit=limit, sense="at most", reason=reason)


def _hooks(weighed: TakeOff) -> list[Finding]:
    """The heaviest stem that hangs on a hook, against what its wire holds before it opens."""
    if not weighed.drops:
        return []
    value, limit = mass(weighed.heaviest_hung_kg), mass(weighed.hook_bears_kg)
    reason = phrase(
        "The heaviest stem on a hook weighs {v}; wire of {gauge} holds {limit} before it opens: over that, tie it.",
        v=value,
        gauge=length(weighed.hook_gauge_m),
        limit=limit,
    )
    return [finding(check="hooks", case="heavy", value=value, limit=limit, sense="at most", reason=reason,
                    tight_from=1.01)]  # fmt: skip


def _unmarked(rig: Rig) -> list[Missing]:
    """Hardware in the path of a line whose marking nobody has read."""
    return [
        facts.HARDWARE_MARK.missing((at, nth), kind=each.kind, line=name_of(rig, line))
        for at, line in enumerate(rig.lines)
        for nth, each in enumerate(line.hardware)
        if each.wll_n is None
    ]


def _never(point: HangPoint) -> Finding:
    return _refused(
        "never overhead", phrase("{point} is an {kind}: never over people.", point=point.name, kind=point.kind)
    )


def _refused(check: str, reason: Phrase) -> Finding:
    """What no amount of anything makes good."""
    return Finding(
        check=check,
        case="heavy",
        value=count(0),
        limit=count(1),
        sense="at least",
        utilisation=10.0,
        reason=reason,
    )


def _bond(rig: Rig, weighed: TakeOff) -> tuple[list[Finding], list[Missing]]:
    """The second bond: steel of 1.5 mm or more, ten times the weight, nearly tight, to a point of its own."""
    if rig.bond is None:
        needed = rig.over_people and not rig.is_tied and not rig.lies
        return [], [facts.BOND.missing()] if needed else []
    spec, weight = rig.bond.spec, weighed.heavy_kg * GRAVITY_M_S2
    keeps = pull(line_rules.breaking_n(spec) * line_rules.efficiency(spec))
    needs = pull(BOND_FACTOR.value * weight)
    slack = length(rig.bond.slack_m)
    reason = phrase("The second bond keeps {k} at its ends; ten times the weight is {n}.", k=keeps, n=needs)
    found = [
        finding(check="second bond", case="heavy", value=keeps, limit=needs, sense="at least", reason=reason),
        finding(
            check="slack of the bond",
            case="heavy",
            value=slack,
            limit=BOND_SLACK.quantity,
            sense="at most",
            reason=phrase(
                "The second bond hangs {s} slack; {limit} at most, or it falls first.",
                s=slack,
                limit=BOND_SLACK.quantity,
            ),
            tight_from=1.01,
        ),
    ]
    size = spec.size_m or 0.0
    if not LINES[spec.kind].bonds or size < BOND_LEAST.value - 1e-9:
        thin = phrase(
            "The second bond is {spec} of {size}: it must be steel rope of {least} or more.",
            size=length(size),
            least=BOND_LEAST.quantity,
            spec=spec.kind,
        )
        found.append(_refused("bond of steel", thin))
    point_found, lacks = _bond_point(rig, weight)
    return [*found, *point_found], lacks


def _bond_point(rig: Rig, weight: float) -> tuple[list[Finding], list[Missing]]:
    """Where the second bond leads: to a point that nothing else hangs on, rated for what comes down on it."""
    at = None if rig.bond is None else rig.bond.point
    if at is None:
        return [], [facts.BOND_LEADS_TO.missing()]
    point = rig.points[at]
    if any(line.point == at for line in rig.lines):
        words = "The second bond leads to {point}, where a line hangs too: should that let go, so does the bond."
        return [_refused("bond's own point", phrase(words, point=point.name))], []
    if POINTS[point.kind].stuck:
        return [_never(point)], []
    rating = rating_of(point)
    if rating is None:
        return [], [_unrated(rig, at, facts.BOND_POINT_RATING)]
    value, limit = pull(BOND_POINT.value * weight), pull(rating)
    reason = phrase(
        "Should it fall on its bond, {point} is counted with {v}; {stated_by} rates it at {limit}.",
        v=value,
        limit=limit,
        point=point.name,
        stated_by=point.stated_by or "",
    )
    return [
        finding(check="bond's own point", case="heavy", value=value, limit=limit, sense="at most", reason=reason)
    ], []


def _only(rig: Rig) -> list[Finding]:
    """What must not be all that holds it over people: one line with no bond, or cable ties."""
    if not rig.over_people or rig.lies:
        return []
    found = []
    if len(rig.lines) == 1 and rig.bond is None:
        words = "It hangs on one line: should {line} go, nothing holds it."
        found.append(_refused("one line", phrase(words, line=name_of(rig, rig.lines[0]))))
    if rig.lines and all(LINES[line.spec.kind].by_the_piece for line in rig.lines):
        words = (
            "Only cable ties or straps hold it: they are made for wiring and bundling and are never the only thing "
            "over people."
        )
        found.append(_refused("only cable ties", phrase(words)))
    return found


def _creep(rig: Rig, conditions: Conditions) -> tuple[list[Finding], list[Missing]]:
    """Monofilament creeps: how long it hangs on it."""
    if not any(LINES[line.spec.kind].creeps for line in rig.lines):
        return [], []
    if conditions.filled_at is None or conditions.ends_at is None:
        return [], [facts.HANGS_FOR.missing(("ends_at" if conditions.filled_at else "filled_at",))]
    hours = duration((conditions.ends_at - conditions.filled_at).total_seconds() / 3600)
    limit = CREEPS_AFTER.quantity
    reason = phrase("It hangs {h} on monofilament, which creeps; {limit} at most.", h=hours, limit=limit)
    return [finding(check="monofilament creeps", case="heavy", value=hours, limit=limit, sense="at most",
                    reason=reason, tight_from=1.01)], []  # fmt: skip


def _unfit(rig: Rig) -> list[Missing]:
    """Lines made off with what does not belong to their kind: nothing is known of what that keeps."""
    ends: list[tuple[Fact, tuple[int, ...], str, LineSpec]]
    ends = [(facts.LINE_ENDS, (at,), name_of(rig, line), line.spec) for at, line in enumerate(rig.lines)]
    ends += [(facts.BOND_ENDS, (), "the second bond", rig.bond.spec)] if rig.bond is not None else []
    carrier = rig.armature.carrier
    ends += [(facts.CORD_ENDS, (), "the cord through it", carrier)] if carrier is not None else []
    return [
        fact.missing(at, line=name, fitting=str(spec.fitting), kind=spec.kind, remedy=line_rules.remedy_words(spec))
        for fact, at, name, spec in ends
        if not spec.fits
    ]


def _chain(rig: Rig, worked: Worked) -> Finding:
    """What pulls along a run, against the cord that runs through it, or against its netting where none does."""
    value, carrier = pull(worked.chain_n), rig.armature.carrier
    if carrier is not None:
        limit = pull(line_rules.working_limit_n(carrier, over_people=rig.over_people))
        words = "The cord through it is pulled with {v}; it may carry {limit}."
    else:
        sized = worked.weighed.sized
        limit = pull(max(chain_strength_n(sized.netting, sized.sheet.width_m), 1.0))
        words = "The netting itself is pulled with {v}; it bears {limit}: over that, run a cord through."
    reason = phrase(words, v=value, limit=limit)
    return finding(check="netting chain", case="heavy", value=value, limit=limit, sense="at most", reason=reason)
