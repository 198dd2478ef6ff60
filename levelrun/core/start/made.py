"""What one line makes: the box or panel at its end, its circuit, and the way between, with defaults for what was not
said."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from levelrun.core.boxes.edits import LETTERS
from levelrun.core.boxes.holding import STRAPPED
from levelrun.core.boxes.parts import OVERHEAD, SWITCHABLE, Box, is_worked
from levelrun.core.boxes.things import NEMA, ONE_HOT, WIDE_A
from levelrun.core.circuits.feed_words import screw_out
from levelrun.core.circuits.spaces import occupied
from levelrun.core.circuits.usual import title_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import ground_size, method, wire_sizes
from levelrun.core.editing import next_id, next_name
from levelrun.core.errors import EditError
from levelrun.core.job import Circuit, Job, Panel
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import CAMPER, WIRED, Kind
from levelrun.core.start.put_up import put_up, stands_there
from levelrun.core.start.sized import (
    TAIL,
    WHIP_METHOD,
    boxes_between,
    circuit_of,
    conductors_in,
    methods_of,
    places_of,
    size_of,
    sizes_of,
    sleeved,
)
from levelrun.core.start.there import Loose, said_anew
from levelrun.core.trade.conductors.sizing import Demand, choose, upsized_ground
from levelrun.core.trade.pipe.fill import Wires, sleeve_size
from levelrun.core.trade.pipe.pull_box import trade_inches
from levelrun.core.ways.unsaid import UPRIGHT, up_to
from levelrun.core.ways.walk import WalkLeg

THREE = 3  # wires to a switch that hangs behind its light, to an alarm from another
WHIP_IN = 48.0
LOCKED, LOCKED_A = "L5-30", 30  # what a motor of 120 V plugs into over 20 A: common practice, no source
LEAST_WHIP = "1/2"  # what is sold as a whip: common practice, no source
DISCONNECT = "Disconnect"
BEHIND = ("least_ampacity_a", "largest_breaker_a", "nameplate", "wire_size")  # said of a machine at its disconnect
USUAL_HEIGHT_IN = 48.0  # of what stands where no way says how high: common practice, no source
FACES = ("room_surface", "shop_surface", "masonry_inside", "outside_wall")


def edits_for(job: Job, book: Codebook, said: Asked) -> list[dict[str, Any]]:
    """The edits of one line, in the order in which each finds what it names."""
    if said.there is not None and said.there.on is not None:
        return _way_to(job, book, said, said.there, said.there.on)
    if said.on is not None:
        return _drawn_out(job, book, said, said.on)
    circuit = circuit_of(book, said)
    ends, edits = _ends(job, book, replace(said, circuit={**said.circuit, **_outlet(circuit)}))
    way, ident = next_id(job, "w"), next_id(job, "c")
    legs = _legs(job, book, said, circuit, ends) if said.legs else []
    path = [way] if legs else []
    chain = [{"box": end, "after": before, "path": path} for before, end in zip((None, *ends), ends, strict=False)]
    if said.switched_before:  # no way to it is said yet
        chain[-1]["path"] = []
    name, moved = said.name or _title(said), list[dict[str, Any]]()
    if said.there is not None:
        node = said.there.node
        called = f"{node.name} feeder" if isinstance(node, Panel) else title_of(book, node)
        name = said.name or (_title(said) if called == node.name else called)
        moved = [
            *(screw_out(node) if isinstance(node, Panel) else []),
            *(_at_its_height(job, said, said.there) if said.legs else []),
        ]
    item = {"id": ident, "name": name, "panel": said.panel.id, **circuit, "chain": chain}
    if said.kind.feeds:
        item["feeds"] = ends[-1]
    if "space" not in item:
        place = occupied(said.panel, job.circuits).place_for(Circuit.model_validate(item))
        item |= {"space": place[0], "half": place[1]} if place else {}
    walked = {"id": way, "name": item["name"], "start": said.panel.id, "legs": legs}
    return [
        *edits,
        *moved,
        *([{"op": "add", "kind": "way", "item": walked}] if legs else []),
        {"op": "add", "kind": "circuit", "item": item},
        *_boxes(book, said, way, legs),
        *_switched(job, said, ident, ends[-1]),
    ]


def _switched(job: Job, said: Asked, circuit: str, light: str) -> list[dict[str, Any]]:
    """The switch that a light was said to have, behind it: no way to it is said yet."""
    if not said.switched or said.switched_before:
        return []
    number = max(int(light[1:]), int(next_id(job, "b")[1:])) + 1
    item = {
        "id": f"b{number}", "name": next_name(job, LETTERS["switch"]), "kind": "switch", "use": said.use,
        "structure": said.structure or said.begin.structure, "height_in": USUAL_HEIGHT_IN,
    }  # fmt: skip
    return [
        {"op": "add", "kind": "box", "item": item},
        {"op": "chain", "circuit": circuit, "boxes": [item["id"]], "after": light},
    ]


def _boxes(book: Codebook, said: Asked, way: str, legs: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Junction boxes where a cable that was not asked for meets something else."""
    return [{"op": "put_box", "way": way, "leg": number} for number in boxes_between(book, said.legs, legs)]


