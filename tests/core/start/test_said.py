"""The line that starts a job as it is spoken: other words and another order, the same job."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from levelrun.core.boxes.machines import BY_NAME
from levelrun.core.circuits.usual import usual
from levelrun.core.codebook import load
from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan as plan_of
from levelrun.core.start.kinds import WIRED
from tests.conftest import built, edited

HOUSE = built("panel H 150a 24 spaces taken 1-16 18")


def line(text: str, job: Job = HOUSE) -> Job:
    return built(f"from {text}", job)


# What is spoken: the same in the fewest words.
SAID = {
    "run 40' of attic to a bath outlet": "H 40' attic to outlet in bath",
    "add an outlet, 20' of wall": "H 20' stud wall to outlet",
    "run 12-2 30' through the attic to a bedroom outlet": "H 30' attic in 12-2 to outlet in bedroom",
    "run 12/2 from H 30' through the attic to a bedroom outlet": "H 30' attic in 12-2 to outlet in bedroom",
    "10-3 uf 40' trench 24\" deep to a shed 30a": "H 40' trench 24\" deep in uf 10-3 to a shed 30a",
    "pull 6-3 to a range, 38' of crawl": "H 38' crawl in 6-3 to range",
    "i need a 50 amp garage outlet, 24' of garage wall in emt": "H 24' garage wall in emt to outlet 50a in garage",
    "wire a heat pump, 26' crawl, 24 mca 40 mocp": "H 26' crawl to heat pump mca 24 mocp 40",
    "a bath outlet, 12' attic, down 8' stud wall, on a 20 amp breaker": (
        "H 12' attic then down 8' stud wall to outlet 20a in bath"
    ),
    "an outlet, 20' wall, 20 amps": "H 20' stud wall to outlet 20a",
    "24' of garage wall to a vehicle of 48 A": "H 24' garage wall to vehicle 48a",
    "22' along the garage wall in 3/4 emt conduit to a car charger 48a": (
        "H 22' garage wall in emt 3/4 to vehicle 48a"
    ),
    "20' garage wall in 3/4\" thinwall to a garage outlet": "H 20' garage wall in emt 3/4 to outlet in garage",
    "12' of attic, 8' down the wall to a bath outlet": "H 12' attic then down 8' stud wall to outlet in bath",
    "12' of attic and 8' down the wall to a bath outlet": "H 12' attic then down 8' stud wall to outlet in bath",
    "12' over the ceiling 8' down the wall to a hall outlet": (
        "H 12' ceiling then down 8' stud wall to outlet in hall"
    ),
    "up the wall 8', through the attic 22', down the wall 6' to an outlet": (
        "H up 8' stud wall then 22' attic then down 6' stud wall to outlet"
    ),
    "bath outlet 20a: 12' of attic, 8' down the wall": "H 12' attic then down 8' stud wall to outlet in bath 20a",
    "a dryer, 22' of basement ceiling in 10/3": "H 22' basement in 10-3 to dryer",
    "40' of basement joists, 6' of outside wall to a heat pump of mca 18.4 max 25": (
        "H 40' basement then 6' outside wall to heat pump mca 18.4 mocp 25"
    ),
    "40' in the crawl then 6' of siding to a mini-split, 18.4 mca, 25 amp max breaker": (
        "H 40' crawl then 6' outside wall to heat pump mca 18.4 mocp 25"
    ),
    "15' wall in 6/3 nm cable to a 50 amp range": "H 15' stud wall in nm-b 6-3 to range 50a",
    "24' of garage wall to a 48 amp car charger": "H 24' garage wall to vehicle 48a",
    "17' wall in 10/2 to a water heater of 4500 watts": "H 17' stud wall in 10-2 to water heater 18.75a",
    "20 amp circuit for a freezer in the garage, 30' through the attic": "H 30' attic to freezer 20a in garage",
    "22 1/2' of stud wall to an outlet": "H 22'6 stud wall to outlet",
    "22½ ft of stud wall to an outlet": "H 22'6 stud wall to outlet",
    "35' crawl & up 6' to a range": "H 35' crawl then up 6' stud wall to range",
    "8' up the wall 20' attic 6' down to a bath outlet": (
        "H up 8' stud wall then 20' attic then down 6' stud wall to outlet in bath"
    ),
    "100' of trench at 24\" deep in uf 10/2 to a well pump, mca 12 max 20": (
        "H 100' trench 24\" deep in uf-b 10-2 to well pump mca 12 mocp 20"
    ),
    "60' in the ground, 18\" deep, in 1 inch pvc pipe to a shed of 60 amps": (
        "H 60' trench 18\" deep in pvc40 1 to shed Shed 60a"
    ),
    "30' wall in ser 6-3 to a new sub panel called S 60a": "H 30' stud wall in ser 6-3 to sub-panel S 60a",
    "35' crawl and up 4' in the wall to the dishwasher": (
        "H 35' crawl then up 4' stud wall to outlet for dishwasher"
    ),
    "30' wall to an outlet on a 20 amp circuit for the table saw 16a in the garage": (
        "H 30' stud wall to outlet 20a for table saw 16a in garage"
    ),
}  # fmt: skip


@pytest.mark.parametrize(("spoken", "short"), SAID.items(), ids=SAID)
def test_the_same_job(spoken: str, short: str) -> None:
    made, wanted = line(spoken), line(short)
    names = {"circuits": made.circuits[-1].name.casefold(), "ways": made.ways[-1].name.casefold()}
    assert names == {"circuits": wanted.circuits[-1].name.casefold(), "ways": wanted.ways[-1].name.casefold()}
    apart = {"name"}
    for kind in ("structures", "panels", "boxes"):
        assert getattr(made, kind) == getattr(wanted, kind), kind
    assert made.circuits[-1].model_dump(exclude=apart) == wanted.circuits[-1].model_dump(exclude=apart)
    assert made.ways[-1].model_dump(exclude=apart) == wanted.ways[-1].model_dump(exclude=apart)


@pytest.mark.parametrize(
    ("said", "word", "told"),
    [
        ("40' floor joists to outlet", "floor", "crawl, basement or ceiling joists"),
        ("43' trench 16' in pvc40 to pump", "in", '"deep" after a second length'),
        ("attic to outlet", "to", "has no unit|a length"),
        ("bath outlet", "", "how far it is and through what"),
        ("40' attic to bananas", "bananas", "what stands at the end"),
        ("20' wall 20' to outlet", "to", '"deep" after a second length'),
        ("20' wall in pvc41 to outlet", "pvc41", "a method"),
        ("basemnt 40' to outlet", "basemnt", "a panel or a box by its name"),
        ("20' wall to outlet 22a", "22a", "no standard breaker"),
        ("0' wall to outlet", "0", "longer than 0"),
    ],
)
def test_what_could_be_meant_otherwise_is_refused_where_it_stands(said: str, word: str, told: str) -> None:
    """A depth without its word, a place that could be two: nothing is guessed that is bought or judged by it."""
    with pytest.raises(LevelRunError, match=told) as refused:
        line(said)
    if isinstance(refused.value, TextError):
        assert f"from {said}"[refused.value.at or 0 :].startswith(word)


@pytest.mark.parametrize(
    ("said", "place", "method"),
    [
        ("12' to outlet", "stud_wall", "NM-B"), ("30' emt to a welder", "shop_surface", "EMT"),
        ("charger 48a 40'", "shop_surface", "EMT"), ("well pump 1 hp 150'", "trench", "UF-B"),
        ("yard light 100' uf", "trench", "UF-B"), ("shop 60a 110'", "trench", "PVC40"),
        ("14-2 up 8', 30' along the block wall to an outlet", "masonry_inside", "NM-B"),
    ],
)  # fmt: skip
def test_a_length_without_its_place_is_taken_as_usual_and_asked_until_it_is_said(
    said: str, place: str, method: str
) -> None:
    """What nobody said is a question, no stop; it stays one until it is answered, as taken or otherwise."""
    job, _ = said_on(HOUSE, f"from {said}", Looked())
    leg = job.ways[0].legs[0]
    assert (leg.place, leg.method, leg.supposed) == (place, method, True)
    (asked,) = [item for item in plan_of(job).findings if item.code == "place-asked"]
    assert asked.severity == "check" and len(asked.mends) >= 3
    for mend in asked.mends:
        after = edited(job, *mend.edits)
        assert not after.ways[0].legs[0].supposed
        assert "place-asked" not in {item.code for item in plan_of(after).findings}
    places = [edited(job, *mend.edits).ways[0].legs[0].place for mend in asked.mends]
    assert places[0] == place and len(set(places)) == len(places)


@pytest.mark.parametrize("said", ["12' stud wall to outlet", "up 8', 20' attic to outlet", "12' attic to outlet"])
def test_where_its_place_is_said_nothing_is_asked(said: str) -> None:
    assert "place-asked" not in {item.code for item in plan_of(line(said)).findings}


def test_a_cable_is_never_supposed_to_be_a_length() -> None:
    with pytest.raises(LevelRunError):
        line("12-2 to outlet")
    job = line("fish 12-2 up 8', 25' attic, fish down 6' to bedroom outlet")
    assert [(leg.length_in, leg.size, leg.fished) for leg in job.ways[0].legs] == [
        (96, "12-2", True), (300, "12-2", False), (72, "12-2", True),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("amps", "volts"), [("15a", 120), ("20a", 120), ("30a", 240), ("50a", 240), ("30a 120v", 120)]
)
def test_a_wide_outlet_is_of_240_v_and_that_is_told(amps: str, volts: int) -> None:
    """An outlet of 30 A at 120 V is a trailer's (NEMA TT-30): it has to be said."""
    job, looked = said_on(HOUSE, f"from 20' wall to outlet {amps} in garage", Looked())
    assert job.circuits[-1].volts == volts
    assert bool(looked.told) is (volts == 240)


