"""The view of Rough-in: surfaces with what they wait for, the one looked at as an x-ray, the box or panel looked at
as its card, holds, visits, what was found; cards, the book and the calendar as sheets and files."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Annotated

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field
from starlette.exceptions import HTTPException

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.api.here.routes import here_of, qr
from levelrun.api.looking import ORDER, Look, Planned, planned_of
from levelrun.core.findings import Finding
from levelrun.core.job import Box, Job, Panel
from levelrun.core.measure import shown_in
from levelrun.core.roughin.asked import whats_behind
from levelrun.core.roughin.behind import Behind
from levelrun.core.roughin.book import Book, book_of
from levelrun.core.roughin.cards import BoxCard
from levelrun.core.roughin.panel_card import PanelCard
from levelrun.core.roughin.parts import Surface
from levelrun.core.roughin.planned import RoughIn
from levelrun.core.roughin.steps import cards_of, is_made_up, left_out, wired
from levelrun.core.roughin.surfaces import level_of, surface_of
from levelrun.core.roughin.waits import HoldRow, SurfaceRow, named, visit_text
from levelrun.core.roughin.xray import XRay
from levelrun.exchange.ics import write_ics
from levelrun.standins.permit import Offer, Outcome, PermitDesk, SimulatedPermitDesk

router = APIRouter(prefix="/api", tags=["rough-in"])
PartId = Annotated[str, Field(max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]


class LooseRow(BaseModel):
    """A box or panel that is made up and stands in no drawn room, or a panel."""

    node: str
    name: str
    kind: str
    where: str
    made: bool


class VisitRow(BaseModel):
    """An inspection: what it looks at, where, when, how it ended, what of it is open."""

    id: str
    kind: str
    place: str
    where: str
    on: str
    hour: str
    who: str
    result: str
    ticket: str
    text: str
    open: int


class FaultRow(BaseModel):
    """What was found, where, and how far it is mended: open, mended, seen."""

    id: str
    visit: str
    text: str
    section: str
    node: str
    name: str
    wall: str
    state: str
    told: str


class WallPhoto(BaseModel):
    """A photo of the surface looked at."""

    id: str
    number: int
    text: str
    on: str
    remarks: str
    at_in: float
    height_in: float


class RoughInView(BaseModel):
    """Surfaces, worst first within their room; the one looked at; the card of the box or panel looked at. photos:
    those of the surface. bare: surfaces with cable and no photo."""

    surfaces: list[SurfaceRow]
    loose: list[LooseRow]
    wall: SurfaceRow | None
    xray: XRay | None
    card: BoxCard | None
    panel_card: PanelCard | None
    holds: list[HoldRow]
    visits: list[VisitRow]
    faults: list[FaultRow]
    photos: list[WallPhoto]
    all_photos: int
    bare: int
    said: list[Finding]
    begun: bool


def rough_in_view(planned: Planned, look: Look) -> RoughInView:
    """The view of Rough-in: the surface asked for, else that of the box asked for, else the worst."""
    job, record = planned.job, planned.plan.record
    with shown_in(planned.book.units):
        wall = _wall(job, record, look)
        node = _node(job, wall, look)
        card = record.card(node) if node else None
        shown = record.xray(wall.room, wall.surface) if wall else None
        return RoughInView(
            surfaces=record.surfaces,
            loose=_loose(job),
            wall=wall,
            xray=shown,
            card=card if isinstance(card, BoxCard) else None,
            panel_card=card if isinstance(card, PanelCard) else None,
            holds=record.holds,
            visits=[_visit(job, visit.id) for visit in job.visits],
            faults=_faults(job),
            photos=_photos(job, shown, node if wall is None else None),
            all_photos=len(job.photos),
            bare=sum(any(w.kind == "photo" for w in row.waits) for row in record.surfaces),
            said=[f for f in planned.plan.findings if f.stage == "rough_in"],
            begun=record.begun,
        )


def _wall(job: Job, record: RoughIn, look: Look) -> SurfaceRow | None:
    rows = {f"{row.room}.{row.surface}": row for row in record.surfaces}
    if look.wall in rows:
        return rows[look.wall]
    if look.wall and (made := _empty(job, look.wall)) is not None:
        return made
    node = next((item for item in job.nodes if item.id == look.node), None)
    if node is not None:
        at = _surface(job, node)
        return rows.get(at) if at else None
    return min(record.surfaces, key=lambda row: (ORDER[row.verdict], row.closed), default=None)


def _empty(job: Job, asked: str) -> SurfaceRow | None:
    """A surface with nothing in it, which is looked at all the same: something may be found there."""
    room_id, _, surface = asked.partition(".")
    room = next((item for item in job.rooms if item.id == room_id), None)
    if room is None or not (
        surface in ("ceiling", "floor") or (surface.isdigit() and int(surface) < len(room.sides))
    ):
        return None
    structure = job.structure_of(room.level)
    return SurfaceRow(
        room=room.id, surface=surface, name=surface, room_name=room.name, group=room.name, structure=structure.id,
        boxes=0, made=0, photos=0, closed=False, closed_on="", why="", waits=[],
    )  # fmt: skip


def _surface(job: Job, node: Box | Panel) -> str:
    if node.room is None:
        return ""
    return f"{node.room}.{surface_of(node, level_of(job, job.room(node.room)))}"


def _node(job: Job, wall: SurfaceRow | None, look: Look) -> str | None:
    """The box or panel asked for; else on this surface the first that is open, else the first; where nothing is drawn
    so of the boxes, then of the panels."""
    if any(item.id == look.node for item in job.nodes):
        return look.node
    reached, cards = wired(job), cards_of(job)
    nodes = [node for node in job.nodes if node.id in reached]
    at = f"{wall.room}.{wall.surface}" if wall is not None else ""
    own = [node for node in nodes if _surface(job, node) == at]
    if wall is None:
        own.sort(key=lambda node: isinstance(node, Panel))
    open_ = [n for n in own if not is_made_up(n, cards.get(n.id))]
    found = next(iter(open_ or own), None)
    return found.id if found is not None else None


def _loose(job: Job) -> list[LooseRow]:
    reached, gone, cards = wired(job), left_out(job), cards_of(job)
    return [
        LooseRow(
            node=node.id, name=node.name, kind=node.kind if isinstance(node, Box) else "panel",
            where=node.where, made=is_made_up(node, cards.get(node.id)),
        )
        for node in job.nodes
        if node.id in reached and node.id not in gone and (node.room is None or isinstance(node, Panel))
    ]  # fmt: skip


def _visit(job: Job, ident: str) -> VisitRow:
    visit = next(item for item in job.visits if item.id == ident)
    names = {item.id: item.name for item in job.structures}
    names |= {item.id: item.name for item in job.trenches}
    return VisitRow(
        id=visit.id, kind=visit.kind, place=visit.place, where=names.get(visit.place, ""), on=visit.on,
        hour=visit.hour, who=visit.who, result=visit.result, ticket=visit.ticket, text=visit_text(visit),
        open=sum(f.visit == visit.id and not f.seen_on for f in job.faults),
    )  # fmt: skip


def _faults(job: Job) -> list[FaultRow]:
    nodes = {node.id: node for node in job.nodes}
    rows = []
    for fault in job.faults:
        node = nodes.get(fault.node or "")
        state = "seen" if fault.seen_on else "mended" if fault.mended_on else "open"
        by = f" by {fault.mended_by}" if fault.mended_by else ""
        told = {
            "open": "not mended", "mended": f"mended {fault.mended_on}{by}; not seen again yet",
            "seen": f"mended {fault.mended_on}{by}, seen {fault.seen_on}",
        }[state]  # fmt: skip
        rows.append(
            FaultRow(
                id=fault.id, visit=fault.visit, text=fault.text, section=fault.section, node=fault.node or "",
                name=node.name if node else "", wall=_surface(job, node) if node else "", state=state, told=told,
            )
        )  # fmt: skip
    return sorted(rows, key=lambda row: ("open", "mended", "seen").index(row.state))


def _photos(job: Job, shown: XRay | None, node: str | None) -> list[WallPhoto]:
    """The photos of a surface; of a box in no drawn room its own."""
    own = {photo.id: photo for photo in job.photos}
    alone = [photo for photo in job.photos if node is not None and photo.node == node]
    return [
        WallPhoto(id=p.id, number=n, text=p.on, on=p.on, remarks=p.remarks, at_in=0, height_in=0)
        for n, p in enumerate(alone, start=1)
    ] + [
        WallPhoto(
            id=at.id, number=at.number, text=at.text, on=own[at.id].on, remarks=own[at.id].remarks,
            at_in=at.x, height_in=at.y,
        )
        for at in (shown.photos if shown else ())
    ]  # fmt: skip


@router.get("/jobs/{job_id}/behind")
def whats_there(
    request: Request,
    job_id: JobId,
    room: PartId,
    surface: Surface,
    at_in: Annotated[float, Query(ge=-1, le=10_000)],
    height_in: Annotated[float, Query(ge=-1, le=10_000)],
) -> Behind:
    """What is behind a spot of a surface, and whether a screw may go there."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    return whats_behind(planned.job, planned.book, room, surface, at_in, height_in)


