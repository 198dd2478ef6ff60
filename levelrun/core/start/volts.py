"""The volts of what stands at the end of a line, where nobody says them; and an outlet of amperes that none is made
for."""

from __future__ import annotations

from dataclasses import replace

from levelrun.core.boxes.things import OUTLETS_A
from levelrun.core.circuits.usual import HEATER
from levelrun.core.errors import EditError
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import CAMPER

WIDE_OUTLET_A = 20
CAMPER_240_A = 50


def with_volts(said: Asked) -> tuple[Asked, list[str]]:
    """The line with the volts of what stands at its end, and what is told of them where nobody said them: a heater
    that is plugged in is of 120 V, one that is wired of 240 V; an outlet of more than 20 A of 240 V, since those of
    120 V are rare in a building (common practice, no source). Refuses an outlet that is not made."""
    _made(said)
    amps = said.circuit.get("breaker_a", 0)
    open_yet = "volts" not in said.circuit and not said.on
    if said.kind.box.get("serves") == HEATER and open_yet and not said.there:
        if _plugged(said):
            told = "a heater that is plugged in is taken to be of 120 V; say 240v where it is not"
            return replace(said, circuit={**said.circuit, "volts": 120}), [told]
        return said, ["a heater is taken to be of 240 V; its plate decides: say `120v` where that has it"]
    if said.kind is CAMPER and amps == CAMPER_240_A and not said.on:
        return replace(said, circuit={"volts": 240, **said.circuit, "neutral": True}), []
    if said.kind is CAMPER or said.kind.key != "outlet" or not open_yet or amps <= WIDE_OUTLET_A:
        return said, []
    told = f"an outlet of {amps:g} A is taken to be of 240 V; say 120v where it is not"
    return replace(said, circuit={**said.circuit, "volts": 240}), [told]


def _plugged(said: Asked) -> bool:
    return said.kind.box.get("kind") == "receptacle" and not said.hardwired


def _made(said: Asked) -> None:
    amps = said.circuit.get("breaker_a", 0)
    if not _plugged(said) or said.kind.box.get("nema") or said.on or amps <= OUTLETS_A[-1]:
        return
    made = ", ".join(f"{rating:g}" for rating in OUTLETS_A)
    raise EditError(
        f"no outlet of {amps:g} A is made for a house: {made}; `machine {amps:g}a` is wired, "
        f"`{amps:g}a feeder to the shop` feeds a panel there", key="text", value=amps,
    )  # fmt: skip
