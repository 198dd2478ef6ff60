"""Several of a kind at the end of one line, and lines that begin at what was there before."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited

HOUSE = built("panel H 200a 30 spaces taken 1-10")


def line(text: str) -> tuple[Job, tuple[str, ...]]:
    job, looked = said_on(HOUSE, f"from {text}" if not text.startswith("from") else text, Looked())
    return job, looked.told


@pytest.mark.parametrize(
    ("said", "kind", "count", "far"),
    [
        ("40' attic to 3 outlets in the den, 12' apart", "receptacle", 3, 144),
        ("three outlets in the den 20a, 40' crawl then 12' apart", "receptacle", 3, 144),
        ("14-2 40' attic to 4 can lights 6' apart", "light", 4, 72),
        ("50' attic to 3 smoke alarms, every 20' apart", "smoke", 3, 240),
        ("2 20 amp gfci outlets outside, 30' basement", "receptacle", 2, None),
        ("two baseboard heaters 1000w each, 30' basement", "equipment", 2, None),
    ],
)
def test_one_behind_the_other(said: str, kind: str, count: int, far: float | None) -> None:
    job, told = line(said)
    (circuit,) = job.circuits
    boxes = {box.id: box for box in job.boxes}
    assert [boxes[hop.box].kind for hop in circuit.chain] == [kind] * count
    assert [hop.after for hop in circuit.chain[1:]] == [hop.box for hop in circuit.chain[:-1]]
    assert len({box.name for box in job.boxes}) == count and len(job.ways) == 1
    assert [hop.length_in for hop in circuit.chain] == [None, *[far] * (count - 1)]
    asked = "how far apart they are is not said" in " ".join(told)
    assert asked is (far is None)
    assert not [item.code for item in plan(job).findings if item.severity == "stop"]


def test_in_pipe_the_pipe_between_them_is_there_to_be_bought() -> None:
    job, _ = line("4 receptacles in the garage 20a gfci in emt 3/4 25' along the garage wall, 8' apart")
    assert [way.legs[0].length_in for way in job.ways] == [300, 96, 96, 96]
    assert {(leg.method, leg.size, leg.place) for way in job.ways for leg in way.legs} == {
        ("EMT", "3/4", "shop_surface")
    }
    assert [hop.path for hop in job.circuits[0].chain] == [(way.id,) for way in job.ways]
    (sticks,) = [order for order in plan(job).buying.orders if order.item.key == "EMT 3/4 stick"]
    assert sticks.count == 6  # 10, 10, 5 and three of 8 ft: what is left of the third holds no 8


def test_several_lights_with_one_switch() -> None:
    """The switch hangs behind the first; the lights one behind the other."""
    job, _ = line("14-2 40' attic to 4 can lights in the kitchen, 6' apart with a switch")
    assert [box.kind for box in job.boxes] == ["light", "switch", "light", "light", "light"]
    lights = [box.id for box in job.boxes if box.kind == "light"]
    after = {hop.box: hop.after for hop in job.circuits[0].chain}
    assert [after[light] for light in lights] == [None, *lights[:-1]] and after[job.boxes[1].id] == lights[0]


def test_each_draws_what_is_said_of_each() -> None:
    job, _ = line("two baseboard heaters 1000w each, 30' basement")
    assert [box.load_w for box in job.boxes] == pytest.approx([1000, 1000])
    assert plan(job).circuits[0].summary.load_a == pytest.approx(2000 / 240)
    assert "sharing" not in {item.code for item in plan(job).findings}  # heaters stand on one circuit (424.4)


@pytest.mark.parametrize("said", ["20a 2 pole outlet 30' attic", "2 pole 30 amp outlet 30' attic"])
def test_two_poles_are_no_two_outlets(said: str) -> None:
    job, _ = line(said)
    assert (len(job.boxes), job.circuits[0].volts, job.circuits[0].poles) == (1, 240, 2)


@pytest.mark.parametrize(
    "said",
    [
        "from the light on 9, 15' attic in 14-2 to bath fan", "bath fan 14-2, 15' attic from the light on 9",
        "tie into the light on 9 and run 14-2 15' attic to a bath fan",
        "from the hall light on 9, 15' attic in 14-2 to a bath fan",
    ],
)  # fmt: skip
def test_what_is_on_a_space_of_other_work_was_there_before(said: str) -> None:
    job, told = line(said)
    old, fan = job.boxes
    assert (old.kind, old.old, fan.kind, job.circuits[0].space) == ("light", True, "fan", 9)
    assert [hop.box for hop in job.circuits[0].chain] == [old.id, fan.id] and 9 not in job.panels[0].taken
    assert "taken to be of 15 A" in " ".join(told)


def test_a_light_on_a_circuit_of_this_job_is_none_from_before() -> None:
    job, _ = line("20' attic in 14-2 to a light on 12")
    after = said_on(job, "from the light on 12, 15' attic to a fan", Looked())[0]
    assert [hop.after for hop in after.circuits[0].chain] == [None, job.boxes[0].id]
    assert not any(box.old for box in after.boxes)


@pytest.mark.parametrize(
    ("said", "size"),
    [
        ("12/2 nonsuch 60' attic to an outlet", "12-2"),
        ("dishwasher on 12-2, 30' crawl", "12-2"),
        ("microwave circuit: 12-2, 28' basement, up 4' to the outlet", "12-2"),
    ],
)
def test_a_cable_is_known_by_its_size(said: str, size: str) -> None:
    job, told = line(said)
    assert {leg.size for leg in job.ways[0].legs} == {size}
    assert ("nonsuch is taken to be building cable" in " ".join(told)) is ("nonsuch" in said)


@pytest.mark.parametrize(("said", "serves", "use"), [
    ("bathroom circuit 20a 35' crawl", "", "bath"), ("laundry circuit 20a 30' basement", "", "laundry"),
    ("backup generator inlet 30 amp outside, 15' basement", "generator", ""),
    ("generator inlet box L14-30, 20' through the basement", "generator", ""),
    ("level 2 charger 40 amp, 40' attic", "vehicle", ""), ("security light at the back door, 25' attic", "", ""),
    ("outlet at the garden gate 60' trench", "", ""), ("light at the back door 25 ft attic", "", ""),
])  # fmt: skip
def test_as_it_is_called(said: str, serves: str, use: str) -> None:
    job, _ = line(said)
    (box,) = job.boxes
    assert (box.serves, box.use) == (serves, use)
    assert box.kind == ("equipment" if serves else "light" if "light" in said else "receptacle")


def test_a_shop_sub_panel_is_that_of_a_shop() -> None:
    job, _ = line('shop 60 amp sub panel, 110\' trench, 18" deep, 1" pvc')
    assert (len(job.panels), job.structures[-1].kind, job.circuits[0].breaker_a) == (2, "shop", 60)


@pytest.mark.parametrize(
    ("said", "material"),
    [
        ("sub-panel S 90a, 60' crawl in 2-2-2-4 ser al", "al"),
        ("sub-panel S 90a, 60' crawl in 2-2-2-4 al ser", "al"),
        ("sub-panel S 90a, 2-2-2-4 aluminum ser 60' crawl", "al"),
        ("60' crawl in ser 2-3 aluminum to sub-panel S 90a", "al"),
        ("feed sub-panel S with 2-2-2-4 al ser, 60' crawl, 90 amp breaker", "al"),
        ('shop 100a 200\' trench 24" deep in 2" pvc with aluminum', "al"),
        ("sub-panel S 90a, 60' crawl in 2-2-2-4 copper ser", "cu"),
        ("60' crawl in 6-3 to sub-panel Al 50a", "cu"),  # a name
    ],
)
def test_the_metal_of_a_cable_is_that_of_its_circuit(said: str, material: str) -> None:
    job, _ = line(said)
    assert job.circuits[0].material == material
    if material == "al":  # 90 A of No. 2 by 310.16 at 75 °C, as copper would bear 115
        assert "wire-smaller" not in {item.code for item in plan(job).findings}


@pytest.mark.parametrize(
    ("said", "amps", "load_w", "nema"),
    [
        ("ev charger 60 amp breaker 4-3 50' crawl", 60, 48 * 240, ""),
        ("ev charger 48 amp, 60 amp breaker, 50' crawl", 60, 48 * 240, ""),
        ("car charger 40a 30' attic", 50, 40 * 240, ""),
        ("car charger outside on the garage wall 50a, 14-50, 12' stud wall", 50, 40 * 240, "14-50"),
    ],
)
def test_amperes_of_a_breaker_are_not_those_of_a_charger(said: str, amps: float, load_w: float, nema: str) -> None:
    job, _ = line(said)
    assert (job.circuits[0].breaker_a, job.boxes[0].load_w, job.boxes[0].nema) == (amps, load_w, nema)


def test_a_circuit_to_a_shed_is_no_feeder() -> None:
    """A branch circuit of 20 A behind GFCI lies 12 in deep (300.5(A), column 4); a feeder 18 or more in pipe."""
    job, told = line("add a circuit to the shed, 20 amps, 60' trench 12\" deep in uf, gfci")
    (box,), (shed,) = job.boxes, [item for item in job.structures if item.kind == "shed"]
    assert box.structure == shed.id and len(job.panels) == 1 and "sub-panel" in " ".join(told)
    assert not [item.code for item in plan(job).findings if item.severity == "stop"]
    assert len(line("60 amp circuit to a barn, 60' trench 18\" deep")[0].panels) == 2
    assert len(line("feed the shed 30a 60' trench 18\" deep")[0].panels) == 2


@pytest.mark.parametrize(
    ("said", "where", "use"),
    [
        ("outlet under the window in the living room, 25' crawl", "under the window", "common"),
        ("garage door opener outlet in the ceiling 20a gfci 30' attic", "ceiling", "garage"),
        ("bathroom circuit: 20a, 35' crawl, 4' up to a gfci outlet by the sink", "by the sink", "bath"),
        ("freezer, 15 amp, own circuit, 25' basement", "", ""),
    ],
)
def test_where_it_stands_is_no_way(said: str, where: str, use: str) -> None:
    job, _ = line(said)
    (box,) = job.boxes
    assert (box.where, box.use) == (where, use)
    assert box.protects == ("gfci" if "a gfci outlet" in said else "")


@pytest.mark.parametrize(
    "said", ["sub panel in the basement 60 amps 15' 6-3", "sub panel in the basement, 60a, 15' 6-3"]
)
def test_where_a_panel_stands_is_no_leg(said: str) -> None:
    job, _ = line(said)
    assert [(leg.length_in, leg.size, leg.supposed) for leg in job.ways[0].legs] == [(180, "6-3", True)]


def test_what_turns_a_shed_on_a_branch_circuit_off_is_asked() -> None:
    """225.31: for a circuit that comes from another building a switch there does (225.36)."""
    job, _ = line("20a circuit to a shed, 60' trench 12\" deep in uf, gfci")
    shed = job.structures[-1]
    (asked,) = [item for item in plan(job).findings if item.code == "building-off"]
    assert asked.section == "225.31, 225.36" and asked.subject == shed.id
    for kind in ("switch", "disconnect"):
        item = {"id": "b9", "name": "S-9", "kind": kind, "structure": shed.id}
        with_it = edited(job, {"op": "add", "kind": "box", "item": item})
        assert "building-off" not in {found.code for found in plan(with_it).findings}
    indoors, _ = line("outlet 20a 20' stud wall")
    assert "building-off" not in {item.code for item in plan(indoors).findings}


@pytest.mark.parametrize(
    "said", ["15a 30' attic to a smoke alarm in the hall, then 12' to a smoke alarm in the bedroom"]
)
def test_from_one_alarm_to_the_next_go_three_wires(said: str) -> None:
    """The third tells the others (IRC R314.4)."""
    job, _ = line(said)
    assert [leg.size for way in job.ways for leg in way.legs] == ["14-2", "14-3"]
    assert not [item.code for item in plan(job).findings if item.severity == "stop"]
