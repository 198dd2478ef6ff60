"""Codes of findings about what is remembered of the work."""

from __future__ import annotations

from levelrun.core.findings import Code, Stage, finder

R: Stage = "rough_in"
CODES: dict[str, Code] = {
    "closed-early": Code(
        "stop", "A wall is closed, and something in it was still waiting.",
        "What is not made up, photographed or seen by the inspector is behind the board now.",
        "Take it open again, or do there what it waited for.", R,
    ),
    "lifted-early": Code(
        "check", "A hold was lifted while something was found and not seen to be mended.",
        "The inspector comes back to it, with the wall shut.",
        "Hold it again, or record that it was seen.", R,
    ),
    "fault-open": Code(
        "check", "An inspector found something, and it is not mended yet.",
        "The visit failed by it, and so does the next one.", "Mend it, and say so.", R,
    ),
    "torque-off": Code(
        "check", "A terminal was torqued to something else than its label asks.",
        "Too loose it heats, too tight the strands are cut.", "Read the label again, torque it once more.", R,
    ),
    "left-out-live": Code(
        "check", "A box was left out, and others of its circuit hang on it.",
        "The wires to them end where it would have been.", "Chain them to the box before, or set it after all.", R,
    ),
}  # fmt: skip

finding = finder(CODES)
