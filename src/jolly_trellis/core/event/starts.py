"""What a new part starts as: a vessel with an ordinary dome, a bouquet in its vase, hung and mounted work.

Hang points are unrated: nothing is said of them before somebody states it. Sizes are usual ones; common practice,
no source.
"""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.usual import USUAL, usual_line
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.piece import Envelope, Mechanic
from jolly_trellis.core.plan.practice import FillSchool, Practice
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.hang_points import HangKind
from jolly_trellis.core.rigging.rig import (
    Armature,
    ArmatureKind,
    Attachment,
    HangPoint,
    Mount,
    Rig,
    RigLine,
    Stiffness,
)

Spot = tuple[float, float, float]
Asks = Literal["nothing", "a vessel", "a vase"]

_BEAM_M, _LOW_M, _LONGER = 3.6, 2.6, 1.05


@dataclass(frozen=True, slots=True, kw_only=True)
class Given:
    """What a part is begun from: the vessel chosen for it, nettings of the stores by key, how the studio works."""

    vessel: Vessel
    nettings: Mapping[str, Netting]
    practice: Practice


@dataclass(frozen=True, slots=True, kw_only=True)
class Start:
    """One thing a part can start as; `asks` is what has to be chosen for it."""

    key: str
    kind: str
    name: str
    asks: Asks
    begin: Callable[[Given], Part]


def _half_centimetres(value: float) -> float:
    return round(value * 200) / 200


def in_vessel(given: Given) -> Standing:
    """A vessel with an ordinary dome over it, two layers of the usual netting in it, and no stems yet."""
    vessel = given.vessel
    top = vessel.profile[-1]
    mouth = max(top.width_m, 0.08)
    return Standing(
        name=vessel.name,
        vessel=vessel,
        envelope=Envelope(
            height_m=_half_centimetres(vessel.rim_m + max(0.12, 0.9 * mouth)),
            width_m=_half_centimetres(1.8 * mouth),
            depth_m=_half_centimetres(1.8 * max(top.depth_m, 0.08)),
        ),
        mechanic=Mechanic(netting=_fine(given)),
        water_level_m=_filled_m(vessel, given.practice.fill),
    )


def bound_on(kind: str, name: str, width_m: float) -> Callable[[Given], Bouquet]:
    """A bouquet on a mechanic: its vessel the vase it waits in, a dome of a usual size over it."""

    def begin(given: Given) -> Bouquet:
        vase = given.vessel
        high = max(vase.rim_m, vase.base_m + 0.1) + 0.3 * width_m + 0.08
        return Bouquet(
            name=name,
            vessel=vase,
            envelope=Envelope(height_m=_half_centimetres(high), width_m=width_m, depth_m=width_m),
            mechanic=Mechanic(kind=kind, netting=_fine(given)),
            water_level_m=_filled_m(vase, "worked out"),
        )

    return begin


def _filled_m(vessel: Vessel, fill: FillSchool) -> float:
    """The display water of a new piece over its inside floor, as the studio fills."""
    top = vessel.profile[-1].height_m
    share = {"full": 1.0, "half": 0.5}.get(fill, 0.8)
    return max(_half_centimetres(top - 0.01 if fill == "full" else top * share), 0.005)


def _fine(given: Given) -> str | None:
    """The netting of the studio's finish with the usual cell, else any."""
    usual = (
        key
        for key, each in given.nettings.items()
        if each.finish == given.practice.wire and math.isclose(each.aperture_m, 0.025)
    )
    return next(usual, next(iter(given.nettings), None))


def _open(given: Given) -> str | None:
    """The first netting of wide cells, galvanized where there is one, else any."""
    wide = [key for key, each in given.nettings.items() if each.aperture_m >= 0.05]
    plain = (key for key in wide if given.nettings[key].finish == "galvanized")
    return next(plain, next(iter(wide), next(iter(given.nettings), None)))


