"""Ordinary work worked out whole, and its figures: what any change of a rule moves.

The figures in `worked.json` are no proof that a rule is right, which the other tests are for: they tell that nothing
moved unseen. Where a rule is meant to change, write them anew with `python -m tests.worked` and look at what moved.
"""

import json
import math
import zlib
from collections.abc import Callable, Iterator, Mapping
from dataclasses import fields, is_dataclass, replace
from datetime import UTC, datetime, time
from decimal import Decimal
from functools import cache, partial
from pathlib import Path
from typing import Any

import numpy as np

from jolly_trellis.core.books.figures import open_book
from jolly_trellis.core.building.build import build
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.buying.shopping import shopping
from jolly_trellis.core.event.cost.cost import cost_of
from jolly_trellis.core.event.cutting.roll import CutPlan
from jolly_trellis.core.event.day.buckets import buckets_of
from jolly_trellis.core.event.headline import headline
from jolly_trellis.core.event.job import Supplier, recipe_of
from jolly_trellis.core.event.returning.reservations import claims_of
from jolly_trellis.core.event.sheet.lives import lasts_until, soonest_use
from jolly_trellis.core.event.sheet.schedule import schedule
from jolly_trellis.core.event.tasks.days_before import days_before
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.patterns import patterns_of
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.making.steps import cut_list, steps
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Counterweight, Insert, Piece, Spill, Support
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.plan.setting import Setting, TopUp, Transport
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.fixes import fixes_of
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.snip import snip
from jolly_trellis.core.rigging.survey import in_place
from jolly_trellis.demo.loading import demo_plan, demo_survey
from tests import events, ordinary, rigs
from tests.core.test_what_weighs import ARMATURES, CHANGES, WITH, held_by

FILE = Path(__file__).parent / "worked.json"
Figures = dict[str, list[float]]
_DEEP = 3
THAT_DAY = datetime(2027, 5, 15, tzinfo=UTC)
THIN = LineSpec(kind="polyester cord", size_m=0.002)


def _pieces() -> Iterator[tuple[str, Piece]]:
    plain = ordinary.piece()
    for kind in ordinary.IN_VESSEL:
        yield f"on {kind}", held_by(kind)
    for kind in ordinary.BOUND:
        yield f"bound, {kind}", ordinary.bound(kind)
    yield from WITH.items()
    yield from CHANGES.items()
    spilled = replace(ordinary.on_ledge(), spill=Spill(drop_m=0.6, recipe=ordinary.recipe(ruscus=(8, "base"))))
    yield "ledge", ordinary.on_ledge()
    yield "ledge with a spill", spilled
    tied = Spill(drop_m=0.6, held_by="vessel", recipe=ordinary.recipe(ruscus=(8, "base")))
    yield "ledge, held by the vessel", replace(spilled, spill=tied)
    yield "ledge, two free", replace(ordinary.on_ledge(), companions=(ordinary.beside(tied=False),))
    yield "ledge, two tied", replace(ordinary.on_ledge(), companions=(ordinary.beside(tied=True),))
    wet = replace(ordinary.recipe(ruscus=(8, "base"))[0], water="tube")
    yield "ledge, a spill in tubes", replace(spilled, spill=replace(tied, held_by="hook", recipe=(wet,)))
    far = replace(ordinary.on_ledge(set_back_m=0.03), companions=(ordinary.beside(tied=True, y_m=0.04),))
    yield "ledge, set back", far
    yield "to the water", replace(plain, feet="to the water", water_level_m=0.06)
    yield "waits", replace(plain, transport=Transport(overnight_level_m=0.06, water_level_m=0.04))
    yield "in the sun", replace(plain, setting=Setting(air=Air(temperature_c=24, relative_humidity=0.4, sun=True)))
    yield "on a floor", replace(plain, setting=Setting(where="floor"))
    yield "meant to be seen", replace(plain, look=("mechanic",))
    yield "driven", replace(plain, transport=Transport(box_wall_m=0.12, crate=True, carriers=2))
    yield "topped up", replace(plain, top_ups=(TopUp(after_h=4.0, volume_l=0.4), TopUp(after_h=2.0, volume_l=0.2)))
    yield "outside", replace(plain, setting=Setting(outdoors=True, comes_down_above=4))
    yield "dry glass", replace(plain, vessel=replace(plain.vessel, material="glass", clear=True))
    yield (
        "large tubes",
        replace(
            plain, recipe=tuple(replace(line, water="tube", tube=StemTube(stem_in_m=0.08)) for line in plain.recipe)
        ),
    )
    raised = Support(name="column", height_m=0.4, top_width_m=0.13, opening_m=0.1, column_width_m=0.12,
                     foot_width_m=0.2, mass_kg=1.4)  # fmt: skip
    yield "raised, dry joint", replace(plain, support=raised, envelope=replace(plain.envelope, height_m=0.8))
    yield "in an urn", replace(WITH["riser block"], insert=Insert(outer=ordinary.vessels()["urn-24"], drop_m=0.03))
    yield "weighed behind", replace(ordinary.on_ledge(), counterweight=Counterweight(mass_kg=0.5, away_m=0.1))


