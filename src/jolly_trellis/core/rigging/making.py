"""The making order of hung and wrapped work: the armature, then greens by turns, flowers, what hangs last."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import Phrase, cut_length, length, phrase
from jolly_trellis.core.rigging.armatures import (
    PEG_UNEVEN,
    WIRE_TIE,
    joints_m,
    peg_count,
    ties_of_a_coil,
    wire_ties,
)
from jolly_trellis.core.rigging.drops import goes_of, on_hooks
from jolly_trellis.core.rigging.loads import TakeOff
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.stems.stem_set import laid_out_lines

SHORTER = 0.75


@dataclass(frozen=True, slots=True, kw_only=True)
class RigStep:
    """One step: what is done, to which line of the recipe (None: the armature), with how many stems."""

    say: Phrase
    line: int | None = None
    stems: int = 0


def making_of(rig: Rig, weighed: TakeOff, varieties: Mapping[str, Variety]) -> tuple[RigStep, ...]:
    """How it is made, step by step. Source: common practice, no source."""
    order = laid_out_lines(rig.recipe)
    hung = [at for at in order if on_hooks(rig.recipe[at], rig.armature)]
    here = [at for at in order if at not in hung and rig.recipe[at].going_in("with the piece")]
    there = [at for at in order if at not in hung and rig.recipe[at].going_in("with the piece") < rig.recipe[at].count]
    steps = [*_armature(rig, weighed)]
    for at in here:
        steps += _put_in(rig, at, varieties)
    if here:
        steps.append(
            RigStep(
                say=phrase(
                    "Look at it from every side it is seen from; fill what gaps there are with shorter "
                    "pieces, {share} as long.",
                    share=f"{SHORTER:.0%}",
                )
            )
        )
    for at in there:
        steps += _put_in(rig, at, varieties)
    steps += [_hang(rig, at, varieties) for at in hung]
    return tuple(steps)


def _armature(rig: Rig, weighed: TakeOff) -> list[RigStep]:
    armature, sized, joints = rig.armature, weighed.sized, joints_m(rig.armature)
    cut = phrase(
        "Cut the netting: {number} {number|piece|pieces}, {wide} wide, the longest {long}. Gloves: cut ends are "
        "sharp.",
        number=len(joints) + 1,
        wide=cut_length(sized.sheet.width_m),
        long=cut_length(sized.section_m),
    )
    steps = [RigStep(say=cut)]
    if rig.is_run and armature.kind != "wrapped frame":
        words = "Roll it to a tube {thick} thick" + (", and twist it." if armature.kind == "snake" else ".")
        steps.append(RigStep(say=phrase(words, thick=length(armature.diameter_m))))
    if armature.kind == "wrapped frame":
        words = "Mould it round the frame, {thick} thick, and close it with the last two rows of cells."
        steps.append(RigStep(say=phrase(words, thick=length(armature.diameter_m))))
    ties = wire_ties(armature)
    if ties:
        words = (
            "Ties: wind wire three turns round the hand and cut it through, {coil} ties of {each} from a coil; "
            "{coils} {coils|coil makes|coils make} the {ties}."
        )
        coil = ties_of_a_coil()
        say = phrase(words, coil=coil, each=length(WIRE_TIE.value), coils=math.ceil(ties / coil), ties=ties)
        steps.append(RigStep(say=say))
    pegs = peg_count(armature)
    if pegs:
        words = (
            "Push {pegs} dry {pegs|twig|twigs} through, unequal and {least} to {most} proud, and tie each: greens "
            "catch on them."
        )
        least = PEG_UNEVEN.value * armature.diameter_m
        steps.append(RigStep(say=phrase(words, pegs=pegs, least=length(least), most=length(3 * least))))
    if armature.core_kg:
        words = "Bed the core on sealant in the foot, and lock the bends with cut-off hardy stems pushed through."
        steps.append(RigStep(say=phrase(words)))
    if joints:
        words = (
            "Number the sections. They meet in {joints} {joints|place|places}: lap two rows of cells there and tie "
            "them across when they are up; leave a hand's width of each end bare till then."
        )
        steps.append(RigStep(say=phrase(words, joints=len(joints))))
    if armature.kind in ("panel", "ring"):
        steps.append(RigStep(say=phrase("Tie its canes on and hang it at the height it is worked at.")))
    return steps


def _put_in(rig: Rig, at: int, varieties: Mapping[str, Variety]) -> list[RigStep]:
    """Stems of one line: those of two or more in two lots, the second between the first and the other way round."""
    line = rig.recipe[at]
    name = varieties[line.variety].name
    if line.count < 2:
        return [RigStep(say=phrase(_one(line, rig), name=name, count=line.count), line=at, stems=line.count)]
    first = line.count - line.count // 2
    lots = ((first, _first(line, rig)), (line.count - first, _second(line, rig)))
    return [RigStep(say=phrase(words, name=name, count=count), line=at, stems=count) for count, words in lots]


def _one(line: RecipeLine, rig: Rig) -> str:
    woven = goes_of(line, rig.armature) == "woven"
    return "Weave the {name} along." if woven else "Push the {name} in."


def _first(line: RecipeLine, rig: Rig) -> str:
    if goes_of(line, rig.armature) == "woven":
        return "Weave in {count} {name}, faces by turns, every second one with its end the other way."
    if goes_of(line, rig.armature) == "hung":
        return "Hang {count} {name}, all over it, from the middle outwards."
    return "Push in {count} {name}, evenly over its length, faces by turns."


def _second(line: RecipeLine, rig: Rig) -> str:
    if goes_of(line, rig.armature) == "woven":
        return "Weave in the other {count} {name} between the first, half a step on."
    if goes_of(line, rig.armature) == "hung":
        return "Hang the other {count} {name} between the first."
    return "Push in the other {count} {name} between the first, half a step on."


def _hang(rig: Rig, at: int, varieties: Mapping[str, Variety]) -> RigStep:
    line = rig.recipe[at]
    words = "Hook on {count} {name} by the drop list, the longest first, when it hangs at its working height."
    return RigStep(say=phrase(words, name=varieties[line.variety].name, count=line.count), line=at, stems=line.count)