def test_a_figure_of_the_nameplate_is_read_on_both_sides_of_its_word() -> None:
    for text in (
        "mca 18.4 mocp 25",
        "18.4 mca 25 mocp",
        "18.4a mca, 25a mop",
        "minimum circuit ampacity 18.4 max fuse 25",
    ):
        made = line(f"40' crawl to heat pump {text}").circuits[-1]
        assert (made.least_ampacity_a, made.largest_breaker_a) == (18.4, 25), text
    both = line("40' crawl to heat pump 30a mca 18.4 mocp 40").circuits[-1]
    assert (both.breaker_a, both.least_ampacity_a, both.largest_breaker_a) == (30, 18.4, 40)


@pytest.mark.parametrize("word", [w for w, kind in WIRED.items() if kind.box.get("serves") and w not in BY_NAME])
def test_a_machine_by_its_name_is_that_of_the_table_of_loads(word: str) -> None:
    kind, row = WIRED[word], usual(load("us-2023"), WIRED[word].box["serves"])
    assert (kind.volts, kind.breaker_a) == (row.volts, row.breaker_a)
    job = line(f"30' of wall to a {word} in shop")
    (box,), (circuit,) = job.boxes, job.circuits
    assert (box.serves, circuit.name, circuit.volts) == (kind.box["serves"], word.capitalize(), row.volts)
    assert circuit.breaker_a == row.breaker_a
    assert not [item for item in plan_of(job).findings if item.severity == "stop"]


