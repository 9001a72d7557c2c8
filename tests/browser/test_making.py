"""Making as a florist watches it: a piece that falls, reordered, mended by one act; ledges; a bouquet from nothing."""

import re

import httpx2
import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.test_bench import add_stems, field, rung
from tests.browser.test_from_nothing import typed
from tests.wire import pieces, put
from tools.running import Served

pytestmark = pytest.mark.browser
LEDGE, BOUQUET = 7, 8


def making(page: Page, served: Served, piece: int) -> None:
    page.goto(f"{served.url}/events/1/pieces/{piece}")
    expect(rung(page, "stand")).to_be_visible()
    page.get_by_role("tab", name="Making").click()
    expect(page.get_by_role("slider", name="Step of the making order")).to_be_visible()


def test_the_ledge_is_watched_to_fall_and_one_act_keeps_it_up(page: Page, served: Served) -> None:
    """The demo's ledge with branches a hand's breadth longer."""
    event = httpx2.get(f"{served.url}/api/events/1", timeout=60.0).json()
    ledge = next(each["part"] for each in pieces(event) if each["id"] == LEDGE)
    ledge["envelope"]["depth_m"] = 1.1
    body = put(ledge, base=event["revision"], label="Longer branches")
    httpx2.put(f"{served.url}/api/events/1/parts/{LEDGE}", json=body, timeout=60.0).raise_for_status()
    making(page, served, LEDGE)
    status = page.locator("[data-making]")
    expect(status).to_have_attribute("data-making", "fails")
    expect(status).to_contain_text(re.compile(r"at quince branch \d+ of \d+, it falls"))
    expect(page.locator("[data-fallen=true]")).to_be_visible()
    slider = page.get_by_role("slider", name="Step of the making order")
    slider.fill("3")
    expect(page.locator("[data-fallen=false]")).to_be_visible()
    slider.press("ArrowRight")
    expect(page.locator("[aria-current=step]")).to_contain_text("4")
    page.get_by_role("button", name=re.compile("Put the water in first")).first.click()
    expect(status).to_have_attribute("data-making", re.compile("holds|tight"))
    page.get_by_role("button", name="Undo").click()
    expect(status).to_have_attribute("data-making", "fails")


def test_it_is_played_from_the_first_stem(page: Page, served: Served) -> None:
    making(page, served, BOUQUET)
    page.get_by_role("button", name="Watch it being made").click()
    expect(page.get_by_text(re.compile(r"^([1-9]|[123]\d|40) of 41$"))).to_be_visible()
    page.get_by_role("button", name="Stop here").click()
    expect(page.get_by_role("button", name="Watch it being made")).to_be_visible()


def sides(page: Page) -> list[str]:
    """Where the first two stems go, as their rows say it."""
    rows = [page.locator(f"[data-step='{step}'] .text-soft").nth(1) for step in (1, 2)]
    return [row.inner_text().partition(" ·")[0] for row in rows]


def test_a_stem_is_moved_by_hand_and_the_usual_order_comes_back(page: Page, served: Served) -> None:
    making(page, served, 1)
    usual = page.get_by_role("button", name="Take the usual order again")
    expect(usual).to_have_count(0)
    before = sides(page)
    assert before[0] != before[1]
    page.locator("[data-step='1']").get_by_role("button", name=re.compile("later")).click()
    expect(page.locator("[data-step='1'] .text-soft").nth(1)).to_contain_text(before[1] + " ·")
    expect(usual).to_be_visible()
    page.locator("[data-step='1']").get_by_role("button").first.focus()
    page.keyboard.press("Alt+ArrowDown")
    expect(page.locator("[data-step='1'] .text-soft").nth(1)).to_contain_text(before[0] + " ·")
    usual.click()
    expect(usual).to_have_count(0)
    assert sides(page) == before


def test_a_gate_keeps_its_tick(page: Page, served: Served) -> None:
    making(page, served, 1)
    gate = page.locator("[data-gate=tucked]").get_by_role("checkbox")
    gate.check()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    making(page, served, 1)
    expect(page.locator("[data-gate=tucked]").get_by_role("checkbox")).to_be_checked()


