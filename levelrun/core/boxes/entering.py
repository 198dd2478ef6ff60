"""What enters a box: cables with their wires, or single wires from a pipe."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.kept import kept_hash


@dataclass(frozen=True, kw_only=True)
class Entering:
    """One cable, or the wires of one pipe: `count` insulated wires of `size`, a ground, and where it comes from.
    words: what each wire is for; what: the cable, as it is called, empty for wires in pipe; hop: its circuit and the
    box that it goes to, by id; metal: it comes in metal, pipe or armour. inside: its wires lie in the cable of
    another circuit; shared: the circuit under which the neutral goes that two of them share, empty where it is its
    own; hue: where the colours of its hots begin in pipe."""

    size: str
    count: int
    ground: str
    cable: bool
    side: str
    other: str
    circuit: str
    words: tuple[str, ...] = ()
    what: str = ""
    material: str = "cu"
    hop: tuple[str, str] = ("", "")
    metal: bool = False
    inside: bool = False
    shared: str = ""
    hue: int = 0

    __hash__ = kept_hash

    @property
    def owner(self) -> str:
        """Its circuit, by id where that is known."""
        return self.hop[0] or self.circuit
