"""The built application, served from a data folder, and Debian's Chromium to look at it."""

import os
import shutil
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

ROOT = Path(__file__).parents[1]
STARTS_WITHIN_S = 120
HAPPENS_WITHIN_S = 60
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
        command = [sys.executable, "-m", "jolly_trellis", "serve", "--data", str(self.folder)]
        command += ["--port", str(self.port)] + (["--demo"] if self.demo else [])
        env = os.environ | {"PYTHONPATH": str(ROOT / "src"), "PYTHONDONTWRITEBYTECODE": ""}
        self.process = subprocess.Popen(command, env=env, stdout=subprocess.DEVNULL)
        given_up = time.monotonic() + STARTS_WITHIN_S
        while time.monotonic() < given_up and self.process.poll() is None:
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


@contextmanager
def served(folder: Path, *, demo: bool) -> Iterator[Served]:
    """A server that is stopped at the end."""
    server = Served(folder, demo=demo)
    server.start()
    try:
        yield server
    finally:
        server.stop()


def until(page: Page, expression: str, arg: object = None) -> None:
    """Wait until an expression is true in the page, asked from outside: the page's policy makes no script of text.

    Raises: TimeoutError: it never was.
    """
    given_up = time.monotonic() + HAPPENS_WITHIN_S
    while not page.evaluate(expression, arg):
        if time.monotonic() > given_up:
            raise TimeoutError(expression)
        page.wait_for_timeout(5)


@contextmanager
def chromium() -> Iterator[Browser]:
    """Debian's Chromium, headless, with no network of its own: its shell without windows where it is there.

    Raises: RuntimeError: it, or the built screens, are not there yet.
    """
    executable = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    if executable is None or not (ROOT / "web" / "dist" / "index.html").is_file():
        raise RuntimeError("run ./trellis test: it builds the screens and finds Debian's chromium")
    with sync_playwright() as playwright:
        launched = playwright.chromium.launch(executable_path=executable, args=QUIET)
        yield launched
        launched.close()
