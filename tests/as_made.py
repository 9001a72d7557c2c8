"""Work as people make it: what each start begins, and constructions that ordinary work does not come by."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from jolly_trellis.catalog import loaders
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.starting.starts import STARTS, Given
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.mechanics.worn import WIRE_HOLDS
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Cover, Insert, Piece
from jolly_trellis.core.plan.practice import Practice
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.rig import Hardware, HardwareKind, Rig
from tests import ordinary, rigs


def given(vessel: str | None) -> Given:
    """Everything that the stores begin with."""
    return Given(
        vessel=ordinary.vessels().get(vessel or "bud-cylinder-8", USUAL.vessel),
        nettings=ordinary.nettings(),
        practice=Practice(),
        vessels=ordinary.vessels(),
        stands={each.key: each for each in loaders.stands()},
        frogs=list(ordinary.frogs()),
        known=list(ordinary.varieties()),
        stems=True,
    )


def begun(key: str) -> Part:
    """A start as it is begun with its stems."""
    with ordinary.conditions().figures.open():
        return STARTS[key].begin(given(STARTS[key].vessel))


def judged(part: Part, around: Callable[[], Conditions]) -> object:
    """Its report under conditions, which are asked for when it is made."""
    if isinstance(part, Rig):
        return assess(part, around())
    return evaluate(part, around(), with_fixes=False)


def _pieces() -> dict[str, Piece]:
    bowl = ordinary.piece()
    cups = RecipeLine(variety="tulip", count=5, role="line", water="cup")
    tall = replace(bowl, recipe=(*bowl.recipe, cups), envelope=replace(bowl.envelope, height_m=0.6))
    covers = (
        Cover(kind="moss", on="rim"),
        Cover(kind="cloth", on="outside"),
        Cover(kind="ribbon", on="rim"),
        Cover(kind="leaf", on="outside"),
        Cover(kind="moss", on="cups"),
    )
    urn = replace(ordinary.vessels()["insert-bowl-20"], wall_m=0.002)
    packed = Standing(
        name="packed",
        vessel=urn,
        envelope=replace(bowl.envelope, height_m=1.0),
        mechanic=bowl.mechanic,
        water_level_m=0.08,
        recipe=bowl.recipe,
        insert=Insert(outer=ordinary.vessels()["urn-30"]),
        covers=(Cover(kind="cloth", on="packing"),),
        transport=Transport(lifted_out=True, box_wall_m=0.2),
    )
    pad = replace(
        bowl,
        mechanic=replace(bowl.mechanic, kind="lattice_pad"),
        transport=Transport(lifted_out=True, boxed=False),
    )
    star = ordinary.bouquet("star_lattice")
    around = [
        replace(each, height_m=1.3 * each.height_m, width_m=each.width_m + 0.02, depth_m=each.depth_m + 0.02)
        for each in urn.profile
    ]
    snug = replace(urn, profile=tuple(around), mass_kg=2.0)
    heads = ordinary.recipe(dahlia=(3, "focal"), carnation=(2, "filler"), waxflower=(2, "airy"))
    return {
        "cups": replace(tall, covers=covers),
        "cups on short rods": replace(tall, recipe=(*bowl.recipe, replace(cups, rod_m=0.1, cup_ml=30))),
        "cups up high": replace(tall, envelope=replace(bowl.envelope, height_m=1.5)),
        "packed": packed,
        "snug": replace(packed, insert=Insert(outer=snug)),
        "pad": pad,
        "pad in a box": replace(pad, transport=Transport(lifted_out=True, box_wall_m=0.3)),
        "disc": replace(star, back="disc"),
        "vine": replace(star, mechanic=replace(star.mechanic, vine_rounds=6, berries=9)),
        "wired heavy": replace(begun_piece("corsage"), recipe=heads),
    }


def begun_piece(key: str) -> Piece:
    """A start that stands or is carried."""
    part = begun(key)
    assert isinstance(part, Piece)
    return part


def _rigs() -> dict[str, Rig]:
    hooked = RecipeLine(variety="hydrangea", count=4, role="focal", water="none", goes="hung", drop_m=0.5)
    kinds: tuple[HardwareKind, ...] = ("shackle", "sling", "eye bolt", "carabiner", "swivel", "turnbuckle")
    run = rigs.run()
    hung = replace(run.lines[0], hardware=tuple(Hardware(kind=kind, wll_n=900.0) for kind in kinds))
    found = {
        "hardware": replace(run, lines=(hung, *run.lines[1:])),
        "in the wind": replace(run, outdoors=True),
        "sections": replace(run, armature=replace(run.armature, kind="tube", sections=3)),
    }
    for gauge in (0.0007, 0.001, 0.0013):
        armature = replace(rigs.panel().armature, hook_gauge_m=gauge)
        found[f"hooks of {gauge}"] = rigs.panel(recipe=(hooked,), armature=armature)
    return found


def works(around: Callable[[], Conditions]) -> dict[str, Callable[[], object]]:
    """Every start, and the constructions, each to be judged."""
    found: dict[str, Callable[[], object]] = {
        f"start {key}": partial(judged, begun(key), around) for key in STARTS if key not in ("vessel", "empty")
    }
    found |= {name: partial(judged, part, around) for name, part in (_pieces() | _rigs()).items()}
    return found | {"wires": lambda: tuple(each.value for each in WIRE_HOLDS.values())}
