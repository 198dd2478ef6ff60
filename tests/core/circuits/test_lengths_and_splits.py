"""How far cable goes between levels, how a way is held round its corners, and what a split takes along.

Lengths are geometry; supports by NFPA 70 (NEC) 334.30 and 358.30, from memory; splits are facts of the trade.
"""

from __future__ import annotations

import itertools

import pytest

from levelrun.core.circuits.distance import Stand, apart, square
from levelrun.core.codebook import Codebook
from levelrun.core.job import Job
from levelrun.core.plan import plan, way_contexts
from levelrun.core.trade.supports import supports
from levelrun.core.ways.alternatives import cost
from levelrun.core.ways.facts import WayView
from tests.conftest import built, edited, found, one_way
from tests.core.circuits.home import case, home


def stand(x: float, height: float, floor: float = 0.0, tall: float = 96.0) -> Stand:
    return Stand(structure="s", x=x, y=0.0, height_in=height, ceiling_in=floor + tall)


# from, to, inches by hand: down or up to a ceiling, across, and on
WAYS = {
    "a basement panel to a light over it": (stand(0, -60, -108, 96), stand(0, 96), 156),
    "the same, ten feet over": (stand(0, -60, -108, 96), stand(120, 96), 276),
    "two rooms of one floor, by the ceiling": (stand(0, 48), stand(120, 16), 48 + 80 + 120),
    "floor to loft": (stand(0, 16), stand(0, 120, 104, 84), 80 + 24),
}


@pytest.mark.parametrize("name", WAYS)
def test_square_across_by_a_ceiling(name: str) -> None:
    a, b, inches = WAYS[name]
    assert square(a, b) == square(b, a) == pytest.approx(inches)


@pytest.mark.parametrize(("floor_a", "floor_b"), list(itertools.product((-108, 0, 108), repeat=2)))
def test_no_cable_is_shorter_than_across_and_up(floor_a: float, floor_b: float) -> None:
    for x, up_a, up_b in itertools.product((0, 77, 300), (4, 48, 90), (4, 48, 90)):
        a, b = stand(0, floor_a + up_a, floor_a), stand(x, floor_b + up_b, floor_b)
        least = abs(a.x - b.x) + abs(a.height_in - b.height_in)
        assert square(a, b) >= least - 1e-9 >= apart(a, b) - 1e-6 or least == 0


@pytest.mark.parametrize(("taped", "said"), [(12.0, True), (600.0, False)])
def test_a_hop_taped_shorter_than_its_ends_stand_apart_is_told(taped: float, said: bool) -> None:
    box = next(b.id for b in home().boxes if b.name == "R-1")
    job = case("1 20a dual Den: R-1", ("circuit", "Den", {"chain": [{"box": box, "length_in": taped}]}))
    assert bool(found(job, "hop-short")) is said


# ways with corners, and the widest gap between supports that each may have
HELD = {
    "emt 3/4 round three corners": ("over 7' shop wall in emt 3/4; up 6'; over 7'; down 6' to C-1", 120.0),
    "12-2 down, over and up a wall": ("down 5' shop wall in mc 12-2; over 4'; up 5' to C-1", 72.0),
    "cable stapled round a corner": ("down 4' basement in 12-2; over 3'; down 2'; over 3' to C-1", 54.0),
    "many short legs": ("over 3' shop wall in emt 1/2; up 3'; over 3'; up 3'; over 3' to C-1", 120.0),
}


@pytest.mark.parametrize("name", HELD)
def test_no_gap_between_supports_is_over_the_limit_round_corners(name: str) -> None:
    text, most = HELD[name]
    job = one_way(text)
    at, spots = 0.0, []
    for leg, laid in zip(plan(job).ways[0].legs, job.ways[0].legs, strict=True):
        spots += [at + position for position in leg.held.positions_in]
        at += laid.length_in
    gaps = [b - a for a, b in itertools.pairwise([0.0, *spots, at])]
    assert max(gaps) <= most + 1e-6, (gaps, spots)


