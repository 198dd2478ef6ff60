"""A building that a line puts up: for a panel of its own, or for an outlet at the end of a branch circuit."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Structure
from levelrun.core.site.building_words import UNDRAWN_IN
from levelrun.core.site.edits import main_floor
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import BUILDINGS, ENDS

YARD = ("trench", "driveway_trench", "overhead")
APART_IN = 120.0  # the least between two buildings of which nobody said where they stand
BRANCH_A = 20.0  # over it a circuit to another building is a feeder, as it is called


def stands_there(job: Job, said: Asked) -> Structure | None:
    """The building at the end of a line where one of that name is there already."""
    name = (said.building_name or said.fed).casefold()
    return next((item for item in job.structures if item.name.casefold() == name), None)


def put_up(job: Job, said: Asked) -> dict[str, Any]:
    """The building at the end of a line, as plain data."""
    ident = next_id(job, "s")
    name = said.building_name or said.fed
    return {"id": ident, "kind": said.building, "name": name, "levels": [main_floor(ident)], **_apart(job, said)}


def _apart(job: Job, said: Asked) -> dict[str, float]:
    """Where a new building stands until it is drawn or a trench is taped to it: east of the one that feeds it, as far
    off as the legs outdoors go, so that the two do not stand in each other."""
    here = next((item for item in job.structures if item.id == said.begin.structure), None)
    if here is None:
        return {}
    far = sum(leg.length_in for leg in said.legs if leg.go not in ("up", "down") and leg.place in YARD)
    levels = {level.id for level in here.levels}
    wide = max((x for room in job.rooms if room.level in levels for x, _ in room.corners), default=UNDRAWN_IN[0])
    return {"x_in": here.x_in + wide + max(far, APART_IN), "y_in": here.y_in}


def of_a_room(job: Job, said: Asked) -> Asked:
    """A panel in what is drawn as a room of another building: in the shop of the house. Refuses a way through the
    ground to it: it then stands apart."""
    standing = {item.name.casefold() for item in job.structures}
    room = next((room for room in job.rooms if room.name.casefold() == said.fed.casefold()), None)
    if not said.building or said.there is not None or room is None or room.name.casefold() in standing:
        return said
    owner = job.structure_of(room.level)
    if any(leg.place in YARD for leg in said.legs):
        raise EditError(
            f"{room.name} is drawn as a room of {owner.name}: draw it as `detached {room.name.lower()}` where it "
            "stands apart", key="text",
        )  # fmt: skip
    return replace(said, kind=ENDS["sub-panel"], building="", structure=owner.id)


def in_a_building(reader: SceneReader, said: Asked) -> tuple[Asked, Structure | None, list[str]]:
    """A line that ends in another building by a branch circuit; that building where it is put up; what is told."""
    return _apart_from_here(reader, said) if said.unbuilt else _no_feeder(reader.scene.job, said)


def _no_feeder(job: Job, said: Asked) -> tuple[Asked, Structure | None, list[str]]:
    """A 20 A circuit to a greenhouse in which no panel stands: it goes to an outlet there, told; with the greenhouse
    where that does not stand yet."""
    if not (said.branch and said.building and said.there is None):
        return said, None, []
    stands = stands_there(job, said)
    if stands is not None and any(panel.structure == stands.id for panel in job.panels):
        return said, None, []
    if stands is None and said.circuit.get("breaker_a", BRANCH_A) > BRANCH_A:
        return said, None, []
    there = stands or Structure.model_validate(put_up(job, said))
    told = f"a circuit to an outlet in {there.name}; say `sub-panel` where a panel is to stand there"
    made = replace(said, kind=ENDS["outlet"], structure=there.id, building="", fed="")
    return made, None if stands is not None else there, [told]


def _apart_from_here(reader: SceneReader, said: Asked) -> tuple[Asked, Structure | None, list[str]]:
    """An outlet in a shed that is not there yet: a shed to which a way goes through the yard stands apart, told.
    Refuses one to which none goes."""
    word = said.unbuilt
    name = word.capitalize()
    if not any(leg.place in YARD for leg in said.legs):
        raise reader.refuse(
            f"no {word} stands in this job yet: say `structure {BUILDINGS[word]} {name}` first, or feed a panel "
            f"there: `to {word} {name} 60a`", max(reader.text.lower().find(word), 0),
        )  # fmt: skip
    there = Structure.model_validate(
        put_up(reader.scene.job, replace(said, building=BUILDINGS[word], building_name=name))
    )
    told = f"{name} stands apart, as the way through the yard says; say `sub-panel` where a panel is to stand there"
    return replace(said, structure=there.id), there, [told]
