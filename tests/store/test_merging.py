"""Two changes of one document: what only one changed is kept, what both changed is asked about, nothing else is."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.store.merging import leaves, merged

WAS: dict[str, Any] = {
    "name": "bowl",
    "height_m": 0.2,
    "mechanic": {"kind": "wire", "layers": 3},
    "recipe": [{"variety": "rose", "count": 9}, {"variety": "fern", "count": 5}],
    "marks": [1, 2],
    "dealt": {"seats": [1, 2]},
}


def changed(**fields: Any) -> dict[str, Any]:
    return WAS | fields


ROSE_7 = [{"variety": "rose", "count": 7}, {"variety": "fern", "count": 5}]
FERN_3 = [{"variety": "rose", "count": 9}, {"variety": "fern", "count": 3}]


@pytest.mark.parametrize(
    ("mine", "now", "document", "asked"),
    [
        (changed(name="urn"), WAS, changed(name="urn"), []),
        (WAS, changed(name="urn"), changed(name="urn"), []),
        (changed(name="urn"), changed(height_m=0.3), changed(name="urn", height_m=0.3), []),
        (changed(name="urn"), changed(name="urn"), changed(name="urn"), []),
        (changed(name="urn"), changed(name="vase"), changed(name="urn"), ["name"]),
        (
            changed(recipe=ROSE_7),
            changed(recipe=FERN_3),
            changed(recipe=[{"variety": "rose", "count": 7}, {"variety": "fern", "count": 3}]),
            [],
        ),
        (changed(recipe=ROSE_7[:1]), changed(recipe=FERN_3), changed(recipe=ROSE_7[:1]), ["recipe"]),
        (changed(recipe=WAS["recipe"][::-1]), changed(recipe=ROSE_7), changed(recipe=WAS["recipe"][::-1]), ["recipe"]),
        (
            changed(mechanic={"kind": "frog", "size": 2}),
            changed(mechanic={"kind": "wire", "layers": 2}),
            changed(mechanic={"kind": "frog", "size": 2}),
            ["mechanic"],
        ),
        (changed(marks=[1, 3]), changed(marks=[2, 2]), changed(marks=[2, 3]), []),
        (changed(dealt={"seats": [3]}), changed(dealt=None), changed(dealt=None), []),
        (changed(height_m=1), changed(height_m=1.0), changed(height_m=1.0), []),
    ],
)
def test_by_hand(mine: Any, now: Any, document: Any, asked: list[str]) -> None:
    found = merged(WAS, mine, now)
    assert found.document == document
    assert [each.path for each in found.both] == asked


def test_what_was_chosen_is_not_asked_again() -> None:
    mine, now = changed(name="urn", height_m=0.4), changed(name="vase", height_m=0.3)
    asked = merged(WAS, mine, now)
    assert [(each.path, each.was, each.mine, each.now) for each in asked.both] == [
        ("name", "bowl", "urn", "vase"),
        ("height_m", 0.2, 0.4, 0.3),
    ]
    found = merged(WAS, mine, now, keep=["name"], give=["height_m"])
    assert (found.document, found.both) == (changed(name="urn", height_m=0.3), ())
    assert [each.path for each in merged(WAS, mine, now, give=["name"]).both] == ["height_m"]


def test_what_one_has_and_the_other_has_not() -> None:
    assert merged({"a": 1}, {"a": 1, "b": 2}, {"a": 1, "c": 3}).document == {"a": 1, "b": 2, "c": 3}
    assert merged({"a": 1, "b": 2}, {"a": 1}, {"a": 5, "b": 2}).document == {"a": 5}
    asked = merged(None, {"number": 1}, {"number": 2}).both
    assert [(each.path, each.was, each.mine, each.now) for each in asked] == [("", None, {"number": 1}, {"number": 2})]


def test_leaves_are_told_by_dotted_path_without_what_follows_from_the_rest() -> None:
    assert dict(leaves(WAS))["recipe.1.count"] == 5
    assert "dealt.seats.0" not in dict(leaves(WAS))


VALUES = st.integers(0, 3)
DOCUMENTS = st.fixed_dictionaries({"a": VALUES, "b": st.fixed_dictionaries({"c": VALUES, "d": VALUES}), "e": VALUES})


@given(DOCUMENTS, DOCUMENTS, DOCUMENTS)
def test_of_random_changes_none_is_lost_and_only_what_both_changed_is_asked(was: Any, mine: Any, now: Any) -> None:
    found = merged(was, mine, now)
    old, own, other, new = (dict(leaves(each)) for each in (was, mine, now, found.document))
    asked = {each.path for each in found.both}
    for path in old:
        both = own[path] != old[path] and other[path] != old[path] and own[path] != other[path]
        assert (path in asked) == both
        if not both:
            assert new[path] == (own[path] if own[path] != old[path] else other[path])
    again = merged(was, mine, now, keep=asked).document
    assert again == merged(now, found.document, now).document
    assert merged(was, now, mine, give=asked).document == again