def _armature(given: Given, kind: ArmatureKind, length_m: float) -> Armature:
    stiffness: Stiffness = "cored" if kind == "sleeve" else "twig-stiffened"
    return Armature(kind=kind, length_m=round(length_m, 3), netting=_open(given), stiffness=stiffness)


def _empty(given: Given) -> Rig:
    return Rig(name="Hung piece", points=(), attachments=(), lines=(), armature=_armature(given, "snake", 3.0))


def _hung(name: str, armature: Armature, places: tuple[Spot, ...]) -> Rig:
    points = tuple(_point(f"point {at}", "beam loop", (x, y, _BEAM_M)) for at, (x, y, _) in enumerate(places, 1))
    return _held(name, armature, places, points)


def _held(name: str, armature: Armature, places: tuple[Spot, ...], points: tuple[HangPoint, ...]) -> Rig:
    steel = USUAL.hanger
    return Rig(
        name=name,
        points=points,
        attachments=tuple(Attachment(x_m=x, y_m=y, z_m=z) for x, y, z in places),
        lines=tuple(RigLine(attachment=at, point=at, spec=steel) for at in range(len(places))),
        armature=armature,
    )


def _point(name: str, kind: HangKind, place: Spot) -> HangPoint:
    x, y, z = place
    return HangPoint(name=name, kind=kind, x_m=x, y_m=y, z_m=z)


def _tied(name: str, armature: Armature, places: tuple[Spot, ...], kind: HangKind, word: str) -> Rig:
    """Tied all along, the ends twice; every second tie of cord, which stays when a cable tie goes."""
    last, tie = len(places) - 1, usual_line("cable tie")
    cord = USUAL.tie
    points = tuple(_point(f"{word} {at}", kind, (x, y, z + 0.03)) for at, (x, y, z) in enumerate(places, 1))
    rig = _held(name, armature, places, points)
    lines = tuple(replace(line, spec=cord if at % 2 == 0 or at == last else tie) for at, line in enumerate(rig.lines))
    twice = tuple(RigLine(attachment=at, point=at, spec=tie) for at in (0, last))
    return replace(rig, lines=(*lines, *twice), below="beside")


def _run(kind: ArmatureKind, name: str) -> Callable[[Given], Rig]:
    places: tuple[Spot, ...] = tuple((x, 0.0, _LOW_M) for x in (-1.5, 0.0, 1.5))
    return lambda given: _hung(name, _armature(given, kind, 3 * _LONGER), places)


def _panel(given: Given) -> Rig:
    corners: tuple[Spot, ...] = tuple((x, y, _LOW_M) for x, y in ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5)))
    return _hung("Hung panel", replace(_armature(given, "panel", 1.1), width_m=1.1, diameter_m=0.05), corners)


def _ring(given: Given) -> Rig:
    places: tuple[Spot, ...] = tuple((x, y, _LOW_M) for x, y in ((0.0, 0.4), (-0.35, -0.2), (0.35, -0.2)))
    return _hung("Hung ring", replace(_armature(given, "ring", 0.9), diameter_m=0.9), places)


def _hoop(given: Given) -> Rig:
    radius, middle, ties, open_rad = 0.6, 1.35, 14, math.pi / 9
    turns = [-math.pi / 2 + open_rad + (2 * math.pi - 2 * open_rad) * at / (ties - 1) for at in range(ties)]
    places: tuple[Spot, ...] = tuple(
        (round(radius * math.cos(turn), 3), 0.0, round(middle + radius * math.sin(turn), 3)) for turn in turns
    )
    armature = _armature(given, "wrapped frame", radius * (2 * math.pi - 2 * open_rad) * 1.005)
    rig = _tied("Hoop", replace(armature, turns=1.3), places, "frame member", "hoop")
    mount = Mount(
        kind="frame",
        width_m=1.2,
        height_m=1.95,
        foot_width_m=1.1,
        foot_depth_m=0.6,
        outdoors=True,
        comes_down_above=4,
    )
    return replace(rig, mount=mount)


