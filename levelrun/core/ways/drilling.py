"""Holes in studs: which stud gets how many, of what bit, at what height, with which cables; what lies together."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import permutations

from levelrun.core.codebook import Codebook
from levelrun.core.job import Habits
from levelrun.core.kept import Standing
from levelrun.core.site.framing import STUD_IN, Stud
from levelrun.core.trade.holes import BoredHole, bored_hole
from levelrun.core.ways.facts import BUNDLED_IN
from levelrun.core.ways.frame.found import Found
from levelrun.core.ways.frame.lines import Line, Member, on_face

SMALL_BIT_IN, LARGE_BIT_IN = 0.75, 1.0  # common practice, no source: two 12-2 in 3/4, large cable in 1
SMALL_IN = 0.45  # a cable no wider than 12-3 shares a small hole
ROOM_FACTOR = 1.15  # a hole is so much wider than what is pulled through it
BITS = (0.75, 0.875, 1.0, 1.125, 1.25, 1.375, 1.5, 1.75, 2.0)
SAME_IN = 3.0  # holes of one stud at nearly one height are told as one row of the sheet
MOST_IN_A_STUD = 6  # common practice, no source: more holes than these in one stud are asked about


@dataclass(frozen=True, kw_only=True)
class Hole:
    """One hole: its middle over the level's floor, its bit, the hops that go through it (circuit, box)."""

    stud: Stud
    height_in: float
    bit_in: float
    hops: tuple[tuple[str, str], ...]
    limits: BoredHole


@dataclass(frozen=True, kw_only=True, eq=False)
class Drilled:
    """The holes of one wall, stud by stud from the low end of its line."""

    line: Line
    holes: tuple[Hole, ...]

    @cached_property
    def together(self) -> tuple[tuple[tuple[str, str], tuple[str, str]], ...]:
        """Hops that share holes in this wall for more than 24 in on end, each with each other (310.15(C)(1))."""
        spans: dict[tuple[tuple[str, str], tuple[str, str]], list[float]] = {}
        for hole in self.holes:
            for pair in permutations(hole.hops, 2):
                spans.setdefault(pair, []).append(hole.stud.at_in)
        return tuple(pair for pair, at in spans.items() if max(at) - min(at) + STUD_IN > BUNDLED_IN)


@dataclass(frozen=True, kw_only=True)
class SheetRow:
    """One stud of a drilling sheet, as a room faces it. `number` counts studs from the left corner, 1 the first;
    `at_in` is its middle from there."""

    number: int
    at_in: float
    kind: str
    height_in: float
    bit_in: float
    count: int
    hops: tuple[tuple[str, str], ...]
    plates: bool
    allowed: bool | None


_walls = Standing[Drilled](1024)
_through = Standing[dict[Line, list[Found]]](2048)


def drilled(book: Codebook, habits: Habits, found: Mapping[str, Mapping[str, Found]]) -> dict[Line, Drilled]:
    """The holes of every wall that ways go through. A wall keeps its holes while the same ways go through it."""
    through: dict[Line, list[Found]] = {}
    for name, own in found.items():
        for line, ways in _through.get(name, (own,), lambda own=own: _lines_of(own)).items():  # type: ignore[misc]
            through.setdefault(line, []).extend(ways)
    return {
        line: _walls.get(
            (line.level.id, line.members[0].room, line.members[0].side),
            (line, book, habits.routing, *ways),
            lambda line=line, ways=ways: _drilled(book, habits, line, ways),  # type: ignore[misc]
        )
        for line, ways in through.items()
    }


def _lines_of(own: Mapping[str, Found]) -> dict[Line, list[Found]]:
    """The walls that the ways of a circuit go through, each with them."""
    found: dict[Line, list[Found]] = {}
    for one in own.values():
        for number in dict.fromkeys(bored.line for bored in one.bored):
            assert one.frame is not None
            found.setdefault(one.frame.lines[number], []).append(one)
    return found


def _drilled(book: Codebook, habits: Habits, line: Line, ways: Sequence[Found]) -> Drilled:
    at: dict[tuple[Stud, float], list[Found]] = {}
    for one in ways:
        number = one.frame.numbers[line] if one.frame is not None else -1
        for bored in one.bored:
            if bored.line == number:
                at.setdefault((bored.stud, bored.height_in), []).append(one)
    holes: list[Hole] = []
    for (stud, height), through in sorted(at.items(), key=lambda item: (item[0][0].at_in, item[0][1])):
        holes += _shared(book, habits, line, stud, height, through)
    return Drilled(line=line, holes=tuple(holes))


