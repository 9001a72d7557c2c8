"""The book of bodies: whatever of a piece has mass, once for each load case; who weighs or balances asks here."""

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from jolly_trellis.core.acts.acts import Level
from jolly_trellis.core.acts.stances import EVERY, Stance
from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromNetting
from jolly_trellis.core.books.water import level_of_m
from jolly_trellis.core.building.build import Build, Rows
from jolly_trellis.core.building.extras import Bearer
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.netting import COATING_FACTOR_HEAVY
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.passage import GoesIn
from jolly_trellis.core.plan.piece import Support

WEIGHT_CENTRE = rule("Centre of a counterweight over the surface", "length", 0.03)
STAND_CENTRE = measure("Centre of a stand with a heavier foot, share of its height", "ratio", 0.35, most=1.0)
FLOOR_OF_SUPPORT_M = 0.01
Thing = Literal[
    "vessel",
    "water",
    "mechanic",
    "water in cups",
    "part",
    "urn",
    "support",
    "ballast water",
    "stems",
    "counterweight",
]
Case = Literal["typical", "heavy", "low"]
CASES: tuple[Case, ...] = ("typical", "heavy", "low")


@dataclass(frozen=True, slots=True, kw_only=True)
class State:
    """How a vessel stands after some act: how high its water is over the inside floor, metres, and which of its stems
    are in it, by when they go in.
    """

    level_m: float
    stems: frozenset[GoesIn] = EVERY


@dataclass(frozen=True, slots=True, kw_only=True)
class Body:
    """One thing with mass, in one load case: what it is, kg, its centre, and what bears it.

    The centre is in metres: `x_m` to the right, `y_m` to the back, `height_m` over the surface the piece stands on.
    """

    thing: Thing
    mass_kg: float
    x_m: float = 0.0
    y_m: float = 0.0
    height_m: float
    borne_by: Bearer

    @property
    def on_joint(self) -> bool:
        """Whether it comes down with the bowl when that falls off its support."""
        return self.borne_by in ("joint", "vessel", "mechanic")


@dataclass(frozen=True, slots=True, kw_only=True)
class Centre:
    """Mass of some bodies together, kg, and their common centre, metres; zeros where there is none."""

    mass_kg: float
    x_m: float
    y_m: float
    height_m: float


def centre_of(bodies: tuple[Body, ...]) -> Centre:
    """Mass and centre of some bodies. Source: first moments."""
    total = sum(each.mass_kg for each in bodies)
    if total <= 0:
        return Centre(mass_kg=0.0, x_m=0.0, y_m=0.0, height_m=0.0)
    return Centre(
        mass_kg=total,
        x_m=sum(each.mass_kg * each.x_m for each in bodies) / total,
        y_m=sum(each.mass_kg * each.y_m for each in bodies) / total,
        height_m=sum(each.mass_kg * each.height_m for each in bodies) / total,
    )


def standing_together(build: Build) -> tuple[tuple[Build, float, float], ...]:
    """The piece's own vessel and every companion tied to it, each with its middle from the own one's, metres."""
    tied = [
        (made, each.x_m, each.y_m)
        for made, each in zip(build.companions, build.piece.companions, strict=True)
        if each.tied
    ]
    return ((build, 0.0, 0.0), *tied)


def together(build: Build, case: Case) -> tuple[Body, ...]:
    """Everything that stands tied together; the stems of each vessel as one body."""
    return (*_companions(build, case, stems=True), *tied_weights(build))


def together_bare(build: Build, case: Case) -> tuple[Body, ...]:
    """Everything that stands tied together but the stems."""
    return (*_companions(build, case, stems=False), *tied_weights(build))


def on_show(build: Build, case: Case) -> State:
    """A vessel where it is shown, in a load case."""
    return State(level_m=case_level_m(build, case))


def level_m(build: Build, level: Level | None) -> float:
    """Height of the water at a level of an act, m above the inside floor (`water.level_of_m`), worked out once."""
    key = ("level", level)
    found = build.memo.get(key)
    if found is None:
        found = build.memo[key] = level_of_m(build.piece, build.mechanic, level)
    return float(found)


