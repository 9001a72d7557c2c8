"""Everything the studio has: saved as one file, put back from one, and the copies of the last days."""

import tempfile
from datetime import datetime
from pathlib import Path

from fastapi import APIRouter, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse
from pydantic import BaseModel
from starlette.background import BackgroundTask

from jolly_trellis.services import copies
from jolly_trellis.services.copies import Copy
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store.connection import StoreError

router = APIRouter(prefix="/api/data", tags=["data"])
MOST_COPY_BYTES = 4_000_000_000
_ANY_FILE = {"requestBody": {"content": {"application/octet-stream": {}}, "required": True}}


class CopiesOut(BaseModel):
    """The copies in the studio's own folder, the newest first."""

    copies: list[Copy]


class PutBack(BaseModel):
    """What was put back, and the copy of what it replaced."""

    replaced: str | None


@router.get("")
def get_copies(request: Request) -> CopiesOut:
    return CopiesOut(copies=list(copies.kept(_folder(request))))


@router.get("/backup.sqlite", response_class=FileResponse)
def backup(request: Request) -> FileResponse:
    """Everything the studio has as one file, looked through before it is sent."""
    place = tempfile.TemporaryDirectory()
    target = Path(place.name) / "backup.sqlite"
    try:
        copies.save(_folder(request), target)
    except StoreError:
        place.cleanup()
        raise
    name = f"jolly-trellis-{datetime.now():%Y-%m-%d-%H%M}.sqlite"
    return FileResponse(
        target,
        media_type="application/octet-stream",
        filename=name,
        background=BackgroundTask(place.cleanup),
    )


@router.post("/restore", openapi_extra=_ANY_FILE)
async def restore(request: Request) -> PutBack:
    """Put a saved file back in place of everything; what it replaces is kept as a copy."""
    with tempfile.TemporaryDirectory() as place:
        sent = Path(place) / "The file"
        size = 0
        with sent.open("wb") as file:
            async for part in request.stream():
                size += len(part)
                if size > MOST_COPY_BYTES:
                    raise StoreError("What was sent is larger than any copy. Nothing was changed.")
                file.write(part)
        if not size:
            raise StoreError("Nothing was sent. Choose a file that was saved from here.")
        return await run_in_threadpool(_restored, _folder(request), sent)


@router.post("/copies/{name}/restore")
def restore_copy(name: str, request: Request) -> PutBack:
    """Put a copy of the studio's own folder back."""
    path = copies.path_of(_folder(request), name)
    if path is None:
        raise NotFound(f"copy {name}")
    return _restored(_folder(request), path)


def _restored(folder: Path, source: Path) -> PutBack:
    replaced = copies.restore(folder, source)
    return PutBack(replaced=None if replaced is None else replaced.name)


def _folder(request: Request) -> Path:
    folder: Path = request.app.state.folder
    return folder
