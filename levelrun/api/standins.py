"""The world outside over the wire: the laser tape, the marks desk, the price desk."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from levelrun.core.codebook import load
from levelrun.core.measure import format_length
from levelrun.standins.marks import MarksDesk, SimulatedDesk
from levelrun.standins.prices import Asked, PriceDesk, Quote, SimulatedPriceDesk
from levelrun.standins.tape import SimulatedTape, Tape

router = APIRouter(prefix="/api", tags=["stand-ins"])


class TapeOut(BaseModel):
    """A reading of the laser tape. `simulated`: no device measured it."""

    inches: float
    text: str
    device: str
    simulated: bool


TAPE: Tape = SimulatedTape()


@router.post("/tape/read")
def tape_read() -> TapeOut:
    """The next reading of the laser tape; the one that ships is simulated."""
    reading = TAPE.read()
    return TapeOut(
        inches=reading.inches, text=format_length(reading.inches), device=reading.device, simulated=reading.simulated
    )


class MarksQuestion(BaseModel):
    """A call to the marks desk: where it is dug, and the day of the call; empty: today."""

    model_config = ConfigDict(extra="forbid")
    where: Annotated[str, Field(min_length=1, max_length=120)]
    called: date | None = None


class TicketOut(BaseModel):
    """What the marks desk answers. `simulated`: nothing was marked."""

    number: str
    good_from: date
    good_to: date
    wait_days: int
    colours: dict[str, str]
    desk: str
    simulated: bool


DESK: MarksDesk = SimulatedDesk()


@router.post("/marks/call")
def marks_call(q: MarksQuestion) -> TicketOut:
    """A ticket of the utility-marks desk; the one that ships is simulated."""
    book = load()
    days = (int(book.number("marks_wait_days")), int(book.number("marks_good_days")))
    return TicketOut(**vars(DESK.call(q.called or date.today(), q.where, *days)))


class AskedIn(BaseModel):
    """A pack of a thing at a supplier, and the price known of it."""

    model_config = ConfigDict(extra="forbid")
    item: Annotated[str, Field(min_length=1, max_length=60)]
    supplier: Annotated[str, Field(min_length=1, max_length=40)]
    pack: Annotated[float, Field(gt=0, le=10_000)] = 1
    unit: Literal["each", "ft"] = "each"
    dollars: Annotated[float, Field(gt=0, le=100_000)]


class PriceQuestion(BaseModel):
    """What is asked of the price desk; on: the day, empty: today."""

    model_config = ConfigDict(extra="forbid")
    rows: list[AskedIn] = Field(min_length=1, max_length=500)
    on: date | None = None


PRICES: PriceDesk = SimulatedPriceDesk()


@router.post("/desk/prices")
def desk_prices(q: PriceQuestion) -> list[Quote]:
    """Prices, what is out and for how long, what is offered instead; the desk that ships is simulated."""
    return PRICES.ask([Asked(**row.model_dump()) for row in q.rows], q.on or date.today())
