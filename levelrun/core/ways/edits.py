"""Edits of ways: legs, what stands at their ends, walk text, which hops take them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from levelrun.core.boxes.parts import Box
from levelrun.core.circuits.edits import circuit_of, with_circuit
from levelrun.core.circuits.loads import all_loads
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable_sizes, method, raceway_sizes, wire_sizes
from levelrun.core.editing import Changes, EditBase, PartKind, Said, fields_text, made, next_id, next_name, with_parts
from levelrun.core.errors import EditError, LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.part import Id, Name, Size
from levelrun.core.trade.pipe.fill import smallest_size
from levelrun.core.ways.carried import cable_name, lying_in, strands_of
from levelrun.core.ways.contexts import weave
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.geometry import laid_out, leaves_at
from levelrun.core.ways.line import check_leg
from levelrun.core.ways.mends import grown
from levelrun.core.ways.parts import Joint, Leg, LegFacts, Way
from levelrun.core.ways.splicing import spliced
from levelrun.core.ways.walk import ENDS, WalkLeg, parse_walk

SHAPED = {"shapes", "radius_in"}


def bendable(book: Codebook, leg: Leg, where: str) -> None:
    """Raises EditError that names the field where a leg has a shape that cannot be made in it."""
    try:
        check_leg(book, leg)
    except LevelRunError as error:
        key = where if where == "text" else f"{where}.{error.key}"
        raise EditError(error.message, key=key, value=error.value, allowed=error.allowed) from None


LegNumber = Annotated[int, Field(ge=0, le=200)]


class AddLeg(EditBase):
    """Insert a leg before position `at`; at the end where `at` is null."""

    op: Literal["add_leg"]
    way: Id
    at: LegNumber | None = None
    leg: Leg

    def title(self) -> str:
        return "add leg"

    def apply(self, job: Job, book: Codebook) -> Job:
        return with_legs(job, self.way, lambda old: inserted(old, self.at, [self.leg]))


class SetLeg(EditBase):
    """Change fields of one leg."""

    op: Literal["set_leg"]
    way: Id
    leg: LegNumber
    set: Changes

    def title(self) -> str:
        return f"leg {self.leg + 1}: {fields_text(self.set)}"

    def apply(self, job: Job, book: Codebook) -> Job:
        said = {"supposed": False, **self.set} if "place" in self.set else self.set
        changed = made(Leg, {**leg_of(job, self.way, self.leg).model_dump(), **said}, "set")
        if SHAPED & self.set.keys():
            bendable(book, changed, "set")
        return with_legs(job, self.way, lambda old: (*old[: self.leg], changed, *old[self.leg + 1 :]))


class DropLeg(EditBase):
    """Remove one leg."""

    op: Literal["drop_leg"]
    way: Id
    leg: LegNumber

    def title(self) -> str:
        return f"remove leg {self.leg + 1}"

    def apply(self, job: Job, book: Codebook) -> Job:
        leg_of(job, self.way, self.leg)
        return with_legs(job, self.way, lambda old: (*old[: self.leg], *old[self.leg + 1 :]))


class PutBox(EditBase):
    """Put a junction box at the end of a leg: `name`, or the next free J-n."""

    op: Literal["put_box"]
    way: Id
    leg: LegNumber
    name: Name | None = None

    def title(self) -> str:
        return f"box after leg {self.leg + 1}"

    def apply(self, job: Job, book: Codebook) -> Job:
        leg_of(job, self.way, self.leg)
        return end_leg(job, self.way, self.leg, self.name or next_name(job, "J"))


class EndLeg(EditBase):
    """Say what stands at the end of a leg: LB, body, coupling, nothing (empty), or a box by name."""

    op: Literal["end_leg"]
    way: Id
    leg: LegNumber
    to: Annotated[str, Field(max_length=60)]

    def title(self) -> str:
        return f"leg {self.leg + 1} ends at {self.to or 'nothing'}"

    def apply(self, job: Job, book: Codebook) -> Job:
        leg_of(job, self.way, self.leg)
        return end_leg(job, self.way, self.leg, self.to)


class Walk(EditBase):
    """Add legs from walk text. `at` inserts before that leg; `replace` empties the way first."""

    op: Literal["walk"]
    way: Id
    text: Said
    at: LegNumber | None = None
    replace: bool = False

    def title(self) -> str:
        return f"walk {self.text.strip().splitlines()[0][:40]}" if self.text.strip() else "walk"

    def apply(self, job: Job, book: Codebook) -> Job:
        return walk(job, self, book)


class Route(EditBase):
    """Say which ways a hop takes, in order; none: it goes as the boxes stand."""

    op: Literal["route"]
    circuit: Id
    box: Id
    path: Annotated[tuple[Id, ...], Field(max_length=20)]

    def title(self) -> str:
        return "say which way it goes" if self.path else "take it off its way"

    def apply(self, job: Job, book: Codebook) -> Job:
        return route(job, self)


class Rewire(EditBase):
    """Take another wire size on a whole circuit: its cables with it where they are made in that size, its pipes grown
    where they must."""

    op: Literal["rewire"]
    circuit: Id
    size: Size

    def title(self) -> str:
        return f"wire it in {self.size}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return rewire(job, self, book)


def _off(job: Job, way_id: str) -> Job:
    """The job with no hop on a way."""
    circuits = []
    for circuit in job.circuits:
        chain = tuple(
            hop.model_copy(update={"path": tuple(item for item in hop.path if item != way_id)})
            if way_id in hop.path
            else hop
            for hop in circuit.chain
        )
        circuits.append(circuit if chain == circuit.chain else circuit.model_copy(update={"chain": chain}))
    return with_parts(job, circuits=tuple(circuits))


KINDS = (PartKind(name="way", field="ways", model=Way, letter="w", let_go=_off),)
EDITS = (AddLeg, SetLeg, DropLeg, PutBox, EndLeg, Walk, Route, Rewire)


def way_of(job: Job, way_id: str) -> Way:
    """The way with this id. Raises EditError."""
    try:
        return job.way(way_id)
    except KeyError:
        raise EditError(f"no way {way_id!r} in this job", key="way", value=way_id) from None


def leg_of(job: Job, way_id: str, index: int) -> Leg:
    """One leg of a way. Raises EditError that says how many there are."""
    way = way_of(job, way_id)
    if index >= len(way.legs):
        raise EditError(
            f"no leg {index + 1} in {way.name!r}; it has {len(way.legs)}",
            key="leg",
            value=index,
            allowed=[f"0 to {len(way.legs) - 1}"],
        )
    return way.legs[index]


def with_legs(job: Job, way_id: str, change: Any) -> Job:
    """The job with the legs of one way changed: a box that now stands on it is spliced into what goes through."""
    way = way_of(job, way_id)
    legs = change(way.legs)
    if len(legs) > 200:
        raise EditError("a way has 200 legs at most", key="leg", value=len(legs), allowed=["up to 200"])
    changed = way.model_copy(update={"legs": tuple(legs)})
    job = with_parts(job, ways=tuple(changed if item.id == way_id else item for item in job.ways))
    return spliced(job, way, changed)


def inserted(legs: tuple[Leg, ...], at: int | None, new: Sequence[Leg]) -> tuple[Leg, ...]:
    """Legs with new ones before place `at`, or last."""
    where = len(legs) if at is None else min(at, len(legs))
    return (*legs[:where], *new, *legs[where:])


def end_leg(job: Job, way_id: str, index: int, to: str) -> Job:
    """The job with something else at the end of a leg."""
    job, joint = _joint(job, way_id, index, to)
    leg = leg_of(job, way_id, index).model_copy(update={"end": joint})
    return with_legs(job, way_id, lambda legs: (*legs[:index], leg, *legs[index + 1 :]))


def _joint(job: Job, way_id: str, index: int, to: str) -> tuple[Job, Joint]:
    """What `to` names, made where it does not exist yet: a junction box at the height reached."""
    word = to.strip()
    if not word or word.lower() == "none":
        return job, Joint()
    if word.lower() in ENDS:
        return job, Joint(kind=ENDS[word.lower()].lower())
    for node in job.nodes:
        if node.name.casefold() == word.casefold():
            return job, Joint(kind="box", node=node.id)
    way = way_of(job, way_id)
    start = job.node(way.start)
    known = [leg.end.node for leg in way.legs[:index] if leg.end.node]
    near = job.node(known[-1]) if known else start
    nodes, structures = {node.id: node for node in job.nodes}, {item.id: item for item in job.structures}
    height = laid_out(way, leaves_at(way, start, None), nodes, structures)[index].y1
    box = made(
        Box,
        {
            "id": next_id(job, "b"),
            "name": word,
            "structure": near.structure,
            "height_in": min(max(height, -1200), 6000),
        },
        "to",
    )
    return with_parts(job, boxes=(*job.boxes, box)), Joint(kind="box", node=box.id)


def walk(job: Job, edit: Walk, book: Codebook) -> Job:
    """The job with legs added from walk text."""
    names = [node.name for node in job.nodes]
    said = parse_walk(book, edit.text, names)
    if edit.replace:
        job = with_legs(job, edit.way, lambda legs: ())
    at = edit.at
    for walked in said:
        way = way_of(job, edit.way)
        where = len(way.legs) if at is None else min(at, len(way.legs))
        leg = _from_walk(job, book, way, where, walked, edit.text)
        bendable(book, leg, "text")
        job = with_legs(job, edit.way, lambda legs, w=where, new=leg: inserted(legs, w, [new]))
        if walked.to:
            job = end_leg(job, edit.way, where, walked.to)
        at = None if at is None else at + 1
    return job


def _from_walk(job: Job, book: Codebook, way: Way, where: int, said: WalkLeg, text: str) -> Leg:
    """A whole leg from what was said; what was not said is as on the leg before."""
    before = way.legs[where - 1] if where else None
    place = said.place or (before.place if before else None)
    key = said.method or (before.method if before else None)
    for value, what in ((place, "where the leg lies"), (key, "in what: `in 12-2`, `in emt 3/4`")):
        if value is None:
            raise TextError(f"say {what}", key="text", value=text, at=len(text))
    size = said.size or (before.size if before and before.method == key else None)
    return made(
        Leg,
        {
            "go": said.go,
            "length_in": said.length_in,
            "place": place,
            "method": key,
            "size": size or _usual(job, book, way, where, key or ""),
            "depth_in": said.depth_in,
            "bends_deg": said.bends_deg,
            "shapes": said.shapes,
            "radius_in": said.radius_in,
            "feed": said.feed,
            "sleeve": said.sleeve,
            "met": said.met,
            "stands_off": said.stands_off,
            "expansion": said.expansion,
            "ribbon": said.ribbon,
            "fished": said.fished,
            "supposed": said.supposed,
            "facts": LegFacts(**said.facts),
        },
        "text",
    )


def _usual(job: Job, book: Codebook, way: Way, where: int, key: str) -> str:
    """Size of a method that was named without one: the cable of the circuit that goes there, or the smallest pipe
    that its wires fit. Where nothing lies in the way yet: the smallest pipe, and no cable."""
    view = view_of(job, book, way.id)
    here = view.lying(where - 1) if where else lying_in(view.context.carried)
    here = here or lying_in(view.context.carried)
    if method(book, key).kind != "raceway":
        return cable_name(here[:1]) if here else ""
    if any(item.wires.wire_size not in wire_sizes(book) for item in here):
        return ""
    if not here:
        return raceway_sizes(book, key)[0].size
    return smallest_size(book, key, [item.wires for item in strands_of(here, wire_sizes(book))]) or ""


def view_of(job: Job, book: Codebook, way_id: str) -> WayView:
    """A way of a job with what lies in it."""
    woven = weave(job, book, all_loads(job, book))
    return WayView(book, next(item for item in woven.contexts if item.way.id == way_id))


def route(job: Job, edit: Route) -> Job:
    """A hop on other ways."""
    circuit = circuit_of(job, edit.circuit)
    if edit.box not in {hop.box for hop in circuit.chain}:
        raise EditError(f"box {edit.box!r} is not on {circuit.name!r}", key="box", value=edit.box)
    for way_id in edit.path:
        way_of(job, way_id)
    chain = tuple(
        hop.model_copy(update={"path": edit.path, "length_in": None}) if hop.box == edit.box else hop
        for hop in circuit.chain
    )
    return with_circuit(job, circuit.model_copy(update={"chain": chain}))


def rewire(job: Job, edit: Rewire, book: Codebook) -> Job:
    """A circuit in another wire, with what that changes along its ways."""
    circuit = circuit_of(job, edit.circuit)
    if edit.size not in wire_sizes(book):
        raise EditError(f"no wire of size {edit.size!r}", key="size", value=edit.size, allowed=list(wire_sizes(book)))
    chain = tuple(hop.model_copy(update={"wire_size": ""}) for hop in circuit.chain)
    job = with_circuit(job, circuit.model_copy(update={"wire_size": edit.size, "chain": chain}))
    woven = weave(job, book, all_loads(job, book))
    for context in woven.contexts:
        if any(item.wires.circuit == circuit.id for item in context.carried):
            legs = _refitted(WayView(book, context), circuit.id)
            job = with_legs(job, context.way.id, lambda _, new=legs: new)
    return job


def _refitted(view: WayView, circuit: str) -> tuple[Leg, ...]:
    """The legs of a way as a circuit in another wire wants them."""
    legs = []
    for index, leg in enumerate(view.way.legs):
        group = next((g for g, _ in view.cables(index) if any(i.wires.circuit == circuit for i in g)), None)
        size: str | None = leg.size
        if group is not None and view.piped(index):
            size = grown(view.book, leg.method, leg.size, view.wires(index)) or leg.size
        elif group is not None and not leg.sleeve and len(view.cables(index)) == 1:
            count = max(sum(i.conductors for i in group), int(leg.size.partition("-")[2] or 0))
            wanted = f"{group[0].wires.wire_size}-{count}"
            size = wanted if wanted in cable_sizes(view.book, leg.method) else leg.size
        legs.append(leg if size == leg.size else leg.model_copy(update={"size": size}))
    return tuple(legs)
