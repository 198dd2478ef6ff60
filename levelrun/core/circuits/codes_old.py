"""Codes of findings about circuits that were there before and are drawn out."""

from __future__ import annotations

from levelrun.core.findings import Code

OLD: dict[str, Code] = {
    "old-breaker": Code(
        "check",
        "An old circuit is drawn out, and nobody has said which breaker it is on.",
        "The wrong one is switched off, and the wire is live.",
        "Switch breakers off until it is dark, prove it dead, and say its space.",
        "circuits",
    ),
    "old-room": Code(
        "check",
        "A cable is added to an old box, and nobody has said what it holds.",
        "Wires are forced in, and nicked.",
        "Look what box it is, or set a bigger one.",
        "circuits",
    ),
    "old-ground": Code(
        "stop",
        "An old circuit without a ground is drawn out.",
        "A fault finds no way back, and a hand gives it one.",
        "A ground of its own, as 250.130(C) lists.",
        "circuits",
    ),
    "old-label": Code(
        "note",
        "A GFCI stands in for an old outlet without a ground.",
        "Somebody trusts three holes that have no ground behind them.",
        "The labels that come with it, on it and on what it protects.",
        "circuits",
    ),
    "old-else": Code(
        "note",
        "An old circuit is drawn out.",
        "It carries what nobody has counted.",
        "Switch it off and see what goes dark.",
        "circuits",
    ),
}
