"""What shows to whoever walks round a piece is counted as Hide counts it."""

import math
from dataclasses import replace

import pytest

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.hide import side_words
from jolly_trellis.core.checks.looking import TURNS, Looking, looking_at
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.plan.piece import Piece, Support
from jolly_trellis.core.plan.setting import People
from tests import ordinary


def looked_at(piece: Piece) -> tuple[Looking, Report]:
    around = ordinary.conditions()
    report = evaluate(piece, around, with_fixes=False)
    with around.figures.open():
        return looking_at(build(piece, around), report.picture.eyes), report


def shown(report: Report) -> float:
    """The most that Hide says shows, 0-1."""
    hide = next(each for each in report.verdicts if each.verb == "hide")
    return max((each.value.value for each in hide.findings if each.check != "through the glass"), default=0.0)


RAISED = replace(
    ordinary.piece(),
    support=Support(name="stand", height_m=0.6, top_width_m=0.12, foot_width_m=0.2, column_width_m=0.03),
    envelope=replace(ordinary.piece().envelope, height_m=0.95),
)
PIECES: dict[str, Piece] = {
    "bowl": ordinary.piece(),
    "sparse": ordinary.stems(ordinary.piece(), 8),
    "raised": RAISED,
    "ledge": ordinary.on_ledge(),
    "two vessels": replace(ordinary.on_ledge(), companions=(ordinary.beside(tied=True),)),
}


@pytest.mark.parametrize("name", PIECES)
def test_the_worst_glance_is_what_hide_says(name: str) -> None:
    looking, report = looked_at(PIECES[name])
    worst = 0.0 if looking.worst is None else looking.glances[looking.worst].share
    assert worst == pytest.approx(shown(report), abs=6e-5)


def test_there_is_a_glance_from_every_eye_every_30_degrees_with_a_digit_for_every_point() -> None:
    looking, report = looked_at(ordinary.piece())
    eyes = [each.kind for each in report.picture.eyes if each.kind != "cut open"]
    assert [each.eye for each in looking.glances] == [eye for eye in eyes for _ in range(TURNS)]
    turns = [step * math.pi / 6 for _ in eyes for step in range(TURNS)]
    assert [each.turn_rad for each in looking.glances] == pytest.approx(turns, abs=1e-5)
    points = sum(len(each.points) for each in looking.to_hide)
    assert points > 0
    assert all(len(each.seen) == points and each.seen.isdigit() for each in looking.glances)
    assert {each.of for each in looking.glances} <= {each.name for each in looking.to_hide}
    assert {each.eye for each in looking.glances if each.counts} == {"standing", "seated"}


def test_the_share_follows_from_what_is_seen_of_its_points() -> None:
    """From straight above every point counts: the share is the mean of what is seen, told in tenths."""
    looking, _ = looked_at(ordinary.stems(ordinary.piece(), 8))
    start = 0
    parts = {}
    for each in looking.to_hide:
        parts[each.name] = slice(start, start + len(each.points))
        start += len(each.points)
    for glance in looking.glances:
        if glance.eye == "from above":
            digits = [int(each) / 10 for each in glance.seen[parts[glance.of]]]
            assert glance.share == pytest.approx(sum(digits) / len(digits), abs=0.08)


def test_more_flowers_hide_more() -> None:
    few, _ = looked_at(ordinary.stems(ordinary.piece(), 8))
    many, _ = looked_at(ordinary.stems(ordinary.piece(), 60))
    assert sum(each.share for each in many.glances) < sum(each.share for each in few.glances)


def test_the_underside_shows_from_below_only() -> None:
    looking, _ = looked_at(RAISED)
    under = [each for each in looking.to_hide if each.name == "underside"]
    assert len(under) == 1
    low = [each.share for each in looking.glances if each.of == "underside"]
    assert low
    assert {each.eye for each in looking.glances if each.of == "underside"} <= {"seated", "from under", "low"}


def test_nobody_looks_from_behind_a_wall_nor_where_nobody_is() -> None:
    looking, _ = looked_at(ordinary.on_ledge())
    assert not any(each.counts for each in looking.glances if abs(each.turn_rad - math.pi) < 0.1)
    alone = replace(ordinary.piece(), setting=replace(ordinary.piece().setting, people=None))
    assert looked_at(alone)[0].worst is None
    seated = replace(ordinary.piece().setting, people=People(standing=False))
    counted, _ = looked_at(replace(ordinary.piece(), setting=seated))
    assert {each.eye for each in counted.glances if each.counts} == {"seated"}


def test_a_bouquet_shows_its_underside_from_under_and_its_armature_from_above() -> None:
    looking, _ = looked_at(ordinary.bouquet())
    names = [each.name for each in looking.to_hide]
    assert names[0] == "underside"
    assert len(names) == 2
    assert all(each.of == "underside" for each in looking.glances if each.eye == "from under" and each.share > 0)
    assert all(each.of == names[1] for each in looking.glances if each.eye == "from above" and each.share > 0)
    assert looking.worst is None  # it is judged in the hand, not in its vase


def test_clear_glass_shows_from_every_side_alike() -> None:
    glass = replace(ordinary.piece(), vessel=replace(ordinary.piece().vessel, clear=True))
    looking, _ = looked_at(glass)
    assert looking.to_hide[-1].points == ()
    assert min(each.share for each in looking.glances) >= 0.5


def test_nothing_to_hide_is_seen_of_a_bare_vessel() -> None:
    looking, _ = looked_at(replace(ordinary.piece(), recipe=()))
    assert looking.to_hide == ()
    assert looking.worst is None
    assert {each.share for each in looking.glances} == {0.0}


@pytest.mark.parametrize(
    ("turn", "words"),
    [(0, "the front"), (30, "front right"), (60, "front right"), (90, "the right"), (330, "front left")],
)
def test_sides_have_names(turn: float, words: str) -> None:
    assert side_words(math.radians(turn)) == words
