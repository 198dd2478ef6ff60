"""Codes of findings about rooms, boxes and where panels stand."""

from __future__ import annotations

from levelrun.core.findings import Code, finder

CODES: dict[str, Code] = {
    "alarm-near": Code(
        "check",
        "A smoke alarm hangs too near a stove or a bath door.",
        "It cries for nothing and is taken down.",
        "Hang it farther off.",
        "boxes",
    ),
    "fire-wall": Code(
        "note",
        "A box in the wall between garage and house.",
        "Fire comes through the hole.",
        "A box that keeps the wall tight.",
        "boxes",
    ),
    "alarms-joined": Code(
        "note",
        "The alarms of a dwelling are joined.",
        "The one that cries hangs where nobody hears it.",
        "A third wire, or radio; house power and a battery.",
        "boxes",
    ),
    "foyer-asked": Code(
        "check",
        "A wide entry hall has walls without a receptacle.",
        "A cord runs across the way out.",
        "One in each wall of 3 ft, where it is a foyer; nothing where it is a hallway.",
        "boxes",
    ),
    "monoxide": Code(
        "check",
        "Something burns, or a garage is attached, and no alarm tells carbon monoxide.",
        "Nobody smells it.",
        "A combined alarm outside the bedrooms.",
        "boxes",
    ),
    "service-outlet": Code(
        "check",
        "No receptacle within 25 ft of heating or cooling gear.",
        "A cord through a window to mend it.",
        "Add one.",
        "boxes",
    ),
    "entrance-no-light": Code(
        "stop",
        "An outside door of a dwelling has no light outside.",
        "Somebody falls on the step.",
        "A switched light at the door.",
        "boxes",
    ),
    "ceiling-box": Code(
        "check",
        "A ceiling box in a room that is lived in bears no fan.",
        "Somebody hangs one on it later.",
        "A box listed for a fan.",
        "boxes",
    ),
    "boxes-off-studs": Code(
        "check",
        "Several boxes of a room stand beside no stud.",
        "They were typed to the foot.",
        "All to the next stud.",
        "boxes",
    ),
    "dwelling-unsaid": Code(
        "check",
        "Nobody has said whether a building is lived in.",
        "What a dwelling wants, a workshop does not.",
        "Say yes or no.",
        "walls",
    ),
    "porch-cover": Code(
        "stop",
        "A flat cover on a receptacle under a porch roof.",
        "Fog and blown rain reach it.",
        "A cover that is tight while shut.",
        "boxes",
    ),
    "tail-open": Code(
        "note",
        "A cable ends in a tail, with no box yet.",
        "It is lost behind the ceiling, or live and open.",
        "Cap it, letter it, mark the floor under it.",
        "boxes",
    ),
    "wall-no-receptacle": Code(
        "stop",
        "A stretch of wall lies farther than 6 ft from a receptacle.",
        "Cords across doors and under rugs start fires.",
        "Add a receptacle.",
        "boxes",
    ),
    "counter-no-receptacle": Code(
        "stop",
        "A stretch of counter lies farther than 24 in from a receptacle.",
        "Short appliance cords get extended over a sink.",
        "Add a receptacle over the counter.",
        "boxes",
    ),
    "bath-no-receptacle": Code(
        "stop",
        "No receptacle within 36 in of a basin.",
        "A cord is pulled across the wet floor.",
        "Add one beside the basin.",
        "boxes",
    ),
    "room-no-receptacle": Code(
        "stop", "A room that wants a receptacle has none.", "It is on the inspector's list.", "Add one.", "boxes"
    ),
    "outdoor-receptacles": Code(
        "stop",
        "A dwelling wants a receptacle outdoors at front and back.",
        "A cord through a door, no GFCI.",
        "Add one on the outer face.",
        "boxes",
    ),
    "room-no-light": Code(
        "stop", "A room has no lighting outlet.", "It is on the inspector's list.", "Add a light.", "boxes"
    ),
    "room-no-switch": Code(
        "check",
        "A door has no switch at its latch side.",
        "Somebody crosses the room in the dark.",
        "Add one.",
        "boxes",
    ),
    "switch-hinge-side": Code(
        "note",
        "A switch stands on the hinge side of its door.",
        "The door hides it when open.",
        "Move it to the latch side.",
        "boxes",
    ),
    "three-way": Code(
        "check",
        "A stair or walk-through has no switch at both ends.",
        "Somebody walks back in the dark.",
        "Three-way at both ends.",
        "boxes",
    ),
    "smoke-missing": Code(
        "stop",
        "A bedroom, or the hall outside, has no smoke alarm.",
        "Alarms wake people.",
        "Add one, interconnected.",
        "boxes",
    ),
    "box-off-stud": Code(
        "check",
        "No stud stands beside the box.",
        "There is nothing to nail it to.",
        "Move it to a stud, or block.",
        "boxes",
    ),
    "box-in-opening": Code("stop", "The box stands in a door or a window.", "There is no wall.", "Move it.", "boxes"),
    "box-off-wall": Code(
        "stop", "The box stands past the end of its wall.", "There is no wall.", "Move it.", "boxes"
    ),
    "box-off-room": Code(
        "stop",
        "The box stands outside of its room.",
        "Nothing is there to hold it, and the cable goes to the wrong place.",
        "Move it into the room.",
        "boxes",
    ),
    "boxes-overlap": Code("stop", "Two boxes take the same place.", "They do not fit.", "Move one.", "boxes"),
    "box-set-out": Code(
        "stop",
        "The box is set for another finish than the wall gets.",
        "It ends up behind the finish, a gap for sparks.",
        "Set it out.",
        "boxes",
    ),
    "panel-set-out": Code(
        "stop",
        "A panel in the wall is set for another finish than the wall gets.",
        "Its door is behind the board, a gap for sparks.",
        "Set it out.",
        "boxes",
    ),
    "island-no-receptacle": Code(
        "stop",
        "An island or a peninsula has too few receptacles.",
        "A cord hangs across the walkway.",
        "Add them in its top.",
        "boxes",
    ),
    "island-provision": Code(
        "check",
        "An island or a peninsula has no outlet and nothing is left for one.",
        "Nobody gets a cable there under the tiles.",
        "An outlet in its top, or a cable left for one.",
        "boxes",
    ),
    "box-proud": Code(
        "check",
        "The box stands farther out than the finish.",
        "The plate will not lie flat.",
        "Set it back.",
        "boxes",
    ),
    "box-too-deep": Code(
        "stop",
        "The box is deeper than what is clear behind it.",
        "It will not go in.",
        "A shallower box, or another place.",
        "boxes",
    ),
    "box-full": Code(
        "stop",
        "The box holds fewer cubic inches than its wires ask.",
        "Heat, and skinned wires under the device.",
        "A bigger box.",
        "boxes",
    ),
    "box-plastic": Code(
        "check",
        "Metal pipe or armour comes into a plastic box.",
        "What is not bonded through it stays live when a wire touches it.",
        "A metal box, or one that is made to bond it inside.",
        "boxes",
    ),
    "box-unknown": Code(
        "check",
        "The named box is not in the catalogue.",
        "Its depth and volume are not known.",
        "Choose a listed one.",
        "boxes",
    ),
    "fan-box": Code(
        "stop", "A fan hangs from a box not rated for it.", "It comes down.", "A fan-rated box.", "boxes"
    ),
    "opener-near": Code(
        "check",
        "The door opener's outlet is too near the door.",
        "The cord does not reach.",
        "Move it back.",
        "boxes",
    ),
    "air-seal": Code(
        "check",
        "A box in an outside wall is not air-tight.",
        "Frost and mould behind it.",
        "An air-tight box or a boot.",
        "boxes",
    ),
    "switch-high": Code(
        "stop", "A switch or breaker is over 6 ft 7 in.", "It must be reached.", "Lower it.", "boxes"
    ),
    "wet-zone": Code(
        "stop", "A receptacle or switch within 3 ft of a tub or shower.", "Wet hands.", "Move it out.", "boxes"
    ),
    "valve-stud": Code(
        "check",
        "A stud stands behind the shower valve.",
        "The plumber cuts it.",
        "Shift the stud layout, or head it off.",
        "boxes",
    ),
    "outdoor-cover": Code(
        "check", "An outdoor receptacle has no in-use cover.", "Rain on a plug.", "An in-use cover.", "boxes"
    ),
    "panel-place": Code(
        "stop",
        "A panel stands in a bath or a clothes closet, or over stairs.",
        "Damp, fire load, no footing.",
        "Another wall.",
        "boxes",
    ),
    "panel-space": Code(
        "stop",
        "The working space before a panel is not clear.",
        "No room to work, or to step back.",
        "Clear it, or another wall.",
        "boxes",
    ),
    "box-hidden": Code(
        "check", "A box stands behind fixed furniture or an appliance.", "It cannot be reached.", "Move it.", "boxes"
    ),
}

finding = finder(CODES)
