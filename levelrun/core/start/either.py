"""Amperes that stand by a machine and may be its own or those of its breaker: water heater 30a, kiln 40a."""

from __future__ import annotations

from dataclasses import replace

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.start.asked import Asked
from levelrun.core.start.sized import circuit_of, gauge_of, stays_on, usual_watts
from levelrun.core.trade.conductors.sizing import breaker_ratings

# What chargers of vehicles draw; other ratings are those of their breakers. Common practice, no source.
CHARGERS_A = (16.0, 24.0, 32.0, 40.0, 48.0, 64.0, 72.0, 80.0)
# What is bought by its watts, so that amperes by it are its breaker's: common practice, no source.
BY_WATTS = ("water_heater", "space_heater")


def breaker_or_load(book: Codebook, said: Asked) -> tuple[Asked, list[str]]:
    """The line with such amperes as the one or the other, and what is told of it: its own as long as the wire that is
    said bears that; without a wire the machine decides. Taken as its own the wire comes out larger."""
    amps = said.load_a
    if not said.either or amps is None or amps not in breaker_ratings(book):
        return _within_its_breaker(book, said), []
    if _its_own(book, said, amps):
        told = f"{amps:g} A is taken as what it draws; say `{amps:g}a breaker` where it is the breaker's"
        return said, [told] if stays_on(book, said.kind) else []  # else its breaker is of as many
    made = replace(said, load_a=None, circuit={"breaker_a": amps, **said.circuit})
    return _within_its_breaker(book, made), [
        f"{amps:g} A is taken as its breaker; say `of {amps:g} amps` where it draws that"
    ]


def _within_its_breaker(book: Codebook, said: Asked) -> Asked:
    """A machine that draws too different from make to make to be held against its breaker is taken to draw no more
    than that bears. A water heater is much the same everywhere."""
    breaker, kind = said.circuit.get("breaker_a"), said.kind
    if breaker is None or not kind.load_first or said.load_a is not None or _serves(said) == "water_heater":
        return said
    typical = kind.load_a or usual_watts(book, kind) / said.circuit.get("volts", kind.volts)
    most = breaker / 1.25 if stays_on(book, kind) else breaker
    return replace(said, load_a=most) if typical > most else said


def _serves(said: Asked) -> str:
    return str(said.kind.box.get("serves") or "")


def _its_own(book: Codebook, said: Asked, amps: float) -> bool:
    if _serves(said) == "vehicle":
        return amps in CHARGERS_A
    gauge = gauge_of(book, said)
    if gauge is None:
        return said.count == 1 and _serves(said) not in BY_WATTS
    bare = {key: value for key, value in said.circuit.items() if key != "wire_size"}
    unsized = replace(said, circuit=bare, legs=[replace(leg, size=None) for leg in said.legs])
    order = wire_sizes(book)
    return order.index(str(circuit_of(book, unsized)["wire_size"])) <= order.index(gauge)