def _reports() -> Iterator[tuple[str, Callable[[], object]]]:
    around = ordinary.conditions()
    waited = replace(
        around,
        finished_at=datetime(2027, 5, 14, 19, 0, tzinfo=ordinary.ZONE),
        loaded_at=datetime(2027, 5, 15, 9, 0, tzinfo=ordinary.ZONE),
        workshop=Air(temperature_c=16, relative_humidity=0.6),
        van=Air(temperature_c=14, relative_humidity=0.55),
    )
    pieces = dict(_pieces())
    for name, each in pieces.items():
        yield name, partial(_by_open_book, evaluate, each, waited if name == "waits" else around, with_fixes=False)
    for kind in ordinary.IN_VESSEL:
        yield f"on {kind}, sized", partial(_sized, held_by(kind))
    for name in ("ledge", "raised, dry joint", "driven", "stem tube", "large tubes", "ledge with a spill", "outside"):
        yield f"{name}, mended", partial(_by_open_book, evaluate, pieces[name], around, with_fixes=True)
    for planned in demo_plan().pieces:
        yield f"demo, {planned.part.name}", partial(_by_open_book, evaluate, planned.part, around, with_fixes=False)
        yield f"demo, {planned.part.name}, flat", partial(_flat, planned.part)
        if planned.part.name.startswith(("Statement urn", "Raised bowl")):
            yield (
                f"demo, {planned.part.name}, mended",
                partial(_by_open_book, evaluate, planned.part, around, with_fixes=True),
            )
    for name in ("ledge", "ledge, two free", "raised, dry joint"):
        yield f"{name}, being made", partial(_by_open_book, making_of, pieces[name], around, with_fixes=False)
    yield "chosen", partial(_by_open_book, choose, ordinary.piece(), around, on_hand=None)
    hung = {each.part.name: in_place(each.part, demo_survey()) for each in demo_plan().rigs}
    hung |= {f"plain {name}": rig for name, rig in ARMATURES.items()}
    hung["thin lines"] = rigs.panel(lines=tuple(replace(each, spec=THIN) for each in rigs.panel().lines))
    hung["aslant"] = rigs.on_one_point()
    for name, rig in hung.items():
        yield f"rig, {name}", partial(_by_open_book, assess, rig, around)
    hoop = hung["Door hoop in the garden"]
    hung["hoop in the wind"] = replace(hoop, mount=replace(hoop.mount, ballast_kg=0.0)) if hoop.mount else hoop
    for name in ("Panel over the cake table", "hoop in the wind"):
        yield f"rig, {name}, mended", partial(_mended, hung[name])
    for name in ("plain snake", "plain panel", "plain ring", "Panel over the cake table"):
        yield f"rig, {name}, snipped", partial(_snipped, hung[name])
    yield "event", _event


def _by_open_book(work: Callable[..., object], plan: Piece | Rig, around: Conditions, **how: Any) -> object:
    """Work out a plan by the book of figures that is open."""
    return work(plan, replace(around, figures=open_book()), **how)


def _around() -> Conditions:
    return replace(ordinary.conditions(), figures=open_book())


def _flat(plan: Piece) -> object:
    made = build(plan, ordinary.conditions())
    return patterns_of(made), steps(made), cut_list(made)


def _sized(plan: Piece) -> object:
    return build(plan, ordinary.conditions()).mechanic


def _mended(rig: Rig) -> object:
    around = _around()
    return fixes_of(rig, assess(rig, around), around)


def _snipped(rig: Rig) -> object:
    return [snip(rig, _around(), cut) for cut in range(len(rig.lines))]


