"""./trellis shots: retake docs/screenshots from the demo, one picture of each main view."""

import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page

from tools.running import ROOT, chromium, served

FOLDER = ROOT / "docs" / "screenshots"


def _nothing(page: Page) -> None:
    del page


def _tab(name: str) -> Callable[[Page], None]:
    def show(page: Page) -> None:
        page.get_by_role("tab", name=name).click()

    return show


def _walk(page: Page) -> None:
    looks = page.get_by_role("combobox", name="Look at it")
    looks.first.select_option("seated")
    looks.nth(1).select_option("close")
    page.get_by_label("Turned to the right by").fill("315")
    page.keyboard.press("Enter")


def _compare(page: Page) -> None:
    page.get_by_role("tab", name="Side by side").click()
    page.locator("[data-kind]").first.wait_for()


def _making(page: Page) -> None:
    page.get_by_role("tab", name="Making").click()
    page.get_by_role("button", name="Put the water in first").first.wait_for(timeout=60_000)


def _snip(page: Page) -> None:
    page.get_by_title("Snip truss left's line to place 1").click()
    page.get_by_role("region", name="After the snip").wait_for()


def _cleared(page: Page) -> None:
    page.get_by_role("button", name="beam 2", exact=True).click()


def _say(page: Page) -> None:
    said = page.get_by_role("textbox", name="Say it: set up or change the piece in words")
    said.fill("urn 24 across 30 deep, 60 high 70 wide lopsided, 9 quince, 30 tulip, 12 fern, 5 ranunculas")
    said.press("Enter")
    page.get_by_role("button", name="Do it").wait_for()


def _cuts(page: Page) -> None:
    page.get_by_role("button", name="Plan the cuts").click()
    page.get_by_text("Planned for the event as it stands.").wait_for(timeout=60_000)


def _day(page: Page) -> None:
    page.get_by_text("tasks, 5 pairs of hands").wait_for(timeout=60_000)
    page.get_by_role("button", name="Show it").first.click()


def _lists(page: Page) -> None:
    page.get_by_text("with a known price").wait_for(timeout=60_000)


VIEWS: dict[str, tuple[str, str, Callable[[Page], None]]] = {
    "line-up": ("/events/1", "day", _nothing),
    "bench": ("/events/1/pieces/1", "day", _nothing),
    "walk-round": ("/events/1/pieces/3", "evening", _walk),
    "bench-ledge": ("/events/1/pieces/7", "day", _tab("Beside it")),
    "making": ("/events/1/pieces/7", "day", _making),
    "bouquet": ("/events/1/pieces/8", "day", _tab("Bouquet")),
    "rig": ("/events/1/rigs/10", "day", _cleared),
    "rig-snip": ("/events/1/rigs/12", "day", _snip),
    "rig-frame": ("/events/1/rigs/13", "day", _tab("Mounted on")),
    "cut-sheet": ("/events/1/pieces/1", "day", _tab("Cut sheet")),
    "side-by-side": ("/events/1/pieces/1", "day", _compare),
    "say-it": ("/events/1/pieces/1", "day", _say),
    "roll": ("/events/1/roll", "day", _cuts),
    "lists": ("/events/1/lists", "day", _lists),
    "cost": ("/events/1/cost", "day", _nothing),
    "day": ("/events/1/day", "day", _day),
    "stores-vessels": ("/stores", "day", _nothing),
    "stores-varieties": ("/stores", "evening", _tab("Varieties")),
    "figures": ("/figures", "day", _nothing),
}


def main() -> None:
    """Serve a fresh demo and take each view at 1280 × 800."""
    with tempfile.TemporaryDirectory() as data, served(Path(data), demo=True) as server, chromium() as browser:
        for name, (path, theme, act) in VIEWS.items():
            context = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB")
            page = context.new_page()
            page.add_init_script(f"localStorage.setItem('theme', '{theme}')")
            page.goto(server.url + path)
            page.wait_for_load_state("networkidle")
            act(page)
            page.wait_for_timeout(700)
            page.screenshot(path=FOLDER / f"{name}.png")
            print(f"· docs/screenshots/{name}.png")
            context.close()


if __name__ == "__main__":
    main()
