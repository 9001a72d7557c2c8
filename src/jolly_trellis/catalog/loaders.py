"""Typed loaders of the catalogue's CSV files."""

import csv
from importlib.resources import files

from jolly_trellis.core.frogs import Frog
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.provenance import PROVENANCE_KINDS, Provenance
from jolly_trellis.core.stems import Variety, VarietyProvenance
from jolly_trellis.core.vessels import ProfilePoint, Vessel

Row = dict[str, str]


def varieties() -> tuple[Variety, ...]:
    """Every variety of the catalogue, in file order."""
    return tuple(_variety(row) for row in _rows("varieties.csv"))


def nettings() -> tuple[Netting, ...]:
    """Every netting of the catalogue, in file order."""
    return tuple(_netting(row) for row in _rows("netting.csv"))


def vessels() -> tuple[tuple[str, Vessel], ...]:
    """(key, vessel) for every vessel of the catalogue, in file order."""
    return tuple((row["key"], _vessel(row)) for row in _rows("vessels.csv"))


def frogs() -> tuple[Frog, ...]:
    """Every frog of the catalogue, in file order."""
    return tuple(_frog(row) for row in _rows("frogs.csv"))


def _frog(row: Row) -> Frog:
    return Frog(
        key=row["key"],
        name=row["name"],
        kind=row["kind"],  # type: ignore[arg-type]
        width_m=float(row["width_mm"]) / 1000,
        height_m=float(row["height_mm"]) / 1000,
        mass_kg=float(row["mass_g"]) / 1000,
        opening_m=float(row["opening_mm"]) / 1000,
        openings=int(row["openings"]),
        volume_l=float(row["volume_ml"]) / 1000,
        price=float(row["price"]),
        provenance=_provenance(row, "provenance"),
    )


def _rows(name: str) -> list[Row]:
    text = (files("jolly_trellis.catalog") / name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


def _provenance(row: Row, column: str) -> Provenance:
    kind = row[column]
    for known in PROVENANCE_KINDS:
        if kind == known:
            return Provenance(kind=known, source=row["provenance_note"])
    raise ValueError(f"{row['key']}: {column} is {kind!r}, not one of {PROVENANCE_KINDS}")


def _variety(row: Row) -> Variety:
    return Variety(
        key=row["key"],
        name=row["name"],
        colour=row["colour"],
        form=row["form"],  # type: ignore[arg-type]  # closed choices are checked by tests/catalog
        head_diameter_m=float(row["head_diameter_mm"]) / 1000,
        head_height_m=float(row["head_height_mm"]) / 1000,
        stem_diameter_m=float(row["stem_diameter_mm"]) / 1000,
        mass_kg=float(row["mass_g"]) / 1000,
        mass_length_m=float(row["mass_length_cm"]) / 100,
        head_fraction=float(row["head_fraction"]),
        heavy_mass_kg=float(row["heavy_mass_g"]) / 1000 if row["heavy_mass_g"] else None,
        stiffness=row["stiffness"],  # type: ignore[arg-type]
        branch=row["branch"] == "1",
        uptake_ml_h=float(row["uptake_ml_h"]),
        dry_hold_h=float(row["dry_hold_h"]),
        thirst=row["thirst"],  # type: ignore[arg-type]
        bunch_size=int(row["bunch_size"]),
        sold_lengths_m=tuple(float(each) / 100 for each in row["sold_lengths_cm"].split()),
        toxic=row["toxic"] == "1",
        thorny=row["thorny"] == "1",
        provenance=VarietyProvenance(
            size=_provenance(row, "size_provenance"),
            mass=_provenance(row, "mass_provenance"),
            uptake=_provenance(row, "uptake_provenance"),
            dry_hold=_provenance(row, "dry_hold_provenance"),
            hazard=_provenance(row, "hazard_provenance"),
        ),
    )


def _netting(row: Row) -> Netting:
    return Netting(
        key=row["key"],
        name=row["name"],
        aperture_m=float(row["aperture_mm"]) / 1000,
        wire_m=float(row["wire_mm"]) / 1000,
        finish=row["finish"],  # type: ignore[arg-type]
        roll_width_m=float(row["roll_width_m"]),
        roll_length_m=float(row["roll_length_m"]),
        price=float(row["price"]),
        provenance=_provenance(row, "size_provenance"),
    )


def _vessel(row: Row) -> Vessel:
    return Vessel(
        name=row["name"],
        plan_shape=row["plan_shape"],  # type: ignore[arg-type]
        profile=tuple(_point(each) for each in row["profile_cm"].split()),
        wall_m=float(row["wall_mm"]) / 1000,
        base_m=float(row["base_mm"]) / 1000,
        foot_width_m=float(row["foot_width_cm"]) / 100,
        foot_depth_m=float(row["foot_depth_cm"]) / 100,
        mass_kg=float(row["mass_g"]) / 1000,
        material=row["material"],  # type: ignore[arg-type]
        clear=row["clear"] == "1",
        provenance="estimate",
    )


def _point(text: str) -> ProfilePoint:
    """ "height:width" or "height:widthxdepth", in centimetres."""
    height, size = text.split(":")
    width, _, depth = size.partition("x")
    return ProfilePoint(height_m=float(height) / 100, width_m=float(width) / 100, depth_m=float(depth or width) / 100)
