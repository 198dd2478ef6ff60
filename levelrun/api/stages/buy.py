"""The view of Buy: every row with its shelf, coils and sticks of the shelf looked at, the row looked at whole, the
money; lists out, prices in, other ways of the job as they are planned."""

from __future__ import annotations

from collections.abc import AsyncIterator
from datetime import date
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response, StreamingResponse
from pydantic import BaseModel, TypeAdapter
from starlette.concurrency import run_in_threadpool

from levelrun.api.common import FILE_BODY, JobId, attachment, jobs_of
from levelrun.api.long import ProvingPart, proving, weighed_ways
from levelrun.api.looking import ORDER, Look, Planned, planned_of
from levelrun.api.worker import Worker
from levelrun.core.buying.budget import (
    QUOTE_FOOT,
    Money,
    OneMore,
    QuoteLine,
    Share,
    by_circuit,
    by_room,
    by_stage,
    by_structure,
    money_of,
    one_more,
    quote_of,
    shares,
)
from levelrun.core.buying.labour import Task, tasks_of
from levelrun.core.buying.listed import SupplierList, TruckRow, lists_of, truck_after
from levelrun.core.buying.ordering import CoilQuestion, question_of
from levelrun.core.buying.planned import Buying
from levelrun.core.buying.shown import (
    BuyItem,
    BuyRow,
    CutSheet,
    ShelfSum,
    item_of,
    rows_of,
    said_by_item,
    sheets_of,
    shelves_of,
)
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.core.measure import shown_in
from levelrun.core.others.weighed import Weighed
from levelrun.core.trade.coils import remember
from levelrun.exchange.buying_list import write_list, write_list_csv
from levelrun.exchange.prices import read_prices, read_truck, write_prices, write_truck

router = APIRouter(prefix="/api", tags=["buy"])
SHELF, TRUCK = "shelf ", "truck"
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
MOST_BYTES = 2_000_000


class TaskSum(BaseModel):
    """Work of one kind: how much of it, hours; two: why it wants a second pair of hands, empty for nothing."""

    what: str
    amount: float
    unit: str
    hours: float
    two: str


class BuyView(BaseModel):
    """Rows and shelves, worst first among shelves; sheets of what is cut of the shelf looked at; the row looked at
    whole; the money. begun: something was said of buying, so that what is wrong counts. stale: prices said so long
    ago that they are asked again."""

    rows: list[BuyRow]
    shelves: list[ShelfSum]
    shelf: str
    sheets: list[CutSheet]
    item: BuyItem | None
    money: Money
    stages: list[Share]
    tasks: list[TaskSum]
    one_more: OneMore | None
    said: list[Finding]
    truck: list[TruckRow]
    stale: list[str]
    priced: str
    begun: bool
    unproven: list[str]


def buy_view(planned: Planned, look: Look) -> BuyView:
    """The view of Buy: the row asked for, else the worst of all; the shelf that it stands on."""
    buying, job = planned.plan.buying, planned.job
    with shown_in(planned.book.units):
        said = said_by_item(buying.findings)
        rows = rows_of(buying, said)
        key, shelf = _looked(rows, look.item)
        tasks = _tasks(planned)
        return BuyView(
            rows=rows,
            shelves=shelves_of(buying, rows),
            shelf=shelf,
            sheets=sheets_of(buying, labels_of(planned), shelf, rows),
            item=item_of(buying, key, said) if key else None,
            money=money_of(job.habits, buying.orders, tasks),
            stages=shares(buying.orders, tasks, by_stage),
            tasks=_sums(tasks),
            one_more=one_more(job, shares(buying.orders, tasks, by_circuit(job))),
            said=buying.findings,
            truck=[TruckRow(item=s.item, amount=s.amount, unit="", why=s.remarks) for s in job.stock],
            stale=stale_of(job, date.today()),
            priced=_priced(job),
            begun=buying.begun,
            unproven=[order.row.item.key for order in buying.orders if order.item.cut and not order.proven],
        )


def _looked(rows: list[BuyRow], wanted: str | None) -> tuple[str, str]:
    """The row and shelf looked at: a row by its name; `shelf boxes`: the whole shelf and no row; else the worst."""
    shelves = {row.shelf for row in rows} | {TRUCK}
    if wanted and wanted.startswith(SHELF) and wanted.removeprefix(SHELF) in shelves:
        return "", wanted.removeprefix(SHELF)
    found = next((row for row in rows if row.item == wanted), None)
    found = found or min(rows, key=lambda row: ORDER[row.verdict], default=None)
    return (found.item, found.shelf) if found else ("", "")