@pytest.mark.parametrize("length", [24, 60, 96, 150])
def test_half_of_the_spacing_is_left_where_the_pipe_goes_on(book: Codebook, length: float) -> None:
    """358.30(A): 10 ft apart, 3 ft from a box. A corner gets 5 ft to each side."""
    given = supports(book, "EMT", "3/4", length, "box_clamped", "none", shared_ends=(False, True))
    assert given.positions_in[0] <= 36 and length - given.positions_in[-1] <= 60
    assert all(b - a <= 120 + 1e-9 for a, b in itertools.pairwise(given.positions_in))


def split_off(job: Job, code: str) -> Job:
    """The job after the mend that splits something off."""
    mend = next(m for m in found(job, code)[0].mends if m.label.startswith("Split off"))
    return edited(job, *mend.edits)


def on(job: Job, circuit: str) -> list[str]:
    names = {box.id: box.name for box in job.boxes}
    return [names[hop.box] for c in job.circuits if c.name == circuit for hop in c.chain]


def test_a_split_takes_a_lamp_with_its_switch() -> None:
    """A counter circuit that feeds a switch and its lamp: both go."""
    job = split_off(case("1 20a dual Counter: K-1 S-1 L-1"), "required-shares")
    assert on(job, "General") == ["S-1", "L-1"]
    assert on(job, "Counter") == ["K-1"]
    assert not found(job, "switch-apart")
    hops = next(c.chain for c in job.circuits if c.name == "General")
    assert hops[0].after is None and hops[1].after == hops[0].box


def test_a_split_takes_travellers_together() -> None:
    job = built("set three-way south 8' as S-8", home(), room=home().rooms[0].id)
    job = built("1 20a dual Counter: K-1 S-3 S-8 L-3", job, panel=job.panels[0].id, verb="circuit")
    job = split_off(job, "required-shares")
    assert sorted(on(job, "General")) == ["L-3", "S-3", "S-8"]
    assert not found(job, "three-way-lone")


def test_a_split_that_would_leave_nothing_is_not_offered() -> None:
    for item in found(case("1 20a dual Counter: S-1 K-1 L-1"), "required-shares"):
        assert not any(mend.label.startswith("Split off") for mend in item.mends)


def test_a_lamp_whose_switch_is_on_another_circuit_is_found() -> None:
    apart_ = case("1 15a afci Lights: L-1; circuit 3 15a afci Switches: S-1 L-3")
    said = found(apart_, "switch-apart")
    assert [item.measured for item in said] == ["Lights"]
    mended = edited(apart_, *said[0].mends[0].edits)
    assert not found(mended, "switch-apart")
    together = case("1 15a afci Lights: S-1 L-1; circuit 3 20a dual Den: R-1")
    assert not found(together, "switch-apart")


def test_a_feeder_is_sized_by_how_it_is_wired() -> None:
    """SER at 75 °C: 60 A is 6 copper and 4 aluminum, not the 4 copper of NM-B's column (334.80, 110.14(C))."""
    for text, size in (("60a", "6"), ("60a aluminum", "4"), ("100a", "3"), ("100a aluminum", "1")):
        job = home(f"1 20a dual X; feed Q from 3 {text}")
        feeder = next(c for c in job.circuits if c.feeds)
        assert (feeder.wire_size, feeder.method) == (size, "SER"), text
        assert not [f for f in found(job, "breaker-wire") if f.subject == feeder.id]


def test_aluminum_costs_about_half_of_copper(book: Codebook) -> None:
    """For the same amperes: 6 copper, 4 aluminum. Common practice, no source."""
    dollars = {}
    for metal, size in (("cu", "6"), ("al", "4")):
        job = one_way("over 50' attic in 6-3 ser to C-1", wire_size=size, conductors=3, breaker_a=60, material=metal)
        dollars[metal] = cost(WayView(book, way_contexts(job, book)[0]), 0, "SER", f"{size}-3")
    assert 0.4 <= dollars["al"] / dollars["cu"] <= 0.7
