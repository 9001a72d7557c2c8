"""Lift of a bouquet: what the hand holds, for how long, and round what."""

import math
from dataclasses import replace

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.books.bodies import Case, centre_of, in_hand
from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.hold_bound import dome_of
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import bouquet as bouquets
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.kinds import is_held
from jolly_trellis.core.provenance import COMPUTED
from jolly_trellis.core.quantities import count, length, mass, moment, phrase
from jolly_trellis.core.stems.shades import with_count
from jolly_trellis.core.stems.tubes import line_water_kg

Rows = npt.NDArray[np.intp]
MASS_EASY = rule("A bouquet easily carried, up to", "mass", 1.2)
MASS_SHORT = rule("A bouquet carried for a short while, up to", "mass", 2.0)
WRIST_EASY = rule("Moment at the wrist easily borne", "moment", 1.0)
WRIST_SHORT = rule("Moment at the wrist borne for a short while", "moment", 1.6)
TILT = rule("A bouquet in the hand leans forward by", "angle", math.radians(30))
GRIP_LEAST = rule("A handle that fills a hand, from", "length", 0.030)
GRIP_MOST = rule("A handle that a hand closes on, up to", "length", 0.045)


def wrist_moment_n_m(mass_kg: float, along_m: float, aside_m: float, tilt_rad: float) -> float:
    """Moment at mid-grip of a bouquet leaned over: m·g·(L·sin t + s·cos t), N·m.

    Args:
        mass_kg: of all that is carried.
        along_m: L, from mid-grip along the handle to the centre of mass, m.
        aside_m: s, from the handle's line to the centre of mass, m, ≥ 0, on the side it leans to.
        tilt_rad: t, of the handle from upright.
    Source: statics.
    """
    return mass_kg * GRAVITY_M_S2 * (along_m * math.sin(tilt_rad) + aside_m * math.cos(tilt_rad))


def carried(build: Build, case: Case) -> tuple[float, float, float]:
    """(mass kg, height of the centre over mid-grip, its offset from the handle's line), metres, in one load case."""
    _, shape = dome_of(build)
    held = centre_of(in_hand(build, case))
    if held.mass_kg <= 0:
        return 0.0, 0.0, 0.0
    grip = shape.binding_m - shape.hand_m / 2
    return held.mass_kg, held.height_m - grip, math.hypot(held.x_m, held.y_m)


def water_carried_kg(build: Build) -> float:
    """Tubes and wet wraps with their water, kg."""
    return sum(line_water_kg(line) for line, _, _, _ in build.placement.stems.lines)


def judge(build: Build) -> Verdict:
    """Lift: mass, wrist, handle and the length below the binding, as the hand has them."""
    if len(build.placement.stems) == 0:
        return conclude("lift", [], missing=[facts.RECIPE.missing()])
    cases: tuple[Case, ...] = ("typical", "heavy")
    findings = [each for case in cases for each in (_mass(build, case), _wrist(build, case))]
    return conclude("lift", [*findings, *_handle(build), *_hand(build)], figures=_figures(build))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Fewer stems, a lower neck, a hand's length below the binding."""
    piece = build.piece
    if not is_held(piece):
        return []
    tried: list[Candidate] = []
    for share in (0.9, 0.8, 0.7, 0.6):
        fewer = tuple(with_count(line, max(1, round(line.count * share))) for line in piece.recipe)
        say = phrase("Take {n} stems in all.", n=count(sum(line.count for line in fewer)))
        tried.append(Candidate(key=f"fewer-{round(share * 100)}", say=say, piece=replace(piece, recipe=fewer)))
    for more in (1.15, 1.4, 1.8):
        fuller = tuple(replace(line, count=math.ceil(line.count * more)) for line in piece.recipe)
        say = phrase("Take {n} stems in all.", n=count(sum(line.count for line in fuller)))
        tried.append(Candidate(key=f"more-{round(more * 100)}", say=say, piece=replace(piece, recipe=fuller)))
    for less in (0.02, 0.05, 0.08):
        low = replace(piece.envelope, height_m=round(piece.envelope.height_m - less, 3))
        say = phrase("Bind {l} nearer to the flowers.", l=length(less))
        tried.append(Candidate(key=f"nearer-{round(less * 100)}", say=say, piece=replace(piece, envelope=low)))
    if piece.hand_length_m is not None:
        worked = replace(piece, hand_length_m=None)
        tried.append(
            Candidate(key="hand", say=phrase("Cut the ends a hand's length below the binding."), piece=worked)
        )
    return tried


