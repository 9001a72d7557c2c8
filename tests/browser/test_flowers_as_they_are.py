"""A new florist: a supper said in one breath, a tulip in five shades, half of it dried, a picture to match."""

import io
import re

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from tools.running import Served

pytestmark = pytest.mark.browser
SUPPER = (
    "urn 24 across 30 deep, 60 high 70 wide, 8 white tulips, 8 blush tulips, 8 pink tulips, 6 coral tulips, 6 red "
    "tulips; 4 low bowls 20 across 10 deep, 9 roses and 5 ruscus with some magic"
)


def begun(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Boathouse supper")
    page.get_by_role("button", name="Start the event").click()
    said = page.get_by_label("Say what is to be made")
    said.fill(SUPPER)
    said.press("Enter")
    told = page.get_by_role("region", name="What was understood")
    expect(told.get_by_text("8 blush tulip (filler)")).to_be_visible()
    expect(told.locator("mark")).to_have_text("magic")
    page.get_by_role("button", name="Add all 2 (Enter)").click()
    expect(page.get_by_role("link", name="low bowl × 4")).to_be_visible()


def swapped(page: Page, old: str, new: str) -> None:
    page.get_by_role("button", name=f"Open {old}", exact=True).click()
    place = page.get_by_label(f"In the place of {old}, in all of it", exact=True)
    place.fill(new)
    place.press("Enter")
    page.get_by_role("button", name=re.compile(rf"Swap \d+ stems for {new}")).click()
    expect(page.get_by_role("button", name=f"Open {new}", exact=True)).to_be_visible()


def test_a_supper_is_said_shaded_dried_and_undone(page: Page, empty: Served) -> None:
    begun(page, empty)
    page.get_by_role("link", name="Lists", exact=True).click()
    shopping = page.get_by_role("row", name=re.compile("^tulip"))
    expect(shopping.get_by_text(re.compile("^blush: 1 bunch"))).to_be_visible()
    page.get_by_role("tab", name="By variety").click()
    page.get_by_label("Prepared of rose").fill("30")
    page.get_by_label("Prepared of rose").press("Enter")
    swapped(page, "rose", "preserved rose")
    swapped(page, "ruscus", "preserved eucalyptus")
    page.get_by_role("tab", name="Days before").click()
    keeps = page.get_by_role("region", name="What keeps")
    expect(keeps.get_by_role("heading", name="low bowl")).to_be_visible()
    expect(keeps.get_by_text("No water; out of the sun")).to_be_visible()
    page.get_by_role("link", name="Line-up", exact=True).click()
    fire = page.get_by_label("Fire: who said what")
    fire.fill("the house has seen the certificate")
    fire.press("Enter")
    page.reload()
    expect(page.get_by_label("Fire: who said what")).to_have_value("the house has seen the certificate")
    page.get_by_role("link", name="low bowl × 4").click()
    drink = page.locator("[data-verb=drink]")
    expect(drink).to_have_attribute("data-state", "not needed")
    for _ in range(3):
        page.get_by_role("button", name="Undo").click()
    expect(drink).not_to_have_attribute("data-state", "not needed")


def test_a_picture_is_matched_with_marks_and_taken_away(page: Page, empty: Served) -> None:
    begun(page, empty)
    page.get_by_role("link", name=re.compile("^urn × 1")).click()
    page.get_by_role("tab", name="A look to match").click()
    stream = io.BytesIO()
    Image.new("RGB", (400, 500), (40, 70, 180)).save(stream, "PNG")
    chosen = {"name": "wish.png", "mimeType": "image/png", "buffer": stream.getvalue()}
    page.get_by_label("A picture to match").set_input_files(chosen)  # type: ignore[arg-type]
    sheet = page.get_by_role("application")
    expect(sheet).to_be_visible()
    page.get_by_label("A press marks").select_option("head")
    sheet.click(position={"x": 200, "y": 300})
    expect(page.get_by_role("heading", name="1 heads marked")).to_be_visible()
    expect(page.get_by_text(re.compile("1 marked head is .*, and nothing in the plan comes near it"))).to_be_visible()
    page.get_by_role("button", name="Head 1", exact=True).press("Delete")
    expect(page.get_by_role("heading", name="0 heads marked")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name="1 heads marked")).to_be_visible()
    page.get_by_role("button", name="Take it away").click()
    expect(page.get_by_role("button", name="Choose a picture")).to_be_visible()
    words = {"name": "wish.png", "mimeType": "image/png", "buffer": b"no picture at all"}
    page.get_by_label("A picture to match").set_input_files(words)  # type: ignore[arg-type]
    expect(page.get_by_role("alert").get_by_text("This is no picture that can be read")).to_be_visible()
