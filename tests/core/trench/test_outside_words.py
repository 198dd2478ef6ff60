"""Sentences about the yard: what each makes, what is told where it cannot be, and the text round trip."""

from __future__ import annotations

import math

import pytest

from levelrun.core.errors import EditError, LevelRunError, TextError
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.core.say import Scene, suggest_words
from levelrun.core.trench.costs import earth_of
from levelrun.core.trench.planned import rows_of
from levelrun.exchange.text import read_text, write_text
from levelrun.samples import sample
from tests.conftest import built, edited
from tests.core.trench.yard import FEED, SPAN, in_air, said, yard


def test_a_trench_from_a_blank_page_puts_up_both_buildings() -> None:
    """From the middle of the house's west face 43 ft out and 6 ft north; the shed comes to stand with its east face
    there. Both are 12 by 10 ft until they are drawn."""
    job = yard("trench house west to shed east 43' by 6' north")
    (trench,) = job.trenches
    assert trench.points == ((0.0, 60.0), (-516.0, 132.0)) and (trench.start, trench.end) == ("s1", "s2")
    assert job.structures[1].x_in == -516 - 144 and job.structures[1].y_in == 132 - 60
    assert trench.name == "House to Shed"


def test_buildings_that_stand_decide_where_a_trench_goes() -> None:
    job = yard(
        "structure house House; room Hall 20' x 12'",
        "structure shop Shop at 60' east 0' north; room Floor 20' x 12'", "trench house to shop",
        'trench shop south to house south 6" wide by machine in rock',
    )  # fmt: skip
    assert job.trenches[0].points == ((244.0, 72.0), (716.0, 72.0)), "faces 4 in outside of the studs"
    second = job.trenches[1]
    assert (second.width_in, second.dig, second.rock, second.name) == (6, "machine", True, "Shop to House")
    assert second.points == ((840.0, -4.0), (120.0, -4.0))


@pytest.mark.parametrize(
    ("line", "kind", "check"),
    [
        ("street south 60'", "street", lambda p: p.width_in == 288 and p.points[0][1] == -720 - 144),
        ("drive 10' wide from street to house", "drive", lambda p: p.width_in == 120),
        ("path from house south to shop north", "path", lambda p: p.width_in == 48),
        ('water 42" deep from street to house', "water", lambda p: p.depth_in == 42 and not p.private),
        ("gas 18\" deep from house to 20' east private", "gas", lambda p: p.private),
        ("slab 10' x 12' at 20' east 30' north", "slab", lambda p: p.points[0] == (180.0, 288.0)),
        ("pool 16' x 32' at 60' east 20' south of house", "pool", lambda p: len(p.points) == 4),
        ("septic 20' x 30' at 80' north", "septic", lambda p: p.points[2] == (120.0, 1140.0)),
        ("bed 6' x 4' at 9' west", "bed", lambda p: p.points[0][0] == -144),
        ("tree at 12' east 40' north crown 20'", "tree", lambda p: p.width_in == 240),
        ("spot -8\" at 60' east 12' north", "spot", lambda p: p.height_in == -8 and p.points == ((720.0, 144.0),)),
    ],
)
def test_things_of_the_yard(line: str, kind: str, check: object) -> None:
    job = yard("structure house House", "structure shop Shop at 90' east 0' north", "street south 60'", line)
    part = job.yard[-1]
    assert part.kind == kind and check(part), part  # type: ignore[operator]
    assert read_text(write_text(job)) == job


def test_a_circuit_by_one_sentence_is_laid_in_the_trench_to_its_building() -> None:
    """35 ft of trench; 12 in is enough for a 20 A circuit of 120 V with ground-fault protection at the breaker."""
    job = yard(
        "panel H in house 100a", "trench house north to shed south 35'",
        "from H down 6' outside in pvc80 3/4 then over 34' yard 18\" deep in pvc40 3/4 "
        "then up 4' outside in pvc80 3/4 to outlet in Shed 20a",
        "lay Outlet in House to Shed",
    )  # fmt: skip
    assert job.boxes[0].structure == job.structures[1].id and job.ways[0].legs[1].length_in == 420
    assert not [f for f in plan(job).findings if f.severity == "stop"]
    assert [need.cover_in for need in plan(job).outside.trenches["t1"].lain[0].needs if need] == [12]


