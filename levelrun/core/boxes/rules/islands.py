"""Rules about islands and peninsulas: their outlets, or the provision for one (210.52(C)(2))."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.islands import Island, islands
from levelrun.core.boxes.mends import add
from levelrun.core.boxes.placing import Placement, for_island
from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show_area
from levelrun.core.rulebook import Rule


def island_rule(view: RoomView) -> Iterator[Finding]:
    """An island or a peninsula has the outlets that the rule set asks, or something left for one."""
    first, each = view.book.scalar("island_first_ft2"), view.book.number("island_each_ft2")
    for island in islands(view):
        if island.lacking and island.wanted:
            yield finding(
                "island-no-receptacle", view.room.id, None,
                f"The {island.name} has {island.outlets} of {island.wanted} receptacles",
                f"{show_area(island.area_ft2)}: one for the first {first.value:g} ft², one for each {each:g} ft² "
                "beyond, within 20 in over its top or 12 in under it.", first.section, about="room",
                room=view.room.id, measured=str(island.outlets), limit=str(island.wanted),
                mends=[_outlets(view, island)],
            )  # fmt: skip
        elif island.lacking:
            yield finding(
                "island-provision", view.room.id, None,
                f"The {island.name} has no outlet, and no provision for one",
                "An outlet in its top or within 20 in over it, or a cable that waits there for one.", first.section,
                about="room", room=view.room.id, measured="none", limit="one",
                mends=[_outlets(view, island), _tail(view, island)],
            )  # fmt: skip


def _outlets(view: RoomView, island: Island) -> Mend:
    placed = for_island(view, island)
    label = "An outlet in its top" if len(placed) == 1 else f"{len(placed)} outlets in its top"
    return Mend(label, [add(view, item) for item in placed])


def _tail(view: RoomView, island: Island) -> Mend:
    x, y = island.spot(0.5)
    floor = view.context.level.floor_in
    left = Placement(kind="tail", why="left for an outlet", x_in=x, y_in=y, height_in=floor, serves="counter")
    return Mend("A cable left for one", [add(view, left)])


RULES: tuple[Rule[RoomView], ...] = (island_rule,)
