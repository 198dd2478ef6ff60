"""The proposer and its parts against exhaustive search on small houses, networkx, and pandapower."""

from __future__ import annotations

from itertools import permutations

import networkx as nx
import pandapower as pp
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.grouping import fewest_groups
from levelrun.core.circuits.loads import all_loads
from levelrun.core.circuits.planned import Known, circuit_contexts
from levelrun.core.circuits.proposer import propose
from levelrun.core.circuits.routing import path_length, shortest_order
from levelrun.core.codebook import Codebook
from levelrun.core.plan import job_book, plan, plan_whole
from levelrun.core.ways.contexts import weave
from levelrun.core.ways.entering import entering
from levelrun.core.ways.ordering import distances
from levelrun.exchange.text import read_text
from levelrun.samples import sample
from tests.conftest import built, edited, found

points = st.lists(st.tuples(st.integers(0, 500), st.integers(0, 500)), min_size=1, max_size=6, unique=True)


def _square(spots: dict[str | None, tuple[int, int]]):  # type: ignore[no-untyped-def]
    return lambda a, b: float(abs(spots[a][0] - spots[b][0]) + abs(spots[a][1] - spots[b][1]))


@given(points)
def test_the_shortest_chain_is_that_of_every_order_tried(spots: list[tuple[int, int]]) -> None:
    at: dict[str | None, tuple[int, int]] = {None: (0, 0)} | {f"b{i}": spot for i, spot in enumerate(spots)}
    distance = _square(at)
    boxes = [box for box in at if box]
    best = min(path_length(order, distance) for order in permutations(boxes))
    assert path_length(shortest_order(boxes, distance), distance) == best


def test_long_chains_are_no_longer_than_a_general_library_s() -> None:
    """Thirty boxes round a house: not over networkx's greedy tour cut open at the panel."""
    at: dict[str | None, tuple[int, int]] = {None: (0, 0)}
    at |= {f"b{i}": ((i * 97) % 480, (i * 61) % 300) for i in range(30)}
    distance = _square(at)
    graph = nx.Graph()
    for a in at:
        for b in at:
            if a != b:
                graph.add_edge(str(a), str(b), weight=distance(a, b) if b else distance(b, a))
    tour = nx.approximation.greedy_tsp(graph, source="None")[1:-1]
    ours = shortest_order([box for box in at if box], distance)
    assert sorted(ours) == sorted(box for box in at if box)
    assert path_length(ours, distance) <= path_length(tour, distance)


@given(st.lists(st.integers(1, 10), min_size=1, max_size=7))
def test_rooms_are_packed_on_the_fewest_circuits(sizes: list[int]) -> None:
    def partitions(items: list[int]) -> list[list[list[int]]]:
        if not items:
            return [[]]
        found_ = []
        for rest in partitions(items[1:]):
            found_ += [[*rest[:i], [items[0], *group], *rest[i + 1 :]] for i, group in enumerate(rest)]
            found_.append([[items[0]], *rest])
        return found_

    groups = fewest_groups(sizes, 10)
    assert sorted(i for group in groups for i in group) == list(range(len(sizes)))
    assert all(sum(sizes[i] for i in group) <= 10 for group in groups)
    fitting = [p for p in partitions(list(range(len(sizes)))) if all(sum(sizes[i] for i in g) <= 10 for g in p)]
    assert len(groups) == min(len(p) for p in fitting)


HOUSE = (
    "room Kitchen 12' x 12'; door south 3' at 1'; mark counter north 9' at 0\"; mark sink north 30\" at 3'; fill; "
    "set receptacle east 2' for range as RG; room Bath 8' x 8' east of Kitchen; door west 2'6 at 3'; "
    "mark basin north 24\" at 3'; fill; room Bed 12' x 12' south of Kitchen; door north 3' at 7'; fill; "
    "panel west 3'; set receptacle west 8' outside as OUT"
)