def _column(given: Given) -> Rig:
    places: tuple[Spot, ...] = tuple((0.15, 0.0, round(0.5 + 0.25 * at, 3)) for at in range(8))
    rig = _tied("Column crawl", _armature(given, "sleeve", 1.8), places, "clamp", "band")
    return replace(rig, mount=Mount(kind="column", width_m=0.3, height_m=3.2))


def _swag(given: Given) -> Rig:
    places: tuple[Spot, ...] = tuple(
        (x, 0.0, z) for x, z in ((-0.9, 2.48), (-0.45, 2.36), (0.0, 2.32), (0.45, 2.36), (0.9, 2.48))
    )
    points = tuple(_point(f"screw {at}", "wall screw", (x, 0.0, 2.62)) for at, (x, _, _) in enumerate(places, 1))
    rig = _held("Wall swag", _armature(given, "tube", 2.0), places, points)
    return replace(rig, below="beside", mount=Mount(kind="wall"))


def _spill(given: Given) -> Rig:
    """Its upper end on two lines, each to a hook of its own: should one go, the other is there."""
    hooks = tuple(_point(f"ledge hook {at}", "eye", (x, 0.0, 1.15)) for at, x in enumerate((-0.03, 0.03), 1))
    rig = _held("Spill", _armature(given, "spill", 0.8), ((0.0, 0.0, 1.08),), hooks)
    steel = USUAL.hanger
    lines = tuple(RigLine(attachment=0, point=at, spec=steel) for at in range(len(hooks)))
    return replace(rig, below="beside", lines=lines)


def _runner(given: Given) -> Rig:
    along = tuple(Attachment(x_m=x, y_m=0.0, z_m=0.75) for x in (-1.0, 1.0))
    armature = replace(_armature(given, "runner", 2.0), sections=2)
    return replace(_empty(given), name="Runner", below="beside", attachments=along, armature=armature)


def _all() -> tuple[Start, ...]:
    bouquets = {"star_lattice": ("Bouquet", 0.3), "wire_dome": ("Bouquet", 0.3), "hand_spiral": ("Posy", 0.2)}
    words = {
        "star_lattice": "A bouquet on a star lattice",
        "wire_dome": "A bouquet on a wire dome",
        "hand_spiral": "A posy, spiralled in the hand",
    }
    kinds = [*bouquets, *(each.kind for each in ABOUT.values() if each.bound and each.kind not in bouquets)]
    bound = tuple(
        Start(
            key=kind,
            kind="bouquet",
            name=words.get(kind, f"A bouquet on a {ABOUT[kind].name.lower()}"),
            asks="a vase",
            begin=bound_on(kind, *bouquets.get(kind, ("Bouquet", 0.3))),
        )
        for kind in kinds
    )
    rigs: tuple[tuple[str, str, Callable[[Given], Part]], ...] = (
        ("empty", "Nothing yet: I draw it", _empty),
        ("snake", "A snake hung from points", _run("snake", "Hung run")),
        ("tube", "A tube hung from points", _run("tube", "Hung tube")),
        ("panel", "A flat panel", _panel),
        ("ring", "A ring or round panel", _ring),
        ("hoop", "A hoop on a standing frame", _hoop),
        ("swag", "A swag on a wall", _swag),
        ("column", "A crawl up a column", _column),
        ("spill", "A spill hooked over an edge", _spill),
        ("runner", "A runner along a table", _runner),
    )
    return (
        Start(key="vessel", kind="standing", name="A piece in a vessel", asks="a vessel", begin=in_vessel),
        *bound,
        *(Start(key=key, kind="rig", name=name, asks="nothing", begin=begin) for key, name, begin in rigs),
    )


STARTS: Mapping[str, Start] = {each.key: each for each in _all()}
