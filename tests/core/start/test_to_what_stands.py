"""Lines to what stands in the job already, and what is put there before its way: one thing, however it is said."""

from __future__ import annotations

import pytest

from levelrun.api.contract import answer_of
from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import JobTextError, read_text
from tests.conftest import edited

PANEL = "panel M 200a 40 spaces taken 1-20 in garage\n"


def codes(job: Job) -> set[str]:
    return {item.code for item in plan(job).findings}


def test_a_sub_panel_that_is_fed_gets_its_way() -> None:
    """4 + 38 + 3 ft of 6-3; no second feeder, no second panel."""
    job = read_text(
        PANEL + "sub-panel K 60a 8 spaces\nfeed K from M 50a\nfrom M up 4', 38' basement, up 3' to K in 6-3 nm"
    )
    (feeder,) = job.circuits
    assert (feeder.breaker_a, feeder.wire_size, feeder.method, feeder.feeds) == (50, "6", "NM-B", job.panels[1].id)
    assert [hop.path for hop in feeder.chain] == [(job.ways[0].id,)]
    assert sum(leg.length_in for leg in job.ways[0].legs) == 45 * 12
    assert len(job.panels) == 2


def test_a_sub_panel_that_nothing_feeds_yet_is_fed_by_the_line() -> None:
    job = read_text(PANEL + "panel K 60a 8 spaces\nfrom M 30' crawl in ser to panel K 60a")
    (feeder,) = job.circuits
    assert (feeder.name, feeder.feeds, feeder.breaker_a) == ("K feeder", job.panels[1].id, 60)
    assert job.panels[1].bonded is False  # what is fed past the service disconnect


def test_a_charger_is_put_there_and_the_way_follows() -> None:
    """48 A on for hours is 60 A and No. 6 in pipe (310.16 at 75 C), where cable would have been No. 4."""
    before = read_text(PANEL + "ev charger 48a in garage")
    assert [(c.breaker_a, c.wire_size) for c in before.circuits] == [(60, "4")] and not before.ways
    job = read_text(PANEL + "ev charger 48a in garage\nfrom M up 4', over 18', down 5' in emt to the charger")
    (circuit,) = job.circuits
    assert (circuit.breaker_a, circuit.wire_size, circuit.load_a, len(job.boxes)) == (60, "6", None, 1)
    assert [(leg.length_in, leg.method, leg.size) for leg in job.ways[0].legs] == [
        (48, "EMT", "3/4"), (216, "EMT", "3/4"), (60, "EMT", "3/4"),
    ]  # fmt: skip
    assert not any(item.severity == "stop" for item in plan(job).findings)
    assert not any(item.code == "way-height" for item in plan(job).findings)


def test_a_wire_that_was_said_larger_stays_larger() -> None:
    job = read_text(PANEL + "ev charger 48a wire 3\nfrom M 20' shop wall in emt to the charger")
    assert job.circuits[0].wire_size == "3"


def test_the_inlet_the_interlock_and_the_cable_may_be_said_apart() -> None:
    text = (
        PANEL
        + "generator inlet 30a on the outside wall\nfrom M 22' basement, out 1' outside wall to the inlet in 10-3"
    )
    job = read_text(text)
    assert "generator-interlock" in codes(job)
    job = read_text(text + "\ninterlock on M")
    inlet = next(box for box in job.boxes if box.serves == "generator")
    assert inlet.interlock and inlet.outdoors and "generator-interlock" not in codes(job)
    assert (job.circuits[0].breaker_a, job.circuits[0].neutral) == (30, True)


def test_a_disconnect_its_whip_and_the_nameplate_line_by_line() -> None:
    """The same as in one line; a whip of thinner wire than the circuit is found (240.4)."""
    text = PANEL + (
        "from M 28' crawl in 10-2 to disconnect 60a non-fused outside\n"
        "from disconnect whip 5' in lfnc{} to heat pump\nheat pump mca 27 mocp 40"
    )
    job = read_text(text.format(""))
    (circuit,) = job.circuits
    switch, unit = job.boxes
    assert (switch.kind, switch.rating_a, switch.fused, switch.outdoors) == ("disconnect", 60, False, True)
    assert (unit.serves, circuit.name, circuit.breaker_a, circuit.wire_size) == (
        "air_conditioner", "Heat pump", 30, "10",
    )  # fmt: skip
    assert (circuit.least_ampacity_a, circuit.largest_breaker_a) == (27, 40)
    assert [hop.after for hop in circuit.chain] == [None, switch.id]
    assert "whip-small" not in codes(job)
    assert "whip-small" in codes(read_text(text.format(" 12 awg")))


def test_what_is_said_again_of_one_thing_makes_no_second() -> None:
    job = read_text(PANEL + "from M 30' crawl to heat pump mca 20 mocp 30\nheat pump mca 24 mocp 40")
    assert len(job.circuits) == 1
    assert (job.circuits[0].least_ampacity_a, job.circuits[0].largest_breaker_a) == (24, 40)
    with pytest.raises(JobTextError, match="stands there already"):
        read_text(PANEL + "from M 30' crawl to heat pump mca 20 mocp 30\nheat pump")