@pytest.mark.parametrize(
    ("said", "breaker", "wire", "size"),
    [
        (
            "30' wall to a kiln 48a in shop",
            60,
            "4",
            "4-3",
        ),  # 48 x 1.25 = 60; No. 6 of 60 C carries 55; no 4-2 is made
        ("30' wall in emt to a kiln 48a in shop", 60, "6", "3/4"),  # No. 6 of 75 C carries 65
        ("30' wall to a kiln 36a in shop", 45, "6", "6-2"),  # 36 x 1.25 = 45; No. 8 of 60 C carries 40
        ("30' wall to outlet 240v for kiln 36a in shop", 45, "6", "6-2"),
        ("30' wall to a bath heater 1500 w in bath", 20, "12", "12-2"),
        ("30' wall to a baseboard heater 3.6 kw in hall", 20, "12", "12-2"),  # 15 A for hours: 18.75
        ("30' wall to a furnace in basement", 15, "14", "14-2"),
        ("30' wall to outlet for planer 2880w 240v in shop", 20, "12", "12-2"),  # 12 A: the volts may come after
    ],
)
def test_what_is_on_for_hours_gets_the_breaker_and_wire_for_it(said: str, breaker: int, wire: str, size: str) -> None:
    """Table 310.16 and 210.20(A), from memory: 125 % of a continuous load."""
    job = line(said)
    (circuit,) = job.circuits
    assert (circuit.breaker_a, circuit.wire_size, job.ways[0].legs[0].size) == (breaker, wire, size)
    assert not [item.code for item in plan_of(job).findings if item.code in ("circuit-high", "ampacity-short")]


