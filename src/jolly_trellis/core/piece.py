"""The plan of a piece as it is stored, and the conditions it is judged under."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from jolly_trellis.core.netting import Netting
from jolly_trellis.core.stems import Role, Variety
from jolly_trellis.core.vessels import Vessel

Form = Literal["dome"]
Surface = Literal["wood", "cloth"]
FootMaterial = Literal["glass", "glazed", "felt", "rubber"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Envelope:
    """What was asked for: total height from the surface, overall width and front-to-back depth."""

    height_m: float
    width_m: float
    depth_m: float
    form: Form = "dome"


@dataclass(frozen=True, slots=True, kw_only=True)
class RecipeLine:
    """Stems of one variety in one role, pushed in singly or in clumps."""

    variety: str
    count: int
    role: Role
    clump: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class FoldedCushion:
    """One sheet of netting folded to layers and sprung into the mouth.

    None leaves a quantity to be worked out: the layer gap from the depth, the tuck from the cell, the tape
    strips from the net moment.
    """

    netting: str
    layers: int = 2
    layer_gap_m: float | None = None
    squeeze: float = 0.06
    tuck_m: float | None = None
    tape_strips: int | None = None
    tape_width_m: float = 0.006


@dataclass(frozen=True, slots=True, kw_only=True)
class Setting:
    """Where the piece stands. `free_table_m` is the least bare table round its foot; None is not known."""

    surface: Surface = "cloth"
    foot_material: FootMaterial = "glazed"
    free_table_m: float | None = 0.3


@dataclass(frozen=True, slots=True, kw_only=True)
class TopUp:
    """Water poured in during the display: hours after the first filling, and litres."""

    after_h: float
    volume_l: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """One made thing: vessel, envelope, mechanic, water, recipe and setting.

    `water_level_m` is above the inside floor; `ballast_kg` is stone laid on that floor.
    """

    name: str
    vessel: Vessel
    envelope: Envelope
    mechanic: FoldedCushion
    water_level_m: float
    recipe: tuple[RecipeLine, ...] = ()
    setting: Setting = field(default_factory=Setting)
    ballast_kg: float = 0.0
    top_ups: tuple[TopUp, ...] = ()
    quantity: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Air:
    """The air of a place: °C, relative humidity 0-1, draught in m/s, and whether the sun is on the piece."""

    temperature_c: float
    relative_humidity: float
    speed_m_s: float = 0.1
    sun: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Conditions:
    """What surrounds a piece: times, air, who tops up, and the studio's varieties and nettings by key.

    `filled_at` is when the display water goes in; times are aware. None is a fact nobody has given yet.
    """

    filled_at: datetime | None
    ends_at: datetime | None
    air: Air | None
    topped_up_by: str | None
    varieties: Mapping[str, Variety]
    nettings: Mapping[str, Netting]
