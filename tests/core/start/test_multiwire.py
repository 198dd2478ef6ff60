"""Two circuits that share a neutral, said in one line (NEC 210.4, 300.13(B)): by turns in pipe, parted at a junction
box in cable; their spaces, their wires counted by hand."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.roughin.cards import BoxCard
from tests.conftest import built

HOUSE = built("panel H 200a 30 spaces taken 1-4 7")


def line(text: str, job: Job = HOUSE) -> tuple[Job, str]:
    found, looked = said_on(job, f"from {text}", Looked())
    return found, " ".join(looked.told)


PIPED = "4 outlets 20a on a multiwire circuit, 6' apart, 30' wall in emt 1/2"
CABLED = "12-3 multiwire 40' basement to 4 outlets 6' apart"


@pytest.mark.parametrize(
    "said",
    [
        PIPED, CABLED, "multiwire circuit 20a, 40' attic to 2 outlets", "12-3 mwbc 40' attic to 3 outlets",
        "40' attic to 4 outlets sharing a neutral", "40' attic to 4 outlets 6' apart with a shared neutral",
        "multiwire circuit 20a on 6 and 8, 40' attic to 2 outlets",
    ],
)  # fmt: skip
def test_two_of_120_volts_one_below_the_other(said: str) -> None:
    job, told = line(said)
    one, two = job.circuits
    assert (one.partner, two.partner) == (two.id, one.id) and one.tied and two.tied
    assert {(c.volts, c.poles) for c in job.circuits} == {(120, 1)}
    expected = (6, 8)  # 5 is free, 7 beside it is not
    assert (one.space, two.space) == expected
    assert "share a neutral" in told
    assert [item.title for item in plan(job).findings if item.severity == "stop"] == []


def test_by_turns_in_pipe_by_hand() -> None:
    """30 ft to the first: two hots, one neutral, a ground; so as far as the third; to the last one hot. Each hot goes
    past the outlet of the other in one piece; white and green are joined at every outlet."""
    job, _ = line(PIPED)
    names = {box.id: box.name for box in job.boxes}
    assert [[names[hop.box] for hop in c.chain] for c in job.circuits] == [["R-2", "R-4"], ["R-1", "R-3"]]
    planned = plan(job)
    assert [len(way.pulls[0].section.wires) for way in planned.ways] == [4, 4, 4, 3]
    cuts = [(cut.start, cut.end, " ".join(cut.colours), cut.path_in) for way in planned.ways for cut in way.cuts]
    assert sorted(cuts) == [
        ("H", "R-1", "red", 360), ("H", "R-1", "white green", 360), ("H", "R-2", "black", 432),
        ("R-1", "R-2", "white green", 72), ("R-1", "R-3", "red", 144), ("R-2", "R-3", "white green", 72),
        ("R-2", "R-4", "black", 144), ("R-3", "R-4", "white green", 72),
    ]  # fmt: skip
    lengths = {row.name: row.length_in for c in planned.circuits for row in c.chain}
    assert lengths == {"R-1": 360, "R-2": 432, "R-3": 144, "R-4": 144}


def test_the_cards_of_its_outlets_by_hand() -> None:
    """At the first outlet the red of its own circuit, the white of both; the black goes past. No device breaks the
    white (300.13(B))."""
    job, _ = line(PIPED)
    for name, hot, past in (("R-1", "red", "black"), ("R-2", "black", "red")):
        card = plan(job).record.card(next(box.id for box in job.boxes if box.name == name))
        assert isinstance(card, BoxCard)
        told = {joint.what: joint.text for joint in card.joints}
        assert told["hot"] == f"two {hot}s and a tail"
        assert told["neutral"] == "two whites and a tail, the neutral of two circuits: no device may break it"
        assert told["ground"].startswith("two green grounds")
        assert [w.colour for c in card.cables if c.through for w in c.wires] == [past]
        assert card.circuits.endswith("· 5 of 12 in pipe") and "smooth" in card.steps[1].title, "no jacket in pipe"
    alone = plan(job).record.card(next(box.id for box in job.boxes if box.name == "R-4"))
    assert isinstance(alone, BoxCard) and "neutral" not in {joint.what for joint in alone.joints}


def test_in_cable_to_a_junction_box_by_hand() -> None:
    """One 12-3 of 40 ft for both, from its end a 12-2 to each: 6 and 12 ft, and 12 on."""
    job, told = line(CABLED)
    names = {box.id: box.name for box in job.boxes}
    hops = [[(names.get(h.after or ""), names[h.box], h.length_in) for h in c.chain] for c in job.circuits]
    assert hops == [
        [(None, "J-1", None), ("J-1", "R-1", 72), ("R-1", "R-3", 144)],
        [(None, "J-1", None), ("J-1", "R-2", 144), ("R-2", "R-4", 144)],
    ]
    assert [leg.size for way in job.ways for leg in way.legs] == ["12-3"] and "J-1" in told
    bought = {order.item.key: order.count for order in plan(job).buying.orders}
    assert bought["12-3 NM-B"] == 47 and bought["handle tie"] == 1
    assert bought["cable connector 3/8"] == 1, "one cable comes into the panel"


def test_ground_fault_protection_is_in_the_outlets() -> None:
    """Two ground-fault breakers cannot watch one neutral; nor can an outlet one that is shared behind it: in pipe
    each watches for itself, in cable the first of each circuit."""
    for said, guarded in ((PIPED, 4), (CABLED, 2)):
        job, _ = line(f"{said} in the garage")
        assert {c.protection for c in job.circuits} == {"plain"}
        assert sum(box.protects == "gfci" for box in job.boxes) == guarded
        assert not {"gfci-missing", "multiwire-device"} & {item.code for item in plan(job).findings}


def test_cable_that_meets_its_pipe_on_the_way() -> None:
    """A junction box stands where cable meets pipe, for both circuits, as on any line."""
    job, told = line(
        "multiwire circuit 20a to 4 outlets 6' apart in the garage, 30' attic then 10' garage wall in emt"
    )
    assert [leg.method for leg in job.ways[0].legs][-1] == "EMT" and len(job.circuits) == 2
    assert not {"loose-end", "method-meets"} & {item.code for item in plan(job).findings}
    assert told.count("junction box") == sum(box.kind == "junction" for box in job.boxes)


@pytest.mark.parametrize(
    ("said", "told"),
    [
        ("multiwire 40' attic to an outlet", "how many outlets"),
        ("mwbc 40' attic to a dryer", "two circuits of 120 V"),
        ("multiwire to 4 outlets 20' shop wall in emt", "how far apart are the 4"),
    ],
)
def test_what_shares_nothing(said: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        line(said)