def _drawn_out(job: Job, book: Codebook, said: Asked, on: Circuit) -> list[dict[str, Any]]:
    """The edits of a line that begins at a box: what stands at its end goes on the circuit of that box, behind it."""
    called = f"{said.begin.name} is on {on.name}"
    changed: dict[str, Any] = {}
    if isinstance(said.begin, Box) and said.begin.kind == "disconnect":  # what stands behind it, and its nameplate
        changed = {
            ("whip_size" if key == "wire_size" else key): said.circuit[key] for key in BEHIND if key in said.circuit
        }
        if on.name == DISCONNECT:  # until it is known what it is for
            changed["name"] = said.name or _title(said)
            changed |= _turned_off(book, said, on)
        plain = {key: value for key, value in said.circuit.items() if key not in BEHIND}
        said = replace(said, kind=replace(said.kind, whip=False), circuit=plain)
    if said.kind.feeds or said.kind.whip:
        raise EditError(f"{called}; {said.kind.title} begins at a panel", key="text", value=said.kind.title)
    if said.circuit:
        raise EditError(
            f"{called}, whose breaker and wire are said there; allowed: what, where, `as` a name", key="text"
        )
    if said.kind.volts != on.volts and said.kind.key not in ("outlet", "machine"):
        raise EditError(f"{called} of {on.volts} V; {said.kind.title} wants {said.kind.volts}", key="text")
    circuit = on.model_dump()
    ends, edits = _ends(job, book, replace(said, circuit=_outlet(circuit)))
    way = next_id(job, "w")
    legs = _legs(job, book, said, circuit, ends)
    end = said.there.node.name if said.there is not None else edits[-1]["item"]["name"]
    name = f"{said.begin.name} to {end}"
    return [
        *edits,
        {"op": "add", "kind": "way", "item": {"id": way, "name": name, "start": said.begin.id, "legs": legs}},
        *([{"op": "set", "kind": "circuit", "id": on.id, "set": changed}] if changed else []),
        {"op": "chain", "circuit": on.id, "boxes": ends, "after": said.begin.id},
        {"op": "route", "circuit": on.id, "box": ends[0], "path": [way]},
        *_boxes(book, said, way, legs),
        *_switched(job, said, on.id, ends[-1]),
    ]


def _turned_off(book: Codebook, said: Asked, on: Circuit) -> dict[str, Any]:
    """What a circuit to a disconnect is, once it is known what that turns off: the breaker of that machine, where
    none but the usual one was said, and protection outdoors (210.8(F))."""
    changed: dict[str, Any] = {}
    wanted = circuit_of(book, replace(said, legs=[], circuit={"volts": on.volts, **said.circuit}))
    if on.breaker_a == WIRED["disconnect"].breaker_a:
        changed["breaker_a"] = wanted["breaker_a"]
    if on.protection == "plain" and said.kind.box.get("outdoors") and changed.get("breaker_a", on.breaker_a) <= 50:
        changed["protection"] = "gfci"
    return changed


