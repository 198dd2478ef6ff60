"""Bends in words: `box offset`, `offset 4" at 30 after 52"`, `saddle 2" upward`, `rolling offset 6" and 4"`.

A bare number after `offset` is degrees, with nothing known of how far aside; a length is how far aside.
"""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from levelrun.core.errors import TextError
from levelrun.core.measure import format_inches, format_length
from levelrun.core.ways.parts import Shape
from levelrun.core.words import Reader

KINDS = {
    "box offset": "box_offset",
    "rolling offset": "rolling",
    "four bend saddle": "saddle4",
    "three bend saddle": "saddle3",
    "saddle": "saddle3",
    "offset": "offset",
    "kick": "kick",
}
NAMES = {"saddle3": "saddle"} | {kind: words for words, kind in KINDS.items() if kind != "saddle3"}
BARE: dict[str, tuple[float, ...]] = {"box offset": (10.0, 10.0), "saddle": (22.5, 45.0, 22.5)}
EXAMPLES = ('offset 4"', "box offset", 'saddle 2"', 'kick 3"', 'rolling offset 6" and 4"', "bend 45", "bend 90")
TOWARD = ("outward", "inward", "leftward", "rightward", "upward", "downward", "onward", "backward")


def bends_said(reader: Reader) -> tuple[tuple[Shape, ...], tuple[float, ...]]:
    """What follows `with`: a shape, or bare angles."""
    reader.expect(EXAMPLES)
    if reader.phrase(["bend"]):
        return (), (reader.number("degrees", 0, 180),)
    word = reader.phrase(KINDS)
    if word is None:
        raise reader.fail("box offset, offset, saddle, kick, rolling offset or bend N")
    if not reader.sees_length():
        if word in BARE:
            return (), BARE[word]
        if word == "offset":
            angle = reader.number("degrees of each bend", 0, 90)
            return (), (angle, angle)
    return (shape_said(reader, KINDS[word]),), ()


def shape_said(reader: Reader, kind: str, rise_in: float | None = None) -> Shape:
    """How far aside, unless said before; then in any order `at` degrees, `after` a length, and which way."""
    said: dict[str, Any] = {"kind": kind, "rise_in": reader.length() if rise_in is None else rise_in}
    if kind == "rolling":
        reader.need(("and",), "and how far the other way")
        said["roll_in"] = reader.length()
    if kind == "saddle4":
        reader.need(("over",), "over and the width of what it crosses")
        said["width_in"] = reader.length()
    while True:
        reader.expect(["at 30", 'after 52"', *TOWARD])
        if reader.phrase(["at"]):
            said["angle_deg"] = reader.number("degrees of each bend", 0, 90)
            reader.phrase(["deg", "degrees"])
        elif reader.phrase(["after"]):
            said["at_in"] = reader.length()
        elif word := reader.phrase(TOWARD):
            said["toward"] = word
        else:
            return _shape(reader, said)


def _shape(reader: Reader, said: dict[str, Any]) -> Shape:
    try:
        return Shape.model_validate(said)
    except ValidationError as error:
        first = error.errors()[0]
        name = str(first["loc"][-1]).removesuffix("_in")
        raise TextError(
            f"{name} {first['input']:g}: {str(first['msg']).removeprefix('Input ')}", key="text",
            value=str(first["input"]), at=reader.origin[min(reader.pos, len(reader.text))],
        ) from None  # fmt: skip


def write_shape(shape: Shape) -> str:
    """A shape in words that `bends_said` reads back."""
    words = [NAMES[shape.kind], format_inches(shape.rise_in or 0.0)]
    if shape.roll_in is not None:
        words.append(f"and {format_inches(shape.roll_in)}")
    if shape.width_in is not None:
        words.append(f"over {format_inches(shape.width_in)}")
    if shape.angle_deg is not None:
        words.append(f"at {shape.angle_deg:g}")
    if shape.at_in is not None:
        words.append(f"after {format_length(shape.at_in)}")
    if shape.toward != "outward":
        words.append(shape.toward)
    return " ".join(words)


def write_bends(degrees: tuple[float, ...]) -> str:
    """Bare angles in words."""
    named = {value: key for key, value in BARE.items()}
    if degrees in named:
        return f"with {named[degrees]}"
    return " ".join(f"with bend {angle:g}" for angle in degrees)
