"""What a way through the frame is reminded of: holes in plates are sealed, roof decks are nailed."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.findings import Finding
from levelrun.core.rulebook import Rule
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView

THICK = ("RMC", "IMC")


def fire_stop_rule(view: WayView) -> Iterator[Finding]:
    """Holes through plates are sealed, so that fire does not climb from floor to floor (300.21, IRC R302.11)."""
    through = [index for index in view.indexes if view.through_plate(index)]
    if through:
        yield finding(
            "fire-stop", view.way.id, through[0], "Seal the hole in the plate",
            "Caulk or foam that is made for it round each cable and pipe, before the inspection.",
            "300.21, IRC R302.11",
        )  # fmt: skip


def roof_deck_rule(view: WayView) -> Iterator[Finding]:
    """Cable and thin pipe stay 1-1/2 in under a roof deck: roofers nail through it (300.4(E))."""
    near = [i for i, leg in enumerate(view.way.legs) if leg.place == "attic" and leg.method not in THICK]
    if near:
        yield finding(
            "roof-deck", view.way.id, near[0], "Stay clear of the roof deck",
            "1½ in under it at least, or heavy steel pipe: roofers nail through it.", "300.4(E)",
        )  # fmt: skip


RULES: tuple[Rule[WayView], ...] = (fire_stop_rule, roof_deck_rule)
