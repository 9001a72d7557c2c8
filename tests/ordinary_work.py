"""Pieces as the trade makes them every week, made up: each must come out as a florist would say."""

from dataclasses import replace

from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.piece import Envelope, Mechanic, Support
from jolly_trellis.core.plan.setting import People, Setting, Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Attachment, HangPoint, Mount, Rig, RigLine
from tests import ordinary, rigs
from tests.ordinary import recipe


def straight(
    name: str,
    *points: tuple[float, float],
    foot_m: float,
    mass_kg: float,
    clear: bool = False,
    base_m: float = 0.008,
    wall_m: float = 0.005,
) -> Vessel:
    """A round vessel from (height, inside width) in metres."""
    return Vessel(
        name=name,
        plan_shape="round",
        profile=tuple(ProfilePoint(height_m=h, width_m=w, depth_m=w) for h, w in points),
        foot_width_m=foot_m,
        foot_depth_m=foot_m,
        mass_kg=mass_kg,
        base_m=base_m,
        wall_m=wall_m,
        material="glass" if clear else "glazed",
        clear=clear,
    )


def low_bowl(layers: int = 2) -> Standing:
    """A low bowl of forty mixed stems on a guest table."""
    piece = ordinary.stems(ordinary.piece(), 40)
    return replace(piece, mechanic=replace(piece.mechanic, layers=layers))


def bud_vase() -> Standing:
    """Three stems in a bud vase with a narrow neck."""
    return Standing(
        name="bud vase",
        vessel=straight(
            "bud vase", (0.0, 0.06), (0.07, 0.07), (0.11, 0.036), (0.14, 0.034), foot_m=0.06, mass_kg=0.45
        ),
        envelope=Envelope(height_m=0.28, width_m=0.13, depth_m=0.13),
        mechanic=Mechanic(kind="twig_rings"),
        water_level_m=0.10,
        recipe=recipe(ranunculus=(1, "focal"), scabious=(1, "airy"), pittosporum=(1, "filler")),
    )


def dense_vase() -> Standing:
    """Ninety stems close together in a straight vase, 58 cm high and 69 cm wide when done, made where it stands."""
    return Standing(
        name="dense vase",
        vessel=straight("straight vase", (0.0, 0.20), (0.27, 0.23), foot_m=0.20, mass_kg=3.2),
        envelope=Envelope(height_m=0.58, width_m=0.69, depth_m=0.69),
        mechanic=Mechanic(netting="coated-25-09", layers=2),
        water_level_m=0.24,
        recipe=recipe(
            ruscus=(12, "margin"),
            pittosporum=(14, "base"),
            hydrangea=(5, "focal"),
            garden_rose=(14, "focal"),
            stock=(10, "line"),
            rose=(16, "filler"),
            spray_rose=(12, "filler"),
            waxflower=(7, "airy"),
        ),
        setting=Setting(where="bar", people=People(seated=False)),
        transport=Transport(boxed=False),
        passage=Passage(made="its place"),
    )


def urn_of_tulips() -> Standing:
    """Fifty tulips in an urn, sold 45 cm long."""
    return Standing(
        name="urn of tulips",
        vessel=ordinary.vessels()["urn-24"],
        envelope=Envelope(height_m=0.62, width_m=0.60, depth_m=0.60),
        mechanic=Mechanic(netting="coated-25-09", layers=2),
        water_level_m=0.26,
        recipe=recipe(tulip=(50, "focal")),
        setting=Setting(where="floor", people=People(seated=False)),
    )


def tulips_in_a_cylinder() -> Standing:
    """Twenty tulips in a glass cylinder of 12 cm."""
    return Standing(
        name="tulips in a cylinder",
        vessel=ordinary.vessels()["cylinder-12"],
        envelope=Envelope(height_m=0.45, width_m=0.38, depth_m=0.38),
        mechanic=Mechanic(kind="corner_pillow", netting="coated-25-09"),
        water_level_m=0.15,
        recipe=recipe(tulip=(20, "focal")),
    )


