"""The cut tray: stems grouped by cut length, and what to cut, fold, fix, fill and push in, in order."""

import numpy as np

from jolly_trellis.core.build import Build
from jolly_trellis.core.provenance import COMMON_PRACTICE, constant
from jolly_trellis.core.quantities import Phrase, count, length, mass, phrase, volume
from jolly_trellis.core.report import CutGroup, Notice, Step
from jolly_trellis.core.units import round_up

CUT_STEP = constant("Stems are cut to the next", "length", 0.02, COMMON_PRACTICE)
FULLNESS_AIRY = constant("Fullness under which a piece is airy", "ratio", 0.35)
FULLNESS_CRUSHED = constant("Fullness over which heads are crushed", "ratio", 1.1)


def cut_list(build: Build) -> tuple[CutGroup, ...]:
    """Cut lengths up to the next 2 cm, longest first within each variety, with what is not sold so long."""
    placement = build.placement
    lengths = np.ceil(placement.cut_length_m / CUT_STEP.value - 1e-6) * CUT_STEP.value
    groups: dict[tuple[int, float], int] = {}
    for row, cut in enumerate(lengths.tolist()):
        key = (placement.stems.line_index[row], round(cut, 3))
        groups[key] = groups.get(key, 0) + int(placement.stems.stems_in_row[row])
    merged: dict[tuple[str, float], CutGroup] = {}
    for (line, cut), number in groups.items():
        variety = placement.stems.lines[line][1]
        old = merged.get((variety.key, cut))
        merged[variety.key, cut] = CutGroup(
            variety=variety.key,
            name=variety.name,
            count=number + (old.count if old else 0),
            cut_length_m=cut,
            sold=cut <= max(variety.sold_lengths_m) + 1e-9,
        )
    return tuple(sorted(merged.values(), key=lambda each: (each.name, -each.cut_length_m)))


def steps(build: Build) -> tuple[Step, ...]:
    """What to do at the bench, in order."""
    piece, mechanic = build.piece, build.mechanic
    sheet = mechanic.sheet
    wide, long = length(round_up(sheet.width_m, 0.005)), length(round_up(sheet.length_m, 0.005))
    cells = f"{sheet.cells_across} cells across, {sheet.rows_along} rows along the twists"
    done = [
        Step(
            act="cut",
            say=phrase(f"Cut one sheet {{w}} × {{l}} of {build.netting.name}: {cells}.", w=wide, l=long),
            caution="Cut ends are sharp: gloves and eye protection.",
        ),
        Step(act="fold", say=_fold_words(build)),
        Step(
            act="tuck",
            say=phrase("Tuck in {t} along every edge, sharp ends inwards.", t=length(mechanic.folds[0].at_m)),
        ),
        Step(act="spring in", say=_seat_words(build)),
    ]
    if mechanic.tape_strips:
        tape = length(round_up(mechanic.tape_strip_length_m, 0.005))
        say = phrase(
            f"Tape across the rim: {mechanic.tape_strips} × {{tape}}, {{wide}} wide, crossed in the middle.",
            tape=tape,
            wide=length(piece.mechanic.tape_width_m),
        )
        done.append(Step(act="tape", say=say, caution="Tape holds on a clean, dry rim only."))
    if piece.ballast_kg:
        done.append(Step(act="weight", say=phrase("Lay {m} of stone on the floor.", m=mass(piece.ballast_kg))))
    litres = build.water.volume_at_l(piece.water_level_m)
    done.append(
        Step(
            act="fill",
            say=phrase(
                "Fill to {level} above the inside floor: {water} once all stems are in.",
                level=length(piece.water_level_m),
                water=volume(litres),
            ),
        )
    )
    if len(build.placement.stems):
        done.append(Step(act="place", say=_place_words(build), caution=_hazards(build)))
    return tuple(done)


def notices(build: Build, cuts: tuple[CutGroup, ...], fullness: float, colliding: int) -> tuple[Notice, ...]:
    """Unsold lengths, crowding, airy or crushed work, bare wire in water."""
    said = []
    for group in cuts:
        if not group.sold:
            line = next(i for i, each in enumerate(build.piece.recipe) if each.variety == group.variety)
            say = phrase(
                f"{group.name} is not sold at {{cut}}: {{n}} needed.",
                cut=length(group.cut_length_m),
                n=count(group.count),
            )
            said.append(Notice(path=f"recipe.{line}", say=say))
    if build.netting.finish == "bare":
        say = phrase("Bare wire rusts in water and stains it: take coated netting.")
        said.append(Notice(path="mechanic.netting", say=say))
    if len(build.placement.stems) and fullness < FULLNESS_AIRY.value:
        say = phrase(f"Airy: heads fill {fullness:.0%} of the envelope; 35 to 90 % is usual.")
        said.append(Notice(path="recipe", say=say))
    if fullness > FULLNESS_CRUSHED.value:
        words = f"Crushed: heads would fill {fullness:.0%} of the envelope; {{n}} pairs collide."
        said.append(Notice(path="recipe", say=phrase(words, n=count(colliding))))
    return tuple(said)


def _fold_words(build: Build) -> Phrase:
    layers, folds = len(build.mechanic.levels), build.mechanic.folds
    if layers == 1:
        return phrase("One layer: nothing to fold.")
    lines = [fold for fold in folds if fold.act != "tuck"]
    quantities = {f"f{i}": length(round(fold.at_m * 200) / 200) for i, fold in enumerate(lines)}
    marks = ", ".join(f"{{f{i}}}" for i in range(len(lines)))
    return phrase(
        f"Fold to {layers} layers {{gap}} apart: fold lines at {marks} from one end.",
        gap=length(build.mechanic.layer_gap_m),
        **quantities,
    )


def _seat_words(build: Build) -> Phrase:
    levels = build.mechanic.levels
    if len(levels) == 1:
        return phrase("Spring it into the mouth, level with the rim.")
    return phrase(
        "Spring it into the mouth: top layer at the rim, lowest {low} above the inside floor.",
        low=length(levels[-1].height_m),
    )


def _place_words(build: Build) -> Phrase:
    lines = [f"{line.count} {variety.name} ({line.role})" for line, variety, _, _ in build.placement.stems.lines]
    return phrase("Push in, opposite sides in turn: " + ", ".join(lines) + ".")


def _hazards(build: Build) -> str:
    varieties = [variety for _, variety, _, _ in build.placement.stems.lines]
    toxic = sorted({each.name for each in varieties if each.toxic})
    thorny = sorted({each.name for each in varieties if each.thorny})
    words = []
    if toxic:
        words.append(f"Poisonous sap: gloves, and away from food ({', '.join(toxic)}).")
    if thorny:
        words.append(f"Thorns: {', '.join(thorny)}.")
    return " ".join(words)
