"""What stands, as it is begun: bowls, vases, urns, troughs, ledges.

Sizes are usual ones; common practice, no source.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from jolly_trellis.core.event.starting.starting import Given, Start, filled_m, half_centimetres, support_of
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.piece import (
    Companion,
    Counterweight,
    Cover,
    Envelope,
    Form,
    Insert,
    Mechanic,
    MechanicKind,
    Spill,
)
from jolly_trellis.core.plan.setting import Ledge, Setting, Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.quantities import worded


@dataclass(frozen=True, slots=True, kw_only=True)
class _Looks:
    """How a piece over its vessel looks: over the rim, across as so many mouths, its form; what holds it."""

    name: str
    mechanic: MechanicKind
    over_m: float
    mouths: float = 1.8
    form: Form = "dome"
    size_by: str = "diameter"
    more: Callable[[Given], dict[str, Any]] = lambda _: {}


def in_vessel(given: Given) -> Standing:
    """A vessel with an ordinary dome over it, two layers of the usual netting in it, and no stems yet."""
    vessel = given.vessel
    top = vessel.profile[-1]
    mouth = max(top.width_m, 0.08)
    return Standing(
        name=vessel.name,
        vessel=vessel,
        envelope=Envelope(
            height_m=half_centimetres(vessel.rim_m + max(0.12, 0.9 * mouth)),
            width_m=half_centimetres(1.8 * mouth),
            depth_m=half_centimetres(1.8 * max(top.depth_m, 0.08)),
        ),
        mechanic=Mechanic(netting=given.fine),
        water_level_m=filled_m(vessel, given.practice.fill),
    )


def _over(key: str, looks: _Looks) -> Callable[[Given], Standing]:
    """A piece over the vessel that is chosen for it, as a start of so many mouths across."""

    def begin(given: Given) -> Standing:
        vessel = given.vessel
        top = vessel.profile[-1]
        size = {"diameter": top.width_m, "length": max(top.width_m, top.depth_m), "count": 1.0}[looks.size_by]
        piece = Standing(
            name=looks.name,
            vessel=vessel,
            envelope=Envelope(
                height_m=half_centimetres(vessel.rim_m + looks.over_m),
                width_m=half_centimetres(max(looks.mouths * top.width_m, 0.06)),
                depth_m=half_centimetres(max(looks.mouths * top.depth_m, 0.06)),
                form=looks.form,
            ),
            mechanic=Mechanic(kind=looks.mechanic, netting=given.fine if ABOUT[looks.mechanic].netting else None),
            water_level_m=filled_m(vessel, given.practice.fill),
            recipe=given.recipe(key, size),
        )
        return replace(piece, **looks.more(given))

    return begin


def _raised(given: Given) -> dict[str, Any]:
    """On a tall cylinder with its ballast, or on the usual one where the stores have none."""
    stand = given.stands.get("cylinder-stand-50")
    support = USUAL.cylinder
    if stand is not None:
        support = support_of(stand)
    high = support.height_m + given.vessel.rim_m + 0.24
    across = half_centimetres(1.9 * given.vessel.mouth_width_m)
    return {
        "support": replace(support, water_l=6.0, putty=True),
        "covers": (Cover(kind="moss", on="rim"),),
        "envelope": Envelope(height_m=half_centimetres(high), width_m=across, depth_m=across),
    }


def _in_an_urn(given: Given) -> dict[str, Any]:
    """In the larger urn of the stores, its rim a centimetre under the urn's."""
    insert = Insert(outer=given.other("urn-30"))
    outer = insert.outer
    high = outer.base_m + outer.inside_depth_m - insert.drop_m + 0.5
    return {
        "insert": insert,
        "envelope": Envelope(height_m=half_centimetres(high), width_m=0.6, depth_m=0.6),
        "transport": Transport(lifted_out=True),
        "setting": Setting(where="floor", surface="stone"),
    }


