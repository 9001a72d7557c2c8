"""Line networks with small displacements against PyNiteFEA, an independent structural-analysis library."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from Pynite import FEModel3D

from jolly_trellis.core.rigging.network import Network, network, solve
from tests.generated import examples

EA = 2e6
AREA, MODULUS = 1e-4, 2e10


def hung(seed: int, tops: int) -> Network:
    """A few weights, each on lines from all fixed points and joined to one another, stiff enough to move little."""
    chance = np.random.default_rng(seed)
    turn = np.arange(tops) * (2 * np.pi / tops)
    points = np.stack([1.6 * np.cos(turn), 1.6 * np.sin(turn), 2.0 + chance.uniform(-0.2, 0.2, tops)], axis=1)
    below = np.array([[0.3, 0.1, 0.2], [-0.25, 0.2, 0.0]]) + chance.uniform(-0.1, 0.1, (2, 3))
    start = np.concatenate([points, below])
    ends = np.array([(top, tops + weight) for weight in range(2) for top in range(tops)])
    return network(
        start_m=start,
        fixed=np.array([True] * tops + [False] * 2),
        load_n=np.concatenate([np.zeros(tops), chance.uniform(20, 60, 2)]),
        ends=ends,
        rest_m=np.linalg.norm(start[ends[:, 0]] - start[ends[:, 1]], axis=1),
        stiffness_n=np.full(len(ends), EA),
        slack=np.zeros(len(ends), dtype=np.bool_),
    )


def by_the_library(net: Network) -> list[float]:
    """Axial forces of pin-ended bars, tension positive."""
    model = FEModel3D()
    model.add_material("steel", MODULUS, MODULUS / 2.6, 0.3, 0.0)
    model.add_section("bar", AREA, 1e-9, 1e-9, 1e-9)
    for index, (x, y, z) in enumerate(net.start_m.tolist()):
        model.add_node(f"n{index}", x, y, z)
        held = bool(net.fixed[index])
        model.def_support(f"n{index}", held, held, held, True, True, True)
    for index, (one, other) in enumerate(net.ends.tolist()):
        model.add_member(f"m{index}", f"n{one}", f"n{other}", "steel", "bar")
        model.def_releases(f"m{index}", Ryi=True, Rzi=True, Ryj=True, Rzj=True)
    for index, load in enumerate(net.load_n.tolist()):
        if load:
            model.add_node_load(f"n{index}", "FZ", -load)
    model.analyze(check_statics=False)
    return [-model.members[f"m{index}"].axial(0.0, "Combo 1") for index in range(len(net.ends))]


@examples(12)
@given(st.integers(0, 100_000), st.integers(3, 5))
def test_tensions_agree_within_a_hundredth(seed: int, tops: int) -> None:
    net = hung(seed, tops)
    ours, theirs = solve(net).tension_n, np.array(by_the_library(net))
    largest = float(np.abs(theirs).max())
    assert ours == pytest.approx(theirs, abs=0.01 * largest)
