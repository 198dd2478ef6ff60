"""What follows for a line from what it says: the method of each leg, the breaker, the wire, the sizes of its legs."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise
from typing import Any

from levelrun.core.boxes.things import OUTLETS_A
from levelrun.core.circuits.parts_said import method_for
from levelrun.core.circuits.usual import HEATER, HEATERS_A, usual
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import PlaceFacts, made_size, method, place, raceway_sizes, wire_sizes
from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import Kind
from levelrun.core.trade.conductors.sizing import MILD_C, Demand, choose, deciding, rating_under, standard_breaker
from levelrun.core.trade.methods.facts import facts_of
from levelrun.core.trade.methods.verdicts import Verdict, judge, ranked
from levelrun.core.trade.motors import motor
from levelrun.core.trade.pipe.fill import Wires, smallest_size
from levelrun.core.trade.pipe.pull_box import trade_inches
from levelrun.core.ways.unsaid import EARTH
from levelrun.core.ways.walk import WalkLeg

MANNER = {"under_joists", "attic"}  # how a cable is run there, not whether it may
LEVEL = {"attic", "ceiling_joists", "crawl_space", "basement"}  # one goes along these, and to them through a wall
IN_AIR, SPAN = "overhead", "OVERHEAD"  # cabled aluminum on its messenger, as it is bought
TAIL, WHIP_METHOD = "equipment_tail", "LFNC"
FEEDS = (SPAN, "USE-2")  # what is bought of aluminum unless copper is said
SEVERAL_OVER_A = 48.0  # a tankless heater over this has mostly two circuits or more: common practice, no source
# Cables up to No. 6 carry a No. 10 ground, which is for 60 A (250.122); a motor of up to 35 A starts on that.
SMALL_MOTOR_A, GROUND_10_A = 35.0, 60.0
LEAST_MOTOR_A = 15.0  # where 250 % is less than the least breaker made (430.52, Exception 1)
CABLES = ("NM-B", "UF-B", "MC", "AC", "SER")


def circuit_of(book: Codebook, said: Asked) -> dict[str, Any]:
    """The circuit with what follows from its load: breaker, wire, neutral."""
    kind, item = said.kind, dict(said.circuit)
    item.setdefault("volts", kind.volts)
    item.setdefault("poles", 1 if item["volts"] == 120 else 2)
    plug = kind.key == "outlet" and item["volts"] != 120
    item.setdefault("neutral", item["volts"] == 120 or (kind.neutral and not plug))
    item.setdefault("nameplate", kind.nameplate)
    many = math.ceil(said.count / 2) if said.multiwire else said.count  # of them on one circuit
    load = said.load_a if said.load_a is not None else kind.load_a
    load = None if load is None else load * many
    steady = stays_on(book, kind)
    if "breaker_a" not in item:
        most = item.get("largest_breaker_a")
        least = standard_breaker(book, (load or 0.0) * (1.25 if steady else 1.0))
        usually = kind.breaker_a if load is None or plug else kind.least_breaker_a
        usually = max(usually, *(other.kind.breaker_a for other in said.more), 0.0)  # outlets behind a light
        item["breaker_a"] = rating_under(book, most) if most else max(least, usually)
    if many > 1 and kind.box.get("serves") == HEATER and item["breaker_a"] > HEATERS_A:
        raise EditError(
            f"{many} heaters want {item['breaker_a']:g} A together; on one circuit they may want {HEATERS_A:g} A at "
            "most (424.4(A)): say them in two lines", key="text", value=many,
        )  # fmt: skip
    usual_w = usual_watts(book, kind, plated=bool(item.get("least_ampacity_a")))
    load = usual_w * many / item["volts"] if load is None and usual_w else load
    methods = methods_of(book, said) or [method_for(book, "SER" if kind.feeds else "NM-B")]  # until its way is said
    if any(key in methods for key in FEEDS):
        item.setdefault("material", "al")
    item["method"] = methods[0] if methods[0] in CABLES else "raceway"
    gauge = gauge_of(book, said)
    if gauge in wire_sizes(book) and "breaker_a" not in said.circuit and not item["nameplate"]:

        def wire_for(rating: float) -> str:
            return _wire(book, said, {**item, "breaker_a": rating}, methods, load, steady)

        needed = (load or 0.0) * (1.25 if steady else 1.0)
        item["breaker_a"] = _breaker_on(book, item["breaker_a"], needed, wire_for, gauge)
    item["wire_size"] = gauge or _wire(book, said, item, methods, load, steady)
    return item


def stays_on(book: Codebook, kind: Kind) -> bool:
    """Whether it is on for three hours and more."""
    serves = kind.box.get("serves")
    return bool(kind.box.get("continuous")) or bool(serves and usual(book, serves).continuous)


def usual_watts(book: Codebook, kind: Kind, plated: bool = False) -> float:
    """What it usually draws, by the table of machines, of which a nameplate speaks over (`plated`), or by what it
    serves; 0 where neither says it."""
    serves = kind.box.get("serves")
    table_w = None if plated else kind.box.get("load_w")
    return float(table_w or (usual(book, serves).watts if serves else 0.0))


def of_table(said: Asked) -> list[str]:
    """What is told of a machine whose load nobody said: what it is taken to draw. Refuses one whose load differs too
    much from make to make, and tells of one that its maker may want on several circuits."""
    kind = said.kind
    known = said.load_a is not None or said.motor_hp is not None or bool(said.circuit.get("least_ampacity_a"))
    if kind.ask and not known:
        text = f"say what its nameplate has: `{said.name.lower()} 11 kw`, or its amperes"
        raise EditError(text, key="text", value=said.name)
    if kind.ask and (said.load_a or 0.0) > SEVERAL_OVER_A:
        return [f"over {SEVERAL_OVER_A:g} A its maker may want several circuits: each is a line of its own"]
    watts = kind.box.get("load_w")
    if known or watts is None or kind.box["kind"] != "equipment":
        return []
    text = f"taken to draw {watts:,.0f} W; its nameplate decides, say `{watts:.0f} W` or its amperes"
    return [f"{said.name.lower()}: {text}"]


def rated_switch(said: Asked) -> Asked:
    """A disconnect whose amperes are said: they are its rating, no load."""
    if said.kind.box.get("kind") != "disconnect":
        return said
    rated = {"rating_a": said.load_a} if said.load_a is not None else {}
    return replace(said, load_a=None, kind=replace(said.kind, box={**said.kind.box, **rated}))


def of_motor(book: Codebook, said: Asked) -> tuple[Asked, list[str]]:
    """A motor of which the horsepower is said: its current and, wired, what its wire carries and its breaker may be;
    plugged in, the outlet that bears it. What was said of it stands; what follows is told."""
    if said.motor_hp is None:
        return said, []
    volts = float(said.circuit.get("volts", said.kind.volts))
    found = motor(book, said.motor_hp, volts)
    item, least = dict(said.circuit), found.least_ampacity_a
    load = found.full_load_a if said.load_a is None else said.load_a
    told = f"{found.hp} hp at {volts:g} V is {found.full_load_a:g} A by the table of motors: wire for {least:g} A"
    if said.kind.box.get("kind") == "receptacle":
        rating = next((amps for amps in OUTLETS_A if amps >= least), standard_breaker(book, least))
        item.setdefault("breaker_a", rating)
        return replace(said, circuit=item, load_a=load), [f"{told}, an outlet of {item['breaker_a']:g} A"]
    item.setdefault("least_ampacity_a", round(least, 2))
    most = item.setdefault("largest_breaker_a", rating_under(book, max(found.largest_breaker_a, LEAST_MOTOR_A)))
    if found.full_load_a <= SMALL_MOTOR_A:
        item.setdefault("breaker_a", min(most, GROUND_10_A))
    told += f", breaker {item['largest_breaker_a']:g} A at most; its nameplate decides"
    return replace(said, circuit={**item, "nameplate": True}, load_a=load), [told]


def _breaker_on(
    book: Codebook, usual_a: float, needed_a: float, wire_for: Callable[[float], str], gauge: str
) -> float:
    """The breaker of a wire that was said where no breaker was: the usual one, else the greatest under it that the
    wire bears and that bears the load; the usual one where there is none, which then stops."""
    order = wire_sizes(book)
    rating = usual_a
    while order.index(wire_for(rating)) > order.index(gauge):
        if rating <= standard_breaker(book, needed_a):
            return usual_a
        rating = rating_under(book, rating - 1)
    return rating


def methods_of(book: Codebook, said: Asked) -> list[str]:
    """The method of each leg: as said, else as before it where that may go there, else what a later leg wants where
    that may go here, so that nothing is spliced on the way; else the best that may."""
    places = places_of(said.legs)
    facts = [facts_of(book, key, leg.facts) for leg, key in zip(said.legs, places, strict=True)]
    found: list[str] = []
    for number, leg in enumerate(said.legs):
        here, before = facts[number], found[-1] if found else None
        if leg.method:
            found.append(leg.method)
        elif places[number] == IN_AIR:
            found.append(SPAN)
        elif places[number] == TAIL:
            found.append(WHIP_METHOD)
        elif before and (carried := _carried_on(book, before, here)):
            found.append(carried)
        else:
            found.append(_ahead(book, said, facts, number) or _best(book, said, here))
    return found


def _best(book: Codebook, said: Asked, facts: PlaceFacts) -> str:
    """The method that is usual in a place where nothing is said."""
    wanted = ("SER",) if said.kind.feeds else ("NM-B", "UF-B")
    usual = [v.method for v in ranked(book, facts) if _plain(v) and method(book, v.method).kind != "span"]
    inside = ("EMT",) if facts.exposed and facts.moisture == "dry" else ()
    usual.sort(key=lambda key: (key not in wanted, key not in inside))
    cable = [key for key in usual if method(book, key).kind == "raceway" or key in wanted]
    return (cable or usual or ["EMT"])[0]


def _ahead(book: Codebook, said: Asked, facts: list[PlaceFacts], number: int) -> str | None:
    """The method of a later leg, said or usual there, where it may go here too: cable of earth comes through a house;
    a feeder goes in its pipe from the panel on. None where there is none."""
    here = _best(book, said, facts[number])
    for leg, there in zip(said.legs[number + 1 :], facts[number + 1 :], strict=True):
        wanted = leg.method or (here if _carried_on(book, here, there) == here else _best(book, said, there))
        piped = method(book, wanted).kind == "raceway"
        if wanted != here and (said.kind.feeds if piped else method(book, here).kind == "cable"):
            return wanted if _plain(judge(book, wanted, facts[number])) else None
    return None


def conductors_in(circuit: dict[str, Any]) -> int:
    """The wires of its cable beside the ground."""
    return 2 if circuit["volts"] == 120 or not circuit["neutral"] else 3


def boxes_between(book: Codebook, said: list[WalkLeg], legs: list[dict[str, Any]]) -> list[int]:
    """The legs after which a cable ends and single wires begin, or another cable, and nothing is said to stand: a
    junction box goes there. Where both methods were said, or one hangs in the air or lies in the earth, that is asked
    and not done. `legs`: as they are made of what was said."""
    found: list[int] = []
    for number, (leg, after) in enumerate(pairwise(said)):
        a, b = (made["method"] for made in legs[number : number + 2])
        cabled = [method(book, key).kind != "raceway" for key in (a, b)]
        changes = cabled[0] != cabled[1] or (cabled[0] and a != b)
        low = any(place(book, made["place"]).above for made in legs[number : number + 2])
        if changes and not leg.to and not low and SPAN not in (a, b) and not (leg.method and after.method):
            found.append(number)
    return found


def sleeved(book: Codebook, said: list[WalkLeg], places: list[str], methods: list[str]) -> dict[int, int]:
    """The legs of pipe that are sleeves, each with the leg whose cable comes up in it: a riser beside cable that lies
    in the earth, unless something is said to stand between them (300.5(D); common practice)."""
    found: dict[int, int] = {}
    for index, leg in enumerate(said):
        if leg.go not in ("up", "down") or method(book, methods[index]).kind != "raceway":
            continue
        beside = [(index + 1, leg), *([(index - 1, said[index - 1])] if index else [])]
        for other, before in beside:
            if other == len(said) or before.to or not place(book, places[other]).above:
                continue
            if method(book, methods[other]).kind == "cable":
                found[index] = other
    return found


def places_of(legs: list[WalkLeg]) -> list[str]:
    """Where each leg lies: as said, else where the one before lies; up and down from an attic or a crawl space it is
    in a wall, from the earth on the outside of one."""
    found: list[str] = []
    for leg in legs:
        before = found[-1] if found else ""
        rises = leg.go in ("up", "down")
        wall = "stud_wall" if before in LEVEL else "outside_wall" if before in EARTH else before
        place = leg.place or (wall if rises else before)
        if not place:
            raise EditError("say where the first leg lies: `stud wall`, `trench`, `crawl`", key="text", value="")
        found.append(place)
    return found


def _carried_on(book: Codebook, before: str, facts: PlaceFacts) -> str:
    """The method before where it may go on here; where it only may if, and is pipe, the pipe of its family that may;
    empty where neither goes."""
    verdict = judge(book, before, facts)
    made = method(book, before)
    if verdict.verdict == "no" or _plain(verdict) or made.kind != "raceway":
        return before if verdict.verdict != "no" else ""
    alike = (v.method for v in ranked(book, facts) if v.verdict == "yes")
    return next((key for key in alike if method(book, key).family == made.family), before)


def _plain(verdict: Verdict) -> bool:
    """Whether a method may go there as it is, or has only to be run with care: in bored holes, by guard strips."""
    ifs = {reason.condition for reason in verdict.because if reason.verdict == "if"}
    return verdict.verdict == "yes" or (verdict.verdict == "if" and ifs <= MANNER)


def _wire(
    book: Codebook, said: Asked, item: dict[str, Any], methods: list[str], load: float | None, steady: bool
) -> str:
    cool = next((key for key in methods if key in ("NM-B", "UF-B")), None)
    breaker = item["breaker_a"]
    known = load or item.get("least_ampacity_a") or breaker
    amps = min(known, breaker) if not said.kind.feeds else breaker
    demand = Demand(
        load_a=amps,
        continuous=steady,
        breaker_a=breaker,
        volts=float(item["volts"]),
        material=item.get("material", "cu"),
        wiring=cool or next((key for key in methods if key in CABLES), "raceway"),
        ambient_c=_heat_c(book, said),
        minimum_ampacity_a=item.get("least_ampacity_a"),
        maximum_breaker_a=item.get("largest_breaker_a"),
    )
    order, count = wire_sizes(book), conductors_in(item)
    cabled = [key for key in methods if key in (*CABLES, *FEEDS)]

    def made(asked: Demand) -> tuple[str, str | None]:
        least = max(choose(book, asked).size, said.kind.least_wire, key=order.index)
        return least, next(
            (size for size in order[order.index(least) :] if _all_made(book, cabled, size, count)), None
        )

    try:
        least, found = made(demand)
        if found is None and said.kind.feeds:  # its load is not known: what the breaker may stand over (240.4(B))
            found = made(replace(demand, load_a=load or 0.0))[1]
        return found or least
    except LevelRunError as error:
        raise EditError(error.message, key="text", value=breaker) from None


def _heat_c(book: Codebook, said: Asked) -> float:
    """The air that decides the wire: the hottest on the way but for short parts. Out of doors, where nothing is said,
    that of the table; a heat that is too much for the wire there is asked for by the plan."""
    if not said.legs:
        return MILD_C
    keys = places_of(said.legs)
    air = [_air_c(book, leg, key) for leg, key in zip(said.legs, keys, strict=True)]
    return air[deciding(book, [-c for c in air], [leg.length_in for leg in said.legs])]


def _air_c(book: Codebook, leg: WalkLeg, key: str) -> float:
    usual, own = place(book, key), leg.facts.get("ambient_c")
    if own is not None:
        return float(own)
    return min(usual.ambient_c, MILD_C) if usual.outdoors else usual.ambient_c


def gauge_of(book: Codebook, said: Asked) -> str | None:
    """The wire that is said: by itself, or by the cables that were named by their size: 6 where 6-3 was said. None
    where no size was, or two."""
    if (own := said.circuit.get("wire_size")) is not None:
        return str(own)
    legs = zip(said.legs, methods_of(book, said), strict=True)
    gauges = {leg.size.rpartition("-")[0] for leg, key in legs if leg.size and key in (*CABLES, *FEEDS)}
    found = gauges.pop() if len(gauges) == 1 else None
    return found if found in wire_sizes(book) else None


def _all_made(book: Codebook, cables: list[str], wire: str, count: int) -> bool:
    """Whether every one of these cables is made with so many wires of a gauge, or more: of SER there is no No. 3."""
    return all(made_size(book, key, wire, count) is not None for key in cables)


def sizes_of(
    book: Codebook, legs: list[WalkLeg], methods: list[str], cable: str, wires: list[Wires], least: float = 0.0
) -> list[str]:
    """The size of each leg: as said, else what holds the wires. Pipe keeps one size until a size is said: the biggest
    that any leg of it wants, since nobody steps down in a trench; and the size that was said from there on. `least`:
    under which no pipe is taken here, in trade inches."""
    found = [leg.size or size_of(book, key, cable, wires, least) for leg, key in zip(legs, methods, strict=True)]
    piped = [not leg.size and method(book, key).kind == "raceway" for leg, key in zip(legs, methods, strict=True)]
    free = [size for size, pipe in zip(found, piped, strict=True) if pipe and size]
    biggest = max(free, key=trade_inches, default="")
    sizes: list[str] = []
    said = _size_ahead(book, legs, methods)
    for leg, key, size, pipe in zip(legs, methods, found, piped, strict=True):
        if pipe and size:
            size = max((said or biggest, size), key=trade_inches)
        elif method(book, key).kind == "raceway":
            said = leg.size or ""
        elif sizes and not leg.size and methods[len(sizes) - 1] == key:
            size = sizes[-1]  # one cable goes on
        sizes.append(size)
    return sizes


def _size_ahead(book: Codebook, legs: list[WalkLeg], methods: list[str]) -> str:
    """The size that is said of pipe farther on, where the pipe from the beginning up to it is of that family: 12' and
    then 65' in 1-1/4 pvc is one pipe. Empty where none is."""
    kinds = [method(book, key) for key in methods]
    for leg, kind in zip(legs, kinds, strict=True):
        if kind.kind != "raceway" or kind.family != kinds[0].family:
            return ""
        if leg.size:
            return leg.size
    return ""


def size_of(book: Codebook, key: str, cable: str, wires: list[Wires], least: float = 0.0) -> str:
    if method(book, key).kind == "raceway":
        fits = smallest_size(book, key, wires) or ""
        if fits and trade_inches(fits) < least:
            return next((p.size for p in raceway_sizes(book, key) if trade_inches(p.size) >= least), fits)
        return fits
    wire, _, count = cable.rpartition("-")
    return made_size(book, key, wire, int(count)) or cable
