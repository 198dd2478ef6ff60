"""Rules about how far a box or a panel stands out against the finish of walls, ceilings and the outside."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.boxes.catalogue import UNNAILED
from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.mends import set_box
from levelrun.core.boxes.rules.place import on_walls
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box, Panel
from levelrun.core.measure import show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.site.faces import Face
from levelrun.core.site.framing import BURNS, STUDDED, finish_in

SETBACK_IN = 0.25
CEILING_IN = 6.0
HUNG = ("light", "fan", "smoke", "junction")


@dataclass(frozen=True)
class _Against:
    """A box against what covers it: how thick that is, what it is called, how far back the box may be; what gets that
    cover, and what a box stands out of."""

    finish_in: float
    name: str
    most_in: float = SETBACK_IN
    on: str = "wall"
    cover: str = "finish"

    def gets(self, out_in: float) -> str:
        """How far out it is set, against what is to come."""
        return f"It is set out {show_inches(out_in)}, the {self.on} gets {show_inches(self.finish_in)}."

    @property
    def rule(self) -> str:
        """How far back it may be, in words."""
        return "Flush with what burns." if self.most_in == 0 else "A quarter inch back at most."


def finish_rule(view: RoomView) -> Iterator[Finding]:
    """The face of a box against the finish: flush where it burns, else ¼ in back at most (314.20)."""
    for box, face, _ in on_walls(view):
        if box.kind in UNNAILED or box.surface:
            continue
        against = _outside(view) if box.outdoors else _inside(face)
        if against is not None:
            yield from _box(view, box, against, [] if box.outdoors else _all_of_wall(view, face, against))
    ceiling = view.room.ceiling_out_in
    if ceiling is not None:
        hung = [box for box in view.boxes if box.kind in HUNG and box.side is None and not box.surface]
        hung = [box for box in hung if abs(view.over_floor(box) - view.context.level.height_in) <= CEILING_IN]
        every = [set_box(box, set_out_in=ceiling) for box in hung]
        all_of = [Mend("Set out all of this ceiling", every)] if len(hung) > 1 else []
        for box in hung:
            yield from _box(view, box, _Against(ceiling, "ceiling", on="ceiling", cover="ceiling"), all_of)


def _inside(face: Face) -> _Against:
    return _Against(finish_in(face.side), face.side.finish, 0.0 if face.side.finish in BURNS else SETBACK_IN)


def _outside(view: RoomView) -> _Against | None:
    siding = view.context.structure.siding_in
    return None if siding is None else _Against(siding, "siding", on="siding", cover="siding")


def _all_of_wall(view: RoomView, face: Face, against: _Against) -> list[Mend]:
    same = [box for box, other, _ in on_walls(view) if other is face]
    edits = [set_box(box, set_out_in=against.finish_in) for box in same if not box.outdoors]
    return [Mend("Set out all of this wall", edits)] if len(same) > 1 else []


def _box(view: RoomView, box: Box, against: _Against, more: list[Mend]) -> Iterator[Finding]:
    back = against.finish_in - box.set_out_in
    to, gets = against.finish_in, against.gets(box.set_out_in)
    mends = [Mend(f"Set it out {show_inches(to)}", [set_box(box, set_out_in=to)]), *more]
    if back > against.most_in + 1e-6:
        yield finding(
            "box-set-out", box.id, None, f"{box.name} will be {show_inches(back)} behind the {against.name}",
            f"{gets} {against.rule}", "314.20",
            about="box", room=view.room.id, measured=show_inches(back), limit=show_inches(against.most_in),
            mends=mends,
        )  # fmt: skip
    elif back < -SETBACK_IN - 1e-6 and (box.side is None or view.faces[box.side].side.stud in STUDDED):
        yield finding(
            "box-proud", box.id, None, f"{box.name} stands {show_inches(-back)} out of the {against.cover}",
            gets, "common practice, no source", about="box", room=view.room.id, mends=mends,
        )  # fmt: skip


def panel_rule(view: RoomView) -> Iterator[Finding]:
    """The edge of a panel set in the wall: as a box, flush where the finish burns, else ¼ in back at most (312.3)."""
    for panel in view.context.panels:
        if panel.side is None or panel.set_out_in is None:
            continue
        against = _inside(view.faces[panel.side])
        back = against.finish_in - panel.set_out_in
        if back > against.most_in + 1e-6:
            yield finding(
                "panel-set-out", panel.id, None,
                f"{panel.name} will be {show_inches(back)} behind the {against.name}",
                f"{against.gets(panel.set_out_in)} {against.rule}", "312.3",
                about="panel", room=view.room.id, measured=show_inches(back), limit=show_inches(against.most_in),
                mends=[Mend(f"Set it out {show_inches(against.finish_in)}", [_set(panel, against.finish_in)])],
            )  # fmt: skip


def _set(panel: Panel, inches: float) -> dict[str, object]:
    return {"op": "set", "kind": "panel", "id": panel.id, "set": {"set_out_in": inches}}


RULES: tuple[Rule[RoomView], ...] = (finish_rule, panel_rule)
