"""What is held in the hand or worn, as it is begun: posies, bouquets, buttonholes, corsages, crowns.

Sizes are usual ones; common practice, no source.
"""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from jolly_trellis.core.event.starting.starting import Given, Start, filled_m, half_centimetres
from jolly_trellis.core.mechanics.sizing import ABOUT
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.piece import Envelope, Form, Mechanic
from jolly_trellis.core.plan.worn import Worn
from jolly_trellis.core.quantities import worded

_ASKED = ("the size that was sold", "how long it is carried without water")
# Which start is of which mechanic, how wide, and what else is chosen with it.
_HELD: dict[str, tuple[str, str, float, dict[str, Any]]] = {
    "hand_spiral": ("A posy, spiralled in the hand", "Posy", 0.2, {"collar": True}),
    "star_lattice": ("A bouquet on a star lattice", "Bouquet", 0.3, {}),
    "one_sided": (
        "A one-sided bouquet",
        "One-sided bouquet",
        0.3,
        {"mechanic": "star_lattice", "form": "fan", "back": "leaves", "collar": True},
    ),
}
_WORN = {"buttonhole": ("Buttonhole", 0.06), "corsage": ("Corsage", 0.12), "crown": ("Crown", 0.18)}


def _measures(key: str, width_m: float, neck_m: float, more: dict[str, Any]) -> Callable[[Given], dict[str, Any]]:
    """What any of them has: what it waits in, a dome of a usual size over that."""
    kind, form = more.get("mechanic", key), more.get("form", "dome")

    def of(given: Given) -> dict[str, Any]:
        waits = given.vessel
        high = max(waits.rim_m, waits.base_m + 0.1) + 0.3 * width_m + neck_m
        return {
            "vessel": waits,
            "envelope": _envelope(high, width_m, form),
            "mechanic": Mechanic(kind=kind, netting=given.fine),
            "recipe": given.recipe(key, width_m) if key in _HELD or key in _WORN else (),
        }

    return of


def _envelope(high: float, width_m: float, form: Form) -> Envelope:
    return Envelope(height_m=half_centimetres(high), width_m=width_m, depth_m=width_m, form=form)


def _held(key: str, name: str, width_m: float, more: dict[str, Any]) -> Callable[[Given], Bound]:
    """A bouquet on a mechanic; its vessel is the vase it waits in."""
    measures = _measures(key, width_m, 0.08, more)
    chosen = {field: value for field, value in more.items() if field not in ("mechanic", "form")}

    def begin(given: Given) -> Bouquet:
        found = Bouquet(name=name, water_level_m=filled_m(given.vessel, "worked out"), **measures(given))
        return replace(found, **chosen)

    return begin


def _worn(key: str, name: str, width_m: float) -> Callable[[Given], Bound]:
    """What is worn; no water goes with it."""
    measures = _measures(key, width_m, 0.02, {})
    return lambda given: Worn(name=name, water_level_m=0.0, **measures(given))


def bound_starts() -> tuple[Start, ...]:
    """A posy, a bouquet on a star lattice, one with a flat back, what is worn, and any other mechanic."""
    others: dict[str, tuple[str, str, float, dict[str, Any]]] = {
        about.kind: (worded("A bouquet on a {mechanic}", mechanic=about.name.lower()), "Bouquet", 0.3, {})
        for about in ABOUT.values()
        if about.of == "bouquet" and about.kind not in _HELD
    }
    held = [_held_start(key, *each) for key, each in _HELD.items()]
    worn = [
        Start(
            key=key,
            kind="worn",
            name=worded("A {worn}, wired and taped", worn=name.lower()),
            asks="a vase",
            begin=_worn(key, name, width),
            measure=_ASKED,
            by="diameter",
        )
        for key, (name, width) in _WORN.items()
    ]
    return (*held, *worn, *(_held_start(key, *each) for key, each in others.items()))


def _held_start(key: str, words: str, name: str, width_m: float, more: dict[str, Any]) -> Start:
    return Start(
        key=key,
        kind="bouquet",
        name=words,
        asks="a vase",
        begin=_held(key, name, width_m, more),
        measure=(*_ASKED, "the vase it waits in, how deep"),
        vessel="cylinder-12" if key in ("star_lattice", "one_sided", "wire_dome") else None,
        by="diameter" if key in _HELD else None,
    )
