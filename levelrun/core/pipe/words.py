"""Sentences about pipe: bends in a leg, the end that is fed, sizes and pull points of a pull."""

from __future__ import annotations

from levelrun.core.codebook.lookups import raceway_sizes
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Way
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.ways.edits import view_of
from levelrun.core.ways.parts import Shape
from levelrun.core.ways.pulls import Pull, pulls_of
from levelrun.core.ways.shape_words import KINDS, bends_said, shape_said


def _way(reader: SceneReader) -> Way:
    """`of` a way by its name, else the way looked at."""
    ways = {way.name: way for way in reader.scene.job.ways if way.legs}
    ways |= {f'"{name}"': way for name, way in ways.items()}
    if reader.phrase(["of"]):
        return ways[reader.need(ways, "a way by its name")]
    own = next((way for way in reader.scene.job.ways if way.id == reader.scene.way_id), None)
    if own is None:
        reader.expect([f"of {name}" for name in ways])
        raise reader.refuse("no way is looked at: say `of` and its name", allowed=[f"of {name}" for name in ways])
    return own


def _leg(reader: SceneReader) -> tuple[Way, int]:
    reader.need(("leg",), "leg and its number")
    reader.skip()
    at = reader.pos
    number = int(reader.number("the number of a leg", 0, 200))
    way = _way(reader)
    if number > len(way.legs):
        raise reader.refuse(f"{way.name} has {len(way.legs)} legs, not {number}", at)
    return way, number - 1


def _pull(reader: SceneReader) -> tuple[Way, Pull]:
    reader.skip()
    at = reader.pos
    number = int(reader.number("the number of a pull", 0, 200))
    way = _way(reader)
    pulls = pulls_of_way(reader.scene.job, reader, way)
    if number > len(pulls):
        raise reader.refuse(f"{way.name} has {len(pulls) or 'no'} pulls of pipe", at)
    return way, pulls[number - 1]


def pulls_of_way(job: Job, reader: SceneReader, way: Way) -> list[Pull]:
    """The pulls of a way as it stands in the job."""
    return pulls_of(view_of(job, reader.scene.book, way.id))


def bend(reader: SceneReader) -> Said:
    """bend leg N of WAY: offset 4" at 30 after 52": one bend more in a leg."""
    way, index = _leg(reader)
    reader.colon()
    shapes, angles = bends_said(reader)
    return _bent(way, index, shapes, angles)


def _bent(way: Way, index: int, shapes: tuple[Shape, ...], angles: tuple[float, ...]) -> Said:
    leg = way.legs[index]
    values = {
        "shapes": [item.model_dump(exclude_none=True) for item in (*leg.shapes, *shapes)],
        "bends_deg": [*leg.bends_deg, *angles],
    }
    return Said([{"op": "set_leg", "way": way.id, "leg": index, "set": values}])


def unbend(reader: SceneReader) -> Said:
    """unbend leg N of WAY: no offset, saddle or kick in it any more."""
    way, index = _leg(reader)
    return Said([{"op": "set_leg", "way": way.id, "leg": index, "set": {"shapes": [], "bends_deg": []}}])


def feed(reader: SceneReader) -> Said:
    """feed pull N of WAY at start, at end, or at what stands there."""
    way, pull = _pull(reader)
    names = {"start": "start", "end": "end", "the easier end": ""}
    names |= {name: end for name, end in ((pull.start, "start"), (pull.end, "end")) if name}
    reader.expect(["at"])
    if reader.phrase(("at", "from")) is None:
        raise reader.fail("at and the end where wire goes in")
    end = names[reader.need(names, "start, end, or what stands there")]
    return Said([{"op": "set_leg", "way": way.id, "leg": pull.first, "set": {"feed": end}}])


def size(reader: SceneReader) -> Said:
    """size pull N of WAY SIZE: all its pipe in one size."""
    return _sized(reader, *_pull(reader))


def _sized(reader: SceneReader, way: Way, pull: Pull) -> Said:
    sizes = [pipe.size for pipe in raceway_sizes(reader.scene.book, way.legs[pull.first].method)]
    while reader.phrase(("is", "to", "in")) is not None:
        pass
    wanted = reader.need(sizes, f"a trade size of {way.legs[pull.first].method}")
    edits = [
        {"op": "set_leg", "way": way.id, "leg": index, "set": {"size": wanted}}
        for index in range(pull.first, pull.last + 1)
    ]
    return Said(list(edits))


def point(reader: SceneReader) -> Said:
    """pull point after leg N of WAY: an LB round a corner, else a body."""
    reader.need(("after",), "after leg and its number")
    way, index = _leg(reader)
    view = view_of(reader.scene.job, reader.scene.book, way.id)
    if index + 1 >= len(way.legs):
        raise EditError(f"{way.name} ends there", key="text", value=index + 1)
    kind = "lb" if view.placed[index + 1].bend_deg == 90 else "body"
    return Said([{"op": "set_leg", "way": way.id, "leg": index, "set": {"end": {"kind": kind, "node": None}}}])


def shaped(reader: SceneReader) -> Said | None:
    """A 4" offset in leg 2 of Shed; bend a saddle 2" into leg 1."""
    reader.phrase(("bend", "put", "add", "make"))
    reader.phrase(("a", "an"))
    shapes: tuple[Shape, ...]
    angles: tuple[float, ...] = ()
    if reader.sees_length():
        rise = reader.length()
        word = reader.phrase(KINDS)
        if word is None:
            return None
        shapes = (shape_said(reader, KINDS[word], rise),)
    elif reader.sees(KINDS):
        shapes, angles = bends_said(reader)
    else:
        return None
    return _bent(*_leg(reader), shapes, angles) if reader.phrase(("in", "on", "into")) is not None else None


def sized(reader: SceneReader) -> Said | None:
    """Pull 1 of Shed is 1-1/4; make pull 2 1 in."""
    reader.phrase(("make", "run"))
    return _sized(reader, *_pull(reader)) if reader.phrase(["pull"]) is not None else None


SPOKEN = (shaped, sized)
VERBS = {"bend": bend, "unbend": unbend, "feed pull": feed, "size pull": size, "pull point": point}
