"""The eleven kinds of job, each begun by one sentence from a blank page, against answers worked out by hand.

Habits: 42 in of make-up at a panel, 8 at a box, 12 at equipment and outdoors, a loop of 6, 5 % waste of the path;
each piece rounded up to the foot. Drop over the path and the make-up at both ends.

Areas of ch. 9 table 5 (12: 0.0133, 10: 0.0211, 8: 0.0366, 6: 0.0507 in2), pipes of table 4 (EMT 3/4: 0.533, PVC 40
3/4: 0.508, PVC 40 1: 0.832, LFNC-B 1/2: 0.314 in2), ohms of table 8 at 75 °C (12: 1.98, 10: 1.24, 8: 0.778, 6: 0.491
a thousand feet). Grounds by table 250.122. All of the tables are from memory.

Held: cable through a hole every 16 in inside the leg, a staple 8 in from each end; EMT within 36 in of both ends and
every 10 ft (358.30): 31 ft in three spaces of 100 in, 24 ft in two of 108; LFNC within 12 in of both ends and every
3 ft (356.30).
"""

from __future__ import annotations

from dataclasses import dataclass, field

import pytest

from levelrun.core.errors import TextError
from levelrun.core.job import Job, job_book
from levelrun.core.plan import Plan, plan, plan_whole
from levelrun.core.start.kinds import KINDS
from tests.conftest import edited, found

PANEL = "panel H 200a 30 spaces taken 1-14 17 19"


@dataclass(frozen=True, kw_only=True)
class Answer:
    """What comes of one sentence. spaces: as they are called; cuts: pieces and feet; fill and drop in per cent; box:
    cubic inches used; held: what holds each leg; asks: what is left to stop or ask."""

    text: str
    breaker: str
    spaces: str
    wire: str
    ground: str
    cuts: list[tuple[int, int]]
    drop: float
    fill: float | None = None
    box: float | None = None
    held: str
    asks: list[str] = field(default_factory=list)


