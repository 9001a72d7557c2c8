"""Varieties and cut stems: mass, centre of mass, droop and clumps, all from the length that is cut."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from jolly_trellis.core.books.figures import Constant, measure, standard
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.hazards import Hazard
from jolly_trellis.core.provenance import ESTIMATE, Provenance
from jolly_trellis.core.quantities import phrase, worded
from jolly_trellis.core.ranges import Key, Many, Range, Text

HeadForm = Literal["disc", "ball", "spike", "spray", "leaf", "plume", "tassel"]
Stiffness = Literal["soft", "medium", "woody"]
Thirst = Literal["low", "usual", "thirsty"]
Kind = Literal["fresh", "dried", "preserved", "artificial", "foraged", "own garden"]
LASTING: tuple[Kind, ...] = ("dried", "preserved", "artificial")
GATHERED: tuple[Kind, ...] = ("foraged", "own garden")
Care = Literal["alone", "deep bucket", "cold", "seal", "slit", "warm"]
CARE: Mapping[Care, str] = {
    "alone": "stands alone in its bucket: its sap harms others",
    "deep bucket": "drinks in a clean deep bucket, up to its neck",
    "cold": "stands cold, at 2 to 6 °C",
    "seal": "seal the cut end of what bleeds: a flame, or boiling water for some seconds",
    "slit": "slit the end upwards, do not crush it",
    "warm": "into hand-warm water first",
}
Role = Literal["margin", "line", "focal", "filler", "base", "airy"]

GRAVITY = standard("Standard gravity", "acceleration", 9.80665, Provenance(kind="published", source="ISO 80000-3"))
GRAVITY_M_S2 = GRAVITY.built_in
BENDING_STIFFNESS: dict[Stiffness, Constant] = {
    "soft": measure("Bending stiffness of a soft stem", "stiffness", 0.02),
    "medium": measure("Bending stiffness of a medium stem", "stiffness", 0.1),
    "woody": measure("Bending stiffness of a woody stem", "stiffness", 1.0),
}
HEAVY_STEM_FACTOR = measure("Heavy stems against typical", "ratio", 1.3)
WET_FOLIAGE_FACTOR = measure("Wet foliage against dry", "ratio", 1.1)
BRANCH_CENTRE = measure("Centre of a branch, from its foot", "ratio", 0.45)
SHOOT_HEAD = measure("Head of a side shoot against its stem's", "ratio", 0.5)
SHOOT_LENGTH = measure("Length of a side shoot against its stem's", "ratio", 0.35)
SHOOT_MASS = measure("Mass of a side shoot against its stem's", "ratio", 0.2)
CLUMP_FILL = measure("Section fill of stems bundled side by side", "ratio", 0.8)


@dataclass(frozen=True, slots=True, kw_only=True)
class VarietyProvenance:
    """Where each group of a variety's figures comes from."""

    size: Provenance
    mass: Provenance
    uptake: Provenance
    dry_hold: Provenance
    hazard: Provenance
    price: Provenance = ESTIMATE
    opening: Provenance = ESTIMATE


