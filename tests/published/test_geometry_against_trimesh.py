"""Volumes and centres of mass against trimesh (a mesh library), over profiles of our own making."""

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator

from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan_shapes import PlanShape
from tests.generated import examples

SIDES = 360


def mesh_of(vessel: Vessel, level_m: float) -> trimesh.Trimesh:
    """The water as a closed mesh: rings of points at many heights of scipy's monotone cubics, stitched."""
    measured = [p.height_m for p in vessel.profile]
    curves = [
        PchipInterpolator(measured, [getattr(p, name) for p in vessel.profile]) for name in ("width_m", "depth_m")
    ]
    heights = np.union1d(np.linspace(0, level_m, 241), [each for each in measured if each < level_m])
    rings = []
    for height in heights:
        width, depth = (float(curve(height)) for curve in curves)
        if vessel.plan_shape in ("round", "oval"):
            angle = np.linspace(0, 2 * np.pi, SIDES, endpoint=False)
            plan = np.stack([width / 2 * np.cos(angle), depth / 2 * np.sin(angle)], axis=1)
        else:
            plan = np.array([[-1, -1], [1, -1], [1, 1], [-1, 1]]) * [width / 2, depth / 2]
        rings.append(np.column_stack([plan, np.full(len(plan), height)]))
    sides = len(rings[0])
    points = np.vstack([*rings, [[0, 0, heights[0]]], [[0, 0, heights[-1]]]])
    bottom, top = len(points) - 2, len(points) - 1
    first = (np.arange(len(rings) - 1)[:, None] * sides + np.arange(sides)).ravel()
    beside = (np.arange(len(rings) - 1)[:, None] * sides + (np.arange(sides) + 1) % sides).ravel()
    over = beside + sides
    wall = np.concatenate([np.stack([first, beside, over], 1), np.stack([first, over, first + sides], 1)])
    faces = []
    last = (len(rings) - 1) * sides
    for side in range(sides):
        after = (side + 1) % sides
        faces += [[bottom, after, side], [top, last + side, last + after]]
    return trimesh.Trimesh(vertices=points, faces=[*wall, *faces], process=False)


@examples(12)
@given(
    st.sampled_from(["round", "oval", "square", "rectangular"]),
    st.lists(st.tuples(st.floats(0.01, 0.08), st.floats(0.03, 0.3), st.floats(0.03, 0.3)), min_size=2, max_size=6),
    st.floats(0.15, 1.0),
)
def test_volume_and_centre_agree_with_the_mesh(
    shape: PlanShape, steps: list[tuple[float, float, float]], filled: float
) -> None:
    points, height = [], 0.0
    for index, (rise, width, depth) in enumerate(steps):
        height += rise if index else 0.0
        even = shape in ("round", "square")
        points.append(ProfilePoint(height_m=height, width_m=width, depth_m=width if even else depth))
    vessel = Vessel(name="random", plan_shape=shape, profile=tuple(points))
    vessels.check_vessel(vessel)
    level = filled * vessel.inside_depth_m
    mesh = mesh_of(vessel, level)
    assert mesh.is_watertight
    # a wall whose width and depth change at different rates is a twisted surface; the mesh splits it flat
    loose = 2e-3 if shape in ("rectangular", "oval") else 3e-4  # a circle of 360 sides lacks 5e-5
    assert vessels.volume_below_l(vessel, level) == pytest.approx(1000 * mesh.volume, rel=loose)
    assert vessels.centroid_below_m(vessel, level) == pytest.approx(mesh.center_mass[2], rel=loose)


def test_a_shell_balances_where_a_thin_mesh_does() -> None:
    vessel = Vessel(
        name="bowl",
        plan_shape="round",
        profile=tuple(
            ProfilePoint(height_m=h, width_m=w, depth_m=w) for h, w in ((0, 0.12), (0.04, 0.18), (0.09, 0.2))
        ),
        wall_m=0.0005,
        base_m=0.0005,
    )
    water = mesh_of(vessel, 0.09)
    skin = water.submesh([np.flatnonzero(water.triangles_center[:, 2] < 0.09 - 1e-9)], append=True)
    assert isinstance(skin, trimesh.Trimesh)
    centres, areas = skin.triangles_center[:, 2], skin.area_faces
    assert vessels.shell_centre_m(vessel) == pytest.approx(float((centres * areas).sum() / areas.sum()), abs=7e-4)