ANSWERS = {
    # 240 + 42 + 8 + 6 + 12 = 308 in. One free space with none beside it: 15. 2 x 1 A x 20 ft x 1.98. Box: two 12 and
    # a ground of 2.25 each, a device of two: 11.25 in3.
    "outlet": Answer(
        text="from H 20' stud wall in 12-2 to outlet in garage",
        held="14 holes, 2 staples", breaker="20 A, 1-pole, gfci", spaces="15", wire="12",
        ground="12", cuts=[(1, 26)], drop=100 * 2 * 1 * (20 + 50 / 12) * 1.98 / 1000 / 120, box=11.25,
    ),
    # 372 + 42 + 8 + 6 + 18.6 = 446.6 in. The first pair free: 16 and 18. Two 8 and a 10: 0.0943 of 0.533. An outlet
    # of 50 A is two gangs wide: two 8 of 3, four allowances of 3, a ground of 2.5: 20.5 in3.
    "machine": Answer(
        text="from H 31' along block wall in emt 3/4 to outlet 50a 240v for planer 36a",
        held="4 straps", breaker="50 A, 2-pole, plain", spaces="16/18", wire="8", ground="10",
        cuts=[(2, 38), (1, 38)], drop=100 * 2 * 36 * (31 + 50 / 12) * 0.778 / 1000 / 240,
        fill=100 * 0.0943 / 0.533, box=20.5, asks=["place-unsaid"],
    ),
    # 48 A for hours want 60 (210.20(A)). 288 + 42 + 12 + 6 + 14.4 = 362.4 in. Two 6 and a 10: 0.1225 of 0.533.
    "vehicle": Answer(
        text="from H 24' garage wall in emt 3/4 to vehicle 48a",
        held="3 straps", breaker="60 A, 2-pole, plain", spaces="16/18",
        wire="6", ground="10", cuts=[(2, 31), (1, 31)], drop=100 * 2 * 48 * (24 + 54 / 12) * 0.491 / 1000 / 240,
        fill=100 * 0.1225 / 0.533,
    ),
    # 8,000 W by note 4 of table 220.55: 33.3 A. 456 + 42 + 8 + 6 + 22.8 = 534.8 in. Three 6 of 5, a device of two
    # gangs 20, a ground of 2.5: 37.5 in3, more than the two-gang box of 32; in the 4-11/16 square no clamps count.
    "range": Answer(
        text="from H 38' crawl in 6-3 to range",
        held="28 holes, 2 staples", breaker="50 A, 2-pole, gfci", spaces="16/18", wire="6", ground="10",
        cuts=[(1, 45)], drop=100 * 2 * (8000 / 240) * (38 + 50 / 12) * 0.491 / 1000 / 240, box=37.5,
    ),
    # 5,000 W: 20.8 A. 264 + 42 + 8 + 6 + 13.2 = 333.2 in. Three 10 of 2.5, a device of two gangs 10, clamps and a
    # ground of 2.5 each: 22.5 in3.
    "dryer": Answer(
        text="from H 22' stud wall in 10-3 to dryer",
        held="16 holes, 2 staples", breaker="30 A, 2-pole, gfci", spaces="16/18", wire="10",
        ground="10", cuts=[(1, 28)], drop=100 * 2 * (5000 / 240) * (22 + 50 / 12) * 1.24 / 1000 / 240, box=22.5,
    ),
    # Wire by 24 A, breaker by 40; it draws 24/1.25 = 19.2 A (440.33).
    # Cable 312 + 42 + 12 + 6 + 15.6 = 387.6 in to the disconnect; in the whip
    # 48 + 12 + 12 + 6 + 2.4 = 80.4 in. Three 10: 0.0633 of 0.314. Outdoors: 210.8(F).
    "heat-pump": Answer(
        text="from H 26' crawl in 10-2 to heat pump mca 24 mocp 40",
        held="19 holes, 2 staples · 2 straps", breaker="40 A, 2-pole, gfci", spaces="16/18",
        wire="10", ground="10", cuts=[(1, 33), (3, 7)],
        drop=100 * 2 * 24 / 1.25 * (30 + 54 / 12 + 24 / 12) * 1.24 / 1000 / 240,
        fill=100 * 0.0633 / 0.314,
        asks=["method-condition"],  # bored holes or a running board (334.15(C))
    ),
    # 18.75 A for hours: 23.4 within 30. 204 + 42 + 12 + 6 + 10.2 = 274.2 in.
    "water-heater": Answer(
        text="from H 17' stud wall in 10-2 to water heater",
        held="12 holes, 2 staples", breaker="30 A, 2-pole, plain", spaces="16/18", wire="10",
        ground="10", cuts=[(1, 23)], drop=100 * 2 * 18.75 * (17 + 54 / 12) * 1.24 / 1000 / 240,
        asks=["disconnect-sight"],  # or a breaker that locks (422.31(B))
    ),
    # 144 + 42 + 12 + 6 + 7.2 = 211.2 in. It may not feed back: an interlock is asked (702.5).
    "generator": Answer(
        text="from H 12' stud wall in 10-3 to generator inlet",
        held="8 holes, 2 staples", breaker="30 A, 2-pole, plain", spaces="16/18",
        wire="10", ground="10", cuts=[(1, 18)], drop=0.0, asks=["generator-interlock"],
    ),
    # 10/1.25 = 8 A (430.22). 840 + 42 + 12 + 6 + 42 = 942 in. Three 12: 0.0399 of 0.508. 18 in of cover at 240 V
    # (table 300.5).
    "pump": Answer(
        text="from H 70' trench 18\" deep in pvc40 3/4 to pump mca 10 mocp 20",
        held="lies in the trench", breaker="20 A, 2-pole, gfci",
        spaces="16/18", wire="12", ground="12", cuts=[(3, 79)],
        drop=100 * 2 * 10 / 1.25 * (70 + 54 / 12) * 1.98 / 1000 / 240,
        fill=100 * 0.0399 / 0.508,
        asks=["riser-missing", "riser-missing", "disconnect-sight"],
    ),
    # 360 + 42 + 42 + 6 + 18 = 468 in, 39 ft to the inch. Nothing on it yet.
    "sub-panel": Answer(
        text="from H 30' crawl in ser 6-3 to sub-panel S 60a",
        held="22 holes, 2 staples", breaker="60 A, 2-pole, plain", spaces="16/18",
        wire="6", ground="10", cuts=[(1, 39)], drop=0.0,
    ),
    # 720 + 42 + 42 + 6 + 36 = 846 in. Three 6 and a 10: 0.1732 of 0.832.
    "building": Answer(
        text="from H 60' trench 18\" deep in pvc40 1 to building Shed 60a",
        held="lies in the trench", breaker="60 A, 2-pole, plain",
        spaces="16/18", wire="6", ground="10", cuts=[(3, 71), (1, 71)], drop=0.0, fill=100 * 0.1732 / 0.832,
        asks=["riser-missing", "riser-missing", "electrode"],
    ),
}  # fmt: skip


