"""What can be bought, by its name: its unit, the shelf where it stands, the name under which it is priced."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.buying.parts import Unit

SHELVES = (
    "cable", "wire", "pipe", "fittings", "boxes", "devices", "panels", "ground", "small", "trench", "fees",
)  # fmt: skip
SHELF_NAMES = {
    "cable": "Cable", "wire": "Wire for pipe", "pipe": "Pipe", "fittings": "Pipe fittings",
    "boxes": "Boxes and rings",
    "devices": "Devices, covers", "panels": "Panels, breakers", "ground": "Ground, bond", "small": "Small parts",
    "trench": "Trench, span", "fees": "Marks and fees",
}  # fmt: skip


@dataclass(frozen=True, order=True)
class Item:
    """A thing to buy. key: its name in lists and sentences; by the foot or each; shelf: where a shop keeps it;
    priced_as: the name in the price book, where kinds of one price share it; told: how a shop calls it, where that is
    not its name here. stick_ft: of pipe,
    what a stick holds."""

    shelf: str
    key: str
    unit: Unit = "each"
    priced_as: str = ""
    stick_in: float = 0.0
    told: str = ""

    @property
    def price_key(self) -> str:
        """What the price book calls it."""
        return self.priced_as or self.key

    @property
    def title(self) -> str:
        """As a shop calls it."""
        return self.told or self.key.removesuffix(" stick") + (" pipe, 10 ft" if self.stick_in else "")

    @property
    def cut(self) -> bool:
        """Cut from a coil or reel."""
        return self.unit == "ft"


@lru_cache(maxsize=4096)
def each(shelf: str, key: str) -> Item:
    """A thing that is counted."""
    return Item(shelf, key)


@lru_cache(maxsize=256)
def enclosure(key: str, name: str) -> Item:
    """A box of the catalogue."""
    return Item("boxes", f"box {key}", told=f"{name} box")


@lru_cache(maxsize=512)
def device(key: str, colour: str) -> Item:
    """A device or plate in its colour; all colours cost the same."""
    return Item("devices", key, told=f"{key}, {colour}")


@lru_cache(maxsize=1024)
def cable(what: str) -> Item:
    """Cable by the foot, as cut lists call it."""
    return Item("cable", what, "ft")


@lru_cache(maxsize=1024)
def wire(what: str, colour: str) -> Item:
    """A single wire by the foot, in its colour; all colours cost the same."""
    metal = " al" if what.endswith(" al") else ""
    return Item("wire", f"{what} {colour}", "ft", f"{what.split()[0]} wire{metal}")


@lru_cache(maxsize=1024)
def tubing(name: str, size: str) -> Item:
    """Pipe that comes in coils, by the foot."""
    return Item("pipe", f"{name} {size}", "ft")


@lru_cache(maxsize=1024)
def stick(name: str, size: str, stick_in: float) -> Item:
    """Pipe that comes in sticks; cut lists give the pieces."""
    return Item("pipe", f"{name} {size} stick", stick_in=stick_in)


PANEL_SPACES = (8, 12, 20, 30, 42, 60, 84)
PANEL_AMPS = (60, 100, 125, 150, 200, 225, 400)


@lru_cache(maxsize=256)
def panel(spaces: int, amps: float, main: bool, make: str) -> Item:
    """A panel: priced as the next size up in spaces and amperes."""
    more = next((n for n in PANEL_SPACES if n >= spaces), PANEL_SPACES[-1])
    over = next((n for n in PANEL_AMPS if n >= amps), PANEL_AMPS[-1])
    kind = "main" if main else "lugs"
    key = f"panel {spaces} spaces {kind} {amps:g} A"
    return Item("panels", f"{key}, {make}" if make else key, "each", f"panel {more} spaces {kind} {over} A")


@lru_cache(maxsize=1024)
def breaker(kind: str, make: str) -> Item:
    """A breaker, for the panel that it goes into."""
    return Item("panels", f"breaker {kind}, {make}" if make else f"breaker {kind}", "each", f"breaker {kind}")


@lru_cache(maxsize=2048)
def fitting(name: str, size: str, what: str) -> Item:
    """Something that screws or glues on a pipe."""
    return Item("fittings", f"{name} {size} {what}")
