"""What people do to a program: long names, other scripts, garbage, small windows, their own colours, empty papers."""

from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import PATIENCE_MS
from tests.browser.measured import clipped, overlaps, wider
from tools.running import Served

pytestmark = pytest.mark.browser

LONG = "The very long supper of the rope makers and all who came before them " * 3
NAMES = (
    LONG[:120],
    "عشاء إعادة افتتاح متحف الحبال على الرصيف القديم",
    "ロープ博物館の再開を祝う夕食会、長いテーブルの低い鉢",
    "Ужин в канатном музее — низкая ваза",
    "🌾🌿 Kötél–múzeum \u202edesrever",
)
GARBAGE = (
    "'; DROP TABLE events; --",
    "<script>window.broken = 1</script>",
    "=HYPERLINK(1)",
    "1e999",
    "twelvety",
    "NaN",
    "½½½",
    "\u202e12 cm",
    "٣٤ cm",
    "💐" * 40,
)


@pytest.mark.parametrize("name", [NAMES[0], *(pytest.param(each, marks=pytest.mark.long) for each in NAMES[1:])])
def test_a_name_of_any_length_and_script_breaks_no_line_of_the_screen(page: Page, empty: Served, name: str) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill(name)
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Add the piece").click()
    piece = page.get_by_label("Name of the piece")
    piece.fill(name[:60])
    piece.press("Enter")
    expect(page.get_by_text("Saved")).to_be_visible()
    for width, height in ((1280, 800), (360, 740)):
        page.set_viewport_size({"width": width, "height": height})
        for place in ("/?all", "/events/1", "/events/1/pieces/1", "/events/1/lists", "/events/1/cost"):
            page.goto(empty.url + place)
            page.wait_for_load_state("networkidle")
            assert wider(page) <= 0, (width, place)
            assert overlaps(page) == [], (width, place)
    page.goto(empty.url + "/?all")
    expect(page.get_by_role("link", name=name.strip())).to_be_visible()


def test_a_name_of_two_hundred_letters_is_answered_beside_its_field(page: Page, empty: Served) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill(LONG[:200])
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("120")
    expect(page.get_by_label("Name of the event")).to_have_value(LONG[:200])


def test_ten_pastes_of_garbage_change_nothing_and_each_is_answered(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/pieces/1?tab=vessel")
    field = page.get_by_label("Weight, empty")
    expect(field).to_be_visible()
    before = field.input_value()
    for words in GARBAGE:
        field.fill(words)
        field.press("Enter")
        expect(page.get_by_role("alert").last).to_be_visible()
        assert words[:4] in field.input_value()
        field.press("Escape")
        expect(field).to_have_value(before)
    say = page.get_by_label("Say it: set up or change the piece in words")
    for words in GARBAGE:
        say.fill(words)
        say.press("Enter")
        expect(page.get_by_label("What was understood")).to_be_visible()
        say.press("Escape")
    page.reload()
    expect(page.get_by_label("Weight, empty")).to_have_value(before)
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()
    assert page.evaluate("window.broken") is None


@pytest.mark.parametrize(
    ("width", "height"),
    [
        pytest.param(320, 640, id="320px"),
        pytest.param(640, 400, id="zoom of 200 %", marks=pytest.mark.long),
    ],
)
def test_small_windows_and_large_zoom_lose_nothing_sideways(
    browser: Browser, there: Served, width: int, height: int
) -> None:
    page = browser.new_page(viewport={"width": width, "height": height})
    page.set_default_timeout(PATIENCE_MS)
    for place in (
        "/?all",
        "/events/1",
        "/events/1/pieces/1",
        "/events/1/rigs/10",
        "/events/1/survey",
        "/events/1/day",
        "/stores",
    ):
        page.goto(there.url + place)
        page.wait_for_load_state("networkidle")
        assert wider(page) <= 0, place
        assert overlaps(page) == [], place
    page.close()


def test_in_colours_of_the_system_every_state_still_has_its_shape_and_its_word(
    browser: Browser, served: Served
) -> None:
    context = browser.new_context(viewport={"width": 1280, "height": 800}, forced_colors="active")
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    page.goto(f"{served.url}/events/1/pieces/1")
    for rung in page.locator("[data-verb]").all():
        expect(rung.locator("svg").first).to_be_visible()
        expect(rung).to_contain_text(rung.get_attribute("data-state") or "?")
    ink = page.locator(".drawing .ink-stem").first.evaluate("each => getComputedStyle(each).stroke")
    ground = page.evaluate("getComputedStyle(document.body).backgroundColor")
    assert ink != ground
    context.close()


def test_printed_with_nothing_planned_it_still_says_whose_page_it_is(
    page: Page, empty: Served, tmp_path: Path
) -> None:
    page.goto(empty.url)
    page.get_by_label("Name of the event").fill("Slipway lunch")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Add the piece").click()
    expect(page.locator("[data-verb]").first).to_be_visible()
    for place in ("/pieces/1", "", "/roll", "/lists", "/cost", "/day", "/survey"):
        page.emulate_media(media="screen")
        if place == "":
            page.get_by_role("button", name="Undo").click()
        page.goto(f"{empty.url}/events/1{place}")
        page.wait_for_load_state("networkidle")
        page.emulate_media(media="print")
        whose = page.locator("h1, .print-only").filter(has_text="Slipway lunch", visible=True)
        expect(whose, place).to_have_count(1)
        assert clipped(page) == [], place
        assert overlaps(page) == [], place
        (tmp_path / "page.pdf").write_bytes(page.pdf(format="A4"))
