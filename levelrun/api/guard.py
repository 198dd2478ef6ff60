"""What stands before every route: Host and Origin of this machine only, bodies of a bearable size."""

from __future__ import annotations

from urllib.parse import urlsplit

from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from levelrun.api.problems import problem

MAX_BODY = 8 * 1024 * 1024
LOCAL = {"127.0.0.1", "localhost", "[::1]", "::1"}


def _host(url: str) -> str:
    try:
        return urlsplit(url).hostname or ""
    except ValueError:
        return ""


class Guard:
    """ASGI wrapper that refuses foreign Host and Origin, and bodies over MAX_BODY, before anything is read."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = {key.decode("latin-1"): value.decode("latin-1") for key, value in scope["headers"]}
        refusal = self._refusal(headers)
        if refusal is not None:
            status, detail = refusal
            await problem(status, "Refused", detail)(scope, receive, send)
            return
        read = 0

        async def counted() -> Message:
            nonlocal read
            message = await receive()
            read += len(message.get("body", b""))
            if read > MAX_BODY:
                raise HTTPException(413, _too_large())
            return message

        await self.app(scope, counted, send)

    def _refusal(self, headers: dict[str, str]) -> tuple[int, str] | None:
        host = _host(f"//{headers.get('host', '')}")
        if host not in LOCAL:
            return 403, f"host {host!r} is not this machine; allowed: 127.0.0.1, localhost"
        origin = headers.get("origin")
        if origin is not None and _host(origin) not in LOCAL:
            return 403, f"origin {origin[:100]!r} is not this machine; allowed: 127.0.0.1, localhost"
        length = headers.get("content-length", "0")
        if not length.isdigit() or len(length) > 12 or int(length) > MAX_BODY:
            return 413, _too_large()
        return None


def _too_large() -> str:
    return f"the body is over {MAX_BODY // 1024 // 1024} MB"
