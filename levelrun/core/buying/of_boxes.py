"""What boxes take: the box, its ring, device, plate, connectors, and what joins its wires."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from levelrun.core.boxes.catalogue import WEATHERPROOF, BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.holding import model_in
from levelrun.core.boxes.joints import connector_for, joints_of
from levelrun.core.boxes.parts import LAMPS, PLUGS, Box
from levelrun.core.buying.items import device, each, enclosure
from levelrun.core.buying.lines import At, Line, Lines
from levelrun.core.circuits.usual import nema_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable, cable_sizes
from levelrun.core.site.parts import Side

SQUARE_FACES = ("square-18", "square-21", "square-30")
RINGS = (0.5, 0.625, 0.75, 1.0, 1.25, 2.0)  # in: as mud rings are raised
PROUD_IN = 1.5  # farther out than this an extension brings the box forward
CONNECTORS = ((0.52, "3/8"), (0.7, "3/4"), (0.95, "1"), (1.2, "1-1/4"), (1.45, "1-1/2"), (9.0, "2"))
TWO_A_CLAMP_IN = 0.45


def lines_of_box(
    book: Codebook,
    box: Box,
    entering: tuple[Entering, ...],
    at: At,
    how: tuple[str, int, float, str],
    circuit_a: float,
    side: Side | None = None,
) -> Lines:
    """Everything that a box takes. how: connectors by twist or lever, cables in one clamp, the finish over the studs
    there, the colour of devices; circuit_a: the breaker of its circuit, 0 where it is on none; side: its wall."""
    joined, clamps, finish, colour = how
    model = model_in(book, box, entering, side)
    found = (
        []
        if box.old
        else [
            *_box(box, model, at, finish),
            *_devices(book, box, at, circuit_a, colour),
            *_faces(box, model, at, colour),
        ]
    )
    if box.old and box.protects:  # a protecting device in the place of the old one
        found += _devices(book, box, at, circuit_a, colour)
    found += _connectors(book, box, model, entering, at, clamps)
    found += _joined(book, box, model, entering, at, joined)
    return tuple(found)


def _box(box: Box, model: BoxModel, at: At, finish_in: float) -> Iterator[Line]:
    if box.kind == "tail":
        return
    if box.kind == "disconnect":
        fused = {True: "fused ", False: "non-fused ", None: ""}[box.fused]
        rated = box.rating_a or 60
        yield Line(each("panels", f"{fused}disconnect {rated:g} A"), 1, at, "listed for its place")
        return
    if box.kind == "equipment":
        return
    yield Line(enclosure(model.key, model.name), 1, at, model.name)
    if box.outdoors and model.key != WEATHERPROOF:
        yield Line(each("boxes", "outdoor box kit"), 1, at, "seals it to the siding")
    if box.air_tight:
        yield Line(each("boxes", "vapour boot"), 1, at, "air-tight in an outside wall")
    if box.blocking or box.kind == "fan":
        yield Line(each("boxes", "fan brace" if box.kind == "fan" else "box bar"), 1, at, "where no stud stands")
    if model.key in SQUARE_FACES and box.kind in (*PLUGS, "switch") and not box.surface:
        raised = next((ring for ring in RINGS if ring >= finish_in - 1e-9), RINGS[-1])
        yield Line(each("boxes", f"mud ring {box.gangs}-gang {raised:g} in"), 1, at, "by the finish")
    if box.set_out_in > PROUD_IN:
        yield Line(each("boxes", f"extension ring {box.gangs}-gang"), 1, at, "brings it to the finish")


def _devices(book: Codebook, box: Box, at: At, circuit_a: float, colour: str) -> Iterator[Line]:
    weather = " weather-resistant" if box.outdoors or box.use == "porch" else ""
    if box.kind in PLUGS:
        yield from _plug(book, box, at, weather, circuit_a, colour)
    elif box.kind == "switch":
        kinds = {2: "switch single-pole", 3: "switch three-way", 4: "switch four-way"}
        yield Line(device(kinds[box.ways], colour), 1, at, "")
        if box.gangs > 1:
            yield Line(device(kinds[2], colour), box.gangs - 1, at, "the other gangs")
    elif box.kind == "smoke":
        yield Line(each("devices", f"smoke alarm{' and monoxide' if box.monoxide else ''}"), 1, at, "interconnected")
    elif box.kind in LAMPS and box.serves == "":
        lamp = "ceiling fan" if box.kind == "fan" else "light, as chosen"
        yield Line(each("devices", lamp), 1, at, "chosen by the owner")


def _plug(book: Codebook, box: Box, at: At, weather: str, circuit_a: float, colour: str) -> Iterator[Line]:
    nema = nema_of(book, box)
    if nema and nema not in ("5-15", "5-20"):
        yield Line(each("devices", f"receptacle {nema}"), 1, at, "by what it serves")
        return
    # a single receptacle has the rating of its circuit, of several 15 A ones may stand on 20 A (210.21(B))
    amps = 20 if nema == "5-20" or (circuit_a >= 20 and box.serves not in ("", "counter")) else 15
    guarded = {"gfci": "GFCI ", "afci": "arc-fault ", "dual": "dual-function "}.get(box.protects, "")
    yield Line(
        device(f"{guarded}receptacle {amps} A tamper-resistant{weather}", colour), box.gangs, at,
        "tamper-resistant in a dwelling (406.12)" + (", weather-resistant outdoors (406.9)" if weather else ""),
    )  # fmt: skip


def _faces(box: Box, model: BoxModel, at: At, colour: str) -> Iterator[Line]:
    if box.kind in (*PLUGS, "switch"):
        if box.cover == "in_use" or (box.outdoors and box.kind in PLUGS and box.cover == ""):
            yield Line(each("devices", "in-use cover"), 1, at, "wet place (406.9(B))")
        elif box.cover == "damp" or box.outdoors:
            yield Line(each("devices", "damp cover"), 1, at, "tight while shut")
        elif box.surface and model.key in SQUARE_FACES:
            yield Line(each("boxes", f"raised cover {box.gangs}-gang"), 1, at, "on the surface")
        else:
            kind = {"switch": "switch", "receptacle": "receptacle"}.get(box.kind, "device")
            yield Line(device(f"plate {box.gangs}-gang {kind}", colour), 1, at, "")
    elif box.kind == "junction":
        shape = (
            "round" if model.round else "4-11/16" if model.wide_in > 4.2 else "4 in" if model.gangs > 1 else "1-gang"
        )
        weather = "gasketed " if box.outdoors or model.key == WEATHERPROOF else ""
        yield Line(each("boxes", f"{weather}blank cover {shape}"), 1, at, "stays in reach (314.29)")


def _connectors(
    book: Codebook, box: Box, model: BoxModel, entering: Sequence[Entering], at: At, clamps: int
) -> Iterator[Line]:
    """A box with clamps of its own, or a plastic one of a single gang, wants none."""
    own = model.clamps or (model.material == "plastic" and box.kind not in ("disconnect", "equipment"))
    if own and box.kind not in ("disconnect", "equipment"):
        return
    yield from cable_connectors(book, [item.what for item in entering if item.cable and item.what], at, clamps)


def cable_connectors(book: Codebook, cables: Sequence[str], at: At, clamps: int) -> Iterator[Line]:
    """Connectors for cables that come into one enclosure: one a cable, or two small ones in one that is listed for
    it where that is the habit."""
    sizes: dict[str, int] = {}
    small = 0
    for what in cables:
        size, _, name = what.partition(" ")
        wide = cable(book, name, size).wide_in if size in cable_sizes(book, name) else 0.5
        trade = next(trade for most, trade in CONNECTORS if wide <= most)
        if clamps > 1 and wide <= TWO_A_CLAMP_IN:
            small += 1
        else:
            sizes[trade] = sizes.get(trade, 0) + 1
    for trade, count in sizes.items():
        yield Line(each("small", f"cable connector {trade}"), count, at, "one cable a clamp unless listed")
    if small:
        yield Line(
            each("small", "cable connector 3/8, listed for two"), -(-small // 2), at, "two small cables in one"
        )


def _joined(
    book: Codebook, box: Box, model: BoxModel, entering: Sequence[Entering], at: At, kind: str
) -> Iterator[Line]:
    for joint in joints_of(book, box, model, entering):
        name = connector_for(book, joint, kind) or "splice block, as listed"
        what = f"{joint.what}: {len(joint.wires)} wire{'s' * (len(joint.wires) > 1)}"
        yield Line(each("small", name), 1, at, "capped" if joint.capped else what)
