"""Travel: whether the piece keeps upright in its box, keeps its water, and goes through the door."""

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from jolly_trellis.core.acts.stances import after, rides_flowered
from jolly_trellis.core.books.bodies import Case, State, centre_of, in_hand, level_m, own
from jolly_trellis.core.books.figures import Figure, Shown, measure, rule
from jolly_trellis.core.books.water import CAREFUL, along_drive_m, slop_m, steady_level_m
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.balance import Balance, balance_of, foot_edge_m, outline_top_m
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.provenance import COMMON_PRACTICE, COMPUTED, Provenance
from jolly_trellis.core.quantities import length, level_most, phrase, ratio, volume
from jolly_trellis.core.units import round_up

EN_12195 = Provenance(kind="published", source="EN 12195-1, load securing on road vehicles")
BRAKING = rule("Acceleration forward, of gravity", "ratio", 0.8, EN_12195)
CORNERING = rule("Acceleration sideways and rearward, of gravity", "ratio", 0.5, EN_12195)
SPILL_TRAY = rule("Harder braking whose spill a tray must take, of gravity", "ratio", 0.5)
BOX_LEAST_SHARE = rule("Least box wall, share of the vessel's height", "ratio", 1 / 3)
BOX_ROOM = rule("Room round the vessel in its box", "length", 0.01)
BUCKET_TALL = rule("Bucket that a pad rides on, tall", "length", 0.28, COMMON_PRACTICE)
BUCKET_ACROSS = rule("Bucket that a pad rides on, across", "length", 0.24, COMMON_PRACTICE)
BUCKET_KG = measure("Empty bucket", "mass", 0.6)
BUCKET_WATER = rule("Water in a bucket that a pad rides on, kilograms", "mass", 3.0, COMMON_PRACTICE)
BUCKET_STEMS = measure("Stems that drink in one bucket", "count", 25, COMMON_PRACTICE)
SHIFTS = rule("A mechanic that shifts on the road is this near its limit", "ratio", 0.9)


@dataclass(frozen=True, slots=True, kw_only=True)
class Journey:
    """How the piece travels: level, litres carried apart, the water a tray must take, and its box.

    `box_wall_needed_m` is the least height of the box's walls; sizes in metres. `mass_kg` is what rides in the box as
    planned, `heavy_kg` with heavy stems.
    """

    level_m: float
    carried_l: float
    tray_l: float
    box_width_m: float
    box_depth_m: float
    box_wall_needed_m: float
    mass_kg: float
    heavy_kg: float
    height_m: float
    width_m: float


def box_wall_m(*, vessel_height_m: float, centre_m: float, wall_gap_m: float, accel_ratio: float) -> float:
    """Least height of a box's wall: max(h_vessel/3, h − e_w/a), metres.

    Args:
        vessel_height_m: of the vessel, m.
        centre_m: height of the centre of mass, m.
        wall_gap_m: from the centre of mass to the wall on that side, m.
        accel_ratio: acceleration over gravity.
    Source: moments about the wall's top edge; the third is an estimate.
    """
    return max(BOX_LEAST_SHARE.value * vessel_height_m, centre_m - wall_gap_m / accel_ratio)


def journey_of(build: Build) -> Journey | None:
    """Everything about the way there; None where nobody has said how it travels, or weights are missing."""
    going = build.piece.transport
    if going is None or build.piece.vessel.mass_kg is None:
        return None
    lifted = lifted_out(build)
    level = loaded(build).level_m
    vessel = build.piece.vessel
    balance = _balance(build, level)
    across = [
        max(size) + 2 * vessel.wall_m for size in zip(*((p.width_m, p.depth_m) for p in vessel.profile), strict=True)
    ]
    if lifted == "pad":
        across = [BUCKET_ACROSS.value, BUCKET_ACROSS.value]
    width = going.box_width_m or across[0] + 2 * BOX_ROOM.value
    depth = going.box_depth_m or across[1] + 2 * BOX_ROOM.value
    walls = [
        box_wall_m(
            vessel_height_m=vessel.rim_m,
            centre_m=balance.height_m,
            wall_gap_m=gap,
            accel_ratio=accel,
        )
        for gap, accel in (
            (depth / 2 - abs(balance.y_m), BRAKING.value),
            (width / 2 - abs(balance.x_m), CORNERING.value),
        )
    ]
    volume_l = build.water.volume_at_l(level)
    hard = slop_m(SPILL_TRAY.value, along_drive_m(build.piece.vessel, level), build.mechanic.slop_factor)
    room = max(vessel.inside_depth_m - level, 0.0)
    area = float(np.interp(level, build.water.level_m, build.water.area_m2))
    there = build.placement.stems.present(loaded(build).stems)
    tips = build.placement.tip_m[there]
    reach = float(build.placement.stems.head_radius_m[there].max(initial=0.0))
    spread = np.hypot(tips[:, 0], tips[:, 1]).max(initial=0.0) + reach
    under = build.raised_m if _apart(build) or lifted == "insert" else 0.0
    under = build.rim_z_m - BUCKET_TALL.value if lifted == "pad" else under
    return Journey(
        level_m=level,
        carried_l=max(build.water.volume_at_l(build.piece.water_level_m) - volume_l, 0.0),
        tray_l=1000 * area * max(hard - room, 0.0) / 4,
        box_width_m=width,
        box_depth_m=depth,
        box_wall_needed_m=max(walls),
        mass_kg=balance.mass_kg,
        heavy_kg=_balance(build, level, "heavy").mass_kg,
        height_m=outline_top_m(build, loaded(build).stems) - under,
        width_m=max(2 * float(spread), width),
    )


