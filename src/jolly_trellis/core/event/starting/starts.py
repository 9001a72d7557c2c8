"""Every start there is: one for each thing that people order, and a blank one to stand, to carry and to hang."""

from collections.abc import Mapping

from jolly_trellis.core.event.starting.starting import Asks, Given, Start
from jolly_trellis.core.event.starting.starts_bound import bound_starts
from jolly_trellis.core.event.starting.starts_hung import hung_starts
from jolly_trellis.core.event.starting.starts_standing import standing_starts

__all__ = ["STARTS", "Asks", "Given", "Start"]

STARTS: Mapping[str, Start] = {each.key: each for each in (*standing_starts(), *bound_starts(), *hung_starts())}
