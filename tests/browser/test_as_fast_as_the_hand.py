"""Asked for more than anybody can look at: the last state is the one that is shown, and nothing queues behind."""

import json
from typing import Any

import httpx2
import pytest
from playwright.sync_api import Page, Request, Route, expect

from jolly_trellis.demo.loading import demo_plan
from jolly_trellis.store import codec
from tests import ordinary
from tools.running import Served, until

pytestmark = pytest.mark.browser
ASKED = "**/evaluate/changed"
MOVES = 100
BURST = """
([handle, y, moves]) => {
  const held = document.querySelector(`[data-handle=${handle}]`);
  for (let move = 1; move <= moves; move += 1) {
    held.dispatchEvent(new PointerEvent("pointermove", {
      bubbles: true, pointerId: 1, buttons: 1, clientX: 0, clientY: y + move / 4,
    }));
  }
}
"""


def opened(page: Page, served: Served, piece: int = 1) -> None:
    page.goto(f"{served.url}/events/1/pieces/{piece}")
    expect(page.locator("[data-verb=drink]")).to_be_visible()


def press(page: Page, handle: str) -> float:
    """Takes a handle, and gives where the pointer is, px."""
    box = page.locator(f"[data-handle={handle}]").first.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    return y


def level_of(asked: Request) -> float:
    body = json.loads(asked.post_data or "{}")
    return float(body["piece"]["water_level_m"])


def piece_of(served: Served, number: int = 1) -> dict[str, Any]:
    event = httpx2.get(f"{served.url}/api/events/1", timeout=60.0).json()
    return dict(next(each for each in event["parts"] if each["id"] == number))


def test_of_a_hundred_moves_at_once_the_last_is_shown_and_kept_and_few_are_asked(page: Page, served: Served) -> None:
    asked: list[Request] = []
    ended: list[Request] = []
    most_at_once = [0]

    def begun(request: Request) -> None:
        if request.url.endswith("/evaluate/changed"):
            asked.append(request)
            most_at_once[0] = max(most_at_once[0], len(asked) - len(ended))

    page.on("request", begun)
    page.on("requestfinished", lambda each: ended.append(each) if each in asked else None)
    opened(page, served)
    y = press(page, "water")
    page.evaluate(BURST, ["water", y, MOVES])
    last = page.locator("[data-handle=water]").first
    until(page, "() => document.querySelector('[data-handle=water]').getAttribute('data-active') === 'true'")
    page.wait_for_load_state("networkidle")
    assert 1 <= len(asked) <= 3
    assert most_at_once == [1]
    shown = float(str(last.get_attribute("aria-valuenow")))
    assert level_of(asked[-1]) == pytest.approx(shown, abs=1e-4)
    page.mouse.up()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    assert piece_of(served)["part"]["water_level_m"] == pytest.approx(shown, abs=1e-4)


def test_a_window_that_is_closed_in_the_middle_of_a_drag_leaves_nothing_behind(page: Page, served: Served) -> None:
    before = piece_of(served)
    other = page.context.new_page()
    opened(other, served)
    y = press(other, "envelope-height")
    other.evaluate(BURST, ["envelope-height", y, MOVES])
    other.close()
    opened(page, served)
    assert piece_of(served) == before


def test_a_plan_that_changes_while_its_mechanics_are_compared_is_compared_anew(page: Page, served: Served) -> None:
    bowl = piece_of(served)["part"]
    body = {"base_revision": 1, "part": bowl | {"water_level_m": 0.03}, "label": "Lower the water"}
    httpx2.put(f"{served.url}/api/events/1/parts/1", json=body, timeout=60.0).raise_for_status()
    asked: list[float] = []
    given_up: list[str] = []

    def answer(route: Route) -> None:
        """The first is never answered."""
        asked.append(level_of(route.request))
        if len(asked) > 1:
            route.continue_()

    page.on("requestfailed", lambda each: given_up.append(each.url))
    page.route("**/choose", answer)
    page.goto(f"{served.url}/events/1/pieces/1?view=compare")
    expect(page.get_by_text("Sizing and judging every mechanic")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-kind]").first).to_be_visible()
    assert asked == [0.03, bowl["water_level_m"]]
    assert [each for each in given_up if each.endswith("/choose")] != []


def test_four_hundred_stems_are_dragged_like_any(page: Page, served: Served) -> None:
    full = codec.to_plain(ordinary.stems(demo_plan().pieces[0].part, 400))
    full["envelope"] |= {"width_m": 0.9, "depth_m": 0.9, "height_m": 0.7}
    body = {"base_revision": 1, "part": full}
    saved = httpx2.post(f"{served.url}/api/events/1/parts", json=body, timeout=60.0)
    saved.raise_for_status()
    opened(page, served, saved.json()["added"])
    assert page.locator("[data-eye='cut open'] path[data-id^='stem-']").count() == 400
    y = press(page, "water")
    with page.expect_response(ASKED):
        page.evaluate(BURST, ["water", y, 20])
    page.keyboard.press("Escape")
    page.mouse.up()
    expect(page.locator("[data-verb=hold]")).to_contain_text("fails")
