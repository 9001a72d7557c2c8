"""Armatures sized: finished against armature, the strip or sheet to cut, twigs, canes, ties, hook wire."""

import math
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import pairwise

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.books.needs import FromSupply, from_roll
from jolly_trellis.core.building.spills import TENSION_PER_CELL
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import Netting, NettingSheet
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase, worded
from jolly_trellis.core.rigging.drops import HOOK_KG_M
from jolly_trellis.core.rigging.rig import RUNS, Armature, ArmatureKind

NO_TAIL: tuple[ArmatureKind, ...] = ("wrapped frame", "runner")
TIED_SHUT: tuple[ArmatureKind, ...] = ("tube", "sleeve")
TAIL = rule("Netting left past the first fixing of a tube or snake", "length", 0.45, COMMON_PRACTICE)
TWIST = measure("Length that twisting takes from a snake", "ratio", 1.07)
JOIN_ROWS = rule("Rows of cells that two sections of a tube overlap by", "count", 2, COMMON_PRACTICE)
CLOSED_BY = rule("Rows of cells that close netting round its frame", "count", 2, COMMON_PRACTICE)
FOLDED_IN = rule("A panel's netting folded in at its edge, cells", "count", 1, COMMON_PRACTICE)
RING_TUBE = rule("Thickness of the tube a ring is bent from", "length", 0.08)
TWIG_EVERY = rule("Dry twigs through a snake, one every", "length", 0.30)
PEG_PROUD = rule("Dry twigs stand proud of a tube by its diameter, times", "ratio", 2.0, COMMON_PRACTICE)
PEG_UNEVEN = rule("The shortest and longest of them differ from that, diameters", "ratio", 1.0, COMMON_PRACTICE)
WIRE_TIE = rule("Wire of one tie", "length", 0.15, COMMON_PRACTICE)
CLOSE_EVERY = rule("A tube is closed by a tie every", "length", 0.20, COMMON_PRACTICE)
COIL_TURNS = rule("Turns round the hand that a batch of ties is cut from", "count", 3, COMMON_PRACTICE)
COIL_TURN = rule("Wire of one turn round the hand", "length", 0.30, COMMON_PRACTICE)
TIES_AT_JOINT = rule("Ties across a joint of two sections", "count", 3, COMMON_PRACTICE)
CANE_SAG = measure("Netting sags between canes, of their distance, at most", "ratio", 0.05)
CANE_PROUD = rule("A cane is longer than its panel by", "length", 0.04)
CANE_TIES_EVERY = rule("Ties of a panel to its canes, one every", "length", 0.15)
TIE_EVERY = rule("Ties of a wrapped frame, one every", "length", 0.25, COMMON_PRACTICE)
LASTING_TIES = rule("Ties of what is dried, preserved or artificial, against fresh", "ratio", 1.5)
TIES_TO_CLOSE = rule("Ties that close a tube round its frame", "count", 3, COMMON_PRACTICE)
CANE_KG_M = measure("Mass of a metre of cane", "linear_mass", 0.06)
TWIG_KG_M = measure("Mass of a metre of dry twig", "linear_mass", 0.03)
TIES = "ties"  # what the names of ties begin with
FRAME_TIE_KG = measure("Cable tie of a wrapped frame, 3.6 mm", "mass", 0.0012)
BIND_WIRE_KG_M = measure("Mass of a metre of binding wire, 0.7 mm", "linear_mass", 0.003)
HOOK_SUPPLIES = {0.0007: "hook-wire-07", 0.001: "hook-wire", 0.0013: "hook-wire-13"}
CANE_TIE_KG = measure("Cable tie of a cane, 2.5 mm", "mass", 0.0006)


@dataclass(frozen=True, slots=True, kw_only=True)
class SizedArmature:
    """An armature as it is cut and as it looks finished; metres.

    `sheet` is the whole netting in `sections` pieces, the longest of them `section_m`, tails and joins in; `cuts` are
    those pieces as they are cut, `joints_m` how far along a run they meet. `finished_width_m` is across a panel;
    `finished_thick_m` a run's thickness, a panel's depth up and down, or a ring's outer diameter.
    """

    netting: Netting
    sheet: NettingSheet
    sections: int
    section_m: float
    cuts: tuple[Part, ...]
    joints_m: tuple[float, ...]
    finished_length_m: float
    finished_width_m: float
    finished_thick_m: float
    parts: tuple[Part, ...]


def strip_width_m(diameter_m: float, turns: float) -> float:
    """Width of the strip that is rolled to a tube: π·d·turns, metres. Source: geometry."""
    return math.pi * diameter_m * turns


def turns_of(strip_m: float, diameter_m: float) -> float:
    """How often a strip goes round a tube: width/(π·d). Source: geometry."""
    return strip_m / (math.pi * diameter_m)


