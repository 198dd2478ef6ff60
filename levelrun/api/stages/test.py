"""The view of Test: circuits and panels with how much of each is proved, the one looked at step by step with what was
read, where a fault may be; the simulated meter, hidden faults, lessons, the log."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.api.looking import ORDER, Look, Planned, planned_of
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding
from levelrun.core.job import Circuit, Measured
from levelrun.core.measure import shown_in
from levelrun.core.testing.lessons import LESSONS, Lesson
from levelrun.core.testing.log import LogRow, log_of
from levelrun.core.testing.planned import Proof, Where
from levelrun.core.testing.reading import Probe
from levelrun.core.testing.steps import INSULATION_READY, Step, loaded_at, point_of, source_read
from levelrun.core.testing.where import SPOKEN
from levelrun.core.testing.wired import State, Wired
from levelrun.exchange.readings import write_readings
from levelrun.standins.meter import Meter, MeterReading, SimulatedMeter

router = APIRouter(prefix="/api", tags=["test"])
PartId = Annotated[str, Field(max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
METER: Meter = SimulatedMeter()


class TestRow(BaseModel):
    """A circuit or panel with how much of it is proved."""

    id: str
    name: str
    group: str
    done: int
    of: int
    verdict: str


class ReadingOut(BaseModel):
    """A reading that was taken of a step."""

    id: str
    text: str
    meter: str
    on: str
    hour: str
    who: str


class StepOut(BaseModel):
    """A step with its window, its last reading and what is said of it. state: done, off, next, later, waits."""

    key: str
    title: str
    sub: str
    kind: str
    unit: str
    low: float | None
    high: float | None
    expected: float | None
    expected_text: str
    section: str
    caution: str
    words: list[str]
    value: float | None
    word: str
    state: str
    verdict: str
    text: str
    waits: str
    simulated: bool
    history: list[ReadingOut]


class TestFocus(BaseModel):
    """The circuit or panel looked at. leads: where the simulated meter's leads may be put: box, wire, in words."""

    id: str
    name: str
    source: str
    steps: list[StepOut]
    where: Where | None
    where_text: str
    leads: list[tuple[str, str, str]]
    said: list[Finding]


class TestView(BaseModel):
    """Circuits and panels by panel; the one looked at."""

    proofs: list[TestRow]
    tested: TestFocus | None
    lessons: list[Lesson]
    read: int
    not_tested: int


def test_view(planned: Planned, look: Look) -> TestView:
    """The view of Test: what is asked for, else the worst."""
    testing = planned.plan.testing
    with shown_in(planned.book.units):
        rows = _rows(planned, testing)
        wanted = look.circuit if look.circuit and not look.panel else look.panel or look.circuit
        here = next((row for row in rows if row.id == wanted), None)
        here = here or min(rows, key=lambda row: (ORDER.get(row.verdict, 3), row.of == 0), default=None)
        return TestView(
            proofs=rows,
            tested=_focus(planned, testing, here.id) if here is not None else None,
            lessons=list(LESSONS),
            read=len(planned.job.measured),
            not_tested=sum(row.of - row.done for row in rows),
        )


def _rows(planned: Planned, testing: Proof) -> list[TestRow]:
    job = planned.job
    rows = []
    for panel in job.panels:
        own = sorted((c for c in job.circuits if c.panel == panel.id), key=lambda c: (c.space or 99, c.half))
        for ident in (panel.id, *(c.id for c in own)):
            steps = [s for s in testing.steps(ident) if s.key not in (INSULATION_READY, "insulation")]
            last = testing.last(ident)
            verdicts = [testing.verdict(ident, step).verdict for step in testing.steps(ident)]
            done = sum(step.key in last for step in steps)
            verdict = (
                "stop"
                if "stop" in verdicts
                else "check"
                if "check" in verdicts
                else "fine"
                if steps and done == len(steps)
                else ""
            )
            rows.append(
                TestRow(
                    id=ident, name=testing.names[ident], group=panel.name, done=done, of=len(steps), verdict=verdict
                )
            )
    return rows


def _focus(planned: Planned, testing: Proof, of: str) -> TestFocus:
    job = planned.job
    circuit = next((c for c in job.circuits if c.id == of), None)
    where = testing.where(circuit) if circuit is not None else None
    source = ""
    leads: list[tuple[str, str, str]] = []
    if circuit is not None and circuit.chain:
        wired = testing.wired(circuit)
        point = point_of(wired, testing.boxes)
        volts, path = source_read(job, circuit.panel), wired.path(point)
        source = f"source {volts:g} V, {wired.long(point)} of {path[-1].size if path else '?'}"
        leads = _leads(testing, wired)
    off = next((s for s in testing.steps(of) if where and s.key == where.step), None)
    text = f"{where.value:g} {off.unit}".strip() if where and off and off.kind != "word" else ""
    return TestFocus(
        id=of,
        name=testing.names[of],
        source=source,
        steps=_steps(testing, of),
        where=where,
        where_text=text,
        leads=leads,
        said=[f for f in testing.findings if f.subject == of],
    )