def test_a_small_house_gets_the_circuits_it_wants_and_is_sound(book: Codebook) -> None:
    job = built(HOUSE)
    job = edited(job, {"op": "set", "kind": "box", "id": next(b.id for b in job.boxes if b.name == "OUT"),
                       "set": {"cover": "in_use"}})  # fmt: skip
    proposals = propose(job, book, plan_whole(job, book)[1].contexts)
    rooms = {box.id: job.room(box.room or "").name for box in job.boxes}
    names = {p.name.split(" ")[0] for p in proposals}
    assert {"Kitchen", "Bath", "Range", "Outdoors", "Lights", "Outlets"} <= names
    kitchens = [p for p in proposals if p.section.startswith("210.11(C)(1)")]
    assert len(kitchens) == 2
    assert all(rooms[box] == "Kitchen" for p in kitchens for box in p.boxes)
    lights = [p for p in proposals if p.name.startswith("Lights")]
    assert len(lights) >= 2, "a floor of three lit rooms is not dark at one trip"
    taken = edited(job, *(edit for p in proposals for edit in p.edits))
    placed = [box for p in proposals for box in p.boxes]
    assert len(placed) == len(set(placed))
    wrong = [
        f.code for f in plan(taken).findings if f.about in ("circuit", "circuits", "panel") and f.severity == "stop"
    ]
    assert wrong == []


def test_nothing_is_proposed_twice_and_parts_may_be_taken(book: Codebook) -> None:
    job = built(HOUSE)
    first = propose(job, book, plan_whole(job, book)[1].contexts)
    part = edited(job, *first[0].edits)
    second = propose(part, book, plan_whole(part, book)[1].contexts)
    assert len(second) == len(first) - 1
    assert first[0].key not in {p.key for p in second}


def test_drop_along_a_branching_chain_is_that_of_a_power_flow_library(book: Codebook) -> None:
    """The common-room circuit of the demo with branches, by pandapower with constant-current loads."""
    job = sample("quince-hollow")
    chain = next(c for c in job.circuits if c.name == "Common room")
    hops = [hop.model_dump() for hop in chain.chain]
    hops[3]["after"], hops[5]["after"] = hops[0]["box"], hops[1]["box"]
    job = edited(job, {"op": "set", "kind": "circuit", "id": chain.id, "set": {"chain": hops}})
    loads = all_loads(job, book)
    woven = weave(job, book, loads)
    known = Known(loads=loads, laid=woven.laid, lies=entering(book, job, woven).lies, cuts={})
    contexts = circuit_contexts(job, book, plan_whole(job, job_book(job))[1].contexts, known)
    view = CircuitView(book, next(c for c in contexts if c.circuit.id == chain.id))
    net = pp.create_empty_network()
    kv = 120 * 3**0.5 / 1000
    buses = {None: pp.create_bus(net, vn_kv=kv)}
    pp.create_ext_grid(net, buses[None])
    for link in view.tree.links:
        buses[link.box] = pp.create_bus(net, vn_kv=kv)
        metres = ((link.length_in or 0) + sum(view.makeup(link))) * 0.0254
        pp.create_line_from_parameters(
            net, buses[link.after], buses[link.box], 2 * metres / 1000, 1.98 / 0.3048, 1e-9, 0, 1
        )
        share = 3 * view.loads[link.box] / 1e6
        pp.create_load(net, buses[link.box], share, 0, const_i_p_percent=100, const_i_q_percent=100)
    pp.runpp(net, tolerance_mva=1e-12, numba=False)
    assert any(link.depth < index + 1 for index, link in enumerate(view.tree.links)), "it branches"
    for link in view.tree.links:
        outside = 100 * (1 - net.res_bus.vm_pu[buses[link.box]])
        assert view.percent_at(link.box, False) == pytest.approx(outside, rel=3e-3)


