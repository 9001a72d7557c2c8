"""Hide: whether the mechanic, the rim and the underside show to anybody who looks."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.extras import MOSS_ROUND, moss_round_m
from jolly_trellis.core.building.footing import ledge_edge_m
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.sight import OPACITY_AIRY, OPACITY_FOLIAGE, flower_mass, seen_share
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.piece import Cover, Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import People
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, count, phrase, ratio, worded

SHOWS_GOOD = rule("Share of the mechanic that may show and be good", "ratio", 0.03, most=1.0)
SHOWS_LIMIT = rule("Share of the mechanic that may show", "ratio", 0.08, most=1.0)
LITTLE_LIMIT = rule("Share that may show where a little may", "ratio", 0.15, most=1.0)
EYE_SEATED = measure("Height of a seated eye over the floor", "length", 1.215, COMMON_PRACTICE)
EYE_STANDING = measure("Height of a standing eye over the floor", "length", 1.60, COMMON_PRACTICE)
CLOSE_AWAY = measure("An eye that comes close is this far from it", "length", 0.35)
STOOP = measure("An eye that stoops is so far under the middle", "length", 0.35)
RIM_BAND = measure("Band of wire that shows over a rim", "length", 0.012)
THROUGH_GLASS = 0.5
_AROUND = 12
_RING, _DISC = 18, 13
BAR_TOP = rule("Height of a bar over the floor", "length", 1.10, COMMON_PRACTICE)
UNDERSIDE_COUNTS = rule("The underside of a raised bowl counts as so much of its rim", "ratio", 0.2)
UNDERSIDE_LOW = rule(
    "The underside is looked at below the rim by, share of the vessel's height", "ratio", 0.2, most=1.0
)


def eyes_m(people: People, *, raised_floor_m: float, front_facing: bool) -> Array:
    """Eyes of those who look, shape (n, 3), metres from the piece's middle on the surface it stands on.

    Seated guests look every 30° from their seats (a front-facing piece from the front and the sides), standing ones
    from farther off and higher.

    Args:
        people: distances.
        raised_floor_m: height of the surface above the floor, m.
        front_facing: seen from the front and sides only.
    """
    turns = np.arange(_AROUND) * (2 * math.pi / _AROUND)
    if front_facing:
        turns = turns[(np.cos(turns) > -0.01)]
    kinds = []
    if people.seated:
        kinds.append((people.seat_distance_m, EYE_SEATED.value))
    if people.standing:
        kinds.append((people.standing_distance_m, EYE_STANDING.value))
    found = [
        np.stack([away * np.sin(turns), -away * np.cos(turns), np.full(len(turns), eye - raised_floor_m)], axis=1)
        for away, eye in kinds
    ]
    return np.concatenate(found) if found else np.zeros((0, 3))


def surface_height_m(piece: Piece) -> float:
    """Height of the surface a piece stands on above the floor, metres."""
    setting = piece.setting
    if setting.where == "ledge" and setting.ledge is not None:
        return setting.ledge.height_m
    if setting.where == "floor" or setting.people is None:
        return 0.0
    return BAR_TOP.value if setting.where == "bar" else setting.people.table_height_m


def rim_points_m(build: Build) -> Array:
    """Points of the rim band, shape (n, 3)."""
    vessel = build.piece.vessel
    turns = np.arange(_RING) * (2 * math.pi / _RING)
    x, y = vessel.mouth_width_m / 2 * np.sin(turns), -vessel.mouth_depth_m / 2 * np.cos(turns)
    return np.stack([x, y, np.full(_RING, build.rim_z_m + RIM_BAND.value / 2)], axis=1)


def top_points_m(build: Build) -> Array:
    """Points spread over the mechanic in the mouth, shape (n, 3)."""
    vessel, index = build.piece.vessel, np.arange(_DISC)
    share, turn = np.sqrt((index + 0.5) / _DISC) * 0.92, index * 2.399963
    height = vessel.base_m + build.mechanic.seating.height_m + build.raised_m
    return np.stack(
        [
            vessel.mouth_width_m / 2 * share * np.sin(turn),
            -vessel.mouth_depth_m / 2 * share * np.cos(turn),
            np.full(_DISC, height),
        ],
        axis=1,
    )


def underside_points_m(build: Build) -> Array:
    """Points round a raised vessel, low on its outside, shape (n, 3)."""
    vessel = build.piece.vessel
    turns = np.arange(_RING) * (2 * math.pi / _RING)
    outside = vessel.mouth_width_m / 2 + vessel.wall_m
    return np.stack(
        [
            outside * np.sin(turns),
            -outside * np.cos(turns),
            np.full(_RING, build.rim_z_m - UNDERSIDE_LOW.value * vessel.rim_m),
        ],
        axis=1,
    )


def judge(build: Build) -> Verdict:
    """Hide: the worst view of rim band and mechanic; clear glass; the underside of a raised bowl."""
    people = build.piece.setting.people
    if people is None:
        return conclude("hide", [], missing=[facts.LOOKED_FROM.missing()])
    if len(build.placement.stems) == 0:
        return conclude("hide", [], missing=[facts.RECIPE.missing()])
    front = FORM_RULES[build.piece.envelope.form].front_facing
    eyes = before_the_wall(build, eyes_m(people, raised_floor_m=surface_height_m(build.piece), front_facing=front))
    if len(eyes) == 0:
        return conclude("hide", [], not_needed=phrase("Nobody looks at it from near."))
    limit = LITTLE_LIMIT if people.a_little_may_show else SHOWS_LIMIT
    mass = flower_mass(build)
    findings = []
    parts = to_hide(build)
    all_points = np.concatenate([points for _, points, _ in parts]) if parts else np.zeros((0, 3))
    starts = np.cumsum([len(points) for _, points, _ in parts])[:-1]
    seen_of = np.split(seen_share(mass, eyes, all_points), starts, axis=1) if parts else []
    for (check, points, words), seen in zip(parts, seen_of, strict=True):
        shares = share_seen(seen, facing(eyes, points))
        worst = int(shares.argmax())
        findings.append(shows(check, float(shares[worst]), limit, words, from_where(eyes[worst])))
    findings += _glass(build, limit)
    findings += _underside(build, eyes, limit)
    if not findings:
        return conclude("hide", [], not_needed=phrase("Nothing of it is to be hidden: no wire, tape or tie shows."))
    return conclude("hide", findings, figures=[limit, OPACITY_FOLIAGE, OPACITY_AIRY, EYE_SEATED, EYE_STANDING])


def before_the_wall(build: Build, eyes: Array) -> Array:
    """The eyes that a wall behind a ledge does not shut out."""
    ledge, edge = build.piece.setting.ledge, ledge_edge_m(build.piece)
    if ledge is None or edge is None or not ledge.wall:
        return eyes
    return eyes[eyes[:, 1] <= edge - ledge.edge_radius_m + ledge.depth_m]


def to_hide(build: Build) -> list[tuple[str, Array, str]]:
    """Parts that are to be hidden, each with its points, shape (n, 3), and its name.

    Wire and tape are; a vessel, its rim, a frog, moss and twigs are not, nor what is meant to be seen. A rim is to be
    hidden where wire or tape reaches it.
    """
    piece, mechanic = build.piece, build.mechanic
    at_rim = piece.vessel.inside_depth_m - mechanic.seating.height_m <= RIM_BAND.value
    wire_at_rim = build.netting is not None and at_rim
    found = []
    laid_over = any(each.on == "rim" for each in piece.covers) or bool(moss_round_m(piece))
    if (wire_at_rim or mechanic.tape_strips) and "rim" not in piece.look and not laid_over:
        found.append(("rim band", rim_points_m(build), "the rim"))
    frog_alone = build.frog is not None and build.netting is None
    covered = mechanic.mossed or frog_alone or not mechanic.shows
    if not covered and "mechanic" not in piece.look:
        found.append(
            ("mechanic", top_points_m(build), worded("the {mechanic}", mechanic=ABOUT[mechanic.kind].name.lower()))
        )
    return found


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Cover it: more base foliage, a leaf lining, an allowance that a little may show."""
    piece = build.piece
    tried = []
    check = verdict.governing.check if verdict.governing else ""
    if check == "through the glass" and not piece.lining:
        say = phrase("Line the glass with a strip of leaf.")
        tried.append(Candidate(key="lining", say=say, piece=replace(piece, lining=True)))
    tried += with_more_base(build, piece)
    if check == "rim band":
        over = Cover(kind="moss", on="rim")
        say = phrase("Tuck moss over the rim.")
        tried.append(Candidate(key="moss-rim", say=say, piece=replace(piece, covers=(*piece.covers, over))))
    if check in ("rim band", "through the glass") and piece.support is None:
        say = phrase("Nestle moss all round it, up to the rim.")
        tried.append(Candidate(key="moss", say=say, piece=replace(piece, moss_m=MOSS_ROUND.value)))
    people = piece.setting.people
    if people is not None and not people.a_little_may_show:
        allowed = replace(piece, setting=replace(piece.setting, people=replace(people, a_little_may_show=True)))
        tried.append(
            Candidate(
                key="a-little",
                say=phrase("Let a little show, up to {little_limit}.", little_limit=f"{LITTLE_LIMIT.value:.0%}"),
                piece=allowed,
            )
        )
    return tried


