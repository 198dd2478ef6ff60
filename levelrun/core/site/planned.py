"""A level planned: what is wrong with it as drawn."""

from __future__ import annotations

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding
from levelrun.core.rulebook import judged, keeping
from levelrun.core.site.faces import LevelParts
from levelrun.core.site.rules import drawn


@keeping(128)
def level_findings(book: Codebook, parts: LevelParts) -> tuple[Finding, ...]:
    """Everything wrong with one level as drawn. Kept for as long as nothing on it changes."""
    return tuple(judged(book, drawn.RULES, parts))
