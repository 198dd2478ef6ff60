"""Codes of findings about what was read."""

from __future__ import annotations

from levelrun.core.findings import Code, Stage, finder

T: Stage = "test"
CODES: dict[str, Code] = {
    "reading-off": Code(
        "stop",
        "A reading is outside of its window.",
        "What it proves is not proved: something is wrong, or was read wrong.",
        "Find it, mend it, read it again.",
        T,
    ),
    "ghost-voltage": Code(
        "check",
        "Some tens of volts on a wire that should be dead, by a high-impedance meter.",
        "It may be coupled from wires beside it, and it may not.",
        "Read it with a low-impedance tester or a load.",
        T,
    ),
    "not-proved": Code(
        "check",
        "A circuit was read dead with a tester that was not proved before and after.",
        "A dead tester says dead.",
        "Prove it on a live source, read, prove it again.",
        T,
    ),
}

finding = finder(CODES)
