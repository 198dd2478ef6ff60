"""Machines by the names that people give them: the table, what stands on it, what a line and a room make of it."""

from __future__ import annotations

from itertools import chain

import pytest

from levelrun.core.boxes.machines import MACHINES, Machine
from levelrun.core.circuits.usual import usual
from levelrun.core.codebook import load
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.site.marking import NAMED
from levelrun.core.start.kinds import KINDS, NOT_HELD, PLUGGED
from tests.conftest import built, edited, found

BOOK = load("us-2023")
HOUSE = built("panel H 200a 40 spaces")
EACH = pytest.mark.parametrize("machine", MACHINES, ids=lambda machine: machine.words[0])


def line(text: str, job: Job = HOUSE) -> Job:
    return built(f"from {text}", job)


def codes(job: Job, severity: str = "stop") -> set[str]:
    return {item.code for item in plan(job).findings if item.severity == severity}


def test_no_name_stands_for_two_things() -> None:
    names = [word.casefold() for machine in MACHINES for word in machine.words]
    others = {*chain.from_iterable(kind.words for kind in KINDS), *PLUGGED, *NOT_HELD}
    assert len(names) == len(set(names))
    assert not {word.casefold() for word in others} & set(names)


@EACH
def test_what_it_usually_draws_fits_what_the_trade_gives_it(machine: Machine) -> None:
    """80 % of the breaker where it is on for hours (210.20(A)), all of it else."""
    row = usual(BOOK, machine.box["serves"]) if "serves" in machine.box else None
    watts = machine.box.get("load_w", row.watts if row else 0.0)
    steady = machine.box.get("continuous", row.continuous if row else False)
    assert watts * (1.25 if steady else 1.0) <= machine.breaker_a * machine.volts
    assert watts > 0 or machine.ask
    assert machine.breaker_a in {float(r["rating_a"]) for r in BOOK.table("240-6-breakers").rows}


@EACH
def test_a_line_to_it_is_whole_and_stops_nowhere(machine: Machine) -> None:
    for word in machine.words:
        said = f"{word} 11 kw" if machine.ask else word
        job = line(f"H 30' attic, 8' down to a {said}")
        (box,), (circuit,) = job.boxes, job.circuits
        assert (circuit.volts, box.kind, circuit.name.casefold()) == (
            machine.volts,
            machine.box["kind"],
            word.casefold(),
        )
        assert circuit.breaker_a == (50 if machine.ask else machine.breaker_a)
        assert box.load_w == (11_000 if machine.ask else machine.box.get("load_w"))
        assert not codes(job), word


@pytest.mark.parametrize(
    ("end", "volts", "breaker", "kind", "serves"),
    [
        ("gas range", 120, 20, "receptacle", ""),
        ("range", 240, 50, "receptacle", "range"),
        ("electric range", 240, 50, "receptacle", "range"),
        ("gas dryer", 120, 20, "receptacle", ""),
        ("electric dryer", 240, 30, "receptacle", "dryer"),
        ("gas water heater", 120, 20, "receptacle", ""),
        ("water heater", 240, 30, "equipment", "water_heater"),
        ("furnace", 120, 15, "equipment", "furnace"),
        ("gas furnace", 120, 15, "equipment", "furnace"),
        ("electric furnace", 240, 60, "equipment", "space_heater"),
        ("electric heat pump", 240, 30, "equipment", "air_conditioner"),
        ("sump pump", 120, 20, "receptacle", "sump_pump"),
        ("well pump", 240, 20, "equipment", "pump"),
        ("grinder pump", 240, 20, "equipment", "pump"),
        ("garage heater", 240, 30, "equipment", "space_heater"),
        ("bath fan", 120, 15, "fan", ""),
    ],
)  # fmt: skip
def test_one_word_more_is_another_machine(end: str, volts: int, breaker: int, kind: str, serves: str) -> None:
    job = line(f"H 30' attic to a {end}")
    box = next(item for item in reversed(job.boxes) if item.kind != "disconnect")
    assert (job.circuits[0].volts, job.circuits[0].breaker_a) == (volts, breaker)
    assert (box.kind, box.serves) == (kind, serves)


