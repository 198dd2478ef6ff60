"""The order of proof and its windows by hand; faults by hand; where it may be; hidden faults against every order of
readings; what is refused in words."""

from __future__ import annotations

from itertools import combinations
from typing import Any

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.testing.faults import Fault, faults_of
from levelrun.core.testing.learn import best_possible, puzzle
from levelrun.core.testing.lessons import LESSONS, questions
from levelrun.core.testing.log import NOT_TESTED, log_of
from levelrun.core.testing.planned import Proof
from levelrun.core.testing.reading import Probe, read
from levelrun.core.testing.steps import Step
from levelrun.core.testing.where import grouped
from levelrun.core.testing.wired import State
from levelrun.exchange.text import read_text, write_text
from levelrun.samples import sample
from tests.conftest import built, codes, edited, one_way

SHED = "over 100' trench 18\" deep in pvc40 3/4 to C-1"
LOAD_W = 120.0  # what a receptacle draws by the shop's usual load: proof is read with it and 1,500 W more
OHM = 1.98 * 0.1 * (1 - 0.00323 * 55) + 0.003  # 100 ft of No. 12 at 20 °C and a joint


def shed(*readings: dict[str, Any]) -> Job:
    """A receptacle C-1 at the end of 100 ft of No. 12, with readings."""
    job = one_way(SHED, load_a=None, wire_size="12")
    job = edited(job, {"op": "set", "kind": "box", "id": "c1", "set": {"kind": "receptacle"}})
    return edited(job, *({"op": "measure", "of": "k", **item} for item in readings)) if readings else job


def proof(job: Job) -> Proof:
    return plan(job).testing


def step(job: Job, key: str) -> Step:
    return next(item for item in proof(job).steps("k") if item.key == key)


def meter(job: Job, key: str, fault: Fault | None = None, impedance: str = "low") -> float:
    found = step(job, key)
    assert found.probe is not None
    return read(proof(job).wired(job.circuits[0]), found.probe, fault, impedance)


def test_the_order_is_dead_first_and_proved() -> None:
    keys = [item.key for item in proof(shed()).steps("k")]
    assert keys[:3] == ["tester", "dead", "again"]
    assert keys.index("ground") < keys.index("insulation") < keys.index("line_neutral") < keys.index("neutral_ground")


def test_windows_by_hand() -> None:
    """Ground of 100 ft of No. 12: 0.163 + a joint cold; at 75 °C 0.201, a quarter more and 0.2 for the leads. Loaded
    with 1,500 W (9.6 ohm): 120 V over 9.6 + 2 x R + 15 mohm; the neutral's share stands on it."""
    job = shed()
    feet = proof(job).wired(job.circuits[0]).feet("c1")
    wire = 1.98 * feet / 1000
    cold, warm = wire * (1 - 0.00323 * 55) + 0.003, wire + 0.003
    ground = step(job, "ground")
    assert ground.expected == pytest.approx(cold, abs=0.002) and ground.low == 0
    assert meter(job, "ground") == pytest.approx(ground.expected, abs=0.001)
    assert ground.high == pytest.approx(1.25 * warm + 0.2, abs=0.003)
    volts = step(job, "line_neutral")
    assert volts.low is not None and volts.high is not None and 114 <= volts.low < 120 < volts.high <= 126 + 4
    loaded = step(job, "neutral_ground")
    plugged = 120**2 / (1500 + LOAD_W)
    amps = 120 / (plugged + 2 * cold + 0.015)
    assert loaded.expected == pytest.approx(amps * cold, abs=0.03)
    assert loaded.low is not None and loaded.high is not None
    assert loaded.low < loaded.expected < loaded.high < 2 * loaded.expected
    drop = step(job, "loaded")
    assert drop.low is not None and drop.low >= 108, "5 % in all, from the lowest source of range A"
    assert drop.expected == pytest.approx(amps * plugged, abs=0.05)


def test_windows_at_the_panel_are_range_a_of_the_standard() -> None:
    """ANSI C84.1 range A: 120 and 240 V ± 5 %."""
    steps = {item.key: (item.low, item.high) for item in proof(shed()).steps("p")}
    assert steps["leg_a"] == steps["leg_b"] == (114, 126) and steps["legs"] == (228, 252)


def test_the_source_as_it_was_read_moves_the_windows() -> None:
    high = edited(shed(), {"op": "measure", "of": "p", "step": "leg_a", "value": 124.0})
    was, now = step(shed(), "line_neutral"), step(high, "line_neutral")
    assert was.high is not None and now.high is not None and now.low is not None
    assert now.high > was.high + 2 and now.low > 119


