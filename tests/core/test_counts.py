"""What must stay light is counted, never timed: calls, solves, assemblies, crowding."""

import cProfile
import pstats
from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import replace
from functools import partial
from typing import Any

import pytest

from jolly_trellis.core.checks import hold_swing
from jolly_trellis.core.event.day import remedies
from jolly_trellis.core.event.day.day import day_of
from jolly_trellis.core.event.sheet import solver
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging import network
from jolly_trellis.core.rigging.assess import assess
from tests import events, ordinary
from tests.rigs import run


def calls(acts: Iterable[Callable[[], object]]) -> tuple[int, int]:
    """Calls of Python's own and numpy's functions together, and those of numpy, of the last of some acts."""
    *before, act = acts
    for each in before:
        each()
    profile = cProfile.Profile()
    profile.enable()
    act()
    profile.disable()
    stats: dict[Any, Any] = pstats.Stats(profile).stats  # type: ignore[attr-defined]
    of_numpy = sum(number for (file, _, name), (_, number, *_) in stats.items() if "numpy" in file or "numpy" in name)
    return sum(number for _, number, *_ in stats.values()), of_numpy


@pytest.fixture
def counted(monkeypatch: pytest.MonkeyPatch) -> Callable[[Any, str], Counter[str]]:
    """Counts the calls of a function of a module or class."""
    number: Counter[str] = Counter()

    def count(owner: Any, name: str) -> Counter[str]:
        real = getattr(owner, name)

        def counting(*args: Any, **named: Any) -> Any:
            number[name] += 1
            return real(*args, **named)

        monkeypatch.setattr(owner, name, counting)
        return number

    return count


Change = Callable[[Standing, int], Standing]


def lower(bowl: Standing, nth: int) -> Standing:
    return replace(bowl, water_level_m=bowl.water_level_m - nth / 10_000)


def wider(bowl: Standing, nth: int) -> Standing:
    return replace(bowl, envelope=replace(bowl.envelope, width_m=bowl.envelope.width_m + nth / 10_000))


@pytest.mark.parametrize(
    ("change", "most", "most_of_numpy"),
    [
        pytest.param(lambda bowl, _: bowl, 8_000, 1_300, id="asked again"),
        pytest.param(lower, 8_200, 1_400, id="a step of the water"),
        pytest.param(wider, 14_000, 3_500, id="a step of the size"),
    ],
)
def test_a_bowl_of_sixty_stems_is_worked_out_in_few_calls(
    conditions: Conditions, change: Change, most: int, most_of_numpy: int
) -> None:
    """Sixty stems take hardly more calls than fifteen: what grows with the stems is an array."""

    def steps(stems: int) -> list[Callable[[], object]]:
        bowl = ordinary.stems(ordinary.piece(), stems)
        return [partial(evaluate, change(bowl, nth), conditions, with_fixes=False) for nth in range(3)]

    less, _ = calls(steps(15))
    more, of_numpy = calls(steps(60))
    assert more <= most
    assert of_numpy <= most_of_numpy
    assert more <= 1.5 * less


def test_crowding_is_worked_out_once_for_all_steps_of_a_making(
    conditions: Conditions, counted: Callable[[Any, str], Counter[str]]
) -> None:
    number = counted(hold_swing, "_crowding_at")
    numbers = []
    for stems in (20, 80):
        number.clear()
        making_of(ordinary.stems(ordinary.piece(), stems), conditions, with_fixes=False)
        numbers.append(number["_crowding_at"])
    assert numbers[0] == numbers[1] <= 2


def test_a_run_on_eight_lines_takes_few_solves_and_an_assembly_for_each_round(
    conditions: Conditions, counted: Callable[[Any, str], Counter[str]]
) -> None:
    solved = []
    real = network.solve

    def solving(*args: Any, **named: Any) -> network.Settled:
        solved.append(real(*args, **named))
        return solved[-1]

    with pytest.MonkeyPatch.context() as patch:
        for module in ("assess", "chains", "raising", "resting"):
            patch.setattr(f"jolly_trellis.core.rigging.{module}.solve", solving)
        counted(network._Shape, "stiff_band")
        counted(network._Shape, "stiffness")
        counted(network._Shape, "_cells")
        number = counted(network._Shape, "pose")
        assess(run(8), conditions)
    rounds = sum(each.rounds for each in solved)
    assert 0 < len(solved) <= 26
    assert number["stiff_band"] + number["stiffness"] <= rounds + len(solved)
    assert number["stiffness"] <= 5, "a whole matrix only where modes are counted"
    assert number["pose"] <= 2 * rounds + 4 * len(solved)
    assert number["_cells"] == 2 * len(solved), "where numbers go is found once for a network"


def test_a_remedy_is_tried_by_lists_before_the_solver_is_asked(counted: Callable[[Any, str], Counter[str]]) -> None:
    number = counted(solver, "better")
    counted(remedies, "schedule")
    day_of(events.job(), events.demo_made(), ordinary.varieties())
    assert number["better"] <= 4 < number["schedule"]
