"""The application in process, over a fresh studio; one application serves all tests of a worker."""

from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from jolly_trellis.api.app import make_app, serve_from
from tests.wire import pieces


@pytest.fixture(scope="session")
def application(tmp_path_factory: pytest.TempPathFactory) -> FastAPI:
    """An application without screens; whoever takes it says what it serves from."""
    folder = tmp_path_factory.mktemp("application")
    return make_app(folder, web_build=folder / "none", hosts=("testserver",))


@pytest.fixture
def client(application: FastAPI, demo_folder: Path, nothing_goes_on: None) -> TestClient:
    """A client of an application with the demo event as event 1."""
    serve_from(application, demo_folder)
    return TestClient(application)


@pytest.fixture
def bowl(client: TestClient) -> dict[str, Any]:
    """The demo's piece as JSON."""
    found: dict[str, Any] = pieces(client.get("/api/events/1").json())[0]["part"]
    return found
