"""What a typed sentence is about, and a reader that knows the names of a job: panels, boxes, circuits, buildings."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from difflib import get_close_matches
from functools import cached_property, lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Job, Level, Panel, Room, Structure
from levelrun.core.site.called import BUILDINGS
from levelrun.core.site.sizes import feet_said, without_capacity
from levelrun.core.words import Reader

SHORT = {"n": "north", "e": "east", "s": "south", "w": "west", "ne": "northeast", "se": "southeast",
         "sw": "southwest", "nw": "northwest"}  # fmt: skip
COMPASS = {*SHORT, *SHORT.values()}
SMALL = ("the", "a", "an")
SUB_PANELS = ("sub-panel", "subpanel", "sub panel")
PANEL_WORDS = ("panel", *SUB_PANELS)
MAINS = ("main panel", "main breaker panel", "service panel", "breaker panel", "breaker box", "main")
# Between a thing and what is said of it.
JOINING = ("circuit", "and", "more", "the", "for", "with")  # in the name of a circuit no word that tells it apart
_SMALL = re.compile(rf"(?:{'|'.join(SMALL)})\s+", re.IGNORECASE)
_DAY = re.compile(r"\d{4}-\d{2}-\d{2}")
_MEASURED = re.compile(r"\d+(?:\.\d+)?['\"]|\d+(?:a|v|ft|in)$", re.IGNORECASE)


def _alone(word: str, last: list[str]) -> bool:
    return word in BUILDINGS and last.count(word) == 1


@dataclass(frozen=True, kw_only=True)
class Scene:
    """The job, and the room, level, panel, way and trench that a sentence is about where it names none; `node_id`:
    the box or panel at the end of the line that it goes on from; `made`: the parts of the sentence that it goes on
    from."""

    job: Job
    book: Codebook
    room_id: str | None = None
    level_id: str | None = None
    panel_id: str | None = None
    way_id: str | None = None
    line_id: str | None = None
    node_id: str | None = None
    made: tuple[str, ...] = ()
    verb: str = ""

    @cached_property
    def room(self) -> Room | None:
        """The room looked at."""
        return next((room for room in self.job.rooms if room.id == self.room_id), None)

    @cached_property
    def level(self) -> Level | None:
        """The level looked at: that of the room, the one named, else the first floor of the first structure."""
        levels = [level for item in self.job.structures for level in item.levels]
        wanted = self.room.level if self.room else self.level_id
        found = next((level for level in levels if level.id == wanted), None)
        floors = [level for level in levels if level.kind == "floor"]
        return found or next(iter(floors or levels), None)

    @cached_property
    def panel(self) -> Panel | None:
        """The panel looked at, else the first."""
        panels = self.job.panels
        return next((panel for panel in panels if panel.id == self.panel_id), panels[0] if panels else None)

    def rooms(self) -> dict[str, Room]:
        """Rooms by name, the word room at its end left out too, a stair of stairs; of equal names the one on the
        level looked at."""
        level = self.level
        ordered = sorted(self.job.rooms, key=lambda room: level is not None and room.level == level.id)
        named = {room.name: room for room in ordered}
        known = {name.casefold() for name in named}
        short = {name[:-5]: room for name, room in named.items() if name.casefold().endswith(" room")}
        short |= {name[:-1]: room for name, room in named.items() if name.casefold().endswith("stairs")}
        last = [name.casefold().split()[-1] for name in named]  # the barn, for a Pole barn of one room
        short |= {word: room for word, room in zip(last, named.values(), strict=True) if _alone(word, last)}
        return {**{name: room for name, room in short.items() if name.casefold() not in known}, **named}


class NamingReader(Reader):
    """A reader that knows the names of a job."""

    scene: Scene
    verbs: tuple[str, ...] = ()

    def __init__(self, text: str) -> None:
        super().__init__(text)
        self.text, places, self.in_feet = feet_said(without_capacity(self.text))
        self.origin = [self.origin[place] for place in places]

    def phrase(self, options: Iterable[str]) -> str | None:
        """The longest of the phrases that stands here, taken; or None. A small word before it is passed over, and the
        word wall after the name of one: the north wall."""
        words, start = tuple(options), self.pos
        found = super().phrase(words)
        if found is None and super().phrase(SMALL) is not None:
            found = super().phrase(words)
        if found is None:
            self.pos = start
            self.skip()
        elif found.split()[0] in COMPASS:
            super().phrase(("wall", "walls"))
        return found

    def expect(self, options: Iterable[str]) -> None:
        """As Reader.expect, behind a small word: what is completed or refused is the word after it."""
        super().expect(options)
        if (small := _SMALL.match(self.text, self.pos)) is not None:
            self.expected = (small.end(), self.expected[1])

    def refuse(self, message: str, at: int | None = None, allowed: list[str] | None = None) -> TextError:
        """A refusal at a place of the text: by default where the last word was read."""
        where = self.expected[0] if at is None else at
        return TextError(
            message, key="text", value=self.text[where:][:60], allowed=allowed or [],
            at=self.origin[min(where, len(self.text))],
        )  # fmt: skip

    def panels(self) -> dict[str, Panel]:
        """Panels by name, and by what a name says after the word panel where no other is called so."""
        named = {panel.name: panel for panel in self.scene.job.panels}
        short = {bare_panel(name): panel for name, panel in named.items()}
        whole = {name.lower() for name in named}
        return {**{key: panel for key, panel in short.items() if key and key not in whole}, **named}

    def a_panel(self, offered: Iterable[str] = ()) -> Panel | None:
        """A panel by its name, the word panel before it or not; the only one by that word alone. None where none
        stands here. `offered`: how they are completed, where not by their names."""
        panels, roles, start = self.panels(), self._panels_by_role(), self.pos
        if not self.sees(panels) and (role := self.phrase(roles)) is not None and not self.sees(panels):
            return roles[role]
        self.pos = start
        word = None if self.sees(panels) else self.phrase(["panel"])
        self.expect(offered or panels)
        name = self.phrase(panels)
        if name is None and word is not None and len(self.scene.job.panels) == 1:
            return self.scene.job.panels[0]
        if name is None:
            self.pos = start
            return None
        if word is None:
            self.phrase(PANEL_WORDS)  # the garage panel
        return panels[name]

    def _panels_by_role(self) -> dict[str, Panel]:
        """Panels by what they are, where only one is: the main panel, the sub-panel, the barn panel."""
        job = self.scene.job
        fed = {circuit.feeds for circuit in job.circuits}
        subs = [panel for panel in job.panels if panel.id in fed or panel.disconnect_elsewhere]
        mains = [panel for panel in job.panels if panel not in subs]
        found = dict.fromkeys(MAINS, mains[0]) if len(mains) == 1 else {}
        found |= dict.fromkeys(SUB_PANELS, subs[0]) if len(subs) == 1 else {}
        for name, building in self.buildings().items():
            own = [panel for panel in job.panels if panel.structure == building.id]
            found |= {f"{name} {word}": own[0] for word in PANEL_WORDS} if len(own) == 1 else {}
        return found

    def buildings(self) -> dict[str, Structure]:
        """Buildings by name, and by the last word of it where that is no other's name: the shop, for Kiln shop; the
        only house by that word too."""
        named = {item.name: item for item in self.scene.job.structures if item.kind != "yard"}
        last = [name.split()[-1].lower() for name in named]
        short = {key: item for key, item in zip(last, named.values(), strict=True) if last.count(key) == 1}
        homes = [item for item in named.values() if item.kind == "house"]
        short |= {"house": homes[0]} if len(homes) == 1 else {}  # the house, for Farmhouse
        return {**named, **{key: item for key, item in short.items() if key not in {n.lower() for n in named}}}

    def boxes(self) -> dict[str, Box]:
        """Boxes by name; the only one that serves an appliance by that too: the dryer outlet."""
        job = self.scene.job
        served = Counter(box.serves for box in job.boxes if box.serves not in ("", "counter"))
        alone = [box for box in job.boxes if served[box.serves] == 1]
        by_use = {f"{box.serves.replace('_', ' ')} {plug}": box for box in alone for plug in ("outlet", "receptacle")}
        return {**by_use, **{box.name: box for box in job.boxes}}

    def circuits_by_word(self) -> dict[str, Circuit]:
        """Circuits by a word of their name that no other has: the lights circuit."""
        words = {circuit.id: set(circuit.name.lower().split()) for circuit in self.scene.job.circuits}
        every = Counter(word for own in words.values() for word in own)
        return {
            f"{word} circuit": circuit
            for circuit in self.scene.job.circuits
            for word in words[circuit.id]
            if every[word] == 1 and len(word) > 2 and word.isalpha() and word not in JOINING
        }

    def boxes_said(self) -> list[Box]:
        """Boxes by name one after another, with `and` between them or without, up to the first word that is none; R-1
        to R-4 are all of that letter between."""
        boxes, found = self.boxes(), list[Box]()
        while (word := self.phrase(boxes)) is not None:
            found.append(boxes[word])
            found += self.boxes_up_to(boxes[word])
            self.phrase(["and"])
        return found

    def boxes_up_to(self, first: Box) -> list[Box]:
        """The boxes behind one up to the one that is named here after `to`, by their numbers; none where none is."""
        boxes, start = self.boxes(), self.pos
        if self.phrase(("to", "through", "thru")) is None or not self.sees(boxes):
            self.pos = start
            return []
        letter, _, low = first.name.rpartition("-")
        last = boxes[self.need(boxes, "a box by its name")]
        high = last.name.removeprefix(f"{letter}-")
        if not (low.isdigit() and high.isdigit() and int(low) < int(high)):
            raise self.refuse(f"{first.name} to {last.name}: from a lower to a higher number of one letter")
        between = (f"{letter}-{number}" for number in range(int(low) + 1, int(high) + 1))
        return [boxes[name] for name in between if name in boxes]

    def spaced(self) -> dict[str, Circuit]:
        """The circuits of the panel looked at by their spaces."""
        panel = self.scene.panel
        own = [c for c in self.scene.job.circuits if c.space and panel is not None and c.panel == panel.id]
        return {self.circuit_label(circuit): circuit for circuit in own}

    def circuit_of(self, box: Box) -> Circuit | None:
        """The circuit that a box is on; None where it is on none."""
        return next((c for c in self.scene.job.circuits if any(hop.box == box.id for hop in c.chain)), None)

    def name(self, stops: tuple[str, ...] = (), ends: str = "") -> str:
        """A new name: in double quotes, or all words up to one of `stops`, to what the pattern `ends` is like, or to
        the end of the sentence. A word that is nearly one of `stops`, or a length, is no part of a name: it is
        refused where it stands."""
        self.expect(["a name"])
        if self.text[self.pos : self.pos + 1] == '"':
            return self.token("a name")
        match = _name_end(stops, ends).search(self.text, self.pos)
        said = self.text[self.pos : match.start() if match else None].strip(" ,:")
        if not said:
            raise self.fail("a name")
        end = self.pos + len(self.text[self.pos : match.start() if match else None].rstrip())
        for word in re.finditer(r"\S+", self.text[self.pos : end]):
            near = get_close_matches(word[0].lower(), stops, n=1, cutoff=0.75)
            if word.start() and (near or _MEASURED.match(word[0])):
                self.expected = (self.pos + word.start(), near or list(stops))
                raise self.fail(f"{near[0] if near else 'a word'}, or the name in double quotes")
        self.pos = end
        return said

    def day(self) -> str:
        """A day such as 2026-05-12."""
        self.expect(["2026-05-12"])
        if (match := self.take(_DAY)) is None:
            raise self.fail("a day such as 2026-05-12")
        return match[0]

    def on_day(self) -> str:
        """`on` and a day; empty where none stands here."""
        return self.day() if self.phrase(["on"]) else ""

    def position(self) -> float:
        """A length that may be 0."""
        return self.length()

    def circuit_label(self, circuit: Circuit) -> str:
        """How a circuit is called: by its spaces."""
        from_space = circuit.space or 0
        if not from_space:
            return circuit.name
        return spaces_text(from_space, circuit.poles, circuit.half)


@lru_cache(maxsize=256)
def _name_end(stops: tuple[str, ...], ends: str) -> re.Pattern[str]:
    words = "|".join(re.escape(word) for word in ("then", *stops))
    like = rf"|\s(?i:{ends})" if ends else ""
    return re.compile(rf"(?=\s*(?:$|\n|;|\b(?:{words})\b){like})")


def spaces_text(space: int, poles: int, half: str) -> str:
    """The spaces of a breaker as they are said: 9, 9b, 1/3."""
    return f"{space}/{space + 2}" if poles == 2 else f"{space}{half}"


def bare_panel(name: str) -> str:
    """What a panel is called, without the word panel."""
    return name.lower().removeprefix("panel ").strip()
