"""Worn on the lapel, the wrist or the head: every stem wired and taped, wires by gauge and length."""

import math
from collections import Counter

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials.stems import cut_mass_kg, heavy_factor
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.bouquet import Shape, dome_m
from jolly_trellis.core.mechanics.handful import Handful, trimmings
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, WornOn, weight_kg
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.plan.worn import Worn
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import cut_length, length, phrase, worded

# The thinnest wire that holds a head up, by its heavy mass.
WIRE_HOLDS: dict[float, Constant] = {
    0.0004: measure("Wire of 0.4 mm holds a wired head of up to", "mass", 0.004, cautious="down"),
    0.00055: measure("Wire of 0.55 mm holds a wired head of up to", "mass", 0.012, cautious="down"),
    0.0007: measure("Wire of 0.7 mm holds a wired head of up to", "mass", 0.03, cautious="down"),
    0.0009: measure("Wire of 0.9 mm holds a wired head of up to", "mass", 0.07, cautious="down"),
}
WIRE_SUPPLIES = {0.0004: "stem-wire-04", 0.00055: "stem-wire-055", 0.0007: "stem-wire-07", 0.0009: "stem-wire-09"}
WIRE_KG_M = measure("Mass of a metre of stem wire, 1 mm", "linear_mass", 0.0062)
WIRED_STEM = rule("Stem left on a wired head", "length", 0.02, COMMON_PRACTICE)
WIRE_PIERCES = rule("Wire through a head and folded down, beside its leg twice", "length", 0.02, COMMON_PRACTICE)
LEGS: dict[MechanicKind, Constant] = {
    "buttonhole": rule("Wired leg of a buttonhole", "length", 0.06, COMMON_PRACTICE),
    "corsage": rule("Wired leg of a corsage", "length", 0.05, COMMON_PRACTICE),
    "crown": rule("Wired leg of a crown", "length", 0.03, COMMON_PRACTICE),
}
TAPE_STRETCH = measure("Stem tape for each metre of wire it covers", "ratio", 1.5)
CROWN_LAP = rule("Wire of a crown past its round, for its loops", "length", 0.08, COMMON_PRACTICE)
CORSAGE_BAND = rule("Ribbon or elastic round a wrist, with its bow", "length", 0.45, COMMON_PRACTICE)
PIN_KG = measure("Pin of a buttonhole", "mass", 0.001)
TAPE_KG_M = measure("Mass of a metre of stem tape", "linear_mass", 0.0012)
BAND_KG_M = measure("Mass of a metre of wrist ribbon", "linear_mass", 0.004)
WIRE_MIN = measure("Time to wire and tape one head", "minutes", 1.0)


NECK_M = 0.01  # what is taped is drawn at least so far over its binding


def worn_shape(piece: Worn) -> Shape:
    """Its measures as it is held up to be looked at, over the underside of what it waits in: its leg is its hand."""
    waits = piece.vessel
    hand = LEGS[piece.mechanic.kind].value
    binding, dome = waits.base_m + max(hand, waits.inside_depth_m), dome_m(piece)
    neck = max(piece.envelope.height_m - binding - dome, NECK_M)
    return Shape(
        end_m=binding - hand,
        binding_m=binding,
        under_m=binding + neck,
        top_m=piece.envelope.height_m,
        hand_m=hand,
        neck_m=neck,
        dome_m=dome,
    )


def wire_for_m(head_kg: float) -> float:
    """The thinnest wire that holds a head of a mass, m; the thickest where none does. Source: estimate."""
    return next((thick for thick, holds in WIRE_HOLDS.items() if head_kg <= holds.value), max(WIRE_HOLDS))


def wire_length_m(kind: MechanicKind) -> float:
    """Wire of one head, m: through it, and down beside its leg twice. Source: common practice, no source."""
    return 2 * (LEGS[kind].value + WIRE_PIERCES.value)


def heads_kg(handful: Handful) -> list[float]:
    """What each wired head weighs, heavy, with the little stem that is left on it, kg."""
    found = []
    for line, variety, _, _ in handful.stems.lines:
        found += [cut_mass_kg(variety, WIRED_STEM.value) * heavy_factor(variety)] * line.count
    return found


