"""Stands and columns that raise a bowl."""

from typing import Any

from jolly_trellis.catalog.about import About, Shown, View, declare, whence
from jolly_trellis.catalog.cells import Row, provenance
from jolly_trellis.core.materials.stands import Stand


def _whole(row: Row, values: dict[str, Any]) -> None:
    values["provenance"] = provenance(row, "provenance")


STAND = declare(
    About(
        kind="stand",
        place=20,
        title="Stands",
        plural="stands",
        thing=Stand,
        file="stands.csv",
        views=(
            View(
                words="",
                fields=(
                    Shown("height_m", "high"),
                    Shown("top_width_m", "top, across"),
                    Shown("opening_m", "opening"),
                    Shown("foot_width_m", "foot, across"),
                    Shown("column_width_m", "column"),
                    Shown("mass_kg", "weight"),
                    Shown("price", "price"),
                ),
            ),
        ),
        apart={"provenance": whence("provenance")},
        whole=_whole,
        added=True,
    )
)
