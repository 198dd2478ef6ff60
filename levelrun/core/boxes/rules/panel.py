"""Rules about where a panel stands: which rooms, and the working space before it (110.26, 240.24)."""

from __future__ import annotations

import math
from collections.abc import Iterator

from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.working_space import DEEP_IN, TALL_IN, WIDE_IN, in_the_way
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Panel
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule

FORBIDDEN = {"bath": "240.24(E)", "closet": "240.24(D)", "stairs": "240.24(F)"}
HANDLE_IN = 79.0


def panel_rules(view: RoomView) -> Iterator[Finding]:
    """Every panel of the room."""
    for panel in view.context.panels:
        yield from _place(view, panel)
        yield from _opening(view, panel)
        yield from _space(view, panel)


def _about(view: RoomView, panel: Panel, code: str, title: str, text: str, section: str, **more: object) -> Finding:
    return finding(code, panel.id, None, title, text, section, about="panel", room=view.room.id, **more)


def _place(view: RoomView, panel: Panel) -> Iterator[Finding]:
    section = FORBIDDEN.get(view.room.use)
    if section:
        yield _about(
            view, panel, "panel-place", f"{panel.name} stands in a {view.room.use}",
            "No overcurrent device in a bath, in a clothes closet or over the steps of a stair.", section,
        )  # fmt: skip
    top = view.over_floor(panel) + panel.tall_in - 4
    if top > HANDLE_IN:
        lower = {
            "op": "set",
            "kind": "panel",
            "id": panel.id,
            "set": {"height_in": panel.height_in - (top - HANDLE_IN)},
        }
        yield _about(
            view, panel, "switch-high", f"{panel.name}: its top breaker is {show(top)} up",
            "The highest handle is at 6 ft 7 in at most.", "240.24(A)", measured=show(top), limit=show(HANDLE_IN),
            mends=[Mend("Lower it", [lower])],
        )  # fmt: skip


def _opening(view: RoomView, panel: Panel) -> Iterator[Finding]:
    """No panel over a door or a window."""
    if panel.side is None or panel.at_in is None:
        return
    half, foot = panel.width_in / 2, view.over_floor(panel)
    for item in view.faces[panel.side].openings:
        beside = item.to_in <= panel.at_in - half or item.at_in >= panel.at_in + half
        if not beside and item.sill_in < foot + panel.tall_in and item.head_in > foot:
            yield _about(
                view, panel, "box-in-opening", f"{panel.name} stands in a {item.kind.replace('_', ' ')}",
                f"It runs from {show(item.at_in)} to {show(item.to_in)}.", "110.26",
                measured=show(panel.at_in), limit=f"clear of {show(item.at_in)} to {show(item.to_in)}",
            )  # fmt: skip


def _space(view: RoomView, panel: Panel) -> Iterator[Finding]:
    if panel.side is None or panel.at_in is None:
        return
    face = view.faces[panel.side]
    if face.wall.length_in < WIDE_IN - 1e-6:
        yield _about(
            view, panel, "panel-space", f"{panel.name}: the wall is {show(face.wall.length_in)} wide",
            f"{show_inches(WIDE_IN)} of width, or the panel's own if wider.", "110.26(A)(2)",
            measured=show(face.wall.length_in), limit=show_inches(WIDE_IN),
        )  # fmt: skip
    half = max(WIDE_IN, panel.width_in) / 2
    middle = min(max(panel.at_in, half), max(face.wall.length_in - half, half))
    low, high = middle - half, middle + half
    deep_here = _room_before(view, panel.side, low, high)
    tall = view.context.level.height_in
    for has, wanted, said, what, section in (
        (deep_here, DEEP_IN, show_inches, "to the wall before it", "110.26(A)(1)"),
        (tall, TALL_IN, show, "high", "110.26(A)(3)"),
    ):
        if has < wanted - 0.1:
            yield _about(
                view, panel, "panel-space", f"{panel.name}: {said(has)} {what}",
                f"{show_inches(WIDE_IN)} wide, {show_inches(DEEP_IN)} deep and 6 ft 6 in high stay clear.", section,
                measured=said(has), limit=said(wanted),
            )  # fmt: skip
            return
    if (found := in_the_way(view, face, low, high)) is not None:
        item, deep = found
        yield _about(
            view, panel, "panel-space", f"{panel.name}: the {item.kind.replace('_', ' ')} is in its space",
            f"{show_inches(WIDE_IN)} wide, {show_inches(DEEP_IN)} deep and 6 ft 6 in high stay clear.",
            "110.26(A)", measured=show_inches(max(deep, 0)), limit=show_inches(DEEP_IN),
        )  # fmt: skip


def _room_before(view: RoomView, side: int, low: float, high: float) -> float:
    """From the wall straight out to the nearest other wall that crosses the working space, inches."""
    face = view.faces[side]
    nearest = math.inf
    for other in view.faces:
        if other is face:
            continue
        ends = (other.wall.at(0.0), other.wall.at(other.wall.length_in))
        along = sorted(face.wall.distance(end) for end in ends)
        away = [face.wall.into(end) for end in ends]
        if along[1] > low + 0.1 and along[0] < high - 0.1 and min(away) > 0.1 and abs(away[0] - away[1]) < 0.1:
            nearest = min(nearest, min(away))
    return nearest


RULES: tuple[Rule[RoomView], ...] = (panel_rules,)
