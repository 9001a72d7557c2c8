"""Sentences as florists say them, kept from before there was a grammar: none is read wrongly, nearly all fully."""

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.starting.resizing import size_of
from jolly_trellis.core.event.starting.saying import SaidPart, say_all
from jolly_trellis.core.event.starting.starts import STARTS, Given
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.piece import Envelope, Mechanic, Piece
from jolly_trellis.core.plan.practice import Practice
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.say.names import role_of
from jolly_trellis.core.say.say_it import Around
from jolly_trellis.core.units import UnitSystem
from tests.ordinary import conditions, nettings, piece, varieties, vessels

CORPUS = [
    tuple(each.split(" => "))
    for each in (Path(__file__).parent / "corpus.txt").read_text(encoding="utf-8").splitlines()
    if each and not each.startswith("#")
]
BLANK = replace(
    piece(),
    recipe=(),
    vessel=replace(
        piece().vessel,
        name="something",
        material="plastic",
        profile=tuple(
            replace(each, width_m=1.111 * each.width_m, depth_m=1.111 * each.depth_m, height_m=1.071 * each.height_m)
            for each in piece().vessel.profile
        ),
    ),
    envelope=Envelope(height_m=0.33, width_m=0.44, depth_m=0.44, form="free"),
    mechanic=Mechanic(kind="fibre_pouch", layers=4, tape_strips=5, netting="galvanized-31-09"),
)


def cm(size_m: float) -> str:
    return f"{100 * size_m:.2f}".rstrip("0").rstrip(".")


def meaning(said: SaidPart) -> str:
    """What a sentence came to, as the corpus writes it."""
    part = said.part
    words = [*(_of_piece(part) if isinstance(part, Piece) else _of_rig(part))]
    lines = [
        " ".join(
            (
                line.variety,
                str(line.count),
                *([line.role] if line.role != role_of(varieties()[line.variety]) else []),
                *(" ".join((each.name, str(each.count))) for each in line.shades),
                *(["tube"] if line.water == "tube" else []),
                *(["there"] if line.goes_in == "on site" else []),
            )
        )
        for line in part.recipe
    ]
    words += [", ".join(lines)] if lines else []
    found = "; ".join(words)
    for asked in said.asked:
        found += f" which {asked.words}: {' / '.join(asked.choices)}"
    for unheard in said.unheard:
        found += f" ?{unheard.words}"
    return found.strip()


def _of_piece(part: Piece) -> Iterator[str]:
    if part.quantity > 1:
        yield f"{part.quantity}x"
    if isinstance(part, Bound):
        yield part.mechanic.kind
        yield f"w{cm(part.envelope.width_m)}"
        return
    vessel, envelope, mechanic = part.vessel, part.envelope, part.mechanic
    stored = {each: key for key, each in vessels().items()}
    base = BLANK.vessel
    if vessel in stored and vessel != base:
        yield f"[{stored[vessel]}]"
    elif vessel != base:
        words = [f"{vessel.plan_shape} {vessel.name}"]
        long = vessel.plan_shape in ("rectangular", "oval")
        if long and vessel.mouth_depth_m != base.mouth_depth_m:
            words.append(f"m{cm(vessel.mouth_width_m)}x{cm(vessel.mouth_depth_m)}")
        elif vessel.mouth_width_m != base.mouth_width_m:
            words.append(f"m{cm(vessel.mouth_width_m)}")
        words += [f"d{cm(vessel.inside_depth_m)}"] if abs(vessel.inside_depth_m - base.inside_depth_m) > 1e-4 else []
        words += [vessel.material] if vessel.material != base.material else []
        words += ["clear"] if vessel.clear else []
        yield " ".join(words)
    own = ((envelope.height_m, 0.33, "h"), (envelope.width_m, 0.44, "w"), (envelope.depth_m, None, "f"))
    sizes = [f"{letter}{cm(size)}" for size, before, letter in own[:2] if size != before]
    sizes += [f"f{cm(envelope.depth_m)}"] if envelope.depth_m not in (0.44, envelope.width_m) else []
    if sizes:
        yield " ".join(sizes)
    if envelope.form != "free":
        yield envelope.form
    yield from _holder(mechanic)
    level = part.water_level_m / vessel.inside_depth_m
    if said_water(part):
        yield {0.5: "half", 0.75: "3/4", 0.67: "2/3"}.get(round(level, 2), "full")
    if part.setting.outdoors != BLANK.setting.outdoors:
        yield "outdoors"
    if part.setting.where != BLANK.setting.where:
        yield part.setting.where
    if part.lining:
        yield "lined"
    if part.must_lift_off:
        yield "lifts off"


def said_water(part: Piece) -> bool:
    deep = part.vessel.inside_depth_m
    return part.water_level_m not in (round(0.8 * deep, 3), BLANK.water_level_m) and not any(
        part.vessel == each for each in vessels().values() if each != BLANK.vessel
    )


def _holder(mechanic: Mechanic) -> Iterator[str]:
    words = [mechanic.kind] if mechanic.kind != "fibre_pouch" else []
    words += [str(mechanic.layers)] if mechanic.layers != 4 else []
    if words:
        yield " ".join(words)
    if mechanic.netting not in ("galvanized-31-09", None, ""):
        yield f"net {round(1000 * nettings()[mechanic.netting or ''].aperture_m)}"
    if mechanic.tape_strips == 0:
        yield "no tape"


def _of_rig(part: Part) -> Iterator[str]:
    assert isinstance(part, Rig)
    yield f"{'hoop' if part.name == 'Hoop' else part.armature.kind} {cm(size_of(part))}"


def begun(start: str, vessel: Vessel | None) -> Part:
    if start == "vessel":
        return BLANK
    assert vessel is None
    return STARTS[start].begin(Given(vessel=USUAL.vessel, nettings=nettings(), practice=Practice()))


def said(words: str) -> str:
    system: UnitSystem = "inch" if words.startswith("in: ") else "metric"
    around = Around(conditions=conditions(), vessels=vessels(), system=system)
    return " || ".join(meaning(each) for each in say_all(words.removeprefix("in: "), around, begun))


@pytest.mark.parametrize(("words", "expected"), CORPUS, ids=lambda each: each[:40])
def test_no_sentence_is_read_wrongly(words: str, expected: str) -> None:
    assert said(words) == expected


def test_nearly_every_sentence_is_read_in_full() -> None:
    assert len(CORPUS) >= 200
    assert sum(" ?" not in expected for _, expected in CORPUS) >= 0.95 * len(CORPUS)
    assert len({words for words, _ in CORPUS}) == len(CORPUS)
