"""Each thing that people order, from an event with its brief and nothing else to its last verdict and its card.

An act is one press, one chord or one field left; what is asked is answered where it is asked.
"""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from jolly_trellis.core.event.starting.starts import STARTS
from tests.browser.hands import Pointer
from tests.browser.test_bench import saved
from tests.plans_made import BRIEF, ORDERED
from tools.running import Served

pytestmark = pytest.mark.browser

MOST_ACTS = 40
WORN = ("buttonhole", "corsage", "crown")

# What an owner, a maker and whoever drives say, by words of what is asked: fields that follow one another.
ANSWERS: tuple[tuple[str, tuple[tuple[str, str], ...]], ...] = (
    ("how the piece travels", (("", "in a box"),)),
    ("walls of its box", (("", "50 cm"),)),
    ("hours it is carried", (("", "2.5 h"),)),
    ("spill's hook is rated", (("", "200 N"),)),
    ("hook's rating", (("", "the owner"),)),
    ("frame may carry", (("", "60 kg"), ("Stated by", "its maker"), ("On", "2027-04-01"))),
    ("which competent person", (("", "the rigger"),)),
    ("own the second bond leads to", (("", "a new point of its own"),)),
    ("frame weighs", (("", "24 kg"), ("Ballast, each foot", "12 kg"))),
    ("frame's feet", (("", "rubber pads"), ("stand on", "stone or paving"))),
    ("guyed or tied", (("", "two eyes in the wall"),)),
    ("off straight down", (("", "75"),)),
    ("straight out of the wall", (("", "300 N"),)),
)


def answer(hand: Pointer, fact: str) -> None:
    """Says what is asked, in the field that asking leads to and in those beside it."""
    page = hand.page
    focused = page.locator("main :is(input, select):focus")
    expect(focused).to_have_count(1)
    if "who states it" in fact:
        point = page.locator("[data-point]", has=page.locator(":focus"))
        hand.write(focused, "600 N")
        hand.write(point.get_by_label("Stated by"), "the owner")
        hand.press(page.get_by_role("button", name="The same is stated for all"))
        return
    if "second bond: its own" in fact:
        hand.press(focused)
        return
    said = next((each for known, each in ANSWERS if known in fact), None)
    assert said is not None, f"nobody has an answer to: {fact}"
    for label, words in said:
        field = page.get_by_label(label, exact=True).first if label else focused
        if field.evaluate("element => element.tagName") == "SELECT":
            hand.choose(field, words)
        else:
            hand.write(field, words)


def answer_everything(hand: Pointer) -> None:
    page = hand.page
    asked = page.get_by_role("region", name="Not known yet").get_by_role("button")
    judged = page.locator("[data-verb], [data-hang]").first
    for _ in range(24):
        expect(judged).to_be_visible()
        saved(page)
        if asked.count() == 0:
            return
        fact = asked.first.inner_text()
        hand.press(asked.first)
        answer(hand, fact)
        expect(asked.get_by_text(fact, exact=True)).to_have_count(0)
    raise AssertionError("there is always something more to say")


def begin(hand: Pointer, served: Served, key: str) -> None:
    page = hand.page
    made = page.request.post(f"{served.url}/api/events", data=BRIEF)
    page.goto(f"{served.url}/events/{made.json()['id']}")
    hung = STARTS[key].kind == "rig"
    hand.choose(page.get_by_label("New hung or mounted piece" if hung else "New piece"), key)
    hand.press(page.get_by_role("button", name="Hang it" if hung else "Add the piece"))
    expect(page.locator("[data-hang]" if hung else "[data-verb]").first).to_be_visible()


def states(page: Page) -> list[Any]:
    rungs = page.locator("[data-verb]")
    if rungs.count():
        return [each.get_attribute("data-state") for each in rungs.all()]
    return [page.locator("[data-hang]").get_attribute("data-hang")]


DAILY = ("low_bowl", "hand_spiral", "arch_section", "buttonhole")  # one of each kind


@pytest.mark.parametrize(
    "key", [each if each in DAILY else pytest.param(each, marks=pytest.mark.long) for each in (*ORDERED, *WORN)]
)
def test_it_is_planned_from_nothing_in_few_acts_and_printed(page: Page, empty: Served, key: str) -> None:
    hand = Pointer(page)
    begin(hand, empty, key)
    if STARTS[key].measure:
        expect(page.get_by_text(re.compile("^Measure first"))).to_be_visible()
    answer_everything(hand)
    assert "cannot say" not in states(page)
    assert hand.acts <= MOST_ACTS
    card = page.get_by_role("link", name="A4").first.get_attribute("href") or ""
    printed = page.request.get(empty.url + card)
    assert printed.ok
    assert printed.body().startswith(b"%PDF")
