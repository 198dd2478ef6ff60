"""A line that starts a job as far as it is read: where it begins, its legs, its cable, what stands at its end."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from levelrun.core.circuits.parts_said import UNIT
from levelrun.core.codebook.lookups import method, places
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Job, Panel, Structure
from levelrun.core.measure import show
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.about import about
from levelrun.core.start.asked import Asked
from levelrun.core.start.beginning import a_box, called_panels, from_box
from levelrun.core.start.ends import BEFORE, OUTSIDE, ROOMS, THING, any_of, end, end_here, one_thing
from levelrun.core.start.kinds import KINDS, OFFERED
from levelrun.core.start.legs_said import TO_A_THING, legs_said, no_end
from levelrun.core.start.lying import beside_a_panel, first_leg, in_that_room, supposed
from levelrun.core.start.more import more_here
from levelrun.core.start.multiwire import SHARED
from levelrun.core.start.old import Stood, joined_to, old_here, with_it
from levelrun.core.start.opening import FIGURES, ROUGHLY, cable_first, in_cable
from levelrun.core.start.put_up import in_a_building, of_a_room
from levelrun.core.start.several import OF_THEM, apart_here
from levelrun.core.start.there import kind_of, loose, named_ahead, node_here, standing_alike
from levelrun.core.start.whip import whip_here
from levelrun.core.ways.method_words import method_ahead
from levelrun.core.ways.next_leg import FILLERS, FISH, GO
from levelrun.core.ways.walk import FISHED
from levelrun.core.ways.words import read_legs
from levelrun.core.words import BREAK

_THING_THERE = re.compile(
    r"\s*(?:the\s+|an?\s+)?(?:[a-z]+\s+){0,2}(?:light|outlet|receptacle|plug|switch|fan)\b", re.IGNORECASE
)
_ENDS = re.compile(rf"{THING}$", re.IGNORECASE)
_THE = re.compile(r"\s*the\s", re.IGNORECASE)
_IN_ROOM = re.compile(rf"\s*(?P<room>{any_of(ROOMS)})\s*:\s*", re.IGNORECASE)
_FROM = re.compile(r"\bfrom\b", re.IGNORECASE)
FROM = (
    "from", "extend from", "extend",
    "tie into", "tie in to", "tap into", "tap off of", "tap off", "come off of", "come off", "off of", "off",
)  # fmt: skip
RIGHT_BY = ("right next to", "right beside", "right by")  # no way to the right
IT = ("it", "there", "that one", "that box", "that outlet", "that light", "that switch")  # where the line before ends
AND_ON = ("and run", "then run", "and go", "run", "and pull")
# A cable by its size and a word for it, where how far or which way follows.
_CALLED = re.compile(
    r"(?P<cable>\d{1,2}\s*[-/]\s*\d)\s+(?P<word>[a-z][a-z-]+)(?:\s+(?:wire|cable))?"
    r"(?=\s*,?\s+(?:\d|(?:from|up|down|over|through|along|to)\b)|\s*$)",
    re.IGNORECASE,
)
_SIZED = re.compile(r"\s*(?:14|12|10|8|6)\s*[-/]\s*[234](?![\d'\"/-])\s*")  # a cable, and no two spaces
TO = ("to feed", "to power", "to serve", "to", "for")
ALONG = ("along", "through", "across")
_THROUGH = (*ALONG, "in", "some")


class Line:
    """A line as far as it is read."""

    def __init__(self, reader: SceneReader, before: Box | Panel | None = None) -> None:
        self.reader = reader
        panels = reader.scene.job.panels
        if not panels:
            reader.expect(["panel"])
            raise reader.refuse("there is no panel yet: say `panel H 200a 30 spaces` first", allowed=["panel"])
        self.said = Asked(kind=KINDS[0], panel=panels[0], legs=[])
        self.cable: tuple[str, str | None] | None = None
        self.fished = False  # fish 12-2 up 8'
        self.begun, self.ended = False, False
        self.walked = 0  # where the legs end
        self.told: list[str] = []
        self.stood: Stood | None = None  # where it begins at what was there before
        self.raised: Structure | None = None  # a building that it puts up for its outlet
        self.figures: list[int] = []  # where amperes and volts stand before what they are of
        said = reader.phrase(FROM) is not None
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
            own = self._of_the_room() if not ahead and len(panels) > 1 else None
            self.said = replace(self.said, panel=own or panels[0])
            self._begin(needed=len(panels) > 1 and own is None and not ahead)
            if own is not None and not self.begun:
                self.begun = True
                self.told.append(f"it begins at {own.name}, the panel of the building; say `from` where it does not")

    def _of_the_room(self) -> Panel | None:
        """The only panel of the building that the line says it is in; else of that in which the room stands that is
        looked at."""
        scene, reader = self.reader.scene, self.reader
        owner = scene.job.structure_of(scene.room.level).id if scene.room is not None else None
        rest = reader.text[reader.pos : reader.line_end()]
        for name, building in reader.buildings().items():
            if re.search(rf"\bin\s+(?:the\s+)?{re.escape(name)}\b", rest, re.IGNORECASE) is not None:
                owner = building.id
        found = [panel for panel in scene.job.panels if panel.structure == owner]
        return found[0] if len(found) == 1 else None

    @property
    def job(self) -> Job:
        """The job that its edits are made for: with what was there before."""
        job = self.reader.scene.job
        if self.raised is not None:
            job = job.model_copy(update={"structures": (*job.structures, self.raised)})
        return with_it(job, self.stood) if self.stood is not None else job

    def part(self) -> None:
        """Reads one part more."""
        reader, at = self.reader, self.reader.pos
        if self.ended and not self.said.legs and reader.text.startswith(":", at):
            reader.pos, at = at + 1, at + 1  # microwave circuit: 12-2, 28' basement
        if self.said.legs or reader.phrase(ROUGHLY) is None or not reader.sees_length():
            reader.pos = at  # about 45 feet
        if reader.sees(RIGHT_BY):
            reader.phrase(["right"])
        if not (self.begun or self.ended or self.said.use) and (room := _IN_ROOM.match(reader.text, at)) is not None:
            reader.pos, self.said = room.end(), replace(self.said, use=ROOMS[room["room"].lower()])  # bedroom: ...
        elif (whipped := whip_here(reader, self.said)) is not None:
            self.said = whipped
        elif reader.take(SHARED) is not None:
            self.said = replace(self.said, multiwire=True)
        elif not self.cable and self._in_cable():
            self._pulled()
        elif not self.begun and reader.phrase(FROM) is not None:
            self._begin(needed=True)
        elif self.begun and reader.phrase(AND_ON) is not None:
            pass
        elif not self.ended and self._at_end():
            self._end()
        elif self.ended and (other := more_here(reader, self.said)) is not None:
            self.said = replace(self.said, more=(*self.said.more, other))
        elif self.ended and self.said.count > 1 and reader.take(OF_THEM) is not None:
            pass
        elif self.ended and self.said.count > 1 and (apart := apart_here(reader)) is not None:
            self.said = replace(self.said, apart_in=apart)
        elif not self.said.legs and self._at_legs():
            self._legs()
        elif self.begun and self._goes_along():
            pass
        elif not self.ended and (match := reader.take(UNIT)) is not None:
            self.figures.append(match.start())
        elif not self.ended and reader.phrase(BEFORE) is not None:
            pass  # a, my, dedicated: said before what it is
        elif not self.ended and self._feeder_to():
            pass  # 60a feeder to the barn
        elif not self.ended and not self.said.legs and not self._known():
            raise self._astray()
        else:
            self.said = about(reader, self.said)

    def _in_cable(self) -> bool:
        """Whether its cable is said here: 12-2; fish 12-2; on 12-2; 12/2 and a word for it that is not known."""
        reader, begin = self.reader, self.reader.pos
        fished = reader.phrase(FISH) is not None
        led = None if fished else reader.phrase(("on", "with", "using"))
        if led == "on" and _SIZED.match(reader.text, reader.pos) is None:
            reader.pos = begin
            return False
        self.cable = cable_first(reader)
        reader.skip()
        if self.cable is None and (sized := _SIZED.match(reader.text, reader.pos)) is not None:
            said = method_ahead(reader.scene.book, f"nm {sized.group(0).strip()}")
            if said is not None and SHARED.match(reader.text, sized.end()) is not None:  # 12-3 multiwire
                self.cable, reader.pos = said[:2], sized.end()
        word = _CALLED.match(reader.text, reader.pos) if self.cable is None else None
        if word is not None and not self._known_word(word.start("word")):
            said = method_ahead(reader.scene.book, f"nm {word['cable']}")
            if said is not None and said[1]:
                self.cable, reader.pos = said[:2], word.end()
                self.told.append(f"{word['word']} is taken to be building cable; say `uf` or `mc` where it is that")
        if self.cable is None:
            reader.pos = begin
            return False
        self.fished = fished
        return True

    def _known_word(self, at: int) -> bool:
        """Whether a place, a pipe, or what stands at the end is named at a place of the line."""
        reader, begin = self.reader, self.reader.pos
        reader.pos = at
        found = reader.sees(word for item in places(reader.scene.book).values() for word in item.words)
        found |= reader.sees((*FILLERS, *FISH, *FISHED)) or end_here(reader)
        reader.pos = begin
        return found or method_ahead(reader.scene.book, reader.text[at : reader.line_end()]) is not None

    def spaced(self) -> None:
        """Takes how far apart several stand, where `then` parts it from the legs: 40' crawl then 12' apart."""
        reader, at = self.reader, self.reader.pos
        then = BREAK.match(reader.text, at)
        if self.said.count == 1 or then is None or "then" not in then.group(0).lower():
            return
        reader.pos = then.end()
        apart = apart_here(reader)
        if apart is None:
            reader.pos = at
        else:
            self.said = replace(self.said, apart_in=apart)

    def whole(self) -> Asked:
        """The line, once all is said that is needed."""
        reader = self.reader
        if not self.ended:
            raise no_end(reader, "")
        self.said = of_a_room(self.reader.scene.job, self.said)
        self.said, self.raised, told = in_a_building(reader, self.said)
        self.told += told
        box = self.said.kind.box
        self.said, told = beside_a_panel(self.said)
        self.told += told
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
        if not self.said.legs[0].place and self._like_a_cable():
            known = [item.words[0] for item in places(reader.scene.book).values()]
            asked = f"say where the {show(self.said.legs[0].length_in)} lie: `stud wall`, `attic`, `crawl`, `trench`"
            reader.expected = self.walked, known
            raise reader.refuse(asked, allowed=known)
        self.said, told = supposed(reader.scene.book, self.said)
        self.told += told
        if not self.begun and len(reader.scene.job.panels) > 1:
            reader.expect([f"from {name}" for name in called_panels(reader)])
            raise reader.fail("`from` and a panel or a box by its name")
        self.said, told = in_that_room(self.said, reader.text[: reader.line_end()])
        self.told += told
        return self.said

    def _like_a_cable(self) -> bool:
        """Whether the length of the first leg is written as a cable is, 12-2, and could be one: nothing is supposed
        of it."""
        feet, inches = divmod(self.said.legs[0].length_in, 12)
        return re.search(rf"(?<![\w'-]){feet:g}\s*[-/]\s*{inches:g}(?![\w'])", self.reader.text) is not None

    def _begin(self, needed: bool) -> None:
        """Where it begins: a panel; or a box, with its panel and the circuit that is drawn out."""
        reader = self.reader
        found: tuple[Panel, Box | None, Circuit | None] | None = None
        if (stood := old_here(reader)) is not None:
            self.stood, found = stood, (stood.panel, stood.box, stood.on)
            self.told += stood.told
        elif (panel := reader.a_panel(called_panels(reader))) is not None:
            found = panel, None, None
        elif (box := a_box(reader)) is not None:
            found = from_box(reader, box)
        elif (node := self._before()) is not None:
            found = (node, None, None) if isinstance(node, Panel) else from_box(reader, node)
        elif needed:
            old = _THING_THERE.match(reader.text, reader.pos)
            before = "; what was there before is `from an existing light in the hall on 5 15a`" if old else ""
            raise reader.fail(f"a panel or a box by its name{before}")
        if found is not None:
            self.begun = True
            self.said = replace(self.said, panel=found[0], box=found[1], on=found[2])

    def _before(self) -> Box | Panel | None:
        """What stands at the end of the line before, or was set last, where it is called `it`; else None."""
        if self.reader.scene.job.boxes and self.reader.phrase(IT) is not None:
            return joined_to(self.reader) or self.reader.scene.job.boxes[-1]
        return None

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
            if reader.text[at : reader.pos].lower().endswith("circuit") and self._named_again():
                return  # a bathroom circuit, 35' crawl to a gfci outlet
            if certain or kind.feeds or kind.box.get("serves") or kind.box.get("kind") in ("disconnect", "switch"):
                node = standing_alike(reader.scene.job, kind, self.said.begin, self.said.fed)
        else:
            self.said = replace(self.said, kind=kind_of(node))
        self.ended = True
        if node is not None:
            self.said = replace(self.said, there=loose(reader, node, self.said.begin, at), building="")

    def _goes_along(self) -> bool:
        """Through what the way goes, where that stands behind its begin: 20' from the panel along the wall."""
        reader, legs = self.reader, self.said.legs
        rest = reader.text[reader.pos : reader.line_end()]
        if len(legs) != 1 or legs[0].place or legs[0].method or not reader.sees(ALONG):
            return False
        stop = FIGURES.search(rest)
        said = rest[: stop.start()] if stop is not None else rest
        far = f"{show(legs[0].length_in)} "
        self.said = replace(self.said, legs=read_legs(reader, far + said, reader.pos - len(far)))
        reader.pos += len(said)
        self._pulled()
        return True

    def _feeder_to(self) -> bool:
        """Whether it is called a feeder here, before what it feeds."""
        at = self.reader.pos
        found = self.reader.phrase(("feeder", "feed")) is not None
        found = found and (self.reader.sees(TO) or self.reader.sees_length())
        self.reader.pos = self.reader.pos if found else at
        return found

    def _named_again(self) -> bool:
        """Whether what a circuit goes to is named later on."""
        return TO_A_THING.search(self.reader.text, self.reader.pos, self.reader.line_end()) is not None

    def _legs(self) -> None:
        self.reader.skip()
        named = None if self.ended else self._named(self.reader.pos)
        begin = self.reader.pos
        legs = legs_said(self.reader, self.ended, named)
        if self.ended and (two := legs[-1].to) and _ENDS.match(two) is not None:
            first = self.said.name or self.said.kind.title
            raise self.reader.refuse(
                f"{first} and {two} both stand at the end; what was there before, and is drawn out, is `from an "
                "existing light in the hall on 5 15a`",
                begin,
            )
        if self.fished:
            legs = [replace(legs[0], fished=True), *legs[1:]]
        self.said, self.walked = replace(self.said, legs=legs), self.reader.pos
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
            apart = reader.text[reader.pos : reader.pos + 1] == ","  # outside, 15' basement
            found = not apart and cable_first(reader) is None and reader.sees_length()
            reader.pos = start
            return found
        if reader.sees_length() or reader.sees(words):
            return True
        led = reader.phrase(_THROUGH)
        found = led is not None and (reader.sees_length() or reader.sees(words))
        if found and led == "in" and not reader.sees_length():  # in the basement, 15' wall: where it stands
            reader.phrase(words)
            begin = reader.pos
            found = method_ahead(reader.scene.book, reader.text[begin : reader.line_end()]) is not None or (
                reader.text[begin : begin + 1] != "," and reader.sees_length() and not self._again(words)
            )
            reader.pos = start
            return found
        reader.pos = start
        return found or method_ahead(reader.scene.book, reader.text[reader.pos : reader.line_end()]) is not None

    def _again(self, words: Sequence[str]) -> bool:
        """Whether a length stands here and where that lies, so that what was said before is where it stands."""
        self.reader.length()
        return self.reader.sees(words)

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