def strip_length_m(
    along_m: float, *, twisted: bool, hangs: bool = True, joins: int = 0, overlap_m: float = 0.0, closes_m: float = 0.0
) -> float:
    """Length of strip for a run: what twisting takes, overlaps at joins, where it hangs the tail past the first
    fixing, round a frame what closes it, metres.

    Source: common practice, no source.
    """
    tail = (TAIL.value if hangs else 0.0) + closes_m
    return along_m * (TWIST.value if twisted else 1.0) + tail + joins * overlap_m


def finished_m(own_m: float, projection_m: float) -> float:
    """Finished size of an armature: its own plus the flowers on both sides, metres. Source: geometry."""
    return own_m + 2 * projection_m


def own_m(finished: float, projection_m: float) -> float:
    """Size of the armature to cut for a finished size, metres.

    Raises: InvalidMeasure: the flowers alone are that large.
    Source: geometry.
    """
    own = finished - 2 * projection_m
    if not own > 0:
        raise InvalidMeasure(
            path="armature.finished",
            message=phrase(
                "Flowers that stand {p} off it make {f} by themselves.",
                p=length(projection_m),
                f=length(2 * projection_m),
            ),
            limit=phrase("Give a finished size over that, or let the flowers stand off less."),
        )
    return own


def for_finished(
    armature: Armature, *, length_m: float | None = None, width_m: float | None = None, thick_m: float | None = None
) -> Armature:
    """The armature to cut for a finished size; what is None stays as it is.

    Raises: InvalidMeasure: see `own_m`.
    """
    p = armature.projection_m
    return replace(
        armature,
        length_m=armature.length_m if length_m is None else own_m(length_m, p),
        width_m=armature.width_m if width_m is None else own_m(width_m, p),
        diameter_m=armature.diameter_m if thick_m is None else own_m(thick_m, p),
    )


def twig_count(along_m: float) -> int:
    """Dry twigs pushed through a run to stiffen it and catch the greens. Source: estimate."""
    return max(2, math.ceil(along_m / TWIG_EVERY.value - 1e-9))


def cane_span_m(load_n_m2: float, netting: Netting) -> float:
    """How far apart canes may lie under netting that bears a load, m.

    A strip of netting pulled as hard as its cells bear sags by q·s²/(8·T); that is at most 5 % of the span s, so
    s = 8·0.05·T/q.

    Args:
        load_n_m2: weight on a square metre, N, > 0.
    Source: parabola of a shallow chain (any text on statics); the sag allowed is an estimate.
    """
    return 8 * CANE_SAG.value * TENSION_PER_CELL.value / nets.pitch_across_m(netting) / load_n_m2


def canes_across(side_m: float, span_m: float) -> int:
    """Canes laid across a side so that no two lie farther apart than `span_m`; one at least. Source: geometry."""
    return max(1, math.ceil(side_m / span_m - 1e-9) - 1)


def tie_count(along_m: float) -> int:
    """Ties of a tube to its frame: three to close, one every 0.25 m, doubled at both ends. Source: common practice."""
    return int(TIES_TO_CLOSE.value) + math.ceil(along_m / TIE_EVERY.value - 1e-9) + 1 + 2


def wire_ties(armature: Armature) -> int:
    """Wire ties of a run: one to each peg, one every 20 cm that close a tube, three across each joint.

    Source: common practice, no source.
    """
    pegs = peg_count(armature)
    shut = math.ceil(armature.length_m / CLOSE_EVERY.value - 1e-9) + 1 if armature.kind in TIED_SHUT else 0
    return pegs + shut + round(TIES_AT_JOINT.value) * len(joints_m(armature))


def ties_of_a_coil() -> int:
    """Ties cut from one coil round the hand: its turns cut through where a tie ends. Source: common practice."""
    return int(COIL_TURNS.value * int(COIL_TURN.value / WIRE_TIE.value + 1e-9))


def peg_count(armature: Armature) -> int:
    """Dry twigs through a run that they stiffen, as chosen or one every 30 cm; 0 for others."""
    if armature.kind not in ("snake", "tube", "runner") or armature.stiffness != "twig-stiffened":
        return 0
    return twig_count(armature.length_m) if armature.pegs is None else armature.pegs


