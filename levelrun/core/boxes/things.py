"""What a box is, as sentences say it: its kind, how many of it, what it serves, its amperes and volts."""

from __future__ import annotations

import re
from typing import Any, get_args

from levelrun.core.boxes.machines import BY_NAME, called
from levelrun.core.boxes.parts import Nema
from levelrun.core.errors import LevelRunError
from levelrun.core.site.scene import SceneReader
from levelrun.core.trade.motors import motor
from levelrun.core.words import COUNTS

KINDS: dict[str, dict[str, Any]] = {
    "receptacle": {"kind": "receptacle"}, "outlet": {"kind": "receptacle"},
    "switch": {"kind": "switch"}, "three-way": {"kind": "switch", "ways": 3},
    "four-way": {"kind": "switch", "ways": 4},
    "light": {"kind": "light"}, "fan": {"kind": "fan"}, "smoke": {"kind": "smoke"}, "alarm": {"kind": "smoke"},
    "junction": {"kind": "junction"}, "disconnect": {"kind": "disconnect"}, "equipment": {"kind": "equipment"},
    "tail": {"kind": "tail"},
}  # fmt: skip
_LIGHTS = (
    "light", "ceiling light", "recessed light", "can light", "downlight", "wall light", "vanity light",
    "led light", "pot light", "shop light", "strip light", "wafer light", "pendant light", "pendant", "sconce",
    "wall sconce", "chandelier", "light fixture", "track light", "puck light", "undercabinet light",
    "under cabinet light", "under counter light", "led strip", "led strip light", "light strip", "tube light",
    "wraparound", "wraparound light", "high bay", "high bay light", "vapor tight light", "work light",
    "closet light", "string light", "lampholder", "keyless light", "bare bulb",
)  # fmt: skip
_ONE: dict[str, dict[str, Any]] = {
    "receptacle": {"kind": "receptacle"}, "outlet": {"kind": "receptacle"}, "plug": {"kind": "receptacle"},
    "gfci receptacle": {"kind": "receptacle", "protects": "gfci"},
    "gfci outlet": {"kind": "receptacle", "protects": "gfci"},
    **{word: {"kind": "switch"} for word in (
        "switch", "light switch", "wall switch", "dimmer switch", "dimmer", "fan switch",
    )},
    **{f"{n}{join}way{end}": {"kind": "switch", "ways": ways}
       for ways, names in ((3, ("3", "three")), (4, ("4", "four"))) for n in names
       for join in ("-", " ") for end in ("", " switch")},
    **{word: {"kind": "light"} for word in _LIGHTS},
    **{word: {"kind": "fan"} for word in (
        "fan", "ceiling fan", "exhaust fan", "bath fan", "fan light", "fan light combo", "fan and light combo",
        "exhaust fan light", "fan box",
    )},
    **{word: {"kind": "smoke"} for word in ("smoke alarm", "smoke detector")},
    **{f"{what} {alarm}": {"kind": "smoke", "monoxide": True}
       for what in ("carbon monoxide", "co", "smoke and co", "smoke co", "smoke/co", "combination", "combo",
                    "smoke and carbon monoxide") for alarm in ("alarm", "detector")},
    "junction box": {"kind": "junction"},
}  # fmt: skip
PLUGS = ("outlet", "receptacle", "plug")
# An outlet that a switch works: one half of it where not all of it is said.
HALF = ("half hot", "half-hot", "half switched", "half-switched", "split wired", "split-wired", "switched")
ON_A_SWITCH = ("on a switch", "on the switch", "on a wall switch", "on the wall switch")
WHOLE = ("fully switched", "whole switched", "all switched", "wholly switched")
_ONE |= {
    f"{how} {plug}": {"kind": "receptacle", "switched": said}
    for said, words in (("half", HALF), ("whole", WHOLE)) for how in words
    for plug in PLUGS
}  # fmt: skip
SPOKEN: dict[str, dict[str, Any]] = {
    **_ONE,
    **{f"{word}{'es' if word.endswith('switch') else 's'}": item for word, item in _ONE.items()},
    "gfci": {"kind": "receptacle", "protects": "gfci"},
}
SERVES = {
    "counter": "counter", "range": "range", "cooktop": "cooktop", "oven": "oven", "dryer": "dryer",
    "washer": "washer", "refrigerator": "refrigerator", "dishwasher": "dishwasher", "disposer": "disposer",
    "microwave": "microwave", "bath heater": "bath_heater", "water heater": "water_heater",
    "space heater": "space_heater", "air conditioner": "air_conditioner", "opener": "opener", "vehicle": "vehicle",
    "pump": "pump", "generator": "generator", "kiln": "kiln", "welder": "welder", "furnace": "furnace",
    "heat cable": "heat_cable", "sump pump": "sump_pump", "floor heat": "floor_heat",
}  # fmt: skip
CALLED = {
    **dict.fromkeys(("charger", "ev", "ev charger", "car charger", "vehicle charger"), "vehicle"),
    **dict.fromkeys(("opener", "garage door opener", "door opener", "garage opener"), "opener"),
    **dict.fromkeys(("heat tape", "heat trace"), "heat_cable"),
    **dict.fromkeys(("heat pump", "mini split"), "air_conditioner"),
    **dict.fromkeys(("inlet", "generator inlet"), "generator"),
    "fridge": "refrigerator", "freezer": "refrigerator", "stove": "range", "disposal": "disposer", "rv": "",
    "fan heater": "bath_heater",
}  # fmt: skip
SPOKEN |= {
    f"{word} {plug}": {"kind": "receptacle", "serves": serves} if serves else {"kind": "receptacle"}
    for word, serves in {**SERVES, **CALLED}.items()
    for plug in PLUGS
}
SPOKEN |= {
    word: {"kind": "equipment", "serves": SERVES[word]}
    for word in ("water heater", "bath heater", "space heater", "furnace", "kiln", "pump", "air conditioner")
} | {
    word: {"kind": "equipment", **fields}
    for fields, words in (
        ({"serves": "vehicle"}, ("vehicle charger", "car charger", "ev charger", "charger")),
        ({"serves": "space_heater"}, ("baseboard heater", "wall heater", "heater")),
        (
            {"serves": "bath_heater"},
            (
                "fan heater",
                "bath fan heater",
                "heater fan",
                "fan heater light",
                "heater fan light",
                "fan light heater",
            ),
        ),
        ({"serves": "pump"}, ("well pump",)),
        ({"serves": "furnace"}, ("boiler",)),
        ({"serves": "air_conditioner", "outdoors": True}, ("heat pump", "mini-split", "mini split", "condenser")),
        ({"serves": "generator", "outdoors": True}, ("generator inlet", "inlet")),
    )
    for word in words
}
SPOKEN |= {
    f"{where} light{s}": {"kind": "light", "outdoors": True} for s in ("", "s")
    for where in ("porch", "entry", "outside", "yard", "exterior", "outdoor", "flood", "coach", "barn")
}  # fmt: skip
# What is plugged in and stands in a room without being drawn along its wall: an outlet for it.
SPOKEN |= {
    word: {"kind": "receptacle", "serves": serves}
    for serves, words in {
        "microwave": ("microwave", "microwave oven"), "disposer": ("disposer", "disposal", "garbage disposal"),
        "washer": ("washer", "washing machine"), "dryer": ("dryer",),
        "opener": ("opener", "garage door opener", "door opener"),
    }.items()
    for word in words
}  # fmt: skip
# Machines by their names, and outlets for those that are plugged in.
OF_MACHINES = {
    f"{word}{tail}": {**machine.box, "name": called(word), **({"kind": "receptacle"} if tail else {})}
    for word, machine in BY_NAME.items()
    for tail in ("", *(f" {plug}" for plug in PLUGS if machine.box["kind"] != "fan"))
}
MACHINES = {
    f"{word}s": {key: value for key, value in item.items() if key != "name"}
    for word, item in OF_MACHINES.items()
    if f"{word}s" not in OF_MACHINES and not word.endswith("s")
}  # several of one
SPOKEN |= OF_MACHINES
SPOKEN = {**MACHINES, **SPOKEN}
ONE_HOT = {30: "TT-30"}  # of 120 V; up to 20 A a box says nothing of them
NEMA = {
    (15, False): "6-15", (20, False): "6-20", (30, False): "6-30", (50, False): "6-50", (30, True): "14-30",
    (50, True): "14-50",
}  # fmt: skip
OUTLETS_A = (15.0, 20.0, 30.0, 50.0)  # receptacles there are
INLETS = {30: "L14-30"}  # of a generator by its amperes
WIDE_A = 30  # a receptacle of 30 A and more is wider than one gang: common practice, no source
DEEP_A = 40  # and wants a deep box for its No. 6: common practice, no source
FOUR_WIRES = ("range", "oven", "cooktop", "dryer", "generator")  # plugged in by two hots, neutral and ground
# Protection by all its names.
PROTECTION = {
    "gfci": "gfci", "ground fault": "gfci", "ground-fault": "gfci", "afci": "afci", "arc fault": "afci",
    "arc-fault": "afci", "dual": "dual", "dual function": "dual", "dual-function": "dual",
}  # fmt: skip
OUTDOORS = ("outside", "outdoor", "outdoors", "exterior")
NUMBERS = {**COUNTS, "single": 1, "double": 2}
MOST = 40  # things of one sentence
_GANGS = re.compile(rf"(?:an?\s+)?(?P<n>[1-6]|{'|'.join(NUMBERS)})[\s-]*gangs?\b", re.IGNORECASE)
VOLTS = r"(?:1[12]0|115|125|2[0-5]0)"  # without their unit
_BARE_VOLTS = re.compile(rf"(?P<v>{VOLTS})\s+(?=(?:(?:outlet|receptacle|plug)s?|line|circuit)\b)", re.IGNORECASE)
# How a light or an outlet looks, which says nothing to a wire.
LOOKS = ("led", "fluorescent", "dimmable", "duplex", "standard", "regular", "weatherproof", "usb", "tamper resistant")
_TANK = re.compile(r"\d{1,3}[\s-]*gal(?:lons?)?\b", re.IGNORECASE)
# A light by how long it is, which says nothing to a wire: a 4 ft led strip.
_LONG = re.compile(
    r"\d+(?:\.\d+)?\s*(?:'|ft\b|foot\b|feet\b)\s*-?\s*(?=(?:[a-z]+\s+){0,3}(?:strip|tube|light|fixture|wraparound)s?\b)",
    re.IGNORECASE,
)
_OF = re.compile(rf",?\s*(?P<n>\d{{1,2}}|{'|'.join(NUMBERS)})\s+(?:of\s+them\s+)?(?:at|of|@)\s+(?=\d)", re.IGNORECASE)
_PLUGS = tuple(word for plug in get_args(Nema) if plug for word in (plug, f"nema {plug}"))
_COUNT = re.compile(rf"(?P<n>\d{{1,3}}|{'|'.join(NUMBERS)})\s+(?=[A-Za-z0-9])", re.IGNORECASE)
_RATED = re.compile(r"(?P<n>\d+(?:\.\d+)?)(?P<both>/\d+)?\s*-?(?P<unit>amps?\b|a\b|volts?\b|v\b)", re.IGNORECASE)

