"""Wire for a load: every rule names the smallest wire that it takes; the largest of those decides."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import MATERIALS, ground_size, small_conductor_limit, wire_sizes
from levelrun.core.errors import LevelRunError, unknown
from levelrun.core.trade.conductors.ampacity import ampacity
from levelrun.core.trade.drop import drop

WIRINGS = ("raceway", "NM-B", "UF-B", "SER", "MC", "AC")
SMALLEST_BREAKER_A = 15.0
MILD_C = 30.0  # the air for which table 310.16 is made
NEXT_UP_MOST_A = 800.0


@dataclass(frozen=True, kw_only=True)
class Demand:
    """What a wire must carry and where: amperes, °C, one-way feet. drop_limit_percent None: no limit.

    continuous: the whole load stays on for three hours or more; continuous_a: so much of it does.

    minimum_ampacity_a and maximum_breaker_a are those of a nameplate (430, 440): it decides the wire by the one and
    the breaker by the other, so that the breaker may be larger than the wire alone allows (240.4(G)).
    """

    load_a: float
    continuous: bool = False
    continuous_a: float = 0.0
    breaker_a: float | None = None
    volts: float = 120.0
    material: str = "cu"
    wiring: str = "raceway"
    insulation: str = "THWN-2"
    termination_c: int | None = None
    minimum_ampacity_a: float | None = None
    maximum_breaker_a: float | None = None
    ambient_c: float = MILD_C
    current_carrying: int = 2
    length_ft: float = 0.0
    drop_limit_percent: float | None = None


@dataclass(frozen=True, kw_only=True)
class Chosen:
    """The wire, its breaker and ground, and the rule that decided with the runner-up."""

    breaker_a: float
    size: str
    ground_size: str
    ampacity_a: float
    drop_percent: float
    decided_by: str
    runner_up: str
    by_rule: dict[str, str]
    rule: str
    note: str


@lru_cache(maxsize=16)
def breaker_ratings(book: Codebook) -> tuple[float, ...]:
    """The standard ratings of breakers in amperes, as the table has them (240.6)."""
    return tuple(float(row["rating_a"]) for row in book.table("240-6-breakers").rows)


def standard_breaker(book: Codebook, amps: float) -> float:
    """Breaker proposed for a load: the next standard rating up, 15 A at least. Raises LevelRunError over 1000 A."""
    return next_rating(book, max(amps, SMALLEST_BREAKER_A))


def next_rating(book: Codebook, amps: float) -> float:
    """Next standard rating up (240.6), what protects a wire of so many amperes. Raises LevelRunError over 1000 A."""
    row = book.table("240-6-breakers").at_least("rating_a", amps)
    if row is None:
        raise LevelRunError(
            f"load_a {amps:g} is over the standard ratings; allowed: up to 1000 A", key="load_a", value=amps
        )
    return float(row["rating_a"])


def rating_under(book: Codebook, amps: float) -> float:
    """The greatest standard rating that is not over `amps` (430.52, 440.22). Raises LevelRunError under the least."""
    ratings = breaker_ratings(book)
    fitting = [rating for rating in ratings if rating <= amps + 1e-9]
    if not fitting:
        raise LevelRunError(
            f"maximum_breaker_a {amps:g} is under the least rating; allowed: {min(ratings):g} A or more",
            key="maximum_breaker_a",
            value=amps,
            allowed=[f"{min(ratings):g} or more"],
        )
    return max(fitting)


def terminal_column(demand: Demand) -> int:
    """Column of the terminals: 75 °C unless given; NM-B and UF-B never over 60 °C, whatever the terminals (334.80,
    340.80)."""
    given = demand.termination_c or 75
    return min(given, 60) if demand.wiring in ("NM-B", "UF-B") else given


def heat_column(demand: Demand) -> int:
    """Column from which heat and bundling are taken off: 90 °C, but 60 °C for UF-B (340.80)."""
    return 60 if demand.wiring == "UF-B" else 90


@lru_cache(maxsize=8192)
def usable(book: Codebook, demand: Demand, size: str) -> float:
    """Amperes of a size as installed: derated from its own column, never over that of its terminals."""
    hot = ampacity(book, size, demand.material, heat_column(demand), demand.ambient_c, demand.current_carrying)
    cold = ampacity(book, size, demand.material, terminal_column(demand), 30.0, 3)
    return min(hot.ampacity_a, cold.base_a)


def deciding(book: Codebook, carries: Sequence[float], lengths_in: Sequence[float]) -> int:
    """Which part of a circuit decides what it carries: the number of the weakest, the short ones left out.

    carries: what each part carries, or anything that is the less the weaker it is; lengths_in: inches, one each.
    Source: 310.14(A)(2) with its exception: the weaker parts do not count while they are in all no longer than 10 ft
    or 10 % of the whole, whichever is less. Raises ValueError for none.
    """
    least = min(book.number("hot_part_in"), sum(lengths_in) * book.number("hot_part_percent") / 100)
    order = sorted(range(len(carries)), key=lambda i: carries[i])
    passed = 0.0
    for number, index in enumerate(order):
        passed += lengths_in[index]
        if passed > least + 1e-9 or number + 1 == len(order):
            return index
    raise ValueError("no part")


@lru_cache(maxsize=4096)
def choose(book: Codebook, demand: Demand) -> Chosen:
    """The smallest wire that every rule takes.

    Rules: terminals with the continuous factor (110.14(C), 210.19), heat and bundling (310.15), breaker
    protection with the next size up (240.4(B)), small conductors (240.4(D)), the aluminum floor, drop.
    Raises LevelRunError naming the key where nothing will do.
    """
    _check(demand)
    steady = demand.load_a if demand.continuous else min(demand.continuous_a, demand.load_a)
    loaded = demand.load_a + steady * (book.number("continuous_factor") - 1)
    need = max(loaded, demand.minimum_ampacity_a or 0.0)
    breaker = demand.breaker_a or _breaker(book, demand, need)
    least = f"{standard_breaker(book, need):g}"
    most = demand.maximum_breaker_a
    if most is not None and breaker > most + 1e-9:
        raise LevelRunError(
            f"breaker_a {breaker:g} is over the {most:g} A of the nameplate; allowed: up to {most:g}",
            key="breaker_a",
            value=breaker,
            allowed=[f"up to {most:g}"],
        )
    if breaker < loaded - 1e-9:
        raise LevelRunError(
            f"breaker_a {breaker:g} is under the load of {need:g} A; allowed: {least} or more",
            key="breaker_a",
            value=breaker,
            allowed=[f"{least} or more"],
        )
    by_rule = {
        name: _smallest(book, demand, test, name) for name, test in _tests(book, demand, need, breaker).items()
    }
    order = wire_sizes(book)
    ranked = sorted(by_rule, key=lambda name: -order.index(by_rule[name]))
    size = by_rule[ranked[0]]
    base = max((by_rule[name] for name in ranked if name != "drop"), key=order.index)
    lost = _drop(book, demand, size)
    return Chosen(
        breaker_a=breaker,
        size=size,
        ground_size=upsized_ground(book, breaker, demand.material, base, size),
        ampacity_a=usable(book, demand, size),
        drop_percent=lost,
        decided_by=ranked[0],
        runner_up=ranked[1],
        by_rule=by_rule,
        rule="110.14(C), 210.19, 240.4, 250.122, 310.15, 310.16",
        note=_note(demand),
    )


def _breaker(book: Codebook, demand: Demand, need: float) -> float:
    """The breaker where none is said: what the nameplate allows, else the next rating over the load."""
    if demand.maximum_breaker_a is not None:
        return rating_under(book, demand.maximum_breaker_a)
    return standard_breaker(book, need)


def _check(demand: Demand) -> None:
    if demand.wiring not in WIRINGS:
        raise unknown("wiring", demand.wiring, WIRINGS)
    if demand.material not in MATERIALS:
        raise unknown("material", demand.material, MATERIALS)
    if demand.termination_c not in (None, 60, 75, 90):
        raise unknown("termination_c", demand.termination_c, ["60", "75", "90"])


def _tests(book: Codebook, demand: Demand, need: float, breaker: float) -> dict[str, Callable[[str], bool]]:
    terminal = terminal_column(demand)

    def cold(size: str) -> float:
        return ampacity(book, size, demand.material, terminal, 30.0, 3).base_a

    def protected(size: str) -> bool:
        amps = usable(book, demand, size)
        if amps >= breaker:
            return True
        return breaker <= NEXT_UP_MOST_A and next_rating(book, amps) >= breaker and amps >= demand.load_a

    def small(size: str) -> bool:
        limit = small_conductor_limit(book, size, demand.material)
        return limit is None or limit >= breaker

    tests: dict[str, Callable[[str], bool]] = {
        "breaker": protected,
        "terminals": lambda size: cold(size) >= need,
        "heat and bundling": lambda size: usable(book, demand, size) >= demand.load_a,
        "small conductors": small,
    }
    if demand.minimum_ampacity_a is not None:
        least = demand.minimum_ampacity_a
        tests = {"terminals": tests["terminals"], "nameplate": lambda size: usable(book, demand, size) >= least}
    if demand.material == "al":
        order = wire_sizes(book)
        floor = order.index(f"{book.number('aluminum_floor'):g}")
        tests["aluminum floor"] = lambda size: order.index(size) >= floor
    limit = demand.drop_limit_percent
    if limit is not None:
        tests["drop"] = lambda size: _drop(book, demand, size) <= limit + 1e-9
    return tests


def _smallest(book: Codebook, demand: Demand, test: Callable[[str], bool], name: str) -> str:
    column = f"{demand.material}_{terminal_column(demand)}"
    for row in book.table("310-16-ampacity").rows:
        if float(row[column]) and test(row["size"]):
            return row["size"]
    key = "drop_limit_percent" if name == "drop" else "load_a"
    raise LevelRunError(
        f"no single wire up to 1000 kcmil will do ({name}); split the load or run wires in parallel",
        key=key,
        value=demand.drop_limit_percent if name == "drop" else demand.load_a,
    )


def _drop(book: Codebook, demand: Demand, size: str) -> float:
    return drop(book, demand.volts, demand.load_a, demand.length_ft, size, demand.material).drop_percent


@lru_cache(maxsize=16)
def _areas(book: Codebook) -> dict[str, float]:
    return {row["size"]: float(row["area_cmil"]) for row in book.table("ch9-table8").rows}


ROUNDED = 1e-3  # how far quotients of areas of table 8 are off by their rounding; a size is 26 % of area


def upsized_ground(book: Codebook, breaker: float, material: str, base: str, size: str) -> str:
    """Ground by table 250.122, grown in proportion where wires grew for drop (250.122(B)), never over the hots.

    base: the wire without the growth; size: the wire taken. Next size up by circular mils, which table 8 rounds: from
    6 to 4 a No. 10 grows to 16,511 and No. 8 has 16,510 there, but by ASTM B258 two sizes are two sizes.
    """
    area = _areas(book)
    tabled = ground_size(book, breaker, material)
    wanted = area[tabled] * area[size] / area[base]
    grown = next((name for name, mils in area.items() if mils >= wanted * (1 - ROUNDED)), size)
    return min((grown, size), key=lambda name: area[name])


def _note(demand: Demand) -> str:
    parts = ["up to 100 A the marking of the terminals decides between 60 and 75 °C (110.14(C)(1))"]
    if demand.wiring == "NM-B":
        parts.append("NM-B is derated from 90 °C and held to the 60 °C column (334.80)")
    if demand.termination_c == 90:
        parts.append("hardly any breaker or panel is listed for 90 °C terminals (110.14(C)): read the label first")
    if demand.minimum_ampacity_a is not None or demand.maximum_breaker_a is not None:
        parts.append("by nameplate: its least ampacity gives the wire, its greatest breaker the breaker (240.4(G))")
    return "; ".join(parts)
