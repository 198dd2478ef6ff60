"""The world outside over the wire: the laser tape."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel

from levelrun.core.measure import format_length
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