def with_more_base(build: Build, piece: Piece) -> list[Candidate]:
    """More and more of a covering leaf, low round the rim or the underside, in a piece that may be changed already."""
    leaf = _covering_leaf(build)
    return [] if leaf is None else [_covered(build, piece, leaf, more) for more in (3, 6, 9, 14, 20)]


def _covering_leaf(build: Build) -> str | None:
    """What to cover with: the recipe's base foliage, else its first leaf, else the toughest, fullest leaf stored."""
    varieties = build.conditions.varieties
    leaves = [each for each in build.piece.recipe if varieties[each.variety].form == "leaf"]
    chosen = [*(each for each in leaves if each.role == "base"), *leaves]
    if chosen:
        return chosen[0].variety
    fronds = (each for each in varieties.values() if each.form == "leaf" and not each.branch)
    stored = [each for each in fronds if not each.toxic and not each.thorny]
    return max(stored, key=lambda each: (each.dry_hold_h, each.head_diameter_m)).key if stored else None


def _covered(build: Build, piece: Piece, leaf: str, more: int) -> Candidate:
    """More of a leaf low round the rim, on its own line of the recipe where it has one."""
    at = next((i for i, each in enumerate(piece.recipe) if each.variety == leaf and each.role == "base"), None)
    recipe: tuple[RecipeLine, ...] = (*piece.recipe, RecipeLine(variety=leaf, count=more, role="base"))
    if at is not None:
        added = replace(piece.recipe[at], count=piece.recipe[at].count + more)
        recipe = (*piece.recipe[:at], added, *piece.recipe[at + 1 :])
    collar = piece.collar and not build.piece.collar
    words = "Add {n} {leaf} low round the rim."
    if piece.carried:
        words = "Add {n} {leaf} low under the flowers."
    if collar:
        words = "Add {n} {leaf} low under the flowers and a collar of leaves."
    say = phrase(words, n=count(more), leaf=build.conditions.varieties[leaf].name)
    return Candidate(key=f"cover{'-collar' if collar else ''}-{more}", say=say, piece=replace(piece, recipe=recipe))


