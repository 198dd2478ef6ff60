"""Several things at the end of one line, one behind the other: their order, their wires and what is asked of them."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built

HOUSE = built("panel H 200a 30 spaces taken 1-4")


def line(text: str) -> tuple[Job, str]:
    found, looked = said_on(HOUSE, f"from {text}", Looked())
    return found, "; ".join(looked.told)


@pytest.mark.parametrize(
    ("said", "chain"),
    [
        ("30' attic in 12-2 to a switch and a light", "S-1 L-1"),
        ("20' attic to a light, a switch and an outlet", "L-1 S-1 R-1"),
        ("a switch and two lights 30' attic", "S-1 L-1 L-2"),
        ("12-2 30' basement to three outlets and a light", "R-1 R-2 R-3 L-1"),
        ("30' attic to a bath fan and a light in bath", "F-1 L-1"),
    ],
)
def test_one_behind_the_other(said: str, chain: str) -> None:
    job, told = line(said)
    names = {box.id: box.name for box in job.boxes}
    hops = [(names.get(hop.after or ""), names[hop.box]) for hop in job.circuits[0].chain]
    assert [end for _, end in hops] == chain.split() and [begin for begin, _ in hops][1:] == chain.split()[:-1]
    assert job.circuits[0].breaker_a == (20 if "outlet" in said else 15), "an outlet on 20 A, lights alone on 15"
    assert len(job.circuits) == 1 and f"{hops[-1][0]} to {hops[-1][1]} is 12'" in told, "the way is asked for"
    assert [item.title for item in plan(job).findings if item.severity == "stop"] == []


@pytest.mark.parametrize(
    ("said", "protection"),
    [
        ("chicken coop outlet and light 80' trench", "gfci"),  # the outlet first: what it asks stays asked
        ("garage light and outlet 30' attic", "gfci"),  # the light first, which asks nothing
        ("dishwasher and disposal on one circuit, 30' basement", "gfci"),
        ("bedroom light and outlet 30' attic", "afci"),
        ("hall light and bath fan 30' attic", "afci"),
        ("garage light and outlet on 20a plain 30' attic", "plain"),  # said: nothing is changed about it
    ],
)
def test_the_breaker_gives_what_all_of_them_ask(said: str, protection: str) -> None:
    job, _ = said_on(HOUSE, said, Looked())
    assert [circuit.protection for circuit in job.circuits] == [protection]
    missing = [f.code for f in plan(job).findings if f.code in ("gfci-missing", "afci-missing")]
    assert bool(missing) is (protection == "plain")


def test_so_many_of_them_and_both_on_one_circuit() -> None:
    job, _ = said_on(HOUSE, "garage outlets, 4 of them, 8' apart, 15' wall in emt", Looked())
    assert [box.use for box in job.boxes] == ["garage"] * 4 and len(job.ways) == 4
    job, _ = said_on(HOUSE, "dishwasher and disposal on one circuit, 12-2 40' crawl", Looked())
    assert [box.serves for box in job.boxes] == ["dishwasher", "disposer"] and len(job.circuits) == 1


def test_how_far_is_said_with_it() -> None:
    """30 ft to the first, 6 ft between, 12 ft to the light, with ends, loop and 5 %: 360 + 42 + 8 + 6 + 18, twice
    72 + 8 + 8 + 6 + 3.6, 144 + 8 + 8 + 6 + 7.2 in, each rounded up to the foot: 37, 9, 9 and 15 ft."""
    job, told = line("12-2 30' basement to three outlets 6' apart and a light 12' away")
    assert [hop.length_in for hop in job.circuits[0].chain] == [None, 72, 72, 144]
    assert "L-1 is 12′ behind R-3" in told
    bought = {order.item.key: order.count for order in plan(job).buying.orders}
    assert bought["12-2 NM-B"] == 37 + 9 + 9 + 15


def test_several_behind_a_switch_and_out_of_doors() -> None:
    job, told = line("20' attic in 14-2 to a switch and 4 recessed lights 4' apart")
    assert [hop.length_in for hop in job.circuits[0].chain] == [None, None, 48, 48, 48]
    assert "S-1 to L-1 is 12'" in told
    garage, _ = line("outlet in the garage and a light outside, 20' attic")
    assert [(box.name, box.outdoors) for box in garage.boxes] == [("R-1", False), ("L-1", True)]


@pytest.mark.parametrize(
    "said",
    ["3 outlets 10' apart 20' shop wall in emt, and a light", "outlet 20' attic and a light 5' away"],
)
def test_behind_the_legs_too(said: str) -> None:
    job, _ = said_on(HOUSE, said, Looked())
    assert job.boxes[-1].kind == "light" and job.circuits[0].chain[-1].after == job.boxes[-2].id


def test_a_line_in_another_building_begins_at_the_panel_there() -> None:
    """Two panels, and no word of from which: the building that is named has one. Where it has none it is asked."""
    barn = built("feed the barn with 60a, 90' trench 24\" deep in pvc", HOUSE)
    job, looked = said_on(barn, "in the barn 2 outlets 10' apart 20' shop wall in emt, and a light", Looked())
    there = next(panel for panel in job.panels if panel.name == "Panel Barn")
    assert job.circuits[-1].panel == there.id and "Panel Barn" in " ".join(looked.told)
    assert {box.structure for box in job.boxes} == {there.structure}
    with pytest.raises(LevelRunError, match="a panel or a box by its name"):
        said_on(barn, "in the attic 2 outlets 20' attic", Looked())


def test_a_light_behind_its_switch_has_two_wires_a_switch_behind_its_light_three() -> None:
    for said, wires in (("a switch and a light", "14-2"), ("a light and a switch", "14-3")):
        job, _ = line(f"20' attic in 14-2 to {said}")
        cables = {row.cable for circuit in plan(job).circuits for row in circuit.chain}
        assert wires in cables, said


@pytest.mark.parametrize("said", ["an outlet and a dryer 30' attic", "dishwasher and disposal 30' basement"])
def test_what_wants_a_circuit_of_its_own_hangs_behind_nothing(said: str) -> None:
    with pytest.raises(LevelRunError, match="a line goes to one thing") as refused:
        line(said)
    assert (" on one circuit`" in refused.value.message) is ("dryer" not in said)  # of 240 V: it never is


def test_what_stands_on_two_circuits_is_two_lines() -> None:
    with pytest.raises(LevelRunError, match=r"each circuit is a line of its own; .*multiwire"):
        said_on(HOUSE, "40' attic to 6 outlets on two circuits", Looked())
    bench, _ = said_on(HOUSE, "4 workbench outlets 4' apart 30' garage wall", Looked())
    assert [box.kind for box in bench.boxes] == ["receptacle"] * 4


def test_three_ways_and_their_light_by_hand() -> None:
    """Power at the first: two wires to it, two travellers and the neutral between them, two wires to the light."""
    job, _ = said_on(HOUSE, "two 3-way switches 20' apart and a light 6' away, 30' attic in 14-2", Looked())
    rows = [(row.name, row.cable, row.length_in) for circuit in plan(job).circuits for row in circuit.chain]
    assert rows == [("S-1", "14-2", 360), ("S-2", "14-3", 240), ("L-1", "14-2", 72)]
    assert "three-way-lone" not in {item.code for item in plan(job).findings}
    lone, _ = line("20' attic to a three-way switch and a light")
    assert "three-way-lone" in {item.code for item in plan(lone).findings}


@pytest.mark.parametrize(
    "said",
    [
        "hall light with 3-way switches 30' attic", "30' attic to a stair light with two three-way switches",
        "hall light with a 3-way at each end, 30' attic", "garage light switched from both doors 30' attic",
    ],
)  # fmt: skip
def test_a_light_that_is_worked_from_both_ends_hangs_behind_its_switches(said: str) -> None:
    job, looked = said_on(HOUSE, said, Looked())
    rows = [(row.name, row.cable) for circuit in plan(job).circuits for row in circuit.chain]
    assert rows == [("S-1", "14-2"), ("S-2", "14-3"), ("L-1", "14-2")]
    assert [box.ways for box in job.boxes if box.kind == "switch"] == [3, 3]
    assert "light" in job.circuits[0].name.lower() and "S-1 to S-2 is 12'" in "; ".join(looked.told)
    assert "three-way-lone" not in {item.code for item in plan(job).findings}


def test_how_far_its_switches_and_its_lights_are_apart() -> None:
    job, _ = said_on(HOUSE, "3 hall lights 6' apart with 3-way switches 14' apart, 30' attic", Looked())
    assert [hop.length_in for hop in job.circuits[0].chain] == [None, 168, None, 72, 72]
    lit, _ = said_on(HOUSE, "hall light 60 w with 3-way switches, 30' attic", Looked())
    assert [(box.kind, box.load_w) for box in lit.boxes] == [("switch", None), ("switch", None), ("light", 60)]
    with pytest.raises(LevelRunError, match="3-way"):
        line("outlet with 3-way switches 30' attic")


@pytest.mark.parametrize(
    ("said", "breaker", "wire"),
    [
        ("baseboard heater 1500w 240v 40' crawl", 15, "14"),  # 6.25 A
        ("2 baseboard heaters 1500w 240v 40' crawl", 20, "12"),  # 12.5 A for hours: 15.6
        ("3 baseboard heaters 1500w 240v 40' crawl", 25, "10"),  # 18.75 A for hours: 23.4
        ("2 baseboard heaters 2500w 240v 40' crawl", 30, "10"),  # 20.8 A for hours: 26
    ],
)
def test_heaters_of_one_line_are_wired_for_all_of_them(said: str, breaker: float, wire: str) -> None:
    """424.4(B): 125 %; each has its own watts."""
    job, _ = said_on(HOUSE, said, Looked())
    assert (job.circuits[0].breaker_a, job.circuits[0].wire_size) == (breaker, wire)
    assert {box.load_w for box in job.boxes} == {float(said.split("w ")[0].rpartition(" ")[2])}
    assert not {"circuit-high", "circuit-over", "heaters-over"} & {item.code for item in plan(job).findings}


@pytest.mark.parametrize(
    ("said", "load"),
    [
        ("2 outlets 20a 240v 30' shop wall", 16),
        ("3 outlets 30a 240v 10' apart 30' shop wall in emt", 24),
        ("2 outlets 20a 240v for planer 5a 30' shop wall", 10),  # said what they are for: both
    ],
)
def test_of_several_outlets_of_a_shop_one_is_used_at_a_time(said: str, load: float) -> None:
    """80 % of 20 and of 30 A; that they share is asked and stops nothing."""
    job, _ = said_on(HOUSE, said, Looked())
    made = plan(job)
    assert made.circuits[0].summary.load_a == pytest.approx(load)
    assert made.stops == 0
    asked = [item.text for item in made.findings if item.code == "sharing"]
    assert not asked or load == 10 or all("in use at a time" in text for text in asked)


@pytest.mark.parametrize("said", ["shop circuit 60a 40' trench", "outlet 60a 240v 40' basement"])
def test_an_outlet_that_nobody_makes_is_refused_with_what_may_be_meant(said: str) -> None:
    with pytest.raises(LevelRunError, match=r"no outlet of 60 A .*15, 20, 30, 50.*60a feeder to the shop"):
        said_on(HOUSE, said, Looked())
    fed, _ = said_on(HOUSE, "60a feeder to the shop 40' trench", Looked())
    assert fed.circuits[0].feeds is not None


@pytest.mark.parametrize(
    ("said", "volts", "told"),
    [
        ("space heater outlet in shop 30' attic", 120, "plugged in is taken to be of 120 V"),
        ("space heater outlet 240v in shop 30' attic", 240, ""),
        ("greenhouse heater 1500w 60' trench", 240, "taken to be of 240 V; its plate decides"),
        ("wall heater 120v 1500w 30' attic", 120, ""),
    ],
)
def test_the_volts_of_a_heater_that_nobody_said_are_told(said: str, volts: int, told: str) -> None:
    job, looked = said_on(HOUSE, said, Looked())
    assert (job.circuits[0].volts, job.circuits[0].neutral) == (volts, volts == 120)
    words = "; ".join(looked.told)
    assert told in words and ("is taken to be of" in words) is bool(told)
    assert plan(job).stops == 0


# 424.4(A): two and more heaters on 30 A at most; one may have what it wants.
def test_no_two_heaters_on_more_than_30_a() -> None:
    with pytest.raises(LevelRunError, match=r"4 heaters want 45 A together.*30 A at most"):
        said_on(HOUSE, "4 baseboard heaters 2000w 240v 40' crawl", Looked())
    one, _ = said_on(HOUSE, "heater 8000w 240v 40' crawl", Looked())
    assert one.circuits[0].breaker_a > 30
    assert "heaters-over" not in {item.code for item in plan(one).findings}


@pytest.mark.parametrize(
    ("said", "kind"),
    [
        ("15a lighting circuit 40' attic", "light"), ("bell transformer 15' basement", "equipment"),
        ("closet light 20' attic with a door switch", "switch"),
        ("outlet under the sink for the disposer 30' crawl", "receptacle"),
    ],
)  # fmt: skip
def test_said_in_other_words(said: str, kind: str) -> None:
    job, _ = said_on(HOUSE, said, Looked())
    assert job.boxes[-1].kind == kind and job.circuits[0].breaker_a == (20 if kind == "receptacle" else 15)


def test_a_box_is_extended_and_a_panel_stands_where_it_goes_to() -> None:
    job = built("outlet 20' attic", HOUSE)
    job, _ = said_on(job, "extend R-1 12' stud wall to an outlet and a light", Looked())
    assert [hop.after for hop in job.circuits[0].chain] == [None, "b1", "b2"]
    fed, _ = said_on(HOUSE, "100a subpanel in the basement 20' basement in ser", Looked())
    assert [leg.length_in for way in fed.ways for leg in way.legs] == [240] and fed.circuits[0].feeds
