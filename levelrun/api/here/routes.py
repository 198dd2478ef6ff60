"""The door to the network over the wire: opened and shut at this machine, knocked at by phones."""

from __future__ import annotations

import io
import time
from datetime import UTC, datetime
from typing import Annotated

import segno
from fastapi import APIRouter, Request
from fastapi.responses import FileResponse, Response
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.guard import KEY
from levelrun.api.here.opened import Here
from levelrun.api.here.page import PAGE
from levelrun.api.here.pairing import PairingRefusedError
from levelrun.api.problems import problem
from levelrun.core.errors import LevelRunError

router = APIRouter(tags=["here"])
KEPT_S = 180 * 24 * 3600
CAUTION = (
    "Whoever shares this network can listen in unless you bring a certificate (--cert). Open it on a network that "
    "you trust, and shut it when the work is done."
)
CAUTION_TLS = "Calls are encrypted with your certificate. Shut it when the work is done."


class PhoneOut(BaseModel):
    """A phone that was paired."""

    id: str
    name: str
    made_at: str
    seen_at: str
    revoked: bool


class HereOut(BaseModel):
    """The door: open or not, where, the code that pairs with the seconds that it is still good, the phones.
    encrypted: a certificate is in use, and with it a page may be opened without a signal."""

    open: bool
    url: str
    code: str
    good_s: int
    encrypted: bool
    caution: str
    phones: list[PhoneOut]


def here_of(request: Request) -> Here:
    """The door of this app."""
    here: Here = request.app.state.here
    return here


def _out(here: Here) -> HereOut:
    code = here.pairing.code
    return HereOut(
        open=here.is_open,
        url=here.url,
        code=code.text if code else "",
        good_s=max(int(code.until - time.monotonic()), 0) if code else 0,
        encrypted=here.certificate is not None,
        caution=CAUTION_TLS if here.certificate else CAUTION,
        phones=[PhoneOut(**vars(phone)) for phone in here.phones.list()],
    )


@router.get("/api/here")
def here_now(request: Request) -> HereOut:
    """The door as it is."""
    return _out(here_of(request))


@router.post("/api/here/open")
async def here_open(request: Request) -> HereOut:
    """Open the door to the network this machine is on, with a code that pairs one phone."""
    here = here_of(request)
    await here.open(request.app)
    here.pairing.open()
    return _out(here)


@router.post("/api/here/code")
def here_code(request: Request) -> HereOut:
    """A new code, for one phone more."""
    here = here_of(request)
    if not here.is_open:
        raise LevelRunError("it is not open to the network: open it first", key="here")
    here.pairing.open()
    return _out(here)


@router.post("/api/here/close")
async def here_close(request: Request) -> HereOut:
    """Shut the door. Phones keep their keys for the next time."""
    here = here_of(request)
    await here.close()
    return _out(here)


@router.delete("/api/here/phones/{phone_id}")
def here_revoke(request: Request, phone_id: Annotated[str, Field(pattern=r"^[0-9a-f]{12}$")]) -> HereOut:
    """Take a phone's key away."""
    here = here_of(request)
    if not here.phones.revoke(phone_id):
        raise LevelRunError("no such phone", key="phone", value=phone_id)
    return _out(here)


@router.get("/api/here/code.svg", response_class=Response)
def here_svg(request: Request) -> Response:
    """The way in as a QR code. The letters stand behind #, which no server writes down."""
    here = here_of(request)
    code = here.pairing.code
    if not here.url or code is None:
        raise LevelRunError("no code is open", key="here")
    return qr(f"{here.url}/pair#{code.text}")


def qr(text: str) -> Response:
    """A text as a QR code, SVG."""
    out = io.BytesIO()
    segno.make(text, error="m", micro=False).save(out, kind="svg", scale=6, border=4, dark="#20262a", light="#ffffff")
    return Response(out.getvalue(), media_type="image/svg+xml", headers={"Cache-Control": "no-store"})


class Knock(BaseModel):
    """The code as it was typed, and what the phone calls itself."""

    model_config = ConfigDict(extra="forbid")
    code: Annotated[str, Field(min_length=1, max_length=40)]
    name: Annotated[str, Field(max_length=60)] = ""


class Paired(BaseModel):
    """A phone that is paired now; its key is in its cookie."""

    name: str


@router.post("/api/pair", response_model=Paired)
def pair(request: Request, knock: Knock) -> Response:
    """Pair this phone by the code on the laptop's screen."""
    here = here_of(request)
    try:
        here.pairing.guess(knock.code)
    except PairingRefusedError as refused:
        answer = problem(429, "Not paired", refused.text, key="code")
        answer.headers["Retry-After"] = str(max(int(refused.wait_s + 0.999), 0))
        return answer
    name = " ".join("".join(c for c in knock.name if c.isprintable()).split())[:40] or "phone"
    phone, key = here.phones.pair(name, datetime.now(UTC).isoformat(timespec="seconds"))
    answer = Response(Paired(name=phone.name).model_dump_json(), media_type="application/json")
    answer.set_cookie(
        KEY, key, max_age=KEPT_S, httponly=True, samesite="lax", secure=here.certificate is not None, path="/"
    )  # fmt: skip
    return answer


@router.get("/pair", response_class=FileResponse, include_in_schema=False)
def pair_page() -> FileResponse:
    """The one page that answers without a key."""
    return FileResponse(PAGE / "pair.html", headers={"Cache-Control": "no-store"})


@router.get("/pair.js", response_class=FileResponse, include_in_schema=False)
def pair_js() -> FileResponse:
    """What the page does."""
    return FileResponse(PAGE / "pair.js", media_type="text/javascript", headers={"Cache-Control": "no-store"})