def _event() -> object:
    """What an event needs, buys, costs and does, but for the times that a search gives its tasks."""
    job, made, known = events.job(), events.demo_made(), ordinary.varieties()
    needs, larder = events.all_needs(made), events.larder()
    water = water_rounds(job, made, ordinary.conditions())
    bought = shopping(job, made, needs, CutPlan(materials=()), larder, events.shelves(), known, water)
    book = time_book(job, made, known, bought.stems)
    cost = cost_of(made, needs, bought.stems, larder, events.shelves(), known, job, book)
    days = days_before(job, made, needs.stems, known, bought.stems)
    short = replace(job, crew=job.crew[:1], suppliers=(Supplier(name="market", opens="05:00", closes="11:00"),))
    sheets = [schedule(book.tasks, job, effort=0), schedule(time_book(short, made, known).tasks, short, effort=0)]
    lines = [line for work in made.works for line in recipe_of(work) if line.water != "vessel"]
    used = (
        job.access_at or events.at("2027-05-15T08:00"),
        events.at("2027-05-15T06:00"),
        events.at("2027-05-15T13:00"),
    )
    lives = [lasts_until(job, line, known[line.variety], at) for line in lines for at in used]
    soonest = [soonest_use(job, line, known[line.variety]) for line in lines]
    gone = claims_of(1, "supper", job, [each.piece for each in made.pieces])
    stand = buckets_of(bought.stems, known, sheets[0].timed)
    built = replace(job, builds_from=events.at("2027-05-14T08:00"), builds_to=events.at("2027-05-14T19:00"))
    before = time_book(built, made, known, bought.stems)
    return lives, soonest, needs, book, before, sheets, water, bought, cost, headline(made, cost), days, stand, gone


@cache
def worked() -> dict[str, Callable[[], object]]:
    """Every piece of work by name, worked out when it is asked for."""
    return dict(_reports())


def figures_of(name: str) -> Figures:
    """For each part of what comes of it: how many figures, their sum, and their sum by where they stand."""
    try:
        found = worked()[name]()
    except CoreError as problem:
        found = (problem.path, problem.message, problem.limit)
    return summary_of(found)


def summary_of(found: object) -> Figures:
    """For each part of what was worked out: how many figures, their sum, and their sum by where they stand."""
    parts: dict[str, list[float]] = {}
    _gather(found, (), parts)
    return {path: _summed(values) for path, values in sorted(parts.items())}


def kept() -> dict[str, Figures]:
    """The figures as they were last written."""
    found: dict[str, Figures] = json.loads(FILE.read_text(encoding="utf-8"))
    return found


def same(was: list[float], now: list[float]) -> bool:
    """Whether two summaries are of the same figures, as far as machines differ."""
    return was[0] == now[0] and all(
        math.isclose(one, other, rel_tol=5e-5, abs_tol=1e-6) for one, other in zip(was[1:], now[1:], strict=True)
    )


def _summed(values: list[float]) -> list[float]:
    there = [each for each in values if math.isfinite(each)]
    weighed = math.fsum(each * (1 + at % 7) for at, each in enumerate(there))
    return [len(values), *(float(f"{round(each, 6):.7g}") for each in (math.fsum(there), weighed))]


def _gather(value: object, path: tuple[str, ...], parts: dict[str, list[float]]) -> None:
    """Every leaf as a number under its path, which is cut where it is deep; of a text, a number made of it."""
    if is_dataclass(value) and not isinstance(value, type):
        for each in fields(value):
            if each.name != "dealt":  # the seats stand in the stems
                _gather(getattr(value, each.name), (*path, each.name), parts)
    elif isinstance(value, Mapping):
        for key in value:
            _gather(value[key], (*path, str(key)), parts)
    elif isinstance(value, (list, tuple, frozenset)):
        for each in sorted(value) if isinstance(value, frozenset) else value:
            _gather(each, path, parts)
    elif isinstance(value, np.ndarray):
        for each in value.ravel().tolist():
            _gather(each, path, parts)
    elif value is not None:
        parts.setdefault(".".join(path[:_DEEP]), []).append(_number(value))


def _number(value: Any) -> float:
    if isinstance(value, (bool, int, float, Decimal, np.generic)):
        return float(value)
    if isinstance(value, datetime):
        return (value.timestamp() - THAT_DAY.timestamp()) / 60
    if isinstance(value, time):
        return value.hour * 60 + value.minute
    return zlib.crc32(str(value).encode()) % 9973


def _write() -> None:
    """Write the figures anew."""
    found = {name: figures_of(name) for name in worked()}
    rows = ",\n".join(f"{json.dumps(name)}: {json.dumps(each, separators=(',', ':'))}" for name, each in found.items())
    FILE.write_text("{\n" + rows + "\n}\n", encoding="utf-8")


if __name__ == "__main__":
    with PROGRAM.open():
        _write()
