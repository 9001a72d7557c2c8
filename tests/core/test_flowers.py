"""What a flower is beside its sizes: every name finds it or is asked about, its season, each hazard by itself."""

from collections import Counter
from dataclasses import replace
from typing import get_args

import pytest

from jolly_trellis.catalog.columns import rows_of, write_table
from jolly_trellis.core.event.buying.seasons import months_in_words, out_of_season
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.making.pull_list import preparation_of
from jolly_trellis.core.materials.hazards import ABOUT, HANDS, HAZARDS, Hazard, of_all
from jolly_trellis.core.materials.stems import CARE, Care, Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.rigging.coverage import stem_covers_m2
from jolly_trellis.core.say.names import find_varieties
from jolly_trellis.core.stems.stem_set import expand
from jolly_trellis.core.units import render
from tests.events import at, job
from tests.ordinary import conditions, varieties

EVERY = tuple(varieties().values())


@pytest.mark.parametrize("variety", EVERY, ids=lambda each: each.key)
def test_every_name_of_a_variety_finds_it_or_is_asked_about(variety: Variety) -> None:
    shown = {each.name.lower() for each in EVERY} | {each.key for each in EVERY}
    said = Counter(
        each for other in EVERY for each in {name.lower() for name in (*other.names, other.botanical) if name}
    )
    assert find_varieties(variety.name.lower(), varieties()) == (variety,)
    for name in filter(None, (*variety.names, variety.botanical)):
        found = find_varieties(name.lower(), varieties())
        if name.lower() in shown:
            assert len(found) == 1
        elif said[name.lower()] > 1:
            assert variety in found
            assert len(found) == said[name.lower()]
        else:
            assert found == (variety,), name


@pytest.mark.parametrize(
    ("said", "key"),
    [
        ("baby's breath", "gypsophila"),
        ("eustoma", "lisianthus"),
        ("dianthus", "carnation"),
        ("mums", "chrysanthemum"),
        ("love-in-a-mist", "nigella"),
        ("antirrhinums", "snapdragon"),
        ("hippeastrum", "amaryllis"),
        ("lemon leaf", "salal"),
        ("gyp", "gypsophila"),
        ("billy buttons", "craspedia"),
        ("peonies", "peony"),
    ],
)
def test_names_of_both_sides_of_the_ocean_are_heard(said: str, key: str) -> None:
    assert [each.key for each in find_varieties(said, varieties())] == [key]


@pytest.mark.parametrize("variety", EVERY, ids=lambda each: each.key)
def test_a_variety_has_a_botanical_name_months_and_hazards_there_are(variety: Variety) -> None:
    assert variety.botanical[:1].isupper() or variety.kind == "artificial"
    assert variety.season == tuple(sorted(set(variety.season)))
    assert bool(variety.season) == (variety.kind == "fresh")
    assert set(variety.hazards) <= set(HAZARDS)


def test_every_hazard_says_what_it_is_and_what_to_do_and_none_says_harmless() -> None:
    assert set(ABOUT) == set(get_args(Hazard))
    for each in ABOUT.values():
        assert each.words
        assert each.do
        assert "safe" not in f"{each.words} {each.do}"
    assert all("poisons authority" in ABOUT[each].do or "vet" in ABOUT[each].do for each in ("poison", "pets"))


def test_what_hurts_hands_is_said_on_the_pull_list_by_its_own_name() -> None:
    """A sweet pea is poisonous to eat and its sap harms nobody; a tulip's sap does; an ammi burns in the sun."""

    def told(key: str) -> str:
        return " ".join(render(each, "metric") for each in preparation_of(varieties()[key], shown_h=None, bound=False))

    assert "gloves" not in told("sweet-pea")
    assert "sap irritates skin: gloves" in told("tulip")
    assert "skin allergen: gloves" in told("alstroemeria")
    assert "burn in the sun" in told("queen-annes-lace")
    assert "thorns: gloves, take the thorns off" in told("rose")
    assert not HANDS & {"poison", "pets", "pollen", "scent", "invasive"}
    both = of_all((each.name, each.hazards) for each in (varieties()["tulip"], varieties()["rose"]))
    assert list(both) == ["sap", "allergen", "poison", "pets", "thorns"]
    assert both["thorns"] == ("rose",)


