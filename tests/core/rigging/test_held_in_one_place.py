"""A run held in one place: a spill hangs from its upper end, a loose run folds over its middle, a stiff one lies."""

from dataclasses import replace

import pytest

from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.rigging.resting import settle
from jolly_trellis.core.rigging.rig import Armature, Attachment, HangPoint, Rig, RigLine
from tests.rigs import STEEL

AT = Attachment(x_m=0.0, y_m=0.0, z_m=2.0)


def held(armature: Armature, along_m: float | None = None) -> Rig:
    hook = HangPoint(name="hook", kind="eye", x_m=0.0, y_m=0.0, z_m=2.1)
    return Rig(
        name="held",
        points=(hook,),
        attachments=(replace(AT, along_m=along_m),),
        lines=(RigLine(point=0, attachment=0, spec=STEEL),),
        armature=armature,
    )


def test_a_spill_hangs_from_its_upper_end(conditions: Conditions) -> None:
    """Statics: hung by its end, all its 80 cm are under the hook, half its thickness and its flowers lower still."""
    spill = Armature(kind="spill", length_m=0.8, diameter_m=0.11, projection_m=0.10, netting="galvanized-50-10")
    rest = settle(held(spill), conditions)
    assert rest.at_m[-1] == pytest.approx((0.0, 0.0, 2.0 - 0.8), abs=2e-3)
    assert rest.lowest_m == pytest.approx(2.0 - 0.8 - 0.055 - 0.10, abs=2e-3)


@pytest.mark.parametrize(("along_m", "short", "long"), [(None, 0.4, 0.4), (0.3, 0.3, 0.5), (0.0, 0.0, 0.8)])
def test_a_loose_run_hangs_down_on_both_sides(
    conditions: Conditions, along_m: float | None, short: float, long: float
) -> None:
    """Statics: with no stiffness each end hangs straight down as far as it is long."""
    run = Armature(kind="snake", length_m=0.8, stiffness="loose", netting="galvanized-50-10")
    rest = settle(held(run, along_m), conditions)
    ends = sorted((rest.at_m[0][2], rest.at_m[-1][2]), reverse=True)
    assert ends == pytest.approx([2.0 - short, 2.0 - long], abs=2e-3)


def test_a_stiff_run_held_in_its_middle_lies_level(conditions: Conditions) -> None:
    """Symmetry: both halves bend down alike, the end of a cantilever no farther than it is long."""
    run = Armature(kind="tube", length_m=0.8, stiffness="cored", netting="galvanized-50-10")
    rest = settle(held(run), conditions)
    assert rest.tilt_rad == pytest.approx(0.0, abs=1e-6)
    assert rest.at_m[0][2] == pytest.approx(rest.at_m[-1][2], abs=1e-6)
    assert 1.8 < rest.at_m[-1][2] < 2.0
