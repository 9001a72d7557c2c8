"""Small pieces as they are seen, to hold the screens' projection to: `python -m tests.drawn` writes them anew."""

import json
import math
from dataclasses import fields, replace
from pathlib import Path
from typing import Any

from jolly_trellis.core.drawing.heads import HEADS
from jolly_trellis.core.drawing.picture import Stems
from jolly_trellis.core.drawing.project import Flat, View, project
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Counterweight, Piece, Spill, Support
from jolly_trellis.core.plan_shapes import SHAPES
from jolly_trellis.store import codec
from tests import ordinary

FILE = Path(__file__).parent / "drawn.json"
VIEWS = (
    View(cut=True),
    View(cut=True, turn_rad=math.pi / 2),
    View(turn_rad=0.6, raised_rad=0.4),
    View(turn_rad=3.9, raised_rad=-0.5),
    View(raised_rad=math.pi / 2),
)


def pieces() -> dict[str, Piece]:
    """One that stands on a column in clear glass, one on a ledge with all that may be beside it."""
    bowl = ordinary.stems(ordinary.piece(), 7)
    tubed = tuple(replace(each, water="tube") for each in ordinary.recipe(ruscus=(2, "margin")))
    tall = ordinary.recipe(
        quince_branch=(1, "line"),
        delphinium=(1, "line"),
        rose=(1, "focal"),
        amaranthus=(1, "base"),
        scabious=(1, "airy"),
    )
    raised = replace(
        bowl,
        vessel=replace(ordinary.vessels()["cube-14"], clear=True),
        envelope=replace(bowl.envelope, height_m=0.75),
        support=Support(name="column", height_m=0.3, top_width_m=0.14, opening_m=0.12, water_l=1.0, clear=True),
        recipe=tall,
    )
    ledge = replace(
        ordinary.stems(ordinary.on_ledge(edge_radius_m=0.01), 6),
        companions=(replace(ordinary.beside(tied=True), recipe=()),),
        spill=Spill(drop_m=0.3, recipe=tubed),
        counterweight=Counterweight(mass_kg=0.5, away_m=0.12),
        ballast_kg=0.2,
    )
    return {"raised": raised, "ledge": ledge}


def summary(flat: Flat) -> list[Any]:
    """What tells a flat thing from another: its name, its ink, its points weighed by their place."""
    points = [at for run in flat.runs for at in run]
    sums = [sum(x for x, _ in points), sum(y for _, y in points)]
    sums += [sum(place * x for place, (x, _) in enumerate(points)), sum(x * y for x, y in points)]
    dots = [sum(each[axis] for each in flat.dots) for axis in range(3)]
    whole = [flat.width_m or 0.0, flat.pale, flat.far]
    figures = [round(each, 4) + 0.0 for each in (*sums, *dots, *whole)]
    return [
        flat.id,
        flat.ink,
        flat.part,
        flat.closed,
        flat.colour,
        len(flat.runs),
        len(points),
        len(flat.dots),
        *figures,
    ]


def drawn() -> dict[str, Any]:
    """Pictures, stems and what is seen of them."""
    found: dict[str, Any] = {
        "kit": {
            "heads": {form: codec.to_plain(each) for form, each in HEADS.items()},
            "outlines": {kind: each.outline.round(9).tolist() for kind, each in SHAPES.items()},
        },
        "pieces": {},
    }
    for name, piece in pieces().items():
        report = evaluate(piece, ordinary.conditions(), with_fixes=False)
        seen = [(view, project(report.picture, report.stems, view)) for view in VIEWS]
        found["pieces"][name] = {
            "picture": codec.to_plain(report.picture),
            "stems": codec.to_plain(Stems(**{each.name: getattr(report.stems, each.name) for each in fields(Stems)})),
            "seen": [
                {"view": codec.to_plain(view), "flats": [summary(each) for each in flats]} for view, flats in seen
            ],
        }
    return found


def written() -> str:
    """The file's text."""
    return json.dumps(drawn(), separators=(",", ":")) + "\n"


if __name__ == "__main__":
    FILE.write_text(written(), encoding="utf-8")
