"""Ordinary work, made up: what the checks must find ordinary."""

from dataclasses import replace
from datetime import date, datetime
from functools import cache
from typing import TypeVar
from zoneinfo import ZoneInfo

from jolly_trellis.catalog import loaders
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.event.cost.cost import EventCost, PieceCost
from jolly_trellis.core.event.day.day import Day
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.stems import Role, Variety
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Companion, Envelope, Mechanic, MechanicKind, Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Ledge, Setting
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.plan.worn import Worn
from jolly_trellis.core.units import render
from jolly_trellis.exchange.page import Stamp

IN_VESSEL = tuple(kind for kind, about in ABOUT.items() if about.of == "standing")
ON_BOUQUETS = tuple(kind for kind, about in ABOUT.items() if about.of == "bouquet")
BOUND = tuple(kind for kind, about in ABOUT.items() if about.of != "standing")
ZONE = ZoneInfo("Europe/London")


@cache
def varieties() -> dict[str, Variety]:
    return {each.key: each for each in loaders.varieties()}


@cache
def nettings() -> dict[str, Netting]:
    return {each.key: each for each in loaders.nettings()}


@cache
def frogs() -> dict[str, Frog]:
    return {each.key: each for each in loaders.frogs()}


@cache
def vessels() -> dict[str, Vessel]:
    return dict(loaders.vessels())


P = TypeVar("P", bound=Piece)


def conditions() -> Conditions:
    return Conditions(
        filled_at=datetime(2027, 5, 15, 13, 0, tzinfo=ZONE),
        ends_at=datetime(2027, 5, 15, 23, 0, tzinfo=ZONE),
        air=Air(temperature_c=21.0, relative_humidity=0.5),
        topped_up_by="the evening crew",
        varieties=varieties(),
        nettings=nettings(),
        frogs=frogs(),
        figures=PROGRAM,
    )


def recipe(**counts: tuple[int, Role]) -> tuple[RecipeLine, ...]:
    """Recipe lines from keywords; an underscore in a key stands for a dash."""
    return tuple(
        RecipeLine(variety=key.replace("_", "-"), count=count, role=role) for key, (count, role) in counts.items()
    )


MIXED = recipe(
    ruscus=(5, "margin"),
    pittosporum=(5, "base"),
    rose=(7, "focal"),
    ranunculus=(8, "filler"),
    spray_rose=(5, "filler"),
    scabious=(4, "airy"),
)


STAMP = Stamp(event="Slipway lunch", revision=7, printed_on=date(2027, 5, 12))


def piece() -> Standing:
    return Standing(
        name="low bowl",
        vessel=vessels()["low-bowl-20"],
        envelope=Envelope(height_m=0.30, width_m=0.38, depth_m=0.38),
        mechanic=Mechanic(netting="coated-25-09"),
        water_level_m=0.083,
        recipe=MIXED,
    )


def stems(piece_: P, number: int) -> P:
    """The piece with its recipe scaled to so many stems in all."""
    total = sum(line.count for line in piece_.recipe)
    lines = [replace(line, count=max(1, round(line.count * number / total))) for line in piece_.recipe]
    short = number - sum(line.count for line in lines)
    lines[-1] = replace(lines[-1], count=lines[-1].count + short)
    return replace(piece_, recipe=tuple(lines))


def round_vessel(*points: tuple[float, float]) -> Vessel:
    """A round vessel from (height, inside radius) in metres, with a foot and a weight."""
    profile = tuple(ProfilePoint(height_m=h, width_m=2 * r, depth_m=2 * r) for h, r in points)
    return Vessel(
        name="turned", plan_shape="round", profile=profile, foot_width_m=0.11, foot_depth_m=0.11, mass_kg=0.9
    )


def on_ledge(*, depth_m: float = 0.30, set_back_m: float = 0.0, edge_radius_m: float = 0.0) -> Standing:
    """A bowl on a stone ledge with branches leaning forward over its edge."""
    ledge = Ledge(depth_m=depth_m, height_m=1.3, set_back_m=set_back_m, edge_radius_m=edge_radius_m)
    return replace(
        piece(),
        name="ledge bowl",
        setting=Setting(where="ledge", surface="stone", foot_material="rubber", ledge=ledge),
        envelope=Envelope(height_m=0.55, width_m=0.7, depth_m=0.7, form="forward"),
        recipe=recipe(
            ruscus=(6, "margin"),
            pittosporum=(7, "base"),
            quince_branch=(5, "line"),
            rose=(7, "focal"),
            scabious=(6, "airy"),
        ),
    )


def beside(*, tied: bool, x_m: float = 0.24, y_m: float = 0.05) -> Companion:
    """A second, smaller vessel of a composition."""
    return Companion(
        name="second bowl",
        vessel=vessels()["low-bowl-15"],
        envelope=Envelope(height_m=0.24, width_m=0.26, depth_m=0.26),
        mechanic=Mechanic(netting="coated-25-09"),
        water_level_m=0.06,
        x_m=x_m,
        y_m=y_m,
        recipe=recipe(pittosporum=(5, "base"), ranunculus=(8, "filler")),
        tied=tied,
    )


def bouquet(kind: MechanicKind = "star_lattice") -> Bouquet:
    """An ordinary bouquet in its vase, carried for an hour."""
    vase = vessels()["bud-cylinder-8"]
    return Bouquet(
        name="bouquet",
        vessel=vase,
        envelope=Envelope(height_m=vase.rim_m + 0.2, width_m=0.3, depth_m=0.3),
        mechanic=Mechanic(kind=kind, netting="coated-25-09"),
        water_level_m=0.8 * vase.inside_depth_m,
        recipe=recipe(
            ruscus=(9, "base"), garden_rose=(5, "focal"), spray_rose=(5, "filler"), ranunculus=(6, "filler")
        ),
        carried_h=1.0,
    )


def bound(kind: MechanicKind) -> Bouquet | Worn:
    """An ordinary piece bound in any way: held in the hand, or worn."""
    if kind in ON_BOUQUETS:
        return bouquet(kind)
    waits = vessels()["bud-cylinder-8"]
    return Worn(
        name="bouquet",
        vessel=waits,
        envelope=Envelope(height_m=waits.rim_m + 0.2, width_m=0.3, depth_m=0.3),
        mechanic=Mechanic(kind=kind, netting="coated-25-09"),
        water_level_m=0.8 * waits.inside_depth_m,
        recipe=bouquet().recipe,
        carried_h=1.0,
    )


def lacks(found: Verdict | EventCost | PieceCost | Day) -> tuple[str, ...]:
    """The facts that a verdict, a cost or a day says are missing, as they are read."""
    return tuple(render(each.say, "metric") for each in found.missing)