def begun(*texts: str) -> Job:
    job = Job(name="New job")
    for text in texts:
        job = edited(job, {"op": "say", "text": text})
    return job


def asked(planned: Plan) -> list[str]:
    return [item.code for item in planned.findings if item.severity != "note"]


@pytest.mark.parametrize("kind", ANSWERS)
def test_one_sentence_answers_as_worked_out_by_hand(kind: str) -> None:
    want = ANSWERS[kind]
    job = begun(PANEL, want.text)
    planned, building = plan_whole(job, job_book(job))
    circuit, way = planned.circuits[0], planned.ways[0]
    facts = {fact.label: fact.text for fact in circuit.facts}
    assert facts["Breaker"] == want.breaker
    assert circuit.summary.label == want.spaces
    assert facts["Wire"] == f"{want.wire} copper, ground {want.ground}"
    assert [(cut.pieces, round(cut.cut_in / 12)) for cut in way.cuts] == want.cuts
    assert circuit.chain[-1].drop_percent == pytest.approx(want.drop, rel=1e-6, abs=1e-9)
    filled = [pull.fill.percent for pull in way.pulls if pull.fill]
    assert (filled[-1] if filled else None) == (None if want.fill is None else pytest.approx(want.fill, rel=1e-3))
    assert " · ".join(leg.held.text for leg in way.legs) == want.held
    used = [figure.value for figure in building.loose]
    assert used == ([] if want.box is None else [want.box])
    assert asked(planned) == want.asks
    keys = len(want.text.removeprefix("from ")) + 1
    assert keys <= 90, keys
    print(f"{kind}: {keys} keys after the panel's own {len(PANEL.removeprefix('panel ')) + 1}")


def test_every_kind_has_its_answer_and_the_panel_its_45_keys() -> None:
    assert set(ANSWERS) == {kind.key for kind in KINDS}
    assert len(PANEL.removeprefix("panel ")) + 1 <= 45


@pytest.mark.parametrize(
    ("text", "taken", "free"),
    [
        ("panel H 200a 30 spaces taken 1-14 17 19", [*range(1, 15), 17, 19], None),
        ("panel H 200a 30 spaces taken 1-3, 9", [1, 2, 3, 9], None),
        ("panel H taken 5 200a", [5], None),
        ("panel H 200a two free", [], 2),
        ("panel H 200a 0 free", [], 0),
    ],
)
def test_the_panel_that_is_there_is_said_in_three_ways(text: str, taken: list[int], free: int | None) -> None:
    (panel,) = begun(text).panels
    assert (panel.name, panel.main_a, list(panel.taken), panel.free_said) == ("H", 200, taken, free)


def test_what_is_not_known_of_a_panel_stays_a_question() -> None:
    """Two free: enough for two poles, if they stand below each other. One is not."""
    line = "from H 17' stud wall in 10-2 to water heater"
    two = begun("panel H 200a two free", line)
    assert found(two, "space-unsaid")[0].severity == "check" and not found(two, "panel-short")
    assert two.circuits[0].space is None, "no guess which"
    one = begun("panel H 200a 1 free", line)
    assert found(one, "panel-short")[0].severity == "stop" and not found(one, "space-unsaid")


def test_a_breaker_is_not_put_where_another_stands() -> None:
    job = begun(PANEL, "from H 20' stud wall in 12-2 to outlet in garage on 15")
    assert not found(job, "space-taken")
    job = begun(PANEL, "from H 20' stud wall in 12-2 to outlet in garage on 13")
    said = found(job, "space-taken")[0]
    assert "said to be in use" in said.text
    assert not found(edited(job, *said.mends[0].edits), "space-taken")


