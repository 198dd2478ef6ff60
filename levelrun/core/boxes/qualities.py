"""What panels and boxes are or have, in words: `bonding screw in`, `main at the top`, `interlock`, `non-fused`."""

from __future__ import annotations

from typing import Any

from levelrun.core.boxes.things import HALF, ON_A_SWITCH, WHOLE
from levelrun.core.job import Box, Panel
from levelrun.core.site.scene import IS, Said, SceneReader

Values = dict[str, Any]
_SCREWS = ("bond screw", "bonding screw", "bond strap", "bonding strap", "bonding jumper", "green screw")
_AHEAD = ("disconnect", "service disconnect", "main disconnect", "main breaker", "main")
PANELS: dict[str, Values] = {
    **{f"{screw} in": {"bonded": True} for screw in _SCREWS},
    **{f"{screw} {left} in": {"bonded": True, "disconnect_elsewhere": True} for screw in _SCREWS
       for left in ("left", "still")},
    **{f"{screw}{gone}": {"bonded": False} for screw in _SCREWS
       for gone in (" out", " removed", " taken out", " is out")},
    **{f"no {screw}": {"bonded": False} for screw in _SCREWS},
    **{f"main {joined}{end}": {"main_at": end} for end in ("top", "bottom") for joined in ("at ", "at the ", "on ")},
    **{f"{end}{fed}": {"main_at": end} for end in ("top", "bottom") for fed in (" fed", "-fed", " main")},
    **{f"{bar}ground bar": {"ground_bar": True} for bar in ("", "own ", "its own ", "separate ")},
    "no ground bar": {"ground_bar": False}, "without ground bar": {"ground_bar": False},
    "main lugs only": {"main_a": None}, "main lugs": {"main_a": None}, "lugs only": {"main_a": None},
    "no main breaker": {"main_a": None},
    **{word: {"set_out_in": None} for word in ("surface mounted", "on the surface")},
    **{f"{what} {where}": {"disconnect_elsewhere": True, "bonded": False} for what in _AHEAD
       for where in ("outside", "outdoors", "at the meter", "elsewhere", "ahead of it")},
    **{f"{what} {where}": {"disconnect_elsewhere": False} for what in _AHEAD
       for where in ("in it", "inside", "in the panel")},
}  # fmt: skip
HALVES: dict[str, Values] = {
    **{word: {"switched": "half"} for word in (*HALF, *ON_A_SWITCH)},
    **{word: {"switched": "whole"} for word in WHOLE},
    **{word: {"switched": ""} for word in ("not switched", "unswitched", "always hot", "always on")},
}  # fmt: skip
BOXES: dict[str, Values] = {
    **{word: {"interlock": True} for word in ("interlock", "interlock kit", "interlocked", "listed interlock")},
    **{word: {"interlock": False} for word in ("no interlock", "without interlock", "not interlocked")},
    "fused": {"fused": True},
    **{word: {"fused": False} for word in ("non-fused", "nonfused", "non fused", "unfused", "not fused")},
    **{word: {"air_tight": True} for word in ("air tight", "air-tight", "vapor barrier boot", "vapour barrier boot")},
    **{word: {"cover": "in_use"} for word in ("in-use cover", "in use cover", "bubble cover")},
    **{word: {"surface": True} for word in ("surface mounted", "surface", "on the surface")},
    **{word: {"blocking": True} for word in ("on blocking", "on a bar", "blocked")},
    **{f"line at {the}{end}": {"line_at": end} for end in ("top", "bottom") for the in ("", "the ")},
    **{word: {"fan_rated": True} for word in ("fan rated", "fan-rated")},
    **{word: {"monoxide": True} for word in ("carbon monoxide", "monoxide", "co")},
    **{word: {"continuous": True} for word in ("continuous", "continuous load")},
    "not continuous": {"continuous": False},
    **HALVES,
    **{word: {"old": True} for word in ("existing", "old", "there already", "was there before")},
}  # fmt: skip
OF = ("in", "on", "at", "of", "for")


def of_it(reader: SceneReader) -> Said | None:
    """Bonding screw left in K; interlock on Main; in-use cover on R-3: what one has, before which one it is. An
    interlock said of a panel is that of the only inlet that it feeds."""
    reader.phrase(("put", "add"))
    start = reader.pos
    word = reader.phrase({**PANELS, **BOXES})
    if word is not None and "interlock" in BOXES.get(word, {}) and reader.over():
        inlets = [box for box in reader.scene.job.boxes if box.serves == "generator"]
        return _set("box", inlets[0], BOXES[word]) if len(inlets) == 1 else None
    if word is None or (reader.phrase((*OF, *IS)) is None and not word.endswith((" in", " out"))):
        return None
    boxes = reader.boxes()
    if word in PANELS and (panel := reader.a_panel()) is not None:
        return _set("panel", panel, PANELS[word]) if reader.over() else None
    if word not in BOXES:
        return None
    if (name := reader.phrase(boxes)) is not None:
        return _set("box", boxes[name], BOXES[word]) if reader.over() else None
    panel = reader.a_panel()
    if panel is None or "interlock" not in BOXES[word] or not reader.over():
        return None
    fed = {hop.box for circuit in reader.scene.job.circuits if circuit.panel == panel.id for hop in circuit.chain}
    inlets = [box for box in reader.scene.job.boxes if box.id in fed and box.serves == "generator"]
    if len(inlets) != 1:
        raise reader.refuse(f"{panel.name} feeds {len(inlets) or 'no'} generator inlet: say which box", start)
    return _set("box", inlets[0], BOXES[word])


def _set(kind: str, part: Box | Panel, values: Values) -> Said:
    return Said([{"op": "set", "kind": kind, "id": part.id, "set": values}])
