"""Frogs on the vessel's floor: pins, the cup frog, and bases with openings (cage, loop, holed)."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromFrogs
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import cell_capacity
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.materials.vessels import WATER_DENSITY
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import Grip, Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import (
    PUTTY_PRICE_KG,
    PUTTY_WIDTH,
    putty_moment_n_m,
    putty_parts,
    putty_ring_kg,
    putty_step,
)
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.provenance import COMMON_PRACTICE, Provenance
from jolly_trellis.core.quantities import length, mass, phrase, volume

PIN_SOFT = measure("Moment a pin frog takes from one soft stem", "moment", 0.25)
PIN_WOODY = measure("Moment a pin frog takes from one woody stem", "moment", 0.6)
STEM_SPACING = measure("Room a stem needs among pins, times its diameter", "ratio", 1.6)
FROG_DENSITY = measure(
    "Density of a lead or iron frog", "density", 7800.0, Provenance(kind="from memory", source="iron")
)
FROG_USES = measure("Times a frog is used again", "count", 200)
OPEN_LOWER_SHARE = {
    "cage": measure("Lower hold of a cage frog, share of its height", "ratio", 0.15, most=1.0),
    "loop": measure("Lower hold of a loop frog, share of its height", "ratio", 0.35, most=1.0),
    "holed": measure("Lower hold of a holed frog, share of its height", "ratio", 0.10, most=1.0),
}
FLOOR_ROOM = rule("Room a frog needs round it on the floor", "length", 0.002, COMMON_PRACTICE)
_NAMES: dict[str, tuple[MechanicKind, str]] = {
    "cage": ("cage_frog", "cage frog"),
    "loop": ("loop_frog", "loop frog"),
    "holed": ("holed_frog", "holed frog"),
}
FROG_MIN = measure("Time to set a frog", "minutes", 2.0)
FROG_PUTTY_MIN = measure("Time to roll and press a putty ring", "minutes", 1.0)
FROG_SLOP = measure("Slop over a frog against bare wire", "ratio", 1.3)


def holding_moment_n_m(*, mass_kg: float, radius_m: float, putty_ring_m: float) -> float:
    """Moment that keeps a frog down under water, about its edge: m·(1 − ρw/ρ)·g·r + putty area·pull·r, N·m.

    Args:
        mass_kg: of the frog, dry.
        radius_m: of its base.
        putty_ring_m: length of the putty ring under it, 0 for none.
    Source: moments about the edge with buoyancy (Archimedes); putty is an estimate.
    """
    weight = mass_kg * (1 - WATER_DENSITY.value / FROG_DENSITY.value) * GRAVITY_M_S2
    return weight * radius_m + putty_moment_n_m(area_m2=putty_ring_m * PUTTY_WIDTH.value, arm_m=radius_m)


def putty_ring_m(frog_width_m: float) -> float:
    """Length of the putty ring under a frog: π·d, metres. Source: geometry."""
    return math.pi * frog_width_m


def check_floor(fit: Fit, frog: Frog) -> None:
    """Refuse a frog wider than the flat floor, or taller than the vessel is deep."""
    floor = fit.vessel.profile[0]
    across = min(floor.width_m, floor.depth_m)
    if frog.width_m + FLOOR_ROOM.value > across:
        raise InvalidMeasure(
            path="mechanic.frog",
            message=phrase(
                "The frog, {frog} across, does not sit on a floor of {floor}.",
                frog=length(frog.width_m),
                floor=length(across),
            ),
            limit=phrase("Take one up to {most} across.", most=length(max(across - FLOOR_ROOM.value, 0.0))),
        )
    if frog.height_m > fit.depth_m:
        raise InvalidMeasure(
            path="mechanic.frog",
            message=phrase(
                "The frog, {high} high, stands out of a vessel {depth} deep.",
                high=length(frog.height_m),
                depth=length(fit.depth_m),
            ),
            limit=phrase("Take a lower frog or a deeper vessel."),
        )


def size_pins(fit: Fit) -> SizedMechanic:
    """Size a pin frog on the floor. Raises InvalidMeasure: no pin frog, or one that does not fit."""
    frog = fit.frog_of("pin")
    check_floor(fit, frog)
    return _pins(fit, frog, kind="pin_frog", own_water_l=0.0)


def size_cup(fit: Fit) -> SizedMechanic:
    """Size a cup frog: pins that fill the floor of their own shallow cup.

    Raises: InvalidMeasure: no cup frog, or one wider than the vessel's floor (the vessel is the cup itself).
    """
    frog = fit.frog_of("cup")
    check_floor(fit, frog)
    return _pins(fit, frog, kind="cup_frog", own_water_l=frog.volume_l)


def size_open(fit: Fit, kind: str) -> SizedMechanic:
    """Size a cage, loop or holed frog: two rigid levels a little apart, at the floor.

    Raises: InvalidMeasure: no such frog, one that does not fit, or openings the stems do not pass.
    """
    frog = fit.frog_of(kind)
    check_floor(fit, frog)
    mechanic, name = _NAMES[kind]
    radius = frog.width_m / 2
    area = math.pi * radius**2
    pitch = math.sqrt(area / max(frog.openings, 1))
    each = cell_capacity(frog.opening_m, fit.stem_diameter_m)
    ring = putty_ring_m(frog.width_m) if fit.putty else 0.0
    lower = OPEN_LOWER_SHARE[kind].value * frog.height_m
    return SizedMechanic(
        kind=mechanic,
        name=f"{name}, {frog.name}",
        seating=Seating(
            pattern="square",
            pitch_m=pitch,
            aperture_m=frog.opening_m,
            height_m=frog.height_m,
            half_width_m=radius,
            half_depth_m=radius,
        ),
        levels=(
            Level(height_m=frog.height_m, aperture_m=frog.opening_m),
            Level(height_m=lower, aperture_m=frog.opening_m),
        ),
        layer_gap_m=frog.height_m - lower,
        rigid=True,
        frog_mass_kg=frog.mass_kg,
        frog_radius_m=radius,
        parts=_parts(frog, fit),
        putty_ring_m=ring,
        putty_kg=putty_ring_kg(ring),
        seat_moment_n_m=holding_moment_n_m(mass_kg=frog.mass_kg, radius_m=radius, putty_ring_m=ring),
        seated_by="its weight" if not fit.putty else "its weight and putty",
        capacity=max(frog.openings, 1) * each,
        displaced_volume_l=1000 * frog.mass_kg / FROG_DENSITY.value,
        mass_kg=weight_kg(_parts(frog, fit)),
        price=_price(frog, ring),
        minutes=FROG_MIN.value + (FROG_PUTTY_MIN.value if fit.putty else 0.0),
        uses=round(FROG_USES.value),
        slop_factor=FROG_SLOP.value,
        steps=_steps(fit, frog, woody=False),
    )


def _pins(fit: Fit, frog: Frog, *, kind: MechanicKind, own_water_l: float) -> SizedMechanic:
    radius = frog.width_m / 2
    pitch = max(frog.opening_m, STEM_SPACING.value * fit.stem_diameter_m)
    ring = putty_ring_m(frog.width_m) if fit.putty else 0.0
    capacity = max(1, int(math.pi * radius**2 / pitch**2))
    top = Level(height_m=frog.height_m, aperture_m=0.0)
    return SizedMechanic(
        kind=kind,
        name=frog.name,
        seating=Seating(
            pattern="hexagonal",
            pitch_m=pitch,
            aperture_m=pitch,
            height_m=frog.height_m,
            half_width_m=radius,
            half_depth_m=radius,
            each=1,
        ),
        levels=(top,),
        rigid=True,
        grip=Grip(radius_m=radius, height_m=frog.height_m, soft_n_m=PIN_SOFT.value, woody_n_m=PIN_WOODY.value),
        frog_mass_kg=frog.mass_kg,
        frog_radius_m=radius,
        parts=_parts(frog, fit),
        putty_ring_m=ring,
        putty_kg=putty_ring_kg(ring),
        seat_moment_n_m=holding_moment_n_m(mass_kg=frog.mass_kg, radius_m=radius, putty_ring_m=ring),
        seated_by="its weight" if not fit.putty else "its weight and putty",
        capacity=capacity,
        displaced_volume_l=1000 * frog.mass_kg / FROG_DENSITY.value,
        mass_kg=weight_kg(_parts(frog, fit)),
        price=_price(frog, ring),
        minutes=FROG_MIN.value + (FROG_PUTTY_MIN.value if fit.putty else 0.0),
        uses=round(FROG_USES.value),
        slop_factor=FROG_SLOP.value,
        own_water_l=own_water_l,
        steps=_steps(fit, frog, woody=True),
    )


def _price(frog: Frog, ring_m: float) -> float | None:
    return None if frog.price is None else frog.price + putty_ring_kg(ring_m) * PUTTY_PRICE_KG.value


def _parts(frog: Frog, fit: Fit) -> tuple[Part, ...]:
    sizes = (length(frog.width_m), mass(frog.mass_kg))
    ring = putty_ring_m(frog.width_m) if fit.putty else 0.0
    return (
        Part(name=frog.name, quantity=1, sizes=sizes, mass_kg=frog.mass_kg, taken=FromFrogs(frog=frog.key)),
        *putty_parts(ring),
    )


def _steps(fit: Fit, frog: Frog, *, woody: bool) -> tuple[Step, ...]:
    done = []
    if fit.putty:
        done.append(putty_step(putty_ring_m(frog.width_m), "under the frog, on a dry floor"))
    caution = "Pins stab: keep the cover on until it is seated." if frog.kind in ("pin", "cup") else ""
    done.append(Step(kind="seat", say=phrase("Set the frog on the flat of the floor."), caution=caution))
    if frog.volume_l:
        done.append(Step(kind="water", say=phrase("It holds {v}.", v=volume(frog.volume_l))))
    if woody:
        done.append(
            Step(kind="prepare", say=phrase("Cut woody stems on the slant and split them; press in, then tilt."))
        )
    return tuple(done)


PIN_FROG = declare(
    About(
        kind="pin_frog",
        draw=drawn.pins,
        place=80,
        name="Pin frog",
        what="a heavy base with pins on the floor",
        size=size_pins,
        frog="pin",
        tapes=False,
    )
)
CAGE_FROG = declare(
    About(
        kind="cage_frog",
        draw=drawn.openings,
        place=90,
        name="Cage frog",
        what="a wire cage on a heavy base",
        size=lambda fit: size_open(fit, "cage"),
        frog="cage",
        tapes=False,
    )
)
LOOP_FROG = declare(
    About(
        kind="loop_frog",
        draw=drawn.loops,
        place=100,
        name="Loop frog",
        what="loops of wire on a heavy base",
        size=lambda fit: size_open(fit, "loop"),
        frog="loop",
        tapes=False,
    )
)
HOLED_FROG = declare(
    About(
        kind="holed_frog",
        draw=drawn.openings,
        place=110,
        name="Holed frog",
        what="a block with holes",
        size=lambda fit: size_open(fit, "holed"),
        frog="holed",
        tapes=False,
    )
)
CUP_FROG = declare(
    About(
        kind="cup_frog",
        draw=drawn.pins,
        place=120,
        name="Cup frog",
        what="pins in their own shallow cup",
        size=size_cup,
        frog="cup",
        tapes=False,
        moss_round=True,
    )
)
