"""What stands before every route: Host and Origin of this machine only, bodies of a bearable size and of the type
that is wanted, numbers that can be numbers; and what every answer says to the browser."""

from __future__ import annotations

import re
from datetime import UTC, datetime
from http.cookies import CookieError, SimpleCookie
from typing import TYPE_CHECKING
from urllib.parse import quote, urlsplit

from anyio.to_thread import run_sync
from starlette.datastructures import MutableHeaders
from starlette.exceptions import HTTPException
from starlette.responses import RedirectResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from levelrun.api.problems import problem
from levelrun.exchange.pictures import MOST_BYTES

if TYPE_CHECKING:
    from levelrun.api.here.opened import Here

MAX_BODY = 8 * 1024 * 1024
LOCAL = {"127.0.0.1", "localhost", "[::1]", "::1"}
BINARY = ("/api/dxf/", "/api/csv/")
PHOTOS = re.compile(r"/api/jobs/[0-9a-f]{12}/photos$")
KEYLESS = ("/pair", "/pair.js", "/api/pair")  # all that answers on the network without a key
KEY = "levelrun_key"
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
        here: Here = scope["app"].state.here
        outside = here.came_in(scope.get("server"))
        hosts = here.hosts if outside else LOCAL
        refusal = self._refusal(scope["method"], scope["path"], headers, hosts)
        if refusal is not None:
            await problem(refusal[0], "Refused", refusal[1])(scope, receive, safe)
            return
        if outside and (turned := await _turned_away(here, scope, headers)) is not None:
            await turned(scope, receive, safe)
            return
        read, most = 0, _most(scope["path"])

        async def counted() -> Message:
            nonlocal read
            message = await receive()
            read += len(message.get("body", b""))
            if read > most:
                raise HTTPException(413, too_large(most))
            return message

        await self.app(scope, counted, safe)

    def _refusal(self, method: str, path: str, headers: dict[str, str], hosts: set[str]) -> tuple[int, str] | None:
        host = headers.get("host", "")
        if _name(host) not in hosts:
            allowed = "127.0.0.1, localhost" if hosts is LOCAL else ", ".join(sorted(hosts))
            return 403, f"host {_name(host)!r} is not this machine; allowed: {allowed}"
        origin = headers.get("origin")
        if origin is not None and origin.partition("://")[2].lower() != host.lower():
            return 403, f"origin {origin[:100]!r} is not this page; allowed: the host and port of the request itself"
        length = headers.get("content-length", "0")
        if not (length.isascii() and length.isdigit()) or len(length) > 12 or int(length) > _most(path):
            return 413, too_large(_most(path))
        if "\0" in path:
            return 404, "no such address"
        return self._wrong_type(method, path, headers)

    def _wrong_type(self, method: str, path: str, headers: dict[str, str]) -> tuple[int, str] | None:
        """A body of another type than is wanted: a form of a foreign page could send it unasked."""
        has_body = headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
        if method not in ("POST", "PUT", "PATCH") or not path.startswith("/api/") or not has_body:
            return None
        kind = headers.get("content-type", "").partition(";")[0].strip().lower()
        wanted = "application/octet-stream" if path.startswith(BINARY) or PHOTOS.match(path) else "application/json"
        return None if kind == wanted else (415, f"a body of type {kind[:60]!r} is not taken; allowed: {wanted}")


def _name(host: str) -> str:
    try:
        return urlsplit(f"//{host}").hostname or ""
    except ValueError:
        return ""


def _most(path: str) -> int:
    return MOST_BYTES if PHOTOS.match(path) else MAX_BODY


def too_large(most: int = MAX_BODY) -> str:
    """How a body that is too large is refused."""
    if most == MOST_BYTES:
        return f"the picture is over {MOST_BYTES // 1_000_000} MB; allowed: up to that"
    return f"the body is over {most // 1024 // 1024} MB"


async def _turned_away(here: Here, scope: Scope, headers: dict[str, str]) -> Response | None:
    """What a phone gets that has no key, or asks for what is done at this machine alone; None where it may
    come in."""
    path = scope["path"]
    if path in KEYLESS:
        return None
    if path.startswith("/api/here"):
        return problem(403, "Refused", "this is done at the laptop itself")
    key = _key(headers.get("cookie", ""))
    now = datetime.now(UTC).isoformat(timespec="seconds")
    if key and await run_sync(here.phones.known, key, now) is not None:
        return None
    if scope["method"] == "GET" and "text/html" in headers.get("accept", ""):
        query = scope.get("query_string", b"").decode("latin-1")
        wanted = quote(f"{path}{'?' + query if query else ''}", safe="")
        return RedirectResponse(f"/pair?to={wanted}", 303)
    return problem(401, "No key", "this phone is not paired, or its key was taken away")


def _key(cookie: str) -> str:
    try:
        found = SimpleCookie(cookie).get(KEY)
    except CookieError:
        return ""
    return found.value if found is not None else ""