def test_a_building_that_a_trench_ends_at_stays_where_it_is() -> None:
    job = yard("trench house east to shop west 60'", "trench shop south to house south")
    assert [(s.x_in, s.y_in) for s in job.structures] == [(0, 0), (864, 0)]
    assert job.trenches[1].points == ((936.0, 0.0), (72.0, 0.0))
    third = said(job, "trench house north to cabin south 20'")
    assert [(s.x_in, s.y_in) for s in third.structures] == [(0, 0), (864, 0), (0, 360)]


def test_a_trench_to_a_place_where_no_building_stands() -> None:
    job = yard("trench house south to 30' east 40' south")
    assert job.trenches[0].points == ((72.0, 0.0), (360.0, -480.0)) and job.trenches[0].end is None


def test_a_feed_over_the_air_is_walked_from_head_to_head() -> None:
    job = said(yard(*SPAN), "lay S feeder on House to Shop")
    legs = job.ways[0].legs
    assert [(leg.go, leg.length_in, leg.method, leg.size) for leg in legs] == [
        ("up", 150, "RMC", "1"), ("over", 600, "OVERHEAD", "4-3"), ("down", 138, "PVC80", "1"),
    ]  # fmt: skip
    assert [box.height_in for box in job.boxes] == [18 * 12 - 18, 16 * 12 - 6]
    assert not [f.code for f in plan(job).findings if f.severity == "stop"]


def test_rod_and_level_give_the_depth_from_the_rise_of_the_rod() -> None:
    """The rod reads 4 ft 6 on the ground and 6 ft on the pipe: 18 in."""
    job = yard(*FEED, "read rod 6' grade 4'6 at 20'", "read 17\" at 30' tape", "read 19\" at 10'")
    assert [(r.at_in, r.depth_in, r.by) for r in job.trenches[0].readings] == [
        (120, 19, "tube"), (240, 18, "level"), (360, 17, "tape"),
    ]  # fmt: skip


def test_steps_are_ticked_in_turn_and_the_hold_is_lifted_by_name() -> None:
    job = yard(*FEED, "done marks on 2026-05-04", "done dig on 2026-05-08", "done lay", "done photo")
    with pytest.raises(EditError, match="inspection comes first"):
        said(job, "done fill")
    passed = said(job, "done fill because the inspector sent a photo back")
    assert [f.severity for f in plan(passed).findings if f.code == "step-passed"] == ["check"]
    seen = said(job, "lift House to Shop by R. Meadow on 2026-05-12", "done fill", "done ribbon", "done rest")
    assert not [f for f in plan(seen).findings if f.code in ("step-passed", "trench-marks")]
    rows = {row.kind for row in rows_of(plan(job).outside, plan(job).findings)}
    assert "hold" in rows and "hold" not in {r.kind for r in rows_of(plan(seen).outside, plan(seen).findings)}
    again = edited(seen, {"op": "dig", "trench": seen.trenches[0].id, "depth_in": 24.0})
    assert not again.holds and {tick.step for tick in again.trenches[0].done} == {"marks", "dig"}