@pytest.mark.parametrize(
    ("months", "words"),
    [
        ((4, 5, 6), "April to June"),
        ((1, 2, 3, 12), "December to March"),
        ((5,), "May"),
        ((1, 6, 7, 12), "June to July, December to January"),
        (tuple(range(1, 13)), "all the year"),
        ((12,), "December"),
    ],
)
def test_months_in_a_row_are_said_from_the_first_to_the_last(months: tuple[int, ...], words: str) -> None:
    assert months_in_words(months) == words


def test_what_is_rarely_to_be_had_then_is_asked_about() -> None:
    need = [StemNeed(piece_id=1, piece="bowl", variety=each, count=9) for each in ("peony", "rose", "no such")]

    def asked(month: int, **change: object) -> list[str]:
        known = varieties() | {"peony": replace(varieties()["peony"], **change)}  # type: ignore[arg-type]
        when = replace(job(), filled_at=at(f"2027-{month:02d}-15T12:30"))
        return [render(each, "metric") for each in out_of_season(when, need, known)]

    assert asked(10) == ["peony: rarely to be had in October; its months are April to June."]
    assert asked(5) == []
    assert asked(10, kind="artificial") == []
    assert asked(10, kind="foraged") != []
    assert asked(10, season=()) == []
    assert asked(1, season=(1, 2, 11, 12)) == []
    nobody_knows = replace(job(), filled_at=None, starts_at=None)
    assert list(out_of_season(nobody_knows, need, varieties())) == []


def test_a_table_of_before_says_by_two_flags_what_hazards_say_now() -> None:
    text = write_table("variety", {"rose": varieties()["rose"], "tulip": varieties()["tulip"]})
    head, *rows = text.splitlines()
    columns = head.split(",")
    place = columns.index("hazards")
    old = [",".join([*columns[:place], "toxic", "thorny", *columns[place + 1 :]])]
    for row, flags in zip(rows, ("0,1", "1,0"), strict=True):
        before, _, after = row.partition(f",{varieties()['rose' if flags == '0,1' else 'tulip'].hazards[0]}")
        old.append(f"{before},{flags}," + after.split(",", 1)[1])
    read = [thing for _, thing, refused in rows_of("variety", "\n".join(old)) if refused is None]
    assert [(key, each.hazards) for key, each in read] == [("rose", ("thorns",)), ("tulip", ("poison",))]


def test_what_a_flower_asks_for_while_it_drinks_is_on_its_pull_list() -> None:
    """Common practice, no source: daffodils alone, poppies sealed, woody stems slit and not crushed."""

    def said(key: str) -> str:
        return "; ".join(render(each, "metric") for each in preparation_of(varieties()[key], shown_h=4.0, bound=False))

    assert "stands alone in its bucket" in said("daffodil")
    assert "seal the cut end of what bleeds" in said("poppy")
    assert "slit the end upwards, do not crush it" in said("lilac")
    assert "deep bucket" in said("hydrangea")
    assert set(CARE) == set(get_args(Care))


def test_a_stem_with_several_heads_fills_and_covers_as_many() -> None:
    lily = varieties()["lily"]
    one = stem_covers_m2(replace(lily, heads=1))
    assert stem_covers_m2(lily) == pytest.approx(3 * one)
    known = replace(conditions(), varieties=varieties() | {"lily": replace(lily, heads=1)})
    line = (RecipeLine(variety="lily", count=2, role="focal"),)
    many, few = (expand(line, each.varieties).head_radius_m[0] for each in (conditions(), known))
    assert many == pytest.approx(few * 3**0.5)
