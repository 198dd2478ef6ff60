"""A hash that is worked out once: for frozen dataclasses that are keys of what is kept."""

from __future__ import annotations

from typing import Any

KEPT = "_kept_hash"


def kept_hash(self: Any) -> int:
    """The hash of all fields. Use as `__hash__ = kept_hash` in the body of a frozen dataclass."""
    kept: int | None = self.__dict__.get(KEPT)
    if kept is None:
        kept = hash(tuple(self.__dict__.values()))
        self.__dict__[KEPT] = kept
    return kept
