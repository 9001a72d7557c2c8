"""What is typed is kept or said not to be: late answers, a server away, two windows, deleting, copies, the stores."""

import re
import time
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import PATIENCE_MS
from tests.browser.test_bench import bench, drag, field, saved
from tests.browser.test_rigs import rig
from tools.running import Served

pytestmark = pytest.mark.browser


def test_a_late_answer_after_esc_never_shows_the_cancelled_trial(page: Page, served: Served) -> None:
    bench(page, served)
    rungs, looking = page.locator("[data-verb]"), page.get_by_text("Looking for what would mend it…")
    expect(looking).to_have_count(0)
    before, said = field(page, "Width of the flowers").input_value(), rungs.all_inner_texts()
    held: list[Route] = []
    page.route("**/evaluate/changed", lambda route: held.append(route))  # noqa: PLW0108  # Playwright marks what it is given
    drag(page, "envelope-width", 50, 0, release=False)
    expect(field(page, "Width of the flowers")).not_to_have_value(before)
    _until(page, lambda: held)
    page.keyboard.press("Escape")
    page.mouse.up()
    answered = [route.request for route in held]
    for route in held:
        route.continue_()
    for request in answered:
        _until(page, request.response)
    page.wait_for_timeout(300)
    expect(field(page, "Width of the flowers")).to_have_value(before)
    expect(looking).to_have_count(0)
    assert rungs.all_inner_texts() == said


def _until(page: Page, there: Callable[[], object]) -> None:
    """Wait for what comes to this side of the page, as long as anything is waited for."""
    given_up = time.monotonic() + PATIENCE_MS / 1000
    while not there():
        assert time.monotonic() < given_up
        page.wait_for_timeout(20)


def test_with_the_server_away_what_was_typed_stays_is_said_not_to_be_saved_and_is_tried_again(
    page: Page, served: Served
) -> None:
    bench(page, served)
    served.stop()
    field(page, "Width of the flowers").fill("41 cm")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Not saved: trying again")).to_be_visible()
    expect(field(page, "Width of the flowers")).to_have_value("41 cm")
    served.start()
    saved(page)
    page.reload()
    expect(field(page, "Width of the flowers")).to_have_value("41 cm")


