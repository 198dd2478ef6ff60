"""The line that starts a job: from a panel along a way to what stands at its end, in one sentence."""

from __future__ import annotations

import re
from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace

from levelrun.core.circuits.parts_said import UNIT
from levelrun.core.codebook.lookups import method, places
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.measure import show
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.start.about import about
from levelrun.core.start.asked import Asked, goes_on
from levelrun.core.start.beginning import called_panels, from_box, the_disconnect
from levelrun.core.start.ends import BEFORE, BEGUN, OUTSIDE, THING, end, end_here, one_thing, unknown
from levelrun.core.start.kinds import ENDS as KNOWN_ENDS
from levelrun.core.start.kinds import KINDS, OFFERED
from levelrun.core.start.lying import first_leg, in_that_room
from levelrun.core.start.made import edits_for
from levelrun.core.start.old import Stood, old_here, with_it
from levelrun.core.start.opening import ASKED, FIGURES, ROUGHLY, cable_first, in_cable
from levelrun.core.start.sized import of_240, of_motor, of_table, rated_switch
from levelrun.core.start.there import is_alike, kind_of, loose, named_ahead, node_here, standing_alike
from levelrun.core.ways.method_words import method_ahead
from levelrun.core.ways.walk import ENDS, FISH, GO, WalkLeg, parse_walk, suggest
from levelrun.core.ways.words import read_legs

# To what a leg goes no farther: a 50 amp garage outlet.
_TO = re.compile(rf"\bto\s+(?=(?:(?:feed|power|serve)\s+)?{THING})", re.IGNORECASE)
# What was named before its legs, named again behind them; the whip that it comes with.
_AGAIN = re.compile(
    r"[\s,]+(?:to\s+(?:(?:the|its|an?)\s+)?(?:outlet|receptacle|plug|box|it)|(?:then|and)\s+(?:a\s+|its\s+)?whip)\s*$",
    re.IGNORECASE,
)
_THING_THERE = re.compile(
    r"\s*(?:the\s+|an?\s+)?(?:[a-z]+\s+){0,2}(?:light|outlet|receptacle|plug|switch|fan)\b", re.IGNORECASE
)
_THE = re.compile(r"\s*the\s", re.IGNORECASE)
_FROM = re.compile(r"\bfrom\b", re.IGNORECASE)
TO = ("to feed", "to power", "to serve", "to", "for")
_THROUGH = ("along", "through", "across", "in", "some")


def start(reader: SceneReader) -> Said:
    """from [PANEL|BOX] [up|down] LENGTH PLACE [in METHOD] [, ...] to [bath] WHAT [50a] [for NAME 36a] [in garage]

    WHAT: outlet, machine, vehicle, range, dryer, heat pump, water heater, generator inlet, pump, sub-panel NAME,
    building NAME, dishwasher. Its parts stand in any order: where it begins, the legs, what stands at the end, the
    cable, and what is said of each. From a box, its circuit is drawn out.
    """
    at = reader.pos
    if reader.scene.node_id is not None:  # from where the line before ended, where that may be
        with suppress(LevelRunError):
            said = _started(reader, reader.scene.job.node(reader.scene.node_id))
            if said is not None:
                return said
    reader.pos = at
    said = _started(reader, None)
    assert said is not None
    return said


def _started(reader: SceneReader, before: Box | Panel | None) -> Said | None:
    """The line, from what stands at the end of the one before; None where it does not go on from there."""
    reader.phrase(ASKED)
    line = _Line(reader, before)
    while not reader.over():
        line.part()
    if line.stood is not None and not line.said.legs and not line.ended:  # only what is there
        return Said(line.stood.edits, panel=line.stood.panel.id, told=line.stood.told)
    if not line.said.legs and line.ended and not reader.scene.verb and (of_it := _more_of(reader, line.said)):
        return of_it
    asked = line.whole()
    if before is not None and not goes_on(asked):
        return None
    said, told = of_240(asked)
    said = rated_switch(said)
    if said.load_w is not None:  # once its volts are known
        said = replace(said, load_a=said.load_w / float(said.circuit.get("volts", said.kind.volts)))
    said, more = of_motor(reader.scene.book, said)
    told = [*line.told, *told, *more, *of_table(said)]
    stood = line.stood.edits if line.stood is not None else []
    edits = [*stood, *edits_for(line.job, reader.scene.book, said)]
    for edit in edits:
        if edit["op"] == "put_box":
            told.append(
                f"a junction box stands at the end of leg {edit['leg'] + 1}, where cable meets something else"
            )
    if said.switched:
        told.append("its switch hangs behind it, no way to that is said: `from` the light, how far and `to switch`")
    made = [edit["item"]["id"] for edit in edits if edit["op"] == "add" and edit["kind"] in ("box", "panel")]
    made = made[:-1] if said.switched else made  # it goes on from the light
    end = said.there.node.id if said.there is not None else made[-1] if made else None
    return Said(edits, panel=said.panel.id, node=end, told=told)


