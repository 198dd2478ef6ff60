"""Numbers of trenches, spans and electrodes against the outside: tables as printed, other libraries, brute force."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import networkx as nx
import numpy as np
import pandapower as pp
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from shapely import LineString, unary_union

from levelrun.core.codebook import Codebook
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.core.trade.clearance import clearance
from levelrun.core.trench.air import beneath, hanging, messenger
from levelrun.core.trench.costs import connections_of, options_of
from levelrun.core.trench.drawn import section_of
from levelrun.core.trench.electrodes import electrode_wire, grounds_of
from levelrun.core.trench.facts import TrenchFacts
from levelrun.core.trench.feeding import hung_size
from levelrun.core.trench.line import crossings
from levelrun.core.trench.planned import trench_plan
from levelrun.core.trench.round import round_buildings
from levelrun.core.trench.rules.ground import service_wire
from levelrun.core.trench.yard import ground_along, yard_of
from levelrun.core.ways.laid import between, short_of
from levelrun.samples import sample
from tests.conftest import edited, found
from tests.core.trench.yard import FEED, changed, in_air, said, yard

DEMO = sample("quince-hollow")
profiles = st.lists(st.tuples(st.floats(1, 90), st.floats(2, 40)), min_size=1, max_size=6)


def facts(job: Job, ident: str = "t1") -> TrenchFacts:
    return plan(job).outside.trenches[ident]


@example([(1.0, 3.0), (1.0, 2.0)], 3.0, 0.0, 1.0)
@given(profiles, st.floats(2, 40), st.floats(0, 100), st.floats(1, 200))
def test_short_by_how_much_over_how_far_is_what_sampling_finds(
    steps: list[tuple[float, float]], needed: float, first: float, long: float
) -> None:
    at, profile = 0.0, []
    for step, depth in steps:
        profile.append((at, depth))
        at += step
    most, over = short_of(profile, first, first + long, needed)
    places = np.linspace(first, first + long, 4001)
    lacks = np.array([needed - between(profile, x) for x in places])
    assert most == pytest.approx(max(lacks.max(), 0.0), abs=0.5)
    assert over == pytest.approx(float((lacks > 0).mean() * long), abs=max(long / 500, 0.1))


@pytest.mark.parametrize(
    ("material", "size", "wire"),
    [  # table 250.66 as printed
        ("cu", "6", "8"), ("cu", "2", "8"), ("cu", "1", "6"), ("cu", "1/0", "6"), ("cu", "2/0", "4"), ("cu", "3/0",
        "4"),
        ("cu", "4/0", "2"), ("cu", "350", "2"), ("cu", "400", "1/0"), ("cu", "600", "1/0"), ("cu", "750", "2/0"),
        ("al", "1/0", "8"), ("al", "2/0", "6"), ("al", "4/0", "4"), ("al", "250", "4"), ("al", "300", "2"),
        ("al", "500", "2"), ("al", "600", "1/0"),
    ],
)  # fmt: skip
def test_the_electrode_conductor_is_that_of_the_table(book: Codebook, material: str, size: str, wire: str) -> None:
    assert electrode_wire(book, size, material) == wire


def test_a_rod_never_wants_more_than_no_6_and_a_footing_no_4() -> None:
    """250.66(A), (B): whatever comes in. A 200 A service of 4/0 aluminum wants No. 4 to a water pipe."""
    job = yard(*FEED, "service House overhead 200 A wire 4/0", "rods 2 at House", "footing electrode at House")
    job = edited(job, {"op": "add", "kind": "electrode", "item": {"structure": "s1", "kind": "water_pipe"}})
    own = next(item for item in grounds_of(job_book(job), job) if item.structure.id == "s1")
    assert own.wire == "4"
    assert [own.wire_for(item) for item in own.electrodes] == ["6", "6", "4", "4"]
    job = changed(job, "service", wire_size="500")
    own = next(item for item in grounds_of(job_book(job), job) if item.structure.id == "s1")
    assert [own.wire_for(item) for item in own.electrodes] == ["6", "6", "4", "2"]


@pytest.mark.parametrize(
    ("amps", "cu", "al"),
    [  # table 310.12(A) as it was printed, for a dwelling
        (100, "4", "2"), (125, "2", "1/0"), (150, "1", "2/0"), (200, "2/0", "4/0"), (225, "3/0", "250"),
        (250, "4/0", "300"), (300, "250", "350"), (400, "400", "600"),
    ],
)  # fmt: skip
def test_the_wire_of_a_service_is_that_of_310_12(amps: float, cu: str, al: str) -> None:
    job = yard(*FEED, "service House overhead 200 A")
    own = next(item for item in grounds_of(job_book(job), job) if item.structure.id == "s1")
    assert (service_wire(own, amps, "cu", True), service_wire(own, amps, "al", True)) == (cu, al)


def test_the_drop_of_a_long_feed_is_that_of_a_power_flow_library() -> None:
    """60 A at 240 V over 300 ft and its ends, on No. 6: pandapower, a balanced line of twice the length."""
    lines = [line.replace("60'", "300'") for line in FEED]
    job = yard(*lines)
    own = facts(job)
    row = connections_of(own)[0]
    long_ft = sum(leg.length_in for leg in job.ways[0].legs) / 12
    net = pp.create_empty_network()
    one, two = (pp.create_bus(net, vn_kv=240 * 3**0.5 / 1000) for _ in range(2))
    pp.create_ext_grid(net, one)
    r_km = 0.491 / 1000 / 0.3048 * 1000  # chapter 9 table 8, No. 6 copper, ohm per 1000 ft
    pp.create_line_from_parameters(net, one, two, 2 * long_ft * 0.3048 / 1000, r_km, 1e-9, 0, 1)
    pp.create_load(net, two, 3 * 240 * 60 / 1e6, 0, const_i_p_percent=100, const_i_q_percent=100)
    pp.runpp(net, tolerance_mva=1e-12, numba=False)
    assert row.drop_breaker == pytest.approx(100 * (1 - net.res_bus.vm_pu[two]), rel=2e-3)
    assert row.drop_load is None


def test_stepping_up_keeps_the_drop_and_counts_what_its_ends_take() -> None:
    """No. 1 for 3 % of 240 V at 60 A over 315 ft; a 60 A breaker takes less: 2 hots, neutral and ground at both ends
    are 8 splices; No. 1 bends in 3 in (table 312.6(A))."""
    job = yard(*[line.replace("60'", "300'") for line in FEED])
    rows = {row.key: row for row in connections_of(facts(job))}
    drops = [rows[key].drop_breaker or 0.0 for key in ("wire-1", "wire-4", "trench")]
    assert drops[0] < 3 < drops[1] < drops[2]
    assert rows["wire-1"].takes.startswith("2 boxes, 8 listed splices, 3″ to bend 1 in each")
    assert rows["wire-4"].takes == "" and rows["wire-4"].dollars > rows["trench"].dollars
    assert rows["overhead"].wait_days == 0 and rows["trench"].wait_days == 3
    short = {row.key: row for row in connections_of(facts(yard(*FEED)))}
    assert "wire-1" not in short and (short["trench"].drop_breaker or 9) < 3


@pytest.mark.parametrize("trench", ["t1", "t2", "t3"])
def test_every_option_makes_it_legal_at_its_own_depth(trench: str) -> None:
    for option in options_of(facts(DEMO, trench)):
        assert option.hours > 0 and option.dollars > 0
        if option.mend is None:
            continue
        job = edited(DEMO, *option.mend.edits)
        after = [f for f in found(job, "cover-short") if f.subject == facts(DEMO, trench).lain[0].way]
        assert not after, option.label
        needs = [need.cover_in for need in facts(job, trench).lain[0].needs if need]
        assert max(needs) == option.cover_in, option.label


def test_the_deeper_option_is_counted_by_hand() -> None:
    """43 ft, 8 in wide, 18 and 1.05 deep: 43·8/12·19.05/12 = 45.5 ft³ at 8 an hour, filled at 30; PVC 3/4 at 1.3 min
    a foot; two risers of 45 min. Ribbon 8 cents a foot, pipe 75 cents and three wires of 20, two risers at $24."""
    deeper = next(option for option in options_of(facts(DEMO)) if option.key == "deeper")
    dug = 43 * 8 / 12 * 19.05 / 12
    assert deeper.hours == pytest.approx(dug / 8 + dug / 30 + 43 * 1.3 / 60 + 2 * 0.75, abs=0.02)
    assert deeper.dollars == pytest.approx(43 * 0.08 + 43 * (0.75 + 3 * 0.20) + 2 * 24, abs=0.1)


@settings(max_examples=30)
@given(st.lists(st.tuples(st.floats(0, 900), st.floats(-300, 400)), min_size=2, max_size=4, unique=True))
def test_crossings_are_those_that_shapely_finds_segment_by_segment(points: list[tuple[float, float]]) -> None:
    if any(math.dist(a, b) < 6 for a, b in pairwise(points)):
        return
    gas = {"name": "G", "kind": "gas", "points": points, "depth_in": 30.0}
    job = edited(yard(*FEED), {"op": "add", "kind": "yard", "item": gas})
    trench = job.trenches[0]
    line = LineString(trench.points)
    meets = (LineString(pair).intersection(line) for pair in pairwise(points))
    wanted = [line.project(meet) for meet in meets if meet.geom_type == "Point" and not meet.is_empty]
    got = [item.at_in for item in crossings(yard_of(job), trench, 12.0) if item.beside_in is None]
    assert got == pytest.approx(sorted({round(at, 6) for at in wanted}), abs=1e-3)


def test_the_way_round_a_building_is_the_shortest_there_is() -> None:
    """Against networkx over the same corners, drawn two feet off the walls; and it touches no wall."""
    job = said(yard(*FEED), "structure cabin Hut at 30' east 2' south; room Hut 10' x 14'")
    trench = job.trenches[0]
    yard_ = yard_of(job)
    way = round_buildings(yard_, trench)
    assert way is not None and len(way) > 2
    walls = unary_union([item.shape for item in yard_.buildings]).buffer(-6)
    assert not LineString(way).intersects(walls)
    hut = next(item.shape for item in yard_.buildings if item.structure.name == "Hut")
    corners = [trench.points[0], trench.points[-1], *hut.buffer(24, join_style="mitre").exterior.coords[:-1]]
    graph = nx.Graph()
    for i, a in enumerate(corners):
        for j, b in enumerate(corners[:i]):
            if not LineString((a, b)).intersects(walls):
                graph.add_edge(i, j, weight=math.dist(a, b))
    best = nx.dijkstra_path_length(graph, 0, 1)
    assert sum(math.dist(a, b) for a, b in pairwise(way)) <= best + 0.5
    (under,) = found(job, "trench-under")
    mended = edited(job, *under.mends[0].edits)
    assert not found(mended, "trench-under") and len(mended.trenches[0].points) == len(way)


def test_the_low_place_of_a_span_is_what_a_walk_along_it_finds() -> None:
    job = said(in_air(), "street south 60'", "drive 12' wide from street to 40' east 20' north", 'grade Shop 30"')
    book, span = job_book(job), job.spans[0]
    yard_ = yard_of(job)
    shape = hanging(job, book, yard_, span, "4-3")
    assert shape is not None
    rows = {item.over: item for item in beneath(book, yard_, span, shape)}
    ground = ground_along(yard_, span.points, span.start, span.end)
    drive = unary_union([LineString(p.points).buffer(p.width_in / 2, cap_style="flat") for p in job.yard[-1:]])
    line = LineString(span.points)
    least: dict[str, float] = {}
    for at in np.linspace(1, line.length - 1, 3000):
        over = "drive" if drive.contains(line.interpolate(at)) else "walk"
        clear = shape.height_in(float(at)) - between(ground, float(at))
        least[over] = min(least.get(over, 1e9), clear)
    for over, clear in least.items():
        assert rows[over].clear_in == pytest.approx(clear, abs=0.6), over
        assert rows[over].needed_in == 12 * clearance(book, over).least_ft


def test_cabled_wire_bears_its_breaker_and_is_made(book: Codebook) -> None:
    """60 A over the air in 40 °C: aluminum at 75 °C times 0.88: No. 4 bears 65 · 0.88 = 57, next breaker 60."""
    job = in_air()
    wires = next(iter(plan(job).walked[0].carried)).wires
    assert hung_size(book, wires) == "4-3"
    assert messenger(book, "4-3") is not None and messenger(book, "12-2") is None


def test_the_section_of_the_demo_is_drawn_as_it_was_read() -> None:
    """The shed's ground lies 10 in under the house's; the pipe 17, 16 and 19 under it; short from the house to
    388 in; gas 24 deep where the ground has fallen 10 · 117/516 = 2.3."""
    section = section_of(facts(DEMO))
    assert (section.ground[0], section.ground[-1]) == ((0.0, 0.0), (pytest.approx(516, abs=0.1), -10.0))
    (pipe,) = section.pipes
    top = {round(at): z for at, z in pipe.top}
    assert top[144] == pytest.approx(-17 - 10 * 144 / 516, abs=0.01)
    assert pipe.short == [(0.0, pytest.approx(388, abs=0.1))]
    assert [(mark.text, mark.fine) for mark in section.marks] == [("17″", False), ("16″", False), ("19″", True)]
    (gas,) = section.crossings
    assert gas.z_in == pytest.approx(-24 - 10 * gas.at_in / 516, abs=0.01) and gas.text == "Gas 5 1/2″ below"
    assert [end.name for end in section.ends] == ["House LB", "Cold-store shed LB"]
    assert min(depth for _, depth in section.ribbon) > section.low_in


def test_rows_of_a_trench_agree_with_its_findings_and_figures() -> None:
    planned = plan(DEMO)
    for ident in planned.outside.trenches:
        whole = trench_plan(planned.outside, ident, planned.findings)
        short = any(item.code == "cover-short" for item in whole.findings)
        assert short == any(row.short for row in whole.lain) == any(f.beyond_text for f in whole.figures)


@pytest.mark.parametrize(
    ("ground", "line", "text"),
    [('grade Shop -14"', 30, -7), ("spot 5\" at 30' east 5' north", 18, 5), ('grade House 6"', 0, 6)],
)
def test_the_ground_along_a_trench_goes_by_what_was_taken(ground: str, line: float, text: float) -> None:
    """Straight from 0 to −14 in 60 ft; a spot beside the line 18 ft along it; the house itself."""
    job = said(yard(*FEED), ground)
    own: Any = facts(job).ground
    assert between(own, line * 12) == pytest.approx(text, abs=0.01)
