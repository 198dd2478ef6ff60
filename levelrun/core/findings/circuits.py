"""Codes about circuits."""

from __future__ import annotations

from levelrun.core.findings.entry import CodeEntry

CIRCUITS: dict[str, CodeEntry] = {}
