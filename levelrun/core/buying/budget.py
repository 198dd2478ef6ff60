"""What a job costs: material and hours by stage, building, room, circuit; what one circuit more costs; the quote."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from statistics import median

from levelrun.core.buying.items import SHELF_NAMES
from levelrun.core.buying.labour import Task
from levelrun.core.buying.lines import At
from levelrun.core.buying.ordering import Order
from levelrun.core.job import Habits, Job

STAGES = {
    "circuits": "Panels and circuits", "boxes": "Boxes and devices", "runs": "Cable and pipe",
    "trench": "Between buildings",
}  # fmt: skip
ELSEWHERE = "the whole job"


@dataclass(frozen=True, kw_only=True)
class Share:
    """A part of the whole: dollars of material before tax, hours."""

    key: str
    name: str
    material: float
    hours: float


@dataclass(frozen=True, kw_only=True)
class Money:
    """The whole: material, tax on it, hours and what they cost, margin, all of it. Dollars, unrounded."""

    material: float
    tax: float
    hours: float
    labour: float
    margin: float
    total: float
    days: float
    two_hours: float


@dataclass(frozen=True, kw_only=True)
class OneMore:
    """One circuit more: dollars with labour, now and once the walls are shut."""

    name: str
    now: float
    after: float


def money_of(habits: Habits, orders: Iterable[Order], tasks: Iterable[Task]) -> Money:
    """All of it: tax on material, margin on material and labour, as the shop is used to."""
    tasks = list(tasks)
    material = sum(order.dollars or 0.0 for order in orders)
    return with_margin(
        habits, material, sum(task.minutes for task in tasks) / 60,
        sum(task.minutes for task in tasks if task.two) / 60,
    )  # fmt: skip


def with_margin(habits: Habits, material: float, hours: float, two_hours: float = 0.0) -> Money:
    """Material and hours with tax, the second pair of hands, and margin."""
    buying = habits.buying
    tax = material * buying.tax_percent / 100
    labour = (hours + two_hours) * habits.dollars_per_hour
    margin = (material + labour) * buying.margin_percent / 100
    return Money(
        material=material, tax=tax, hours=hours, labour=labour, margin=margin, total=material + tax + labour + margin,
        days=hours / habits.labour.hours_a_day, two_hours=two_hours,
    )  # fmt: skip


def shares(
    orders: Iterable[Order], tasks: Iterable[Task], key: Callable[[At], tuple[str, str]]
) -> list[Share]:  # fmt: skip
    """The whole parted by a key of each place: the dearest first. Parts add up to the whole."""
    material: dict[tuple[str, str], float] = {}
    hours: dict[tuple[str, str], float] = {}
    for order in orders:
        each = order.each
        for line in order.row.lines:
            own = key(line.at)
            material[own] = material.get(own, 0.0) + each * line.amount
    for task in tasks:
        own = key(task.at)
        hours[own] = hours.get(own, 0.0) + task.minutes / 60
    found = [
        Share(key=own[0], name=own[1], material=material.get(own, 0.0), hours=hours.get(own, 0.0))
        for own in dict.fromkeys((*material, *hours))
    ]
    return sorted(found, key=lambda item: -item.material - item.hours)


def by_stage(at: At) -> tuple[str, str]:
    """The stage in which it is planned."""
    return at.stage, STAGES.get(at.stage, at.stage)


def by_structure(at: At) -> tuple[str, str]:
    """The building."""
    return at.structure or ELSEWHERE, at.structure or ELSEWHERE


def by_room(at: At) -> tuple[str, str]:
    """The room, in its building."""
    name = f"{at.room}, {at.structure}" if at.room and at.structure else at.structure or ELSEWHERE
    return name, name


def by_circuit(job: Job) -> Callable[[At], tuple[str, str]]:
    """The circuit that it serves."""
    names = {circuit.id: circuit.name for circuit in job.circuits}

    def key(at: At) -> tuple[str, str]:
        return (at.circuit, names[at.circuit]) if at.circuit in names else (ELSEWHERE, ELSEWHERE)

    return key


def one_more(job: Job, parts: Sequence[Share]) -> OneMore | None:
    """What one circuit more costs: as the middle one of the branch circuits of this job does, with margin and tax;
    once the walls are shut its hours are more by the shop's habit."""
    branch = {circuit.id for circuit in job.circuits if circuit.feeds is None and circuit.poles == 1}
    own = [part for part in parts if part.key in branch and part.material + part.hours > 0]
    if not own:
        return None
    habits = job.habits
    material, hours = median(part.material for part in own), median(part.hours for part in own)
    now = with_margin(habits, material, hours).total
    after = with_margin(habits, material, hours * (1 + habits.labour.added_after_percent / 100)).total
    return OneMore(name="a circuit like the middle one here", now=now, after=after)


@dataclass(frozen=True, kw_only=True)
class QuoteLine:
    """A line of the quote: what is done, in plain words, for how much with margin, before tax."""

    text: str
    dollars: float


QUOTE_WORDS = {
    "circuits": "Panels, breakers and protection, each circuit landed and labelled",
    "boxes": "Boxes, outlets, switches and lights set and connected",
    "runs": "Cable and pipe run, fastened and protected",
    "trench": "Trench, feed and grounding between the buildings",
}
QUOTE_FOOT = (
    "A figure for planning, from the drawing as it stands and prices that may change. It is no promise: what is "
    "found behind a wall, rock in the trench, and what the authority asks are told before they are done. Permit and "
    "inspection are the authority's."
)


def quote_of(habits: Habits, parts: Iterable[Share]) -> list[QuoteLine]:
    """The quote by stage, each with its share of labour and margin."""
    lines = []
    for part in parts:
        money = with_margin(habits, part.material, part.hours)
        lines.append(QuoteLine(text=QUOTE_WORDS.get(part.key, part.name), dollars=money.total - money.tax))
    return lines


def shelf_name(shelf: str) -> str:
    """What a shelf is called."""
    return SHELF_NAMES[shelf]
