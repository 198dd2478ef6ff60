"""Rules about No. 4 and larger: room to bend it in boxes, bodies and panels (314.28, 312.6); and spans in the air."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.catalogue import model_of
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box, Panel
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.trade.methods.conditions import is_in_air
from levelrun.core.trade.pipe.pull_box import pull_box
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.mends import facts_with, set_leg

LARGE = "4"
OVER = {
    "walk": ("pedestrians", "people only"),
    "drive": ("dwelling_driveway", "the driveway of a house"),
    "street": ("street", "a street, lot or farm way"),
    "roof": ("roof", "a roof"),
}


def _largest(view: WayView, index: int) -> str:
    """The thickest single wire in a pipe, empty where none is No. 4 or larger."""
    order = wire_sizes(view.book)
    sizes = [wires.size for wires in view.wires(index)] if view.piped(index) else []
    found = max(sizes, key=order.index, default="")
    return found if found and order.index(found) >= order.index(LARGE) else ""


def box_rule(view: WayView) -> Iterator[Finding]:
    """A box between two pipes with No. 4 or larger is as long as 314.28(A) asks: 8 times the pipe straight on, 6
    times round a corner."""
    for index in range(len(view.way.legs) - 1):
        node = view.nodes.get(view.way.legs[index].end.node or "")
        size = _largest(view, index)
        if not isinstance(node, Box) or not size or not view.piped(index + 1):
            continue
        pipes = [view.way.legs[i].size for i in (index, index + 1)]
        corner = view.placed[index + 1].bend_deg
        straight = [max(pipes, key=len)] if not corner else []
        try:
            needed = pull_box(view.book, straight, [(pipe, []) for pipe in pipes] if corner else [])
            model = model_of(view.book, node)
        except (LevelRunError, ValueError):
            continue
        long, wide = max(model.wide_in, model.tall_in), min(model.wide_in, model.tall_in)
        if node.model and long >= needed.length_in - 1e-6 and (not corner or wide >= needed.width_in - 1e-6):
            continue
        shown = show_inches(needed.length_in) + (f" by {show_inches(needed.width_in)}" if corner else " long")
        yield finding(
            "pull-box-small" if node.model else "pull-box-unsaid", view.way.id, index,
            f"{node.name} wants to be {shown} for {size}",
            f"{'Round a corner' if corner else 'Straight on'} with pipe of {' and '.join(dict.fromkeys(pipes))}. "
            f"{model.name} is {show_inches(long)} by {show_inches(wide)}." if node.model else
            "Say which box it is, or put one of that size.", needed.rule,
            measured=f"{show_inches(long)} by {show_inches(wide)}" if node.model else "not said", limit=shown,
        )  # fmt: skip


def body_rule(view: WayView) -> Iterator[Finding]:
    """A body at a corner with No. 4 or larger is one that is marked for it (314.28(A)(3), 314.16(C))."""
    for index, leg in enumerate(view.way.legs):
        size = _largest(view, index)
        if size and leg.end.kind in ("lb", "body"):
            yield finding(
                "body-marked", view.way.id, index, f"{size} through {'an LB' if leg.end.kind == 'lb' else 'a body'}",
                f"Standard bodies are short for it: one that is marked for {size}, or a box, or a sweep.",
                "314.28(A)(3)", measured=size, limit="marked for it",
                mends=[Mend("A sweep instead", [set_leg(view, index, end={"kind": "none", "node": None})])],
            )  # fmt: skip


def bend_room_rule(view: WayView) -> Iterator[Finding]:
    """Room to bend a large wire before its lug (312.6(A))."""
    table = view.book.table("312-6-bending")
    told: set[str] = set()
    for index in (0, len(view.way.legs) - 1) if view.way.legs else ():
        node = view.start if index == 0 else view.end
        size = _largest(view, index)
        row = table.find(size) if size else None
        if isinstance(node, Panel) and row is not None and node.id not in told:
            told.add(node.id)
            yield finding(
                "bend-room", view.way.id, index, f"{size} bends in {node.name}: {row['space_in']}″ to its lug",
                "From the wall of the cabinet to the lug, one wire a lug. Look before the pipe is set.",
                "312.6(A)", limit=f"{row['space_in']}″",
            )  # fmt: skip


def air_rule(view: WayView) -> Iterator[Finding]:
    """A span hangs high enough over what lies beneath (225.18, 225.19)."""
    table = view.book.table("overhead")
    for index, leg in enumerate(view.way.legs):
        if not is_in_air(view.facts[index]) or view.placed[index].vertical or leg.along:
            continue
        if leg.facts.beneath is None or leg.facts.clear_in is None:
            yield finding(
                "span-unsaid", view.way.id, index, "How high does it hang, and over what?",
                "10 ft over people, 12 over the drive of a house, 18 over a street, 8½ over a roof, at its lowest.",
                "225.18, 225.19",
                mends=[
                    Mend("Over people, 10 ft", [_hung(view, index, "walk", 120.0)]),
                    Mend("Over the drive, 12 ft", [_hung(view, index, "drive", 144.0)]),
                ],
            )  # fmt: skip
            continue
        key, over = OVER[leg.facts.beneath]
        row = table.get(key)
        needed = 12 * float(row["clearance_ft"])
        if leg.facts.clear_in < needed - 1e-6:
            yield finding(
                "span-low", view.way.id, index, f"Hangs {show(leg.facts.clear_in)} over {over}",
                f"At its lowest it clears {show(needed)}: higher ends, a mast, less sag, or under ground.",
                row["section"], measured=show(leg.facts.clear_in), limit=show(needed),
                mends=[Mend(f"Hang it {show(needed)} up", [_hung(view, index, leg.facts.beneath, needed)])],
            )  # fmt: skip


def _hung(view: WayView, index: int, beneath: str, clear_in: float) -> dict[str, object]:
    return set_leg(view, index, facts=facts_with(view, index, beneath=beneath, clear_in=clear_in))


RULES: tuple[Rule[WayView], ...] = (box_rule, body_rule, bend_room_rule, air_rule)
