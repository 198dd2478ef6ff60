"""A room planned: its findings, what each box is and why it stands there."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomContext, RoomView, viewed
from levelrun.core.boxes.pole import pole_use
from levelrun.core.boxes.rules import alarms, fill, islands, kind, panel, place, setout, spacing
from levelrun.core.boxes.spacing import wall_place, wall_spaces
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.job import Box
from levelrun.core.measure import show, show_inches, shown_in
from levelrun.core.rulebook import judged, keeping, sourced
from levelrun.core.site.framing import depth_of, finish_in
from levelrun.core.site.lived import as_laid_out

TAMPER_IN = 66.0
RULES = (
    *spacing.RULES,
    *islands.RULES,
    *place.RULES,
    *setout.RULES,
    *kind.RULES,
    *alarms.RULES,
    *fill.RULES,
    *panel.RULES,
)


@dataclass(frozen=True)
class BoxLine:
    """A line of facts about a box."""

    label: str
    text: str


@dataclass(frozen=True, kw_only=True)
class BoxPlan:
    """One box as planned: verdict, margins, facts, what enters it, and why it stands where it does."""

    id: str
    name: str
    kind: str
    model: str
    verdict: str
    at: str
    lines: list[BoxLine]
    figures: list[Figure]
    entering: list[Entering]
    why: str


@dataclass(frozen=True, kw_only=True)
class RoomSummary:
    """A row of the list of rooms. `group` names structure and level."""

    id: str
    name: str
    use: str
    level: str
    structure: str
    group: str
    boxes: int
    marked: int
    verdict: str
    stops: int
    checks: int


@dataclass(frozen=True)
class RoomPlanned:
    """A room's findings and boxes, as it is looked at. The drawings are made from the same view."""

    summary: RoomSummary
    findings: list[Finding]
    boxes: list[BoxPlan]


@dataclass(frozen=True, kw_only=True)
class PlannedRoom:
    """A room's row and findings. The lines of its boxes are worked out when they are looked at."""

    summary: RoomSummary
    findings: list[Finding]
    view: RoomView = field(repr=False, compare=False)

    @cached_property
    def whole(self) -> RoomPlanned:
        """Everything that follows for it."""
        with shown_in(self.view.book.units):
            return RoomPlanned(self.summary, self.findings, self._boxes())

    @property
    def boxes(self) -> list[BoxPlan]:
        """Its boxes as planned."""
        return self.whole.boxes

    @cached_property
    def verdicts(self) -> dict[str, str]:
        """What is said of each of its boxes, in a word."""
        return {box.id: worst(self._about.get(box.id, [])) for box in self.view.boxes}

    @cached_property
    def _about(self) -> dict[str, list[Finding]]:
        found: dict[str, list[Finding]] = {}
        for item in self.findings:
            found.setdefault(item.subject, []).append(item)
        return found

    def _boxes(self) -> list[BoxPlan]:
        reach = _reach(self.view)
        return [_box(self.view, box, self.verdicts[box.id], reach.get(box.id, "")) for box in self.view.boxes]


@keeping(1024)
def plan_room(book: Codebook, context: RoomContext) -> PlannedRoom:
    """Plans one room. Kept for as long as nothing that it touches changes."""
    view = viewed(book, context)
    known = {box.id: bool(box.model) for box in context.boxes if box.old}  # what stood there is not judged
    said = [
        item for item in judged(book, RULES, view)
        if item.subject not in known or (item.code == "box-full" and known[item.subject])
    ]  # fmt: skip
    found = list(as_laid_out(said, context.structure, context.lived, context.room.laid_out))
    return PlannedRoom(summary=_summary(view, found), findings=found, view=view)


def _summary(view: RoomView, found: list[Finding]) -> RoomSummary:
    context = view.context
    return RoomSummary(
        id=view.room.id,
        name=view.room.name,
        use=view.room.use,
        level=context.level.id,
        structure=context.structure.id,
        group=f"{context.structure.name}, {context.level.name.lower()}",
        boxes=len(view.boxes),
        marked=sum(box.marked for box in view.boxes),
        verdict=worst(found),
        stops=sum(item.severity == "stop" for item in found),
        checks=sum(item.severity == "check" for item in found),
    )


def _box(view: RoomView, box: Box, verdict: str, reach: str) -> BoxPlan:
    figure = fill.fill_figure(view, box)
    return BoxPlan(
        id=box.id,
        name=box.name,
        kind=box.kind,
        model=view.model(box).name,
        verdict=verdict,
        at=_at(view, box),
        lines=_lines(view, box),
        figures=sourced(view.book, [figure] if figure else []),
        entering=list(view.entering.get(box.id, ())),
        why=why(view, box, reach),
    )


def _at(view: RoomView, box: Box) -> str:
    """Its place in a few words: along its wall, or from two walls."""
    if box.side is not None and box.at_in is not None:
        return f"{view.faces[box.side].wall.name.capitalize()} {show(box.at_in)}"
    readings = _from_walls(view, box)
    return f"{readings[0]} from west, {readings[1]} from south" if readings else ""


