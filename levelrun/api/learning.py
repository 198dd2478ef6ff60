"""Learning: hidden faults to find with the simulated meter, and lessons before it."""

from __future__ import annotations

import secrets
from collections import OrderedDict
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel, ConfigDict, Field
from starlette.exceptions import HTTPException

from levelrun.api.common import JobId, jobs_of
from levelrun.api.looking import planned_of
from levelrun.api.stages.test import METER, PartId, circuit_of
from levelrun.core.codebook import load
from levelrun.core.errors import LevelRunError
from levelrun.core.testing.faults import Fault, title
from levelrun.core.testing.learn import ACTS, UNSAFE, Puzzle, puzzle
from levelrun.core.testing.lessons import questions
from levelrun.core.testing.probing import probes_of
from levelrun.core.testing.reading import Probe
from levelrun.core.testing.where import probe_text

router = APIRouter(prefix="/api", tags=["test"])
KEPT = 200


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
    circuit, testing = circuit_of(planned, q.of), planned.plan.testing
    boxes = testing.boxes
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
