"""A way planned: pulls, lengths, supports, drop, findings, and that every mend mends."""

import pytest

from levelrun.core.plan import plan
from levelrun.core.ways.codes import CODES as WAYS
from levelrun.samples import SAMPLES, sample
from tests.conftest import codes, edited, one_way, planned

SHED = """down 4' stud wall in 12-2
over 28' crawl condition met to J-1
over 3'6 outside in pvc80 3/4 to LB
down 2'6
over 43' trench 16" deep in pvc40 3/4
up 5'4 outside in pvc80 3/4 to LB
over 15' block wall in emt 3/4 with box offset to C-1"""


def test_pulls_start_anew_at_boxes_and_lbs() -> None:
    way = planned(SHED).ways[0]
    assert [(p.first, p.last, p.start, p.end) for p in way.pulls] == [
        (2, 2, "J-1", "LB"),
        (3, 5, "LB", "LB"),
        (6, 6, "LB", "C-1"),
    ]
    assert [p.total.total_deg for p in way.pulls] == [0, 180, 20]
    assert way.pulls[1].fill is not None
    assert way.pulls[1].fill.percent == pytest.approx(100 * 3 * 0.0133 / 0.409)
    assert way.pulls[1].section is not None and len(way.pulls[1].section.wires) == 3


def test_turning_corners_bends_the_pipe_and_the_plan() -> None:
    way = planned("over 10' attic in emt 3/4; left 5'; over 3'; up 2'; right 4' to C-1").ways[0]
    assert [b.deg for b in way.pulls[0].bends] == [90, 90, 90]
    assert [(p.x, p.y) for p in way.strip.plan] == [(0, 0), (120, 0), (120, 60), (120, 96), (120, 96), (168, 96)]
    assert [m.label for m in way.strip.marks if m.kind == "fold"] == ["turns left", "turns right"]


def test_cut_lengths_say_what_they_are_made_of() -> None:
    """Panel 42, box 8, loop 6, waste 5 %: shop habits, common practice, no source."""
    cable, wires = planned(SHED).ways[0].cuts
    assert (cable.item, cable.start, cable.end) == ("12-2 NM-B", "Panel H", "J-1")
    assert cable.exact_in == pytest.approx(384 + 42 + 8 + 6 + 0.05 * 384)
    assert cable.cut_in == 468 and cable.cut_in >= cable.exact_in
    assert wires.pieces == 3 and wires.path_in == 42 + 30 + 516 + 64 + 180


def test_wires_free_at_a_box_never_fall_under_the_code() -> None:
    job = edited(one_way(SHED), {"op": "set_job", "set": {"habits": {"box_makeup_in": 2}}})
    assert plan(job).ways[0].cuts[0].end_makeup_in == 6


def test_supports_straps_and_holes() -> None:
    held = [leg.held for leg in planned(SHED).ways[0].legs]
    assert [h.kind for h in held] == ["staple", "hole", "strap", "strap", "earth", "strap", "strap"]
    assert held[0].positions_in[0] <= 8
    assert held[6].positions_in == [36, 144]


def test_drop_by_both_schools_adds_the_hops_before_it() -> None:
    job = one_way("over 50' attic in 12-2 to J-1; over 50' attic to C-1")
    circuit = plan(job).circuits[0]
    assert [row.name for row in circuit.chain] == ["J-1", "C-1"]
    loaded, rated = (f for f in circuit.figures if f.key.startswith("drop"))
    feet = 50 + (42 + 8) / 12, 50 + (8 + 8) / 12  # with the make-up left in panel and boxes, no loop, no waste
    assert loaded.value == pytest.approx(100 * 2 * 8 * sum(feet) / 1000 * 1.98 / 120)
    assert rated.value == pytest.approx(loaded.value * 20 / 8)
    assert circuit.chain[0].drop_percent == pytest.approx(loaded.value * feet[0] / sum(feet))


