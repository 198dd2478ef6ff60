"""The pull list: every cable with its letter, from and to, feet as it lies, what is added, feet to cut."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.job import Job
from levelrun.core.measure import show
from levelrun.core.ways.lengths import Cut


@dataclass(frozen=True, kw_only=True)
class PullRow:
    """One piece to pull. Inches; `makeup_in` of both ends; `pulled_in` is what was cut when it was pulled, null while
    it is not. `room` is where it ends."""

    letter: str
    circuit: str
    box: str
    item: str
    pieces: int
    start: str
    end: str
    room: str
    path_in: float
    makeup_in: float
    loop_in: float
    waste_in: float
    cut_in: float
    cut_text: str
    pulled_in: float | None


@dataclass(frozen=True)
class PullTotal:
    """All of one kind of cable: inches to cut, and of it inches pulled."""

    item: str
    cut_in: float
    pulled_in: float
    text: str


@dataclass(frozen=True)
class PullList:
    """Every piece of cable of the job, longest first, and the total of each kind."""

    rows: list[PullRow]
    totals: list[PullTotal]


def pull_list(job: Job, labels: Mapping[str, str], cuts: Sequence[Cut]) -> PullList:
    """The pull list of a job. `labels`: what each circuit is called in its panel, by id."""
    hops = {(item.id, hop.box): hop for item in job.circuits for hop in item.chain}
    letters = letters_of(job, labels)
    rooms = {room.id: room.name for room in job.rooms}
    at = {node.id: rooms.get(node.room or "", "") for node in job.nodes}
    rows: list[PullRow] = []
    for cut in cuts:
        hop = hops[cut.circuit, cut.box]
        rows.append(
            PullRow(
                letter=letters[cut.circuit, cut.box], circuit=cut.circuit, box=cut.box,
                item=cut.item, pieces=cut.pieces, start=cut.start, end=cut.end, room=at.get(cut.box, ""),
                path_in=cut.path_in,
                makeup_in=cut.start_makeup_in + cut.end_makeup_in, loop_in=cut.loop_in, waste_in=cut.waste_in,
                cut_in=cut.cut_in, cut_text=show(cut.cut_in), pulled_in=hop.pulled_in,
            )
        )  # fmt: skip
    rows.sort(key=lambda row: (-row.cut_in, row.letter))
    return PullList(rows, pull_totals(job, cuts))


def letters_of(job: Job, labels: Mapping[str, str]) -> dict[tuple[str, str], str]:
    """What is written on both ends of each cable: its circuit's space and its number in the chain, before them the
    last word of its panel's name where there are several; by circuit and box."""
    panels = {panel.id: panel.name.split()[-1][:6] if len(job.panels) > 1 else "" for panel in job.panels}
    return {
        (item.id, hop.box): f"{panels[item.panel]} {labels.get(item.id) or '?'}·{index + 1}".strip()
        for item in job.circuits
        for index, hop in enumerate(item.chain)
    }


def pull_totals(job: Job, cuts: Sequence[Cut]) -> list[PullTotal]:
    """Of each kind of cable all that is cut, of what is pulled as it was cut."""
    cut_in = {
        (item.id, hop.box): hop.pulled_in for item in job.circuits for hop in item.chain if hop.pulled_in is not None
    }
    found: dict[str, tuple[float, float]] = {}
    for cut in cuts:
        pulled = cut_in.get((cut.circuit, cut.box))
        all_of, done = found.get(cut.item, (0.0, 0.0))
        own = cut.pieces * (cut.cut_in if pulled is None else pulled)
        found[cut.item] = (all_of + own, done if pulled is None else done + own)
    return [
        PullTotal(item, all_of, done, f"{show(all_of)} of {item}") for item, (all_of, done) in sorted(found.items())
    ]