def _more_of(reader: SceneReader, said: Asked) -> Said | None:
    """Of a job as text a line without a way about what stands there already: what it says of that one's circuit. None
    where no such thing stands there, or several do."""
    alike = [box for box in reader.scene.job.boxes if said.kind.box.get("serves") and is_alike(box, said.kind)]
    circuit = reader.circuit_of(alike[0]) if len(alike) == 1 else None
    if circuit is None:
        return None
    values = dict(said.circuit) | ({"load_a": said.load_a} if said.load_a is not None else {})
    if not values:
        raise reader.refuse(f"{alike[0].name}, on {circuit.name}, stands there already", 0)
    edit = {"op": "set", "kind": "circuit", "id": circuit.id, "set": values}
    return Said([edit], panel=circuit.panel, told=[f"said of {circuit.name}, which is there already"])


class _Line:
    """A line as far as it is read."""

    def __init__(self, reader: SceneReader, before: Box | Panel | None = None) -> None:
        self.reader = reader
        panels = reader.scene.job.panels
        if not panels:
            reader.expect(["panel"])
            raise reader.refuse("there is no panel yet: say `panel H 200a 30 spaces` first", allowed=["panel"])
        self.said = Asked(kind=KINDS[0], panel=panels[0], legs=[])
        self.cable: tuple[str, str | None] | None = None
        self.begun, self.ended = False, False
        self.walked = 0  # where the legs end
        self.told: list[str] = []
        self.stood: Stood | None = None  # where it begins at what was there before
        self.figures: list[int] = []  # where amperes and volts stand before what they are of
        said = reader.phrase(["from"]) is not None
        ahead = _FROM.search(reader.text, reader.pos, reader.line_end()) is not None
        if before is not None and not (said or ahead):
            self.begun = True
            if isinstance(before, Panel):
                self.said = replace(self.said, panel=before)
            else:
                panel, box, on = from_box(reader, before)
                self.said = replace(self.said, panel=panel, box=box, on=on)
            self.told.append(f"it goes on from {before.name}")
        else:
            self._begin(needed=len(panels) > 1 and not ahead)

    @property
    def job(self) -> Job:
        """The job that its edits are made for: with what was there before."""
        job = self.reader.scene.job
        return with_it(job, self.stood) if self.stood is not None else job

    def part(self) -> None:
        """Reads one part more."""
        reader, at = self.reader, self.reader.pos
        if self.said.legs or reader.phrase(ROUGHLY) is None or not reader.sees_length():
            reader.pos = at  # about 45 feet
        if not self.cable and (cable := cable_first(reader)) is not None:
            self.cable = cable
            self._pulled()
        elif not self.begun and reader.phrase(["from"]) is not None:
            self._begin(needed=True)
        elif not self.ended and self._at_end():
            self._end()
        elif not self.said.legs and self._at_legs():
            self._legs()
        elif not self.ended and (match := UNIT.match(reader.text, reader.pos)) is not None:
            self.figures.append(reader.pos)
            reader.pos = match.end()
        elif not self.ended and reader.phrase(BEFORE) is not None:
            pass  # a, my, dedicated: said before what it is
        elif not self.ended and not self.said.legs and not self._known():
            raise self._astray()
        else:
            self.said = about(reader, self.said)

    def whole(self) -> Asked:
        """The line, once all is said that is needed."""
        reader = self.reader
        if not self.ended:
            raise _no_end(reader, "")
        self._no_feeder()
        box = self.said.kind.box
        alone = not (reader.scene.verb or reader.scene.job.rooms or self.said.there or self.begun) and (
            box.get("serves") or box.get("kind") in ("equipment", "disconnect") or self.said.kind.whip
        )
        if not self.said.legs and not alone:
            reader.expect(["20' stud wall"])
            raise reader.fail("how far it is and through what: 20' stud wall")
        if not self.said.legs:  # of a job as text: what stands there, its way in a line of its own
            self.told.append("no way to it is said yet: say `from`, how far, through what and `to` it")
            return self.said
        self.said, told = first_leg(reader.scene.book, self.job, self.said)
        self.told += told
        if not self.said.legs[0].place:
            known = [item.words[0] for item in places(reader.scene.book).values()]
            asked = f"say where the {show(self.said.legs[0].length_in)} lie: `stud wall`, `attic`, `crawl`, `trench`"
            reader.expected = self.walked, known
            raise reader.refuse(asked, allowed=known)
        if not self.begun and len(reader.scene.job.panels) > 1:
            reader.expect([f"from {name}" for name in called_panels(reader)])
            raise reader.fail("`from` and a panel or a box by its name")
        self.said, told = in_that_room(self.said, reader.text[: reader.line_end()])
        self.told += told
        return self.said

    def _no_feeder(self) -> None:
        """A 20 A circuit to a greenhouse that stands there, where no panel is: it goes to an outlet there, told."""
        said = self.said
        there = (
            self.reader.buildings().get(said.fed) if said.branch and said.building and said.there is None else None
        )
        if there is None or any(panel.structure == there.id for panel in self.reader.scene.job.panels):
            return
        self.said = replace(said, kind=KNOWN_ENDS["outlet"], structure=there.id, building="", fed="")
        self.told.append(f"a circuit to an outlet in {there.name}; say `sub-panel` where a panel is to stand there")

    def _begin(self, needed: bool) -> None:
        """Where it begins: a panel; or a box, with its panel and the circuit that is drawn out."""
        reader = self.reader
        found: tuple[Panel, Box | None, Circuit | None] | None = None
        if (stood := old_here(reader)) is not None:
            self.stood, found = stood, (stood.panel, stood.box, stood.on)
            self.told += stood.told
        elif (panel := reader.a_panel(called_panels(reader))) is not None:
            found = panel, None, None
        elif (name := reader.phrase(boxes := {**the_disconnect(reader.scene.job), **reader.boxes()})) is not None:
            found = from_box(reader, boxes[name])
        elif needed:
            old = _THING_THERE.match(reader.text, reader.pos)
            before = "; what was there before is `from an existing light in the hall on 5 15a`" if old else ""
            raise reader.fail(f"a panel or a box by its name{before}")
        if found is not None:
            self.begun = True
            self.said = replace(self.said, panel=found[0], box=found[1], on=found[2])

    def _at_end(self) -> bool:
        """Whether what stands at the end is said here; `to` or `for` before it may stand."""
        reader, start = self.reader, self.reader.pos
        before = reader.phrase(TO)
        found = end_here(reader)
        reader.pos = start
        return found or before in TO[:-1] or self._named(start) == 0

    def _named(self, at: int) -> int | None:
        """How far on the line goes to something of the job by its name; None where it does not."""
        found = named_ahead(self.reader.scene.job, self.reader.text[at : self.reader.line_end()], self.said.begin)
        return found.start() if found is not None else None

    def _end(self) -> None:
        reader, at = self.reader, self.reader.pos
        node = node_here(reader, self.said.begin)
        if node is None:
            reader.phrase(TO)
            certain = _THE.match(reader.text, reader.pos) is not None
            self.said = end(reader, self.said, self.figures)
            kind = self.said.kind
            if certain or kind.feeds or kind.box.get("serves") or kind.box.get("kind") in ("disconnect", "switch"):
                node = standing_alike(reader.scene.job, kind, self.said.begin, self.said.fed)
        else:
            self.said = replace(self.said, kind=kind_of(node))
        self.ended = True
        if node is not None:
            self.said = replace(self.said, there=loose(reader, node, self.said.begin, at), building="")

    def _legs(self) -> None:
        self.reader.skip()
        named = None if self.ended else self._named(self.reader.pos)
        self.said, self.walked = replace(self.said, legs=_legs(self.reader, self.ended, named)), self.reader.pos
        self._pulled()

    def _pulled(self) -> None:
        """Brings together the legs and the cable that was said apart from them: 10-3, 60' in emt is pipe with wires
        of that size, and that is told."""
        legs, cable = self.said.legs, self.cable
        if not legs or cable is None:
            return
        first, book = legs[0], self.reader.scene.book
        gauge = (cable[1] or "").rpartition("-")[0]
        if first.method and method(book, first.method).kind == "raceway" and gauge:
            self.said = replace(self.said, circuit={"wire_size": gauge, **self.said.circuit})
            self.told.append(
                f"{cable[1]} is a cable; in {method(book, first.method).name} go single wires of {gauge}"
            )
        else:
            self.said = replace(self.said, legs=in_cable(legs, cable))

    def _at_legs(self) -> bool:
        """Whether the legs begin here, after a colon or without: with a direction, a length, a place or a method."""
        reader = self.reader
        reader.skip()
        if reader.text.startswith(":", reader.pos):
            reader.pos += 1
        known = places(reader.scene.book).values()
        words = (*GO, *FISH, *(word for item in known for word in item.words))
        start = reader.pos
        if self.ended and reader.phrase(OUTSIDE) is not None:  # where it stands, unless a length follows
            found = cable_first(reader) is None and reader.sees_length()
            reader.pos = start
            return found
        if reader.sees_length() or reader.sees(words):
            return True
        found = reader.phrase(_THROUGH) is not None and (reader.sees_length() or reader.sees(words))
        reader.pos = start
        return found or method_ahead(reader.scene.book, reader.text[reader.pos : reader.line_end()]) is not None

    def _known(self) -> bool:
        """Whether something that may be said of a circuit stands here."""
        start, expected = self.reader.pos, self.reader.expected
        try:
            about(self.reader, self.said)
        except TextError as error:
            return (error.at or 0) > start
        finally:
            self.reader.pos, self.reader.expected = start, expected
        return True

    def _astray(self) -> TextError:
        """The refusal where nothing of a line stands."""
        reader = self.reader
        one_thing(reader)
        offered = [] if self.begun else called_panels(reader)
        reader.expect([*offered, *(f"to {word}" for word in OFFERED), *OFFERED])
        what = "how far it is, or what stands at the end"
        what = what if self.begun else f"a panel or a box by its name, {what}"
        return reader.fail(what)


