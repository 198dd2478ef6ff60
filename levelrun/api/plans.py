"""Stateless: plan a whole job file, read and complete walk text, the rule set's words."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any, Literal

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.contract import PlanAnswer, answer_of
from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import Method, cable_sizes, methods, places, raceway_sizes, wire_sizes
from levelrun.core.errors import EditError
from levelrun.core.fields import FieldWord, fields_of
from levelrun.core.job import Buying, Habits, Job, Labour, Piping, RoughIn, Routing, SpanEnd
from levelrun.core.job.upgrade import upgraded
from levelrun.core.measure import parse_length, show
from levelrun.core.part import Frozen
from levelrun.core.site.parts import Level, Side
from levelrun.core.subjects import KINDS
from levelrun.core.trench.laying import settle
from levelrun.core.ways.next_leg import GO
from levelrun.core.ways.parts import Leg, LegFacts, Shape
from levelrun.core.ways.walk import parse_walk, suggest
from levelrun.exchange.job_file import check_version, job_schema
from levelrun.exchange.text import Told, reading

router = APIRouter(prefix="/api", tags=["plan"])


class PlanQuestion(BaseModel):
    """A job to plan, as a file or as text, by `rules` where the text names none, `on` a day: by the rules
    that are in force then; else today. Nothing is kept."""

    model_config = ConfigDict(extra="forbid")
    job: dict[str, Any] | None = None
    text: Annotated[str, Field(max_length=1_000_000)] | None = None
    rules: Annotated[str, Field(max_length=20)] | None = None
    on: date | None = None


@router.post("/plan")
def plan_job(q: PlanQuestion) -> PlanAnswer:
    """The whole plan of a job, nothing stored."""
    job, told = job_in(q.job, q.text, q.rules)
    return answer_of(job, (q.on or date.today()).isoformat(), told)


def as_job(raw: dict[str, Any]) -> Job:
    """A job from the body of a request, refused in the same words as a file."""
    check_version(raw)
    return settle(Job.model_validate(upgraded(raw)))


def job_in(raw: dict[str, Any] | None, text: str | None, rules: str | None = None) -> tuple[Job, list[Told]]:
    """A job from a file or a text, whichever is there, and what is told of its lines. Raises EditError where neither
    is there, or both."""
    if (raw is None) == (text is None):
        raise EditError("say the job as `job`, a file, or as `text`", key="job", allowed=["job", "text"])
    return (as_job(raw), []) if raw is not None else reading(text or "", rules)


class WalkQuestion(BaseModel):
    """Walk text, and the names that `to` may mean."""

    model_config = ConfigDict(extra="forbid")
    text: Annotated[str, Field(max_length=20_000)]
    names: list[Annotated[str, Field(max_length=60)]] = Field(default=[], max_length=2100)
    rules: Annotated[str, Field(max_length=20)] = "us-2023"


class WalkLegOut(BaseModel):
    """A leg as said; null where nothing was said."""

    go: str
    length_in: float
    place: str | None
    method: str | None
    size: str | None
    depth_in: float | None
    to: str | None
    bends_deg: list[float]
    shapes: list[Shape]
    radius_in: float | None
    feed: str
    sleeve: bool
    met: bool
    stands_off: bool
    expansion: bool
    ribbon: bool
    facts: dict[str, Any]


class WalkAnswer(BaseModel):
    """The legs read."""

    legs: list[WalkLegOut]


@router.post("/walk/parse")
def walk_parse(q: WalkQuestion) -> WalkAnswer:
    """Read walk text. A bad word: 422 with `at`, its character position, and what was expected."""
    legs = parse_walk(load(q.rules), q.text, q.names)
    listed = ({**vars(leg), "bends_deg": list(leg.bends_deg), "shapes": list(leg.shapes)} for leg in legs)
    return WalkAnswer(legs=[WalkLegOut(**leg) for leg in listed])


class SuggestAnswer(BaseModel):
    """Words that may stand from position `at` on."""

    at: int
    options: list[str]


@router.post("/walk/suggest")
def walk_suggest(q: WalkQuestion) -> SuggestAnswer:
    """What may be typed next."""
    at, options = suggest(load(q.rules), q.text, q.names)
    return SuggestAnswer(at=at, options=options)


class MeasureQuestion(BaseModel):
    """A length as typed. `bare` is the unit of a number without one."""

    model_config = ConfigDict(extra="forbid")
    text: Annotated[str, Field(max_length=60)]
    bare: Literal["in"] | None = None


class MeasureAnswer(BaseModel):
    """The length in inches, and as shown."""

    inches: float
    text: str


@router.post("/measure")
def measure(q: MeasureQuestion) -> MeasureAnswer:
    """Read a length in feet and inches or metric."""
    inches = parse_length(q.text, q.bare)
    return MeasureAnswer(inches=inches, text=show(inches))


class PlaceWord(BaseModel):
    """A place kind."""

    key: str
    title: str
    buried: bool


class MethodWord(BaseModel):
    """A wiring method with the sizes it is made in."""

    key: str
    name: str
    kind: str
    sizes: list[str]


class Vocabulary(BaseModel):
    """What may be said of a part: the words for a leg, and the fields of every kind of part."""

    go: list[str]
    places: list[PlaceWord]
    methods: list[MethodWord]
    wire_sizes: list[str]
    fields: dict[str, tuple[FieldWord, ...]]


PARTS: dict[str, type[Frozen]] = {
    "side": Side,
    "level": Level,
    "leg": Leg,
    "facts": LegFacts,
    "habits": Habits,
    "routing": Routing,
    "roughin": RoughIn,
    "piping": Piping,
    "buying": Buying,
    "labour": Labour,
    "shape": Shape,
    "span_end": SpanEnd,
}
PARTS |= {kind.name: kind.model for kind in KINDS.values()}
FIELDS = {name: fields_of(model) for name, model in PARTS.items()}


@router.get("/vocabulary")
def vocabulary(rules: str = "us-2023") -> Vocabulary:
    """Places, methods and sizes of a rule set, for the interface's lists."""
    book = load(rules)
    return Vocabulary(
        go=list(GO),
        places=[PlaceWord(key=p.place, title=p.title, buried=p.above != "") for p in places(book).values()],
        methods=[
            MethodWord(key=m.key, name=m.name, kind=m.kind, sizes=_sizes(book, m)) for m in methods(book).values()
        ],
        wire_sizes=list(wire_sizes(book)),
        fields=FIELDS,
    )


def _sizes(book: Codebook, method: Method) -> list[str]:
    if method.kind == "raceway":
        return [pipe.size for pipe in raceway_sizes(book, method.key)]
    return cable_sizes(book, method.key)


@router.get("/job-schema")
def schema() -> dict[str, Any]:
    """The JSON Schema of a job file."""
    return job_schema()
