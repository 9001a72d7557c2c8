"""The built application, served as a person would have it, in a real browser."""

import os
import shutil
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

ROOT = Path(__file__).parents[2]
PATIENCE_MS = 20_000  # the machine may be busy; nothing here measures speed
expect.set_options(timeout=PATIENCE_MS)
QUIET = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]


class Served:
    """A server of our own over one data folder, which can be stopped and started again."""

    def __init__(self, folder: Path, *, demo: bool) -> None:
        self.folder, self.demo = folder, demo
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = int(free.getsockname()[1])
        self.process: subprocess.Popen[bytes] | None = None

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        command = [
            sys.executable,
            "-m",
            "jolly_trellis",
            "serve",
            "--data",
            str(self.folder),
            "--port",
            str(self.port),
        ]
        env = os.environ | {"PYTHONPATH": str(ROOT / "src")}
        self.process = subprocess.Popen(
            command + (["--demo"] if self.demo else []), env=env, stdout=subprocess.DEVNULL
        )
        for _ in range(200):
            try:
                with urllib.request.urlopen(f"{self.url}/api/health", timeout=1):
                    return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def stop(self) -> None:
        if self.process:
            self.process.terminate()
            self.process.wait(timeout=10)
            self.process = None


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    """Debian's Chromium, headless, with no network of its own."""
    executable = shutil.which("chromium")
    if executable is None or not (ROOT / "web" / "dist" / "index.html").is_file():
        pytest.fail("run ./trellis test: it builds the screens and finds Debian's chromium")
    with sync_playwright() as playwright:
        launched = playwright.chromium.launch(executable_path=executable, args=QUIET)
        yield launched
        launched.close()


@pytest.fixture
def served(tmp_path: Path) -> Iterator[Served]:
    """The demo, served."""
    server = Served(tmp_path, demo=True)
    server.start()
    yield server
    server.stop()


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[Served]:
    """A studio with nothing in it yet, served."""
    server = Served(tmp_path, demo=False)
    server.start()
    yield server
    server.stop()


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
