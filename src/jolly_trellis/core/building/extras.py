"""What goes with a vessel and its mechanic: lining, netting outside, riser and packing, joint putty, stone, tubes."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply, Taken, from_roll
from jolly_trellis.core.building import stacks
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.netting import Netting, NettingSheet
from jolly_trellis.core.materials.profiles import fine_profile
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics import sizing
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.mechanics.tape import putty_ring_kg
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.placement.water_table import ballast_centre_m
from jolly_trellis.core.plan.piece import Cover, Insert, Piece, Support
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.plan_shapes import girth_m, section_area_m2
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, mass, phrase, volume, worded
from jolly_trellis.core.stems.cups import CUP_INSIDE, CUP_KG, ROD_KG_M, cup_l, rod_cut_m
from jolly_trellis.core.stems.tubes import empty_kg

LINING_LEAVES = rule("Length that one leaf of a lining covers", "length", 0.15)
WRAP_LAP = rule("Lap of netting wrapped round the outside", "length", 0.02, COMMON_PRACTICE)
LEAF_KG_M2 = measure("Mass of leaf that lines a glass", "areal_mass", 0.30)
PACKING_KG_M3 = measure("Moss or wood wool packed round an insert", "density", 60.0)
RISER_FILLS = rule("Share of the urn's floor that a riser block covers", "ratio", 0.7, most=1.0)
Bearer = Literal["surface", "support", "joint", "urn", "vessel", "mechanic", "stems", "beside"]
MOSS_ROUND = rule("Moss nestled all round a cup frog, up to its rim", "length", 0.08, COMMON_PRACTICE)
MOSS_KG_M3 = measure("Dry moss nestled round a vessel", "density", 15.0)
RIM_COVER = rule("Cover over a rim, wide", "length", 0.04, COMMON_PRACTICE)
CUP_COVER = rule("Moss tucked round a spike cup, wide", "length", 0.04, COMMON_PRACTICE)
COVER_LEAST = rule("Cover over a packing ring, at least", "length", 0.02, COMMON_PRACTICE)
MOSS_COVER_KG_M2 = measure("Dry moss tucked over something", "areal_mass", 0.35)
CLOTH_KG_M2 = measure("Mass of cloth or ribbon", "areal_mass", 0.18)
COVERED = {"rim": "rim", "packing": "packing", "outside": "outside", "cups": "spike cups"}
OUTSIDE = "netting round the outside"
MOSS = "moss round it"
STEM_TUBE = "stem tube"


@dataclass(frozen=True, slots=True, kw_only=True)
class Extra:
    """A part that goes with the vessel, and where its weight is: the height of its centre over the surface, m.

    `height_m` None is carried by the stems: a tube weighs with its row, as `build.rows_of` has it. `borne_by` is what
    it stands on or hangs from.
    """

    part: Part
    height_m: float | None
    borne_by: Bearer = "vessel"


def extras_of(piece: Piece, netting: Netting | None, placement: Placement, raised_m: float) -> tuple[Extra, ...]:
    """Every part of a piece beside vessel, mechanic and stems, with what it weighs and where.

    Args:
        netting: of the mechanic, None where it has none. raised_m: of the vessel's underside over the surface.
    """
    vessel = piece.vessel
    middle = raised_m + vessel.base_m + vessel.inside_depth_m / 2
    found = []
    if piece.lining:
        tall, around = lining_strip_m(vessel)
        kg = LEAF_KG_M2.value * tall * around
        leaves = math.ceil(around / LINING_LEAVES.value)
        found.append(
            _extra(
                "leaf lining strip", (around, tall), kg, middle, taken=FromSupply(supply="large-leaf", number=leaves)
            )
        )
    if piece.wrap_height_m and netting is not None:
        around = wrap_length_m(vessel)
        kg = around * piece.wrap_height_m * nets.mass_per_area_kg_m2(netting)
        sheet = NettingSheet(width_m=piece.wrap_height_m, length_m=around, cells_across=0, rows_along=0, mass_kg=0.0)
        taken = from_roll(OUTSIDE, netting, sheet)
        up = raised_m + piece.wrap_height_m / 2
        found.append(_extra(OUTSIDE, (around, piece.wrap_height_m), kg, up, taken=taken))
    if round_m := moss_round_m(piece):
        kg = moss_kg(vessel, round_m)
        part = Part(
            name=MOSS,
            quantity=1,
            sizes=(length(round_m), mass(kg)),
            mass_kg=kg,
            taken=FromSupply(supply="moss", how="by mass"),
        )
        found.append(Extra(part=part, height_m=raised_m + vessel.rim_m / 4, borne_by="beside"))
    if piece.insert is not None:
        found += _of_insert(piece.insert, vessel, raised_m)
    if piece.support is not None and piece.support.putty:
        ring = joint_ring_m(piece.support, stacks.on_support(piece))
        kg = putty_ring_kg(ring)
        part = Part(
            name="putty ring for the joint",
            quantity=1,
            sizes=(length(ring), mass(kg)),
            mass_kg=kg,
            taken=FromSupply(supply="putty", how="by mass"),
        )
        found.append(Extra(part=part, height_m=piece.support.height_m, borne_by="support"))
    if piece.ballast_kg:
        part = Part(
            name="stone",
            quantity=1,
            sizes=(mass(piece.ballast_kg),),
            mass_kg=piece.ballast_kg,
            taken=FromSupply(supply="stone", how="by mass"),
        )
        height = raised_m + vessel.base_m + ballast_centre_m(vessel, piece.ballast_kg)
        found.append(Extra(part=part, height_m=height))
    found += [_cover(each, piece, raised_m) for each in piece.covers]
    return (*found, *_tubes(piece), *_cups(piece, placement))


def cover_sizes_m(cover: Cover, piece: Piece) -> tuple[float, float]:
    """How long and how wide a cover lies, m: round the rim, over the packing, round the outside, or over its cups.

    Raises: InvalidMeasure: nothing is there to be covered.
    Source: geometry; usual widths are common practice, no source.
    """
    vessel = piece.vessel
    out = vessel.mouth_width_m + 2 * vessel.wall_m, vessel.mouth_depth_m + 2 * vessel.wall_m
    around = girth_m(vessel.plan_shape, *out)
    match cover.on:
        case "packing":
            if piece.insert is None:
                raise _nothing_there("There is no packing to cover: the piece sits in no urn.", "Cover the rim.")
            ring = max(insert_sizes_m(piece.insert, vessel)[1], COVER_LEAST.value)
            return around + math.pi * ring, ring if cover.width_m is None else cover.width_m
        case "cups":
            cups = sum(math.ceil(line.count / line.clump) for line in piece.recipe if line.water == "cup")
            if not cups:
                raise _nothing_there("There are no spike cups to cover.", "Let a line of stems stand in cups first.")
            wide = CUP_COVER.value if cover.width_m is None else cover.width_m
            return cups * math.pi * CUP_INSIDE.value, wide
        case "outside":
            return wrap_length_m(vessel), vessel.rim_m if cover.width_m is None else cover.width_m
        case _:
            return around, RIM_COVER.value if cover.width_m is None else cover.width_m


def _nothing_there(said: str, instead: str) -> InvalidMeasure:
    return InvalidMeasure(path="covers", message=phrase(said), limit=phrase(instead))


def _cover(cover: Cover, piece: Piece, raised_m: float) -> Extra:
    """A cover as a part: its strip, what it weighs and what it is taken from."""
    long, wide = cover_sizes_m(cover, piece)
    up = raised_m + piece.vessel.rim_m * (0.5 if cover.on == "outside" else 1.0)
    name = worded("{cover} over the {covered}", cover=cover.kind, covered=COVERED[cover.on])
    match cover.kind:
        case "moss":
            kg, taken = MOSS_COVER_KG_M2.value * long * wide, FromSupply(supply="moss", how="by mass")
        case "cloth":
            kg, taken = CLOTH_KG_M2.value * long * wide, FromSupply(supply="cloth", lasts=True)
        case "ribbon":
            kg, taken = CLOTH_KG_M2.value * long * wide, FromSupply(supply="ribbon", how="in all")
        case _:
            leaves = math.ceil(long / LINING_LEAVES.value)
            kg, taken = LEAF_KG_M2.value * long * wide, FromSupply(supply="large-leaf", number=leaves)
    return _extra(name, (long, wide), kg, up, taken=taken)


def _cups(piece: Piece, placement: Placement) -> list[Extra]:
    """Spike cups and their rods; their weight is with the stems they hold."""
    found: list[Extra] = []
    rods: dict[float, int] = {}
    for at, rod in zip(placement.stems.line_index, placement.rod_m.tolist(), strict=True):
        if placement.stems.lines[at][0].water == "cup":
            long = rod_cut_m(rod)
            rods[long] = rods.get(long, 0) + 1
    if not rods:
        return []
    sizes: dict[float, int] = {}
    for line in piece.recipe:
        if line.water == "cup":
            sizes[cup_l(line)] = sizes.get(cup_l(line), 0) + math.ceil(line.count / line.clump)
    for litres, number in sorted(sizes.items()):
        part = Part(
            name="spike cup",
            quantity=number,
            sizes=(volume(litres),),
            mass_kg=number * CUP_KG.value,
            taken=FromSupply(supply="cup", lasts=True),
        )
        found.append(Extra(part=part, height_m=None, borne_by="stems"))
    for long, number in sorted(rods.items()):
        part = Part(
            name="rod of a spike cup",
            quantity=number,
            sizes=(length(long),),
            mass_kg=number * ROD_KG_M.value * long,
            taken=FromSupply(supply="rod", lasts=True),
        )
        found.append(Extra(part=part, height_m=None, borne_by="stems"))
    return found


def insert_sizes_m(insert: Insert, vessel: Vessel) -> tuple[float, float]:
    """Height of the block under an insert, and width of the ring that is packed round it, metres. Source: geometry."""
    outer = insert.outer
    riser = stacks.riser_m(outer.inside_depth_m, vessel.rim_m, insert.drop_m)
    room = min(vessels.inside_size_m(outer, outer.inside_depth_m - insert.drop_m))
    return max(riser, 0.0), stacks.packing_ring_m(room, vessel.mouth_width_m + 2 * vessel.wall_m)


def joint_ring_m(support: Support, vessel: Vessel) -> float:
    """Length of the ring of putty between a support and its bowl: π·d of their joint, m. Source: geometry."""
    return math.pi * stacks.joint_across_m(vessel, support)


def lining_strip_m(vessel: Vessel) -> tuple[float, float]:
    """Leaf lining of clear glass: height along the wall and length of the inside circumference, metres.

    The inside circumference is less than the outside one that people wrap to measure.

    Source: geometry.
    """
    tall = sum(
        math.hypot(high.height_m - low.height_m, (high.width_m - low.width_m) / 2)
        for low, high in pairwise(fine_profile(vessel.profile))
    )
    widest = max(vessel.profile, key=lambda point: point.width_m + point.depth_m)
    return tall, girth_m(vessel.plan_shape, widest.width_m, widest.depth_m)


def wrap_length_m(vessel: Vessel) -> float:
    """Netting round the outside of a vessel: outside circumference and 2 cm of lap, metres. Source: geometry."""
    widest = max(vessel.profile, key=lambda point: point.width_m + point.depth_m)
    wall = 2 * vessel.wall_m
    return girth_m(vessel.plan_shape, widest.width_m + wall, widest.depth_m + wall) + WRAP_LAP.value


def moss_round_m(piece: Piece) -> float:
    """How far moss lies all round a piece, m; 0 for none. A cup frog has its moss unless somebody says otherwise."""
    if piece.moss_m is not None:
        return piece.moss_m
    about = sizing.ABOUT[piece.mechanic.kind]
    return MOSS_ROUND.value if about.moss_round and piece.support is None else 0.0


def moss_kg(vessel: Vessel, round_m: float) -> float:
    """Dry moss that lies round a vessel from its rim down to nothing: its ring times half the rim's height, kg.

    Source: volume of a bank; the density is an estimate.
    """
    out = vessel.mouth_width_m + 2 * vessel.wall_m, vessel.mouth_depth_m + 2 * vessel.wall_m
    outer = section_area_m2(vessel.plan_shape, out[0] + 2 * round_m, out[1] + 2 * round_m)
    return MOSS_KG_M3.value * (outer - section_area_m2(vessel.plan_shape, *out)) * vessel.rim_m / 2


def _of_insert(insert: Insert, vessel: Vessel, raised_m: float) -> list[Extra]:
    """The block under an insert, 0.7 of the urn's floor, and what is packed into the gap all round it.

    Source: volumes; share, densities and depth of the packing are estimates.
    """
    outer, (riser, ring) = insert.outer, insert_sizes_m(insert, vessel)
    floor = section_area_m2(outer.plan_shape, outer.profile[0].width_m, outer.profile[0].depth_m)
    block_kg = RISER_FILLS.value * floor * riser * stacks.RISER_DENSITY.value
    around = girth_m(vessel.plan_shape, vessel.mouth_width_m, vessel.mouth_depth_m) + math.pi * ring
    packing_kg = PACKING_KG_M3.value * around * ring * vessel.inside_depth_m
    up = raised_m + vessel.rim_m / 2
    packed, block = FromSupply(supply="moss", how="by mass"), FromSupply(supply="riser-block", lasts=True)
    found = [_extra("packing ring, wide", (ring,), packing_kg, up, borne_by="urn", taken=packed)] if ring > 0 else []
    if riser > 0:
        middle = outer.base_m + riser / 2
        found.insert(0, _extra("riser block", (riser,), block_kg, middle, borne_by="urn", taken=block))
    return found


def _tubes(piece: Piece) -> list[Extra]:
    """Stem tubes by their size; their weight is with the stems they are on."""
    sizes: dict[tuple[float, float], tuple[int, float]] = {}
    for line in piece.recipe:
        if line.water == "tube":
            tube = line.tube or StemTube()
            key = (tube.inner_diameter_m, tube.length_m)
            number, kg = sizes.get(key, (0, 0.0))
            sizes[key] = number + line.count, kg + line.count * empty_kg(tube)
    return [
        Extra(part=tube_part(size, number, kg), height_m=None, borne_by="stems")
        for size, (number, kg) in sorted(sizes.items())
    ]


def tube_part(size_m: tuple[float, float], number: int, kg: float) -> Part:
    """Stem tubes of one size as a part: inner diameter and length, m."""
    return Part(name=STEM_TUBE, quantity=number, sizes=tuple(length(each) for each in size_m), mass_kg=kg)


def _extra(
    name: str,
    sizes_m: tuple[float, ...],
    kg: float,
    height_m: float,
    *,
    borne_by: Bearer = "vessel",
    taken: Taken | None = None,
) -> Extra:
    part = Part(name=name, quantity=1, sizes=tuple(length(each) for each in sizes_m), mass_kg=kg, taken=taken)
    return Extra(part=part, height_m=height_m, borne_by=borne_by)
