"""What another way comes to: the job after its edits planned whole, its rules obeyed, its material and hours."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.buying.budget import Money, money_of
from levelrun.core.buying.labour import tasks_of
from levelrun.core.edits import apply_raw
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding
from levelrun.core.job import Job, job_book
from levelrun.core.others.kinds import Edit, Other, others_of
from levelrun.core.plan import Plan, plan_whole

MOST_MENDS = 12  # what a way breaks is mended by the first mend that mends it, so often


@dataclass(frozen=True, kw_only=True)
class Weighed:
    """A way of the job: dollars of material before tax, hours, days of waiting, all with tax, labour and margin; what
    it stops at that the job as planned does not, in words; the edits that make it so, its mends with them."""

    key: str
    label: str
    takes: str
    later: str
    material: float
    hours: float
    wait_days: float
    total: float
    stops: list[str]
    edits: list[Edit]


@dataclass(frozen=True, kw_only=True)
class Figures:
    """What a plan comes to."""

    money: Money
    wait_days: float


def figures_of(job: Job, plan: Plan) -> Figures:
    """Money, hours and waiting of a job as it is planned."""
    buying = plan.buying
    tasks = tasks_of(job, buying.book, buying.found, buying.orders)
    marks = any("marks" not in {tick.step for tick in trench.done} for trench in job.trenches)
    waits = [buying.book.number("marks_wait_days")] if marks else []
    waits += [float(order.out_days) for order in buying.orders]
    return Figures(money=money_of(job.habits, buying.orders, tasks), wait_days=max(waits, default=0.0))


def as_planned(job: Job) -> Weighed:
    """The job as it is."""
    plan, _ = plan_whole(job, job_book(job))
    now = Other(key="", label="As planned", takes=_words(job), later="", edits=[])
    return _weighed(now, job, plan, [])


def _words(job: Job) -> str:
    metals = {c.material for c in job.circuits if c.feeds}
    parts = [" and ".join(sorted({"cu": "copper", "al": "aluminum"}[metal] for metal in metals)) + " feeders"]
    parts = parts if metals else []
    parts += ["trench"] * bool(job.trenches) + ["overhead"] * bool(job.spans)
    return ", ".join(parts) or "cable"


def weighing(job: Job) -> Iterator[tuple[int, Weighed]]:
    """The job as planned, then every other way, each as soon as it is planned, with the count of all; ways that
    cannot be made are left out."""
    book = job_book(job)
    before, _ = plan_whole(job, book)
    ways = others_of(job, book)
    yield len(ways) + 1, as_planned(job)
    for other in ways:
        found = weighed(job, before, other)
        if found is not None:
            yield len(ways) + 1, found


def weighed(job: Job, before: Plan, other: Other) -> Weighed | None:
    """One other way, planned whole; what it breaks is mended where a mend does it. None where it cannot be made."""
    try:
        after = apply_raw(job, other.edits)
    except LevelRunError:
        return None
    edits = list(other.edits)
    known = {_same(item) for item in before.findings}
    plan, _ = plan_whole(after, job_book(after))
    for _ in range(MOST_MENDS):
        broken = [item for item in plan.findings if item.severity == "stop" and _same(item) not in known]
        better = next((found for item in broken if (found := _mended(after, item, len(broken), known))), None)
        if better is None:
            break
        more, after, plan = better
        edits += more
    broken = [item for item in plan.findings if item.severity == "stop" and _same(item) not in known]
    return _weighed(Other(key=other.key, label=other.label, takes=other.takes, later=other.later, edits=edits), after,
                    plan, broken)  # fmt: skip


def _mended(
    job: Job, item: Finding, count: int, known: set[tuple[str, str, int | None]]
) -> tuple[list[Edit], Job, Plan] | None:
    """The job after the first mend of a finding that leaves fewer stops than there are."""
    for mend in item.mends:
        try:
            after = apply_raw(job, mend.edits)
        except LevelRunError:
            continue
        plan, _ = plan_whole(after, job_book(after))
        if sum(one.severity == "stop" and _same(one) not in known for one in plan.findings) < count:
            return mend.edits, after, plan
    return None


def _same(item: Finding) -> tuple[str, str, int | None]:
    return item.code, item.subject, item.leg


def _weighed(other: Other, job: Job, plan: Plan, broken: list[Finding]) -> Weighed:
    found = figures_of(job, plan)
    return Weighed(
        key=other.key, label=other.label, takes=other.takes, later=other.later, material=found.money.material,
        hours=found.money.hours, wait_days=found.wait_days, total=found.money.total,
        stops=[item.title for item in broken], edits=other.edits,
    )  # fmt: skip
