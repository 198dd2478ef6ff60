"""Each rule about circuits and panels: a case that breaks it, and that its first mend mends it."""

from __future__ import annotations

import pytest

from levelrun.core.circuits.cables import cable_needs
from levelrun.core.circuits.chain import tree_of
from levelrun.core.circuits.codes import CODES as CIRCUITS
from levelrun.core.circuits.spaces import leg_of, occupied
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import built, edited, found
from tests.core.circuits.home import case, home


def _partners(job: Job) -> Job:
    one, two = job.circuits[:2]
    return edited(job, *({"op": "set", "kind": "circuit", "id": a.id, "set": {"partner": b.id}}
                         for a, b in ((one, two), (two, one))))  # fmt: skip


def _lent(job: Job) -> Job:
    hops = [{"box": hop.box, "after": None} for hop in job.circuits[0].chain]
    return edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[1].id, "set": {"chain": hops}})


CASES = {
    "old-room": case("1 15a afci Den: R-1 R-2", ("box", "R-1", {"old": True})),
    "old-ground": case("1 15a afci Den: R-1 R-2", ("box", "R-1", {"old": True}),
                       ("circuit", "Den", {"equipment_ground": False})),
    "circuit-unplaced": case("1 20a Den: R-1", ("circuit", "Den", {"space": None})),
    "panel-short": case("1 20a A; circuit 2 20a B; circuit 3 20a C", ("circuit", "C", {"space": None}),
                        P={"spaces": 2}),
    "space-taken": case("1 20a A; circuit 1 20a B"),
    "space-past": case("9 20a A", P={"spaces": 8}),
    "tandem-plain": case("1 20a A; put 1 on 3a"),
    "breaker-wire": case("1 20a Den: R-1", ("circuit", "Den", {"wire_size": "14"})),
    "aluminum-branch": case("1 15a Den: R-1", ("circuit", "Den", {"material": "al", "wire_size": "12"})),
    "whip-small": case("1 20a Den: R-1", ("circuit", "Den", {"whip_size": "14"})),
    "four-wires": case("1/3 50a Range: RG", ("circuit", "Range", {"neutral": False})),
    "plug-rating": case("1 20a Den: R-1", ("box", "R-1", {"nema": "L5-30"})),
    "gfci-missing": case("1 20a plain Bath: B-1"),
    "afci-missing": case("1 20a plain Den: R-1 R-2"),
    "bonded-sub": case("feed Q from 1 60a", ("panel", "Q", {"bonded": True})),
    "main-unbonded": case("1 20a Den: R-1", P={"bonded": False, "disconnect_elsewhere": False}),
    "service-unsaid": case("1 20a Den: R-1", P={"bonded": False}),
    "bus-small": case("1 20a Den: R-1", P={"main_a": 200.0, "bus_a": 125.0}),
    "nameplate-wire": case("1/3 30a nameplate mca 24 Pump: GE", ("circuit", "Pump", {"wire_size": "14"})),
    "nameplate-breaker": case("1/3 50a mca 24 mocp 40 Pump: GE"),
    "afci-outlet": case("1 15a plain Den: R-1 R-2", ("circuit", "Den", {"method": "raceway"}),
                        ("box", "R-1", {"protects": "afci"})),
    "ground-bar": case("feed Q from 1 60a", ("panel", "Q", {"ground_bar": False})),
    "neutral-holes": case("1 20a Den: R-1; circuit 2 20a Bath: B-1", P={"neutral_holes": 1}),
    "feeder-three": case("feed Q from 1 60a", ("circuit", "Q feeder", {"neutral": False})),
    "main-over": case("1/3 50a with neutral Range: RG", ("box", "RG", {"load_w": 90_000.0}), P={"main_a": 30.0}),
    "multiwire-leg": _partners(case("1 20a A; circuit 2 20a B")),
    "multiwire-tie": _partners(case("1 20a A; circuit 3 20a B")),
    "generator-interlock": case("1/3 30a with neutral Inlet: GE"),
    "sharing": case("1/3 50a with neutral Range: RG DR"),
    "required-shares": case("1 20a dual Counter: K-1 R-1"),
    "required-asked": read_text("panel H 200a 30 spaces\ngarage light and outlet 30' attic"),
    "required-20": case("1 15a dual Bath: B-1"),
    "service-small": case("1 20a dual Den: R-1", P={"main_a": 60.0}),
    "disconnects-many": built(
        "; ".join(f"circuit in Q {n} 20a gfci S{n}" for n in range(1, 8)),
        case("feed Q from 1 60a", ("panel", "Q", {"main_a": None})),
    ),
    "outdoor-shares": case("1 20a dual Den: L-1 O-1"),
    "circuit-over": case("1/3 50a Heater: GE",
                         ("box", "GE", {"serves": "space_heater", "load_w": 13_000.0, "continuous": False})),
    "circuit-high": case("1/3 50a Heater: GE", ("box", "GE", {"serves": "space_heater", "load_w": 11_000.0})),
    "heaters-over": edited(
        read_text("panel H 200a 30 spaces\n2 baseboard heaters 1500w 240v 40' crawl"),
        {"op": "set", "kind": "circuit", "id": "c1", "set": {"breaker_a": 40.0, "wire_size": "8"}},
    ),
    "boxes-many": case("1 20a dual Den: R-1 R-2 B-1 K-2"),
    "circuit-drop": case("1 20a dual Den: R-1", ("box", "R-1", {"load_w": 1500.0}),
                         ("circuit", "Den", {"chain": [{"box": "b1", "after": None, "length_in": 1200.0}]})),
    "chain-broken": case("1 20a dual Den: R-1 R-2", ("circuit", "Den", {"chain": [{"box": "b1", "after": "b2"},
                                                                                  {"box": "b2", "after": "b1"}]})),
    "box-twice": _lent(case("1 20a dual Den: R-1 R-2; circuit 2 20a dual Other: B-1")),
    "hop-short": case("1 20a dual Den: R-1", ("circuit", "Den", {"chain": [{"box": "b1", "length_in": 12.0}]})),
    "switch-apart": case("1 15a afci Lights: L-1; circuit 3 15a afci Switches: S-1 L-3"),
    "supply-two": case("feed Q from 1 60a; circuit in P 5 20a gfci Store: SH",
                       ("circuit", "Store", {"method": "UF-B"})),
    "supply-small": built("; ".join(f"circuit in Q {n} 20a gfci S{n}" for n in range(1, 4)),
                          case("feed Q from 1 60a", ("panel", "Q", {"main_a": 30.0}))),
    "cable-across": case("5 20a gfci Store: SH"),
    "multiwire-device": _partners(case("1 20a gfci A; circuit 3 20a afci B")),
    "disconnect-sight": case("1/3 30a Heater: GE", ("box", "GE", {"serves": "water_heater"})),
    "disconnect-small": case("1/3 50a Heater: GE",
                             ("box", "GE", {"kind": "disconnect", "serves": "", "rating_a": 30.0})),
    "interlock-nowhere": case("1/3 30a with neutral Inlet: GE", ("box", "GE", {"interlock": True}),
                              P={"main_a": None, "disconnect_elsewhere": True, "bonded": False}),
    "ground-holes": case("1 20a dual Den: R-1; circuit 3 20a dual Other: R-2", P={"ground_holes": 1}),
    "hole-small": case("1/3 50a with neutral Range: RG", ("circuit", "Range", {"wire_size": "6"}),
                       P={"hole_max": "8"}),
    "three-way-lone": case("1 15a afci Lights: S-3 L-3"),
}  # fmt: skip
NO_MEND = {
    "drop-at-breaker", "place-unsaid", "space-unsaid", "feeder-small", "nameplate-unsaid",
    "lug-small", "lug-asked", "old-outlets", "white-hot", "box-loose", "circuits-wanted", "all-dark", "old-else",
    "old-breaker", "old-label",
}  # fmt: skip


