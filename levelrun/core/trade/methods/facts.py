"""What a place is like for one leg: the usual facts of such a place with the changes said."""

from __future__ import annotations

from dataclasses import fields, replace
from functools import lru_cache
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import PlaceFacts, place

CHANGEABLE = ("moisture", "exposed", "damage", "sunlight", "ambient_c", "insulation", "above")


def facts_of(book: Codebook, place_key: str, changes: dict[str, Any]) -> PlaceFacts:
    """The facts of a place; `changes` maps changeable names to values, None meaning as usual.

    A caller's `above` wins over the place's own. Raises UnknownKeyError for an unknown place.
    """
    usual = place(book, place_key)
    said = tuple((name, value) for name, value in changes.items() if value is not None)
    return _changed(usual, tuple(item for item in said if item[0] != "above" or usual.above))


@lru_cache(maxsize=4096)
def _changed(usual: PlaceFacts, said: tuple[tuple[str, Any], ...]) -> PlaceFacts:
    assert {name for name, _ in said} <= {item.name for item in fields(usual)}
    return replace(usual, **dict(said))
