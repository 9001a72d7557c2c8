"""What a mechanic is sized to, and what several of them share: squeeze, tape, putty, string, capacity, price."""

import math
from dataclasses import dataclass

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Finish, Netting, NettingSheet
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sized import Fold, Seating, Step
from jolly_trellis.core.mechanics.tape import taped_n_m, taped_share
from jolly_trellis.core.plan.piece import Mechanic
from jolly_trellis.core.plan_shapes import section_area_m2
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import cut_length, length, phrase

LAYER_GAP_USUAL = rule("Usual gap between layers", "length", 0.04, COMMON_PRACTICE)
FLOOR_CLEARANCE = rule("Room kept under the lowest layer", "length", 0.02, COMMON_PRACTICE)
TUCK_CELLS = rule("Edge tucked in, in cells", "ratio", 0.5, COMMON_PRACTICE)
SQUEEZE_FORCE_N_M = measure(
    "Squeeze of netting on a rim for each 1 % it is cut too wide, 0.8-0.9 mm wire", "line_force", 4.0
)
SQUEEZE_THIN_WIRE = measure("Squeeze of 0.7 mm wire against 0.9 mm", "ratio", 0.5)
SQUEEZE_THICK_WIRE = measure("Squeeze of 1.0 mm wire against 0.9 mm", "ratio", 1.5)
WALL_FRICTION_GLAZED = measure("Friction of netting on a glazed wall", "ratio", 0.3, spread=0.25)
WALL_FRICTION_ROUGH = measure("Friction of netting on a rough wall", "ratio", 0.4, spread=0.25)
WIRE_POINT: tuple[tuple[float, Constant], ...] = (
    (0.00075, measure("Netting at one point, wire to 0.7 mm", "force", 2.0)),
    (0.00095, measure("Netting at one point, wire 0.8-0.9 mm", "force", 5.0)),
    (1.0, measure("Netting at one point, wire 1.0 mm and over", "force", 12.0)),
)
MINUTES_PER_LAYER = measure("Time to cut, fold and seat a layer of netting", "minutes", 2.5)
NETTING_USES = measure("Times a netting mechanic is used again, coated", "count", 8)
GALVANIZED_USES = measure("Times a netting mechanic is used again, galvanized", "count", 6)
BARE_USES = measure("Times a netting mechanic is used again, bare", "count", 2)
CUT_CAUTION = "Cut ends are sharp: gloves and eye protection."
MAX_LAYERS = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class Fit:
    """A mechanic's choice, and what it is sized to.

    `stem_diameter_m` is the mean of the recipe (6 mm where it is empty), `stems` how many there are, `tall_m` the
    longest stem above the rim.
    """

    choice: Mechanic
    vessel: Vessel
    netting: Netting | None
    frog: Frog | None
    tape_strips: int = 0
    putty: bool = False
    stems: int = 0
    stem_diameter_m: float = 0.006
    plastic_free: bool = False

    @property
    def depth_m(self) -> float:
        """Inside depth of the vessel, metres."""
        return self.vessel.inside_depth_m

    @property
    def mouth_m(self) -> float:
        """Inside size of the mouth across its narrower side, metres."""
        return min(self.vessel.mouth_width_m, self.vessel.mouth_depth_m)

    @property
    def mouth_long_m(self) -> float:
        """Inside size of the mouth across its longer side, metres."""
        return max(self.vessel.mouth_width_m, self.vessel.mouth_depth_m)

    @property
    def mouth_area_m2(self) -> float:
        """Area of the mouth, m²."""
        return section_area_m2(self.vessel.plan_shape, self.vessel.mouth_width_m, self.vessel.mouth_depth_m)

    @property
    def net(self) -> Netting:
        """The netting. Raises InvalidMeasure where none is chosen."""
        if self.netting is None:
            raise InvalidMeasure(
                path="mechanic.netting",
                message=phrase("This mechanic is made of netting, and none is chosen."),
                limit=phrase("Choose a netting from the stores."),
            )
        return self.netting

    @property
    def tuck_m(self) -> float:
        """Edge tucked in: as given, else half a cell, metres."""
        given = self.choice.tuck_m
        return TUCK_CELLS.value * nets.pitch_across_m(self.net) if given is None else given

    def frog_of(self, kind: str) -> Frog:
        """The frog, of the kind asked for. Raises InvalidMeasure where there is none, or another kind."""
        if self.frog is None or self.frog.kind != kind:
            raise InvalidMeasure(
                path="mechanic.frog",
                message=phrase("This needs a {kind} frog, and none is chosen.", kind=kind),
                limit=phrase("Choose a {kind} frog from the stores.", kind=kind),
            )
        return self.frog


def netting_uses(finish: Finish) -> int:
    """How often netting in water is used: coated longest, bare wire rusts. Source: estimates, one for each finish."""
    by_finish = {"coated": NETTING_USES, "galvanized": GALVANIZED_USES, "bare": BARE_USES}
    return round(by_finish[finish].value)


def check_mouth(fit: Fit) -> None:
    """Refuse netting whose cells are wider than the mouth."""
    pitch = nets.pitch_across_m(fit.net)
    if fit.mouth_m < pitch:
        raise InvalidMeasure(
            path="mechanic.netting",
            message=phrase("The mouth, {mouth}, is narrower than one cell.", mouth=length(fit.mouth_m)),
            limit=phrase("Use netting with cells under {mouth}, or a wider vessel.", mouth=length(fit.mouth_m)),
        )


