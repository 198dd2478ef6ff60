"""How a box is made up: which cable comes in where, with which letter; which wires are joined by what; what is left
out for the device; what is ticked."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.catalogue import BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.joints import (
    GROUND,
    NEUTRAL,
    SWITCHED,
    Joint,
    connector_for,
    joints_of,
    numbered,
    owner_of,
    words_of,
)
from levelrun.core.boxes.parts import LAMPS, PLUGS
from levelrun.core.circuits.loads import hot_colours
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Card, Habits, Job
from levelrun.core.roughin.asks import Ask, asks_of
from levelrun.core.roughin.steps import CAPPED, IN_PIPE, LETTERED, MARKED, CardStep, needed_steps, titles

SHEATHED = ("black", "white"), ("black", "red", "white"), ("black", "red", "blue", "white")
PLURAL = {"black": "blacks", "white": "whites", "red": "reds", "blue": "blues", "brown": "browns", "bare": "grounds"}
SMALL = ("no", "a", "two", "three", "four", "five", "six", "seven", "eight")


@dataclass(frozen=True, kw_only=True)
class CardWire:
    """One wire of a cable at this box: its colour, what it is for; marked: a white that is a hot, and re-marked."""

    colour: str
    what: str
    marked: bool


@dataclass(frozen=True, kw_only=True)
class CardCable:
    """A cable, or the wires of a pipe, as it comes in: its letter, what it is, where it goes, at which edge of the
    box. gauge: for its jacket's colour, empty for pipe."""

    letter: str
    circuit: str
    box: str
    text: str
    what: str
    gauge: str
    at: str
    through: bool
    wires: list[CardWire]


@dataclass(frozen=True, kw_only=True)
class CardJoint:
    """Wires joined: how many of which colour, with what tails, by which connector."""

    what: str
    colours: list[str]
    tails: int
    text: str
    connector: str
    section: str


@dataclass(frozen=True, kw_only=True)
class BoxCard:
    """A box as it is made up. notes: what its device wants (line and load, travellers); tails: what is left out."""

    node: str
    name: str
    kind: str
    title: str
    where: str
    circuits: str
    volume: str
    cables: list[CardCable]
    joints: list[CardJoint]
    notes: list[str]
    steps: list[CardStep]
    asks: list[Ask]
    made: bool


def colours_of(item: Entering) -> list[CardWire]:
    """The colours of the wires of a cable as they are used: white is the neutral where there is one, else the last
    hot and re-marked (200.7(C)); hots go black, red, blue. Single wires in pipe have the colour that they need."""
    words = words_of(item)
    if not item.cable:
        hots = iter(hot_colours(item.hue, len(words)))
        return [CardWire(colour="white" if w == NEUTRAL else next(hots), what=w, marked=False) for w in words]
    own = next((row for row in SHEATHED if len(row) == max(len(words), 2)), SHEATHED[-1])
    spare = ["red"] if item.inside else [colour for colour in own if colour != "white"]
    found: list[CardWire] = []
    for word in words:
        if word == NEUTRAL:
            found.append(CardWire(colour="white", what=word, marked=False))
        elif spare:
            found.append(CardWire(colour=spare.pop(0), what=word, marked=False))
        else:
            found.append(CardWire(colour="white", what=word, marked=True))
    return found


def box_card(
    book: Codebook,
    job: Job,
    box: Box,
    model: BoxModel,
    entering: Sequence[Entering],
    letters: Mapping[tuple[str, str], str],
    card: Card | None,
    where: str,
    volume: str,
) -> BoxCard:
    """The card of one box."""
    habits = job.habits
    cables = [_cable(habits, item, letters) for item in entering]
    joints = joints_of(book, box, model, entering)
    shown = [_joint(book, habits, box, entering, joint) for joint in joints]
    steps = list(_steps(book, habits, box, cables, joints, card))
    return BoxCard(
        node=box.id, name=box.name, kind=box.kind, title=_title(box), where=where,
        circuits=_circuits(job, entering), volume=volume, cables=cables, joints=shown,
        notes=list(_notes(box, entering)), steps=steps, asks=asks_of(book, job, box, model, entering, card),
        made=all(step.done for step in steps if step.needed),
    )  # fmt: skip


