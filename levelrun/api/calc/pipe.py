"""Fill, counts, bends, hand bends, pulls, pull boxes, expansion: questions about pipe."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field, StrictBool, model_validator

from levelrun.api.calc.base import Answer, Count, Key, NotNegative, Part, Question, basis_of, told
from levelrun.core.codebook.lookups import raceway
from levelrun.core.trade.pipe.bends import bends
from levelrun.core.trade.pipe.fill import CableIn, Wires, fill, max_count
from levelrun.core.trade.pipe.hand_bend import hand_bend
from levelrun.core.trade.pipe.pull import PullWires, Section, pull
from levelrun.core.trade.pipe.pull_box import expansion, pull_box
from levelrun.core.trade.pipe.sticks import packed

router = APIRouter(prefix="/api/calc", tags=["calc"])


class WiresIn(Part):
    """Equal single wires."""

    insulation: Key
    size: Key
    count: Count


class CablesIn(Part):
    """Equal cables, by their wide side."""

    wide_in: Annotated[float, Field(strict=True, gt=0, le=12)]
    count: Count


class FillQuestion(Question):
    """What lies in a pipe."""

    raceway: Key
    size: Key
    conductors: list[WiresIn] = Field(default=[], max_length=100)
    cables: list[CablesIn] = Field(default=[], max_length=100)
    nipple: StrictBool = False
    sleeve: StrictBool = False

    @model_validator(mode="after")
    def _few(self) -> FillQuestion:
        if sum(w.count for w in self.conductors) + sum(c.count for c in self.cables) > 500:
            raise ValueError("count: more than 500 wires in one pipe; allowed: up to 500")
        return self


class FillAnswer(Answer):
    """How full it is."""

    total_in2: float
    used_in2: float
    percent: float
    limit_percent: float | None
    fits: bool
    jam_ratio: float | None
    jam_risk: bool
    smallest_size: str | None


@router.post("/fill")
def calc_fill(q: FillQuestion) -> FillAnswer:
    """Conduit fill of any mix of wires and cables."""
    book = q.book()
    wires = [Wires(w.insulation, w.size, w.count) for w in q.conductors]
    cables = [CableIn(c.wide_in, c.count) for c in q.cables]
    answer = fill(book, q.raceway, q.size, wires, cables, q.nipple, q.sleeve)
    return FillAnswer(**told(book, answer), basis=basis_of(book, f"ch9-table4-{q.raceway.lower()}"))


class MaxCountQuestion(Question):
    """One kind of wire in one pipe."""

    raceway: Key
    size: Key
    insulation: Key
    conductor_size: Key


class MaxCountAnswer(Answer):
    """How many go in."""

    count: int


@router.post("/max-count")
def calc_max_count(q: MaxCountQuestion) -> MaxCountAnswer:
    """Most same-size wires in a pipe, as annex C counts them."""
    book = q.book()
    count = max_count(book, q.raceway, q.size, q.insulation, q.conductor_size)
    return MaxCountAnswer(
        count=count, rule=book.told("ch. 9 table 1, note 7"), basis=basis_of(book, f"ch9-table4-{q.raceway.lower()}")
    )


class BendsQuestion(Question):
    """Bends between two pull points."""

    bends_deg: list[Annotated[float, Field(strict=True, ge=0, le=360)]] = Field(max_length=100)


class BendsAnswer(Answer):
    """Their sum."""

    total_deg: float
    limit_deg: float
    ok: bool


@router.post("/bends")
def calc_bends(q: BendsQuestion) -> BendsAnswer:
    """Bend total between pull points."""
    answer = bends(q.book(), q.bends_deg)
    return BendsAnswer(**told(q.book(), answer), basis=q.book().scalar("bend_limit_deg").basis)


class HandBendQuestion(Question):
    """A bend to be made by hand."""

    kind: Key
    raceway: Key = "EMT"
    size: Key = "1/2"
    rise_in: Annotated[float, Field(strict=True, gt=0, le=240)] | None = None
    angle_deg: Annotated[float, Field(strict=True, ge=1, le=90)] | None = None
    distance_in: Annotated[float, Field(strict=True, gt=0, le=1200)] | None = None
    width_in: Annotated[float, Field(strict=True, gt=0, le=600)] | None = None
    roll_in: Annotated[float, Field(strict=True, gt=0, le=240)] | None = None


class HandBendAnswer(Answer):
    """Pencil marks from the start of the stick."""

    marks_in: list[float]
    angles_deg: list[float]
    shrink_in: float
    rise_in: float
    chart_multiplier: float | None
    note: str
    true_offset_in: float
    gain_in: float


@router.post("/hand-bend")
def calc_hand_bend(q: HandBendQuestion) -> HandBendAnswer:
    """Marks of an offset, a rolling or box offset, a kick, a stub, a back-to-back or a saddle."""
    answer = hand_bend(
        q.book(), q.kind, q.raceway, q.size, q.rise_in, q.angle_deg, q.distance_in, q.width_in, q.roll_in
    )
    return HandBendAnswer(**told(q.book(), answer), basis="exact trigonometry; take-up by common practice")


class SticksQuestion(Question):
    """Pieces to cut from sticks of one length."""

    raceway: Key
    size: Key
    pieces_in: list[Annotated[float, Field(strict=True, gt=0, le=120_000)]] = Field(min_length=1, max_length=200)
    stick_in: Annotated[float, Field(strict=True, gt=0, le=1200)] = 120.0


class SticksAnswer(Answer):
    """The sticks with the pieces of each, what is left of each, and whether fewer are proven not to do."""

    sticks: list[list[float]]
    count: int
    left_in: list[float]
    proven: bool
    note: str


@router.post("/sticks")
def calc_sticks(q: SticksQuestion) -> SticksAnswer:
    """Which piece is cut from which stick: the least number of sticks."""
    raceway(q.book(), q.raceway, q.size)
    found = packed(tuple(q.pieces_in), q.stick_in)
    return SticksAnswer(
        sticks=[[q.pieces_in[i] for i in stick] for stick in found.sticks],
        count=len(found.sticks),
        left_in=list(found.left_in),
        proven=found.proven,
        note="no saw cut is taken off; sockets, bells and threads are in the lengths asked",
        rule="least number of sticks by an integer programme",
        basis="computed",
    )


class SectionIn(Part):
    """A straight or a bend of the pull."""

    straight_in: Annotated[float, Field(strict=True, gt=0, le=120_000)] | None = None
    climb_in: Annotated[float, Field(strict=True, ge=-120_000, le=120_000)] = 0.0
    bend_deg: Annotated[float, Field(strict=True, gt=0, le=360)] | None = None
    radius_in: Annotated[float, Field(strict=True, gt=0, le=600)] | None = None

    @model_validator(mode="after")
    def _one_kind(self) -> SectionIn:
        if (self.straight_in is None) == (self.bend_deg is None):
            raise ValueError("sections: each is a straight (straight_in) or a bend (bend_deg, radius_in)")
        if self.bend_deg is not None and self.radius_in is None:
            raise ValueError("radius_in: a bend has a radius; allowed: inches over 0")
        if self.straight_in is not None and abs(self.climb_in) > self.straight_in + 1e-9:
            raise ValueError("climb_in: no straight climbs more than its length; allowed: up to straight_in")
        return self


class PullWiresIn(Part):
    """Equal wires to pull."""

    insulation: Key
    size: Key
    material: Key = "cu"
    count: Count


class PullQuestion(Question):
    """A pull: its sections in order, the wires, the friction."""

    sections: list[SectionIn] = Field(min_length=1, max_length=200)
    conductors: list[PullWiresIn] = Field(min_length=1, max_length=40)
    raceway: Key | None = None
    size: Key | None = None
    friction: Annotated[float, Field(strict=True, ge=0, le=2)] = 0.35
    start_lb: NotNegative = 0.0


class PointOut(BaseModel):
    """Tension so far from the fed end."""

    at_in: float
    lb: float


class PullAnswer(Answer):
    """Force from either end, against what bears it."""

    forward_lb: float
    reverse_lb: float
    feed: Literal["start", "end"]
    sidewall_lb_per_ft: float
    limit_lb: float
    weight_lb_per_ft: float
    weight_factor: float | None
    corrected_forward_lb: float | None
    corrected_reverse_lb: float | None
    grip_limit_lb: float
    sidewall_limit_lb_per_ft: float
    hand_one_lb: float
    hand_two_lb: float
    curve_forward: list[PointOut]
    curve_reverse: list[PointOut]


@router.post("/pull")
def calc_pull(q: PullQuestion) -> PullAnswer:
    """Pull force, fed from the start and from the end."""
    book = q.book()
    inner = raceway(book, q.raceway, q.size).inner_in if q.raceway is not None and q.size is not None else None
    sections = [Section(s.straight_in or 0, s.climb_in, s.bend_deg or 0, s.radius_in or 0) for s in q.sections]
    wires = [PullWires(w.insulation, w.size, w.material, w.count) for w in q.conductors]
    answer = pull(book, sections, wires, q.friction, q.start_lb, inner)
    curves = {
        name: [PointOut(at_in=p.at_in, lb=p.lb) for p in getattr(answer, name)]
        for name in ("curve_forward", "curve_reverse")
    }
    return PullAnswer(
        **{**told(book, answer), **curves},
        grip_limit_lb=book.number("grip_lb"),
        sidewall_limit_lb_per_ft=book.number("sidewall_lb_per_ft"),
        hand_one_lb=book.number("hand_one_lb"),
        hand_two_lb=book.number("hand_two_lb"),
        basis="practice",
    )


class AngleIn(Part):
    """One wall of an angle pull."""

    raceway_size: Key
    same_wall: list[Key] = Field(default=[], max_length=40)


class PullBoxQuestion(Question):
    """Trade sizes that enter a pull box."""

    straight: list[Key] = Field(default=[], max_length=40)
    angle: list[AngleIn] = Field(default=[], max_length=4)

    @model_validator(mode="after")
    def _some(self) -> PullBoxQuestion:
        if not self.straight and not self.angle:
            raise ValueError("straight, angle: name at least one raceway")
        return self


class PullBoxAnswer(Answer):
    """Least box."""

    length_in: float
    width_in: float
    note: str


@router.post("/pull-box")
def calc_pull_box(q: PullBoxQuestion) -> PullBoxAnswer:
    """Least inside of a pull box for No. 4 and larger."""
    book = q.book()
    for size in (*q.straight, *(s for a in q.angle for s in (a.raceway_size, *a.same_wall))):
        raceway(book, "RMC", size)
    answer = pull_box(book, q.straight, [(a.raceway_size, a.same_wall) for a in q.angle])
    return PullBoxAnswer(**told(book, answer), basis=book.scalar("pull_box_straight").basis)


class ExpansionQuestion(Question):
    """A straight of plastic pipe and how far the temperature swings."""

    length_ft: Annotated[float, Field(strict=True, gt=0, le=10_000)]
    swing_f: Annotated[float, Field(strict=True, ge=0, le=300)]


class ExpansionAnswer(Answer):
    """How much it moves."""

    movement_in: float
    joint_needed: bool


@router.post("/expansion")
def calc_expansion(q: ExpansionQuestion) -> ExpansionAnswer:
    """Movement of plastic pipe."""
    answer = expansion(q.book(), q.length_ft, q.swing_f)
    return ExpansionAnswer(**told(q.book(), answer), basis=q.book().scalar("expansion_per_f").basis)