def wrist_so_far_n_m(build: Build, order: Rows) -> Array:
    """Moment at the wrist, heavy, before the first stem of a making order and after each, N·m, shape (stems + 1,).

    Source: `wrist_moment_n_m` of running sums.
    """
    _, shape = dome_of(build)
    grip = shape.binding_m - shape.hand_m / 2
    kg, at = build.heavy_rows.mass_kg[order], build.heavy_rows.centre_m[order]
    own = sum(each.mass_kg * (each.height_m - grip) for each in in_hand(build, "heavy") if each.thing == "mechanic")
    up = np.concatenate([[own], own + np.cumsum(kg * (at[:, 2] - grip))])
    aside = np.hypot(*(np.concatenate([[0.0], np.cumsum(kg * at[:, axis])]) for axis in (0, 1)))
    return np.asarray(GRAVITY_M_S2 * (up * math.sin(TILT.value) + aside * math.cos(TILT.value)))


def _mass(build: Build, case: Case) -> Finding:
    kg = mass(carried(build, case)[0])
    words = "With heavy stems" if case == "heavy" else "As planned"
    reason = phrase(
        "{words} it weighs {m}; {easy} is easy, {limit} only for a short while.",
        m=kg,
        easy=MASS_EASY.quantity,
        limit=MASS_SHORT.quantity,
        words=words,
    )
    return finding(
        check="mass",
        case=case,
        value=kg,
        limit=MASS_SHORT.quantity,
        sense="at most",
        reason=reason,
        tight_from=MASS_EASY.value / MASS_SHORT.value,
    )


def _wrist(build: Build, case: Case) -> Finding:
    kg, along, aside = carried(build, case)
    value = moment(wrist_moment_n_m(kg, along, aside, TILT.value))
    words = "With heavy stems" if case == "heavy" else "As planned"
    reason = phrase(
        "{words}, leaned forward, it turns the wrist with {v}; {easy} is easy, {limit} only for a short while.",
        v=value,
        easy=WRIST_EASY.quantity,
        limit=WRIST_SHORT.quantity,
        words=words,
    )
    return finding(
        check="wrist",
        case=case,
        value=value,
        limit=WRIST_SHORT.quantity,
        sense="at most",
        reason=reason,
        tight_from=WRIST_EASY.value / WRIST_SHORT.value,
    )


def _handle(build: Build) -> list[Finding]:
    value = length(bouquets.handle_of(build.placement.stems, build.mechanic.crosses))
    thick = phrase("The handle is {d} thick; a hand closes on {limit}.", d=value, limit=GRIP_MOST.quantity)
    thin = phrase("The handle is {d} thick; under {limit} pad it with tape.", d=value, limit=GRIP_LEAST.quantity)
    return [
        finding(
            check="grip",
            case="typical",
            value=value,
            limit=GRIP_MOST.quantity,
            sense="at most",
            reason=thick,
            tight_from=0.9,
        ),
        # A thin handle is padded with tape at no cost, so it is never worse than tight.
        replace(
            finding(
                check="thin",
                case="typical",
                value=value,
                limit=GRIP_LEAST.quantity,
                sense="at least",
                reason=thin,
                tight_from=0.99,
            ),
            utilisation=min(0.99, GRIP_LEAST.value / max(value.value, 1e-6)),
        ),
    ]


def _hand(build: Build) -> list[Finding]:
    _, shape = dome_of(build)
    value = length(shape.hand_m)
    short = phrase("{l} of stem below the binding; a hand needs {limit}.", l=value, limit=bouquets.HAND_LEAST.quantity)
    return [
        finding(
            check="hand",
            case="typical",
            value=value,
            limit=bouquets.HAND_LEAST.quantity,
            sense="at least",
            reason=short,
            tight_from=1.01,
        )
    ]


def _figures(build: Build) -> list[Shown]:
    kg, along, aside = carried(build, "typical")
    _, shape = dome_of(build)
    handle = bouquets.handle_of(build.placement.stems, build.mechanic.crosses)
    computed = [
        ("In the hand", mass(kg)),
        ("Centre of mass over mid-grip", length(along)),
        ("Centre of mass beside the handle", length(aside)),
        ("Handle, across", length(handle)),
        ("Stems below the binding", length(shape.hand_m)),
        ("Tubes and wraps with their water", mass(water_carried_kg(build))),
    ]
    return [
        *(Figure(label=label, quantity=value, provenance=COMPUTED) for label, value in computed),
        MASS_EASY,
        MASS_SHORT,
        WRIST_EASY,
        WRIST_SHORT,
        TILT,
        GRIP_LEAST,
        GRIP_MOST,
        bouquets.HAND_LEAST,
        bouquets.HAND_MOST,
    ]
