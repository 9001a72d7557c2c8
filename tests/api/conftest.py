"""The application in process, over a fresh studio; one application serves all tests of a worker."""

from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from jolly_trellis.api.app import make_app, serve_from
from tests.wire import HERE, pieces


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


@pytest.fixture(scope="module")
def behind_doors(tmp_path_factory: pytest.TempPathFactory) -> FastAPI:
    """An application at an address of its own, over a built screen of one page."""
    build = tmp_path_factory.mktemp("dist")
    (build / "assets").mkdir()
    (build / "index.html").write_text("<!doctype html><title>Jolly Trellis</title>")
    return make_app(build, web_build=build, hosts=(HERE, "localhost:8420"))


@pytest.fixture
def doors(behind_doors: FastAPI, demo_folder: Path, nothing_goes_on: None) -> TestClient:
    """A client that asks at that address."""
    serve_from(behind_doors, demo_folder)
    return TestClient(behind_doors, base_url=f"http://{HERE}", raise_server_exceptions=False)
