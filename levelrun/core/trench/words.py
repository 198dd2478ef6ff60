"""Sentences about trenches, spans, electrodes and the service."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from shapely import box

from levelrun.core.codebook.lookups import methods
from levelrun.core.editing import next_id
from levelrun.core.job import Span, Structure, Trench
from levelrun.core.site.building_words import GRADES, UNDRAWN_IN
from levelrun.core.site.called import BUILDINGS
from levelrun.core.site.edits import main_floor
from levelrun.core.site.geometry import STEPS, Point
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.trench.fed_words import laid_through, pipe_here
from levelrun.core.trench.ground_words import VERBS as GROUND_VERBS
from levelrun.core.trench.order import STEPS as ORDER
from levelrun.core.trench.yard import (
    Footprint,
    face_middle,
    long_in,
    nearest_face,
    standing,
    yard_of,
)
from levelrun.core.trench.yard_words import FACES, MEASURE, face_said, place_said, rounded
from levelrun.core.trench.yard_words import VERBS as YARD_VERBS


class _Site:
    """The buildings that a sentence names, and those that it puts up itself."""

    def __init__(self, reader: SceneReader) -> None:
        self.reader, self.job = reader, reader.scene.job
        self.made: list[tuple[Structure, dict[str, Any]]] = []
        self.more: list[dict[str, Any]] = []
        self.names = reader.buildings()
        known = {item.id: item for item in self.names.values()}  # a panel stands for the building that it is in
        own = {name: panel for name, panel in reader.panels().items() if panel.structure in known}
        self.names = {**{name: known[panel.structure] for name, panel in own.items()}, **self.names}

    def building(self, what: str) -> Structure:
        """A building by its name; one that is not there yet by its kind, put up as such."""
        kinds = [kind for kind in BUILDINGS if not any(name.lower() == kind for name in self.names)]
        word = self.reader.need([*self.names, *kinds], what)
        if word in self.names:
            return self.names[word]
        name = word.capitalize()
        ident = self._free("s")
        kind = BUILDINGS[word]
        item = {"id": ident, "kind": kind, "name": name, "grade_in": GRADES[kind], "levels": [main_floor(ident)]}
        made = Structure.model_validate(item)
        self.made.append((made, item))
        self.names[name] = made
        return made

    def _free(self, letter: str) -> str:
        taken = {made.id for made, _ in self.made} | set(self.job.ids())
        number = 1
        while f"{letter}{number}" in taken:
            number += 1
        return f"{letter}{number}"

    def footprint(self, structure: Structure) -> Footprint:
        """Its outline."""
        return yard_of(self.job).building(structure.id) or standing(structure, ())

    def moved(self, structure: Structure, by: Point) -> Structure:
        """The building moved so far; only one that this sentence put up, or that is drawn nowhere."""
        there = structure.model_copy(update={"x_in": structure.x_in + by[0], "y_in": structure.y_in + by[1]})
        place = {"x_in": there.x_in, "y_in": there.y_in}
        for number, (made, item) in enumerate(self.made):
            if made.id == structure.id:
                self.made[number] = (there, {**item, **place})
                return there
        self.more.append({"op": "set", "kind": "structure", "id": structure.id, "set": place})
        return there

    def edits(self) -> list[dict[str, Any]]:
        """The edits that put up what was named and is not there, and move what is drawn nowhere."""
        return [*({"op": "add", "kind": "structure", "item": item} for _, item in self.made), *self.more]


Between = tuple[_Site, Structure, Structure | None, list[Point]]


def _line(reader: SceneReader, over_air: bool) -> Between:
    """A [face] to B [face] [L [by M north]]: two buildings and the line between them; `to 40' east 30' south [of A]`:
    to a place of the yard where no building stands."""
    site = _Site(reader)
    ahead = reader.length() if reader.sees_length() and not over_air else None  # 60' from House to Shed
    reader.phrase(["from"])
    first = site.building("the building that it starts at")
    face = face_said(reader)
    reader.need(("to",), "to and a building")
    if MEASURE.match(reader.text, reader.pos):
        return _to_place(reader, site, first, face)
    last = site.building("the building that it goes to")
    other = face_said(reader)
    if first.id == last.id:
        raise reader.refuse(f"{first.name} is where it starts: say another building")
    out, jog = ahead, None
    if ahead is None and MEASURE.match(reader.text, reader.pos):
        before, out = reader.pos, reader.length()
        start = reader.pos
        if reader.phrase(("wide", "deep", "down")) or (over_air and reader.sees(["high"])):
            reader.pos, out = before, None
        elif reader.phrase(["by"]):
            if MEASURE.match(reader.text, reader.pos):
                jog = (reader.length(), reader.need(FACES, "north, east, south or west"))
            else:
                reader.pos = start
    one, two = site.footprint(first), site.footprint(last)
    middle = two.shape.centroid
    face = face or nearest_face(one.shape, (middle.x, middle.y))
    begin = face_middle(one.shape, face)
    if out is not None:
        return _taped(site, first, last, begin, (face, other), out, jog)
    here = one.shape.centroid
    finish = face_middle(two.shape, other or nearest_face(two.shape, (here.x, here.y)))
    if _same_place(site, first, last) or one.shape.intersects(two.shape):
        return _taped(site, first, last, begin, (face, other), 600.0 if over_air else 480.0, jog)
    return site, first, last, [rounded(begin), rounded(finish)]


def _to_place(reader: SceneReader, site: _Site, first: Structure, face: str) -> Between:
    one = site.footprint(first)
    end = place_said(reader)
    begin = face_middle(one.shape, face or nearest_face(one.shape, end))
    return site, first, None, [rounded(begin), rounded(end)]


def _free(site: _Site, first: Structure, last: Structure) -> bool:
    """Whether a building stands where a line is taped to: no trench or span ends at it, and it is drawn nowhere, or
    its rooms are drawn and nobody said where in the yard, so that it lies over the first."""
    if any(last.id in (line.start, line.end) for line in site.job.lines):
        return False
    two = site.footprint(last)
    unplaced = (last.x_in, last.y_in) == (0.0, 0.0) and two.shape.intersects(site.footprint(first).shape)
    return not two.drawn or unplaced


def _same_place(site: _Site, first: Structure, last: Structure) -> bool:
    """Whether the second is free to stand anywhere, and stands where the first does or was put up just now."""
    made = any(last.id == item.id for item, _ in site.made)
    over = site.footprint(last).shape.intersects(site.footprint(first).shape)
    return _free(site, first, last) and (made or over)


def _taped(
    site: _Site, first: Structure, last: Structure, begin: Point, faces: tuple[str, str], out: float,
    jog: tuple[float, str] | None,
) -> Between:  # fmt: skip
    """A line as it was taped: so far out of the first wall, and so far aside; a building that stands nowhere yet
    comes to stand at its end."""
    dx, dy = STEPS[faces[0]]
    end = (begin[0] + dx * out, begin[1] + dy * out)
    if jog is not None:
        sx, sy = STEPS[jog[1]]
        end = (end[0] + sx * jog[0], end[1] + sy * jog[0])
    if _free(site, first, last):
        facing = faces[1] or FACES[(FACES.index(faces[0]) + 2) % 4]
        drawn = site.footprint(last)
        shape = drawn.shape if drawn.drawn else box(0, 0, *UNDRAWN_IN)
        at = face_middle(shape, facing)
        stands = (0.0, 0.0) if drawn.drawn else (last.x_in, last.y_in)
        last = site.moved(last, (end[0] - at[0] - stands[0], end[1] - at[1] - stands[1]))
    return site, first, last, [rounded(begin), rounded(end)]


def trench(reader: SceneReader) -> Said:
    """trench A [face] to B [face] [43' [by 6' north]] [8" wide] [by machine|by spade] [in rock] [sand 2"]: from wall
    to wall as they stand, or as taped; a building that is not there yet is put up. With how deep, or in what pipe,
    the circuit between the two is laid in it."""
    item: dict[str, Any] = {}
    lay: dict[str, Any] = {}
    while (found := _before_it(reader)) is not None:
        lay |= found
    if "width_in" in lay:
        item["width_in"] = lay.pop("width_in")
    site, first, last, points = _line(reader, False)
    at = reader.pos
    while not reader.over():
        if MEASURE.match(reader.text, reader.pos):
            inches, at = reader.length(), reader.pos
            if reader.phrase(("deep", "down")) is not None:
                lay["depth_in"], at = inches, reader.pos - len("deep")
                continue
            reader.need(("wide",), "wide after a width")
            item["width_in"] = inches
            continue
        if "method" not in lay and not reader.sees(["in rock"]) and (pipe := pipe_here(reader)) is not None:
            lay |= pipe
            continue
        word = reader.need(
            ("by machine", "by spade", "in rock", "sand", "that moves", '8" wide'), "a width, by machine"
        )
        if word in ("by machine", "by spade"):
            item["dig"] = word.removeprefix("by ")
        elif word == "in rock":
            item["rock"] = True
        elif word == "that moves":
            item["moves"] = True
        else:
            item["bedding_in"] = reader.length()
    if not lay:
        return _with_line(site, first, last, points, "trench", item)
    ident = next_id(site.job, "t")
    through = laid_through(site.job, ident, first.id, last.id if last is not None else "", lay)
    if not through:
        if last is None:
            told = 'how deep is said of what lies in it: `lay` it 18" deep, or `read` it once it is there'
            raise reader.refuse(told, at)
        meant = {"meant_in": "depth_in", "meant_method": "method", "meant_size": "size"}
        item |= {key: lay[of] for key, of in meant.items() if of in lay}
        told = f"kept for what will go through it from {first.name} to {last.name}; nothing lies in it yet"
        return replace(_with_line(site, first, last, points, "trench", item), told=[told])
    said = _with_line(site, first, last, points, "trench", {"id": ident, **item})
    return Said([*said.edits, *through])


def _before_it(reader: SceneReader) -> dict[str, Any] | None:
    """How deep or wide a trench is, or its pipe, said before where it goes; None, and nothing taken, else."""
    if (pipe := pipe_here(reader)) is not None:
        return pipe
    start = reader.pos
    if reader.sees_length():
        inches = reader.length()
        if (word := reader.phrase(("deep", "down", "wide"))) is not None:
            reader.phrase(["and"])
            return {"width_in" if word == "wide" else "depth_in": inches}
    reader.pos = start
    return None


def span(reader: SceneReader) -> Said:
    """span A [face] to B [face] [18' high [and 14' high]] [sag 2'] [mast]: wires over the air from wall to wall."""
    site, first, last, points = _line(reader, True)
    item: dict[str, Any] = {}
    ends: list[dict[str, Any]] = []
    while not reader.over():
        if MEASURE.match(reader.text, reader.pos):
            ends.append({"height_in": reader.length()})
            reader.need(("high",), "high after a height")
            if reader.phrase(("at", "on")) is not None:
                site.building("the building at that end")
            reader.phrase(["and"])
        elif reader.phrase(("held", "hung", "attached")) is None:
            word = reader.need(("sag", "18' high"), "a height, or sag")
            if word == "sag":
                item["sag_in"] = reader.length()
    if len(ends) > 2:
        raise reader.refuse("a span has two ends")
    if ends:
        item |= {"start_end": ends[0], "end_end": ends[-1]}
    return _with_line(site, first, last, points, "span", item)


def _with_line(
    site: _Site, first: Structure, last: Structure | None, points: list[Point], kind: str, item: dict[str, Any]
) -> Said:  # fmt: skip
    job = site.job
    taken = {line.name for line in job.lines}
    name = f"{first.name} to {last.name if last else 'yard'}"
    name = next(n for n in (name, *(f"{name} {i}" for i in range(2, 99))) if n not in taken)
    whole = {"name": name, "points": points, "start": first.id, "end": last.id if last else None, **item}
    return Said([*site.edits(), {"op": "add", "kind": kind, "item": whole}])


def trench_here(reader: SceneReader, words: tuple[str, ...]) -> Trench:
    """A trench named after one of these words, else the one looked at, else the only one."""
    own = {item.name: item for item in reader.scene.job.trenches}
    if reader.phrase(words):
        return own[reader.need(own, "a trench by its name")]
    looked = next((item for item in own.values() if item.id == reader.scene.line_id), None)
    only = next(iter(own.values())) if len(own) == 1 else None
    if looked or only:
        return looked or only  # type: ignore[return-value]
    options = [f"{words[0]} {name}" for name in own]
    reader.expect(options)
    raise reader.refuse(f"say {words[0]} and which trench", allowed=options)


def lay(reader: SceneReader) -> Said:
    """lay WAY|CIRCUIT in TRENCH|SPAN [18" deep] [in METHOD [SIZE]]: a way that goes through the earth; of a circuit
    that has none its riser, its pipe and the riser at the other end are made."""
    job = reader.scene.job
    ways = {way.name: way for way in job.ways}
    circuits = {circuit.name: circuit for circuit in job.circuits}
    word = reader.need([*circuits, *ways], "a way or a circuit by its name")
    lines: dict[str, Trench | Span] = {item.name: item for item in job.lines}
    reader.need(("in", "on"), "in and a trench")
    if reader.phrase(["it"]) is not None:
        if not job.lines:
            raise reader.refuse("there is no trench or span yet")
        line: Trench | Span = job.lines[-1]
    elif not reader.sees(lines) and reader.phrase(["trench"]) is not None:
        line = trench_here(reader, ("of",))
    else:
        line = lines[reader.need(lines, "a trench or span by its name")]
    values: dict[str, Any] = {}
    while not reader.over():
        if MEASURE.match(reader.text, reader.pos):
            values["depth_in"] = reader.length()
            reader.need(("deep",), "deep after a depth")
            continue
        reader.need(("in", '18" deep'), "a depth, or in and a pipe")
        pipes = {name for m in methods(reader.scene.book).values() for name in m.words if m.kind == "raceway"}
        reader.expect(sorted(pipes))
        if (pipe := pipe_here(reader)) is None:
            raise reader.fail("a pipe")
        values |= pipe
    walked = circuits[word].chain[0].path if word in circuits and circuits[word].chain else ()
    if word in ways or walked:
        way = ways[word].id if word in ways else walked[0]
        depth = {"depth_in": values["depth_in"]} if "depth_in" in values else {}
        return Said([{"op": "lay", "along": line.id, "way": way, **depth}])
    return Said([{"op": "lay_feed", "along": line.id, "circuit": circuits[word].id, **values}])


def read(reader: SceneReader) -> Said:
    """read 17" at 12' [and 19" at 40'] [tape] [of TRENCH]; read rod 62" grade 44" at 12': cover over what lies there,
    by a sight tube or tape, or by rod and level: what the rod stands lower on it than on the ground beside."""
    found = [_reading(reader)]
    while reader.phrase(["and"]) is not None:
        found.append(_reading(reader))
    own = trench_here(reader, ("of", "in"))
    long = long_in(own.points)
    past = next((item for item in found if item["at_in"] > long + 1), None)
    if past is not None:
        raise reader.refuse(f"{own.name} is {long / 12:.0f}' long")
    there = [item["at_in"] for item in found]
    kept = [item.model_dump() for item in own.readings if all(abs(item.at_in - at) > 0.01 for at in there)]
    readings = sorted([*kept, *found], key=lambda item: float(item["at_in"]))
    return Said([{"op": "set", "kind": "trench", "id": own.id, "set": {"readings": readings}}])


def _reading(reader: SceneReader) -> dict[str, Any]:
    """How deep, how far along, by what."""
    by = "tube"
    if reader.phrase(["rod"]):
        by, low = "level", reader.length()
        reader.need(("grade",), "grade and the rod's reading on the ground")
        high = reader.length()
        if high >= low:
            raise reader.refuse("on the ground the rod reads less than on the pipe")
        depth = low - high
    else:
        depth = reader.length()
        reader.phrase(["deep"])
    reader.need(("at",), "at and how far along")
    at = reader.position()
    by = "tape" if by == "tube" and reader.phrase(["tape"]) else by
    return {"at_in": at, "depth_in": depth, "by": by}


def done(reader: SceneReader) -> Said:
    """done STEP [of TRENCH] [on 2026-05-12] [because ...]: a step of the work at a trench."""
    step = reader.need([item for item in ORDER if item != "inspection"], "a step")
    return done_of(reader, trench_here(reader, ("of",)), step)


def done_of(reader: SceneReader, own: Trench, step: str) -> Said:
    """What follows a step that is done: the day, and why it is done before its turn."""
    values: dict[str, Any] = {"on": reader.on_day()}
    if reader.phrase(["because"]):
        end = reader.line_end()
        values["why"] = reader.text[reader.pos : end].strip()
        reader.pos = end
    return Said([{"op": "do_step", "trench": own.id, "step": step, **values}])


def lift(reader: SceneReader) -> Said:
    """lift [TRENCH] by WHO [on 2026-05-12]: the hold on its backfill, by whoever saw it."""
    own = {item.name: item for item in reader.scene.job.trenches}
    word = reader.phrase(own)
    it = own[word] if word else trench_here(reader, ("of",))
    reader.need(("by",), "by and who saw it")
    who = reader.name(("on",))
    return Said([{"op": "lift_hold", "trench": it.id, "by": who, "on": reader.on_day()}])


VERBS = {
    "trench": trench, "span": span, "lay": lay, "read": read, "done": done, "lift": lift,
    **GROUND_VERBS, **YARD_VERBS,
}  # fmt: skip
