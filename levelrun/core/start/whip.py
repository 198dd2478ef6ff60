"""The disconnect that a machine has anyway and its whip, as they are said: disconnect, 4' whip; with a whip."""

from __future__ import annotations

import re
from dataclasses import replace

from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import Kind

_A = r"(?:(?:an?|its|the)\s+)?"
_THEN = r"(?:(?:then|and|with)\s+)*"
# Behind the legs to a machine, with the word before that makes it one's own.
WHIP = re.compile(
    rf"[\s,;]*(?P<led>(?:(?:then|and|with|to)\s+)*)"
    rf"(?:{_A}(?:outside\s+|outdoor\s+)?disconnect"
    rf"(?:[\s,;]+{_THEN}{_A}(?:(?P<far>\d[\d'\"./ -]*(?:'|\"|ft\b|in\b))\s+)?(?:flex(?:ible)?\s+)?whip\b)?"
    rf"|(?<=with\s){_A}whip\b(?:\s+and\s+{_A}disconnect)?)"
    r"(?:\s+to\s+(?:it|(?:the|its)\s+(?:\w+\s+)?\w+))?(?=\s*(?:$|[,;\n]))",
    re.IGNORECASE,
)


def takes_a_disconnect(kind: Kind) -> bool:
    """Whether a disconnect before it is its own: of what is wired and no light, fan or inlet."""
    box = kind.box
    return kind.whip or (box.get("kind") == "equipment" and box.get("serves") not in ("generator", "heat_cable"))


def whip_here(reader: SceneReader, said: Asked) -> Asked | None:
    """The line with its whip, and how long that is, where one stands here. A machine that has none of its own gets
    one that it is said to be `with`."""
    found = WHIP.match(reader.text, reader.pos) if takes_a_disconnect(said.kind) else None
    if found is None or not (said.kind.whip or "with" in found["led"].lower()):
        return None
    if found["far"] is not None:
        reader.pos = found.start("far")
        said = replace(said, whip_in=reader.length())
    reader.pos = found.end()
    return replace(said, kind=replace(said.kind, whip=True))