@pytest.mark.parametrize("code", CASES)
def test_each_rule_speaks_and_its_first_mend_mends(code: str) -> None:
    job = CASES[code]
    if code == "boxes-many":
        habits = job.habits.model_dump() | {"boxes_per_circuit": 3}
        job = edited(job, {"op": "set_job", "set": {"habits": habits}})
    said = found(job, code)
    assert said, [(item.code, item.title) for item in plan(job).findings if item.severity != "note"]
    assert said[0].section and said[0].mends
    before = {(item.subject, item.title) for item in said}
    after = {(item.subject, item.title) for item in found(edited(job, *said[0].mends[0].edits), code)}
    assert (said[0].subject, said[0].title) not in after
    assert code == "main-over" or after < before


def test_rules_without_a_mend_speak_too() -> None:
    fed = case("feed Q from 1 60a wire 1/0", ("panel", "Q", {"lug_max": "2", "main_a": None, "bus_a": 50.0}))
    assert {"lug-small", "feeder-small"} <= {item.code for item in plan(fed).findings}
    started = case("1 15a afci Lights: S-1 L-1 L-2 L-3")
    assert {"all-dark", "circuits-wanted", "box-loose"} <= {item.code for item in plan(started).findings}


def test_every_code_has_a_case() -> None:
    assert set(CASES) | NO_MEND | {"panel-unplaced"} == set(CIRCUITS), "the last stands with the ways of the frame"


