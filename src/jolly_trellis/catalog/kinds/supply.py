"""Supplies that are used up: tape, wire, string, tubes, rods."""

from typing import Any

from jolly_trellis.catalog.about import About, Shown, View, declare, whence
from jolly_trellis.catalog.cells import BadCell, Row, provenance
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.quantities import phrase


def _whole(row: Row, values: dict[str, Any]) -> None:
    values["provenance"] = provenance(row, "provenance")
    if values["measured_by"] == "stick" and values.get("stick_m") is None:
        raise BadCell("stick_m", "A stick has no length here. Give how long one is, in metres, such as 0.9.")


def _check(supply: Any) -> None:
    if supply.measured_by == "stick" and supply.stick_m is None:
        raise InvalidMeasure(
            path="stick_m",
            message=phrase("It is not known how long one stick is."),
            limit=phrase("Give how long one is first."),
        )


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
                    Shown("pack", "in a pack: pieces, m or kg"),
                    Shown("stick_m", "one is long"),
                    Shown("price", "price of it"),
                    Shown("spare", "spare", "percent"),
                ),
            ),
        ),
        apart={"provenance": whence("provenance")},
        whole=_whole,
        check=_check,
    )
)
