"""The view of Test: circuits and panels with how much of each is proved, the one looked at step by step with what was
read, where a fault may be; the simulated meter, hidden faults, lessons, the log."""

from __future__ import annotations

import secrets
from collections import OrderedDict
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field
from starlette.exceptions import HTTPException

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.api.looking import ORDER, Look, Planned, planned_of
from levelrun.core.codebook import load
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding
from levelrun.core.job import Circuit, Measured
from levelrun.core.measure import shown_in
from levelrun.core.testing.faults import Fault, title
from levelrun.core.testing.learn import ACTS, UNSAFE, Puzzle, puzzle
from levelrun.core.testing.lessons import LESSONS, Lesson, questions
from levelrun.core.testing.log import LogRow, log_of
from levelrun.core.testing.planned import Testing, Where
from levelrun.core.testing.probing import probes_of
from levelrun.core.testing.reading import Probe
from levelrun.core.testing.steps import INSULATION_READY, PLUG_W, Step, point_of, source_read
from levelrun.core.testing.where import probe_text
from levelrun.core.testing.wired import State, Wired
from levelrun.exchange.readings import write_readings
from levelrun.standins.meter import Meter, MeterReading, SimulatedMeter

router = APIRouter(prefix="/api", tags=["test"])
PartId = Annotated[str, Field(max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
WIRES = ("hot", "hot2", "neutral", "ground")
METER: Meter = SimulatedMeter()
KEPT = 200


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


def _rows(planned: Planned, testing: Testing) -> list[TestRow]:
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


def _focus(planned: Planned, testing: Testing, of: str) -> TestFocus:
    job = planned.job
    circuit = next((c for c in job.circuits if c.id == of), None)
    where = testing.where(circuit) if circuit is not None else None
    source = ""
    leads: list[tuple[str, str, str]] = []
    if circuit is not None and circuit.chain:
        wired = testing.wired(circuit)
        boxes = {box.id: box for box in job.boxes}
        volts = source_read(job, circuit.panel)
        size = wired.path(point_of(wired, boxes))
        source = (
            f"source {volts:g} V, {wired.feet(point_of(wired, boxes)):.0f} ft of {size[-1].size if size else '?'}"
        )
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


def _leads(testing: Testing, wired: Wired) -> list[tuple[str, str, str]]:
    names, found = testing.node_names, []
    spoken = {"hot": "line", "hot2": "second line"}
    wires = dict.fromkeys(wire for span in wired.spans for wire in span.wires)
    for box in (wired.panel, *wired.boxes):
        has = wires if box == wired.panel else next(span.wires for span in wired.spans if span.box == box)
        found += [(box, wire, f"{names.get(box, box)} {spoken.get(wire, wire)}") for wire in has]
    return found


def _steps(testing: Testing, of: str) -> list[StepOut]:
    steps, last = testing.steps(of), testing.last(of)
    found: list[StepOut] = []
    nexts = False
    for step in steps:
        reading, said = last.get(step.key), testing.verdict(of, step)
        waits = _waits(steps, step, last)
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


def _waits(steps: list[Step], step: Step, last: dict[str, Measured]) -> str:
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


def _circuit(planned: Planned, ident: str) -> Circuit:
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
    circuit = _circuit(planned, q.of)
    testing = planned.plan.testing
    wired = testing.wired(circuit)
    return METER.read(wired, _probe(testing, wired, q), None, q.impedance)


def _probe(testing: Testing, wired: Wired, q: MeterQuestion) -> Probe:
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
    boxes = {box.id: box for box in testing.job.boxes}
    plug = {"extra_w": PLUG_W, "extra_at": point_of(wired, boxes)} if q.loaded else {}
    state = State(on=q.on and q.kind == "volts", loaded=q.loaded, **plug)  # type: ignore[arg-type]
    return Probe(kind=q.kind, a=q.a, b=q.b, state=state)


class PuzzleOut(BaseModel):
    """A hidden fault: what may be named, what may be read, what may be done; the readings that are needed at best."""

    lesson: str
    circuit: str
    name: str
    faults: list[tuple[str, str]]
    probes: list[tuple[str, str]]
    acts: list[tuple[str, str]]
    best: int


@dataclass
class Hidden:
    """A puzzle that is being played: which fault is hidden, what was read, whether it is proved dead, whether it is
    over."""

    puzzle: Puzzle
    fault: Fault
    names: dict[str, str]
    probes: list[Probe]
    read: list[str] = field(default_factory=list)
    over: str = ""


def _playing(request: Request) -> OrderedDict[str, Hidden]:
    playing: OrderedDict[str, Hidden] = request.app.state.playing
    return playing


class LearnQuestion(BaseModel):
    """A fault is hidden in a circuit."""

    model_config = ConfigDict(extra="forbid")
    of: PartId
    seed: Annotated[int, Field(ge=0, le=2**31)] | None = None


@router.post("/jobs/{job_id}/learn")
def hide(request: Request, job_id: JobId, q: LearnQuestion) -> PuzzleOut:
    """Hide a fault in a circuit of this job. It is kept by this server until it is found or many others were
    begun."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    circuit, testing = _circuit(planned, q.of), planned.plan.testing
    boxes = {box.id: box for box in planned.job.boxes}
    seed = secrets.randbelow(2**31) if q.seed is None else q.seed
    made = puzzle(planned.job, circuit, testing.wired(circuit), boxes, seed)
    if len(made.faults) < 2:
        raise LevelRunError("too little stands on this circuit to hide a fault in", key="of", value=q.of)
    names = dict(testing.node_names)
    hidden = made.faults[seed % len(made.faults)] if q.seed is not None else secrets.choice(made.faults)
    shown = probes_of(made.wired, circuit, boxes)[:80]  # in the order of the circuit: no hint of which tells most
    ident = secrets.token_hex(6)
    playing = _playing(request)
    playing[ident] = Hidden(made, hidden, names, shown)
    while len(playing) > KEPT:
        playing.popitem(last=False)
    acts = [("touch", ACTS["touch"]), ("replace", ACTS["replace"])]
    if any(boxes[b].serves == "generator" for b in made.wired.boxes if b in boxes):
        acts.append(("generator", ACTS["generator"]))
    return PuzzleOut(
        lesson=ident,
        circuit=circuit.id,
        name=testing.names[circuit.id],
        faults=[(f.key, title(f, names)) for f in made.faults],
        probes=[(p.key, probe_text(p, names)) for p in shown],
        acts=acts,
        best=made.best,
    )


class Played(BaseModel):
    """What a move gives: a reading, or the end with its reason. used: readings so far."""

    text: str
    over: bool
    right: bool
    used: int
    best: int
    hidden: str


class Move(BaseModel):
    """A move: a reading by its key, a fault that is named, or something that is done."""

    model_config = ConfigDict(extra="forbid")
    probe: Annotated[str, Field(max_length=200)] = ""
    fault: Annotated[str, Field(max_length=80)] = ""
    act: Literal["", "touch", "generator", "replace"] = ""


@router.post("/learn/{lesson}")
def move(request: Request, lesson: Annotated[str, Field(pattern=r"^[0-9a-f]{12}$")], q: Move) -> Played:
    """One move of a puzzle. The model answers truly; an unsafe act ends it with the reason."""
    game = _playing(request).get(lesson)
    if game is None:
        raise HTTPException(404, "this lesson is over: hide another fault")
    if game.over:
        return _played(game, game.over, False)
    if q.act:
        proved = any(key.startswith("volts") and key.endswith(":off") for key in game.read)
        if q.act == "touch" and proved and game.fault.kind != "other_breaker":
            return _played(
                game, "Proved dead with a low-impedance tester: the device may be taken out. Nothing is seen.", False
            )
        game.over = UNSAFE[q.act]
        return _played(game, game.over, False)
    if q.fault:
        named = next((f for f in game.puzzle.faults if f.key == q.fault), None)
        if named is None:
            raise LevelRunError(f"{q.fault!r} is none of the faults", key="fault", value=q.fault)
        right = named == game.fault or game.puzzle.same(named, game.fault)
        game.over = "Found." if right else "Not this one."
        return _played(game, game.over, right)
    probe = _known(game, q.probe)
    if probe.key not in game.read:
        game.read.append(probe.key)
    return _played(game, METER.read(game.puzzle.wired, probe, game.fault, "low").text, False)


def _known(game: Hidden, key: str) -> Probe:
    found = next((probe for probe in game.probes if probe.key == key), None)
    if found is None:
        raise LevelRunError(f"{key[:60]!r} is no reading of this circuit", key="probe", value=key)
    return found


def _played(game: Hidden, text: str, right: bool) -> Played:
    over = bool(game.over)
    return Played(
        text=text,
        over=over,
        right=right,
        used=len(game.read),
        best=game.puzzle.best,
        hidden=title(game.fault, game.names) if over else "",
    )


class QuestionOut(BaseModel):
    """A question of a lesson; its answer is asked for by number."""

    text: str
    choices: list[str]


@router.get("/lessons/{key}")
def lesson(
    key: Annotated[str, Field(max_length=20)], seed: Annotated[int, Query(ge=0, le=2**31)] = 1
) -> list[QuestionOut]:
    """The questions of a lesson before the meter."""
    return [QuestionOut(text=q.text, choices=list(q.choices)) for q in _questions(key, seed)]


class Answered(BaseModel):
    """Whether a choice was right, which one is, and why."""

    right: bool
    choice: int
    why: str


@router.post("/lessons/{key}/{number}")
def answer(
    key: Annotated[str, Field(max_length=20)],
    number: Annotated[int, Field(ge=0, le=20)],
    choice: Annotated[int, Query(ge=0, le=9)],
    seed: Annotated[int, Query(ge=0, le=2**31)] = 1,
) -> Answered:
    """An answer to a question."""
    asked = _questions(key, seed)
    if number >= len(asked):
        raise HTTPException(404, "no such question")
    own = asked[number]
    return Answered(right=choice == own.right, choice=own.right, why=own.why)


def _questions(key: str, seed: int) -> list[Any]:
    try:
        return questions(load(), key, seed)
    except KeyError:
        raise HTTPException(404, f"no lesson {key!r}") from None


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
