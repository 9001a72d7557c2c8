"""The cut tray: stems grouped by cut length, and what to cut, fold, fix, fill and push in, in order."""

from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.extras import (
    COVERED,
    cover_sizes_m,
    insert_sizes_m,
    joint_ring_m,
    lining_strip_m,
    moss_kg,
    moss_round_m,
    wrap_length_m,
)
from jolly_trellis.core.materials.hazards import ABOUT, About, of_all
from jolly_trellis.core.mechanics.sized import Step
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, count, cut_length, length, level_least, mass, phrase, volume

CUT_STEP = rule("Stems are cut to the next", "length", 0.02, COMMON_PRACTICE)
MINUTES_PER_STEM = measure("Time to cut and place a stem", "minutes", 0.6)
_AFTER_STEMS = ("bind", "collar", "bow", "level")
FULLNESS_AIRY = rule("Fullness under which a piece is airy", "ratio", 0.35)
FULLNESS_FULL = rule("Fullness from which a piece is full", "ratio", 0.9)
FULLNESS_CRUSHED = rule("Fullness over which heads are crushed", "ratio", 1.1)


@dataclass(frozen=True, slots=True, kw_only=True)
class CutGroup:
    """Stems of one variety cut to one length, metres, up to the next 2 cm."""

    variety: str
    name: str
    count: int
    cut_length_m: float
    sold: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Notice:
    """Something worth knowing that is no verdict; `path` names the measure it belongs to."""

    path: str
    say: Phrase


def cut_list(build: Build) -> tuple[CutGroup, ...]:
    """Cut lengths up to the next 2 cm, longest first within each variety, with what is not sold so long."""
    placement = build.placement
    lengths = np.ceil(placement.cut_length_m / CUT_STEP.value - 1e-6) * CUT_STEP.value
    as_sold = placement.cut_length_m <= placement.stems.longest_m + 1e-6
    lengths = np.where(as_sold, np.minimum(lengths, placement.stems.longest_m), lengths)
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
    done = [*_stack_steps(build)]
    if piece.lining:
        tall, around = lining_strip_m(piece.vessel)
        say = phrase("Line the glass with leaf: a strip {a} long, {t} high.", a=cut_length(around), t=cut_length(tall))
        done.append(Step(kind="line", say=say))
    last = [each for each in mechanic.steps if each.kind in _AFTER_STEMS]
    done += [each for each in mechanic.steps if each.kind not in _AFTER_STEMS]
    if piece.ballast_kg:
        done.append(Step(kind="weight", say=phrase("Lay {m} of stone on the floor.", m=mass(piece.ballast_kg))))
    if piece.wrap_height_m:
        say = phrase(
            "Wrap netting round the outside: {a} × {h}.",
            a=cut_length(wrap_length_m(piece.vessel)),
            h=cut_length(piece.wrap_height_m),
        )
        done.append(Step(kind="wrap", say=say, caution="Cut ends are sharp: gloves and eye protection."))
    if round_m := moss_round_m(piece):
        say = phrase(
            "Nestle moss all round it, up to the rim and {r} out: {m}, dry.",
            r=length(round_m),
            m=mass(moss_kg(piece.vessel, round_m)),
        )
        last = [*last, Step(kind="moss round", say=say)]
    for cover in piece.covers:
        long, wide = cover_sizes_m(cover, piece)
        words = "Cover the {over} with {kind}: a strip {long} long, {wide} wide."
        say = phrase(words, over=COVERED[cover.on], kind=cover.kind, long=cut_length(long), wide=cut_length(wide))
        last = [*last, Step(kind=f"cover {cover.on}", say=say)]
    if piece.carried:
        if is_worn(piece):
            box = phrase("Lay it in a lined box, misted and closed, in the cool until it is put on.")
            return (*done, *last, Step(kind="box", say=box))
        return (*done, *_bunched(build, last), _vase(build))
    litres = build.water.volume_at_l(piece.water_level_m)
    done.append(
        Step(
            kind="fill",
            say=phrase(
                "Fill to {level} above the inside floor: {water} once all stems are in.",
                level=level_least(piece.water_level_m),
                water=volume(litres),
            ),
        )
    )
    if len(build.placement.stems):
        done.append(Step(kind="place", say=_place_words(build), caution=_hazards(build)))
    return (*done, *last)


