"""What an electrician pays for a way: cable by the foot, holes, corners, headers, plates, trips. One function."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.job import Habits
from levelrun.core.trade.methods.verdicts import work_of

SLEEVE = "EMT"  # what guards a cable on the face of a wall
METHOD = "NM-B"  # the way is chosen at the price of building cable; what another cable costs is told of the way found


@dataclass(frozen=True, kw_only=True)
class Prices:
    """Dollars of each thing that a way is made of, by the shop's habits and the practice table of methods."""

    foot: float
    minute: float
    foot_minutes: float
    stud: float
    joist: float
    plate: float
    corner: float
    header: float
    trip: float
    fished: float
    sleeve: float

    def dollars(self, work: Work) -> float:
        """Cable and labour of a way."""
        pipe = work.surface_in / 12 * self.sleeve
        return work.length_in / 12 * self.foot + pipe + self.minutes(work) * self.minute

    def bored(self, length_in: float, joists: int) -> float:
        """Cable and labour of a straight piece through so many joists."""
        feet = length_in / 12
        return feet * self.foot + (feet * self.foot_minutes + joists * self.joist) * self.minute

    def minutes(self, work: Work) -> float:
        """Minutes of labour of a way."""
        return (
            work.length_in / 12 * self.foot_minutes
            + work.studs * self.stud
            + work.joists * self.joist
            + work.plates * self.plate
            + work.corners * self.corner
            + work.headers * self.header
            + work.trips * self.trip
            + work.fished * self.fished
        )


@dataclass(kw_only=True)
class Work:
    """What a way is made of: inches of cable, studs and joists bored, plates bored and sealed, corners, headers gone
    over, trips under the roof or the floor, stretches fished; inches of it on the face of a wall, where a pipe guards
    it."""

    length_in: float = 0.0
    studs: int = 0
    joists: int = 0
    plates: int = 0
    corners: int = 0
    headers: int = 0
    trips: float = 0.0
    fished: int = 0
    surface_in: float = 0.0


def prices_of(book: Codebook, habits: Habits, method: str = METHOD) -> Prices:
    """The shop's prices for one method."""
    work, said, guard = work_of(book, method), habits.routing, work_of(book, SLEEVE)
    return Prices(
        foot=work.dollar_per_ft,
        minute=habits.dollars_per_hour / 60,
        foot_minutes=work.minutes_per_ft,
        stud=said.stud_minutes,
        joist=said.joist_minutes,
        plate=said.plate_minutes,
        corner=said.corner_minutes,
        header=said.header_minutes,
        trip=said.trip_minutes,
        fished=said.fish_minutes,
        sleeve=guard.dollar_per_ft + guard.minutes_per_ft * habits.dollars_per_hour / 60,
    )


def work_text(work: Work) -> str:
    """What a way takes, in words: 5 studs, 1 corner, 2 plates."""
    counts = (
        (work.studs, "stud"), (work.joists, "joist"), (work.plates, "plate"), (work.corners, "corner"),
        (work.headers, "header"), (work.fished, "stretch fished"),
    )  # fmt: skip
    parts = [f"{count} {_plural(count, word)}" for count, word in counts if count]
    return ", ".join(parts) or "no hole"


def _plural(count: int, word: str) -> str:
    first, _, rest = word.partition(" ")
    many = first if count == 1 else first + ("es" if first.endswith("ch") else "s")
    return f"{many} {rest}".strip()
