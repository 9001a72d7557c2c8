"""Bouquets and posies: their measures, heads on a dome, the handle, tape and ribbon; formulas only."""

import math
from dataclasses import dataclass

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.stems.stem_set import StemSet

HANDLE_FILL_PARALLEL = measure("Fill of a handle of stems side by side", "ratio", 0.80)
HANDLE_FILL_SPIRAL = measure("Fill of a handle of stems crossing in a spiral", "ratio", 0.70)
HEADS_FILL_LEAST = rule("Heads over a dome's surface, least for a full face", "ratio", 0.70)
HEADS_FILL_MOST = rule("Heads over a dome's surface, most before they crush", "ratio", 0.85)
HAND_LEAST = rule("Stems below the binding, least for a hand", "length", 0.10, COMMON_PRACTICE)
HAND_MOST = rule("Stems below the binding, most for a hand", "length", 0.14, COMMON_PRACTICE)
DOME_RISE = rule("Rise of a bouquet's dome, share of its width", "ratio", 0.30, most=1.0)
NECK_LEAST = rule("Least from the binding to the underside of the flowers", "length", 0.03)
ARMATURE_SHARE = rule("An armature's width, share of the flowers'", "ratio", 0.75, most=1.0)
STAR_SPACING = rule("Finger's width between the stars of a lattice", "length", 0.018, COMMON_PRACTICE)
STAR_TWIST = measure("Length that twisting takes from a star lattice's wires", "ratio", 1.15)
SKIRT = rule("Netting gathered below the binding, into the handle", "length", 0.05, COMMON_PRACTICE)
BIND_TURNS = rule("Turns of string round a binding", "count", 4, COMMON_PRACTICE)
BIND_ENDS = rule("String for the loop and the knot of a binding", "length", 0.30, COMMON_PRACTICE)
TAPE_BAND = rule("Height of the tape round a binding", "length", 0.05, COMMON_PRACTICE)
TAPE_WIDTH = rule("Width of bouquet tape", "length", 0.025, COMMON_PRACTICE)
TAPE_LAP = rule("Lap of one turn of tape over the last", "ratio", 0.5, COMMON_PRACTICE)
BOW_CENTRE = rule("Ribbon that ties a bow's middle", "length", 0.15, COMMON_PRACTICE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Shape:
    """A bouquet's measures in its vase, metres over the underside of the vase.

    `end_m` is where the cut ends are, `binding_m` the binding point, `under_m` the underside of the flowers, `top_m`
    their top; `hand_m` is the length below the binding, `neck_m` from there to the underside, `dome_m` its rise.
    """

    end_m: float
    binding_m: float
    under_m: float
    top_m: float
    hand_m: float
    neck_m: float
    dome_m: float


def binding_length_m(handle_m: float) -> float:
    """String that binds a handle: its turns, and the ends of loop and knot: n·π·d + 30 cm, m.

    Args:
        handle_m: diameter of the bound stems, m, ≥ 0.
    Source: geometry; turns and ends are common practice, no source.
    """
    return BIND_TURNS.value * math.pi * handle_m + BIND_ENDS.value


def cap_area_m2(half_width_m: float, half_depth_m: float, rise_m: float) -> float:
    """Curved surface of a dome: π(R² + h²), with R² the product of its half sizes, m².

    Args:
        half_width_m, half_depth_m: half its width and depth, m, > 0.
        rise_m: h, of its top over its rim, m, ≥ 0.
    Source: spherical cap (any handbook of mathematics); an oval one is taken as the round one of equal plan.
    """
    return math.pi * (half_width_m * half_depth_m + rise_m**2)


def heads_on_dome(area_m2: float, head_diameter_m: float, fill: float) -> int:
    """How many heads of one size cover a dome at a fill: A·fill/(π·d²/4), rounded down. Source: areas."""
    return int(area_m2 * fill / (math.pi / 4 * head_diameter_m**2) + 1e-9)


def head_spacing_m(area_m2: float, heads: int) -> float:
    """Distance between the middles of evenly spaced heads: √(2·A/(√3·n)), metres; 0 for none.

    Source: hexagonal packing, each head with √3/2·s² of the surface.
    """
    return math.sqrt(2 * area_m2 / (math.sqrt(3) * heads)) if heads > 0 else 0.0


def handle_diameter_m(diameters_m: Array, fill: float) -> float:
    """Diameter of a handle from its stems' sections: 2·√(Σ d²/4 / fill), metres.

    Args:
        diameters_m: of all stems at the binding, m.
        fill: 0.80 stems side by side, 0.70 crossing in a spiral.
    Source: equal areas; the fills are estimates.
    """
    return 2 * math.sqrt(float((diameters_m**2).sum()) / 4 / fill)


def spiral_angle_rad(radius_m: float, reach_m: float) -> float:
    """Angle of the outermost stems from the handle: atan(R/L), radians.

    Args:
        radius_m: of the dome, m.
        reach_m: along the handle from the binding to where those heads sit, m, > 0.
    Source: geometry.
    """
    return math.atan2(radius_m, reach_m)


def dome_arc_m(radius_m: float, rise_m: float) -> float:
    """Length over a dome from rim to rim: 2·Rs·asin(R/Rs) with Rs = (R² + h²)/(2h), metres.

    Args:
        radius_m: R, of its rim, m, > 0.
        rise_m: h, m, 0 < h; over the half ball the arc goes on past it.
    Source: arc of a circle from chord and rise (any handbook of mathematics).
    """
    ball = (radius_m**2 + rise_m**2) / (2 * rise_m)
    half = math.asin(min(1.0, radius_m / ball))
    return 2 * ball * (half if rise_m <= radius_m else math.pi - half)


def tape_length_m(handle_m: float, band_m: float, width_m: float, lap: float) -> float:
    """Tape round a handle: π·d·turns, turns = band/(width·(1 − lap)), rounded up to whole turns, metres.

    Source: geometry.
    """
    return math.pi * handle_m * math.ceil(band_m / (width_m * (1 - lap)) - 1e-9)


def bow_length_m(loops: int, loop_m: float) -> float:
    """Ribbon of a bow: two lengths for each loop and one to tie its middle, metres; 0 for none. Source: geometry."""
    return loops * 2 * loop_m + BOW_CENTRE.value if loops else 0.0


def dome_m(piece: Bound) -> float:
    """Rise of the flowers over their underside, m: as it is asked for, else by the usual share of the width."""
    envelope = piece.envelope
    return piece.dome_m if piece.dome_m is not None else DOME_RISE.value * min(envelope.width_m, envelope.depth_m)


def bouquet_shape(bouquet: Bouquet) -> Shape:
    """A bouquet's measures from its envelope and its vase.

    The stems below the binding are as long as the vase is deep, within 10-14 cm for the hand; in the vase the binding
    rests on the lip, or over it where the stems stand on the floor first.

    Raises: InvalidMeasure: the flowers end too low over the binding for their dome.
    """
    vase, envelope = bouquet.vessel, bouquet.envelope
    hand = bouquet.hand_length_m
    if hand is None:
        hand = min(max(vase.inside_depth_m, HAND_LEAST.value), HAND_MOST.value)
    binding = vase.base_m + max(hand, vase.inside_depth_m)
    dome = dome_m(bouquet)
    neck = envelope.height_m - binding - dome
    if neck < NECK_LEAST.value:
        raise InvalidMeasure(
            path="envelope.height_m",
            message=phrase(
                "The bouquet ends at {top}; its binding is at {bound} and the flowers rise {dome}.",
                top=length(envelope.height_m),
                bound=length(binding),
                dome=length(dome),
            ),
            limit=phrase("Let it end at {least} or higher.", least=length(binding + dome + NECK_LEAST.value)),
        )
    return Shape(
        end_m=binding - hand,
        binding_m=binding,
        under_m=binding + neck,
        top_m=envelope.height_m,
        hand_m=hand,
        neck_m=neck,
        dome_m=dome,
    )


def handle_of(stems: StemSet, crossing: bool) -> float:
    """Diameter of the handle of a recipe, metres; 0 without stems."""
    fill = HANDLE_FILL_SPIRAL if crossing else HANDLE_FILL_PARALLEL
    return handle_diameter_m(stems.diameter_m, fill.value) if len(stems) else 0.0


def star_wires(width_m: float, spacing_m: float) -> int:
    """Wires of a star lattice: one pair to every two finger widths of its rim, ⌈π·D/s⌉ to an even number.

    Source: geometry of a lattice whose neighbours are twisted together in turn (estimate).
    """
    number = math.ceil(math.pi * width_m / (2 * spacing_m) - 1e-9)
    return number + number % 2


def star_wire_length_m(width_m: float, neck_m: float, hand_m: float) -> float:
    """Length of one of its wires: (hand + neck + half the width) · 1.15 for the twists, metres. Source: geometry."""
    return (hand_m + neck_m + width_m / 2) * STAR_TWIST.value
