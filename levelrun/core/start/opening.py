"""How a first line is opened in everyday words, run 12-2 from the panel ..., and where its legs end."""

from __future__ import annotations

import re
from dataclasses import replace

from levelrun.core.site.scene import SceneReader
from levelrun.core.ways.method_words import method_ahead
from levelrun.core.ways.walk import WalkLeg

ASKED = (
    "run", "add", "install", "put in", "put", "wire up", "wire", "bring", "pull", "i need", "we need", "need",
    "i want", "run power to", "get power to", "bring power to", "hook up", "hook-up", "feed", "power", "feeder",
    "new circuit", "new", "a",
)  # fmt: skip
# What follows the legs and is none: 24 mca 40 mocp, on a 20 amp breaker, gfci, for the planer.
FIGURES = re.compile(
    r"[\s,]+(?=\d+(?:\.\d+)?\s*(?:mca|mocp|mop|max|amps?|a|volts?|v|watts?|w|kw)\b|(?:mca|mocp|load|wire)\s*\d"
    r"|[\d/ -]+hp\b|on\s+(?:an?\s+)?\d+(?:\s*a\b|\s*(?:$|\n|;))|from\s+\w"
    r"|#\s*\d|(?:no\.?\s*)?\d+(?:/0)?\s*(?:awg|gauge)\b"
    r"|(?:with|no)\s+neutral\b|(?:gfci|afci|dual|hardwired|continuous|nameplate|as)\b(?!\s+wall)"
    r"|nema\s+\S|with\s+(?:an?\s+)?(?:disconnect|whip|alumini?um|copper)\b|on\s+(?:space|slot)s?\s+\d"
    r"|(?:its\s+|their\s+)?own\s+circuit\b|dedicated\b"
    r"|(?:on|with)\s+(?:an?|its own|its)\s+(?:wall\s+|dimmer\s+|door\s+|pull\s+)?switch\b"
    r"|(?:arc|ground)[ -]fault\b|for\s+(?!about\b)[a-z])",
    re.IGNORECASE,
)
ROUGHLY = ("about", "around", "roughly", "approximately", "approx", "maybe", "some")  # before how far
_BARE = re.compile(
    r"(?:(?:some|in|with|using)\s+)?(?P<cable>\d{1,2}\s*[-/]\s*\d)(?:\s*(?=$|\n|;)|\s*,?\s+"
    rf"(?=(?:(?:{'|'.join(ROUGHLY)})\s+)?\d+(?:\.\d+)?\s*(?:'|ft\b|feet\b|-\d)"
    r"|from\b|fish\w*\b|snak\w*\b|up\b|down\b|over\b|through\b|along\b|to\b|for\b))",
    re.IGNORECASE,
)
Cable = tuple[str, str | None]


def cable_first(reader: SceneReader) -> Cable | None:
    """The method and size of what is pulled where it is said before how far: 12-2, 10-3 uf, in 3/4 emt. None, and
    nothing taken, where none stands here; a size of cable alone is one where a length or a direction follows."""
    reader.skip()
    rest = reader.text[reader.pos : reader.line_end()]
    if (said := method_ahead(reader.scene.book, rest)) is not None:
        reader.pos += said[2]
        return said[:2]
    found = _BARE.match(rest)
    if found is None or (said := method_ahead(reader.scene.book, f"nm {found['cable']}")) is None or not said[1]:
        return None
    reader.pos += found.end()
    return said[:2]


_METAL = re.compile(
    r"\b(?P<al>alumini?um|al(?=\s+(?:ser?|use(?:-2)?|urd|cable|wires?|feeder|conductors?)\b)"
    r"|(?<=\d\s)al(?![\w'-])|(?<=ser\s)al(?![\w'-])|(?<=use\s)al(?![\w'-]))|\b(?P<cu>copper)\b",
    re.IGNORECASE,
)


def metal_of(text: str) -> str:
    """The metal of the wires, where a line says it: 2-2-2-4 al ser, aluminum. Empty where it does not."""
    found = _METAL.search(text)
    if found is None:
        return ""
    return "al" if found["al"] else "cu"


def in_cable(legs: list[WalkLeg], cable: Cable | None) -> list[WalkLeg]:
    """The legs in the cable that was said apart from them, unless the first says another: 6-3 in mc is its size."""
    if cable is None or not legs or legs[0].size:
        return legs
    if legs[0].method:
        return [replace(legs[0], size=cable[1]), *legs[1:]]
    return [replace(legs[0], method=cable[0], size=cable[1]), *legs[1:]]
