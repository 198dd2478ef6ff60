"""Box cards by hand: which cable comes in where, colours, joints, re-marked whites; what is asked before one acts."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.roughin.cards import BoxCard, colours_of
from levelrun.core.roughin.panel_card import PanelCard
from levelrun.samples import sample
from tests.conftest import edited


def room(*more: str) -> Job:
    """A den of 12 by 10 ft with a panel, two receptacles in a chain, and what a test adds."""
    job = Job(name="Den")
    for line in (
        "room Den 12' x 10'", "panel in Den north 2' spaces 12 main 100a as Main",
        "set receptacle in Den south 3' as R-1", "set receptacle in Den south 8' as R-2",
        "circuit in Main 1 20a as Den: R-1 R-2", *more,
    ):  # fmt: skip
        job = edited(job, {"op": "say", "text": line})
    return job


def card(job: Job, name: str) -> BoxCard:
    node = next(n for n in job.nodes if n.name == name)
    found = plan(job).record.card(node.id)
    assert isinstance(found, BoxCard)
    return found


def door(job: Job, name: str) -> PanelCard:
    node = next(n for n in job.nodes if n.name == name)
    found = plan(job).record.card(node.id)
    assert isinstance(found, PanelCard)
    return found


def test_a_receptacle_in_the_middle_of_a_chain_by_hand() -> None:
    """Power in at the bottom, one cable on at the top: two blacks, two whites, two grounds, each with a tail; at the
    last box nothing is joined, the wires land on the device."""
    first = card(room(), "R-1")
    assert [(c.letter, c.at, c.text) for c in first.cables] == [
        ("1·1", "bottom", "from Main"),
        ("1·2", "top", "to R-2"),
    ]
    told = {joint.what: joint.text for joint in first.joints}
    assert told == {
        "hot": "two blacks and a tail", "neutral": "two whites and a tail", "ground": "two grounds and a tail",
    }  # fmt: skip
    last = card(room(), "R-2")
    assert last.joints == [] and last.notes == ["Black on brass, white on silver, the ground on the green screw."]


def test_a_school_says_where_power_comes_in() -> None:
    job = room()
    habits = job.habits.model_dump()
    habits["roughin"] = {**habits["roughin"], "enters": "anywhere", "fold": "roll"}
    other = edited(job, {"op": "set_job", "set": {"habits": habits}})
    assert {c.at for c in card(other, "R-1").cables} == {"bottom", "any"}
    assert "Rolled tight to the back" in [step.title for step in card(other, "R-1").steps]
    assert "Folded like an accordion" in [step.title for step in card(job, "R-1").steps]


def test_a_heater_without_neutral_has_its_white_remarked() -> None:
    """240 V on two wires: the white is a hot (200.7(C)); at a receptacle with a neutral it is none."""
    box = {"id": "h9", "name": "H-9", "kind": "junction", "structure": room().structures[0].id}
    job = edited(room(), {"op": "add", "kind": "box", "item": box})
    circuit: dict[str, Any] = {
        "id": "c9", "name": "Heater", "panel": job.panels[0].id, "space": 3, "poles": 2, "volts": 240,
        "neutral": False, "chain": [{"box": "h9"}],
    }  # fmt: skip
    heated = card(edited(job, {"op": "add", "kind": "circuit", "item": circuit}), "H-9")
    wires = heated.cables[0].wires
    assert sorted((w.colour, w.marked) for w in wires) == [("black", False), ("white", True)]
    assert "marked" in [step.key for step in heated.steps] and any("200.7(C)" in note for note in heated.notes)
    assert "marked" not in [step.key for step in card(room(), "R-1").steps]


def test_every_wire_of_the_demo_is_in_a_joint_or_on_a_device() -> None:
    """Colours and joints of all boxes agree with what enters them: as many wires as the cable has, one neutral white,
    and no colour twice in a cable."""
    job = sample("quince-hollow")
    record = plan(job).record
    for box in job.boxes:
        for item in record.entering.get(box.id, ()):
            colours = [wire.colour for wire in colours_of(item)]
            assert len(colours) == max(item.count, len(item.words))
            if item.cable:
                assert len(set(colours)) == len(colours), (box.name, colours)
            assert all(wire.colour == "white" for wire in colours_of(item) if wire.what == "neutral")
        found = record.card(box.id)
        assert isinstance(found, BoxCard)
        for joint in found.joints:
            grounds = joint.what == "ground"
            most = len(found.cables) if grounds else sum(len(c.wires) for c in found.cables)
            assert 1 <= len(joint.colours) <= most


def test_travellers_stay_on_the_same_colours_along_their_run() -> None:
    job = sample("quince-hollow")
    switches = [box for box in job.boxes if box.kind == "switch" and box.ways == 3]
    assert switches
    for box in switches:
        found = card(job, box.name)
        assert any("Travellers black and red" in note for note in found.notes), box.name


@pytest.mark.parametrize(
    ("model", "asked"), [("single-shallow", True), ("single-18", False)],
)  # fmt: skip
def test_a_connector_is_asked_for_where_the_box_is_steel(model: str, asked: bool) -> None:
    job = room()
    box = next(b for b in job.boxes if b.name == "R-1")
    job = edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {"model": model}})
    keys = [ask.key for ask in card(job, "R-1").asks]
    assert ("ask_connector" in keys) is asked and "ask_through" in keys


def test_the_strap_of_a_range_is_asked_about_and_that_of_a_heater_is_not() -> None:
    job = room("set receptacle in Den west 3' as RG")
    box = next(b for b in job.boxes if b.name == "RG")
    job = edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {"serves": "range", "nema": "14-50"}})
    circuit = {
        "id": "c9", "name": "Range", "panel": job.panels[0].id, "space": 5, "poles": 2, "volts": 240,
        "breaker_a": 50, "wire_size": "6", "chain": [{"box": box.id}],
    }  # fmt: skip
    job = edited(job, {"op": "add", "kind": "circuit", "item": circuit})
    assert "ask_strap" in [ask.key for ask in card(job, box.name).asks]
    plain = edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {"serves": "space_heater"}})
    assert "ask_strap" not in [ask.key for ask in card(plain, box.name).asks]


def test_a_panel_has_one_neutral_a_screw_and_says_what_stays_live() -> None:
    job = sample("quince-hollow")
    main, sub = door(job, "Panel H"), door(job, "Panel S")
    for panel in (main, sub):
        screws = [row.neutral for row in panel.screws if row.neutral.startswith("screw")]
        assert len(set(screws)) == len(screws) == sum(
            c.neutral for c in job.circuits if c.panel == panel.node and c.partner is None
        ) + len({min(c.id, c.partner) for c in job.circuits if c.panel == panel.node and c.partner})  # fmt: skip
    assert sub.sub and "stay apart" in sub.bond and "ask_bond" in [ask.key for ask in sub.asks]
    assert not main.sub and "Ask first" in main.bond, (
        "nobody is told to bond where nobody said that it is the service"
    )
    assert "stay live" in main.live and "feeder" in sub.live


def test_a_torque_off_its_label_is_asked_about_and_one_near_it_is_not() -> None:
    """The shop's 10 per cent: 36 against 40 is at it, 35 under it."""
    job = edited(room(), {"op": "torque", "node": room().panels[0].id, "at": "1", "lb_in": 36, "label_lb_in": 40})
    assert not door(job, "Main").screws[0].off
    assert "torque-off" not in [f.code for f in plan(job).findings]
    off = edited(job, {"op": "torque", "node": job.panels[0].id, "at": "1", "lb_in": 35, "label_lb_in": 40})
    assert door(off, "Main").screws[0].off
    said = next(f for f in plan(off).findings if f.code == "torque-off")
    assert (said.measured, said.limit, said.severity) == ("35 lb-in", "40 lb-in", "check")
