"""What the plan has to say: findings with mends, figures with their reason, and what a catalogue of codes is."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

LOCAL = "local note"
Severity = Literal["stop", "check", "note"]
Stage = Literal["walls", "boxes", "circuits", "runs", "pipe", "trench", "buy", "rough_in", "test"]
SEVERITY_ORDER: dict[str, int] = {"stop": 0, "check": 1, "note": 2}


@dataclass(frozen=True)
class Code:
    """One line of the catalogue of finding codes. `stage`: where it is mended."""

    severity: Severity
    meaning: str
    why: str
    mend: str
    stage: Stage


@dataclass(frozen=True, kw_only=True)
class Figure:
    """A number with its reason. `value` is unrounded; `text` is what is shown.

    limit: where the red line stands, same unit; low_is_bad: True where less than the limit fails;
    beyond_text: by how much it fails, as read aloud, empty while it does not; advised: its limit is advice, so that
    beyond it something is to be looked at and nothing has failed.
    """

    key: str
    label: str
    value: float
    text: str
    unit: str
    formula: str
    inputs: dict[str, str]
    rule: str
    basis: str
    limit: float | None = None
    limit_text: str = ""
    low_is_bad: bool = False
    beyond_text: str = ""
    advised: bool = False


@dataclass(frozen=True)
class Mend:
    """A one-tap repair: a label and the edits it makes, as plain data of the edit models."""

    label: str
    edits: list[dict[str, Any]]


@dataclass(frozen=True, kw_only=True)
class Finding:
    """One thing that is wrong, in doubt, or worth knowing.

    `about` is way, room, box, panel, circuit, structure, trench,
    span, item (by its name), surface (room and surface), hold or fault; `subject` its id. Of a way, `leg` counts
    from 0, None for the way as a whole, and `last` is the last leg where it spans several. `room` is where to look
    for it.
    """

    severity: Severity
    code: str
    subject: str
    leg: int | None
    title: str
    text: str
    section: str
    measured: str = ""
    limit: str = ""
    mends: list[Mend] = field(default_factory=list)
    last: int | None = None
    decided_by: str = "book"
    about: str = "way"
    room: str = ""
    stage: Stage = "runs"

    def covers(self, leg: int) -> bool:
        """Whether it speaks of this leg."""
        return self.leg is not None and self.leg <= leg <= (self.leg if self.last is None else self.last)


def finder(codes: Mapping[str, Code]) -> Callable[..., Finding]:
    """The maker of a subject's findings: each takes its severity and stage from the subject's catalogue."""

    def finding(
        code: str, subject: str, leg: int | None, title: str, text: str, section: str, **more: Any
    ) -> Finding:
        """A finding of this subject. Raises KeyError for a code that its catalogue does not have."""
        entry, by = codes[code], "note" if LOCAL in section else "book"
        return Finding(
            severity=entry.severity,
            code=code,
            subject=subject,
            leg=leg,
            title=title,
            text=text,
            section=section,
            decided_by=by,
            stage=entry.stage,
            **more,
        )

    return finding


def worst(findings: Iterable[Finding]) -> str:
    """stop, check or fine: what a row in a list shows. Notes alone count as fine."""
    severities = {item.severity for item in findings}
    return "stop" if "stop" in severities else "check" if "check" in severities else "fine"
