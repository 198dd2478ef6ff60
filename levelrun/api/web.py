"""The built interface: its page, and its assets, which are compressed once and never change under their name."""

from __future__ import annotations

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse
from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.requests import Request
from starlette.responses import Response

WEB = Path(__file__).parent.parent / "web_dist"
FOREVER = "public, max-age=31536000, immutable"
TYPES = {".js": "text/javascript", ".css": "text/css", ".svg": "image/svg+xml", ".woff2": "font/woff2"}


def asset(path: str, headers: Headers) -> Response:
    """A file of the build; its gzip, which the build made beside it, where the browser takes it."""
    file = WEB / "assets" / path
    inside = file.resolve().is_relative_to((WEB / "assets").resolve())
    if not inside or not file.is_file():
        raise HTTPException(404, f"no such address: /assets/{path}")
    found = {"Cache-Control": FOREVER, "Vary": "Accept-Encoding"}
    kind = TYPES.get(file.suffix)
    packed = file.with_name(f"{file.name}.gz")
    if packed.is_file() and "gzip" in headers.get("accept-encoding", ""):
        return FileResponse(packed, media_type=kind, headers={**found, "Content-Encoding": "gzip"})
    return FileResponse(file, media_type=kind, headers=found)


def install(app: FastAPI) -> None:
    """Routes of the interface, where it is built. Unknown addresses under /api stay 404; all others are the page,
    which says itself what it does not know."""

    @app.get("/assets/{path:path}", include_in_schema=False)
    def assets(path: str, request: Request) -> Response:
        return asset(path, request.headers)

    @app.get("/sw.js", include_in_schema=False)
    def keeper() -> Response:
        if not (WEB / "sw.js").is_file():
            raise HTTPException(404, "no such address: /sw.js")
        return FileResponse(WEB / "sw.js", media_type="text/javascript", headers={"Cache-Control": "no-cache"})

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/") or not WEB.is_dir():
            raise HTTPException(404, f"no such address: /{path[:200]}")
        return FileResponse(WEB / "index.html", headers={"Cache-Control": "no-cache"})
