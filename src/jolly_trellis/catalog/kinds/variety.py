"""Varieties of flowers and greens: sizes, weights, water, buying, names, hazards."""

from dataclasses import replace
from functools import partial
from typing import Any

from jolly_trellis.catalog.about import About, Shown, View, declare, whence
from jolly_trellis.catalog.cells import Row, provenance
from jolly_trellis.core.materials.stems import Variety, VarietyProvenance, check_kind
from jolly_trellis.core.plan.field_table import field_table

_GROUPS = tuple(field_table(VarietyProvenance))


def _kind_of(group: str, variety: Any) -> str:
    return str(getattr(variety.provenance, group).kind)


def _whole(row: Row, values: dict[str, Any]) -> None:
    groups = {each: provenance(row, f"{each}_provenance") for each in _GROUPS}
    values["provenance"] = VarietyProvenance(**groups)


def _follows(variety: Any, kept: Any) -> Any:
    """What goes with another kind: what keeps drinks nothing and opens nothing, what is gathered has no price."""
    if kept is None or kept.kind == variety.kind:
        return variety
    if variety.lasting:
        variety = replace(variety, uptake_ml_h=0.0, conditioning_h=0.0, opening_days=0.0)
    return replace(variety, bunch_price=None, stem_price=None) if variety.gathered else variety


VARIETY = declare(
    About(
        kind="variety",
        place=50,
        title="Varieties",
        plural="varieties",
        thing=Variety,
        file="varieties.csv",
        views=(
            View(
                words="Sizes and water",
                fields=(
                    Shown("head_diameter_m", "head"),
                    Shown("heads", "heads"),
                    Shown("stem_diameter_m", "stem"),
                    Shown("mass_kg", "weight"),
                    Shown("mass_length_m", "weighed at"),
                    Shown("uptake_ml_h", "drinks, ml/h"),
                    Shown("dry_hold_h", "dry hold, h", "ratio"),
                ),
            ),
            View(
                words="Buying and days",
                fields=(
                    Shown("bunch_size", "bunch"),
                    Shown("bunch_price", "price of it"),
                    Shown("stem_price", "of a stem"),
                    Shown("priced_on", "asked on", "day"),
                    Shown("currency", "in"),
                    Shown("conditioning_h", "drinks before, h", "ratio"),
                    Shown("opening_days", "opens in, days"),
                    Shown("care", "while it drinks"),
                ),
            ),
            View(
                words="Kind, names, season, hazards",
                fields=(
                    Shown("kind", "kind"),
                    Shown("botanical", "botanical name"),
                    Shown("names", "other names"),
                    Shown("season", "months, 1 to 12"),
                    Shown("hazards", "hazards"),
                ),
            ),
        ),
        apart={f"{group}_provenance": whence(f"{group}_provenance", partial(_kind_of, group)) for group in _GROUPS},
        whole=_whole,
        check=check_kind,
        follows=_follows,
        named_by_plans=True,
        figures={
            "hazards": "hazard",
            "head_diameter_m": "size",
            "stem_diameter_m": "size",
            "mass_kg": "mass",
            "mass_length_m": "mass",
            "uptake_ml_h": "uptake",
            "dry_hold_h": "dry_hold",
            "bunch_price": "price",
            "stem_price": "price",
            "conditioning_h": "opening",
            "opening_days": "opening",
        },
    )
)
