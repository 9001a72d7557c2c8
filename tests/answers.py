"""Answers for two hundred random plans of all kinds, kept whole: who makes the core quicker compares with them.

`answers.json.xz` is no proof that an answer is right, which the other tests are for; it tells that none has changed.
Words and choices (states, what is missing, sentences in both unit systems) are kept as they are, every number to its
last digit. Where a rule is meant to change: `python -m tests.answers`, and say in the commit what moved.
"""

import json
import lzma
import math
import random
from collections.abc import Iterator, Mapping
from dataclasses import fields, is_dataclass, replace
from decimal import Decimal
from enum import Enum
from functools import cache
from pathlib import Path
from typing import Any, get_args

import numpy as np

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.starting.starts import STARTS
from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.plan.setting import People, TopUp, Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.fixes import fixes_of
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.snip import snip
from jolly_trellis.core.units import render
from tests import as_made, ordinary, rigs
from tests.core.test_what_weighs import ARMATURES, CHANGES, WITH, held_by

FILE = Path(__file__).parent / "answers.json.xz"
MANY = 200
CLOSE = {"rel_tol": 1e-9, "abs_tol": 1e-12}
# Numbers of a picture are many and say what the stems and parts say already: they are kept as sums.
_AS_SUMS = ("picture",)
DEAR = "choose"
# What has another name since the answers were written: how its old path ends, and how the new one does.
MOVED: Mapping[str, str] = {
    ".display_l": ".on_show_l",
    ".steps.act": ".steps.kind",
    ".folds.act": ".folds.kind",
    "choose.act": "choose.change",
    "choose.act.metric": "choose.change.metric",
    "choose.act.inch": "choose.change.inch",
}
# What is called otherwise since then, as whole sentences or labels.
SAID: Mapping[str, str] = {"Water at the display level": "Water at the level on show"}
# What answers have since then that they had not: which things of the stores a plan's vessels and stands are.
ADDED = (".acts.kind", ".acts.place", ".acts.level_m", ".acts.stems", ".poured_l")
Plain = dict[str, list[Any]]


def _bases() -> Iterator[tuple[str, Part]]:
    for kind in ordinary.IN_VESSEL:
        yield f"on {kind}", held_by(kind)
    for kind in ordinary.BOUND:
        yield f"bound, {kind}", ordinary.bound(kind)
    yield from WITH.items()
    yield from CHANGES.items()
    yield "ledge", ordinary.on_ledge()
    yield "ledge and another, free", replace(ordinary.on_ledge(), companions=(ordinary.beside(tied=False),))
    yield "ledge and another, tied", replace(ordinary.on_ledge(), companions=(ordinary.beside(tied=True),))
    yield "run", rigs.run()
    yield "panel", rigs.panel()
    yield from ARMATURES.items()
    for key in STARTS:
        yield f"start {key}", as_made.begun(key)


@cache
def bases() -> tuple[tuple[str, Part], ...]:
    """Work of every kind, to be changed at random."""
    return tuple(_bases())


def plan_of(seed: int) -> tuple[str, Part, Conditions]:
    """A plan drawn by a seed, with what it is made from and its conditions. The first of them go through all bases."""
    drawn = random.Random(seed)
    name, part = bases()[seed % len(bases())] if seed < len(bases()) else drawn.choice(bases())
    if seed >= len(bases()) and isinstance(part, Rig) and drawn.random() < 0.5:
        name, part = drawn.choice([each for each in bases() if not isinstance(each[1], Rig)])
    around = replace(
        ordinary.conditions(),
        air=Air(temperature_c=round(drawn.uniform(12, 30), 1), relative_humidity=round(drawn.uniform(0.3, 0.8), 2)),
        topped_up_by=drawn.choice((None, "Wren")),
    )
    return name, _rig(part, drawn) if isinstance(part, Rig) else _piece(part, drawn), around


