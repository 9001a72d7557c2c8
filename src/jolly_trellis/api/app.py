"""The application: the API under /api, and the built screens for everything else."""

import asyncio
import sys
from collections.abc import AsyncIterator, Collection
from contextlib import asynccontextmanager
from datetime import datetime
from pathlib import Path

from fastapi import FastAPI, HTTPException
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse, Response
from fastapi.staticfiles import StaticFiles

from jolly_trellis import __version__
from jolly_trellis.api import (
    bench,
    data,
    day,
    event_files,
    figures,
    line_up,
    lists,
    papers,
    parts,
    problems,
    recipes,
    rigs,
    roll,
    stores,
)
from jolly_trellis.api.bodies import BodyLimit
from jolly_trellis.api.deps import Lent
from jolly_trellis.api.doors import Doors
from jolly_trellis.services import copies
from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store.connection import Connections, StoreError

_AN_HOUR_S = 3600.0
WEB_BUILD = Path(__file__).resolve().parents[3] / "web" / "dist"


def make_app(folder: Path, web_build: Path = WEB_BUILD, hosts: Collection[str] = ()) -> FastAPI:
    """The application over a studio's data folder, which `opening.open_studio` has prepared.

    Args:
        hosts: host names with their port by which it may be asked, such as "127.0.0.1:8420"; nothing else is answered.
    """
    app = FastAPI(title="Jolly Trellis", version=__version__, docs_url=None, redoc_url=None, lifespan=_copying)
    serve_from(app, folder)
    app.add_middleware(BodyLimit)
    app.add_middleware(Doors, hosts=hosts)
    problems.install(app)
    for router in (
        line_up.router,
        event_files.router,
        parts.router,
        bench.router,
        rigs.router,
        roll.router,
        day.router,
        lists.router,
        papers.router,
        recipes.router,
        stores.router,
        figures.router,
        data.router,
    ):
        app.include_router(router, dependencies=[Lent])

    @app.get("/api/health", tags=["health"])
    def health() -> dict[str, str]:
        return {"state": "up", "version": __version__}

    if (web_build / "index.html").is_file():
        app.mount("/assets", StaticFiles(directory=web_build / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def screen(path: str) -> Response:
            if path.split("/")[0] == "api":
                raise HTTPException(404)
            return FileResponse(web_build / "index.html", headers={"Cache-Control": "no-cache"})

    return app


def serve_from(app: FastAPI, folder: Path) -> None:
    """Let an application serve a data folder, in place of the one it served; nothing of it is asked meanwhile."""
    if (before := getattr(app.state, "connections", None)) is not None:
        before.close()
    app.state.folder = folder
    app.state.connections = Connections(folder / DATABASE_NAME)


@asynccontextmanager
async def _copying(app: FastAPI) -> AsyncIterator[None]:
    """While the application runs, a copy of everything is made each day."""

    async def go() -> None:
        while True:
            try:
                await run_in_threadpool(copies.daily, app.state.folder, datetime.now())
            except StoreError as problem:
                print(f"Today's copy was not made: {problem}", file=sys.stderr)
            await asyncio.sleep(_AN_HOUR_S)

    copying = asyncio.create_task(go())
    yield
    copying.cancel()
    app.state.connections.close()