@pytest.mark.parametrize(
    ("kind", "key", "by_hand"),
    [
        ("loose_neutral", "neutral_ground", 120 / (120**2 / (1500 + LOAD_W) + 2 * OHM + 0.815) * (OHM + 0.8)),
        ("open_ground", "line_ground", 0.0),
        ("bootleg", "neutral_ground", 0.0),
        ("open_neutral", "line_neutral", 0.0),
        ("open_hot", "line_neutral", 0.0),
        ("reversed", "line_ground", 0.0),
    ],
)
def test_faults_by_hand(kind: str, key: str, by_hand: float) -> None:
    """Each fault at C-1, as worked out beside it; without it the reading is in its window."""
    job = shed()
    feet = proof(job).wired(job.circuits[0]).feet("c1")
    fault = Fault(kind=kind, box="c1", ohms=0.8)
    scale = feet / 100 if kind == "loose_neutral" else 1
    assert meter(job, key, fault) == pytest.approx(by_hand, abs=0.06 * scale + 0.05)
    found = step(job, key)
    assert found.low is not None and found.high is not None
    assert found.low <= meter(job, key) <= found.high
    assert not found.low <= meter(job, key, fault) <= found.high


def test_a_nail_is_seen_by_insulation_and_an_open_ground_by_ohms() -> None:
    job = shed()
    assert meter(job, "insulation") > 1 > meter(job, "insulation", Fault(kind="nail", box="c1"))
    assert meter(job, "ground", Fault(kind="open_ground", box="c1")) == float("inf")


def test_a_ghost_is_neither_dead_nor_live() -> None:
    """By a high-impedance meter some tens of volts are a check, by a low-impedance one a stop, 0.2 V is fine."""
    job = shed()
    assert 20 < meter(job, "dead", None, "high") < 90 and meter(job, "dead") < 1
    proved = ({"step": "tester", "word": "yes"}, {"step": "again", "word": "yes"})
    ghost = shed(*proved, {"step": "dead", "value": 34.0, "meter": "high"})
    assert "ghost-voltage" in codes(plan(ghost)) and "reading-off" not in codes(plan(ghost))
    live = shed(*proved, {"step": "dead", "value": 34.0, "meter": "low"})
    assert "reading-off" in codes(plan(live)) and "ghost-voltage" not in codes(plan(live))
    dead = shed(*proved, {"step": "dead", "value": 0.2, "meter": "high"})
    assert not {"reading-off", "ghost-voltage", "not-proved"} & set(codes(plan(dead)))
    full = shed(*proved, {"step": "dead", "value": 119.0, "meter": "high"})
    assert "reading-off" in codes(plan(full)), "the source's own volts are no ghost"


def test_dead_without_a_proved_tester_is_asked_about() -> None:
    assert "not-proved" in codes(plan(shed({"step": "dead", "value": 0.1})))
    before = shed({"step": "tester", "word": "yes"}, {"step": "dead", "value": 0.1})
    said = next(f for f in plan(before).findings if f.code == "not-proved")
    assert "after" in said.title and "before" not in said.title
    assert "not-proved" not in codes(plan(shed({"step": "line_neutral", "value": 120.0})))


def test_every_healthy_reading_of_the_demo_is_in_its_window() -> None:
    """What the model reads of a sound circuit falls into the window that the plan gives for it."""
    job = sample("quince-hollow")
    testing = proof(job)
    seen = 0
    for circuit in job.circuits:
        for item in testing.steps(circuit.id):
            if item.probe is None or item.low is None or item.high is None:
                continue
            value = read(testing.wired(circuit), item.probe)
            assert item.low - 1e-6 <= value <= item.high + 1e-6, (circuit.name, item.key, value, item.low, item.high)
            seen += 1
    assert seen > 100


def test_a_loose_neutral_is_named_first_and_the_next_reading_says_where() -> None:
    job = sample("quince-hollow")
    circuit = next(c for c in job.circuits if c.id == "ch14")
    where = proof(job).where(circuit)
    assert where is not None and where.suspects[0].title.startswith("Loose neutral at")
    assert where.suspects[0].low <= 9.1 * 1.15 and where.suspects[0].high >= 9.1 * 0.85
    assert where.next is not None and "loaded" in where.next.text and len(where.next.tells) >= 2
    healthy = next(c for c in job.circuits if c.id == "ch9")
    assert proof(job).where(healthy) is None


