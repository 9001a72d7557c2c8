"""What can be measured of a page as it lies: words over words, words cut off, its width, the size of what is pressed.

Boxes are those the browser lays out, in CSS pixels, cut to what their scrolling parts show (`measured.js`).
"""

from pathlib import Path

from playwright.sync_api import Page

_SCRIPT = Path(__file__).with_name("measured.js").read_text(encoding="utf-8").split("*/", 1)[1].strip()
SPARE_PX = 2.0
FINGER_PX, RUNNING_PX = 44.0, 24.0


def overlaps(page: Page) -> list[tuple[str, str]]:
    """Pairs of words, or words and fields, that lie over one another by more than the spare in both directions.

    What lies on a sheet over the page is compared with that sheet alone.
    """
    return [(str(one), str(other)) for one, other in page.evaluate(f"{_SCRIPT}.overlaps({SPARE_PX})")]


def overlaps_all_round(page: Page) -> list[tuple[int, str, str]]:
    """The same at every 30° that a piece is turned to: degrees, and the pair."""
    found = page.evaluate(f"{_SCRIPT}.round({SPARE_PX})")
    return [(int(turn), str(one), str(other)) for turn, one, other in found]


def wider(page: Page) -> float:
    """By how much the page is wider than its window, CSS px."""
    return float(page.evaluate(f"{_SCRIPT}.wider()"))


def clipped(page: Page) -> list[str]:
    """What is written and cut off at its side."""
    return [str(each) for each in page.evaluate(f"{_SCRIPT}.clipped()")]


def small_targets(page: Page) -> list[tuple[str, float, float]]:
    """What is pressed and smaller than a finger, 24 px where text runs: name, width and height in CSS px."""
    found = []
    for each in page.evaluate(f"{_SCRIPT}.targets()"):
        least = RUNNING_PX if each["running"] else FINGER_PX
        if min(each["width"], each["height"]) < least - 0.5:
            found.append((str(each["name"]), round(each["width"]), round(each["height"])))
    return found