def _recipe(recipe: tuple[RecipeLine, ...], drawn: random.Random) -> tuple[RecipeLine, ...]:
    lines = [replace(each, count=max(1, round(each.count * drawn.uniform(0.4, 1.6)))) for each in recipe]
    if drawn.random() < 0.5:
        used = {each.variety for each in lines}
        free = [each for each in ordinary.varieties() if each not in used]
        role = drawn.choice(get_args(Role))
        lines.append(RecipeLine(variety=drawn.choice(free), count=drawn.randint(1, 9), role=role))
    return tuple(lines)


def _piece(piece: Piece, drawn: random.Random) -> Piece:
    wide = drawn.uniform(0.8, 1.3)
    envelope = replace(
        piece.envelope,
        height_m=round(piece.envelope.height_m * drawn.uniform(0.85, 1.3), 3),
        width_m=round(piece.envelope.width_m * wide, 3),
        depth_m=round(piece.envelope.depth_m * wide * drawn.uniform(0.8, 1.0), 3),
    )
    piece = replace(piece, envelope=envelope, recipe=_recipe(piece.recipe, drawn))
    mechanic = piece.mechanic
    if drawn.random() < 0.3:
        mechanic = replace(mechanic, layers=drawn.randint(1, 3), tape_strips=drawn.randint(0, 6))
    piece = replace(piece, mechanic=mechanic, water_level_m=round(piece.water_level_m * drawn.uniform(0.5, 1.05), 3))
    if not isinstance(piece, Standing):
        return piece
    if drawn.random() < 0.4:
        piece = replace(piece, envelope=replace(piece.envelope, form=drawn.choice(list(FORM_RULES))))
    if drawn.random() < 0.3:
        piece = replace(piece, ballast_kg=round(drawn.uniform(0.1, 1.5), 2))
    if drawn.random() < 0.3:
        people = People() if drawn.random() < 0.5 else None
        outdoors = {"outdoors": True, "comes_down_above": drawn.randint(3, 6)} if drawn.random() < 0.5 else {}
        piece = replace(piece, setting=replace(piece.setting, people=people, **outdoors))  # type: ignore[arg-type]
    if drawn.random() < 0.3:
        level = round(piece.water_level_m * drawn.uniform(0.2, 0.8), 3)
        piece = replace(piece, transport=Transport(water_level_m=level, box_wall_m=0.15, carriers=drawn.randint(1, 2)))
    if drawn.random() < 0.3:
        piece = replace(piece, top_ups=(TopUp(after_h=drawn.randint(1, 6), volume_l=0.3),))
    if drawn.random() < 0.2:
        first = replace(piece.recipe[0], water="tube", tube=StemTube(tilt_rad=drawn.uniform(0, 1.5)))
        piece = replace(piece, recipe=(first, *piece.recipe[1:]))
    return piece


def _rig(rig: Rig, drawn: random.Random) -> Rig:
    changed = replace(rig, recipe=_recipe(rig.recipe, drawn), extra_kg=round(drawn.uniform(0, 2), 2))
    if drawn.random() < 0.4:
        changed = replace(changed, below=drawn.choice(("walkway", "table", "nobody")))
    if drawn.random() < 0.3:
        changed = replace(changed, outdoors=True, comes_down_above=drawn.randint(3, 6))
    if drawn.random() < 0.4:
        points = tuple(
            replace(each, rating_n=round(drawn.uniform(50, 900)), stated_by="the owner", stated_on="2027-05-01")
            for each in changed.points
        )
        changed = replace(changed, points=points)
    return changed


def answer_of(seed: int, *, dear: bool = True) -> Plain:
    """Everything the core answers for a plan, by its path; what it refuses, as it says so.

    Args:
        dear: also what takes long: choosing among all mechanics.
    """
    _, part, around = plan_of(seed)
    found: Plain = {}
    for name, ask in _questions(seed, part, around):
        if name == DEAR and not dear:
            continue
        try:
            _gather(ask(), name, found)
        except CoreError as problem:
            _gather((problem.code, problem.path, problem.message, problem.limit), f"{name}.refused", found)
    return found


