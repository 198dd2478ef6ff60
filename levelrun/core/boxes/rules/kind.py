"""Rules about what a box is for its place: its cover, its seal, what its ceiling bears, a tail without one."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.mends import set_box
from levelrun.core.boxes.rules.place import about_box, on_walls
from levelrun.core.findings import Finding, Mend
from levelrun.core.rulebook import Rule

HABITABLE = ("common", "kitchen", "dining", "bedroom")


def weather_rule(view: RoomView) -> Iterator[Finding]:
    """Outside walls: air-tight where the shop wants it; in-use covers outdoors (406.9(B))."""
    for box, face, _ in on_walls(view):
        if view.room.use == "porch" and not box.outdoors and box.kind == "receptacle" and box.cover == "flat":
            yield about_box(
                view, box, "porch-cover", f"{box.name} has a flat cover on the porch",
                "In a damp place the cover is tight while nothing is plugged in.", "406.9(A)",
                mends=[Mend("A damp-location cover", [set_box(box, cover="damp")])],
            )  # fmt: skip
        if box.outdoors and box.kind == "receptacle" and box.cover != "in_use":
            yield about_box(
                view, box, "outdoor-cover", f"{box.name} wants an in-use cover", "It keeps rain off a plug.",
                "406.9(B)", mends=[Mend("In-use cover", [set_box(box, cover="in_use")])],
            )  # fmt: skip
        if view.context.habits.air_tight_outside and face.outside and not box.air_tight and not box.outdoors:
            every = [set_box(b, air_tight=True) for b, f, _ in on_walls(view) if f.outside and not b.outdoors]
            yield about_box(
                view, box, "air-seal", f"{box.name} is not air-tight", "The shop's habit for outside walls.",
                "common practice, no source",
                mends=[
                    Mend("Air-tight box", [set_box(box, air_tight=True)]),
                    Mend("All of this room", every),
                ],
            )  # fmt: skip


def ceiling_rule(view: RoomView) -> Iterator[Finding]:
    """A ceiling box in a room that is lived in is listed for a fan, or what bears it can be reached (314.27(C))."""
    if not view.dwelling or view.room.use not in HABITABLE:
        return
    for box in view.boxes:
        if (
            box.kind == "light"
            and box.side is None
            and box.model
            and not (box.fan_rated or view.model(box).fan_rated)
        ):
            yield about_box(
                view, box, "ceiling-box", f"{box.name} bears no fan",
                "Where a fan may hang later the box is listed for one, or its framing can be reached.", "314.27(C)",
                measured=view.model(box).name, limit="listed for a fan",
                mends=[Mend("A fan-rated box", [set_box(box, model="fan-21")])],
            )  # fmt: skip


def tail_rule(view: RoomView) -> Iterator[Finding]:
    """A cable that ends without a box, for what comes later: capped, lettered, marked on the floor."""
    for box in view.boxes:
        if box.kind == "tail":
            yield about_box(
                view, box, "tail-open", f"{box.name} is a tail of cable without a box",
                "Cap the wires, letter the jacket, mark the floor under it; no splice without a box.",
                "300.15; common practice, no source",
            )  # fmt: skip


RULES: tuple[Rule[RoomView], ...] = (weather_rule, ceiling_rule, tail_rule)
