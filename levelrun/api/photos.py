"""Photos of a job: taken in from a phone or a file, given out in the size that is wanted, all of them as one
archive."""

from __future__ import annotations

import csv
import io
import re
import zipfile
from collections.abc import Iterator
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request
from fastapi.responses import FileResponse, StreamingResponse
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException

from levelrun.api.common import FILE_BODY, JobId, attachment, jobs_of, pictures_of
from levelrun.api.jobs import StepId
from levelrun.core.edits import EDITS, apply
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Photo
from levelrun.core.roughin.parts import Surface
from levelrun.core.roughin.surfaces import place_name
from levelrun.core.roughin.xray import readings
from levelrun.exchange.pictures import Picture, read_picture
from levelrun.store import Jobs, StaleRevisionError
from levelrun.store.pictures import Pictures

router = APIRouter(prefix="/api/jobs", tags=["photos"])
PartId = Annotated[str, Field(max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
TRIES = 20
PLACE = {"room", "surface", "trench", "node", "at_in", "height_in"}


class PhotoRow(BaseModel):
    """A photo in the strip: where it is pinned, with its two readings, when, by whom; missing: its picture is not on
    this machine."""

    id: str
    room: str
    surface: str
    trench: str
    place: str
    text: str
    at_in: float
    height_in: float
    on: str
    hour: str
    who: str
    remarks: str
    wide: int
    tall: int
    missing: bool


def photo_rows(job: Job, pictures: Pictures) -> list[PhotoRow]:
    """Every photo, by place, then by time."""
    rooms = {room.id: index for index, room in enumerate(job.rooms)}
    trenches = {trench.id: trench.name for trench in job.trenches}
    there: dict[str, bool] = {}
    rows = []
    for photo in job.photos:
        if photo.file not in there:
            there[photo.file] = pictures.has(photo.file)
        if photo.room is not None:
            place, text = (
                place_name(job, photo.room, photo.surface),
                readings(photo.at_in, photo.height_in, photo.surface),
            )
        elif photo.trench is not None:
            place, text = trenches[photo.trench], f"{photo.at_in / 12:g} ft along"
        elif photo.node is not None:
            node = job.node(photo.node)
            place, text = node.name, node.where
        else:
            place, text = "pinned to no place", ""
        rows.append(
            PhotoRow(
                id=photo.id, room=photo.room or "", surface=photo.surface if photo.room else "",
                trench=photo.trench or "", place=place, text=text, at_in=photo.at_in, height_in=photo.height_in,
                on=photo.on, hour=photo.hour, who=photo.who, remarks=photo.remarks, wide=photo.wide, tall=photo.tall,
                missing=not there[photo.file],
            )
        )  # fmt: skip
    return sorted(rows, key=lambda r: (rooms.get(r.room, 9999), r.surface, r.trench, r.on or "9", r.hour))


@router.get("/{job_id}/photos")
def photos(request: Request, job_id: JobId) -> list[PhotoRow]:
    """Every photo of a job, by place and time."""
    return photo_rows(jobs_of(request).get(job_id).job, pictures_of(request))


class PhotoKept(BaseModel):
    """A photo that is kept now, and the revision of its job."""

    photo: str
    revision: int


class Pin(BaseModel):
    """Where a photo is pinned: a surface of a room by two readings, or along a trench; and what is said of it."""

    room: PartId | None = None
    surface: Surface = "0"
    trench: PartId | None = None
    node: PartId | None = None
    at_in: float = 0
    height_in: float = 0
    who: Annotated[str, Field(max_length=60)] = ""
    remarks: Annotated[str, Field(max_length=500)] = ""
    on: Annotated[str, Field(max_length=10)] = ""


@router.post("/{job_id}/photos", openapi_extra=FILE_BODY, status_code=201)
async def add_photo(
    request: Request, job_id: JobId, pin: Annotated[Pin, Query()], id: Annotated[StepId | None, Query()] = None
) -> PhotoKept:
    """Keep a photo: turned upright, without position. `id`, made by the caller: sent again after an answer was lost,
    it is kept once."""
    jobs, pictures = jobs_of(request), pictures_of(request)
    job = await run_in_threadpool(jobs.get, job_id)
    _pinned(job.job, pin)
    picture = await run_in_threadpool(read_picture, await request.body())
    return await run_in_threadpool(_kept, jobs, pictures, job_id, pin, picture, id)


def _pinned(job: Job, pin: Pin) -> None:
    """Refuses a place that is none before anything is unpacked."""
    photo = {"file": "0" * 64, "wide": 1, "tall": 1}
    apply(job, EDITS.validate_python(_edits(pin, photo, "i-new")))


def _edits(pin: Pin, photo: dict[str, object], ident: str) -> list[dict[str, object]]:
    item = {**pin.model_dump(exclude=PLACE), **photo, "id": ident}
    place = pin.model_dump(include=PLACE)
    return [
        {"op": "add", "kind": "photo", "item": item},
        {"op": "pin_photo", "photo": ident, **place},
    ]


def _kept(
    jobs: Jobs, pictures: Pictures, job_id: str, pin: Pin, picture: Picture, step: str | None
) -> PhotoKept:  # fmt: skip
    pictures.keep(picture.sha, picture.files)
    values: dict[str, object] = {
        "file": picture.sha, "wide": picture.wide, "tall": picture.tall, "hour": picture.hour,
        "on": pin.on or picture.on,
    }  # fmt: skip

    def made(job: Job) -> Job:
        same = next((photo for photo in job.photos if photo.file == picture.sha), None)
        if same is not None:
            raise EditError(f"this photo is here already: {_where(job, same)}", key="file", value=same.id)
        return apply(job, EDITS.validate_python(_edits(pin, values, _next(job))))

    for _ in range(TRIES):
        try:
            record = jobs.change(job_id, jobs.get(job_id).revision, "photo", made, step)
        except StaleRevisionError:
            continue
        photo = next((item for item in record.job.photos if item.file == picture.sha), None)
        return PhotoKept(photo=photo.id if photo else "", revision=record.revision)
    raise EditError("the job is being changed without a pause; send the photo again", key="file")


def _next(job: Job) -> str:
    taken = set(job.ids())
    return next(f"i{n}" for n in range(1, len(taken) + 2) if f"i{n}" not in taken)


def _where(job: Job, photo: Photo) -> str:
    if photo.room is not None:
        at = readings(photo.at_in, photo.height_in, photo.surface)
        return f"{place_name(job, photo.room, photo.surface)}, {at}"
    if photo.node is not None:
        return job.node(photo.node).name
    return job.trench(photo.trench).name if photo.trench is not None else "pinned to no place"


@router.get("/{job_id}/photos/{photo}/{size}.jpg", response_class=FileResponse)
def photo_file(
    request: Request, job_id: JobId, photo: PartId, size: Literal["kept", "large", "small"]
) -> FileResponse:  # fmt: skip
    """A photo of this job in one of its sizes."""
    job = jobs_of(request).get(job_id).job
    found = next((item for item in job.photos if item.id == photo), None)
    path = pictures_of(request).path(found.file, size) if found is not None else None
    if found is None or path is None:
        raise HTTPException(404, "no such photo on this machine")
    headers = {"Cache-Control": "private, max-age=31536000", "ETag": f'"{found.file}.{size}"'}
    return FileResponse(path, media_type="image/jpeg", headers=headers)


@router.get("/{job_id}/photos.zip", response_class=StreamingResponse)
def photos_zip(request: Request, job_id: JobId) -> StreamingResponse:
    """Every photo with its place in its name, and a list of them as CSV."""
    job, pictures = jobs_of(request).get(job_id).job, pictures_of(request)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        for name, data in _archive(job, pictures):
            archive.writestr(name, data)
    out.seek(0)
    return StreamingResponse(out, media_type="application/zip", headers=attachment("photos.zip"))


def _archive(job: Job, pictures: Pictures) -> Iterator[tuple[str, bytes]]:
    files = {photo.id: photo.file for photo in job.photos}
    listed = io.StringIO()
    rows = csv.writer(listed)
    rows.writerow(["file", "place", "readings", "on", "hour", "who", "remarks", "sha256"])
    for number, row in enumerate(photo_rows(job, pictures), start=1):
        path = pictures.path(files[row.id], "kept")
        if path is None:
            continue
        name = f"{number:03d} {re.sub(r'[^A-Za-z0-9 -]+', '', row.place)[:60].strip()}.jpg"
        rows.writerow([name, row.place, row.text, row.on, row.hour, row.who, row.remarks, files[row.id]])
        yield name, path.read_bytes()
    yield "photos.csv", listed.getvalue().encode()