def labels_of(planned: Planned) -> dict[str, str]:
    """What each circuit is called in its panel."""
    return {item.summary.id: item.summary.label for item in planned.plan.circuits}


def _tasks(planned: Planned) -> list[Task]:
    buying = planned.plan.buying
    return tasks_of(planned.job, planned.book, buying.found, buying.orders)


def _sums(tasks: list[Task]) -> list[TaskSum]:
    found: dict[str, TaskSum] = {}
    for task in tasks:
        own = found.setdefault(task.what, TaskSum(what=task.what, amount=0, unit=task.unit, hours=0, two=""))
        own.amount += task.amount
        own.hours += task.minutes / 60
        own.two = own.two or task.two
    return sorted(found.values(), key=lambda item: -item.hours)


def stale_of(job: Job, today: date) -> list[str]:
    """Things whose said price is older than the shop lets it be."""
    most = job.habits.buying.stale_days
    return sorted(
        {p.item for p in job.prices if p.on and (today - date.fromisoformat(p.on)).days > most}
    )  # fmt: skip


def _priced(job: Job) -> str:
    days = [price.on for price in job.prices if price.on]
    if not job.prices:
        return "Prices: invented figures that ship, for comparing. Ask before you buy."
    newest = f", the newest of {max(days)}" if days else ""
    return f"Prices: {len(job.prices)} of this shop's own{newest}; the rest are invented figures that ship."


class ListView(BaseModel):
    """The list by supplier, with what is on the truck after the job and its cards: a coil each."""

    lists: list[SupplierList]
    truck: list[TruckRow]
    cards: list[CutSheet]
    money: Money
    tax_percent: float


@router.get("/jobs/{job_id}/list")
def buying_list(request: Request, job_id: JobId) -> ListView:
    """The buying list, by supplier in the order of shelves, with its ticks; the card of every coil."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    buying = planned.plan.buying
    with shown_in(planned.book.units):
        rows = rows_of(buying, said_by_item(buying.findings))
        return ListView(
            lists=lists_of(buying),
            truck=truck_after(buying),
            cards=sheets_of(buying, labels_of(planned), "cable", rows),
            money=money_of(planned.job.habits, buying.orders, _tasks(planned)),
            tax_percent=planned.job.habits.buying.tax_percent,
        )


@router.get("/jobs/{job_id}/list.{form}")
def buying_list_file(request: Request, job_id: JobId, form: Literal["xlsx", "csv"]) -> Response:
    """The buying list as a workbook with a sheet a supplier, or as CSV."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    buying = planned.plan.buying
    with shown_in(planned.book.units):
        lists = lists_of(buying)
        if form == "csv":
            return Response(write_list_csv(lists), media_type="text/csv", headers=attachment("buying-list.csv"))
        money = money_of(planned.job.habits, buying.orders, _tasks(planned))
    sheet = write_list(planned.job.name, lists, money, planned.job.habits.buying.tax_percent)
    return Response(sheet, media_type=XLSX, headers=attachment("buying-list.xlsx"))


class QuoteView(BaseModel):
    """The quote in plain words; and the budget by stage, building, room and circuit."""

    lines: list[QuoteLine]
    money: Money
    foot: str
    stages: list[Share]
    structures: list[Share]
    rooms: list[Share]
    circuits: list[Share]
    one_more: OneMore | None


@router.get("/jobs/{job_id}/quote")
def quote(request: Request, job_id: JobId) -> QuoteView:
    """What the job costs, in plain words and without promises, and where the money goes."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    job, orders, tasks = planned.job, planned.plan.buying.orders, _tasks(planned)
    stages = shares(orders, tasks, by_stage)
    circuits = shares(orders, tasks, by_circuit(job))
    return QuoteView(
        lines=quote_of(job.habits, stages),
        money=money_of(job.habits, orders, tasks),
        foot=QUOTE_FOOT,
        stages=stages,
        structures=shares(orders, tasks, by_structure),
        rooms=shares(orders, tasks, by_room),
        circuits=circuits,
        one_more=one_more(job, circuits),
    )


@router.get("/jobs/{job_id}/prices.csv")
def prices_csv(request: Request, job_id: JobId, said: bool = False) -> Response:
    """The price book as CSV: all of it, or what this shop said."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    text = write_prices(planned.plan.buying.prices, said)
    return Response(text, media_type="text/csv", headers=attachment("price-book.csv"))


