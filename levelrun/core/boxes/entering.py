"""What enters a box: cables with their wires, or single wires from a pipe."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.kept import kept_hash


@dataclass(frozen=True, kw_only=True)
class Entering:
    """One cable, or the wires of one pipe: `count` insulated wires of `size`, a ground, and where it comes from."""

    size: str
    count: int
    ground: str
    cable: bool
    side: str
    other: str
    circuit: str

    __hash__ = kept_hash
