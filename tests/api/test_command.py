"""The command that starts it: serves on this computer only, with the demo, and refuses what it cannot read."""

import json
import os
import signal
import socket
import sqlite3
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx2 as httpx
import pytest
from typer.testing import CliRunner

from jolly_trellis.__main__ import app
from jolly_trellis.services.opening import DATABASE_NAME, open_studio

ROOT = Path(__file__).resolve().parents[2]
PATIENCE_S = 30


def free_port() -> int:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        return int(taken.getsockname()[1])


@contextmanager
def served(folder: Path, *options: str) -> Iterator[str]:
    """The address of an application in a process of its own, ended afterwards."""
    port = free_port()
    command = [sys.executable, "-m", "jolly_trellis", "serve", "--data", str(folder), "--port", str(port), *options]
    running = subprocess.Popen(command, env=os.environ | {"PYTHONPATH": str(ROOT / "src")}, stdout=subprocess.PIPE)
    try:
        address = f"http://127.0.0.1:{port}"
        for _ in range(10 * PATIENCE_S):
            try:
                httpx.get(f"{address}/api/health")
                break
            except httpx.TransportError:
                assert running.poll() is None, "it ended"
                time.sleep(0.1)
        yield address
    finally:
        running.send_signal(signal.SIGINT)
        said, _ = running.communicate(timeout=PATIENCE_S)
        assert address.encode() in said


def test_it_serves_the_demo_and_keeps_what_was_done_with_it(tmp_path: Path) -> None:
    with served(tmp_path, "--demo") as address:
        event = httpx.get(f"{address}/api/events/1").json()
        assert len(event["pieces"]) >= 5
        first = f"{address}/api/events/1/pieces/{event['pieces'][0]['id']}"
        gone = httpx.request("DELETE", first, json={"base_revision": event["revision"]})
        assert gone.status_code == 200, gone.text
    with served(tmp_path, "--demo") as address:
        again = httpx.get(f"{address}/api/events/1").json()
        assert len(again["pieces"]) == len(event["pieces"]) - 1
        assert again["undo"].startswith("Remove ")
        assert len(httpx.get(f"{address}/api/events").json()) == 1


def test_it_starts_empty_without_the_demo(tmp_path: Path) -> None:
    with served(tmp_path) as address:
        assert httpx.get(f"{address}/api/events").json() == []


def test_it_answers_this_computer_only(tmp_path: Path) -> None:
    with served(tmp_path) as address:
        others = {info[4][0] for info in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)}
        port = int(address.rpartition(":")[2])
        for host in others - {"127.0.0.1", "127.0.1.1"}:
            with pytest.raises(OSError), socket.create_connection((str(host), port), timeout=2):
                pass


def test_data_of_a_newer_program_is_refused_in_one_sentence(tmp_path: Path) -> None:
    open_studio(tmp_path).close()
    conn = sqlite3.connect(tmp_path / DATABASE_NAME)
    conn.execute("PRAGMA user_version = 99")
    conn.close()
    ended = CliRunner().invoke(app, ["serve", "--data", str(tmp_path)])
    assert ended.exit_code == 1
    assert "newer Jolly Trellis" in ended.output
    assert "Traceback" not in ended.output


@pytest.mark.parametrize("port", ["0", "65536", "front door"])
def test_a_port_that_is_none_is_refused(port: str, tmp_path: Path) -> None:
    assert CliRunner().invoke(app, ["serve", "--data", str(tmp_path), "--port", port]).exit_code == 2


def test_the_description_it_writes_is_the_one_kept(tmp_path: Path) -> None:
    written = tmp_path / "openapi.json"
    assert CliRunner().invoke(app, ["openapi", str(written)]).exit_code == 0
    kept = ROOT / "docs" / "openapi.json"
    assert json.loads(written.read_text("utf-8")) == json.loads(kept.read_text("utf-8"))