def test_pull_list_and_balance_are_beside_the_order(page: Page, served: Served) -> None:
    making(page, served, LEDGE)
    page.get_by_role("tab", name="Pull list").click()
    expect(page.get_by_text(re.compile(r"\d+ stems for one piece"))).to_be_visible()
    expect(page.get_by_text("for the spill").first).to_be_visible()
    page.get_by_role("tab", name="Balance", exact=True).click()
    expect(page.get_by_text("Openness: air in the size wanted")).to_be_visible()


@pytest.mark.parametrize("piece", [LEDGE, pytest.param(BOUQUET, marks=pytest.mark.long)])
def test_the_making_view_is_accessible_and_fits(page: Page, served: Served, piece: int) -> None:
    making(page, served, piece)
    found = Axe().run(page, options={"runOnly": ["wcag2a", "wcag2aa"]})
    assert found.violations_count == 0, found.generate_report()
    size = page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]")
    assert size == [1280, 800]


def test_a_piece_is_seen_from_its_side_and_its_depth_dragged_there(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/pieces/1")
    expect(rung(page, "stand")).to_be_visible()
    typed(page, "Turned to the right by", "90")
    expect(page.get_by_label("Cut open, from the right, to scale")).to_be_visible()
    depth = page.locator("[data-handle=envelope-depth]").first
    depth.focus()
    before = float(depth.get_attribute("aria-valuenow") or 0)
    page.keyboard.press("ArrowUp")
    expect(depth).not_to_have_attribute("aria-valuenow", str(before))
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_a_bowl_is_put_on_a_ledge_with_a_spill_and_wrong_measures_are_answered(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/pieces/1")
    page.get_by_role("tab", name="Beside it").click()
    expect(page.get_by_role("button", name="Hang a spill over the edge")).to_be_disabled()
    page.get_by_role("tab", name="Place and road").click()
    page.get_by_label("Stands on").select_option("a ledge")
    expect(rung(page, "stand")).to_have_attribute("data-state", "fails")
    field(page, "Ledge, front to back").fill("4 in")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Take a ledge at least").first).to_be_visible()
    typed(page, "Ledge, front to back", "14 in")
    page.get_by_role("tab", name="Beside it").click()
    page.get_by_role("button", name="Hang a spill over the edge").click()
    expect(rung(page, "hang")).to_have_attribute("data-state", "cannot say")
    typed(page, "Hook is rated", "60 N")
    typed(page, "Stated by", "the warden")
    expect(rung(page, "hang")).to_have_attribute("data-state", "holds")
    page.get_by_role("button", name="Add a counterweight").click()
    expect(field(page, "Counterweight")).to_have_value("500 g")
    page.get_by_label("Several vessels as one composition").select_option("low bowl, 15 cm")
    expect(field(page, "Other vessel")).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_a_bouquet_from_nothing_to_its_carry_card(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Slipway wedding")
    page.get_by_role("button", name="Start the event").click()
    page.get_by_label("New piece").select_option("A bouquet on a star lattice")
    page.get_by_label("with its usual stems, for its size").first.uncheck()
    page.get_by_role("button", name="Add the piece").click()
    expect(rung(page, "hold")).to_have_attribute("data-state", "cannot say")
    page.get_by_role("tab", name="Making").click()
    expect(page.get_by_text("The recipe is empty: add stems")).to_be_visible()
    page.get_by_role("tab", name="Drawing").click()

    page.get_by_role("tab", name=re.compile("Stems")).click()
    for words in ("5 ruscus", "5 ranunculus", "5 spray rose"):
        add_stems(page, words)
    expect(rung(page, "lift")).to_have_attribute("data-state", re.compile("holds|tight"))
    page.get_by_role("tab", name="Bouquet").click()
    typed(page, "Carried out of water", "1 h 30 min")
    typed(page, "Loops of the bow", "4")
    page.get_by_label("Underside").select_option("a collar of leaves")
    page.get_by_role("tab", name="Room and water").click()
    typed(page, "Room temperature", "20 °C")
    typed(page, "Room humidity", "60")
    expect(rung(page, "drink")).not_to_have_attribute("data-state", "cannot say")
    page.get_by_role("tab", name="Making").click()
    expect(page.get_by_text("In the hand it turns the wrist")).to_be_visible()
    card = page.get_by_role("link", name="A4").get_attribute("href")
    assert card
    answer = page.request.get(empty.url + card)
    assert answer.ok
    assert answer.body().startswith(b"%PDF")
