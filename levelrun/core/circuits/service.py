"""Load calculation of a dwelling, standard and optional method, each step shown; and of a feeder (article 220)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import floor

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError
from levelrun.core.kept import kept_hash

FOUR = 4
FIXED_LEAST_VA = 500.0
SMALL_UNIT_VA, COLUMN_B_VA, LEAST_UNIT_VA = 8750.0, 3500.0, 1750.0
LINE_V = 240.0


@dataclass(frozen=True)
class Appliance:
    """A load by its use as in the table of loads, in volt-amperes. `neutral`: part of it returns by the neutral;
    `continuous`: said to be on for three hours or more."""

    use: str
    va: float
    name: str = ""
    neutral: bool = False
    continuous: bool = False


@dataclass(frozen=True)
class Dwelling:
    """What the calculation asks of a dwelling. Square feet; counts of 20 A circuits; appliances each once."""

    floor_area_ft2: float
    small_appliance: int = 2
    laundry: int = 1
    appliances: tuple[Appliance, ...] = ()


@dataclass(frozen=True)
class Step:
    """One line of the calculation: what it is, volt-amperes connected, share taken, volt-amperes counted, section."""

    name: str
    connected_va: float
    percent: float
    counted_va: float
    section: str


@dataclass(frozen=True, kw_only=True)
class LoadCalculation:
    """The calculation whole. Amperes at 240 V, line and neutral, unrounded."""

    method: str
    steps: tuple[Step, ...]
    total_va: float
    amps: float
    neutral_va: float
    neutral_a: float
    rule: str
    notes: tuple[str, ...]

    __hash__ = kept_hash


def compared_a(book: Codebook, amps: float) -> float:
    """A calculated load in amperes as it is held against a rating: to the nearest whole one, halves up, by rule sets
    that drop the fraction (220.5(B)); as it is by others."""
    step = book.number("load_whole_a")
    return floor(amps / step + 0.5 + 1e-9) * step if step else amps


HEAT = ("space_heater", "floor_heat")
COOL = ("air_conditioner",)
COOKING = ("range", "cooktop", "oven")
OWN_RULE = (*HEAT, *COOL, *COOKING, "dryer", "vehicle", "generator")
MOTORS = ("pump", "disposer", "furnace", "air_conditioner")


def standard(book: Codebook, home: Dwelling) -> LoadCalculation:
    """Article 220 part III: lighting demand, fixed appliances, dryer, ranges, the larger of heat and cooling."""
    _check(home)
    lighting = _lighting_va(book, home)
    steps = _lighting_steps(book, lighting)
    counted_lighting = sum(step.counted_va for step in steps)
    steps += _fixed(book, home)
    dryers = _dryers(book, home)
    cooking = _cooking(book, home)
    steps += [*dryers, *cooking, *_vehicles(book, home), *_climate(home), *_motor(book, home)]
    total = sum(step.counted_va for step in steps)
    share = book.number("neutral_percent") / 100
    neutral = counted_lighting + share * sum(step.counted_va for step in (*dryers, *cooking))
    neutral += sum(a.va for a in home.appliances if a.neutral and a.use not in OWN_RULE)
    return _whole("standard", steps, total, neutral, "220.40 to 220.61", [])


def optional(book: Codebook, home: Dwelling) -> LoadCalculation:
    """220.82: the first 10 kVA whole, the rest at 40 %, heat or cooling beside it. For a service of 100 A or more."""
    _check(home)
    first, rest = book.number("optional_first_va"), book.number("optional_rest_percent")
    general = _lighting_va(book, home)
    named = [a for a in home.appliances if a.use not in (*HEAT, *COOL, "generator")]
    connected = general + sum(a.va for a in named)
    steps = [
        Step(f"General load and all appliances, first {first / 1000:g} kVA", connected, 100.0, min(connected, first),
             "220.82(B)"),
        Step("Remainder", max(connected - first, 0.0), rest, max(connected - first, 0.0) * rest / 100, "220.82(B)"),
        *_optional_climate(book, home),
    ]  # fmt: skip
    total = sum(step.counted_va for step in steps)
    neutral = standard(book, home)
    notes = ["for a service or feeder of 100 A or more that carries the whole dwelling",
             "the neutral is that of the standard method (220.61)"]  # fmt: skip
    return _whole("optional", steps, total, neutral.neutral_va, "220.82", notes)


def _check(home: Dwelling) -> None:
    if home.floor_area_ft2 < 0 or home.small_appliance < 0 or home.laundry < 0:
        raise LevelRunError("area and counts are 0 or more", key="floor_area_ft2", value=home.floor_area_ft2)
    for item in home.appliances:
        if item.va < 0:
            raise LevelRunError(f"{item.name or item.use}: a load is 0 or more", key="appliances", value=item.va)


def _whole(
    method: str, steps: list[Step], total: float, neutral: float, rule: str, notes: list[str]
) -> LoadCalculation:
    return LoadCalculation(
        method=method,
        steps=tuple(steps),
        total_va=total,
        amps=total / LINE_V,
        neutral_va=neutral,
        neutral_a=neutral / LINE_V,
        rule=rule,
        notes=tuple(notes),
    )


def _lighting_va(book: Codebook, home: Dwelling) -> float:
    return (
        home.floor_area_ft2 * book.number("load_per_ft2_va")
        + home.small_appliance * book.number("small_appliance_va")
        + home.laundry * book.number("laundry_va")
    )


def _lighting_steps(book: Codebook, va: float) -> list[Step]:
    first, second = book.number("lighting_first_va"), book.number("lighting_second_va")
    shares = ((first, 100.0), (second - first, book.number("lighting_second_percent")))
    steps: list[Step] = []
    left = va
    for width, percent in (*shares, (float("inf"), book.number("lighting_rest_percent"))):
        part = min(left, width)
        if part > 0:
            name = "Lighting, kitchen and laundry circuits" if not steps else "… the next of it"
            steps.append(Step(name, part, percent, part * percent / 100, "220.41, 220.52, table 220.45"))
        left -= part
    return steps


def _fixed(book: Codebook, home: Dwelling) -> list[Step]:
    """Appliances fastened in place: four or more of 500 W or more at 75 %, smaller ones whole (220.53). A
    refrigerator on a cord is in the general load."""
    fixed = [a for a in home.appliances if a.use not in (*OWN_RULE, "washer", "refrigerator", "welder")]
    many = sum(a.va >= FIXED_LEAST_VA for a in fixed) >= FOUR
    found = []
    for a in fixed:
        percent = book.number("fixed_appliance_percent") if many and a.va >= FIXED_LEAST_VA else 100.0
        found.append(Step(a.name or a.use.replace("_", " "), a.va, percent, a.va * percent / 100, "220.53"))
    plugged = [a for a in home.appliances if a.use == "welder"]
    return found + [Step(a.name or a.use, a.va, 100.0, a.va, "630.11") for a in plugged]


def _dryers(book: Codebook, home: Dwelling) -> list[Step]:
    least = book.number("dryer_least_va")
    return [
        Step(a.name or "Dryer", a.va, 100.0, max(a.va, least), "220.54") for a in home.appliances if a.use == "dryer"
    ]


def _cooking(book: Codebook, home: Dwelling) -> list[Step]:
    """Table 220.55: column C for ranges over 8¾ to 12 kW; over 12 kW it grows 5 % for each kilowatt or major fraction
    (note 1); where every unit is 8¾ kW or less by columns A and B, if that is less (note 3)."""
    own = [a for a in home.appliances if a.use in COOKING]
    if not own:
        return []
    row = book.table("220-55-ranges").find(str(min(len(own), 5)))
    demand = float(row["demand_kw"]) * 1000 if row else 0.0
    biggest = max(a.va for a in own)
    if biggest > 12_000:
        demand *= 1 + 0.05 * int((biggest - 12_000) / 1000 + 0.5)
    connected = sum(a.va for a in own)
    name = own[0].name or "Range" if len(own) == 1 else f"{len(own)} cooking appliances"
    counted = min(connected, demand, _small_units(book, own) if biggest <= SMALL_UNIT_VA else connected)
    return [Step(name, connected, 100 * counted / connected if connected else 0.0, counted, "table 220.55")]


def _small_units(book: Codebook, own: Sequence[Appliance]) -> float:
    """Columns A and B, each by the count of its own units; a unit under 1¾ kW counts whole."""
    small = [a.va for a in own if LEAST_UNIT_VA <= a.va < COLUMN_B_VA]
    medium = [a.va for a in own if a.va >= COLUMN_B_VA]
    total = sum(a.va for a in own if a.va < LEAST_UNIT_VA)
    for units, column in ((small, "a_percent"), (medium, "b_percent")):
        row = book.table("220-55-ranges").find(str(min(len(units), 5)))
        total += sum(units) * (float(row[column]) / 100 if row else 1.0)
    return total


def _vehicles(book: Codebook, home: Dwelling) -> list[Step]:
    least = book.number("vehicle_least_va")
    own = [a for a in home.appliances if a.use == "vehicle"]
    return [Step(a.name or "Vehicle charging", a.va, 100.0, max(a.va, least), "220.57") for a in own]


def _climate(home: Dwelling) -> list[Step]:
    heat = sum(a.va for a in home.appliances if a.use in HEAT)
    cool = sum(a.va for a in home.appliances if a.use in COOL)
    if not heat and not cool:
        return []
    name, va = ("Space heat", heat) if heat >= cool else ("Cooling", cool)
    return [Step(f"{name}, the larger", heat + cool, 100 * va / (heat + cool), va, "220.51, 220.60")]


def _motor(book: Codebook, home: Dwelling) -> list[Step]:
    heat = sum(a.va for a in home.appliances if a.use in HEAT)
    cool = sum(a.va for a in home.appliances if a.use in COOL)
    motors = [a for a in home.appliances if a.use in MOTORS and (a.use not in COOL or cool > heat)]
    if not motors:
        return []
    largest = max(motors, key=lambda item: item.va)
    more = largest.va * (book.number("motor_factor") - 1)
    return [Step(f"Largest motor, {largest.name or largest.use.replace('_', ' ')}", largest.va, 25.0, more, "220.50")]


def _optional_climate(book: Codebook, home: Dwelling) -> list[Step]:
    heat = [a.va for a in home.appliances if a.use in HEAT]
    cool = sum(a.va for a in home.appliances if a.use in COOL)
    many = len(heat) >= FOUR
    percent = book.number("optional_heat_many_percent" if many else "optional_heat_percent")
    heated = sum(heat) * percent / 100
    if not heated and not cool:
        return []
    section = "220.82(C)(5)" if many else "220.82(C)(4)"
    if heated >= cool:
        return [Step("Space heat, the larger", sum(heat), percent, heated, section)]
    return [Step("Cooling, the larger", cool, 100.0, cool, "220.82(C)(1)")]


def feeder(book: Codebook, lighting_va: float, appliances: Sequence[Appliance]) -> LoadCalculation:
    """A feeder that is not a dwelling's: everything at 100 %, continuous load and the largest motor at 125 %."""
    steps = [Step("Lights and receptacles", lighting_va, 100.0, lighting_va, "220.14, 220.40")] if lighting_va else []
    factor = book.number("continuous_factor")
    for item in appliances:
        row = book.table("loads").find(item.use)
        steady = item.continuous or (row is not None and row["continuous"] == "yes")
        percent = 100 * factor if steady else 100.0
        name = item.name or item.use.replace("_", " ")
        va = max(item.va, book.number("vehicle_least_va")) if item.use == "vehicle" else item.va
        section = "220.57, 215.2" if item.use == "vehicle" else "220.40, 215.2"
        steps.append(Step(name, item.va, percent, va * percent / 100, section))
    motors = [a for a in appliances if a.use in (*MOTORS, "welder")]
    if motors:
        largest = max(motors, key=lambda item: item.va)
        name = f"Largest motor, {largest.name or largest.use}"
        steps.append(Step(name, largest.va, 25.0, largest.va * (book.number("motor_factor") - 1), "220.50"))
    total = sum(step.counted_va for step in steps)
    neutral = lighting_va + sum(a.va for a in appliances if a.neutral)
    return _whole("feeder", steps, total, neutral, "215.2, 220.40", [])
