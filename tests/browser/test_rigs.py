"""Hung work as a florist draws it: mended, snipped and put back, dragged, and from an empty place to a rig card."""

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.test_bench import field
from tools.running import Served

pytestmark = pytest.mark.browser


def rig(page: Page, served: Served, name: str) -> None:
    page.goto(f"{served.url}/events/1")
    page.get_by_role("link", name=name, exact=True).click()
    expect(page.locator("[data-hang]")).to_be_visible()


def hang(page: Page, state: str) -> None:
    expect(page.locator("[data-hang]")).to_have_attribute("data-hang", re.compile(state))


def saved(page: Page) -> None:
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_a_panel_on_thin_lines_is_not_cleared_until_one_act_hangs_it_on_steel(page: Page, served: Served) -> None:
    rig(page, served, "Panel over the cake table")
    hang(page, "fails")
    expect(page.get_by_text("Not cleared")).to_be_visible()
    page.get_by_role("list", name="Fixes").get_by_role("button").first.click()
    hang(page, "holds")
    expect(page.get_by_text("Not cleared")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    hang(page, "fails")


def test_a_line_is_snipped_with_a_key_and_put_back(page: Page, served: Served) -> None:
    rig(page, served, "Panel over the cake table")
    page.get_by_role("button", name=re.compile(r"N\s*use 2\.")).first.click()
    page.keyboard.press("s")
    story = page.get_by_role("region", name="After the snip")
    expect(story).to_contain_text("It comes to rest")
    expect(story).to_contain_text("△ over its limit")
    expect(page.get_by_text("✂ cut")).to_be_visible()
    page.keyboard.press("Escape")
    expect(story).to_have_count(0)
    expect(page.get_by_text("✂ cut")).to_have_count(0)


def test_a_hang_point_is_moved_with_keys_and_its_line_is_cut_anew(page: Page, served: Served) -> None:
    rig(page, served, "Run over the long table")
    hang(page, "holds")
    cut = page.locator("table").first.locator("tbody tr").nth(1).locator("td").nth(2)
    before = cut.inner_text()
    page.get_by_role("button", name="beam 2", exact=True).click()
    grip = page.get_by_role("slider", name="beam 2, up")
    for _ in range(3):
        grip.press("PageUp")
    saved(page)
    expect(cut).not_to_have_text(before)
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(cut).to_have_text(before)


def test_two_points_in_one_place_are_refused_and_the_last_good_state_stays(page: Page, served: Served) -> None:
    rig(page, served, "Run over the long table")
    across = page.get_by_role("textbox", name="Right", exact=True)
    across.nth(1).fill("-2.9 m")
    across.nth(1).press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("beam 2 is in the same place as beam 1")
    expect(across.nth(0)).to_have_value("-290 cm")
    hang(page, "holds")


def test_from_an_empty_place_to_a_cleared_run_and_its_card(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Harvest barn")
    page.get_by_role("button", name="Start the event").click()
    expect(page.get_by_text("Nothing hangs in this event.")).to_be_visible()
    page.get_by_role("button", name="Hang it").click()
    hang(page, "cannot say")
    expect(page.get_by_text("Not cleared")).to_be_visible()
    page.get_by_role("button", name="Add a hang point with its line").click()
    expect(page.get_by_role("tab", name="Hang points (4)")).to_be_visible()
    for number in range(4):
        for label, text in (("May carry", "60 lbf"), ("Stated by", "the barn's owner")):
            box = page.get_by_role("textbox", name=label, exact=True).nth(number)
            box.fill(text)
            box.press("Enter")
            saved(page)
    hang(page, "cannot say")
    page.get_by_role("tab", name=re.compile("Lines")).click()
    page.get_by_label("A second bond").check()
    hang(page, "holds|tight")
    page.get_by_role("tab", name=re.compile("Flowers")).click()
    page.get_by_role("button", name="Add a variety").click()
    expect(page.get_by_role("combobox", name="Variety")).to_have_count(1)
    saved(page)
    page.get_by_role("tab", name="Armature").click()
    field(page, "Thick").fill("6 in")
    field(page, "Thick").press("Enter")
    saved(page)
    hang(page, "holds|tight")
    card = page.get_by_role("link", name="Letter").get_attribute("href") or ""
    answer = page.request.get(empty.url + card)
    assert answer.ok
    assert answer.body().startswith(b"%PDF")
    page.get_by_role("link", name="Harvest barn").click()
    expect(page.get_by_role("region", name="Hung work")).to_contain_text(re.compile("holds|tight"))


def test_the_rig_place_can_be_used_by_everybody(page: Page, served: Served) -> None:
    rig(page, served, "Ring of hanging stems, stair hall")
    found = [each for each in Axe().run(page).response["violations"] if each["impact"] in ("serious", "critical")]
    assert [(each["id"], [node["target"] for node in each["nodes"]][:3]) for each in found] == []
