"""Screens have addresses and titles; the keyboard stays where the work is; what changed is said."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_bench import bench, field, rung, saved
from tools.running import Served

pytestmark = pytest.mark.browser


FOCUSED = """() => {
  const now = document.activeElement;
  return now === document.body ? "" : now.getAttribute("aria-label") || now.innerText;
}"""


def test_every_screen_names_itself(page: Page, there: Served) -> None:
    for path, title in (
        ("/?all", "Events · Jolly Trellis"),
        ("/events/1", "Reopening supper · Jolly Trellis"),
        ("/events/1/pieces/1", "Long-table low bowl · Reopening supper · Jolly Trellis"),
        ("/events/1/rigs/10", "Run over the long table · Reopening supper · Jolly Trellis"),
        ("/events/1/survey", "Survey of the place · Reopening supper · Jolly Trellis"),
        ("/events/1/roll", "Roll · Reopening supper · Jolly Trellis"),
        ("/events/1/day", "Day · Reopening supper · Jolly Trellis"),
        ("/stores", "The stores · Jolly Trellis"),
        ("/figures", "Figures · Jolly Trellis"),
        ("/nowhere", "Nothing here · Jolly Trellis"),
    ):
        page.goto(there.url + path)
        expect(page).to_have_title(title)


def test_an_address_that_leads_nowhere_says_so_and_leads_home(page: Page, there: Served) -> None:
    for path in ("/nowhere", "/events/99", "/events/abc", "/events/99/roll", "/events/1/nowhere"):
        page.goto(there.url + path)
        expect(page.get_by_role("heading", name="Nothing here")).to_be_visible()
        page.get_by_role("link", name="All events").click()
        expect(page.get_by_role("link", name="Reopening supper")).to_be_visible()


def test_views_and_tabs_stand_in_the_address_and_back_goes_where_one_came_from(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1")
    page.get_by_role("link", name="Long-table low bowl").last.click()
    page.get_by_role("tab", name=re.compile("^Stems")).click()
    page.get_by_role("tab", name="Side by side").click()
    expect(page).to_have_url(re.compile("view=compare"))
    page.get_by_role("tab", name="Drawing").click()
    expect(page).to_have_url(re.compile(r"/pieces/1\?tab=stems$"))
    page.reload()
    expect(page.get_by_role("tab", name=re.compile("^Stems"))).to_have_attribute("aria-selected", "true")
    page.go_back()
    expect(page).to_have_url(re.compile("/events/1$"))


def test_verdicts_that_change_are_said(page: Page, served: Served) -> None:
    bench(page, served)
    said = page.locator("[data-announced]")
    expect(said).to_have_text("")
    rung(page, "drink").get_by_role("button", name=re.compile("^Fill to")).click()
    expect(said).to_have_text(re.compile("Drink: holds"))


def test_the_keyboard_stays_where_the_work_is(page: Page, served: Served) -> None:
    """After a fix, a removal: on what stands in its place, never on the page."""
    bench(page, served)
    fix = rung(page, "drink").get_by_role("button", name=re.compile("^Top up"))
    fix.focus()
    page.keyboard.press("Enter")
    saved(page)
    expect(rung(page, "drink")).to_have_attribute("data-state", "holds")
    assert page.evaluate("document.activeElement.closest('[data-verb]')?.dataset.verb") == "drink"
    page.goto(f"{served.url}/events/1")
    page.get_by_role("button", name="Remove Head table trough").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Remove Head table trough")).to_have_count(0)
    assert re.match("Remove|.*×", page.evaluate(FOCUSED))


def test_undo_right_after_typing_is_of_the_plan(page: Page, served: Served) -> None:
    bench(page, served)
    water = field(page, "Water level")
    water.fill("5 cm")
    page.keyboard.press("Enter")
    saved(page)
    page.keyboard.press("Control+z")
    expect(water).to_have_value("6 cm")


def test_what_is_typed_and_left_by_back_is_kept(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1")
    page.get_by_role("link", name="Long-table low bowl").last.click()
    field(page, "Water level").fill("5.5 cm")
    page.go_back()
    page.get_by_role("link", name="Long-table low bowl").last.click()
    expect(field(page, "Water level")).to_have_value("5.5 cm")


def test_what_cannot_be_read_stays_with_its_sentence_until_it_is_taken_back(page: Page, served: Served) -> None:
    bench(page, served)
    water = field(page, "Water level")
    water.fill("half a hand")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("Type a length, such as 36 cm, 14 1/4 in or 12 cells.")
    expect(water).to_have_value("half a hand")
    page.keyboard.press("Escape")
    expect(water).to_have_value("6 cm")
    expect(page.get_by_role("alert")).to_have_count(0)
    count = field(page, "How many of this piece")
    count.fill("12.5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("Type a whole number, such as 12.")
    expect(count).to_have_value("12.5")


def test_the_tray_is_pulled_taller_and_stays_so(page: Page, served: Served) -> None:
    bench(page, served)
    edge = page.get_by_role("separator", name="Height of the tray")
    for _ in range(3):
        edge.press("ArrowUp")
    expect(edge).to_have_attribute("aria-valuenow", "360")
    page.goto(f"{served.url}/events/1/rigs/10")
    box = page.locator("[data-sheet]").bounding_box()
    assert box
    assert box["height"] == pytest.approx(360, abs=1)


def test_things_of_the_stores_are_found_and_sorted(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores?part=variety")
    names = page.get_by_role("textbox", name=re.compile("^Name of "))
    expect(names.first).to_be_visible()
    page.get_by_label("Find by name").fill("rose")
    expect(page.get_by_label("Name of tulip")).to_have_count(0)
    found = names.evaluate_all("all => all.map(each => each.value)")
    assert found
    assert {"rose", "spray rose", "hellebore"} <= set(found), "by its other names too: christmas rose"
    page.get_by_role("button", name="name", exact=True).click()
    assert names.evaluate_all("all => all.map(each => each.value)") == sorted(found)
    page.get_by_role("button", name="name ↑").click()
    assert names.evaluate_all("all => all.map(each => each.value)") == sorted(found, reverse=True)
    page.get_by_label("Find by name").fill("rosemarine of nowhere")
    expect(page.get_by_text("Nothing here is called")).to_be_visible()