def _questions(seed: int, part: Part, around: Conditions) -> Iterator[tuple[str, Any]]:
    if isinstance(part, Rig):
        yield "rig", lambda: assess(part, around)
        if seed % 4 == 0:
            yield "fixes", lambda: fixes_of(part, assess(part, around), around)
        if part.lines and seed % 3 == 0:
            yield "snip", lambda: list(snip(part, around, seed % len(part.lines)))
        return
    yield "report", lambda: evaluate(part, around, with_fixes=seed % 5 == 0)
    if seed % 2 == 0:
        yield "making", lambda: making_of(part, around, with_fixes=False)
    if seed % 16 == 0:
        yield DEAR, lambda: choose(part, around, on_hand=None)


def _gather(value: object, path: str, found: Plain, *, sums: bool = False) -> None:
    """Every leaf under its path, in order; a sentence as it is read in both unit systems."""
    sums = sums or path.rpartition(".")[2] in _AS_SUMS
    if isinstance(value, Missing):
        # what is asked; where it is typed is in no answer, and held by tests of its own
        found.setdefault(path, []).append(render(value.say, "metric"))
    elif isinstance(value, Phrase):
        for system in ("metric", "inch"):
            found.setdefault(f"{path}.{system}", []).append(render(value, system))
    elif is_dataclass(value) and not isinstance(value, type):
        for each in fields(value):
            _gather(getattr(value, each.name), f"{path}.{each.name}", found, sums=sums)
    elif isinstance(value, Mapping):
        for key in sorted(value, key=str):
            _gather(value[key], f"{path}.{key}", found, sums=sums)
    elif isinstance(value, (list, tuple, frozenset)):
        for each in sorted(value, key=str) if isinstance(value, frozenset) else value:
            _gather(each, path, found, sums=sums)
    elif isinstance(value, np.ndarray):
        _gather(value.ravel().tolist(), path, found, sums=sums)
    else:
        plain = _plain(value)
        if sums and isinstance(plain, float):
            sum_, weighed, number = found.setdefault(f"{path} as sums", [0.0, 0.0, 0])
            found[f"{path} as sums"] = [sum_ + plain, weighed + plain * (1 + number % 7), number + 1]
        else:
            found.setdefault(path, []).append(plain)


def _plain(value: object) -> Any:
    if isinstance(value, np.generic):
        return _plain(value.item())
    if isinstance(value, Enum):
        return value.value
    if value is None or isinstance(value, (bool, int, float, str)):
        return value
    if isinstance(value, Decimal):
        return str(value)
    return str(value)


def differences(was: Plain, now: Plain) -> list[str]:
    """What differs between two answers: words and choices at all, numbers by more than 1e-9 of them or 1e-12."""
    told = []
    was = {_moved(path): [SAID.get(str(each), each) for each in old] for path, old in was.items()}
    for path in sorted(was.keys() | now.keys()):
        if path.endswith(ADDED):
            continue
        old, new = was.get(path, []), now.get(path, [])
        if len(old) != len(new):
            told.append(f"{path}: {len(old)} of them, now {len(new)}")
            continue
        for at, (one, other) in enumerate(zip(old, new, strict=True)):
            if not _same(one, other):
                told.append(f"{path}[{at}]: {one!r}, now {other!r}")
                break
    return told


def _moved(path: str) -> str:
    """The path that an old one has now."""
    ending = next((each for each in MOVED if path.endswith(each)), None)
    return path if ending is None else path.removesuffix(ending) + MOVED[ending]


def _same(one: Any, other: Any) -> bool:
    if isinstance(one, float) and isinstance(other, (int, float)) and not isinstance(other, bool):
        if math.isnan(one) or math.isnan(other):
            return math.isnan(one) and math.isnan(other)
        return one == other or math.isclose(one, other, **CLOSE)
    return type(one) is type(other) and bool(one == other)


@cache
def kept() -> dict[str, Plain]:
    """The answers as they were last written, by seed."""
    found: dict[str, Plain] = json.loads(lzma.decompress(FILE.read_bytes()))
    return found


def _write() -> None:
    """Write the answers anew."""
    found = {str(seed): answer_of(seed) for seed in range(MANY)}
    FILE.write_bytes(lzma.compress(json.dumps(found, separators=(",", ":")).encode(), preset=9))


if __name__ == "__main__":
    from jolly_trellis.core.method import PROGRAM

    with PROGRAM.open():
        _write()
