"""The solver against closed forms, and against what must hold of any rest position."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure, Unstable
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.rigging.network import MOST_NODES, Network, network, solve
from tests.generated import examples

CLOSE = 0.005
STEEL = 1e5


def hung(points: list[tuple[float, float, float]], at: tuple[float, float, float], load_n: float) -> Network:
    """One weight on lines to fixed points, each as long as drawn."""
    start = np.array([*points, at])
    number = len(points)
    ends = np.array([(index, number) for index in range(number)])
    return network(
        start_m=start,
        fixed=np.array([*([True] * number), False]),
        load_n=np.array([*([0.0] * number), load_n]),
        ends=ends,
        rest_m=np.linalg.norm(start[ends[:, 0]] - start[ends[:, 1]], axis=1),
        stiffness_n=np.full(number, 1e7),
        slack=np.ones(number, dtype=np.bool_),
    )


def chain(stations: list[tuple[float, float]], lengths: list[float], kg_m: float, pieces: int = 40) -> Network:
    """A chain over fixed stations (x, z), so long between each two."""
    at: list[Array] = []
    rest: list[float] = []
    fixed = [True]
    at.append(np.array([stations[0][0], 0.0, stations[0][1]]))
    for (one, other), long in zip(pairwise(stations), lengths, strict=True):
        share = np.arange(1, pieces + 1) / pieces
        x = one[0] + share * (other[0] - one[0])
        z = one[1] + share * (other[1] - one[1]) - 0.3 * np.sin(np.pi * share)
        at += [np.array([x[index], 0.0, z[index]]) for index in range(pieces)]
        rest += [long / pieces] * pieces
        fixed += [False] * (pieces - 1) + [True]
    lengths_m = np.array(rest)
    load = np.zeros(len(at))
    load[:-1] += lengths_m / 2
    load[1:] += lengths_m / 2
    return network(
        start_m=np.array(at),
        fixed=np.array(fixed),
        load_n=load * kg_m * GRAVITY_M_S2,
        ends=np.stack([np.arange(len(rest)), np.arange(1, len(rest) + 1)], axis=1),
        rest_m=lengths_m,
        stiffness_n=np.full(len(rest), 3e6),
        slack=np.ones(len(rest), dtype=np.bool_),
    )


@pytest.mark.parametrize(("degrees", "each"), [(60, 23.094), (45, 28.284), (30, 40.0)])
def test_two_lines_at_an_angle(degrees: float, each: float) -> None:
    """Source: W/(2·sin α), as sling tables have it (published)."""
    rise = math.tan(math.radians(degrees))
    found = solve(hung([(-1, 0, rise), (1, 0, rise)], (0, 0, 0), 40.0))
    assert found.tension_n == pytest.approx([each, each], rel=CLOSE)


def test_three_lines_round_a_circle() -> None:
    """Worked from statics: 0.5 m radius, 120° apart, centre of mass (0.08, 0.03), 40 N."""
    turns = [0.0, 2 * math.pi / 3, 4 * math.pi / 3]
    feet = [(0.5 * math.cos(turn), 0.5 * math.sin(turn), 0.0) for turn in turns]
    tops = [(x, y, 2.0) for x, y, _ in feet]
    start = np.array([*tops, *feet, (0.08, 0.03, 0.0), (0.0, 0.0, 0.4)])
    ends = [(index, index + 3) for index in range(3)]
    frame = [(one, other) for one in range(3, 8) for other in range(one + 1, 8)]
    links = np.array([*ends, *frame])
    net = network(
        start_m=start,
        fixed=np.array([True] * 3 + [False] * 5),
        load_n=np.array([0.0] * 6 + [40.0, 0.0]),
        ends=links,
        rest_m=np.linalg.norm(start[links[:, 0]] - start[links[:, 1]], axis=1),
        stiffness_n=np.array([1e6] * 3 + [1e5] * len(frame)),
        slack=np.array([True] * 3 + [False] * len(frame)),
    )
    found = solve(net)
    assert found.tension_n[:3] == pytest.approx([17.60, 12.59, 9.81], rel=CLOSE)
    assert found.free_modes == 0


@pytest.mark.parametrize(
    ("stations", "lengths", "kg_m", "level", "ends", "lowest"),
    [
        ([(0, 0), (4, 0)], [5], 1.2, [19.90], [35.52, 35.52], [1.327]),
        ([(0, 0), (3, 1)], [4], 0.9, [10.43], [16.27, 25.09], [0.661]),
        ([(0, 0), (3, 0)], [3.05], 1.2, [55.96], [58.77, 58.77], [None]),
    ],
)
def test_a_chain_hangs_as_the_catenary_says(
    stations: list[tuple[float, float]],
    lengths: list[float],
    kg_m: float,
    level: list[float],
    ends: list[float],
    lowest: list[float | None],
) -> None:
    """Worked from the catenary by a general numerical library."""
    found = solve(chain(stations, lengths, kg_m))
    assert abs(float(found.reaction_n[0, 0])) == pytest.approx(level[0], rel=CLOSE)
    # A chain cut into pieces puts half a piece's weight straight on its end.
    assert np.linalg.norm(found.reaction_n[[0, -1]], axis=1).tolist() == pytest.approx(ends, rel=CLOSE)
    if lowest[0] is not None:
        assert -float(found.at_m[:, 2].min()) == pytest.approx(lowest[0], rel=CLOSE)


def test_a_snake_over_three_points() -> None:
    """Worked from the catenary: 1.1 kg/m, 2.9 m then 3.1 m: H 11.92 and 13.61 N; 0.718 and 0.891 m low."""
    found = solve(chain([(0, 0), (2.4, 0), (5.0, -0.3)], [2.9, 3.1], 1.1))
    middle = 40
    assert abs(float(found.reaction_n[0, 0])) == pytest.approx(11.92, rel=CLOSE)
    assert abs(float(found.reaction_n[-1, 0])) == pytest.approx(13.61, rel=CLOSE)
    assert -float(found.at_m[:middle, 2].min()) == pytest.approx(0.718, rel=CLOSE)
    assert -float(found.at_m[middle:, 2].min()) == pytest.approx(0.891, rel=CLOSE)
    assert float(np.linalg.norm(found.reaction_n[-1])) == pytest.approx(19.98, rel=CLOSE)


def test_a_stiff_beam_on_three_lines_shares_three_ten_three() -> None:
    """Source: two-span continuous beam under its own weight, 3/16, 10/16, 3/16 (any handbook of structures)."""
    pieces, span = 32, 2.0
    x = np.linspace(-span, span, 2 * pieces + 1)
    beam = np.stack([x, np.zeros_like(x), np.zeros_like(x)], axis=1)
    tops = np.array([(-span, 0, 1.0), (0, 0, 1.0), (span, 0, 1.0)])
    load = np.full(len(x), 60.0 / (2 * pieces))
    load[[0, -1]] /= 2
    inner = np.arange(len(x) - 2)
    links = [(index, index + 1) for index in range(len(x) - 1)]
    lines = [(0, len(x)), (pieces, len(x) + 1), (2 * pieces, len(x) + 2)]
    ends = np.array([*links, *lines])
    start = np.concatenate([beam, tops])
    step = span / pieces
    found = solve(
        network(
            start_m=start,
            fixed=np.array([False] * len(x) + [True] * 3),
            load_n=np.concatenate([load, np.zeros(3)]),
            ends=ends,
            rest_m=np.linalg.norm(start[ends[:, 0]] - start[ends[:, 1]], axis=1),
            stiffness_n=np.full(len(ends), 1e6),
            slack=np.array([False] * len(links) + [True] * 3),
            bends=np.stack([inner, inner + 1, inner + 2], axis=1),
            bend_n_m=np.full(len(inner), 400.0 / step**3),
        )
    )
    assert (found.tension_n[-3:] / 60).tolist() == pytest.approx([3 / 16, 10 / 16, 3 / 16], rel=CLOSE)


@examples(15)
@given(st.integers(0, 10_000), st.integers(2, 4))
def test_any_rest_position_is_in_balance(seed: int, tops: int) -> None:
    chance = np.random.default_rng(seed)
    points = [(float(x), float(y), 2.0 + float(z)) for x, y, z in chance.uniform(-1, 1, (tops, 3))]
    found = solve(hung(points, (0.1, -0.1, 0.2), 30.0))
    assert found.residual < 1e-5
    assert found.reaction_n.sum(axis=0) == pytest.approx([0.0, 0.0, 30.0], abs=0.01)
    assert (found.tension_n >= 0).all()


def test_twice_the_load_is_twice_the_tension() -> None:
    once, twice = (solve(hung([(-1, 0, 1), (1.5, 0, 1.2)], (0, 0, 0), load)) for load in (20.0, 40.0))
    assert twice.tension_n == pytest.approx(2 * once.tension_n, rel=1e-3)


def test_what_hangs_on_nothing_is_refused() -> None:
    loose = chain([(0, 0), (1, 0)], [1.2], 1.0, pieces=4)
    cut = network(
        start_m=loose.start_m,
        fixed=np.zeros(5, dtype=np.bool_),
        load_n=loose.load_n,
        ends=loose.ends,
        rest_m=loose.rest_m,
        stiffness_n=loose.stiffness_n,
        slack=loose.slack,
    )
    with pytest.raises(Unstable, match="hangs on nothing"):
        solve(cut)


def test_no_load_and_too_many_nodes_are_refused() -> None:
    with pytest.raises(InvalidMeasure, match="no load"):
        solve(hung([(0, 0, 1)], (0, 0, 0), 0.0))
    with pytest.raises(InvalidMeasure, match="too long to be worked out in one"):
        solve(chain([(0, 0), (1, 0)], [1.2], 1.0, pieces=MOST_NODES + 10))


def test_a_line_of_no_length_is_refused() -> None:
    with pytest.raises(InvalidMeasure, match="same place"):
        solve(hung([(0, 0, 1), (0, 0, 0)], (0, 0, 0), 10.0))
