"""Codes of findings about what is bought."""

from __future__ import annotations

from levelrun.core.findings import Code, finder

CODES: dict[str, Code] = {
    "coil-short": Code(
        "stop",
        "What is said to be bought does not hold the cuts.",
        "The last cuts are made of nothing, or pieced together where no box is.",
        "The cheapest coils that hold every cut, or by the foot.",
        "buy",
    ),
    "cut-long": Code(
        "stop",
        "A cut is longer than the longest coil that is sold, and nobody sells it by the foot.",
        "A cable is never spliced to fit: it would want a box that stays in reach.",
        "Ask for a reel, or bring the panel nearer.",
        "buy",
    ),
    "not-sold": Code(
        "check",
        "No supplier of the price book sells this cable, wire or pipe.",
        "It is planned, and cannot be had: the kind is made seldom, or not for this.",
        "A kind that is sold, or a price of your own.",
        "buy",
    ),
    "no-price": Code(
        "check",
        "A part has no price.",
        "The total is too low by it.",
        "Say what it costs.",
        "buy",
    ),
    "fitting-al": Code(
        "stop",
        "A connector that is not listed for aluminum is to join it.",
        "Twist-on connectors are for copper: aluminum in them loosens and heats.",
        "Connectors marked for it, torqued to the label.",
        "buy",
    ),
    "back-order": Code(
        "check",
        "Something is not on the shelf, and comes later than it is needed, or nobody said when it is needed.",
        "The panel stands open, and the inspection with it.",
        "Order it first, take another, or move the day.",
        "buy",
    ),
}

finding = finder(CODES)