def _way_to(job: Job, book: Codebook, said: Asked, there: Loose, on: Circuit) -> list[dict[str, Any]]:
    """The edits of a line to what stands on a circuit already: its way, and the wire and method that this takes; a
    bigger wire that was said of the circuit stays."""
    if said.box is not None and said.box.kind == "disconnect":
        said = replace(said, kind=replace(said.kind, whip=False))
    circuit = circuit_of(book, replace(said, circuit={**said_anew(on), **said.circuit}))
    way = next_id(job, "w")
    usual = circuit_of(book, replace(said, legs=[], circuit=said_anew(on)))["wire_size"]
    if "wire_size" not in said.circuit and on.wire_size != usual:  # it was said
        circuit["wire_size"] = max(circuit["wire_size"], on.wire_size, key=wire_sizes(book).index)
    legs = _legs(job, book, said, circuit, list(there.ends))
    along = said.box is not None  # from a box on: what leaves the panel stays as it is
    changed = {} if along else {key: value for key, value in circuit.items() if getattr(on, key) != value}
    return [
        {"op": "add", "kind": "way", "item": {"id": way, "name": on.name, "start": said.begin.id, "legs": legs}},
        *([{"op": "set", "kind": "circuit", "id": on.id, "set": changed}] if changed else []),
        *({"op": "route", "circuit": on.id, "box": end, "path": [way]} for end in there.ends),
        *_at_its_height(job, said, there),
        *_boxes(book, said, way, legs),
    ]


def _at_its_height(job: Job, said: Asked, there: Loose) -> list[dict[str, Any]]:
    """What stood somewhere stands where its way ends."""
    node = there.node
    if node.room is not None or node.height_in != USUAL_HEIGHT_IN:
        return []
    kind = "panel" if isinstance(node, Panel) else "box"
    return [{"op": "set", "kind": kind, "id": node.id, "set": {"height_in": _height(job, said)}}]


def _outlet(circuit: dict[str, Any]) -> dict[str, Any]:
    """What of a circuit its receptacle follows."""
    return {key: circuit[key] for key in ("volts", "breaker_a", "neutral")}


def _title(said: Asked) -> str:
    what = said.kind.title.partition(" ")[2]
    title = said.fed or what[:1].upper() + what[1:]
    return f"{title} feeder" if said.kind.feeds else title


def _ends(job: Job, book: Codebook, said: Asked) -> tuple[list[str], list[dict[str, Any]]]:
    """The ids of what stands at the end (a disconnect before its equipment), and the edits that put there what does
    not stand yet."""
    before = said.kind.whip or said.switched_before
    if said.there is not None and not before:
        return [said.there.node.id], []
    if said.kind.feeds:
        return _panel(job, said)
    box = dict(said.kind.box)
    volts = said.circuit.get("volts", said.kind.volts)
    amps = int(said.circuit.get("breaker_a", said.kind.breaker_a))
    if said.kind is CAMPER and volts == 120:
        box["nema"] = ONE_HOT.get(amps, "")
    elif box["kind"] == "receptacle" and volts == 120 and amps == LOCKED_A and said.motor_hp:
        box["nema"] = box.get("nema") or LOCKED
    elif box["kind"] == "receptacle" and volts != 120 and not said.hardwired:
        box["gangs"] = 2 if amps >= WIDE_A else 1
        box["nema"] = box.get("nema") or NEMA.get(
            (amps, bool(said.circuit.get("neutral", _four_wires(said.kind)))), ""
        )
    if said.hardwired:
        box["kind"] = "equipment"
    if said.switched and box["kind"] in SWITCHABLE and not said.switched_before:
        box["switched"] = box.get("switched") or "whole"
    box |= {"use": said.use or box.get("use", ""), "where": said.where, "height_in": _height(job, said)}
    box["outdoors"] = said.outdoors or box.get("outdoors", False)
    box |= {"surface": True} if box["kind"] in STRAPPED and _on_the_face(book, said) else {}
    if said.circuit.get("least_ampacity_a"):
        box.pop("load_w", None)  # its plate says what it draws
    if said.load_a is not None:
        box["load_w"] = said.load_a * volts
    elif said.kind.load_a is not None:
        box["load_w"] = said.kind.load_a * volts
    ident = next_id(job, "b")
    names = [said.box_name or next_name(job, LETTERS[box["kind"]])]
    whole = {"id": ident, "name": names[0], "structure": said.structure or said.begin.structure, **box}
    if not before:
        return [ident], [{"op": "add", "kind": "box", "item": whole}]
    first = f"b{int(ident[1:]) + 1}"
    kind, there = "disconnect" if said.kind.whip else "switch", said.there.node if said.there is not None else None
    outdoors = there.outdoors if isinstance(there, Box) else box["outdoors"]
    switch = {
        "id": first, "name": next_name(job, LETTERS[kind]), "structure": whole["structure"], "kind": kind,
        "outdoors": outdoors, "where": said.where, "height_in": _height(job, said),
    }  # fmt: skip
    if said.there is not None:
        return [first, said.there.node.id], [{"op": "add", "kind": "box", "item": switch}]
    return [first, ident], [{"op": "add", "kind": "box", "item": item} for item in (switch, whole)]


