"""Codes about boxes."""

from __future__ import annotations

from levelrun.core.findings.entry import CodeEntry

BOXES: dict[str, CodeEntry] = {}
