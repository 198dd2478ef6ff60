"""Ground-fault and arc-fault protection: where it is asked, what gives it, what it covers (210.8, 210.12)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.circuits.codes import finding
from levelrun.core.circuits.facts import PLUGS, BoxPlace, CircuitView
from levelrun.core.circuits.rules.wire import change
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule

DWELLINGS = ("house", "cabin")
GFCI_PLACE = {
    "bath": "bath", "garage": "garage", "shop": "garage", "storage": "garage", "porch": "outdoors",
    "crawl": "crawl_space", "basement": "basement", "kitchen": "kitchen", "laundry": "laundry", "pump": "garage",
}  # fmt: skip
AFCI_PLACE = {
    "kitchen": "kitchen", "common": "common_room", "dining": "common_room", "bedroom": "bedroom", "closet": "closet",
    "hall": "hall", "laundry": "laundry",
}  # fmt: skip
OUTBUILT = ("shop", "storage", "pump")
GFCI_MOST_A = 50.0
AFCI_MOST_A = 20.0
APPLIANCES = ("range", "oven", "cooktop", "dryer", "microwave", "dishwasher")


@dataclass(frozen=True)
class Asked:
    """Why a box wants protection of a kind."""

    box: Box
    kind: str
    section: str
    text: str


def asked(view: CircuitView, box: Box) -> list[Asked]:
    """The protection that a box wants by its place and the edition."""
    place = view.places.get(box.id)
    if place is None:
        return []
    found = [_gfci(view, box, place), _afci(view, box, place)]
    return [item for item in found if item is not None]


def _gfci(view: CircuitView, box: Box, place: BoxPlace) -> Asked | None:
    if box.kind not in PLUGS or view.circuit.breaker_a > GFCI_MOST_A:
        return None
    keys = []
    if box.outdoors:
        keys.append("outdoors")
    elif place.use in GFCI_PLACE and (place.use not in OUTBUILT or place.structure_kind in ("shop", "shed")):
        keys.append(GFCI_PLACE[place.use])
    keys += ["sink"] if place.sink_near else []
    keys += ["tub_shower"] if place.tub_near else []
    keys += ["appliance_range"] if box.serves in APPLIANCES else []
    return _row(view.book, "gfci-places", box, "gfci", keys)


def _afci(view: CircuitView, box: Box, place: BoxPlace) -> Asked | None:
    if place.structure_kind not in DWELLINGS or box.outdoors or view.circuit.volts != 120:
        return None
    if view.circuit.breaker_a > AFCI_MOST_A or box.kind == "junction" or place.use not in AFCI_PLACE:
        return None
    return _row(view.book, "afci-places", box, "afci", [AFCI_PLACE[place.use]])


def _row(book: Codebook, table: str, box: Box, kind: str, keys: list[str]) -> Asked | None:
    for key in keys:
        row = book.table(table).find(key)
        counter_only = row is not None and row["asked"] == "counter" and box.serves == "counter"
        if row is not None and (row["asked"] == "yes" or counter_only):
            return Asked(box, kind, row["section"], row["text"])
    return None


def protection_rule(view: CircuitView) -> Iterator[Finding]:
    """Every box has the protection that its place asks."""
    lacking: dict[str, list[Asked]] = {"gfci": [], "afci": []}
    for box in view.context.boxes:
        have = view.given(box.id)
        for item in asked(view, box):
            if item.kind not in have:
                lacking[item.kind].append(item)
    for kind, items in lacking.items():
        if items:
            yield _finding(view, kind, items)


def _finding(view: CircuitView, kind: str, items: list[Asked]) -> Finding:
    words = {"gfci": "Ground-fault", "afci": "Arc-fault"}[kind]
    names = ", ".join(item.box.name for item in items[:4]) + (" and more" if len(items) > 4 else "")
    rooms = dict.fromkeys(view.places[item.box.id].room_name for item in items)
    where = ", ".join(list(rooms)[:3])
    return finding(
        f"{kind}-missing",
        view.circuit.id,
        None,
        f"{words} protection is missing",
        f"{names} in {where}: asked there by place. The breaker is {view.circuit.protection}.",
        items[0].section,
        about="circuit",
        measured=f"{len(items)} outlets without",
        limit="0",
        mends=[*_breaker(view, kind), *_first(view, kind, items)],
    )


def _breaker(view: CircuitView, kind: str) -> list[Mend]:
    now = view.circuit.protection
    better = "dual" if now not in ("plain", kind) else kind
    other = [item for box in view.context.boxes for item in asked(view, box) if item.kind != kind]
    if now == "plain" and any(item.kind not in view.given(item.box.id) for item in other):
        better = "dual"
    label = {"gfci": "GFCI breaker", "afci": "Arc-fault breaker", "dual": "Dual-function breaker"}[better]
    return [Mend(label, [change(view, protection=better)])]


def _first(view: CircuitView, kind: str, items: list[Asked]) -> list[Mend]:
    """A device at the first receptacle from which everything lacking hangs."""
    wanted = {item.box.id for item in items}
    for link in view.tree.links:
        box = view.boxes.get(link.box)
        if box is not None and box.kind in PLUGS and not box.protects and wanted <= set(view.tree.below(link.box)):
            edit = {"op": "set", "kind": "box", "id": box.id, "set": {"protects": kind}}
            return [Mend(f"At first outlet {box.name}", [edit])]
    return []


RULES: tuple[Rule[CircuitView], ...] = (protection_rule,)
