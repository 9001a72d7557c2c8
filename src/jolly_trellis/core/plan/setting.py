"""Where a piece stands and how it gets there: ledge, people, road, top-ups."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.ranges import Range

Surface = Literal["wood", "cloth", "stone"]
FootMaterial = Literal["glass", "glazed", "felt", "rubber"]
Where = Literal["table", "floor", "bar", "ledge"]
Behind = Literal["nothing", "greens", "weights"]


@dataclass(frozen=True, slots=True, kw_only=True)
class People:
    """Who looks: seated guests' distance from the piece and whether on both sides; how near people stand."""

    seated: bool = True
    both_sides: bool = True
    seat_distance_m: Annotated[float, Range("length", 0.2, 5)] = 0.55
    table_height_m: Annotated[float, Range("length", 0, 2)] = 0.75
    standing: bool = True
    standing_distance_m: Annotated[float, Range("length", 0.3, 10)] = 1.2
    a_little_may_show: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Ledge:
    """A shelf, sill or mantel: front to back, over the floor, and how the piece stands on it.

    `set_back_m` is from its front edge to the front of the foot; a rounded edge bears nothing within `edge_radius_m`.
    `behind` says what the owner lets stand behind the piece: nothing, greens, or weights too. `wall` tells a wall at
    its back.
    """

    depth_m: Annotated[float, Range("length", 0, 5, above=True)]
    height_m: Annotated[float, Range("length", 0, 6)]
    set_back_m: Annotated[float, Range("length", 0, 3)] = 0.0
    edge_radius_m: Annotated[float, Range("length", 0, 0.2)] = 0.0
    behind: Behind = "weights"
    wall: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class Setting:
    """Where the piece stands. `free_table_m` is the least bare table round its foot; None is not known.

    `comes_down_above` is the Beaufort force above which an outdoor piece is taken down. A piece on a ledge may be
    moved during the day: `moves_to` is where it stands then.
    """

    where: Where = "table"
    surface: Surface = "cloth"
    foot_material: FootMaterial = "glazed"
    free_table_m: Annotated[float | None, Range("length", 0, 5)] = 0.3
    outdoors: bool = False
    comes_down_above: Annotated[int, Range("count", 2, 7)] = 5
    people: People | None = field(default_factory=People)
    ledge: Ledge | None = None
    air: Air | None = None
    moves_to: Where | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Transport:
    """How the piece gets there. None is not known; `water_level_m` None lets the travelling level be worked out.

    `apart` tells a raised bowl carried apart from its support; with `lifted_out`, an insert is carried without its
    urn, and a pad that lifts off without its vessel, on a bucket.
    """

    boxed: bool = True
    box_width_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    box_depth_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    box_wall_m: Annotated[float | None, Range("length", 0, 3)] = None
    water_level_m: Annotated[float | None, Range("length", 0, 5)] = None
    overnight_level_m: Annotated[float | None, Range("length", 0, 5)] = None
    door_height_m: Annotated[float, Range("length", 0, 5, above=True)] = 1.15
    door_width_m: Annotated[float, Range("length", 0, 5, above=True)] = 1.10
    apart: bool = True
    carriers: Annotated[int, Range("count", 1, 2)] = 1
    crate: bool = False
    lifted_out: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class TopUp:
    """Water poured in during the display: hours after the first filling, and litres."""

    after_h: Annotated[float, Range("duration", 0, 240)]
    volume_l: Annotated[float, Range("volume", 0, 100, above=True)]
