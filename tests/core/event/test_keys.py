"""Keys are made of a name once, are told apart, and stay when the name changes."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.job import CrewMember, Hire, Supplier, lenders_keyed
from jolly_trellis.core.event.keys import free_key, keyed, line_key, slug, thing_id

HIRE = Hire(name="urn", lender="Osterlay Hire", comes="2027-05-14", goes_back="2027-05-17")


@pytest.mark.parametrize(
    ("name", "plain"),
    [("Osterlay Hire", "osterlay-hire"), ("Östeŕlay  hire", "osterlay-hire"), ("  7 × 7!", "7-7"), ("花", "x")],
)
def test_a_name_as_part_of_a_key(name: str, plain: str) -> None:
    assert slug(name) == plain


def test_a_key_that_is_taken_is_numbered_and_a_long_name_is_cut() -> None:
    assert free_key("Low bowl", ()) == "low-bowl"
    assert free_key("Low bowl", {"low-bowl", "low-bowl-2"}) == "low-bowl-3"
    assert free_key("花", ()) == "thing"
    assert free_key(80 * "n", ()) == 50 * "n"


def test_rows_get_keys_once_and_two_of_one_name_are_two() -> None:
    crew = keyed((CrewMember(name="Runa"), CrewMember(name="Runa"), CrewMember(name="Ivo", key="runa-2")))
    assert [each.key for each in crew] == ["runa", "runa-2", "ivo"]
    assert [each.id for each in crew] == ["runa", "runa-2", "ivo"]
    called = keyed(tuple(replace(each, name="Mire") for each in crew))
    assert [each.key for each in called] == ["runa", "runa-2", "ivo"]
    assert keyed(crew) == crew
    assert CrewMember(name="Runa Ash").id == "runa-ash"
    assert (Supplier(name="Quay market").id, Supplier(name="Quay", key="market").id) == ("quay-market", "market")


def test_a_lender_has_one_key_for_all_its_hires_and_another_lender_another() -> None:
    hires = lenders_keyed((HIRE, replace(HIRE, lender="Tall Things"), replace(HIRE, lender="OSTERLAY hire")))
    assert [each.lender_key for each in hires] == ["osterlay-hire", "tall-things", "osterlay-hire"]
    renamed = lenders_keyed(tuple(replace(each, lender=f"{each.lender} Ltd") for each in hires))
    assert [each.lender_key for each in renamed] == ["osterlay-hire", "tall-things", "osterlay-hire"]
    one = lenders_keyed((replace(hires[0], lender="Quay hire"), *hires[1:]))
    assert [each.lender_key for each in one] == ["osterlay-hire", "tall-things", "osterlay-hire-2"]


def test_a_thing_is_told_by_its_key_and_what_has_none_by_what_it_is_called() -> None:
    assert thing_id("vessel", "cube-14", "cube") == "vessel:cube-14"
    assert thing_id("vessel", "", "cube") == "~cube"
    assert (HIRE.of, replace(HIRE, thing="vessel:urn-24").of) == ("~urn", "vessel:urn-24")
    assert line_key("stand", "stand:cylinder-stand-50") == "stand:cylinder-stand-50"
    assert line_key("stand", "vessel:cube-14") == "stand-vessel:cube-14"
    assert line_key("frog", "pin-75") == "frog-pin-75"
