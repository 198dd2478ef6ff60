"""Direct-buried feeder cable, and cable of earth that comes up in a riser."""

from __future__ import annotations

import pytest

from levelrun.core.codebook import load
from levelrun.core.codebook.lookups import cable, cable_sizes, conductor, ground_size
from levelrun.core.edits import apply
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.trade.pipe.fill import sleeve_size
from tests.conftest import built, edited, found

HOUSE = built("panel H 200a 30 spaces taken 1-14")


def line(text: str, job: Job = HOUSE) -> Job:
    return built(text, job, verb="from")


def stops(job: Job) -> list[str]:
    return [item.code for item in plan(job).findings if item.severity == "stop"]


# Aluminum at 75 °C, NFPA 70 (2023) Table 310.16 as in its data file: 4 is 65 A, 2 is 90, 1/0 is 120, 4/0 is 180 and
# serves 200 A by 240.4(B); of this cable no No. 3 and no No. 1 is made (typical catalogue sizes).
@pytest.mark.parametrize(("amps", "size"), [(60, "4-3"), (90, "2-3"), (100, "1/0-3"), (200, "4/0-3")])
def test_a_feeder_is_of_the_size_that_carries_it_and_is_made(amps: int, size: str) -> None:
    job = line(f"cabin {amps}a 150' trench 24\" in urd")
    assert (job.ways[-1].legs[0].method, job.ways[-1].legs[0].size) == ("USE-2", size)
    assert (job.circuits[-1].material, job.circuits[-1].neutral, job.circuits[-1].method) == ("al", True, "raceway")
    assert stops(job) == []
    (cut,) = plan(job).ways[-1].cuts
    assert cut.item == f"{size} USE-2 al" and cut.cut_in >= 150 * 12


def test_its_size_is_said_as_it_is_sold() -> None:
    for text in ("2-2-4-6 urd", "urd 2-2-2-4", "2-2-4-6 direct burial al", "use-2 2-3"):
        job = line(f"cabin 90a 150' trench 24\" in {text}")
        assert (job.ways[-1].legs[0].method, job.ways[-1].legs[0].size) == ("USE-2", "2-3"), text
    short = line("cabin feeder 100a 2-2-4-6 urd al 150' trench 24\"")
    assert set(stops(short)) == {"ampacity-short", "breaker-wire"}  # No. 2 aluminum carries 90 A
    mend = next(mend for item in found(short, "breaker-wire") for mend in item.mends)
    assert mend.label == "90 A breaker" and stops(edited(short, *mend.edits)) == []


@pytest.mark.parametrize(("deep", "short"), [(24, False), (23, True), (18, True)])
def test_it_lies_as_deep_as_cable(deep: int, short: bool) -> None:
    """Table 300.5, column of cables: 24 in under open ground; pipe would be 18."""
    assert ("cover-short" in stops(line(f"shop 60a 80' trench {deep}\" in use-2"))) is short


def test_inside_a_building_it_ends_in_a_box() -> None:
    job = line("20' crawl then 60' trench 24\" in urd to shed 60a")
    assert [leg.method for leg in job.ways[-1].legs] == ["SER", "USE-2"] and "box-needed" in stops(job)
    through = line("20' crawl in urd then 60' trench 24\" to shed 60a")
    assert "method-not-allowed" in stops(through)


@pytest.mark.parametrize("method", ["USE-2", "UF-B"])
def test_its_table_holds_together(method: str) -> None:
    """Four round wires of a size in one round are 2.41 times one (the densest packing of four circles in a circle,
    1 + sqrt 2, a published result); nothing that is made is slimmer than its wires laid so. Its ground is no smaller
    than Table 250.122 asks for what its wires carry."""
    book = load("us-2023")
    for size in cable_sizes(book, method):
        gauge = size.partition("-")[0]
        made = cable(book, method, size)
        assert made.wide_in >= made.narrow_in
        if method == "USE-2":
            bare = conductor(book, "XHHW-2", gauge).area_in2
            one = 2 * (bare / 3.14159) ** 0.5
            assert 2.1 * one < made.wide_in < 3.2 * one, (size, one)
            carries = {"6": 50, "4": 65, "2": 90, "1/0": 120, "2/0": 135, "4/0": 180}[gauge]
            order = ["14", "12", "10", "8", "6", "4", "3", "2", "1", "1/0", "2/0", "3/0", "4/0"]
            assert order.index(made.ground) >= order.index(ground_size(book, carries, "al")), size


