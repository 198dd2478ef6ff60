"""Codes of findings about the building as drawn."""

from __future__ import annotations

from levelrun.core.findings import Code, finder

CODES: dict[str, Code] = {
    "rooms-overlap": Code(
        "stop", "Two rooms lie over each other.", "One of them was taped wrong.", "Move one.", "walls"
    ),
    "opening-off-wall": Code(
        "stop",
        "An opening is larger than its wall or past its end.",
        "It was taped wrong.",
        "Move or narrow it.",
        "walls",
    ),
    "opening-crosses": Code(
        "check",
        "A door or window leads half into one room and half into the wall beside it.",
        "One of the two rooms was taped wrong.",
        "Move the opening, or tape the room again.",
        "walls",
    ),
    "openings-overlap": Code(
        "stop", "Two openings take the same place.", "One of them was taped wrong.", "Move one.", "walls"
    ),
    "fixture-off-wall": Code(
        "check",
        "Something marked along a wall runs past its end.",
        "It was taped wrong.",
        "Move or shorten it.",
        "walls",
    ),
    "room-shape": Code(
        "stop", "A room's walls cross or have no length.", "It was taped wrong.", "Tape it again.", "walls"
    ),
}

finding = finder(CODES)