@pytest.mark.parametrize(
    ("end", "breaker", "wire"),
    [
        ("electric furnace 15 kw", 80, ""),  # 62.5 A x 1.25 = 78 (424.4(B))
        ("steam shower 9 kw", 50, "6"),  # 37.5 A x 1.25 = 46.9
        ("sauna 4.5kw", 25, "10"),  # 18.75 A x 1.25 = 23.4
        ("tankless water heater 11 kw", 50, "6"),  # 45.8 A, not on for hours; No. 6 of 60 C bears 55
        ("table saw 14a", 20, "12"),
        ("floor heat 15a 240v", 20, "12"),  # 15 A x 1.25 = 18.75
    ],
)  # fmt: skip
def test_what_is_said_of_its_load_decides(end: str, breaker: int, wire: str) -> None:
    circuit = line(f"H 20' stud wall to {end}").circuits[0]
    assert circuit.breaker_a == breaker
    assert not wire or circuit.wire_size == wire


def test_a_nameplate_says_what_it_draws() -> None:
    job = line("H 30' basement to air handler mca 42 max 45")
    (planned,) = plan(job).circuits
    assert (planned.summary.breaker_a, job.boxes[0].load_w) == (45, None)
    assert planned.summary.load_a == pytest.approx(42 / 1.25, abs=0.01)


def test_a_load_that_differs_too_much_is_asked_for() -> None:
    with pytest.raises(LevelRunError, match="say what its nameplate has: `tankless water heater 11 kw`"):
        line("H 20' stud wall to tankless water heater")


@pytest.mark.parametrize("end", ["transfer switch", "solar panels", "elevator", "koi pond", "swim spa", "boat lift"])
def test_what_kills_by_other_rules_is_left_to_others(end: str) -> None:
    with pytest.raises(TextError, match="ask a licensed electrician"):
        line(f"H 20' stud wall to {end}")


def lacks_gfci(text: str, room: str = "") -> bool:
    """Whether a line to it, its breaker plain, is told to lack ground-fault protection."""
    job = line(f"H 20' stud wall to {text}{f' in {room}' if room else ''}")
    plain = {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"protection": "plain"}}
    return "gfci-missing" in codes(edited(job, plain))


@pytest.mark.parametrize(
    ("text", "room", "lacks"),
    [
        ("sump pump", "utility room", True),  # wherever it stands: 210.8(D), 422.5(A)
        ("sewage ejector pump", "utility room", False),
        ("floor heat", "bath", True),  # 424.44, by memory
        ("floor heat", "kitchen", True),
        ("floor heat", "bedroom", False),
        ("towel warmer", "bath", False),  # wired, no receptacle
        ("bidet", "", True),
    ],
)  # fmt: skip
def test_ground_fault_protection_by_what_it_is(text: str, room: str, lacks: bool) -> None:
    assert lacks_gfci(text, room) == lacks


@pytest.mark.parametrize(
    ("end", "nema", "amps"),
    [("welder outlet 6-50", "6-50", 50), ("outlet 14-30", "14-30", 30), ("outlet nema 6-20", "6-20", 20),
     ("charger outlet 14-50", "14-50", 50)],
)  # fmt: skip
def test_a_configuration_without_a_word_before_it(end: str, nema: str, amps: int) -> None:
    """ANSI/NEMA WD 6, from memory."""
    job = line(f"H 20' garage wall in emt to {end}")
    assert (job.boxes[0].nema, job.circuits[0].breaker_a) == (nema, amps)


def test_what_stands_at_a_garage_wall_stands_in_the_garage() -> None:
    made = line("H 20' garage wall in emt to outlet")
    assert (made.boxes[0].use, made.circuits[0].protection) == ("garage", "gfci")
    assert line("H 20' garage wall in emt to outlet in kitchen").boxes[0].use == "kitchen"
    assert line("H 20' garage wall in emt, 30' attic to outlet").boxes[0].use == ""  # it went on


@EACH
def test_it_stands_in_a_drawn_room_by_its_name_and_is_proposed_what_bears_it(machine: Machine) -> None:
    word = next((word for word in machine.words if word not in NAMED), "")  # a fireplace stands along a wall itself
    if machine.ask or not word:
        return
    job = built(f"structure house\nroom Shop 20' x 20'\n{word} on the north wall 6'\npanel H 200a 40 spaces west 4'")
    (box,) = job.boxes
    assert (box.kind, box.serves, box.load_w) == (
        machine.box["kind"], machine.box.get("serves", ""), machine.box.get("load_w"),
    )  # fmt: skip
    proposed = built("propose circuits", job)
    assert len(proposed.circuits) == 1
    assert not {item.code for item in plan(proposed).findings if item.subject == proposed.circuits[0].id} & {
        "load-over", "ampacity", "breaker-wire"
    }  # fmt: skip