_WATTS = re.compile(r"(?P<n>\d+(?:\.\d+)?)\s*(?P<unit>kw|watts?|w)\b", re.IGNORECASE)
_HORSES = re.compile(
    r"(?=\d)(?P<whole>\d+(?:\.\d+)?(?!/))?(?P<part>[\s-]*\d/\d)?[\s-]*(?:hp|horse\s*power)\b", re.IGNORECASE
)


def kind_said(reader: SceneReader, item: dict[str, Any]) -> int | None:
    """What is set and how many of it, its gangs, amperes and volts before or behind it; None for one of it. Refuses
    what is no box."""
    count = None
    reader.phrase(("a", "an"))
    if reader.phrase(("existing", "old")) is not None:
        item["old"] = True
    if reader.phrase(OUTDOORS) is not None:
        item["outdoors"] = True
    while not reader.sees((*KINDS, *SPOKEN)):
        if reader.phrase(LOOKS) is not None:
            continue
        if (volts := bare_volts(reader)) is not None:
            item["volts"] = volts
            continue
        if gangs_said(reader, item) or rated(reader, item):
            continue
        if (plug := reader.phrase(_PLUGS)) is not None:
            item |= {"kind": "receptacle", "nema": plug.upper().removeprefix("NEMA ")}
            continue
        if reader.take(_LONG) is not None:
            continue
        number = _COUNT.match(reader.text, reader.pos)
        if count is not None or number is None:
            break
        said = number["n"].lower()
        count = int(NUMBERS.get(said, said))
        if not 0 < count <= MOST:
            raise reader.refuse(f"{said}: 1 to {MOST} at once", reader.pos)
        reader.pos = number.end()
    reader.expect(KINDS)
    start = reader.pos
    word = reader.phrase((*KINDS, *SPOKEN))
    if word is None and "nema" in item:
        return count  # 6-50 for the welder
    if word is None:
        raise reader.fail("receptacle, switch, light or another box")
    item |= KINDS.get(word) or SPOKEN[word]
    several = reader.text[start : reader.pos].lower().endswith("s") and word not in OF_MACHINES
    if item["kind"] == "fan":
        reader.phrase(("with a light", "with light", "with light kit", "with a light kit"))
    reader.take(_TANK)  # of a water heater, nothing that a wire goes by
    if count is None and several and (each := _OF.match(reader.text, reader.pos)) is not None:
        reader.pos, count = each.end(), int(NUMBERS.get(each["n"].lower(), each["n"]))  # heat lamps, 2 at 250 watts
        rated(reader, item)
        reader.phrase(("each", "apiece"))
    if count is None and word in MACHINES:
        raise reader.refuse(f"how many {word}? say `two {word}`", start)
    return -1 if count is None and several else count


