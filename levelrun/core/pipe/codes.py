"""Codes of findings about pipe as it is bent, cut, hung and pulled."""

from __future__ import annotations

from levelrun.core.findings import Code, finder

CODES: dict[str, Code] = {
    "bend-unsaid": Code(
        "check",
        "Of an offset or saddle only the angle is known.",
        "Its marks hang on how far aside it goes, and where.",
        "Say how far aside and where.",
        "pipe",
    ),
    "bend-impossible": Code(
        "stop",
        "An offset or saddle does not fit in its leg.",
        "The stick is bent and is scrap.",
        "Less aside, a steeper angle, or another place.",
        "pipe",
    ),
    "bends-near": Code(
        "stop",
        "Two bends overlap.",
        "No bender makes them: the second would begin in the first.",
        "Set them apart, or put a body between.",
        "pipe",
    ),
    "elbows-near": Code(
        "check",
        "Two fittings stand nearer than their straight ends and sockets let them.",
        "They have to be trimmed, or the taped length is not met.",
        "Trim them, or set them apart.",
        "pipe",
    ),
    "bend-end": Code(
        "check",
        "A bend is so near to the end of its piece that the bender's hook has nothing to hold.",
        "The end is kinked, or the bend comes out flat.",
        "Bend it first and cut after, or move the joint.",
        "pipe",
    ),
    "radius-small": Code(
        "stop",
        "A bend is tighter than the table lets it be.",
        "It kinks, and wires skin in it.",
        "The radius of the table.",
        "pipe",
    ),
    "coupling-nowhere": Code(
        "stop",
        "A piece is longer than a stick, and no coupling may stand in it.",
        "It cannot be cut from what is sold.",
        "Set bends apart, or put a body in.",
        "pipe",
    ),
    "size-habit": Code(
        "note",
        "Large wires go round bends in the smallest legal pipe.",
        "It is legal, and takes an afternoon.",
        "One size over; or say that this shop takes the smallest.",
        "pipe",
    ),
    "feed-hard": Code(
        "check",
        "The pull is fed at the end from which it pulls harder.",
        "Bends near the pulled end multiply all that comes before them.",
        "Feed it at the other end.",
        "pipe",
    ),
    "thread-first": Code(
        "check",
        "This shop threads wire piece by piece and glues after.",
        "300.18 wants the pipe whole first: wet cement eats jackets, and a bad joint is hidden.",
        "Glue the whole pull first.",
        "pipe",
    ),
    "expansion-day": Code(
        "check",
        "Nobody has said how warm it is on the day an expansion fitting is set.",
        "Set shut on a cold day it buckles in summer.",
        "Read the thermometer.",
        "pipe",
    ),
    "bond-metal": Code(
        "check",
        "A stretch of metal pipe lies between plastic ones.",
        "A fault puts it at line voltage with nothing that trips.",
        "Bond it, bury it 18 in, or take plastic.",
        "pipe",
    ),
    "strap-air": Code(
        "check",
        "Pipe wants a strap where nothing stands to strap it to.",
        "It hangs on its fittings and works loose.",
        "A strut or a post, or another way.",
        "pipe",
    ),
    "strap-flat": Code(
        "check",
        "Pipe lies flat on a wall that siding will come over.",
        "The siding does not go on, or the pipe comes off again.",
        "Stand it off by what will come.",
        "pipe",
    ),
}
finding = finder(CODES)
