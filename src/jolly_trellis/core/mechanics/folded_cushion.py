"""The folded cushion: one sheet of netting, folded to layers, sides tucked, sprung into the mouth."""

import math

from jolly_trellis.core import netting as nets
from jolly_trellis.core import vessels
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.mechanics.sized import Fold, Part, SizedMechanic, WireLevel
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.piece import FoldedCushion
from jolly_trellis.core.provenance import COMMON_PRACTICE, constant
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.vessels import Vessel

LAYER_GAP_USUAL = constant("Usual gap between layers", "length", 0.04, COMMON_PRACTICE)
FLOOR_CLEARANCE = constant("Room kept under the lowest layer", "length", 0.02, COMMON_PRACTICE)
TUCK_CELLS = constant("Edge tucked in, in cells", "ratio", 0.5, COMMON_PRACTICE)
SQUEEZE_FORCE_N_M = constant("Squeeze per metre of rim per 1 % at 0.8-0.9 mm wire, N/m", "ratio", 4.0)
SQUEEZE_THIN_WIRE = constant("Squeeze of 0.7 mm wire against 0.9 mm", "ratio", 0.5)
SQUEEZE_THICK_WIRE = constant("Squeeze of 1.0 mm wire against 0.9 mm", "ratio", 1.5)
WALL_FRICTION_GLAZED = constant("Friction of netting on a glazed wall", "ratio", 0.3)
WALL_FRICTION_ROUGH = constant("Friction of netting on a rough wall", "ratio", 0.4)
TAPE_END_N_PER_MM = constant("Hold of a tape end on a clean dry rim, N per mm width", "ratio", 1.0)
TAPE_OVERHANG = constant("Tape down the outside at each end", "length", 0.025, COMMON_PRACTICE)
MINUTES_PER_LAYER = constant("Minutes to cut, fold and seat a layer", "ratio", 2.5)
USES = constant("Times a cushion is used again", "count", 8)
MAX_LAYERS = 4
MAX_TAPE_STRIPS = 6


def sheet_size_m(
    *,
    mouth_width_m: float,
    mouth_depth_m: float,
    layers: int,
    layer_gap_m: float,
    squeeze: float,
    tuck_m: float,
) -> tuple[float, float]:
    """Width and length of the flat sheet.

    Width W + 2t, length n·W + (n − 1)·g + 2t, with W = mouth·(1 + squeeze); an unequal mouth takes its
    layers along its longer side, so that the folds run along the shorter.

    Args:
        mouth_width_m, mouth_depth_m: inside sizes of the mouth, m, > 0.
        layers: 1 to 4.
        layer_gap_m: height between neighbouring layers, m, ≥ 0.
        squeeze: oversize so that it springs against the wall, 0.05-0.10.
        tuck_m: edge tucked in on every side, m, ≥ 0.
    Returns: (width, length) in metres.
    Source: geometry; the rule "twice the mouth" for two layers is common practice, no source.
    """
    long_side, short_side = max(mouth_width_m, mouth_depth_m), min(mouth_width_m, mouth_depth_m)
    oversize = 1 + squeeze
    return (
        short_side * oversize + 2 * tuck_m,
        layers * long_side * oversize + (layers - 1) * layer_gap_m + 2 * tuck_m,
    )


def default_layer_gap_m(inside_depth_m: float, layers: int) -> float:
    """The lesser of 4 cm and what leaves 2 cm under the lowest layer, metres; 0 for a single layer.

    Source: common practice, no source.
    """
    if layers == 1:
        return 0.0
    return min(LAYER_GAP_USUAL.value, (inside_depth_m - FLOOR_CLEARANCE.value) / (layers - 1))


def fold_lines(*, mouth_m: float, layers: int, layer_gap_m: float, squeeze: float, tuck_m: float) -> tuple[Fold, ...]:
    """Where the sheet is folded, measured from its end along its length, metres."""
    layer = mouth_m * (1 + squeeze)
    lines = [Fold(at_m=tuck_m, act="tuck")]
    at = tuck_m
    for index in range(layers):
        at += layer
        if index < layers - 1:
            lines.append(Fold(at_m=at, act="fold up" if index % 2 == 0 else "fold back"))
            at += layer_gap_m
            lines.append(Fold(at_m=at, act="fold over"))
    lines.append(Fold(at_m=at, act="tuck"))
    return tuple(lines)


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


def tape_moment_n_m(*, strips: int, tape_width_m: float, mouth_size_m: float) -> float:
    """Moment that tape across the rim adds: each strip's end force over the mouth, N·m.

    Valid for: tape put on a clean, dry rim; on a wet one it is nothing.
    Source: estimate, 6 N per end at 6 mm and 12 N at 12 mm.
    """
    return strips * TAPE_END_N_PER_MM.value * tape_width_m * 1000 * mouth_size_m