def _wired(
    handful: Handful, kind: MechanicKind, worn: WornOn, name: str, more: list[Part], last: Step
) -> SizedMechanic:
    heads, each = heads_kg(handful), wire_length_m(kind)
    by_gauge = Counter(wire_for_m(kg) for kg in heads)
    leg = LEGS[kind].value
    base = _base_m(handful, kind)
    tape = TAPE_STRETCH.value * (len(heads) * leg + base)
    parts = [
        Part(
            name=worded("wire {gauge} mm", gauge=f"{1000 * thick:g}"),
            quantity=count,
            sizes=(length(each),),
            mass_kg=count * each * WIRE_KG_M.value * (1000 * thick) ** 2,
            taken=FromSupply(supply=WIRE_SUPPLIES[thick], how="each cut"),
        )
        for thick, count in sorted(by_gauge.items())
    ]
    if tape:
        kg, taken = tape * TAPE_KG_M.value, FromSupply(supply="stem-tape", how="in all")
        parts.append(Part(name="stem tape, in all", quantity=1, sizes=(length(tape),), mass_kg=kg, taken=taken))
    trimmed, trims = trimmings(handful.piece)
    parts += [*more, *trimmed]
    gauges = ", ".join(
        worded("{n} of {gauge} mm", n=count, gauge=f"{1000 * thick:g}") for thick, count in sorted(by_gauge.items())
    )
    wire = Step(
        kind="wire",
        say=phrase(
            "Leave {stem} of stem on each head; wire it with {each}, {gauges}, and tape it {leg} down.",
            stem=length(WIRED_STEM.value),
            each=cut_length(each),
            gauges=gauges or "none yet",
            leg=length(leg),
        ),
        caution="Wire ends are sharp: fold and tape every one over.",
    )
    shape = handful.shape
    seat = shape.binding_m - handful.piece.vessel.base_m
    return SizedMechanic(
        kind=kind,
        name=name,
        worn=worn,
        seating=Seating(
            pattern="cups",
            pitch_m=0.03,
            aperture_m=0.0,
            height_m=seat,
            half_width_m=handful.piece.envelope.width_m / 2,
            half_depth_m=handful.piece.envelope.depth_m / 2,
        ),
        levels=(Level(height_m=seat, aperture_m=0.0),),
        layer_gap_m=shape.neck_m,
        parts=tuple(parts),
        seat_moment_n_m=1.0,
        seated_by="its tape",
        capacity=400,
        displaced_volume_l=0.0,
        mass_kg=weight_kg(parts),
        price=0.0,
        minutes=WIRE_MIN.value * len(heads),
        uses=1,
        shows=False,
        steps=(wire, last, *trims),
    )


def _base_m(handful: Handful, kind: MechanicKind) -> float:
    """The base wire of a crown, m: round the head and its loops; none for the others."""
    if kind != "crown":
        return 0.0
    return math.pi * handful.piece.envelope.width_m + CROWN_LAP.value


def bind_buttonhole(handful: Handful) -> SizedMechanic:
    """A buttonhole: a few wired heads and leaves taped to one leg, with a pin."""
    pin = Part(name="pin", quantity=1, mass_kg=PIN_KG.value, taken=FromSupply(supply="pin"))
    say = phrase("Tape the legs together, the largest head last but one, and curl the ends up. Pin it from behind.")
    return _wired(handful, "buttonhole", "lapel", "buttonhole", [pin], Step(kind="bind", say=say))


def bind_corsage(handful: Handful) -> SizedMechanic:
    """A corsage: wired heads taped in a line that tapers both ways, on a band."""
    long = CORSAGE_BAND.value
    taken = FromSupply(supply="ribbon", how="each cut")
    band = Part(
        name="ribbon of the band", quantity=1, sizes=(length(long),), mass_kg=long * BAND_KG_M.value, taken=taken
    )
    say = phrase(
        "Tape the heads in one after another, small at both ends; tie it on {band} of ribbon.", band=length(long)
    )
    return _wired(handful, "corsage", "wrist", "corsage", [band], Step(kind="bind", say=say))


def bind_crown(handful: Handful) -> SizedMechanic:
    """A crown: wired heads taped one over the next on a base wire, as wide as the envelope."""
    base = _base_m(handful, "crown")
    thick = max(WIRE_HOLDS)
    wire = Part(
        name="base wire, two together",
        quantity=2,
        sizes=(length(base),),
        mass_kg=2 * base * WIRE_KG_M.value * (1000 * thick) ** 2,
        taken=FromSupply(supply=WIRE_SUPPLIES[thick], how="each cut"),
    )
    say = phrase(
        "Tape two wires of {base} together with a loop at each end; tape the heads on all one way, each over the leg "
        "before.",
        base=cut_length(base),
    )
    return _wired(handful, "crown", "head", "crown", [wire], Step(kind="bind", say=say))


BUTTONHOLE = declare(
    About(
        kind="buttonhole",
        place=270,
        name="Buttonhole",
        what="wired and taped to one leg, worn on a lapel",
        bind=bind_buttonhole,
        worn="lapel",
        tapes=False,
    )
)
CORSAGE = declare(
    About(
        kind="corsage",
        place=280,
        name="Corsage",
        what="wired and taped in a line, worn on a wrist",
        bind=bind_corsage,
        worn="wrist",
        tapes=False,
    )
)
CROWN = declare(
    About(
        kind="crown",
        place=290,
        name="Crown",
        what="wired heads taped round a base wire, worn on the head",
        bind=bind_crown,
        worn="head",
        tapes=False,
    )
)
