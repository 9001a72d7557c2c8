"""What nobody waits for any more is ended before the next piece is put together or judged."""

from collections.abc import Callable
from dataclasses import replace

import pytest

from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.fixes import fixes_of
from jolly_trellis.core.wanted import NobodyWaits, wanted_while
from tests import ordinary
from tests.rigs import run


def asked(times: int) -> Callable[[], bool]:
    """Wanted for so many questions, and then no more."""
    left = iter(range(times))
    return lambda: next(left, None) is not None


def test_what_is_wanted_is_given_and_nobody_asks_where_nobody_has_said(conditions: Conditions) -> None:
    alone = evaluate(ordinary.piece(), conditions)
    with wanted_while(lambda: True):
        assert evaluate(ordinary.piece(), conditions) == alone
    with pytest.raises(NobodyWaits), wanted_while(lambda: False):
        evaluate(ordinary.piece(), conditions)
    assert evaluate(ordinary.piece(), conditions) == alone


def test_everything_long_ends_at_the_next_piece(conditions: Conditions) -> None:
    short = replace(ordinary.piece(), water_level_m=0.03)
    tall = replace(ordinary.piece(), envelope=replace(ordinary.piece().envelope, height_m=0.9))
    rig = replace(run(3), extra_kg=150.0)
    report = assess(rig, conditions)
    for act in (
        lambda: choose(ordinary.piece(), conditions, on_hand=None),
        lambda: evaluate(short, conditions, with_fixes=True),
        lambda: making_of(tall, conditions, with_fixes=True),
        lambda: assess(rig, conditions),
        lambda: fixes_of(rig, report, conditions),
    ):
        with wanted_while(lambda: True):
            act()
        for most in (0, 1):
            with pytest.raises(NobodyWaits), wanted_while(asked(most)):
                act()
                if most:  # one question may be all that is asked
                    raise NobodyWaits
