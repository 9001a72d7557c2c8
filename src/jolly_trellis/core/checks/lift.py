"""Lift: mass at each stage against the revised lifting equation."""

from dataclasses import dataclass, replace

from jolly_trellis.core.acts.stances import rides_flowered
from jolly_trellis.core.books.bodies import State, on_show, own_bare, rows_in
from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.books.water import JUG_L
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.travel import (
    BUCKET_ACROSS,
    BUCKET_KG,
    BUCKET_STEMS,
    BUCKET_WATER,
    journey_of,
    lifted_out,
    loaded,
)
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.vessels import WATER_DENSITY
from jolly_trellis.core.plan import facts
from jolly_trellis.core.provenance import COMMON_PRACTICE, COMPUTED, FROM_MEMORY, Provenance
from jolly_trellis.core.quantities import length, mass, phrase

NIOSH = Provenance(kind="published", source="NIOSH publication 94-110, revised lifting equation")
LOAD_CONSTANT = rule("Load constant of the lifting equation", "mass", 23.0, NIOSH)
REACH_LEAST = rule("Reach counted at least", "length", 0.25, NIOSH)
REACH_MOST = rule("Reach beyond which nothing is lifted", "length", 0.63, NIOSH)
NO_HANDLES = rule("Coupling without handles", "ratio", 0.90, NIOSH)
TWO_PEOPLE = rule("Two people lift, times one", "ratio", 4 / 3, FROM_MEMORY)
JUG_ACROSS = rule("A jug, front to back", "length", 0.20, COMMON_PRACTICE)
WATER_KG_L = WATER_DENSITY.built_in / 1000
HANDS_OUT = rule("Reach to the near side of a load", "length", 0.20)
FLOWERS_OUT = rule("Reach added where flowers overhang the body", "length", 0.10)
OVERHANG = rule("Flowers overhang a body from", "length", 0.10)


@dataclass(frozen=True, slots=True, kw_only=True)
class Move:
    """One lift: from one height of the hands to another, metres."""

    name: str
    from_m: float
    to_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """Something that is lifted by itself: what it is, its heavy mass in kg, how deep it is front to back, m, and
    whether flowers overhang it."""

    name: str
    mass_kg: float
    deep_m: float
    overhung: bool = False


MOVES = (
    Move(name="floor to bench", from_m=0.10, to_m=0.90),
    Move(name="bench to van", from_m=0.90, to_m=0.60),
    Move(name="van to table", from_m=0.60, to_m=0.75),
)


def recommended_mass_kg(
    *,
    reach_m: float,
    height_m: float,
    travel_m: float,
    twist_deg: float = 0.0,
    frequency: float = 1.0,
    coupling: float,
) -> float:
    """Recommended weight limit of the revised lifting equation, kg.

    23·(0.25/H)·(1 − 0.003·|100·V − 75|)·(0.82 + 0.045/D)·(1 − 0.0032·A)·FM·CM.

    Args:
        reach_m: H, from the ankles to the hands, m; under 0.25 counts as 0.25.
        height_m: V, of the hands at the start, m, 0-1.75.
        travel_m: D, how far they move up or down, m; under 0.25 the factor is 1.
        twist_deg: A, 0-135.
        frequency: FM, 1.0 for rare, short lifts.
        coupling: CM, 0.90 without handles, 1.0 a handled crate.
    Raises: InvalidMeasure: a reach over 0.63 m, or a height outside 0-1.75 m.
    Valid for: two-handed smooth lifts on the level; not ladders or stairs.
    Source: NIOSH publication 94-110 (Applications Manual for the Revised NIOSH Lifting Equation).
    """
    if reach_m > REACH_MOST.value:
        raise InvalidMeasure(
            path="transport",
            message=phrase("A reach of {r} is beyond what may be lifted.", r=length(reach_m)),
            limit=phrase("Bring the load within {most}.", most=length(REACH_MOST.value)),
        )
    if not 0 <= height_m <= 1.75:
        raise InvalidMeasure(
            path="transport",
            message=phrase("Hands at {h} are out of reach.", h=length(height_m)),
            limit=phrase("Lift from {low} to {high}.", low=length(0.0), high=length(1.75)),
        )
    horizontal = REACH_LEAST.value / max(reach_m, REACH_LEAST.value)
    vertical = 1 - 0.003 * abs(100 * height_m - 75)
    distance = 1.0 if travel_m < 0.25 else 0.82 + 0.045 / travel_m
    asymmetry = 1 - 0.0032 * twist_deg
    return LOAD_CONSTANT.value * horizontal * vertical * distance * asymmetry * frequency * coupling


