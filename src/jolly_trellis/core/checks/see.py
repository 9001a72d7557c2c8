"""See: whether guests see one another across the table."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.figures import Figure, Shown, measure, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.balance import outline_top_m
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.sight import Mass, flower_mass, seen_along
from jolly_trellis.core.checks.verdicts import Verdict, conclude, finding
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.plan import facts
from jolly_trellis.core.provenance import COMMON_PRACTICE, COMPUTED
from jolly_trellis.core.quantities import length, phrase, ratio
from jolly_trellis.core.units import round_up

PAIRS_HOLD = rule("Pairs of guests who must see one another", "ratio", 0.95, most=1.0)
PAIRS_LEAST = rule("Pairs of guests under which a piece fails", "ratio", 0.85, most=1.0)
EYE_MEAN = measure("Seated eye over the floor, mean", "length", 1.215, COMMON_PRACTICE)
EYE_SPREAD = measure("Seated eye over the floor, spread", "length", 0.045, COMMON_PRACTICE)
VIEW_DISC = rule("Disc of view round a line of sight", "length", 0.05)
BLOCKED_FROM = rule("Share of the disc blocked that blocks the view", "ratio", 0.15, most=1.0)
SLIM_SUPPORT = rule("A support does not block up to", "length", 0.08)
LOW_TOP = rule("Elbow to fist: a low top at most", "length", 0.38, COMMON_PRACTICE)
TALL_FROM = rule("A tall solid part begins from", "length", 0.52, COMMON_PRACTICE)
SEAT_PITCH = rule("Guests sit apart by", "length", 0.60, COMMON_PRACTICE)
_SEATS = (-1, 0, 1)
_SPREADS = (-1.0, 0.0, 1.0)


def pairs_m(table_height_m: float, distance_m: float) -> tuple[Array, Array]:
    """Seated eyes on both sides of a table, every pair: two arrays of shape (81, 3), metres from the piece.

    Three seats a side, 0.60 m apart, the piece before the middle one; three heights of eye: the mean and one spread
    either way.

    Source: seated eye heights are common practice, no source.
    """
    sides = []
    for side in (-1.0, 1.0):
        sides.append(
            [
                (
                    SEAT_PITCH.value * seat,
                    side * distance_m,
                    EYE_MEAN.value - table_height_m + spread * EYE_SPREAD.value,
                )
                for seat in _SEATS
                for spread in _SPREADS
            ]
        )
    near, far = np.array(sides[0]), np.array(sides[1])
    return np.repeat(near, len(far), axis=0), np.tile(far, (len(near), 1))


def solid_mass(build: Build) -> Mass:
    """Flowers, the vessel and a broad opaque support as balls in the way."""
    flowers = flower_mass(build)
    vessel, support = build.piece.vessel, build.piece.support
    centres, radii = [], []
    if not vessel.clear:
        radius = vessel.mouth_width_m / 2
        centres.append((0.0, 0.0, build.rim_z_m - min(radius, vessel.rim_m / 2)))
        radii.append(min(radius, max(vessel.rim_m / 2, 0.01)))
    if support is not None and not support.clear and support.column_width_m > SLIM_SUPPORT.value:
        half = support.column_width_m / 2
        steps = max(2, round(support.height_m / half))
        for height in np.linspace(half, max(support.height_m - half, half), steps).tolist():
            centres.append((0.0, 0.0, height))
            radii.append(half)
    if not centres:
        return flowers
    return Mass(
        centre_m=np.concatenate([flowers.centre_m, np.array(centres)]),
        radius_m=np.concatenate([flowers.radius_m, np.array(radii)]),
        opacity=np.concatenate([flowers.opacity, np.ones(len(radii))]),
    )


def clear_share(mass: Mass, near_m: Array, far_m: Array) -> float:
    """Share of pairs of eyes whose view is not blocked.

    A view is blocked where more than 15 % of a 5 cm disc round its line is: seven parallel lines stand for the disc.

    Source: common sense of sight lines; the disc and the 15 % are estimates.
    """
    lowest_eye = min(float(near_m[:, 2].min()), float(far_m[:, 2].min())) - VIEW_DISC.value / 2
    if len(mass.radius_m) == 0 or float((mass.centre_m[:, 2] + mass.radius_m).max()) < lowest_eye:
        return 1.0
    ray = far_m - near_m
    unit = ray / np.linalg.norm(ray, axis=1)[:, None]
    side = np.cross(unit, np.array([0.0, 0.0, 1.0]))
    side /= np.maximum(np.linalg.norm(side, axis=1), 1e-9)[:, None]
    up = np.cross(side, unit)
    radius = VIEW_DISC.value / 2 * 0.7
    turns = np.arange(6) * (math.pi / 3)
    offsets = [np.zeros_like(side)] + [radius * (math.cos(turn) * side + math.sin(turn) * up) for turn in turns]
    starts = np.concatenate([near_m + each for each in offsets])
    seen = seen_along(mass, starts, np.tile(ray, (len(offsets), 1))).reshape(len(offsets), -1).mean(axis=0)
    return float((1.0 - seen <= BLOCKED_FROM.value).mean())


def judge(build: Build) -> Verdict:
    """See: pairs of seated guests who see one another; not needed where nobody sits across."""
    people = build.piece.setting.people
    if people is None:
        return conclude("see", [], missing=[facts.SITTING.missing()])
    if build.piece.setting.where != "table" or not (people.seated and people.both_sides):
        return conclude("see", [], not_needed=phrase("Nobody sits across it."))
    if len(build.placement.stems) == 0:
        return conclude("see", [], missing=[facts.RECIPE.missing()])
    near, far = pairs_m(people.table_height_m, people.seat_distance_m)
    share = clear_share(solid_mass(build), near, far)
    blocked = ratio(1.0 - share)
    limit = ratio(1.0 - PAIRS_LEAST.value)
    reason = phrase(
        "{share} of guests across the table see one another; {least} must, {good} is good.",
        share=f"{share:.0%}",
        least=f"{PAIRS_LEAST.value:.0%}",
        good=f"{PAIRS_HOLD.value:.0%}",
    )
    findings = [
        finding(
            check="across",
            case="typical",
            value=blocked,
            limit=limit,
            sense="at most",
            reason=reason,
            tight_from=(1.0 - PAIRS_HOLD.value) / (1.0 - PAIRS_LEAST.value),
        )
    ]
    top = outline_top_m(build)
    figures: list[Shown] = [
        Figure(label="Top of the flowers", quantity=length(top), provenance=COMPUTED),
        LOW_TOP,
        TALL_FROM,
        EYE_MEAN,
        EYE_SPREAD,
        BLOCKED_FROM,
        VIEW_DISC,
    ]
    return conclude("see", findings, figures=figures)


def judge_carried(build: Build) -> Verdict:
    """See for a bouquet: nobody sits behind it."""
    del build
    return conclude("see", [], not_needed=phrase("It is carried: nobody has to look past it."))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Bring the flowers under the sight lines, or draw them in."""
    piece = build.piece
    tried = []
    least = build.rim_z_m + 0.04
    for top in (LOW_TOP.value, 0.35, 0.32, 0.30, 0.28):
        height = round_up(top, 0.005)
        if least <= height < piece.envelope.height_m:
            lower = replace(piece.envelope, height_m=height)
            say = phrase("Bring the flowers down to {h}.", h=length(height))
            tried.append(Candidate(key=f"lower-{round(height * 1000)}", say=say, piece=replace(piece, envelope=lower)))
    for share in (0.85, 0.7):
        narrow = replace(piece.envelope, width_m=round_up(piece.envelope.width_m * share, 0.005))
        say = phrase("Draw the flowers in to {w} wide.", w=length(narrow.width_m))
        tried.append(Candidate(key=f"narrow-{round(share * 100)}", say=say, piece=replace(piece, envelope=narrow)))
    return tried
