"""From the brief to the venue pack with nothing but a browser: roll, lists, cost, day, files, and a narrow screen."""

import re
from pathlib import Path
from typing import Any

import icalendar
import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Download, Page, expect

from tests.browser.test_bench import add_stems
from tools.running import Served

pytestmark = pytest.mark.browser
SLOW_MS = 240_000  # a day is looked for as long as it takes on a busy machine


def saved(page: Page, link: str, folder: Path) -> Path:
    """What a link saves."""
    with page.expect_download() as waiting:
        page.get_by_role("link", name=link).click()
    download: Download = waiting.value
    path = folder / download.suggested_filename
    download.save_as(path)
    return path


def worked_out(page: Page) -> None:
    expect(page.get_by_text(re.compile(r"\d+ tasks, \d+ pairs? of hands"))).to_be_visible(timeout=SLOW_MS)


def test_the_cuts_are_planned_marked_and_taken_back(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/roll")
    expect(page.get_by_text("Nothing is planned yet.")).to_be_visible()
    page.get_by_role("button", name="Plan the cuts").click()
    expect(page.get_by_text("Planned for the event as it stands.")).to_be_visible(timeout=SLOW_MS)
    expect(page.get_by_role("img", name=re.compile("pieces on a roll in the stores")).first).to_be_visible()
    page.get_by_role("button", name=re.compile("^50 mm, galvanized")).click()
    expect(page.get_by_text("cut across: panel, Panel over the cake table.")).to_be_visible()
    page.get_by_role("button", name=re.compile("^25 mm, coated")).click()
    page.get_by_role("button", name="Mark as cut").click()
    expect(page.get_by_text("what it took has left the stores")).to_be_visible()
    page.get_by_role("button", name="Not cut after all").click()
    expect(page.get_by_text("what it took has left the stores")).to_be_hidden()


def test_a_conflict_is_mended_with_one_press_and_a_task_set_with_the_keys(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/day")
    worked_out(page)
    conflicts = page.get_by_role("region", name="Conflicts")
    conflicts.get_by_role("button", name=re.compile("Give each bellflower")).click()
    expect(conflicts).to_be_hidden(timeout=SLOW_MS)
    worked_out(page)
    page.get_by_role("group", name="Which day").get_by_role("button", name=re.compile("14 May")).click()
    task = page.get_by_role("button", name=re.compile("Make the mechanic: Long-table low bowl"))
    task.first.focus()
    page.keyboard.press("Enter")
    panel = page.get_by_role("complementary", name="The task")
    expect(panel.get_by_role("heading", name="Make the mechanic: Long-table low bowl")).to_be_visible()
    page.keyboard.press("Shift+ArrowLeft")
    expect(panel.get_by_text("Set by hand.")).to_be_visible(timeout=SLOW_MS)
    panel.get_by_role("button", name="Let it go").click()
    expect(panel.get_by_text("Set by hand.")).to_be_hidden(timeout=SLOW_MS)
    page.get_by_role("button", name="Undo").click()
    expect(panel.get_by_text("Set by hand.")).to_be_visible(timeout=SLOW_MS)


def test_a_task_is_set_by_dragging_it(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/day")
    worked_out(page)
    page.get_by_role("group", name="Which day").get_by_role("button", name=re.compile("13 May")).click()
    task = page.get_by_role("button", name=re.compile(r"Fetch \d+ stems")).first
    box = task.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 8, box["y"] + 12)
    page.mouse.down()
    page.mouse.move(box["x"] - 60, box["y"] + 12, steps=4)
    page.mouse.up()
    expect(page.get_by_role("complementary", name="The task").get_by_text("Set by hand.")).to_be_visible(
        timeout=SLOW_MS
    )
    worked_out(page)
    expect(page.get_by_text(re.compile(r"^was \d\d:\d\d")).first).to_be_visible()
    page.get_by_label("Show").select_option("Alder")
    expect(page.get_by_role("heading", name="Run sheet, Alder")).to_be_visible()


def test_a_calendar_saved_and_changed_elsewhere_is_read_back(page: Page, served: Served, tmp_path: Path) -> None:
    page.goto(f"{served.url}/events/1/day")
    worked_out(page)
    path = saved(page, "Save as calendar", tmp_path)
    calendar: Any = icalendar.Calendar.from_ical(path.read_text(encoding="utf-8"))
    entry = next(each for each in calendar.walk("VEVENT") if str(each["summary"]).startswith("Fetch"))
    entry["dtstart"].dt = entry["dtstart"].dt.replace(hour=8, minute=5)
    changed = tmp_path / "changed.ics"
    changed.write_bytes(calendar.to_ical())
    page.get_by_label("A calendar file").set_input_files(changed)
    expect(page.get_by_text(f"Moved: {entry['summary']}.")).to_be_visible(timeout=SLOW_MS)
    broken = tmp_path / "broken.ics"
    broken.write_text("this is no calendar")
    page.get_by_label("A calendar file").set_input_files(broken)
    expect(page.get_by_role("alert")).to_contain_text("This is no calendar that can be read.")


def test_lists_are_counted_and_saved(page: Page, served: Served, tmp_path: Path) -> None:
    page.goto(f"{served.url}/events/1/lists")
    expect(page.get_by_text("7 bunches of 12")).to_be_visible()
    assert saved(page, "Save as CSV", tmp_path).read_text(encoding="utf-8").startswith("group,key,name")
    page.get_by_role("tab", name="Taking along").click()
    expect(page.get_by_text("ladder, footed by a second person")).to_be_visible()
    page.get_by_role("tab", name="Days before").click()
    expect(page.get_by_role("row", name=re.compile("peony")).get_by_text("Sat 8 May")).to_be_visible()
    page.get_by_role("tab", name="Pull lists").click()
    expect(page.get_by_role("heading", name="12 × Long-table low bowl")).to_be_visible()


def test_the_price_follows_the_rate_and_a_recipe_is_scaled(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/cost")
    asked = page.get_by_role("row", name=re.compile("The event, in"))
    expect(asked).to_contain_text(re.compile(r"\d{4}\.\d\d"))
    price = re.findall(r"\d{4}\.\d\d", asked.inner_text())[-1]
    page.get_by_label("An hour of work").fill("30")
    page.keyboard.press("Enter")
    expect(asked).not_to_contain_text(price)
    page.get_by_label("An hour of work").fill("")
    page.keyboard.press("Enter")
    expect(page.get_by_text("what an hour of work costs")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(asked).to_contain_text(price)
    page.get_by_label("It shall be").fill("0 cm")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Show it").click()
    expect(page.get_by_text("Give a size of more than nothing.").first).to_be_visible()
    page.get_by_label("It shall be").fill("54 cm")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Show it").click()
    expect(page.get_by_role("list", name="The scaled recipe").get_by_role("listitem")).to_have_count(7)
    page.get_by_role("button", name="Keep it").click()
    expect(asked).not_to_contain_text(price)


def test_an_event_is_saved_as_a_file_read_again_and_copied(page: Page, served: Served, tmp_path: Path) -> None:
    page.goto(f"{served.url}/events/1")
    path = saved(page, "The whole event as a file", tmp_path)
    page.goto(f"{served.url}/?all")
    damaged = tmp_path / "damaged.event.json"
    damaged.write_text(path.read_text(encoding="utf-8").replace('"width_m": 0.11', '"width_m": -1', 1))
    page.get_by_label("An event file").set_input_files(damaged)
    expect(page.get_by_role("alert")).to_contain_text("The file is damaged in parts, no. 1")
    page.get_by_label("An event file").set_input_files(path)
    expect(page.get_by_text("To settle next")).to_be_visible()
    assert page.url.endswith("/events/2")
    page.goto(f"{served.url}/?all")
    page.get_by_role("button", name="Copy Reopening supper").first.click()
    expect(page.get_by_role("heading", name=re.compile("Reopening supper, copy"))).to_be_visible()
    expect(page.get_by_label("Water goes in")).to_have_value("")


def test_a_new_event_is_briefed_from_nothing_to_its_day(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Slipway lunch")
    page.get_by_role("button", name="Start the event").click()
    page.get_by_role("button", name="Add the piece").wait_for()
    page.get_by_role("link", name="Day").click()
    expect(page.get_by_text("The brief does not say:")).to_contain_text("when the water goes in")
    page.get_by_role("button", name="when the water goes in").click()
    expect(page.get_by_label("Water goes in")).to_be_focused()
    for label, value in (("Water goes in", "2027-06-12T11:00"), ("Event ends", "2027-06-12T17:00")):
        page.get_by_label(label).fill(value)
        page.get_by_label(label).blur()
    page.get_by_label("Guests come").fill("2027-06-12T18:00")
    page.get_by_label("Guests come").blur()
    expect(page.get_by_text("Here the event ends before the guests come.")).to_be_visible()
    page.get_by_label("Guests come").fill("2027-06-12T12:00")
    page.get_by_label("Guests come").blur()
    page.get_by_label("Drive, one way").fill("30 min")
    page.keyboard.press("Enter")
    page.get_by_label("Name of one more of the crew").fill("Wren")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("button", name="Take Wren out of the crew")).to_be_visible()
    page.get_by_role("button", name="Add the piece").click()
    page.get_by_role("tab", name=re.compile("Stems")).click()
    add_stems(page, "5 ruscus")
    page.goto(f"{empty.url}/events/1/day")
    worked_out(page)
    expect(page.get_by_role("heading", name="Run sheet")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Place: ")).first).to_be_visible()


def test_the_venue_pack_opens_on_a_narrow_screen_with_the_server_stopped_and_keeps_its_ticks(
    page: Page, served: Served, browser: Browser, tmp_path: Path
) -> None:
    page.goto(f"{served.url}/events/1")
    path = saved(page, "Venue pack, one page for a phone with no network", tmp_path)
    served.stop()
    assert path.stat().st_size < 2_000_000
    phone = browser.new_context(viewport={"width": 360, "height": 740}, offline=True)
    narrow = phone.new_page()
    asked: list[str] = []
    narrow.on("request", lambda request: asked.append(request.url))
    narrow.goto(path.as_uri())
    assert narrow.evaluate("document.documentElement.scrollWidth") <= 360
    for heading in ("The day", "Water rounds", "Line-up", "Rig cards", "Bench cards", "Lists"):
        expect(narrow.get_by_role("heading", name=heading, exact=True)).to_be_attached()
    first = narrow.get_by_role("checkbox").first
    first.check()
    narrow.close()
    again = phone.new_page()
    again.goto(path.as_uri())
    expect(again.get_by_role("checkbox").first).to_be_checked()
    assert asked == [path.as_uri()]
    phone.close()


@pytest.mark.long
@pytest.mark.parametrize("screen", ["roll", "day", "lists", "cost"])
def test_the_screens_of_an_event_are_accessible(page: Page, served: Served, screen: str) -> None:
    page.goto(f"{served.url}/events/1/{screen}")
    if screen == "day":
        worked_out(page)
    if screen == "roll":
        page.get_by_role("button", name="Plan the cuts").click()
        expect(page.get_by_text("Planned for the event as it stands.")).to_be_visible(timeout=SLOW_MS)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.wait_for_timeout(300)
    found = Axe().run(page)
    assert found.violations_count == 0, found.generate_report()


def test_a_remnant_is_counted_in_used_first_and_its_place_is_in_the_stores(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("tab", name="Netting").click()
    remnants = page.get_by_role("region", name="Remnants")
    remnants.get_by_label("Count one in, of").select_option("25 mm, coated, 0.9 mm wire")
    remnants.get_by_role("button", name="Count it in").click()
    expect(remnants.get_by_role("alert")).to_contain_text("The length is too small. Give more than 0 mm.")
    remnants.get_by_label("Long").fill("60 cm")
    page.keyboard.press("Enter")
    remnants.get_by_label("Wide").fill("0 cm")
    page.keyboard.press("Enter")
    remnants.get_by_role("button", name="Count it in").click()
    expect(remnants.get_by_role("alert")).to_contain_text("A remnant of netting has a width.")
    remnants.get_by_label("Wide").fill("12 in")
    page.keyboard.press("Enter")
    remnants.get_by_role("button", name="Count it in").click()
    expect(remnants.get_by_text("30.5 cm × 60 cm")).to_be_visible()
    page.goto(f"{served.url}/events/1/roll")
    page.get_by_role("button", name="Plan the cuts").click()
    expect(page.get_by_text("a remnant in the stores, 30.5 cm wide")).to_be_visible(timeout=SLOW_MS)


def test_what_the_day_and_the_roll_leave_open_is_to_settle_on_the_line_up(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/day")
    worked_out(page)
    page.get_by_role("link", name="Line-up").click()
    page.get_by_role("link", name=re.compile("day: On site: 30 bellflower", re.IGNORECASE)).click()
    expect(page.get_by_role("region", name="Conflicts")).to_be_visible()


def test_what_is_hired_ordered_taken_and_comes_home_is_in_the_stores(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/lists")
    page.get_by_role("button", name="Hire something").click()
    hired = page.get_by_role("region", name="Hired")
    hired.get_by_label("What, as pieces call it").fill("tall cylinder, 50 cm")
    page.keyboard.press("Enter")
    hired.get_by_label("Goes back").fill("2027-05-10")
    hired.get_by_label("Goes back").blur()
    expect(hired.get_by_text("goes back before it comes")).to_be_visible()
    hired.get_by_label("Goes back").fill("2027-05-18")
    hired.get_by_label("Goes back").blur()
    hired.get_by_label("How many").fill("2")
    page.keyboard.press("Enter")
    expect(page.get_by_text("✓ hired")).to_be_visible()
    page.get_by_role("tab", name="Orders").click()
    page.get_by_label(re.compile("^How felt pad.*came in")).select_option("late")
    page.get_by_role("tab", name="Taking along").click()
    page.get_by_label("Long-table low bowl is out").check()
    expect(page.get_by_text(re.compile("^1 of"))).to_be_visible()
    page.get_by_role("tab", name="Coming home").click()
    page.get_by_label("Condition of snake, Run over the long table").select_option("bent")
    page.get_by_role("button", name="All of this is home").click()
    expect(page.get_by_text("✓ Home since")).to_be_visible()
    page.goto(f"{served.url}/stores?part=armature")
    expect(page.get_by_role("textbox", name="Name").filter(visible=True).first).to_be_visible()
    expect(page.get_by_text("Came home from “Reopening supper”.").first).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Nothing has come home yet.")).to_be_visible()
    page.goto(f"{served.url}/events/1")
    expect(page.get_by_text(re.compile("felt pad, 2 cm from .*: late"))).to_be_visible()


def test_a_price_is_accepted_and_the_plan_is_held_against_it(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/cost")
    page.get_by_role("button", name="What Long-table low bowl is made up of").click()
    expect(page.get_by_role("list", name="Lines of Long-table low bowl").get_by_text("garden rose")).to_be_visible()
    page.get_by_role("button", name="The client accepts it").click()
    client = page.get_by_role("region", name="With the client")
    expect(client.get_by_text("✓ the same")).to_be_visible()
    page.get_by_label("Tax, of the price").fill("25 %")
    page.keyboard.press("Enter")
    expect(client.get_by_text(re.compile("▲ .* more"))).to_be_visible()
    page.get_by_label("The client would pay, tax in").fill("20000")
    page.keyboard.press("Enter")
    expect(client.get_by_text("The price is within it.")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(client.get_by_text("✓ the same")).to_be_visible()


def test_how_many_are_tall_is_not_said_before_all_that_decides_is(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/cost")
    page.get_by_role("button", name="Work it out").click()
    expect(page.get_by_text("Cannot say without: tall stands, tall in the van, minutes each.")).to_be_visible()
    for label, number in (("Tall stands", "6"), ("Tall in the van", "4"), ("Minutes each", "15")):
        page.get_by_label(label, exact=True).fill(number)
        page.keyboard.press("Enter")
    page.get_by_role("button", name="Work it out").click()
    expect(page.get_by_text("4 tall and 10 low.")).to_be_visible()
    expect(page.get_by_text("Cannot say without")).to_have_count(0)
