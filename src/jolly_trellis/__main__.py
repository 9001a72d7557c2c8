"""The command line: serve the application, save and put back its data, or write its OpenAPI description."""

import json
import socket
import sys
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Annotated

import typer
import uvicorn
from platformdirs import user_data_path

from jolly_trellis.api.app import make_app
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import copies
from jolly_trellis.services.opening import hold, open_studio
from jolly_trellis.store.connection import StoreError

HOST = "127.0.0.1"
app = typer.Typer(add_completion=False, help="Jolly Trellis plans foam-free flower mechanics.")
Data = Annotated[Path | None, typer.Option(help="Folder of the studio's data.")]


class _Announcing(uvicorn.Server):
    """Says where it is once it is there."""

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self.started:
            typer.echo(f"Jolly Trellis is at http://{HOST}:{self.config.port}  (stop with Ctrl-C)")
            sys.stdout.flush()


@app.command()
def serve(
    data: Data = None,
    port: Annotated[int, typer.Option(min=1, max=65535)] = 8420,
    demo: Annotated[bool, typer.Option(help="Lay the demo event into an empty folder.")] = False,
) -> None:
    """Serve the application on this computer only."""
    folder = _folder(data)
    with _one_sentence(), closing(hold(folder)), closing(bound(port)) as listening:
        with closing(open_studio(folder)) as conn:
            if demo:
                load_demo(conn)
        application = make_app(folder, hosts=(f"{HOST}:{port}", f"localhost:{port}"))
        server = _Announcing(uvicorn.Config(application, host=HOST, port=port, log_level="warning"))
        server.run(sockets=[listening])


@app.command()
def backup(file: Path, data: Data = None) -> None:
    """Save everything the studio has into one file, also while the application runs."""
    with _one_sentence():
        copies.save(_folder(data), file)
    typer.echo(f"Everything is saved in {file}.")


@app.command()
def restore(file: Path, data: Data = None) -> None:
    """Put a saved file back in place of everything the studio has; what it replaces is kept."""
    folder = _folder(data)
    with _one_sentence(), closing(hold(folder)):
        replaced = copies.restore(folder, file)
        open_studio(folder).close()
    typer.echo(f"{file} is put back." + (f" What it replaced is kept in {replaced}." if replaced else ""))


@app.command()
def openapi(path: Path) -> None:
    """Write the OpenAPI description, from which the screen's types are made."""
    described = make_app(Path(), web_build=Path("no-build")).openapi()
    path.write_text(json.dumps(described, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


def _folder(data: Path | None) -> Path:
    return data or user_data_path("jolly-trellis", appauthor=False)


def bound(port: int) -> socket.socket:
    """A socket on a port of this computer that sends small answers at once. Raises StoreError: it is taken."""
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    # what is accepted from it has it too: else the end of an answer waits for the other side's word, some 40 ms
    listening.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
    try:
        listening.bind((HOST, port))
    except OSError:
        listening.close()
        other = port + 1 if port < 65535 else port - 1
        raise StoreError(
            f"Port {port} is taken by another program. Give another one, such as --port {other}."
        ) from None
    return listening


@contextmanager
def _one_sentence() -> Iterator[None]:
    """End with one sentence where the data or the port cannot be used."""
    try:
        yield
    except StoreError as problem:
        typer.echo(str(problem), err=True)
        sys.exit(1)


if __name__ == "__main__":
    app()
