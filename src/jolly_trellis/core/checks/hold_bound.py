"""Hold in a bouquet: heads on their dome, stems through the armature and the binding, the angle of the outermost."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.figures import Constant, Figure, Shown, measure, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.hold_swing import SWAY_BASE, SWAY_SHARE, play_m
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.stems import HeadForm
from jolly_trellis.core.mechanics import bouquet as bouquets
from jolly_trellis.core.mechanics import sizing
from jolly_trellis.core.mechanics.about import firm_ones
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.kinds import is_carried
from jolly_trellis.core.provenance import COMPUTED
from jolly_trellis.core.quantities import angle, count, length, phrase, ratio
from jolly_trellis.core.units import round_up

SOLID: dict[HeadForm, Constant] = {
    "disc": measure("How much of its disc a flat head fills on a dome", "ratio", 1.0, most=1.0),
    "ball": measure("How much of its disc a ball fills on a dome", "ratio", 1.0, most=1.0),
    "spray": measure("How much of its disc a spray fills on a dome", "ratio", 0.5, most=1.0),
    "spike": measure("How much of its disc a spike fills on a dome", "ratio", 0.5, most=1.0),
    "plume": measure("How much of its disc a plume fills on a dome", "ratio", 0.3, most=1.0),
    "tassel": measure("How much of its disc a tassel fills on a dome", "ratio", 0.3, most=1.0),
    "leaf": measure("How much of its disc foliage fills on a dome", "ratio", 0.0),
}
SOLID_AIRY = measure("How much of its disc an airy stem fills on a dome", "ratio", 0.15, most=1.0)
ANGLE_MOST = rule("Angle of the outermost stems before they kink at the binding", "angle", math.radians(60))
ANGLE_LEAST = measure("Angle at which stems of a hand spiral lock across each other", "angle", math.radians(12))


def judge(build: Build) -> Verdict:
    """Hold: room for the heads, sway between armature and binding, mesh, and the angle of the outermost stems."""
    if len(build.placement.stems) == 0:
        return conclude("hold", [], missing=[facts.RECIPE.missing()])
    findings = [_heads(build), *_capacity(build), *_sway(build), *_mesh(build), *_angles(build)]
    return conclude("hold", findings, figures=_figures(build))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """A wider dome, a longer neck, an armature in place of the hand alone."""
    piece, envelope = build.piece, build.piece.envelope
    tried = []
    for share in (1.1, 1.2, 1.35, 1.5):
        wide, deep = (round_up(each * share, 0.01) for each in (envelope.width_m, envelope.depth_m))
        say = phrase("Let the dome be {w} across.", w=length(wide))
        wider = replace(envelope, width_m=wide, depth_m=deep)
        tried.append(Candidate(key=f"wider-{round(share * 100)}", say=say, piece=replace(piece, envelope=wider)))
    for more in (0.03, 0.06, 0.10):
        tall = round(envelope.height_m + more, 3)
        say = phrase("Bind {m} farther under the flowers.", m=length(more))
        longer = replace(piece, envelope=replace(envelope, height_m=tall))
        tried.append(Candidate(key=f"neck-{round(more * 100)}", say=say, piece=longer))
    for about in firm_ones("bouquet"):
        if about.kind != piece.mechanic.kind:
            other = replace(piece, mechanic=replace(piece.mechanic, kind=about.kind))
            say = phrase("Make it on a {about}.", about=about.name.lower())
            tried.append(Candidate(key=f"kind-{about.kind}", say=say, piece=other))
    return tried


def dome_of(build: Build) -> tuple[float, bouquets.Shape]:
    """Surface of the dome, m², and the bouquet's measures. Raises TypeError: the piece is none."""
    piece = build.piece
    if not is_carried(piece):
        raise TypeError("only a bouquet has a dome")
    shape = sizing.shape_of(piece)
    area = bouquets.cap_area_m2(piece.envelope.width_m / 2, piece.envelope.depth_m / 2, shape.dome_m)
    return area, shape


def heads_fill(build: Build) -> float:
    """Flower heads' discs over the dome's surface, 0 or more; loose and airy heads count for less."""
    stems, total = build.placement.stems, 0.0
    for line, variety, first, rows in stems.lines:
        disc = float((math.pi * stems.head_radius_m[first : first + rows] ** 2).sum())
        total += disc * (SOLID_AIRY.value if line.role == "airy" else SOLID[variety.form].value)
    return total / dome_of(build)[0]


def outer_angle_rad(build: Build) -> float:
    """Angle of the outermost stems from the handle, radians."""
    _, shape = dome_of(build)
    half = max(build.piece.envelope.width_m, build.piece.envelope.depth_m) / 2
    return bouquets.spiral_angle_rad(half, shape.neck_m + shape.dome_m / 3)