def _on_the_face(book: Codebook, said: Asked) -> bool:
    """Whether pipe comes to it along the face of a wall: its box stands on that."""
    if not said.legs or said.there is not None or places_of(said.legs)[-1] not in FACES:
        return False
    return method(book, methods_of(book, said)[-1]).kind == "raceway"


def _four_wires(kind: Kind) -> bool:
    """Whether its receptacle has a neutral beside its two hots: of ranges and dryers; an outlet of 240 V has none."""
    return kind.neutral and kind.key != "outlet"


def _panel(job: Job, said: Asked) -> tuple[list[str], list[dict[str, Any]]]:
    ident, edits, structure = next_id(job, "p"), [], said.structure or said.panel.structure
    taken = {node.name.casefold() for node in job.nodes}
    name = said.fed if said.fed.casefold() not in taken else next_name(job, "P")
    if said.building:
        there = stands_there(job, said)
        made = put_up(job, said) if there is None else there.model_dump()
        structure = made["id"]
        edits += [{"op": "add", "kind": "structure", "item": made}] if there is None else []
        name = f"Panel {said.fed}" if name == made["name"] else name
    amps = said.circuit.get("breaker_a", said.kind.breaker_a)
    item = {
        "id": ident, "name": name, "structure": structure, "spaces": said.spaces or 12, "bonded": False,
        "main_a": amps if said.building else None, "bus_a": max(amps, 100.0), "height_in": _height(job, said),
        "where": said.where,
    }  # fmt: skip
    return [ident], [*edits, {"op": "add", "kind": "panel", "item": item}]


def _height(job: Job, said: Asked) -> float:
    """Where the legs end: the height of where they begin, up and down as they go; upward a panel is left by its
    top. From a ceiling or a floor along which the first goes, though nobody walked up or down to that; what hangs
    from a ceiling along which the last goes is there."""
    if not said.legs:
        return USUAL_HEIGHT_IN
    begin, first, last = said.begin, said.legs[0], said.legs[-1]
    rise = sum(leg.length_in * {"up": 1, "down": -1}.get(leg.go, 0) for leg in said.legs)
    hung = last.go not in UPRIGHT and said.kind.box.get("kind") in OVERHEAD
    structure = next((item for item in job.structures if item.id == begin.structure), None)
    gap = up_to(begin, structure, places_of(said.legs)[0]) if structure is not None else None
    if first.go in UPRIGHT or gap is None or not (rise or hung):
        gap = 0.0
    tall = begin.tall_in if isinstance(begin, Panel) and (first.go == "up" or gap > 0) else 0.0
    return min(max(begin.height_in + tall + gap + rise, -1200.0), 6000.0)