def test_tools_of_a_shop_are_shared_out_by_what_they_draw() -> None:
    """Three of 1,100 W are 27.5 A: not on one breaker of 20; of 16 A or less together (80 %) they may be."""
    tools = "\n".join(
        f"{tool} outlet on the {wall} wall {at}'"
        for tool, wall, at in (
            ("table saw", "north", 4), ("drill press", "north", 12), ("lathe", "south", 4),
            ("belt sander", "south", 12), ("grinder", "east", 4),
        )
    )  # fmt: skip
    job = built(f"structure house\nroom Shop 20' x 20'\n{tools}\npanel H 200a 40 spaces west 4'\npropose circuits")
    on = {circuit.name: sum(b.load_w or 0 for b in job.boxes if b.id in {h.box for h in circuit.chain})
          for circuit in job.circuits}  # fmt: skip
    assert on.pop("Table saw") == 1800
    assert len(on) == 3 and all(watts <= 1920 for watts in on.values())
    assert not codes(job)


def test_a_heater_of_which_more_is_said_gets_more_than_the_usual_breaker() -> None:
    job = built("structure house\nroom Den 20' x 20'\nspace heater 5000 w on the north wall 6'\n"
                "panel H 200a 40 spaces west 4'\npropose circuits")  # fmt: skip
    assert job.circuits[0].breaker_a == 30  # 20.8 A x 1.25 = 26 (424.4(B))
    assert not codes(job)


def test_what_is_on_for_hours_counts_so_in_an_outbuilding() -> None:
    """215.2(A)(1): continuous load of a feeder at 125 %, of a sauna as of a kiln."""
    shed = built("panel H 200a 40 spaces\nfrom H 60' trench 18\" deep in pvc40 to shed S 60a")
    steady = built("from S 10' stud wall to sauna heater 4.8 kw", shed)
    (load,) = [panel.load for panel in plan(steady).panels if panel.name != "H"]
    assert load.total_va == pytest.approx(4800 * 1.25)


@pytest.mark.parametrize("said", ["to flux capacitor", "to a 20 amp flux capacitor", "to flux capacitor in the den"])
def test_what_is_not_known_is_an_outlet_or_a_machine_for_it(said: str) -> None:
    with pytest.raises(TextError, match="'flux capacitor', is not known here") as refused:
        line(f"H 20' stud wall {said}")
    ways = refused.value.allowed[:2]
    assert ways == ["outlet for flux capacitor", "machine for flux capacitor"]
    for end in ways:
        assert line(f"H 20' stud wall to {end}").circuits[0].name == "flux capacitor"
    with pytest.raises(TextError, match="expected"):  # the beginning of a dryer
        line("H 20' stud wall to dry")


@pytest.mark.parametrize(
    ("end", "box", "protection"),
    [
        ("gfci outlet in bath", {"protects": "gfci"}, "plain"),
        ("bath gfci outlet", {"protects": "gfci"}, "plain"),
        ("20a gfci outlet in kitchen", {"protects": "gfci"}, "afci"),  # 210.12 asks for the other
        ("bath outlet gfci", {"protects": ""}, "gfci"),  # said behind it is of the breaker
        ("weatherproof outlet outside", {"protects": ""}, "gfci"),
        ("quad outlet in garage", {"gangs": 2, "protects": ""}, "gfci"),
        ("duplex outlet in garage", {"gangs": 1}, "gfci"),
        ("gfci charger", {"kind": "equipment"}, "gfci"),
        ("switch", {"kind": "switch"}, "plain"),
        ("junction box", {"kind": "junction"}, "plain"),
    ],
)  # fmt: skip
def test_what_is_said_before_its_word(end: str, box: dict[str, object], protection: str) -> None:
    job = line(f"H 30' attic, 6' down to a {end}")
    made, circuit = job.boxes[0], job.circuits[0]
    assert ({key: getattr(made, key) for key in box}, circuit.protection) == (box, protection)
    assert not codes(job)


def test_up_and_down_beside_a_trench_is_on_the_outside_wall() -> None:
    """Where it can be hit, so pipe of the thick wall from the trench up (300.5(D))."""
    job = line("H down 4', 60' trench 18\" deep in pvc40, up 4' to outlet outside")
    assert [leg.place for leg in job.ways[0].legs] == ["outside_wall", "trench", "outside_wall"]
    assert [leg.method for leg in job.ways[0].legs] == ["PVC80", "PVC40", "PVC80"]


