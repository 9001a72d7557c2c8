"""The book of figures on the screen: find one, set one's own with its reason, take it into an event, go back."""

import re

import pytest
from playwright.sync_api import Page, expect

from tools.running import Served

pytestmark = pytest.mark.browser
LABEL = "Tip angle a low piece needs"


def set_own(page: Page, label: str, text: str, reason: str) -> None:
    page.get_by_label("Find a figure").fill(label)
    page.get_by_role("button", name=f"Set our own: {label}").click()
    page.get_by_label("Our figure").fill(text)
    page.get_by_label("How we know it").fill(reason)
    page.get_by_role("button", name="Use it").click()


def test_a_figure_of_ones_own_is_set_taken_by_an_event_and_taken_back(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/figures")
    set_own(page, LABEL, "12 N", "")
    expect(page.get_by_role("alert")).to_have_text("Type it as it is shown, such as 12°.")
    page.get_by_label("Our figure").fill("89°")
    page.get_by_role("button", name="Use it").click()
    expect(page.get_by_role("alert")).to_have_text("89° cannot be taken here. Give 2.4° to 60°, in the unit shown.")
    page.get_by_label("Our figure").fill("45°")
    page.get_by_role("button", name="Use it").click()
    expect(page.get_by_role("alert")).to_contain_text("A figure of your own needs its reason.")
    page.get_by_label("How we know it").fill("a drunken wedding")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Ours: a drunken wedding. The program's is 12°.")).to_be_visible()
    page.reload()
    page.get_by_label("only our own").check()
    expect(page.get_by_role("main").get_by_role("listitem")).to_have_count(1)
    expect(page.get_by_text("45°")).to_be_visible()

    page.goto(f"{served.url}/events/1")
    newer = page.get_by_label("Newer figures")
    newer.get_by_role("button", name="See what they change").click()
    expect(newer.get_by_text(f"{LABEL}: 12° → 45°")).to_be_visible()
    expect(newer.get_by_text("Stand").first).to_be_visible()
    newer.get_by_role("button", name="Take the newer figures").click()
    expect(newer).to_have_count(0)
    expect(page.get_by_role("button", name="Undo")).to_have_attribute("title", "Undo: Take the newer figures")
    page.get_by_role("button", name="Undo").click()
    expect(newer).to_be_visible()

    page.goto(f"{served.url}/figures")
    page.get_by_label("only our own").check()
    page.get_by_role("button", name=f"Back to the program's: {LABEL}").click()
    expect(page.get_by_text("No figure of your own yet.")).to_be_visible()
    page.goto(f"{served.url}/events/1")
    expect(page.get_by_role("heading", name="To settle next")).to_be_visible()
    expect(newer).to_have_count(0)


def test_in_inches_a_figure_is_typed_as_it_is_shown(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/figures")
    page.get_by_role("button", name=re.compile("Units")).click()
    set_own(page, "A rose covers", "9 in²", "counted on a board")
    expect(page.get_by_text("Ours: counted on a board. The program's is 6.2 in².")).to_be_visible()
    set_own(page, "Price of a metre of tape", "0.2 a yard", "the last invoice")
    expect(page.get_by_text("Ours: the last invoice. The program's is 0.11 a yard.")).to_be_visible()


def test_a_bare_number_is_in_the_unit_it_is_typed_over(page: Page, served: Served) -> None:
    """9 over 8 mm are nine millimetres, and 40 over 30 min forty minutes."""
    page.goto(f"{served.url}/figures")
    set_own(page, "Width of a putty ring", "9", "rolled it")
    expect(page.get_by_text("9 mm", exact=True)).to_be_visible()
    set_own(page, "A top-up comes before the first dry stem by", "40", "asked the crew")
    expect(page.get_by_text("40 min", exact=True)).to_be_visible()


@pytest.mark.parametrize("width", [360, 1280])
def test_the_figures_fit_a_telephone(page: Page, served: Served, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 700})
    page.goto(f"{served.url}/figures")
    page.get_by_label("Find a figure").fill("friction")
    expect(page.get_by_text("Friction of a stem end on glass")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= width
