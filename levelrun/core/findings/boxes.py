"""Codes about buildings, rooms, boxes and panels."""

from __future__ import annotations

from levelrun.core.findings.entry import CodeEntry

BOXES: dict[str, CodeEntry] = {
    "wall-no-receptacle": CodeEntry(
        "stop",
        "A stretch of wall lies farther than 6 ft from a receptacle.",
        "Cords across doors and under rugs start fires.",
        "Add a receptacle.",
    ),
    "counter-no-receptacle": CodeEntry(
        "stop",
        "A stretch of counter lies farther than 24 in from a receptacle.",
        "Short appliance cords get extended over a sink.",
        "Add a receptacle over the counter.",
    ),
    "bath-no-receptacle": CodeEntry(
        "stop",
        "No receptacle within 36 in of a basin.",
        "A cord is pulled across the wet floor.",
        "Add one beside the basin.",
    ),
    "room-no-receptacle": CodeEntry(
        "stop", "A room that wants a receptacle has none.", "It is on the inspector's list.", "Add one."
    ),
    "outdoor-receptacles": CodeEntry(
        "check",
        "A dwelling wants a receptacle outdoors at front and back.",
        "A cord through a door, no GFCI.",
        "Add one on the outer face.",
    ),
    "room-no-light": CodeEntry(
        "check", "A room has no lighting outlet.", "It is on the inspector's list.", "Add a light."
    ),
    "room-no-switch": CodeEntry(
        "check", "A door has no switch at its latch side.", "Somebody crosses the room in the dark.", "Add one."
    ),
    "switch-hinge-side": CodeEntry(
        "note",
        "A switch stands on the hinge side of its door.",
        "The door hides it when open.",
        "Move it to the latch side.",
    ),
    "three-way": CodeEntry(
        "check",
        "A stair or walk-through has no switch at both ends.",
        "Somebody walks back in the dark.",
        "Three-way at both ends.",
    ),
    "smoke-missing": CodeEntry(
        "check",
        "A bedroom, or the hall outside, has no smoke alarm.",
        "Alarms wake people.",
        "Add one, interconnected.",
    ),
    "box-off-stud": CodeEntry(
        "check", "No stud stands beside the box.", "There is nothing to nail it to.", "Move it to a stud, or block."
    ),
    "box-in-opening": CodeEntry("stop", "The box stands in a door or a window.", "There is no wall.", "Move it."),
    "box-off-wall": CodeEntry("stop", "The box stands past the end of its wall.", "There is no wall.", "Move it."),
    "boxes-overlap": CodeEntry("stop", "Two boxes take the same place.", "They do not fit.", "Move one."),
    "box-set-out": CodeEntry(
        "stop",
        "The box is set for another finish than the wall gets.",
        "It ends up behind the finish, a gap for sparks.",
        "Set it out.",
    ),
    "box-proud": CodeEntry(
        "check", "The box stands farther out than the finish.", "The plate will not lie flat.", "Set it back."
    ),
    "box-too-deep": CodeEntry(
        "stop",
        "The box is deeper than what is clear behind it.",
        "It will not go in.",
        "A shallower box, or another place.",
    ),
    "box-full": CodeEntry(
        "stop",
        "The box holds fewer cubic inches than its wires ask.",
        "Heat, and skinned wires under the device.",
        "A bigger box.",
    ),
    "box-unknown": CodeEntry(
        "check",
        "The named box is not in the catalogue.",
        "Its depth and volume are not known.",
        "Choose a listed one.",
    ),
    "fan-box": CodeEntry("stop", "A fan hangs from a box not rated for it.", "It comes down.", "A fan-rated box."),
    "opener-near": CodeEntry(
        "check", "The door opener's outlet is too near the door.", "The cord does not reach.", "Move it back."
    ),
    "air-seal": CodeEntry(
        "check",
        "A box in an outside wall is not air-tight.",
        "Frost and mould behind it.",
        "An air-tight box or a boot.",
    ),
    "switch-high": CodeEntry("stop", "A switch or breaker is over 6 ft 7 in.", "It must be reached.", "Lower it."),
    "wet-zone": CodeEntry(
        "stop", "A receptacle or switch within 3 ft of a tub or shower.", "Wet hands.", "Move it out."
    ),
    "valve-stud": CodeEntry(
        "check",
        "A stud stands behind the shower valve.",
        "The plumber cuts it.",
        "Shift the stud layout, or head it off.",
    ),
    "outdoor-cover": CodeEntry(
        "check", "An outdoor receptacle has no in-use cover.", "Rain on a plug.", "An in-use cover."
    ),
    "panel-place": CodeEntry(
        "stop",
        "A panel stands in a bath or a clothes closet, or over stairs.",
        "Damp, fire load, no footing.",
        "Another wall.",
    ),
    "panel-space": CodeEntry(
        "stop",
        "The working space before a panel is not clear.",
        "No room to work, or to step back.",
        "Clear it, or another wall.",
    ),
    "rooms-overlap": CodeEntry("stop", "Two rooms lie over each other.", "One of them was taped wrong.", "Move one."),
    "opening-off-wall": CodeEntry(
        "stop", "An opening is larger than its wall or past its end.", "It was taped wrong.", "Move or narrow it."
    ),
    "openings-overlap": CodeEntry(
        "stop", "Two openings take the same place.", "One of them was taped wrong.", "Move one."
    ),
    "fixture-off-wall": CodeEntry(
        "check", "Something marked along a wall runs past its end.", "It was taped wrong.", "Move or shorten it."
    ),
    "room-shape": CodeEntry(
        "stop", "A room's walls cross or have no length.", "It was taped wrong.", "Tape it again."
    ),
    "box-hidden": CodeEntry(
        "check", "A box stands behind fixed furniture or an appliance.", "It cannot be reached.", "Move it."
    ),
}
