"""The application: the API under /api, and the built screens for everything else."""

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles

from jolly_trellis import __version__
from jolly_trellis.api import bench, day, event_files, line_up, lists, problems, rigs, roll, stores

WEB_BUILD = Path(__file__).resolve().parents[3] / "web" / "dist"


def make_app(folder: Path, web_build: Path = WEB_BUILD) -> FastAPI:
    """The application over a studio's data folder, which `opening.open_studio` has prepared."""
    app = FastAPI(title="Jolly Trellis", version=__version__, docs_url=None, redoc_url=None)
    app.state.folder = folder
    app.add_middleware(problems.BodyLimit)
    problems.install(app)
    for router in (
        line_up.router,
        event_files.router,
        bench.router,
        rigs.router,
        roll.router,
        day.router,
        lists.router,
        stores.router,
    ):
        app.include_router(router)

    @app.get("/api/health", tags=["health"])
    def health() -> dict[str, str]:
        return {"state": "up", "version": __version__}

    if (web_build / "index.html").is_file():
        app.mount("/assets", StaticFiles(directory=web_build / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def screen(path: str) -> Response:
            if path.startswith("api/"):
                body = problems.body_of(code="not_found", path="", message="No such address.", limit="")
                return JSONResponse(body, status_code=404)
            return FileResponse(web_build / "index.html", headers={"Cache-Control": "no-cache"})

    return app