def _heads(build: Build) -> Finding:
    fill, limit = ratio(heads_fill(build)), bouquets.HEADS_FILL_MOST.quantity
    words = "Heads fill {f} of the dome; over {limit} they crush."
    reason = phrase(words, f=fill, limit=limit)
    return finding(check="heads", case="typical", value=fill, limit=limit, sense="at most", reason=reason)


def _by_hand(build: Build) -> bool:
    """Whether nothing but the binding holds it: no armature spaces its heads."""
    return len(build.mechanic.levels) == 1


def _capacity(build: Build) -> list[Finding]:
    total, room = int(build.placement.stems.stems_in_row.sum()), build.mechanic.capacity
    if _by_hand(build):
        return []
    reason = phrase(
        "{n} stems go through the {mechanic}; it has {room} openings.",
        n=count(total),
        room=count(room),
        mechanic=build.mechanic.name,
    )
    return [
        finding(
            check="openings", case="typical", value=count(total), limit=count(room), sense="at most", reason=reason
        )
    ]


def _sway(build: Build) -> list[Finding]:
    """Play at the armature over its distance from the binding; a hand spiral is held by the stems it crosses."""
    if _by_hand(build):
        return []
    placement = build.placement
    gap = max(build.mechanic.layer_gap_m, 1e-3)
    play = play_m(placement.cell_aperture_m, placement.stems.diameter_m, np.zeros(len(placement.stems)))
    sway = placement.visible_m * play / gap
    limit = SWAY_BASE.value + SWAY_SHARE.value * placement.visible_m
    worst = int((sway / limit).argmax())
    name = placement.stems.variety_of(worst).name
    reason = phrase(
        "The loosest head, a {name}, can sway {s} between binding and armature; {limit} is allowed.",
        s=length(sway[worst]),
        limit=length(limit[worst]),
        name=name,
    )
    return [
        finding(
            check="sway",
            case="typical",
            value=length(sway[worst]),
            limit=length(limit[worst]),
            sense="at most",
            reason=reason,
        )
    ]


def _mesh(build: Build) -> list[Finding]:
    if _by_hand(build):
        return []
    stems, aperture = build.placement.stems, build.placement.cell_aperture_m
    row = int(stems.diameter_m.argmax())
    needed = length(nets.PASSING_FACTOR.value * float(stems.diameter_m[row]))
    reason = phrase(
        "{variety} needs an opening of {needed}; these are {a}.",
        needed=needed,
        a=length(aperture),
        variety=stems.variety_of(row).name.capitalize(),
    )
    return [
        finding(check="mesh", case="typical", value=length(aperture), limit=needed, sense="at least", reason=reason)
    ]


def _angles(build: Build) -> list[Finding]:
    value = angle(outer_angle_rad(build))
    steep = phrase(
        "The outermost stems leave the binding at {a}; past {limit} they kink: bind farther down.",
        a=value,
        limit=ANGLE_MOST.quantity,
    )
    found = [
        finding(
            check="outer angle",
            case="typical",
            value=value,
            limit=ANGLE_MOST.quantity,
            sense="at most",
            reason=steep,
        )
    ]
    if build.mechanic.crosses:
        locks = phrase(
            "Stems cross at {a} at the outside; under {limit} a spiral does not lock.",
            a=value,
            limit=ANGLE_LEAST.quantity,
        )
        found.append(
            finding(
                check="spiral", case="typical", value=value, limit=ANGLE_LEAST.quantity, sense="at least", reason=locks
            )
        )
    return found


def _figures(build: Build) -> list[Shown]:
    area, shape = dome_of(build)
    stems = build.placement.stems
    heads = int(stems.stems_in_row[stems.flower > 0].sum())
    mean = float(stems.head_radius_m[stems.flower > 0].mean()) * 2 if heads else 0.0
    most = bouquets.heads_on_dome(area, mean, bouquets.HEADS_FILL_MOST.value) if mean else 0
    computed = [
        ("Heads over the dome", ratio(heads_fill(build))),
        ("Heads of this size that would fill it", count(most)),
        ("Spacing of the heads, middle to middle", length(bouquets.head_spacing_m(area, heads))),
        ("From the binding to the underside", length(shape.neck_m)),
        ("Rise of the dome", length(shape.dome_m)),
        ("Angle of the outermost stems", angle(outer_angle_rad(build))),
    ]
    return [
        *(Figure(label=label, quantity=value, provenance=COMPUTED) for label, value in computed),
        bouquets.HEADS_FILL_LEAST,
        bouquets.HEADS_FILL_MOST,
        ANGLE_MOST,
        *([ANGLE_LEAST] if build.mechanic.crosses else []),
    ]