@pytest.mark.parametrize("kind", ["loose_neutral", "open_ground", "bootleg", "smaller", "open_neutral", "nail"])
def test_a_fault_that_is_read_out_is_among_the_first(kind: str) -> None:
    """Every step read with the fault in it: it is the likeliest, or as likely as the likeliest."""
    job = sample("quince-hollow")
    circuit = next(c for c in job.circuits if c.id == "ch14")
    testing = proof(job)
    wired = testing.wired(circuit)
    fault = next(f for f in faults_of(job, circuit, wired) if f.kind == kind and f.box == "c1")
    job = job.model_copy(update={"measured": tuple(m for m in job.measured if m.of != circuit.id)})
    job = edited(job, {"op": "measure", "of": circuit.id, "step": "insulation_ready", "word": "yes"})
    for item in proof(job).steps(circuit.id):
        if item.probe is None:
            continue
        value = read(wired, item.probe, fault)
        if item.kind == "word":
            edit: dict[str, Any] = {"word": "yes" if value else "no"}
        else:
            edit = {"value": min(value, 1e5 if item.kind != "volts" else 1000.0)}
        job = edited(job, {"op": "measure", "of": circuit.id, "step": item.key, **edit})
    where = proof(job).where(circuit)
    if kind == "smaller" and where is None:
        return  # No. 14 in 57 ft of it may stay within the windows: they are no finer
    assert where is not None
    first = [one.key for one in where.suspects if one.fits < 1]
    assert any(key.startswith(kind) for key in first), [(s.key, s.fits) for s in where.suspects]


def exhaustive(groups: list[list[int]], left: frozenset[int], depth: int) -> bool:
    """Whether some order of readings tells all that can be told apart within `depth`: every one is tried."""
    told = [row for row in groups if len({row[n] for n in left}) > 1]
    if not told:
        return True
    if depth == 0:
        return False
    for row in told:
        parts = [frozenset(n for n in left if row[n] == g) for g in {row[n] for n in left}]
        if all(exhaustive(groups, part, depth - 1) for part in parts):
            return True
    return False


def test_the_best_possible_score_is_that_of_every_order_of_readings() -> None:
    job = sample("quince-hollow")
    boxes = {box.id: box for box in job.boxes}
    for ident, seed in (("ch14", 1), ("ch14", 2), ("ch16", 3), ("c5", 4)):
        circuit = next(c for c in job.circuits if c.id == ident)
        game = puzzle(job, circuit, proof(job).wired(circuit), boxes, seed)
        rows = [list(row)[:7] for row in game.groups][:9]
        least = next(d for d in range(10) if exhaustive(rows, frozenset(range(7)), d))
        assert best_possible(rows, 7) == least
        for a, b in combinations(game.faults, 2):
            assert game.same(a, b) is all(
                row[game.faults.index(a)] == row[game.faults.index(b)] for row in game.groups
            )
    assert best_possible([], 5) == 0 and best_possible([[0, 1]], 2) == 1
    assert best_possible([[0, 0, 1, 1], [0, 1, 0, 1]], 4) == 2


def test_readings_that_a_meter_tells_apart() -> None:
    assert grouped([120.0, 120.1, 0.0], "volts") == [1, 1, 0]
    assert grouped([0.2, float("inf"), 0.21], "ohms") == [0, 1, 0]
    assert len(set(grouped([50.0, 0.002], "megohms"))) == 2


def test_lessons_have_one_right_answer_each_and_are_made_anew() -> None:
    book = plan(shed()).buying.book
    for lesson in LESSONS:
        first, again = questions(book, lesson.key, 3), questions(book, lesson.key, 3)
        assert first == again and len(first) >= 5
        for asked in first:
            assert len(set(asked.choices)) == len(asked.choices) >= 3 and 0 <= asked.right < len(asked.choices)
    told = {q.text: q.choices[q.right] for seed in range(4) for q in questions(book, "carry", seed)}
    assert told["The largest breaker for No. 12 copper in an ordinary branch circuit?"] == "20 A"
    assert told["A 15 A circuit of 120 V: how much may stay on for three hours or more?"] == "1440 W"


def test_what_was_not_tested_is_said_in_the_log() -> None:
    rows = log_of(proof(shed({"step": "line_neutral", "value": 120.1, "on": "2026-06-10", "who": "M. Ash"})))
    read_ = [row for row in rows if row.verdict != NOT_TESTED]
    assert [(row.title, row.reading, row.verdict) for row in read_] == [
        ("Line to neutral at C-1, on", "120.1", "fine")
    ]
    left = {row.step for row in rows if row.of == "k" and row.verdict == NOT_TESTED}
    assert {"tester", "dead", "again", "ground", "neutral_ground"} <= left and "insulation" not in left