def check_depth(fit: Fit, least_m: float, what: str) -> None:
    """Refuse a vessel too shallow for a mechanic."""
    if fit.depth_m < least_m:
        raise InvalidMeasure(
            path="vessel.profile",
            message=phrase("{what} does not fit in {depth}.", depth=length(fit.depth_m), what=what),
            limit=phrase("It needs a vessel {least} deep or more.", least=length(least_m)),
        )


def seat_moment_n_m(*, mouth_girth_m: float, mouth_size_m: float, squeeze: float, wire_m: float, rough: bool) -> float:
    """Moment that the squeeze alone resists: μ·F·D/2, N·m.

    Args:
        mouth_girth_m: inside circumference, m.
        mouth_size_m: inside size across, m.
        squeeze: oversize, 0-0.15.
        wire_m: wire diameter, m.
        rough: an unglazed or wooden wall.
    Source: Coulomb friction; 4 N per metre of rim per 1 % squeeze is an estimate.
    """
    per_metre = SQUEEZE_FORCE_N_M.value * squeeze * 100
    if wire_m < 0.00075:
        per_metre *= SQUEEZE_THIN_WIRE.value
    elif wire_m >= 0.00095:
        per_metre *= SQUEEZE_THICK_WIRE.value
    friction = (WALL_FRICTION_ROUGH if rough else WALL_FRICTION_GLAZED).value
    return friction * per_metre * mouth_girth_m * mouth_size_m / 2


def squeezed_n_m(fit: Fit) -> float:
    """Moment that a netting mechanic sprung into this mouth takes, tape included, N·m."""
    squeeze = seat_moment_n_m(
        mouth_girth_m=vessels.mouth_girth_m(fit.vessel),
        mouth_size_m=fit.mouth_m,
        squeeze=fit.choice.squeeze,
        wire_m=fit.net.wire_m,
        rough=fit.vessel.material in ("unglazed", "wood"),
    )
    return squeeze + taped_n_m(fit)


def cells_free(fit: Fit, pitch_m: float) -> int:
    """Cells of the mouth not under tape, at least one."""
    return max(1, int(fit.mouth_area_m2 * (1 - taped_share(fit)) / nets.cell_area_m2(pitch_m)))


def stems_taken(fit: Fit, cells: int, aperture_m: float) -> int:
    """Stems of the recipe's mean diameter that so many cells take."""
    return cells * nets.cell_capacity(aperture_m, fit.stem_diameter_m)


def netting_seating(fit: Fit) -> Seating:
    """Seats of a mouth covered with netting."""
    return Seating(
        pattern="hexagonal",
        pitch_m=nets.pitch_across_m(fit.net),
        aperture_m=nets.aperture_m(fit.net),
        height_m=fit.depth_m,
    )


def point_strength(wire_m: float) -> Constant:
    """Push that one point of netting bears."""
    return next(strength for most, strength in WIRE_POINT if wire_m <= most)


def netting_price(netting: Netting, sheets: tuple[NettingSheet, ...]) -> float | None:
    """Price of the netting cut, by area of its roll; None where the roll has no price."""
    if netting.price is None:
        return None
    area = sum(each.width_m * each.length_m for each in sheets)
    return netting.price * area / (netting.roll_width_m * netting.roll_length_m)


def cut_step(fit: Fit, sheet: NettingSheet, name: str) -> Step:
    """Cutting one sheet, in length and in whole cells."""
    say = phrase(
        "Cut {name} {w} × {l} of {net}: {cells_across} cells across, {rows_along} rows along the twists.",
        w=cut_length(sheet.width_m),
        l=cut_length(sheet.length_m),
        name=name,
        net=fit.net.name,
        cells_across=sheet.cells_across,
        rows_along=sheet.rows_along,
    )
    return Step(kind="cut", say=say, caution=CUT_CAUTION)


def tuck_step(fit: Fit) -> Step:
    """Tucking the cut ends in."""
    say = phrase("Tuck in {t} along every edge, sharp ends inwards.", t=length(fit.tuck_m))
    return Step(kind="tuck", say=say)


def tuck_folds(fit: Fit, long_m: float) -> tuple[Fold, ...]:
    """The two tucks across a flat sheet's ends."""
    return (Fold(at_m=fit.tuck_m, kind="tuck"), Fold(at_m=long_m - fit.tuck_m, kind="tuck"))


def gap_m(fit: Fit, layers: int) -> float:
    """Gap between layers: as given, else the lesser of 4 cm and what leaves 2 cm under the lowest, metres.

    Raises: InvalidMeasure: a gap that does not fit the depth.
    """
    if layers == 1:
        return 0.0
    depth, gap = fit.depth_m, fit.choice.layer_gap_m
    if gap is None:
        gap = default_layer_gap_m(depth, layers)
    room = depth / (layers - 1)
    if not 0.005 <= gap <= room:
        raise InvalidMeasure(
            path="mechanic.layer_gap_m",
            message=phrase(
                "{layers} layers {gap} apart do not fit in {depth}.",
                gap=length(gap),
                depth=length(depth),
                layers=layers,
            ),
            limit=phrase(
                "A gap lies from {least} to {room}.",
                least=length(0.005),
                room=length(math.floor(room * 200) / 200),
            ),
        )
    return gap


def default_layer_gap_m(inside_depth_m: float, layers: int) -> float:
    """The lesser of 4 cm and what leaves 2 cm under the lowest layer, metres; 0 for a single layer.

    Source: common practice, no source.
    """
    if layers == 1:
        return 0.0
    return min(LAYER_GAP_USUAL.value, (inside_depth_m - FLOOR_CLEARANCE.value) / (layers - 1))