def _title(box: Box) -> str:
    kind = f"{box.ways}-way switch" if box.kind == "switch" and box.ways > 2 else box.kind
    serves = box.serves.replace("_", " ")
    return f"{kind} for the {serves}" if serves and box.kind in PLUGS else kind


def _circuits(job: Job, entering: Sequence[Entering]) -> str:
    named = {circuit.id: circuit for circuit in job.circuits}
    own = [named[key] for key in dict.fromkeys(item.hop[0] for item in entering) if key in named]
    told = [f"circuit {c.space or '?'}{c.half}, {c.name}, {c.breaker_a:g} A" for c in own]
    kinds: Counter[str] = Counter()
    for item in entering:
        if not item.inside and (item.cable or item.count):
            kinds[item.what or f"{item.size} in pipe"] += 1 if item.cable else item.count
    counted = ", ".join(f"{count} of {kind}" for kind, count in kinds.items())
    return f"{'; '.join(told)} · {counted}" if told else "on no circuit yet"


def _cable(habits: Habits, item: Entering, letters: Mapping[tuple[str, str], str]) -> CardCable:
    power = item.side == "feed"
    at = "through" if item.side == "through" else "bottom" if power else "top"
    if habits.roughin.enters == "anywhere" and at != "through":
        at = "bottom" if power else "any"
    return CardCable(
        letter=letters.get(item.hop, "?"),
        circuit=item.hop[0],
        box=item.hop[1],
        text=f"from {item.other}" if power else f"to {item.other}" if at != "through" else f"past, to {item.other}",
        what=_called(item),
        gauge=item.size if item.cable else "",
        at=at,
        through=item.side == "through",
        wires=colours_of(item),
    )


def _called(item: Entering) -> str:
    if item.what or item.inside:
        return item.what or "in the same cable"
    colours = [*(wire.colour for wire in colours_of(item)), *(["green"] if item.ground else [])]
    return f"{item.size} in pipe: {', '.join(colours)}"


def _joint(book: Codebook, habits: Habits, box: Box, entering: Sequence[Entering], joint: Joint) -> CardJoint:
    colours = list(_joined(entering, joint))
    parts = _counted(colours)
    if joint.pigtails and not joint.capped:
        parts.append("a tail" if joint.pigtails == 1 else f"{SMALL[min(joint.pigtails, 8)]} tails")
    if len(joint.wires) - joint.pigtails - len(colours) > 0:
        parts.append(f"the {box.kind}'s lead")
    text = listed(parts) + (", not used here" if joint.capped else "")
    named = connector_for(book, joint, habits.buying.joints)
    shared = joint.what == NEUTRAL and joint.pigtails and _multiwire(entering, joint.circuit)
    section = "250.148" if joint.what == GROUND else "300.13(B)" if shared else ""
    if shared:
        text += ", the neutral of two circuits: no device may break it"
    return CardJoint(
        what=joint.what, colours=colours, tails=joint.pigtails, text=text,
        connector=named or f"a listed splice for {len(joint.wires)} of these", section=section,
    )  # fmt: skip


def _joined(entering: Sequence[Entering], joint: Joint) -> Iterator[str]:
    """The colours of the wires that a joint takes, cable by cable."""
    of = owner_of(entering)
    for item in entering:
        if item.side == "through":
            continue
        if joint.what == GROUND:
            if item.ground:
                yield "bare" if item.cable else "green"
            continue
        for wire, what in zip(colours_of(item), numbered(words_of(item)), strict=True):
            if what == joint.what and of(item, what) == joint.circuit:
                yield wire.colour


def listed(parts: Sequence[str]) -> str:
    """Things in words: a, b and c."""
    return f"{', '.join(parts[:-1])} and {parts[-1]}" if len(parts) > 1 else "".join(parts)