class Cards(BaseModel):
    """Cards to print: of every box and panel, or of those of a room."""

    boxes: list[BoxCard]
    panels: list[PanelCard]


@router.get("/jobs/{job_id}/cards")
def cards(request: Request, job_id: JobId, room: PartId | None = None) -> Cards:
    """Every card, in the order of the rooms."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    job, record = planned.job, planned.plan.record
    reached, gone = wired(job), left_out(job)
    order = {item.id: index for index, item in enumerate(job.rooms)}
    own = [n for n in job.nodes if n.id in reached and n.id not in gone and room in (None, n.room)]
    made = [record.card(n.id) for n in sorted(own, key=lambda n: (order.get(n.room or "", 9999), n.side or 0))]
    return Cards(
        boxes=[c for c in made if isinstance(c, BoxCard) and c.cables],
        panels=[c for c in made if isinstance(c, PanelCard)],
    )


@router.get("/jobs/{job_id}/cards/{node}.svg", response_class=Response)
def card_code(request: Request, job_id: JobId, node: PartId) -> Response:
    """A QR code that opens the card of a box: at the address where phones find this machine, else at this one."""
    job = jobs_of(request).get(job_id).job
    if all(item.id != node for item in job.nodes):
        raise HTTPException(404, "no such box")
    base = here_of(request).url or str(request.base_url).rstrip("/")
    return qr(f"{base}/jobs/{job_id}/rough_in?node={node}")


@router.get("/jobs/{job_id}/book")
def book(request: Request, job_id: JobId, structure: PartId | None = None, room: PartId | None = None) -> Book:
    """The handover book of a building, the first one where none is named, or of one of its rooms."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    job = planned.job
    if room is not None:
        found = next((item for item in job.rooms if item.id == room), None)
        if found is None:
            raise HTTPException(404, "no such room")
        return book_of(planned.plan.record, job.structure_of(found.level).id, room)
    own = structure or next((item.id for item in job.structures), None)
    if own is None or all(item.id != own for item in job.structures):
        raise HTTPException(404, "no such building")
    return book_of(planned.plan.record, own)


