"""A circuit that was there before and is drawn out: what is added is judged and bought, what stood there is asked."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.api.contract import answer_of
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.exchange.text import JobTextError, read_text, reading, write_text
from tests.conftest import edited

HOUSE = "house 1948\npanel M 100a 16 spaces taken 1-14 in basement\n"
LINE = "from existing outlet in bedroom on 5 {}, 14' stud wall to outlet in closet"


def drawn_out(said: str = "15a") -> Job:
    return read_text(HOUSE + LINE.format(said))


def codes(job: Job) -> dict[str, str]:
    return {item.code: item.severity for item in plan(job).findings}


def test_one_line_says_the_old_outlet_its_circuit_and_what_is_added() -> None:
    job = drawn_out()
    (circuit,), (old, new) = job.circuits, job.boxes
    assert (circuit.space, circuit.breaker_a, circuit.wire_size) == (5, 15, "14")
    assert (old.old, old.use, new.old, new.use) == (True, "bedroom", False, "closet")
    assert [(hop.box, hop.after) for hop in circuit.chain] == [(old.id, None), (new.id, old.id)]
    assert job.panels[0].taken == (1, 2, 3, 4, *range(6, 15))  # the space is no longer one of other work


def test_what_is_asked_of_it() -> None:
    """Arc-fault as for a new one; its box by hand: two 14-2 are 4 x 2, the device 2 x 2, grounds 2: 14 in3."""
    found = {item.code: item for item in plan(drawn_out()).findings}
    assert (found["afci-missing"].severity, found["old-room"].severity) == ("stop", "check")
    assert found["old-room"].limit == "14 in³"
    assert found["old-else"].severity == "note"
    assert "old-ground" not in found and "box-full" not in found


@pytest.mark.parametrize(("said", "stops"), [("15a ungrounded", True), ("15a no ground", True), ("15a", False)])
def test_an_old_circuit_without_a_ground_stops_until_it_has_one(said: str, stops: bool) -> None:
    job = drawn_out(said)
    assert ("old-ground" in codes(job)) is stops
    for item in plan(job).findings:
        if item.code == "old-ground":
            assert "old-ground" not in codes(edited(job, *item.mends[0].edits))


def test_arc_faults_are_kept_off_at_the_breaker_or_at_the_old_outlet() -> None:
    job = drawn_out()
    mends = next(item for item in plan(job).findings if item.code == "afci-missing").mends
    assert [mend.label for mend in mends] == ["Arc-fault breaker", "At first outlet R-1"]
    for mend in mends:
        assert not any(severity == "stop" for severity in codes(edited(job, *mend.edits)).values())


def test_a_new_circuit_has_no_such_outlet() -> None:
    """The near miss: on a home run of cable that is new, an outlet gives no arc-fault protection (210.12(A))."""
    job = read_text(HOUSE + "from M 20' stud wall to outlet in bedroom")
    plain = edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"protection": "plain"}})
    (found,) = [item for item in plan(plain).findings if item.code == "afci-missing"]
    assert [mend.label for mend in found.mends] == ["Arc-fault breaker"]
    assert not {"old-room", "old-ground", "old-else"} & codes(plain).keys()


def test_its_box_is_judged_once_it_is_said_what_it_is() -> None:
    job = drawn_out()
    for mend in next(item for item in plan(job).findings if item.code == "old-room").mends:
        after = codes(edited(job, *mend.edits))
        assert "old-room" not in after and "box-full" not in after
    small = edited(job, {"op": "set", "kind": "box", "id": job.boxes[0].id, "set": {"model": "single-shallow"}})
    assert codes(small)["box-full"] == "stop"  # 14 in 12.5


def test_only_what_is_added_is_bought() -> None:
    """14 ft, 8 in out of each box and 5 %: 17 ft of 14-2, one box with its outlet; no breaker, no cable to the old
    one. An arc-fault breaker, or a device in the place of the old one, is bought."""

    def bought(job: Job) -> dict[str, float]:
        return {row.what: row.count for row in answer_of(job).buy}

    job = drawn_out()
    rows = bought(job)
    assert not any("breaker" in what or "pole" in what for what in rows)
    assert [count for what, count in rows.items() if "receptacle 15 A" in what] == [1]
    circuit = answer_of(job).circuits[0]
    assert [(hop.length_ft, hop.cut_ft) for hop in circuit.hops] == [(None, None), (14.0, 17.0)]
    breaker, device = next(item for item in plan(job).findings if item.code == "afci-missing").mends
    assert any("1-pole 15 A arc-fault" in what for what in bought(edited(job, *breaker.edits)))
    assert any("arc-fault receptacle" in what for what in bought(edited(job, *device.edits)))


def test_an_old_box_on_a_drawn_wall_is_not_judged_and_gets_no_cable() -> None:
    """In a drawn room: no way is drawn to it, nothing is said of its height; the way from it is drawn."""
    text = (
        "room Den 12' x 14'\npanel M 100a 16 spaces on the west wall\nexisting outlet on the north wall 4' at 6\"\n"
        "set receptacle north 8'\ncircuit 5 15a for R-1 and R-2"
    )
    job = read_text(text)
    old, new = job.boxes
    assert old.old and not new.old
    made = plan(job)
    assert {way.found.box for way in made.drawn.ways.values()} == {new.id}
    assert not any(item.subject == old.id for item in made.findings)
    young = edited(job, {"op": "set", "kind": "box", "id": old.id, "set": {"old": False}})
    assert {way.found.box for way in plan(young).drawn.ways.values()} == {old.id, new.id}


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("from existing outlet on 5 15a 14' stud wall to range", "whose breaker|wants 240|of 120 V"),
        ("from existing outlet on 5 22a, 14' stud wall to outlet", "no standard breaker"),
    ],
)
def test_what_is_not_known_of_it_is_asked(line: str, told: str) -> None:
    with pytest.raises(JobTextError, match=told):
        read_text(HOUSE + line)


@pytest.mark.parametrize(
    "lines",
    [
        "from existing outlet in the bedroom 14' stud wall to outlet",
        "existing outlet in the bedroom\nadd an outlet 14' away in the stud wall",
        "existing outlet in the bedroom\nfrom it 14' stud wall to outlet",
    ],
)
def test_an_old_outlet_whose_breaker_nobody_knows_is_planned_on_and_asked(lines: str) -> None:
    """It has a breaker somewhere: no free space is given to it, however full the panel, and none is wanted."""
    job = read_text("panel H 100a 20 spaces taken 1-20\n" + lines)
    (circuit,) = job.circuits
    assert circuit.space is None and len(circuit.chain) == 2
    codes = {item.code for item in plan(job).findings}
    assert "old-breaker" in codes and not codes & {"panel-short", "circuit-unplaced"}
    assert not any(item.severity == "stop" for item in plan(job).findings)
    for said in (f"put {circuit.name} on 5", "R-1 is on 5"):
        known = edited(job, {"op": "say", "text": said})
        assert known.circuits[0].space == 5 and 5 not in known.panels[0].taken
        assert not {"old-breaker", "space-taken"} & {item.code for item in plan(known).findings}


def test_a_new_circuit_without_a_space_wants_one_though_an_old_one_has_none() -> None:
    job = read_text("panel H 100a 20 spaces taken 1-20\nfrom existing outlet 14' stud wall to outlet")
    new = {"op": "add", "kind": "circuit", "item": {"id": "c9", "name": "Den", "panel": job.panels[0].id}}
    short = next(item for item in plan(edited(job, new)).findings if item.code == "panel-short")
    assert short.title == "H is short of 1 space" and "Den" in short.text


GFCI_FOR_OLD = ("replace the two-prong outlet in the bedroom on 3 with a gfci",
                "existing two prong outlet in the bedroom on 3\nreplace it with a gfci")  # fmt: skip


@pytest.mark.parametrize("lines", GFCI_FOR_OLD)
def test_a_gfci_for_an_outlet_without_ground_is_marked(lines: str) -> None:
    """NEC 406.4(D)(2): allowed, and marked; what is added beyond it wants a ground (250.130(C))."""
    job = read_text("panel H 100a 20 spaces\n" + lines)
    assert job.boxes[0].protects == "gfci" and not job.circuits[0].equipment_ground
    assert {item.code for item in plan(job).findings} == {"old-label"}
    more = read_text("panel H 100a 20 spaces\n" + lines + "\nfrom R-1 9' stud wall to outlet in bedroom")
    assert "old-ground" in {item.code for item in plan(more).findings}
    grounded = read_text("panel H 100a 20 spaces\n" + lines.replace("two-prong ", "").replace("two prong ", ""))
    assert "old-label" not in {item.code for item in plan(grounded).findings}


def test_an_old_bath_outlet_is_not_told_to_stand_on_20_a() -> None:
    """The breaker is supposed, the outlet was there; one that is added to it stands on 20 A (210.11(C)(3))."""
    old = read_text("panel H 100a 20 spaces\nexisting outlet in the bath on 7")
    assert "required-20" not in {item.code for item in plan(old).findings}
    more = read_text("panel H 100a 20 spaces\nfrom existing outlet in the bath on 7 6' stud wall to outlet in bath")
    assert "required-20" in {item.code for item in plan(more).findings}


def test_a_breaker_of_which_nothing_is_said_is_the_smallest_and_that_is_told() -> None:
    job, told = reading(HOUSE + LINE.format(""))
    assert job.circuits[0].breaker_a == 15
    assert any("taken to be of 15 A" in item.text for item in told)


def test_two_lines_from_one_old_outlet_are_on_one_circuit() -> None:
    job = read_text(HOUSE + LINE.format("15a") + "\nfrom R-1 9' stud wall to outlet in hall")
    assert len(job.circuits) == 1 and len(job.circuits[0].chain) == 3
    room = next(item for item in plan(job).findings if item.code == "old-room")
    assert room.limit == "18 in³"  # 6 x 2, the device 4, grounds 2
    assert job_book(job).rules == "us-2023"


def test_no_stage_asks_for_what_was_there(client: TestClient) -> None:
    """Runs has no way to be walked to it, Rough-in does not say that it knows its size, Test does not say how long
    the circuit is."""
    job = client.post("/api/jobs", json={"text": HOUSE + LINE.format("15a")}).json()["head"]["id"]

    def stage(name: str, **look: str) -> Any:
        return client.get(f"/api/jobs/{job}/stages/{name}", params=look).json()

    runs = stage("runs")
    assert [row["unwalked"] for row in runs["circuits"]] == [0]
    assert [hop["name"] for hop in runs["hops"]] == ["R-2"]
    assert "its size not said" in str(stage("rough_in", node="b1"))
    proof = stage("test", circuit="c1")
    assert "a length that is not known" in proof["tested"]["source"]
    chain = stage("circuits", circuit="c1")["circuit"]["chain"]
    assert [row["length_text"] for row in chain] == ["was there", "14′"]


def test_it_travels_as_text_and_is_said_of_any_box() -> None:
    job = drawn_out()
    assert read_text(write_text(job)) == job
    assert read_text(HOUSE + LINE.format("15a") + "\nR-2 is old").boxes[1].old


def test_wire_that_goes_by_other_rules_is_not_asked_of_its_box() -> None:
    """Over No. 6 a box goes by 314.28: table 314.16(B) has no row for it, and the plan stands all the same."""
    job = drawn_out()
    heavy = edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"wire_size": "4"}})
    assert "old-else" in codes(heavy) and "old-room" not in codes(heavy)