def bare_volts(reader: SceneReader) -> int | None:
    """Volts without their unit, before what they are of, taken: a 220 outlet. None where none stand here."""
    if (found := reader.take(_BARE_VOLTS)) is None:
        return None
    return 240 if int(found["v"]) > 150 else 120


def gangs_said(reader: SceneReader, item: dict[str, Any]) -> bool:
    """A count of gangs, where one stands here."""
    if (gangs := reader.take(_GANGS)) is None:
        return False
    said = gangs["n"].lower()
    item["gangs"] = int(NUMBERS.get(said, said))
    return True


def rated(reader: SceneReader, item: dict[str, Any]) -> bool:
    """Amperes, volts, watts or horsepower, where they stand here: 50a, 240 volt, 120/240v, with neutral, 4500 w."""
    if reader.phrase(("with neutral", "with a neutral", "four wire", "4 wire", "4-wire")) is not None:
        item["neutral"] = True
        return True
    if (watts := watts_said(reader)) is not None:
        item["load_w"] = watts
        return True
    if (horses := horses_said(reader)) is not None:
        item["hp"] = horses
        return True
    reader.skip()
    if (found := _RATED.match(reader.text, reader.pos)) is None:
        return False
    number = float(found["n"])
    if found["unit"].lower().startswith("v"):
        if found["n"] not in ("120", "125", "240", "250"):
            raise reader.refuse(f"{found['n']} V: allowed 120 or 240", reader.pos, ["120v", "240v"])
        item["volts"] = 240 if found["both"] or number >= 240 else 120
        item["neutral"] = bool(found["both"]) or item.get("neutral", False)
    else:
        item["amps"] = number
    reader.pos = found.end()
    return True