def after(build: Build, case: Case, stance: Stance) -> tuple[Body, ...]:
    """What stands on the piece's own foot after an act, with the weight where that is laid or tied by then."""
    state = State(level_m=level_m(build, stance.level), stems=stance.stems)
    return (*own(build, case, state), *(tied_weights(build) if stance.weight else ()))


def own(build: Build, case: Case, state: State) -> tuple[Body, ...]:
    """What stands on the piece's own foot in a state, the stems as one body."""
    key = ("own", case, state)
    found = build.memo.get(key)
    if found is None:
        found = build.memo[key] = (*own_bare(build, case, state), *_stems(build, case, state))
    return found


def own_bare(build: Build, case: Case, state: State) -> tuple[Body, ...]:
    """What stands on the piece's own foot in a state, but the stems."""
    key = ("bare", case, state.level_m)
    found = build.memo.get(key)
    if found is None:
        bare = _own_bare(build, case, state)
        # What is worn lies in its box: no vessel and no water go with it.
        boxed = is_worn(build.piece)
        found = build.memo[key] = tuple(each for each in bare if each.thing == "mechanic") if boxed else bare
    return found


def in_hand(build: Build, case: Case, stems: frozenset[GoesIn] = EVERY) -> tuple[Body, ...]:
    """What a hand carries of a bouquet: its armature and its stems with what is on them; the vase stays behind.

    Args:
        stems: which are in it, by when they go in.
    """
    whole = own(build, case, replace(on_show(build, case), stems=stems))
    return tuple(each for each in whole if each.thing in ("mechanic", "stems"))


def beside(build: Build) -> tuple[Body, ...]:
    """What lies about a piece and holds nothing of it: moss nestled round it."""
    return tuple(
        Body(thing="part", mass_kg=each.part.mass_kg, height_m=each.height_m, borne_by="beside")
        for each in build.extras
        if each.height_m is not None and each.borne_by == "beside"
    )


def tied_weights(build: Build) -> tuple[Body, ...]:
    """The counterweight, where it is tied on; one that merely stands there holds nothing."""
    weight = build.piece.counterweight
    if weight is None or not weight.tied:
        return ()
    return (
        Body(
            thing="counterweight",
            mass_kg=weight.mass_kg,
            x_m=weight.away_m * math.sin(weight.azimuth_rad),
            y_m=-weight.away_m * math.cos(weight.azimuth_rad),
            height_m=WEIGHT_CENTRE.value,
            borne_by="surface",
        ),
    )


def by_stem(build: Build, case: Case) -> tuple[Array, Array]:
    """Everything that stands tied together, each row of stems by itself: kg, shape (n,); centres, m, shape (n, 3)."""
    bare = together_bare(build, case)
    kg, at = [np.array([each.mass_kg for each in bare])], [
        np.array([(each.x_m, each.y_m, each.height_m) for each in bare]).reshape(-1, 3)
    ]  # fmt: skip
    for made, x, y in standing_together(build):
        rows = rows_in(made, case)
        kg.append(rows.mass_kg)
        at.append(rows.centre_m + np.array([x, y, made.raised_m]))
    return np.concatenate(kg), np.concatenate(at)


def rows_in(build: Build, case: Case) -> Rows:
    """The rows of stems in a load case, with what they carry; the low case has heavy stems."""
    return build.rows if case == "typical" else build.heavy_rows


def case_level_m(build: Build, case: Case) -> float:
    """Water level of a load case, metres above the inside floor.

    The low case takes the lowest level before a top-up, or dry where nobody is named to top up.
    """
    if case != "low":
        return build.piece.water_level_m
    if build.conditions.topped_up_by is None:
        return 0.0
    return 0.0 if build.courses is None else build.courses[1].lowest_level_m


def support_centre_m(support: Support) -> float:
    """Height of a bare support's centre of mass: half of a cylinder, 0.35 of a stand with a heavier foot, metres.

    Source: geometry for the cylinder; the share of a stand is an estimate.
    """
    return support.height_m * (0.5 if support.opening_m > 0 else STAND_CENTRE.value)