def _legs(reader: SceneReader, ended: bool, named: int | None) -> list[WalkLeg]:
    """The legs, up to `to` and what stands there, to figures that are no lengths, or to the end; a length alone goes
    straight on. `ended`: what stands at the end was said before; `named`: how far on it is named."""
    begin = reader.pos
    rest = reader.text[begin : reader.line_end()]
    stops = [FIGURES.search(rest), None if ended else _TO.search(rest), _AGAIN.search(rest) if ended else None]
    ends = [match.start() for match in stops if match is not None] + ([named] if named is not None else [])
    stop = min(ends, default=None)
    said = rest if stop is None else rest[:stop]
    ended |= named is not None
    if not ended and stops[1] is None:
        _not_known(reader, said, begin)
    legs = read_legs(reader, said, begin)
    reader.pos = begin + (len(rest) if stops[2] is not None and stop == stops[2].start() else len(said))
    joined = (legs[-1].to or "").casefold() in {*map(str.casefold, ENDS.values()), *map(str.casefold, reader.boxes())}
    if not ended and stops[1] is None and (stop is None or (legs[-1].to and not joined)):
        raise _no_end(reader, said, named=bool(legs[-1].to))
    return legs


def _no_end(reader: SceneReader, legs: str, named: bool = False) -> TextError:
    """The refusal of a line without what stands at its end. legs: what was read of them up to here."""
    begin = reader.pos - len(legs)
    at, options = suggest(reader.scene.book, legs) if legs else (0, [])
    ends = [option for option in options if not option.startswith("to ")]
    last = [found.end() for found in BEGUN.finditer(legs)] if named else []
    words = list(OFFERED) if last else [f"to {word}" for word in OFFERED]
    reader.expected = (begin + (last[-1] if last else at), [*words, *ends])
    what = "`to` and what stands at the end: outlet, vehicle, range, heat pump, sub-panel …"
    return unknown(reader, begin + last[-1], what) if last else reader.fail(what)


def _not_known(reader: SceneReader, said: str, begin: int) -> None:
    """Refuses what a line goes to last that is no end it knows, where what stands before it is a way: to ceiling
    roses in the den. A box, a body or an elbow of a leg is none."""
    found = next(reversed(list(BEGUN.finditer(said))), None)
    if found is None or not said[found.end() :].strip():
        return
    if _is_way(reader, said[: found.start()]) and not _is_way(reader, said):
        reader.pos = begin + found.end()
        reader.expected = (reader.pos, list(OFFERED))
        raise unknown(reader, reader.pos, "what stands at the end: outlet, vehicle, range, fan, sub-panel …")


def _is_way(reader: SceneReader, text: str) -> bool:
    try:
        return bool(parse_walk(reader.scene.book, text))
    except TextError:
        return False


VERBS: dict[str, Callable[[SceneReader], Said]] = {"from": start}
