"""What shows of a piece to whoever walks round it: counted as Hide counts it, from every eye and side."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks import hide, hide_carried
from jolly_trellis.core.checks.sight import flower_mass, seen_share
from jolly_trellis.core.drawing.picture import Eye, EyeKind
from jolly_trellis.core.drawing.primitives import Place, run
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.kinds import is_carried, is_worn

TURNS = 12  # as Hide looks, every 30°
_GUESTS: tuple[EyeKind, ...] = ("standing", "seated")


@dataclass(frozen=True, slots=True, kw_only=True)
class ToHide:
    """Something that had better not show: its name, and points over it, metres."""

    name: str
    points: tuple[Place, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Glance:
    """What an eye sees from one side: the share of what shows most, 0-1, and of what that is.

    `seen` has a digit for each point of all that is to be hidden, in their order: tenths of it that are seen. Guests
    look from there where it `counts`.
    """

    eye: EyeKind
    turn_rad: float
    share: float
    of: str
    seen: str
    counts: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Looking:
    """All that is to be hidden, and every glance; `worst` is the place of the worst that counts, None for none."""

    to_hide: tuple[ToHide, ...]
    glances: tuple[Glance, ...]
    worst: int | None


@dataclass(frozen=True, slots=True)
class _Part:
    name: str
    points_m: Array
    share: Callable[[Array, Array], Array]
    """From eyes and what they see of the points, the share that counts of each eye."""


def looking_at(build: Build, eyes: Sequence[Eye]) -> Looking:
    """What shows of a piece from every eye and every side.

    Args:
        eyes: as the piece's picture tells them; one that looks at it cut open sees nothing that counts.
    Source: lines of sight past heads and leaves, as Hide judges them.
    """
    turns = np.arange(TURNS) * (2 * math.pi / TURNS)
    places, views = [], []
    for eye in eyes:
        if eye.kind == "cut open":
            continue
        for turn in turns.tolist():
            places.append((eye.away_m * math.sin(turn), -eye.away_m * math.cos(turn), eye.height_m))
            views.append((eye.kind, turn))
    at = np.array(places).reshape(-1, 3)
    shares, seen, parts = _seen(build, at)
    counts = _counting(build, at, [kind for kind, _ in views])
    most = shares.argmax(axis=0) if len(shares) else np.zeros(len(at), dtype=np.int64)
    glances = tuple(
        Glance(
            eye=kind,
            turn_rad=round(turn, 6),
            share=round(float(shares[most[place], place]), 4) if len(shares) else 0.0,
            of=parts[most[place]].name if parts else "",
            seen="".join(str(min(round(10 * each), 9)) for each in seen[place]),
            counts=bool(counts[place]),
        )
        for place, (kind, turn) in enumerate(views)
    )
    counted = [place for place, each in enumerate(glances) if each.counts and each.share > 0]
    worst = max(counted, key=lambda place: glances[place].share, default=None)
    to_hide = tuple(ToHide(name=each.name, points=run(each.points_m)) for each in parts)
    return Looking(to_hide=to_hide, glances=glances, worst=worst)


def _seen(build: Build, eyes: Array) -> tuple[Array, Array, list[_Part]]:
    """Of every part the share each eye sees, shape (parts, eyes), and of every point, (eyes, points), 0-1.

    A vessel of a composition is looked at by itself, from its own middle, as Hide looks at it.
    """
    parts, shares, seen = [], [], []
    vessels = [(build, (0.0, 0.0))]
    vessels += [
        (made, (each.x_m, each.y_m)) for made, each in zip(build.companions, build.piece.companions, strict=True)
    ]
    for made, (x, y) in vessels:
        for part in _parts(made):
            found = seen_share(flower_mass(made), eyes, part.points_m)
            shares.append(part.share(eyes, found))
            seen.append(found)
            parts.append(replace(part, points_m=part.points_m + np.array([x, y, 0.0])))
    none = np.zeros((0, len(eyes)))
    return (
        np.array(shares) if shares else none,
        np.concatenate(seen, axis=1) if seen else none.T,
        parts,
    )


def _parts(build: Build) -> list[_Part]:
    """What is to be hidden of one vessel, or of a bouquet."""
    if len(build.placement.stems) == 0:
        return []
    if is_worn(build.piece):
        return []
    if is_carried(build.piece):
        return _of_bouquet(build, build.piece)
    found = [_Part(words.removeprefix("the "), points, _facing(points)) for _, points, words in hide.to_hide(build)]
    if build.piece.support is not None and "underside" not in build.piece.look:
        ring = hide.underside_points_m(build)

        def under(eyes: Array, seen: Array) -> Array:
            below = (eyes[:, 2] < build.raised_m).astype(np.float64)
            return below * hide.UNDERSIDE_COUNTS.value * hide.share_seen(seen, hide.turned_to(eyes, ring))

        found.append(_Part("underside", ring, under))
    glass = hide.through_glass(build)
    if glass > 0:
        found.append(_Part("inside, through the glass", np.zeros((0, 3)), lambda eyes, _: np.full(len(eyes), glass)))
    return found


def _facing(points: Array) -> Callable[[Array, Array], Array]:
    return lambda eyes, seen: hide.share_seen(seen, hide.facing(eyes, points))


def _of_bouquet(build: Build, bouquet: Bound) -> list[_Part]:
    under, top = hide_carried.under_points_m(build), hide_carried.bare_armature_m(build, bouquet)
    left = hide_carried.left_by_collar(bouquet)
    low, high = float(under[:, 2].mean()), float(top[:, 2].mean())
    found = [_Part("underside", under, lambda eyes, seen: left * seen.mean(axis=1) * (eyes[:, 2] < low))]
    if build.mechanic.shows:
        found.append(_Part(build.mechanic.name, top, lambda eyes, seen: seen.mean(axis=1) * (eyes[:, 2] > high)))
    if FORM_RULES[bouquet.envelope.form].front_facing:
        back = hide_carried.back_points_m(build)
        covers = hide_carried.BODY_SIDE.value * hide_carried.left_bare(bouquet)

        def behind(eyes: Array, seen: Array) -> Array:
            return covers * seen.mean(axis=1) * (eyes[:, 1] > 0)

        found.append(_Part("back, against the body", back, behind))
    return found


def _counting(build: Build, eyes: Array, kinds: Sequence[EyeKind]) -> Array:
    """Where guests look from: seated or standing as the piece is looked at, before its wall, in front of its face.

    A bouquet is looked at in the hand, as Hide has it, and not where it waits.
    """
    people = build.piece.setting.people
    if people is None or build.piece.carried:
        return np.zeros(len(eyes), dtype=bool)
    looks = {"standing": people.standing, "seated": people.seated}
    counts = np.array([kind in _GUESTS and looks[kind] for kind in kinds], dtype=bool)
    kept = hide.before_the_wall(build, eyes)
    counts &= np.array([bool((kept == eye).all(axis=1).any()) for eye in eyes], dtype=bool)
    if FORM_RULES[build.piece.envelope.form].front_facing:
        counts &= eyes[:, 1] <= 0.01 * np.hypot(eyes[:, 0], eyes[:, 1])
    return counts