def reach_of(load: Load) -> float:
    """Reach to the load's middle: 0.20 m + half of it front to back, + 0.10 m under flowers, metres.

    Source: estimate.
    """
    return HANDS_OUT.value + load.deep_m / 2 + (FLOWERS_OUT.value if load.overhung else 0.0)


def judge(build: Build) -> Verdict:
    """Lift: the mass at each move against what may be lifted."""
    support, insert = build.piece.support, build.piece.insert
    asked = (
        (build.piece.vessel.mass_kg is None, facts.VESSEL_WEIGHT),
        (build.piece.transport is None and rides_flowered(build.acts), facts.CARRIED_BY),
        (support is not None and support.mass_kg is None, facts.SUPPORT_WEIGHT),
        (insert is not None and insert.outer.mass_kg is None, facts.URN_WEIGHT),
    )
    missing = [fact.missing() for absent, fact in asked if absent]
    if missing:
        return conclude("lift", [], missing=missing)
    findings = [each for load in loads_of(build) for move in MOVES for each in _move(build, move, load)]
    return conclude("lift", findings, figures=_figures(build))


def loads_of(build: Build) -> tuple[Load, ...]:
    """What is lifted: the piece as it is loaded, each part that is carried apart, the bucket of what goes in there.

    Where it is made where it stands: the dry vessel with its mechanic, its stones, its water a jug at a time.
    """
    piece, going, journey = build.piece, build.piece.transport, journey_of(build)
    there = not rides_flowered(build.acts)
    vessel, support = piece.vessel, piece.support
    deep = max(point.depth_m for point in vessel.profile) + 2 * vessel.wall_m
    found = []
    if going is not None and not there and journey is not None:
        body = going.box_depth_m if going.boxed and going.box_depth_m else deep
        overhung = piece.envelope.depth_m > body + OVERHANG.value
        kg = journey.heavy_kg
        if support is not None and not going.apart:
            kg += sum(
                each.mass_kg
                for each in own_bare(build, "heavy", on_show(build, "heavy"))
                if each.thing in ("support", "ballast water")
            )
        found.append(Load(name="the piece as it travels", mass_kg=kg, deep_m=body, overhung=overhung))
        lifted = lifted_out(build)
        if lifted == "insert" and piece.insert is not None:
            outer = piece.insert.outer
            wide = max(point.depth_m for point in outer.profile) + 2 * outer.wall_m
            found.append(Load(name="the urn, carried apart", mass_kg=outer.mass_kg or 0.0, deep_m=wide))
        if lifted == "pad":
            found[0] = replace(found[0], name="the pad with its stems, on a bucket", deep_m=BUCKET_ACROSS.value)
            found.append(Load(name="the vessel, carried apart", mass_kg=vessel.mass_kg or 0.0, deep_m=deep))
    else:
        dry = [each for each in own_bare(build, "heavy", State(level_m=0.0)) if each.thing in ("vessel", "mechanic")]
        found.append(Load(name="the dry vessel", mass_kg=sum(each.mass_kg for each in dry), deep_m=deep))
        if piece.ballast_kg:
            found.append(Load(name="its stones", mass_kg=piece.ballast_kg, deep_m=deep))
        if piece.insert is not None:
            outer = piece.insert.outer
            wide = max(point.depth_m for point in outer.profile) + 2 * outer.wall_m
            found.append(Load(name="the urn", mass_kg=outer.mass_kg or 0.0, deep_m=wide))
        litres = min(build.water.volume_at_l(piece.water_level_m), JUG_L.value)
        found.append(Load(name="a jug of water", mass_kg=litres * WATER_KG_L, deep_m=JUG_ACROSS.value))
    if support is not None and (going is None or going.apart or there):
        wide = support.foot_width_m or support.top_width_m
        found.append(Load(name="its support", mass_kg=support.mass_kg or 0.0, deep_m=wide))
    if (bucket_kg := _bucket_kg(build)) > 0:
        found.append(Load(name="a bucket of what goes in there", mass_kg=bucket_kg, deep_m=BUCKET_ACROSS.value))
    return tuple(found)


