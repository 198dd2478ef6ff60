"""One room with everything that a rule about its boxes may ask."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

from levelrun.core.boxes.catalogue import BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.holding import model_in
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Fixture, Habits, Level, Panel, Room, Structure
from levelrun.core.kept import kept_hash
from levelrun.core.site.faces import FLOOR_BREAKS, Face, Seen
from levelrun.core.site.geometry import Point


@dataclass(frozen=True, kw_only=True)
class RoomContext:
    """What a room touches. Hashable, so that an unchanged room is not planned again."""

    room: Room
    level: Level
    structure: Structure
    habits: Habits
    faces: tuple[Face, ...]
    boxes: tuple[Box, ...]
    panels: tuple[Panel, ...]
    entering: tuple[tuple[str, tuple[Entering, ...]], ...]
    names: tuple[tuple[str, str], ...]
    lived: bool | None = True
    uses: tuple[tuple[str, str], ...] = ()

    __hash__ = kept_hash


@dataclass(frozen=True, eq=False)
class RoomView:
    """A room under a rule set."""

    book: Codebook
    context: RoomContext

    @property
    def room(self) -> Room:
        """The room."""
        return self.context.room

    @property
    def dwelling(self) -> bool:
        """Whether the rules of dwellings are asked: lived in, or not known."""
        return self.context.lived is not False

    @property
    def faces(self) -> tuple[Face, ...]:
        """Its walls, clockwise."""
        return self.context.faces

    @property
    def boxes(self) -> tuple[Box, ...]:
        """The boxes in it, those on the outer face of its walls too."""
        return self.context.boxes

    @cached_property
    def names(self) -> dict[str, str]:
        """Names of the rooms around, by id."""
        return dict(self.context.names)

    @cached_property
    def uses(self) -> dict[str, str]:
        """What the rooms around are for, by id."""
        return dict(self.context.uses)

    @cached_property
    def fixtures(self) -> tuple[Fixture, ...]:
        """What stands along the walls."""
        return tuple(f for face in self.faces for f in face.fixtures)

    @cached_property
    def entering(self) -> dict[str, tuple[Entering, ...]]:
        """Cables and wires that enter each box, by box id, where they are known."""
        return dict(self.context.entering)

    @cached_property
    def starts(self) -> tuple[float, ...]:
        """Where each wall starts along the unrolled room."""
        found, at = [], 0.0
        for face in self.faces:
            found.append(at)
            at += face.wall.length_in
        return tuple(found)

    @property
    def around_in(self) -> float:
        """The room unrolled: its perimeter."""
        return self.starts[-1] + self.faces[-1].wall.length_in

    def named(self, box_id: str) -> str:
        """The name of one of its boxes."""
        return next((box.name for box in self.boxes if box.id == box_id), box_id)

    def model(self, box: Box) -> BoxModel:
        """The catalogue row of a box, as `model_in` finds it."""
        found = self._models.get(box.id)
        if found is None or found[0] is not box:
            side = self.faces[box.side].side if box.side is not None else None
            model = model_in(self.book, box, self.entering.get(box.id, ()), side)
            found = self._models[box.id] = (box, model)
        return found[1]

    @cached_property
    def _models(self) -> dict[str, tuple[Box, BoxModel]]:
        """What `model` found, by box: asked of again and again."""
        return {}

    def unrolled(self, box: Box | Panel) -> float | None:
        """A wall box's middle along the unrolled room, or None for what stands on no wall."""
        return None if box.side is None or box.at_in is None else self.starts[box.side] + box.at_in

    def on_wall(self, distance: float) -> tuple[Face, float]:
        """The wall, and the place on it, of a distance along the unrolled room; wraps round."""
        distance %= self.around_in
        index = max(i for i, start in enumerate(self.starts) if start <= distance + 1e-9)
        return self.faces[index], distance - self.starts[index]

    def over_floor(self, box: Box | Panel) -> float:
        """Height over this level's floor."""
        return box.height_in - self.context.level.floor_in

    def spot(self, box: Box | Panel) -> Point | None:
        """Where it stands in the structure's plan."""
        if box.side is not None and box.at_in is not None:
            face = self.faces[box.side]
            return face.wall.at(box.at_in, face.wall_out if getattr(box, "outdoors", False) else 0.0)
        return None if box.x_in is None or box.y_in is None else (box.x_in, box.y_in)

    @cached_property
    def doors(self) -> tuple[tuple[Face, Seen], ...]:
        """Ways in and out at floor level."""
        return tuple((f, o) for f in self.faces for o in f.openings if o.kind in FLOOR_BREAKS)

    def beside(self, item: Seen) -> str:
        """The room an opening leads to, or outdoors."""
        return self.names.get(item.to_room, "outdoors")


@lru_cache(maxsize=1024)
def viewed(book: Codebook, context: RoomContext) -> RoomView:
    """A room under a rule set: one view for its plan, its drawings, its building and its circuits, so that what one
    of them worked out is there for the next."""
    return RoomView(book, context)