@pytest.mark.parametrize(
    ("said", "protection", "asks"),
    [("", "plain", ["place-unsaid"]), (" in garage", "gfci", []), (" outside", "gfci", []), (" in hall", "afci", []),
     (" in kitchen", "dual", []), (" in attic", "plain", [])],
)  # fmt: skip
def test_protection_goes_by_the_place_in_words(said: str, protection: str, asks: list[str]) -> None:
    """210.8(A) and 210.12(A) of the 2023 edition; an attic is in neither list."""
    job = begun(PANEL, f"from H 20' stud wall in 12-2 to outlet{said}")
    assert job.circuits[0].protection == protection
    assert [code for code in asked(plan(job)) if code != "smoke-missing"] == asks
    for finding in found(job, "place-unsaid"):
        for mend in finding.mends:
            assert not found(edited(job, *mend.edits), "place-unsaid"), mend.label


def test_legs_one_after_another_and_more_circuits_in_the_same_job() -> None:
    job = begun(PANEL, "from H down 4' stud wall in 12-2 then 20' crawl then up 3' stud wall to outlet",
                "from panel H 12' stud wall in 10-3 to generator inlet")  # fmt: skip
    assert [(leg.go, leg.length_in, leg.place) for leg in job.ways[0].legs] == [
        ("down", 48, "stud_wall"), ("over", 240, "crawl_space"), ("up", 36, "stud_wall"),
    ]  # fmt: skip
    assert job.boxes[0].height_in == 48 - 48 + 36, "where the legs end"
    assert [circuit.space for circuit in job.circuits] == [15, 16]
    assert len({part.id for part in (*job.boxes, *job.ways, *job.circuits)}) == 6


@pytest.mark.parametrize(
    ("said", "serves", "nema", "wire", "neutral", "load"),
    [
        ("outlet 30a 240v for dryer", "dryer", "14-30", "10", True, 5000 / 240),
        ("outlet for range", "range", "14-50", "6", True, 8000 / 240),
        ("outlet 50a 240v for welder", "welder", "6-50", "6", False, 8000 / 240),
        ("outlet 50a 240v for planer 36a", "", "6-50", "8", False, 36.0),
        ("outlet for dryers", "", "", "14", True, 1.0),  # no appliance that the trade knows: a name
    ],
)
def test_an_outlet_for_an_appliance_is_that_appliance_s(
    said: str, serves: str, nema: str, wire: str, neutral: bool, load: float
) -> None:
    """Its neutral, receptacle and usual load come with it; another word is a name."""
    job = begun(PANEL, f"from H 42' crawl to {said}")
    (circuit,), (box,) = job.circuits, job.boxes
    assert (box.serves, box.nema, circuit.neutral) == (serves, nema, neutral)
    if serves:
        assert circuit.wire_size == wire
        assert plan(job).circuits[0].summary.load_a == pytest.approx(load)


@pytest.mark.parametrize(
    ("place", "method"),
    [
        ("stud wall", "NM-B"),
        ("crawl", "NM-B"),  # in bored holes or on a board: said as a check, not another method
        ("attic", "NM-B"),
        ("shop surface", "EMT"),  # where nobody has said that nothing hits it
        ("trench", "UF-B"),
    ],
)
def test_the_method_that_is_taken_where_none_is_said(place: str, method: str) -> None:
    job = begun(PANEL, f"from H 20' {place} to outlet in garage")
    assert job.ways[0].legs[0].method == method


@pytest.mark.parametrize(
    ("legs", "made"),
    [
        # Schedule 80 of 1 in: 0.688 in2 inside; three 6 and a 10 are 0.1732, 25 %. Schedule 40 of 3/4 would do.
        ("down 5' outside then 64' trench 20\" deep in pvc40 then up 4' outside",
         [("PVC80", "1"), ("PVC40", "1"), ("PVC80", "1")]),
        ("64' trench 20\" deep in pvc40 3/4 then up 4' outside", [("PVC40", "3/4"), ("PVC80", "1")]),
        ("20' crawl in nm-b then up 4' stud wall", [("NM-B", "4-3"), ("NM-B", "4-3")]),
    ],
)  # fmt: skip
def test_pipe_goes_on_in_one_size_and_as_what_may_be_there(legs: str, made: list[tuple[str, str]]) -> None:
    job = begun(PANEL, f"from H {legs} to garage G 60a")
    assert [(leg.method, leg.size) for leg in job.ways[0].legs] == made


