"""The other views of the bench, the say-it line, hands on stems, and the stores, as a florist uses them."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_bench import bench, field, rung, saved
from tools.running import Served, until

pytestmark = pytest.mark.browser
SAY = "Say it: set up or change the piece in words"


def open_piece(page: Page, served: Served, number: int) -> None:
    page.goto(f"{served.url}/events/1/pieces/{number}")
    expect(rung(page, "drink")).to_be_visible()


def test_mechanics_side_by_side_each_with_its_reason_and_one_press_uses_it(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name="Side by side").click()
    expect(page.locator("[data-kind]")).to_have_count(26)
    first = page.locator("[data-kind]").first
    expect(first).to_contain_text(re.compile("First|Nothing|Fails"))
    expect(page.locator("[data-kind=cross_stick_roll]")).to_contain_text("trough")
    page.locator("[data-kind=stacked_pair]").get_by_role("button", name="Use this").click()
    expect(page.locator("[data-kind=stacked_pair]")).to_contain_text("on the bench")
    page.get_by_role("tab", name="Drawing").click()
    expect(page.get_by_text(re.compile("Cut the upper piece"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text(re.compile("Cut one sheet"))).to_be_visible()


def test_the_cut_sheet_is_shown_and_can_be_had_at_true_size(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name="Cut sheet").click()
    picture = page.get_by_role("img", name=re.compile("Flat patterns"))
    expect(picture).to_be_visible()
    until(page, "[...document.images].some(image => image.complete && image.naturalWidth > 100)")
    for name in ("PDF, A4", "PDF, Letter", "SVG", "DXF"):
        url = page.get_by_role("link", name=name).get_attribute("href")
        assert page.request.get(served.url + str(url)).ok


def test_saying_it_shows_what_was_understood_before_anything_changes(page: Page, served: Served) -> None:
    bench(page, served)
    said = page.get_by_role("textbox", name=SAY)
    said.fill("bowl 10 in across 4 in deep, 12 in high, 9 rosis, 20 pittosporum, with moonlight")
    page.keyboard.press("Enter")
    panel = page.get_by_role("region", name="What was understood")
    expect(panel).to_contain_text("mouth 25.4 cm")
    expect(panel).to_contain_text("Not understood")
    expect(field(page, "Inside width of the mouth")).to_have_value("20 cm")
    expect(panel).to_contain_text("Did you mean, for “rosis”")
    panel.get_by_role("button", name="rose", exact=True).click()
    expect(panel).to_contain_text("9 rose (")
    panel.get_by_role("button", name=re.compile("^Do it")).click()
    expect(field(page, "Inside width of the mouth")).to_have_value("25.4 cm")
    page.get_by_role("button", name="Undo").click()
    expect(field(page, "Inside width of the mouth")).to_have_value("20 cm")


def test_a_flower_is_placed_by_hand_and_let_go_again(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name=re.compile("Stems")).click()
    page.get_by_role("button", name="More of garden rose").click()
    page.get_by_role("button", name="Place one by hand").click()
    expect(page.get_by_text("1 placed by hand")).to_be_visible()
    field(page, "Tip, high").fill("25 cm")
    page.keyboard.press("Enter")
    expect(field(page, "Tip, high")).to_have_value("25 cm")
    saved(page)
    page.reload()
    page.get_by_role("tab", name=re.compile("Stems")).click()
    expect(page.get_by_text("1 placed by hand")).to_be_visible()
    page.get_by_role("button", name="More of garden rose").click()
    page.get_by_role("button", name="Let it go").first.click()
    expect(page.get_by_text("Press a flower on the drawing")).to_be_visible()


def test_a_pressed_flower_gets_handles_and_can_be_dragged(page: Page, served: Served) -> None:
    bench(page, served)
    page.locator("[data-id^='head-'][data-id$='-0']").last.dispatch_event("pointerdown")
    handle = page.get_by_role("slider", name=re.compile("height$"))
    expect(handle).to_be_visible()
    handle.focus()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_text("placed by hand").first).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()


def test_a_mechanic_chosen_by_hand_is_sized_drawn_and_judged(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name="Mechanic").click()
    chosen = page.get_by_role("combobox", name="Mechanic", exact=True)
    for kind in ("pin_frog", "strung_ring", "branch_tangle", "tape_grid", "fibre_pouch", "raised_cups"):
        before = page.get_by_text(re.compile("seats .* such stems")).text_content()
        chosen.select_option(kind)
        expect(page.get_by_text(re.compile("seats .* such stems"))).not_to_have_text(before or "")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    page.get_by_role("tab", name="Mechanic").click()
    expect(chosen).to_have_value("raised_cups")


def test_a_raised_bowl_is_bonded_and_steadied_by_its_fix(page: Page, served: Served) -> None:
    open_piece(page, served, 3)
    expect(rung(page, "stand")).to_have_attribute("data-state", "fails")
    rung(page, "stand").get_by_role("button", name=re.compile("Fill the support")).click()
    expect(rung(page, "stand")).to_have_attribute("data-state", re.compile("tight|holds"))
    expect(page.get_by_text(re.compile("Press a ring of putty"))).to_be_visible()


def test_the_road_is_asked_for_and_then_judged(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name="Place and road").click()
    page.get_by_label("Travels").select_option("not known")
    expect(rung(page, "travel")).to_have_attribute("data-state", "cannot say")
    page.get_by_role("tab", name="To the end").click()
    acts = page.get_by_role("list", name="From the workshop to the end")
    expect(acts).not_to_contain_text("make there")
    page.get_by_label("Made").select_option("where it stands")
    expect(acts).to_contain_text("make there")
    expect(rung(page, "travel")).to_have_attribute("data-state", "not needed")
    expect(rung(page, "lift")).to_have_attribute("data-state", "holds")
    page.get_by_role("button", name="Undo").click()
    expect(acts).not_to_contain_text("make there")
    page.get_by_role("tab", name="Place and road").click()
    page.get_by_label("In or out").select_option("outdoors, down above Beaufort 7")
    expect(rung(page, "stand")).to_have_attribute("data-state", "fails")


def test_a_vessel_is_measured_in_the_stores_and_checked_by_what_it_holds(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("button", name="Measure a new vessel").click()
    editor = page.get_by_role("region", name="Edit New vessel")
    table = editor.get_by_label(re.compile("Inside, from the floor up"))
    table.fill("0  12\nhigh  20")
    table.blur()
    expect(editor.get_by_role("alert")).to_contain_text("Line 2")
    table.fill("0  12\n10  20")
    table.blur()
    expect(editor.get_by_role("alert")).to_have_count(0)
    field(page, "Measured fill, to the rim").fill("3 L")
    page.keyboard.press("Enter")
    expect(editor.get_by_role("status")).to_contain_text("measure again")
    editor.get_by_role("button", name="Scale the widths").click()
    editor.get_by_role("button", name="Keep it").click()
    expect(editor).to_have_count(0)
    expect(page.get_by_text("New vessel").first).to_be_visible()


def test_an_svg_with_a_script_is_not_opened(page: Page, served: Served, tmp_path: Path) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("button", name=re.compile("^low bowl, 20 cm")).click()
    editor = page.get_by_role("region", name="Edit low bowl, 20 cm")
    bad = tmp_path / "bad.svg"
    bad.write_text('<svg xmlns="http://www.w3.org/2000/svg"><script>x()</script><path d="M0 0L1 1"/></svg>')
    editor.get_by_label("Or from an SVG drawing:").set_input_files(bad)
    expect(editor.get_by_role("alert")).to_contain_text("script")
    good = tmp_path / "good.svg"
    good.write_text('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 100 L50 100 L80 0"/></svg>')
    editor.get_by_label("Or from an SVG drawing:").set_input_files(good)
    expect(editor.get_by_role("alert")).to_have_count(0)
    editor.get_by_role("button", name="Leave it as it was").click()


def test_a_table_is_looked_through_before_it_is_written(page: Page, served: Served, tmp_path: Path) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("tab", name="Frogs").click()
    table = tmp_path / "frogs.csv"
    header = "key,name,kind,width_mm,height_mm,mass_g,opening_mm,openings,volume_ml\n"
    table.write_text(header + "iron-60,Iron frog,pin,60,22,480,4,0,0\nbad,=1+1,pin,60,22,480,4,0,0\n")
    found = page.get_by_role("region", name="Frogs as a table")
    found.get_by_label("Read a CSV:").set_input_files(table)
    expect(found).to_contain_text("1 new, 0 changed")
    expect(found).to_contain_text("Line 3, name")
    expect(page.get_by_role("textbox", name="Name of Iron frog")).to_have_count(0)
    found.get_by_role("button", name="Write 1 rows").click()
    expect(page.get_by_role("textbox", name="Name of Iron frog")).to_be_visible()


def test_a_frog_is_edited_copied_and_retired(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("tab", name="Frogs").click()
    field(page, "weight of pin frog, 5 cm").fill("320 g")
    page.keyboard.press("Enter")
    row = page.get_by_role("row").filter(has=page.get_by_role("textbox", name="Name of pin frog, 5 cm", exact=True))
    expect(row).to_contain_text("measured")
    page.get_by_role("button", name="Copy pin frog, 5 cm").click()
    expect(page.get_by_role("textbox", name="Name of pin frog, 5 cm, copy")).to_be_visible()
    page.get_by_role("button", name="Retire pin frog, 5 cm, copy").click()
    expect(page.get_by_role("textbox", name="Name of pin frog, 5 cm, copy")).to_have_count(0)
    page.get_by_label("show what is retired").check()
    expect(page.get_by_role("button", name="Use again pin frog, 5 cm, copy")).to_be_visible()


def test_a_retired_mechanic_is_ruled_out_where_mechanics_are_compared(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("tab", name="Mechanics").click()
    page.get_by_role("button", name="Retire Mineral block").click()
    expect(page.get_by_role("button", name="Retire Mineral block")).to_have_count(0)
    bench(page, served)
    page.get_by_role("tab", name="Side by side").click()
    expect(page.locator("[data-kind=mineral_block]")).to_contain_text("retired")


def test_seats_stay_until_they_are_dealt_again_and_stems_may_end_at_the_water(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name="Stems").click()
    page.get_by_role("button", name="Deal the seats again").click()
    saved(page)
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    page.get_by_label("Feet").select_option("to the water")
    saved(page)
    page.reload()
    page.get_by_role("tab", name="Stems").click()
    expect(page.get_by_label("Feet")).to_have_value("to the water")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Feet")).to_have_value("on the floor")


def test_a_piece_in_the_sun_dries_sooner_than_its_room(page: Page, served: Served) -> None:
    bench(page, served)
    before = rung(page, "drink").inner_text()
    page.get_by_role("tab", name="Room and water").click()
    page.get_by_label("Stands in air").select_option("own")
    saved(page)
    page.get_by_label("Sun", exact=True).select_option("sun")
    saved(page)
    expect(rung(page, "drink")).not_to_have_text(before)
    field(page, "Temperature there").fill("70")
    field(page, "Temperature there").press("Enter")
    expect(page.get_by_text(re.compile("too large|Give ")).first).to_be_visible()


def test_what_is_meant_to_be_seen_is_not_to_be_hidden(page: Page, served: Served) -> None:
    open_piece(page, served, 5)
    page.get_by_role("tab", name="Place and road").click()
    page.get_by_label("Meant to be seen").select_option("both")
    saved(page)
    expect(rung(page, "hide")).to_have_attribute("data-state", "not needed")
    page.get_by_label("Stands on").select_option("floor")
    saved(page)
    expect(page.get_by_label("Bare table all round")).to_have_count(0)