@pytest.mark.parametrize(
    ("lines", "told"),
    [
        ("sub-panel K 60a\nfrom M 20' crawl to K\nfrom M 30' crawl to K", "is said already"),
        ("panel N 100a 8 spaces\nsub-panel K 60a\nfeed K from N 50a\nfrom M 30' crawl to K", "is fed from N"),
        ("bath outlet", "how far it is"),
        ("light", "expected"),
    ],
)
def test_what_a_line_to_a_thing_cannot_mean(lines: str, told: str) -> None:
    with pytest.raises(JobTextError, match=told):
        read_text(PANEL + lines)


def test_a_box_on_the_way_is_no_end() -> None:
    """To J-1, then on: the box stands between two legs."""
    job = read_text(PANEL + "from M 20' crawl to machine for pump\nfrom M 10' crawl to E-1 then 8' crawl to outlet")
    assert job.ways[1].legs[0].end.node == job.boxes[0].id
    assert len(job.circuits) == 2


def test_pipe_for_a_wire_that_was_said_larger_holds_its_ground_too() -> None:
    """No. 2 for 60 A, where No. 6 would do: its ground grows from 10 to 6 (250.122(B)). In 1 in pipe two of 0.1158
    and one of 0.0507 in2 are 33 % of 0.864 (chapter 9, tables 4 and 5)."""
    assert (2 * 0.1158 + 0.0507) / 0.533 > 0.40
    job = read_text(PANEL + "from M 20' shop wall in emt to ev charger 48a wire 2")
    assert job.ways[0].legs[0].size == "1"
    assert "fill" not in codes(job)


def test_a_machine_that_is_wired_is_on_a_circuit_of_its_own() -> None:
    """Five horsepower are 28 A at 240 V (table 430.248): never among the outlets of 20 A. A small one is."""
    text = "shop 24' x 30'\npanel S 100a 20 spaces on the west wall\n{}\nset receptacle north 4'\nwire everything"
    big = answer_of(read_text(text.format("compressor 5hp 240v on the east wall")))
    (own,) = [c for c in big.circuits if c.name == "Compressor"]
    assert (own.volts, own.poles, own.breaker_a, own.load_a) == (240, 2, 35, 28)
    assert [h.to for c in big.circuits if c.name != "Compressor" for h in c.hops] == ["R-1"]
    small = answer_of(read_text(text.format("equipment on the east wall 600w")))
    assert len(small.circuits) == 1


def test_a_chain_that_hangs_on_nothing_or_runs_in_a_loop_is_told_of_and_ends() -> None:
    job = read_text(PANEL + "from M 20' crawl to machine for saw\nfrom E-1 9' crawl to outlet")
    circuit, (first, second) = job.circuits[0], job.boxes
    for after, begin in (((second.id, first.id), "M"), ((None, None), "E-1")):
        hops = [{"box": box.id, "after": end} for box, end in zip((first, second), after, strict=True)]
        torn = edited(job, {"op": "set", "kind": "circuit", "id": circuit.id, "set": {"chain": hops}})
        with pytest.raises(LevelRunError):
            said_on(torn, f"from {begin} 5' crawl to {second.name}", Looked())


def test_from_a_box_to_one_that_stands_there() -> None:
    """On the same circuit its way is said, and the circuit stays as it is; on none it is drawn out to it."""
    text = PANEL + "from M 20' crawl to machine for saw\nfrom E-1 9' crawl to outlet"
    job = read_text(text)
    bare = edited(job, {"op": "route", "circuit": job.circuits[0].id, "box": job.boxes[1].id, "path": []})
    routed = said_on(bare, "from E-1 7' shop wall in emt to R-1", Looked())[0]
    assert routed.circuits[0].method == job.circuits[0].method
    assert [len(hop.path) for hop in routed.circuits[0].chain] == [1, 1]
    loose = edited(bare, {"op": "unchain", "boxes": [job.boxes[1].id]})
    drawn = said_on(loose, "from E-1 7' crawl to R-1", Looked())[0]
    assert [hop.box for hop in drawn.circuits[0].chain] == [box.id for box in job.boxes]
    assert len(drawn.boxes) == 2


@pytest.mark.parametrize("height", [48.0, 16.0])
def test_a_box_that_is_on_no_circuit_gets_one_of_its_own(height: float) -> None:
    """Named by what it is, protected as its place asks; where nobody moved it, it stands where its way ends."""
    job = read_text(PANEL + "from M 20' crawl to outlet in garage\nfrom M 9' crawl to kiln 40a")
    outlet, kiln = job.boxes
    bare = edited(
        job, {"op": "unchain", "boxes": [outlet.id, kiln.id]},
        {"op": "set", "kind": "box", "id": outlet.id, "set": {"height_in": height}},
        *({"op": "drop", "kind": "circuit", "id": circuit.id} for circuit in job.circuits),
    )  # fmt: skip
    after = said_on(bare, f"from M 20' shop wall to {outlet.name}", Looked())[0]
    after = said_on(after, f"from M 20' shop wall in emt to {kiln.name}", Looked())[0]
    assert [(c.name, c.protection) for c in after.circuits] == [("Outlet", "gfci"), ("Kiln", "plain")]
    assert len(after.boxes) == 2
