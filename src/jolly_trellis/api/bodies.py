"""What a refusal looks like, whatever refuses; and how large what comes in may be."""

from typing import Any

from fastapi.encoders import jsonable_encoder
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

MOST_BODY_BYTES = 1_000_000
MOST_FILE_BYTES = 40_000_000
LARGE = ("/api/events/from-file", "/api/pictures")
STREAMED = ("/api/data/restore",)


def body_of(*, code: str, path: str, message: Any, limit: Any) -> dict[str, Any]:
    """A problem as JSON; plain strings become sentences without quantities."""

    def sentence(value: Any) -> Any:
        return {"text": value, "quantities": {}} if isinstance(value, str) else jsonable_encoder(value)

    return {"code": code, "path": path, "message": sentence(message), "limit": sentence(limit)}


class BodyLimit:
    """Refuses bodies over a megabyte, however they are sent; event files may be larger, copies come as streams."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["path"] in STREAMED:
            await self.app(scope, receive, send)
            return
        most = MOST_FILE_BYTES if scope["path"] in LARGE else MOST_BODY_BYTES
        declared = dict(scope["headers"]).get(b"content-length", b"0")
        if not declared.isdigit() or len(declared) > 12 or int(declared) > most:
            await _refuse(scope, receive, send)
            return
        parts, size, more = [], 0, True
        while more:
            message = await receive()
            if message["type"] != "http.request":
                break
            parts.append(message.get("body", b""))
            size += len(parts[-1])
            more = message.get("more_body", False)
            if size > most:
                await _refuse(scope, receive, send)
                return
        body, given = b"".join(parts), False

        async def replay() -> Message:
            nonlocal given
            if given:
                return await receive()
            given = True
            return {"type": "http.request", "body": body, "more_body": False}

        await self.app(scope, replay, send)


async def _refuse(scope: Scope, receive: Receive, send: Send) -> None:
    body = body_of(
        code="too_large",
        path="",
        message="That is more than the program takes in at once.",
        limit="A plan is a few kilobytes, an event file at most forty megabytes; nothing was saved.",
    )
    await JSONResponse(body, status_code=413)(scope, receive, send)