@pytest.mark.long
def test_with_the_server_away_the_brief_and_the_survey_wait_too(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/survey")
    expect(field(page, "Note").first).to_be_visible()
    served.stop()
    field(page, "Note").first.fill("ask again")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Not saved: trying again")).to_be_visible()
    served.start()
    saved(page)
    expect(field(page, "Note").first).to_have_value("ask again")
    page.goto(f"{served.url}/events/1")
    expect(field(page, "Who tops up")).to_be_visible()
    served.stop()
    field(page, "Who tops up").fill("Runa")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Not saved: trying again")).to_be_visible()
    served.start()
    expect(page.get_by_text("Not saved: trying again")).to_have_count(0)
    page.reload()
    expect(field(page, "Who tops up")).to_have_value("Runa")


def test_two_windows_on_one_rig_have_both_ways_out_and_undo_too(page: Page, served: Served) -> None:
    rig(page, served, "Run over the long table")
    other = page.context.new_page()
    rig(other, served, "Run over the long table")
    name = "Name of the hung piece"
    field(page, name).fill("Mine")
    page.keyboard.press("Enter")
    saved(page)
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    field(other, name).fill("Theirs")
    other.keyboard.press("Enter")
    strip = other.get_by_role("alert").filter(has_text="Changed in another window")
    expect(field(other, name)).to_have_value("Theirs")
    asked = strip.get_by_role("group", name=name)
    expect(asked.get_by_role("button", name="Mine: Theirs")).to_have_attribute("aria-pressed", "true")
    asked.get_by_role("button", name="The other: Mine").click()
    strip.get_by_role("button", name="Save it so").click()
    expect(strip).to_have_count(0)
    expect(field(other, name)).to_have_value("Mine")
    field(page, name).fill("Mine again")
    page.keyboard.press("Enter")
    saved(page)
    field(other, name).fill("Theirs all the same")
    other.keyboard.press("Enter")
    strip.get_by_role("button", name="Save it so").click()
    expect(strip).to_have_count(0)
    expect(field(other, name)).to_have_value("Theirs all the same")
    expect(field(other, name)).to_be_focused()
    page.get_by_role("button", name="Undo").click()
    mine = page.get_by_role("alert").filter(has_text="Changed in another window")
    mine.get_by_role("button", name="Undo all the same").click()
    expect(mine).to_have_count(0)
    expect(field(page, name)).to_have_value("Mine again")
    other.close()


def test_two_windows_on_one_survey_and_one_brief_have_both_ways_out(page: Page, served: Served) -> None:
    other = page.context.new_page()
    for window in (page, other):
        window.goto(f"{served.url}/events/1/survey")
        expect(field(window, "Note").first).to_be_visible()
    field(page, "Note").first.fill("first")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    saved(page)
    field(other, "Note").first.fill("second")
    other.keyboard.press("Enter")
    strip = other.get_by_role("alert").filter(has_text="Changed in another window")
    strip.get_by_role("button", name="Save it so").click()
    expect(strip).to_have_count(0)
    page.reload()
    expect(field(page, "Note").first).to_have_value("second")
    for window in (page, other):
        window.goto(f"{served.url}/events/1")
        expect(field(window, "Who tops up")).to_be_visible()
    field(page, "Who tops up").fill("Runa")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    field(other, "Room temperature").fill("23")
    other.keyboard.press("Enter")
    expect(field(other, "Who tops up")).to_have_value("Runa")
    expect(strip).to_have_count(0)
    page.reload()
    expect(field(page, "Room temperature")).to_have_value(re.compile("^23"))
    expect(field(page, "Who tops up")).to_have_value("Runa")
    other.close()


def test_two_windows_on_the_stores_have_both_ways_out(page: Page, served: Served) -> None:
    other = page.context.new_page()
    for window in (page, other):
        window.goto(f"{served.url}/stores?part=frog")
        expect(window.get_by_label("On hand of pin frog, 3 cm")).to_be_visible()
    for window, frog, count in ((page, "pin frog, 3 cm", "7"), (other, "pin frog, 5 cm", "9")):
        window.get_by_label(f"On hand of {frog}").fill(count)
        window.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    expect(other.get_by_label("On hand of pin frog, 3 cm")).to_have_value("7")
    expect(other.get_by_role("alert")).to_have_count(0)
    page.reload()
    expect(page.get_by_label("On hand of pin frog, 3 cm")).to_have_value("7")
    expect(page.get_by_label("On hand of pin frog, 5 cm")).to_have_value("9")
    other.get_by_label("On hand of pin frog, 15 cm").fill("2")
    other.keyboard.press("Enter")
    expect(other.get_by_role("button", name="Undo")).to_be_enabled()
    page.get_by_label("On hand of pin frog, 15 cm").fill("4")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="The other: 2").click()
    page.get_by_role("button", name="Save it so").click()
    expect(page.get_by_label("On hand of pin frog, 15 cm")).to_have_value("2")
    other.close()


