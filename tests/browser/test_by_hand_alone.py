"""A bowl, a posy, a ledge and a ring planned from nothing to the last verdict: by keyboard alone, by thumb alone."""

from collections.abc import Callable, Iterator, Mapping

import pytest
from playwright.sync_api import Browser, Locator, expect

from tests.browser.hands import Hand, Keyboard, Thumb
from tests.browser.test_bench import saved
from tools.running import Served

pytestmark = pytest.mark.browser

ANSWERS: tuple[tuple[str, str], ...] = (
    ("weight of the empty vessel", "900 g"),
    ("width of the foot", "10"),
    ("width of the vessel's foot", "10"),
    ("how the piece travels", "in a box"),
    ("walls of its box", "14"),
    ("temperature and humidity", "21"),
    ("vessel is filled", "2027-06-05T06:00"),
    ("event ends", "2027-06-05T11:30"),
    ("when it is loaded", "0.5 h"),
    ("hours it is carried", "5 h"),
    ("may carry", "20 kg"),
    ("second bond: its own", ""),
    ("second bond leads to", "a new point of its own"),
)


@pytest.fixture(params=[pytest.param(Keyboard, id="keyboard"), pytest.param(Thumb, id="thumb")])
def hand(request: pytest.FixtureRequest, browser: Browser, empty: Served) -> Iterator[Hand]:
    """One way of working, at an event that has nothing but its name."""
    made: Hand = request.param(browser)
    page = made.page
    page.goto(empty.url)
    made.write(page.get_by_label("Name of the event"), "Slipway lunch")
    expect(page.get_by_role("button", name="Add the piece")).to_be_visible()
    yield made
    page.context.close()


def unknown(hand: Hand) -> Locator:
    if isinstance(hand, Thumb):
        hand.tab("Verdicts")
    return hand.page.get_by_role("region", name="Not known yet").get_by_role("button")


def answer(hand: Hand, fact: str) -> None:
    """Goes from what is not known to its field, and says it there."""
    said = next(words for known, words in ANSWERS if known in fact)
    focused = hand.page.locator("main :is(input, select):focus")
    expect(focused).to_have_count(1)
    kind = focused.evaluate("element => element.tagName === 'SELECT' ? 'select' : element.type")
    if kind == "select":
        hand.choose(focused, said)
    elif kind == "checkbox":
        hand.press(focused)
    elif kind == "datetime-local":
        hand.set_time(focused, said)
    else:
        hand.write(focused, said)


def answer_everything(hand: Hand, beyond: Mapping[str, Callable[[Hand], None]] | None = None) -> None:
    """Answers all that is not known, one by one; `beyond` is what one answer asks for besides."""
    page = hand.page
    expect(unknown(hand).first).to_be_visible()
    for _ in range(16):
        saved(page)
        asked = unknown(hand)
        if asked.count() == 0:
            return
        fact = asked.first.inner_text()
        at = page.url
        hand.press(page.get_by_role("button", name=fact, exact=True))
        answer(hand, fact)
        for words, more in (beyond or {}).items():
            if words in fact:
                more(hand)
        if page.url.split("?")[0] != at.split("?")[0]:
            page.go_back()
        if isinstance(hand, Thumb):
            hand.tab("Verdicts")
        expect(page.get_by_role("button", name=fact, exact=True)).to_have_count(0)
    raise AssertionError("there is always something more to say")


def say(hand: Hand, words: str) -> None:
    page = hand.page
    hand.write(page.get_by_label("Say it: set up or change the piece in words"), words)
    hand.press(page.get_by_role("button", name="Do it (Enter)"))
    expect(page.get_by_label("What was understood")).to_have_count(0)
    if isinstance(hand, Thumb):
        hand.tab("Verdicts")
    expect(page.get_by_role("button", name="the recipe (add stems)")).to_have_count(0)


