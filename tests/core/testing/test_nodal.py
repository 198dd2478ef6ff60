"""Nodal analysis against circuits solved by hand, against a power-flow program with split phase, neutral and ground,
and against itself with the meter in the network."""

from __future__ import annotations

import opendssdirect as dss
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.plan import plan
from levelrun.core.testing.faults import Fault, faults_of, with_fault
from levelrun.core.testing.wired import State, Wired, network
from levelrun.core.trade.nodal import Branch, Network, Source
from levelrun.samples import sample


def test_a_loop_by_hand() -> None:
    """124 V, 0.4 ohm out, 10 ohm of load, 0.4 ohm back: 124 / 10.8 = 11.48 A; 114.8 V at the load, 4.59 V on the
    neutral."""
    solved = Network(
        [Branch("s", "h", 0.4), Branch("h", "n", 10), Branch("n", "earth", 0.4)], [Source("s", "earth", 124, 0)]
    ).volts()
    assert solved["h"] - solved["n"] == pytest.approx(114.81, abs=0.01)
    assert solved["n"] == pytest.approx(4.593, abs=0.001)


def test_two_legs_with_an_open_neutral_share_240_by_their_loads() -> None:
    """60 and 120 W lamps on two legs, their neutral open: 240 V over 240 and 120 ohm in series, 160 and 80 V."""
    lamps = [Branch("a", "n", 240), Branch("b", "n", 120)]
    solved = Network(lamps, [Source("a", "earth", 120, 0), Source("b", "earth", -120, 0)]).volts()
    assert solved["a"] - solved["n"] == pytest.approx(160, abs=0.01)
    assert solved["n"] - solved["b"] == pytest.approx(80, abs=0.01)


def test_a_meter_loads_what_it_reads() -> None:
    """120 V through 12 Mohm of coupling: 10 Mohm reads 54.5 V, 3 kohm reads 0.03 V."""
    found = Network([Branch("live", "wire", 1.2e7)], [Source("live", "earth", 120, 0)]).solved()
    assert found.volts("wire", "earth", 1e7) == pytest.approx(54.5, abs=1.5)
    assert found.volts("wire", "earth", 3e3) == pytest.approx(0.03, abs=0.001)


BRANCHES = st.lists(
    st.tuples(st.integers(0, 7), st.integers(0, 7), st.floats(0.01, 1e4)).filter(lambda b: b[0] != b[1]),
    min_size=3, max_size=20,
)  # fmt: skip


@given(BRANCHES, st.floats(10, 1e6))
def test_a_reading_by_thevenin_is_the_reading_with_the_meter_in_the_network(
    drawn: list[tuple[int, int, float]], meter: float
) -> None:
    names = ["earth", *(f"n{n}" for n in range(1, 8))]
    wires = [Branch(names[a], names[b], ohms) for a, b, ohms in drawn]
    source = [Source("n1", "earth", 120, 0.05)]
    whole = Network(wires, source)
    ends = [name for name in ("n2", "n3") if name in whole.index]
    if len(ends) < 2:
        return
    thevenin = whole.solved().volts(ends[0], ends[1], meter)
    inside = Network([*wires, Branch(ends[0], ends[1], meter)], source).volts()
    assert thevenin == pytest.approx(inside[ends[0]] - inside[ends[1]], rel=1e-4, abs=1e-4)


def by_opendss(net: Network) -> dict[str, float]:
    """The same network in OpenDSS: each node a bus, branches as resistors, sources as they are; voltages to earth."""
    bus = {name: f"n{n}.1" for n, name in enumerate(net.index)} | {net.ground: "n0.0"}
    dss.Text.Command("Clear")
    dss.Text.Command("New Circuit.c basekv=0.12 phases=1 bus1=idle.1 R1=1 X1=0 R0=1 X0=0")
    dss.Text.Command("New Reactor.idle phases=1 bus1=idle.1 bus2=idle.0 R=1 X=0")
    for n, item in enumerate(net.branches):
        ohms = max(item.ohms, 1e-6)
        dss.Text.Command(f"New Reactor.r{n} phases=1 bus1={bus[item.a]} bus2={bus[item.b]} R={ohms} X=0")
    for n, source in enumerate(net.sources):
        angle = 0 if source.volts > 0 else 180
        dss.Text.Command(
            f"New Vsource.v{n} phases=1 bus1={bus[source.plus]} bus2={bus[source.minus]} "
            f"basekv={abs(source.volts) / 1000} pu=1 angle={angle} R1={source.ohms} X1=0 R0={source.ohms} X0=0"
        )
    dss.Text.Command("Set Tolerance=0.0000001")
    dss.Text.Command("Solve Mode=Direct")
    found = {}
    for name in net.index:
        dss.Circuit.SetActiveBus(bus[name].partition(".")[0])
        real = dss.Bus.Voltages()[0]
        found[name] = real
    return found


def test_circuits_of_the_demo_agree_with_a_power_flow_program() -> None:
    """Split phase with its neutral and ground, healthy and with faults, on, loaded, warm: every node within
    0.05 V."""
    job = sample("quince-hollow")
    testing = plan(job).testing
    seen = 0
    for ident in ("ch14", "c3", "ch16", "c8"):
        circuit = next(c for c in job.circuits if c.id == ident)
        wired: Wired = testing.wired(circuit)
        kinds = {fault.kind: fault for fault in faults_of(job, circuit, wired)}
        chosen: list[Fault | None] = [None, *(f for f in kinds.values() if not f.kind.startswith("open"))]
        for fault in chosen:
            state = State(loaded=True, extra_w=1500 if circuit.volts == 120 else 0, extra_at=wired.far, celsius=75)
            net = network(*with_fault(wired, state, fault))
            ours, theirs = net.volts(), by_opendss(net)
            for node, volts in theirs.items():
                assert ours[node] == pytest.approx(volts, abs=0.05), (ident, fault, node)
                seen += 1
    assert seen > 500