def _counted(colours: Sequence[str]) -> list[str]:
    parts = []
    for colour in dict.fromkeys(colours):
        count = colours.count(colour)
        name = {"bare": "ground", "green": "green ground"}.get(colour, colour)
        many = PLURAL.get(colour, f"{name}s")
        parts.append(f"{SMALL[count] if count < len(SMALL) else count} {name if count == 1 else many}")
    return parts


def _multiwire(entering: Sequence[Entering], circuit: str) -> bool:
    return any(
        item.shared == circuit or (item.owner == circuit and item.words.count("hot") > 1 and NEUTRAL in item.words)
        for item in entering
    )


def _steps(
    book: Codebook,
    habits: Habits,
    box: Box,
    cables: Sequence[CardCable],
    joints: Sequence[Joint],
    card: Card | None,
) -> Iterator[CardStep]:
    told, needed = titles(book, habits), needed_steps(box)
    if not any(cable.gauge for cable in cables):
        told = told | IN_PIPE
    marked = any(wire.marked for cable in cables for wire in cable.wires)
    capped = any(joint.capped for joint in joints)
    keys = [LETTERED, *needed]
    if marked:
        keys.insert(keys.index("joints") + 1 if "joints" in keys else len(keys), MARKED)
    if capped:
        keys.insert(keys.index("joints") + 1 if "joints" in keys else len(keys), CAPPED)
    done = {tick.step: tick.on for tick in card.done} if card is not None else {}
    for key in keys if cables else ():
        title, why, section = told[key]
        yield CardStep(
            key=key, title=title, why=why, section=book.told(section) if section else "", done=key in done,
            on=done.get(key, ""), needed=key in needed,
        )  # fmt: skip


def _notes(box: Box, entering: Sequence[Entering]) -> Iterator[str]:
    here = [item for item in entering if item.side != "through"]
    if box.protects in ("gfci", "dual") and box.kind in PLUGS:
        onward = [item for item in here if item.side == "load"]
        if onward:
            names = ", ".join(dict.fromkeys(item.other for item in onward))
            yield f"Power on LINE. To {names} from LOAD, where that is to be protected; swapped, it protects nothing."
        else:
            yield "Power on LINE. Nothing on LOAD: leave its tape on."
    if box.kind == "switch":
        runners = [w for item in here for w in colours_of(item) if w.what.startswith("traveller")]
        if runners and box.ways == 4:
            yield "Travellers that come on one pair of screws, those that go on the other: never crossed."
        elif runners and box.ways > 2:
            shown = " and ".join(dict.fromkeys(w.colour for w in runners))
            yield f"Travellers {shown} on the two brass screws; the dark screw takes the one that is left."
        if any(w.what.startswith(SWITCHED) for item in here for w in colours_of(item)):
            yield "The switched wire on the screw; the neutrals only pass, joined."
    if box.kind in PLUGS and box.switched == "half":
        wires = [wire for item in here for wire in colours_of(item)]
        red = next((wire.colour for wire in wires if wire.what.startswith(SWITCHED)), "the switched hot")
        yield f"Break the tab between the two brass screws, not the silver one: {red} on one, the hot on the other."
    elif box.kind in PLUGS and len(here) == 1 and here[0].cable:
        hots = [wire.colour for wire in colours_of(here[0]) if wire.what != NEUTRAL]
        neutral = ", white on silver" if NEUTRAL in here[0].words else ""
        yield f"{listed(hots).capitalize()} on brass{neutral}, the ground on the green screw."
    if box.kind in LAMPS and len(here) > 1:
        yield "The lamp hangs on the switched wire and the neutral; what goes on is joined past it."
    if any(wire.marked for item in here for wire in colours_of(item)):
        yield "A white is a hot here: re-mark it at both ends, all round (200.7(C))."
    if any(item.material == "al" for item in here):
        yield "Aluminum: antioxidant, lugs listed for it, torqued once to the label."
