"""Every place on a desk, a tablet and a phone, by day and in the evening: its boxes as the browser lays them out."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import PATIENCE_MS, serving
from tests.browser.measured import clipped, overlaps, small_targets, wider
from tools.running import Served

pytestmark = pytest.mark.browser

SHAPES = "svg.drawing > g:first-child"  # thousands of petals, none of them read or pressed
ALIKE = "main ul > li:nth-child(n + 12)"  # rows of hundreds that are as those before them
RULES = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"]
SCREENS = ((1280, 800), (768, 1024), (360, 740))
PLACES = (
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


@pytest.fixture(scope="module")
def there(laid_out: dict[bool, Path], tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """The demo, served once: nothing here changes it."""
    yield from serving(laid_out[True], tmp_path_factory.mktemp("screens"))


@pytest.fixture(scope="module", params=SCREENS, ids=lambda size: f"{size[0]}px")
def screen(request: pytest.FixtureRequest, browser: Browser) -> Iterator[Page]:
    width, height = request.param
    context = browser.new_context(viewport={"width": width, "height": height}, locale="en-GB")
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    yield page
    context.close()


PHONES = ("/events/1/pieces/1?tab=verdicts", "/events/1/rigs/10?tab=verdicts")


@pytest.mark.parametrize("place", (*PLACES, *PHONES))
def test_nothing_overlaps_is_cut_off_too_small_or_unreadable(screen: Page, there: Served, place: str) -> None:
    """By day for all rules of WCAG and best practice; in the evening, where only colours are others, for contrast."""
    if place in PHONES and screen.evaluate("innerWidth") > 700:
        pytest.skip("the sheet from the bottom is a phone's")
    screen.goto(there.url + place)
    expect(screen).not_to_have_title("Jolly Trellis")
    screen.wait_for_load_state("networkidle")
    assert overlaps(screen) == []
    assert wider(screen) <= 0
    assert small_targets(screen) == []
    assert clipped(screen) == []
    for theme, only in (
        ("evening", {"type": "rule", "values": ["color-contrast"]}),
        ("day", {"type": "tag", "values": RULES}),
    ):
        screen.evaluate("theme => { document.documentElement.dataset.theme = theme; }", theme)
        found = Axe().run(screen, context={"exclude": [[SHAPES], [ALIKE]]}, options={"runOnly": only})
        assert [(each["id"], each["nodes"][0]["html"][:200]) for each in found.response["violations"]] == []
