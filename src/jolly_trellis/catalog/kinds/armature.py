"""Finished armatures that came home with their shape."""

from typing import Any

from jolly_trellis.catalog.about import About, declare, whence
from jolly_trellis.catalog.cells import Row, provenance
from jolly_trellis.core.materials.finished import FinishedArmature


def _whole(row: Row, values: dict[str, Any]) -> None:
    values["provenance"] = provenance(row, "provenance")


ARMATURE = declare(
    About(
        kind="armature",
        place=70,
        title="Finished armatures",
        plural="armatures",
        thing=FinishedArmature,
        file="armatures.csv",
        apart={"provenance": whence("provenance")},
        whole=_whole,
        added=True,
    )
)
