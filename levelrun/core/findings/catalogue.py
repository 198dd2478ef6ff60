"""The catalogue of finding codes, by what they speak of."""

from __future__ import annotations

from levelrun.core.findings.boxes import BOXES
from levelrun.core.findings.circuits import CIRCUITS
from levelrun.core.findings.entry import CodeEntry
from levelrun.core.findings.runs import RUNS

CATALOGUE: dict[str, CodeEntry] = {**RUNS, **BOXES, **CIRCUITS}
