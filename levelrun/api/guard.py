"""What stands before every route: Host and Origin of this machine only, bodies of a bearable size and of the type
that is wanted, numbers that can be numbers; and what every answer says to the browser."""

from __future__ import annotations

from urllib.parse import urlsplit

from starlette.datastructures import MutableHeaders
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from levelrun.api.problems import problem

MAX_BODY = 8 * 1024 * 1024
LOCAL = {"127.0.0.1", "localhost", "[::1]", "::1"}
BINARY = ("/api/dxf/", "/api/csv/")
POLICY = "; ".join(
    (
        "default-src 'self'",
        "script-src 'self'",
        "style-src 'self' 'unsafe-inline'",  # the theme's colours are set at run time
        "img-src 'self' data: blob:",
        "font-src 'self'",
        "connect-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'none'",
        "frame-ancestors 'none'",
    )
)
SAFE = {
    "content-security-policy": POLICY,
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}


class Guard:
    """ASGI wrapper that refuses foreign Host and Origin, and bodies that are too large or not what is wanted, before
    anything is read; it adds the headers of every answer."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def safe(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(raw=message.setdefault("headers", []))
                for name, value in SAFE.items():
                    headers.setdefault(name, value)
                if scope["path"].startswith("/api/"):
                    headers.setdefault("cache-control", "no-store")
            await send(message)

        headers = {key.decode("latin-1"): value.decode("latin-1") for key, value in scope["headers"]}
        refusal = self._refusal(scope["method"], scope["path"], headers)
        if refusal is not None:
            await problem(refusal[0], "Refused", refusal[1])(scope, receive, safe)
            return
        read = 0

        async def counted() -> Message:
            nonlocal read
            message = await receive()
            read += len(message.get("body", b""))
            if read > MAX_BODY:
                raise HTTPException(413, too_large())
            return message

        await self.app(scope, counted, safe)

    def _refusal(self, method: str, path: str, headers: dict[str, str]) -> tuple[int, str] | None:
        host = headers.get("host", "")
        if _name(host) not in LOCAL:
            return 403, f"host {_name(host)!r} is not this machine; allowed: 127.0.0.1, localhost"
        origin = headers.get("origin")
        if origin is not None and origin.partition("://")[2].lower() != host.lower():
            return 403, f"origin {origin[:100]!r} is not this page; allowed: the host and port of the request itself"
        length = headers.get("content-length", "0")
        if not (length.isascii() and length.isdigit()) or len(length) > 12 or int(length) > MAX_BODY:
            return 413, too_large()
        if "\0" in path:
            return 404, "no such address"
        return self._wrong_type(method, path, headers)

    def _wrong_type(self, method: str, path: str, headers: dict[str, str]) -> tuple[int, str] | None:
        """A body of another type than is wanted: a form of a foreign page could send it unasked."""
        has_body = headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
        if method not in ("POST", "PUT", "PATCH") or not path.startswith("/api/") or not has_body:
            return None
        kind = headers.get("content-type", "").partition(";")[0].strip().lower()
        wanted = "application/octet-stream" if path.startswith(BINARY) else "application/json"
        return None if kind == wanted else (415, f"a body of type {kind[:60]!r} is not taken; allowed: {wanted}")


def _name(host: str) -> str:
    try:
        return urlsplit(f"//{host}").hostname or ""
    except ValueError:
        return ""


def too_large() -> str:
    """How a body over MAX_BODY is refused."""
    return f"the body is over {MAX_BODY // 1024 // 1024} MB"