def settled(reader: SceneReader, item: dict[str, Any], at: int) -> dict[str, Any]:
    """The fields of the box, its amperes and volts told as what they mean of its kind: a configuration and two gangs
    of a receptacle, the rating of a disconnect, the load of equipment. Refuses what no receptacle is made for."""
    item, book = dict(item), reader.scene.book
    amps, volts, neutral = item.pop("amps", None), item.pop("volts", None), item.pop("neutral", False)
    if (horses := item.pop("hp", None)) is not None:
        found = motor(book, horses, volts or 240)
        item["load_w"] = found.full_load_a * (volts or 240)
        if item["kind"] == "receptacle" and amps is None:  # an outlet that bears it (430.22)
            amps = next((rating for rating in OUTLETS_A if rating >= found.least_ampacity_a), None)
    if item["kind"] == "disconnect" and amps is not None:
        item["rating_a"] = amps
    elif item.get("serves") == "generator":
        if (plug := INLETS.get(int(amps or 30))) is not None:  # what comes in is no load
            item["nema"] = plug
        elif amps is not None:
            item["rating_a"] = amps
    elif item["kind"] == "equipment" and amps is not None:
        item["load_w"] = amps * (volts or 240)
    elif item["kind"] == "receptacle" and (volts == 240 or (amps or 0) > 20):
        four = neutral or item.get("serves") in FOUR_WIRES
        amps = amps or 20.0
        nema = ONE_HOT.get(int(amps), "") if volts == 120 else NEMA.get((int(amps), four), "")
        if not nema:
            wires = "120 V" if volts == 120 else "240 V with a neutral" if four else "240 V"
            known = [f"{a}a" for a, n in NEMA if n == four] if volts != 120 else ["15a", "20a", "30a"]
            raise reader.refuse(f"no usual receptacle is {amps:g} A of {wires}", at, known)
        item["nema"] = nema
    if item["kind"] == "receptacle":
        serves = item.get("serves") or "receptacle"
        plug = str(item.get("nema") or book.table("loads").get(serves)["nema"])
        rating = float(book.table("nema").get(plug)["amps"]) if plug else 0.0
        if rating >= WIDE_A:
            item.setdefault("gangs", 2)
        if rating >= DEEP_A:
            item.setdefault("model", "square-42")
    return item


def watts_said(reader: SceneReader) -> float | None:
    """Watts, where they stand here: 1500 W, 1.5 kW."""
    if (match := reader.take(_WATTS)) is None:
        return None
    return float(match["n"]) * (1000 if match["unit"].lower() == "kw" else 1)


def horses_said(reader: SceneReader) -> float | None:
    """Horsepower, where it stands here: 3/4 hp, 1 1/2hp."""
    reader.skip()
    match = _HORSES.match(reader.text, reader.pos)
    if match is None:
        return None
    top, _, low = (match["part"] or "0/1").strip(" -").partition("/")
    horses = float(match["whole"] or 0) + int(top) / max(int(low), 1)
    try:
        motor(reader.scene.book, horses, 240)
    except LevelRunError as error:
        raise reader.refuse(error.message, reader.pos, [f"{hp} hp" for hp in error.allowed]) from None
    reader.pos = match.end()
    return horses
