"""Every reading that may be taken of a circuit: at each box, dead, on and loaded, and of each device."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from levelrun.core.job import Box, Circuit
from levelrun.core.testing.reading import Probe
from levelrun.core.testing.steps import loaded_at, point_of
from levelrun.core.testing.wired import State, Wired

OFF, ON = State(on=False), State()


def probes_of(wired: Wired, circuit: Circuit, boxes: Mapping[str, Box]) -> list[Probe]:
    """Every probe of a circuit, those of the order of proof first."""
    return list({probe.key: probe for probe in _probes(wired, circuit, boxes)}.values())


def _probes(wired: Wired, circuit: Circuit, boxes: Mapping[str, Box]) -> Iterator[Probe]:
    if not wired.spans:
        return
    loaded = loaded_at(point_of(wired, boxes))
    across = ("hot", "hot2") if wired.volts != 120 else ("hot", "neutral")
    for span in wired.spans:
        box, has = span.box, span.wires
        pairs = [across] + [(a, b) for a, b in (("hot", "ground"), ("hot", "hot2")) if a in has and b in has]
        yield Probe(kind="volts", a=(box, across[0]), b=(box, across[1]), state=OFF)
        for a, b in dict.fromkeys(pairs):
            if a in has and b in has:
                yield Probe(kind="volts", a=(box, a), b=(box, b), state=ON)
        if "neutral" in has and wired.volts == 120:
            yield Probe(kind="volts", a=(box, "hot"), b=(box, "neutral"), state=loaded)
            if "ground" in has:
                yield Probe(kind="volts", a=(box, "neutral"), b=(box, "ground"), state=loaded)
        if "ground" in has:
            yield Probe(kind="ohms", a=(wired.panel, "ground"), b=(box, "ground"), state=OFF)
            yield Probe(kind="megohms", a=(box, "hot"), b=(box, "ground"), state=OFF)
        found = boxes.get(box)
        if found is not None and found.protects in ("gfci", "dual"):
            yield Probe(kind="trips", a=(box, ""))
            yield Probe(kind="dies", a=(box, ""))
        if found is not None and found.kind == "switch" and found.ways > 2:
            yield Probe(kind="works", a=(box, ""))
    if wired.feeders:
        yield Probe(kind="megohms", a=(wired.panel, "neutral"), b=(wired.panel, "ground"), state=OFF)
    if circuit.protection in ("gfci", "dual"):
        yield Probe(kind="trips", a=(wired.far, ""))
