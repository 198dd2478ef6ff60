"""The joints of a box: which wires are joined there, and what joins them.

Wires of one circuit that do the same are joined, with a pigtail to each device that wants it; one wire that meets one
device lands on it; grounds of all circuits are joined together (250.148). Pigtails rather than wires through a device
is a habit of the trade, and a rule for the neutral of a multiwire circuit (300.13(B)).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.catalogue import BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.parts import LAMPS, PLUGS
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Box

TERMINALS = ("equipment", "disconnect", "tail")
FIXTURES = (*LAMPS, "smoke")
FIXTURE_LEAD = "18"  # the leads of a lamp or an alarm
LISTED = "connector listed for aluminum"  # a twist-on one for copper loosens and heats on it (110.14)
NEUTRAL, GROUND, SWITCHED = "neutral", "ground", "switched hot"


@dataclass(frozen=True, kw_only=True)
class Joint:
    """Wires that are joined. what: what they do; wires: their sizes, pigtails and leads with them; pigtails: how many
    of them are cut for a device or the box. One wire alone is capped."""

    circuit: str
    what: str
    wires: tuple[str, ...]
    pigtails: int
    material: str = "cu"

    @property
    def capped(self) -> bool:
        """A wire that is not used here."""
        return len(self.wires) == 1


def joints_of(book: Codebook, box: Box, model: BoxModel, entering: Sequence[Entering]) -> list[Joint]:
    """Every joint of a box. None where its wires land on terminals of their own: equipment, disconnects."""
    here = [item for item in entering if item.side != "through"]
    if box.kind in TERMINALS or not here:
        return []
    of = owner_of(entering)
    doing: dict[str, dict[str, list[Entering]]] = {}
    for item in here:
        for what in numbered(words_of(item)):
            doing.setdefault(of(item, what), {}).setdefault(what, []).append(item)
    found = [joint for owner, own in doing.items() for joint in _of_circuit(book, box, own, owner)]
    return [*found, *_grounds(book, box, model, here)]


def words_of(item: Entering) -> Sequence[str]:
    """What each of its wires is for."""
    return item.words or ("hot",) * item.count


def numbered(words: Sequence[str]) -> list[str]:
    """What wires are for, several of a kind told apart: traveller 1, traveller 2."""
    seen: Counter[str] = Counter()
    found: list[str] = []
    for word in words:
        seen[word] += 1
        found.append(f"{word} {seen[word]}" if words.count(word) > 1 else word)
    return found


def owner_of(entering: Sequence[Entering]) -> Callable[[Entering, str], str]:
    """The circuit with whose wires one that does this is joined: its own, and one for the neutral of two that share
    it."""
    one = {item.owner: item.shared for item in entering if item.shared}
    return lambda item, what: one.get(item.owner, item.owner) if what == NEUTRAL else item.owner


def _grounds(book: Codebook, box: Box, model: BoxModel, here: Sequence[Entering]) -> Iterator[Joint]:
    grounds = [item.ground for item in here if item.ground]
    tails = box.gangs if box.kind in (*PLUGS, "switch") else 1 if box.kind in LAMPS else 0
    tails += model.metal
    if grounds and len(grounds) + tails > 1 and not (len(grounds) == 1 and tails == 1):
        size = max(grounds, key=wire_sizes(book).index)
        yield Joint(
            circuit="", what=GROUND, wires=(*grounds, *[size] * tails), pigtails=tails, material=_metal(here)
        )  # fmt: skip


def _metal(here: Sequence[Entering]) -> str:
    return "al" if any(item.material == "al" for item in here) else "cu"


def _of_circuit(
    book: Codebook, box: Box, doing: Mapping[str, Sequence[Entering]], circuit: str
) -> Iterator[Joint]:  # fmt: skip
    lit = next((word for word in doing if word.startswith(SWITCHED)), "hot")
    for what, items in doing.items():
        wires = [item.size for item in items]
        tails, leads = _takers(box, what, lit)
        if tails == 1 and len(wires) == 1 and not leads:
            continue  # lands on its device
        if _on_device(box, what) and len(wires) == 1:
            continue
        size = max(wires, key=wire_sizes(book).index)
        ends = (*wires, *[size] * tails, *[FIXTURE_LEAD] * leads)
        yield Joint(circuit=circuit, what=what, wires=ends, pigtails=tails, material=_metal(items))


def _takers(box: Box, what: str, lit: str) -> tuple[int, int]:
    """Pigtails that devices want of what does this, and leads of a lamp or alarm that join it."""
    if box.kind in PLUGS:
        hot = (what.startswith("hot") and box.switched != "whole") or (what.startswith(SWITCHED) and box.switched)
        return (box.gangs, 0) if what == NEUTRAL or hot else (0, 0)
    if box.kind == "switch":
        return (box.gangs, 0) if what.startswith("hot") else (0, 0)
    if box.kind in FIXTURES:
        alarm = box.kind == "smoke" and what in ("hot", "interconnect")
        return (0, 1) if what in (NEUTRAL, lit) or alarm or what.startswith(SWITCHED) else (0, 0)
    return (0, 0)


def _on_device(box: Box, what: str) -> bool:
    """Switched legs and travellers leave a switch from its screws."""
    return box.kind == "switch" and what.startswith((SWITCHED, "traveller"))


def connector_for(book: Codebook, joint: Joint, kind: str) -> str:
    """What joins it: the first row of the table of connectors that takes so many wires of that metal, together so
    thick. `kind`: twist or lever. Empty over the last row: a splice of its own kind. Common practice, no source: the
    packet's own list decides."""
    if joint.material == "al":
        return LISTED
    area = sum(_area(book, size) for size in joint.wires)
    order = wire_sizes(book)
    largest = max((order.index(size) for size in joint.wires if size in order), default=0)
    for row in book.table("connectors").rows:
        if row["kind"] != kind or int(row["most"]) < len(joint.wires):
            continue
        if order.index(row["largest"]) >= largest and float(row["area_cmil"]) >= area:
            return row["name"]
    return ""


def _area(book: Codebook, size: str) -> float:
    row = book.table("ch9-table8").find(size)
    return float(row["area_cmil"]) if row is not None else 1620.0
