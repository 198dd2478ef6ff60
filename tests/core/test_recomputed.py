"""A second hand: box fill, load calculation, protection by place and required circuits worked out again from the
words of the rules, with no code of the program, and compared over many cases. NFPA 70, 2023, from memory."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.boxes.volume import Counted, box_volume
from levelrun.core.circuits.service import Appliance, Dwelling, standard
from levelrun.core.codebook import Codebook, load
from levelrun.core.job import Job
from tests.conftest import built, edited, found

BOOK = load("us-2023")

# 314.16(B): each wire from outside the box once, by size as table 314.16(B)(1); clamps once by the largest; each
# strap twice by the largest connected; up to four grounds once, a quarter for each one more.
FREE_SPACE = {"14": 2.0, "12": 2.25, "10": 2.5, "8": 3.0, "6": 5.0}
SIZES = list(FREE_SPACE)


@given(
    wires=st.dictionaries(st.sampled_from(SIZES), st.integers(1, 9), min_size=1),
    straps=st.integers(0, 3),
    grounds=st.integers(0, 9),
    ground=st.sampled_from(["14", "12", "10"]),
    clamps=st.booleans(),
)
def test_box_fill_again(wires: dict[str, int], straps: int, grounds: int, ground: str, clamps: bool) -> None:
    biggest = max(FREE_SPACE[size] for size in wires)
    wanted = sum(FREE_SPACE[size] * count for size, count in wires.items())
    wanted += biggest if clamps else 0
    wanted += 2 * biggest * straps
    wanted += FREE_SPACE[ground] * (1 + max(grounds - 4, 0) / 4) if grounds else 0
    largest = max(wires, key=SIZES.index)
    got = box_volume(
        BOOK,
        [Counted(size, count) for size, count in wires.items()],
        [Counted(largest, straps)] if straps else [],
        Counted(ground, grounds) if grounds else None,
        clamps,
    )
    assert got.needed_in3 == pytest.approx(wanted)


# Article 220 part III in words: 3 VA a square foot and 1,500 for each small-appliance and laundry circuit, the first
# 3,000 whole, to 120,000 at 35 %, the rest at 25 %; four or more fastened appliances of 500 W at 75 %; a dryer 5,000
# or its plate; one range of 8¾ to 12 kW 8 kW, over it 5 % a kilowatt, under it 80 %; the larger of heat and cooling;
# a quarter more of the largest motor; a vehicle 7,200 or its plate.
FIXED = ("water_heater", "dishwasher", "disposer", "microwave", "bath_heater")


def watts(low: int, high: int) -> st.SearchStrategy[int]:
    return st.integers(low, high)


@given(
    area=watts(0, 6000),
    kitchen=st.integers(0, 4),
    laundry=st.integers(0, 2),
    fixed=st.lists(st.tuples(st.sampled_from(FIXED), watts(100, 5500)), max_size=7),
    range_w=st.none() | watts(1750, 20_000),
    dryer_w=st.none() | watts(1000, 9000),
    heat_w=watts(0, 15_000),
    cool_w=watts(0, 8000),
    vehicle_w=st.none() | watts(1000, 12_000),
)
def test_load_calculation_again(area: int, kitchen: int, laundry: int, fixed: list[tuple[str, int]],
                                range_w: int | None, dryer_w: int | None, heat_w: int, cool_w: int,
                                vehicle_w: int | None) -> None:  # fmt: skip
    general = 3 * area + 1500 * (kitchen + laundry)
    wanted = min(general, 3000) + 0.35 * max(min(general, 120_000) - 3000, 0) + 0.25 * max(general - 120_000, 0)
    big = [w for _, w in fixed if w >= 500]
    wanted += sum(big) * (0.75 if len(big) >= 4 else 1) + sum(w for _, w in fixed if w < 500)
    if dryer_w is not None:
        wanted += max(dryer_w, 5000)
    if range_w is not None and range_w <= 8750:
        wanted += min(0.8 * range_w, 8000)
    elif range_w is not None:
        over = max(range_w - 12_000, 0)
        kilowatts = over // 1000 + (over % 1000 >= 500)
        wanted += min(8000 * (1 + 0.05 * kilowatts), range_w)
    if vehicle_w is not None:
        wanted += max(vehicle_w, 7200)
    wanted += max(heat_w, cool_w)
    motors = [w for use, w in fixed if use == "disposer"] + ([cool_w] if cool_w > heat_w else [])
    wanted += 0.25 * max(motors, default=0)
    named: list[tuple[str, int | None]] = [*fixed, ("range", range_w), ("dryer", dryer_w), ("vehicle", vehicle_w)]
    named += [("space_heater", heat_w), ("air_conditioner", cool_w)]
    appliances = tuple(Appliance(use, float(w)) for use, w in named if w)
    assert standard(BOOK, Dwelling(float(area), kitchen, laundry, appliances)).total_va == pytest.approx(wanted)


# 210.8(A): bathrooms, garages, outdoors, crawl spaces, basements, kitchens, laundry areas. 210.12(B): kitchens,
# family, dining and living rooms, dens, bedrooms, closets, hallways, laundry areas and the like.
GROUND_FAULT = {"bath", "garage", "crawl", "basement", "kitchen", "laundry"}
ARC_FAULT = {"kitchen", "dining", "common", "bedroom", "hall", "closet", "laundry"}
USES = ["common", "kitchen", "dining", "bedroom", "bath", "hall", "closet", "laundry", "garage", "crawl", "basement"]


def one_outlet(use: str, *more: str, **circuit: Any) -> Job:
    text = f"room Room 14' x 12' as {use}; panel west 4' spaces 20 as P; set receptacle north 5' as R-1; "
    job = built("; ".join((text + "circuit in P 1 20a plain as One: R-1", *more)))
    return edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": circuit}) if circuit else job


@pytest.mark.parametrize("use", USES)
def test_protection_by_place_again(use: str) -> None:
    job = one_outlet(use)
    assert bool(found(job, "gfci-missing")) is (use in GROUND_FAULT)
    assert bool(found(job, "afci-missing")) is (use in ARC_FAULT)
    outside = one_outlet(use, "change R-1: outdoors yes, cover in use")
    assert found(outside, "gfci-missing") and not found(outside, "afci-missing")
    for protection, left in (("gfci", ARC_FAULT), ("afci", GROUND_FAULT), ("dual", set())):
        job = one_outlet(use, protection=protection)
        codes = {"gfci": "afci-missing", "afci": "gfci-missing"}
        lacking = {item.code for code in ("gfci-missing", "afci-missing") for item in found(job, code)}
        assert lacking == ({codes[protection]} if use in left else set())


@pytest.mark.parametrize("use", USES)
def test_no_dwelling_no_arc_fault(use: str) -> None:
    job = built("change House: dwelling no", one_outlet(use))
    assert not found(job, "afci-missing")


# 210.11(C): two small-appliance circuits of 20 A for a kitchen, one of 20 A for laundry, for baths, for a garage.
NEEDED = {"kitchen": 2, "laundry": 1, "bath": 1, "garage": 1}


@pytest.mark.parametrize("use", NEEDED)
@pytest.mark.parametrize("amps", [15, 20])
@pytest.mark.parametrize("circuits", [1, 2])
def test_required_circuits_again(use: str, amps: int, circuits: int) -> None:
    names = [f"R-{n}" for n in range(1, circuits + 1)]
    boxes = "; ".join(f"set receptacle north {3 * n}' as {name}" for n, name in enumerate(names, 1))
    own = "; ".join(f"circuit in P {n} {amps}a dual as C{n}: {name}" for n, name in enumerate(names, 1))
    job = built(f"room Room 14' x 12' as {use}; panel west 4' spaces 20 as P; {boxes}; {own}; laid out all")
    short = NEEDED[use] - (circuits if amps == 20 else 0)
    said = found(job, "circuits-wanted")
    assert bool(said) is (short > 0)
    if said:
        assert said[0].severity == "stop" and said[0].limit == str(NEEDED[use])


def test_the_book_that_is_checked_is_the_one_that_ships(book: Codebook) -> None:
    assert book is BOOK
