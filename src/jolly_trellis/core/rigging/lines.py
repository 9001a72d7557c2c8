"""What a line may carry: breaking load, knot or fitting, edges, wet, and the design factor over people or not."""

from dataclasses import dataclass
from typing import Annotated, Literal

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.provenance import COMMON_PRACTICE, FROM_MEMORY
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.ranges import Range
from jolly_trellis.core.units import POUND_FORCE_N

LineKind = Literal["monofilament", "braid", "steel rope", "polyester cord", "cable tie"]
Fitting = Literal["knot", "splice", "ferrule", "grip", "head"]
# What each kind of line can be made off with; the first is what it is unless somebody says.
FITTINGS: dict[LineKind, tuple[Fitting, ...]] = {
    "monofilament": ("knot",),
    "braid": ("knot", "splice"),
    "steel rope": ("grip", "ferrule"),
    "polyester cord": ("knot", "splice"),
    "cable tie": ("head",),
}
KNOT_MONOFILAMENT = measure(
    "Knot in monofilament keeps, of its strength",
    "ratio",
    0.6,
    FROM_MEMORY,
    spread=0.15,
    cautious="down",
    most=1.0,
)
KNOT_CORD = measure(
    "Knot in braid or polyester cord keeps, of its strength",
    "ratio",
    0.5,
    FROM_MEMORY,
    spread=0.15,
    cautious="down",
    most=1.0,
)
SPLICE = measure(
    "Splice in braid or polyester cord keeps, of its strength",
    "ratio",
    0.8,
    FROM_MEMORY,
    spread=0.15,
    cautious="down",
    most=1.0,
)
FERRULE = measure("Ferrule on steel rope keeps, of its strength", "ratio", 0.9, FROM_MEMORY, cautious="down", most=1.0)
GRIP = measure(
    "Adjustable grip on steel rope keeps, of its strength", "ratio", 0.8, FROM_MEMORY, cautious="down", most=1.0
)
STAINLESS = measure("Stainless steel rope, against galvanized", "ratio", 0.88, FROM_MEMORY, cautious="down")
WET = measure("Wet monofilament keeps, of its strength", "ratio", 0.85, FROM_MEMORY, cautious="down", most=1.0)
EDGE = measure(
    "A line bent over an edge keeps, of its strength", "ratio", 0.7, COMMON_PRACTICE, cautious="down", most=1.0
)
FACTOR_PEOPLE = rule("Design factor over people, whole or uneven", "ratio", 10.0, FROM_MEMORY, cautious="up")
FACTOR_NOBODY = rule("Design factor where nobody can be, whole or uneven", "ratio", 5.0, FROM_MEMORY, cautious="up")
FACTOR_GONE = rule("Share of the design factor with one line gone", "ratio", 0.5, FROM_MEMORY, cautious="up", most=1.0)
STEEL_BREAKING: dict[float, Constant] = {
    0.0010: measure("Breaking load, steel rope 7 × 7, 1.0 mm", "force", 600.0, FROM_MEMORY, cautious="down"),
    0.0015: measure("Breaking load, steel rope 7 × 7, 1.5 mm", "force", 1400.0, FROM_MEMORY, cautious="down"),
    0.0020: measure("Breaking load, steel rope 7 × 7, 2.0 mm", "force", 2500.0, FROM_MEMORY, cautious="down"),
    0.0030: measure("Breaking load, steel rope 7 × 7, 3.0 mm", "force", 5600.0, FROM_MEMORY, cautious="down"),
}
CORD_BREAKING: dict[float, Constant] = {
    0.002: measure("Breaking load, polyester cord, 2 mm", "force", 600.0, FROM_MEMORY, cautious="down"),
    0.003: measure("Breaking load, polyester cord, 3 mm", "force", 1300.0, FROM_MEMORY, cautious="down"),
    0.004: measure("Breaking load, polyester cord, 4 mm", "force", 2300.0, FROM_MEMORY, cautious="down"),
}
TIE_STRENGTH: dict[float, Constant] = {
    0.0025: measure(
        "Loop strength, cable tie 2.5 mm, where the packet says nothing", "force", 80.0, FROM_MEMORY, cautious="down"
    ),
    0.0036: measure(
        "Loop strength, cable tie 3.6 mm, where the packet says nothing", "force", 178.0, FROM_MEMORY, cautious="down"
    ),
    0.0048: measure(
        "Loop strength, cable tie 4.8 mm, where the packet says nothing", "force", 222.0, FROM_MEMORY, cautious="down"
    ),
    0.0076: measure(
        "Loop strength, cable tie 7.6 mm, where the packet says nothing", "force", 534.0, FROM_MEMORY, cautious="down"
    ),
}
STEEL_EA: dict[float, Constant] = {
    0.0010: measure("Stiffness EA, steel rope 7 × 7, 1.0 mm", "force", 31_000.0),
    0.0015: measure("Stiffness EA, steel rope 7 × 7, 1.5 mm", "force", 70_000.0),
    0.0020: measure("Stiffness EA, steel rope 7 × 7, 2.0 mm", "force", 123_000.0),
    0.0030: measure("Stiffness EA, steel rope 7 × 7, 3.0 mm", "force", 277_000.0),
}
STEEL_KG_M = measure("Steel rope, mass of a metre for its diameter in mm squared", "linear_mass", 0.0040, FROM_MEMORY)
CORD_KG_M = measure("Cord, mass of a metre for its diameter in mm squared", "linear_mass", 0.00075, FROM_MEMORY)
TIE_KG_M = measure("Cable tie, mass of a metre for its width in mm", "linear_mass", 0.0016)
FISHING_KG_M = measure("Monofilament or braid, mass of a metre", "linear_mass", 0.001)
MONOFILAMENT_EA = measure("Stiffness EA of monofilament, times its breaking load", "ratio", 4.5)
CORD_EA = measure("Stiffness EA of braid and cord, times their breaking load", "ratio", 8.0)
_TABLES: dict[LineKind, dict[float, Constant]] = {
    "steel rope": STEEL_BREAKING,
    "polyester cord": CORD_BREAKING,
    "cable tie": TIE_STRENGTH,
}
_SAME_M = 5e-5


