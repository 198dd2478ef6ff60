"""Typed look-ups over the tables, one function a question. Exact rows unless the name says next size up."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook.book import Codebook
from levelrun.core.errors import UnknownKeyError, unknown

INSULATIONS = ("THWN-2", "XHHW-2", "BARE")
MATERIALS = ("cu", "al")


@dataclass(frozen=True, kw_only=True)
class Method:
    """A wiring method. `kind` is raceway, cable or span; `family` what rules treat alike: steel, pvc, tubing,
    flexible, building_cable, service_cable, span. `cover_column` empty: may not be buried; `metal`: pipe of
    metal, or cable armoured with it."""

    key: str
    kind: str
    family: str
    article: str
    name: str
    cover_column: str
    bend_section: str
    wall: str
    metal: bool
    words: tuple[str, ...]


@dataclass(frozen=True)
class Raceway:
    """Inside of a pipe: diameter in inches, area in square inches."""

    method: str
    size: str
    inner_in: float
    area_in2: float
    table: str


@dataclass(frozen=True)
class Conductor:
    """Outside of one wire over its insulation: inches and square inches."""

    insulation: str
    size: str
    diameter_in: float
    area_in2: float


@dataclass(frozen=True, kw_only=True)
class Cable:
    """Outside of a cable: inches over the jacket; conductors without ground."""

    method: str
    size: str
    wide_in: float
    narrow_in: float
    conductors: int
    ground: str


@lru_cache(maxsize=64)
def methods(book: Codebook) -> dict[str, Method]:
    """Every wiring method of the rule set by key."""
    rows = book.table("methods").rows
    return {
        row["method"]: Method(
            key=row["method"],
            kind=row["kind"],
            family=row["family"],
            article=row["article"],
            name=row["name"],
            cover_column=row["cover_column"],
            bend_section=row["bend_section"],
            wall=row["wall"],
            metal=row["metal"] == "yes",
            words=tuple(row["words"].split("|")),
        )
        for row in rows
    }


def method(book: Codebook, key: str) -> Method:
    """One wiring method. Raises UnknownKeyError that lists all."""
    found = methods(book).get(key)
    if found is None:
        raise unknown("method", key, methods(book))
    return found


@lru_cache(maxsize=512)
def raceway_sizes(book: Codebook, key: str) -> tuple[Raceway, ...]:
    """All sizes of a raceway, smallest first. Source: chapter 9 table 4. Raises for what is no raceway."""
    pipes = [name for name, m in methods(book).items() if m.kind == "raceway"]
    if key not in pipes:
        raise unknown("raceway", key, pipes)
    name = f"ch9-table4-{key.lower()}"
    return tuple(
        Raceway(key, row["size"], float(row["inner_in"]), float(row["area_in2"]), book.table(name).head.table)
        for row in book.table(name).rows
    )


@lru_cache(maxsize=1024)
def raceway(book: Codebook, key: str, size: str) -> Raceway:
    """One raceway by trade size. Exact; raises UnknownKeyError that lists the sizes."""
    sizes = {item.size: item for item in raceway_sizes(book, key)}
    if size not in sizes:
        raise unknown("size", size, sizes)
    return sizes[size]


@lru_cache(maxsize=1024)
def conductor(book: Codebook, insulation: str, size: str) -> Conductor:
    """One wire over its insulation. Source: chapter 9 tables 5 and 8 (BARE, stranded). Exact."""
    if insulation not in INSULATIONS:
        raise unknown("insulation", insulation, INSULATIONS)
    name = "ch9-table8" if insulation == "BARE" else f"ch9-table5-{insulation.lower()}"
    row = book.table(name).get(size)
    return Conductor(insulation, size, float(row["diameter_in"]), float(row["area_in2"]))


@lru_cache(maxsize=64)
def wire_sizes(book: Codebook) -> tuple[str, ...]:
    """Wire sizes, smallest first."""
    return tuple(row["size"] for row in book.table("ch9-table8").rows)


def check_wire(book: Codebook, size: str, material: str) -> None:
    """Raises UnknownKeyError for a size or material that no table has."""
    if material not in MATERIALS:
        raise unknown("material", material, MATERIALS)
    book.table("ch9-table8").get(size)


@lru_cache(maxsize=512)
def resistance(book: Codebook, size: str, material: str) -> float:
    """Ohm per 1,000 ft at 75 °C, direct current. Source: chapter 9 table 8, stranded. Exact."""
    check_wire(book, size, material)
    return float(book.table("ch9-table8").get(size)[f"r_{material}"])


@lru_cache(maxsize=512)
def reactance(book: Codebook, size: str, steel: bool) -> float:
    """Ohm to neutral per 1,000 ft at 60 Hz. Source: chapter 9 table 9. Exact."""
    return float(book.table("ch9-table9-reactance").get(size)["x_steel" if steel else "x_nonsteel"])


@lru_cache(maxsize=512)
def cable(book: Codebook, key: str, size: str) -> Cable:
    """Outside sizes of a cable, typical. Exact; raises UnknownKeyError that lists the sizes."""
    row = book.table("cables").get(key, size)
    return Cable(
        method=key,
        size=size,
        wide_in=float(row["wide_in"]),
        narrow_in=float(row["narrow_in"]),
        conductors=int(row["conductors"]),
        ground=row["ground"],
    )


@lru_cache(maxsize=256)
def cable_sizes(book: Codebook, key: str) -> list[str]:
    """Sizes of one cable method in the catalogue."""
    return [row["size"] for row in book.table("cables").rows if row["method"] == key]


def made_size(book: Codebook, key: str, wire: str, count: int) -> str | None:
    """The size of the cable with that wire which has the count of conductors, or the next count that is made: 4-3 for
    a 4-2 that nobody makes. None where none is made. Next size up in the count, exact in the wire."""
    counts = [int(size.partition("-")[2]) for size in cable_sizes(book, key) if size.partition("-")[0] == wire]
    found = min((made for made in counts if made >= count), default=None)
    return None if found is None else f"{wire}-{found}"


def cover_row(book: Codebook, above: str) -> dict[str, str]:
    """The row of the cover table. Exact; raises UnknownKeyError that lists what may lie above."""
    table = book.table("300-5-cover")
    if table.find(above) is None:
        raise unknown("above", above, [row["above"] for row in table.rows])
    return table.get(above)


@dataclass(frozen=True)
class SupportRule:
    """Inches: first from a clamped box, first from a box without clamps, spacing between."""

    first_in: float
    no_clamp_in: float
    spacing_in: float
    section: str


@lru_cache(maxsize=512)
def support_rule(book: Codebook, key: str, size: str) -> SupportRule:
    """How a method is held. Rounding: a size without its own row takes the row with the blank size."""
    if method(book, key).kind == "span":
        raise UnknownKeyError(
            f"method {key!r} hangs from its messenger; supports apply to raceways and cables",
            key="method",
            value=key,
            allowed=[name for name, m in methods(book).items() if m.kind != "span"],
        )
    table = book.table("supports")
    row = table.find(key, size) or table.get(key, "")
    return SupportRule(float(row["first_in"]), float(row["no_clamp_in"]), float(row["spacing_in"]), row["section"])


def ground_size(book: Codebook, breaker_a: float, material: str) -> str:
    """Equipment grounding conductor for a breaker. Source: table 250.122; next rating up."""
    row = book.table("250-122-ground").at_least("breaker_a", breaker_a)
    if row is None:
        raise UnknownKeyError(
            f"breaker {breaker_a:g} A is over the ground table; allowed: up to 1000 A",
            key="breaker_a",
            value=breaker_a,
            allowed=["up to 1000"],
        )
    return row[material]


def small_conductor_limit(book: Codebook, size: str, material: str) -> float | None:
    """Largest breaker over a small conductor (240.4(D)), or None for sizes that the rule leaves out."""
    row = book.table("240-4-small").find(material, size)
    return float(row["max_breaker_a"]) if row else None


@dataclass(frozen=True, kw_only=True)
class PlaceFacts:
    """What a place is like. damage None: not said whether it can be hit. ambient_c in °C."""

    place: str
    title: str
    moisture: str
    exposed: bool
    damage: bool | None
    sunlight: bool
    ambient_c: float
    insulation: bool
    above: str
    outdoors: bool
    words: tuple[str, ...]


@lru_cache(maxsize=16)
def places(book: Codebook) -> dict[str, PlaceFacts]:
    """Every place kind with what it is assumed to be like."""
    tri = {"yes": True, "no": False, "unknown": None}
    return {
        row["place"]: PlaceFacts(
            place=row["place"],
            title=row["title"],
            moisture=row["moisture"],
            exposed=row["exposed"] == "yes",
            damage=tri[row["damage"]],
            sunlight=row["sunlight"] == "yes",
            ambient_c=float(row["ambient_c"]),
            insulation=row["insulation"] == "yes",
            above=row["above"],
            outdoors=row["outdoors"] == "yes",
            words=tuple(row["words"].split("|")),
        )
        for row in book.table("places").rows
    }


def place(book: Codebook, key: str) -> PlaceFacts:
    """One place kind. Raises UnknownKeyError that lists all."""
    found = places(book).get(key)
    if found is None:
        raise unknown("place", key, places(book))
    return found
