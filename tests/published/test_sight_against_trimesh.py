"""Lines of sight against trimesh (a mesh library): rays through balls made of triangles."""

import numpy as np
import pytest
import trimesh

from jolly_trellis.core.checks.sight import Mass, seen_along, seen_share


def mesh_blocks(mass: Mass, start_m: np.ndarray, ray_m: np.ndarray) -> np.ndarray:
    """Whether each ball's mesh is met between the start and the end of a ray, by Möller and Trumbore's test."""
    met = []
    for centre, radius in zip(mass.centre_m, mass.radius_m, strict=True):
        ball = trimesh.creation.icosphere(subdivisions=4, radius=radius)
        ball.apply_translation(centre)
        corners = ball.triangles
        met.append(_hits(corners, start_m, ray_m))
    return np.array(met)


def _hits(corners: np.ndarray, start: np.ndarray, ray: np.ndarray) -> bool:
    """Source: T. Möller and B. Trumbore, Fast, minimum storage ray-triangle intersection, 1997 (from memory)."""
    first, second = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    across = np.cross(ray, second)
    size = (first * across).sum(axis=1)
    size[np.abs(size) < 1e-15] = np.nan
    to_start = start - corners[:, 0]
    u = (to_start * across).sum(axis=1) / size
    turned = np.cross(to_start, first)
    v = (turned * ray).sum(axis=1) / size
    t = (turned * second).sum(axis=1) / size
    return bool(((u >= 0) & (v >= 0) & (u + v <= 1) & (t > 0) & (t < 1)).any())


def scattered(seed: int, number: int) -> Mass:
    at = np.random.default_rng(seed)
    return Mass(
        centre_m=at.uniform([-0.25, -0.25, 0.0], [0.25, 0.25, 0.4], (number, 3)),
        radius_m=at.uniform(0.01, 0.06, number),
        opacity=at.choice([0.25, 0.7, 1.0], number),
    )


@pytest.mark.parametrize("seed", range(4))
def test_what_a_guest_sees_of_a_guest_across(seed: int) -> None:
    mass = scattered(seed, 14)
    at = np.random.default_rng(100 + seed)
    starts = at.uniform([-0.4, -1.2, 0.1], [0.4, -0.8, 0.6], (25, 3))
    rays = at.uniform([-0.4, 0.8, 0.1], [0.4, 1.2, 0.6], (25, 3)) - starts
    ours = seen_along(mass, starts, rays)
    clear = 1.0 - np.minimum(mass.opacity, 0.999)
    for start, ray, seen in zip(starts, rays, ours, strict=True):
        near = np.linalg.norm(np.cross(mass.centre_m - start, ray), axis=1) / np.linalg.norm(ray)
        if (np.abs(near - mass.radius_m) < 0.03 * mass.radius_m).any():
            continue  # a ball of flat triangles is a trifle smaller than a round one, so a graze may go either way
        assert seen == pytest.approx(float(np.prod(clear[mesh_blocks(mass, start, ray)])), rel=1e-3, abs=1e-6)


def test_shares_are_the_same_ray_by_ray() -> None:
    mass = scattered(9, 30)
    at = np.random.default_rng(9)
    eyes, points = at.uniform(-1.5, -1.0, (6, 3)), at.uniform(0.0, 0.3, (9, 3))
    table = seen_share(mass, eyes, points)
    for eye in range(6):
        for point in range(9):
            alone = seen_along(mass, eyes[eye][None], (points[point] - eyes[eye])[None])
            assert table[eye, point] == pytest.approx(alone[0], rel=1e-4, abs=1e-6)
