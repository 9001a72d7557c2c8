"""Vessels: a profile each, drawn at one scale."""

import math
from typing import Any

from jolly_trellis.catalog.about import About, Column, declare
from jolly_trellis.catalog.cells import BadCell, Row, plain
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel, check_vessel
from jolly_trellis.core.plan_shapes import SHAPES

CORNER = "^"  # after a point of a profile at which the outline bends sharply


def _read_profile(row: Row) -> tuple[ProfilePoint, ...]:
    points = []
    for text in row["profile_cm"].split():
        height, _, size = text.removesuffix(CORNER).partition(":")
        width, _, depth = size.partition("x")
        try:
            values = [float(each) / 100 for each in (height, width, depth or width)]
        except ValueError:
            raise BadCell("profile_cm", f"“{text[:30]}” is no measure. Type height:size, such as 9.5:20.") from None
        if not all(math.isfinite(each) and 0 <= each <= 5 for each in values):
            raise BadCell("profile_cm", f"“{text[:30]}” is out of range. Give centimetres, up to 500.")
        corner = text.endswith(CORNER)
        points.append(ProfilePoint(height_m=values[0], width_m=values[1], depth_m=values[2], corner=corner))
    return tuple(points)


def _write_profile(vessel: Any) -> str:
    alike = SHAPES[vessel.plan_shape].even
    return " ".join(
        f"{plain(p.height_m, 1e-2)}:{plain(p.width_m, 1e-2)}"
        + ("" if alike else f"x{plain(p.depth_m, 1e-2)}")
        + (CORNER if p.corner else "")
        for p in vessel.profile
    )


VESSEL = declare(
    About(
        kind="vessel",
        place=10,
        title="Vessels",
        plural="vessels",
        thing=Vessel,
        file="vessels.csv",
        apart={"profile_cm": Column(name="profile_cm", optional=False, read=_read_profile, write=_write_profile)},
        check=check_vessel,
        side={"vessel_profile": "vessel_key"},
        added=True,
    )
)