@pytest.mark.parametrize(
    ("edit", "told"),
    [
        ({"step": "line_neutral", "value": 1e9}, "1e\\+09 V: allowed: 0 to 1000"),
        ({"step": "ground", "value": -0.2}, "-0.2 Ω: allowed: 0 to"),
        ({"step": "ground"}, "say Ω"),
        ({"step": "colour", "value": 3}, "'colour' is no step of proof"),
        ({"step": "gfci:gone", "word": "yes"}, "the box 'gone' of this reading is gone"),
        ({"step": "tester", "value": 3}, "say yes or no"),
        ({"step": "insulation", "value": 200}, "off the circuit"),
        ({"of": "nobody", "step": "dead", "value": 0}, "no circuit or panel 'nobody'"),
    ],
)
def test_readings_that_are_none_are_refused_in_words(edit: dict[str, Any], told: str) -> None:
    with pytest.raises((LevelRunError, ValueError), match=told):
        edited(shed(), {"op": "measure", "of": "k", **edit})


def test_insulation_is_read_once_its_electronics_are_off() -> None:
    job = shed({"step": "insulation_ready", "word": "yes"}, {"step": "insulation", "value": 200.0})
    assert "reading-off" not in codes(plan(job))
    bad = shed({"step": "insulation_ready", "word": "yes"}, {"step": "insulation", "value": 0.3})
    assert "reading-off" in codes(plan(bad))


def test_both_leads_on_one_point_read_nothing() -> None:
    wired = proof(shed()).wired(shed().circuits[0])
    with pytest.raises(ValueError, match="one point"):
        read(wired, Probe(kind="volts", a=("c1", "hot"), b=("c1", "hot"), state=State()))


def test_a_circuit_without_load_or_boxes_has_an_order_all_the_same() -> None:
    job = shed()
    bare = edited(job, {"op": "set", "kind": "circuit", "id": "k", "set": {"chain": []}})
    assert proof(bare).steps("k") == [] and proof(job).wired(job.circuits[0]).loads is not None
    unread = edited(job, {"op": "drop", "kind": "box", "id": "c1"}) if False else job
    assert proof(unread).steps("nobody") == []


@pytest.mark.parametrize(
    "lines",
    [
        ["measure Shed tester done", "measure Shed dead 0.2 low on 2026-06-10 by M. Ash", "measure Shed again done"],
        [
            "measure Panel H leg a 123.6 on 2026-06-10",
            "measure Panel H legs 247 V",
            "measure Shed line neutral 119.2",
        ],
        ["measure Shed insulation ready yes", "measure Shed insulation 200 megohms", "measure Shed gfci C-1 trips"],
    ],
)
def test_sentences_survive_the_text_of_a_job(lines: list[str]) -> None:
    job = shed()
    for line in lines:
        job = said_on(job, line, Looked())[0]
    assert len(job.measured) == len(lines) and read_text(write_text(job)) == job


def test_readings_go_with_what_they_were_of() -> None:
    job = shed({"step": "line_neutral", "value": 120.0})
    gone = edited(job, {"op": "drop", "kind": "circuit", "id": "k"})
    assert gone.measured == ()


# Of a cabin with one circuit, on 1: the same as in the words of the guide.
CABIN = (
    "structure cabin; room Den 12' x 14'; panel C 100a 12 spaces north 3'; set receptacle south 6'; "
    "circuit 1 20a Den: R-1"
)
SPOKEN = {
    "R-1 hot to neutral 121": "measure 1 line neutral 121",
    "hot to neutral at R-1 121": "measure 1 line neutral 121",
    "hot to ground on 1 121 low by Ann": "measure 1 line ground 121 low by Ann",
    "1 hot to neutral 121 and hot to ground 120": "measure 1 line neutral 121; measure 1 line ground 120",
    "R-1 hot to neutral 121, hot to ground 121, neutral to ground 0.3":
        "measure 1 line neutral 121; measure 1 line ground 121; measure 1 neutral ground 0.3",
    "leg to leg 243": "measure C legs 243",
    "C legs 243": "measure C legs 243",
    "C legs 121 and 122 low": "measure C leg a 121 low; measure C leg b 122 low",
    "gfci at R-1 ok": "measure 1 gfci R-1 yes",
}  # fmt: skip


@pytest.mark.parametrize(("spoken", "short"), SPOKEN.items())
def test_readings_as_they_are_called_out(spoken: str, short: str) -> None:
    job = built(CABIN)
    assert built(spoken, job).measured == built(short, job).measured


@pytest.mark.parametrize("text", ["R-1 reads 121", "C legs 121 and", "hot to neutral at R-9 121", "hot to neutral"])
def test_a_reading_of_which_something_lacks_is_asked(text: str) -> None:
    with pytest.raises(LevelRunError):
        built(text, built(CABIN))