CASES = {
    "cover-short": ("over 10' trench 16\" deep in pvc40 3/4 to C-1", {}),
    "cover-missing": ("over 10' trench in pvc40 3/4 to C-1", {}),
    "method-not-allowed": ("over 10' shop wall in pvc40 3/4 to C-1", {}),
    "method-condition": ("over 10' block wall in 12-2 to C-1", {}),
    "box-needed": ("over 10' crawl in 12-2; over 5' outside in pvc80 3/4 to C-1", {}),
    "fill-over": ("over 10' attic in emt 1/2 to C-1", {"wire_size": "6", "breaker_a": 60, "conductors": 3}),
    "bends-over": ("up 2' attic in emt 3/4; over 3'; left 3'; down 2'; over 2'; right 2' to C-1", {}),
    "wire-smaller": ("over 10' attic in 14-2 to C-1", {}),
    "wires-short": ("over 10' attic in 12-2 to C-1", {"conductors": 3}),
    "open-end": ("over 10' attic in 12-2", {}),
    "pull-point-buried": ("over 10' trench 18\" deep in pvc40 3/4 to LB; up 5' outside in pvc80 3/4 to C-1", {}),
    "expansion": ("up 9' outside in pvc80 3/4 to C-1", {}),
    "size-unknown": ("over 10' attic in 4-2 nm to C-1", {}),
    "joint-missing": ("over 10' attic in emt 3/4; over 5' attic in rigid 3/4 to C-1", {}),
    "whip-long": ("over 8' tail in lfnc 1/2 to C-1", {}),
    "height-closure": ("over 3' attic in 12-2 to J-1; up 2' attic to J-2; up 1' attic to Panel H", {}),
    "turn-back": ("up 3' attic in emt 1/2; down 3' to C-1", {}),
    "jam": ("up 3' attic in lfnc 3/8; over 2' to C-1", {"wire_size": "10", "breaker_a": 30}),
    "way-empty": ("", {}),
    "way-short": ("over 10' attic in 12-2 to Panel H", {}),
    "riser-missing": ("over 10' trench 18\" deep in pvc40 3/4; up 5' outside in pvc80 3/4 to C-1", {}),
    "climb-unsaid": ("over 38' attic in 12-2 to C-1", {}),
    "roof-heat": ("over 10' roof in emt 3/4 to C-1", {}),
    "pull-hard": (
        "over 60' attic in emt 2; left 50'; right 20' to C-1",
        {"wire_size": "1/0", "breaker_a": 150, "conductors": 3, "material": "cu"},
    ),
    "ampacity-short": ("over 10' attic in emt 3/4 to C-1", {"wire_size": "8", "breaker_a": 60, "load_a": 45}),
    "heat-unsaid": (
        "over 20' trench 24\" deep in 10-2 uf; up 8' outside in 10-2 uf to C-1",
        {"wire_size": "10", "breaker_a": 30},
    ),
    "ground-small": ("over 90' attic in 6-2 nm to C-1", {"wire_size": "6", "breaker_a": 20}),
    "sleeve-tight": ("over 5' shop wall in emt 1/2 sleeve; over 5' attic in 6-2 to C-1", {"wire_size": "6"}),
}


@pytest.mark.parametrize("code", CASES)
def test_each_fault_is_found_and_each_mend_mends_it(code: str) -> None:
    text, circuit = CASES[code]
    job = one_way(text, **circuit)
    if code == "height-closure":
        node = next(box for box in job.boxes if box.name == "J-2")
        job = edited(job, {"op": "set", "kind": "box", "id": node.id, "set": {"height_in": 90}})
        job = edited(job, {"op": "drop_leg", "way": "w", "leg": 2})
    found = [f for f in plan(job).findings if f.code == code]
    assert found, codes(plan(job), notes=True)
    assert found[0].section and found[0].text
    for mend in found[0].mends:
        assert code not in codes(plan(edited(job, *mend.edits)), notes=True), mend.label


OTHERS = ["building-off"]  # of the shed itself: what turns it off


def test_the_sound_way_has_nothing_to_mend() -> None:
    assert codes(planned(SHED.replace('16"', '18"'))) == OTHERS


