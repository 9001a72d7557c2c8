"""How long flowers last on what they have with them: by hand through two airs, and in every sheet that is made."""

from dataclasses import replace
from datetime import timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.books.time import Task
from jolly_trellis.core.event.day.day import Day, day_of
from jolly_trellis.core.event.day.remedies import put_on_site, with_recipes
from jolly_trellis.core.event.job import Job, Made
from jolly_trellis.core.event.sheet.breaches import Breach
from jolly_trellis.core.event.sheet.lives import lasts_until, soonest_use
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.stems.dry_life import Reserve, dry_rate, lasts_h, reserve_of
from jolly_trellis.core.stems.tubes import usable_ml
from tests.events import at, demo_made, job
from tests.ordinary import varieties

DRY = RecipeLine(variety="ruscus", count=20, role="base", water="none")


def tubed(variety: str) -> RecipeLine:
    return RecipeLine(variety=variety, count=20, role="focal", water="tube", tube=StemTube(stem_in_m=0.08))


def greened_in_the_workshop() -> Made:
    """The demo with its hung ruscus greened before the drive."""
    made = demo_made()
    return replace(
        made,
        rigs=tuple(
            replace(
                each,
                rig=replace(
                    each.rig,
                    recipe=tuple(
                        replace(line, goes_in="with the piece" if line.variety == "ruscus" else line.goes_in)
                        for line in each.rig.recipe
                    ),
                ),
            )
            for each in made.rigs
        ),
    )


def test_a_life_is_used_up_by_the_air_it_is_in() -> None:
    """By hand: 48 h at 22 °C and 50 %; 15.5 h in the place from eight o'clock, what is left of it in the workshop."""
    asked = job()
    assert asked.air is not None
    assert asked.workshop is not None
    there, here = dry_rate(asked.air), dry_rate(asked.workshop)
    left = (48.0 - 15.5 * there) / here
    found = soonest_use(asked, DRY, varieties()["ruscus"])
    assert found is not None
    assert (at("2027-05-15T08:00") - found).total_seconds() / 3600 == pytest.approx(left)
    assert found < at("2027-05-14T08:00")


def test_what_does_not_last_from_the_opening_goes_in_after_it() -> None:
    asked = job()
    assert asked.air is not None
    line = replace(DRY, variety="delphinium")
    found = soonest_use(asked, line, varieties()["delphinium"])
    assert found is not None
    assert (at("2027-05-15T23:30") - found).total_seconds() / 3600 == pytest.approx(11.0 / dry_rate(asked.air))


def test_a_tube_lasts_its_usable_water_over_the_draw_and_then_as_a_dry_stem() -> None:
    rose = varieties()["rose"]
    line = tubed("rose")
    assert line.tube is not None
    usable = usable_ml(line.tube, rose.stem_diameter_m)
    has = reserve_of(line, rose)
    assert has == Reserve(water_ml=usable, draw_ml_h=1.0, dry_h=6.0)
    ordinary = Air(temperature_c=20.0, relative_humidity=0.6)
    assert lasts_h(has, [(0.0, ordinary)]) == pytest.approx(usable + 6.0 / dry_rate(ordinary))
    assert reserve_of(replace(line, water="vessel"), rose) is None
    wrapped = reserve_of(replace(line, water="wrap", wrap_ml=30.0, clump=3), rose)
    assert wrapped is not None
    assert wrapped.water_ml == pytest.approx(10.0)


def test_without_air_or_an_end_nothing_is_said() -> None:
    ruscus = varieties()["ruscus"]
    assert soonest_use(replace(job(), air=None), DRY, ruscus) is None
    assert soonest_use(replace(job(), ends_at=None), DRY, ruscus) is None
    assert lasts_until(replace(job(), air=None), DRY, ruscus, at("2027-05-15T10:00")) is None


@given(st.sampled_from(["ruscus", "statice", "carnation", "rose", "amaranthus"]), st.booleans(), st.booleans())
def test_what_goes_in_at_its_soonest_lasts_to_the_end_and_no_longer(variety: str, tube: bool, known: bool) -> None:
    asked: Job = job() if known else replace(job(), workshop=None, access_at=None)
    line = tubed(variety) if tube else replace(DRY, variety=variety)
    soonest = soonest_use(asked, line, varieties()[variety])
    assert soonest is not None
    until = lasts_until(asked, line, varieties()[variety], soonest)
    assert until is not None
    assert asked.ends_at is not None
    assert abs(until - asked.ends_at) < timedelta(seconds=2)
    later = lasts_until(asked, line, varieties()[variety], soonest + timedelta(hours=1))
    assert later is not None
    assert later > until


def lasting(found: Day) -> None:
    """Every flower of a sheet lasts to the end, but those a conflict names."""
    named = {each.task.variety for each in found.timed if each.out_min}
    for life in found.lives:
        if life.lasts_until is not None and life.needed_until is not None and life.variety not in named:
            assert life.lasts_until >= life.needed_until, life.name


def test_every_flower_of_the_demos_sheet_lasts_but_the_one_that_is_named() -> None:
    found = day_of(job(), demo_made(), varieties(), effort=0.1)
    assert any(life.water == "none" for life in found.lives)
    lasting(found)


def test_greens_that_do_not_last_are_named_and_putting_them_in_on_site_is_offered_and_works() -> None:
    made = greened_in_the_workshop()
    known = {**varieties(), "ruscus": replace(varieties()["ruscus"], dry_hold_h=20.0)}
    found = day_of(job(), made, known, effort=0.1)
    lasting(found)
    said = found.conflicts[-1]
    assert said.say.text.startswith("No sheet without this was found in the time given; there may be one.")
    assert any(
        task.variety == "ruscus" and each.kind == "early" for each in found.breaches for task in named(found, each)
    )
    remedy = next(each for each in said.remedies if each.kind == "on site")
    assert remedy.variety == "ruscus"
    mended = day_of(job(), with_recipes(made, lambda recipe: put_on_site(recipe, "ruscus")), known, effort=0.1)
    assert len(mended.breaches) < len(found.breaches)
    lasting(mended)


def named(found: Day, breach: Breach) -> list[Task]:
    """The tasks that a breach is about."""
    return [each.task for each in found.timed if each.task.key in breach.tasks]