def test_boxes_on_no_circuit_are_named() -> None:
    job = built(HOUSE)
    assert not found(job, "box-loose"), "before the first circuit nothing is missing yet"
    started = built("circuit 1 20a as outlets", job)
    assert "boxes on no circuit" in found(started, "box-loose")[0].title


def test_a_length_that_nobody_knows_is_counted_and_not_made_up(book: Codebook) -> None:
    """A panel in no drawn room: its home runs are of no length, where it stands on a wall they have one."""
    room = "room Den 16' x 12'; door south 3' at 5'; fill; "
    adrift, placed = (built(room + text) for text in ("panel H 200a 30 spaces", "panel H 200a 30 spaces north 4'"))
    lengths = {}
    for name, job in (("adrift", adrift), ("placed", placed)):
        found = propose(job, book, plan_whole(job, book)[1].contexts, distances(job, book))
        lengths[name] = {p.boxes: (p.length_in, p.unknown) for p in found}
        taken = edited(job, *(edit for p in found for edit in p.edits))
        ways = [w.context.way for w in plan(taken).drawn.ways.values()]
        assert sum(p.length_in for p in found) == sum(leg.length_in for way in ways for leg in way.legs), name
    assert lengths["adrift"][("b6", "b7")] == (142.5, 1)  # by hand: 52 1/4 + 73 3/4 + 14 1/8 + 2 3/8
    assert all(unknown == 1 for _, unknown in lengths["adrift"].values())
    assert all(unknown == 0 and length > 142.5 for length, unknown in lengths["placed"].values())


def test_no_box_of_a_lighted_room_is_crowded_and_no_switch_hangs_behind_a_light() -> None:
    """Feed, light and alarm at a switch are three cables of No. 14: 6 wires of 2 in³, grounds 2, device 4: 18 in³,
    what a single-gang box holds (314.16(B)). What goes on to the next room goes on from the alarm."""
    job = built(
        "room Hall 4' x 14'; room Bed 12' x 12' west of Hall; door between Bed and Hall 30\";"
        "fan in Bed; smoke alarm in Bed; light in Hall; smoke alarm in Hall; switch by the door in Bed;"
        "panel H 200a 30 spaces in Hall north 2'"
    )
    wired = built("wire everything", job)
    boxes = {box.id: box for box in wired.boxes}
    pairs = [(boxes[hop.box].kind, boxes[hop.after].kind) for c in wired.circuits for hop in c.chain if hop.after]
    assert ("switch", "light") not in pairs and ("switch", "fan") not in pairs
    assert ("fan", "switch") in pairs and ("light", "smoke") in pairs
    assert not found(wired, "box-full")


def test_the_lights_of_a_room_stay_with_what_switches_them() -> None:
    """Twelve of them are more than the habit of ten, and one circuit all the same; outlets are parted, and told
    apart by a number. In Canada the code counts to twelve (CEC 8-304), so there the lights are parted too."""
    text = (
        "barn 36' x 48'\nman door east 4' 36\"\npanel B 100a 20 spaces on the east wall 8' from the south corner\n"
        "{} lights\nswitch at the man door\noutlets every 6' on north and south walls at 48\"\nwire everything"
    )
    job = read_text(text.format(12))
    lights = [c for c in job.circuits if any(job.node(hop.box).kind == "light" for hop in c.chain)]
    assert [len(circuit.chain) for circuit in lights] == [13]
    assert not any(item.code == "switch-apart" for item in plan(job).findings)
    assert [c.name for c in job.circuits if "Outlets" in c.name] == ["Outlets Barn"]
    canadian = read_text(text.format(14), "ca-2021").circuits
    assert sum(circuit.name.startswith("Lights") for circuit in canadian) == 2
    more = read_text(text.format(12).replace("every 6'", "every 3'"))
    assert [c.name for c in more.circuits if "Outlets" in c.name][:2] == ["Outlets Barn", "Outlets Barn 2"]
