"""The application in process, over a fresh studio."""

from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from jolly_trellis.api.app import make_app
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services.opening import open_studio
from tests.wire import pieces


@pytest.fixture
def client(tmp_path: Path) -> TestClient:
    """A client of an application with the demo event as event 1."""
    conn = open_studio(tmp_path)
    load_demo(conn)
    conn.close()
    return TestClient(make_app(tmp_path, web_build=tmp_path / "none", hosts=("testserver",)))


@pytest.fixture
def bowl(client: TestClient) -> dict[str, Any]:
    """The demo's piece as JSON."""
    found: dict[str, Any] = pieces(client.get("/api/events/1").json())[0]["part"]
    return found