def _on_a_ledge(given: Given) -> dict[str, Any]:
    """Two troughs tied together on a ledge, and a spill over its edge on a hook of its own."""
    vessel = given.vessel
    ledge = Ledge(depth_m=0.3, height_m=1.2, set_back_m=0.06, behind="greens")
    size = Envelope(height_m=half_centimetres(vessel.rim_m + 0.2), width_m=0.5, depth_m=0.26, form="fan")
    beside = Companion(
        name=worded("{vessel}, second", vessel=vessel.name),
        vessel=vessel,
        envelope=size,
        mechanic=Mechanic(kind="cross_stick_roll", netting=given.fine),
        water_level_m=filled_m(vessel, given.practice.fill),
        recipe=given.recipe("ledge", vessel.mouth_width_m),
        x_m=round(vessel.mouth_width_m + 0.06, 3),
        y_m=0.0,
        tied=True,
    )
    return {
        "setting": Setting(where="ledge", ledge=ledge),
        "envelope": size,
        "companions": (beside,),
        "counterweight": Counterweight(mass_kg=2.0, away_m=0.1),
        "spill": Spill(drop_m=0.5, netting=given.open),
        "covers": (Cover(kind="moss", on="rim"),),
    }


_MOUTH = ("the mouth inside, across", "how deep it is inside", "the foot")
_TALL = (*_MOUTH, "what the empty vessel weighs")
_LOOKS: dict[str, tuple[str, str, tuple[str, ...], _Looks]] = {
    "low_bowl": (
        "A low bowl",
        "low-bowl-26",
        _MOUTH,
        _Looks(name="Low bowl", mechanic="folded_cushion", over_m=0.2, mouths=1.6),
    ),
    "dense_vase": (
        "A dense vase",
        "belly-vase-20",
        _TALL,
        _Looks(name="Dense vase", mechanic="folded_cushion", over_m=0.16, mouths=1.5),
    ),
    "urn": (
        "An urn with an insert",
        "insert-bowl-20",
        (
            "the urn's mouth and depth inside",
            "the bowl that goes in: across outside, and how high",
            "what the urn weighs",
        ),
        _Looks(name="Urn", mechanic="stacked_pair", over_m=0.5, more=_in_an_urn),
    ),
    "tall_bowl": (
        "A bowl on a column or stand",
        "raised-bowl-22",
        ("the support: how high, across its top and its opening", "its foot and what it weighs", "the bowl's foot"),
        _Looks(name="Bowl on a column", mechanic="folded_cushion", over_m=0.24, more=_raised),
    ),
    "trough": (
        "A long trough",
        "trough-60",
        ("the trough inside, long and wide", "how deep it is inside", "how much bare table is round it"),
        _Looks(
            name="Trough", mechanic="cross_stick_roll", over_m=0.2, mouths=1.35, form="horizontal", size_by="length"
        ),
    ),
    "cube": (
        "A cube",
        "cube-14",
        _MOUTH,
        _Looks(
            name="Cube",
            mechanic="moss_sandwich",
            over_m=0.14,
            mouths=1.7,
            more=lambda given: {"lining": given.vessel.clear},
        ),
    ),
    "cups": (
        "Cup frogs down a table",
        "cup-8",
        ("the table, long and wide", "how far guests sit from the middle", "the cup inside"),
        _Looks(
            name="Cups down the table",
            mechanic="cup_frog",
            over_m=0.18,
            mouths=1.8,
            size_by="count",
            more=lambda given: {
                "quantity": 12,
                "mechanic": Mechanic(kind="cup_frog", frog="cup-80" if "cup-80" in given.frogs else None),
            },
        ),
    ),
    "twig_bowl": (
        "A bowl of twigs",
        "low-bowl-30",
        _MOUTH,
        _Looks(
            name="Twig bowl",
            mechanic="twig_rings",
            over_m=0.2,
            mouths=1.3,
            form="garden",
            more=lambda _: {"look": ("mechanic", "rim")},
        ),
    ),
    "ledge": (
        "A ledge in parts, with a spill",
        "trough-40",
        (
            "the ledge, front to back, and how high",
            "whether its edge is rounded",
            "what its owner lets be fixed there",
        ),
        _Looks(name="Ledge", mechanic="cross_stick_roll", over_m=0.2, size_by="length", more=_on_a_ledge),
    ),
}


def standing_starts() -> tuple[Start, ...]:
    """What stands: a piece in any vessel, and each that people order."""
    known = tuple(
        Start(
            key=key,
            kind="standing",
            name=name,
            asks="a vessel",
            begin=_over(key, looks),
            measure=measure,
            vessel=vessel,
            by=looks.size_by,  # type: ignore[arg-type]
        )
        for key, (name, vessel, measure, looks) in _LOOKS.items()
    )
    blank = Start(
        key="vessel", kind="standing", name="A piece in a vessel", asks="a vessel", begin=in_vessel, measure=_TALL
    )
    return (blank, *known)
