"""Ways that go through the earth or the air to another building, and lie in no trench or span of the yard yet."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.job import Job, Way
from levelrun.core.measure import format_length, show
from levelrun.core.trench.laying import IN_AIR, IN_EARTH


@dataclass(frozen=True, kw_only=True)
class Walked:
    """A way that was walked between two buildings. long_text: how far it goes outdoors; text: the sentences that put
    its trench or span on the yard, from wall to wall and so long, and lay it there."""

    way: str
    name: str
    long_text: str
    text: str


def walked_out(job: Job) -> Iterator[Walked]:
    """Every way with one leg between two buildings that lies in no line of the yard."""
    names = {item.id: item.name for item in job.structures}
    for way in job.ways:
        out = [leg for leg in way.legs if leg.place in (*IN_EARTH, *IN_AIR)]
        ends = _buildings(job, way)
        if len(out) != 1 or out[0].along or ends is None:
            continue
        kind = "span" if out[0].place in IN_AIR else "trench"
        line = next((item for item in job.lines if (item.start, item.end) == ends), None)
        between = f"{names[ends[0]]} to {names[ends[1]]}"
        first = "" if line else f"{kind} {between} {format_length(out[0].length_in) if kind == 'trench' else ''}; "
        lies_in = line.name if line else between
        yield Walked(
            way=way.id, name=way.name, long_text=show(out[0].length_in), text=f"{first}lay {way.name} in {lies_in}"
        )


def _buildings(job: Job, way: Way) -> tuple[str, str] | None:
    """The buildings that it goes from and to, where they are two."""
    last = way.legs[-1].end.node if way.legs else None
    if last is None:
        return None
    one, two = job.node(way.start).structure, job.node(last).structure
    return (one, two) if one != two else None