def _walked_to_r2(across: str) -> Job:
    job = case("1 15a afci Den: R-2")
    circuit = job.circuits[0]
    way = {"id": "way1", "name": "Den", "start": job.panels[0].id}
    walk = {
        "op": "walk",
        "way": "way1",
        "text": f"up 4' stud wall in 14-2; over {across} attic; down 5' stud wall to R-2",
    }
    route = {"op": "route", "circuit": circuit.id, "box": circuit.chain[0].box, "path": ["way1"]}
    return edited(job, {"op": "add", "kind": "way", "item": way}, route, walk)


def test_a_path_is_no_shorter_than_its_boxes_stand_apart() -> None:
    assert not found(_walked_to_r2("20'"), "path-short")
    short = found(_walked_to_r2("4'"), "path-short")[0]
    assert short.measured == "4′"


def test_rows_meet_the_legs_in_turn_and_a_double_pole_meets_both() -> None:
    """Common practice, no source: rows of a panel alternate, so two spaces below each other are on both legs."""
    assert [leg_of(space) for space in range(1, 9)] == ["A", "A", "B", "B", "A", "A", "B", "B"]
    for space in range(1, 40):
        assert {leg_of(space), leg_of(space + 2)} == {"A", "B"}


def test_tandems_double_only_where_the_panel_takes_them() -> None:
    job = case("1 20a A; circuit 2 20a B; circuit 3 20a C", ("circuit", "C", {"space": None}),
               P={"spaces": 2, "tandem_spaces": [1]})  # fmt: skip
    short = found(job, "panel-short")[0]
    assert [mend.label for mend in short.mends] == ["Tandem on 1", "A panel of 12 spaces"]
    doubled = edited(job, *short.mends[0].edits)
    assert (
        not found(doubled, "panel-short") and not found(doubled, "tandem-plain") and not found(doubled, "space-taken")
    )
    assert occupied(doubled.panels[0], doubled.circuits).free == []
    guarded = [{"op": "set", "kind": "circuit", "id": c.id, "set": {"protection": "afci"}} for c in job.circuits]
    assert "Tandem" not in found(edited(job, *guarded), "panel-short")[0].mends[0].label, "a tandem would lose it"


