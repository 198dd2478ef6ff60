"""Machines by the names that people give them: what each stands on, what it usually draws. Common practice, no
source; a nameplate decides."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from levelrun.core.codebook import load

BOX = {"plug": "receptacle", "wired": "equipment", "fan": "fan"}


@dataclass(frozen=True, kw_only=True)
class Machine:
    """A row of the table of machines. words: all its names; box: the fields of its box; breaker_a: what the trade
    gives it; use: the room whose rules it falls under; ask: its load has to be said."""

    words: tuple[str, ...]
    box: dict[str, Any]
    volts: int
    breaker_a: float
    use: str
    ask: bool


def _machine(row: dict[str, str]) -> Machine:
    box: dict[str, Any] = {"kind": BOX[row["how"]]}
    if row["serves"]:
        box["serves"] = row["serves"]
    if row["watts"]:
        box["load_w"] = float(row["watts"])
    if row["continuous"] == "yes":
        box["continuous"] = True
    if row["outdoors"] == "yes":
        box["outdoors"] = True
    return Machine(
        words=(row["machine"], *filter(None, row["also"].split(";"))),
        box=box,
        volts=int(row["volts"]),
        breaker_a=float(row["breaker_a"]),
        use=row["use"],
        ask=row["ask"] == "yes",
    )


MACHINES = tuple(_machine(row) for row in load().table("machines").rows)
BY_NAME = {word: machine for machine in MACHINES for word in machine.words}


def called(word: str) -> str:
    """A machine's name as a box bears it."""
    return word[:1].upper() + word[1:]
