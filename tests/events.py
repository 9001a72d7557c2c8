"""Ordinary events for tests: the demo's pieces worked out once, a job around them, what the stores have."""

from dataclasses import replace
from datetime import datetime
from decimal import Decimal
from functools import cache

from jolly_trellis.catalog import loaders
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.buying.shared_needs import with_shared
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.job import Costing, CrewMember, Job, Made, PieceWork, RigWork
from jolly_trellis.core.event.money import money
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needed import Needs
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.needs.wear import Kept
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.demo.loading import demo_plan
from tests.ordinary import ZONE, conditions, frogs, nettings, piece, varieties


@cache
def supplies() -> dict[str, Supply]:
    return {each.key: each for each in loaders.supplies()}


def at(text: str) -> datetime:
    """A local time of the tests' place."""
    return datetime.fromisoformat(text).replace(tzinfo=ZONE)


def job() -> Job:
    """One long day: in at eight, water at half past twelve, guests at six, gone by two; four pairs of hands."""
    return Job(
        zone=ZONE,
        access_at=at("2027-05-15T08:00"),
        filled_at=at("2027-05-15T12:30"),
        starts_at=at("2027-05-15T18:00"),
        ends_at=at("2027-05-15T23:30"),
        clear_by=at("2027-05-16T02:00"),
        travel_h=0.75,
        crew=tuple(CrewMember(name=each) for each in ("Wren", "Alder", "Sorrel", "Rush")),
        air=Air(temperature_c=24.0, relative_humidity=0.42),
        workshop=Air(temperature_c=16.0, relative_humidity=0.6),
        topped_up_by="the evening crew",
        costing=Costing(rate_per_h=Decimal("26.00"), margin=0.35),
    )


@cache
def demo_made() -> Made:
    """Everything of the demo, worked out; what cannot be has no report."""
    plan, around = demo_plan(), replace(conditions(), filled_at=job().filled_at, ends_at=job().ends_at, air=job().air)
    pieces = tuple(
        PieceWork(id=each.id, piece=each.part, report=evaluate(each.part, around, with_fixes=False))
        for each in plan.pieces
    )
    rigs = []
    for number, hung in enumerate(plan.rigs, start=len(pieces) + 1):
        try:
            report = assess(hung.part, around)
        except CoreError:
            report = None
        rigs.append(RigWork(id=number, rig=hung.part, report=report))
    return Made(pieces=pieces, rigs=tuple(rigs))


@cache
def one_bowl(quantity: int = 3) -> Made:
    """So many of an ordinary bowl and nothing else."""
    bowl = replace(piece(), quantity=quantity)
    return Made(pieces=(PieceWork(id=1, piece=bowl, report=evaluate(bowl, conditions(), with_fixes=False)),))


def larder() -> Larder:
    """Two rolls of fine coated netting and one of wide galvanized here; everything else to buy."""
    return Larder(nettings=nettings(), supplies=supplies(), rolls={"coated-25-09": 2, "galvanized-50-10": 1}, packs={})


def shelves() -> Shelves:
    """Frogs for the demo; vessels and stands are known with their prices, and none is here; no stems."""
    vessels = {f"vessel:{key}": kept(each.name, each.price) for key, each in loaders.vessels()}
    stands = {f"stand:{each.key}": kept(each.name, each.price) for each in loaders.stands()}
    return Shelves(frogs=frogs(), frogs_here={"pin-100": 1}, vessels=vessels, stands=stands, stems_here={})


def kept(name: str, price: float | None, here: int = 0) -> Kept:
    """A thing that is used 40 times."""
    return Kept(name=name, here=here, price=None if price is None else money(price), lasts=40)


def all_needs(made: Made, around: Job | None = None) -> Needs:
    """What pieces need, and what the event needs as a whole."""
    mine, own = around or job(), needs_of(made)
    bought = buy_stems(own.stems, varieties(), waste=mine.costing.waste, here={})
    return with_shared(own, mine, made, bought, water_rounds(mine, made, conditions()))


__all__ = ["at", "demo_made", "job", "larder", "one_bowl", "shelves", "supplies", "varieties"]