@dataclass(frozen=True, slots=True, kw_only=True)
class Variety:
    """One variety as the studio buys it.

    `mass_kg` is of a whole stem, leaves on, at `mass_length_m`; `head_fraction` is the share of it in the
    head. `uptake_ml_h` is the first day's draw at 20 °C and 60 % relative humidity. `dry_hold_h` is how long
    it looks right with no water in the same air. A `bulb` grows on after it is placed; `forked` stems catch others;
    `dip` and `fold` say that the head is dipped, and that its petals may be folded back; `side_shoots` can be saved.
    `bunch_price` and `stem_price` are what a bunch and a single stem cost, None not known, asked on the day
    `priced_on`, empty an estimate, in `currency`, empty that of the stores; `conditioning_h` is how long it drinks
    before it is used, `opening_days` how long its bud as bought takes to open at 20 °C. `names` are other names that
    people call it by, `season` the months of ordinary supply in the north, 1 to 12, empty not known;
    `hazards` empty says nothing of it. `care` is what it asks for while it drinks; a stem carries `heads` of its size.
    Below `least_c`, °C, it is chilled.
    """

    key: Key
    name: Annotated[str, Text(120, least=1)]
    colour: Annotated[str, Text(7, like="#[0-9a-f]{6}", such="#c8566b")]
    form: HeadForm
    head_diameter_m: Annotated[float, Range("length", 0.001, 1)]
    head_height_m: Annotated[float, Range("length", 0.001, 1.5)]
    stem_diameter_m: Annotated[float, Range("length", 0.0005, 0.08)]
    mass_kg: Annotated[float, Range("mass", 0.0005, 5)]
    mass_length_m: Annotated[float, Range("length", 0.03, 4)]
    head_fraction: Annotated[float, Range("ratio", 0.01, 0.99)]
    heavy_mass_kg: Annotated[float | None, Range("mass", 0, 8, above=True)]
    stiffness: Stiffness
    branch: bool
    uptake_ml_h: Annotated[float, Range("draw", 0, 100)]
    dry_hold_h: Annotated[float, Range("duration", 0, 2000)]
    thirst: Thirst
    bunch_size: Annotated[int, Range("count", 1, 500)]
    sold_lengths_m: Annotated[tuple[Annotated[float, Range("length", 0, 4, above=True)], ...], Many(12, least=1)]
    bulb: bool = False
    forked: bool = False
    dip: bool = False
    fold: bool = False
    side_shoots: Annotated[int, Range("count", 0, 40)] = 0
    bunch_price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    stem_price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    conditioning_h: Annotated[float, Range("duration", 0, 72)] = 6.0
    opening_days: Annotated[float, Range("ratio", 0, 60)] = 0.0
    priced_on: Annotated[str, Text(10, like=r"(\d{4}-\d{2}-\d{2})?", such="2027-05-15")] = ""
    currency: Annotated[str, Text(3)] = ""
    kind: Kind = "fresh"
    botanical: Annotated[str, Text(120)] = ""
    names: Annotated[tuple[Annotated[str, Text(60, least=1)], ...], Many(20)] = ()
    season: Annotated[tuple[Annotated[int, Range("count", 1, 12)], ...], Many(12)] = ()
    hazards: Annotated[tuple[Hazard, ...], Many(9)] = ()
    care: Annotated[tuple[Care, ...], Many(6)] = ()
    heads: Annotated[int, Range("count", 1, 30)] = 1
    least_c: Annotated[float, Range("temperature", -5, 25)] = 1.0
    provenance: VarietyProvenance

    @property
    def lasting(self) -> bool:
        """Whether it is dried, preserved or artificial: it drinks nothing, opens nothing, and keeps for months."""
        return self.kind in LASTING

    @property
    def gathered(self) -> bool:
        """Whether nobody sells it: it is foraged, or grows in the studio's own garden."""
        return self.kind in GATHERED

    @property
    def thorny(self) -> bool:
        """Whether its stems have thorns."""
        return "thorns" in self.hazards

    @property
    def toxic(self) -> bool:
        """Whether its sap is not for bare hands, or it is not for eating."""
        return bool({"sap", "light", "poison"} & set(self.hazards))


def check_kind(variety: Variety) -> None:
    """Refuse what keeps for months and is to drink or open, and a price of what nobody sells.

    Raises: InvalidMeasure.
    """
    asked = (("uptake_ml_h", 0.0), ("conditioning_h", 0.0), ("opening_days", 0.0))
    for path, none in asked if variety.lasting else ():
        if getattr(variety, path) != none:
            words = "opens no buds" if path == "opening_days" else "does not drink"
            raise InvalidMeasure(
                path=path,
                message=phrase("{name} is {kind}: it {words}.", name=variety.name, kind=variety.kind, words=words),
                limit=phrase("Give 0 here, or another kind."),
            )
    for path in ("bunch_price", "stem_price") if variety.gathered else ():
        if getattr(variety, path):
            raise InvalidMeasure(
                path=path,
                message=phrase("{name} is {kind}: nobody sells it.", name=variety.name, kind=variety.kind),
                limit=phrase("Leave its price empty, or give another kind."),
            )