def test_an_event_is_deleted_and_brought_back(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/?all")
    page.get_by_role("button", name="Delete Reopening supper").click()
    gone = page.get_by_role("region", name="Deleted events")
    expect(gone).to_contain_text("Reopening supper")
    expect(page.get_by_role("link", name="Reopening supper")).to_have_count(0)
    page.reload()
    gone.get_by_role("button", name="Bring back Reopening supper").click()
    expect(gone).to_have_count(0)
    page.get_by_role("link", name="Reopening supper").click()
    expect(page.get_by_role("heading", name="Reopening supper")).to_be_visible()


def test_the_stores_are_undone_and_what_is_deleted_comes_back(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores")
    page.get_by_role("tab", name="Frogs").click()
    page.get_by_role("button", name="Delete pin frog, 3 cm").click()
    gone = page.get_by_role("region", name="Deleted")
    expect(gone).to_contain_text("pin frog, 3 cm")
    page.get_by_role("button", name="Undo").click()
    expect(gone).to_have_count(0)
    field(page, "On hand of pin frog, 3 cm").fill("6")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Redo")).to_be_disabled()
    page.get_by_role("button", name="Undo").click()
    expect(field(page, "On hand of pin frog, 3 cm")).to_have_value("0")
    page.get_by_role("button", name="Redo").click()
    expect(field(page, "On hand of pin frog, 3 cm")).to_have_value("6")
    field(page, "weight of pin frog, 3 cm").fill("-2")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="too small").last).to_be_visible()
    page.get_by_role("tab", name="Varieties").click()
    page.get_by_role("button", name="Delete rose", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("Retire it instead")


def test_everything_is_saved_as_a_file_and_put_back(page: Page, served: Served, tmp_path: Path) -> None:
    page.goto(f"{served.url}/?all")
    with page.expect_download() as asked:
        page.get_by_role("link", name="Save everything as a file").click()
    file = tmp_path / "saved.sqlite"
    asked.value.save_as(file)
    page.get_by_role("button", name="Delete Reopening supper").click()
    expect(page.get_by_role("region", name="Deleted events")).to_be_visible()
    page.get_by_label("A file of everything").set_input_files(file)
    dialog = page.get_by_role("alertdialog")
    expect(dialog).to_contain_text("kept as a copy")
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    page.get_by_label("A file of everything").set_input_files(file)
    dialog.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("status").filter(has_text="is put back")).to_be_visible()
    expect(page.get_by_role("link", name="Reopening supper")).to_be_visible()
    expect(page.get_by_text("before another was put back")).to_be_visible()
    wrong = tmp_path / "wrong.sqlite"
    wrong.write_text("no copy at all")
    page.get_by_label("A file of everything").set_input_files(wrong)
    dialog.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("alert")).to_contain_text("no data of Jolly Trellis")
    expect(page.get_by_role("link", name="Reopening supper")).to_be_visible()


def test_one_count_typed_twice_in_one_window_is_no_conflict_with_itself(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/stores?part=frog")
    counted = page.get_by_label("On hand of pin frog, 3 cm")
    expect(counted).to_be_visible()
    for count in ("4", "6", "8"):
        counted.fill(count)
        page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    held = f"{served.url}/api/stock"
    _until(page, lambda: 8 in [each["on_hand"] for each in page.request.get(held).json()["holdings"]["frog"].values()])
    page.reload()
    expect(counted).to_have_value("8")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_of_two_ticks_of_one_line_the_others_is_taken_where_that_is_chosen(page: Page, served: Served) -> None:
    other = page.context.new_page()
    for window in (page, other):
        window.goto(f"{served.url}/events/1/lists?list=orders")
        expect(window.get_by_placeholder("came").first).to_be_visible()
    page.get_by_placeholder("came").first.fill("1")
    page.keyboard.press("Enter")
    ticked = page.wait_for_function(
        "() => fetch('/api/events/1/lists').then(a => a.json()).then(a => a.ticks['goods in'])"
    )
    assert [each["number"] for each in ticked.json_value()] == [1]
    field = other.get_by_placeholder("came").first
    field.fill("2")
    other.keyboard.press("Enter")
    strip = other.get_by_role("alert").filter(has_text="Changed in another window too")
    strip.get_by_role("group", name="number").get_by_role("button", name="The other: 1").click()
    strip.get_by_role("button", name="Save it so").click()
    expect(strip).to_have_count(0)
    expect(field).to_have_value("1")
    other.close()


def test_a_point_named_as_soon_as_it_is_added_keeps_its_key_and_a_place_its_survey(page: Page, served: Served) -> None:
    survey = f"{served.url}/api/events/1/survey"
    page.goto(f"{served.url}/events/1/survey")
    page.get_by_role("button", name="Add a point").click()
    name = page.get_by_label("Name", exact=True).and_(page.locator("[data-path^='points.'] input")).last
    name.fill("over the stair")
    name.press("Enter")
    _until(page, lambda: page.request.get(survey).json()["survey"]["points"][-1]["name"] == "over the stair")
    point = page.request.get(survey).json()["survey"]["points"][-1]
    assert point["key"].startswith("point-")
    page.goto(f"{served.url}/events/1")
    place = page.get_by_label("Place", exact=True)
    place.fill("The old ropewalk")
    place.press("Enter")
    _until(page, lambda: page.request.get(survey).json()["survey"]["points"] == [])
    page.get_by_role("button", name="It is the same place, called otherwise").click()
    _until(page, lambda: page.request.get(survey).json()["survey"]["points"][-1:] == [point])
    assert page.request.get(survey).json()["place"] == "The old ropewalk"
