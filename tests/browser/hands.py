"""The two hands a plan is made with: a keyboard that is never helped by a pointer, and a thumb on a phone."""

from typing import Protocol

from playwright.sync_api import Browser, Locator, Page, expect

from tests.browser.conftest import PATIENCE_MS

FARTHEST_TABS = 260
_FOCUSED = "element => element === document.activeElement"


class Hand(Protocol):
    """Presses, writes and chooses on a page; a test plans a piece with it and never asks how."""

    page: Page

    def press(self, what: Locator) -> None: ...

    def write(self, field: Locator, words: str) -> None: ...

    def choose(self, field: Locator, option: str) -> None: ...

    def set_time(self, field: Locator, at: str) -> None:
        """Sets a local time of the morning, `2027-06-05T10:00`."""
        ...

    def tab(self, name: str) -> None:
        """Opens a tab under the drawing."""
        ...


class Keyboard:
    """Tab and Shift Tab to what is meant, Enter, arrows, letters; the pointer never moves."""

    def __init__(self, browser: Browser) -> None:
        self.page = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB").new_page()
        self.page.set_default_timeout(PATIENCE_MS)

    def reach(self, what: Locator) -> None:
        expect(what).to_be_visible()
        for _ in range(FARTHEST_TABS):
            if what.evaluate(_FOCUSED):
                return
            self.page.keyboard.press("Tab")
        raise AssertionError(f"{what} is not reached by {FARTHEST_TABS} tabs")

    def press(self, what: Locator) -> None:
        self.reach(what)
        self.page.keyboard.press("Space" if what.get_attribute("type") == "checkbox" else "Enter")

    def write(self, field: Locator, words: str) -> None:
        self.reach(field)
        self.page.keyboard.press("ControlOrMeta+a")
        self.page.keyboard.type(words)
        self.page.keyboard.press("Enter")

    def choose(self, field: Locator, option: str) -> None:
        self.reach(field)
        options = field.locator("option").all_inner_texts()
        at = field.evaluate("select => select.selectedIndex")
        to = options.index(option)
        for _ in range(abs(to - at)):
            self.page.keyboard.press("ArrowDown" if to > at else "ArrowUp")

    def set_time(self, field: Locator, at: str) -> None:
        self.reach(field)
        year, month, day, hour, minute = at[:4], at[5:7], at[8:10], at[11:13], at[14:]
        self.page.keyboard.type(day + month + year)
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.type(hour + minute)
        if not field.input_value():  # a clock of twelve hours asks which half of the day
            self.page.keyboard.type("A")
        self.page.keyboard.press("Enter")

    def tab(self, name: str) -> None:
        wanted = self.page.get_by_role("tab", name=name)
        self.reach(wanted.locator("xpath=..").locator("[role=tab][data-state=active]"))
        for _ in range(10):
            expect(self.page.locator("[role=tab]:focus")).to_have_attribute("data-state", "active")
            if wanted.evaluate(_FOCUSED):
                return
            self.page.keyboard.press("ArrowRight")
        raise AssertionError(f"no arrow leads to the tab {name}")


class Pointer:
    """A mouse and a keyboard together, every act of theirs counted: one press, one chord or one field left."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.acts = 0

    def press(self, what: Locator) -> None:
        self.acts += 1
        what.click()

    def write(self, field: Locator, words: str) -> None:
        self.acts += 1
        field.fill(words)
        field.press("Enter")

    def choose(self, field: Locator, option: str) -> None:
        self.acts += 1
        field.select_option(option)

    def set_time(self, field: Locator, at: str) -> None:
        self.acts += 1
        field.fill(at)
        field.press("Enter")

    def tab(self, name: str) -> None:
        self.press(self.page.get_by_role("tab", name=name))


class Thumb:
    """Taps on a phone of 360 by 740 and its own keyboard; what is tapped is in sight and large enough."""

    LEAST_PX = 24

    def __init__(self, browser: Browser) -> None:
        context = browser.new_context(
            viewport={"width": 360, "height": 740}, has_touch=True, is_mobile=True, locale="en-GB"
        )
        self.page = context.new_page()
        self.page.set_default_timeout(PATIENCE_MS)

    def press(self, what: Locator) -> None:
        if what.get_attribute("type") == "checkbox":
            what = what.locator("xpath=ancestor::label")  # a thumb takes box and words together
        what.tap(trial=True)  # it comes into sight, and stands still
        box = what.bounding_box()
        assert box is not None
        assert box["width"] >= self.LEAST_PX, f"{what} is too narrow for a thumb"
        assert box["x"] >= 0, f"{what} begins off the side"
        assert box["x"] + box["width"] <= 361, f"{what} ends off the side"
        what.tap()

    def write(self, field: Locator, words: str) -> None:
        self.press(field)
        self.page.keyboard.press("ControlOrMeta+a")
        self.page.keyboard.type(words)
        self.page.keyboard.press("Enter")

    def choose(self, field: Locator, option: str) -> None:
        """The list that comes up is the phone's own."""
        self.press(field)
        field.select_option(option)

    def set_time(self, field: Locator, at: str) -> None:
        """The calendar that comes up is the phone's own."""
        self.press(field)
        field.fill(at)
        field.press("Enter")

    def tab(self, name: str) -> None:
        self.press(self.page.get_by_role("tab", name=name))
