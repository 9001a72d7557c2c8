"""The folded cushion: one sheet of netting, folded to layers, sides tucked, sprung into the mouth."""

from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_mouth, cut_step, gap_m, tuck_step
from jolly_trellis.core.mechanics.sized import FlatSheet, Fold, SizedMechanic, Step
from jolly_trellis.core.mechanics.wire import of_netting
from jolly_trellis.core.quantities import Phrase, length, phrase, worded


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


def fold_lines(*, mouth_m: float, layers: int, layer_gap_m: float, squeeze: float, tuck_m: float) -> tuple[Fold, ...]:
    """Where the sheet is folded, measured from its end along its length, metres."""
    layer = mouth_m * (1 + squeeze)
    lines = [Fold(at_m=tuck_m, kind="tuck")]
    at = tuck_m
    for index in range(layers):
        at += layer
        if index < layers - 1:
            lines.append(Fold(at_m=at, kind="fold up" if index % 2 == 0 else "fold back"))
            at += layer_gap_m
            lines.append(Fold(at_m=at, kind="fold over"))
    lines.append(Fold(at_m=at, kind="tuck"))
    return tuple(lines)


def size(fit: Fit) -> SizedMechanic:
    """Size a folded cushion of 1-4 layers to a vessel.

    Raises:
        InvalidMeasure: more layers than the depth has room for, or a mouth narrower than one cell.
    Source: `docs/method.md`, folded cushion.
    """
    check_mouth(fit)
    layers, squeeze = fit.choice.layers, fit.choice.squeeze
    gap = gap_m(fit, layers)
    width, long = sheet_size_m(
        mouth_width_m=fit.vessel.mouth_width_m,
        mouth_depth_m=fit.vessel.mouth_depth_m,
        layers=layers,
        layer_gap_m=gap,
        squeeze=squeeze,
        tuck_m=fit.tuck_m,
    )
    folds = fold_lines(mouth_m=fit.mouth_long_m, layers=layers, layer_gap_m=gap, squeeze=squeeze, tuck_m=fit.tuck_m)
    sheet = nets.sheet(fit.net, width_m=width, length_m=long)
    heights = tuple(fit.depth_m - index * gap for index in range(layers))
    return of_netting(
        fit,
        kind="folded_cushion",
        name=worded("folded cushion, {n} {n|layer|layers}", n=layers),
        heights_m=heights,
        flat=(FlatSheet(name="sheet", sheet=sheet, folds=folds, tuck_m=fit.tuck_m),),
        layer_gap_m=gap,
        steps=(
            cut_step(fit, sheet, "one sheet"),
            Step(kind="fold", say=_fold_words(layers, folds, gap)),
            tuck_step(fit),
            Step(kind="spring in", say=_seat_words(heights)),
        ),
    )


def _fold_words(layers: int, folds: tuple[Fold, ...], gap: float) -> Phrase:
    if layers == 1:
        return phrase("One layer: nothing to fold.")
    lines = [fold for fold in folds if fold.kind != "tuck"]
    quantities = {f"f{i}": length(round(fold.at_m * 200) / 200) for i, fold in enumerate(lines)}
    marks = Phrase(text=", ".join(f"{{{slot}}}" for slot in quantities), quantities=quantities)
    return phrase(
        "Fold to {layers} layers {gap} apart: fold lines at {marks} from one end.",
        gap=length(gap),
        layers=layers,
        marks=marks,
    )


def _seat_words(heights_m: tuple[float, ...]) -> Phrase:
    if len(heights_m) == 1:
        return phrase("Spring it into the mouth, level with the rim.")
    return phrase(
        "Spring it into the mouth: top layer at the rim, lowest {low} above the inside floor.",
        low=length(heights_m[-1]),
    )


FOLDED_CUSHION = declare(
    About(
        kind="folded_cushion",
        draw=drawn.folded_netting,
        place=10,
        name="Folded cushion",
        what="one sheet folded to layers and sprung in",
        size=size,
        netting=True,
        reads=frozenset({"layers", "layer_gap_m", "squeeze", "tuck_m"}),
        with_moss="moss_sandwich",
        firm=1,
    )
)
