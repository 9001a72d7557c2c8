"""Tables of the stores: read strictly row by row, written back the same, hostile cells refused."""

from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.catalog import loaders
from jolly_trellis.catalog.cells import BadTable
from jolly_trellis.catalog.columns import MOST_ROWS, Refused, rows_of, write_table
from jolly_trellis.catalog.rows import TABLES, StoreKind
from jolly_trellis.core.materials.finished import FinishedArmature

KINDS: tuple[StoreKind, ...] = get_args(StoreKind)
EVERYTHING: dict[StoreKind, dict[str, Any]] = {
    "vessel": dict(loaders.vessels()),
    "netting": {each.key: each for each in loaders.nettings()},
    "frog": {each.key: each for each in loaders.frogs()},
    "variety": {each.key: each for each in loaders.varieties()},
    "supply": {each.key: each for each in loaders.supplies()},
    "stand": {each.key: each for each in loaders.stands()},
    "armature": {
        "low-sheet": FinishedArmature(
            key="low-sheet", name="low sheets, =1", made_as="cushion sheet", width_m=0.239, length_m=0.491, note="dry"
        )
    },
}
FROG = "key,name,kind,width_mm,height_mm,mass_g,opening_mm,openings,volume_ml\n"


def refused(text: str, kind: StoreKind = "frog") -> list[Refused]:
    return [refusal for _, _, refusal in rows_of(kind, text) if refusal is not None]


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_written_reads_back_the_same(kind: StoreKind) -> None:
    text = write_table(kind, EVERYTHING[kind])
    read = {}
    for _, found, refusal in rows_of(kind, text):
        assert refusal is None
        key, thing = found
        read[key] = thing
    again = write_table(kind, read)
    assert again == text
    assert len(read) == len(EVERYTHING[kind])


@pytest.mark.parametrize("kind", KINDS)
def test_a_byte_order_mark_and_windows_lines_are_read(kind: StoreKind) -> None:
    text = "\ufeff" + write_table(kind, EVERYTHING[kind])
    assert "\r\n" in text
    assert not refused(text, kind)


@pytest.mark.parametrize(("delimiter", "word"), [(";", "semicolons"), ("\t", "tabs"), ("|", "upright strokes")])
def test_another_delimiter_is_named(delimiter: str, word: str) -> None:
    text = write_table("frog", EVERYTHING["frog"]).replace(",", delimiter)
    with pytest.raises(BadTable, match=word):
        list(rows_of("frog", text))


@pytest.mark.parametrize("text", ["", "\n", "apples,pears\n1,2\n", "\x00\x01binary"])
def test_what_is_no_table_of_the_kind_says_what_columns_there_are(text: str) -> None:
    with pytest.raises(BadTable):
        list(rows_of("frog", text))


def test_a_missing_column_is_named() -> None:
    with pytest.raises(BadTable, match="mass_g"):
        list(rows_of("frog", FROG.replace(",mass_g", "")))


def test_a_hundred_thousand_rows_are_refused_in_a_sentence() -> None:
    text = FROG + "a,b,pin,50,20,300,4,0,0\n" * 100_000
    with pytest.raises(BadTable, match=str(MOST_ROWS)):
        list(rows_of("frog", text))


@pytest.mark.parametrize("cell", ["=1+1", "+cmd", "@SUM(A1)", "=HYPERLINK(1)", "-2+3"])
def test_a_formula_in_a_cell_is_refused_and_never_run(cell: str) -> None:
    (row,) = refused(FROG + f"x,{cell},pin,50,20,300,4,0,0\n")
    assert "formula" in row.why
    assert (row.line, row.column) == (2, "name")


def test_a_cell_a_spreadsheet_would_run_is_written_with_an_apostrophe() -> None:
    frog = next(iter(EVERYTHING["frog"].values()))
    from dataclasses import replace

    text = write_table("frog", {"x": replace(frog, name="=1+1")})
    assert "'=1+1" in text


@pytest.mark.parametrize(
    ("row", "column", "words"),
    [
        ("x,Frog,pin,wide,20,300,4,0,0", "width_mm", "no number"),
        ("x,Frog,pin,-50,20,300,4,0,0", "width_mm", "out of range"),
        ("x,Frog,pin,nan,20,300,4,0,0", "width_mm", "out of range"),
        ("x,Frog,pin,inf,20,300,4,0,0", "width_mm", "out of range"),
        ("x,Frog,hero,50,20,300,4,0,0", "kind", "Choose one of"),
        ("x,,pin,50,20,300,4,0,0", "name", "empty"),
        (",Frog,pin,50,20,300,4,0,0", "key", "letters, digits and dashes"),
        ("a b,Frog,pin,50,20,300,4,0,0", "key", "letters, digits and dashes"),
        ("x,Frog,pin,50,20,300,4,2.5,0", "openings", "whole number"),
        ("x,Frog,pin,50,20,300,4,0,0,9,9", "", "more cells"),
        (f"x,{'n' * 500},pin,50,20,300,4,0,0", "name", "longer than 400"),
    ],
)
def test_a_bad_row_is_refused_with_its_line_its_column_and_why(row: str, column: str, words: str) -> None:
    (found,) = refused(FROG + "good,Frog,pin,50,20,300,4,0,0\n" + row + "\n")
    assert (found.line, found.column) == (3, column)
    assert words in found.why


