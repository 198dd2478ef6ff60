"""A job as one JSON file, with its published schema."""

from __future__ import annotations

import json
from typing import Any

from pydantic import ValidationError

from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.job import FORMAT, FORMAT_VERSION, Job
from levelrun.core.job.upgrade import upgraded
from levelrun.core.trench.laying import settle

MAX_BYTES = 8 * 1024 * 1024


class JobFileError(LevelRunError):
    """A job file was refused."""


def write_job(job: Job) -> str:
    """The job as JSON text: stable order, two spaces, so that versions can be compared line by line."""
    return json.dumps(job.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def read_job(data: bytes | str) -> Job:
    """A job from JSON text. Raises JobFileError that names the place and what is allowed."""
    if len(data) > MAX_BYTES:
        raise JobFileError(f"the file is over {MAX_BYTES // 1024 // 1024} MB", key="job")
    try:
        raw = json.loads(data, parse_constant=_no_constant)
    except (ValueError, RecursionError) as error:
        raise JobFileError(f"not whole JSON: {error}", key="job") from None
    check_version(raw)
    try:
        return settle(Job.model_validate(upgraded(raw)))
    except EditError as error:
        raise JobFileError(f"job: {error.message}", key="job", value=error.value) from None
    except ValidationError as error:
        first = error.errors()[0]
        key = ".".join(str(part) for part in ("job", *first["loc"]))
        message = str(first["msg"]).removeprefix("Value error, ")
        raise JobFileError(f"{key}: {message}", key=key, value=first["input"]) from None


def check_version(raw: Any) -> None:
    """Refuse what is no job file, or one from a newer version, before its fields are looked at."""
    if not isinstance(raw, dict) or raw.get("format", FORMAT) != FORMAT:
        raise JobFileError(f"not a Level Run job file; allowed: format {FORMAT!r}", key="job.format")
    version = raw.get("format_version", FORMAT_VERSION)
    if isinstance(version, int) and version > FORMAT_VERSION:
        raise JobFileError(
            f"format_version {version} comes from a newer Level Run; allowed: up to {FORMAT_VERSION}",
            key="job.format_version",
            value=version,
            allowed=[str(FORMAT_VERSION)],
        )


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number that a job may hold")


def job_schema() -> dict[str, Any]:
    """The JSON Schema (draft 2020-12) of a job file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": f"levelrun-job-{FORMAT_VERSION}",
        **Job.model_json_schema(),
    }
