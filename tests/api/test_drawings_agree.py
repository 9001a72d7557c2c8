"""Screens and papers project one drawing alike: all of the demo, from every eye, at every 30°."""

import json
import math
import os
import subprocess
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pydantic import TypeAdapter

from jolly_trellis.core.drawing.heads import HEADS
from jolly_trellis.core.drawing.picture import Picture, Stems
from jolly_trellis.core.drawing.project import Flat, View, project
from jolly_trellis.core.plan_shapes import SHAPES
from jolly_trellis.store import codec
from tests.wire import pieces, rigs

WEB = Path(__file__).parents[2] / "web"
_PICTURE, _STEMS = TypeAdapter(Picture), TypeAdapter(Stems)


def sums(flats: Sequence[Flat]) -> list[float]:
    """What tells one drawing from another, whatever the order in which equal depths come."""
    total = [0.0] * 6
    for place, flat in enumerate(flats):
        weight = place % 7 + 1
        points = [at for run in flat.runs for at in run]
        add = (
            sum(x for x, _ in points),
            sum(y for _, y in points),
            sum(x * y for x, y in points),
            sum(x + 2 * y + 3 * r for x, y, r in flat.dots),
            flat.far,
            flat.width_m or 0.0,
        )
        total = [old + weight * new for old, new in zip(total, add, strict=True)]
    return total


def seen(picture: Picture, stems: Stems) -> list[dict[str, Any]]:
    found = []
    for eye in picture.eyes:
        for step in range(12):
            view = View(turn_rad=step * math.pi / 6, raised_rad=eye.raised_rad, cut=eye.kind == "cut open")
            flats = sorted(project(picture, stems, view), key=lambda each: each.id)
            ids = "|".join(f"{each.id} {each.part}" for each in flats)
            found.append({"view": codec.to_plain(view), "ids": ids, "sums": sums(flats)})
    return found


@pytest.mark.long
def test_the_demo_is_drawn_alike_on_screens_and_papers(client: TestClient, tmp_path: Path) -> None:
    event = client.get("/api/events/1").json()
    drawn: list[tuple[str, Any, Any]] = [
        (each["part"]["name"], each["report"]["picture"], each["report"]["stems"]) for each in pieces(event)
    ]
    drawn += [(each["part"]["name"], each["report"]["rest"]["picture"], None) for each in rigs(event)]
    parts = []
    for name, picture, stems in drawn:
        whole = seen(_PICTURE.validate_python(picture), Stems() if stems is None else _STEMS.validate_python(stems))
        parts.append({"name": name, "picture": picture, "stems": stems, "seen": whole})
    kit = {
        "heads": {form: codec.to_plain(each) for form, each in HEADS.items()},
        "outlines": {kind: each.outline.tolist() for kind, each in SHAPES.items()},
    }
    file = tmp_path / "drawn.json"
    file.write_text(json.dumps({"kit": kit, "parts": parts}), encoding="utf-8")
    ran = subprocess.run(
        ["npx", "vitest", "run", "--reporter=dot", "agreement"],
        cwd=WEB,
        env=os.environ | {"JOLLY_TRELLIS_DRAWN": str(file)},
        capture_output=True,
        text=True,
        check=False,
    )
    assert ran.returncode == 0, (ran.stdout + ran.stderr)[-6000:]
    assert f"{len(parts)} passed" in ran.stdout
