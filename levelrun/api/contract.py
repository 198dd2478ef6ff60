"""A plan as callers from outside ask for it: flat rows with the units in their keys. This door stays as it is."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from pydantic import BaseModel, ConfigDict, Field

from levelrun.core.boxes.planned import Building
from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Circuit, Job, Leg, job_book
from levelrun.core.plan import Plan, PlannedWay, names_of, plan_whole
from levelrun.core.ways.planned import plan_way
from levelrun.exchange.text import Told


class FindingOut(BaseModel):
    """A finding with the name of what it is about."""

    severity: str
    code: str
    subject: str
    about: str
    leg: int | None
    title: str
    text: str
    measured: str
    limit: str
    section: str
    mends: list[Mend]


class PanelOut(BaseModel):
    """A panel: spaces free, pairs below each other, its calculated load."""

    name: str
    spaces_free: int
    pairs_free: int
    load_a: float
    main_a: float | None
    bonded: bool


class HopOut(BaseModel):
    """One hop: from and to by name, its wires, its length and what is cut for it."""

    model_config = ConfigDict(populate_by_name=True)
    from_: str = Field(alias="from")
    to: str
    wires: str
    ground: str
    length_ft: float | None
    cut_ft: float | None
    ways: list[str]


class CircuitOut(BaseModel):
    """A circuit, once."""

    name: str
    panel: str
    spaces: str
    poles: int
    volts: int
    breaker_a: float
    protection: str
    wire: str
    ground: str
    material: str
    load_a: float
    drop_percent: float | None
    drop_at_breaker_percent: float | None
    feeds: str | None
    hops: list[HopOut]


class CutOut(BaseModel):
    """Pieces to cut."""

    what: str
    length_ft: float
    count: int


class PullOut(BaseModel):
    """Pipe between two pull points."""

    fill_percent: float | None
    limit_percent: float | None
    bends_deg: float
    pull_lb: float | None
    feed: str | None


class WayOut(BaseModel):
    """A way with what lies in it. drawn: nobody walked it, it is found through the frame of its building."""

    name: str
    drawn: bool = False
    circuits: list[str]
    legs: list[Leg]
    cuts: list[CutOut]
    supports: list[int]
    pulls: list[PullOut]


class BoxOut(BaseModel):
    """A box by its fill."""

    name: str
    used_in3: float | None
    volume_in3: float | None


class BuyOut(BaseModel):
    """A thing to buy: how much, in feet, sticks or pieces; dollars before tax where a price is known."""

    what: str
    count: float
    unit: str
    dollars: float | None


class ToldOut(BaseModel):
    """What is told of a line of a job as text: what was filled in where nobody said it."""

    line: int
    text: str


class PlanAnswer(BaseModel):
    """A whole plan; of a job as text what is told of its lines."""

    rules: str
    stops: int
    checks: int
    findings: list[FindingOut]
    panels: list[PanelOut]
    circuits: list[CircuitOut]
    ways: list[WayOut]
    boxes: list[BoxOut]
    buy: list[BuyOut]
    told: list[ToldOut] = []


def answer_of(job: Job, on: str = "", told: Sequence[Told] = ()) -> PlanAnswer:
    """The plan of a job, by the rules that are in force on a day. told: of the lines of its text."""
    book = job_book(job, on)
    plan, building = plan_whole(job, book)
    names = names_of(job)
    cuts: dict[tuple[str, str], float] = {}
    pieces = [piece for way in plan.ways for piece in way.cuts]
    pieces += [piece for way in plan.drawn.ways.values() for piece in way.cuts]
    for piece in pieces:
        cuts[piece.circuit, piece.box] = max(cuts.get((piece.circuit, piece.box), 0.0), piece.cut_in)
    return PlanAnswer(
        rules=plan.rules,
        stops=plan.stops,
        checks=plan.checks,
        findings=[_finding(item, names) for item in plan.findings],
        panels=list(_panels(job, plan)),
        circuits=[_circuit(job, item, names, cuts) for item in plan.circuits],
        ways=[
            *(_way(item, names, False) for item in plan.ways),
            *(_way(plan_way(book, drawn.context), names, True) for drawn in plan.drawn.ways.values()),
        ],
        boxes=list(_boxes(job, plan, building)),
        buy=list(_buy(plan)),
        told=[ToldOut(line=item.line, text=item.text) for item in told],
    )


def _buy(plan: Plan) -> Iterator[BuyOut]:
    for order in plan.buying.orders:
        item = order.row.item
        unit = "ft" if item.cut else "stick" if item.stick_in else "each"
        yield BuyOut(what=item.key, count=round(order.count, 3), unit=unit, dollars=order.dollars)


def _finding(item: Finding, names: dict[str, str]) -> FindingOut:
    return FindingOut(
        severity=item.severity, code=item.code, subject=names.get(item.subject, item.subject), about=item.about,
        leg=item.leg, title=item.title, text=item.text, measured=item.measured, limit=item.limit,
        section=item.section, mends=item.mends,
    )  # fmt: skip


def _panels(job: Job, plan: Plan) -> Iterator[PanelOut]:
    said = {panel.id: panel for panel in job.panels}
    for item in plan.panels:
        panel = said[item.id]
        yield PanelOut(
            name=item.name,
            spaces_free=item.drawing.free if panel.free_said is None else panel.free_said,
            pairs_free=item.drawing.free_pairs,
            load_a=item.load.amps,
            main_a=panel.main_a,
            bonded=panel.bonded,
        )


def _circuit(job: Job, item: CircuitPlan, names: dict[str, str], cuts: dict[tuple[str, str], float]) -> CircuitOut:
    said = next(circuit for circuit in job.circuits if circuit.id == item.summary.id)
    drops = {figure.key: figure.value for figure in item.figures}
    return CircuitOut(
        name=said.name,
        panel=names[said.panel],
        spaces=item.summary.label,
        poles=said.poles,
        volts=said.volts,
        breaker_a=said.breaker_a,
        protection=said.protection,
        wire=said.wire_size,
        ground=" and ".join(dict.fromkeys(row.ground for row in item.chain if row.ground)),
        material=said.material,
        load_a=item.summary.load_a,
        drop_percent=drops.get("drop"),
        drop_at_breaker_percent=drops.get("drop-breaker"),
        feeds=names.get(said.feeds or ""),
        hops=list(_hops(item, said, names, cuts)),
    )


def _hops(
    item: CircuitPlan, said: Circuit, names: dict[str, str], cuts: dict[tuple[str, str], float]
) -> Iterator[HopOut]:
    for row in item.chain:
        cut = cuts.get((said.id, row.box), row.cut_in)
        yield HopOut(
            from_=names[row.after or said.panel],
            to=row.name,
            wires=row.wires,
            ground=row.ground,
            length_ft=None if row.length_in is None else row.length_in / 12,
            cut_ft=None if cut is None else cut / 12,
            ways=[names[way] for way in row.path],
        )


def _way(item: PlannedWay, names: dict[str, str], drawn: bool) -> WayOut:
    return WayOut(
        name=item.summary.name,
        drawn=drawn,
        circuits=[names[circuit] for circuit in item.summary.circuits],
        legs=list(item.view.way.legs),
        cuts=[CutOut(what=cut.item, length_ft=cut.cut_in / 12, count=cut.pieces) for cut in item.cuts],
        supports=[len(leg.held.positions_in) for leg in item.legs],
        pulls=[
            PullOut(
                fill_percent=pull.fill.percent if pull.fill else None,
                limit_percent=pull.fill.limit_percent if pull.fill else None,
                bends_deg=pull.total.total_deg,
                pull_lb=pull.hand_lb,
                feed=pull.feed,
            )
            for pull in item.pulls
        ],
    )


def _boxes(job: Job, plan: Plan, building: Building) -> Iterator[BoxOut]:
    known = {figure.key: figure for figure in building.loose}
    known |= {figure.key: figure for room in plan.rooms for box in room.boxes for figure in box.figures}
    for box in job.boxes:
        figure = known.get(f"fill-{box.id}")
        yield BoxOut(
            name=box.name,
            used_in3=figure.value if figure else None,
            volume_in3=figure.limit if figure else None,
        )
