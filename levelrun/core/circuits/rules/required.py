"""Circuits that serve their place alone: appliances, kitchens, baths, laundries, garages (210.11(C), 210.52(B))."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.parts import LAMPS, PLUGS
from levelrun.core.circuits.facts import BoxPlace, CircuitView
from levelrun.core.circuits.rules.splitting import split
from levelrun.core.circuits.rules.wire import about, fitting_wire, mended, rewired
from levelrun.core.circuits.usual import at_will, usual_of
from levelrun.core.findings import Finding
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule

OUTLETS = ("receptacle", "device", "light", "fan", "equipment")
OWN_PLACES = {"bath": "210.11(C)(3)", "laundry": "210.11(C)(2)", "garage": "210.11(C)(4)"}
EXCEPT = {"garage": " Receptacles outdoors may join it.", "bath": " In one bath alone its other outlets may join."}
TWENTY_A = 20.0


def sharing_rule(view: CircuitView) -> Iterator[Finding]:
    """Appliances alone; kitchen, bath and laundry for themselves; outdoors off the lights (210.11(C), 210.52(B))."""
    boxes = view.context.boxes
    loads = [box for box in boxes if box.kind not in ("disconnect", "junction", "switch")]
    heaters = all(
        box.serves == "space_heater" for box in loads
    )  # several on one circuit as a matter of course (424.4)
    for box in boxes:
        if view.dedicated(box) and len(loads) > 1 and not heaters:
            title = usual_of(view.book, box).title
            yield about(
                view, "sharing", f"{title} {box.name} shares its circuit",
                f"{len(boxes)} boxes hang on {view.name}."
                + (" One of them is planned in use at a time." if at_will(view.book, box) else ""),
                "common practice, no source",
                measured=f"{len(boxes)} boxes", limit="1", mends=split(view, [box], title),
            )  # fmt: skip
    yield from _own_places(view)
    out = [b for b in boxes if _outdoors(view, b) and b.kind in PLUGS]
    lamps = [b for b in boxes if b.kind in LAMPS and not _outdoors(view, b)]
    if out and lamps:
        yield about(
            view, "outdoor-shares", "Outdoor outlets hang on indoor lights",
            f"A wet trip at {out[0].name} darkens {_room_of(view, lamps[0])}.",
            "common practice, no source", mends=split(view, out, "Outdoors"),
        )  # fmt: skip


def _room_of(view: CircuitView, box: Box) -> str:
    place = view.places.get(box.id)
    return place.room_name if place else "the room"


def _outdoors(view: CircuitView, box: Box) -> bool:
    place = view.places.get(box.id)
    return box.outdoors or (place is not None and place.use == "porch")


def _own_places(view: CircuitView) -> Iterator[Finding]:
    """What stands beside outlets whose circuit serves their place alone (210.52(B), 210.11(C))."""
    outlets = [(b, view.places[b.id]) for b in view.context.boxes if b.id in view.places and b.kind in OUTLETS]
    plugs = [(box, place) for box, place in outlets if box.kind in PLUGS and not view.dedicated(box)]
    kitchen = [box for box, place in plugs if _small_appliance(box, place)]
    if kitchen:
        away = [
            box for box, place in outlets if not _small_appliance(box, place) and not _in_kitchen(view, box, place)
        ]
        if away:
            yield about(
                view, "required-shares", f"A small-appliance circuit feeds {away[0].name}",
                f"{kitchen[0].name} is a kitchen or dining receptacle: its circuit serves such alone.",
                "210.52(B)(1), 210.52(B)(2)", mends=split(view, _alike(view, away), "General"),
            )  # fmt: skip
        return
    for use, section in OWN_PLACES.items():
        inside = [(box, place) for box, place in plugs if place.use == use and not box.outdoors]
        dwelling = use != "garage" or any(place.dwelling for _, place in inside)
        if not inside or not dwelling:
            continue
        rooms = {place.room for _, place in inside}
        away = [box for box, place in outlets if not _belongs(use, box, place, rooms)]
        if away and _asked(use, [box for box, _ in inside], [view.places[box.id] for box in away]):
            yield about(
                view, "required-asked", f"Has the {use} another 20 A circuit?",
                f"One of 20 A serves the receptacles that a {use} must have, and nothing else; {away[0].name} hangs "
                f"here with {inside[0][0].name}. Where such a one is there, this may feed both."
                + (" In a garage for one vehicle its other outlets may join." if use == "garage" else ""),
                section, mends=split(view, _alike(view, away), "General"),
            )  # fmt: skip
        elif away:
            yield about(
                view, "required-shares", f"The {use} circuit feeds {away[0].name}",
                f"Its receptacles stand on a 20 A circuit for the {use} alone.{EXCEPT.get(use, '')}", section,
                mends=split(view, _alike(view, away), "General"),
            )  # fmt: skip


def _asked(use: str, inside: list[Box], away: list[BoxPlace]) -> bool:
    """Whether it is a question: in a house that is not drawn another circuit may serve what the place must have; a
    garage for one vehicle may have its other outlets on the same (210.11(C)(4) exception 2, from memory)."""
    return all(box.room is None for box in inside) or (use == "garage" and all(one.use == use for one in away))


def _alike(view: CircuitView, boxes: list[Box]) -> list[Box]:
    """Of boxes that go, those that may go together: of a bath, laundry or garage alone, or of none of these."""

    def place(box: Box) -> str:
        use = view.places[box.id].use
        return use if use in OWN_PLACES and box.kind in PLUGS else ""

    return [box for box in boxes if place(box) == place(boxes[0])]


def _small_appliance(box: Box, place: BoxPlace) -> bool:
    """A receptacle of kitchen, pantry or dining room, or over a counter there; not one for an appliance."""
    in_kitchen = place.use in ("kitchen", "dining") and box.serves in ("", "counter", "refrigerator")
    counter = box.serves == "counter" and place.use not in ("bath", "laundry", "garage", "shop", "utility")
    return box.kind in PLUGS and not box.outdoors and (in_kitchen or counter)


def _in_kitchen(view: CircuitView, box: Box, place: BoxPlace) -> bool:
    """An appliance of the kitchen beside its receptacles: whether it wants its own circuit is another finding."""
    return box.kind in PLUGS and place.use in ("kitchen", "dining") and view.dedicated(box)


def _belongs(use: str, box: Box, place: BoxPlace, rooms: set[str]) -> bool:
    """Whether an outlet may hang on the circuit of that place: receptacles of such places; in one bath alone its
    other outlets (210.11(C)(3) exception); by a garage receptacles outdoors (210.11(C)(4) exception 1)."""
    if box.kind in PLUGS and place.use == use and not box.outdoors:
        return True
    if use == "garage" and box.kind in PLUGS and box.outdoors:
        return True
    return use == place.use == "bath" and len(rooms) == 1 and place.room in rooms


def twenty_rule(view: CircuitView) -> Iterator[Finding]:
    """Receptacles that the code puts on 20 A: kitchen and dining, bath, laundry (210.11(C), 210.52(B)(1)); of those
    that were there before nobody asks it."""
    c = view.circuit
    if c.breaker_a >= TWENTY_A or c.volts != 120:
        return
    here = [(box, view.places[box.id]) for box in view.plugs if box.id in view.places]
    for box, place in here:
        kitchen = _small_appliance(box, place) and box.serves != "refrigerator"
        section = "210.52(B)(1), 210.11(C)(1)" if kitchen else OWN_PLACES.get(place.use)
        if section is None or box.old or box.outdoors or not place.dwelling or place.use == "garage":
            continue
        size = fitting_wire(view, TWENTY_A)
        yield about(
            view, "required-20", f"{box.name} stands on {c.breaker_a:g} A",
            f"Receptacles of the {place.use} stand on 20 A.", section, measured=f"{c.breaker_a:g} A", limit="20 A",
            mends=mended(f"20 A on {size}", rewired(view, size, breaker_a=TWENTY_A)),
        )  # fmt: skip
        return


RULES: tuple[Rule[CircuitView], ...] = (sharing_rule, twenty_rule)
