"""Several of a kind at the end of one line, and lines that begin at what was there before."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built

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
    with pytest.raises(TextError, match="existing light in the hall on 5"):
        said_on(job, "from the light on 12, 15' attic to a fan", Looked())


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
])  # fmt: skip
def test_as_it_is_called(said: str, serves: str, use: str) -> None:
    job, _ = line(said)
    (box,) = job.boxes
    assert (box.serves, box.use) == (serves, use)
    assert box.kind == ("equipment" if serves else "light" if "light" in said else "receptacle")


def test_a_shop_sub_panel_is_that_of_a_shop() -> None:
    job, _ = line('shop 60 amp sub panel, 110\' trench, 18" deep, 1" pvc')
    assert (len(job.panels), job.structures[-1].kind, job.circuits[0].breaker_a) == (2, "shop", 60)