def mend(hand: Hand) -> None:
    """Takes the first mend of what fails, until nothing that can be mended fails."""
    page = hand.page
    for _ in range(6):
        if isinstance(hand, Thumb):
            hand.tab("Verdicts")
        failing = page.locator("li[data-state=fails]")
        if failing.count() == 0:
            return
        rung = failing.first
        if rung.get_by_role("button").first.get_attribute("aria-expanded") != "true":
            hand.press(rung.get_by_role("button").first)
        mends = rung.locator("ul button")
        expect(mends.or_(rung.get_by_text("Nothing tried here")).first).to_be_visible()
        if mends.count() == 0:
            return
        words = mends.first.inner_text()
        hand.press(mends.first)
        page.wait_for_function(
            "words => ![...document.querySelectorAll('li[data-state=fails] ul button')]"
            ".some(each => each.innerText === words)",
            arg=words,
        )


def every_verdict_is_given(hand: Hand, verbs: int) -> None:
    rungs = hand.page.locator("[data-verb]")
    expect(rungs).to_have_count(verbs)
    expect(hand.page.locator('[data-verb][data-state="cannot say"]')).to_have_count(0)


def humid(hand: Hand) -> None:
    """The other half of what the air is, beside the field that has been filled."""
    focused = hand.page.locator("main input:focus")
    label = focused.evaluate("element => element.labels[0].textContent")
    hand.write(hand.page.get_by_label(label.replace("temperature", "humidity"), exact=True), "50")


def stated(hand: Hand) -> None:
    """Who says what a point carries: the row of the field that has been filled."""
    row = hand.page.locator("[data-point]", has=hand.page.locator(":focus"))
    hand.write(row.get_by_label("Stated by"), "the owner of the hall")


AIR = {"temperature and humidity": humid}


@pytest.mark.parametrize(
    "hand",
    [pytest.param(Keyboard, marks=pytest.mark.long, id="keyboard"), pytest.param(Thumb, id="thumb")],
    indirect=True,
)
def test_a_bowl(hand: Hand) -> None:
    page = hand.page
    hand.press(page.get_by_role("button", name="Add the piece"))
    say(hand, "bowl 20 across 10 deep, 28 high 36 wide, 8 ruscus, 12 rose, 5 scabious")
    answer_everything(hand, AIR)
    mend(hand)
    every_verdict_is_given(hand, 8)
    hand.tab("Cut tray")
    expect(page.get_by_role("heading", name="Stems by cut length")).to_be_visible()


@pytest.mark.long
def test_a_posy(hand: Hand) -> None:
    page = hand.page
    hand.choose(page.get_by_label("New piece"), "A posy, spiralled in the hand")
    hand.press(page.get_by_role("button", name="Add the piece"))
    say(hand, "5 ruscus, 12 rose, 6 scabious")
    answer_everything(hand, AIR)
    mend(hand)
    every_verdict_is_given(hand, 8)


@pytest.mark.long
def test_a_ledge(hand: Hand) -> None:
    page = hand.page
    hand.press(page.get_by_role("button", name="Add the piece"))
    say(hand, "trough 40 across 10 deep, 30 high 70 wide, 12 ruscus, 9 rose")
    hand.tab("Place and road")
    hand.choose(page.get_by_label("Stands on"), "a ledge")
    answer_everything(hand, AIR)
    every_verdict_is_given(hand, 8)


@pytest.mark.parametrize(
    "hand",
    [pytest.param(Keyboard, id="keyboard"), pytest.param(Thumb, marks=pytest.mark.long, id="thumb")],
    indirect=True,
)
def test_a_ring(hand: Hand) -> None:
    page = hand.page
    hand.choose(page.get_by_label("New hung or mounted piece"), "A ring or round panel")
    hand.press(page.get_by_role("button", name="Hang it"))
    hand.tab("Flowers")
    hand.write(page.get_by_label("Add a variety"), "30 gypsophila")
    answer_everything(hand, {"who states it": stated})
    if isinstance(hand, Thumb):
        hand.tab("Verdicts")
    expect(page.locator("[data-hang]")).not_to_have_attribute("data-hang", "cannot say")