@pytest.mark.parametrize(
    ("said", "kind", "serves", "use"),
    [
        ("a kitchen counter outlet", "receptacle", "counter", "kitchen"),
        ("a bathroom outlet", "receptacle", "", "bath"),
        ("the garage door opener", "receptacle", "opener", "garage"),
        ("a 30a dryer outlet", "receptacle", "dryer", "laundry"),
        ("a light in the hall", "light", "", "hall"),
        ("a laundry outlet for the washer", "receptacle", "washer", "laundry"),
    ],
)
def test_the_room_and_the_use_of_an_end(said: str, kind: str, serves: str, use: str) -> None:
    (box,) = line(f"20' wall to {said}").boxes
    assert (box.kind, box.serves, box.use) == (kind, serves, use)


def test_from_a_box_its_circuit_is_drawn_out() -> None:
    """20 ft to R-1, 8 ft on: 96 + 8 + 8 + 6 + 4.8 = 122.8 in, 11 ft of the circuit's own No. 14; no new breaker."""
    first = line("20' wall in 14/2 to a bedroom outlet 15a")
    job = line("R-1 8' of wall to a bedroom outlet", first)
    (circuit,) = job.circuits
    assert [(hop.box, hop.after) for hop in circuit.chain] == [("b1", None), ("b2", "b1")]
    way = job.ways[-1]
    assert (way.start, circuit.chain[1].path) == ("b1", (way.id,))
    assert [(leg.length_in, leg.size, leg.end.node) for leg in way.legs] == [(96.0, "14-2", "b2")]
    (cut,) = next(plan for plan in plan_of(job).ways if plan.summary.id == way.id).whole.cuts
    assert cut.figure.text == "11′"
    assert circuit.model_dump(exclude={"chain"}) == first.circuits[0].model_dump(exclude={"chain"})
    branched = line("R-1 6' of wall to a bedroom outlet", job).circuits[0]
    assert [(hop.box, hop.after) for hop in branched.chain] == [("b1", None), ("b2", "b1"), ("b3", "b1")]


@pytest.mark.parametrize(
    ("said", "told"),
    [
        ("R-1 8' wall to outlet 20a", "R-1 is on Outlet, whose breaker and wire are said there"),
        ("R-1 8' wall to a dryer", "R-1 is on Outlet of 120 V; a dryer wants 240"),
        ("R-1 8' wall to a sub-panel S", "a sub-panel here begins at a panel"),
        ("R-1 8' wall to heat pump mca 10 max 15", "a heat pump begins at a panel"),
        ("R-9 8' wall to outlet", "a panel or a box by its name"),
        ("R-2 8' wall to outlet", "R-2 is on no circuit"),
    ],
)
def test_what_cannot_be_drawn_out_of_a_box_is_refused(said: str, told: str) -> None:
    first = line("20' wall in 14/2 to a bedroom outlet 15a")
    job = built("room Den 10' x 10'; set receptacle north 3' as R-2", first)
    with pytest.raises(LevelRunError, match=told):
        line(said, job)


