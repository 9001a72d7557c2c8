"""Netting on its rolls."""

from typing import Any

from jolly_trellis.catalog.about import About, Shown, View, declare, whence
from jolly_trellis.catalog.cells import Row, provenance
from jolly_trellis.core.materials.netting import Netting, pitch_across_m


def _whole(row: Row, values: dict[str, Any]) -> None:
    values["provenance"] = provenance(row, "size_provenance")


def _check(netting: Any) -> None:
    pitch_across_m(netting)


NETTING = declare(
    About(
        kind="netting",
        place=30,
        title="Netting",
        plural="nettings",
        thing=Netting,
        file="netting.csv",
        views=(
            View(
                words="",
                fields=(
                    Shown("aperture_m", "clear width"),
                    Shown("wire_m", "wire"),
                    Shown("roll_width_m", "roll, wide"),
                    Shown("roll_length_m", "roll, long"),
                    Shown("counted_cells", "cells counted"),
                    Shown("counted_length_m", "over"),
                    Shown("price", "price"),
                ),
            ),
        ),
        apart={"size_provenance": whence("size_provenance")},
        whole=_whole,
        check=_check,
        named_by_plans=True,
    )
)
