"""The command line: serve the application, or write its OpenAPI description."""

import json
import sys
from pathlib import Path
from typing import Annotated

import typer
import uvicorn
from platformdirs import user_data_path

from jolly_trellis.api.app import make_app
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services.opening import open_studio
from jolly_trellis.store.connection import StoreError

app = typer.Typer(add_completion=False, help="Jolly Trellis plans foam-free flower mechanics.")


@app.command()
def serve(
    data: Annotated[Path | None, typer.Option(help="Folder of the studio's data.")] = None,
    port: Annotated[int, typer.Option(min=1, max=65535)] = 8420,
    demo: Annotated[bool, typer.Option(help="Lay the demo event into an empty folder.")] = False,
) -> None:
    """Serve the application on this computer only."""
    folder = data or user_data_path("jolly-trellis", appauthor=False)
    try:
        conn = open_studio(folder)
    except StoreError as problem:
        typer.echo(str(problem), err=True)
        sys.exit(1)
    if demo:
        load_demo(conn)
    conn.close()
    typer.echo(f"Jolly Trellis is at http://127.0.0.1:{port}  (stop with Ctrl-C)")
    uvicorn.run(make_app(folder), host="127.0.0.1", port=port, log_level="warning")


@app.command()
def openapi(path: Path) -> None:
    """Write the OpenAPI description, from which the screen's types are made."""
    described = make_app(Path(), web_build=Path("no-build")).openapi()
    path.write_text(json.dumps(described, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


if __name__ == "__main__":
    app()
