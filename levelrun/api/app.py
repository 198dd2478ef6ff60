"""The application: routes, guard, problems, and the built interface."""

from __future__ import annotations

import tempfile
from collections import OrderedDict
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse
from pydantic import BaseModel
from starlette.background import BackgroundTask

from levelrun import __version__
from levelrun.api import calc, jobs, learning, photos, plans, rules, stages, standins, web
from levelrun.api.common import PROBLEMS, attachment, jobs_of
from levelrun.api.guard import Guard
from levelrun.api.here import routes as here_routes
from levelrun.api.here.opened import Certificate, Here
from levelrun.api.problems import install
from levelrun.api.worker import Worker
from levelrun.store import Database, Jobs
from levelrun.store.phones import Phones
from levelrun.store.pictures import Pictures

DATA_FILE = "levelrun.sqlite3"


class Health(BaseModel):
    """That the server is up. `read_only`: nothing can be changed, jobs can be read and exported."""

    status: str
    version: str
    read_only: bool


def create_app(
    data: Path,
    *,
    read_only: bool = False,
    port: int = 0,
    here: str | None = None,
    certificate: Certificate | None = None,
) -> FastAPI:
    """The app over the data folder `data`, which is made where it is missing. `here`: an address of this machine on
    its network, at which it is opened to paired phones from the start, empty for the usual one; None: only once that
    is asked for. Raises StoreError for a data file that cannot be used."""

    @asynccontextmanager
    async def life(app: FastAPI) -> AsyncIterator[None]:
        if here is not None:
            await app.state.here.open(app)
            app.state.here.pairing.open()
        yield
        await app.state.here.close()
        app.state.worker.close()
        app.state.jobs.db.close()

    app = FastAPI(
        title="Level Run",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        lifespan=life,
        responses=PROBLEMS,
        strict_content_type=False,
    )
    app.state.here = Here(address=here or "", certificate=certificate)
    app.state.here.port = port
    open_data(app, data, read_only=read_only)
    app.state.worker = Worker()
    app.state.forget_views = stages.forget_views
    install(app)
    app.add_middleware(GZipMiddleware, minimum_size=2000, compresslevel=1)
    app.add_middleware(Guard)

    @app.get("/api/health", tags=["plan"])
    def health(request: Request) -> Health:
        """That the server is up, and its version."""
        return Health(status="ok", version=__version__, read_only=jobs_of(request).db.read_only)

    @app.get("/api/backup", tags=["jobs"], response_class=FileResponse)
    def backup(request: Request) -> FileResponse:
        """A whole copy of all jobs, as one data file, while the store is in use."""
        folder = tempfile.TemporaryDirectory()
        copy = Path(folder.name) / DATA_FILE
        jobs_of(request).db.backup(copy)
        return FileResponse(
            copy,
            media_type="application/vnd.sqlite3",
            headers=attachment("levelrun-backup.sqlite3"),
            background=BackgroundTask(folder.cleanup),
        )

    for part in (calc, plans, jobs, learning, photos, rules, stages, standins, here_routes):
        app.include_router(part.router)
    web.install(app)
    return app


def open_data(app: FastAPI, data: Path, *, read_only: bool = False) -> None:
    """From now on `app` keeps its jobs in the folder `data`, which is made where it is missing. Raises StoreError."""
    db = Database(data / DATA_FILE, read_only=read_only)
    app.state.jobs = Jobs(db)
    app.state.pictures = Pictures(data, read_only=db.read_only)
    app.state.here.phones = Phones(db)
    app.state.playing = OrderedDict()