@pytest.mark.parametrize("order", ["1500w 240v", "240v 1500w", "240v 1.5 kw"])
def test_watts_are_of_the_volts_wherever_they_are_said(order: str) -> None:
    (box,) = line(f"30' wall to outlet for heater {order} in hall").boxes
    assert box.load_w == 1500


@pytest.mark.parametrize(
    ("end", "kind", "use", "breaker"),
    [
        ("a ceiling fan in bedroom", "fan", "bedroom", 15), ("the bath fan", "fan", "bath", 15),
        ("attic fan on a 20a breaker", "fan", "attic", 20), ("a smoke alarm in the hall", "smoke", "hall", 15),
        ("a sump pump in basement", "receptacle", "basement", 20), ("garage freezer", "receptacle", "garage", 20),
    ],
)  # fmt: skip
def test_fans_alarms_and_what_is_plugged_in_are_ends(end: str, kind: str, use: str, breaker: int) -> None:
    job = line(f"20' wall to {end}")
    (box,), (circuit,) = job.boxes, job.circuits
    assert (box.kind, box.use, circuit.breaker_a, circuit.volts) == (kind, use, breaker, 120)


@pytest.mark.parametrize(
    ("end", "nema", "breaker", "volts", "wire"),
    [
        ("RV outlet", "TT-30", 30, 120, "10"), ("an rv plug outside", "TT-30", 30, 120, "10"),
        ("a 50 amp RV outlet", "14-50", 50, 240, "8"), ("camper outlet 20a", "", 20, 120, "12"),
    ],
)  # fmt: skip
def test_what_a_motor_home_plugs_into(end: str, nema: str, breaker: int, volts: int, wire: str) -> None:
    """30 A of 120 V, or 50 A of both (NEC 551.81); out of doors, behind GFCI (210.8(A)(3))."""
    job = line(f"25' outside wall in pvc to {end}")
    (box,), (circuit,) = job.boxes, job.circuits
    assert (box.nema, circuit.breaker_a, circuit.volts, circuit.wire_size) == (nema, breaker, volts, wire)
    assert (box.outdoors, circuit.protection, circuit.neutral) == (True, "gfci", True)
    assert circuit.name in ("RV outlet", "RV plug", "Camper outlet")
    assert not [item.code for item in plan_of(job).findings if item.severity == "stop"]


@pytest.mark.parametrize(
    ("end", "told"),
    [
        ("kitchen outlets", "say how many: `3 kitchen"),
        ("smoke alarms", "say how many"), ("30 outlets", "from R-1|say how many"),
    ],
)  # fmt: skip
def test_several_things_are_refused_and_told_how_to_go_on(end: str, told: str) -> None:
    with pytest.raises(TextError, match=told) as refused:
        line(f"20' wall to {end}")
    assert refused.value.at == len("from 20' wall to ")


@pytest.mark.parametrize("end", ["a hot tub 50a", "pool pump", "spa", "an outlet for hot tub 50a", "50a hot tub"])
def test_water_that_people_sit_in_is_said_to_be_held_by_no_rule_here(end: str) -> None:
    """What is not known kills: nothing is worked out, and it is said why."""
    with pytest.raises(TextError, match="article 680") as refused:
        line(f"30' wall to {end}")
    assert "licensed" in refused.value.message
    assert line("30' wall to an outlet 20a for pool table").boxes[0].kind == "receptacle"  # its near miss


def test_an_end_that_is_not_known_is_pointed_at_whatever_follows() -> None:
    for more in ("", " in bedroom", " 20a"):
        with pytest.raises(TextError, match="what stands at the end") as refused:
            line(f"20' attic to gizmo{more}")
        assert refused.value.at == len("from 20' attic to ") and "outlet" in refused.value.allowed
    assert len(line("20' attic to LB then 10' attic to outlet").ways[0].legs) == 2


