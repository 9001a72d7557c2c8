"""Every screen on a desk, a tablet and a phone, by day and in the evening: its boxes as the browser lays them out."""

from collections.abc import Iterator, Mapping

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import PATIENCE_MS
from tests.browser.measured import clipped, overlaps, small_targets, wider
from tools.running import Served

pytestmark = pytest.mark.browser

SHAPES = "svg.drawing > g:first-child"  # thousands of petals, none of them read or pressed
ALIKE = "main ul > li:nth-child(n + 12)"  # rows of hundreds that are as those before them
RULES = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"]
SCREENS = ((1280, 800), (768, 1024), (360, 740))
ADDRESSES = (
    "/?all",
    "/events/1",
    "/events/1/pieces/1",
    "/events/1/pieces/1?view=making",
    "/events/1/pieces/1?view=compare",
    "/events/1/pieces/1?tab=stems",
    "/events/1/pieces/1?tab=vessel",
    "/events/1/pieces/1?tab=mechanic",
    "/events/1/pieces/1?tab=place",
    "/events/1/pieces/1?tab=room",
    "/events/1/pieces/7?tab=beside",
    "/events/1/pieces/9?tab=bouquet",
    "/events/1/rigs/10",
    "/events/1/rigs/10?tab=lines",
    "/events/1/rigs/10?tab=armature",
    "/events/1/rigs/10?tab=flowers",
    "/events/1/survey",
    "/events/1/roll",
    "/events/1/day",
    "/events/1/lists",
    "/events/1/lists?list=stems",
    "/events/1/pieces/1?view=match",
    "/events/1/cost",
    "/stores",
    "/figures",
)


PHONES = ("/events/1/pieces/1?tab=verdicts", "/events/1/rigs/10?tab=verdicts")
MAIN = tuple(each for each in ADDRESSES if "?" not in each or each == "/?all")
READ = ("/events/1", "/events/1/pieces/1", "/events/1/rigs/10")
DAY = {"type": "tag", "values": RULES}
EVENING = {"type": "rule", "values": ["color-contrast"]}


@pytest.fixture(scope="module", params=SCREENS, ids=lambda size: f"{size[0]}px")
def screen(request: pytest.FixtureRequest, browser: Browser) -> Iterator[Page]:
    width, height = request.param
    context = browser.new_context(viewport={"width": width, "height": height}, locale="en-GB")
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    yield page
    context.close()


def opened(page: Page, there: Served, address: str) -> None:
    page.goto(there.url + address)
    expect(page).not_to_have_title("Jolly Trellis")
    page.wait_for_load_state("networkidle")


def wrong_as_it_lies(page: Page) -> dict[str, object]:
    """What overlaps, is cut off, too small or too wide; nothing where all is well."""
    found: dict[str, object] = {
        "overlaps": overlaps(page),
        "wider": max(wider(page), 0),
        "small": small_targets(page),
        "clipped": clipped(page),
    }
    return {what: each for what, each in found.items() if each}


def unreadable(page: Page, theme: str, only: Mapping[str, object]) -> list[tuple[str, str]]:
    """What breaks the rules of WCAG and best practice, or those asked for."""
    page.evaluate("theme => { document.documentElement.dataset.theme = theme; }", theme)
    found = Axe().run(page, context={"exclude": [[SHAPES], [ALIKE]]}, options={"runOnly": dict(only)})
    return [(each["id"], each["nodes"][0]["html"][:200]) for each in found.response["violations"]]


@pytest.mark.parametrize("screen", [SCREENS[0], SCREENS[-1]], indirect=True, ids=["desk", "phone"])
def test_main_screens_lie_well_and_are_readable(screen: Page, there: Served) -> None:
    """The main screens on a desk, some by all rules, and on a phone; the rest is in the long part."""
    told: list[tuple[str, object]] = []
    for address in MAIN:
        opened(screen, there, address)
        told += [(address, wrong)] if (wrong := wrong_as_it_lies(screen)) else []
        read = address in READ and screen.evaluate("innerWidth") > 1000
        if read and (found := unreadable(screen, "day", DAY)):
            told.append((address, found))
    assert told == []


@pytest.mark.long
@pytest.mark.parametrize("address", (*ADDRESSES, *PHONES))
def test_nothing_overlaps_is_cut_off_too_small_or_unreadable(screen: Page, there: Served, address: str) -> None:
    """By day for all rules of WCAG and best practice; in the evening, where only colours are others, for contrast."""
    if address in PHONES and screen.evaluate("innerWidth") > 700:
        pytest.skip("the sheet from the bottom is a phone's")
    opened(screen, there, address)
    assert wrong_as_it_lies(screen) == {}
    assert unreadable(screen, "evening", EVENING) == []
    assert unreadable(screen, "day", DAY) == []