def peg_lengths_m(armature: Armature) -> tuple[tuple[float, int], ...]:
    """Lengths of the pegs and how many of each, m: through the tube and one, two or three diameters proud of it.

    Source: common practice, no source.
    """
    number = peg_count(armature)
    steps = (PEG_PROUD.value - PEG_UNEVEN.value, PEG_PROUD.value, PEG_PROUD.value + PEG_UNEVEN.value)
    counts = [(number + 2 - place) // 3 for place in range(3)]
    return tuple(
        (armature.diameter_m * (1 + proud), count) for proud, count in zip(steps, counts, strict=True) if count
    )


def joints_m(armature: Armature) -> tuple[float, ...]:
    """How far along a run its sections meet, m: as chosen, else evenly.

    Raises: InvalidMeasure: a joint off the run, or two at one place.
    """
    if armature.kind not in RUNS:
        return ()
    if not armature.joints_m:
        return tuple(armature.length_m * nth / armature.sections for nth in range(1, armature.sections))
    for index, each in enumerate(armature.joints_m):
        if not 0 < each < armature.length_m:
            raise InvalidMeasure(
                path=f"armature.joints_m.{index}",
                message=phrase(
                    "A joint {at} along it is off a run {long} long.", at=length(each), long=length(armature.length_m)
                ),
                limit=phrase("Give a place between its ends."),
            )
        if each in armature.joints_m[:index]:
            raise InvalidMeasure(
                path=f"armature.joints_m.{index}",
                message=phrase("Two joints lie {at} along it.", at=length(each)),
                limit=phrase("Move one, or take it away."),
            )
    return tuple(sorted(armature.joints_m))


def size_armature(armature: Armature, netting: Netting, *, flowers_n: float) -> SizedArmature:
    """Size an armature; hooks for hung stems are not in it.

    Args:
        flowers_n: weight of what is on it, N, for the canes of a panel.
    Raises: InvalidMeasure: an armature with no length, a panel with no depth, a joint off the run.
    """
    _check(armature)
    joints = joints_m(armature)
    sheet = _sheet(armature, netting, len(joints))
    p = armature.projection_m
    run, ring = armature.kind in RUNS, armature.kind == "ring"
    longs = _sections_m(armature, netting, joints) if run else (sheet.length_m,)
    return SizedArmature(
        netting=netting,
        sheet=sheet,
        sections=len(longs),
        section_m=max(longs),
        cuts=_cuts(armature, netting, sheet, longs),
        joints_m=joints,
        finished_length_m=finished_m(armature.diameter_m if ring else armature.length_m, p),
        finished_width_m=finished_m(armature.diameter_m if ring or run else armature.width_m, p),
        finished_thick_m=finished_m(armature.diameter_m, p) if run or ring else 2 * p,
        parts=tuple(_parts(armature, netting, flowers_n)),
    )


def _cuts(armature: Armature, netting: Netting, sheet: NettingSheet, longs: tuple[float, ...]) -> tuple[Part, ...]:
    """The netting as it is cut, sections of one length together; that of a run never lies across the roll."""
    found = []
    for long, number in sorted(Counter(round(each, 6) for each in longs).items(), reverse=True):
        kg = sheet.mass_kg * long / sheet.length_m
        section = NettingSheet(
            width_m=sheet.width_m, length_m=long, cells_across=sheet.cells_across, rows_along=0, mass_kg=kg
        )
        taken = from_roll(armature.kind, netting, section, lasts=False, may_turn=armature.kind not in RUNS)
        sizes = (length(section.width_m), length(section.length_m))
        found.append(Part(name=armature.kind, quantity=number, sizes=sizes, mass_kg=number * kg, taken=taken))
    return tuple(found)


def _check(armature: Armature) -> None:
    sizes = {"length_m": "long", "width_m": "deep"} if armature.kind == "panel" else {"length_m": "long"}
    for field, word in sizes.items():
        value = getattr(armature, field)
        if not value > 0:
            raise InvalidMeasure(
                path=f"armature.{field}",
                message=phrase("The armature is {l} {word}.", l=length(value), word=word),
                limit=phrase("Give it a measure of more than nothing."),
            )
    if armature.kind == "ring" and armature.diameter_m < 2 * RING_TUBE.value:
        raise InvalidMeasure(
            path="armature.diameter_m",
            message=phrase(
                "A ring {across} across has no room for its roll of netting, {thick} thick.",
                across=length(armature.diameter_m),
                thick=length(RING_TUBE.value),
            ),
            limit=phrase("Give at least {least}.", least=length(2 * RING_TUBE.value)),
        )


def _sheet(armature: Armature, net: Netting, joints: int) -> NettingSheet:
    if armature.kind in RUNS:
        wide = strip_width_m(armature.diameter_m, armature.turns)
        long = strip_length_m(
            armature.length_m,
            twisted=armature.kind == "snake",
            hangs=armature.kind not in NO_TAIL,
            joins=joints,
            overlap_m=JOIN_ROWS.value * nets.pitch_along_m(net),
            closes_m=_closes_m(armature, net),
        )
        return nets.sheet(net, width_m=wide, length_m=long)
    if armature.kind == "ring":
        wide, long = strip_width_m(RING_TUBE.value, armature.turns), math.pi * armature.diameter_m
        overlap = JOIN_ROWS.value * nets.pitch_along_m(net)
        return nets.sheet(net, width_m=wide, length_m=long + overlap)
    fold = 2 * FOLDED_IN.value
    wide = armature.width_m + fold * nets.pitch_across_m(net)
    long = armature.length_m + fold * nets.pitch_along_m(net)
    return nets.sheet(net, width_m=wide, length_m=long)


def _closes_m(armature: Armature, net: Netting) -> float:
    """What closes netting round its frame: two rows of cells, m; 0 for what is wrapped round nothing."""
    return CLOSED_BY.value * nets.pitch_along_m(net) if armature.kind == "wrapped frame" else 0.0


def _sections_m(armature: Armature, net: Netting, joints: tuple[float, ...]) -> tuple[float, ...]:
    """Every section of a run as it is cut, m: from joint to joint, its share of the tail and of what closes it, and an
    overlap's share where there are more.
    """
    ends = (0.0, *joints, armature.length_m)
    number = len(ends) - 1
    overlap = JOIN_ROWS.value * nets.pitch_along_m(net) * (number - 1)
    tail = (0.0 if armature.kind in NO_TAIL else TAIL.value) + _closes_m(armature, net) + overlap
    twist = TWIST.value if armature.kind == "snake" else 1.0
    return tuple((other - one) * twist + tail / number for one, other in pairwise(ends))


def _parts(armature: Armature, net: Netting, flowers_n: float) -> list[Part]:
    parts = [_lengths("dry twigs", "dry-twig", count, long, TWIG_KG_M) for long, count in peg_lengths_m(armature)]
    if number := wire_ties(armature):
        parts.append(
            _lengths(worded("{ties} of wire", ties=TIES), "bind-wire", number, WIRE_TIE.value, BIND_WIRE_KG_M)
        )
    if armature.kind == "wrapped frame":
        parts.append(
            _ties(worded("{ties} to the frame", ties=TIES), "cable-tie-36", tie_count(armature.length_m), FRAME_TIE_KG)
        )
    if armature.kind == "panel":
        parts += _canes(armature, net, flowers_n)
    if armature.kind == "ring":
        parts.append(_lengths("cane bent to the ring", "cane", 1, math.pi * armature.diameter_m, CANE_KG_M))
    return parts


def hook_parts(hooks: Iterable[tuple[float, int]], gauge_m: float) -> tuple[Part, ...]:
    """Hooks as they are bent: (wire of one, m, and how many), all of one thickness, m."""
    supply = min(HOOK_SUPPLIES, key=lambda each: abs(each - gauge_m))
    kg_m = HOOK_KG_M.value * (gauge_m / 0.001) ** 2
    return tuple(
        Part(
            name="hooks of wire",
            quantity=count,
            sizes=(length(long),),
            mass_kg=count * long * kg_m,
            taken=FromSupply(supply=HOOK_SUPPLIES[supply], how="each cut"),
        )
        for long, count in sorted(hooks, reverse=True)
    )


def _canes(armature: Armature, net: Netting, flowers_n: float) -> list[Part]:
    """Canes both ways, crossing; as many as the sag of the netting between them asks."""
    area = armature.length_m * armature.width_m
    span = cane_span_m(max(flowers_n, 1.0) / area, net)
    along, across = canes_across(armature.width_m, span), canes_across(armature.length_m, span)
    long, short = armature.length_m + CANE_PROUD.value, armature.width_m + CANE_PROUD.value
    on_long, on_short = (math.ceil(each / CANE_TIES_EVERY.value - 1e-9) for each in (long, short))
    ties = along * on_long + across * on_short
    return [
        _lengths("canes along", "cane", along, long, CANE_KG_M),
        _lengths("canes across", "cane", across, short, CANE_KG_M),
        _ties(worded("{ties} to the canes", ties=TIES), "cable-tie-25", ties, CANE_TIE_KG),
    ]


def with_more_ties(sized: SizedArmature) -> SizedArmature:
    """An armature whose ties are to hold for months: half as many again. Source: common practice, no source."""
    parts = []
    for each in sized.parts:
        if not each.name.startswith(TIES):
            parts.append(each)
            continue
        number = math.ceil(LASTING_TIES.value * each.quantity - 1e-9)
        parts.append(replace(each, quantity=number, mass_kg=each.mass_kg * number / max(each.quantity, 1)))
    return replace(sized, parts=tuple(parts))


def _lengths(name: str, supply: str, count: int, length_m: float, kg_m: Constant) -> Part:
    taken = FromSupply(supply=supply, how="each cut")
    kg = count * length_m * kg_m.value
    return Part(name=name, quantity=count, sizes=(length(length_m),), mass_kg=kg, taken=taken)


def _ties(name: str, supply: str, count: int, each: Constant) -> Part:
    return Part(name=name, quantity=count, mass_kg=count * each.value, taken=FromSupply(supply=supply))