@pytest.mark.parametrize(
    ("said", "same"),
    [
        ("H 12' garage wall in emt to a 14-50 outlet", "H 12' garage wall in emt to outlet 14-50"),
        ("H 12' garage wall in emt to a nema 6-20 outlet", "H 12' garage wall in emt to outlet nema 6-20"),
        ("H 12' garage wall in emt to a 220 outlet 20a", "H 12' garage wall in emt to outlet 20a 240v"),
        ("H 12' garage wall in emt to a 110 outlet", "H 12' garage wall in emt to outlet 120v"),
        ("the panel 12' stud wall to outlet", "H 12' stud wall to outlet"),
        ("H 18' basement to hot water tank", "H 18' basement to water heater"),
        ("H 25' basement to sub-panel E 60a 8 spaces", "H 25' basement to sub-panel E 60a spaces 8"),
        ("H 20' attic to fan light combo in bath", "H 20' attic to fan light in bath"),
        ("H 25' basement to outside outlet on the back wall", "H 25' basement to outlet on back wall outside"),
    ],
)  # fmt: skip
def test_said_in_other_words(said: str, same: str) -> None:
    def bare(text: str) -> tuple[object, ...]:
        job = line(text)
        return (
            [c.model_copy(update={"name": ""}) for c in job.circuits], job.boxes, job.panels,
            [w.model_copy(update={"name": ""}) for w in job.ways],
        )  # fmt: skip

    assert bare(said) == bare(same)


def test_a_cable_is_no_ten_feet_three() -> None:
    job = built("dryer circuit 30 amp 10-3, about 45 feet through the crawl space", HOUSE)
    (leg,) = job.ways[0].legs
    assert (leg.length_in, leg.size, leg.place, job.circuits[0].breaker_a) == (540, "10-3", "crawl_space", 30)
    assert built("from H 10-3 crawl to dryer", HOUSE).ways[0].legs[0].length_in == 123  # ten feet three


def test_on_from_an_outlet_where_the_way_to_it_lay() -> None:
    job = built("from H 20' stud wall to outlet, then 8' to outlet, then 10' attic to outlet", HOUSE)
    assert [leg.place for way in job.ways for leg in way.legs] == ["stud_wall", "stud_wall", "attic"]
    assert len(job.circuits) == 1 and not codes(job)


@pytest.mark.parametrize("end", ["light", "ceiling fan"])
def test_a_light_with_a_switch_behind_it(end: str) -> None:
    """Power there and back and the neutral at the switch (404.2(C)): three wires behind the light; on goes it from
    the light."""
    job = built(f"from H 30' attic to {end} with a switch by the door", HOUSE)
    lamp, switch = job.boxes
    chain = {hop.box: hop.after for hop in job.circuits[0].chain}
    assert switch.kind == "switch" and chain == {lamp.id: None, switch.id: lamp.id}
    for said in (
        f"from {lamp.name} 8' down stud wall to {switch.name}",
        f"from {lamp.name} 8' down stud wall to switch",
    ):
        whole = built(said, job)
        assert [leg.size for leg in whole.ways[1].legs] == ["14-3"] and len(whole.boxes) == 2
        assert not codes(whole)
    on = built(f"from H 30' attic to {end} with a switch, then 9' attic to light", HOUSE)
    assert {hop.box: hop.after for hop in on.circuits[0].chain}[on.boxes[-1].id] == on.boxes[0].id


def test_a_furnace_is_turned_off_before_it() -> None:
    """Its switch stands before it, and is what turns it off within sight (422.31(C)); a lamp has it behind."""
    job = built("from H 30' crawl in 12-2 to furnace with a switch", HOUSE)
    furnace, switch = sorted(job.boxes, key=lambda box: box.name)
    assert (furnace.serves, switch.kind, switch.outdoors) == ("furnace", "switch", False)
    assert [(hop.box, hop.after, bool(hop.path)) for hop in job.circuits[0].chain] == [
        (switch.id, None, True),
        (furnace.id, switch.id, False),
    ]
    whole = built(f"from {switch.name} 6' stud wall in 12-2 to {furnace.name}", job)
    assert not found(whole, "disconnect-sight")
    assert found(built("from H 30' crawl in 12-2 to furnace", HOUSE), "disconnect-sight")


@pytest.mark.parametrize(
    ("end", "outdoors"),
    [("furnace with a disconnect", False), ("heat pump 18 mca 30 amp max", True), ("mini-split 15 mca 20 max", True)],
)
def test_a_disconnect_stands_where_its_machine_does(end: str, outdoors: bool) -> None:
    job = built(f"from H 30' crawl to {end}", HOUSE)
    assert {box.kind: box.outdoors for box in job.boxes} == {"disconnect": outdoors, "equipment": outdoors}
