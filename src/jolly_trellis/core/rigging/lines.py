"""What a line may carry: breaking load, knot or fitting, edges, wet, and the design factor over people or not."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Annotated

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.choices import FITTINGS, LINE_KINDS
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.provenance import COMMON_PRACTICE, FROM_MEMORY
from jolly_trellis.core.quantities import joined, length, phrase
from jolly_trellis.core.ranges import Range
from jolly_trellis.core.units import POUND_FORCE_N

LineKind = Annotated[str, LINE_KINDS]
Fitting = Annotated[str, FITTINGS]
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
STRAP_KG_M = measure("Hook-and-loop strap, mass of a metre for its width in mm", "linear_mass", 0.0004)
TIE_LENGTH = measure("Length of a cable tie", "length", 0.37)
STRAP_LENGTH = measure("Length of a hook-and-loop strap", "length", 0.30)
STRAP_USES = measure("Times a hook-and-loop strap is used", "count", 50)
FISHING_KG_M = measure("Monofilament or braid, mass of a metre", "linear_mass", 0.001)
MONOFILAMENT_EA = measure("Stiffness EA of monofilament, times its breaking load", "ratio", 4.5)
CORD_EA = measure("Stiffness EA of braid and cord, times their breaking load", "ratio", 8.0)
KNOT_TAKES = rule("Line that a knot and its tail take, each end", "length", 0.15, COMMON_PRACTICE)
FERRULE_TAKES = rule("Steel rope that a ferruled loop takes, each end", "length", 0.12, COMMON_PRACTICE)
GRIP_TAKES = rule("Steel rope that a grip and its tail take, each end", "length", 0.10, COMMON_PRACTICE)
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
        if self.fitting is None and self.kind in LINES:
            object.__setattr__(self, "fitting", next(iter(LINES[self.kind].fittings)))

    @property
    def fits(self) -> bool:
        """Whether what it is made off with belongs to its kind: a knot in steel rope does not."""
        return self.kind in LINES and self.fitting in LINES[self.kind].fittings


@dataclass(frozen=True, slots=True, kw_only=True)
class MadeOff:
    """A way to make a line off: in words ("a knot"), as done to it ("knotted"), what it keeps, what it takes.

    `keeps` is the share of the line's strength, None for all of it; `takes` the length of line at each end.
    """

    words: str
    done: str
    keeps: Constant | None
    takes: Constant


@dataclass(frozen=True, slots=True, kw_only=True)
class AboutLine:
    """A kind of line. The first of its `fittings` is what it is made off with unless somebody says.

    `breaking` is its breaking load by its diameter or width, m; without it, it goes by the rating on its packet.
    `stiffness` is EA by its size, or for its breaking load; `mass` the mass of a metre, kg, by its size in mm.
    `stainless` and `wet` are the shares of its strength that such a line keeps. `supply` is the key of what it is cut
    from, by its size in tenths of a millimetre. One bought by the piece, each `piece_m` long, goes round a thing once,
    as many of them joined as that takes, and is never all there is over people; `lasts` is how often it is used, None
    for once. One that `bonds` may be a second bond, one that is `strong` stays where such a tie goes, one that
    `creeps` does not hang for long. `usual_m` and `usual_n` are what it is unless somebody says.
    """

    kind: LineKind
    fittings: Mapping[Fitting, MadeOff]
    breaking: Mapping[float, Constant] = field(default_factory=dict)
    stiffness: Mapping[float, Constant] | Constant
    mass: Callable[[float], float]
    stainless: Constant | None = None
    wet: Constant | None = None
    supply: str
    piece_m: Constant | None = None
    lasts: Constant | None = None
    bonds: bool = False
    strong: bool = False
    creeps: bool = False
    usual_m: float | None = None
    usual_n: float | None = None

    @property
    def by_the_piece(self) -> bool:
        """Whether it is bought by the piece, and not cut from a length."""
        return self.piece_m is not None

    @property
    def rated(self) -> bool:
        """Whether it goes by the rating on its packet, and not by its size."""
        return not self.breaking


_CORD_KNOT = MadeOff(words="a knot", done="knotted", keeps=KNOT_CORD, takes=KNOT_TAKES)
_SPLICED = MadeOff(words="a splice", done="spliced", keeps=SPLICE, takes=KNOT_TAKES)
LINES: dict[LineKind, AboutLine] = {}


def declare(about: AboutLine) -> AboutLine:
    """Make a kind of line known, with what it can be made off with."""
    LINES[about.kind] = about
    LINE_KINDS.know(list(LINES))
    FITTINGS.know(list(dict.fromkeys(fitting for each in LINES.values() for fitting in each.fittings)))
    return about


STEEL_ROPE = declare(
    AboutLine(
        kind="steel rope",
        fittings={
            "grip": MadeOff(words="a grip", done="grip", keeps=GRIP, takes=GRIP_TAKES),
            "ferrule": MadeOff(words="a ferrule", done="ferrule", keeps=FERRULE, takes=FERRULE_TAKES),
        },
        breaking=STEEL_BREAKING,
        stiffness=STEEL_EA,
        mass=lambda size_mm: STEEL_KG_M.value * size_mm**2,
        stainless=STAINLESS,
        bonds=True,
        strong=True,
        supply="steel-rope-{tenths}",
        usual_m=0.0015,
    )
)
MONOFILAMENT = declare(
    AboutLine(
        kind="monofilament",
        fittings={"knot": MadeOff(words="a knot", done="knotted", keeps=KNOT_MONOFILAMENT, takes=KNOT_TAKES)},
        stiffness=MONOFILAMENT_EA,
        mass=lambda _: FISHING_KG_M.value,
        wet=WET,
        creeps=True,
        supply="monofilament",
        usual_n=89.0,
    )
)
BRAID = declare(
    AboutLine(
        kind="braid",
        fittings={"knot": _CORD_KNOT, "splice": _SPLICED},
        stiffness=CORD_EA,
        mass=lambda _: FISHING_KG_M.value,
        supply="braid",
        usual_n=200.0,
    )
)
POLYESTER_CORD = declare(
    AboutLine(
        kind="polyester cord",
        fittings={"knot": _CORD_KNOT, "splice": _SPLICED},
        breaking=CORD_BREAKING,
        stiffness=CORD_EA,
        mass=lambda size_mm: CORD_KG_M.value * size_mm**2,
        strong=True,
        supply="cord-{tenths}",
        usual_m=0.003,
    )
)
CABLE_TIE = declare(
    AboutLine(
        kind="cable tie",
        fittings={"head": MadeOff(words="its own head", done="its own head", keeps=None, takes=KNOT_TAKES)},
        breaking=TIE_STRENGTH,
        stiffness=CORD_EA,
        mass=lambda size_mm: TIE_KG_M.value * size_mm,
        supply="cable-tie-{tenths}",
        piece_m=TIE_LENGTH,
        usual_m=0.0048,
    )
)
STRAP = declare(
    AboutLine(
        kind="strap",
        fittings={"lap": MadeOff(words="its own lap", done="its own lap", keeps=None, takes=KNOT_TAKES)},
        stiffness=CORD_EA,
        mass=lambda size_mm: STRAP_KG_M.value * size_mm,
        supply="strap",
        piece_m=STRAP_LENGTH,
        lasts=STRAP_USES,
        usual_m=0.02,
        usual_n=100.0,
    )
)


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
    about = LINES[spec.kind]
    table = about.breaking
    if about.rated:
        raise InvalidMeasure(
            path="spec.stated_n",
            message=phrase("A {spec} line goes by its test rating, and none is given.", spec=spec.kind),
            limit=phrase("Type the rating on its packet, such as 20 lbf."),
        )
    found = next((each for size, each in table.items() if abs(size - (spec.size_m or 0.0)) < _SAME_M), None)
    if found is None:
        sizes = joined((phrase("{size}", size=length(size)) for size in table), ", ")
        raise InvalidMeasure(
            path="spec.size_m",
            message=phrase(
                "No strength is known for {spec} of {size}.", size=length(spec.size_m or 0.0), spec=spec.kind
            ),
            limit=phrase("Choose {sizes}, or type the strength on its packet.", sizes=sizes),
        )
    return found.value * (about.stainless.value if about.stainless and spec.stainless else 1.0)


def efficiency(spec: LineSpec) -> float:
    """Share of its breaking load that a line keeps at its ends, wet, and over an edge, 0-1.

    Valid for: a fitting of the line's own kind (`LineSpec.fits`); for another one it is that of a knot in cord, and
    nothing may pass on it.
    Source: common practice; see each constant.
    """
    about = LINES[spec.kind]
    made_off = about.fittings.get(spec.fitting or "", _CORD_KNOT)
    kept = 1.0 if made_off.keeps is None else made_off.keeps.value
    if about.wet is not None and spec.wet:
        kept *= about.wet.value
    return kept * (EDGE.value if spec.over_edge else 1.0)


def remedy_words(spec: LineSpec) -> str:
    """What a kind of line is made off with, in words: "a grip or a ferrule"."""
    return " or ".join(each.words for each in LINES[spec.kind].fittings.values())


def end_takes_m(spec: LineSpec) -> float:
    """Length that a line's knot, ferrule or grip takes at one end with its tail, m. Source: common practice."""
    return LINES[spec.kind].fittings.get(spec.fitting or "", _CORD_KNOT).takes.value


def supply_of(spec: LineSpec) -> str:
    """The key of the supply that a line is cut from, or bought as."""
    return LINES[spec.kind].supply.format(tenths=round((spec.size_m or 0.0) * 10_000))


def pieces_of(spec: LineSpec, reach_m: float) -> int | None:
    """How many ties or straps are joined to reach so far, m; None for a line that is cut from a length."""
    piece = LINES[spec.kind].piece_m
    return None if piece is None else max(1, math.ceil(reach_m / piece.value - 1e-9))


def mass_kg_m(spec: LineSpec) -> float:
    """Mass of a metre of line, kg/m, by its section; a fishing line's is a round figure.

    Source: steel rope 7 × 7 and polyester cord by d² (from memory of trade tables); the rest are estimates.
    """
    return LINES[spec.kind].mass(1000 * (spec.size_m or 0.0))


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
    about = LINES[spec.kind]
    if isinstance(about.stiffness, Constant):
        return breaking_n(spec) * about.stiffness.value
    sizes = about.stiffness
    return sizes[min(sizes, key=lambda each: abs(each - (spec.size_m or about.usual_m or 0.0)))].value