def shoot_of(variety: Variety) -> Variety:
    """A side shoot of a variety as a stem of its own: smaller in everything, with none of its own.

    Source: estimates; weigh and measure a few.
    """
    size, long = SHOOT_HEAD.value, SHOOT_LENGTH.value
    return replace(
        variety,
        name=worded("{variety}, side shoot", variety=variety.name),
        head_diameter_m=max(size * variety.head_diameter_m, 0.001),
        head_height_m=max(size * variety.head_height_m, 0.001),
        stem_diameter_m=max(size * variety.stem_diameter_m, 0.0005),
        mass_kg=max(SHOOT_MASS.value * variety.mass_kg, 0.0005),
        mass_length_m=max(long * variety.mass_length_m, 0.03),
        heavy_mass_kg=None if variety.heavy_mass_kg is None else SHOOT_MASS.value * variety.heavy_mass_kg,
        uptake_ml_h=SHOOT_MASS.value * variety.uptake_ml_h,
        sold_lengths_m=tuple(long * each for each in variety.sold_lengths_m),
        side_shoots=0,
        heads=1,
    )


def linear_density_kg_m(variety: Variety) -> float:
    """Mass of a metre of stem with its leaves left on, kg/m. Source: definition from the weighed stem."""
    return variety.mass_kg * (1 - variety.head_fraction) / variety.mass_length_m


def head_mass_kg(variety: Variety) -> float:
    """Mass of the head, kg. Source: definition from the weighed stem."""
    return variety.mass_kg * variety.head_fraction


def cut_mass_kg(variety: Variety, length_m: float) -> float:
    """Mass of a stem cut to a length: head plus the stem that is left.

    Args:
        variety: its figures.
        length_m: cut length, m, > 0.
    Returns: kg.
    Source: definition.
    """
    return head_mass_kg(variety) + linear_density_kg_m(variety) * length_m


def heavy_factor(variety: Variety) -> float:
    """Heavy-case mass over typical: the variety's own 90th percentile, else 1.3; foliage also wet.

    Source: estimates.
    """
    own = variety.heavy_mass_kg
    factor = HEAVY_STEM_FACTOR.value if own is None else own / variety.mass_kg
    return factor * WET_FOLIAGE_FACTOR.value if variety.form == "leaf" else factor


def centre_from_foot_m(variety: Variety, length_m: float) -> float:
    """Distance from the cut end to the centre of mass of a cut stem, metres.

    The head's mass sits at the tip; the stem's own at half its length, or at 0.45 of it for a branch.

    Source: first moments; the 0.45 is an estimate.
    """
    share = BRANCH_CENTRE.value if variety.branch else 0.5
    head, stem = head_mass_kg(variety), linear_density_kg_m(variety) * length_m
    return (head * length_m + stem * share * length_m) / (head + stem)


def droop_m(variety: Variety, visible_length_m: float, lean_rad: float) -> float:
    """How far the head of a leaning stem sags: m·g·L³·sin θ/(3·EI), metres.

    Args:
        variety: gives head mass and stiffness.
        visible_length_m: free length above the mechanic, m, ≥ 0.
        lean_rad: from the vertical, 0 to π.
    Valid for: small sag (a fifth of the length); beyond that it overstates.
    Source: cantilever with an end load (any mechanics text); EI by stiffness class is an estimate.
    """
    stiffness = BENDING_STIFFNESS[variety.stiffness].value
    return head_mass_kg(variety) * GRAVITY_M_S2 * visible_length_m**3 * math.sin(lean_rad) / (3 * stiffness)


def clump_diameter_m(stem_diameter_m: float, stems: int) -> float:
    """Diameter of a clump pushed in together, taken as one stem: d·√n/√0.8; one stem keeps its own.

    Source: equal section area at a fill of 0.8 (estimate).
    """
    return stem_diameter_m if stems == 1 else stem_diameter_m * math.sqrt(stems / CLUMP_FILL.value)
