"""Rules about where alarms hang, and what else a wall or a machine asks of the boxes around it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from levelrun.core.boxes.alarm_spots import near_steam
from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.mends import set_box
from levelrun.core.boxes.parts import GEAR
from levelrun.core.boxes.rules.place import about_box, on_walls
from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule

SERVICE_IN = 300.0
BURNS = ("fireplace",)


def steam_rule(view: RoomView) -> Iterator[Finding]:
    """A smoke alarm hangs 10 ft from a stove and 3 ft from a bath door, where there is room (IRC R314.3.3)."""
    for box in view.boxes:
        spot = view.spot(box) if box.kind == "smoke" else None
        if spot is None:
            continue
        for what, off, limit in near_steam(view, spot):
            cooks = what == "range"
            yield about_box(
                view, box, "alarm-near", f"{box.name} hangs {show(round(off))} from the {what}",
                "It will cry at every steak, and be taken down. 10 ft, or 6 with a kind made for it."
                if cooks
                else "Steam sets it off: 3 ft from a door of a bath with tub or shower.",
                "IRC R314.3", measured=show(round(off)), limit=show(limit),
            )  # fmt: skip


def fire_wall_rule(view: RoomView) -> Iterator[Finding]:
    """A box in the wall between garage and house keeps that wall tight to fire (IRC R302.6)."""
    for box, face, _ in on_walls(view):
        behind = {view.uses.get(mate.room, "") for mate in face.mates}
        if behind and ("garage" in behind) != (view.room.use == "garage"):
            yield about_box(
                view, box, "fire-wall", f"{box.name} is in the wall to the garage",
                "A steel box, or one listed for it; not back to back with another within 24 in.", "IRC R302.6",
            )  # fmt: skip


def monoxide_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """Where something burns, or a garage is attached, an alarm outside the bedrooms tells carbon monoxide too
    (IRC R315)."""
    if not views or not views[0].dwelling or not any(view.room.use == "bedroom" for view in views):
        return
    burns = any(item.kind in BURNS for view in views for item in view.fixtures)
    garage = any(view.room.use == "garage" for view in views)
    alarms = [(view, box) for view in views for box in view.boxes if box.kind == "smoke"]
    if not (burns or garage) or not alarms or any(box.monoxide for _, box in alarms):
        return
    outside = [(view, box) for view, box in alarms if view.room.use != "bedroom"] or alarms
    view, box = outside[0]
    yield finding(
        "monoxide", view.context.structure.id, None, f"{view.context.structure.name}: no alarm tells carbon monoxide",
        f"{'A fireplace' if burns else 'An attached garage'}: one outside each sleeping area, on each level.",
        "IRC R315", about="structure", room=view.room.id,
        mends=[Mend(f"{box.name} tells both", [set_box(box, monoxide=True)])],
    )  # fmt: skip


def joined_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """Alarms of a dwelling cry together, on house power with a battery behind it (IRC R314.4, R314.6)."""
    alarms = [(view, box) for view in views if view.dwelling for box in view.boxes if box.kind == "smoke"]
    if len(alarms) > 1:
        view = alarms[0][0]
        yield finding(
            "alarms-joined", view.context.structure.id, None, f"{len(alarms)} alarms cry together",
            "A third wire from one to the next, or a kind that is joined by radio; each with a battery behind it.",
            "IRC R314.4, IRC R314.6", about="structure", room=view.room.id,
        )  # fmt: skip


def service_outlet_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """A receptacle within 25 ft of heating and cooling gear, on its level (210.63(A))."""
    machines = [(v, box) for v in views for box in v.boxes if box.serves in GEAR]
    for view, machine in machines:
        spot = view.spot(machine)
        level = [other for other in views if other.context.level.id == view.context.level.id]
        plugs = ((v, box) for v in level for box in v.boxes if box.kind == "receptacle" and box.serves == "")
        stands = (at for v, box in plugs if (at := v.spot(box)) is not None)
        if spot is None or any(math.dist(at, spot) <= SERVICE_IN for at in stands):
            continue
        yield about_box(
            view, machine, "service-outlet", f"No receptacle within 25 ft of {machine.name}",
            "Whoever mends it wants power beside it, on the same level.", "210.63(A)", limit=show(SERVICE_IN),
        )  # fmt: skip


RULES: tuple[Rule[RoomView], ...] = (steam_rule, fire_wall_rule)
OF_STRUCTURES: tuple[Rule[Sequence[RoomView]], ...] = (monoxide_rule, joined_rule, service_outlet_rule)
