"""The application: routes, guard, problems, and the built interface."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from levelrun import __version__
from levelrun.api import building, calc, circuits, jobs, plans, rules
from levelrun.api.guard import Guard
from levelrun.api.problems import install
from levelrun.store import Database, Jobs

WEB = Path(__file__).parent.parent / "web_dist"


class Health(BaseModel):
    """That the server is up."""

    status: str
    version: str


def create_app(data: Path, *, read_only: bool = False) -> FastAPI:
    """The app over the data folder `data`, which is made where it is missing. Raises StoreError for a data file that
    cannot be used."""
    db = Database(data / "levelrun.sqlite3", read_only=read_only)

    @asynccontextmanager
    async def life(app: FastAPI) -> AsyncIterator[None]:
        yield
        db.close()

    app = FastAPI(title="Level Run", version=__version__, docs_url=None, redoc_url=None, lifespan=life)
    app.state.jobs = Jobs(db)
    install(app)
    app.add_middleware(Guard)

    @app.get("/api/health", tags=["plan"])
    def health() -> Health:
        """That the server is up, and its version."""
        return Health(status="ok", version=__version__)

    app.include_router(calc.router)
    app.include_router(plans.router)
    app.include_router(jobs.router)
    app.include_router(rules.router)
    app.include_router(building.router)
    app.include_router(circuits.router)
    if WEB.is_dir():
        app.mount("/assets", StaticFiles(directory=WEB / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def page(path: str) -> FileResponse:
            """The interface; unknown addresses under /api stay 404."""
            if path.startswith("api/"):
                raise HTTPException(404, f"no such address: /{path}")
            file = WEB / path
            inside = file.resolve().is_relative_to(WEB.resolve()) and file.is_file()
            return FileResponse(file if inside else WEB / "index.html")

    return app
