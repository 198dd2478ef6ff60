"""One line of what a job takes: so much of a thing, for a place in it."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.buying.items import Item


@dataclass(frozen=True)
class At:
    """Where a thing goes: the part by kind and id, as it is called; the room and building it stands in, the circuit
    that it serves (by id), the stage where it is seen."""

    kind: str
    ident: str
    name: str
    room: str = ""
    structure: str = ""
    circuit: str = ""
    stage: str = "runs"


@dataclass(frozen=True)
class Line:
    """So much of a thing for one place, and why. amount: pieces, or feet of one cut; of pipe in sticks inches of a
    piece."""

    item: Item
    amount: float
    at: At
    why: str = ""
    hop: tuple[str, str] = ("", "")


Lines = tuple[Line, ...]