def size(cushion: FoldedCushion, vessel: Vessel, netting: Netting, *, tape_strips: int) -> SizedMechanic:
    """Size a folded cushion to a vessel.

    Args:
        cushion: layers 1-4; unset quantities are worked out.
        vessel: a checked vessel.
        netting: what it is cut from.
        tape_strips: strips across the rim, 0-6.
    Raises:
        InvalidMeasure: more layers than the depth has room for, or a mouth narrower than one cell.
    Source: `docs/method.md`, folded cushion.
    """
    pitch = nets.pitch_across_m(netting)
    mouth = min(vessel.mouth_width_m, vessel.mouth_depth_m)
    if mouth < pitch:
        raise InvalidMeasure(
            path="mechanic.netting",
            message=phrase("The mouth, {mouth}, is narrower than one cell.", mouth=length(mouth)),
            limit=phrase("Use netting with cells under {mouth}, or a wider vessel.", mouth=length(mouth)),
        )
    gap, tuck = _gap_m(cushion, vessel), _tuck_m(cushion, pitch)
    width, long = sheet_size_m(
        mouth_width_m=vessel.mouth_width_m,
        mouth_depth_m=vessel.mouth_depth_m,
        layers=cushion.layers,
        layer_gap_m=gap,
        squeeze=cushion.squeeze,
        tuck_m=tuck,
    )
    cut = nets.sheet(netting, width_m=width, length_m=long)
    longest = max(vessel.mouth_width_m, vessel.mouth_depth_m)
    folds = fold_lines(mouth_m=longest, layers=cushion.layers, layer_gap_m=gap, squeeze=cushion.squeeze, tuck_m=tuck)
    strip = mouth + 2 * (vessel.wall_m + TAPE_OVERHANG.value)
    mouth_area = vessels.section_area_m2(vessel.plan_shape, vessel.mouth_width_m, vessel.mouth_depth_m)
    covered = min(1.0, tape_strips * cushion.tape_width_m * mouth / mouth_area)
    cells = int(mouth_area * (1 - covered) / nets.cell_area_m2(pitch))
    seat = seat_moment_n_m(
        mouth_girth_m=vessels.mouth_girth_m(vessel),
        mouth_size_m=mouth,
        squeeze=cushion.squeeze,
        wire_m=netting.wire_m,
        rough=vessel.material in ("unglazed", "wood"),
    ) + tape_moment_n_m(strips=tape_strips, tape_width_m=cushion.tape_width_m, mouth_size_m=mouth)
    parts = [Part(name=f"netting, {netting.name}", quantity=1, sizes=(length(width), length(long)))]
    if tape_strips:
        parts.append(Part(name="tape strip", quantity=tape_strips, sizes=(length(strip),)))
    return SizedMechanic(
        name=f"folded cushion, {cushion.layers} layer{'s' if cushion.layers > 1 else ''}",
        levels=tuple(
            WireLevel(height_m=vessel.inside_depth_m - index * gap, aperture_m=nets.aperture_m(netting))
            for index in range(cushion.layers)
        ),
        layer_gap_m=gap,
        sheet=cut,
        folds=folds,
        parts=tuple(parts),
        tape_strips=tape_strips,
        tape_strip_length_m=strip,
        tape_share_of_mouth=covered,
        free_cells=cells,
        seat_moment_n_m=seat,
        displaced_volume_l=1000 * cut.mass_kg / nets.STEEL_DENSITY.value,
        mass_kg=cut.mass_kg,
        price=_price(netting, cut.width_m * cut.length_m),
        minutes=MINUTES_PER_LAYER.value * cushion.layers + tape_strips,
        uses=round(USES.value),
        compostable=False,
        shows=vessel.clear,
    )


def _gap_m(cushion: FoldedCushion, vessel: Vessel) -> float:
    if cushion.layers == 1:
        return 0.0
    depth = vessel.inside_depth_m
    gap = cushion.layer_gap_m
    if gap is None:
        gap = default_layer_gap_m(depth, cushion.layers)
    room = depth / (cushion.layers - 1)
    if not 0.005 <= gap <= room:
        raise InvalidMeasure(
            path="mechanic.layer_gap_m",
            message=phrase(
                f"{cushion.layers} layers {{gap}} apart do not fit in {{depth}}.",
                gap=length(gap),
                depth=length(depth),
            ),
            limit=phrase(
                "A gap lies from {least} to {room}.",
                least=length(0.005),
                room=length(math.floor(room * 200) / 200),
            ),
        )
    return gap


def _tuck_m(cushion: FoldedCushion, pitch_m: float) -> float:
    return TUCK_CELLS.value * pitch_m if cushion.tuck_m is None else cushion.tuck_m


def _price(netting: Netting, area_m2: float) -> float | None:
    roll_area = netting.roll_width_m * netting.roll_length_m
    return None if netting.price is None else netting.price * area_m2 / roll_area
