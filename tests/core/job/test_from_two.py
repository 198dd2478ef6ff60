"""Jobs of format 2, where runs stood beside circuits, brought up: nothing that was said is lost."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from levelrun.core.job import Job
from levelrun.core.job.from_two import woven
from levelrun.core.plan import plan
from levelrun.exchange.job_file import read_job
from levelrun.samples import sample

OLD = Path(__file__).parents[2] / "old" / "quince-hollow-2.json"
LATER = {
    "facts": True,
    "fished": True,
    "supposed": True,
    "shapes": True,
    "radius_in": True,
    "feed": True,
    "stands_off": True,
    "along": True,
    "end": {"edge"},
}
PANELS = [{"id": "p", "spaces": 20}, {"id": "q", "spaces": 8}]


def run(ident: str, start: str, *ends: str, **said: Any) -> dict[str, Any]:
    """A run of format 2 through boxes."""
    legs = [{"method": "NM-B", "end": {"kind": "box", "node": end}} for end in ends]
    usual = {"name": ident, "circuit": "3", "volts": 120, "breaker_a": 20.0, "load_a": 0.0, "wire_size": "12"}
    return {
        **usual,
        "conductors": 2,
        "neutral": True,
        "gfci": False,
        "id": ident,
        "start": start,
        "legs": legs,
        **said,
    }


def circuit(*chain: tuple[str, str | None], **said: Any) -> dict[str, Any]:
    hops = [{"box": box, "after": after, "length_in": None} for box, after in chain]
    usual = {
        "id": "c",
        "name": "C",
        "panel": "p",
        "space": 3,
        "poles": 1,
        "volts": 120,
        "wire_size": "12",
        "neutral": True,
    }
    return {**usual, "chain": hops, **said}


def hops(found: dict[str, Any]) -> list[tuple[str, str | None, tuple[str, ...]]]:
    return [(hop["box"], hop.get("after"), tuple(hop.get("path", ()))) for hop in found["chain"]]


def test_the_demo_of_format_2_is_planned_with_all_that_it_held() -> None:
    """Its parts are those of today, but for what was asked since: a light at each entrance, the lights of the shed on
    the circuit that feeds it. What it stopped at then it stops at today."""
    before, now = read_job(OLD.read_bytes()), sample("quince-hollow")
    for field in ("structures", "rooms", "openings", "fixtures", "panels", "ways"):
        assert [part.id for part in getattr(before, field)] == [part.id for part in getattr(now, field)], field
    assert {box.id for box in before.boxes} <= {box.id for box in now.boxes}
    assert {circuit.id for circuit in before.circuits} - {circuit.id for circuit in now.circuits} == {"c9"}
    stops = [{(f.code, f.subject) for f in plan(job).findings if f.severity == "stop"} for job in (before, now)]
    later = {("wall-no-receptacle", "m1"), ("electrode-second", "cabin"), ("coil-short", "12-2 NM-B"),
             ("closed-early", "m10.0"), ("reading-off", "ch14")}  # fmt: skip
    assert len(stops[1]) == 16 and stops[1] - later <= stops[0]


def test_the_demo_keeps_every_run_as_a_way_with_its_legs() -> None:
    raw, job = json.loads(OLD.read_text()), read_job(OLD.read_bytes())
    assert [way.id for way in job.ways] == [item["id"] for item in raw["runs"]]
    for way, item in zip(job.ways, raw["runs"], strict=True):
        assert (way.name, way.start) == (item["name"], item["start"])
        assert [leg.model_dump(mode="json", exclude=LATER) for leg in way.legs] == [
            {key: value for key, value in leg.items() if key != "facts"} for leg in item["legs"]
        ]
    taken = {way for c in job.circuits for hop in c.chain for way in hop.path}
    assert taken == {way.id for way in job.ways}, "every run belongs to a circuit"
    loads = {c.name: c.load_a for c in job.circuits}
    assert loads["Cold-store shed"] == 8 and loads["Kiln shop feeder"] == 34


def test_a_run_becomes_the_way_of_its_circuit_and_its_boxes_come_in() -> None:
    """A splice box that only the run knew stands in the chain before the box behind it."""
    ways, (found,) = woven(PANELS, [run("r", "p", "j", "a", "b")], [circuit(("a", None), ("b", "a"))])
    assert hops(found) == [("j", None, ("r",)), ("a", "j", ("r",)), ("b", "a", ("r",))]
    assert ways == [{"id": "r", "name": "r", "start": "p", "legs": run("r", "p", "j", "a", "b")["legs"]}]


def test_a_run_that_goes_on_from_a_box_belongs_to_the_same_circuit() -> None:
    runs = [run("r2", "a", "b"), run("r1", "p", "a")]
    _, (found,) = woven(PANELS, runs, [circuit()])
    assert hops(found) == [("a", None, ("r1",)), ("b", "a", ("r2",))]


def test_a_run_without_a_circuit_makes_one_from_what_it_said() -> None:
    said = run(
        "r",
        "p",
        "a",
        circuit="5/7",
        volts=240,
        breaker_a=30.0,
        wire_size="10",
        load_a=17.0,
        neutral=False,
        nameplate=True,
    )
    _, (found,) = woven(PANELS, [said], [])
    wanted = {
        "panel": "p",
        "space": 5,
        "poles": 2,
        "volts": 240,
        "breaker_a": 30.0,
        "wire_size": "10",
        "load_a": 17.0,
    }
    assert found | wanted | {"nameplate": True, "neutral": False} == found
    assert hops(found) == [("a", None, ("r",))]


@pytest.mark.parametrize("text", ["", "shed", "21", "3"])
def test_a_label_that_is_no_free_space_leaves_the_breaker_out(text: str) -> None:
    """Space 3 is another breaker's, space 21 is past the panel."""
    taken = circuit(("z", None), id="other", panel="p", space=3, name="Other")
    taken["panel"] = "p" if text == "3" else "q"
    taken["half"] = ""
    said = run("r", "p", "a", circuit=text)
    found = woven(PANELS, [said], [taken])[1]
    if text == "3":
        assert hops(found[0]) == [("z", None, ()), ("a", None, ("r",))], "the same label is the same breaker"
    else:
        assert found[1]["space"] is None


