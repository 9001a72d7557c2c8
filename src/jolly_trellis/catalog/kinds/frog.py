"""Frogs of all kinds."""

from typing import Any

from jolly_trellis.catalog.about import About, Shown, View, declare, whence
from jolly_trellis.catalog.cells import Row, provenance
from jolly_trellis.core.materials.frogs import Frog


def _whole(row: Row, values: dict[str, Any]) -> None:
    values["provenance"] = provenance(row, "provenance")


FROG = declare(
    About(
        kind="frog",
        place=40,
        title="Frogs",
        plural="frogs",
        thing=Frog,
        file="frogs.csv",
        views=(
            View(
                words="",
                fields=(
                    Shown("width_m", "across"),
                    Shown("height_m", "high"),
                    Shown("mass_kg", "weight"),
                    Shown("opening_m", "opening"),
                    Shown("openings", "openings"),
                    Shown("price", "price"),
                ),
            ),
        ),
        apart={"provenance": whence("provenance")},
        whole=_whole,
        named_by_plans=True,
    )
)