def _from_walls(view: RoomView, box: Box) -> tuple[str, str] | None:
    """The two tape readings of what hangs on no wall: from the west wall, from the south wall."""
    spot = view.spot(box)
    if spot is None:
        return None
    west, south = min(x for x, _ in view.room.corners), min(y for _, y in view.room.corners)
    return show(spot[0] - west), show(spot[1] - south)


def _lines(view: RoomView, box: Box) -> list[BoxLine]:
    model = view.model(box)
    up = view.over_floor(box)
    if box.side is None or box.at_in is None:
        readings = _from_walls(view, box)
        if readings is None:
            return []
        return [
            BoxLine("From the west wall", readings[0]),
            BoxLine("From the south wall", readings[1]),
            BoxLine("Floor mark", "same two readings, before the board goes up"),
            BoxLine("Box", model.name),
        ]
    face = view.faces[box.side]
    lines = [
        BoxLine(f"{face.wall.name.capitalize()} wall, from its left corner", show(box.at_in)),
        BoxLine("Top, middle, bottom over the floor", _heights(up, model.tall_in)),
        BoxLine("Stands by", stud_text(view, box)),
        BoxLine(f"Stands proud of the stud, {face.side.finish}", show_inches(box.set_out_in)),
    ]
    if depth_of(face.side):
        lines.append(
            BoxLine(f"Depth it needs, wall has {show_inches(depth_of(face.side))}", _needs(box, model.depth_in))
        )
    lines.append(BoxLine("Box", model.name))
    if box.kind == "receptacle" and (kinds := _kinds(view, box)):
        lines.append(BoxLine("Receptacle of a kind that is", kinds))
    if finish_in(face.side) != box.set_out_in:
        lines.append(BoxLine("The finish is", show_inches(finish_in(face.side))))
    return lines


def _kinds(view: RoomView, box: Box) -> str:
    """Tamper-resistant in a dwelling up to 5½ ft (406.12); weather-resistant outdoors and in damp places (406.9)."""
    wet = box.outdoors or view.room.use == "porch" or view.room.moisture in ("damp", "wet")
    tamper = (
        view.dwelling and view.over_floor(box) <= TAMPER_IN and box.serves not in ("refrigerator", "dryer", "range")
    )
    return ", ".join(word for word, so in (("tamper-resistant", tamper), ("weather-resistant", wet)) if so)


def _heights(up: float, tall: float) -> str:
    shown = (show_inches(at) for at in (up + tall / 2, up, up - tall / 2))
    return " · ".join(one.replace(" ", "\u00a0") for one in shown)  # a fraction stays with its inches


def _needs(box: Box, depth: float) -> str:
    return show_inches(max(depth - box.set_out_in, 0))


def stud_text(view: RoomView, box: Box) -> str:
    """Which stud a box is nailed to, and on which face of it, counted from the left corner."""
    if box.side is None or box.at_in is None:
        return "the joists"
    face = view.faces[box.side]
    if box.blocking:
        return "blocking"
    if not face.full_studs:
        return face.side.stud
    at = box.at_in
    stud = min(face.full_studs, key=lambda item: abs(item.at_in - at))
    which = "left" if at < stud.at_in else "right"
    return f"stud {face.full_studs.index(stud) + 1}, {which} face"


def why(view: RoomView, box: Box, reach: str) -> str:
    """Why a box stands where it does, in one line; `reach` is what it says for a receptacle of a wall space."""
    use = pole_use(box, view.room, view.fixtures)
    if box.serves and box.serves != "counter":
        return f"Serves the {box.serves.replace('_', ' ')}."
    if box.kind == "switch":
        for face, door in view.doors:
            if box.side == face.wall.index and box.at_in is not None and _beside(box.at_in, door.at_in, door.to_in):
                side = "latch" if (box.at_in > door.to_in) == (door.latch == "right") else "hinge"
                return f"At the {side} side of the door to {view.beside(door)}."
        return ""
    if box.kind != "receptacle":
        return {"light": "A light for the room.", "smoke": "One in every bedroom and outside it."}.get(box.kind, "")
    if use == "counter":
        return "No point of the counter may be over 24 in from one."
    return reach


def _reach(view: RoomView) -> dict[str, str]:
    """How far the wall goes on from each receptacle that counts for it, by box id."""
    found: dict[str, str] = {}
    for space in wall_spaces(view):
        counted = set(space.receptacles)
        placed = sorted((wall_place(view, box) or 0.0, box.id) for box in view.boxes if box.id in counted)
        places = [space.from_in, *(at for at, _ in placed), space.to_in]
        for index, (at, key) in enumerate(placed, 1):
            left, right = at - places[index - 1], places[index + 1] - at
            found[key] = (
                f"{show(left % view.around_in)} to the left and {show(right % view.around_in)} to the right stay "
                f"within reach: 6 ft to an end, 12 ft to the next."
            )
    return found


def _beside(at: float, low: float, high: float) -> bool:
    return low - 24 <= at <= high + 24