@pytest.mark.parametrize(
    ("lines", "line", "says"),
    [
        (["structure house House"], "trench house to house", "another building"),
        (["structure house House"], "drive from street to house", "no street yet"),
        (["structure house House"], "drive 12' wide", "from"),
        (FEED, "read 17\" at 70'", "60' long"),
        (FEED, "read rod 4' grade 5' at 20'", "less"),
        (FEED, "lay S feeder in House to Shop", "already"),
        (FEED, "done backfill", "a step"),
        (FEED, "lift House to Shop by A. Meadow", "dig comes first"),
        (FEED[:3], "done dig", "marks comes first"),
        (FEED, "spot at 10' east", "length"),
        (FEED, "rods 2 at barn", "a building"),
        (FEED, "done dig on yesterday", "2026-05-12"),
    ],
)
def test_what_cannot_be_is_told_at_its_word_and_nothing_is_lost(lines: list[str], line: str, says: str) -> None:
    job = yard(*lines)
    with pytest.raises(LevelRunError) as refused:
        said(job, line)
    assert says in str(refused.value) or any(says in str(word) for word in refused.value.allowed), refused.value
    assert isinstance(refused.value, TextError | EditError)


@pytest.mark.parametrize(
    ("kind", "item", "says"),
    [
        ("span", {"points": [(0, 0), (0, 0)]}, "3 to 399 ft"), ("span", {"points": [(0, 0), (4800, 0)]}, "399"),
        ("trench", {"points": [(0, 0), (1, 0)]}, "6 and more"), ("trench", {"points": [(0, 0)]}, "2 items"),
        ("yard", {"kind": "slab", "points": [(0, 0), (1, 1)]}, "3 and more"),
        ("yard", {"kind": "drive", "points": [(0, 0), (99, 1)]}, "12 and more"),
    ],
)  # fmt: skip
def test_a_line_that_is_none_is_refused_by_its_field(kind: str, item: dict[str, object], says: str) -> None:
    with pytest.raises(EditError) as refused:
        edited(Job(name="x"), {"op": "add", "kind": kind, "item": {"name": "A", **item}})
    assert says in refused.value.message and (refused.value.key or "").startswith("item")


@pytest.mark.parametrize("job", [yard(*FEED, "rods 2 at Shop", "service House overhead 200 A"), in_air(),
                                 sample("quince-hollow")])  # fmt: skip
def test_all_of_it_is_written_as_text_and_read_back(job: Job) -> None:
    plain = job.model_copy(update={"prices": (), "purchases": ()})
    assert read_text(write_text(job)) == plain


def test_a_room_may_be_called_like_a_verb_of_the_yard() -> None:
    job = built("bed 1 12' x 11'; pool room 10' x 9' east of bed 1; water closet 5' x 4'", verb="room")
    assert [room.name for room in job.rooms] == ["Bed 1", "Pool room", "Water closet"]


def test_every_field_has_a_word() -> None:
    job = said(
        yard(*FEED, "street south 60'", "rods 1 at Shop", "service House overhead"),
        'change trench House to Shop: width 12 in, moves yes', "change Street: width 30'",
        "change electrode e1: length 10', ohms 31", "change service q1: surge yes, drip 11'",
    )  # fmt: skip
    assert (job.trenches[0].width_in, job.trenches[0].moves, job.yard[0].width_in) == (12, True, 360)
    assert (job.electrodes[0].length_in, job.electrodes[0].ohms) == (120, 31)
    assert (job.services[0].surge, job.services[0].drip_in) == (True, 132)


def test_words_are_completed_with_the_names_of_the_job() -> None:
    job = yard(*FEED)
    scene = Scene(job=job, book=job_book(job), verb="trench")
    assert "S feeder" in suggest_words(scene, "lay ", "trench")[1]
    assert "House to Shop" in suggest_words(scene, "lay S feeder in ", "trench")[1]
    assert suggest_words(scene, "", "trench")[1][0] == "trench"


def test_the_demo_says_what_its_trench_takes() -> None:
    """516 in, 8 wide; the bottom is 17, 16, 19 and 1.05 of pipe: areas by hand."""
    job = sample("quince-hollow")
    facts = plan(job).outside.trenches["t1"]
    by_hand = (144 * 18.05 + 156 * 17.55 + 132 * 18.55 + 84 * 20.05) * 8 / 1728
    assert earth_of(facts, facts.bottom).dug_ft3 == pytest.approx(by_hand, rel=1e-4)
    assert math.isclose(facts.long_in, 516, abs_tol=0.1)
