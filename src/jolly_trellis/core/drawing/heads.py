"""Flower heads by form: honest simple shapes in a frame of their own, put on every stem that ends in one.

In a template the third coordinate runs along the stem, 0 at the tip and 1 a head's length (or its radius, where it is
not `long`) beyond it; the first two lie across, 1 at the head's radius. A tassel `hangs`: its third runs straight up.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from jolly_trellis.core.drawing.primitives import Place, Run
from jolly_trellis.core.materials.stems import HeadForm

_GOLDEN = math.pi * (3 - math.sqrt(5))


@dataclass(frozen=True, slots=True, kw_only=True)
class Ball:
    """A ball of a head: its middle, and its radius as a share of the head's. `pale` is 0 for the full colour, to 1."""

    at: Place
    r: float
    pale: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Blade:
    """A petal or a leaf: its edge, and the rib along its middle, empty for none."""

    edge: Run
    rib: Run = ()
    pale: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Head:
    """The template of a form."""

    form: HeadForm
    balls: tuple[Ball, ...] = ()
    blades: tuple[Blade, ...] = ()
    long: bool = False
    hangs: bool = False


def _blade(
    root: Place, out: Place, across: Place, wide: float, *, rib: bool, pale: float = 0.0, pointed: bool = True
) -> Blade:
    """A blade from a root along `out`, `wide` to either side along `across`."""
    shares = (0.12, 0.3, 0.5, 0.72, 0.9) if pointed else (0.25, 0.5, 0.75, 0.93)

    def at(along: float, side: float) -> Place:
        x, y, z = (root[i] + along * out[i] + side * across[i] for i in range(3))
        return round(x, 4), round(y, 4), round(z, 4)

    def half(share: float) -> float:
        return wide * math.sin(math.pi * share**0.8) if pointed else wide * math.sin(math.pi * share**1.7) ** 0.6

    right = [at(share, half(share)) for share in shares]
    left = [at(share, -half(share)) for share in reversed(shares)]
    edge = (at(0, 0), *right, at(1, 0), *left)
    return Blade(edge=edge, rib=(at(0.04, 0), at(0.9, 0)) if rib else (), pale=pale)


def _disc() -> Head:
    """Petals round an eye, a little cupped."""
    petals = []
    for index in range(9):
        turn = index * 2 * math.pi / 9
        x, y = math.cos(turn), math.sin(turn)
        cup = 0.22 if index % 2 else 0.1
        petals.append(
            _blade((0.12 * x, 0.12 * y, 0.0), (0.88 * x, 0.88 * y, cup), (-y, x, 0.0), 0.3, rib=False, pointed=False)
        )
    eye = Ball(at=(0.0, 0.0, 0.14), r=0.27, pale=0.45)
    return Head(form="disc", blades=tuple(petals), balls=(eye,))


def _ball() -> Head:
    """A ball whose petals close towards the end of the stem."""
    shells = ((0.0, 1.0, 0.0), (0.22, 0.7, 0.16), (0.42, 0.44, 0.3), (0.56, 0.2, 0.45))
    return Head(form="ball", balls=tuple(Ball(at=(0.0, 0.0, up), r=r, pale=pale) for up, r, pale in shells))


def _spray() -> Head:
    """Florets over a dome."""
    florets = []
    for index in range(11):
        out = math.sqrt((index + 0.4) / 11)
        turn = index * _GOLDEN
        up = 0.35 * (1 - out * out) - 0.25
        x, y = 0.78 * out * math.cos(turn), 0.78 * out * math.sin(turn)
        florets.append(Ball(at=(round(x, 4), round(y, 4), round(up, 4)), r=0.24, pale=0.16 * (index % 3 == 0)))
    return Head(form="spray", balls=tuple(florets))


def _spike(form: HeadForm, rough: float) -> Head:
    """Florets along the stem, smaller towards its end."""
    florets = []
    for index in range(15):
        share = 1 - index / 15
        half = 0.5 * math.sqrt(share) + 0.1
        turn = index * _GOLDEN
        side = rough * 0.45 * half
        at = (round(side * math.cos(turn), 4), round(side * math.sin(turn), 4), round(-share * 0.97, 4))
        florets.append(Ball(at=at, r=round(half * 0.85, 4)))
    return Head(form=form, balls=tuple(florets), long=True)


def _tassel() -> Head:
    """Strands that hang."""
    strands = []
    for strand in range(5):
        turn = strand * 2 * math.pi / 5
        for step in range(7):
            down = (step + 0.5) / 7
            out = 0.55 * math.sin(math.pi * min(down * 1.1, 1)) if strand else 0.0
            at = (round(out * math.cos(turn), 4), round(out * math.sin(turn), 4), round(-down, 4))
            strands.append(
                Ball(
                    at=at,
                    r=round(0.28 * (1 - 0.6 * down), 4),
                )
            )
    return Head(form="tassel", balls=tuple(strands), long=True, hangs=True)


def _leaf() -> Head:
    """A leaf at the end, and pairs of leaves below it, each pair turned against the last."""
    blades = [_blade((0.0, 0.0, -0.3), (0.05, 0.0, 0.3), (0.0, 1.0, 0.0), 0.3, rib=True)]
    for pair, up in enumerate((-0.3, -0.52, -0.74, -0.95)):
        for side in (0, 1):
            turn = pair * 1.9 + side * math.pi + 0.4
            x, y = math.cos(turn), math.sin(turn)
            out = (0.9 * x, 0.9 * y, 0.2)
            blades.append(_blade((0.0, 0.0, up), out, (-y, x, 0.0), 0.27, rib=True))
    return Head(form="leaf", blades=tuple(blades), long=True)


HEADS: Mapping[HeadForm, Head] = {
    each.form: each
    for each in (_disc(), _ball(), _spray(), _spike("spike", 0.6), _spike("plume", 1.3), _tassel(), _leaf())
}
