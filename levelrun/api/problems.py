"""Every error as problem+json (RFC 9457). The one place that turns exceptions into answers."""

from __future__ import annotations

import json
import math
from dataclasses import asdict
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from pydantic import ValidationError
from starlette.exceptions import HTTPException
from starlette.responses import Response

from levelrun.api.worker import TooLongError
from levelrun.core.errors import LevelRunError
from levelrun.exchange.text import JobTextError
from levelrun.store import (
    BusyStoreError,
    FullStoreError,
    NoSuchJobError,
    NothingToUndoError,
    ReadOnlyStoreError,
    StaleRevisionError,
    StoreError,
)


def problem(status: int, title: str, detail: str, **more: Any) -> Response:
    """An answer of type application/problem+json. `more` adds key, value, allowed, at and their like."""
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, **more}
    text = json.dumps(body, default=str, ensure_ascii=True)
    return Response(text, status, media_type="application/problem+json")


def _short(value: Any) -> Any:
    """A value that was refused, safe to show: never NaN, never a megabyte."""
    if isinstance(value, float) and not math.isfinite(value):
        return str(value)
    if isinstance(value, int) and not -(2**53) < value < 2**53:
        return "a number too large to show"
    if isinstance(value, bool | int | float) or value is None:
        return value
    text = value if isinstance(value, str) else _told(value)
    text = text.encode("utf-8", "replace").decode()
    return text if len(text) <= 120 else f"{text[:117]}..."


def _told(value: Any) -> str:
    """A value as text: of a long list or object its beginning only, never a number that cannot be written out."""
    try:
        return repr(value)
    except (ValueError, RecursionError):
        return "a value too large to show"


ALLOWED_FROM_CONTEXT = {
    "literal_error": "expected",
    "enum": "expected",
    "union_tag_invalid": "expected_tags",
}
BOUNDS = {"ge": "{} or more", "gt": "over {}", "le": "{} or less", "lt": "under {}"}


def _allowed(error: dict[str, Any]) -> list[str]:
    context = error.get("ctx") or {}
    name = ALLOWED_FROM_CONTEXT.get(error["type"])
    if name and name in context:
        words = str(context[name]).replace(" or ", ", ").split(", ")
        return [word.strip("'\"") for word in words]
    if error["type"] == "finite_number":
        return ["a finite number"]
    if error["type"] == "extra_forbidden":
        return ["the keys of the schema only"]
    if error["type"] == "string_pattern_mismatch":
        return [f"text like {context.get('pattern')}"]
    return [text.format(context[key]) for key, text in BOUNDS.items() if key in context]


def from_validation(errors: list[dict[str, Any]]) -> Response:
    """422 for a body that does not fit: the first error named, all of them listed."""
    listed = []
    for error in errors:
        path = [str(part) for part in error["loc"] if part not in ("body", "query", "path")]
        allowed = _allowed(error)
        message = str(error["msg"]).removeprefix("Value error, ")
        if allowed and "llowed" not in message:
            message = f"{message}; allowed: {', '.join(allowed)}"
        key = ".".join(path) or "body"
        listed.append(
            {
                "key": key,
                "value": _short(error.get("input")),
                "allowed": allowed,
                "detail": f"{key}: {message}",
            }
        )
    first = listed[0]
    return problem(
        422,
        "Not allowed",
        first["detail"],
        key=first["key"],
        value=first["value"],
        allowed=first["allowed"],
        errors=listed[:20],
    )


def install(app: FastAPI) -> None:
    """Map every exception that may leave a route."""

    @app.exception_handler(RequestValidationError)
    async def _body(request: Request, error: RequestValidationError) -> Response:
        return from_validation(list(error.errors()))

    @app.exception_handler(ValidationError)
    async def _inner(request: Request, error: ValidationError) -> Response:
        return from_validation([dict(item) for item in error.errors()])

    @app.exception_handler(LevelRunError)
    async def _core(request: Request, error: LevelRunError) -> Response:
        if isinstance(error, TooLongError):
            return problem(503, "Stopped", error.message)
        more: dict[str, Any] = {"key": error.key, "value": _short(error.value), "allowed": error.allowed}
        if error.at is not None:
            more["at"] = error.at
        if isinstance(error, JobTextError):
            more |= {"line": error.errors[0].line, "lines": [asdict(item) for item in error.errors[:50]]}
            more["right"] = error.right
        return problem(422, "Not allowed", error.message, **more)

    @app.exception_handler(StoreError)
    async def _store(request: Request, error: StoreError) -> Response:
        if isinstance(error, NoSuchJobError):
            return problem(404, "Not found", str(error))
        if isinstance(error, StaleRevisionError):
            detail = f"{error}. Take the newest, then change it again."
            return problem(409, "Changed elsewhere", detail, key="revision", value=error.sent, current=error.current)
        if isinstance(error, NothingToUndoError):
            return problem(409, "Nothing there", str(error))
        if isinstance(error, FullStoreError):
            return problem(507, "Disk full", str(error))
        if isinstance(error, BusyStoreError | ReadOnlyStoreError):
            return problem(503, "Not written", str(error))
        return problem(500, "Store", str(error))

    @app.exception_handler(HTTPException)
    async def _http(request: Request, error: HTTPException) -> Response:
        detail = str(error.detail)
        if error.status_code == 400:
            detail = "the body is not JSON that can be read"
        answer = problem(error.status_code, "Refused" if error.status_code < 500 else "Failed", detail)
        answer.headers.update(error.headers or {})
        return answer

    @app.exception_handler(Exception)
    async def _any(request: Request, error: Exception) -> Response:
        return problem(500, "Fault", "Level Run failed on this; nothing was changed.")
