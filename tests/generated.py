"""How many cases are generated: few and the same every day; many, by new seeds, in the long part of the suite."""

import os

from hypothesis import settings

LONG = os.environ.get("TRELLIS_LONG") == "1"
_TIMES_LONG = 20

# the daily part has the same examples on every machine, however slow it is
settings.register_profile("daily", derandomize=True, deadline=None)
settings.register_profile("long", derandomize=False, deadline=None, print_blob=True)


def examples(number: int) -> settings:
    """So many generated cases in the daily part, twenty times as many in the long one."""
    return settings(max_examples=number * (_TIMES_LONG if LONG else 1), deadline=None)
