"""Hung work as a florist draws it: mended, snipped and put back, dragged, and from an empty place to a rig card."""

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.test_bench import add_stems, field, saved
from tools.running import Served, until

pytestmark = pytest.mark.browser


def rig(page: Page, served: Served, name: str) -> None:
    page.goto(f"{served.url}/events/1")
    page.get_by_role("link", name=name, exact=True).click()
    expect(page.locator("[data-hang]")).to_be_visible()


def hang(page: Page, state: str) -> None:
    expect(page.locator("[data-hang]")).to_have_attribute("data-hang", re.compile(state))


def test_a_panel_on_thin_lines_is_not_cleared_until_one_act_hangs_it_on_steel(page: Page, served: Served) -> None:
    rig(page, served, "Panel over the cake table")
    hang(page, "fails")
    expect(page.get_by_text("Not cleared")).to_be_visible()
    page.get_by_role("list", name="Fixes").get_by_role("button").first.click()
    hang(page, "holds|tight")
    expect(page.get_by_text("Not cleared")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    hang(page, "fails")


def test_a_line_is_snipped_with_a_key_and_put_back(page: Page, served: Served) -> None:
    rig(page, served, "Panel over the cake table")
    page.get_by_role("button", name=re.compile(r"^2\.\d+")).first.click()
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
    page.get_by_label("New hung or mounted piece").select_option("garland")
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
    aslant = page.get_by_role("textbox", name=re.compile("rated off plumb"))
    for number in range(aslant.count()):
        box = aslant.nth(number)
        box.fill("40")
        box.press("Enter")
        saved(page)
    page.get_by_role("tab", name=re.compile("Lines")).click()
    page.get_by_label("A second bond").check()
    page.get_by_label("Leads to").select_option("new")
    saved(page)
    page.get_by_role("tab", name=re.compile("Hang points")).click()
    for label, text in (("May carry", "300 lbf"), ("Stated by", "the barn's owner")):
        box = page.get_by_role("textbox", name=label, exact=True).nth(4)
        box.fill(text)
        box.press("Enter")
        saved(page)
    hang(page, "holds|tight")
    page.get_by_role("tab", name=re.compile("Flowers")).click()
    add_stems(page, "5 ruscus")
    saved(page)
    page.get_by_role("tab", name="Armature").click()
    field(page, "Finished, thick").fill("14 in")
    field(page, "Finished, thick").press("Enter")
    expect(field(page, "Armature, thick")).to_have_value(re.compile("15.56 cm|6 1/8"))
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


def start(page: Page, empty: Served, template: str) -> None:
    """A new event with one new piece of a template, at its rig place."""
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Harvest barn")
    page.get_by_role("button", name="Start the event").click()
    page.get_by_label("New hung or mounted piece").select_option(template)
    page.get_by_role("button", name="Hang it").click()
    expect(page.get_by_role("region", name="Rig drawing")).to_be_visible()


def tab(page: Page, name: str) -> None:
    page.get_by_role("tab", name=re.compile(f"^{name}")).click()


def type_in(page: Page, label: str, text: str, nth: int = 0) -> None:
    box = page.get_by_role("textbox", name=label, exact=True).nth(nth)
    box.fill(text)
    box.press("Enter")
    saved(page)


def flowers(page: Page, count: str) -> None:
    tab(page, "Flowers")
    box = page.get_by_role("textbox", name=re.compile("How many")).first
    box.fill(count)
    box.press("Enter")
    saved(page)


def test_a_run_is_drawn_with_the_pointer_from_nothing_and_every_place_is_hung(page: Page, empty: Served) -> None:
    start(page, empty, "empty")
    expect(page.get_by_text("Nothing can be worked out yet")).to_be_visible()
    tab(page, "Path")
    page.get_by_role("button", name="Draw the path").click()
    sheet = page.get_by_role("group", name=re.compile("^Rig, level, from the front")).bounding_box()
    assert sheet is not None
    for share in (0.3, 0.5, 0.7):
        page.mouse.click(sheet["x"] + sheet["width"] * share, sheet["y"] + 90)
    page.keyboard.press("Enter")
    expect(page.get_by_role("tab", name="Path (3)")).to_be_visible()
    expect(page.get_by_role("alert").first).to_contain_text("Nothing holds the armature")
    page.get_by_role("button", name="Hang every bare place (3)").click()
    hang(page, "cannot say")
    expect(page.get_by_role("tab", name="Lines (3)")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("tab", name="Lines (0)")).to_be_visible()


def test_a_path_that_is_begun_is_left_with_escape(page: Page, served: Served) -> None:
    rig(page, served, "Run over the long table")
    tab(page, "Path")
    page.get_by_role("button", name="Draw the path").click()
    sheet = page.get_by_role("group", name=re.compile("^Rig, level, from the front")).bounding_box()
    assert sheet is not None
    page.mouse.click(sheet["x"] + 300, sheet["y"] + 90)
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Draw the path")).to_be_visible()
    expect(page.get_by_role("tab", name="Path (5)")).to_be_visible()
    hang(page, "holds")


@pytest.mark.long
def test_a_hoop_on_a_frame_outdoors_is_weighed_ballasted_tied_and_snipped(page: Page, empty: Served) -> None:
    start(page, empty, "hoop")
    hang(page, "cannot say")
    tab(page, "Hang points")
    type_in(page, "May carry", "150 N")
    type_in(page, "Stated by", "its maker")
    page.get_by_role("button", name="The same is stated for all").click()
    saved(page)
    flowers(page, "60")
    tab(page, "Mounted on")
    expect(page.get_by_role("region", name="Hang")).to_contain_text("what the frame weighs")
    type_in(page, "It weighs", "6 kg")
    hang(page, "fails")
    page.get_by_role("list", name="Fixes").get_by_role("button", name=re.compile("four feet")).click()
    saved(page)
    hang(page, "cannot say")
    expect(page.get_by_role("region", name="Hang")).to_contain_text("guyed or tied to")
    type_in(page, "Guyed or tied to", "the porch post")
    hang(page, "holds|tight")
    page.get_by_title("Snip tie 5's line to place 5").click()
    expect(page.get_by_role("region", name="After the snip")).to_contain_text("the rest stay inside their limits")
    page.keyboard.press("Escape")
    card = page.get_by_role("link", name="A4").get_attribute("href") or ""
    assert page.request.get(empty.url + card).ok


@pytest.mark.long
def test_a_swag_and_a_crawl_are_set_up_from_nothing(page: Page, empty: Served) -> None:
    start(page, empty, "wall_roll")
    flowers(page, "30")
    tab(page, "Mounted on")
    type_in(page, "Its middle stands out", "12 cm")
    type_in(page, "Leans on it, under a screw", "18 cm")
    tab(page, "Hang points")
    type_in(page, "May carry", "180 N")
    type_in(page, "Stated by", "the owner")
    type_in(page, "screw 1 straight out of the wall", "260 N")
    page.get_by_role("button", name="The same is stated for all").click()
    saved(page)
    tab(page, "Lines")
    page.get_by_label("A second bond").check()
    page.get_by_label("Leads to").select_option("new")
    saved(page)
    tab(page, "Hang points")
    type_in(page, "May carry", "700 N", 5)
    type_in(page, "Stated by", "the owner", 5)
    hang(page, "holds|tight")
    page.get_by_role("link", name="Harvest barn").click()
    page.get_by_label("New hung or mounted piece").select_option("column")
    page.get_by_role("button", name="Hang it").click()
    hang(page, "cannot say")
    type_in(page, "May carry", "250 N")
    type_in(page, "Stated by", "the owner")
    page.get_by_role("button", name="The same is stated for all").click()
    saved(page)
    flowers(page, "40")
    hang(page, "holds|tight")


def test_stems_in_tubes_or_bundles_weigh_more_and_cover_more(page: Page, served: Served) -> None:
    rig(page, served, "Swag over the doorway")
    tab(page, "Flowers")
    page.get_by_label("Water of carnation").select_option("tube")
    expect(page.get_by_role("region", name="Hang")).to_contain_text("stem tubes for carnation")
    bundles = page.get_by_role("textbox", name="Bundles of carnation")
    bundles.fill("5")
    bundles.press("Enter")
    saved(page)
    page.get_by_label("Water of carnation").select_option("wrap")
    expect(page.get_by_role("region", name="Hang")).to_contain_text("wet wraps for carnation")


def test_what_is_painted_fuller_is_heavier_there(page: Page, served: Served) -> None:
    rig(page, served, "Run over the long table")
    use = page.locator("table").first.locator("tbody tr").nth(3).locator("td").nth(1)
    before = float(use.inner_text())
    tab(page, "Armature")
    page.get_by_role("button", name="Paint it fuller").click()
    sheet = page.get_by_role("group", name=re.compile("^Rig, level, from the front")).bounding_box()
    grip = page.get_by_role("button", name="beam 4", exact=True).bounding_box()
    assert sheet is not None
    assert grip is not None
    floor, beam, work = 0.0, 3.7, 2.75
    bottom, top = sheet["y"] + sheet["height"] - 30, grip["y"] + grip["height"]
    level = bottom + (top - bottom) * (work - floor) / (beam - floor)
    across = grip["x"] + grip["width"] / 2
    for _ in range(3):
        page.mouse.move(across - 20, level)
        page.mouse.down()
        page.mouse.move(across + 20, level, steps=8)
        page.mouse.up()
    saved(page)
    expect(page.get_by_role("button", name="Even again")).to_be_enabled()
    heavier = "before => parseFloat(document.querySelectorAll('table tbody tr')[3].cells[1].innerText) > before"
    until(page, heavier, before)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Even again").click()


def test_a_question_of_the_survey_holds_up_what_hangs_there_until_it_is_answered(page: Page, served: Served) -> None:
    rig(page, served, "Ring of hanging stems, stair hall")
    hang(page, "cannot say")
    expect(page.get_by_text("not rated").first).to_be_visible()
    page.get_by_role("link", name="The survey of this place").click()
    expect(page.get_by_text("1 of 29 points has a question open.")).to_be_visible()
    asked = page.get_by_role("listitem").filter(has=page.get_by_text("still to ask"))
    point = asked.get_by_role("textbox", name="Name", exact=True).input_value()
    row = page.get_by_role("listitem").filter(has=page.get_by_role("button", name=f"Remove {point}", exact=True))
    for label, text in (("May carry", "350 N"), ("Stated by", "the works officer"), ("On", "2027-05-01")):
        box = row.get_by_role("textbox", name=label, exact=True)
        box.fill(text)
        box.press("Enter")
        expect(box).to_have_value(text)
        if label != "On":
            expect(row).to_contain_text("still to ask")
    expect(page.get_by_text("Every question is answered.")).to_be_visible()
    page.get_by_role("link", name="Reopening supper").click()
    page.get_by_role("link", name="Ring of hanging stems, stair hall", exact=True).click()
    hang(page, "holds|tight")
    page.get_by_role("link", name="The survey of this place").click()
    page.get_by_role("button", name=re.compile("Undo")).click()
    expect(page.get_by_text("1 of 29 points has a question open.")).to_be_visible()


def test_a_point_never_to_hang_from_is_refused_with_the_reason(page: Page, served: Served) -> None:
    rig(page, served, "Door hoop in the garden")
    page.get_by_role("combobox", name="Kind").first.select_option("sprinkler pipe")
    expect(page.get_by_role("alert").first).to_contain_text("Nothing hangs from a sprinkler pipe")
    expect(page.get_by_role("combobox", name="Kind").first).to_have_value("frame member")


def test_a_flame_too_near_is_marked_and_not_cleared(page: Page, served: Served) -> None:
    rig(page, served, "Swag over the doorway")
    tab(page, "Keep clear")
    page.get_by_role("button", name="Mark something near it").click()
    page.get_by_role("combobox", name="What").select_option("open flame")
    saved(page)
    for label, text in (("Right", "0 cm"), ("Up", "180 cm")):
        type_in(page, label, text)
    hang(page, "fails")
    expect(page.get_by_role("region", name="Hang")).to_contain_text("open flame")


def test_what_was_stated_of_a_point_is_read_as_of_another_place_once_it_is_moved(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/rigs/10?tab=points")
    first = page.locator("[data-point='0']")
    first.get_by_label("Right").fill("-2.5 m")
    page.keyboard.press("Enter")
    told = page.get_by_text("Said of another place")
    expect(told).to_contain_text("beam 1 of the survey")
    expect(page.locator("[data-hang]")).not_to_have_attribute("data-hang", "holds")
    page.get_by_role("button", name="Undo").click()
    expect(told).to_have_count(0)
    expect(page.locator("[data-hang]")).to_have_attribute("data-hang", "holds")


def test_what_a_press_would_make_is_drawn_while_it_is_pointed_at_and_gone_with_the_pointer(
    page: Page, served: Served
) -> None:
    rig(page, served, "Run over the long table")
    page.get_by_role("tab", name="Hang points").click()
    before = page.request.get(f"{served.url}/api/events/1").json()["revision"]
    words = page.locator("main svg").first
    drawn, rows = words.inner_html(), page.locator("[data-point]").count()
    press = page.get_by_role("button", name="Add a hang point with its line")
    press.hover()
    until(page, "([was]) => document.querySelector('main svg').innerHTML !== was", [drawn])
    assert page.locator("[data-point]").count() == rows, "the rows stay where the pointer is"
    page.mouse.move(5, 5)
    until(page, "([was]) => document.querySelector('main svg').innerHTML === was", [drawn])
    assert page.request.get(f"{served.url}/api/events/1").json()["revision"] == before
    press.hover()
    until(page, "([was]) => document.querySelector('main svg').innerHTML !== was", [drawn])
    press.click()
    expect(page.locator("[data-point]")).to_have_count(rows + 1)
    assert page.request.get(f"{served.url}/api/events/1").json()["revision"] == before + 1
