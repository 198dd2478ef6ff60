"""What the routes share: the store, types of path parts, answers with the revision as their ETag."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import Request, Response
from pydantic import BaseModel, Field

from levelrun.store import Jobs
from levelrun.store.pictures import Pictures

JobId = Annotated[str, Field(pattern=r"^[0-9a-f]{12}$")]
Revision = Annotated[int, Field(ge=0, le=2**53)]


class Problem(BaseModel):
    """Why something was refused (RFC 9457): the field, its value, what is allowed; in text the position."""

    type: str
    title: str
    status: int
    detail: str
    key: str | None = None
    value: Any = None
    allowed: list[str] | None = None
    at: int | None = None
    current: int | None = None
    errors: list[dict[str, Any]] | None = None


def _declared(text: str) -> dict[str, Any]:
    return {"model": Problem, "description": text, "content": {"application/problem+json": {}}}


PROBLEMS: dict[int | str, dict[str, Any]] = {
    400: _declared("The body cannot be read."),
    401: _declared("This phone has no key."),
    403: _declared("Not from this machine."),
    404: _declared("There is no such thing."),
    409: _declared("The job was changed elsewhere, or there is nothing to take back."),
    413: _declared("The body is too large."),
    415: _declared("The body is not of the type that is wanted."),
    422: _declared("A value is not allowed; the first is named."),
    429: _declared("Too many guesses: wait."),
    503: _declared("The data file cannot be written now."),
    507: _declared("The disk is full."),
}


FILE_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


def jobs_of(request: Request) -> Jobs:
    """The store."""
    jobs: Jobs = request.app.state.jobs
    return jobs


def pictures_of(request: Request) -> Pictures:
    """The pictures beside the store."""
    pictures: Pictures = request.app.state.pictures
    return pictures


def json_answer(request: Request, body: BaseModel, revision: int, status: int = 200) -> Response:
    """A body as JSON, written straight: it is ours and was checked when it was made. Its ETag is the revision; what
    the caller has already is answered 304."""
    tag = f'"{revision}"'
    headers = {"ETag": tag, "Cache-Control": "no-cache"}
    if request.method == "GET" and request.headers.get("if-none-match") == tag:
        return Response(status_code=304, headers=headers)
    return Response(body.model_dump_json(), status, media_type="application/json", headers=headers)


def attachment(name: str) -> dict[str, str]:
    """Headers that save an answer under a name."""
    return {"Content-Disposition": f'attachment; filename="{name}"'}