def loaded(build: Build) -> State:
    """How the piece stands in the van, after it is loaded: what goes in where it is shown rides in buckets."""
    found: State | None = build.memo.get(("loaded",))
    if found is None:
        stance = after(build.acts, "load")
        if stance is None:
            raise LookupError("every piece is loaded")
        level = 0.0 if lifted_out(build) == "pad" else level_m(build, stance.level)
        found = build.memo["loaded",] = State(level_m=level, stems=stance.stems)
    return found


def bench_level_m(build: Build, travel_m: float) -> float:
    """Level to fill to before any stem goes in, so that the finished piece stands at its travelling level, metres.

    Source: conservation of volume: the same water in the vessel with the mechanic and no stems.
    """
    empty = vessels.volume_below_l
    volume_l = build.water.volume_at_l(travel_m)
    share = 1.0 - build.mechanic.displaced_volume_l / max(
        empty(build.piece.vessel, build.piece.vessel.inside_depth_m), 1e-9
    )
    return vessels.level_for_volume_m(
        build.piece.vessel,
        min(volume_l / max(share, 0.05), empty(build.piece.vessel, build.piece.vessel.inside_depth_m)),
    )


def judge(build: Build) -> Verdict:
    """Travel: box or bare, door, slop where somebody said a level; not needed where it is made where it stands."""
    going = build.piece.transport
    if not rides_flowered(build.acts):
        said = phrase("Made where it stands: nothing travels but the dry vessel, and stems in buckets.")
        return conclude("travel", [], not_needed=said)
    if going is None:
        return conclude("travel", [], missing=[facts.TRAVELS.missing()])
    journey = journey_of(build)
    support = None if going.apart else build.piece.support
    asked = (
        (build.piece.vessel.mass_kg is None, facts.VESSEL_WEIGHT),
        (going.boxed and going.box_wall_m is None, facts.BOX_WALL),
        (not going.boxed and build.piece.vessel.foot_width_m is None, facts.VESSEL_FOOT),
        (support is not None and support.foot_width_m is None, facts.SUPPORT_FOOT),
        (support is not None and support.mass_kg is None, facts.SUPPORT_WEIGHT),
    )
    missing = [fact.missing() for absent, fact in asked if absent]
    if journey is None:
        return conclude("travel", [], missing=missing)
    findings = [] if going.water_level_m is None else [_slop(build, journey)]
    findings += [_door(journey, going), *_cool_door(build, journey), *_upright(build, journey, going), *_shifts(build)]
    if support is not None and support.foot_width_m is not None and support.mass_kg is not None:
        findings.append(_together(build))
    return conclude("travel", findings, missing=missing, figures=_figures(journey))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Changes that could mend Travel: a higher box, a wider box, a lower level, carrying apart, making it on site."""
    piece, going = build.piece, build.piece.transport
    if going is None:
        return []
    journey = journey_of(build)
    tried = []

    def change(key: str, say: str, transport: Transport, **quantities: float) -> None:
        slots = {name: length(value) for name, value in quantities.items()}
        tried.append(Candidate(key=key, say=phrase(say, **slots), piece=replace(piece, transport=transport)))

    if journey is not None:
        wall = round_up(journey.box_wall_needed_m, 0.01)
        for share in (1.0, 1.3):
            high = round_up(wall * share, 0.01)
            change(
                f"box-{round(share * 10)}",
                "Use a box with walls {h} high.",
                replace(going, boxed=True, box_wall_m=high),
                h=high,
            )
        centre = _balance(build, journey.level_m).height_m
        wide = round_up(max(journey.box_width_m, journey.box_depth_m) + 0.04, 0.01)
        wide = max(wide, round_up(2.1 * BRAKING.value * centre, 0.01))
        wider = replace(going, boxed=True, box_width_m=wide, box_depth_m=wide, box_wall_m=going.box_wall_m or wall)
        change("wider-box", "Use a box {w} across, wedged all round.", wider, w=wide)
        if going.water_level_m is not None:
            low = steady_level_m(piece, build.mechanic)
            change("lower-water", "Drive with the water at {l}.", replace(going, water_level_m=low), l=low)
    if not going.apart:
        change("apart", "Carry the bowl apart from its support.", replace(going, apart=True))
    there = replace(piece, passage=replace(piece.passage, made="its place"))
    tried.append(Candidate(key="on-site", say=phrase("Make it where it stands."), piece=there))
    return tried


def lifted_out(build: Build) -> Literal["", "insert", "pad"]:
    """What is lifted out and carried without its vessel: an insert without its urn, a pad that lifts off; empty for
    nothing.
    """
    going = build.piece.transport
    if going is None or not going.lifted_out or not rides_flowered(build.acts):
        return ""
    if build.piece.insert is not None:
        return "insert"
    return "pad" if build.mechanic.lifts_off else ""


def _on_bucket(build: Build, case: Case) -> Balance:
    """A pad with its stems on a bucket a third full, their ends in its water."""
    riding = centre_of(in_hand(build, case, loaded(build).stems))
    bucket = BUCKET_KG.value + BUCKET_WATER.value
    whole = riding.mass_kg + bucket
    up = riding.height_m - build.rim_z_m + BUCKET_TALL.value
    return Balance(
        mass_kg=whole,
        x_m=riding.mass_kg * riding.x_m / whole,
        y_m=riding.mass_kg * riding.y_m / whole,
        height_m=(riding.mass_kg * up + bucket * BUCKET_TALL.value / 3) / whole,
        water_rise_x_m=0.0,
        water_rise_y_m=0.0,
    )


def _apart(build: Build) -> bool:
    going = build.piece.transport
    return build.piece.support is not None and (going is None or going.apart)


def _balance(build: Build, level_m: float, case: Case = "typical") -> Balance:
    """Mass and centre of what rides in the box, above its floor: the vessel at its travelling level."""
    lifted = lifted_out(build)
    if lifted == "pad":
        return _on_bucket(build, case)
    away = build.raised_m
    bodies = own(build, case, replace(loaded(build), level_m=level_m))
    if lifted == "insert":
        packed = [each for each in bodies if each.thing == "part" and each.borne_by == "urn"]
        bodies = tuple(each for each in bodies if each.thing != "urn" and each not in packed)
    elif build.piece.support is not None:
        bodies = tuple(each for each in bodies if each.on_joint)
        away = build.piece.support.height_m
    elif build.piece.insert is not None:
        away = 0.0
    riding = centre_of(bodies)
    return Balance(
        mass_kg=riding.mass_kg,
        x_m=riding.x_m,
        y_m=riding.y_m,
        height_m=riding.height_m - away,
        water_rise_x_m=0.0,
        water_rise_y_m=0.0,
    )


def _slop(build: Build, journey: Journey) -> Finding:
    climbs = slop_m(CAREFUL.value, along_drive_m(build.piece.vessel, journey.level_m), build.mechanic.slop_factor)
    room = build.piece.vessel.inside_depth_m - journey.level_m
    value, limit = length(climbs), length(max(room, 1e-4))
    words = "Driven with care the water climbs {up}; there is {room} to the rim at {level}."
    return finding(
        check="slop",
        case="typical",
        value=value,
        limit=limit,
        sense="at most",
        reason=phrase(words, up=value, room=limit, level=level_most(journey.level_m)),
    )


def _upright(build: Build, journey: Journey, going: Transport) -> list[Finding]:
    balance = _balance(build, journey.level_m)
    if not going.boxed:
        vessel = build.piece.vessel
        if lifted_out(build) == "pad":
            vessel = replace(vessel, foot_width_m=BUCKET_ACROSS.value, foot_depth_m=None)
        if vessel.foot_width_m is None:
            return []
        edge = min(vessel.foot_width_m, vessel.foot_depth_m or vessel.foot_width_m) / 2
        edge -= math.hypot(balance.x_m, balance.y_m)
        has = ratio(edge / balance.height_m)
        needs = ratio(BRAKING.value)
        words = "Bare on the van floor it tips at {has} of gravity; braking asks {needs}."
        return [
            finding(
                check="tips unboxed", case="typical", value=has, limit=needs, sense="at least",
                reason=phrase(words, has=has, needs=needs),
            )
        ]  # fmt: skip
    findings = []
    if going.box_wall_m is not None:
        value, limit = length(going.box_wall_m), length(journey.box_wall_needed_m)
        findings.append(
            finding(
                check="box wall",
                case="typical",
                value=value,
                limit=limit,
                sense="at least",
                reason=phrase("Braking asks a box wall of {needs}; this one is {has}.", needs=limit, has=value),
            )
        )
    box = ratio(min(journey.box_width_m, journey.box_depth_m) / 2 / max(balance.height_m, 1e-3))
    limit_r = ratio(BRAKING.value)
    findings.append(
        finding(
            check="box tips",
            case="typical",
            value=box,
            limit=limit_r,
            sense="at least",
            reason=phrase("The box itself tips at {has} of gravity; braking asks {needs}.", has=box, needs=limit_r),
        )
    )
    return findings


def _door(journey: Journey, going: Transport) -> Finding:
    pairs = ((journey.height_m, going.door_height_m, "high"), (journey.width_m, going.door_width_m, "across"))
    has, door, words = max(pairs, key=lambda each: each[0] / each[1])
    return finding(
        check="door",
        case="typical",
        value=length(has),
        limit=length(door),
        sense="at most",
        reason=phrase(
            "The piece is {has} {words}; the van's door is {door}.", has=length(has), door=length(door), words=words
        ),
    )


def _cool_door(build: Build, journey: Journey) -> list[Finding]:
    """The door of the cool room that a finished piece waits in, as far as somebody has measured it."""
    cooled = build.piece.passage.cooled
    if cooled is None:
        return []
    pairs = ((journey.height_m, cooled.door_height_m, "high"), (journey.width_m, cooled.door_width_m, "across"))
    measured = [(has, door, words) for has, door, words in pairs if door is not None]
    if not measured:
        return []
    has, door, words = max(measured, key=lambda each: each[0] / each[1])
    reason = phrase(
        "The piece is {has} {words}; the cool room's door is {door}.", has=length(has), door=length(door), words=words
    )
    return [
        finding(
            check="cool room's door",
            case="typical",
            value=length(has),
            limit=length(door),
            sense="at most",
            reason=reason,
        )
    ]


def _shifts(build: Build) -> list[Finding]:
    """A single level, or a tangle that is not tied, shifts on the road: said as tight."""
    if not build.mechanic.loose:
        return []
    name = ABOUT[build.mechanic.kind].name.lower()
    return [
        Finding(
            check="shifts",
            case="typical",
            value=SHIFTS.quantity,
            limit=ratio(1.0),
            sense="at most",
            utilisation=SHIFTS.value,
            reason=phrase(
                "A {name} with one level, or not tied down, shifts on the road: look it over on arrival.", name=name
            ),
        )
    ]


def _together(build: Build) -> Finding:
    """Bowl and support carried as one: tipping over the support's foot under braking, in the worst direction."""
    balance = balance_of(build, "typical")
    has, needs = ratio(float(foot_edge_m(build, balance).min()) / balance.height_m), ratio(BRAKING.value)
    words = "On its support it tips at {has} of gravity; braking asks {needs}: carry bowl and support apart."
    return finding(
        check="on its support",
        case="typical",
        value=has,
        limit=needs,
        sense="at least",
        reason=phrase(words, has=has, needs=needs),
    )


def _figures(journey: Journey) -> list[Shown]:
    computed = (
        ("Travelling level", level_most(journey.level_m)),
        ("Water carried apart", volume(journey.carried_l)),
        ("A tray under it takes", volume(journey.tray_l)),
        ("Box wall needed", length(journey.box_wall_needed_m)),
    )
    return [
        *(Figure(label=name, quantity=value, provenance=COMPUTED) for name, value in computed),
        BRAKING,
        CORNERING,
        CAREFUL,
        BOX_LEAST_SHARE,
    ]
