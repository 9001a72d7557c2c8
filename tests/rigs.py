"""Ordinary hung work for tests: a run and a panel, their bonds and lines."""

import math
from dataclasses import replace

from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.lines import LineSpec, pounds_test_n
from jolly_trellis.core.rigging.rig import Armature, Attachment, Bond, HangPoint, Rig, RigLine
from jolly_trellis.core.rigging.states import HangState
from tests.ordinary import recipe

STEEL = LineSpec(kind="steel rope", size_m=0.0015, fitting="grip")

THIN = LineSpec(kind="monofilament", stated_n=pounds_test_n(20))

WIDE = math.radians(30)

OWN = HangPoint(name="own", kind="truss", x_m=0, y_m=0.2, z_m=4.0, rating_n=2000, stated_by="the engineer")


def bond(point: int, spec: LineSpec = STEEL) -> Bond:
    return Bond(spec=replace(spec, fitting="ferrule"), point=point)


def run(count: int = 5, spec: LineSpec = STEEL, rating: float | None = 300.0, by: str | None = "the engineer") -> Rig:
    """Six metres of snake on so many points, level."""
    xs = [-3 + 6 * index / (count - 1) for index in range(count)]
    return Rig(
        name="run",
        points=(
            *(
                HangPoint(
                    name=f"beam {n}",
                    kind="beam loop",
                    x_m=x,
                    y_m=0,
                    z_m=3.6,
                    rating_n=rating,
                    rated_within_rad=WIDE if n in (1, count) else None,
                    stated_by=by,
                )
                for n, x in enumerate(xs, start=1)
            ),
            replace(OWN, x_m=0.4),
        ),
        attachments=tuple(Attachment(x_m=x, y_m=0, z_m=2.6, along_m=0.1 + 1.12 * (x + 3)) for x in xs),
        lines=tuple(RigLine(point=index, attachment=index, spec=spec) for index in range(count)),
        armature=Armature(kind="snake", length_m=6.92, netting="galvanized-50-10"),
        recipe=recipe(gypsophila=(60, "filler"), ruscus=(40, "base")),
        bond=bond(count),
    )


def panel(**changes: object) -> Rig:
    corner = [(-0.5, -0.5), (-0.5, 0.5), (0.5, -0.5), (0.5, 0.5)]
    rig = Rig(
        name="panel",
        points=(
            *(
                HangPoint(name=f"p{n}", kind="eye", x_m=x, y_m=y, z_m=4.0, rating_n=200, stated_by="the warden")
                for n, (x, y) in enumerate(corner)
            ),
            OWN,
        ),
        attachments=tuple(Attachment(x_m=x, y_m=y, z_m=3.0) for x, y in corner),
        lines=tuple(RigLine(point=index, attachment=index, spec=STEEL) for index in range(4)),
        armature=Armature(kind="panel", length_m=1.0, width_m=1.0, netting="galvanized-50-10"),
        recipe=recipe(gypsophila=(40, "filler")),
        bond=bond(4),
    )
    return replace(rig, **changes)  # type: ignore[arg-type]


def checks(report: RigReport) -> set[str]:
    return {found.check for found in report.verdict.findings}


def on_one_point(**changes: object) -> Rig:
    """A square panel, its four lines led to one point over its middle: it balances there and tilts like a scale."""
    rig = panel(**changes)
    point = HangPoint(name="hook", kind="eye", x_m=0, y_m=0, z_m=4.0, rating_n=200, stated_by="the warden")
    lines = tuple(replace(line, point=0) for line in rig.lines)
    return replace(rig, points=(point, OWN), lines=lines, bond=bond(1))


def state(report: RigReport, name: str) -> HangState:
    return next(each for each in report.states if each.name == name)
