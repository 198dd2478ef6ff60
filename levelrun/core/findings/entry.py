"""One line of the catalogue."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class CodeEntry:
    """One line of the catalogue of finding codes."""

    severity: Literal["stop", "check", "note"]
    meaning: str
    why: str
    mend: str
