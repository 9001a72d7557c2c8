"""Hide in a bouquet: its underside, its back, and the armature between the heads."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.hide import LITTLE_LIMIT, SHOWS_LIMIT, shows, with_more_base
from jolly_trellis.core.checks.hold_bound import dome_of
from jolly_trellis.core.checks.sight import OPACITY_AIRY, OPACITY_FOLIAGE, flower_mass, seen_share
from jolly_trellis.core.checks.verdicts import Verdict, conclude
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.mechanics import bouquet as bouquets
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.kinds import is_carried
from jolly_trellis.core.plan.piece import Back
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, phrase, worded

LOOKS_FROM = rule("Guests look at a carried bouquet from", "length", 1.5, COMMON_PRACTICE)
LOOKS_DOWN = rule("A standing eye over a bouquet in the hand", "length", 0.55)
LOOKS_UP = rule("A seated eye under a bouquet on the way up the steps", "length", -0.45)
COLLAR_COVERS = measure("Share of the underside that a collar of leaves covers", "ratio", 0.95, most=1.0)
BODY_SIDE = rule("What shows of a bouquet against the body counts", "ratio", 0.5)
_POINTS, _AROUND = 19, 12
_BEHIND_M = 0.02


def judge(build: Build) -> Verdict:
    """Hide: armature from above, underside from below, and the side against the body of a one-sided bouquet."""
    bouquet = build.piece
    if len(build.placement.stems) == 0 or not is_carried(bouquet):
        return conclude("hide", [], missing=[facts.RECIPE.missing()])
    people = build.piece.setting.people
    limit = LITTLE_LIMIT if people is not None and people.a_little_may_show else SHOWS_LIMIT
    findings = []
    mass = flower_mass(build)
    under, top = under_points_m(build), bare_armature_m(build, bouquet)
    below = seen_share(mass, _eyes_m(build, LOOKS_UP.value), under)
    seen = float(below.mean(axis=1).max()) * left_by_collar(bouquet)
    findings.append(shows("underside", seen, limit, "the underside", "from below"))
    if build.mechanic.shows:
        above = seen_share(mass, _eyes_m(build, LOOKS_DOWN.value), top)
        findings.append(
            shows(
                "armature",
                float(above.mean(axis=1).max()),
                limit,
                worded("the {mechanic}", mechanic=build.mechanic.name),
                "as carried",
            )
        )
    if FORM_RULES[build.piece.envelope.form].front_facing:
        behind = np.array([[0.0, LOOKS_FROM.value, _middle_m(build)]])
        back = seen_share(mass, behind, back_points_m(build))
        covered = BODY_SIDE.value * float(back.mean()) * left_bare(bouquet)
        findings.append(shows("back", covered, limit, "the back, against the body,", "from behind"))
    return conclude(
        "hide", findings, figures=[limit, LOOKS_FROM, COLLAR_COVERS, BODY_SIDE, OPACITY_FOLIAGE, OPACITY_AIRY]
    )


def left_bare(bouquet: Bound) -> float:
    """How much of the side against the body is left to be seen by what is laid over it, 0-1."""
    return {"bare": 1.0, "leaves": 1.0 - COLLAR_COVERS.value, "disc": 0.0}[bouquet.back]


def bare_armature_m(build: Build, bouquet: Bound) -> Array:
    """Points of the armature that are to be hidden: of a bouquet whose back is covered, those before its back."""
    points = armature_points_m(build)
    if FORM_RULES[bouquet.envelope.form].front_facing and bouquet.back != "bare":
        return points[points[:, 1] <= _BEHIND_M]
    return points


def left_by_collar(bouquet: Bound) -> float:
    """How much of the underside a collar of leaves leaves to be seen, 0-1."""
    return 1.0 - COLLAR_COVERS.value if bouquet.collar else 1.0


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """A collar of leaves, or more base foliage."""
    piece = build.piece
    if not is_carried(piece):
        return []
    tried = []
    if FORM_RULES[piece.envelope.form].front_facing and piece.back == "bare":
        backs: tuple[tuple[Back, Phrase], ...] = (
            ("leaves", phrase("Lay leaves flat over the back.")),
            ("disc", phrase("Bind a covered disc to the back.")),
        )
        for back, say in backs:
            tried.append(Candidate(key=f"back-{back}", say=say, piece=replace(piece, back=back)))
            both = replace(piece, back=back, collar=True)
            words = phrase("{back} And a collar of leaves under the flowers.", back=say)
            tried += [] if piece.collar else [Candidate(key=f"back-{back}-collar", say=words, piece=both)]
    if not piece.collar:
        collared = replace(piece, collar=True)
        tried.append(Candidate(key="collar", say=phrase("Bind a collar of leaves under the flowers."), piece=collared))
        tried += with_more_base(build, collared)
    return tried + with_more_base(build, piece)


def _middle_m(build: Build) -> float:
    _, shape = dome_of(build)
    return build.raised_m + shape.under_m + shape.dome_m / 3


def _eyes_m(build: Build, over_m: float) -> Array:
    turn = np.arange(_AROUND) * (2 * math.pi / _AROUND)
    if FORM_RULES[build.piece.envelope.form].front_facing:
        turn = turn[np.cos(turn) > -0.01]
    away = LOOKS_FROM.value
    return np.stack([away * np.sin(turn), -away * np.cos(turn), np.full(len(turn), _middle_m(build) + over_m)], axis=1)


def _disc(build: Build, height_m: float) -> Array:
    index = np.arange(_POINTS)
    out, turn = np.sqrt((index + 0.5) / _POINTS), index * GOLDEN_ANGLE_RAD
    half_x, half_y = (
        bouquets.ARMATURE_SHARE.value * each / 2
        for each in (build.piece.envelope.width_m, build.piece.envelope.depth_m)
    )
    x, y = half_x * out * np.sin(turn), half_y * out * np.cos(turn)
    return np.stack([x, y, np.full(_POINTS, height_m)], axis=1)


def under_points_m(build: Build) -> Array:
    _, shape = dome_of(build)
    return _disc(build, build.raised_m + shape.under_m - 0.01)


def armature_points_m(build: Build) -> Array:
    """Points over the armature's own dome, three quarters of the flowers'."""
    _, shape = dome_of(build)
    points = _disc(build, 0.0)
    half = bouquets.ARMATURE_SHARE.value * build.piece.envelope.width_m / 2
    out = np.clip(np.hypot(points[:, 0], points[:, 1]) / half, 0.0, 1.0)
    points[:, 2] = build.raised_m + shape.under_m + bouquets.ARMATURE_SHARE.value * shape.dome_m * (1 - out**2)
    return points


def back_points_m(build: Build) -> Array:
    """Points over the flat side of a one-sided bouquet, from the underside of its flowers up, shape (n, 3), m."""
    points = _disc(build, 0.0)
    _, shape = dome_of(build)
    flat = np.stack([points[:, 0], np.full(_POINTS, 0.02), np.abs(points[:, 1])], axis=1)
    flat[:, 2] = (
        build.raised_m + shape.under_m + flat[:, 2] * shape.dome_m / max(build.piece.envelope.depth_m / 2, 1e-6)
    )
    return flat
