"""What else could be done: each as edits of the job, where it applies."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.editing import next_id
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Circuit, Job, Span, Trench
from levelrun.core.trade.conductors.sizing import Demand, choose
from levelrun.core.trench.feeding import crossing_hops
from levelrun.core.ways.laid import laid_legs

Edit = dict[str, Any]
LARGE_A = 40.0  # from here aluminum is sold and used
HEAD_IN = 168.0  # how high a new span is held, until it is taped


@dataclass(frozen=True, kw_only=True)
class Other:
    """Another way: what it takes, what it costs to change later, in words; the edits that make it so."""

    key: str
    label: str
    takes: str
    later: str
    edits: list[Edit]


def others_of(job: Job, book: Codebook) -> list[Other]:
    """Every other way that applies to a job."""
    return [other for kind in KINDS for other in kind(job, book)]


def _set(kind: str, ident: str, **values: object) -> Edit:
    return {"op": "set", "kind": kind, "id": ident, "set": values}


def _habits(job: Job, **values: object) -> Edit:
    return {"op": "set_job", "set": {"habits": {**job.habits.model_dump(), **values}}}


def _sized(book: Codebook, circuit: Circuit, material: str, wiring: str) -> str:
    """The wire that its breaker asks for in a metal; empty where none will do."""
    try:
        return choose(
            book,
            Demand(
                load_a=circuit.breaker_a, breaker_a=circuit.breaker_a, volts=circuit.volts, material=material,
                wiring=wiring, insulation=circuit.insulation,
            ),
        ).size  # fmt: skip
    except LevelRunError:
        return ""


def _metal(job: Job, book: Codebook, here: str, there: str) -> tuple[list[Edit], list[str]]:
    """Feeders and large appliances in the other metal."""
    edits: list[Edit] = []
    sizes: list[str] = []
    for circuit in job.circuits:
        if circuit.material != here or circuit.breaker_a < LARGE_A or circuit.nameplate:
            continue
        wiring = "raceway" if circuit.method == "raceway" else "SER"
        size = _sized(book, circuit, there, wiring)
        if size:
            change: dict[str, object] = {"material": there}
            if circuit.method not in ("raceway", "SER"):
                change["method"] = "SER"
            edits += [
                _set("circuit", circuit.id, **change), {"op": "rewire", "circuit": circuit.id, "size": size},
            ]  # fmt: skip
            sizes.append(size)
    return edits, list(dict.fromkeys(sizes))


def aluminum(job: Job, book: Codebook) -> Iterator[Other]:
    """Feeders and ranges in aluminum."""
    edits, sizes = _metal(job, book, "cu", "al")
    if edits:
        yield Other(
            key="aluminum", label="Aluminum feeders", takes=f"{', '.join(sizes)} aluminum, antioxidant, listed lugs",
            later="the same pipe takes copper of the same size", edits=edits,
        )  # fmt: skip


def copper(job: Job, book: Codebook) -> Iterator[Other]:
    """Feeders and ranges in copper."""
    edits, sizes = _metal(job, book, "al", "cu")
    if edits:
        yield Other(
            key="copper", label="Copper feeders", takes=f"{', '.join(sizes)} copper, smaller lugs",
            later="smaller wire in the same pipe: room for more", edits=edits,
        )  # fmt: skip


SCHOOLS = {
    "studs": ("Through the studs", "holes in every stud, level at the hole line"),
    "over": ("Over the top", "up through the plate and along over the ceiling"),
    "under": ("Under the floor", "down through the plate and along under the joists"),
    "cheapest": ("Each the cheapest way", "hop by hop"),
}


def schools(job: Job, book: Codebook) -> Iterator[Other]:
    """Cables by another school."""
    if not any(not hop.path for circuit in job.circuits for hop in circuit.chain if job.rooms):
        return
    for key, (label, takes) in SCHOOLS.items():
        if key != job.habits.routing.school:
            routing = {**job.habits.routing.model_dump(), "school": key}
            yield Other(
                key=f"school-{key}", label=label, takes=takes, later="shut in once the walls are closed",
                edits=[_habits(job, routing=routing)],
            )  # fmt: skip


def _rewired(circuits: Iterable[Circuit], size: str) -> list[Edit]:
    return [{"op": "rewire", "circuit": circuit.id, "size": size} for circuit in circuits]


def lights(job: Job, book: Codebook) -> Iterator[Other]:
    """12 everywhere, or 14 where 15 A allow it."""
    thin = [c for c in job.circuits if c.wire_size == "14" and c.material == "cu"]
    thick = [c for c in job.circuits if c.wire_size == "12" and c.breaker_a <= 15 and c.material == "cu"]
    if thin:
        edits = [_habits(job, light_wire="12"), *_rewired(thin, "12")]
        yield Other(key="wire-12", label="12 everywhere", takes=f"{len(thin)} circuits of 14 in 12", edits=edits,
                    later="a breaker of 20 A may come later")  # fmt: skip
    if thick:
        edits = [_habits(job, light_wire="14"), *_rewired(thick, "14")]
        yield Other(key="wire-14", label="14 for lights", takes=f"{len(thick)} circuits of 15 A in 14", edits=edits,
                    later="stays at 15 A")  # fmt: skip


def one_up(job: Job, book: Codebook) -> Iterator[Other]:
    """What goes to another building one size up."""
    order, edits = wire_sizes(book), list[Edit]()
    for circuit in job.circuits:
        if circuit.wire_size in order[:-1] and any(True for _ in crossing_hops(job, circuit)):
            edits += _rewired([circuit], order[order.index(circuit.wire_size) + 1])
    if edits:
        yield Other(
            key="one-up", label="One size up between buildings",
            takes=f"{len(edits)} feed{'s' * (len(edits) > 1)} a size larger",
            later="less drop when load is added", edits=edits,
        )  # fmt: skip


def methods(job: Job, book: Codebook) -> Iterator[Other]:
    """Building by building: pipe instead of cable, cable instead of pipe, armoured cable."""
    panels = {panel.id: panel.structure for panel in job.panels}
    for structure in job.structures:
        own = [c for c in job.circuits if panels[c.panel] == structure.id and not any(h.path for h in c.chain)]
        cabled = [c for c in own if c.method == "NM-B"]
        piped = [c for c in own if c.method == "raceway" and c.feeds is None]
        if cabled:
            yield Other(
                key=f"pipe-{structure.id}", label=f"Pipe in the {structure.name}",
                takes=f"{len(cabled)} circuits in EMT, wires pulled", later="wires can be pulled out and in",
                edits=[_set("circuit", c.id, method="raceway") for c in cabled],
            )  # fmt: skip
            yield Other(
                key=f"mc-{structure.id}", label=f"Armoured cable in the {structure.name}",
                takes=f"{len(cabled)} circuits in MC", later="cable stays where it is",
                edits=[_set("circuit", c.id, method="MC") for c in cabled],
            )  # fmt: skip
        if piped:
            yield Other(
                key=f"cable-{structure.id}", label=f"Cable in the {structure.name}",
                takes=f"{len(piped)} circuits in NM-B", later="cable stays where it is",
                edits=[_set("circuit", c.id, method="NM-B") for c in piped],
            )  # fmt: skip


def _alone(job: Job, line: Trench | Span) -> tuple[Circuit, str] | None:
    """The one circuit that lies in a trench or span, with its way, where nothing else does."""
    ways = [way for way in job.ways if laid_legs(way, line.id)]
    if len(ways) != 1:
        return None
    users = [c for c in job.circuits if any(ways[0].id in hop.path for hop in c.chain)]
    crossing = [hop for c in users for hop in crossing_hops(job, c)]
    return (users[0], ways[0].id) if len(users) == 1 and len(crossing) == 1 else None


def overhead(job: Job, book: Codebook) -> Iterator[Other]:
    """Over the air what goes through a trench."""
    for trench in job.trenches:
        ends = {"height_in": HEAD_IN}
        span: dict[str, Any] = {"points": [trench.points[0], trench.points[-1]], "start_end": ends, "end_end": ends}
        yield from _moved(
            job, trench, ("trench", "span", next_id(job, "n")), span, label="Overhead",
            takes="2 heads, cabled wires, no trench", later="it is taken down for more",
        )  # fmt: skip


def buried(job: Job, book: Codebook) -> Iterator[Other]:
    """Through a trench what hangs in the air."""
    for span in job.spans:
        yield from _moved(
            job, span, ("span", "trench", next_id(job, "t")), {"points": list(span.points)}, label="Trench",
            takes="pipe, two risers, marks called", later="wires can be pulled out and in",
        )  # fmt: skip


def _moved(
    job: Job, line: Trench | Span, kinds: tuple[str, str, str], part: dict[str, Any], label: str, takes: str,
    later: str,
) -> Iterator[Other]:  # fmt: skip
    """The one feed of a trench or span laid along a new line of the other kind, where it was. kinds: what it is, what
    it becomes, the id of that."""
    own, (here, there, ident) = _alone(job, line), kinds
    if own is None or line.start is None or line.end is None:
        return
    circuit, way = own
    item = {"id": ident, "name": f"{line.name}, {label.lower()}", "start": line.start, "end": line.end, **part}
    yield Other(
        key=f"{label.lower()}-{line.id}", label=f"{label}: {line.name}", takes=takes, later=later, edits=[
            {"op": "add", "kind": there, "item": item}, {"op": "drop", "kind": "way", "id": way},
            {"op": "drop", "kind": here, "id": line.id},
            {"op": "lay_feed", "along": ident, "circuit": circuit.id},
        ],
    )  # fmt: skip


def joints(job: Job, book: Codebook) -> Iterator[Other]:
    """Levers instead of twist-on connectors, or the other way round."""
    if not job.boxes:
        return
    kind = "lever" if job.habits.buying.joints == "twist" else "twist"
    label = "Lever connectors" if kind == "lever" else "Twist-on connectors"
    yield Other(
        key=f"joints-{kind}", label=label, takes="in every box", later="levers open again; twist-on ones are cut off",
        edits=[_habits(job, buying={**job.habits.buying.model_dump(), "joints": kind})],
    )  # fmt: skip


def home_runs(job: Job, book: Codebook) -> Iterator[Other]:
    """The circuits of a sub-panel in the same building from the panel that feeds it."""
    panels = {panel.id: panel for panel in job.panels}
    for feeder in job.circuits:
        sub = panels.get(feeder.feeds or "")
        if sub is None or sub.structure != panels[feeder.panel].structure:
            continue
        own = [circuit for circuit in job.circuits if circuit.panel == sub.id]
        if not own or any(circuit.feeds for circuit in own):
            continue
        moved = [_set("circuit", c.id, panel=feeder.panel, space=None, half="") for c in own]
        yield Other(
            key=f"home-{sub.id}", label=f"Home runs, no {sub.name}",
            takes=f"{len(own)} cables to {panels[feeder.panel].name}",
            later="the panel there fills up", edits=[
                *moved, {"op": "drop", "kind": "circuit", "id": feeder.id},
                {"op": "drop", "kind": "panel", "id": sub.id},
            ],
        )  # fmt: skip


def multiwire(job: Job, book: Codebook) -> Iterator[Other]:
    """Two circuits in one pipe that share a neutral, on neighbouring spaces of both legs; or each with its own."""
    alone = [c for c in job.circuits if c.partner is None and c.poles == 1 and c.volts == 120 and c.space]
    edits: list[Edit] = []
    for one in alone:
        for two in alone:
            same = (one.panel, one.breaker_a, one.wire_size) == (two.panel, two.breaker_a, two.wire_size)
            beside = one.space is not None and two.space == one.space + 2
            path = one.chain[0].path if one.chain else ()
            if same and beside and path and two.chain and two.chain[0].path == path:
                edits += [_set("circuit", one.id, partner=two.id, tied=True),
                          _set("circuit", two.id, partner=one.id, tied=True)]  # fmt: skip
    if edits:
        yield Other(key="multiwire", label="Shared neutrals", takes=f"{len(edits) // 2} pairs, handles tied",
                    later="both go dark together", edits=edits)  # fmt: skip
    paired = [c for c in job.circuits if c.partner is not None]
    if paired:
        yield Other(
            key="single", label="A neutral for each circuit", takes=f"{len(paired)} circuits apart",
            later="each alone",
            edits=[_set("circuit", c.id, partner=None, tied=False) for c in paired],
        )  # fmt: skip


def suppliers(job: Job, book: Codebook) -> Iterator[Other]:
    """All from one supplier."""
    for name in dict.fromkeys(row["supplier"] for row in book.table("price-book").rows):
        if job.habits.buying.supplier != name:
            yield Other(
                key=f"from-{name.replace(' ', '-')}", label=f"All from the {name}", takes="one trip", later="",
                edits=[_habits(job, buying={**job.habits.buying.model_dump(), "supplier": name})],
            )  # fmt: skip


KINDS: tuple[Callable[[Job, Codebook], Iterator[Other]], ...] = (
    aluminum, copper, overhead, buried, schools, lights, one_up, methods, multiwire, home_runs, joints, suppliers,
)  # fmt: skip