def _leads(testing: Proof, wired: Wired) -> list[tuple[str, str, str]]:
    names, found = testing.node_names, []
    wires = dict.fromkeys(wire for span in wired.spans for wire in span.wires)
    for box in (wired.panel, *wired.boxes):
        has = wires if box == wired.panel else next(span.wires for span in wired.spans if span.box == box)
        found += [(box, wire, f"{names.get(box, box)} {SPOKEN.get(wire, wire)}") for wire in has]
    return found


def _steps(testing: Proof, of: str) -> list[StepOut]:
    steps, last = testing.steps(of), testing.last(of)
    found: list[StepOut] = []
    nexts = False
    for step in steps:
        reading, said = last.get(step.key), testing.verdict(of, step)
        waits = _waits(step, last)
        if reading is not None:
            state = "off" if said.verdict == "stop" else "done"
        elif waits:
            state = "waits"
        elif not nexts and step.key not in (INSULATION_READY, "insulation"):
            state, nexts = "next", True
        else:
            state = "later"
        found.append(
            StepOut(
                key=step.key,
                title=step.title,
                sub=step.sub,
                kind=step.kind,
                unit=step.unit,
                low=step.low,
                high=step.high,
                expected=step.expected,
                expected_text=_expected(step),
                section=step.section,
                caution=step.caution,
                words=list(step.words),
                value=reading.value if reading else None,
                word=reading.word if reading else "",
                state=state,
                verdict=said.verdict,
                text=said.text,
                waits=waits,
                simulated=step.probe is not None,
                history=[
                    _reading(step, item) for item in testing.job.measured if (item.of, item.step) == (of, step.key)
                ],
            )
        )
    return found


def _waits(step: Step, last: dict[str, Measured]) -> str:
    """What must be done first; insulation is not offered until its electronics are off."""
    if step.key == "insulation":
        ready = last.get(INSULATION_READY)
        return "" if ready is not None and ready.word == "yes" else "tick first that all electronics are off it"
    return ""


def _expected(step: Step) -> str:
    if step.expected is None or step.kind == "word":
        return ""
    return f"the plan says {step.expected:.{2 if step.kind == 'ohms' else 1}f} {step.unit}"


def _reading(step: Step, item: Measured) -> ReadingOut:
    text = step.words[0 if item.word == "yes" else 1] if item.value is None else f"{item.value:g} {step.unit}"
    return ReadingOut(id=item.id, text=text, meter=item.meter, on=item.on, hour=item.hour, who=item.who)


def circuit_of(planned: Planned, ident: str) -> Circuit:
    found = next((c for c in planned.job.circuits if c.id == ident), None)
    if found is None or not found.chain:
        raise LevelRunError(f"no circuit {ident!r} with a box on it", key="of", value=ident)
    return found


class MeterQuestion(BaseModel):
    """What the simulated meter is asked: a step of proof, or two leads by box and wire, the breaker on or off, with
    or without load, high or low impedance."""

    model_config = ConfigDict(extra="forbid")
    of: PartId
    step: Annotated[str, Field(max_length=70)] = ""
    a: tuple[PartId, Literal["hot", "hot2", "neutral", "ground"]] | None = None
    b: tuple[PartId, Literal["hot", "hot2", "neutral", "ground"]] | None = None
    kind: Literal["volts", "ohms", "megohms"] = "volts"
    on: bool = True
    loaded: bool = False
    impedance: Literal["high", "low"] = "low"


@router.post("/jobs/{job_id}/meter")
def meter(request: Request, job_id: JobId, q: MeterQuestion) -> MeterReading:
    """A reading of the meter that ships: simulated, of the circuit as it is planned."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    circuit = circuit_of(planned, q.of)
    testing = planned.plan.testing
    wired = testing.wired(circuit)
    return METER.read(wired, _probe(testing, wired, q), None, q.impedance)


def _probe(testing: Proof, wired: Wired, q: MeterQuestion) -> Probe:
    if q.step:
        step = next((s for s in testing.steps(q.of) if s.key == q.step), None)
        if step is None or step.probe is None:
            raise LevelRunError(f"no step {q.step!r} that a meter reads", key="step", value=q.step)
        return step.probe
    if q.a is None or q.b is None:
        raise LevelRunError("say where both leads are", key="a", allowed=["box and wire"])
    if q.a == q.b:
        raise LevelRunError("both leads are on one point: put one elsewhere", key="b", value=" ".join(q.b))
    places = {wired.panel, *wired.boxes}
    for key, lead in (("a", q.a), ("b", q.b)):
        if lead[0] not in places:
            raise LevelRunError(f"the box {lead[0]!r} is not on this circuit", key=key, value=lead[0])
    state = loaded_at(point_of(wired, testing.boxes)) if q.loaded else State()
    return Probe(kind=q.kind, a=q.a, b=q.b, state=replace(state, on=q.on and q.kind == "volts"))


@router.get("/jobs/{job_id}/readings")
def readings(request: Request, job_id: JobId) -> list[LogRow]:
    """The log: every reading, and what was not tested."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    with shown_in(planned.book.units):
        return log_of(planned.plan.testing)


@router.get("/jobs/{job_id}/readings.csv")
def readings_csv(request: Request, job_id: JobId) -> Response:
    """The log as CSV."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    with shown_in(planned.book.units):
        text = write_readings(log_of(planned.plan.testing))
    return Response(text, media_type="text/csv", headers=attachment("readings.csv"))
