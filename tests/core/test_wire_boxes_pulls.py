"""Ampacity, wire size, box fill, pulls, bends and holes against printed tables, laws and worked figures."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from levelrun.core.boxes.volume import Counted, box_volume
from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import ground_size, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.trade.conductors.ampacity import ampacity
from levelrun.core.trade.conductors.sizing import Demand, choose, upsized_ground
from levelrun.core.trade.holes import bored_hole
from levelrun.core.trade.pipe.hand_bend import hand_bend
from levelrun.core.trade.pipe.pull import PullWires, Section, pull, wire_weight
from levelrun.core.trade.pipe.pull_box import expansion, pull_box

WIRE = [PullWires("THWN-2", "6", "cu", 4)]


def test_ambient_factors_follow_the_square_root_law(book: Codebook) -> None:
    """sqrt((Tc - Ta) / (Tc - 30)), the law behind table 310.15(B)(1)(1), at the hot end of each band."""
    for row in book.table("310-15-ambient").rows:
        for column in (60, 75, 90):
            factor = float(row[f"f_{column}"])
            if factor:
                law = math.sqrt((column - float(row["up_to_c"])) / (column - 30))
                assert factor == pytest.approx(law, abs=0.012), (column, row["up_to_c"])


def test_ampacity_columns_keep_their_order(book: Codebook) -> None:
    """Rising with size and column, aluminum under copper, 75 to 90 near the square-root law."""
    rows = book.table("310-16-ampacity").rows
    for metal in ("cu", "al"):
        made = [row for row in rows if float(row[f"{metal}_75"])]
        for column in (60, 75, 90):
            values = [float(row[f"{metal}_{column}"]) for row in made]
            assert values == sorted(set(values))
        for row in made:
            a60, a75, a90 = (float(row[f"{metal}_{c}"]) for c in (60, 75, 90))
            assert a60 < a75 < a90
            assert a90 / a75 == pytest.approx(math.sqrt(60 / 45), rel=0.09)
    assert all(float(row["al_75"]) < float(row["cu_75"]) for row in rows)


def test_dwelling_feeders_are_83_percent(book: Codebook) -> None:
    """310.12: the 75 C ampacity of each size is 83 % of its rating or more, and the size below is not."""
    order = wire_sizes(book)
    for row in book.table("310-12-dwelling").rows:
        for metal in ("cu", "al"):
            need = 0.83 * float(row["rating_a"])
            size = row[metal]
            assert ampacity(book, size, metal, 75, 30, 3).base_a >= need
            below = order[order.index(size) - 1]
            assert ampacity(book, below, metal, 75, 30, 3).base_a < need


# Plain cases of the trade: load, wiring, wire, ground. Articles 110.14, 240.4, 310.16, figures from memory.
SIZES = [
    (Demand(load_a=12, wiring="NM-B"), "14", "14", 15),
    (Demand(load_a=16, wiring="NM-B"), "12", "12", 20),
    (Demand(load_a=24, wiring="NM-B", volts=240), "10", "10", 25),
    (Demand(load_a=30, wiring="NM-B", volts=240), "10", "10", 30),
    (Demand(load_a=40, continuous=True, wiring="NM-B", volts=240), "6", "10", 50),
    (Demand(load_a=48, continuous=True, wiring="NM-B", volts=240), "4", "10", 60),
    (Demand(load_a=48, continuous=True, volts=240), "6", "10", 60),
    (Demand(load_a=100, volts=240), "3", "8", 100),
    (Demand(load_a=100, volts=240, material="al"), "1", "6", 100),
    (Demand(load_a=18, ambient_c=45, current_carrying=9), "12", "12", 20),
    (Demand(load_a=10, material="al", wiring="NM-B"), "8", "8", 15),
]


@pytest.mark.parametrize("case", SIZES, ids=lambda c: f"{c[0].load_a:g} A {c[0].wiring} {c[0].material}")
def test_wire_for_a_load(book: Codebook, case: tuple[Demand, str, str, float]) -> None:
    demand, size, ground, breaker = case
    found = choose(book, demand)
    assert (found.size, found.breaker_a) == (size, breaker)
    if demand.material == "cu" or demand.load_a > 50:
        assert found.ground_size == ground
    assert found.decided_by != found.runner_up


@pytest.mark.parametrize(
    ("breaker", "base", "size", "ground"),
    [
        (20, "12", "10", "10"), (20, "12", "6", "6"), (30, "10", "8", "8"), (60, "6", "4", "8"), (60, "6", "2", "6"),
        (60, "6", "3", "6"), (100, "3", "2", "6"), (100, "3", "1", "6"),
    ],
)  # fmt: skip
def test_a_ground_grows_by_as_many_sizes_as_its_wire(
    book: Codebook, breaker: float, base: str, size: str, ground: str
) -> None:
    """By circular mils (250.122(B)). Checked by the diameter law of ASTM B258, where a size is a factor of
    92 ** (2 / 39) of the area: as many sizes on the wire as on the ground, to the next that is made."""
    assert upsized_ground(book, breaker, "cu", base, size) == ground
    area = {n: 92 ** (2 * (36 - n) / 39) for n in range(1, 15)}
    made = [14, 12, 10, 8, 6, 4, 3, 2, 1]
    wanted = area[int(ground_size(book, breaker, "cu"))] * area[int(size)] / area[int(base)]
    exact = next(n for n in made if area[n] >= wanted * (1 - 1e-9))
    assert ground == str(exact)


def test_drop_decides_and_takes_the_ground_along(book: Codebook) -> None:
    """250.122(B): 12 grown to 6 for drop takes its 12 ground to 6."""
    found = choose(book, Demand(load_a=16, length_ft=200, drop_limit_percent=3))
    assert (found.size, found.ground_size, found.decided_by) == ("6", "6", "drop")
    assert found.drop_percent <= 3


@pytest.mark.parametrize(
    ("demand", "key"),
    [
        (Demand(load_a=30, breaker_a=20), "breaker_a"),
        (Demand(load_a=900), "load_a"),
        (Demand(load_a=16, length_ft=50_000, drop_limit_percent=1), "drop_limit_percent"),
        (Demand(load_a=16, wiring="UF-B", ambient_c=70), "ambient_c"),
        (Demand(load_a=16, wiring="rope"), "wiring"),
        (Demand(load_a=16, termination_c=70), "termination_c"),
    ],
)
def test_no_wire_is_said_with_the_key(book: Codebook, demand: Demand, key: str) -> None:
    with pytest.raises(LevelRunError) as refused:
        choose(book, demand)
    assert refused.value.key == key


@given(st.floats(1, 300), st.floats(0, 200), st.integers(1, 20), st.floats(0, 15))
def test_more_load_more_heat_more_wires_never_a_smaller_wire(
    load_a: float, more: float, wires: int, hotter: float
) -> None:
    book, order = load(), wire_sizes(load())
    base = Demand(load_a=load_a, ambient_c=30, current_carrying=3)
    harder = Demand(load_a=min(load_a + more, 310), ambient_c=30 + hotter, current_carrying=3 + wires)
    try:
        bigger = choose(book, harder).size
    except LevelRunError:
        return
    assert order.index(choose(book, base).size) <= order.index(bigger)


def test_box_fill_worked_example(book: Codebook) -> None:
    """Four 12 wires, one receptacle, two grounds, clamps: 4 + 2 + 1 + 1 allowances of 2.25 (314.16(B))."""
    found = box_volume(book, [Counted("12", 4)], [Counted("12", 1)], Counted("12", 2), clamps=True)
    assert found.needed_in3 == pytest.approx(8 * 2.25)
    six = box_volume(book, [Counted("14", 6)], [], Counted("14", 6), fittings=1)
    assert six.needed_in3 == pytest.approx(2.0 * (6 + 1 + 1 + 0.5))
    with pytest.raises(LevelRunError):
        box_volume(book, [Counted("4", 2)])


@given(
    st.lists(
        st.one_of(
            st.builds(lambda a, r: Section(bend_deg=a, radius_in=r), st.floats(1, 120), st.floats(4, 36)),
            st.builds(lambda n, c: Section(straight_in=n, climb_in=n * c), st.floats(1, 900), st.floats(0, 1)),
        ),
        min_size=1,
        max_size=6,
    ),
    st.floats(0.1, 0.8),
    st.floats(0, 50),
)
def test_pull_against_numerical_integration(sections: list[Section], friction: float, start: float) -> None:
    """dT/ds = μT/R round a bend and w(μ cos θ + sin θ) along a straight, integrated by scipy."""
    book = load()
    weight = wire_weight(book, WIRE[0]) * 4 / 12
    tension = start
    for part in sections:
        if part.bend_deg:
            length = part.radius_in * math.radians(part.bend_deg)
            slope = lambda s, t, r=part.radius_in: friction * t / r  # noqa: E731
        else:
            length, up = part.straight_in, part.climb_in / part.straight_in
            rate = weight * (friction * math.sqrt(1 - up * up) + up)
            slope = lambda s, t, k=rate: [k]  # noqa: E731
        tension = solve_ivp(slope, (0, length), [tension], rtol=1e-9, atol=1e-9).y[0, -1]
    assert pull(book, sections, WIRE, friction, start).forward_lb == pytest.approx(tension, rel=1e-5, abs=1e-6)


def test_pull_feeds_from_the_easier_end(book: Codebook) -> None:
    """Bends near the fed end cost less: capstan multiplies what is pulled already."""
    bend, straight = Section(bend_deg=90, radius_in=6), Section(straight_in=600)
    found = pull(book, [bend, bend, straight], WIRE, 0.35)
    assert found.feed == "start" and found.forward_lb < found.reverse_lb
    assert found.limit_lb == pytest.approx(4 * 26240 * 0.008)
    up = pull(book, [Section(straight_in=120, climb_in=120)], WIRE, 0.35)
    assert (up.feed, up.reverse_lb) == ("end", 0)


def test_bare_copper_weighs_what_the_handbook_says(book: Codebook) -> None:
    """1 kcmil of copper weighs 3.027 lb per 1,000 ft (density 8.89): 12 AWG 19.8 lb, from memory."""
    assert pytest.approx(19.8, abs=0.1) == 6530 * 3.027e-6 * 1000
    assert 1000 * wire_weight(book, PullWires("THWN-2", "12", "cu", 1)) == pytest.approx(24, abs=2)


def test_bender_chart_is_trigonometry(book: Codebook) -> None:
    """The printed multiplier and shrink against 1/sin and tan(half): 5 % and 1/16 in."""
    for row in book.table("bend-multipliers").rows:
        angle = math.radians(float(row["angle_deg"]))
        assert float(row["multiplier"]) == pytest.approx(1 / math.sin(angle), rel=0.05)
        assert float(row["shrink_per_in"]) == pytest.approx(math.tan(angle / 2), abs=0.08)


def test_hand_bends(book: Codebook) -> None:
    offset = hand_bend(book, "offset", "EMT", "3/4", 6, 30, 40)
    assert offset.marks_in[1] - offset.marks_in[0] == pytest.approx(12)
    assert offset.marks_in[1] == pytest.approx(40 + 6 * math.tan(math.radians(15)))
    assert hand_bend(book, "box_offset", "EMT", "1/2").marks_in == [2.0, 4.5]
    assert hand_bend(book, "stub", "EMT", "1/2", distance_in=12).marks_in == [7.0]
    saddle = hand_bend(book, "saddle3", "EMT", "3/4", 2, 45, 30)
    assert saddle.angles_deg == [22.5, 45, 22.5]
    assert saddle.marks_in[2] - saddle.marks_in[1] == pytest.approx(2 / math.sin(math.radians(22.5)))
    four = hand_bend(book, "saddle4", "EMT", "3/4", 3, 30, 30, 8)
    assert four.marks_in[2] - four.marks_in[1] == pytest.approx(8)
    for kind, key in (("stub", "distance_in"), ("offset", "rise_in"), ("saddle4", "distance_in")):
        with pytest.raises(LevelRunError) as refused:
            hand_bend(book, kind, "EMT", "1/2", angle_deg=30, rise_in=3 if kind == "saddle4" else None)
        assert refused.value.key == key


@pytest.mark.parametrize(
    ("kind", "angle", "taken"),
    [
        ("stub", None, True),
        ("stub", 90.0, True),
        ("stub", 89.0, False),
        ("offset", 89.0, True),
        ("offset", 90.0, False),
    ],
)
def test_a_stub_is_bent_square_and_an_offset_is_not(
    book: Codebook, kind: str, angle: float | None, taken: bool
) -> None:
    if taken:
        assert hand_bend(book, kind, "EMT", "3/4", 4, angle, 12).marks_in
        return
    with pytest.raises(LevelRunError) as refused:
        hand_bend(book, kind, "EMT", "3/4", 4, angle, 12)
    assert refused.value.key == "angle_deg"
    assert refused.value.allowed == ["90" if kind == "stub" else "under 90"]


def test_pull_boxes_expansion_and_holes(book: Codebook) -> None:
    """314.28: 8 x 3 in straight; 6 x 3 + 2 + 2 angle. 352.44: 14 ft over 80 F. IRC R602.6, R502.8; 300.4."""
    assert pull_box(book, ["3", "2"], []).length_in == 24
    assert pull_box(book, [], [("3", ["2", "2"]), ("2", [])]).length_in == 22
    assert pull_box(book, [], [("3", ["2", "2"]), ("2", [])]).width_in == 12
    assert expansion(book, 14, 80).movement_in == pytest.approx(0.4543, abs=1e-4)
    assert not expansion(book, 5, 80).joint_needed
    assert bored_hole(book, "stud", 3.5, 2.1).allowed and not bored_hole(book, "stud_bearing", 3.5, 1.5).allowed
    assert (
        bored_hole(book, "stud", 3.5, 1.0 + 1e-3).plate_needed and not bored_hole(book, "stud", 3.5, 1.0).plate_needed
    )
    assert bored_hole(book, "joist", 9.25, 3).allowed and not bored_hole(book, "joist", 9.25, 3, False, 1.5).allowed
    assert bored_hole(book, "engineered", 11.875, 1).max_hole_in is None
