"""The built application, served as a person would have it, in a real browser."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tools.running import Served, chromium
from tools.running import served as serving

PATIENCE_MS = 20_000  # the machine may be busy; nothing here measures speed
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with chromium() as launched:
        yield launched


@pytest.fixture
def served(tmp_path: Path) -> Iterator[Served]:
    """The demo, served."""
    with serving(tmp_path, demo=True) as server:
        yield server


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[Served]:
    """A studio with nothing in it yet, served."""
    with serving(tmp_path, demo=False) as server:
        yield server


@pytest.fixture
def page(browser: Browser) -> Iterator[Page]:
    """A fresh page of the main working size that fails the test on any script error."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB")
    opened = context.new_page()
    errors: list[str] = []
    opened.on("pageerror", lambda error: errors.append(str(error)))
    opened.set_default_timeout(PATIENCE_MS)
    yield opened
    context.close()
    assert errors == []