def support_water_height_m(support: Support) -> float:
    """Height that ballast water reaches in a support, metres, at most its height. Source: V/(π·d²/4)."""
    if support.water_l <= 0:
        return 0.0
    inside = math.pi / 4 * support.column_width_m**2
    return min(support.water_l / 1000 / inside, support.height_m)


def _companions(build: Build, case: Case, *, stems: bool) -> list[Body]:
    found = []
    for made, x, y in standing_together(build):
        of_it = (own if stems else own_bare)(made, case, on_show(made, case))
        found += [replace(each, x_m=each.x_m + x, y_m=each.y_m + y) if x or y else each for each in of_it]
    return found


def _stems(build: Build, case: Case, state: State) -> tuple[Body, ...]:
    rows = rows_in(build, case)
    there = build.placement.stems.present(state.stems)
    if not there.all():
        rows = Rows(mass_kg=rows.mass_kg * there, centre_m=rows.centre_m)
    total = float(rows.mass_kg.sum())
    if total <= 0:
        return ()
    x, y, height = (rows.mass_kg[:, None] * rows.centre_m).sum(axis=0) / total
    up = build.raised_m + float(height)
    return (
        Body(thing="stems", mass_kg=total, x_m=float(x), y_m=float(y), height_m=up, borne_by="mechanic"),
    )  # fmt: skip


def _own_bare(build: Build, case: Case, state: State) -> tuple[Body, ...]:
    piece, vessel, mechanic = build.piece, build.piece.vessel, build.mechanic
    level, base = state.level_m, build.raised_m
    heights = [each.height_m for each in mechanic.levels]
    # A bouquet's armature lies under its flowers, only its ends reach the binding.
    middle = heights[0] if piece.carried else sum(heights) / len(heights)
    hold = base + vessel.base_m + middle
    coating = 1.0
    if case != "typical" and build.netting is not None and build.netting.finish == "coated":
        coating = COATING_FACTOR_HEAVY.value
    wire = mechanic.mass_kg + sum(each.sheet.mass_kg for each in mechanic.flat) * (coating - 1.0)
    soaked = mechanic.absorbed_l if mechanic.flat else 0.0
    found = [
        Body(
            thing="vessel",
            mass_kg=vessel.mass_kg or 0.0,
            height_m=base + vessels.shell_centre_m(vessel),
            borne_by="joint" if piece.support is not None else "urn" if piece.insert is not None else "surface",
        ),
        Body(
            thing="water",
            mass_kg=build.water.volume_at_l(level),
            height_m=base + vessel.base_m + build.water.centre_at_m(level),
            borne_by="vessel",
        ),
        Body(thing="mechanic", mass_kg=wire + soaked, height_m=hold, borne_by="vessel"),
        Body(thing="water in cups", mass_kg=_in_cups_l(build, case, state), height_m=hold, borne_by="vessel"),
    ]
    for extra in build.extras:
        if extra.height_m is not None and extra.borne_by != "beside":
            kg = extra.part.mass_kg * (coating if isinstance(extra.part.taken, FromNetting) else 1.0)
            found.append(Body(thing="part", mass_kg=kg, height_m=extra.height_m, borne_by=extra.borne_by))
    if piece.insert is not None:
        outer = piece.insert.outer
        up = vessels.shell_centre_m(outer)
        found.append(Body(thing="urn", mass_kg=outer.mass_kg or 0.0, height_m=up, borne_by="surface"))
    if piece.support is not None:
        found += _support(piece.support)
    return tuple(found)


def _support(support: Support) -> list[Body]:
    wet = support_water_height_m(support) / 2 + FLOOR_OF_SUPPORT_M
    return [
        Body(
            thing="support",
            mass_kg=support.mass_kg or 0.0,
            height_m=support_centre_m(support),
            borne_by="surface",
        ),
        Body(thing="ballast water", mass_kg=support.water_l, height_m=wet, borne_by="support"),
    ]


def _in_cups_l(build: Build, case: Case, state: State) -> float:
    """Water in cups of the mechanic's own, litres: full, or as much as is left of it in the low case."""
    mechanic = build.mechanic
    if not mechanic.own_cups:
        return 0.0
    if case != "low":
        return mechanic.own_water_l
    full = build.piece.water_level_m
    return mechanic.own_water_l * state.level_m / full if full > 0 else 0.0
