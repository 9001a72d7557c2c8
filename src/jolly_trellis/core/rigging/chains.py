"""A run with no stiffness of its own: settled in links fine enough, and how hard it pulls where it is attached."""

import numpy as np

from jolly_trellis.core.geometry import Array
from jolly_trellis.core.rigging.layout import LaidOut, lay_out
from jolly_trellis.core.rigging.loads import Load
from jolly_trellis.core.rigging.network import Settled, solve
from jolly_trellis.core.rigging.rig import Rig

CHAIN_PIECES = 12


def hung_as_chain(rig: Rig, load: Load) -> tuple[LaidOut, Settled]:
    """A run at rest with no stiffness of its own, in links fine enough for its pull: twelve a span.

    It is settled in coarse links first, and from there in fine ones.

    Raises: CoreError: it has no rest position.
    """
    coarse = lay_out(rig, load, as_if="chain")
    rough = solve(coarse.net, count_modes=False)
    fine = lay_out(rig, load, as_if="chain", least=CHAIN_PIECES)
    if coarse.station_m is None or fine.station_m is None or len(coarse.net.start_m) == len(fine.net.start_m):
        return coarse, rough
    own = len(coarse.station_m)
    along = [np.interp(fine.station_m, coarse.station_m, rough.at_m[:own, axis]) for axis in range(3)]
    near = np.concatenate([np.stack(along, axis=1), rough.at_m[own:]])
    return fine, solve(fine.net, near, count_modes=False)


def chain_pull_n(made: LaidOut, at_m: Array, tension_n: Array) -> float:
    """Greatest pull along a chain, N: at the end of a link, its own pull and its half link's weight as vectors.

    A link's tension is the chain's at its middle; at an attachment the weight of the half link beyond it is added.

    Args:
        at_m: nodes at rest, shape (n, 3). tension_n: of every link.
    Source: equilibrium of the half link; the catenary in the limit of many.
    """
    if made.ends_n is None or not made.chain_links:
        return 0.0
    links = list(made.chain_links)
    one, other = at_m[made.net.ends[links, 0]], at_m[made.net.ends[links, 1]]
    along = (other - one) / np.maximum(np.linalg.norm(other - one, axis=1), 1e-12)[:, None]
    pull = tension_n[links][:, None] * along
    down = np.array([0.0, 0.0, -1.0])
    at_one = np.linalg.norm(pull + made.ends_n[:, :1] * down, axis=1)
    at_other = np.linalg.norm(-pull + made.ends_n[:, 1:] * down, axis=1)
    return float(np.maximum(at_one, at_other).max())
