"""Composite centres of mass and domes against trimesh (a mesh library)."""

import math

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.books.bodies import Body, centre_of
from jolly_trellis.core.building.footing import Footing, Outline
from jolly_trellis.core.mechanics import bouquet
from tests.generated import examples

BODY = st.tuples(
    st.floats(0.2, 3.0), st.floats(-0.4, 0.4), st.floats(-0.4, 0.4), st.floats(0.0, 0.8), st.floats(0.02, 0.2)
)


@examples(30)
@given(st.lists(BODY, min_size=1, max_size=7))
def test_the_composite_centre_of_mass_is_that_of_the_meshes(
    parts: list[tuple[float, float, float, float, float]],
) -> None:
    """Boxes of the same mass at the same places, weighed and summed by the mesh library."""
    meshes = []
    for kg, x, y, z, size in parts:
        box = trimesh.creation.box(extents=[size, size, size])
        box.apply_translation([x, y, z])
        box.density = kg / box.volume
        meshes.append(box)
    total = sum(mesh.mass for mesh in meshes)
    centre = sum(mesh.mass * mesh.center_mass for mesh in meshes) / total
    found = centre_of(
        tuple(Body(thing="part", mass_kg=kg, x_m=x, y_m=y, height_m=z, borne_by="vessel") for kg, x, y, z, _ in parts)
    )
    assert found.mass_kg == pytest.approx(total)
    assert (found.x_m, found.y_m, found.height_m) == pytest.approx(centre.tolist(), abs=1e-9)


@pytest.mark.parametrize(("radius", "rise"), [(0.15, 0.09), (0.12, 0.12), (0.2, 0.04)])
def test_a_domes_surface_is_that_of_a_ball_cut_by_a_plane(radius: float, rise: float) -> None:
    ball = (radius**2 + rise**2) / (2 * rise)
    mesh = trimesh.creation.icosphere(subdivisions=6, radius=ball)
    faces = mesh.triangles_center[:, 2] > ball - rise
    assert bouquet.cap_area_m2(radius, radius, rise) == pytest.approx(float(mesh.area_faces[faces].sum()), rel=0.01)


@examples(20)
@given(st.lists(st.tuples(st.floats(-0.4, 0.4), st.floats(-0.3, 0.3)), min_size=2, max_size=4))
def test_several_feet_bear_over_the_hull_the_mesh_library_finds(places: list[tuple[float, float]]) -> None:
    """The edge along every ray from the middle, against the same ray cast onto the library's convex hull."""
    feet = tuple(Outline(plan_shape="round", x_m=x, y_m=y, width_m=0.14, depth_m=0.11) for x, y in places)
    points = np.concatenate([foot.points_m() for foot in feet])
    solid = np.concatenate([np.column_stack([points, np.full(len(points), z)]) for z in (-0.1, 0.1)])
    hull = trimesh.convex.convex_hull(solid)
    turn = np.linspace(0, 2 * math.pi, 16, endpoint=False) + 0.01
    rays = np.stack([np.cos(turn), np.sin(turn)], axis=1)
    middle = points.mean(axis=0)
    found = Footing(feet=feet).edge_m(np.full(16, middle[0]), np.full(16, middle[1]), rays[:, 0], rays[:, 1])
    for ray, distance in zip(rays, found, strict=True):
        inside = [middle[0] + 0.999 * distance * ray[0], middle[1] + 0.999 * distance * ray[1], 0.0]
        outside = [middle[0] + 1.001 * distance * ray[0], middle[1] + 1.001 * distance * ray[1], 0.0]
        over = hull.facets_normal @ (np.array([inside, outside]) - 0.0).T
        offsets = (hull.facets_normal * hull.facets_origin).sum(axis=1)
        assert (over[:, 0] <= offsets).all()
        assert (over[:, 1] > offsets).any()
