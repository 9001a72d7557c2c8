"""A new florist: from an empty studio to a bowl measured with a tape, failing, mended, undone, restarted."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_bench import add_stems, field, rung
from tools.running import Served

pytestmark = pytest.mark.browser


def typed(page: Page, label: str, text: str) -> None:
    field(page, label).fill(text)
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_a_bowl_from_a_tape_measure_to_a_cut_list(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Begin with the event")).to_be_visible()
    page.get_by_label("Name of the event").fill("Slipway lunch")
    page.get_by_role("button", name="Start the event").click()
    expect(page.get_by_text("The table is bare. Add the first piece below.")).to_be_visible()
    page.get_by_role("button", name="Add the piece").click()

    expect(rung(page, "hold")).to_have_attribute("data-state", "cannot say")
    expect(rung(page, "stand")).to_have_attribute("data-state", "cannot say")
    typed(page, "Inside width of the mouth", "8 1/4 in")
    typed(page, "Inside depth of the vessel", "3 1/2 in")
    page.get_by_role("tab", name="Vessel").click()
    typed(page, "Inside size, measure 1", "4 3/4 in")
    typed(page, "Weight, empty", "2 lb")
    typed(page, "Foot, across", "4 1/2 in")
    expect(rung(page, "stand")).to_have_attribute("data-state", "holds")

    page.get_by_role("tab", name=re.compile("Stems")).click()
    expect(page.get_by_text("Start with the margins")).to_be_visible()
    for words in ("5 ruscus", "5 ranunculus"):
        add_stems(page, words)
    expect(rung(page, "hold")).not_to_have_attribute("data-state", "cannot say")

    page.get_by_role("tab", name="Mechanic").click()
    page.get_by_label("Folded to").select_option("1 layer")
    page.get_by_label("Netting").select_option("50 mm, coated, 1.0 mm wire")
    expect(rung(page, "hold")).to_have_attribute("data-state", "fails")
    if rung(page, "hold").get_by_role("button").first.get_attribute("aria-expanded") == "false":
        rung(page, "hold").get_by_role("button").first.click()
    fixes = rung(page, "hold").get_by_role("button", name=re.compile("Fold to|Use"))
    fixes.first.click()
    expect(rung(page, "hold")).to_have_attribute("data-state", re.compile("holds|tight"))
    page.get_by_role("button", name="Undo").click()
    expect(rung(page, "hold")).to_have_attribute("data-state", "fails")
    page.get_by_role("button", name="Redo").click()
    expect(rung(page, "hold")).to_have_attribute("data-state", re.compile("holds|tight"))

    page.get_by_role("tab", name="Room and water").click()
    typed(page, "Room temperature", "72 °F")
    typed(page, "Room humidity", "45")
    page.get_by_label("Water goes in").fill("2027-06-05T11:00")
    page.get_by_label("Water goes in").press("Enter")
    page.get_by_label("Event ends").fill("2027-06-05T22:00")
    page.get_by_label("Event ends").press("Enter")
    expect(rung(page, "drink")).not_to_have_attribute("data-state", "cannot say")

    page.get_by_role("tab", name="Cut tray").click()
    sheet = page.get_by_role("heading", name=re.compile("^Sheet")).inner_text()
    empty.stop()
    empty.start()
    page.reload()
    expect(page.get_by_role("heading", name=re.compile("^Sheet"))).to_have_text(sheet)
    expect(field(page, "Inside width of the mouth")).to_have_value("21 cm")


def test_half_of_the_air_is_kept_until_the_other_half_is_typed(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Slipway lunch")
    page.keyboard.press("Enter")
    field(page, "Room temperature").fill("19")
    page.keyboard.press("Enter")
    expect(field(page, "Room temperature")).to_have_value("19 °C")
    field(page, "Room humidity").fill("55 %")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    page.reload()
    expect(field(page, "Room temperature")).to_have_value("19 °C")
    expect(field(page, "Room humidity")).to_have_value("55 %")


@pytest.mark.parametrize(
    ("label", "typed_", "said"),
    [
        ("Time zone", "Marsh/Nowhere", "There is no time zone called"),
        ("Room temperature", "mild", "Type a temperature, such as 22 °C"),
    ],
)
def test_a_brief_that_cannot_be_is_answered_beside_its_field(
    page: Page, served: Served, label: str, typed_: str, said: str
) -> None:
    page.goto(f"{served.url}/events/1")
    field(page, label).fill(typed_)
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text(said)


def test_a_piece_removed_from_the_line_up_comes_back(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1")
    page.get_by_role("button", name="Remove Long-table low bowl").click()
    expect(page.get_by_role("link", name=re.compile("Long-table low bowl × 12"))).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name=re.compile("Long-table low bowl × 12"))).to_be_visible()


def test_the_line_up_leads_to_what_is_to_settle(page: Page, served: Served) -> None:
    page.goto(served.url)
    expect(page).to_have_url(re.compile("/events/1$"))
    page.get_by_role("link", name=re.compile("Long-table low bowl: drink fails", re.I)).click()
    expect(rung(page, "drink")).to_be_visible()
