"""Hours of a job by task, from the shop's habits: common practice, no source, to plan a week, not to bid."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from levelrun.core.buying.items import Item
from levelrun.core.buying.lines import At
from levelrun.core.buying.ordering import Order
from levelrun.core.buying.takeoff import Found
from levelrun.core.codebook import Codebook
from levelrun.core.job import Habits, Job, Labour
from levelrun.core.kept import Standing
from levelrun.core.pipe.facts import piped
from levelrun.core.pipe.pulling import how_pulled
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.trade.methods.verdicts import work_of
from levelrun.core.trench.costs import earth_of
from levelrun.core.trench.facts import TrenchFacts
from levelrun.core.trench.rules.risers import risers_of
from levelrun.core.ways.drawing import DrawnWay
from levelrun.core.ways.facts import WayView, viewed
from levelrun.core.ways.frame.prices import prices_of
from levelrun.core.ways.holding import held

HEAVY_GAUGES = ("4", "3", "2", "1", "1/0", "2/0", "3/0", "4/0", "250")


@dataclass(frozen=True, kw_only=True)
class Task:
    """Work at one place: what, how much of it, minutes for one person; two: who needs a second pair of hands there,
    and why, empty for nobody."""

    what: str
    amount: float
    unit: str
    minutes: float
    at: At
    two: str = ""


_of_ways = Standing[tuple[Task, ...]](8192)
_of_trenches = Standing[tuple[Task, ...]](128)


def tasks_of(job: Job, book: Codebook, found: Found, orders: Sequence[Order]) -> list[Task]:
    """All work of a job. What did not change is not reckoned again."""
    tasks: list[Task] = []
    for context in found.contexts:
        tasks += _of_ways.get(context.way.id, (book, context, job.habits), partial(_walked, viewed(book, context)))
    for ident, own in found.drawn.ways.items():
        tasks += _of_ways.get(ident, (book, own, job.habits), partial(_drawn, book, job.habits, own))
    for facts in found.outside.trenches.values():
        tasks += _of_trenches.get(facts.trench.id, (facts, job.habits), partial(_dug, facts))
    for span in found.outside.spans.values():
        if span.held:
            at = At("span", span.span.id, span.span.name, stage="trench")
            hours = 2 * book.number("head_hours") + book.number("string_hours")
            two = "on ladders at both ends"
            tasks.append(Task(what="span hung", amount=1, unit="", minutes=hours * 60, at=at, two=two))
    tasks += _counted(job.habits, orders)
    return tasks


def _walked(view: WayView) -> tuple[Task, ...]:
    """A way that was walked: feet of cable or pipe with its supports, holes, bends, wires pulled."""
    carried = view.context.carried
    structure = view.structures.get(view.start.structure)
    at = At(
        "way", view.way.id, view.way.name, "", structure.name if structure else "",
        carried[0].wires.circuit if carried else "", "runs",
    )  # fmt: skip
    return tuple(_legs(view, at, bool(carried)))


def _legs(view: WayView, at: At, carries: bool) -> Iterator[Task]:
    holes = 0
    habits, book = view.habits, view.book
    for index in view.indexes:
        leg, method = view.way.legs[index], view.methods[index]
        if method.kind == "span":
            continue
        row = book.table("pipe-price").find(leg.method, leg.size)
        each = float(row["minutes_per_ft"]) if row is not None else work_of(book, leg.method).minutes_per_ft
        heavy = leg.size.partition("-")[0] in HEAVY_GAUGES and method.kind == "cable"
        two = "heavy cable" if heavy and leg.length_in > 240 else ""
        yield Task(
            what=f"{method.name}{' in the trench' if is_buried(view.facts[index]) else ''}",
            amount=leg.length_in / 12, unit="ft", minutes=each * leg.length_in / 12, at=at, two=two,
        )  # fmt: skip
        hold = held(view, index)
        holes += len(hold.positions_in) if hold.kind == "hole" else 0
    if holes:
        yield Task(what="holes bored", amount=holes, unit="", minutes=holes * habits.routing.stud_minutes, at=at)
    if any(method.kind == "raceway" for method in view.methods):
        yield from _piped(view, at, carries)


def _piped(view: WayView, at: At, carries: bool) -> Iterator[Task]:
    pipe, labour = piped(view.book, view.context), view.habits.labour
    bends = sum(len(layout.bends) - len(layout.elbows) for _, layout in pipe.laid)
    if bends:
        yield Task(what="bends made", amount=bends, unit="", minutes=bends * labour.bend_minutes, at=at)
    for pull in pipe.pulls if carries else ():
        feet = pull.length_in / 12
        how = how_pulled(view, pull)
        two = "the pull is over one person's hands" if how is not None and how.people > 1 else ""
        yield Task(
            what="wires pulled", amount=feet, unit="ft", minutes=feet * labour.wire_foot_minutes, at=at, two=two
        )  # fmt: skip


def _drawn(book: Codebook, habits: Habits, way: DrawnWay) -> tuple[Task, ...]:
    """A way that drew itself: by what its route is made of."""
    view, route = viewed(book, way.context), way.found.route
    structure = view.structures.get(view.start.structure)
    at = At(
        "circuit", way.found.circuit, view.way.name, "", structure.name if structure else "", way.found.circuit,
        "runs"
    )  # fmt: skip
    if route is None or any(method.kind == "raceway" for method in view.methods):
        return tuple(_legs(view, at, True))
    key = next((leg.method for leg in view.way.legs), "NM-B")
    minutes = prices_of(book, habits, key).minutes(route.work)
    return (Task(what="cable run", amount=route.length_in / 12, unit="ft", minutes=minutes, at=at),)


def _dug(facts: TrenchFacts) -> tuple[Task, ...]:
    at = At("trench", facts.trench.id, facts.trench.name, stage="trench")
    own = earth_of(facts, facts.bottom)
    feet = facts.long_in / 12
    two = "a machine wants someone beside it" if facts.trench.dig == "machine" else ""
    found = [Task(what=f"trench dug by {facts.trench.dig}", amount=feet, unit="ft", minutes=own.dig_hours * 60, at=at,
                  two=two)]  # fmt: skip
    found.append(Task(what="trench filled", amount=feet, unit="ft", minutes=own.fill_hours * 60, at=at))
    risers = sum(len(risers_of(item)) for item in facts.lain)
    if risers:
        minutes = risers * facts.book.number("riser_hours") * 60
        found.append(Task(what="risers", amount=risers, unit="", minutes=minutes, at=at))
    return tuple(found)


def _counted(habits: Habits, orders: Iterable[Order]) -> Iterator[Task]:
    """What goes by the piece: boxes, devices, circuits, panels, rods."""
    labour = habits.labour
    joined: set[str] = set()
    for order in orders:
        for line in order.row.lines:
            found = _by_piece(order.row.item, labour)
            if found:
                what, minutes = found
                yield Task(what=what, amount=line.amount, unit="", minutes=line.amount * minutes, at=line.at)
            boxed = line.at.kind == "box" and line.item.shelf == "small"
            if boxed and line.at.ident not in joined:
                joined.add(line.at.ident)
                yield Task(what="boxes made up", amount=1, unit="", minutes=labour.make_up_minutes, at=line.at)


def _by_piece(item: Item, labour: Labour) -> tuple[str, float] | None:
    first = item.key.partition(" ")[0]
    if item.shelf == "boxes" and first == "box" and item.key != "box bar":
        return "boxes set", labour.box_minutes
    if item.shelf == "devices" and first in ("light,", "ceiling", "smoke"):
        return "lights and alarms hung", labour.fixture_minutes
    if item.shelf == "devices" and ("receptacle" in item.key or first == "switch") and first != "plate":
        return "devices set", labour.device_minutes
    if item.shelf == "panels" and first == "breaker" and item.key != "breaker lock":
        return "circuits landed", labour.breaker_minutes
    if item.shelf == "panels" and first == "panel" and item.key != "panel directory":
        return "panels set", labour.panel_minutes
    return ("rods driven", labour.rod_minutes) if item.key.startswith("ground rod") else None
