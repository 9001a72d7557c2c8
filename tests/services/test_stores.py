"""The stores as people keep them: add, edit, copy, count, retire, tables in and out."""

import sqlite3
from dataclasses import replace

import pytest

from jolly_trellis.catalog.rows import StoreKind
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.keys import free_key
from jolly_trellis.core.provenance import MEASURED
from jolly_trellis.services import stores
from jolly_trellis.services.conditions import conditions_of, stock_of
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief
from jolly_trellis.store.stock import Holding


def bowl(studio: sqlite3.Connection) -> object:
    return stock.vessels(studio)["low-bowl-20"]


def test_the_catalogue_is_not_on_hand_until_it_is_counted(studio: sqlite3.Connection) -> None:
    held = stock.holdings(studio)
    assert all(not each for each in held.values())
    stores.count(studio, "netting", "coated-25-09", Holding(on_hand=2))
    assert stock.holdings(studio)["netting"]["coated-25-09"] == Holding(on_hand=2)
    assert stock_of(studio).on_hand == frozenset({"coated-25-09"})


def test_retiring_and_bringing_back_loses_nothing(studio: sqlite3.Connection) -> None:
    stores.count(studio, "vessel", "urn-24", Holding(on_hand=1, retired=True))
    assert "urn-24" in stock.vessels(studio)
    assert stock.holdings(studio)["vessel"]["urn-24"].retired
    stores.count(studio, "vessel", "urn-24", Holding(on_hand=1))
    assert not stock.holdings(studio)["vessel"]["urn-24"].retired


@pytest.mark.parametrize("kind", ["vessel", "netting", "frog", "variety", "supply"])
def test_a_copy_has_a_key_and_a_name_of_its_own(studio: sqlite3.Connection, kind: StoreKind) -> None:
    before = stock.things(studio, kind)
    key = next(iter(before))
    new = stores.copy(studio, kind, key)
    after = stock.things(studio, kind)
    assert set(after) - set(before) == {new}
    assert after[new].name == f"{before[key].name}, copy"
    assert stores.copy(studio, kind, key) != new


def test_what_is_not_there_cannot_be_copied_or_counted(studio: sqlite3.Connection) -> None:
    with pytest.raises(NotFound):
        stores.copy(studio, "frog", "gone")
    with pytest.raises(NotFound):
        stores.count(studio, "frog", "gone", Holding())


def test_an_edited_thing_keeps_its_place(studio: sqlite3.Connection) -> None:
    before = list(stock.frogs(studio))
    frog = stock.frogs(studio)["pin-50"]
    stores.put(studio, "frog", "pin-50", replace(frog, mass_kg=0.33))
    assert list(stock.frogs(studio)) == before
    assert stock.frogs(studio)["pin-50"].mass_kg == 0.33


def test_a_vessel_that_is_none_is_not_kept(studio: sqlite3.Connection) -> None:
    vessel = stock.vessels(studio)["low-bowl-20"]
    with pytest.raises(InvalidMeasure):
        stores.put(studio, "vessel", "low-bowl-20", replace(vessel, profile=vessel.profile[:1]))
    assert stock.vessels(studio)["low-bowl-20"] == vessel


def test_a_netting_counted_wrong_is_not_kept(studio: sqlite3.Connection) -> None:
    netting = stock.nettings(studio)["coated-25-09"]
    with pytest.raises(InvalidMeasure):
        stores.put(studio, "netting", netting.key, replace(netting, counted_cells=12, counted_length_m=None))


def test_edited_figures_are_used_at_once(studio: sqlite3.Connection) -> None:
    before = conditions_of(studio, Brief(name="x")).varieties["rose"]
    stores.put(studio, "variety", "rose", replace(before, mass_kg=0.05))
    assert conditions_of(studio, Brief(name="x")).varieties["rose"].mass_kg == 0.05


def test_a_measured_vessel_is_on_hand(studio: sqlite3.Connection) -> None:
    key = stores.add(studio, "vessel", replace(stock.vessels(studio)["low-bowl-20"], name="Grandmother's bowl"))
    assert key == "grandmother-s-bowl"
    assert stock.holdings(studio)["vessel"][key].on_hand == 1


@pytest.mark.parametrize(("name", "key"), [("Ünder tåble", "under-table"), ("***", "thing"), ("a" * 80, "a" * 50)])
def test_keys_are_made_of_names(name: str, key: str) -> None:
    assert free_key(name, set()) == key
    assert free_key(name, {key}) == f"{key}-2"


