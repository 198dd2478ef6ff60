"""Where the legs of a line lie, and what stands at its end, where nobody says it: each with what is told of it."""

from __future__ import annotations

import re
from dataclasses import replace

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, places
from levelrun.core.job import Job
from levelrun.core.measure import show
from levelrun.core.start.asked import Asked
from levelrun.core.start.sized import LEVEL
from levelrun.core.ways.unsaid import EARTH, UPRIGHT
from levelrun.core.ways.walk import WalkLeg

Settled = tuple[Asked, list[str]]
# Along what pipe goes from a panel, by where that is said to stand.
ROUND_IT = {"shop_surface": ("garage", "shop", "workshop", "barn"), "basement": ("basement", "cellar")}
BURIED = ("UF-B", "USE-2")  # cable of which nobody says where it lies is buried
_WALL_OF = re.compile(r"\b(garage|shop)\s+wall\b", re.IGNORECASE)

BESIDE_IN = 24.0  # from a panel to the one beside it: common practice, no source
_BY_A_PANEL = re.compile(r"(?:next to|beside|by)\s+(?:the\s+)?(?:main\s+)?panel\b", re.IGNORECASE)


def beside_a_panel(said: Asked) -> Settled:
    """The line of a panel that stands beside the one that feeds it, with the way between them."""
    if not said.kind.feeds or said.legs or _BY_A_PANEL.match(said.where) is None:
        return said, []
    leg = WalkLeg(go="over", length_in=BESIDE_IN, supposed=True)
    return replace(said, legs=[leg]), [
        f"it stands beside the other: its feeder is taken to be {show(BESIDE_IN)} long"
    ]


def first_leg(book: Codebook, job: Job, said: Asked) -> Settled:
    """The line with where its first leg lies, as far as that follows from what is said."""
    told: list[str] = []
    for settled in (_in_its_wall(said), _along_its_wall(book, said), _where_it_lay(book, job, said)):
        if settled is not None:
            said, more = settled
            told += more
            break
    return said, told


def supposed(book: Codebook, said: Asked) -> Settled:
    """The line with the legs of which nobody says where they lie: those before the first that is somewhere with that
    one; else in the earth what is buried or goes to another building or a pump, pipe along a wall where it can be
    hit, cable in stud walls. Each such leg is asked until somebody says it."""
    legs = said.legs
    count = next((index for index, leg in enumerate(legs) if leg.place), len(legs))
    if not count:
        return said, []
    place = (legs[count].place or "") if count < len(legs) else _usual_place(book, said)
    lain = [replace(leg, place=place, supposed=True) for leg in legs[:count]]
    long = show(sum(leg.length_in for leg in lain))
    told = f"nobody said where the {long} lie: taken as {places(book)[place].words[0]}, and asked until it is said"
    return replace(said, legs=[*lain, *legs[count:]]), [told]


def _usual_place(book: Codebook, said: Asked) -> str:
    keys = [leg.method for leg in said.legs if leg.method]
    if said.kind.usual.get("place") == "trench" or set(keys) & set(BURIED):
        return "trench"
    piped = any(method(book, key).kind == "raceway" for key in keys)
    return "shop_surface" if piped or said.kind.usual.get("method") == "EMT" else "stud_wall"


def in_that_room(said: Asked, text: str) -> Settled:
    """What stands at the end of a last leg along a garage wall stands in the garage: its protection goes by that."""
    walls = _WALL_OF.findall(text) if said.legs[-1].place == "shop_surface" else []
    if not walls or said.use or said.outdoors or said.there is not None or said.kind.feeds:
        return said, []
    room = walls[-1].casefold()
    told = f"it stands in the {room}, along whose wall it goes; say otherwise, `in utility room`"
    return replace(said, use=room), [told]


def _in_its_wall(said: Asked) -> Settled | None:
    """Up to the attic, down to the crawl space, down into a trench: such a first leg is in the stud wall of the
    panel, or on the outside wall."""
    legs = said.legs
    if legs[0].place or legs[0].go not in UPRIGHT or len(legs) < 2:
        return None
    place = legs[1].place
    wall = "stud_wall" if place in LEVEL else "outside_wall" if place in EARTH else ""
    if not wall:
        return None
    where = "in the stud wall" if wall == "stud_wall" else "on the outside wall"
    told = f"the first {show(legs[0].length_in)} lie {where}; say where otherwise"
    return replace(said, legs=[replace(legs[0], place=wall), *legs[1:]]), [told]


def _along_its_wall(book: Codebook, said: Asked) -> Settled | None:
    """From a panel that is said to stand in a garage or a shop pipe goes along the wall there; all of it is of the
    one pipe that is said."""
    legs, words = said.legs, said.begin.where.casefold().split()
    known = next((key for key, named in ROUND_IT.items() if set(words) & set(named)), None)
    piped = [leg for leg in legs if leg.method]
    if known is None or any(leg.place for leg in legs) or len(piped) != 1:
        return None
    pipe = piped[0].method or ""
    if method(book, pipe).kind != "raceway":
        return None
    all_of_it = [replace(leg, method=pipe, size=piped[0].size) for leg in legs]
    place = places(book)[known].words[0]
    told = f"it goes along the wall of the {said.begin.where}, as {place}; say where otherwise"
    return replace(said, legs=[replace(all_of_it[0], place=known), *all_of_it[1:]]), [told]


def _where_it_lay(book: Codebook, job: Job, said: Asked) -> Settled | None:
    """On from a box: where the way to that lay."""
    legs, box = said.legs, said.box
    if legs[0].place or box is None:
        return None
    ends = {way.legs[-1].end.node: way.legs[-1] for way in job.ways if way.legs}
    before = ends.get(box.id)
    if before is None or not before.place:
        return None
    told = f"it goes on as {places(book)[before.place].words[0]}; say where otherwise"
    return replace(said, legs=[replace(legs[0], place=before.place), *legs[1:]]), [told]