def _bunched(build: Build, last: list[Step]) -> list[Step]:
    """Stems of a bouquet laid in, then what comes after them."""
    if not len(build.placement.stems):
        return last
    lines = [f"{line.count} {variety.name} ({line.role})" for line, variety, _, _ in build.placement.stems.lines]
    how = "through the armature into the hand" if build.mechanic.levels[1:] else "across one another in the hand"
    return [
        Step(
            kind="place", say=phrase("Lay {how}: {names}.", how=how, names=", ".join(lines)), caution=_hazards(build)
        ),
        *last,
    ]


def _vase(build: Build) -> Step:
    level = build.piece.water_level_m
    words = "Stand it in its vase filled to {level}: {water}."
    return Step(kind="fill", say=phrase(words, level=level_least(level), water=volume(build.water.volume_at_l(level))))


def _stack_steps(build: Build) -> tuple[Step, ...]:
    piece, done = build.piece, []
    if piece.insert is not None:
        riser, ring = insert_sizes_m(piece.insert, piece.vessel)
        say = phrase(
            "Set the bowl in the urn on a block {r} high; pack the gap of {g} all round.",
            r=length(riser),
            g=length(ring),
        )
        done.append(Step(kind="set in", say=say))
    if piece.support is not None:
        if piece.support.water_l:
            water = volume(piece.support.water_l)
            done.append(Step(kind="steady", say=phrase("Fill the support with {v} of water.", v=water)))
        if piece.support.putty:
            ring = joint_ring_m(piece.support, stacks.on_support(piece))
            say = phrase("Press a ring of putty {l} long on the support's rim and bed the bowl on it.", l=length(ring))
            done.append(Step(kind="bond", say=say, caution="Putty bonds to dry, clean surfaces only."))
        elif nest := stacks.nests_m(stacks.on_support(piece), piece.support):
            say = phrase("Set the bowl in the opening: it nests by {nest} and cannot slide off.", nest=length(nest))
            done.append(Step(kind="stand", say=say))
        else:
            done.append(Step(kind="stand", say=phrase("Stand the bowl in the middle of its support.")))
    return tuple(done)


def notices(build: Build, cuts: tuple[CutGroup, ...], fullness: float, colliding: int) -> tuple[Notice, ...]:
    """Unsold lengths, crowding, airy or crushed work, bare wire in water."""
    said = _unsold(build, cuts)
    if build.netting is not None and build.netting.finish == "bare":
        say = phrase("Bare wire rusts in water and stains it: take coated netting.")
        said.append(Notice(path="mechanic.netting", say=say))
    if len(build.placement.stems) and fullness < FULLNESS_AIRY.value:
        say = phrase(
            "Airy: heads fill {fullness} of the size wanted; from {fullness_airy} on is usual.",
            fullness=f"{fullness:.0%}",
            fullness_airy=f"{FULLNESS_AIRY.value:.0%}",
        )
        said.append(Notice(path="recipe", say=say))
    if fullness > FULLNESS_CRUSHED.value:
        words = "Crushed: heads would fill {fullness} of the size wanted; {n} pairs collide."
        say = phrase(words, fullness=f"{fullness:.0%}", n=count(colliding))
        said.append(Notice(path="recipe", say=say))
    return tuple(said)


def _unsold(build: Build, cuts: tuple[CutGroup, ...]) -> list[Notice]:
    """One notice for each variety that is cut longer than it is sold."""
    said = []
    for key in dict.fromkeys(group.variety for group in cuts if not group.sold):
        groups = [group for group in cuts if group.variety == key and not group.sold]
        line = next(index for index, each in enumerate(build.piece.recipe) if each.variety == key)
        longest_sold = max(build.conditions.varieties[key].sold_lengths_m)
        say = phrase(
            "{groups} is not sold so long: {n} cut up to {cut}, sold to {sold}.",
            n=count(sum(group.count for group in groups)),
            cut=length(max(group.cut_length_m for group in groups)),
            sold=length(longest_sold),
            groups=groups[0].name,
        )
        said.append(Notice(path=f"recipe.{line}", say=say))
    return said


def _place_words(build: Build) -> Phrase:
    lines = [f"{line.count} {variety.name} ({line.role})" for line, variety, _, _ in build.placement.stems.lines]
    return phrase("Push in, opposite sides in turn: {stems}.", stems=", ".join(lines))


def _hazards(build: Build) -> str:
    varieties = [variety for _, variety, _, _ in build.placement.stems.lines]
    found = of_all((each.name, each.hazards) for each in varieties)
    return " ".join(_hazard(ABOUT[hazard], names) for hazard, names in found.items())


def _hazard(about: About, names: tuple[str, ...]) -> str:
    return f"{about.words[:1].upper()}{about.words[1:]} ({', '.join(names)}): {about.do}."