@router.get("/jobs/{job_id}/truck.csv")
def truck_csv(request: Request, job_id: JobId) -> Response:
    """What is on the truck once this job is done, for the next one."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    text = write_truck(truck_after(planned.plan.buying))
    return Response(text, media_type="text/csv", headers=attachment("truck.csv"))


class FileFound(BaseModel):
    """What a file says as the edits that bring it in, all or none."""

    edits: list[dict[str, Any]]
    label: str


async def _text(request: Request) -> str:
    body = await request.body()
    if len(body) > MOST_BYTES:
        raise LevelRunError(
            f"the file has {len(body)} bytes; allowed: up to {MOST_BYTES}", key="file", value=len(body)
        )  # fmt: skip
    try:
        return body.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise LevelRunError("the file is no text in UTF-8: save it as CSV", key="file") from None


@router.post("/csv/prices", openapi_extra=FILE_BODY)
async def csv_prices(request: Request) -> FileFound:
    """Prices from a CSV file. Nothing is kept: the caller makes the edit, and row by row it is looked at then."""
    rows = await run_in_threadpool(read_prices, await _text(request))
    return FileFound(edits=[{"op": "prices", "rows": rows}], label=f"bring in {len(rows)} prices")


@router.post("/csv/truck", openapi_extra=FILE_BODY)
async def csv_truck(request: Request) -> FileFound:
    """What is on the truck, from a CSV file. Nothing is kept: the caller makes the edits."""
    edits = await run_in_threadpool(read_truck, await _text(request))
    return FileFound(edits=edits, label=f"bring in {len(edits)} rows of the truck")


class WeighedLine(BaseModel):
    """One line of the answer: a way of the job, and how many there will be at most."""

    of: int
    way: Weighed


class ProvingLine(BaseModel):
    """One line of the answer: how far the search is, and at its end what was found."""

    share: float
    text: str
    done: bool
    cost: float | None
    bound: float | None
    proven: bool


WAY, PROOF = TypeAdapter(WeighedLine), TypeAdapter(ProvingLine)


@router.post("/jobs/{job_id}/others", response_model=WeighedLine)
def others(request: Request, job_id: JobId) -> StreamingResponse:
    """Other ways of the job, each planned whole: one JSON line each, as soon as it is there. Nothing is kept."""
    job = jobs_of(request).get(job_id).job
    return StreamingResponse(_ways(request.app.state.worker, job), media_type="application/x-ndjson")


async def _ways(worker: Worker, job: Job) -> AsyncIterator[bytes]:
    async for of, way in worker.parts(weighed_ways, job):
        yield WAY.dump_json(WeighedLine(of=of, way=way)) + b"\n"


@router.post("/jobs/{job_id}/coils", response_model=ProvingLine)
def prove_coils(request: Request, job_id: JobId, item: Annotated[str, Query(max_length=60)]) -> StreamingResponse:
    """The coils of one kind searched at leisure: JSON lines with how far it is; what is found is kept for the view.
    Left early, it is stopped."""
    buying = planned_of(jobs_of(request).get(job_id).job).plan.buying
    asked = _asked(buying, item)
    return StreamingResponse(_proved(request, asked), media_type="application/x-ndjson")


def _asked(buying: Buying, item: str) -> CoilQuestion:
    order = next((one for one in buying.orders if one.row.item.key == item), None)
    if order is None or not order.item.cut:
        cut = [one.row.item.key for one in buying.orders if one.item.cut]
        raise LevelRunError(f"no {item!r} is cut from coils here", key="item", value=item, allowed=cut)
    return question_of(buying.job, buying.prices, order)


async def _proved(request: Request, asked: CoilQuestion) -> AsyncIterator[bytes]:
    worker: Worker = request.app.state.worker
    part: ProvingPart
    async for part in worker.parts(proving, *asked):
        if part.plan is not None:
            remember(*asked, part.plan)
            request.app.state.forget_views()
        plan = part.plan
        yield PROOF.dump_json(
            ProvingLine(
                share=part.share, text=part.text, done=plan is not None, cost=plan.cost if plan else None,
                bound=plan.bound if plan else None, proven=plan.proven if plan else False,
            )
        ) + b"\n"  # fmt: skip
