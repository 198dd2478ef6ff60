"""Proof as a plan has it: the steps of each circuit and panel, what was read, what is said of it, where it may be."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.planned import PanelPlan
from levelrun.core.circuits.spaces import label
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding
from levelrun.core.job import Box, Circuit, Job, Measured
from levelrun.core.kept import Standing
from levelrun.core.measure import shown_in
from levelrun.core.rulebook import judged
from levelrun.core.testing.faults import faults_of
from levelrun.core.testing.probing import probes_of
from levelrun.core.testing.rules import RULES, ReadFacts
from levelrun.core.testing.steps import Step, circuit_steps, panel_steps, source_read
from levelrun.core.testing.verdicts import Verdict, verdict_of
from levelrun.core.testing.where import NextReading, Suspect, Taken, error_of, suspects, tells_most
from levelrun.core.testing.wired import Wired, wired_of

_steps = Standing[list[Step]](2048)


@dataclass(frozen=True, kw_only=True)
class Where:
    """Where it may be: the reading that is off, the faults, the next reading that tells most."""

    step: str
    value: float
    suspects: list[Suspect]
    next: NextReading | None


@dataclass(frozen=True, eq=False, kw_only=True)
class Proof:
    """All that is proved, and how."""

    job: Job
    book: Codebook
    circuits: Sequence[CircuitPlan]
    panels: Sequence[PanelPlan]

    @cached_property
    def plans(self) -> dict[str, CircuitPlan]:
        """Circuits as planned, by id."""
        return {item.summary.id: item for item in self.circuits}

    @cached_property
    def _circuits(self) -> dict[str, Circuit]:
        return {circuit.id: circuit for circuit in self.job.circuits}

    @cached_property
    def names(self) -> dict[str, str]:
        """What each circuit and panel is called here."""
        found = {panel.id: panel.name for panel in self.job.panels}
        return found | {c.id: f"{label(c) or '?'} {c.name}" for c in self.job.circuits}

    @cached_property
    def node_names(self) -> dict[str, str]:
        """The names of boxes and panels, by id."""
        return {node.id: node.name for node in self.job.nodes}

    def steps(self, of: str) -> list[Step]:
        """The order of proof of a circuit or panel; none where it is gone."""
        with shown_in(self.book.units):
            circuit = self._circuits.get(of)
            if circuit is not None:
                volts = source_read(self.job, circuit.panel)
                own = [self.boxes.get(hop.box) for hop in circuit.chain]
                return _steps.get(
                    (of, volts),
                    (self.book, circuit, self.job.circuits, self.plans[of], *self.job.panels, None, *own),
                    lambda: circuit_steps(self.job, self.book, circuit, self.plans),
                )
            panel = next((p for p in self.job.panels if p.id == of), None)
            if panel is None:
                return []
            drawn = next(item for item in self.panels if item.id == of)
            return panel_steps(self.job, self.book, panel, drawn.drawing.sub)

    @cached_property
    def boxes(self) -> dict[str, Box]:
        """Boxes by id."""
        return {box.id: box for box in self.job.boxes}

    @cached_property
    def _last(self) -> dict[str, dict[str, Measured]]:
        found: dict[str, dict[str, Measured]] = {}
        for item in self.job.measured:
            found.setdefault(item.of, {})[item.step] = item
        return found

    def last(self, of: str) -> dict[str, Measured]:
        """The last reading of each step of a circuit or panel."""
        return self._last.get(of, {})

    def verdict(self, of: str, step: Step) -> Verdict:
        """What is said of the last reading of a step."""
        return verdict_of(step, self.last(of).get(step.key))

    @cached_property
    def findings(self) -> list[Finding]:
        """What is said of readings: nothing where nobody read any."""
        steps = {of: self.steps(of) for of in self._last}
        with shown_in(self.book.units):
            return judged(self.book, RULES, ReadFacts(self.book, self.job, steps, self.names, self._last))

    def wired(self, circuit: Circuit) -> Wired:
        """A circuit as it is wired, fed with what its source reads."""
        return wired_of(self.job, self.book, circuit, self.plans, source_read(self.job, circuit.panel))

    def taken(self, circuit: Circuit) -> list[Taken]:
        """What was read of a circuit, one reading a step, the last one that is off at the end."""
        found: list[tuple[bool, Taken]] = []
        for step in self.steps(circuit.id):
            reading = self.last(circuit.id).get(step.key)
            if reading is None or step.probe is None or (step.kind != "word" and reading.value is None):
                continue
            value = float(reading.word == "yes") if step.kind == "word" else float(reading.value or 0.0)
            kind = "word" if step.kind == "word" else step.kind
            off = verdict_of(step, reading).verdict == "stop"
            found.append(
                (off, Taken(probe=step.probe, value=value, error=error_of(kind, step.low, step.high, value)))
            )
        return [item for _, item in sorted(found, key=lambda pair: pair[0])]

    def where(self, circuit: Circuit) -> Where | None:
        """Where it may be, once a reading is off."""
        wrong = [s for s in self.steps(circuit.id) if self.verdict(circuit.id, s).verdict == "stop" and s.probe]
        if not wrong:
            return None
        wired = self.wired(circuit)
        faults, taken = faults_of(self.job, circuit, wired), self.taken(circuit)
        probes = probes_of(wired, circuit, self.boxes)
        return Where(
            step=wrong[-1].key,
            value=taken[-1].value,
            suspects=suspects(wired, faults, taken, self.node_names),
            next=tells_most(wired, faults, taken, probes, self.node_names),
        )