def _bucket_kg(build: Build) -> float:
    """The fullest bucket of stems that go in where it is shown: bucket, water, stems, kg; 0 where none do."""
    stems = build.placement.stems
    apart = ~stems.present(loaded(build).stems)
    number = float(stems.stems_in_row[apart].sum())
    if not number:
        return 0.0
    kg = float(rows_in(build, "heavy").mass_kg[apart].sum())
    return BUCKET_KG.value + BUCKET_WATER.value + kg * min(BUCKET_STEMS.value / number, 1.0)


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Fill on the spot, lift it with two, use a crate with handles."""
    piece, going = build.piece, build.piece.transport
    if going is None:
        return []
    tried = []
    dry = replace(piece, transport=replace(going, water_level_m=0.0))
    tried.append(Candidate(key="fill-on-the-spot", say=phrase("Carry it dry and fill it on the spot."), piece=dry))
    if going.carriers == 1:
        two = replace(piece, transport=replace(going, carriers=2))
        tried.append(Candidate(key="two", say=phrase("Lift it with two people."), piece=two))
    if not going.crate:
        crate = replace(piece, transport=replace(going, crate=True))
        tried.append(Candidate(key="crate", say=phrase("Carry it in a crate with handles."), piece=crate))
    both = replace(piece, transport=replace(going, carriers=2, water_level_m=0.0))
    tried.append(Candidate(key="two-dry", say=phrase("Carry it dry, with two people."), piece=both))
    return tried


def _move(build: Build, move: Move, load: Load) -> list[Finding]:
    going = build.piece.transport
    coupling = 1.0 if going is not None and going.crate else NO_HANDLES.value
    reach, kg = reach_of(load), load.mass_kg
    if reach > REACH_MOST.value:
        words = "Hands reach {r} out to lift {load}; over {most} use a trolley, or make it where it stands."
        return [
            finding(
                check="reach",
                case="heavy",
                value=length(reach),
                limit=REACH_MOST.quantity,
                sense="at most",
                reason=phrase(words, r=length(reach), load=load.name, most=REACH_MOST.quantity),
            )
        ]
    limit = recommended_mass_kg(
        reach_m=reach, height_m=move.from_m, travel_m=abs(move.to_m - move.from_m), coupling=coupling
    )
    if going is not None and going.carriers >= 2:
        limit *= TWO_PEOPLE.value
    who = "two people" if going is not None and going.carriers >= 2 else "one person"
    return [
        finding(
            check=move.name,
            case="heavy",
            value=mass(kg),
            limit=mass(limit),
            sense="at most",
            reason=phrase(
                "{move}: {load}, {has}, where {who} may lift {limit}.",
                has=mass(kg),
                limit=mass(limit),
                move=move.name.capitalize(),
                load=load.name,
                who=who,
            ),
        )
    ]


def _figures(build: Build) -> list[Shown]:
    return [
        Figure(label="Reach to the load", quantity=length(reach_of(loads_of(build)[0])), provenance=COMPUTED),
        LOAD_CONSTANT,
        REACH_LEAST,
        REACH_MOST,
        NO_HANDLES,
        TWO_PEOPLE,
    ]
