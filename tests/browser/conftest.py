"""The built application, served as a person would have it, in a real browser.

One browser and one process serve all tests of a worker; each test has the data, the port and the page of its own.
"""

import shutil
import socket
import threading
import time
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest
import uvicorn
from playwright.sync_api import Browser, Page, expect

from jolly_trellis.api.app import make_app
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services.opening import open_studio
from tools.running import STARTS_WITHIN_S, Served, chromium

PATIENCE_MS = 60_000  # the machine may be busy; nothing here measures speed
expect.set_options(timeout=PATIENCE_MS)


class ServedHere(Served):
    """The application served by a thread of this process, over a folder that is prepared already."""

    def start(self) -> None:
        listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listening.bind(("127.0.0.1", self.port))
        application = make_app(self.folder, hosts=(f"127.0.0.1:{self.port}",))
        config = uvicorn.Config(application, log_level="warning", timeout_graceful_shutdown=STARTS_WITHIN_S)
        self.server = uvicorn.Server(config)
        self.thread = threading.Thread(target=self.server.run, kwargs={"sockets": [listening]})
        self.thread.start()
        given_up = time.monotonic() + STARTS_WITHIN_S
        while not self.server.started:
            if time.monotonic() > given_up or not self.thread.is_alive():
                raise RuntimeError("the server did not start")
            time.sleep(0.01)

    def stop(self) -> None:
        self.server.should_exit = True
        self.thread.join()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with chromium() as launched:
        yield launched


@pytest.fixture(scope="session")
def laid_out(tmp_path_factory: pytest.TempPathFactory) -> dict[bool, Path]:
    """A studio's folder as it is at first, with the demo and without."""
    folders = {demo: tmp_path_factory.mktemp("demo" if demo else "empty") for demo in (True, False)}
    for demo, folder in folders.items():
        with closing(open_studio(folder)) as conn:
            if demo:
                load_demo(conn)
    return folders


def serving(first: Path, folder: Path) -> Iterator[Served]:
    shutil.copytree(first, folder, dirs_exist_ok=True)
    server = ServedHere(folder, demo=False)
    server.start()
    yield server
    server.stop()


@pytest.fixture
def served(laid_out: dict[bool, Path], tmp_path: Path) -> Iterator[Served]:
    """The demo, served."""
    yield from serving(laid_out[True], tmp_path)


@pytest.fixture
def empty(laid_out: dict[bool, Path], tmp_path: Path) -> Iterator[Served]:
    """A studio with nothing in it yet, served."""
    yield from serving(laid_out[False], tmp_path)


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
