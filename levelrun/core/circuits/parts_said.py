"""What a sentence says of a circuit, part by part: amperes, volts, protection, wire, nameplate, load."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.boxes.things import PROTECTION
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.site.scene import SceneReader
from levelrun.core.trade.conductors.sizing import Demand, breaker_ratings, choose

UNIT = re.compile(r"(?P<n>\d+(?:\.\d+)?)\s*(?P<unit>amps\b|amp\b|a\b|volts\b|volt\b|v\b)", re.IGNORECASE)
# What a name ends at: another part of its circuit behind it.
PARTS = re.compile(
    r"\s(?=(?:gfci|afci|dual|(?:arc|ground)[ -]fault|with neutral|no neutral|nameplate|(?:mca|mocp|load|wire) \d)\b|"
    + UNIT.pattern
    + ")",
    re.IGNORECASE,
)
# What a nameplate calls its two figures.
LEAST = ("mca", "minimum circuit ampacity", "minimum ampacity", "min ampacity", "least ampacity")
LARGEST = ("mocp", "mop", "maximum breaker", "max breaker", "largest breaker", "max fuse", "maximum", "max")
_FIGURE = "|".join((*LEAST, *LARGEST))
# 18.4 mca, 25 max; 25 amp max where no figure follows that would be the one meant.
_NAMEPLATE = re.compile(
    rf"(?P<n>\d+(?:\.\d+)?)\s*(?:(?P<word>{_FIGURE})\b|(?:amps?|a)\s+(?P<said>{_FIGURE})\b(?!\s*\d))", re.IGNORECASE
)
# A wire by its size: #6, 6 awg copper, no. 1 al, 6 thhn.
_COVER = "thhn|thwn-2|thwn|xhhw-2|xhhw"
_GAUGE = re.compile(
    r"(?:(?:#\s*|no\.\s*)(?P<marked>\d+(?:/0)?)(?:\s*(?:awg|gauge)\b)?"
    rf"|(?P<plain>\d+(?:/0)?)\s*(?:awg\b|gauge\b|(?=(?:{_COVER})\b)))"
    rf"(?:\s+(?P<metal>copper|cu|alumin(?:i)?um|al)\b)?(?:\s*(?P<cover>{_COVER})\b)?(?:\s+(?:wires?|conductors?)\b)?",
    re.IGNORECASE,
)
BREAKERS = {**PROTECTION, "plain": "plain"}
# How many wires beside or with the ground, as feeders are spoken of: of three there is none of ground.
WIRES = {
    **{f"{n}{join}wire{end}": {"neutral": True, "equipment_ground": n in ("4", "four")}
       for n in ("3", "three", "4", "four") for join in ("-", " ") for end in ("", "s")},
    "no ground": {"equipment_ground": False}, "without ground": {"equipment_ground": False},
    "ungrounded": {"equipment_ground": False},
}  # fmt: skip
CALLED_VOLTS = {120: ("120", "110", "115", "125"), 240: ("240", "220", "230", "250")}  # what they are called
METALS = {"aluminum": "al", "aluminium": "al", "al": "al", "copper": "cu", "cu": "cu"}
KNOWN = (
    *WIRES, *BREAKERS, *METALS, "with neutral", "no neutral", "wire", "nameplate", "load",
    *LEAST, *LARGEST,
)  # fmt: skip
OFFERED = (
    "mca 24", "mocp 40", "load 12a", "nameplate", "15a", "20a", "30a", "40a", "50a", "60a", "100a", "120v", "240v",
    "gfci", "afci", "dual", "aluminum", "with neutral", "no neutral",
)  # fmt: skip


def circuit_part(reader: SceneReader, item: dict[str, Any], more: tuple[str, ...] = ()) -> bool:
    """One of: amperes, volts, protection, wire, nameplate, load, aluminum; whether one stood here. `more`: words that
    may stand here too, for completion."""
    reader.expect([*OFFERED, *(more or ("as and a name", ": boxes"))])
    start = reader.pos
    word = reader.phrase(KNOWN)
    if word in WIRES:
        item |= WIRES[word]
    elif word in BREAKERS:
        item["protection"] = BREAKERS[word]
    elif word in METALS:
        item["material"] = METALS[word]
    elif word in ("with neutral", "no neutral"):
        item["neutral"] = word == "with neutral"
    elif word == "nameplate":
        item["nameplate"] = True
    elif word in (*LEAST, *LARGEST):
        item |= {_plate(word): reader.number("amperes on the nameplate", 1, 1200), "nameplate": True}
        reader.phrase(["a", "amps"])
    elif word == "load":
        item["load_a"] = reader.number("amperes really expected", 0, 1200)
        reader.phrase(["a", "amps"])
    elif word == "wire":
        item["wire_size"] = reader.need(wire_sizes(reader.scene.book), "a wire size")
    elif (gauge := _GAUGE.match(reader.text, reader.pos)) is not None:
        known, size = wire_sizes(reader.scene.book), gauge["marked"] or gauge["plain"]
        if size not in known:
            raise reader.refuse(f"{size} is no wire size", start, list(known))
        item["wire_size"] = size
        if gauge["metal"]:
            item["material"] = "al" if gauge["metal"].lower().startswith("al") else "cu"
        if (gauge["cover"] or "").lower().startswith("xhhw"):
            item["insulation"] = "XHHW-2"
        reader.pos = gauge.end()
    elif (plate := _NAMEPLATE.match(reader.text, reader.pos)) is not None:
        reader.number("amperes on the nameplate", 1, 1200)
        item |= {_plate((plate["word"] or plate["said"]).lower()): float(plate["n"]), "nameplate": True}
        reader.pos = plate.end()
    else:
        if (match := reader.take(UNIT)) is None:
            return False
        if match["unit"].lower().startswith("v"):
            volts = next((volts for volts, called in CALLED_VOLTS.items() if match["n"] in called), None)
            if volts is None:
                raise reader.refuse(f"{match['n']} V: allowed 120 or 240", start, ["120v", "240v"])
            item |= {"volts": volts}
        else:
            made = breaker_ratings(reader.scene.book)
            if float(match["n"]) not in made:
                raise reader.refuse(f"{match['n']} A is no standard breaker", start, [f"{a:g}" for a in made[:12]])
            item["breaker_a"] = float(match["n"])
    return True


def _plate(word: str) -> str:
    """The field of a figure on the nameplate."""
    return "least_ampacity_a" if word in LEAST else "largest_breaker_a"


def method_for(book: Codebook, cable: str = "NM-B") -> str:
    """How a circuit is wired as long as nobody says: in cable, in pipe where the authority allows no other."""
    return "raceway" if book.number("pipe_only") else cable


def wire_for(reader: SceneReader, item: dict[str, Any]) -> str:
    """The wire that a breaker wants, by the method and the metal that were said."""
    amps = float(item.get("breaker_a", 20.0))
    try:
        return choose(
            reader.scene.book,
            Demand(
                load_a=amps,
                breaker_a=amps,
                wiring=str(item.get("method", method_for(reader.scene.book))),
                material=str(item.get("material", "cu")),
            ),
        ).size
    except LevelRunError:
        return "12"