@pytest.mark.parametrize(
    "text", ["20' gizmo to foo", "20' attic to LB then 5' gizmo to foo", "to foo", "gizmo to foo"]
)
def test_a_word_that_is_no_way_is_pointed_at_before_its_end(text: str) -> None:
    with pytest.raises(TextError) as refused:
        line(f"H {text}")
    wrong = "gizmo" if "gizmo" in text else "foo"
    assert refused.value.at == len("from H ") + text.index(wrong)


# Aluminum at 40 °C: 310.16 and 310.15(B)(1), No. 4 is 55 A at 60 °C and takes 60 A by 240.4(B); sizes as cabled
# wire is made (common practice, no source): after 2 comes 1/0.
@pytest.mark.parametrize(("amps", "size"), [(60, "4-3"), (100, "1/0-3")])
def test_overhead_is_cabled_aluminum_of_a_size_that_is_made(amps: int, size: str) -> None:
    job = line(f"12' stud wall, 55' overhead to shop {amps}a")
    (circuit,) = job.circuits
    inside, span = job.ways[0].legs
    assert (span.method, span.size, span.place) == ("OVERHEAD", size, "overhead")
    assert (circuit.material, circuit.wire_size) == ("al", size.rpartition("-")[0])
    assert inside.size.startswith(circuit.wire_size)
    codes = {item.code for item in plan_of(job).findings}
    assert {"box-needed", "span-unsaid"} <= codes  # a head between the two, and how high it hangs
    assert not codes & {"method-not-allowed", "size-unknown", "wire-small", "cable-small"}


@pytest.mark.parametrize(
    ("said", "breaker", "wire", "size"),
    [
        ("30' crawl in 14-2 to outlet", 15, "14", "14-2"),  # 240.4(D): 15 A on 14
        ("30' crawl in 12-2 to outlet", 20, "12", "12-2"),
        ("30' crawl in 10-2 to outlet", 20, "10", "10-2"),  # larger wire is no reason for a larger breaker
        ("25' crawl in 6-3 to a sub-panel S", 50, "6", "6-3"),  # 55 A at 60 °C (334.80): a load of 60 is not borne
        ("25' crawl in 6-3 to a sub-panel S 60a", 60, "6", "6-3"),  # said, and 60 A is the next rating (240.4(B))
        ("17' wall in 10-2 to a water heater of 4500 watts", 25, "10", "10-2"),
        ("30' crawl to a sub-panel S 100a", 100, "2", "2-3"),  # No. 3 would do; SER is not made with it
    ],
)
def test_the_cable_that_is_said_decides_the_breaker_that_is_not(
    said: str, breaker: int, wire: str, size: str
) -> None:
    job = line(said)
    (circuit,), (leg,) = job.circuits, job.ways[0].legs
    assert (circuit.breaker_a, circuit.wire_size, leg.size) == (breaker, wire, size)
    assert [f.title for f in plan_of(job).findings if f.severity == "stop"] == []


@pytest.mark.parametrize(
    "said", ["30' crawl in 14-2 to outlet 20a", "17' wall in 12-2 to a water heater of 4500 watts"]
)
def test_a_cable_too_small_for_what_is_said_stops_and_is_mended(said: str) -> None:
    job = line(said)
    stops = {f.code: f for f in plan_of(job).findings if f.severity == "stop"}
    assert {"ampacity-short", "breaker-wire"} <= set(stops)
    assert any("Wire it in" in mend.label for mend in stops["breaker-wire"].mends)


def test_a_shop_that_is_not_drawn_is_protected_as_a_garage() -> None:
    """210.8(A)(2): garages and accessory buildings at grade; which of them it is, nobody said."""
    job = line("40' block wall in emt to shop outlet 20a")
    assert job.circuits[0].protection == "gfci"
    bare = edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"protection": "plain"}})
    assert "gfci-missing" in {f.code for f in plan_of(bare).findings}
    drawn = built("room Loom 12' x 10' as shop; set receptacle north 5' as R-1; circuit 19 20a R-1", HOUSE)
    assert "gfci-missing" not in {f.code for f in plan_of(drawn).findings}  # its near miss: a room of the house


