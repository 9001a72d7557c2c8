"""Supplies that are used up: tape, wire, string, tubes, rods."""

from typing import Any

from jolly_trellis.catalog.about import About, Shown, View, declare, whence
from jolly_trellis.catalog.cells import BadCell, Row, provenance
from jolly_trellis.core.materials.supplies import Supply


def _whole(row: Row, values: dict[str, Any]) -> None:
    values["provenance"] = provenance(row, "provenance")
    if values["measured_by"] == "stick" and values.get("stick_m") is None:
        raise BadCell("stick_m", "A stick has no length here. Give how long one is, in metres, such as 0.9.")


SUPPLY = declare(
    About(
        kind="supply",
        place=60,
        title="Supplies",
        plural="supplies",
        thing=Supply,
        file="supplies.csv",
        views=(
            View(
                words="",
                fields=(
                    Shown("measured_by", "counted by"),
                    Shown("pack", "in a pack"),
                    Shown("stick_m", "one is long"),
                    Shown("price", "price of it"),
                    Shown("spare", "spare", "percent"),
                ),
            ),
        ),
        apart={"provenance": whence("provenance")},
        whole=_whole,
    )
)
