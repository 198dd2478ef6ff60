"""Each rule about what lies between buildings: it speaks, its near miss is silent, its mend mends."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan, plan_whole
from levelrun.core.trench.codes import CODES
from levelrun.core.trench.planned import span_plan, trench_plan
from levelrun.samples import sample
from tests.conftest import edited, found
from tests.core.trench.yard import FEED, SPAN, changed, in_air, said, yard

ENDS: dict[str, Any] = {"height_in": 216.0, "window_in": 60.0}
HUNG = {"start_end": ENDS, "end_end": ENDS, "listed": True}


def feed(*more: str, **trench: Any) -> Job:
    job = yard(*FEED, *more)
    return changed(job, "trench", **trench) if trench else job


def hung(**values: Any) -> Job:
    return changed(in_air(), "span", **{**HUNG, **values})


def rods(*more: str, **first: Any) -> Job:
    job = yard(*FEED, *more)
    return changed(job, "electrode", **first) if first else job


def service(**values: Any) -> Job:
    whole = {
        "outside_disconnect": True, "water_bond": True, "gas_bond": True, "intersystem": True, "surge": True,
        "stub_set": True, "attach_in": 144.0, "drip_in": 130.0, "meter_in": 64.0, "wire_size": "4/0", **values,
    }  # fmt: skip
    return changed(yard(*FEED, "service House overhead 200 A"), "service", **whole)


def deep(inches: float) -> Job:
    job = feed()
    return edited(job, {"op": "dig", "trench": job.trenches[0].id, "depth_in": inches})


def cable(sleeve: bool) -> Job:
    job = yard(*FEED[:4])
    text = (
        f"over 1' outside in pvc80 1 to J-1 then down 7' outside in {'pvc80 2 sleeve' if sleeve else 'uf 6-3'} then "
        "over 60' trench 24\" deep in uf 6-3 then up 6' outside in pvc80 2 sleeve to S"
    )
    job = edited(
        job,
        {"op": "add", "kind": "way", "item": {"id": "buried", "name": "Buried", "start": job.panels[0].id}},
        {"op": "walk", "way": "buried", "text": text},
        {"op": "route", "circuit": job.circuits[0].id, "box": job.panels[1].id, "path": ["buried"]},
    )
    return edited(job, {"op": "lay", "along": job.trenches[0].id, "way": "buried"})


def stepped(why: str, *steps: str) -> Job:
    job = feed()
    ticks = [{"step": step, "on": "2026-05-12", "why": why} for step in steps]
    return changed(job, "trench", done=ticks)


POOL = "pool 12' x 12' at {} east 5' north"
GAS = "gas {}\" deep from 30' east 30' south to 30' east 50' north"
# a job in which it speaks, and its near miss
CASES: dict[str, tuple[Job, Job]] = {
    "trench-crossed": (
        feed(points=[(152.0, 60.0), (600.0, 400.0), (600.0, -200.0), (300.0, 400.0), (864.0, 60.0)]),
        feed(points=[(152.0, 60.0), (600.0, 400.0), (864.0, 60.0)]),
    ),
    "trench-under": (
        said(feed(), "structure cabin Hut at 40' east 3' north; room Hut 10' x 10'"),
        said(feed(), "structure cabin Hut at 40' east 13' north; room Hut 10' x 10'"),
    ),
    "trench-apart": (
        said(feed(), "room Shop floor 10' x 10'"), feed(),
    ),
    "trench-empty": (yard(*FEED[:4]), feed()),
    "trench-way-out": (deep(47), deep(46)),
    "trench-guard": (deep(59), deep(58)),
    "trench-marks": (feed(), feed("done marks")),
    "ticket-old": (
        feed(ticket="A1", ticket_from="2026-05-01", ticket_to="2026-05-20"),
        feed(ticket="A1", ticket_from="2026-05-01", ticket_to="2026-06-20"),
    ),
    "step-passed": (stepped("nobody came", "marks", "dig", "lay", "fill"), stepped("", "marks", "dig", "lay",
    "photo")),
    "service-near": (feed(GAS.format(29)), feed(GAS.format(33))),
    "service-unsaid": (feed("gas from 30' east 30' south to 30' east 50' north"), feed(GAS.format(40))),
    "service-beside": (
        feed("water 60\" deep from 20' east 5'8 north to 50' east 5'8 north"),
        feed("water 60\" deep from 20' east 7' north to 50' east 7' north"),
    ),
    "service-private": (feed(GAS.format(40) + " private"), feed(GAS.format(40))),
    "trench-septic": (feed("septic 10' x 10' at 40' east 5' north"), feed("septic 10' x 10' at 40' east 15' north")),
    "trench-pool": (
        feed("pool 12' x 12' at 40' east 15' north"), feed("pool 12' x 12' at 40' east 17' north"),
    ),
    "trench-rock": (changed(cable(True), "trench", rock=True, concrete=True), changed(cable(True), "trench",
    rock=True)),
    "ribbon-missing": (
        edited(feed(), {"op": "set_job", "set": {"notes": [
            {"id": "n1", "key": "ribbon_over_every_trench", "value": 1.0, "who": "Inspector",
            "when": "2026-05-01"}]}}),
        feed(),
    ),
    "slip-joint": (feed(moves=True), feed(moves=False)),
    "ground-moves": (feed(), feed(moves=False)),
    "riser-guard": (cable(False), cable(True)),
    "span-unhung": (hung(start_end={"window_in": 60.0}), hung()),
    "span-clears": (hung(start_end={**ENDS, "height_in": 139.0}, end_end={**ENDS, "height_in": 139.0}),
                    hung(start_end={**ENDS, "height_in": 142.0}, end_end={**ENDS, "height_in": 142.0})),
    "span-pull": (hung(sag_in=10.0), hung(sag_in=11.0)),
    "span-tight": (hung(sag_in=5.0), hung(sag_in=12.0)),
    "span-long": (hung(points=[(152.0, 60.0), (1700.0, 60.0)], sag_in=60.0), hung()),
    "span-roof": (hung(start_end={**ENDS, "roof_clear_in": 30.0, "roof_in12": 6.0}),
                  hung(start_end={**ENDS, "roof_clear_in": 36.0, "roof_in12": 6.0})),
    "span-over": (said(hung(), "structure cabin Hut at 30' east 3' north; room Hut 10' x 10'"),
                  said(hung(), "structure cabin Hut at 30' east 30' north; room Hut 10' x 10'")),
    "span-window": (hung(end_end={**ENDS, "window_in": 35.0}), hung(end_end={**ENDS, "window_in": 36.0})),
    "span-about": (hung(end_end={"height_in": 216.0}), hung()),
    "span-pool": (said(hung(), POOL.format("40'")), said(hung(), "pool 12' x 12' at 40' east 40' north")),
    "span-splices": (hung(listed=None), hung()),
    "span-height": (hung(start_end={**ENDS, "height_in": 372.0}), hung(start_end={**ENDS, "height_in": 360.0})),
    "mast-guy": (hung(start_end={**ENDS, "at": "mast"}), hung(start_end={**ENDS, "at": "mast", "guyed": True})),
    "mast-small": (hung(start_end={**ENDS, "at": "mast", "mast": "1-1/4", "guyed": True}),
                   hung(start_end={**ENDS, "at": "mast", "mast": "2", "guyed": True})),
    "electrode": (feed(), rods("rods 2 at Shop")),
    "electrode-second": (rods("rods 1 at Shop"), rods("rods 1 at Shop 25 ohms")),
    "electrode-near": (rods("rods 2 at Shop 5'11 apart"), rods("rods 2 at Shop 6' apart")),
    "electrode-closer": (rods("rods 2 at Shop 15' apart"), rods("rods 2 at Shop 16' apart")),
    "electrode-short": (rods("rods 2 at Shop", length_in=95.0), rods("rods 2 at Shop", length_in=96.0)),
    "electrode-inside": (
        said(rods("rods 2 at House", x_in=60.0, y_in=40.0), "room Hall 10' x 10'"),
        said(rods("rods 2 at House"), "room Hall 10' x 10'"),
    ),
    "electrode-wire": (
        said(changed(rods("rods 2 at Shop"), "electrode", wire="10")), rods("rods 2 at Shop", wire="6"),
    ),
    "electrode-left": (rods("footing electrode at Shop", bonded=False), rods("footing electrode at Shop")),
    "building-off": (edited(feed(), {"op": "set", "kind": "panel", "id": "p2", "set": {"main_a": None}}), feed()),
    "service-attach": (service(attach_in=119.0), service(attach_in=120.0)),
    "service-asks": (service(surge=None), service()),
    "service-lacks": (service(outside_disconnect=False), service()),
    "service-wire": (service(wire_size="3/0"), service()),
    "meter-height": (service(meter_in=80.0), service(meter_in=72.0)),
}  # fmt: skip
# what nobody can do from a desk
NO_MEND = {
    "trench-crossed", "trench-empty", "trench-way-out", "trench-guard", "trench-marks", "ticket-old", "step-passed",
    "service-near", "service-unsaid", "service-beside", "service-private", "trench-septic", "trench-pool",
    "trench-rock",
    "span-long", "span-roof", "span-over", "span-window", "span-pool", "span-height", "mast-small",
    "electrode-closer",
    "meter-height",
}  # fmt: skip


def said_of(job: Job, code: str) -> list[Any]:
    if code == "ticket-old":
        return [item for item in plan(job, job_book(job, "2026-05-25")).findings if item.code == code]
    return found(job, code)


@pytest.mark.parametrize("code", CASES)
def test_each_rule_speaks_and_its_near_miss_is_silent(code: str) -> None:
    speaks, silent = CASES[code]
    assert said_of(speaks, code), [(item.code, item.title) for item in plan(speaks).findings]
    assert said_of(speaks, code)[0].section and said_of(speaks, code)[0].stage == "trench"
    assert not said_of(silent, code), said_of(silent, code)


@pytest.mark.parametrize("code", sorted(set(CASES) - NO_MEND))
def test_each_mend_mends_and_brings_no_stop(code: str) -> None:
    job = CASES[code][0]
    before = plan(job)
    (first, *_) = said_of(job, code)
    assert first.mends, first
    stops = {(item.code, item.title) for item in before.findings if item.severity == "stop"}
    for mend in first.mends:
        after = plan(edited(job, *mend.edits))
        left = [item for item in after.findings if (item.code, item.title) == (code, first.title)]
        assert not left or code == "ground-moves", mend.label
        new = {(item.code, item.title) for item in after.findings if item.severity == "stop"} - stops
        assert not new, (mend.label, new)


def test_every_code_has_a_case() -> None:
    assert set(CASES) == set(CODES)


def test_the_shallow_trench_of_the_demo_is_mended_in_four_ways() -> None:
    """Read 17, 16 and 19 at 12, 25 and 36 ft: short of 18 from the house on until the pipe comes down through it,
    2/3 of the way from 25 to 36 ft: 32 ft 4."""
    job = sample("quince-hollow")
    (short,) = found(job, "cover-short")
    assert (short.title, short.measured, short.limit) == ("2″ short over 32′ 4″", "16″", "18″")
    assert [mend.label for mend in short.mends] == [
        "Dig to 18″", "GFCI at the breaker", "Use IMC 3/4″", "2″ of concrete over it",
    ]  # fmt: skip
    for mend in short.mends:
        assert not found(edited(job, *mend.edits), "cover-short"), mend.label


def test_two_things_in_one_trench_each_have_their_own_need() -> None:
    """Pipe at 18, cable at 18: the pipe is deep enough, the cable wants 24 (table 300.5(A), columns 1 and 3)."""
    job = yard(*FEED, 'grade Shop -2"')
    job = edited(
        job,
        {"op": "add", "kind": "box", "item": {"id": "j9", "name": "J-9", "structure": job.structures[1].id}},
        {"op": "add", "kind": "circuit", "item": {
            "id": "c9", "name": "Bell", "panel": job.panels[0].id, "space": 5, "wire_size": "12", "method": "UF-B",
            "chain": [{"box": "j9"}]}},
        {"op": "add", "kind": "way", "item": {"id": "w9", "name": "Bell way", "start": job.panels[0].id}},
        {"op": "walk", "way": "w9",
        "text": "down 5' outside in pvc80 1/2 sleeve then over 60' trench in uf 12-2 then "
                                            "up 5' outside in pvc80 1/2 sleeve to J-9"},
        {"op": "route", "circuit": "c9", "box": "j9", "path": ["w9"]},
        {"op": "lay", "along": job.trenches[0].id, "way": "w9", "depth_in": 18.0},
    )  # fmt: skip
    (short,) = found(job, "cover-short")
    assert short.subject == "w9" and (short.measured, short.limit) == ("18″", "24″")
    planned, _ = plan_whole(job, job_book(job))
    whole = trench_plan(planned.outside, job.trenches[0].id, planned.findings)
    assert [(row.needed_text, row.short) for row in whole.lain] == [("18″", False), ("24″", True)]
    dug = edited(job, *short.mends[0].edits)
    assert not found(dug, "cover-short")
    legs = {way.id: [leg.depth_in for leg in way.legs if leg.along] for way in dug.ways}
    assert legs["w9"] == [24.0] and legs[job.ways[0].id] == [18.0], "only the cable goes deeper"
    guarded = edited(job, {"op": "set", "kind": "circuit", "id": "c9", "set": {"protection": "gfci"}})
    assert not found(guarded, "cover-short"), "12 in with ground-fault protection, 120 V and 20 A"


def test_in_rock_two_inches_of_concrete_stand_for_the_depth() -> None:
    job = feed(rock=True, concrete=True)
    thin = edited(job, {"op": "dig", "trench": job.trenches[0].id, "depth_in": 3.0})
    assert not found(thin, "cover-short")
    bare = edited(feed(rock=True), {"op": "dig", "trench": job.trenches[0].id, "depth_in": 3.0})
    assert found(bare, "cover-short")


def test_the_demo_s_span_pulls_as_a_catenary_does() -> None:
    """58 ft, 21 in of sag: 0.241 · 58² / (8 · 1.74) = 58 lb as strung; in heavy ice and wind some seven times it."""
    job = sample("quince-hollow")
    planned, _ = plan_whole(job, job_book(job))
    whole = span_plan(planned.outside, "n1")
    pull = next(figure for figure in whole.figures if figure.key == "pull")
    assert float(pull.inputs["as strung"].split()[0]) == pytest.approx(58, abs=2)
    assert pull.value == pytest.approx(58 * 1.47 / 0.241 * 1.17, rel=0.08) and pull.limit == pytest.approx(1116)


def test_what_a_rule_about_spans_says_of_a_way_that_hangs_on_none_is_still_said() -> None:
    job = in_air(yard(*SPAN))
    free = edited(job, {"op": "lift_out", "along": job.spans[0].id, "way": "air"})
    facts = {"beneath": "drive", "clear_in": 100.0}
    low = edited(free, {"op": "set_leg", "way": "air", "leg": 1, "set": {"facts": facts}})
    assert found(low, "span-low") and not found(job, "span-low")