class TestTables:
    def test_an_unchanged_table_changes_nothing(self, studio: sqlite3.Connection) -> None:
        text = stores.export_table(studio, "netting")
        found = stores.import_table(studio, "netting", text, dry_run=True)
        assert (found.added, found.changed, found.refused) == ((), (), ())
        assert found.unchanged == len(stock.nettings(studio))

    def test_a_dry_run_writes_nothing(self, studio: sqlite3.Connection) -> None:
        text = stores.export_table(studio, "frog").replace("pin-50,", "pin-51,")
        found = stores.import_table(studio, "frog", text, dry_run=True)
        assert found.added == ("pin-51",)
        assert not found.written
        assert "pin-51" not in stock.frogs(studio)

    def test_a_table_is_written_when_it_is_meant(self, studio: sqlite3.Connection) -> None:
        text = stores.export_table(studio, "frog").replace("pin-50,", "pin-51,").replace(",300,", ",310,")
        found = stores.import_table(studio, "frog", text, dry_run=False)
        assert found.written
        assert stock.frogs(studio)["pin-51"].mass_kg == pytest.approx(0.31)
        assert "pin-50" in stock.frogs(studio)

    def test_a_row_twice_is_refused_once(self, studio: sqlite3.Connection) -> None:
        text = stores.export_table(studio, "frog")
        second = text.splitlines()[1]
        found = stores.import_table(studio, "frog", text + second + "\r\n", dry_run=True)
        assert len(found.refused) == 1
        assert "twice" in found.refused[0].why

    def test_good_rows_beside_bad_ones_are_written_and_the_bad_named(self, studio: sqlite3.Connection) -> None:
        header = "key,name,kind,width_mm,height_mm,mass_g,opening_mm,openings,volume_ml\n"
        text = header + "new-one,Frog,pin,50,20,300,4,0,0\nnew-two,Frog,pin,wide,20,300,4,0,0\n"
        found = stores.import_table(studio, "frog", text, dry_run=False)
        assert found.added == ("new-one",)
        assert [row.line for row in found.refused] == [3]
        assert "new-two" not in stock.frogs(studio)


def test_what_is_typed_anew_is_the_studios_own_figure_and_a_name_or_a_price_is_none(
    studio: sqlite3.Connection,
) -> None:
    rose = stock.varieties(studio)["garden-rose"]
    stores.put(studio, "variety", rose.key, replace(rose, mass_kg=rose.mass_kg + 0.002, name="Rose of the garden"))
    told = stock.varieties(studio)[rose.key].provenance
    assert told.mass == MEASURED
    assert (told.size, told.uptake) == (rose.provenance.size, rose.provenance.uptake)
    both = replace(stock.varieties(studio)[rose.key], bunch_price=31.0, uptake_ml_h=rose.uptake_ml_h + 0.1)
    stores.put(studio, "variety", rose.key, both)
    assert {
        stock.varieties(studio)[rose.key].provenance.uptake,
        stock.varieties(studio)[rose.key].provenance.price,
    } == {MEASURED}
    net = next(iter(stock.nettings(studio).values()))
    stores.put(studio, "netting", net.key, replace(net, price=net.price + 1.0 if net.price else 9.0, name="Other net"))
    assert stock.nettings(studio)[net.key].provenance == net.provenance
    stores.put(studio, "netting", net.key, replace(net, roll_width_m=net.roll_width_m + 0.1))
    assert stock.nettings(studio)[net.key].provenance == MEASURED
    said = replace(net, roll_length_m=7.0, provenance=replace(net.provenance, source="the maker's sheet"))
    stores.put(studio, "netting", net.key, said)
    assert stock.nettings(studio)[net.key].provenance.source == "the maker's sheet"


def test_what_is_dried_drinks_nothing_from_then_on_and_what_is_gathered_has_no_price(
    studio: sqlite3.Connection,
) -> None:
    rose = stock.varieties(studio)["garden-rose"]
    stores.put(studio, "variety", rose.key, replace(rose, kind="dried"))
    dried = stock.varieties(studio)[rose.key]
    assert (dried.uptake_ml_h, dried.conditioning_h, dried.opening_days) == (0.0, 0.0, 0.0)
    assert dried.bunch_price == rose.bunch_price
    assert dried.provenance == rose.provenance, "nobody has measured that it drinks nothing"
    stores.put(studio, "variety", rose.key, replace(rose, kind="own garden"))
    own = stock.varieties(studio)[rose.key]
    assert (own.bunch_price, own.stem_price, own.uptake_ml_h) == (None, None, rose.uptake_ml_h)
