"""Walking round a piece: the ring, the keys, typed degrees, the eyes, two views that turn together."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.measured import overlaps_all_round
from tests.browser.test_bench import bench, saved
from tools.running import Served


def tips(page: Page, view: int) -> str:
    """Where a flower is drawn in a view."""
    path = page.locator("[data-eye]").nth(view).locator("[data-id='head-0-0']").first
    return path.get_attribute("d") or ""


def test_the_ring_turns_both_views_by_keys_by_hand_and_by_typed_degrees(page: Page, served: Served) -> None:
    bench(page, served)
    before = tips(page, 0), tips(page, 1)
    ring = page.get_by_role("slider", name="Turn it").first
    ring.focus()
    page.keyboard.press("ArrowRight")
    expect(ring).to_have_attribute("aria-valuenow", "15")
    assert tips(page, 0) != before[0]
    assert tips(page, 1) != before[1]
    page.keyboard.press("Home")
    expect(ring).to_have_attribute("aria-valuenow", "0")
    assert (tips(page, 0), tips(page, 1)) == before
    box = ring.locator(".ring").bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2 + 40, box["y"] + box["height"])
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 - 60, box["y"] + box["height"], steps=5)
    page.mouse.up()
    expect(ring).not_to_have_attribute("aria-valuenow", "0")
    page.get_by_label("Turned to the right by").fill("180")
    page.keyboard.press("Enter")
    expect(ring).to_have_attribute("aria-valuetext", "180°, seen from the back")
    page.get_by_role("button", name="Turn 15° to the left").click()
    expect(ring).to_have_attribute("aria-valuenow", "165")
    # what is only looked at is no change
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()


def test_every_eye_sees_the_piece_whole(page: Page, there: Served) -> None:
    bench(page, there)
    for eye in ("standing", "seated", "low", "close", "from under", "from above"):
        page.get_by_label("Look at it").first.select_option(eye)
        view = page.locator(f"[data-eye='{eye}']").first
        expect(view.locator("[data-id='head-0-0']").first).to_be_attached()
        # its vessel is no section any more
        expect(view.locator("[data-id='vessel-wall']")).to_have_count(0)
        expect(view.locator("[data-id^='vessel-']").first).to_be_attached()
        sheet = view.locator("svg.drawing").bounding_box()
        assert sheet
        boxes = view.locator("[data-id^='head-']").evaluate_all(
            "all => all.slice(0, 40).map(each => each.getBoundingClientRect().toJSON())"
        )
        assert boxes
        for box in boxes:
            assert sheet["x"] - 2 <= box["x"]
            assert box["x"] + box["width"] <= sheet["x"] + sheet["width"] + 2


def test_handles_are_where_what_they_set_is_seen_and_nowhere_else(page: Page, served: Served) -> None:
    bench(page, served)
    left = page.locator("[data-eye]").first
    expect(left.locator("[data-handle='envelope-width']")).to_have_count(1)
    page.get_by_label("Turned to the right by").fill("90")
    page.keyboard.press("Enter")
    expect(left.locator("[data-handle='envelope-depth']")).to_have_count(1)
    expect(left.locator("[data-handle='envelope-width']")).to_have_count(0)
    page.get_by_label("Turned to the right by").fill("40")
    page.keyboard.press("Enter")
    expect(page.locator("[data-handle]")).to_have_count(0)
    ids = page.evaluate("[...document.querySelectorAll('[id]')].map(each => each.id)")
    assert len(ids) == len(set(ids))


def test_the_making_builds_up_in_any_view(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name="Making").click()
    view = page.get_by_role("tabpanel", name="Making").locator("[data-eye]")
    expect(view.locator("[data-id='newest']")).to_be_attached()
    view.get_by_label("Look at it").select_option("standing")
    expect(page.get_by_label(re.compile("^Seen standing, from the front"))).to_be_visible()
    expect(view.locator("[data-id='newest']")).to_be_attached()
    page.get_by_role("slider", name="Turn it").focus()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_label(re.compile("^Seen standing, from (the front|front left)"))).to_be_visible()
    saved(page)


VIEWS = (("cut open", "from above"), ("standing", "seated"), ("low", "close"), ("from under", "low"))


@pytest.mark.parametrize("piece", [1, *(pytest.param(each, marks=pytest.mark.long) for each in range(2, 10))])
def test_nothing_written_lies_over_anything_else_however_a_piece_is_turned(
    page: Page, there: Served, piece: int
) -> None:
    """Every 30°, every eye."""
    page.goto(f"{there.url}/events/1/pieces/{piece}")
    expect(page.locator("[data-eye] [data-id='head-0-0']").first).to_be_attached()
    for eyes in VIEWS:
        for view, eye in enumerate(eyes):
            page.get_by_label("Look at it").nth(view).select_option(eye)
        assert overlaps_all_round(page) == []


@pytest.mark.long
@pytest.mark.parametrize("rig", range(10, 16))
def test_nothing_written_lies_over_anything_else_however_hung_work_is_turned(
    page: Page, there: Served, rig: int
) -> None:
    page.goto(f"{there.url}/events/1/rigs/{rig}")
    expect(page.locator("[data-eye] [data-id^='hung-head-']").first).to_be_attached()
    for eye in ("level", "standing", "from under", "from above"):
        page.get_by_label("Look at it").first.select_option(eye)
        page.get_by_label("Look at it").nth(1).select_option("standing")
        assert overlaps_all_round(page) == []