def _shared(
    book: Codebook, habits: Habits, line: Line, stud: Stud, height: float, through: Sequence[Found]
) -> Iterator[Hole]:
    """Cables of one height in holes: small ones so many in a hole as is the habit, each large one in its own."""
    wide = [(one, one.wide_in or LARGE_BIT_IN) for one in through]
    small = [item for item in wide if item[1] <= SMALL_IN]
    groups = [small[i : i + habits.routing.cables_a_hole] for i in range(0, len(small), habits.routing.cables_a_hole)]
    groups += [[item] for item in wide if item[1] > SMALL_IN]
    member, depth = "stud_bearing" if line.bearing else "stud", line.depth_at(stud.at_in)
    limits: dict[float, BoredHole] = {}
    for group in groups:
        bit = bit_for(tuple([w for _, w in group]))
        if bit not in limits:
            limits[bit] = _limits(book, member, depth, bit)
        yield Hole(
            stud=stud, height_in=height, bit_in=bit, hops=tuple((one.circuit, one.box) for one, _ in group),
            limits=limits[bit],
        )  # fmt: skip


@lru_cache(maxsize=1024)
def _limits(book: Codebook, member: str, depth_in: float, bit_in: float) -> BoredHole:
    return bored_hole(book, member, depth_in, bit_in)


@lru_cache(maxsize=1024)
def bit_for(wide: tuple[float, ...]) -> float:
    """The smallest usual bit through which cables pass: ¾ for one or two small ones, 1 for a large one."""
    if len(wide) <= 2 and max(wide) <= SMALL_IN:
        return SMALL_BIT_IN
    least = ROOM_FACTOR * (max(wide) if len(wide) == 1 else sum(sorted(wide)[-2:]) / 2 * (len(wide) ** 0.5))
    return next(
        (bit for bit in BITS if bit >= max(least, LARGE_BIT_IN if len(wide) == 1 else SMALL_BIT_IN)), BITS[-1]
    )


def beside(walls: Iterable[Drilled]) -> dict[tuple[str, str], list[tuple[str, str]]]:
    """For each hop the hops with which it shares its holes for more than 24 in on end."""
    found: dict[tuple[str, str], list[tuple[str, str]]] = {}
    for wall in walls:
        for one, other in wall.together:
            if other not in found.setdefault(one, []):
                found[one].append(other)
    return found


def studs_of(wall: Drilled, member: Member) -> list[float]:
    """The middles of the studs of a wall as a room faces it, inches from its left corner."""
    return sorted({round(on_face(member, s.at_in), 4) for s in _before(wall, member)})


def _before(wall: Drilled, member: Member) -> list[Stud]:
    """The studs of a wall that stand before a face of it."""
    return [s for s in wall.line.studs if member.from_in - STUD_IN <= s.at_in <= member.to_in + STUD_IN]


def sheet(wall: Drilled, member: Member) -> list[SheetRow]:
    """The drilling sheet of a wall as one of its rooms faces it: stud by stud from the left corner."""
    order = sorted({s.at_in for s in _before(wall, member)}, key=lambda t: on_face(member, t))
    numbers = {t: index + 1 for index, t in enumerate(order)}
    rows: dict[tuple[float, int, float], list[Hole]] = {}
    for hole in wall.holes:
        if hole.stud.at_in in numbers:
            key = (hole.stud.at_in, round(hole.height_in / SAME_IN), hole.bit_in)
            rows.setdefault(key, []).append(hole)
    found = [
        SheetRow(
            number=numbers[t],
            at_in=on_face(member, t),
            kind=own[0].stud.kind,
            height_in=own[0].height_in,
            bit_in=bit,
            count=len(own),
            hops=tuple(hop for hole in own for hop in hole.hops),
            plates=any(hole.limits.plate_needed for hole in own),
            allowed=all(hole.limits.allowed is not False for hole in own),
        )
        for (t, _, bit), own in rows.items()
    ]
    return sorted(found, key=lambda row: (row.number, row.height_in))
