"""The built application, served as a person would have it, in a real browser.

One browser, one window and one server serve all tests of a worker; each test has the data and the page of its own.
"""

import shutil
import threading
import time
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest
import uvicorn
from playwright.sync_api import Browser, BrowserContext, Page, expect

from jolly_trellis.__main__ import bound
from jolly_trellis.api.app import make_app, serve_from
from jolly_trellis.services import long_work
from tools.running import STARTS_WITHIN_S, Served, chromium

PATIENCE_MS = 60_000  # the machine may be busy; nothing here measures speed
expect.set_options(timeout=PATIENCE_MS)


class ServedHere(Served):
    """The application served by a thread of this process, over one folder after the other."""

    def __init__(self, folder: Path) -> None:
        super().__init__(folder, demo=False)
        self.application = make_app(folder, hosts=(f"127.0.0.1:{self.port}",))
        self.thread: threading.Thread | None = None

    def serve(self, folder: Path) -> None:
        """Serve another folder, started where it was stopped."""
        self.folder = folder
        serve_from(self.application, folder)
        if self.thread is None:
            self.start()

    def start(self) -> None:
        listening = bound(self.port)
        config = uvicorn.Config(self.application, log_level="warning", timeout_graceful_shutdown=STARTS_WITHIN_S)
        self.server = uvicorn.Server(config)
        self.thread = threading.Thread(target=self.server.run, kwargs={"sockets": [listening]})
        self.thread.start()
        given_up = time.monotonic() + STARTS_WITHIN_S
        while not self.server.started:
            if time.monotonic() > given_up or not self.thread.is_alive():
                raise RuntimeError("the server did not start")
            time.sleep(0.01)

    def stop(self) -> None:
        if self.thread is not None:
            self.server.should_exit = True
            self.thread.join()
            self.thread = None


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with chromium() as launched:
        yield launched


@pytest.fixture(scope="session")
def window(browser: Browser) -> Iterator[BrowserContext]:
    """A window that keeps the scripts it has read from one test to the next, and nothing else."""
    with closing(browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB")) as opened:
        yield opened


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[ServedHere]:
    here = ServedHere(tmp_path_factory.mktemp("served"))
    yield here
    here.stop()


@pytest.fixture(scope="session")
def demo_read(laid_out: dict[bool, Path], tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo's folder for tests that only look; copied once."""
    folder = tmp_path_factory.mktemp("looked-at")
    shutil.copytree(laid_out[True], folder, dirs_exist_ok=True)
    return folder


@pytest.fixture
def served(server: ServedHere, demo_folder: Path) -> Iterator[Served]:
    """The demo, served."""
    server.serve(demo_folder)
    yield server
    long_work.stop_all(wait_s=0.0)


@pytest.fixture
def there(server: ServedHere, demo_read: Path) -> Iterator[Served]:
    """The demo, served to be looked at: nothing that asks for this changes it."""
    server.serve(demo_read)
    yield server
    long_work.stop_all(wait_s=0.0)


@pytest.fixture
def empty(server: ServedHere, laid_out: dict[bool, Path], tmp_path: Path) -> Iterator[Served]:
    """A studio with nothing in it yet, served."""
    shutil.copytree(laid_out[False], tmp_path, dirs_exist_ok=True)
    server.serve(tmp_path)
    yield server
    long_work.stop_all(wait_s=0.0)


@pytest.fixture
def page(window: BrowserContext, server: ServedHere) -> Iterator[Page]:
    """A fresh page of the main working size that fails the test on any script error."""
    opened = window.new_page()
    errors: list[str] = []
    opened.on("pageerror", lambda error: errors.append(str(error)))
    opened.set_default_timeout(PATIENCE_MS)
    yield opened
    opened.goto("about:blank")
    for each in window.pages:
        each.close()
    forgetful = window.new_page()
    window.new_cdp_session(forgetful).send(
        "Storage.clearDataForOrigin", {"origin": server.url, "storageTypes": "local_storage,cookies"}
    )
    forgetful.close()
    assert errors == []
