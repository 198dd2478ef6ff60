"""How many circuits and spaces a house wants, before anything is drawn."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.circuits.service import Appliance, Dwelling, LoadCalculation, standard
from levelrun.core.circuits.usual import usual
from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError

SPARE_PERCENT = 20
FT2_PER_LIGHTS = 600.0
FT2_PER_OUTLETS = 500.0


@dataclass(frozen=True)
class CountLine:
    """So many circuits of a kind, the spaces they take, and why."""

    name: str
    circuits: int
    spaces: int
    reason: str


@dataclass(frozen=True)
class Count:
    """The whole count, the next panel with a fifth to spare, and the load that it would calculate to."""

    lines: list[CountLine]
    circuits: int
    spaces: int
    panel_spaces: int
    load: LoadCalculation


def count_circuits(
    book: Codebook, floor_area_ft2: float, kitchens: int = 1, baths: int = 1, laundry: int = 1, garages: int = 0,
    outdoors: int = 1, appliances: tuple[str, ...] = (),
) -> Count:  # fmt: skip
    """Circuits of a dwelling by its size and what it has. Raises LevelRunError for a negative count or a use that the
    table of loads does not have."""
    for key, value in (("floor_area_ft2", floor_area_ft2), ("kitchens", kitchens), ("baths", baths),
                       ("laundry", laundry), ("garages", garages), ("outdoors", outdoors)):  # fmt: skip
        if value < 0:
            raise LevelRunError(f"{key} {value:g}: 0 or more", key=key, value=value, allowed=["0 or more"])
    small = kitchens * int(book.number("kitchen_circuits"))
    lines = [
        CountLine("Small appliance, 20 A", small, small, "two a kitchen, 210.11(C)(1)"),
        CountLine("Bath, 20 A", baths, baths, "210.11(C)(3)"),
        CountLine("Laundry, 20 A", laundry, laundry, "210.11(C)(2)"),
        CountLine("Garage, 20 A", garages, garages, "210.11(C)(4)"),
        CountLine("Outdoors, 20 A", outdoors, outdoors, "apart: common practice, no source"),
        _by_area("Lights, 15 A", floor_area_ft2, FT2_PER_LIGHTS, 2),
        _by_area("Outlets, 20 A", floor_area_ft2, FT2_PER_OUTLETS, 1),
    ]
    named = []
    for use in appliances:
        row = usual(book, use)
        lines.append(CountLine(row.title, 1, row.poles, "a circuit of its own: common practice, no source"))
        named.append(Appliance(use, row.watts, row.title, row.neutral and row.volts == 120))
    kept = [line for line in lines if line.circuits]
    spaces = sum(line.spaces for line in kept)
    wanted = spaces * (100 + SPARE_PERCENT) / 100
    panel = next((size for size in (12, 20, 24, 30, 40, 42, 60, 84) if size >= wanted), 84)
    load = standard(book, Dwelling(floor_area_ft2, small, laundry, tuple(named)))
    return Count(kept, sum(line.circuits for line in kept), spaces, panel, load)


def _by_area(name: str, area: float, each: float, least: int) -> CountLine:
    count = max(-(-int(area) // int(each)), least) if area else 0
    return CountLine(name, count, count, f"one for each {each:.0f} ft², {least} at least: common practice, no source")