def test_a_run_to_a_panel_is_a_feeder() -> None:
    _, (found,) = woven(PANELS, [run("r", "p", "j", "q", volts=240, conductors=3)], [])
    assert found["feeds"] == "q" and hops(found) == [("j", None, ("r",)), ("q", "j", ("r",))]


def test_what_the_two_said_differently_is_kept() -> None:
    """Another wire and more conductors go to the hop; ground-fault protection upstream, the greater load and the
    nameplate to the circuit."""
    said = run("r", "p", "a", wire_size="10", conductors=4, gfci=True, load_a=9.0, nameplate=True)
    _, (found,) = woven(PANELS, [said], [circuit(("a", None), protection="afci", load_a=4.0)])
    assert (found["protection"], found["load_a"], found["nameplate"]) == ("dual", 9.0, True)
    assert found["wire_size"] == "12" and found["chain"][0]["wire_size"] == "10"
    assert found["chain"][0]["conductors"] == 4


def test_a_job_without_a_panel_keeps_its_ways() -> None:
    ways, circuits = woven([], [run("r", "x", "a")], [])
    assert len(ways) == 1 and circuits == []


@pytest.mark.parametrize("runs", [7, [7], [{"id": "r"}], [{"id": "r", "start": "p", "legs": [3]}], {"a": 1}])
def test_nonsense_of_format_2_is_refused_in_words(runs: object) -> None:
    raw = {"format": "levelrun-job", "format_version": 2, "name": "X", "runs": runs, "panels": [{"id": "p"}]}
    with pytest.raises(ValueError, match="job"):
        read_job(json.dumps(raw))


def test_the_newest_format_says_so() -> None:
    assert Job(name="New").format_version == 3