def facing(eyes: Array, points: Array) -> Array:
    """1 where a point is on the eye's side or seen from above the rim; the far rim hides behind the vessel else."""
    above = eyes[:, None, 2] > points[None, :, 2]
    near = (eyes[:, None, :2] * points[None, :, :2]).sum(axis=2) >= 0
    return np.asarray((above | near).astype(np.float64))


def turned_to(eyes: Array, points: Array) -> Array:
    """1 where a point is on the eye's side, shape (eyes, points)."""
    return np.asarray(((eyes[:, None, :2] * points[None, :, :2]).sum(axis=2) > 0).astype(np.float64))


def share_seen(seen: Array, counted: Array) -> Array:
    """How much of what counts an eye sees, 0-1, shape (eyes,); both are of shape (eyes, points)."""
    return np.asarray((seen * counted).sum(axis=1) / np.maximum(counted.sum(axis=1), 1e-9))


def shows(check: str, share: float, limit: Constant, words: str, where: str) -> Finding:
    """The finding that a share of something shows: at most the limit, tight from three eighths of it."""
    reason: Phrase = phrase(
        "{share} of {words} shows {where}; {limit} may.",
        share=f"{share:.0%}",
        words=words,
        where=where,
        limit=f"{limit.value:.0%}",
    )
    return finding(
        check=check,
        case="typical",
        value=ratio(share),
        limit=limit.quantity,
        sense="at most",
        reason=reason,
        tight_from=SHOWS_GOOD.value / SHOWS_LIMIT.value,
    )


def through_glass(build: Build) -> float:
    """How much of the inside shows through clear glass, 0-1; none where it is lined, wrapped or may be seen."""
    piece, vessel = build.piece, build.piece.vessel
    frog_alone = build.frog is not None and build.netting is None
    if (
        not vessel.clear
        or not build.mechanic.shows
        or frog_alone
        or piece.lining
        or "mechanic" in piece.look
        or moss_round_m(piece)
    ):
        return 0.0
    return THROUGH_GLASS * max(1.0 - piece.wrap_height_m / vessel.rim_m, 0.0)


def _glass(build: Build, limit: Constant) -> list[Finding]:
    share = through_glass(build)
    if share <= 0:
        return []
    shows_through = phrase(
        "The glass is clear: the {mechanic} shows through it from every side.",
        mechanic=ABOUT[build.mechanic.kind].name.lower(),
    )
    return [
        finding(
            check="through the glass",
            case="typical",
            value=ratio(share),
            limit=limit.quantity,
            sense="at most",
            reason=shows_through,
        )
    ]


def _underside(build: Build, eyes: Array, limit: Constant) -> list[Finding]:
    """Guests under the rim of a raised bowl look at its underside: share of it not hung over by leaves."""
    if build.piece.support is None or "underside" in build.piece.look:
        return []
    below = eyes[eyes[:, 2] < build.raised_m]
    if len(below) == 0:
        return []
    ring = underside_points_m(build)
    shares = share_seen(seen_share(flower_mass(build), below, ring), turned_to(below, ring))
    worst = int(shares.argmax())
    share = float(shares[worst]) * UNDERSIDE_COUNTS.value
    return [shows("underside", share, limit, "the underside", from_where(below[worst]))]


def side_words(turn_rad: float) -> str:
    """In words from which side somebody looks who has gone round to the right."""
    sides = ("the front", "front right", "the right", "back right", "the back", "back left", "the left", "front left")
    return sides[round(turn_rad / (2 * math.pi) * 8) % 8]


def from_where(eye: Array) -> str:
    turn = math.atan2(float(eye[0]), -float(eye[1])) % (2 * math.pi)
    far = math.hypot(float(eye[0]), float(eye[1])) > 0.9
    return worded("from {side}, standing" if far else "from {side}, seated", side=side_words(turn))
