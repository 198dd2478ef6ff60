"""How a first line is opened in everyday words: run 12-2 from the panel ..., add an outlet."""

from __future__ import annotations

import re
from dataclasses import replace

from levelrun.core.site.scene import SceneReader
from levelrun.core.ways.walk import WalkLeg, parse_walk

ASKED = (
    "run", "add", "install", "put in", "put", "wire up", "wire", "bring", "pull", "i need", "we need", "need",
    "i want",
)  # fmt: skip
# What follows the legs and is none: 24 mca 40 mocp, on a 20 amp breaker.
FIGURES = re.compile(
    r"[\s,]+(?=\d+(?:\.\d+)?\s*(?:mca|mocp|mop|max|amps?|a|volts?|v)\b|(?:mca|mocp)\s*\d|on\s+(?:an?\s+)?\d+\s*a)",
    re.IGNORECASE,
)
_CABLE = re.compile(
    r"(?:some\s+)?(?P<cable>\d{1,2}\s*[-/]\s*\d(?:\s+(?:nm-b|nm|uf-b|uf|mc|ac|ser))?)(?:\s+cable)?\s*,?\s+"
    r"(?=\d+(?:\.\d+)?\s*(?:'|ft\b|feet\b|-\d)|from\b|up\b|down\b|over\b|through\b|along\b|to\b)",
    re.IGNORECASE,
)
Cable = tuple[str | None, str | None]


def opened(reader: SceneReader) -> Cable | None:
    """Takes the verb that asks for it, the cable where it is said first, and `from`."""
    reader.phrase(ASKED)
    cable = cable_first(reader)
    reader.phrase(["from"])
    return cable


def cable_first(reader: SceneReader) -> Cable | None:
    """The method and size of a cable that is said before its length; None where none stands here."""
    reader.skip()
    found = _CABLE.match(reader.text, reader.pos)
    if found is None:
        return None
    (leg,) = parse_walk(reader.scene.book, f"over 1' in {found['cable']}")
    reader.pos = found.end()
    return leg.method, leg.size


def in_cable(legs: list[WalkLeg], cable: Cable | None) -> list[WalkLeg]:
    """The legs in the cable that was said before them, unless the first says another."""
    if cable is None or not legs or legs[0].method:
        return legs
    return [replace(legs[0], method=cable[0], size=cable[1]), *legs[1:]]
