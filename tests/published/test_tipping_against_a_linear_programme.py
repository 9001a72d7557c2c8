"""Tipping against first principles: a body stands as long as pushes at its foot's edge can carry it.

Source: equilibrium of forces and moments with pushes that cannot pull, solved by the linear programme of SciPy
(`scipy.optimize.linprog`, method HiGHS); friction is left out, since tipping is asked, not sliding. The water's rise
is checked against a body of water cut by a tilted plane and summed column by column.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import linprog

from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks.balance import DIRECTIONS, Balance, balance_of, water_rise_m
from jolly_trellis.core.checks.stand import energy_to_tip_j, push_to_tip_n, tip_angle_rad, tip_angles_rad
from jolly_trellis.core.geometry import azimuth_rays
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from tests.ordinary import conditions, piece
from tests.ordinary import vessels as catalogue


def foot_points_m(build_: Build) -> np.ndarray:
    """Points along the edge of the foot, shape (n, 2)."""
    vessel = build_.piece.vessel
    half_x = (vessel.foot_width_m or 0.0) / 2
    half_y = (vessel.foot_depth_m or vessel.foot_width_m or 0.0) / 2
    if vessel.plan_shape in ("round", "oval"):
        angle = np.linspace(0, 2 * np.pi, 1440, endpoint=False)
        return np.stack([half_x * np.cos(angle), half_y * np.sin(angle)], axis=1)
    return np.array([[-half_x, -half_y], [half_x, -half_y], [half_x, half_y], [-half_x, half_y]])


def stands(points_m: np.ndarray, at_m: np.ndarray, force_n: np.ndarray, height_m: float) -> bool:
    """Whether pushes at the points carry a force that acts at (x, y) and a height above them."""
    moment_x = at_m[1] * force_n[2] - height_m * force_n[1]
    moment_y = height_m * force_n[0] - at_m[0] * force_n[2]
    rows = np.stack([np.ones(len(points_m)), points_m[:, 1], -points_m[:, 0]])
    wanted = -np.array([force_n[2], moment_x, moment_y])
    return bool(linprog(np.zeros(len(points_m)), A_eq=rows, b_eq=wanted, bounds=(0, None)).success)


def largest(holds: object, low: float, high: float) -> float:
    """By halving, the largest value at which `holds` is true."""
    assert callable(holds)
    for _ in range(22):
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low


def balanced(key: str) -> tuple[Build, Balance]:
    vessel = catalogue()[key]
    if vessel.foot_width_m is None or vessel.mass_kg is None:
        vessel = replace(vessel, foot_width_m=0.1, foot_depth_m=0.08, mass_kg=1.0)
    made = build(replace(piece(), vessel=vessel, water_level_m=0.6 * vessel.inside_depth_m), conditions())
    return made, replace(balance_of(made, "typical"), water_rise_x_m=0.0, water_rise_y_m=0.0)


@pytest.mark.parametrize("key", ["low-bowl-20", "cube-14", "oval-bowl-24", "trough-40"])
def test_tip_angle_in_every_direction(key: str) -> None:
    made, balance = balanced(key)
    points, at = foot_points_m(made), np.array([balance.x_m, balance.y_m])
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    angles = tip_angles_rad(made, balance)
    for index in range(0, DIRECTIONS, 9):

        def upright(tilt: float, index: int = index) -> bool:
            down = np.array([ray_x[index] * math.sin(tilt), ray_y[index] * math.sin(tilt), -math.cos(tilt)])
            return stands(points, at, down, balance.height_m)

        ours, theirs = angles[index], largest(upright, 0.0, 1.5)
        # the outline that matters is the whole foot, so a round foot may tip a trifle earlier across its curve
        assert theirs == pytest.approx(ours, rel=0.02)


@pytest.mark.parametrize("push_height_m", [0.1, 0.25, 0.6])
def test_push_that_tips(push_height_m: float) -> None:
    mass, edge = 2.5, 0.06
    points = np.array([[-edge, -edge], [edge, -edge], [edge, edge], [-edge, edge]])
    weight = mass * GRAVITY_M_S2

    def upright(push: float) -> bool:
        # the push at its height and the weight at the middle are one force through the height where both meet
        return stands(points, np.zeros(2), np.array([push, 0.0, -weight]), push_height_m)

    assert push_to_tip_n(mass, edge, push_height_m) == pytest.approx(largest(upright, 0.0, 100.0), rel=1e-4)


def test_work_to_tip_is_the_push_summed_along_the_way() -> None:
    """The moment that tilts it, summed over the angle until the centre stands above the edge (trapezoids, NumPy)."""
    mass, edge, height = 3.0, 0.07, 0.22
    angle = np.linspace(0.0, tip_angle_rad(edge, height), 20001)
    moment = mass * GRAVITY_M_S2 * (edge * np.cos(angle) - height * np.sin(angle))
    assert energy_to_tip_j(mass, edge, height) == pytest.approx(float(np.trapezoid(moment, angle)), rel=1e-6)


@pytest.mark.parametrize(("radius_m", "depth_m", "tilt_deg"), [(0.10, 0.06, 4), (0.08, 0.15, 8), (0.15, 0.08, 3)])
def test_free_water_moves_as_the_metacentre_says(radius_m: float, depth_m: float, tilt_deg: float) -> None:
    """A straight round vessel, tilted: its water summed in columns moves sideways by BM·tan(tilt)."""
    grid = (np.arange(800) + 0.5) / 400 - 1
    x, y = np.meshgrid(radius_m * grid, radius_m * grid)
    inside = x**2 + y**2 < radius_m**2
    column = depth_m + x[inside] * math.tan(math.radians(tilt_deg))
    assert column.min() > 0
    moved = float((column * x[inside]).sum() / column.sum())
    vessel = replace(catalogue()["low-bowl-20"], plan_shape="round")
    straight = tuple(
        replace(vessel.profile[0], height_m=h, width_m=2 * radius_m, depth_m=2 * radius_m) for h in (0.0, 0.3)
    )
    vessel = replace(vessel, profile=straight)
    turning, _ = vessels.surface_second_moment_m4(vessel, depth_m)
    rise = water_rise_m(turning, vessels.volume_below_l(vessel, depth_m))
    assert rise == pytest.approx(radius_m**2 / (4 * depth_m), rel=1e-3)
    assert moved == pytest.approx(rise * math.tan(math.radians(tilt_deg)), rel=5e-3)
