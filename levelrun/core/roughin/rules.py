"""What is said of the record of the work. All of it needs something recorded: what was not begun is no fault."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Job
from levelrun.core.roughin.codes import finding
from levelrun.core.roughin.panel_card import off_label
from levelrun.core.roughin.steps import left_out
from levelrun.core.roughin.surfaces import place_name
from levelrun.core.roughin.waits import TITLES, closed_surfaces, named, open_faults


@dataclass(frozen=True)
class RecordFacts:
    """A job under its rule set."""

    book: Codebook
    job: Job


def closed_rule(facts: RecordFacts) -> Iterator[Finding]:
    """A surface that is closed while it waits."""
    for row in closed_surfaces(facts.job):
        if not row.waits:
            continue
        why = f" Closed all the same: {row.why}." if row.why else ""
        yield finding(
            "closed-early", f"{row.room}.{row.surface}", None,
            f"{place_name(facts.job, row.room, row.surface)}: closed too early",
            f"{_sentence(named([w.text for w in row.waits]))}.{why}", "common practice, no source",
            measured=f"{row.made} of {row.boxes} boxes made up", limit="all, and a photo",
            about="surface", room=row.room,
            mends=[Mend("Take it open again", [{"op": "open_wall", "room": row.room, "surface": row.surface}])],
        )  # fmt: skip


def _sentence(text: str) -> str:
    return text[:1].upper() + text[1:]


def hold_rule(facts: RecordFacts) -> Iterator[Finding]:
    """A hold that was lifted over something found."""
    job = facts.job
    named_of = {item.id: item.name for item in job.structures}
    named_of |= {item.id: item.name for item in job.trenches}
    for hold in job.holds:
        left = open_faults(job, hold.kind, hold.place) if hold.lifted_by else []
        if left:
            again = (
                {"op": "lift_hold", "trench": hold.place, "by": ""}
                if hold.kind == "backfill"
                else {"op": "lift_building", "kind": hold.kind, "structure": hold.place, "by": ""}
            )
            yield finding(
                "lifted-early", f"{hold.kind}.{hold.place}", None,
                f"{named_of[hold.place]}, {TITLES[hold.kind].lower()}: lifted with {len(left)} found and open",
                f"{named([fault.text for fault in left])}.", "common practice, no source",
                measured=f"{len(left)} open", limit="none", about="hold", mends=[Mend("Hold it again", [again])],
            )  # fmt: skip


def fault_rule(facts: RecordFacts) -> Iterator[Finding]:
    """What was found and is not mended."""
    names = {node.id: node.name for node in facts.job.nodes}
    rooms = {node.id: node.room or "" for node in facts.job.nodes}
    for fault in facts.job.faults:
        if not fault.mended_on:
            at = f"{names[fault.node]}: " if fault.node in names else ""
            yield finding(
                "fault-open", fault.id, None, f"{at}{fault.text}", "Found at the last visit; not mended yet.",
                fault.section or "common practice, no source", about="fault", room=rooms.get(fault.node or "", ""),
            )  # fmt: skip


def torque_rule(facts: RecordFacts) -> Iterator[Finding]:
    """A torque that is not what its label asks."""
    names = {node.id: node.name for node in facts.job.nodes}
    for card in facts.job.cards:
        for read in card.torque:
            asked = read.label_lb_in
            if asked is not None and off_label(facts.job, read.lb_in, asked):
                yield finding(
                    "torque-off", card.node, None,
                    f"{names[card.node]}, {read.at}: {read.lb_in:g} lb-in, its label asks {asked:g}",
                    "Loose it heats; too tight it cuts the strands. Read the label again.", "110.14(D)",
                    measured=f"{read.lb_in:g} lb-in", limit=f"{asked:g} lb-in", about="panel",
                )  # fmt: skip


def left_out_rule(facts: RecordFacts) -> Iterator[Finding]:
    """A box that was left out with others behind it."""
    job, gone = facts.job, left_out(facts.job)
    nodes = {node.id: node for node in job.nodes}
    for circuit in job.circuits if gone else ():
        for hop in circuit.chain:
            if hop.after in gone and hop.box not in gone:
                box = nodes[hop.after]
                yield finding(
                    "left-out-live", hop.after, None, f"{box.name} was left out: {nodes[hop.box].name} hangs on it",
                    f"On {circuit.name} the cable to {nodes[hop.box].name} starts at {box.name}, which is not there.",
                    "300.15", about="box", room=box.room or "",
                )  # fmt: skip


RULES = (closed_rule, hold_rule, fault_rule, torque_rule, left_out_rule)
