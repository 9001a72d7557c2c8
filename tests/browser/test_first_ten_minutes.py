"""The first ten minutes: an empty studio, a job to look at, a verdict from nothing, what is missing, the words."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_bench import add_stems, rung
from tools.running import Served

pytestmark = pytest.mark.browser


def test_a_first_verdict_from_nothing_by_keyboard_within_twelve_acts(page: Page, empty: Served) -> None:
    """An act is one press, one chord, or one field left; typing goes into the field that has the keyboard already."""
    acts = 0

    def press(key: str) -> None:
        nonlocal acts
        acts += 1
        page.keyboard.press(key)

    page.goto(empty.url)
    expect(page.get_by_label("Name of the event")).to_be_focused()
    page.keyboard.type("Slipway lunch")
    press("Enter")
    expect(page.get_by_role("button", name="Add the piece")).to_be_focused()
    press("Enter")
    expect(page.get_by_label("Say it: set up or change the piece in words")).to_be_focused()
    page.keyboard.type("bowl 20 across 10 deep, 28 high, 5 ruscus, 7 rose")
    press("Enter")
    expect(page.get_by_role("button", name="Do it (Enter)")).to_be_visible()
    press("Enter")
    expect(rung(page, "hold")).to_have_attribute("data-state", re.compile("holds|tight|fails"))
    assert acts <= 12


def test_all_that_is_missing_is_named_at_once_and_leads_to_its_field(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Slipway lunch")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Add the piece").click()
    unknown = page.get_by_role("region", name="Not known yet")
    expect(unknown).to_be_visible()
    facts = unknown.get_by_role("button").all_inner_texts()
    assert facts[0] == "the weight of the empty vessel"
    assert len(facts) >= 6
    for fact in facts:
        unknown.get_by_role("button", name=fact).click()
        expect(page.locator("main :is(input, select):focus")).to_have_count(1)
    unknown.get_by_role("button", name="the weight of the empty vessel").click()
    expect(page.get_by_label("Weight, empty")).to_be_focused()
    page.keyboard.type("900 g")
    page.keyboard.press("Enter")
    expect(unknown.get_by_role("button", name="the weight of the empty vessel")).to_have_count(0)


def test_a_variety_is_written_when_it_is_named(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Slipway lunch")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Add the piece").click()
    page.get_by_role("tab", name=re.compile("^Stems")).click()
    add_stems(page, "12 ranunculus")
    expect(page.get_by_label("How many ranunculus")).to_have_value("12")
    line = page.get_by_label("Add a variety")
    for words, said in (
        ("7 rose", None),
        ("rosess", "No variety"),
        ("600 tulip", "from 1 to 400"),
        ("branch", "Which of"),
    ):
        line.fill(words)
        page.keyboard.press("Enter")
        if said is None:
            expect(line).to_have_value("")
        else:
            expect(page.get_by_role("alert")).to_contain_text(said)
            expect(line).to_have_value(words)
    page.keyboard.press("Escape")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_the_demo_job_is_looked_at_and_put_away(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_role("button", name="Look round, with a tour of two minutes").click()
    tour = page.get_by_role("region", name="Tour")
    expect(tour).to_contain_text("1 of 6")
    expect(page.get_by_role("heading", name="Reopening supper")).to_be_visible()
    for step in range(2, 7):
        tour.get_by_role("button", name="Next").click()
        expect(tour).to_contain_text(f"{step} of 6")
    expect(page).to_have_url(re.compile("/day$"))
    tour.get_by_role("button", name="Back").click()
    page.reload()
    expect(tour).to_contain_text("5 of 6")
    tour.get_by_role("button", name="Leave the tour").click()
    expect(tour).to_have_count(0)
    page.goto(f"{empty.url}/?all")
    expect(page.get_by_text("Osterlay Ropewalk Museum")).to_be_visible()
    page.get_by_role("button", name="Delete Reopening supper").click()
    expect(page.get_by_role("button", name="Bring back Reopening supper")).to_be_visible()


def test_the_sheet_of_keys_marks_and_words(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/rigs/10")
    expect(page.get_by_role("tab", name=re.compile("^Hang points"))).to_be_visible()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog")
    expect(sheet).to_contain_text("cuts the line that is chosen")
    expect(sheet).to_contain_text("A fact is missing, and nothing is guessed in its place.")
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    # where something is typed, a question mark is a question mark
    page.get_by_label("Name of the hung piece").press("End")
    page.keyboard.type("?")
    expect(sheet).to_have_count(0)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Keys, marks and words").click()
    expect(sheet).to_be_visible()


def test_a_word_has_its_meaning_where_it_is_pointed_at_pressed_or_reached(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/pieces/1?tab=mechanic")
    meaning = page.get_by_role("tooltip")
    rung(page, "drink").locator(".term").first.hover()
    expect(meaning).to_contain_text("every cut end stays under water")
    meaning.hover()
    expect(meaning).to_be_visible()  # it can be read with the pointer on it
    page.keyboard.press("Escape")
    expect(meaning).to_have_count(0)
    page.get_by_label("Drawing", exact=True).first.hover()
    page.get_by_label("Edge tucked in").focus()
    page.keyboard.press("Shift+Tab")
    page.keyboard.press("Tab")
    expect(meaning).to_contain_text("bent inwards")
    page.keyboard.press("Tab")
    expect(meaning).to_have_count(0)


def test_an_event_is_renamed_where_it_is_listed(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/?all")
    expect(page.get_by_role("link", name=re.compile("^Reopening supper"))).to_contain_text("15 May 2027")
    page.get_by_role("button", name="Rename Reopening supper").click()
    field = page.get_by_label("New name")
    expect(field).to_be_focused()
    field.fill("")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    field.fill("Rope supper")
    field.press("Enter")
    expect(page.get_by_role("link", name=re.compile("^Rope supper"))).to_be_visible()
    page.goto(f"{served.url}/events/1")
    expect(page.get_by_role("heading", name="Rope supper")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name="Reopening supper")).to_be_visible()


def test_many_events_are_sought_by_name_and_place(page: Page, empty: Served) -> None:
    for nth in range(10):
        answer = page.request.post(
            f"{empty.url}/api/events", data={"name": f"Supper {nth}", "place": f"Shed {nth % 2}", "time_zone": "UTC"}
        )
        assert answer.status == 201
    page.goto(f"{empty.url}/?all")
    rows = page.get_by_role("button", name=re.compile("^Copy "))
    expect(rows).to_have_count(10)
    page.get_by_label("Find an event by name or place").fill("shed 1")
    expect(rows).to_have_count(5)
    page.get_by_label("Find an event by name or place").fill("regatta")
    expect(page.get_by_text("No event has that in its name or place.")).to_be_visible()


def test_a_piece_is_copied_from_the_line_up(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1")
    page.get_by_role("button", name="Copy Head table trough").click()
    expect(page.get_by_role("button", name="Remove Head table trough, copy")).to_be_visible()
    page.get_by_role("button", name="Copy Head table trough", exact=True).click()
    expect(page.get_by_role("button", name="Remove Head table trough, copy 2")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Remove Head table trough, copy 2")).to_have_count(0)