@pytest.mark.parametrize(
    ("said", "methods", "boxes"),
    [
        ("12' basement then 60' trench 24\" deep to an outdoor outlet", ["UF-B", "UF-B"], 0),
        ("12' wall then 100' trench 18\" deep in pvc40 to a barn 200a", ["PVC40", "PVC40"], 0),
        ("12' crawl then 60' trench 18\" deep to a shed Shed 60a", ["PVC40", "PVC40"], 0),
        ("40' attic then 8' down outside wall to a mini split 18.4 mca 25 max", ["NM-B", "PVC80", "LFNC"], 1),
        ("40' attic then 8' down stud wall to outlet", ["NM-B", "NM-B"], 0),
    ],
)
def test_a_method_that_nobody_said_is_not_spliced_on_the_way_and_stops_nothing(
    said: str, methods: list[str], boxes: int
) -> None:
    """Underground cable may lie in a house, pipe begins at the panel; where neither goes, a box is put and told."""
    job, look = said_on(HOUSE, f"from {said}", Looked(), "from")
    assert [leg.method for leg in job.ways[0].legs] == methods
    assert sum(box.kind == "junction" for box in job.boxes) == boxes == sum("junction" in told for told in look.told)
    assert [f.title for f in plan_of(job).findings if f.severity == "stop"] == []


def test_what_stands_in_another_building_is_no_panel_of_that_name() -> None:
    way = "60' trench 12\" deep in uf 12-2"
    with pytest.raises(TextError, match="no shed stands in this job yet: say `structure shed Shed`"):
        line("60' attic in 12-2 to a shed light 20a gfci")
    there = built("structure shed Shed", HOUSE)
    job = line(f"{way} to a shed light 20a gfci", there)
    (box,), (circuit,) = job.boxes, job.circuits
    assert (box.kind, box.structure, circuit.feeds) == ("light", there.structures[-1].id, None)
    assert len(job.panels) == 1, "no second panel"
    assert [f.code for f in plan_of(job).findings if f.severity == "stop"] == []  # 12 in do with GFCI (300.5)
    deep = line("60' trench 18\" deep in pvc40 to a shed Shed 60a")  # its near miss: the building itself
    assert deep.circuits[0].feeds == deep.panels[-1].id


def test_the_example_on_the_first_page_is_a_whole_way() -> None:
    """What the empty line shows is read, goes up and down, stops nothing and forgets no feet."""
    page = (Path(__file__).parents[3] / "web" / "src" / "stages" / "start" / "StartStage.vue").read_text()
    (example,) = re.findall(r"\|\| `([^`]+ outlet)`", page)
    job = line(example)
    found = plan_of(job).findings
    assert [f.title for f in found if f.severity == "stop"] == [] and "climb-unsaid" not in {f.code for f in found}
    assert {leg.go for leg in job.ways[0].legs} == {"up", "over", "down"} and job.boxes[0].height_in > 0


@pytest.mark.parametrize("end", ["a shed outlet", "an outlet in the shed"])
def test_a_shed_at_the_end_of_a_trench_stands_apart(end: str) -> None:
    """One branch circuit, no panel, no rods (250.32(A) exception); a shed to which no way goes through the yard is
    asked for. What turns it off is asked (225.31)."""
    job = line(f"40' trench 18\" deep in 3/4 pvc to {end}")
    (box,), shed = job.boxes, job.structures[-1]
    assert (shed.kind, shed.name, box.structure, len(job.panels)) == ("shed", "Shed", shed.id, 1)
    asked = {item.code for item in plan_of(job).findings if item.severity == "check"}
    assert job.circuits[0].protection == "gfci" and plan_of(job).stops == 0 and len(asked) == 2, asked
    assert line(f"40' trench 18\" deep in 3/4 pvc to {end}", job).structures == job.structures, "it stands already"


def test_an_outlet_behind_a_light_has_the_protection_that_it_wants() -> None:
    way = "60' trench 24\" deep in uf 12-2"
    assert line(f"{way} to a shed light and an outlet 5' away").circuits[0].protection == "gfci"
    assert line(f"{way} to a shed light and a switch 5' away").circuits[0].protection == "plain"
