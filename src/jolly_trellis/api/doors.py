"""Who may come in: only what was asked of this address, and only this application's own pages may write.

A page of anywhere else that is open in the same browser can send requests here. It cannot give a false Host, Origin or
Sec-Fetch-Site, and by these it is known. What goes out says that nothing else may run, frame or keep it.
"""

from collections.abc import Collection, Mapping

from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from jolly_trellis.api.bodies import body_of

_READS = frozenset({"GET", "HEAD", "OPTIONS"})
_OWN_SITE = frozenset({"same-origin", "none"})
PAGE_POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)
DATA_POLICY = "default-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'; sandbox"
PAPER_POLICY = "frame-ancestors 'none'"


class Doors:
    """Refuses requests that are not this application's own, and marks every answer."""

    def __init__(self, app: ASGIApp, hosts: Collection[str]) -> None:
        """`hosts` are host names with their port, as they stand in addresses of this application."""
        self.app = app
        self.hosts = frozenset(each.lower() for each in hosts)
        self.origins = frozenset(f"http://{each}" for each in self.hosts)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        data = scope["path"].startswith("/api")

        async def marked(message: Message) -> None:
            if message["type"] == "http.response.start":
                _mark(MutableHeaders(scope=message), data=data)
            await send(message)

        why = self._refusal(scope, Headers(scope=scope), data=data)
        if why is None:
            await self.app(scope, receive, marked)
            return
        body = body_of(
            code="door",
            path="",
            message=why,
            limit="Open the application at the address that it gave when it was started.",
        )
        await JSONResponse(body, status_code=403)(scope, receive, marked)

    def _refusal(self, scope: Scope, headers: Mapping[str, str], *, data: bool) -> str | None:
        """Why a request is not taken, or None."""
        if headers.get("host", "").lower() not in self.hosts:
            return "This address is not the application's own."
        site = headers.get("sec-fetch-site")
        if data and site is not None and site not in _OWN_SITE:
            return "This was asked by a page that is not the application's own."
        origin = headers.get("origin")
        if scope["method"] not in _READS and origin is not None and origin.lower() not in self.origins:
            return "This was sent by a page that is not the application's own."
        return None


def _mark(headers: MutableHeaders, *, data: bool) -> None:
    headers["X-Content-Type-Options"] = "nosniff"
    headers["Referrer-Policy"] = "no-referrer"
    headers["Cross-Origin-Resource-Policy"] = "same-origin"
    headers["Cross-Origin-Opener-Policy"] = "same-origin"
    paper = headers.get("content-type", "").startswith("application/pdf")
    headers["Content-Security-Policy"] = PAPER_POLICY if paper else DATA_POLICY if data else PAGE_POLICY
    if data:
        headers["Cache-Control"] = "no-store"
