"""The order of proof of a circuit or panel, each step with the window that its reading must fall in, from this plan.

Windows: at the service ANSI C84.1-2020 range A, 120 V ± 5 % (from memory); along a circuit what the source reads less
the drop of this plan with its wires cold and warm, to the meter's tolerance; 5 % in all at the farthest outlet
(210.19 informational note). Insulation: 1 MΩ at 500 V d.c. (IEC 60364-6 table 6A, from memory). What a meter may be
off is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.feeders import feeders_of
from levelrun.core.circuits.spaces import label
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.kept import Standing
from levelrun.core.testing.reading import Probe, read
from levelrun.core.testing.wired import COLD_C, HOT_C, State, Wired, along, wired_of

SOURCE_V, RANGE_A = 120.0, 0.05
METER = 0.01  # of the reading
METER_V, METER_OHM = 0.5, 0.2  # and so much beside; of ohms the leads
GHOST_V, DEAD_V, MOST_GHOST_V = 2.0, 2.0, 90.0
PLUG_W = 1500.0
LEAST_MEGOHMS, MOST_MEGOHMS = 1.0, 1000.0
INSULATION_READY = "insulation_ready"
PLUGGED = ("receptacle", "device")


@dataclass(frozen=True, kw_only=True)
class Step:
    """One step of proof. kind: volts, ohms, megohms or word; low, high: the window, null where it is a word or where
    a length is not known; expected: what the plan says; caution: before it is done; where: the box that it is at;
    after: the step that must be done before this is offered; probe: what is read."""

    key: str
    title: str
    sub: str
    kind: str
    unit: str
    low: float | None
    high: float | None
    expected: float | None
    section: str
    caution: str
    where: str
    after: str = ""
    words: tuple[str, str] = ("yes", "no")
    probe: Probe | None = None


_known = Standing[tuple[dict[str, Box], dict[str, str]]](4)


def source_read(job: Job, panel: str) -> float:
    """What the source reads, as it was read first at the panel that feeds this one; 120 V where nobody read it."""
    at, seen, feeders = panel, set[str](), feeders_of(job)
    while (feed := feeders.get(at)) is not None and at not in seen:
        seen.add(at)
        at = feed.panel
    own = [m for m in job.measured if m.of == at and m.step in ("leg_a", "leg_b") and m.value is not None]
    return float(own[-1].value) if own and own[-1].value is not None and 60 < own[-1].value < 300 else SOURCE_V


def circuit_steps(job: Job, book: Codebook, circuit: Circuit, plans: Mapping[str, CircuitPlan]) -> list[Step]:
    """The order of proof of one circuit."""
    if not circuit.chain:
        return []
    wired = wired_of(job, book, circuit, plans, source_read(job, circuit.panel))
    boxes, names = _known.get(
        None,
        (job.boxes, job.panels),
        lambda: ({box.id: box for box in job.boxes}, {node.id: node.name for node in job.nodes}),
    )
    point = point_of(wired, boxes)
    return [
        *_dead(wired, point, names, circuit),
        *_cold(wired, circuit, point, names),
        *_live(wired, circuit, point, names, boxes),
        *_devices(wired, circuit, boxes, names),
    ]


def point_of(wired: Wired, boxes: Mapping[str, Box]) -> str:
    """Where a circuit is read: its farthest outlet, else its farthest box."""
    plugs = [box for box in wired.boxes if box in boxes and boxes[box].kind in PLUGGED]
    return max(plugs, key=wired.feet, default=wired.far)


def loaded_at(point: str) -> State:
    """The circuit on, with a heater plugged in at a box."""
    return State(loaded=True, extra_w=PLUG_W, extra_at=point)


def _dead(wired: Wired, point: str, names: Mapping[str, str], circuit: Circuit) -> Iterator[Step]:
    across = ("hot", "hot2") if wired.volts != 120 else ("hot", "neutral")
    probe = Probe(kind="volts", a=(point, across[0]), b=(point, across[1]), state=State(on=False))
    yield _word("tester", "Tester on a known live source", "a dead tester shows dead wires", "prove it first")
    yield Step(
        key="dead",
        title=f"Dead at {names.get(point, point)}, breaker {label(circuit) or '?'} off",
        sub="with a low-impedance tester or a load; a high-impedance meter may show some tens of volts",
        kind="volts",
        unit="V",
        low=0.0,
        high=DEAD_V,
        expected=0.0,
        section="NFPA 70E 120.5",
        caution="Breaker off and locked. Touch nothing before it is proved.",
        where=point,
        after="tester",
        probe=probe,
    )
    yield _word("again", "Tester on the known source again", "now the dead reading counts", "", after="dead")


def _cold(wired: Wired, circuit: Circuit, point: str, names: Mapping[str, str]) -> Iterator[Step]:
    if any("ground" in span.wires for span in wired.spans):
        probe = Probe(kind="ohms", a=(wired.panel, "ground"), b=(point, "ground"), state=State(on=False))
        cold, warm = (along(wired, point, "ground", celsius) for celsius in (COLD_C, HOT_C))
        yield Step(
            key="ground",
            title=f"Ground, panel to {names.get(point, point)}",
            sub=f"{wired.long(point)} of {wired.path(point)[-1].ground or '?'}, unplugged",
            kind="ohms",
            unit="Ω",
            low=0.0 if wired.known else None,
            high=_up(warm, METER_OHM) if wired.known else None,
            expected=cold if wired.known else None,
            section="250.4(A)(5)",
            caution="Breaker off.",
            where=point,
            probe=probe,
        )
    yield _word(
        INSULATION_READY,
        "Insulation, where the shop does it: all electronics off the circuit",
        "GFCI, AFCI, dimmers, alarms, surge devices out; line and neutral tied, neutral off its bar",
        "",
    )
    yield Step(
        key="insulation",
        title="Insulation, wires to ground",
        sub="500 V d.c. at most; new cable reads far over it",
        kind="megohms",
        unit="MΩ",
        low=LEAST_MEGOHMS,
        high=MOST_MEGOHMS,
        expected=None,
        section="IEC 60364-6, 6A",
        caution="500 V on every wire of it: nobody touches any end.",
        where=point,
        after=INSULATION_READY,
        probe=Probe(kind="megohms", a=(point, "hot"), b=(point, "ground"), state=State(on=False)),
    )


def _live(
    wired: Wired, circuit: Circuit, point: str, names: Mapping[str, str], boxes: Mapping[str, Box]
) -> Iterator[Step]:
    on = "One circuit at a time. Live: hands off the metal, one hand where it can be."
    at_panel, name = names.get(wired.panel, wired.panel), names.get(point, point)
    if wired.volts == 120:
        yield _volts(wired, "line_neutral", "Line to neutral", point, ("hot", "neutral"), name, on)
        yield _volts(wired, "line_ground", "Line to ground", point, ("hot", "ground"), name, on)
        if any("hot2" in span.wires for span in wired.spans):
            shared = next(span.box for span in wired.spans if "hot2" in span.wires)
            yield _volts(
                wired,
                "legs",
                "Hot to hot of the shared neutral",
                shared,
                ("hot", "hot2"),
                names.get(shared, shared),
                on,
            )
    else:
        yield _volts(wired, "line_line", "Line to line", point, ("hot", "hot2"), name, on)
        yield _volts(wired, "line_ground", "Line to ground", point, ("hot", "ground"), name, on)
    if wired.volts == 120 and wired.neutral:
        yield from _loaded(wired, point, name, at_panel)


def _volts(wired: Wired, key: str, title: str, box: str, wires: tuple[str, str], name: str, caution: str) -> Step:
    probe = Probe(kind="volts", a=(box, wires[0]), b=(box, wires[1]))
    has = all(any(w in span.wires for span in wired.path(box)) for w in wires) or box == wired.panel
    expected = read(wired, probe) if has else None
    nominal = SOURCE_V if expected is None or expected < 180 else 2 * SOURCE_V
    loaded = read(wired, Probe(kind="volts", a=probe.a, b=probe.b, state=State(loaded=True, celsius=HOT_C)))
    least = max(nominal * (1 - RANGE_A), loaded * (1 - METER) - METER_V) if has else nominal * (1 - RANGE_A)
    most = min((expected or nominal) * (1 + METER) + METER_V, nominal * (1 + RANGE_A) + METER_V * 8)
    sub = f"{nominal * (1 - RANGE_A):.0f} to {nominal * (1 + RANGE_A):.0f} by the standard"
    sub += f", {least:.0f} and up by this plan" if has and least > nominal * (1 - RANGE_A) + 0.5 else ""
    return Step(
        key=key,
        title=f"{title} at {name}, on",
        sub=sub,
        kind="volts",
        unit="V",
        low=min(least, most) if has else None,
        high=most if has else None,
        expected=expected,
        section="ANSI C84.1 range A",
        caution=caution,
        where=box,
        after="again",
        probe=probe,
    )


def _loaded(wired: Wired, point: str, name: str, at_panel: str) -> Iterator[Step]:
    state = loaded_at(point)
    for key, title, wires, section in (
        ("loaded", "Line to neutral, loaded", ("hot", "neutral"), "210.19 informational note"),
        ("neutral_ground", "Neutral to ground, loaded", ("neutral", "ground"), "common practice, no source"),
    ):
        probe = Probe(kind="volts", a=(point, wires[0]), b=(point, wires[1]), state=state)
        cold, warm = read(wired, probe), read(wired, _at(probe, HOT_C))
        if key == "loaded":
            low = max(SOURCE_V * (1 - 2 * RANGE_A), min(cold, warm) * (1 - METER) - METER_V)
            high = max(cold, warm) * (1 + METER) + METER_V
            sub = f"with {PLUG_W:.0f} W plugged in there; 5 % in all at the farthest outlet"
        else:
            low, high = max(min(cold, warm) * 0.5 - 0.1, 0.0), max(cold, warm) * 1.25 + 0.2
            sub = f"half of the circuit's drop: the plan says {cold:.1f} V; more: a loose neutral; none: a bootleg"
        if any(w not in (x for span in wired.path(point) for x in span.wires) for w in wires):
            continue
        yield Step(
            key=key,
            title=f"{title}, at {name}",
            sub=sub,
            kind="volts",
            unit="V",
            low=low if wired.known else None,
            high=high if wired.known else None,
            expected=cold if wired.known else None,
            section=section,
            caution=f"A heater of {PLUG_W:.0f} W, no longer than the reading takes.",
            where=point,
            after="again",
            probe=probe,
        )


def _devices(wired: Wired, circuit: Circuit, boxes: Mapping[str, Box], names: Mapping[str, str]) -> Iterator[Step]:
    if circuit.protection in ("gfci", "dual"):
        yield _trips("gfci", "The breaker", wired.panel, wired.far)
    for span in wired.spans:
        box = boxes.get(span.box)
        if box is not None:
            yield from _device(wired, box, names)
    if circuit.protection in ("afci", "dual"):
        yield _does(
            "afci", "Arc-fault breaker trips by its own button", "plug-in testers do not prove an arc-fault device",
            "210.12", wired.panel, Probe(kind="works", a=(wired.panel, "")),
        )  # fmt: skip


def _device(wired: Wired, box: Box, names: Mapping[str, str]) -> Iterator[Step]:
    if box.protects in ("gfci", "dual"):
        yield _trips(f"gfci:{box.id}", box.name, box.id, box.id)
        below = [names.get(s.box, s.box) for s in wired.spans if s.start == box.id]
        if below:
            yield _does(
                f"dies:{box.id}", f"{', '.join(below)} dead while {box.name} is tripped",
                "not dead: line and load are swapped", "210.8", box.id, Probe(kind="dies", a=(box.id, "")),
                after=f"gfci:{box.id}",
            )  # fmt: skip
    if box.kind == "switch" and box.ways > 2:
        yield _does(
            f"three_way:{box.id}", f"{box.name} works the light from every position of the others",
            "all positions of both, one after another", "404.2(A)", box.id, Probe(kind="works", a=(box.id, "")),
        )  # fmt: skip
    if box.interlock:
        yield _does(
            f"interlock:{box.id}", "The inlet's breaker goes on only with the main off",
            "try it with the generator away", "702.5", box.id, Probe(kind="works", a=(box.id, "")), after="",
            caution="Never with the generator connected: it would feed the street.",
        )  # fmt: skip


def _trips(key: str, name: str, where: str, at: str) -> Step:
    return _does(
        key, f"{name} trips", "by its own button, then reset; a time only from a tester that tells its current",
        "210.8", where, Probe(kind="trips", a=(at, "")), caution="Without a ground a plug-in tester cannot trip it.",
        words=("trips", "does not"),
    )  # fmt: skip


def _does(
    key: str,
    title: str,
    sub: str,
    section: str,
    where: str,
    probe: Probe | None,
    *,
    after: str = "again",
    caution: str = "",
    words: tuple[str, str] = ("yes", "no"),
) -> Step:
    """A step that is answered by a word."""
    return Step(
        key=key, title=title, sub=sub, kind="word", unit="", low=None, high=None, expected=None, section=section,
        caution=caution, where=where, after=after, words=words, probe=probe,
    )  # fmt: skip


def panel_steps(job: Job, book: Codebook, panel: Panel, sub: bool) -> list[Step]:
    """The order of proof of a panel: its legs, each other, neutral and ground, its rods."""
    low, high = SOURCE_V * (1 - RANGE_A), SOURCE_V * (1 + RANGE_A)
    live = "Live with its cover off: only who is qualified, with the gear on. Upper lugs stay live with the main off."
    found = [_word("tester", "Tester on a known live source", "a dead tester shows dead wires", "prove it first")]
    for key, title, times in (
        ("leg_a", "Leg A to neutral", 1),
        ("leg_b", "Leg B to neutral", 1),
        ("legs", "Leg to leg", 2),
    ):
        found.append(
            Step(
                key=key,
                title=f"{title}, {panel.name}",
                sub=f"{times * low:.0f} to {times * high:.0f} V by the standard",
                kind="volts",
                unit="V",
                low=times * low,
                high=times * high,
                expected=times * SOURCE_V,
                section="ANSI C84.1 range A",
                caution=live,
                where=panel.id,
                after="tester",
            )
        )
    if sub:
        found.append(
            Step(
                key="apart",
                title="Neutral to ground bar, feeder neutral lifted",
                sub="not a number: no path at all",
                kind="megohms",
                unit="MΩ",
                low=0.1,
                high=MOST_MEGOHMS,
                expected=None,
                section="250.24(A)(5)",
                caution="Feeder off and locked where it starts.",
                where=panel.id,
                after="tester",
            )
        )
        found.append(_word("bond", "Bond at the main alone", "the screw of this one is right out", "", after="apart"))
    for rod in job.electrodes:
        if rod.structure == panel.structure and rod.kind == "rod":
            found.append(
                Step(
                    key=f"rod:{rod.id}",
                    title=f"Rod {rod.id}, alone",
                    sub="over 25 Ω a second one, or one that is there",
                    kind="ohms",
                    unit="Ω",
                    low=0.0,
                    high=25.0,
                    expected=None,
                    section="250.53(A)(2)",
                    caution="Its conductor off: the service is dead for it.",
                    where=panel.id,
                )
            )
    return found


def _word(key: str, title: str, sub: str, caution: str, after: str = "") -> Step:
    words = ("all off", "not off") if key == INSULATION_READY else ("done", "not done")
    section = "NFPA 70E 120.5" if key in ("tester", "again") else ""
    return _does(key, title, sub, section, "", None, after=after, caution=caution, words=words)


def _at(probe: Probe, celsius: float) -> Probe:
    state = State(
        on=probe.state.on,
        loaded=probe.state.loaded,
        extra_w=probe.state.extra_w,
        extra_at=probe.state.extra_at,
        celsius=celsius,
    )
    return Probe(kind=probe.kind, a=probe.a, b=probe.b, state=state)


def _up(ohms: float, more: float) -> float:
    return ohms * 1.25 + more


__all__ = [
    "COLD_C",
    "GHOST_V",
    "INSULATION_READY",
    "MOST_GHOST_V",
    "Step",
    "circuit_steps",
    "panel_steps",
    "point_of",
]