def _legs(job: Job, book: Codebook, said: Asked, circuit: dict[str, Any], ends: list[str]) -> list[dict[str, Any]]:
    """The legs whole: place, method and size of each, the box at the end, and the whip where there is one."""
    count = max(conductors_in(circuit), THREE if _three_wires(said) or said.multiwire else 0)
    size = circuit["wire_size"]
    ground = _ground(book, circuit) if size in wire_sizes(book) else size
    wires = [Wires("THWN-2", size, count), Wires("THWN-2", ground, 1)]
    legs: list[dict[str, Any]] = []
    methods, places = methods_of(book, said), places_of(said.legs)
    least = book.number("feeder_pipe_least_in") if said.kind.feeds else 0.0
    sizes = sizes_of(book, said.legs, methods, f"{size}-{count}", wires, least)
    guards = sleeved(book, said.legs, places, methods)
    for index, (leg, place, key, fits) in enumerate(zip(said.legs, places, methods, sizes, strict=True)):
        if place == TAIL and not leg.size and method(book, key).kind == "raceway":
            fits = max(fits, LEAST_WHIP, key=trade_inches)
        if (lies := guards.get(index)) is not None and not leg.size:
            fits = sleeve_size(book, key, methods[lies], sizes[lies]) or fits
        legs.append({
            "go": leg.go, "length_in": leg.length_in, "place": place, "method": key,
            "size": fits, "depth_in": leg.depth_in,
            "bends_deg": leg.bends_deg, "shapes": leg.shapes, "radius_in": leg.radius_in, "feed": leg.feed,
            "sleeve": leg.sleeve or lies is not None, "met": leg.met, "stands_off": leg.stands_off,
            "expansion": leg.expansion, "ribbon": leg.ribbon, "fished": leg.fished, "supposed": leg.supposed,
            "facts": leg.facts,
            "end": _joint(job, leg),
        })  # fmt: skip
    whip_said = said.kind.whip and len(legs) > 1 and legs[-1]["place"] == TAIL
    legs[-2 if whip_said else -1]["end"] = {"kind": "box", "node": ends[0]}
    if whip_said:
        legs[-1]["end"] = {"kind": "box", "node": ends[1]}
    elif said.kind.whip:
        size = max(size_of(book, "LFNC", "", wires), LEAST_WHIP, key=trade_inches)
        whip = {
            "go": "over",
            "length_in": said.whip_in or WHIP_IN,
            "place": TAIL,
            "method": WHIP_METHOD,
            "size": size,
        }
        legs.append({**whip, "end": {"kind": "box", "node": ends[1]}})
    return legs


def _three_wires(said: Asked) -> bool:
    """Whether it goes from what a switch works to that: power there and back, and the neutral (404.2(C)); or from a
    switch to an outlet of which it works one half; or from one alarm to the next: three wires each."""
    if said.box is None:
        return False
    end = said.kind.box
    half = said.box.kind == "switch" and end.get("switched") == "half"
    joined = said.box.kind == end.get("kind") == "smoke"  # alarms tell each other
    return half or joined or (is_worked(said.box) and end.get("kind") == "switch")


def _wanted(book: Codebook, circuit: dict[str, Any]) -> str:
    """The wire that its breaker wants."""
    breaker = circuit["breaker_a"]
    demand = Demand(
        load_a=breaker, breaker_a=breaker, volts=circuit["volts"], material=circuit.get("material", "cu"),
        wiring=circuit["method"],
    )  # fmt: skip
    return choose(book, demand).size


def _ground(book: Codebook, circuit: dict[str, Any]) -> str:
    """The ground of its wires, grown with a wire that was said larger than it must be (250.122(B))."""
    breaker, material, size = circuit["breaker_a"], circuit.get("material", "cu"), circuit["wire_size"]
    if circuit.get("nameplate"):
        return ground_size(book, breaker, material)
    base = min(_wanted(book, circuit), size, key=wire_sizes(book).index)
    return upsized_ground(book, breaker, material, base, size)


def _joint(job: Job, leg: WalkLeg) -> dict[str, Any]:
    word = (leg.to or "").lower()
    if word in ("lb", "body", "coupling"):
        return {"kind": word, "node": None}
    node = next((item.id for item in job.nodes if item.name.casefold() == word), None) if word else None
    if word and node is None:
        raise EditError(f"no box {leg.to!r} yet: put it there after", key="text", value=leg.to)
    return {"kind": "box", "node": node} if node else {"kind": "none", "node": None}