@dataclass(frozen=True, slots=True, kw_only=True)
class LineSpec:
    """What a line is: by its test rating in newtons (monofilament, braid), or by its diameter or width in metres.

    `stated_n` is the strength on the packet, which goes before the table. `fitting` is what it is made off with; None
    becomes its kind's own. `over_edge` tells one bent over an edge.
    """

    kind: LineKind
    size_m: Annotated[float | None, Range("length", 0, 0.05, above=True)] = None
    stated_n: Annotated[float | None, Range("force", 0, 200000, above=True)] = None
    fitting: Fitting | None = None
    stainless: bool = False
    wet: bool = False
    over_edge: bool = False

    def __post_init__(self) -> None:
        if self.fitting is None and self.kind in FITTINGS:
            object.__setattr__(self, "fitting", FITTINGS[self.kind][0])

    @property
    def fits(self) -> bool:
        """Whether what it is made off with belongs to its kind: a knot in steel rope does not."""
        return self.fitting in FITTINGS[self.kind]


def pounds_test_n(pounds: float) -> float:
    """Test rating of a fishing line in pounds-force as newtons. Source: 1 lbf = 4.448 N (definition)."""
    return pounds * POUND_FORCE_N


def breaking_n(spec: LineSpec) -> float:
    """Breaking load of a line, newtons: what its packet says, else by its size.

    Raises: InvalidMeasure: a size the tables have not, or a monofilament or braid with no rating.
    Source: trade tables (from memory); see each constant.
    """
    if spec.stated_n is not None:
        return spec.stated_n
    table = _TABLES.get(spec.kind)
    if table is None:
        raise InvalidMeasure(
            path="spec.stated_n",
            message=phrase(f"A {spec.kind} line goes by its test rating, and none is given."),
            limit=phrase("Type the rating on its packet, such as 20 lbf."),
        )
    found = next((each for size, each in table.items() if abs(size - (spec.size_m or 0.0)) < _SAME_M), None)
    if found is None:
        sizes = ", ".join(f"{1000 * size:g} mm" for size in table)
        raise InvalidMeasure(
            path="spec.size_m",
            message=phrase(f"No strength is known for {spec.kind} of {{size}}.", size=length(spec.size_m or 0.0)),
            limit=phrase(f"Choose {sizes}, or type the strength on its packet."),
        )
    return found.value * (STAINLESS.value if spec.kind == "steel rope" and spec.stainless else 1.0)


def efficiency(spec: LineSpec) -> float:
    """Share of its breaking load that a line keeps at its ends, wet, and over an edge, 0-1.

    Valid for: a fitting of the line's own kind (`LineSpec.fits`); for another one it is that of a knot in cord, and
    nothing may pass on it.
    Source: common practice; see each constant.
    """
    match spec.kind, spec.fitting:
        case "monofilament", _:
            kept = KNOT_MONOFILAMENT.value * (WET.value if spec.wet else 1.0)
        case "steel rope", "ferrule":
            kept = FERRULE.value
        case "steel rope", "grip":
            kept = GRIP.value
        case "cable tie", _:
            kept = 1.0
        case "braid" | "polyester cord", "splice":
            kept = SPLICE.value
        case _:
            kept = KNOT_CORD.value
    return kept * (EDGE.value if spec.over_edge else 1.0)


def remedy_words(spec: LineSpec) -> str:
    """What a kind of line is made off with, in words: "a grip or a ferrule"."""
    return " or ".join(f"a {each}" if each != "head" else "its own head" for each in FITTINGS[spec.kind])


def mass_kg_m(spec: LineSpec) -> float:
    """Mass of a metre of line, kg/m, by its section; a fishing line's is a round figure.

    Source: steel rope 7 × 7 and polyester cord by d² (from memory of trade tables); the rest are estimates.
    """
    size_mm = 1000 * (spec.size_m or 0.0)
    match spec.kind:
        case "steel rope":
            return STEEL_KG_M.value * size_mm**2
        case "polyester cord":
            return CORD_KG_M.value * size_mm**2
        case "cable tie":
            return TIE_KG_M.value * size_mm
        case _:
            return FISHING_KG_M.value


def design_factor(*, over_people: bool, one_gone: bool) -> float:
    """Design factor: 10 where people can be under or touch it, 5 where nobody can; half of that with one line gone.

    Source: common rigging practice (from memory); stricter local rules win.
    """
    whole = (FACTOR_PEOPLE if over_people else FACTOR_NOBODY).value
    return whole * (FACTOR_GONE.value if one_gone else 1.0)


def working_limit_n(spec: LineSpec, *, over_people: bool, one_gone: bool = False) -> float:
    """What a line may carry: breaking load × efficiency / design factor, newtons. Source: as its parts."""
    return breaking_n(spec) * efficiency(spec) / design_factor(over_people=over_people, one_gone=one_gone)


def stiffness_n(spec: LineSpec) -> float:
    """EA of a line, newtons. Source: estimates; see each constant."""
    if spec.kind == "steel rope":
        size = min(STEEL_EA, key=lambda each: abs(each - (spec.size_m or 0.0015)))
        return STEEL_EA[size].value
    return breaking_n(spec) * (MONOFILAMENT_EA if spec.kind == "monofilament" else CORD_EA).value
