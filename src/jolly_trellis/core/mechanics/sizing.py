"""Every mechanic of the table by its kind: what it is called, what it needs, and how it is sized."""

from collections.abc import Callable
from dataclasses import dataclass

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.frogs import FrogKind
from jolly_trellis.core.mechanics import (
    blocks,
    corner_pillow,
    fills,
    folded_cushion,
    frog_with_wire,
    lattices,
    pin_frog,
    raised_cups,
    rings,
    rolls,
    stacked_pair,
    string_ball,
)
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.piece import MechanicKind
from jolly_trellis.core.quantities import phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class About:
    """One kind of mechanic: its name, what it is in a line, what of the stores it needs, and how it is sized.

    `bought` tells one that comes ready made and must be on hand, `bound` one that a bouquet is made on; that is sized
    by `bound.size`, since it has no vessel to fit.
    """

    kind: MechanicKind
    name: str
    what: str
    netting: bool
    size: Callable[[Fit], SizedMechanic]
    frog: FrogKind | None = None
    tapes: bool = True
    least_strips: int = 0
    bought: bool = False
    bound: bool = False


def _about(
    kind: MechanicKind,
    name: str,
    what: str,
    size: Callable[[Fit], SizedMechanic],
    *,
    netting: bool = False,
    frog: FrogKind | None = None,
    tapes: bool = True,
    least_strips: int = 0,
    bought: bool = False,
    bound: bool = False,
) -> About:
    return About(
        kind=kind,
        name=name,
        what=what,
        size=size,
        netting=netting,
        frog=frog,
        tapes=tapes,
        least_strips=least_strips,
        bought=bought,
        bound=bound,
    )


def _no_vessel(fit: Fit) -> SizedMechanic:
    raise InvalidMeasure(
        path="mechanic.kind",
        message=phrase(f"A {ABOUT[fit.choice.kind].name.lower()} is carried in the hand; this piece stands."),
        limit=phrase("Choose a mechanic that sits in a vessel, or make the piece a bouquet."),
    )


_ALL = (
    _about(
        "folded_cushion",
        "Folded cushion",
        "one sheet folded to layers and sprung in",
        folded_cushion.size,
        netting=True,
    ),
    _about(
        "corner_pillow",
        "Corner pillow",
        "a square, its corners folded to the middle",
        corner_pillow.size,
        netting=True,
    ),
    _about("stacked_pair", "Stacked pair", "one piece low, one at the rim", stacked_pair.size, netting=True),
    _about(
        "moss_sandwich",
        "Moss sandwich",
        "a stacked pair with moss between",
        stacked_pair.size_with_moss,
        netting=True,
        least_strips=1,
    ),
    _about(
        "cross_stick_roll",
        "Roll on cross-sticks",
        "rolled netting hung in a trough",
        rolls.size_on_sticks,
        netting=True,
    ),
    _about(
        "three_layer_roll", "Three-layer roll", "rolled and pressed flat in a dish", rolls.size_pressed, netting=True
    ),
    _about("string_ball", "String-tied ball", "a ball of netting tied like a parcel", string_ball.size, netting=True),
    _about("pin_frog", "Pin frog", "a heavy base with pins on the floor", pin_frog.size_pins, frog="pin", tapes=False),
    _about(
        "cage_frog",
        "Cage frog",
        "a wire cage on a heavy base",
        lambda fit: pin_frog.size_open(fit, "cage"),
        frog="cage",
        tapes=False,
    ),
    _about(
        "loop_frog",
        "Loop frog",
        "loops of wire on a heavy base",
        lambda fit: pin_frog.size_open(fit, "loop"),
        frog="loop",
        tapes=False,
    ),
    _about(
        "holed_frog",
        "Holed frog",
        "a block with holes",
        lambda fit: pin_frog.size_open(fit, "holed"),
        frog="holed",
        tapes=False,
    ),
    _about("cup_frog", "Cup frog", "pins in their own shallow cup", pin_frog.size_cup, frog="cup", tapes=False),
    _about(
        "frog_with_wire",
        "Frog with wire",
        "pins below, loose wire, a layer on top",
        frog_with_wire.size,
        netting=True,
        frog="pin",
        least_strips=1,
    ),
    _about("twig_rings", "Twig rings", "one ring low, one across the rim", rings.size_twigs),
    _about("strung_ring", "Strung ring", "a metal ring strung with soft wire", rings.size_strung, bought=True),
    _about("branch_tangle", "Branch tangle", "pliable stems coiled to fill the vessel", fills.size_tangle),
    _about("wood_shavings", "Wood shavings", "fine shavings under a grid", fills.size_shavings),
    _about(
        "lattice_pad",
        "Lattice pad",
        "a moulded lattice on the rim; lifts off",
        lattices.size_pad,
        tapes=False,
        bought=True,
    ),
    _about(
        "lattice_disc", "Lattice disc", "a lattice disc hung on dowels", lattices.size_disc, tapes=False, bought=True
    ),
    _about("tape_grid", "Tape grid", "strips across the rim and nothing else", lattices.size_grid, tapes=False),
    _about(
        "fibre_pouch", "Fibre pouch", "a compostable block, soaked", blocks.size_fibre, least_strips=1, bought=True
    ),
    _about(
        "mineral_block",
        "Mineral block",
        "a block of mineral wool, soaked",
        blocks.size_mineral,
        least_strips=1,
        bought=True,
    ),
    _about("raised_cups", "Raised cups", "cups on rods tied to a branch", raised_cups.size, tapes=False, bought=True),
    _about(
        "wire_dome",
        "Wire dome",
        "netting domed under the heads, its skirt run into the handle",
        _no_vessel,
        netting=True,
        tapes=False,
        bound=True,
    ),
    _about(
        "star_lattice",
        "Star lattice",
        "covered wires twisted into stars, run into the handle",
        _no_vessel,
        tapes=False,
        bound=True,
    ),
    _about(
        "hand_spiral", "Hand spiral", "stems crossed in the hand, no armature", _no_vessel, tapes=False, bound=True
    ),
)
ABOUT: dict[MechanicKind, About] = {each.kind: each for each in _ALL}


def size(fit: Fit) -> SizedMechanic:
    """Size the chosen mechanic. Raises InvalidMeasure: the vessel, netting or frog does not allow it."""
    return ABOUT[fit.choice.kind].size(fit)