def test_what_is_said_wins_over_what_is_usual() -> None:
    job = begun(
        PANEL, "from H 20' stud wall in 10-2 to outlet 20a wire 10 plain for freezer 6a in garage as Freezer on 21"
    )
    (circuit,), (box,) = job.circuits, job.boxes
    assert (circuit.wire_size, circuit.protection, circuit.space, circuit.name) == ("10", "plain", 21, "freezer")
    assert (box.name, box.load_w, box.use) == ("Freezer", 720.0, "garage")


@pytest.mark.parametrize(
    ("text", "at", "told"),
    [
        ("from X 20' attic to range", 5, "a panel or a box by its name"),
        ("from H 20' atic to range", 11, "found 'atic'"),
        ("from H twenty attic to range", 7, "expected"),
        ("from H 20' attic in 6-3", 23, "`to` and what stands at the end"),
        ("from H 20' attic to moon", 20, "machine for moon"),
        ("from H 20' attic to outlet 17a", 27, "no standard breaker"),
        ("from H 20' attic to outlet in moon", 30, "a room"),
    ],
)
def test_a_word_that_cannot_be_read_is_pointed_at(text: str, at: int, told: str) -> None:
    with pytest.raises(TextError) as refused:
        begun(PANEL, text)
    assert refused.value.at == at and told in refused.value.message


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("panel H 200a 30 spaces taken 31", "space 31 is past the 30 spaces"),
        ("panel H taken 9-3", "the lower one first"),
        ("panel H 1 spaces", "2 to 84"),
        ("panel H 4000a", "1 to 1200"),
        ("panel H in moon", "a building"),
        ("panel H 200a grey", "amperes, spaces, taken or where it stands"),
    ],
)
def test_a_panel_that_cannot_be_is_refused_in_words(text: str, told: str) -> None:
    with pytest.raises(TextError, match=told):
        begun(text)


def test_the_only_panel_needs_no_name_and_of_two_one_is_asked_for() -> None:
    named, bare = (begun(PANEL, f"from {name}22' attic in 12-2 to outlet in bath") for name in ("H ", ""))
    assert named == bare and named.circuits[0].panel == named.panels[0].id
    with pytest.raises(TextError, match="a panel or a box by its name") as refused:
        begun(PANEL, "panel S 60a 8 spaces", "from 22' attic in 12-2 to outlet in bath")
    assert refused.value.at == 5
    with pytest.raises(TextError, match="a panel or a box by its name"):
        begun(PANEL, "from P 22' attic in 12-2 to outlet in bath")


def test_without_a_panel_it_is_asked_for_first() -> None:
    with pytest.raises(TextError, match="there is no panel yet"):
        begun("from H 20' attic to range")


def test_a_job_begun_in_words_is_drawn_later_and_keeps_its_circuits() -> None:
    job = begun(PANEL, ANSWERS["outlet"].text, "room Garage 20' x 20'\ndoor south 9' at 2'")
    kept, box = job.circuits, job.boxes[0]
    drawn = edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {
        "room": job.rooms[0].id, "side": 0, "at_in": 40.0, "where": "", "use": "",
    }})  # fmt: skip
    assert drawn.circuits == kept and drawn.ways == job.ways
    assert plan(drawn).circuits[0].chain[0].room == "Garage"


def test_the_feet_down_and_up_are_asked_for_and_come_into_the_cut() -> None:
    """Both panels 48 in over floors that lie 18 in over ground, the pipe 18 in under it: two risers of 84 in. Then
    888 + 42 + 42 + 6 + 44.4 = 1,022.4 in, 86 ft; two corners of 90."""
    job = begun(PANEL, ANSWERS["building"].text)
    for _ in range(2):
        job = edited(job, *found(job, "riser-missing")[0].mends[0].edits)
    assert not found(job, "riser-missing")
    (way,) = plan(job).ways
    assert [leg.go for leg in job.ways[0].legs] == ["down", "over", "up"]
    assert {cut.cut_in for cut in way.cuts} == {86 * 12}
    assert way.pulls[0].total.total_deg == 180
    assert job.circuits[0].chain[0].path == (job.ways[0].id,)