def test_a_sleeve_guards_cable_but_keeps_no_weather_out() -> None:
    assert codes(planned("over 5' shop wall in emt 1/2 sleeve to C-1")) == OTHERS
    assert codes(planned("over 5' outside in pvc80 3/4 sleeve to C-1")) == ["method-not-allowed", *OTHERS]


def test_upsizing_the_wire_takes_cables_and_pipes_along() -> None:
    job = one_way("over 70' attic in 12-2 to J-1; over 30' outside in emt 1/2 to C-1", load_a=13)
    mend = next(f for f in plan(job).findings if f.code == "circuit-drop").mends[0]
    after = edited(job, *mend.edits)
    assert after.circuits[0].wire_size == "10" and after.ways[0].legs[0].size == "10-2"
    assert not set(codes(plan(after))) & {"fill-over", "wire-smaller", "circuit-drop"}


def test_every_code_is_in_the_catalogue_and_reachable() -> None:
    noted = {"marks-first", "whole-pull", "fire-stop"}
    of_large = {"pull-box-small", "pull-box-unsaid", "body-marked", "bend-room", "span-unsaid", "span-low"}
    of_frame = {"way-none", "way-long", "way-fished", "hole-large", "holes-many", "hole-plates", "joist-chart"}
    of_frame |= {
        "hole-grommets",
        "bend-tight",
        "way-apart",
        "pipe-closed",
        "fished-across",
        "wall-asked",
        "place-asked",
    }
    elsewhere = {"roof-deck", "pipe-under-note", "ribbon", "path-short", "way-idle"} | of_large | of_frame
    assert set(CASES) | noted | elsewhere == set(WAYS)
    assert noted | {"drop-at-breaker"} <= set(codes(planned(SHED, load_a=8), notes=True))


@pytest.mark.parametrize("key", SAMPLES)
def test_samples_are_sound_but_for_what_the_demo_plants(key: str) -> None:
    found = plan(sample(key))
    if key != "quince-hollow":
        assert codes(found) == []
        return
    of_ways = {item.code for item in found.findings if item.about == "way" and item.severity != "note"}
    assert of_ways == {"cover-short", "bends-over", "method-not-allowed", "cover-missing", "feed-hard"}
    planted = {"wall-no-receptacle", "box-set-out", "box-full", "opener-near", "gfci-missing", "afci-missing"}
    assert set(codes(found)) - of_ways == planted | {
        "panel-short", "feeder-small", "bonded-sub", "box-loose", "trench-marks", "electrode-second", "service-near",
        "coil-short", "closed-early", "fault-open", "reading-off",
    }  # fmt: skip
    assert len(found.ways) >= 8
    everywhere = {leg.place for way in sample(key).ways for leg in way.legs}
    assert {
        "stud_wall",
        "attic",
        "crawl_space",
        "shop_surface",
        "outside_wall",
        "trench",
        "driveway_trench",
    } <= everywhere


@pytest.mark.parametrize(
    ("height", "told"),
    [(48.0, True), (-6.0, True), (-6.5, False), (-30.0, False)],
    ids=["4 ft up", "12 in", "11.5 in", "under"],
)
def test_a_riser_is_missed_from_a_foot_over_ground_on(height: float, told: bool) -> None:
    """Ground lies 18 in under the house's floor. Down from the panel: its height over ground and the depth taped."""
    job = one_way(CASES["riser-missing"][0])
    job = edited(job, {"op": "set", "kind": "panel", "id": "p", "set": {"height_in": height}})
    found = [item for item in plan(job).findings if item.code == "riser-missing"]
    assert bool(found) is told
    if told:
        assert found[0].measured == "none" and found[0].mends[0].edits[0]["leg"]["length_in"] == height + 18 + 18
        mended = edited(job, *found[0].mends[0].edits)
        assert (mended.ways[0].legs[0].go, mended.ways[0].legs[0].method) == ("down", "PVC80")
        assert len(mended.ways[0].legs) == 3