def test_bad_rows_do_not_stop_good_ones() -> None:
    text = FROG + "bad,Frog,pin,wide,20,300,4,0,0\n" + "good,Frog,pin,50,20,300,4,0,0\n"
    taken = [found for _, found, refusal in rows_of("frog", text) if refusal is None]
    assert [key for key, _ in taken] == ["good"]


VESSEL = "key,name,plan_shape,profile_cm,wall_mm,base_mm,material,clear\n"


@pytest.mark.parametrize(
    ("profile", "words"),
    [
        ("0:12 9:20 5:18", "folds back"),
        ("0:12", "fewer than two"),
        ("1:12 9:20", "starts at"),
        ("0:12 9:wide", "no measure"),
        ("0:12 9:99999", "out of range"),
        ("", "fewer than two"),
        ("0:12x14 9:20", "wider one way"),
    ],
)
def test_a_profile_that_is_none_is_refused(profile: str, words: str) -> None:
    (found,) = refused(VESSEL + f"x,Bowl,round,{profile},5,6,glazed,0\n", "vessel")
    assert words in found.why


def test_a_vessel_row_needs_neither_foot_nor_weight() -> None:
    [(_, found, refusal)] = list(rows_of("vessel", VESSEL + "x,Bowl,round,0:12 9:20,5,6,glazed,0\n"))
    assert refusal is None
    _, vessel = found
    assert vessel.mass_kg is None
    assert vessel.provenance == "measured"


@pytest.mark.parametrize(
    ("column", "value", "words"),
    [
        ("colour", "red", "no colour"),
        ("sold_lengths_cm", "", "No length"),
        ("sold_lengths_cm", "40 fifty", "no number"),
        ("head_fraction", "1.2", "out of range"),
        ("hazards", "maybe", "Choose one of"),
        ("form", "cube", "Choose one of"),
    ],
)
def test_a_bad_variety_is_refused(column: str, value: str, words: str) -> None:
    rose = EVERYTHING["variety"]["rose"]
    row = TABLES["variety"].write("rose", rose) | {column: value}
    text = (
        ",".join(TABLES["variety"].columns) + "\n" + ",".join(f'"{row[name]}"' for name in TABLES["variety"].columns)
    )
    (found,) = refused(text + "\n", "variety")
    assert found.column == column
    assert words in found.why


def test_a_comma_for_a_decimal_point_is_read() -> None:
    [(_, found, refusal)] = list(rows_of("frog", FROG + 'x,Frog,pin,"50,5",20,300,4,0,0\n'))
    assert refusal is None
    assert found[1].width_m == pytest.approx(0.0505)


@given(st.text(max_size=200))
def test_no_text_at_all_does_harm(text: str) -> None:
    for kind in KINDS:
        try:
            list(rows_of(kind, text))
        except BadTable as problem:
            assert str(problem)


@given(st.lists(st.text(alphabet="abc=,;\"'\n\r\t+-@0 .", max_size=12), min_size=9, max_size=9))
def test_no_row_at_all_does_harm(cells: list[str]) -> None:
    try:
        list(rows_of("frog", FROG + ",".join(cells) + "\n"))
    except BadTable as problem:
        assert str(problem)


@pytest.mark.parametrize(
    ("row", "column", "words"),
    [
        ("rope,steel rope,metre,25,,17,0.1,rigging", "measured_by", "Choose one of: piece, length, stick, mass"),
        ("cane,cane,stick,10,,16,0.1,hardware", "stick_m", "A stick has no length here"),
        ("tube,tube,piece,0,,16,0.1,sundries", "pack", "out of range"),
        ("tube,tube,piece,10,,16,0.1,corner shop", "supplier", "Choose one of"),
    ],
)
def test_a_supply_that_cannot_be_is_refused(row: str, column: str, words: str) -> None:
    (found,) = refused(f"key,name,measured_by,pack,stick_m,price,spare,supplier\n{row}\n", "supply")
    assert found.column == column
    assert words in found.why
