"""What a cut line does to the rest, each number by hand from what is told of it."""

from dataclasses import replace

import pytest

from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.drawing.primitives import Dot
from jolly_trellis.core.rigging.lines import LineSpec, breaking_n, efficiency, working_limit_n
from jolly_trellis.core.rigging.snip import SUDDEN, SnipStep, snip
from jolly_trellis.core.units import render
from tests.ordinary import conditions
from tests.rigs import panel, run


def fishing(stated_n: float) -> LineSpec:
    return LineSpec(kind="monofilament", stated_n=stated_n)


@pytest.mark.parametrize("stated_n", [60, 75, 90, 105, 120, 140, 160, 190, 230, 280, 340, 420, 520])
def test_a_line_is_over_its_limit_by_its_counted_pull_and_lets_go_by_twice_its_still_one(stated_n: float) -> None:
    """By hand: tension times contingency times handling against the working limit; twice it against what breaks it."""
    step = snip(run(spec=fishing(stated_n)), conditions(), 2)[0]
    with conditions().figures.open():
        counts = CONTINGENCY.value * HANDLING.value
        assert counts > CONTINGENCY.value > 1.0
        limit = working_limit_n(fishing(stated_n), over_people=True, one_gone=True)
        breaks = breaking_n(fishing(stated_n)) * efficiency(fishing(stated_n))
        left = [index for index in range(5) if index != 2]
        assert step.over_limit == tuple(each for each in left if step.tension_n[each] * counts > limit)
        assert step.lets_go == tuple(each for each in left if step.tension_n[each] * SUDDEN.value >= breaks)
        words = f"; {len(step.over_limit)} of the rest pass" if step.over_limit else "; the rest stay inside"
        assert words in render(step.say, "metric")


def test_the_strengths_that_are_tried_lie_on_both_sides_of_every_factor() -> None:
    """Some line passes its limit only by both factors together: neither may be left out or turned round."""
    between = 0
    with conditions().figures.open():
        for stated_n in range(60, 560, 5):
            step = snip(run(spec=fishing(stated_n)), conditions(), 2)[0]
            limit = working_limit_n(fishing(stated_n), over_people=True, one_gone=True)
            for each in step.over_limit:
                tension = step.tension_n[each]
                between += tension * CONTINGENCY.value <= limit
                between += tension * CONTINGENCY.value / HANDLING.value <= limit
    assert between > 0


def held_at(step: SnipStep) -> list[tuple[float, float, float]]:
    """Where lines meet the armature in the picture of a step."""
    return [each.at for each in step.picture.primitives if isinstance(each, Dot) and each.id.startswith("attachment-")]


def test_what_only_the_second_bond_holds_hangs_lower_by_its_slack_with_all_that_is_on_it() -> None:
    """By hand: as much lower as the bond is slack; not under the floor."""
    weak = tuple(replace(line, spec=fishing(20.0)) for line in panel().lines)
    own = panel().bond
    assert own is not None

    def last(slack_m: float) -> SnipStep:
        return snip(panel(lines=weak, bond=replace(own, slack_m=slack_m)), conditions(), 0)[-1]

    tight, slack = last(0.05), last(0.25)
    assert tight.lowest_m - slack.lowest_m == pytest.approx(0.2, abs=1e-6)
    heights = zip(tight.at_m, slack.at_m, strict=True)
    assert [one[2] - other[2] for one, other in heights] == pytest.approx([0.2] * len(tight.at_m), abs=1e-4)
    assert held_at(tight)
    held = zip(held_at(tight), held_at(slack), strict=True)
    assert [one[2] - other[2] for one, other in held] == pytest.approx([0.2] * len(held_at(tight)), abs=2e-4)
    assert last(5.0).lowest_m == 0.0


def test_what_comes_down_to_the_floor_is_said_to_and_is_not_under_it() -> None:
    low = run(spec=LineSpec(kind="steel rope", size_m=0.003, fitting="ferrule"))
    near = replace(
        low,
        points=tuple(replace(each, z_m=each.z_m - 2.35) for each in low.points),
        attachments=tuple(replace(each, z_m=each.z_m - 2.35) for each in low.attachments),
    )
    high, down = snip(low, conditions(), 0)[0], snip(near, conditions(), 0)[0]
    assert high.lowest_m > 0
    assert high.say.text.startswith("{rests") or "over the floor" in high.say.text
    assert down.lowest_m == 0.0
    assert "comes down to the floor" in down.say.text