def test_pipe_at_the_end_of_cable_of_earth_is_its_sleeve() -> None:
    job = line("shed 60a down 4' outside wall in pvc80, 60' trench 24\" in urd, up 4' outside wall in pvc80")
    legs = job.ways[-1].legs
    assert [leg.sleeve for leg in legs] == [True, False, True]
    assert {leg.size for leg in (legs[0], legs[2])} == {sleeve_size(load("us-2023"), "PVC80", "USE-2", "4-3")}
    assert stops(job) == [] and not found(job, "method-condition")
    (cut,) = plan(job).ways[-1].cuts  # one cable from panel to panel
    assert cut.item == "4-3 USE-2 al" and cut.cut_in > 68 * 12


def test_a_sleeve_keeps_the_sun_off() -> None:
    """UF-B up a wall in PVC 80 was asked whether its jacket bears the sun; bare on the wall it is."""
    sleeved = line("outlet outside 20a 40' trench 24\" uf 12-2 then up 3' outside wall in pvc80")
    assert sleeved.ways[-1].legs[1].sleeve and not found(sleeved, "method-condition")
    bare = line("outlet outside 20a 40' trench 24\" uf 12-2 then up 3' outside wall")
    assert found(bare, "method-condition")


@pytest.mark.parametrize(
    "text",
    [
        "40' trench 24\" in uf 12-2 to coupling then up 3' outside wall in pvc80 to outlet 20a outside",
        "40' trench 24\" in pvc40 then up 3' outside wall in pvc80 to outlet 20a outside",
        "40' attic in 12-2 then down 8' stud wall in emt to outlet 20a in garage",
    ],
    ids=["parted by what is said", "pipe all the way", "not of the earth"],
)
def test_other_pipe_is_none(text: str) -> None:
    assert not any(leg.sleeve for leg in line(text).ways[-1].legs)


def test_where_pipe_and_cable_of_earth_meet_the_mend_is_a_sleeve() -> None:
    job = line("40' trench 24\" in uf 12-2 then up 3' outside wall in pvc80 1/2 to outlet 20a outside")
    apart = apply(job, [])
    way = apart.ways[-1]
    apart = edited(apart, {"op": "set_leg", "way": way.id, "leg": 1, "set": {"sleeve": False}})
    (item,) = found(apart, "box-needed")
    (mend,) = item.mends
    assert mend.label == "The cable goes up in it, as its sleeve"
    assert edited(apart, *mend.edits).ways[-1].legs == way.legs and stops(edited(apart, *mend.edits)) == []
    larger = edited(apart, {"op": "set", "kind": "circuit", "id": apart.circuits[-1].id, "set": {"wire_size": "6"}})
    assert larger.circuits[-1].wire_size == "6"


def test_it_is_offered_where_the_wire_is_aluminum() -> None:
    """It is cabled of aluminum: where the circuit is of copper it stands behind what is made for it."""
    from levelrun.core.plan import way_contexts
    from levelrun.core.ways.alternatives import alternatives
    from levelrun.core.ways.facts import WayView

    book = load("us-2023")
    for what, offered in (("outlet 20a", False), ("shed 60a", False), ("shed 60a aluminum", True)):
        text = f"40' trench 24\" in pvc40 to {what}"
        found_ = alternatives(WayView(book, way_contexts(line(text), book)[-1]), 0)
        here = next(item for item in found_ if item.method == "USE-2")
        assert (here.mend is not None) is offered, text
        assert offered or here.text == "no size made for this circuit"