def trough() -> Standing:
    """A trough along a guest table."""
    return Standing(
        name="trough",
        vessel=ordinary.vessels()["trough-60"],
        envelope=Envelope(height_m=0.30, width_m=0.85, depth_m=0.36),
        mechanic=Mechanic(netting="coated-25-09", layers=2),
        water_level_m=0.085,
        recipe=recipe(
            ruscus=(12, "margin"),
            pittosporum=(12, "base"),
            rose=(14, "focal"),
            ranunculus=(14, "filler"),
            spray_rose=(8, "filler"),
            scabious=(8, "airy"),
        ),
        setting=Setting(free_table_m=0.20),
    )


def on_column(top_width_m: float, water_l: float) -> Standing:
    """A 22 cm bowl on a glass column of 50 cm."""
    piece = replace(
        ordinary.stems(ordinary.piece(), 36),
        name="bowl on a column",
        vessel=ordinary.vessels()["raised-bowl-22"],
        envelope=Envelope(height_m=0.78, width_m=0.42, depth_m=0.42),
        water_level_m=0.075,
    )
    column = Support(
        name="glass column",
        height_m=0.50,
        top_width_m=top_width_m,
        opening_m=0.05,
        foot_width_m=top_width_m,
        column_width_m=top_width_m,
        mass_kg=2.4 if top_width_m > 0.12 else 1.5,
        water_l=water_l,
        clear=True,
        putty=True,
    )
    return replace(piece, support=column)


def pin_frog_bowl() -> Standing:
    """Five stems on pins in a low bowl."""
    return Standing(
        name="pin-frog bowl",
        vessel=ordinary.vessels()["shallow-dish-28"],
        envelope=Envelope(height_m=0.38, width_m=0.34, depth_m=0.30),
        mechanic=Mechanic(kind="pin_frog", frog="pin-75"),
        water_level_m=0.036,
        recipe=recipe(quince_branch=(1, "line"), tulip=(3, "focal"), ruscus=(1, "filler")),
    )


def cup_frog() -> Standing:
    """One of ten cup frogs nestled in moss along a guest table, six small stems in each."""
    return Standing(
        name="cup frog",
        vessel=ordinary.vessels()["cup-8"],
        envelope=Envelope(height_m=0.22, width_m=0.14, depth_m=0.14),
        mechanic=Mechanic(kind="cup_frog", frog="cup-80"),
        water_level_m=0.03,
        recipe=recipe(ranunculus=(2, "focal"), scabious=(2, "airy"), pittosporum=(2, "filler")),
        quantity=10,
        transport=Transport(boxed=False),
        passage=Passage(made="its place"),
    )


def arch_section() -> Rig:
    """0.8 m of an arch wrapped and covered by the recipe that makers use for it, 35 cm thick when finished."""
    base = rigs.run()
    armature = replace(base.armature, kind="tube", length_m=0.8, diameter_m=0.15, projection_m=0.10)
    places = (0.0, 0.27, 0.53, 0.8)
    tie = LineSpec(kind="cable tie", size_m=0.0048)
    return replace(
        base,
        points=tuple(
            HangPoint(
                name=f"arch {x}", kind="frame member", x_m=x, y_m=0.0, z_m=2.0, rating_n=150, stated_by="its maker"
            )
            for x in places
        ),
        attachments=tuple(Attachment(x_m=x, y_m=0.0, z_m=1.95, along_m=x) for x in places),
        lines=tuple(RigLine(point=at, attachment=at, spec=tie) for at in range(4)),
        armature=armature,
        recipe=recipe(gypsophila=(50, "filler"), carnation=(11, "focal"), rose=(8, "focal")),
        mount=Mount(kind="frame", outline="arch", width_m=1.6, height_m=2.2, foot_width_m=0.4, foot_depth_m=1.6),
        bond=None,
    )


def delphinium_panel() -> Rig:
    """A panel of sixty delphinium hung head down without water."""
    wet = tuple(replace(each, water="none") for each in recipe(delphinium=(60, "line")))
    return rigs.panel(recipe=wet)
