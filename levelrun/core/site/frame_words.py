"""Sentences about what walls are made of: studs and how far apart, finish, insulation."""

from __future__ import annotations

from typing import Any

from levelrun.core.job import Room
from levelrun.core.site.framing import FINISHES
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.site.sharing import mates

FRAMES = {
    **{word: word for word in ("2x3", "2x4", "2x6", "2x8", "furring", "metal", "log", "block", "open")},
    "concrete": "block", "masonry": "block", "steel": "metal",
}  # fmt: skip
STUDS = tuple(FRAMES)
CENTRES = ("on center", "on centre", "on centers", "oc", "o.c.", "apart")
INSULATED = {
    "batts": "batts", "foam": "foam", "no insulation": "none", "insulated": "batts", "foamed": "foam",
    "spray foam": "foam", "not insulated": "none",
}  # fmt: skip
SHUT = {"closed": True, "closed up": True, "drywalled": True, "stripped": False, "opened up": False}
OUTER = ("outside", "exterior", "an outside wall", "an exterior wall")


def frame(reader: SceneReader) -> Said:
    """frame WALL|all [2x6] [at 16"] [bearing] [boards] [batts|foam] [first LENGTH]: how a wall is built."""
    about = reader.room()
    every = reader.phrase(["all"])
    return framed(reader, about, None if every else reader.wall(about).index)


def framed(reader: SceneReader, about: Room, side: int | None) -> Said:
    """What follows a wall, or all of a room: studs, spacing, finish, insulation."""
    finishes = [*FINISHES, "no finish"]
    values: dict[str, Any] = {}
    outer = False
    while not reader.over():
        reader.phrase(["and"])
        if reader.phrase(("in", "of")) is not None:
            reader.again(about)
            continue
        if not reader.sees(STUDS) and reader.sees_length():
            values["spacing_in"] = reader.length()
            reader.phrase(CENTRES)
            continue
        word = reader.need(
            (*STUDS, "at", "first", "bearing", "partition", *SHUT, *OUTER, *INSULATED, *finishes),
            "studs, a spacing, a finish or insulation",
        )
        if word in STUDS:
            values["stud"] = FRAMES[word]
            reader.phrase(("studs", "walls"))
        elif word == "at":
            values["spacing_in"] = reader.length()
            reader.phrase(CENTRES)
        elif word == "first":
            values["first_stud_in"] = reader.length()
        elif word in ("bearing", "partition"):
            values["bearing"] = word == "bearing"
        elif word in SHUT:
            values["closed"] = SHUT[word]
        elif word in OUTER:
            _refuse_inner(reader, about, side)
            outer = True
        elif word in INSULATED:
            values["insulation"] = INSULATED[word]
        else:
            values["finish"] = "none" if word == "no finish" else word
    if not values and not outer:
        reader.expect(STUDS)
        raise reader.fail("what the wall is made of")
    return Said([{"op": "set_side", "room": about.id, "side": side, "set": values}], room=about.id)


def _refuse_inner(reader: SceneReader, about: Room, side: int | None) -> None:
    """Refuses that a wall is outside behind which a room is drawn: where it is, is seen from the drawing."""
    here = tuple(room for room in reader.scene.job.rooms if room.level == about.level)
    backing = mates(here)[about.id, side] if side is not None else ()
    if backing:
        behind = reader.scene.job.room(backing[0].room).name
        raise reader.refuse(f"{behind} stands behind the {walls_of(about)[side or 0].name} wall of {about.name}")


VERBS = {"frame": frame}
