"""Ground-fault and arc-fault protection: where it is asked, what gives it, what it covers (210.8, 210.12)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from levelrun.core.boxes.parts import PLUGS
from levelrun.core.circuits.codes import finding
from levelrun.core.circuits.facts import BoxPlace, CircuitContext, CircuitView
from levelrun.core.circuits.loads import GIVES, OUTLET_AFCI
from levelrun.core.circuits.rules.wire import change
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.rulebook import Rule

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
DEVICE_MOST_A = 20.0
APPLIANCE_MOST_A = 60.0
AFCI_MOST_A = 20.0
APPLIANCES = ("range", "oven", "cooktop", "dryer", "microwave", "dishwasher", "sump_pump")
HEATED_FLOORS = ("bath", "kitchen")  # where cables in the floor want it (424.44)
UNSERVED = ("switch", "junction")
# A generator inlet brings power and is no outlet; heat cable has ground-fault protection of equipment (426.28).
OUTDOOR_EXCEPTED = ("generator", "heat_cable")


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
    if place is None or box.old:
        return []
    found = [_gfci(view, box, place), _afci(view, box, place)]
    return [item for item in found if item is not None]


def _gfci(view: CircuitView, box: Box, place: BoxPlace) -> Asked | None:
    amps = view.circuit.breaker_a
    keys = _by_place(box, place) if box.kind in PLUGS and amps <= GFCI_MOST_A else []
    if box.kind not in UNSERVED and amps <= APPLIANCE_MOST_A and box.serves in APPLIANCES:
        keys.append(f"appliance_{box.serves}")
    if box.serves == "floor_heat" and place.use in HEATED_FLOORS:
        keys.append("floor_heat")
    if box.kind in PLUGS and box.serves == "heat_cable":  # one that is wired has 30 mA protection of its own kind
        keys.append("heat_cable")
    if box.kind in PLUGS and box.serves == "vehicle":
        keys.append("vehicle_outlet")
    last = box.kind == "disconnect" and all(link.after != box.id for link in view.tree.links)
    fast = (box.kind == "equipment" or last) and box.serves not in OUTDOOR_EXCEPTED
    if fast and amps <= GFCI_MOST_A and (box.outdoors or place.use == "porch"):
        keys.append("outdoor_hvac" if box.serves == "air_conditioner" else "outdoor_outlet")
    if box.kind == "light" and view.circuit.volts == 120 and (place.level_kind == "crawl" or place.use == "crawl"):
        keys.append("crawl_light")
    return _row(view.book, "gfci-places", box, "gfci", keys)


def _by_place(box: Box, place: BoxPlace) -> list[str]:
    """The places of 210.8(A) that a receptacle stands in. A shop that is said and not drawn is taken for a garage or
    a building of its own; one that is drawn within a house is a room of it."""
    keys = []
    apart = place.structure_kind in ("shop", "shed") or not place.room
    if box.outdoors:
        keys.append("outdoors")
    elif place.use in GFCI_PLACE and (place.use not in OUTBUILT or apart):
        keys.append(GFCI_PLACE[place.use])
    keys += ["basement"] if place.level_kind == "basement" and not box.outdoors else []
    keys += ["sink"] if place.sink_near else []
    keys += ["by_gear"] if place.by_gear and box.serves == "" else []
    keys += ["tub_shower"] if place.tub_near else []
    return keys + (["indoor_damp"] if place.damp and not box.outdoors else [])


def _afci(view: CircuitView, box: Box, place: BoxPlace) -> Asked | None:
    if not place.dwelling or box.outdoors or view.circuit.volts != 120:
        return None
    if view.circuit.breaker_a > AFCI_MOST_A or box.kind == "junction" or place.use not in AFCI_PLACE:
        return None
    return _row(view.book, "afci-places", box, "afci", [AFCI_PLACE[place.use]])


def _row(book: Codebook, table: str, box: Box, kind: str, keys: list[str]) -> Asked | None:
    for key in keys:
        row = book.table(table).find(key)
        counter_only = row is not None and row["asked"] == "counter" and box.serves == "counter"
        if row is not None and not book.in_force(row.get("from", "")):
            continue
        if row is not None and (row["asked"] == "yes" or counter_only):
            return Asked(box, kind, row["section"], row["text"])
    return None


def protection_rule(view: CircuitView) -> Iterator[Finding]:
    """Every box has the protection that its place asks."""
    lacking: dict[str, list[Asked]] = {"gfci": [], "afci": []}
    by_outlet: list[Asked] = []
    for box in view.context.boxes:
        have = view.given(box.id)
        for item in asked(view, box):
            if item.kind not in have:
                lacking[item.kind].append(item)
            elif item.kind == "afci" and "afci" not in GIVES[view.circuit.protection]:
                by_outlet.append(item)
    for kind, items in lacking.items():
        if items:
            yield _finding(view, kind, items)
    if by_outlet and view.circuit.method == "raceway":
        yield finding(
            "afci-outlet",
            view.circuit.id,
            None,
            "Arc-fault protection starts at the first outlet",
            "Allowed only where the home run to it is steel pipe, MC or AC. Plastic pipe wants the breaker.",
            by_outlet[0].section,
            about="circuit",
            mends=_breaker(view, "afci"),
        )


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
        f"{names} in {where}: asked there by place. The breaker is {view.circuit.protection}."
        + (" A circuit that is drawn out wants it as a new one does." if view.old else ""),
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
    """A device at the first receptacle from which everything lacking hangs: for arc faults only behind a metal home
    run (210.12(A)) or of a circuit that was there before (210.12(E)), for ground faults only as such devices are
    made, 120 V and 20 A."""
    made = view.circuit.volts == 120 and view.circuit.breaker_a <= DEVICE_MOST_A
    drawn_out = bool(view.old)
    if not made or (kind == "afci" and view.circuit.method not in OUTLET_AFCI and not drawn_out):
        return []
    wanted = {item.box.id for item in items}
    for link in view.tree.links:
        box = view.boxes.get(link.box)
        if box is not None and box.kind in PLUGS and not box.protects and wanted <= set(view.tree.below(link.box)):
            edit = {"op": "set", "kind": "box", "id": box.id, "set": {"protects": kind}}
            return [Mend(f"At first outlet {box.name}", [edit])]
    return []


def wanted_protection(
    book: Codebook, job: Job, panel: Panel, circuit: Circuit, boxes: tuple[Box, ...], places: Mapping[str, BoxPlace]
) -> Literal["plain", "gfci", "afci", "dual"]:
    """What a breaker must give so that every box has what its place asks, beside what devices on its chain give."""
    here = tuple((box.id, places[box.id]) for box in boxes if box.id in places)
    context = CircuitContext(
        circuit=circuit,
        panel=panel,
        habits=job.habits,
        boxes=boxes,
        places=here,
        lengths=(),
        feeder_percent=0.0,
        partner=None,
        fed=None,
        fed_load_a=0.0,
        other_building=False,
    )
    view = CircuitView(book, context)
    kinds = {item.kind for box in boxes for item in asked(view, box) if item.kind not in view.given(box.id)}
    if len(kinds) == 2:
        return "dual"
    return "gfci" if "gfci" in kinds else "afci" if "afci" in kinds else "plain"


def unsaid_rule(view: CircuitView) -> Iterator[Finding]:
    """A receptacle in no drawn room, of which nobody has said what the place is for: protection goes by it."""
    given = GIVES[view.circuit.protection]
    if view.circuit.breaker_a > GFCI_MOST_A or len(given) == 2:
        return
    for box in view.plugs:
        if (
            box.old
            or box.room is not None
            or box.serves in APPLIANCES
            or (box.id in view.places and view.places[box.id].use)
        ):
            continue
        yield finding(
            "place-unsaid",
            view.circuit.id,
            None,
            f"Where does {box.name} stand?",
            "Ground-fault and arc-fault protection go by the room: garage, kitchen, bath, laundry, outdoors.",
            "210.8, 210.12",
            about="circuit",
            measured="not said",
            limit="its place",
            mends=[_placed(view, box, *use) for use in PLACED],
        )
        return


PLACED: tuple[tuple[str, dict[str, Any], str, str], ...] = (
    ("In a garage", {"use": "garage"}, "gfci", "garage"),
    ("Outdoors", {"outdoors": True}, "gfci", "outdoors"),
    ("In a hall", {"use": "hall"}, "afci", "hall"),
)


def _placed(view: CircuitView, box: Box, label: str, said: dict[str, Any], kind: str, place: str) -> Mend:
    """A place for a receptacle, with the breaker that it asks for."""
    edits: list[dict[str, Any]] = [{"op": "set", "kind": "box", "id": box.id, "set": said}]
    asks = _row(view.book, f"{kind}-places", box, kind, [place]) is not None
    asks &= kind == "gfci" or (view.circuit.volts == 120 and view.circuit.breaker_a <= AFCI_MOST_A)
    if not asks or kind in view.given(box.id):
        return Mend(label, edits)
    better = "dual" if view.circuit.protection not in ("plain", kind) else kind
    words = {"gfci": "a GFCI breaker", "afci": "an arc-fault breaker", "dual": "a dual-function breaker"}[better]
    return Mend(f"{label}, on {words}", [*edits, change(view, protection=better)])


RULES: tuple[Rule[CircuitView], ...] = (protection_rule, unsaid_rule)
