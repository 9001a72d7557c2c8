"""The lines a price is made of, and what an event needs as a whole: each worked by hand."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal

import pytest

from jolly_trellis.core.event import facts
from jolly_trellis.core.event.buying import shared_needs
from jolly_trellis.core.event.cost.cost_parts import CostPart, Stores, goods, stem_parts, vessel_parts
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.job import Costing
from jolly_trellis.core.event.needs.needed import (
    FrogNeed,
    LengthNeed,
    Needs,
    StemNeed,
    SupplyNeed,
    ThingKind,
    ThingNeed,
)
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.tasks.water_rounds import Round, WaterRounds
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.units import render
from tests.events import at, job, kept, one_bowl
from tests.ordinary import frogs, nettings, varieties

D = Decimal
NOTHING = Needs(sheets=(), lengths=(), supplies=(), frogs=(), stems=(), not_worked_out=())
WIRE = Supply(key="wire", name="binding wire", measured_by="length", pack=50.0, price=4.0, spare=0.1)
CANE = Supply(key="cane", name="cane", measured_by="stick", pack=10, stick_m=2.0, price=12.0)
TUBE = Supply(key="tube", name="tube", measured_by="piece", pack=25, price=5.0, spare=0.04)


def said(parts: list[CostPart]) -> list[tuple[str, str, str, Decimal]]:
    return [(each.kind, each.name, render(each.of, "metric"), each.amount) for each in parts]


def stores(uses: int | None = None) -> Stores:
    larder = Larder(nettings=nettings(), supplies={each.key: each for each in (WIRE, CANE, TUBE)})
    pin = replace(next(iter(frogs().values())), name="pin", price=9.0)
    shelves = Shelves(frogs={"pin": pin}, frogs_here={}, stems_here={})
    return Stores(larder=larder, shelves=shelves, varieties=varieties(), costing=Costing(uses=uses))


def test_what_is_used_up_has_its_spares_and_what_returns_is_shared_over_its_uses() -> None:
    """Wire 20 m + 10 % of 50 m at 4.00 is 1.76; canes 15 m of 20 m at 12.00 over 5 uses 1.80; 30 tubes + 4 % 6.24."""
    needs = replace(
        NOTHING,
        lengths=(
            LengthNeed(piece_id=1, piece="a", name="tie", supply="wire", length_m=2.0, quantity=10),
            LengthNeed(piece_id=1, piece="a", name="leg", supply="cane", length_m=1.5, quantity=8, uses=5),
        ),
        reused=(
            LengthNeed(piece_id=1, piece="a", name="leg", supply="cane", length_m=1.5, quantity=2, uses=5),
            LengthNeed(piece_id=1, piece="a", name="tie", supply="wire", length_m=9.0, quantity=2),
        ),
        supplies=(
            SupplyNeed(piece_id=1, piece="a", supply="tube", amount=30.0, uses=1),
            SupplyNeed(piece_id=1, piece="a", supply="moss", amount=1.0, uses=1),
        ),
        frogs=(
            FrogNeed(piece_id=1, piece="a", frog="pin", quantity=3, uses=4),
            FrogNeed(piece_id=1, piece="a", frog="no such", quantity=1, uses=4),
        ),
    )
    parts, missing = goods(needs, stores())
    assert [(each.path, each.say.text) for each in missing] == [
        ("frog.no such.price", "the price of no such"),
        ("supply.moss.price", "the price of moss"),
    ]
    assert said(parts) == [
        ("mechanics", "pin", "3 at 2.25, 9.00 over 4 uses", D("6.75")),
        ("consumables", "tube", "31 of 25 at 5.00", D("6.24")),
        ("consumables", "binding wire", "22 m of 50 m at 4.00", D("1.76")),
        ("mechanics", "cane", "15 m of 20 m at 12.00, used 5 times", D("1.80")),
    ]
    owned = said(goods(needs, stores(2))[0])
    assert [amount for *_, amount in owned] == [D("13.50"), D("6.24"), D("1.76"), D("4.50")]


def test_a_sheet_costs_its_share_of_the_roll_over_its_uses_also_from_a_finished_armature() -> None:
    plain = needs_of(one_bowl())
    (sheet, *_), net = plain.sheets, nettings()[plain.sheets[0].netting]
    own = replace(NOTHING, sheets=(sheet,))
    metres = sheet.sheet.width_m * sheet.sheet.length_m * sheet.quantity / net.roll_width_m
    exact = D(str(net.price)) * D(str(metres / net.roll_length_m)) / sheet.uses
    ((part,), missing) = goods(own, stores())
    assert (part.name, missing) == (f"{sheet.name}, {net.name}", [])
    assert abs(part.amount - exact) <= D("0.006")
    again = replace(NOTHING, reused=(sheet, replace(sheet, uses=1)))
    assert goods(again, stores())[0] == [part]
    blank = replace(stores(), larder=replace(stores().larder, nettings={net.key: replace(net, price=None)}))
    assert goods(own, blank) == ([], [facts.PRICE.missing(("netting", net.key), name=net.name)])


def test_a_vessel_costs_one_use_what_is_hired_first_nothing() -> None:
    wanted: list[tuple[ThingKind, str, int]] = [
        ("vessel", "urn", 5),
        ("stand", "urn", 1),
        ("vessel", "jar", 2),
        ("vessel", "x", 1),
        ("armature", "again", 1),
    ]
    things = [
        ThingNeed(piece_id=1, piece="a", kind=kind, thing=name, name=name, quantity=n) for kind, name, n in wanted
    ]
    shelves = Shelves(
        vessels={"urn": replace(kept("urn", 30.0, 9), lasts=20, resale=D("10.00")), "jar": kept("jar", None, 3)},
        stands={"urn": replace(kept("urn", 8.0, 9), lasts=16)},
        frogs={},
        frogs_here={},
        stems_here={},
    )
    left = {"urn": 2}
    parts = list(vessel_parts(replace(NOTHING, things=tuple(things)), shelves, left))
    lacking = [each.say.text for each in parts if isinstance(each, Missing)]
    assert lacking == ["the price of jar", "the price of x"]
    assert said([each for each in parts if isinstance(each, CostPart)]) == [
        ("vessels", "urn", "3 at 1.00, 30.00 over 20 uses", D("3.00")),
        ("vessels", "urn", "1 at 0.50, 8.00 over 16 uses", D("0.50")),
    ]
    assert left == {"urn": 0}


def test_stems_without_a_price_are_in_no_line() -> None:
    stems = tuple(StemNeed(piece_id=1, piece="a", variety=key, count=n) for key, n in (("r", 4), ("r", 3), ("s", 1)))
    parts = list(stem_parts(replace(NOTHING, stems=stems), {"r": D("7.10"), "s": None}, {"r": "rose", "s": "statice"}))
    assert said(parts) == [("stems", "rose", "7 stems, and the share of what is bought beyond", D("7.10"))]


@pytest.mark.parametrize(
    ("total_l", "round_l", "cans", "jugs"),
    [(0.0, 0.0, 0, 0), (10.0, 2.0, 2, 1), (31.0, 3.9, 4, 2), (99.0, 75.0, 11, 4)],
)
def test_cans_for_all_the_water_and_jugs_for_the_largest_round(
    total_l: float, round_l: float, cans: int, jugs: int
) -> None:
    """Ten litres to a can; never more jugs than there are people to carry one."""
    rounds = tuple(
        Round(at=at("2027-05-15T12:30") + timedelta(hours=nth), pours=(), litres=litres)
        for nth, litres in enumerate((round_l / 2, round_l))
    )
    water = WaterRounds(
        filled_at=None, fill=(), fill_l=0.0, rounds=rounds, total_l=total_l, who=None, dry=(), not_worked_out=()
    )
    made = one_bowl(2)
    found = shared_needs.with_shared(needs_of(made), job(), made, (), water)
    amounts = {each.supply: each.amount for each in found.supplies if each.piece_id == 0}
    assert amounts == {key: n for key, n in (("water-can", cans), ("jug", jugs)) if n}


def test_a_spare_sheet_is_a_metre_at_most_of_the_widest() -> None:
    made = one_bowl()
    water = WaterRounds(
        filled_at=None, fill=(), fill_l=0.0, rounds=(), total_l=0.0, who=None, dry=(), not_worked_out=()
    )
    (need, *_) = needs_of(made).sheets
    long = replace(need, sheet=replace(need.sheet, width_m=0.7, length_m=2.5, rows_along=100, mass_kg=1.0))
    thin = replace(need, sheet=replace(need.sheet, width_m=0.2, length_m=9.0))
    found = shared_needs.with_shared(replace(NOTHING, sheets=(thin, long)), job(), made, (), water)
    spare = found.sheets[-1]
    assert (spare.name, spare.quantity, spare.may_turn, spare.piece_id) == ("spare sheet", 1, True, 0)
    assert (spare.sheet.width_m, spare.sheet.length_m, spare.sheet.rows_along) == (0.7, 1.0, 40)
    assert spare.sheet.mass_kg == pytest.approx(0.4)
    short = replace(need, sheet=replace(need.sheet, width_m=0.3, length_m=0.5, rows_along=12))
    kept_whole = shared_needs.with_shared(replace(NOTHING, sheets=(short,)), job(), made, (), water).sheets[-1].sheet
    assert (kept_whole.length_m, kept_whole.rows_along, kept_whole.mass_kg) == (0.5, 12, short.sheet.mass_kg)
    assert shared_needs.with_shared(NOTHING, job(), made, (), water).sheets == ()