def test_first_outlet_protects_all_downstream_and_loses_it_when_the_order_changes() -> None:
    job = case("1 20a plain Bath: B-1 O-1")
    first = found(job, "gfci-missing")[0].mends[1]
    assert first.label == "At first outlet B-1"
    guarded = edited(job, *first.edits)
    assert not found(guarded, "gfci-missing")
    turned = built("chain O-1 B-1 on 1", built("unchain O-1 B-1", guarded))
    assert found(turned, "gfci-missing")[0].measured == "1 outlets without"


def test_editions_ask_for_what_they_ask() -> None:
    """210.8(A)(6): every kitchen receptacle in 2023, only the counter's in 2020 (from memory)."""
    job = case("1 20a afci Kitchen: K-2")
    assert found(job, "gfci-missing")
    older = edited(job, {"op": "set_job", "set": {"rules": "us-2020"}})
    assert not found(older, "gfci-missing")
    counter = case("1 20a afci Kitchen: K-1")
    assert found(edited(counter, {"op": "set_job", "set": {"rules": "us-2020"}}), "gfci-missing")


def test_three_conductor_cables_where_travellers_and_loops_run() -> None:
    """Common practice, no source: 14-3 between three-ways, 14-3 down to a switch fed from its light, 14-2 else."""
    job = home("1 15a afci Lights: S-1 L-1")
    job = built("set three-way south 8' as S-8; set three-way north 12' as S-9", job, room=job.rooms[0].id)
    boxes = {box.id: box for box in job.boxes}
    named = {box.name: box.id for box in job.boxes}

    def counts(*hops: tuple[str, str | None]) -> list[int]:
        chain = [{"box": named[box], "after": named[after] if after else None} for box, after in hops]
        circuit = edited(job, {"op": "set", "kind": "circuit", "id": "c1", "set": {"chain": chain}}).circuits[0]
        needs = cable_needs(circuit, tree_of(circuit, {}), boxes)
        return [needs[hop.box].count for hop in circuit.chain]

    assert counts(("S-1", None), ("L-1", "S-1")) == [2, 2]
    assert counts(("S-8", None), ("S-9", "S-8"), ("L-1", "S-9")) == [2, 3, 2]
    assert counts(("L-1", None), ("S-1", "L-1")) == [2, 3]
    assert counts(("S-1", None), ("L-1", "S-1"), ("R-1", "L-1")) == [2, 3, 2]


def test_a_chain_with_a_box_twice_or_in_a_loop_is_told_never_a_crash() -> None:
    job = case("1 20a dual Den: R-1 R-2")
    hops = [{"box": "b1", "after": "b2"}, {"box": "b2", "after": "b1"}, {"box": "b1", "after": None}]
    looped = edited(job, {"op": "set", "kind": "circuit", "id": "c1", "set": {"chain": hops}})
    assert found(looped, "chain-broken")
    with pytest.raises(ValueError, match="does not exist"):
        edited(job, {"op": "set", "kind": "circuit", "id": "c1", "set": {"chain": [{"box": "nope"}]}})
    with pytest.raises(ValueError, match="greater than 0"):
        edited(job, {"op": "set", "kind": "circuit", "id": "c1", "set": {"breaker_a": -20.0}})
    with pytest.raises(ValueError, match="twice"):
        edited(job, {"op": "chain", "circuit": "c1", "boxes": ["b1", "b1"]})


def test_sentences_about_circuits() -> None:
    job = home("14 20a 120v cold store: R-1 R-2; split 14 at R-2 as Rest; put Rest on 9; pair 14 with 9")
    first, rest = job.circuits
    assert (first.space, first.name, first.wire_size) == (14, "cold store", "12")
    assert (rest.space, rest.partner, first.tied) == (9, first.id, True)
    with pytest.raises(ValueError, match="past the 20 spaces"):
        built("put 14 on 21", job)
    with pytest.raises(ValueError, match="no standard breaker"):
        home("1 22a Den: R-1")
    with pytest.raises(ValueError, match="a box by its name"):
        home("1 20a Den: R-99")
