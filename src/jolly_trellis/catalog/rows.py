"""How a row of each table of the stores becomes a thing and back, with its units in the column names."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, get_args

from jolly_trellis.catalog.cells import (
    BadCell,
    Row,
    choice,
    flag,
    maybe,
    number,
    provenance,
    whole,
)
from jolly_trellis.core.frogs import Frog, FrogKind
from jolly_trellis.core.netting import Finish, Netting, pitch_across_m
from jolly_trellis.core.provenance import PROVENANCE_KINDS
from jolly_trellis.core.stems import HeadForm, Stiffness, Thirst, Variety, VarietyProvenance
from jolly_trellis.core.supplies import MEASURED_BY, SUPPLIERS, Supply
from jolly_trellis.core.vessels import Material, PlanShape, ProfilePoint, Vessel, check_vessel

StoreKind = Literal["vessel", "netting", "frog", "variety", "supply"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """The columns of one kind, in order, and how a row becomes a thing and back."""

    columns: tuple[str, ...]
    optional: frozenset[str]
    read: Callable[[Row], Any]
    write: Callable[[str, Any], Row]


def _read_vessel(row: Row) -> Vessel:
    points = []
    for text in row["profile_cm"].split():
        height, _, size = text.partition(":")
        width, _, depth = size.partition("x")
        try:
            values = [float(each) / 100 for each in (height, width, depth or width)]
        except ValueError:
            raise BadCell("profile_cm", f"“{text[:30]}” is no measure. Type height:size, such as 9.5:20.") from None
        if not all(math.isfinite(each) and 0 <= each <= 5 for each in values):
            raise BadCell("profile_cm", f"“{text[:30]}” is out of range. Give centimetres, up to 500.")
        points.append(ProfilePoint(height_m=values[0], width_m=values[1], depth_m=values[2]))
    vessel = Vessel(
        name=row["name"],
        plan_shape=choice(row, "plan_shape", get_args(PlanShape)),
        profile=tuple(points),
        wall_m=number(row, "wall_mm", scale=1e-3, least=0.5, most=100),
        base_m=number(row, "base_mm", scale=1e-3, most=1000),
        foot_width_m=maybe(row, "foot_width_cm", scale=1e-2, least=0.1, most=500),
        foot_depth_m=maybe(row, "foot_depth_cm", scale=1e-2, least=0.1, most=500),
        mass_kg=maybe(row, "mass_g", scale=1e-3, least=1, most=200_000),
        material=choice(row, "material", get_args(Material)),
        clear=flag(row, "clear"),
        provenance=choice(row, "provenance", PROVENANCE_KINDS, "measured"),
    )
    check_vessel(vessel)
    return vessel


def _write_vessel(key: str, vessel: Vessel) -> Row:
    alike = vessel.plan_shape in ("round", "square")
    profile = " ".join(
        f"{_plain(100 * p.height_m)}:{_plain(100 * p.width_m)}" + ("" if alike else f"x{_plain(100 * p.depth_m)}")
        for p in vessel.profile
    )
    return {
        "key": key,
        "name": vessel.name,
        "plan_shape": vessel.plan_shape,
        "profile_cm": profile,
        "wall_mm": _plain(1000 * vessel.wall_m),
        "base_mm": _plain(1000 * vessel.base_m),
        "foot_width_cm": _plain(vessel.foot_width_m, 100),
        "foot_depth_cm": _plain(vessel.foot_depth_m, 100),
        "mass_g": _plain(vessel.mass_kg, 1000),
        "material": vessel.material,
        "clear": str(int(vessel.clear)),
        "provenance": vessel.provenance,
    }


def _read_netting(row: Row) -> Netting:
    netting = Netting(
        key=row["key"],
        name=row["name"],
        aperture_m=number(row, "aperture_mm", scale=1e-3, least=5, most=100),
        wire_m=number(row, "wire_mm", scale=1e-3, least=0.4, most=2),
        finish=choice(row, "finish", get_args(Finish)),
        roll_width_m=number(row, "roll_width_m", least=0.05, most=5),
        roll_length_m=number(row, "roll_length_m", least=0.1, most=200),
        price=maybe(row, "price", most=10_000),
        counted_cells=whole(row, "counted_cells", least=1, most=500) if row["counted_cells"] else None,
        counted_length_m=maybe(row, "counted_length_cm", scale=1e-2, least=1, most=500),
        provenance=provenance(row, "size_provenance"),
    )
    pitch_across_m(netting)
    return netting


def _write_netting(key: str, netting: Netting) -> Row:
    return {
        "key": key,
        "name": netting.name,
        "aperture_mm": _plain(1000 * netting.aperture_m),
        "wire_mm": _plain(1000 * netting.wire_m),
        "finish": netting.finish,
        "roll_width_m": _plain(netting.roll_width_m),
        "roll_length_m": _plain(netting.roll_length_m),
        "price": _plain(netting.price),
        "counted_cells": _plain(netting.counted_cells),
        "counted_length_cm": _plain(netting.counted_length_m, 100),
        "size_provenance": netting.provenance.kind,
        "provenance_note": netting.provenance.source,
    }


def _read_frog(row: Row) -> Frog:
    return Frog(
        key=row["key"],
        name=row["name"],
        kind=choice(row, "kind", get_args(FrogKind)),
        width_m=number(row, "width_mm", scale=1e-3, least=10, most=500),
        height_m=number(row, "height_mm", scale=1e-3, least=5, most=300),
        mass_kg=number(row, "mass_g", scale=1e-3, least=1, most=20_000),
        opening_m=number(row, "opening_mm", scale=1e-3, least=1, most=60),
        openings=whole(row, "openings", most=500),
        volume_l=number(row, "volume_ml", scale=1e-3, most=5000),
        price=maybe(row, "price", most=10_000),
        provenance=provenance(row, "provenance"),
    )


def _write_frog(key: str, frog: Frog) -> Row:
    return {
        "key": key,
        "name": frog.name,
        "kind": frog.kind,
        "width_mm": _plain(1000 * frog.width_m),
        "height_mm": _plain(1000 * frog.height_m),
        "mass_g": _plain(1000 * frog.mass_kg),
        "opening_mm": _plain(1000 * frog.opening_m),
        "openings": str(frog.openings),
        "volume_ml": _plain(1000 * frog.volume_l),
        "price": _plain(frog.price),
        "provenance": frog.provenance.kind,
        "provenance_note": frog.provenance.source,
    }


def _read_variety(row: Row) -> Variety:
    colour = row["colour"].lower()
    if len(colour) != 7 or colour[0] != "#" or any(each not in "0123456789abcdef" for each in colour[1:]):
        raise BadCell("colour", f"“{row['colour'][:20]}” is no colour. Type one such as #c8566b.")
    lengths = []
    for text in row["sold_lengths_cm"].split():
        lengths.append(number({"sold_lengths_cm": text}, "sold_lengths_cm", scale=1e-2, least=1, most=400))
    if not lengths:
        raise BadCell("sold_lengths_cm", "No length is given. Type the lengths it is sold at, such as 40 50 60.")
    return Variety(
        key=row["key"],
        name=row["name"],
        colour=colour,
        form=choice(row, "form", get_args(HeadForm)),
        head_diameter_m=number(row, "head_diameter_mm", scale=1e-3, least=1, most=1000),
        head_height_m=number(row, "head_height_mm", scale=1e-3, least=1, most=1500),
        stem_diameter_m=number(row, "stem_diameter_mm", scale=1e-3, least=0.5, most=80),
        mass_kg=number(row, "mass_g", scale=1e-3, least=0.5, most=5000),
        mass_length_m=number(row, "mass_length_cm", scale=1e-2, least=3, most=400),
        head_fraction=number(row, "head_fraction", least=0.01, most=0.99),
        heavy_mass_kg=maybe(row, "heavy_mass_g", scale=1e-3, least=0.5, most=8000),
        stiffness=choice(row, "stiffness", get_args(Stiffness)),
        branch=flag(row, "branch"),
        uptake_ml_h=number(row, "uptake_ml_h", most=100),
        dry_hold_h=number(row, "dry_hold_h", most=2000),
        thirst=choice(row, "thirst", get_args(Thirst)),
        bunch_size=whole(row, "bunch_size", least=1, most=500),
        sold_lengths_m=tuple(lengths),
        toxic=flag(row, "toxic"),
        thorny=flag(row, "thorny"),
        bulb=flag(row, "bulb"),
        forked=flag(row, "forked"),
        dip=flag(row, "dip"),
        fold=flag(row, "fold"),
        side_shoots=whole(row, "side_shoots", least=0, most=40) if row["side_shoots"] else 0,
        bunch_price=maybe(row, "bunch_price", most=10_000),
        stem_price=maybe(row, "stem_price", most=10_000),
        conditioning_h=number(row, "conditioning_h", most=72) if row["conditioning_h"] else 6.0,
        opening_days=number(row, "opening_days", most=60) if row["opening_days"] else 0.0,
        provenance=VarietyProvenance(
            size=provenance(row, "size_provenance"),
            mass=provenance(row, "mass_provenance"),
            uptake=provenance(row, "uptake_provenance"),
            dry_hold=provenance(row, "dry_hold_provenance"),
            hazard=provenance(row, "hazard_provenance"),
            price=provenance(row, "price_provenance"),
            opening=provenance(row, "opening_provenance"),
        ),
    )


def _write_variety(key: str, variety: Variety) -> Row:
    known = variety.provenance
    return {
        "key": key,
        "name": variety.name,
        "colour": variety.colour,
        "form": variety.form,
        "head_diameter_mm": _plain(1000 * variety.head_diameter_m),
        "head_height_mm": _plain(1000 * variety.head_height_m),
        "stem_diameter_mm": _plain(1000 * variety.stem_diameter_m),
        "mass_g": _plain(1000 * variety.mass_kg),
        "mass_length_cm": _plain(100 * variety.mass_length_m),
        "head_fraction": _plain(variety.head_fraction),
        "heavy_mass_g": _plain(variety.heavy_mass_kg, 1000),
        "stiffness": variety.stiffness,
        "branch": str(int(variety.branch)),
        "uptake_ml_h": _plain(variety.uptake_ml_h),
        "dry_hold_h": _plain(variety.dry_hold_h),
        "thirst": variety.thirst,
        "bunch_size": str(variety.bunch_size),
        "bunch_price": _plain(variety.bunch_price),
        "stem_price": _plain(variety.stem_price),
        "sold_lengths_cm": " ".join(_plain(100 * each) for each in variety.sold_lengths_m),
        "toxic": str(int(variety.toxic)),
        "thorny": str(int(variety.thorny)),
        "bulb": str(int(variety.bulb)),
        "forked": str(int(variety.forked)),
        "dip": str(int(variety.dip)),
        "fold": str(int(variety.fold)),
        "side_shoots": str(variety.side_shoots),
        "conditioning_h": _plain(variety.conditioning_h),
        "opening_days": _plain(variety.opening_days),
        "size_provenance": known.size.kind,
        "mass_provenance": known.mass.kind,
        "uptake_provenance": known.uptake.kind,
        "dry_hold_provenance": known.dry_hold.kind,
        "hazard_provenance": known.hazard.kind,
        "price_provenance": known.price.kind,
        "opening_provenance": known.opening.kind,
        "provenance_note": known.size.source,
    }


def _read_supply(row: Row) -> Supply:
    measured_by = choice(row, "measured_by", MEASURED_BY)
    if measured_by == "stick" and not row["stick_m"]:
        raise BadCell("stick_m", "A stick has no length here. Give how long one is, in metres, such as 0.9.")
    return Supply(
        key=row["key"],
        name=row["name"],
        measured_by=measured_by,
        pack=number(row, "pack", least=0.001, most=10_000),
        stick_m=maybe(row, "stick_m", least=0.01, most=10),
        price=maybe(row, "price", most=10_000),
        spare=number(row, "spare", most=2) if row["spare"] else 0.0,
        supplier=choice(row, "supplier", SUPPLIERS),
        provenance=provenance(row, "provenance"),
    )


def _write_supply(key: str, supply: Supply) -> Row:
    return {
        "key": key,
        "name": supply.name,
        "measured_by": supply.measured_by,
        "pack": _plain(supply.pack),
        "stick_m": _plain(supply.stick_m),
        "price": _plain(supply.price),
        "spare": _plain(supply.spare),
        "supplier": supply.supplier,
        "provenance": supply.provenance.kind,
        "provenance_note": supply.provenance.source,
    }


def _plain(value: float | None, scale: float = 1.0) -> str:
    return "" if value is None else f"{round(value * scale, 4):.10g}"


TABLES: dict[StoreKind, Table] = {
    "vessel": Table(
        columns=(
            "key", "name", "plan_shape", "profile_cm", "wall_mm", "base_mm", "foot_width_cm", "foot_depth_cm",
            "mass_g", "material", "clear", "provenance",
        ),
        optional=frozenset({"foot_width_cm", "foot_depth_cm", "mass_g", "provenance"}),
        read=_read_vessel,
        write=_write_vessel,
    ),
    "netting": Table(
        columns=(
            "key", "name", "aperture_mm", "wire_mm", "finish", "roll_width_m", "roll_length_m", "price",
            "counted_cells", "counted_length_cm", "size_provenance", "provenance_note",
        ),
        optional=frozenset({"price", "counted_cells", "counted_length_cm", "size_provenance", "provenance_note"}),
        read=_read_netting,
        write=_write_netting,
    ),
    "frog": Table(
        columns=(
            "key", "name", "kind", "width_mm", "height_mm", "mass_g", "opening_mm", "openings", "volume_ml", "price",
            "provenance", "provenance_note",
        ),
        optional=frozenset({"price", "provenance", "provenance_note"}),
        read=_read_frog,
        write=_write_frog,
    ),
    "variety": Table(
        columns=(
            "key", "name", "colour", "form", "head_diameter_mm", "head_height_mm", "stem_diameter_mm", "mass_g",
            "mass_length_cm", "head_fraction", "heavy_mass_g", "stiffness", "branch", "uptake_ml_h", "dry_hold_h",
            "thirst", "bunch_size", "bunch_price", "stem_price", "sold_lengths_cm", "toxic", "thorny", "bulb",
            "forked", "dip", "fold",
            "side_shoots", "conditioning_h", "opening_days", "size_provenance", "mass_provenance",
            "uptake_provenance", "dry_hold_provenance", "hazard_provenance", "price_provenance",
            "opening_provenance", "provenance_note",
        ),
        optional=frozenset(
            {
                "heavy_mass_g", "size_provenance", "mass_provenance", "uptake_provenance", "dry_hold_provenance",
                "hazard_provenance", "provenance_note", "bulb", "forked", "dip", "fold", "side_shoots", "bunch_price",
                "stem_price", "conditioning_h", "opening_days", "price_provenance", "opening_provenance",
            }
        ),
        read=_read_variety,
        write=_write_variety,
    ),
    "supply": Table(
        columns=(
            "key", "name", "measured_by", "pack", "stick_m", "price", "spare", "supplier", "provenance",
            "provenance_note",
        ),
        optional=frozenset({"stick_m", "price", "spare", "provenance", "provenance_note"}),
        read=_read_supply,
        write=_write_supply,
    ),
}  # fmt: skip
