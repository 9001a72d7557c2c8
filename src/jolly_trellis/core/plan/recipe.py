"""What a piece is made of: lines of stems, each with what it drinks from, and stems placed by hand."""

from dataclasses import dataclass
from typing import Annotated, Literal

from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.plan.passage import GoesIn
from jolly_trellis.core.ranges import Many, Range, Text

Feet = Literal["on the floor", "to the water"]
WaterSource = Literal["vessel", "tube", "wrap", "cup", "none"]
Goes = Literal["woven", "pushed in", "hung"]
Shading = Literal["mixed", "clusters", "along", "far side"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StemTube:
    """A capped tube of water on one stem: inner diameter and length, the air left at the cap, how far the stem goes
    in, the angle of its mouth from upright (0 upright, π cap down), the share filled, and whether its cap seals.
    """

    inner_diameter_m: Annotated[float, Range("length", 0.004, 0.1)] = 0.014
    length_m: Annotated[float, Range("length", 0.02, 0.5)] = 0.09
    air_gap_m: Annotated[float, Range("length", 0, 0.2)] = 0.005
    stem_in_m: Annotated[float, Range("length", 0, 0.5, above=True)] = 0.06
    tilt_rad: Annotated[float, Range("angle", 0, 3.1416)] = 0.0
    fill_share: Annotated[float, Range("ratio", 0, 1)] = 1.0
    cap_seals: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Shade:
    """So many stems of a line in one colour of its variety, by the name people call it."""

    name: Annotated[str, Text(40, least=1)]
    colour: Annotated[str, Text(7, like="#[0-9a-f]{6}", such="#c8566b")]
    count: Annotated[int, Range("count", 1, 400)]


@dataclass(frozen=True, slots=True, kw_only=True)
class RecipeLine:
    """Stems of one variety in one role, pushed in singly or in clumps.

    `water` says where they drink: the vessel, a tube each, a wet wrap per clump (`wrap_ml`), a spike cup per clump
    (`cup_ml`, on a rod of `rod_m`, None worked out), or nowhere. `feet` tells stems that stand in the vessel
    otherwise than the piece's. `goes_in` tells when they go in: with the piece, only where it is shown, after it is
    moved, or last before guests come; with `goes_in_n` so many of them do, and the rest go with the piece.

    `shades` are colours of some of its stems, the rest have the variety's own; `shading` how they lie: mixed, side by
    side, from left to right, each on both sides. With `shoot` they are side shoots taken off stems of the variety that
    are bought anyway.

    In hung and wrapped work, `goes` tells how they go in: woven along the armature, pushed in and standing out at
    `out_rad` to it (None: square), or hung by a hook with their tips `drop_m` under it (None: as its drop curve says).
    None is as the armature has it. `cut_m` is what they are cut to, None as the armature says.
    """

    variety: Annotated[str, Text(60, least=1)]
    count: Annotated[int, Range("count", 1, 400)]
    role: Role
    clump: Annotated[int, Range("count", 1, 40)] = 1
    water: WaterSource = "vessel"
    tube: StemTube | None = None
    wrap_ml: Annotated[float | None, Range("ratio", 0, 5000, above=True)] = None
    goes_in: GoesIn = "with the piece"
    goes_in_n: Annotated[int | None, Range("count", 1, 400)] = None
    shades: Annotated[tuple[Shade, ...], Many(24)] = ()
    shading: Shading = "mixed"
    shoot: bool = False
    goes: Goes | None = None
    out_rad: Annotated[float | None, Range("angle", 0, 1.5708)] = None
    drop_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    cut_m: Annotated[float | None, Range("length", 0.02, 3)] = None
    cup_ml: Annotated[float | None, Range("ratio", 5, 1000)] = None
    rod_m: Annotated[float | None, Range("length", 0.05, 2)] = None
    feet: Feet | None = None

    def going_in(self, when: GoesIn) -> int:
        """How many of its stems go in at a time."""
        apart = self.count if self.goes_in_n is None else min(self.goes_in_n, self.count)
        if self.goes_in == "with the piece":
            return self.count if when == "with the piece" else 0
        return apart if when == self.goes_in else self.count - apart if when == "with the piece" else 0


@dataclass(frozen=True, slots=True, kw_only=True)
class HandPlaced:
    """A stem put where a hand wants it: its variety and the place of its tip, metres in the vessel's frame."""

    variety: Annotated[str, Text(60, least=1)]
    tip_x_m: Annotated[float, Range("length", -3, 3)]
    tip_y_m: Annotated[float, Range("length", -3, 3)]
    tip_z_m: Annotated[float, Range("length", 0, 5)]