@router.get("/jobs/{job_id}/calendar.ics", response_class=Response)
def calendar(request: Request, job_id: JobId) -> Response:
    """Holds and inspections as iCalendar."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    data = write_ics(planned.job, job_id, planned.plan.record.holds, datetime.now(UTC))
    return Response(data, media_type="text/calendar", headers=attachment("holds-and-inspections.ics"))


class OfferQuestion(BaseModel):
    """A call to the permit desk: what is to be looked at, from which day on; empty: from today."""

    model_config = ConfigDict(extra="forbid")
    what: Annotated[str, Field(min_length=1, max_length=120)]
    wanted: date | None = None


DESK: PermitDesk = SimulatedPermitDesk()


@router.post("/desk/permit")
def permit_offers(q: OfferQuestion) -> list[Offer]:
    """Hours that the permit desk offers; the desk that ships is simulated, nobody comes."""
    today = date.today()
    try:
        return DESK.offers(today, q.wanted or today, q.what)
    except ValueError as error:
        raise HTTPException(422, str(error)) from None


@router.post("/jobs/{job_id}/visits/{visit}/outcome")
def visit_outcome(request: Request, job_id: JobId, visit: PartId) -> Outcome:
    """How a visit ended, as the permit desk tells it; the simulated one fails it by the first thing that its hold
    waits for. Nothing is kept: the caller makes the edit."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    own = next((item for item in planned.job.visits if item.id == visit), None)
    if own is None:
        raise HTTPException(404, "no such inspection")
    hold = next(
        (h for h in planned.plan.record.holds if (h.kind, h.place) == (own.kind, own.place)), None
    )  # fmt: skip
    waits = [named([wait.text for wait in hold.waits if wait.kind not in ("hold", "photo")])] if hold else []
    return DESK.outcome(own.ticket, [text for text in waits if text])
